"""Small deliberate faults: one operator or constant of a method changed."""

from __future__ import annotations

import ast
from collections.abc import Iterator

OPERATORS = {
    ast.Add: "-", ast.Sub: "+", ast.Mult: "+", ast.Div: "*", ast.FloorDiv: "*", ast.Mod: "*", ast.Lt: ">=", ast.LtE: ">",
    ast.Gt: "<=", ast.GtE: "<", ast.Eq: "!=", ast.NotEq: "==", ast.Is: "is not", ast.IsNot: "is", ast.In: "not in",
    ast.NotIn: "in", ast.And: "or", ast.Or: "and",
}  # fmt: skip


def mutants(text: str, methods: set[str]) -> Iterator[tuple[str, int, str]]:
    """(method, line, the text with one change) for every operator and constant in the named methods."""
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.FunctionDef) and node.name in methods:
            docstring = node.body[0].value if isinstance(node.body[0], ast.Expr) else None
            for inner in ast.walk(node):
                if inner is docstring:
                    continue
                for start, end, new in changes(inner):
                    yield node.name, inner.lineno, replaced(text, start, end, new)


def changes(node: ast.AST) -> Iterator[tuple[tuple[int, int], tuple[int, int], str]]:
    """(from, to, new text) with (line, column) places."""
    if isinstance(node, ast.BinOp):
        yield end(node.left), start(node.right), f" {OPERATORS.get(type(node.op), '-')} "
    elif isinstance(node, ast.Compare) and len(node.ops) == 1:
        yield end(node.left), start(node.comparators[0]), f" {OPERATORS[type(node.ops[0])]} "
    elif isinstance(node, ast.BoolOp):
        yield end(node.values[0]), start(node.values[1]), f" {OPERATORS[type(node.op)]} "
    elif isinstance(node, ast.AugAssign):
        yield end(node.target), start(node.value), f" {OPERATORS.get(type(node.op), '-')}= "
    elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        yield start(node), start(node.operand), ""
    elif isinstance(node, ast.Constant) and not isinstance(node.value, bytes) and node.value is not None:
        value = node.value
        yield (
            start(node),
            end(node),
            repr(
                not value if isinstance(value, bool) else value + 1 if isinstance(value, int | float) else value + "!"
            ),
        )


def start(node: ast.expr) -> tuple[int, int]:
    return node.lineno, node.col_offset


def end(node: ast.expr) -> tuple[int, int]:
    return node.end_lineno or 0, node.end_col_offset or 0


def replaced(text: str, first: tuple[int, int], last: tuple[int, int], new: str) -> str:
    """ASCII text with a stretch replaced; parentheses around an operand stay with it."""
    lines = text.splitlines(keepends=True)
    starts = [0]
    for line in lines:
        starts.append(starts[-1] + len(line))
    a, b = starts[first[0] - 1] + first[1], starts[last[0] - 1] + last[1]
    between = text[a:b]
    if new.startswith(" ") and (")" in between or "(" in between):
        new = between[: len(between) - len(between.lstrip(") "))] + new + "(" * between.count("(")
    return text[:a] + new + text[b:]
