"""Copies told apart by a word instead of a number: ``left_paddle_y`` and ``right_paddle_y``, ``player_score`` and
``enemy_score``."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import combinations

from ..program.model import SourceFile, Symbol

Words = Callable[[str], list[str]]
# Words that tell two things of one kind apart; with others the functions must be the same as well.
SIDES = frozenset(
    """
    left right top bottom upper lower a b c d first second third north south east west player enemy computer cpu
    opponent red blue green
    yellow white black home away front rear inner outer one two three
    """.split()
)
# Words that tell what is known of one thing apart.
SHARES = frozenset(
    """
    x y z w h width height depth row col column rows cols columns min max start end begin stop old new prev previous
    next current last
    in out up down hour minute second day month year lat lon r g size speed count name open closed on off from to src
    dst read write
    get set load save draw move update show hide init reset high low
    """.split()
)
MAX_WORDS = 12  # words in one place of a name; more of them are names of different things


class Variants:
    """``index``: each word to the number of the object that it stands for."""

    def __init__(self, words: Words, told: Sequence[str]) -> None:
        self.words, self.told = words, list(told)
        self.index = {w: i for i, w in enumerate(told, 1)}

    def split(self, name: str) -> tuple[str, int, str] | None:
        """``left_paddle_y`` → ("# paddle y", 1, "paddle"): pattern, number, stem; None if just one of the words is not
        in it."""
        parts = self.words(name)
        places = [i for i, w in enumerate(parts) if w in self.index]
        if len(places) != 1 or len(parts) < 2:
            return None
        at = places[0]
        pattern = " ".join([*parts[:at], "#", *parts[at + 1 :]])
        nouns = parts[at + 1 : -1] or parts[:at]
        return pattern, self.index[parts[at]], nouns[-1] if nouns else ""

    def label(self, number: int, stem: str) -> list[str]:
        """The words for one object."""
        return [self.told[number - 1], *([stem] if stem else [])]


def word_sets(file: SourceFile, words: Words, variables: Sequence[Symbol]) -> list[Variants]:
    """The sets of words that tell copies apart, those that most names speak of first."""
    rows: dict[tuple[str, ...], dict[str, None]] = {}
    for name in [s.name for s in variables]:
        parts = words(name)
        for i, word in enumerate(parts):
            if word.isalpha() and len(parts) > 1:
                rows.setdefault((*parts[:i], "#", *parts[i + 1 :]), {})[word] = None
    counts: dict[tuple[str, str], int] = {}
    for found in [f for f in rows.values() if len(f) <= MAX_WORDS]:
        for a, b in combinations(found, 2):
            counts[a, b] = counts.get((a, b), 0) + 1
    same = functions_alike(file, words)
    joined: list[list[str]] = []
    for (a, b), count in sorted(counts.items(), key=lambda e: -e[1]):
        if count < 2 or {a, b} & SHARES or not ({a, b} <= SIDES or frozenset((a, b)) in same):
            continue
        group = next((g for g in joined if a in g or b in g), None)
        if group is None:
            joined.append([a, b])
        else:
            group += [w for w in (a, b) if w not in group]
    return [Variants(words, group) for group in joined]


def functions_alike(file: SourceFile, words: Words) -> set[frozenset[str]]:
    """Pairs of words in which the names of two functions differ, and in nothing else."""
    rows: dict[tuple[str, ...], list[str]] = {}
    for f in file.tops:
        parts = words(f.name)
        for i, word in enumerate(parts):
            rows.setdefault((*parts[:i], "#", *parts[i + 1 :]), []).append(word)
    return {
        frozenset(pair)
        for key, found in rows.items()
        if len(key) > 1 and len(found) <= MAX_WORDS
        for pair in combinations(found, 2)
    }
