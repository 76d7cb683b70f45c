"""Literals of JavaScript and TypeScript that a name could stand for."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ....program import literals as shared
from ....program.model import SourceFile

KINDS = {"number": "number", "string": "string", "true": "boolean", "false": "boolean"}
CLOSED = frozenset({"literal_type", "type_annotation", "import_statement", "export_statement", "decorator"})


def literals(file: SourceFile, start: int, end: int) -> Iterator[shared.Literal]:
    """Numbers (with their sign), texts and truth values; a text that is the key of an object is none."""
    return shared.literals(file, start, end, kind, CLOSED)


def kind(node: Any) -> str:
    if node.type == "unary_expression" and node.children[0].type == "-":
        return "number" if node.named_children[0].type == "number" else ""
    found = KINDS.get(node.type, "")
    parent = node.parent
    if found and parent is not None and parent.type == "pair" and parent.children[0] == node:
        return ""
    return found
