"""What a file says to people: its remarks, and its text without them and without the inside of texts."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from .model import SourceFile

SAID = frozenset(["string_content", "string_fragment", "character_literal", "regex_pattern", "html_comment", "hash_bang_line"])


def said(file: SourceFile, besides: frozenset[str] = frozenset()) -> Iterator[Any]:
    """The nodes of its comments, and of the kinds ``besides``, in source order."""
    queue = [file.tree.root_node] if file.tree is not None else []
    while queue:
        node = queue.pop()
        if node.type.endswith("comment") or node.type in besides:
            yield node
        else:
            queue += reversed(node.children)


def remarks(file: SourceFile) -> list[str]:
    """The text of each comment, in source order; worked out once."""
    if "remarks" not in file.memo:
        file.memo["remarks"] = [file.slice(node.start_byte, node.end_byte).strip() for node in said(file)]
    found: list[str] = file.memo["remarks"]
    return found


def code_text(file: SourceFile) -> bytes:
    """As long as the text, with comments and the inside of texts blank; worked out once."""
    if "code text" not in file.memo:
        found = bytearray(file.text)
        for node in said(file, SAID):
            found[node.start_byte : node.end_byte] = bytes(b if b in b"\r\n" else 32 for b in file.text[node.start_byte : node.end_byte])
        file.memo["code text"] = bytes(found)
    text: bytes = file.memo["code text"]
    return text
