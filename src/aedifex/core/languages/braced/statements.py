"""Statements of main code and of bodies, and the arguments of calls, from the syntax tree.

What the grammar calls things stands in a table (``shapes``); a language overrides what it reads otherwise.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, ClassVar

from ...program.model import Argument, Call, Reference, SourceFile, Statement
from .. import tree
from . import text
from .shapes import Shapes, StatementShapes


class Statements:
    """``SHAPES``: of statements; ``NAMES``: of what is in them."""

    SHAPES: ClassVar[StatementShapes]
    NAMES: ClassVar[Shapes]

    def statements(self, file: SourceFile, node: Any) -> list[Statement]:
        """The statements directly in a program or block, in source order; one for each variable of a declaration."""
        comments = self.SHAPES.comments
        return [s for c in node.named_children if c.type not in comments for s in self.statement(file, c)]

    def statement(self, file: SourceFile, node: Any) -> list[Statement]:
        """The statements of one node: one for each variable of a declaration, else one."""
        made = Statement(self.SHAPES.kinds.get(node.type, "other"), node.start_byte, node.end_byte, node=node)
        if node.type in self.SHAPES.declarations:
            return self.declared(file, node, node, made)
        if node.type == "expression_statement":
            self.expression(file, node, made)
        return [made]

    # -- variables -------------------------------------------------------------------------------

    def declared(self, file: SourceFile, whole: Any, node: Any, made: Statement) -> list[Statement]:
        """A statement for each variable. ``whole``: the declaration with what offers it to others."""
        parts = self.variables(node)
        if len(parts) == 1:
            self.fill(file, made, parts[0], node)
            return [made]
        found, span = [], (whole.start_byte, whole.end_byte)
        for part in parts:
            one = Statement("assign", part.start_byte, part.end_byte, node=node, group=span)
            self.fill(file, one, part, node)
            found.append(one)
        return found

    def variables(self, node: Any) -> list[Any]:
        """The nodes of the variables that a declaration declares."""
        return [c for c in node.named_children if c.type == self.SHAPES.declarator]

    def name_node(self, part: Any) -> Any:
        """Where the name of a variable stands."""
        return part.child_by_field_name("name")

    def fill(self, file: SourceFile, made: Statement, part: Any, node: Any) -> None:
        """A variable, its type and its first value; a variable without one starts as the language has it."""
        value = part.child_by_field_name("value")
        made.kind = "assign"
        made.target = self.reference(file, self.name_node(part))
        made.value = (value.start_byte, value.end_byte) if value is not None else (part.end_byte, part.end_byte)
        kind = self.type_node(part, node)
        if kind is not None:
            made.annotation = (kind.start_byte, kind.end_byte)

    def type_node(self, part: Any, node: Any) -> Any:
        """Where the type of a variable is written; None where nothing says it."""
        return node.child_by_field_name("type")

    def reference(self, file: SourceFile, node: Any) -> Reference | None:
        return next((r for r in file.within(node.start_byte, node.start_byte + 1)), None)

    def expression(self, file: SourceFile, node: Any, made: Statement) -> None:
        """What an expression that stands alone does."""
        inner = node.named_children[0]
        made.kind = "expression"
        if inner.type in ("update_expression", "augmented_assignment_expression"):
            made.kind = "augment"
        elif inner.type == "assignment_expression":
            left, operator, right = (inner.child_by_field_name(n) for n in ("left", "operator", "right"))
            made.kind = "assign" if operator is None or operator.type == "=" else "augment"
            if made.kind == "assign":
                made.value = (right.start_byte, right.end_byte)
                made.target = self.reference(file, left) if left.type == "identifier" else None

    # -- blocks ----------------------------------------------------------------------------------

    def blocks(self, node: Any) -> list[Any]:
        """The blocks, or lone statements, directly inside a compound statement."""
        shapes, found = self.SHAPES, list[Any]()
        if node.type in shapes.blocks:
            return [node]
        plain = node.type.endswith(shapes.compound) and node.type != "for_statement"  # which has more in its head
        for child in node.named_children:
            if child.type in shapes.blocks or child.type in shapes.groups:
                found.append(child)
            elif child.type in shapes.holders or child.type in shapes.cases or child.type.endswith("_clause"):
                found += self.blocks(child) or ([child] if child.type in shapes.cases else [])
            elif plain and child.type.endswith("_statement"):
                found.append(child)
        body = node.child_by_field_name("body") if node.type == "for_statement" else None
        return [*found, body] if body is not None and body.type not in shapes.blocks else found

    def rows(self, block: Any) -> bool:
        """Whether a block holds statements, and is none itself."""
        return any(block.type in kinds for kinds in (self.SHAPES.blocks, self.SHAPES.groups, self.SHAPES.cases))

    def counts(self, node: Any) -> bool:
        """Whether a node in a block is a statement, and not part of its head."""
        return bool(node.type.endswith(("_statement", "_declaration")))

    def inner_statements(self, file: SourceFile, node: Any) -> list[Statement]:
        """The statements in the blocks directly inside a statement."""
        found: list[Statement] = []
        for block in self.blocks(node):
            found += self.statements(file, block) if self.rows(block) else self.statement(file, block)
        return [s for s in found if self.counts(s.node)]

    def body_of(self, file: SourceFile, function: Any) -> list[Statement]:
        """The statements of a function; what it gives, where it is but an expression."""
        body = function.node.child_by_field_name("body") if function.node is not None else None
        if body is None:
            return []
        if body.type in self.SHAPES.blocks:
            return self.statements(file, body)
        return [Statement("return", body.start_byte, body.end_byte, node=body)]

    # -- calls and measures ----------------------------------------------------------------------

    def arguments(self, file: SourceFile, call: Call) -> list[Argument]:
        """The arguments of a call in order; a spread one is marked with a star."""
        return [
            Argument("*" if c.type == self.SHAPES.spread else "", c.start_byte, c.end_byte, c.start_byte)
            for c in call.node.named_children
            if c.type not in self.SHAPES.comments
        ]

    def count(self, node: Any) -> int:
        """How many statements stand in a statement, itself and nested ones included."""
        total = 1
        for block in self.blocks(node):
            inner: Iterable[Any] = block.named_children if self.rows(block) else [block]
            total += sum(self.count(c) for c in inner if self.counts(c) and c.type not in self.SHAPES.comments)
        return total

    def depth(self, node: Any) -> int:
        """How deep blocks are nested inside a statement (0 for a plain one); a definition is no level, what it holds
        counts."""
        if self.only_holds(node):
            return max((self.depth(c) for c in node.named_children), default=0)
        within = self.blocks(node)
        inside = [c for b in within for c in b.named_children]
        inner = [self.depth(c) for c in inside if c.type.endswith(("_statement", "_declaration"))]
        return max(inner, default=0) + bool(within and not node.type.endswith(self.SHAPES.definitions))

    def only_holds(self, node: Any) -> bool:
        """Whether a node is no level of nesting, and has no block of its own."""
        return bool(node.type.startswith("class_"))

    def tokens(self, file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
        return text.tokens(file, start, end, edits, tuple(self.SHAPES.comments))

    def member_owner(self, file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
        return tree.member_owner(file, start, end, self.NAMES.member, self.NAMES.making)
