"""The same code at several places: expressions, and rows of statements."""

from __future__ import annotations

from collections.abc import Iterator

from ...program.model import SourceFile, Statement, Symbol
from ..effects import Effects
from .region import Region, all_blocks, region_of


def repeats(region: Region) -> list[Region]:
    """Other regions of the same words, in source order, none of which overlaps another."""
    file, language = region.file, region.language
    words = language.tokens(file, region.start, region.end, [])
    found: list[Region] = []
    head, tail = (words[0].encode(file.encoding), words[-1].encode(file.encoding)) if words else (b"", b"")
    for start, end in candidates(region):
        last = found[-1].end if found else 0
        if not file.text.startswith(head, start) or not file.text.endswith(tail, start, end):
            continue  # most are told apart by their first word, or their last
        if (
            start < last
            or (start < region.end and end > region.start)
            or language.tokens(file, start, end, []) != words
        ):
            continue
        other = region_of(file, language, start, end)
        if (
            other is not None
            and (other.start, other.end) == (start, end)
            and bool(other.statements) == bool(region.statements)
        ):
            found.append(other)
    return found


def is_there(region: Region, other: Region, target: int) -> bool:
    """Whether a function made of one region, which stands at ``target``, is there whenever another one runs."""
    file, language, f = region.file, region.language, region.function
    if f is not None and file.around(f) is not None:
        return other.function is f  # it is made where the function is made, or not at all
    if not language.heads_run:
        return True
    if other.function is None:
        return other.start >= target
    key = ("used above", target)
    if key not in file.memo:
        effects = Effects(file, language)
        early = [s for s in file.statements if s.start < target and s.kind not in ("function", "import")]
        file.memo[key] = set().union(*(effects.touch(s.start, s.end).uses for s in early))
    used: set[Symbol] = file.memo[key]
    symbol = other.function.symbol if other.function.outer is file.scope else None
    return not used if symbol is None else symbol not in used


def candidates(region: Region) -> Iterator[tuple[int, int]]:
    """Stretches of the same text (an expression) or of as many statements."""
    file = region.file
    if not region.statements:
        if not list(file.within(region.start, region.end)):
            return  # a plain value stands for something else each time
        text = file.text[region.start : region.end]
        at = file.text.find(text)
        while at >= 0:
            yield at, at + len(text)
            at = file.text.find(text, at + len(text))
        return
    count = len(region.statements)
    for row in statement_rows(file, region):
        for i in range(len(row) - count + 1):
            if [s.kind for s in row[i : i + count]] == [s.kind for s in region.statements]:
                yield row[i].start, row[i + count - 1].end


def statement_rows(file: SourceFile, region: Region) -> Iterator[list[Statement]]:
    language = region.language
    bodies = [list(file.statements), *(language.body(file, f) for f in file.functions_sorted)]
    for body in bodies:
        yield body
        for _, block in all_blocks(file, language, body):
            yield block.statements
