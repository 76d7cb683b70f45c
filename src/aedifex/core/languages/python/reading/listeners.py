"""Listeners that stand in methods of a class: lambdas, and functions in a method that are handed over by name."""

from __future__ import annotations

from collections.abc import Iterator

from ....program.inline import Listener
from ....program.layout import line_start
from ....program.model import Function, Reference, SourceFile
from ..writing.text import TEXT
from .handlers import handed, inline, told
from .structure import definition, statements


def listeners(file: SourceFile) -> list[Listener]:
    """Those of the methods of named classes, and functions beside them in these methods, in source order."""
    named = {scope for scope, _ in file.classes}
    found = []
    for f in file.functions_sorted:
        if f.outer not in named or not f.bound or f.decorators or f.params[0].name != TEXT.RECEIVER:
            continue
        found += [n for n in [*lambdas(file, f), *functions(file, f)] if n.method is f]
    return sorted(found, key=lambda n: n.start)


def lambdas(file: SourceFile, method: Function) -> Iterator[Listener]:
    for call, argument, node in handed(definition(file, method).child_by_field_name("body")):
        made = inline(file, call, argument, node)
        if made is not None:
            yield Listener(
                made.start, made.end, made.opens, made.closes, made.statements, made.params, made.event, made.control,
                True, made.says, made.rows, method,
            )  # fmt: skip


def functions(file: SourceFile, method: Function) -> Iterator[Listener]:
    """Functions that stand in a method; those that nothing listens with have no event."""
    for f in file.functions_sorted:
        if f.outer.frame is not method.scope or f.decorators or f.is_async or f.scope.generator or f.symbol is None:
            continue
        plain = all(p.kind == "plain" and p.default is None and not p.annotated for p in f.params)
        if not plain or len(f.symbol.bindings) != 1 or any(r.form == "spelled" for r in f.symbol.references):
            continue
        body = definition(file, f).child_by_field_name("body")
        rows = statements(file, body)
        event, control = next((x for r in f.symbol.references if (x := waiting(file, r)) is not None), ([], []))
        line = line_start(file, body.start_byte)
        opens = line if line > f.start else body.start_byte
        yield Listener(
            f.start, f.end, opens, f.end, rows, [(p.name, "") for p in f.params], event, control, True,
            method=method, function=f,
        )  # fmt: skip


def waiting(file: SourceFile, ref: Reference) -> tuple[list[str], list[str]] | None:
    """Words for what a function waits for where it is handed over by name; None where nothing tells that it waits."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    argument = node.parent if node.parent is not None and node.parent.type == "keyword_argument" else node
    given = argument.parent
    if given is None or given.type != "argument_list" or given.parent.type != "call":
        return None
    event, control = told(file, given.parent, argument)
    return (event, control) if event or control else None
