"""A class that moves to a file of its own: what it takes along, and what must open up for it.

A sketch's files are one program, so a class only changes its place. In Java a nested class becomes one of the
package: what it uses of its old home is written with the name of that home.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.edits import Range as Edit
from ....program.layout import line_end
from ....program.model import Reference, Scope, SourceFile, Statement, Symbol
from ..reading.walk import modifiers


def home_references(file: SourceFile, scope: Scope) -> list[Reference]:
    """Uses of the old home's variables, functions and types inside the class."""
    return [
        r
        for r in file.within(scope.start, scope.end)
        if r.symbol is not None
        and r.symbol.scope is file.scope
        and (r.symbol.kinds & {"variable", "function"} or nested(file, r, scope))
    ]


def bare_references(file: SourceFile, scope: Scope) -> list[Reference]:
    """Those of them that do not say whose they are."""
    return [r for r in home_references(file, scope) if r.form not in ("qualified", "method reference")]


def nested(file: SourceFile, ref: Reference, scope: Scope) -> bool:
    """Whether a use means another type that stands inside the home, and not beside it."""
    symbol = ref.symbol
    if symbol is None or "class" not in symbol.kinds or symbol.name == scope.name:
        return False
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    if node.parent is not None and node.parent.type == "switch_label":
        return False  # the name of a constant
    return any(
        name == symbol.name and s.parent is file.scope and declaration(file, s).parent.type != "program"
        for s, name in file.classes
    )


def declaration(file: SourceFile, scope: Scope) -> Any:
    return file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)


def stays_in(file: SourceFile, scope: Scope | None = None) -> str:
    """Why a class cannot move out of its file: it sees what the other types beside it hide; "" if it can."""
    if scope is None or file.path.endswith(".pde"):
        return ""
    secret = hidden_members(file, scope)
    for node in descendants(file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)):
        if node.type in ("field_access", "method_invocation", "object_creation_expression"):
            part = {"field_access": "field", "method_invocation": "name"}.get(node.type, "type")
            name = file.slice(*span(node.child_by_field_name(part)))
            if name in secret and (part == "type" or may_hold(file, node.child_by_field_name("object"))):
                return f"line {file.shown(node.start_byte)}: '{name}' is hidden in a type beside it"
    return ""


def may_hold(file: SourceFile, base: Any) -> bool:
    """Whether what a member is taken from may be an object of the program's own types: not the receiver, nor a
    library's class."""
    if base is None or base.type == "this":
        return False
    if base.type != "identifier":
        return True
    uses = [r for r in file.within(base.start_byte, base.end_byte) if r.symbol is not None]
    return any(r.symbol is not None and r.symbol.kinds for r in uses)


def hidden_members(file: SourceFile, scope: Scope) -> set[str]:
    """The names of what is private in the types beside a class; a constructor is named as its type."""
    found: set[str] = set()
    for other, _ in file.classes:
        if other is scope or other.within(scope) or other.parent is not file.scope:
            continue
        node = file.tree.root_node.named_descendant_for_byte_range(other.start, other.end)
        body = node.child_by_field_name("body") if node is not None else None
        for member in body.named_children if body is not None else []:
            if "private" not in modifiers(member):
                continue
            named = [c.child_by_field_name("name") for c in member.named_children if c.type == "variable_declarator"]
            for name in named or [member.child_by_field_name("name")]:
                if name is not None:
                    found.add(file.slice(*span(name)))
    return found


def descendants(node: Any) -> Iterator[Any]:
    stack = [node]
    while stack:
        at = stack.pop()
        yield at
        stack.extend(at.named_children)


def span(node: Any) -> tuple[int, int]:
    return node.start_byte, node.end_byte


def moved_out(file: SourceFile, statement: Statement, start: int, unit: str, imports: list[str]) -> str:
    """The text of a file that holds the class alone."""
    end = line_end(file, statement.end)
    if file.path.endswith(".pde"):
        return file.slice(start, end)
    scope = next(s for s, _ in file.classes if statement.start <= s.start < statement.end)
    edits = [(r.start, r.start, file.scope.name + ".") for r in bare_references(file, scope)]
    words = next((c for c in statement.node.children if c.type == "modifiers"), None)
    if words is not None:
        kept = [c for c in words.children if c.type not in ("static", "private")]
        following = next(c for c in statement.node.children if c.type != "modifiers")
        edits.append(
            (words.start_byte, following.start_byte, "".join(file.slice(c.start_byte, c.end_byte) + " " for c in kept))
        )
    edits += opened_fields(file, scope)
    text = spliced(file, start, end, edits)
    lines = text.splitlines(keepends=True)
    body = "".join(line[len(unit) :] if line.startswith(unit) else line for line in lines)
    package = re.search(r"^\s*(package\s+[\w.]+\s*;)", file.slice(0, len(file.text)), re.M)
    head = f"{package[1]}\n\n" if package else ""
    return head + "".join(imports) + ("\n" if imports else "") + body


def opened_fields(file: SourceFile, scope: Scope) -> list[Edit]:
    """Hidden fields that others use by name can no longer be hidden from them."""
    edits: list[Edit] = []
    used = {
        r.member
        for r in file.references
        if r.member
        and not r.scope.within(scope)
        and r.symbol is not None
        and r.symbol.kinds & {"variable", "parameter"}
        and (r.name != "this" or file.inheriting)
        and not of_another(file, scope, r.symbol)
    }
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    for member in node.child_by_field_name("body").named_children:
        names = [c.child_by_field_name("name") for c in member.named_children if c.type == "variable_declarator"]
        if "private" in modifiers(member) and any(file.slice(n.start_byte, n.end_byte) in used for n in names):
            word = next(c for m in member.children if m.type == "modifiers" for c in m.children if c.type == "private")
            edits.append((word.start_byte, word.end_byte + 1, ""))
    return edits


def of_another(file: SourceFile, scope: Scope, symbol: Symbol) -> bool:
    """Whether a variable of the home is declared as an object of another of its classes, which has nothing to do with
    this one."""
    told = [
        s for s in file.statements if s.target is not None and s.target.symbol is symbol and s.annotation is not None
    ]
    kinds = {file.slice(*s.annotation) for s in told if s.annotation is not None}
    related = {base for s, base in file.inheriting} | {
        name for s, name in file.classes if any(x is s for x, _ in file.inheriting)
    }
    return bool(kinds) and kinds <= {name for _, name in file.classes} - related - {scope.name}


def opened(file: SourceFile, statement: Statement) -> list[Edit]:
    """Edits in the old home: what the class uses of it can no longer be private."""
    if file.path.endswith(".pde"):
        return []
    scope = next(s for s, _ in file.classes if statement.start <= s.start < statement.end)
    wanted = {r.symbol for r in home_references(file, scope)}
    for f in file.functions:  # a lambda that is handed to them becomes an object of their parameter's type
        if f.symbol in wanted:
            wanted |= {r.symbol for r in file.within(f.start, f.body_start)}
    edits: list[Edit] = []
    for other, name in file.classes:
        if other.parent is file.scope and any(name == s.name for s in wanted if s is not None and "class" in s.kinds):
            edits += bared(declaration(file, other))
    for s in file.statements:
        names = {
            r.symbol for r in file.within(s.start, s.end) if r.writes and r.symbol is not None and r.scope is file.scope
        }
        if s.node is None or not names & wanted or statement.start <= s.start < statement.end:
            continue
        edits += bared(s.node)
    return list(dict.fromkeys(edits))


def renamed_elsewhere(file: SourceFile, home: SourceFile, name: str) -> list[Edit]:
    """Edits in another file that named a class by its old home."""
    found = []
    for node in descendants(file.tree.root_node):
        if node.type in ("scoped_type_identifier", "field_access", "scoped_identifier"):
            parts = [file.slice(c.start_byte, c.end_byte) for c in node.named_children]
            if parts == [home.scope.name, name]:
                found.append((node.start_byte, node.end_byte, name))
    return found


def bared(node: Any) -> list[Edit]:
    """Edits that take away the word "private" in front of a declaration."""
    groups = [c for c in node.children if c.type == "modifiers"]
    words = [w for group in groups for w in group.children if w.type == "private"]
    return [(w.start_byte, w.end_byte + 1, "") for w in words]


def spliced(file: SourceFile, start: int, end: int, edits: list[Edit]) -> str:
    parts, at = [], start
    for left, right, text in sorted(edits):
        parts += [file.slice(at, left), text]
        at = right
    return "".join([*parts, file.slice(at, end)])
