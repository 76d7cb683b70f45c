"""What of Python's text can be lifted out of a function: expressions, and what only works where it stands."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ...program.model import SourceFile

EXPRESSIONS = frozenset(
    """
    binary_operator boolean_operator comparison_operator not_operator unary_operator conditional_expression call
    parenthesized_expression list tuple set dictionary list_comprehension set_comprehension dictionary_comprehension
    subscript attribute string concatenated_string
    """.split()  # noqa: SIM905
)
TIED = {"yield": "'yield' gives something back from the function itself", "await": "'await' only works in the function itself"}
OWN_NAMES = frozenset([b"super", b"__class__"])


def expression(file: SourceFile, start: int, end: int) -> bool:
    """Whether a stretch is one whole expression, whose value is all that is wanted of it."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    if (node.start_byte, node.end_byte) != (start, end) or node.type not in EXPRESSIONS:
        return False
    at, parent = node, node.parent
    while parent is not None and parent.type not in ("block", "module"):
        if parent.type in ("assignment", "augmented_assignment") and at == parent.child_by_field_name("left"):
            return False
        if parent.type in ("for_statement", "for_in_clause", "named_expression") and at == parent.child_by_field_name("left"):
            return False
        if parent.type in ("type", "delete_statement", "case_pattern", "as_pattern_target", "decorator", "parameters", "interpolation"):
            return False
        if parent.type == "concatenated_string" or (parent.type == "with_item" and "as_pattern" in node.type):
            return False
        at, parent = parent, parent.parent
    return node.parent.type not in ("keyword_argument",) or node != node.parent.named_children[0]


def bound_to_function(file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
    """(why, where) of what would mean something else in another function; None if nothing would."""
    for node in within(file.tree.root_node, start, end):
        if node.type in TIED:
            return TIED[node.type], node.start_byte
        if node.type in ("for_in_clause", "for_statement", "with_statement") and node.children[0].type == "async":
            return TIED["await"], node.start_byte
        if node.type == "identifier" and node.text in OWN_NAMES:
            return f"'{node.text.decode()}' asks where it is written", node.start_byte
    return None


def within(node: Any, start: int, end: int) -> Iterator[Any]:
    """The nodes that stand wholly in a stretch, without those of functions and classes defined there."""
    if node.end_byte <= start or node.start_byte >= end:
        return
    if start <= node.start_byte and node.end_byte <= end:
        yield node
        if node.type in ("function_definition", "lambda", "class_definition"):
            return
    for child in node.children:
        yield from within(child, start, end)


TESTS = frozenset(["boolean_operator", "comparison_operator", "not_operator"])
WORKED_OUT = TESTS | {"binary_operator", "conditional_expression"}


def expressions(file: SourceFile, start: int, end: int) -> Iterator[tuple[int, int, bool]]:
    """(start, end, whether it is a condition) of what is worked out in a stretch, the whole before its parts."""
    for node in within(file.tree.root_node, start, end):
        if node.type in WORKED_OUT and expression(file, node.start_byte, node.end_byte):
            yield node.start_byte, node.end_byte, node.type in TESTS
