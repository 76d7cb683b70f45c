"""What code is about: set-up, input, moving on, drawing, timing, sound, files, a database, the network, the console
(A4, A6)."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fnmatch import translate
from functools import cached_property

from ..program.language import Language
from ..program.model import SourceFile, Statement, Symbol
from .effects import Effects

WORK, SETUP, CLOSING = "work", "set-up", "closing"  # what nothing outside can tell of: in a loop, before it, after it
OUTWARD = ("console", "drawing", "sound", "files", "database", "network")  # what leaves the program
ORDER = (
    "input",
    "timing",
    "network",
    "database",
    "files",
    "sound",
    "drawing",
    "console",
)  # the first wins where two are as frequent

DOTTED = re.compile(rb"([A-Za-z_$][\w$]*(?:\s*\.\s*[\w$]+)+)\s*\(")


class Words:
    """What a language's table says of a call, by how it is written in full."""

    def __init__(self, concerns: Mapping[str, Sequence[str]]) -> None:
        rows = [(p, c) for c, patterns in concerns.items() for p in patterns]
        self.exact = {p: c for p, c in rows if "*" not in p}
        self.members = {p[2:]: c for p, c in rows if p.startswith("*.")}
        self.spread = [(p, c) for p, c in rows if "*" in p and not p.startswith("*.")]
        self.pattern = re.compile("|".join(f"({translate(p)})" for p, _ in self.spread) or "(?!)")
        self.kept: dict[str, str] = {}

    def of(self, text: str) -> str:
        """The concern of the first pattern that a call fits; "" if none does."""
        if text not in self.kept:
            match = self.pattern.match(text)
            self.kept[text] = self.exact.get(text) or (
                self.spread[(match.lastindex or 1) - 1][1] if match is not None else ""
            )
        return self.kept[text]


WORDS: dict[str, Words] = {}  # by language


def concern_words(language: Language) -> Words:
    if language.name not in WORDS:
        WORDS[language.name] = Words(language.concerns)
    return WORDS[language.name]


@dataclass
class Concerns:
    """What each call of a file is for, by itself and through the program's own functions."""

    file: SourceFile
    language: Language
    effects: Effects
    modules: dict[str, str] = field(default_factory=dict)  # name of an import → what it stands for
    places: list[int] = field(default_factory=list)  # where such calls start, sorted
    found: dict[int, str] = field(default_factory=dict)  # where a call starts → its concern

    def __post_init__(self) -> None:
        for s in self.file.imports:
            for local, module, name in self.language.imported(self.file, s):
                self.modules[local] = f"{module}.{name}" if name else module if local != module.split(".")[0] else local
        words = concern_words(self.language)
        own = self.effects.own_members
        for at, text in sorted(self.written()):
            last = text.rsplit(".", 1)[-1]
            concern = words.of(text)
            if not concern and "." in text and last not in own:
                concern = words.members.get(last, "")
            if concern:
                self.found[at] = concern
        self.places = sorted(self.found)

    def written(self) -> Iterator[tuple[int, str]]:
        """(where, how it is written with the import behind its first name) of each call that is not of the program's
        own."""
        for call in self.file.calls:
            if call.callee.symbol not in self.effects.units or call.callee.member:
                yield (
                    call.callee.start,
                    self.followed("".join(self.file.slice(call.callee.start, call.args_start).split()).rstrip("(")),
                )
        for at in [*self.file.opaque_calls, *self.file.quiet_calls]:
            if (match := DOTTED.match(self.file.text, at)) is not None:
                yield at, self.followed("".join(match[1].decode("utf-8", "replace").split()))

    def followed(self, text: str) -> str:
        first, dot, rest = text.partition(".")
        return self.modules.get(first, first) + dot + rest

    def direct(self, start: int, end: int) -> list[tuple[str, int]]:
        """(concern, where) of each call of a stretch that leads out of the program."""
        return [
            (self.found[at], at) for at in self.places[bisect_left(self.places, start) : bisect_left(self.places, end)]
        ]

    def whole(self, start: int, end: int) -> Counter[str]:
        """How often each concern occurs in a stretch; a function of the program that is used there counts once with all
        that it leads to."""
        found: Counter[str] = Counter(c for c, _ in self.direct(start, end))
        for symbol in self.effects.direct(start, end).uses:
            found.update(self.reached.get(symbol, ()))
        return found

    @cached_property
    def reached(self) -> dict[Symbol, set[str]]:
        """What each function and class leads to, through those that it uses as well."""
        found = {s: {c for c, _ in self.direct(u.start, u.end)} for s, u in self.effects.units.items()}
        users: dict[Symbol, list[Symbol]] = {}
        for s, u in self.effects.units.items():
            for used in self.effects.direct(u.start, u.end).uses:
                users.setdefault(used, []).append(s)
        waiting = [s for s in found if found[s]]
        while waiting:
            s = waiting.pop()
            for user in users.get(s, ()):
                if not found[s] <= found[user]:
                    found[user] |= found[s]
                    waiting.append(user)
        return found

    def of(self, s: Statement, looped: bool, over: bool = False) -> str:
        """What one statement is about. ``looped``: it stands in a loop; ``over``: it comes after one."""
        return chief(self.whole(s.start, s.end)) or (WORK if looped else CLOSING if over else SETUP)


def chief(found: Counter[str]) -> str:
    """The most frequent concern; "" if there is none."""
    return min(found, key=lambda c: (-found[c], ORDER.index(c)), default="")


@dataclass(frozen=True)
class ConcernRun:
    """Neighbouring statements about the same thing: lines as a person sees them, both in."""

    concern: str
    first: int
    last: int
    statements: int


def strip(concerns: Concerns, statements: Iterable[Statement], looped: bool = False) -> list[ConcernRun]:
    """Statements in their order, those that follow one another and are about the same joined; a loop's body told apart
    from the loop."""
    file, language = concerns.file, concerns.language
    found: list[ConcernRun] = []
    over = False
    for s in statements:
        inner = (
            [x for b in language.regions.blocks(file, s) for x in b.statements]
            if s.kind in ("for", "while", "guard")
            else []
        )
        parts = strip(concerns, inner, looped or s.kind != "guard") if len(inner) > 2 else []
        if len(parts) < 2:
            parts = [
                ConcernRun(concerns.of(s, looped, over), file.shown(s.start), file.shown(s.end - 1), language.count(s))
            ]
        over = over or s.kind == "while"
        for part in parts:
            if found and found[-1].concern == part.concern:
                found[-1] = ConcernRun(part.concern, found[-1].first, part.last, found[-1].statements + part.statements)
            else:
                found.append(part)
    return found


def jobs(concerns: Concerns, start: int, end: int) -> dict[str, list[int]]:
    """The concerns of a unit, each with the lines on which it shows, most frequent first."""
    lines: dict[str, list[int]] = {}
    for concern, at in concerns.direct(start, end):
        line = concerns.file.shown(at)
        if line not in lines.setdefault(concern, []):
            lines[concern].append(line)
    return dict(sorted(lines.items(), key=lambda e: (-len(e[1]), ORDER.index(e[0]))))
