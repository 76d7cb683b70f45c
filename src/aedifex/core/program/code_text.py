"""The text of a file without what it says to people: comments, and the inside of texts, are blank."""

from __future__ import annotations

from .model import SourceFile

SAID = frozenset(["string_content", "string_fragment", "character_literal", "regex_pattern", "html_comment", "hash_bang_line"])


def code_text(file: SourceFile) -> bytes:
    """As long as the text; worked out once."""
    if "code text" not in file.memo:
        found = bytearray(file.text)
        queue = [file.tree.root_node] if file.tree is not None else []
        while queue:
            node = queue.pop()
            if node.type.endswith("comment") or node.type in SAID:
                found[node.start_byte : node.end_byte] = bytes(b if b in b"\r\n" else 32 for b in file.text[node.start_byte : node.end_byte])
            else:
                queue += node.children
        file.memo["code text"] = bytes(found)
    text: bytes = file.memo["code text"]
    return text
