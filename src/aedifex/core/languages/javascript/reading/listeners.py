"""Listeners that stand in methods of a class: functions that a call is given, and those in a method that are handed
over by name."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ....program.inline import Inline, Listener
from ....program.model import Function, Reference, Role, SourceFile
from ..facts.pure import apis
from ..writing.words import typed
from .inlines import handed, inline, parameters, told
from .structure import STATEMENTS
from .walk import FUNCTIONS

LOOPS = frozenset([*FUNCTIONS, "for_statement", "for_in_statement", "while_statement", "do_statement"])


def listeners(file: SourceFile) -> list[Listener]:
    """Those of the methods of named classes, and functions beside them in these methods, in source order."""
    named = {scope for scope, _ in file.classes}
    found: list[Listener] = []
    for f in file.functions_sorted:
        if f.outer in named and f.node is not None and f.node.type == "method_definition" and not static(f.node):
            found += [*in_place(file, f), *functions(file, f)]
    return sorted(found, key=lambda n: n.start)


def static(node: Any) -> bool:
    return any(c.type in ("static", "get", "set", "async", "*") for c in node.children)


def in_place(file: SourceFile, method: Function) -> Iterator[Listener]:
    for call, node in handed(method.node.child_by_field_name("body")):
        made = inline(file, call, node)
        if made is not None and made.statements and with_types(file, call, made):
            yield Listener(
                made.start, made.end, made.opens, made.closes, made.statements, made.params, made.event, made.control,
                True, method=method,
            )  # fmt: skip


def with_types(file: SourceFile, call: Any, made: Inline) -> bool:
    """Whether the types of all parameters are known, where types are written; that of a page's event is filled in."""
    if not typed(file) or all(kind for _, kind in made.params):
        return True
    callee = call.child_by_field_name("function")
    first = next(iter(call.child_by_field_name("arguments").named_children), None)
    if not callee.text.endswith(b"addEventListener") or first is None or len(made.params) != 1:
        return False
    kind = apis()["events"].get(first.text.decode().strip("\"'`"), "")
    made.params = [(made.params[0][0], kind)]
    return bool(kind)


def functions(file: SourceFile, method: Function) -> Iterator[Listener]:
    """Functions that stand in a method; those that nothing listens with have no event."""
    for f in file.functions_sorted:
        if f.outer.frame is not method.scope or f.symbol is None or len(f.symbol.bindings) != 1 or f.is_async:
            continue
        node = defined(f.node)
        body = node.child_by_field_name("body") if node is not None else None
        if body is None or body.type != "statement_block" or any(c.type in ("*", "async") for c in node.children):
            continue
        given = parameters(node)
        if given is None or any(r.form == "shorthand" for r in f.symbol.references):
            continue
        if not one_place(file, f):
            continue
        event, control = next((x for r in f.symbol.references if (x := waiting(file, r)) is not None), ([], []))
        yield Listener(
            f.start, f.end, body.start_byte + 1, body.end_byte - 1, STATEMENTS.statements(file, body),
            given, event, control, True, method=method, function=f,
        )  # fmt: skip


def one_place(file: SourceFile, f: Function) -> bool:
    """Whether it is handed over once, where it is made: each arrow in its place is a function of its own, and those who
    keep functions tell them apart."""
    assert f.symbol is not None
    given = [r for r in f.symbol.references if not r.writes and r.role != Role.CALL]
    return len(given) <= 1 and all(loops(file, r.start) == loops(file, f.start) for r in given)


def loops(file: SourceFile, at: int) -> list[int]:
    """Where the loops around a place begin, and functions that may run again."""
    node, found = file.tree.root_node.named_descendant_for_byte_range(at, at), []
    while node is not None:
        if node.type in LOOPS and node.start_byte < at:
            found.append(node.start_byte)
        node = node.parent
    return found


def defined(node: Any) -> Any:
    """The function itself, of a statement that defines it or gives it to a constant."""
    if node is None or node.child_by_field_name("body") is not None:
        return node
    values = [c.child_by_field_name("value") for c in node.named_children if c.type == "variable_declarator"]
    return values[0] if len(values) == 1 else None


def waiting(file: SourceFile, ref: Reference) -> tuple[list[str], list[str]] | None:
    """Words for what a function waits for where it is handed over by name; None where nothing tells that it waits."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    if node.parent is None or node.parent.type != "arguments" or node.parent.parent.type != "call_expression":
        return None
    event, control = told(file, node.parent.parent)
    return (event, control) if event or control else None
