"""Words in a program's text that note which of its functions and lines a run reaches."""

from __future__ import annotations

from typing import Any

from ....program.edits import Range as Edit
from ....program.model import SourceFile
from ..writing.transform import walk

HOLDERS = frozenset(["block", "constructor_body", "switch_block_statement_group"])
STATEMENTS = ("_statement", "local_variable_declaration", "switch_expression")


def marks(file: SourceFile, lines: bool) -> list[Edit]:
    """One at the start of each function; with ``lines`` also one before each statement that stands in a block."""
    found: list[Edit] = []
    for f in file.functions:
        node = file.tree.root_node.named_descendant_for_byte_range(f.start, f.end)
        body = node.child_by_field_name("body") if node is not None else None
        if body is not None and body.type in HOLDERS:
            path, line = file.stands(f.start)
            found.append(mark(first_place(body), f'called("{path}", {line})'))
    for node in walk(file.tree.root_node) if lines else ():
        if node.type in HOLDERS:
            for child in node.named_children:
                if child.type.endswith(STATEMENTS) and child.type != "explicit_constructor_invocation":
                    path, line = file.stands(child.start_byte)
                    found.append(mark(child.start_byte, f'reached("{path}", {line})'))
    return found


def mark(at: int, words: str) -> Edit:
    return at, at, f" aedifex.Pin.{words}; "


def first_place(body: Any) -> int:
    """Where the first statement of a body may stand: behind the call of another constructor."""
    first = next((c for c in body.named_children if c.type == "explicit_constructor_invocation"), None)
    at: int = first.end_byte if first is not None else body.start_byte + 1
    return at
