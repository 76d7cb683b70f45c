"""Where a line of a text that steps wrote came from: people read lines of the files that they have before them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Any, Protocol

WORD = re.compile(r"[A-Z]?[a-z]+|[A-Z]+|\d+")  # what names are made of
ALIKE = 0.4  # share of the words that two lines must have in common to be taken for one
COMMON = 60  # lines with one word beyond which it tells nothing


class TracedText(Protocol):
    """What of a file matters here."""

    path: str
    text: bytes
    memo: dict[Any, Any]

    @property
    def lines(self) -> list[int]: ...  # where each begins, in bytes

    def stands(self, offset: int) -> tuple[str, int]: ...

    def slice(self, start: int, end: int) -> str: ...


Row = tuple[str, int, str, frozenset[str]]  # path, line, text, words


def traced_rows(file: TracedText) -> list[Row]:
    """The lines of a file, those of each file that it was made of by their own numbers; worked out once."""
    if "rows" in file.memo:
        kept: list[Row] = file.memo["rows"]
        return kept
    found = []
    bounds = [*file.lines, len(file.text)]
    for start, end in pairwise(bounds):
        path, line = file.stands(start)
        text = file.slice(start, end).strip()
        found.append((path, line, text, frozenset(w.lower() for w in WORD.findall(text))))
    file.memo["rows"] = found
    return found


def origins(file: TracedText, drafted: Sequence[TracedText]) -> list[tuple[str, int]]:
    """For each line of a file the (path, line) among the drafted files that it most likely was; that of the line before
    where none is like it."""
    old = [r for f in sorted(drafted, key=lambda f: f.path != file.path) for r in traced_rows(f)]
    same: dict[str, list[int]] = {}
    having: dict[str, list[int]] = {}
    for i, (_, _, text, words) in enumerate(old):
        same.setdefault(text, []).append(i)
        for word in words:
            having.setdefault(word, []).append(i)
    found: list[tuple[str, int]] = []
    last = -1
    for _, _, text, words in traced_rows(file):
        at = nearest(same.get(text, []), last) if words else None
        if at is None and words:
            at = most_alike(words, old, having, last)
        if at is not None:
            last = at
        found.append(old[last][:2] if last >= 0 else ((old[0][0] if old else file.path), 0))
    return found


def nearest(places: list[int], last: int) -> int | None:
    return min(places, key=lambda i: (abs(i - last - 1), i)) if places else None


def most_alike(words: frozenset[str], old: list[Row], having: dict[str, list[int]], last: int) -> int | None:
    rare = sorted((w for w in words if w in having and len(having[w]) <= COMMON), key=lambda w: (len(having[w]), w))[:4]
    near = {i for w in rare for i in having[w]}
    best = max(
        near, key=lambda i: (len(words & old[i][3]) / len(words | old[i][3]), -abs(i - last - 1), -i), default=None
    )
    return best if best is not None and len(words & old[best][3]) / len(words | old[best][3]) >= ALIKE else None
