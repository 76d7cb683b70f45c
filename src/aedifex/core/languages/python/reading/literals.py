"""Literals of Python that a name could stand for."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ....program import literals as shared
from ....program.model import SourceFile

KINDS = {
    "integer": "int",
    "float": "float",
    "true": "bool",
    "false": "bool",
    "string": "str",
    "concatenated_string": "str",
}
CLOSED = frozenset({"case_pattern", "type", "import_statement", "import_from_statement", "decorator"})


def literals(file: SourceFile, start: int, end: int) -> Iterator[shared.Literal]:
    """Numbers (with their sign), plain texts and truth values."""
    return shared.literals(file, start, end, kind, CLOSED)


def kind(node: Any) -> str:
    if node.type == "unary_operator" and node.children[0].type == "-":
        inner = node.named_children[0]
        return KINDS[inner.type] if inner.type in ("integer", "float") else ""
    if node.type in ("string", "concatenated_string"):
        parts = node.named_children if node.type == "concatenated_string" else [node]
        plain = not any(c.type == "interpolation" for p in parts for c in p.named_children)
        return "bytes" if node.text[:1] in b"bB" else "str" if plain else ""
    return KINDS.get(node.type, "")
