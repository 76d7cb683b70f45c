"""Whether an expression can be evaluated at another place with the same result."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from ....program.model import SourceFile

LITERALS = frozenset(["decimal_integer_literal", "hex_integer_literal", "octal_integer_literal",
    "binary_integer_literal", "character_literal", "decimal_floating_point_literal",
    "hex_floating_point_literal", "true", "false", "null_literal", "string_literal", "line_comment",
    "block_comment", "integral_type", "floating_point_type", "boolean_type", "type_identifier",
    "array_type", "generic_type", "dimensions"])  # fmt: skip
COMPOSED = frozenset(["binary_expression", "unary_expression", "parenthesized_expression",
    "ternary_expression", "cast_expression", "array_initializer", "array_creation_expression",
    "dimensions_expr"])  # fmt: skip


@cache
def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return tomllib.loads(files(__package__).joinpath("apis.toml").read_text("utf-8"))


def node_at(file: SourceFile, span: tuple[int, int]) -> Any:
    return file.tree.root_node.named_descendant_for_byte_range(*span)


def purity(file: SourceFile, span: tuple[int, int]) -> str:
    """ "literal" has no names, "pure" only names and calls without effect, "effect" anything else."""
    if span[0] == span[1]:
        return "literal"
    names: list[bool] = []
    if not pure(file, node_at(file, span), names):
        return "effect"
    return "pure" if names else "literal"


def pure(file: SourceFile, node: Any, names: list[bool]) -> bool:
    kind = node.type
    if kind in LITERALS:
        return True
    if kind in COMPOSED:
        return all(pure(file, child, names) for child in node.named_children)
    if kind == "identifier":
        names.append(True)
        return True
    if kind == "field_access":
        names.append(True)
        base = node.child_by_field_name("object")
        return base.type == "identifier" and (text(file, base) in apis()["pure"]["classes"] or own_class(file, base))
    if kind == "method_invocation":
        names.append(True)
        base, name = node.child_by_field_name("object"), node.child_by_field_name("name")
        if base is None:
            known = text(file, name) in apis()["pure"]["functions"] and unbound(file, name)
        else:
            known = (
                base.type == "identifier"
                and text(file, base) in apis()["pure"]["classes"]
                and text(file, name) != "random"
            )
        return known and all(pure(file, c, names) for c in node.child_by_field_name("arguments").named_children)
    if kind == "object_creation_expression":
        names.append(True)
        made = text(file, node.child_by_field_name("type")).split("<")[0]
        plain = not any(c.type == "class_body" for c in node.named_children)
        return (
            plain
            and made in apis()["pure"]["makers"]
            and all(pure(file, c, names) for c in node.child_by_field_name("arguments").named_children)
        )
    return False


def own_class(file: SourceFile, node: Any) -> bool:
    refs = file.within(node.start_byte, node.start_byte + 1)
    return any(r.form == "qualified" for r in refs)


def text(file: SourceFile, node: Any) -> str:
    return file.slice(node.start_byte, node.end_byte)


def unbound(file: SourceFile, node: Any) -> bool:
    return all(r.symbol is not None and not r.symbol.kinds for r in file.within(node.start_byte, node.start_byte + 1))


def type_of(file: SourceFile, span: tuple[int, int]) -> str:
    """Declared types are enough here."""
    return ""
