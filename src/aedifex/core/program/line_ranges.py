"""Places in the sources as a design names them: ``tramline.py:88-104``, or ``tramline.py:88:4-88:31`` for a part of a
line."""

from __future__ import annotations

import re
from dataclasses import dataclass

from .errors import AedifexError
from .model import SourceFile
from .program import Program

FORM = re.compile(r"(?P<path>.+?):(?P<first>\d+)(?::(?P<from>\d+))?(?:-(?P<last>\d+)(?::(?P<to>\d+))?)?")


@dataclass(frozen=True)
class Place:
    """A stretch of a file, in bytes."""

    file: SourceFile
    start: int
    end: int


def range_of(text: str, program: Program) -> Place:
    """The stretch that is meant: bytes of the file as read. Lines and columns are counted from one, the last is in.

    Raises AedifexError if there is no such place.
    """
    match = FORM.fullmatch(text)
    if match is None:
        raise AedifexError(f"'{text}' names no lines; write file:first-last, or file:line:column-line:column.")
    path = match["path"]
    if path not in program.holders:
        raise AedifexError(f"{path}: is not among the sources; name one of {', '.join(sorted(program.holders))}.")
    file = program.holders[path]
    opens, closes = next((a, b) for p, a, b in file.parts if p == path)
    first, last = int(match["first"]), int(match["last"] or match["first"])
    base = file.line(opens)
    count = file.line(max(opens, closes - 1)) - base + 1
    if not 1 <= first <= last <= count:
        raise AedifexError(f"{path}:{first}: there are no lines {first} to {last}; the file has {count}.")
    start = file.lines[base + first - 2]
    end = file.lines[base + last - 1] if base + last - 1 < len(file.lines) else len(file.text)
    if match["from"]:
        return Place(
            file,
            column(file, start, int(match["from"])),
            column(file, file.lines[base + last - 2], int(match["to"] or match["from"]) + 1),
        )
    return Place(file, start, end)


def column(file: SourceFile, line: int, number: int) -> int:
    """The offset of a column, counted in characters."""
    end = file.text.find(b"\n", line)
    text = file.slice(line, end if end >= 0 else len(file.text))
    return line + len(text[: max(0, number - 1)].encode(file.encoding))


def lines_of(file: SourceFile, start: int, end: int, whole: bool = True) -> str:
    """How a design names a stretch. ``whole``: it is made of whole lines."""
    path, first = file.stands(start)
    last = file.stands(max(start, end - 1))[1]
    if whole:
        return f"{path}:{first}-{last}" if last > first else f"{path}:{first}"
    return f"{path}:{first}:{column_of(file, start)}-{last}:{column_of(file, end) - 1}"


def moved_lines(text: str, before: Program, after: Program, ranges: dict[str, list[tuple[int, int, str]]]) -> str:
    """How a design names a stretch once edits have moved it; what is no stretch of these files stays as it is."""
    match = FORM.fullmatch(text)
    if match is None or match["path"] not in before.holders:
        return text
    try:
        place = range_of(text, before)
    except AedifexError:
        return text
    mine = ranges.get(place.file.path, [])
    start, end = (moved_offset(at, mine, at != place.start) for at in (place.start, place.end))
    moved = lines_of(after.files[place.file.path], start, end, not match["from"])
    return moved if match["last"] else moved.partition("-")[0]


def column_of(file: SourceFile, offset: int) -> int:
    """The column of an offset, counted in characters from one."""
    return len(file.slice(file.lines[file.line(offset) - 1], offset)) + 1


def moved_offset(offset: int, ranges: list[tuple[int, int, str]], closing: bool) -> int:
    """Where an offset (bytes) is after the edits. ``closing``: it ends a stretch, so that what is put there comes after
    it."""
    found = offset
    for start, end, text in ranges:
        if end < offset or (end == offset and not (closing and start == end)):
            found += len(text.encode()) - (end - start)
        elif start < offset < end:
            found += len(text.encode()) - (offset - start) if closing else start - offset
    return found
