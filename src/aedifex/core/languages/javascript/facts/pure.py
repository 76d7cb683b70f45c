"""Whether an expression can be evaluated at another place with the same result, and what type it gives."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from ....program.model import SourceFile

LITERALS = frozenset(["number", "string", "true", "false", "null", "regex", "comment",
    "string_fragment", "escape_sequence", "property_identifier", "predefined_type", "undefined"])  # fmt: skip
COMPOSED = frozenset(["array", "object", "pair", "unary_expression", "binary_expression",
    "ternary_expression", "parenthesized_expression", "template_string", "template_substitution",
    "spread_element", "as_expression", "satisfies_expression", "non_null_expression"])  # fmt: skip
FREE = frozenset(["undefined", "NaN", "Infinity"])
TYPES = {"number": "number", "string": "string", "template_string": "string", "true": "boolean",
    "false": "boolean", "array": "array", "object": "object", "arrow_function": "function",
    "function_expression": "function", "regex": "RegExp"}  # fmt: skip
COMPARISONS = frozenset(["<", ">", "<=", ">=", "==", "===", "!=", "!=="])


@cache
def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return tomllib.loads(files(__package__).joinpath("apis.toml").read_text("utf-8"))


def node_at(file: SourceFile, span: tuple[int, int]) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(*span)
    while node.named_child_count == 1 and node.type in ("program", "expression_statement"):
        node = node.named_children[0]
    return node


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
    if kind == "unary_expression" and node.children[0].type == "delete":
        return False
    if kind in COMPOSED:
        if kind == "object" and any(
            c.type not in ("pair", "spread_element", "shorthand_property_identifier", "comment")
            for c in node.named_children
        ):
            return False
        return all(pure(file, child, names) for child in node.named_children)
    if kind in ("identifier", "shorthand_property_identifier"):
        if node.text.decode("utf-8", "replace") not in FREE or not unbound(file, node):
            names.append(True)
        return True
    if kind == "type_identifier":
        return True
    if kind == "member_expression":
        names.append(True)
        base = node.named_children[0]
        return base.type == "identifier" and text(base) in apis()["pure"]["objects"] and unbound(file, base)
    if kind in ("call_expression", "new_expression"):
        names.append(True)
        callee = node.child_by_field_name("constructor" if kind == "new_expression" else "function")
        args = node.child_by_field_name("arguments")
        return pure_callee(file, callee, kind) and (
            args is None or (args.type == "arguments" and all(pure(file, c, names) for c in args.named_children))
        )
    return False


def text(node: Any) -> str:
    return str(node.text.decode("utf-8", "replace"))


def unbound(file: SourceFile, node: Any) -> bool:
    """Whether a name is the language's own here."""
    return all(r.symbol is not None and not r.symbol.kinds for r in file.within(node.start_byte, node.start_byte + 1))


def pure_callee(file: SourceFile, node: Any, kind: str) -> bool:
    table = apis()["pure"]
    if node.type == "identifier":
        return text(node) in table["makers" if kind == "new_expression" else "functions"] and unbound(file, node)
    if node.type == "member_expression" and node.named_children[0].type == "identifier":
        base = node.named_children[0]
        return text(base) in table["objects"] and unbound(file, base) and text(node) not in table["effects"]
    return False


def type_of(file: SourceFile, span: tuple[int, int]) -> str:
    """The type that an expression gives, as far as its outermost form tells; "" if it does not."""
    if span[0] == span[1]:
        return ""
    node = node_at(file, span)
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    if node.type in TYPES:
        return TYPES[node.type]
    if node.type == "unary_expression":
        return {"!": "boolean", "-": "number", "+": "number", "typeof": "string"}.get(node.children[0].type, "")
    if node.type == "binary_expression" and any(c.type in COMPARISONS for c in node.children):
        return "boolean"
    if node.type == "new_expression":
        return text(node.child_by_field_name("constructor"))
    return ""
