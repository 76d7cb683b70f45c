"""Which expressions of Java can be evaluated at another place with the same result."""

from __future__ import annotations

from typing import Any

from ....program.model import SourceFile
from ...purity import Purity, apis_of, is_own


def apis() -> dict[str, Any]:
    """The table of library calls that ships beside this module."""
    return apis_of(__package__)


class JavaPurity(Purity):
    """Declared types are enough here: none is worked out."""

    LITERALS = frozenset(["decimal_integer_literal", "hex_integer_literal", "octal_integer_literal",
        "binary_integer_literal", "character_literal", "decimal_floating_point_literal",
        "hex_floating_point_literal", "true", "false", "null_literal", "string_literal", "line_comment",
        "block_comment", "integral_type", "floating_point_type", "boolean_type", "type_identifier",
        "array_type", "generic_type", "dimensions"])  # fmt: skip
    COMPOSED = frozenset(["binary_expression", "unary_expression", "parenthesized_expression",
        "ternary_expression", "cast_expression", "array_initializer", "array_creation_expression",
        "dimensions_expr"])  # fmt: skip

    def named(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        table = apis()["pure"]
        if node.type == "field_access":
            base = node.child_by_field_name("object")
            return base.type == "identifier" and (text(file, base) in table["classes"] or own_class(file, base))
        if node.type == "method_invocation":
            base, name = node.child_by_field_name("object"), node.child_by_field_name("name")
            if base is None:
                known = text(file, name) in table["functions"] and is_own(file, name)
            else:
                known = base.type == "identifier" and text(file, base) in table["classes"]
                known = known and text(file, name) != "random"
            return known and self.all_pure(file, node.child_by_field_name("arguments").named_children, names)
        if node.type == "object_creation_expression":
            made = text(file, node.child_by_field_name("type")).split("<")[0]
            if any(c.type == "class_body" for c in node.named_children) or made not in table["makers"]:
                return False
            return self.all_pure(file, node.child_by_field_name("arguments").named_children, names)
        return False


def own_class(file: SourceFile, node: Any) -> bool:
    refs = file.within(node.start_byte, node.start_byte + 1)
    return any(r.form == "qualified" for r in refs)


def text(file: SourceFile, node: Any) -> str:
    return file.slice(node.start_byte, node.end_byte)


PURITY = JavaPurity()
