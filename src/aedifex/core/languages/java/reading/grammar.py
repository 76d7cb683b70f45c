"""The grammar, which reads sketches too once a few words are masked."""

from __future__ import annotations

import re
from functools import cache
from typing import Any

import tree_sitter
import tree_sitter_java

from ...tree import kinds_of

CAST = re.compile(rb"\b(int|float|boolean|char|byte)(?=\s*\()")
COLOUR = re.compile(rb"#(?=[0-9A-Fa-f]{6}(?:[0-9A-Fa-f]{2})?\b)")
QUOTED = re.compile(rb"//[^\n]*|/\*.*?\*/|\"(?:\\.|[^\"\\\n])*\"|'(?:\\.|[^'\\\n])*'", re.S)


@cache
def grammar() -> Any:
    """The kinds of nodes by their number."""
    return tree_sitter.Language(tree_sitter_java.language())


@cache
def parser() -> tree_sitter.Parser:
    """The kinds of nodes by their number."""
    return tree_sitter.Parser(grammar())


@cache
def node_kinds() -> list[str]:
    """The grammar's node kinds by their number."""
    return kinds_of(grammar())


def masked(text: bytes) -> bytes:
    """A sketch in the same length for the grammar: casts written as calls, and colours written as #RRGGBB."""
    parts, at = [], 0
    for match in QUOTED.finditer(text):
        parts += [plain(text[at : match.start()]), match[0]]
        at = match.end()
    parts.append(plain(text[at:]))
    return b"".join(parts)


def plain(text: bytes) -> bytes:
    text = CAST.sub(lambda m: m[1][:1].upper() + m[1][1:], text)
    return COLOUR.sub(b"0", re.sub(rb"#([0-9A-Fa-f]{6}(?:[0-9A-Fa-f]{2})?)\b", lambda m: b"0x" + m[1][1:], text))
