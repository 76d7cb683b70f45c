"""What a file says to people: its remarks, and its text without them and without the inside of texts."""

from __future__ import annotations

from bisect import bisect_right
from functools import cache
from typing import Any

from tree_sitter import Language, Query, QueryCursor

from .model import SourceFile

SAID = frozenset(
    ["string_content", "string_fragment", "character_literal", "regex_pattern", "html_comment", "hash_bang_line"]
)


def said_nodes(file: SourceFile, besides: frozenset[str] = frozenset()) -> list[Any]:
    """The nodes of its comments, and of the kinds ``besides``, in source order."""
    if file.tree is None:
        return []
    query = asking(file.tree.language, besides)
    found = QueryCursor(query).captures(file.tree.root_node).get("said", []) if query is not None else []
    return sorted(found, key=lambda node: node.start_byte)


@cache
def asking(grammar: Language, besides: frozenset[str]) -> Query | None:
    """The question for all nodes of these kinds, as far as a grammar has them."""
    kinds = {grammar.node_kind_for_id(i) or "" for i in range(grammar.node_kind_count) if grammar.node_kind_is_named(i)}
    wanted = sorted(k for k in kinds if k.endswith("comment") or k in besides)
    return Query(grammar, " ".join(f"({k}) @said" for k in wanted)) if wanted else None


def remark_spans(file: SourceFile) -> list[tuple[int, int]]:
    """Where its comments stand, in source order; worked out once."""
    if "remark spans" not in file.memo:
        file.memo["remark spans"] = [(node.start_byte, node.end_byte) for node in said_nodes(file)]
    found: list[tuple[int, int]] = file.memo["remark spans"]
    return found


def remark_at(file: SourceFile, offset: int) -> tuple[int, int] | None:
    """The comment that stands there."""
    spans = remark_spans(file)
    at = bisect_right(spans, offset, key=lambda span: span[0]) - 1
    return spans[at] if at >= 0 and offset < spans[at][1] else None


def starts_remark(file: SourceFile, start: int, line: str) -> bool:
    """Whether a line, which begins at ``start``, has a comment before all else."""
    return remark_at(file, start + len(line) - len(line.lstrip())) is not None


def remarks(file: SourceFile) -> list[str]:
    """The text of each comment, in source order; worked out once."""
    if "remarks" not in file.memo:
        file.memo["remarks"] = [file.slice(node.start_byte, node.end_byte).strip() for node in said_nodes(file)]
    found: list[str] = file.memo["remarks"]
    return found


def code_text(file: SourceFile) -> bytes:
    """As long as the text, with comments and the inside of texts blank; worked out once."""
    if "code text" not in file.memo:
        found = bytearray(file.text)
        for node in said_nodes(file, SAID):
            found[node.start_byte : node.end_byte] = bytes(
                b if b in b"\r\n" else 32 for b in file.text[node.start_byte : node.end_byte]
            )
        file.memo["code text"] = bytes(found)
    text: bytes = file.memo["code text"]
    return text
