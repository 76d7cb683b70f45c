"""Loops that count through all items of a list."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..program.language import Language
from ..program.lists import WholeLoop
from ..program.model import SourceFile, Statement
from .regions.region import all_blocks


def whole_loops(file: SourceFile, language: Language, bounds: set[str]) -> list[tuple[Statement, WholeLoop]]:
    """The loops of a file that count from nothing up to one of the bounds, in source order. ``bounds``: texts, of the
    file's own names."""
    found = [
        (s, loop) for s in statements(file, language) if (loop := counting_loop(file, language, s, bounds)) is not None
    ]
    return sorted(found, key=lambda e: e[0].start)


def counting_loop(file: SourceFile, language: Language, s: Statement, bounds: set[str]) -> WholeLoop | None:
    """A statement as such a loop, whose bound means the file's own names."""
    loop = language.whole_loop(file, s.start, s.end, bounds) if s.kind == "for" else None
    if loop is None or any(
        r.name != loop.name and r.symbol is not file.scope.symbols.get(r.name, r.symbol)
        for r in file.within(*loop.header)
    ):
        return None
    return loop


def statements(file: SourceFile, language: Language) -> Iterator[Statement]:
    """All statements of main code and functions, those in blocks included."""
    for row in [file.statements, *(language.body(file, f) for f in file.functions_sorted)]:
        yield from with_inner(file, language, row)


def with_inner(file: SourceFile, language: Language, row: Sequence[Statement]) -> Iterator[Statement]:
    """The statements of a row, and those in their blocks."""
    yield from row
    for _, block in all_blocks(file, language, row):
        yield from block.statements
