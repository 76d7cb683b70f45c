"""The grammars: one for JavaScript, and for TypeScript one without and one with markup."""

from __future__ import annotations

from functools import cache
from typing import Any

import tree_sitter
import tree_sitter_javascript
import tree_sitter_typescript

from ...tree import kinds_of

SOURCES = {
    "javascript": tree_sitter_javascript.language,
    "typescript": tree_sitter_typescript.language_typescript,
    "tsx": tree_sitter_typescript.language_tsx,
}


def dialect(path: str) -> str:
    """Which grammar reads a file."""
    if path.endswith(".tsx"):
        return "tsx"
    return "typescript" if path.endswith((".ts", ".mts", ".cts")) else "javascript"


@cache
def grammar(name: str) -> Any:
    """The kinds of nodes of a dialect by their number."""
    return tree_sitter.Language(SOURCES[name]())


@cache
def parser(name: str) -> tree_sitter.Parser:
    """The kinds of nodes of a dialect by their number."""
    return tree_sitter.Parser(grammar(name))


@cache
def node_kinds(name: str) -> list[str]:
    """A grammar's node kinds by their number."""
    return kinds_of(grammar(name))
