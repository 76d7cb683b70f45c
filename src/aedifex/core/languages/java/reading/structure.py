"""Statements of main code and of bodies in Java.

In a class the program's "statements" are its static members in their order; ``main`` is what starts it.
"""

from __future__ import annotations

from typing import Any

from ....program.model import SourceFile, Statement
from ...braced.shapes import Shapes, StatementShapes
from ...braced.statements import Statements
from .walk import TYPES, modifiers

KINDS = {
    "import_declaration": "import",
    "package_declaration": "docstring",
    "method_declaration": "function",
    "if_statement": "if",
    "for_statement": "for",
    "enhanced_for_statement": "for",
    "while_statement": "while",
    "do_statement": "while",
    "try_statement": "try",
    "try_with_resources_statement": "try",
    "switch_expression": "match",
    "return_statement": "return",
    "throw_statement": "raise",
    "break_statement": "break",
    "continue_statement": "continue",
    ";": "pass",
    **dict.fromkeys(TYPES, "class"),
}


class JavaStatements(Statements):
    """Java's; a method counts as what it holds."""

    SHAPES = StatementShapes(
        KINDS,
        declarations=frozenset(["field_declaration", "local_variable_declaration"]),
        comments=frozenset(["line_comment", "block_comment"]),
        blocks=frozenset(["block", "constructor_body"]),
        groups=frozenset(["switch_block_statement_group"]),
        holders=frozenset(["switch_block", "switch_rule", "labeled_statement"]),
    )
    NAMES = Shapes(
        {"field_access": "field", "method_invocation": "name", "method_reference": ""},
        making="object_creation_expression",
    )

    def top(self, file: SourceFile, root: Any, main: str) -> list[Statement]:
        """The statements of a program: imports, the static members of its main class, and other classes."""
        found: list[Statement] = []
        for child in root.named_children:
            if child.type in self.SHAPES.comments:
                continue
            if child.type == "class_declaration" and main and name_of(file, child) == main:
                for member in child.child_by_field_name("body").named_children:
                    if member.type not in self.SHAPES.comments:
                        found += self.member_statements(file, member)
            else:
                found += self.statement(file, child)
        return sorted(found, key=lambda s: s.kind == "guard")  # all first values come before main, wherever it stands

    def member_statements(self, file: SourceFile, node: Any) -> list[Statement]:
        """What a member of the main class is to the program."""
        own = node.type in ("field_declaration", "method_declaration") and "static" not in modifiers(node)
        if own or node.type in ("constructor_declaration", "block"):
            return [Statement("pass", node.start_byte, node.end_byte, node=node)]
        if node.type == "method_declaration" and name_of(file, node) == "main":
            return [Statement("guard", node.start_byte, node.end_byte, node=node)]
        return self.statement(file, node)

    def fill(self, file: SourceFile, made: Statement, part: Any, node: Any) -> None:
        super().fill(file, made, part, node)
        dimensions = part.child_by_field_name("dimensions")
        if dimensions is not None:
            made.brackets = "".join(file.slice(dimensions.start_byte, dimensions.end_byte).split())

    def counts(self, node: Any) -> bool:
        return bool(node.type != "switch_label")

    def count(self, node: Any) -> int:
        return super().count(node) - int(node.type == "method_declaration")

    def only_holds(self, node: Any) -> bool:
        return node.type in ("class_declaration", "class_body")


def name_of(file: SourceFile, node: Any) -> str:
    name = node.child_by_field_name("name")
    return file.slice(name.start_byte, name.end_byte)


STATEMENTS = JavaStatements()
