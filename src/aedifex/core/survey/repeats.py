"""The same code at several places: expressions, and rows of statements."""

from __future__ import annotations

from collections.abc import Iterator

from ..program.model import SourceFile, Statement
from .region import Region, all_blocks, region_of


def repeats(region: Region) -> list[Region]:
    """Other regions of the same words, in source order, none of which overlaps another."""
    file, language = region.file, region.language
    words = language.tokens(file, region.start, region.end, [])
    found: list[Region] = []
    for start, end in candidates(region):
        last = found[-1].end if found else 0
        if start < last or (start < region.end and end > region.start) or language.tokens(file, start, end, []) != words:
            continue
        other = region_of(file, language, start, end)
        if other is not None and (other.start, other.end) == (start, end) and bool(other.statements) == bool(region.statements):
            found.append(other)
    return found


def candidates(region: Region) -> Iterator[tuple[int, int]]:
    """Stretches of the same text (an expression) or of as many statements."""
    file = region.file
    if not region.statements:
        text = file.text[region.start : region.end]
        at = file.text.find(text)
        while at >= 0:
            yield at, at + len(text)
            at = file.text.find(text, at + len(text))
        return
    count = len(region.statements)
    for row in rows(file, region):
        for i in range(len(row) - count + 1):
            if [s.kind for s in row[i : i + count]] == [s.kind for s in region.statements]:
                yield row[i].start, row[i + count - 1].end


def rows(file: SourceFile, region: Region) -> Iterator[list[Statement]]:
    language = region.language
    bodies = [list(file.statements), *(language.body(file, f) for f in file.functions_sorted)]
    for body in bodies:
        yield body
        for _, block in all_blocks(file, language, body):
            yield block.statements
