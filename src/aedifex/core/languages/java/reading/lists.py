"""How Java's arrays are used: those of one dimension, made where they are declared, of which nothing is taken but items
and the length."""

from __future__ import annotations

from typing import Any

from ....program.lists import ListUse, Span, WholeLoop, same, span, uses_of
from ....program.model import Reference, SourceFile, Symbol
from ...braced import blocks as braces

NARROW = frozenset(
    {"byte", "short", "char"}
)  # to these a number is fitted in a list of values, but not where it is handed over


def list_uses(file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
    """Every use of a program's array, in source order; None if one of them lets the array itself get about."""
    return uses_of(symbol, lambda ref: told(file, ref))


def told(file: SourceFile, ref: Reference) -> ListUse | None:
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent if node.type == "identifier" else None
    if parent is None:
        return None
    if parent.type == "array_access" and same(parent.child_by_field_name("array"), node):
        whole = parent.parent
        deeper = whole.type == "array_access" and same(whole.child_by_field_name("array"), parent)
        return None if deeper else ListUse("item", ref, span(parent), (span(parent.child_by_field_name("index")),))
    if (
        parent.type == "field_access"
        and same(parent.child_by_field_name("object"), node)
        and parent.child_by_field_name("field").text == b"length"
    ):
        return ListUse("length", ref, span(parent))
    if parent.type == "variable_declarator" and same(parent.child_by_field_name("name"), node):
        return given(file, ref, parent)
    return None


def given(file: SourceFile, ref: Reference, part: Any) -> ListUse | None:
    """The declaration: with its items, or with how many there are."""
    whole, value = part.parent, part.child_by_field_name("value")
    if whole.type not in ("field_declaration", "local_variable_declaration") or value is None or not kind_of(file, ref):
        return None
    if sum(c.type == "variable_declarator" for c in whole.named_children) > 1:
        return None
    if value.type == "array_creation_expression":
        sizes = [c for c in value.named_children if c.type == "dimensions_expr"]
        items = value.child_by_field_name("value")
        if items is None and len(sizes) == 1 and not any(c.type == "dimensions" for c in value.named_children):
            return ListUse("first", ref, span(whole), (), bound=True, size=span(sizes[0].named_children[0]))
        value = items if items is not None and not sizes else value
    if value.type != "array_initializer":
        return None
    items = [c for c in value.named_children if not c.type.endswith("comment")]
    plain = len(items) == value.named_child_count and not any(c.type == "array_initializer" for c in items)
    fits = kind_of(file, ref) not in NARROW or all(c.type == "character_literal" for c in items)
    return (
        ListUse("first", ref, span(whole), tuple(span(c) for c in items), bound=True)
        if plain and fits and items
        else None
    )


def kind_of(file: SourceFile, ref: Reference) -> str:
    """The type of the items of an array that is declared at a place; "" if they are arrays themselves."""
    part = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end).parent
    kind, more = part.parent.child_by_field_name("type"), part.child_by_field_name("dimensions")
    text = file.slice(kind.start_byte, kind.end_byte) + (
        file.slice(more.start_byte, more.end_byte) if more is not None else ""
    )
    text = "".join(text.split()) if "<" not in text else text
    return text.removesuffix("[]") if text.count("[") == 1 else ""


def whole_loop(file: SourceFile, start: int, end: int, bounds: set[str]) -> WholeLoop | None:
    return braces.whole_loop(
        file, start, end, bounds, ("init", "condition", "update"), ("local_variable_declaration",), "block"
    )


def item_value(file: SourceFile, start: int, end: int) -> Span | None:
    """What a statement assigns to an item of an array; None if it does something else."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    inner = node.named_children[0] if node.type == "expression_statement" else node
    if (
        inner.type != "assignment_expression"
        or inner.child_by_field_name("left").type != "array_access"
        or inner.child_by_field_name("operator").type != "="
    ):
        return None
    right = inner.child_by_field_name("right")
    return span(right) if right.type != "array_initializer" else None
