"""Which expressions of JavaScript can be evaluated at another place with the same result, and what types they give."""

from __future__ import annotations

from typing import Any

from ....program.model import SourceFile
from ...purity import Purity, apis_of, is_own

FREE = frozenset(["undefined", "NaN", "Infinity"])
COMPARISONS = frozenset(["<", ">", "<=", ">=", "==", "===", "!=", "!=="])
OBJECT_PARTS = frozenset(["pair", "spread_element", "shorthand_property_identifier", "comment"])


def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return apis_of(__package__)


class JavaScriptPurity(Purity):
    """Operators give the types that they have; a class that is made gives its own."""

    LITERALS = frozenset(["number", "string", "true", "false", "null", "regex", "comment",
        "string_fragment", "escape_sequence", "property_identifier", "predefined_type", "undefined",
        "type_identifier"])  # fmt: skip
    COMPOSED = frozenset(["array", "object", "pair", "unary_expression", "binary_expression",
        "ternary_expression", "parenthesized_expression", "template_string", "template_substitution",
        "spread_element", "as_expression", "satisfies_expression", "non_null_expression"])  # fmt: skip
    AROUND = frozenset(["program", "expression_statement"])
    TYPES = {"number": "number", "string": "string", "template_string": "string", "true": "boolean",
        "false": "boolean", "array": "array", "object": "object", "arrow_function": "function",
        "function_expression": "function", "regex": "RegExp"}  # fmt: skip

    def pure(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        if node.type == "unary_expression" and node.children[0].type == "delete":
            return False
        if node.type == "object" and any(c.type not in OBJECT_PARTS for c in node.named_children):
            return False
        if node.type in ("identifier", "shorthand_property_identifier"):
            if text(node) not in FREE or not is_own(file, node):
                names.append(True)
            return True
        return super().pure(file, node, names)

    def named(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        if node.type == "member_expression":
            base = node.named_children[0]
            return base.type == "identifier" and text(base) in apis()["pure"]["objects"] and is_own(file, base)
        if node.type not in ("call_expression", "new_expression"):
            return False
        making = node.type == "new_expression"
        args = node.child_by_field_name("arguments")
        return pure_callee(file, node.child_by_field_name("constructor" if making else "function"), making) and (
            args is None or (args.type == "arguments" and self.all_pure(file, args.named_children, names))
        )

    def type_of_node(self, file: SourceFile, node: Any) -> str:
        if node.type == "unary_expression":
            return {"!": "boolean", "-": "number", "+": "number", "typeof": "string"}.get(node.children[0].type, "")
        if node.type == "binary_expression" and any(c.type in COMPARISONS for c in node.children):
            return "boolean"
        return text(node.child_by_field_name("constructor")) if node.type == "new_expression" else ""


def text(node: Any) -> str:
    return str(node.text.decode("utf-8", "replace"))


def pure_callee(file: SourceFile, node: Any, making: bool) -> bool:
    table = apis()["pure"]
    if node.type == "identifier":
        return text(node) in table["makers" if making else "functions"] and is_own(file, node)
    if node.type == "member_expression" and node.named_children[0].type == "identifier":
        base = node.named_children[0]
        return text(base) in table["objects"] and is_own(file, base) and text(node) not in table["effects"]
    return False


PURITY = JavaScriptPurity()
