"""Where a member of a given name is taken from something, whatever that is."""

from __future__ import annotations

import re
from collections.abc import Iterator

from .model import Reference, SourceFile

MEMBERS = {  # the grammars' nodes that take a member, and the field that holds its name
    "attribute": "attribute",
    "member_expression": "property",
    "field_access": "field",
    "method_invocation": "name",
    "method_reference": "",
}


MAKING = frozenset(["object_creation_expression", "new_expression"])  # of whose class the member is


def members_named(file: SourceFile, name: str) -> Iterator[tuple[int, int, Reference | None]]:
    """Span of each use of the member, and the reference that it is taken from where that is a plain name, or to the class of an object that is made there."""
    wanted = name.encode(file.encoding)
    bases = {r.end: r for r in file.references if r.member == name}
    for match in re.finditer(rb"(?<![\w$])" + re.escape(wanted) + rb"(?![\w$])", file.text):
        node = file.tree.root_node.descendant_for_byte_range(match.start(), match.end())
        parent = node.parent if node is not None and node.end_byte - node.start_byte == len(wanted) else None
        if parent is None or parent.type not in MEMBERS:
            continue
        field = parent.child_by_field_name(MEMBERS[parent.type]) if MEMBERS[parent.type] else parent.children[-1]
        owner = parent.child_by_field_name("object") or (parent.children[0] if field != parent.children[0] else None)
        if field is None or field.start_byte != match.start() or owner is None or owner.start_byte == field.start_byte:
            continue
        made = next((r for r in file.within(owner.start_byte, owner.end_byte)), None) if owner.type in MAKING else None
        yield match.start(), match.end(), made or bases.get(owner.end_byte)
