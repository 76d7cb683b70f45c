"""A walk through a syntax tree, and questions to it, that languages have in common."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, ClassVar

import tree_sitter

from ..program.model import Scope, SourceFile

ERROR = 0xFFFF  # the kind of a stretch that the grammar cannot read


def kinds_of(grammar: tree_sitter.Language) -> list[str]:
    """The kinds of a grammar's nodes by their number; "" for punctuation."""
    named = grammar.node_kind_is_named
    return [grammar.node_kind_for_id(i) or "" if named(i) else "" for i in range(grammar.node_kind_count)]


class TreeWalker:
    """Goes through a tree once: what is done with a node of a kind is the method ``on_KIND``, nothing, or its children
    one by one.

    ``LEAVES``: kinds in which nothing is to be noted; ``PASSING``: those whose children that are bare names are passed
    on as values.
    """

    LEAVES: ClassVar[frozenset[str]] = frozenset()
    PASSING: ClassVar[frozenset[str]] = frozenset()

    def __init__(self, file: SourceFile, kinds: Sequence[str]) -> None:
        self.file = file
        self.scope = file.scope
        self.references = file.references
        self.table: dict[int, Callable[[Any], Any]] = {i: self.handler_of(kind) for i, kind in enumerate(kinds)}
        self.table[ERROR] = self.children

    def handler_of(self, kind: str) -> Callable[[Any], Any]:
        own: Callable[[Any], Any] | None = getattr(self, "on_" + kind, None) if kind else None
        if own is not None:
            return own
        return self.leaf if kind in self.LEAVES else self.passing if kind in self.PASSING else self.children

    def leaf(self, node: Any) -> None:
        """Nothing to note."""

    def visit(self, node: Any) -> None:
        self.table[node.kind_id](node)

    def children(self, node: Any) -> None:
        table = self.table
        for child in node.named_children:
            table[child.kind_id](child)

    def passing(self, node: Any) -> None:
        for child in node.named_children:
            self.value(child)

    def value(self, node: Any) -> None:
        """A node whose value is passed on."""
        raise NotImplementedError

    def enter(self, kind: str, name: str, node: Any) -> Scope:
        """Open a scope; gives back the one around it."""
        held = self.scope
        self.scope = Scope(kind, name, held, node.start_byte, node.end_byte)
        return held


def member_owner(
    file: SourceFile, start: int, end: int, members: Mapping[str, str], making: str
) -> tuple[int, int, bool] | None:
    """Span of what a member is taken from, whose name stands from ``start`` to ``end``, and whether that makes an
    object; None where no member stands.

    ``members``: kind of node that takes a member → the field with its name, "" where its last child is that;
    ``making``: kind of node that makes an object.
    """
    node = file.tree.root_node.descendant_for_byte_range(start, end)
    parent = node.parent if node is not None and (node.start_byte, node.end_byte) == (start, end) else None
    if parent is None or parent.type not in members:
        return None
    field = parent.child_by_field_name(members[parent.type]) if members[parent.type] else parent.children[-1]
    owner = parent.child_by_field_name("object") or (parent.children[0] if field != parent.children[0] else None)
    if field is None or field.start_byte != start or owner is None or owner.start_byte == start:
        return None
    return owner.start_byte, owner.end_byte, owner.type == making
