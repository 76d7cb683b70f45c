"""The members of a Java class: where its methods use them, by their bare names or through ``this``, and the class as
variables and functions."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.model import Function, Reference, Scope, SourceFile, Symbol
from ....program.whole import Declared, MemberUse, Whole
from ...braced.blocks import within
from ..writing.moving import bared
from ..writing.text import TEXT
from ..writing.words import sketch
from .walk import modifiers
from .walk_names import RECEIVER

REACHING = re.compile(rb"\b(get(Declared)?(Fields?|Methods?)|Serializable|ObjectOutputStream|MethodHandles)\b")
OWN_WAYS = re.compile(rb"\b(super|(wait|notify|notifyAll|getClass|hashCode|clone)\s*\(|[A-Z]\w*\s*\.\s*this\b)")
BASES = ("superclass", "super_interfaces", "type_parameters")


def whole(file: SourceFile, name: str) -> Whole | None:
    scope = next((s for s, n in file.classes if n == name and s.parent is file.scope), None)
    node = declaration_of(file, scope) if scope is not None else None
    if scope is None or node is None or any(n == name for _, n in file.inheriting) or REACHING.search(file.text):
        return None
    if (
        OWN_WAYS.search(file.text, scope.start, scope.end)
        or any(c.type in BASES for c in node.named_children)
        or not reachable(file, node, name)
    ):
        return None
    methods = [f for f in file.functions if f.outer is scope]
    names = [f.name for f in methods]
    if names.count(TEXT.CONSTRUCTOR) > 1:
        return None
    plain = {
        f.name
        for f in methods
        if f.name != TEXT.CONSTRUCTOR
        and names.count(f.name) == 1
        and modifiers(f.node) <= {"public", "private", "protected", "final"}
    }
    found = Whole(name, scope, methods, RECEIVER, plain)
    for child in node.child_by_field_name("body").named_children:
        if child.type == "field_declaration" and "static" not in modifiers(child):
            declare(file, found, child)
    found.head = Function(
        "",
        scope,
        scope,
        node.start_byte,
        node.end_byte,
        node.start_byte,
        node.start_byte,
        node.start_byte,
        [],
        0,
        0,
        node.start_byte,
    )
    for r, member in members(file, found):
        f = next((f for f in methods if f.start <= r.start < f.end), None)
        span = (r.start, r.end if r.name == member else member_end(file, r))
        own = (r.start, r.start) if r.name == member else (r.start, r.end)
        kind = kind_of(file, r, member, found) if f is not None else "other"
        found.uses.append(MemberUse(member, *span, own, f or found.head, kind, f is None or later(r, f)))
    found.uses.sort(key=lambda u: u.start)
    return found


def declaration_of(file: SourceFile, scope: Scope) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    return node if node.type == "class_declaration" else None


def reachable(file: SourceFile, node: Any, name: str) -> bool:
    """Whether a class can stand beside it: it is the program's own, or one inside of it that needs no object around."""
    if name == file.scope.name or sketch(file):
        return True
    around = node.parent.parent if node.parent is not None else None
    own = (
        around is not None
        and around.type == "class_declaration"
        and around.child_by_field_name("name").text.decode() == file.scope.name
    )
    return own and "static" in modifiers(node)


def declare(file: SourceFile, found: Whole, node: Any) -> None:
    names = [c for c in node.named_children if c.type == "variable_declarator"]
    kind = node.child_by_field_name("type").text.decode(file.encoding)
    for one in names:
        value = one.child_by_field_name("value")
        plain = (
            len(names) == 1
            and one.child_by_field_name("dimensions") is None
            and modifiers(node) <= {"public", "private", "protected", "final"}
        )
        name = one.child_by_field_name("name").text.decode(file.encoding)
        found.declared[name] = Declared(
            node.start_byte,
            node.end_byte,
            (value.start_byte, value.end_byte) if value is not None else None,
            kind,
            plain,
        )


def members(file: SourceFile, found: Whole) -> Iterator[tuple[Reference, str]]:
    """Each use of a member, bare or through the object, with its name; the object itself where it is handed on is
    noted."""
    scope = found.scope
    heads = {d.start: d.end for d in found.declared.values()}
    for symbol in scope.symbols.values():
        if symbol.name == RECEIVER or symbol.name == TEXT.CONSTRUCTOR:
            continue
        for r in symbol.references:
            declares = r.writes and any(a <= r.start < b for a, b in heads.items()) and r.scope is scope
            if not declares and r.form != "definition":
                yield r, symbol.name
    for inner in scope.walk():
        if RECEIVER in inner.symbols and own_receiver(inner, scope):
            for r in inner.symbols[RECEIVER].references:
                if r.member and taken(file, r):
                    yield r, r.member
                else:
                    found.escapes.append(r.start)


def own_receiver(inner: Scope, scope: Scope) -> bool:
    """Whether the receiver of a function is an object of this class, not of one inside."""
    at: Scope | None = inner
    while at is not None and at.kind != "class":
        at = at.parent
    return at is scope


def taken(file: SourceFile, r: Reference) -> bool:
    node = file.tree.root_node.descendant_for_byte_range(r.start, r.end)
    return node.parent is not None and node.parent.type in ("field_access", "method_invocation")


def member_end(file: SourceFile, r: Reference) -> int:
    node = file.tree.root_node.descendant_for_byte_range(r.start, r.end).parent
    return int(node.child_by_field_name("field" if node.type == "field_access" else "name").end_byte)


def kind_of(file: SourceFile, r: Reference, member: str, found: Whole) -> str:
    node = file.tree.root_node.descendant_for_byte_range(r.start, r.end)
    method = any(f.name == member for f in found.methods)
    if method:
        around = node.parent
        return (
            "call"
            if around.type == "method_invocation" and (r.name != member or around.child_by_field_name("name") == node)
            else "other"
        )
    if member not in found.declared:
        return "other"  # a class inside, which needs the object around it
    if r.name == member:
        return "set" if r.writes else "read"
    around = node.parent
    if around.type != "field_access":
        return "other"
    outer = around.parent
    if outer.type == "update_expression" or (
        outer.type == "assignment_expression" and outer.child_by_field_name("left") == around
    ):
        return "set"
    return "read"


def later(r: Reference, f: Function) -> bool:
    """Whether a use stands in a function inside the method."""
    at: Scope | None = r.scope
    while at is not None and at is not f.scope:
        if at.kind in ("function", "class"):
            return True
        at = at.parent
    return False


def flattened(file: SourceFile, whole: Whole) -> tuple[bytes, dict[str, str]]:
    shown = {m: m for m in [*whole.fields, *(f.name for f in whole.methods if f.name != TEXT.CONSTRUCTOR)]}
    word = "" if sketch(file) else "static "
    lines = [f"{word}{whole.declared[m].type} {m};" for m in whole.fields] + [""]
    for f in whole.methods:
        if f.name not in whole.plain:
            continue
        first = next(c for c in f.node.children if c.type != "modifiers")
        edits = [(u.start, u.end, u.name) for u in whole.of(f) if u.own[0] != u.own[1]]
        text = TEXT.shifted(file, first.start_byte, f.end, edits, "", "")
        lines += [word + str(text), ""]
    text = "\n".join(lines)
    if not sketch(file):
        text = f"class {file.scope.name} {{\n{text}\npublic static void main(String[] args) {{\n}}\n}}\n"
    return text.encode(), {n: m for m, n in shown.items()}


def declaration(file: SourceFile, like: Declared, name: str, class_: str, value: str) -> str:
    words = [
        w
        for w in ("public", "protected", "private", "final")
        if re.search(rf"\b{w}\b", file.slice(like.start, like.end).partition("=")[0])
    ]
    return f"{''.join(w + ' ' for w in words)}{class_} {name}{' = ' + value if value else ''};"


def opened(file: SourceFile, function: Function) -> list[tuple[int, int, str]]:
    return bared(function.node)


def place(file: SourceFile, whole: Whole) -> int:
    """Where a class goes that is taken out of it: inside the program's class, before what that one's objects have."""
    if whole.name != file.scope.name:
        return whole.scope.start
    return min([d.start for d in whole.declared.values()] + [f.start for f in whole.methods])


def outside(file: SourceFile, whole: Whole, names: set[str]) -> tuple[str, int] | None:
    own = {u.start for u in whole.uses}
    for node in within(file.tree.root_node, 0, len(file.text)):
        field = {"field_access": "field", "method_invocation": "name"}.get(node.type)
        if node.type == "method_reference":
            text, base = node.children[-1].text.decode(file.encoding), node.children[0]
        elif field is not None and node.child_by_field_name("object") is not None:
            text, base = node.child_by_field_name(field).text.decode(file.encoding), node.child_by_field_name("object")
        else:
            continue
        if text in names and node.start_byte not in own and may_be(file, base, whole):
            return f"'{text}' is used outside of {whole.name}", node.start_byte
    return None


def may_be(file: SourceFile, base: Any, whole: Whole) -> bool:
    """Whether what a member is asked of may be an object of the class."""
    if base.type == "object_creation_expression":
        return bool(base.child_by_field_name("type").text.decode() == whole.name)
    if base.type in ("string_literal", "super"):
        return False
    if base.type == "this":
        at = next((r.scope for r in file.within(base.start_byte, base.end_byte)), None)
        while at is not None and at.kind != "class":
            at = at.parent
        return at is None or at is whole.scope
    root = base
    while (
        root.type in ("field_access", "method_invocation", "array_access", "parenthesized_expression")
        and root.named_children
    ):
        root = root.child_by_field_name("object") or root.named_children[0]
    symbol = (
        next((r.symbol for r in file.within(root.start_byte, root.end_byte)), None)
        if root.type == "identifier"
        else None
    )
    if symbol is not None and (not symbol.kinds or symbol.kinds == {"import"}):
        return root is base and bool(symbol.name[:1].islower())  # what a library offers holds none
    kind = declared_type(file, symbol) if symbol is not None and root is base else ""
    return not kind or whole.name in kind or kind in ("var", "Object") or len(kind) == 1


def declared_type(file: SourceFile, symbol: Symbol) -> str:
    """The type that a variable is declared with; "" if it has none."""
    for r in symbol.references:
        node = file.tree.root_node.descendant_for_byte_range(r.start, r.end).parent if r.writes else None
        while node is not None and node.type in (
            "variable_declarator",
            "formal_parameter",
            "local_variable_declaration",
            "field_declaration",
            "enhanced_for_statement",
            "resource",
        ):
            kind = node.child_by_field_name("type")
            if kind is not None:
                return str(kind.text.decode(file.encoding))
            node = node.parent
    return ""
