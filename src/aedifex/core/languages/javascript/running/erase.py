"""TypeScript as the engine runs it: types are blanked out, every line and column stays where it is."""

from __future__ import annotations

import re
from typing import Any

from ....program.model import SourceFile

BLANK = frozenset(["type_annotation", "type_arguments", "type_parameters", "interface_declaration",
    "type_alias_declaration", "ambient_declaration", "accessibility_modifier", "override_modifier",
    "implements_clause", "function_signature", "abstract_method_signature", "asserts_annotation",
    "type_predicate_annotation", "index_signature", "method_signature"])  # fmt: skip
BEYOND = {
    "enum_declaration": "an enum",
    "internal_module": "a namespace",
    "decorator": "a decorator",
    "import_alias": "an import alias",
}  # what is more than a type, and needs the real compiler
Span = tuple[int, int]


def erased(file: SourceFile) -> tuple[str, str]:
    """(the text without types, why that is not enough)."""
    spans: list[Span] = []
    trouble = ""
    stack = [file.tree.root_node]
    while stack:
        node = stack.pop()
        if node.type in BEYOND:
            trouble = (
                trouble
                or f"{file.path}:{node.start_point[0] + 1}: {BEYOND[node.type]} needs the language's own compiler"
            )
        if node.type == "required_parameter" and any(c.type == "accessibility_modifier" for c in node.children):
            trouble = (
                trouble
                or f"{file.path}:{node.start_point[0] + 1}: "
                "a parameter that is a field needs the language's own compiler"
            )
        if node.type in BLANK:
            spans.append((node.start_byte, node.end_byte))
            continue
        spans += own_spans(file, node)
        stack.extend(node.children)
    return blanked(file, spans), trouble


def own_spans(file: SourceFile, node: Any) -> list[Span]:
    """What of a node itself, rather than of a part of it, is only about types."""
    kind = node.type
    if kind in ("as_expression", "satisfies_expression"):
        return [(node.named_children[0].end_byte, node.end_byte)]
    if kind == "type_assertion":
        return [(node.start_byte, node.named_children[-1].start_byte)]
    if kind == "non_null_expression":
        return [(node.end_byte - 1, node.end_byte)]
    if kind in (
        "optional_parameter",
        "public_field_definition",
        "class_declaration",
        "abstract_class_declaration",
        "method_definition",
    ):
        return [
            (c.start_byte, c.end_byte) for c in node.children if c.type in ("?", "!", "readonly", "abstract", "declare")
        ]
    if kind == "variable_declarator":
        return [(c.start_byte, c.end_byte) for c in node.children if c.type == "!"]
    if kind == "formal_parameters":
        first = next((c for c in node.named_children if c.text.startswith(b"this")), None)
        following = node.named_children[1].start_byte if first is not None and node.named_child_count > 1 else None
        if (
            first is not None
            and first.child_by_field_name("pattern") is not None
            and first.child_by_field_name("pattern").type == "this"
        ):
            return [(first.start_byte, following or first.end_byte)]
    if kind == "import_statement":
        return imports_of_types(file, node)
    return []


def imports_of_types(file: SourceFile, node: Any) -> list[Span]:
    """Imports that bring nothing but types, whole or in part."""
    if any(c.type == "type" for c in node.children):
        return [(node.start_byte, node.end_byte)]
    found: list[Span] = []
    names = [n for n in walk(node) if n.type == "import_specifier"]
    for spec in names:
        name = spec.child_by_field_name("alias") or spec.child_by_field_name("name")
        symbol = next((r.symbol for r in file.within(name.start_byte, name.start_byte + 1)), None)
        uses = [r for r in symbol.references if not r.writes] if symbol is not None else []
        if any(c.type == "type" for c in spec.children) or (uses and all(r.deferred for r in uses)):
            after = file.text[spec.end_byte : spec.end_byte + 1]
            found.append((spec.start_byte, spec.end_byte + (1 if after == b"," else 0)))
    if names and len(found) == len(names) and not any(n.type in ("namespace_import",) for n in walk(node)):
        clause = next(c for c in node.named_children if c.type == "import_clause")
        if all(c.type == "named_imports" for c in clause.named_children):
            return [(node.start_byte, node.end_byte)]
    return found


def walk(node: Any) -> list[Any]:
    return [node, *(n for c in node.named_children for n in walk(c))]


def blanked(file: SourceFile, spans: list[Span]) -> str:
    text = bytearray(file.text)
    for start, end in spans:
        for at in range(start, end):
            if text[at] not in b"\r\n":
                text[at] = 0x20
    return re.sub(
        r"((?:from|import)\s*)(['\"])(\.{1,2}/[^'\"]+?)(?:\.[mc]?[jt]sx?)?\2",
        r"\1\2\3.js\2",
        text.decode("utf-8", "replace"),
    )
