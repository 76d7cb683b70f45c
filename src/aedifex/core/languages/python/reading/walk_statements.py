"""Statements, imports and patterns in the walk."""

from __future__ import annotations

from typing import Any

from ....program.model import Declaration, Role, Statement
from .walk_names import TARGETS, NameWalker


class StatementWalker(NameWalker):
    """Assignments, loops, imports, declarations, ``match``."""

    # -- statements ----------------------------------------------------------------------------

    def on_assignment(self, node: Any, inner: bool = False) -> None:
        left, right, kind = (node.child_by_field_name(f) for f in ("left", "right", "type"))
        chain = right is not None and right.type == "assignment"
        if chain:
            self.on_assignment(right, True)
        elif right is not None:
            self.value(right)
        if kind is not None and left.type == "tuple_pattern" and left.named_child_count == 1:
            left = left.named_children[0]  # ``(x): int``: parentheses, not a tuple
            if right is None:
                if left.type != "identifier":
                    self.visit(left)
                self.annotation(kind)
                return
        if kind is not None and left.type == "identifier" and right is None:
            self.scope.bound.add(self.name_of(left))
            ref = self.use(left)
            ref.form = "annotation"
        else:
            self.target(left, "chain" if chain or inner else "")
        if kind is not None:
            self.annotation(kind)

    def on_augmented_assignment(self, node: Any) -> None:
        left = node.child_by_field_name("left")
        self.visit(node.child_by_field_name("right"))
        if left.type == "identifier":
            self.bind(left, role=Role.BOTH)
        else:
            self.target(left)

    def on_for_statement(self, node: Any) -> None:
        self.visit(node.child_by_field_name("right"))
        left = node.child_by_field_name("left")
        self.target(left, "loop")
        for child in node.named_children:
            if child != left and child != node.child_by_field_name("right"):
                self.visit(child)

    def on_with_item(self, node: Any) -> None:
        self.with_value(node.named_children[0])

    def with_value(self, node: Any) -> None:
        if node.type in ("tuple", "parenthesized_expression"):
            for child in node.named_children:
                self.with_value(child)
        else:
            self.visit(node)

    def on_as_pattern(self, node: Any) -> None:
        form = "with"
        parent = node.parent
        while parent is not None and parent.type not in (
            "except_clause",
            "except_group_clause",
            "case_clause",
            "with_item",
        ):
            parent = parent.parent
        if parent is not None and parent.type.startswith("except"):
            form = "except"
        elif parent is not None and parent.type == "case_clause":
            form = "pattern"
        for child in node.named_children:
            if child.type == "as_pattern_target":
                self.target(child, form)
            elif child.type == "identifier" and form == "pattern":
                self.bind(child, form)
            else:
                self.visit(child)

    def on_delete_statement(self, node: Any) -> None:
        for child in node.named_children:
            self.delete(child)

    def delete(self, node: Any) -> None:
        if node.type == "identifier":
            self.bind(node, role=Role.DELETE)
        elif node.type in TARGETS or node.type == "parenthesized_expression":
            for child in node.named_children:
                self.delete(child)
        else:
            self.target(node)

    def declare(self, node: Any, names: set[str]) -> None:
        for child in node.named_children:
            if child.type == "identifier":
                name = self.name_of(child)
                names.add(name)
                self.file.declarations.append(
                    Declaration(name, child.start_byte, child.end_byte, (node.start_byte, node.end_byte), self.scope)
                )

    def on_global_statement(self, node: Any) -> None:
        self.declare(node, self.scope.globals)

    def on_nonlocal_statement(self, node: Any) -> None:
        self.declare(node, self.scope.nonlocals)

    # -- imports -------------------------------------------------------------------------------

    def bind_imports(self, node: Any) -> None:
        self.file.imports.append(Statement("import", node.start_byte, node.end_byte, node=node))
        for child in node.children_by_field_name("name"):
            aliased = child.type == "aliased_import"
            self.bind(child.child_by_field_name("alias") if aliased else child.named_children[0], "import")

    on_import_statement = bind_imports

    def on_import_from_statement(self, node: Any) -> None:
        self.bind_imports(node)
        if any(c.type == "wildcard_import" for c in node.named_children):
            module = node.child_by_field_name("module_name")
            self.scope.stars.append(module.text.decode())
            self.file.star_imports.append(node.start_byte)

    def on_future_import_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("name"):
            self.file.futures.append(child.text.decode())
            name = child.child_by_field_name("alias") if child.type == "aliased_import" else child.named_children[0]
            self.bind(name, "import")

    # -- patterns ------------------------------------------------------------------------------

    def on_match_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("subject"):
            self.value(child)
        body = node.child_by_field_name("body")
        for child in body.named_children:
            self.visit(child)

    def on_case_clause(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "case_pattern":
                self.pattern(child)
            else:
                self.visit(child)

    def pattern(self, node: Any) -> None:
        kind = node.type
        if kind == "dotted_name":
            parts = node.named_children
            if len(parts) == 1:
                if parts[0].text != b"_":
                    self.bind(parts[0], "pattern")
            else:
                self.use(parts[0]).member = parts[1].text.decode()
        elif kind == "class_pattern":
            first = node.named_children[0]
            ref = self.use(first.named_children[0])
            if first.named_child_count > 1:
                ref.member = first.named_children[1].text.decode()
            for child in node.named_children[1:]:
                self.pattern(child)
        elif kind == "keyword_pattern":
            for child in node.named_children[1:]:
                self.pattern(child)
        elif kind in ("splat_pattern", "as_pattern"):
            for child in node.named_children:
                if child.type == "identifier":
                    if child.text != b"_":
                        self.bind(child, "pattern")
                else:
                    self.pattern(child)
        elif kind == "string" or kind == "concatenated_string":
            self.visit(node)
        else:
            for child in node.named_children:
                self.pattern(child)
