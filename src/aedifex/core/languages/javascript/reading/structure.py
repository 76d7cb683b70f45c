"""Statements of main code and of bodies in JavaScript."""

from __future__ import annotations

from typing import Any

from ....program.model import Argument, Call, SourceFile, Statement
from ...braced.shapes import StatementShapes
from ...braced.statements import Statements
from .imports import is_require
from .walk import FUNCTIONS
from .walk_names import NameWalker

KINDS = {
    "import_statement": "import",
    "function_declaration": "function",
    "generator_function_declaration": "function",
    "class_declaration": "class",
    "abstract_class_declaration": "class",
    "interface_declaration": "class",
    "type_alias_declaration": "class",
    "enum_declaration": "class",
    "empty_statement": "pass",
    "if_statement": "if",
    "for_statement": "for",
    "for_in_statement": "for",
    "while_statement": "while",
    "do_statement": "while",
    "try_statement": "try",
    "switch_statement": "match",
    "with_statement": "with",
    "return_statement": "return",
    "throw_statement": "raise",
    "break_statement": "break",
    "continue_statement": "continue",
}
GUARDS = frozenset(["require.main===module", "module===require.main", "require.main==module"])


class JavaScriptStatements(Statements):
    """JavaScript's: a declaration may be offered to others, a constant may be a function."""

    SHAPES = StatementShapes(
        KINDS,
        declarations=frozenset(["lexical_declaration", "variable_declaration"]),
        comments=frozenset(["comment", "hash_bang_line", "html_comment"]),
        blocks=frozenset(["statement_block"]),
        cases=frozenset(["switch_case", "switch_default"]),
        holders=frozenset(["switch_body", "labeled_statement"]),
        definitions=("_declaration", "_definition"),
        spread="spread_element",
    )
    NAMES = NameWalker.SHAPES

    def statements(self, file: SourceFile, node: Any) -> list[Statement]:
        found: list[Statement] = []
        for child in node.named_children:
            if child.type not in self.SHAPES.comments:
                directives = all(s.kind == "docstring" for s in found)
                found += self.statement(file, child)
                if directives and is_text(child):
                    found[-1].kind = "docstring"  # a directive
        return found

    def statement(self, file: SourceFile, node: Any) -> list[Statement]:
        inner = node.child_by_field_name("declaration") if node.type == "export_statement" else None
        if inner is not None:
            made = Statement(self.SHAPES.kinds.get(inner.type, "other"), node.start_byte, node.end_byte, node=inner)
            return self.declared(file, node, inner, made) if inner.type in self.SHAPES.declarations else [made]
        found = super().statement(file, node)
        if node.type == "if_statement" and is_guard(node):
            found[0].kind = "guard"
        return found

    def declared(self, file: SourceFile, whole: Any, node: Any, made: Statement) -> list[Statement]:
        if is_require(node):
            made.kind = "import"
            return [made]
        return super().declared(file, whole, node, made)

    def fill(self, file: SourceFile, made: Statement, part: Any, node: Any) -> None:
        name, value = part.child_by_field_name("name"), part.child_by_field_name("value")
        if value is not None and value.type in FUNCTIONS and name.type == "identifier" and made.group is None:
            made.kind = "function"
        elif name.type != "identifier":
            made.kind = "other"
        else:
            super().fill(file, made, part, node)

    def type_node(self, part: Any, node: Any) -> Any:
        kind = part.child_by_field_name("type")
        return kind.named_children[0] if kind is not None else None

    def arguments(self, file: SourceFile, call: Call) -> list[Argument]:
        return super().arguments(file, call) if call.node.type == "arguments" else []

    def only_holds(self, node: Any) -> bool:
        return bool(node.type == "export_statement" or node.type.startswith(("class_", "abstract_class_")))


def is_text(node: Any) -> bool:
    """Whether a statement is nothing but a text."""
    return bool(node.type == "expression_statement" and node.named_children[0].type == "string")


def is_guard(node: Any) -> bool:
    text = node.child_by_field_name("condition").text.decode("utf-8", "replace")
    return "".join(text.split()).strip("()") in GUARDS


STATEMENTS = JavaScriptStatements()
