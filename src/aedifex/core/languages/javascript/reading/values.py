"""What becomes of a function that turns into a method: its use as a value, its receiver, its stricter body."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ....program.edits import Range as Edit
from ....program.model import Function, Reference, Scope, SourceFile
from ..facts.pure import apis
from ..writing.words import STRICT
from .imports import kind_of
from .walk import strict_body
from .walk_names import RECEIVER

OCTAL = re.compile(rb"(?<![\w.$])0\d+(?![\w.])")
ARROW_FITS = frozenset(
    """
    arguments pair assignment_expression variable_declarator return_statement parenthesized_expression array
    """.split()
)


def strict(file: SourceFile) -> bool:
    """Whether a whole file is strict already, so that a class body changes nothing."""
    return kind_of(file) == "module" or strict_body(file.tree.root_node)


def class_trouble(file: SourceFile, start: int, end: int, main: bool = False) -> str:
    """Why a stretch of code would mean something else inside a class; "" if it would not."""
    f = next((f for f in file.functions if f.start == start and f.end == end), None)
    found = stricter(file, start, end, f) or waiting(file, start, end, main)
    if not found and f is not None:
        found = made_of(file, f) or handed_on(file, f) or inner_trouble(file, f)
    for ref in file.within(start, end) if not found else ():
        if ref.name == RECEIVER and ref.symbol is not None and ref.symbol.scope is file.scope:
            return "'this' is that of the file"
        if ref.name == "arguments" and not inside_function(ref.scope, f):
            return "'arguments' is not its own"
    return found


def inside_function(scope: Scope, f: Function | None) -> bool:
    """Whether some function around, that is not an arrow, has arguments of its own."""
    at: Scope | None = scope
    while at is not None:
        if at.receiver is not None and at.kind == "function":
            return True
        at = at.parent
    return False


def stricter(file: SourceFile, start: int, end: int, f: Function | None) -> str:
    """What a class body, which is always strict, would change."""
    if strict(file) or (f is not None and f.node is not None and strict_body(f.node.child_by_field_name("body"))):
        return ""
    text = file.text[start:end]
    if OCTAL.search(text):
        return "a number is written in the old octal way, which a class does not allow"
    for ref in file.within(start, end):
        symbol = ref.symbol
        if ref.role == "delete":
            return f"'{ref.name}' is deleted, which a class does not allow"
        if ref.name in STRICT:
            return f"the name '{ref.name}' cannot be used inside a class"
        if ref.writes and symbol is not None and symbol.scope is file.scope and ref.name not in file.scope.bound:
            return f"'{ref.name}' is never declared, which a class does not allow"
        if ref.name == "arguments" and (ref.member in ("callee", "caller") or f is None or rebinds(f)):
            return "'arguments' follows the parameters only outside a class"
    return ""


def rebinds(f: Function) -> bool:
    return any(
        r.writes and r.form != "parameter" for p in f.params if p.name for r in f.scope.symbols[p.name].references
    )


def waiting(file: SourceFile, start: int, end: int, main: bool) -> str:
    """Main code that waits at the top cannot be the body of a plain method."""
    if not main:
        return ""
    for ref in file.within(start, end):
        if ref.name in ("module", "exports") and ref.symbol is not None and not ref.symbol.kinds and ref.member != "id":
            return "the main code offers names to other files"
    stack = [file.tree.root_node.descendant_for_byte_range(start, end)]
    while stack:
        node = stack.pop()
        if node.type == "export_statement" and node.start_byte >= start:
            return "the main code offers names to other files"
        if node.type == "await_expression" or (
            node.type == "for_in_statement" and any(c.type == "await" for c in node.children)
        ):
            return "the main code waits for something"
        if node.type not in ("arrow_function", "function_expression", "function_declaration", "method_definition"):
            stack.extend(c for c in node.named_children if c.start_byte < end and c.end_byte > start)
    return ""


def made_of(file: SourceFile, f: Function) -> str:
    """A function that makes objects, or that knows itself by another name, is no method."""
    for call in file.calls_of(f.symbol) if f.symbol is not None else ():
        node = call.node if call.node.type == "new_expression" else call.node.parent
        if node is not None and node.type == "new_expression":
            return f"line {file.shown(call.start)}: it is called with 'new'"
        if node is not None and node.type == "call_expression" and call.callee.start > node.start_byte:
            continue
    around = f.scope.parent
    inner = (
        around is not None and around.kind == "block" and around.parent is f.outer
    )  # which holds nothing but its own name
    for own in around.symbols.values() if inner and around is not None else ():
        if any(not r.writes for r in own.references):
            return f"it calls itself by its inner name '{own.name}'"
    if RECEIVER in f.scope.symbols or re.match(r"\s*this\s*:", file.slice(f.params_start, f.params_end)):
        return "it already uses 'this'"
    return ""


# -- functions as values -------------------------------------------------------------------------


def handed_on(file: SourceFile, f: Function) -> str:
    for ref in f.symbol.references if f.symbol is not None else ():
        if not ref.writes and ref.role != "call" and not ref.member and not bindable(file, f, ref):
            return f"line {file.shown(ref.start)}: it is passed on where it matters which function it is"
    return ""


def bindable(file: SourceFile, f: Function, ref: Reference) -> bool:
    """Whether a bound copy of the method does as well as the function itself."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent
    if ref.form not in ("", "shorthand") or parent is None:
        return False
    table = apis()["register"]
    if parent.type == "arguments":
        callee = parent.parent.child_by_field_name("function") or parent.parent.child_by_field_name("constructor")
        if callee.type == "identifier":
            name = callee.text.decode()
            if name in table["functions"]:
                return all(
                    r.symbol is not None and not r.symbol.kinds
                    for r in file.within(callee.start_byte, callee.start_byte + 1)
                )
        elif (
            callee.type == "member_expression"
            and callee.child_by_field_name("property").text.decode() in table["members"]
        ):
            return True
    return once(file, f, ref) and (
        parent.type == "arguments" or (parent.type == "assignment_expression" and member_target(parent))
    )


def member_target(node: Any) -> bool:
    return bool(node.child_by_field_name("left").type == "member_expression")


def once(file: SourceFile, f: Function, ref: Reference) -> bool:
    """Whether a function is handed on at one place, which runs once: then nobody can compare it with another copy."""
    others = [r for r in f.symbol.references if r is not ref and not r.writes and r.role != "call"] if f.symbol else []
    if others or ref.scope.frame is not file.scope:
        return False
    at: Scope | None = ref.scope
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    while node is not None:
        if node.type in ("for_statement", "for_in_statement", "while_statement", "do_statement"):
            return False
        node = node.parent
    return at is not None


def method_as_value(text: str, owner: str) -> str:
    """A method loses its object when it is taken from it, so it is bound; where that would matter, it stays a function
    (``handed_on``)."""
    return f"{text}.bind({owner})"


# -- receivers -----------------------------------------------------------------------------------


def between(scope: Scope, top: Scope) -> Scope | None:
    """The nearest function around a scope, below ``top``, that has a receiver of its own."""
    at: Scope | None = scope
    while at is not None and at is not top:
        if at.receiver is not None:
            return at
        at = at.parent
    return None


def outward(
    file: SourceFile, refs: Sequence[Reference], fields: set[str], methods: set[str]
) -> tuple[list[tuple[int, int, str]], str]:
    """Uses of other names inside a class that has members of the same names: a member is never meant without its
    object."""
    return [], ""


def receiver_at(file: SourceFile, scope: Scope, top: Scope, class_: str) -> str:
    """How code in ``scope`` names the object of the method ``top``: inner functions become arrows, which see it."""
    return "this"


def inner_receivers(file: SourceFile, top: Scope, refs: Sequence[Reference]) -> tuple[list[Edit], str]:
    """Edits that make functions inside a method see its receiver: they become arrows, where that is the same."""
    edits: list[Edit] = []
    done: set[int] = set()
    for ref in refs:
        scope = between(ref.scope, top)
        while scope is not None:
            if id(scope) not in done:
                node = function_node(file, scope)
                if node is None or not arrow_fits(file, scope, node):
                    return (
                        [],
                        f"line {file.shown(ref.start)}: '{ref.name}' is used in a function that has a 'this' of its "
                        "own",
                    )
                edits += to_arrow(node)
                done.add(id(scope))
            scope = between(scope.parent, top) if scope.parent is not None else None
    return edits, ""


def inner_trouble(file: SourceFile, f: Function) -> str:
    """State used in an inner function that cannot see the method's receiver."""
    for ref in file.within(f.body_start, f.end):
        if ref.symbol is None or ref.symbol.scope is not file.scope or not ref.symbol.kinds & {"variable", "function"}:
            continue
        scope = between(ref.scope, f.scope)
        while scope is not None:
            node = function_node(file, scope)
            if node is None or not arrow_fits(file, scope, node):
                return f"line {file.shown(ref.start)}: '{ref.name}' is used in a function that has a 'this' of its own"
            scope = between(scope.parent, f.scope) if scope.parent is not None else None
    return ""


def function_node(file: SourceFile, scope: Scope) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    while node is not None and (node.start_byte, node.end_byte) == (scope.start, scope.end):
        if node.type == "function_expression" or (node.type == "method_definition" and node.parent.type == "object"):
            return node
        node = node.parent
    return None


def arrow_fits(file: SourceFile, scope: Scope, node: Any) -> bool:
    """Whether an inner function is the same as an arrow: no receiver, arguments or name of its own."""
    if node.type == "method_definition":  # of an object as it is written: ``run(n) {}`` is ``run: (n) => {}``
        plain = (
            not any(c.type in ("*", "get", "set", "static") for c in node.children)
            and node.child_by_field_name("name").type != "private_property_identifier"
        )
    else:
        plain = (
            node.child_by_field_name("name") is None
            and not any(c.type == "*" for c in node.children)
            and node.parent is not None
            and node.parent.type in ARROW_FITS
        )
    own = RECEIVER in scope.symbols or any(
        r.name in ("arguments", "super") for r in file.within(scope.start, scope.end)
    )
    target = b"new.target" in node.text
    return plain and not own and not target


def to_arrow(node: Any) -> list[Edit]:
    params, body = node.child_by_field_name("parameters"), node.child_by_field_name("body")
    if node.type == "method_definition":
        name = node.child_by_field_name("name")
        waits = "async " if any(c.type == "async" for c in node.children) else ""
        return [
            (node.start_byte, name.start_byte, ""),
            (name.end_byte, params.start_byte, f": {waits}"),
            (body.start_byte, body.start_byte, "=> "),
        ]
    word = next(c for c in node.children if c.type == "function")
    return [(word.start_byte, params.start_byte, ""), (body.start_byte, body.start_byte, "=> ")]
