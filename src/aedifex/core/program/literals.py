"""Literals in a stretch of code, as far as a variable could stand in their place."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from .model import SourceFile

Literal = tuple[int, int, str]  # start, end, and what the language calls their type


def literals(
    file: SourceFile, start: int, end: int, kind: Callable[[Any], str], closed: frozenset[str]
) -> Iterator[Literal]:
    """Outermost literals in source order. ``kind``: the type of a node that is one, else ""; ``closed``: nodes whose
    inside must stay literal."""
    stack = [file.tree.root_node.descendant_for_byte_range(start, max(start, end - 1))]
    while stack:
        node = stack.pop()
        if node.end_byte <= start or node.start_byte >= end or node.type in closed:
            continue
        found = kind(node) if start <= node.start_byte and node.end_byte <= end else ""
        if found:
            yield node.start_byte, node.end_byte, found
        else:
            stack.extend(reversed(node.children))
