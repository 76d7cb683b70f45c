"""Whether an expression can be evaluated at another place with the same result, and what type it gives."""

from __future__ import annotations

import builtins
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from ....program.model import SourceFile

LITERALS = frozenset({"integer", "float", "true", "false", "none", "ellipsis", "comment",
    "string_start", "string_content", "string_end", "escape_sequence", "type_conversion"})  # fmt: skip
COMPOSED = frozenset(
    """
    string concatenated_string interpolation format_specifier list tuple set dictionary pair unary_operator
    binary_operator boolean_operator comparison_operator not_operator conditional_expression
    parenthesized_expression expression_list
    """.split()
)
TYPES = {
    "integer": "int", "float": "float", "string": "str", "concatenated_string": "str", "true": "bool", "false": "bool",
    "none": "None", "list": "list", "list_comprehension": "list", "tuple": "tuple", "expression_list": "tuple",
    "set": "set", "set_comprehension": "set", "dictionary": "dict", "dictionary_comprehension": "dict",
    "comparison_operator": "bool", "not_operator": "bool", "lambda": "function",
}  # fmt: skip


@cache
def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return tomllib.loads(files(__package__).joinpath("apis.toml").read_text("utf-8"))


def node_at(file: SourceFile, span: tuple[int, int]) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(*span)
    while node.named_child_count == 1 and node.type in ("block", "module", "expression_statement"):
        node = node.named_children[0]
    return node


def purity(file: SourceFile, span: tuple[int, int]) -> str:
    """ "literal" has no names, "pure" only names and calls without effect, "effect" anything else."""
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
    if kind == "attribute":
        base = node.named_children[0]
        names.append(True)
        return base.type == "identifier" and is_import(file, base)
    if kind == "call":
        names.append(True)
        return pure_callee(file, node.named_children[0]) and all(
            pure(file, c.named_children[-1] if c.type == "keyword_argument" else c, names)
            for c in node.named_children[-1].named_children
        )
    return False


def is_import(file: SourceFile, node: Any) -> bool:
    """Whether a name is bound by imports alone, and only once."""
    for ref in file.within(node.start_byte, node.start_byte + 1):
        return ref.symbol is not None and ref.symbol.kinds == {"import"}
    return False


def pure_callee(file: SourceFile, node: Any) -> bool:
    if node.type == "identifier":
        name = node.text.decode("utf-8", "replace")
        for ref in file.within(node.start_byte, node.start_byte + 1):
            return name in apis()["pure"]["builtins"] and ref.symbol is not None and not ref.symbol.kinds
    if node.type == "attribute" and node.named_children[0].type == "identifier":
        module = node.named_children[0].text.decode("utf-8", "replace")
        return module in apis()["pure"]["modules"] and is_import(file, node.named_children[0])
    return False


def type_of(file: SourceFile, span: tuple[int, int]) -> str:
    """The type that an expression gives, as far as its outermost form tells; "" if it does not."""
    node = node_at(file, span)
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    if node.type in TYPES:
        return TYPES[node.type]
    if node.type == "unary_operator":
        return TYPES.get(node.named_children[-1].type, "")
    if node.type == "call":
        name = file.slice(node.named_children[0].start_byte, node.named_children[0].end_byte)
        last = name.split(".")[-1]
        if last[:1].isupper() or (
            name in ("int", "float", "str", "list", "dict", "set", "tuple", "bool", "bytes", "object")
        ):
            return name
    return ""


BUILTINS = frozenset(dir(builtins)) | {"__file__", "__name__", "__doc__", "__spec__", "__builtins__", "__path__",
                                       "__package__", "__loader__", "__annotations__", "__dict__"}  # fmt: skip
