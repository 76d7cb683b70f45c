"""Changes to source text: replacements of byte ranges, and whole new files."""

from __future__ import annotations

from dataclasses import dataclass, field

from .model import SourceFile

Range = tuple[int, int, str]


class Overlap(Exception):
    """Two edits want the same bytes."""


@dataclass
class Edits:
    """What a step wants changed. Ranges of one file must not overlap; insertions at one place keep their order."""

    ranges: dict[str, list[tuple[int, int, str]]] = field(default_factory=dict)
    created: dict[str, bytes] = field(default_factory=dict)
    removed: set[str] = field(default_factory=set)

    def replace(self, path: str, start: int, end: int, text: str) -> None:
        self.ranges.setdefault(path, []).append((start, end, text))

    def insert(self, path: str, at: int, text: str) -> None:
        self.replace(path, at, at, text)

    def delete(self, path: str, start: int, end: int) -> None:
        self.replace(path, start, end, "")

    def create(self, path: str, text: str) -> None:
        self.created[path] = text.encode("utf-8")

    def __bool__(self) -> bool:
        return bool(self.ranges or self.created or self.removed)

    def apply(self, files: dict[str, SourceFile]) -> dict[str, bytes | None]:
        """The new bytes of every file that changes."""
        changed: dict[str, bytes | None] = {**self.created, **dict.fromkeys(self.removed)}
        for path, ranges in self.ranges.items():
            file = files[path]
            for part, mine in ranges_by_file(file, ranges).items():
                start, end = next((a, b) for p, a, b in file.parts if p == part)
                text = splice(file, start, end, mine, encode=True)
                assert isinstance(text, bytes)
                if text != file.text[start:end]:
                    changed[part] = text
        return changed


def ranges_by_file(file: SourceFile, ranges: list[Range]) -> dict[str, list[Range]]:
    """The ranges of each file that was read as a part of a whole; an insertion between two opens the second."""
    found: dict[str, list[Range]] = {}
    for edit in ranges:
        holding = [p for p, start, end in file.parts if start <= edit[0] and edit[1] <= end]
        if not holding:
            raise Overlap(f"{file.path}:{file.line(edit[0])}: a change reaches over the end of a file")
        found.setdefault(holding[-1], []).append(edit)
    return found


def splice(
    file: SourceFile, start: int, end: int, ranges: list[tuple[int, int, str]], encode: bool = False
) -> str | bytes:
    """The text of [start, end) with the given ranges replaced. Raises Overlap if two do."""
    parts: list[bytes] = []
    at = start
    for _, (left, right, text) in sorted(enumerate(ranges), key=lambda e: (e[1][0], e[1][1], e[0])):
        if left < at:
            raise Overlap(f"{file.path}:{file.line(left)}: two changes meet in this line")
        parts += [file.text[at:left], text.encode(file.encoding)]
        at = right
    parts.append(file.text[at:end])
    joined = b"".join(parts)
    return joined if encode else joined.decode(file.encoding)


def rewritten(file: SourceFile, start: int, end: int, ranges: list[tuple[int, int, str]]) -> str:
    """Like ``splice`` for the ranges that lie inside [start, end), as text."""
    inside = [r for r in ranges if start <= r[0] and r[1] <= end]
    text = splice(file, start, end, inside)
    assert isinstance(text, str)
    return text


def applied(text: bytes, edits: list[Range], encoding: str) -> bytes:
    """The text with ranges replaced; those at one place keep their order."""
    parts, at = [], 0
    for _, (start, end, new) in sorted(enumerate(edits), key=lambda e: (e[1][0], e[1][1], e[0])):
        parts += [text[at:start], new.encode(encoding)]
        at = max(at, end)
    return b"".join([*parts, text[at:]])
