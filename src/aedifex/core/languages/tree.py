"""Questions to a syntax tree that languages ask alike."""

from __future__ import annotations

from collections.abc import Mapping

from ..program.model import SourceFile


def member_owner(
    file: SourceFile, start: int, end: int, members: Mapping[str, str], making: str
) -> tuple[int, int, bool] | None:
    """Span of what a member is taken from, whose name stands from ``start`` to ``end``, and whether that makes an object; None where no member stands.

    ``members``: kind of node that takes a member → the field with its name, "" where its last child is that; ``making``: kind of node that makes an object.
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
