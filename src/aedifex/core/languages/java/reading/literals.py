"""Literals of Java that a name could stand for."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ....program import literals as shared
from ....program.model import SourceFile
from ..writing.words import sketch

KINDS = {
    "decimal_integer_literal": "int", "hex_integer_literal": "int", "decimal_floating_point_literal": "double",
    "string_literal": "String", "character_literal": "char", "true": "boolean", "false": "boolean",
}  # fmt: skip
CLOSED = frozenset({"switch_label", "annotation", "marker_annotation", "import_declaration"})


def literals(file: SourceFile, start: int, end: int) -> Iterator[shared.Literal]:
    """Numbers, texts, letters and truth values; a sketch's fractions are floats."""
    fraction = "float" if sketch(file) else "double"
    return shared.literals(file, start, end, lambda node: kind(node, fraction), CLOSED)


def kind(node: Any, fraction: str) -> str:
    if node.type == "unary_expression" and node.children[0].type == "-":
        inner = node.named_children[0]
        return kind(inner, fraction) if inner.type.endswith(("integer_literal", "point_literal")) else ""
    found = KINDS.get(node.type, "")
    call = node.parent.parent if found and node.parent is not None and node.parent.type == "argument_list" else None
    if (
        call is not None
        and call.type == "method_invocation"
        and call.child_by_field_name("name").text == b"size"
        and fraction == "float"
    ):
        return ""  # a sketch is told its size before it runs
    if found == "int" and node.text[-1:] in b"lL":
        return "long"
    if found == "double":
        return "float" if node.text[-1:] in b"fF" else "double" if node.text[-1:] in b"dD" else fraction
    return found
