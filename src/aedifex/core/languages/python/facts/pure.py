"""Whether an expression can be evaluated at another place with the same result, and what type it gives."""

from __future__ import annotations

import builtins
from typing import Any

from ....program.model import SourceFile
from ...purity import Purity, apis_of

MAKERS = frozenset(["int", "float", "str", "list", "dict", "set", "tuple", "bool", "bytes", "object"])


def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return apis_of(__package__)


class PythonPurity(Purity):
    """What is imported is known by its module; a class that is called gives its own type."""

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
        "integer": "int", "float": "float", "string": "str", "concatenated_string": "str", "true": "bool",
        "false": "bool", "none": "None", "list": "list", "list_comprehension": "list", "tuple": "tuple",
        "expression_list": "tuple",
        "set": "set", "set_comprehension": "set", "dictionary": "dict", "dictionary_comprehension": "dict",
        "comparison_operator": "bool", "not_operator": "bool", "lambda": "function",
    }  # fmt: skip
    AROUND = frozenset(["block", "module", "expression_statement"])

    def named(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        if node.type == "attribute":
            base = node.named_children[0]
            return base.type == "identifier" and is_import(file, base)
        if node.type != "call" or not pure_callee(file, node.named_children[0]):
            return False
        given = node.named_children[-1].named_children
        return self.all_pure(file, [c.named_children[-1] if c.type == "keyword_argument" else c for c in given], names)

    def type_of_node(self, file: SourceFile, node: Any) -> str:
        if node.type == "unary_operator":
            return self.TYPES.get(node.named_children[-1].type, "")
        if node.type != "call":
            return ""
        name = file.slice(node.named_children[0].start_byte, node.named_children[0].end_byte)
        return name if name.split(".")[-1][:1].isupper() or name in MAKERS else ""


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


PURITY = PythonPurity()
BUILTINS = frozenset(dir(builtins)) | {"__file__", "__name__", "__doc__", "__spec__", "__builtins__", "__path__",
                                       "__package__", "__loader__", "__annotations__", "__dict__"}  # fmt: skip
