"""Variables and functions that are numbered copies of each other."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from itertools import zip_longest

from ..program.code_text import starts_remark
from ..program.language import Language
from ..program.model import Function, SourceFile, Symbol
from .twins import TwinLiteral, twin_literals
from .word_variants import SIDES, Variants, word_sets

NUMBERED = re.compile(
    r"^(?P<head>[A-Za-z_]*?[A-Za-z])_?(?P<number>\d+)(?P<tail>(?:_\w*)?)$|^(?P<head2>[A-Za-z]+)(?P<number2>\d+)(?P<tail2>[A-Z]\w*)$"
)


@lru_cache(maxsize=100_000)
def numbered(name: str) -> tuple[str, int, str] | None:
    """``tram1_x`` → ("tram#_x", 1, "tram"): pattern, number, stem. None if the name has no copy number."""
    match = NUMBERED.match(name)
    if match is None:
        return None
    start, end = match.span("number") if match["number"] else match.span("number2")
    head = name[:start].rstrip("_")
    words = [w for w in re.split(r"_|(?<=[a-z])(?=[A-Z])", head) if w]
    stem = words[0] if not name[end:] and len(words) > 1 else words[-1]
    return f"{name[:start]}#{name[end:]}", int(name[start:end]), stem.lower()


@dataclass
class Family:
    """Numbered copies: ``variables[pattern][number]``; ``twins``: functions that differ only in the number.

    ``differences``: the literals in which twins differ. ``stem``: what their names say that they are; "" for single
    words with a number (``x1, y1, x2, y2``) that are used together.
    """

    stem: str
    numbers: list[int]
    variables: dict[str, dict[int, Symbol]] = field(default_factory=dict)
    twins: list[list[Function]] = field(default_factory=list)
    differences: dict[str, list[TwinLiteral]] = field(default_factory=dict)  # of each row of twins, by its pattern
    told: Variants | None = None  # the words that tell the copies apart, where no number does

    def split(self, name: str) -> tuple[str, int, str] | None:
        """The pattern, number and stem of a name that speaks of one of the copies; None if it does not."""
        return self.told.split(name) if self.told is not None else numbered(name)

    def label(self, number: int) -> list[str]:
        """The words for one of the copies."""
        return self.told.label(number, self.stem) if self.told is not None else [f"{self.stem}{number}"]

    @property
    def symbols(self) -> set[Symbol]:
        return {s for row in self.variables.values() for s in row.values()}


def families(file: SourceFile, language: Language, variables: list[Symbol], asked: bool = False) -> list[Family]:
    """Families of at least two numbers that share at least two variables, or one variable and twin functions.

    ``asked``: a person wants these variables as one class, so that one for each number is enough.
    """
    result = of_numbers(file, language, variables, asked)
    taken = {s for f in result for s in f.symbols}
    left = [v for v in variables if v not in taken]
    for told in word_sets(file, language.write.words, left):
        for family in by_stem(left, told.split).values():
            family.told = told
            family = with_numbers(file, language, family)
            sides = set(told.told) <= SIDES
            enough = len(family.variables) > 1 or family.twins if sides else family.twins and family.stem
            if len(family.numbers) > 1 and enough:
                result.append(family)
        taken = {s for f in result for s in f.symbols}
        left = [v for v in left if v not in taken]
    return result


def of_numbers(file: SourceFile, language: Language, variables: list[Symbol], asked: bool) -> list[Family]:
    """Those that a number tells apart."""
    result = []
    for family in joined_families(file, by_stem(variables, numbered)):
        family = with_numbers(file, language, family)
        if len(family.numbers) > 1 and (len(family.variables) >= 2 or family.twins or asked):
            result.append(family)
    return result


def by_stem(variables: list[Symbol], split: Callable[[str], tuple[str, int, str] | None]) -> dict[str, Family]:
    patterns: dict[tuple[str, str], dict[int, Symbol]] = {}
    for symbol in variables:
        parts = split(symbol.name)
        if parts:
            patterns.setdefault((parts[2], parts[0]), {})[parts[1]] = symbol
    found: dict[str, Family] = {}
    for (stem, pattern), row in patterns.items():
        if len(row) >= 2:
            found.setdefault(stem, Family(stem, [])).variables[pattern] = row
    return found


def with_numbers(file: SourceFile, language: Language, family: Family) -> Family:
    """The family with the numbers that most of its variables have, and its twins."""
    counts = sorted({n for row in family.variables.values() for n in row})
    family.numbers = [
        n for n in counts if sum(n in row for row in family.variables.values()) * 2 >= len(family.variables)
    ]
    family.variables = {p: {n: s for n, s in row.items() if n in family.numbers} for p, row in family.variables.items()}
    if len(family.numbers) > 1:
        family.twins = twins(file, language, family)
    return family


def joined_families(file: SourceFile, found: dict[str, Family]) -> list[Family]:
    """The families, those with the number at the end of each name joined that functions use, or are given, or lines
    speak of, number by number."""
    single = [f for f in found.values() if all(p.endswith("#") for p in f.variables)]
    if len(single) < 2:
        return list(found.values())
    place = {s: (i, n) for i, f in enumerate(single) for row in f.variables.values() for n, s in row.items()}
    numbers = [frozenset(n for row in f.variables.values() for n in row) for f in single]
    head = list(range(len(single)))
    spans = [(f.params_start, f.end) for f in file.functions if f.outer is file.scope]
    spans += [(c.args_start, c.args_end) for c in file.calls]
    lines: dict[int, set[tuple[int, int]]] = {}
    for s, where in place.items():
        for r in s.references:
            lines.setdefault(file.line(r.start), set()).add(where)
    places = [{place[r.symbol] for r in file.within(start, end) if r.symbol in place} for start, end in spans]
    for used in [*places, *(lines[n] for n in sorted(lines))]:
        rows = sorted({i for i, _ in used})
        if len({n for _, n in used}) == 1 and len({numbers[i] for i in rows}) == 1:
            for i in rows[1:]:
                head = [head[rows[0]] if h == head[i] else h for h in head]
    joined: dict[int, list[Family]] = {}
    for i, family in enumerate(single):
        joined.setdefault(head[i], []).append(family)
    several = [group for group in joined.values() if len(group) > 1]
    rest = [f for f in found.values() if not any(f is g for group in several for g in group)]
    merged = []
    for group in several:
        patterns = [(p, row) for f in group for p, row in f.variables.items()]
        patterns.sort(key=lambda e: min(r.start for s in e[1].values() for r in s.bindings))
        merged.append(Family("", [], dict(patterns)))
    return rest + merged


def twins(file: SourceFile, language: Language, family: Family) -> list[list[Function]]:
    """Rows of functions, one for each number, whose text is the same but for the number."""
    rows: dict[str, dict[int, Function]] = {}
    touching = {f for s in family.symbols for r in s.references if (f := file.function_at(r.start)) is not None}
    for f in sorted(touching, key=lambda f: f.start):
        parts = family.split(f.name)
        if parts and parts[1] in family.numbers:
            rows.setdefault(parts[0], {})[parts[1]] = f
    candidates = {p: row for p, row in rows.items() if set(row) == set(family.numbers)}
    changed = True
    while changed:
        changed = False
        names = {f.symbol: p for p, row in candidates.items() for f in row.values()}
        for pattern, row in list(candidates.items()):
            found = literals_that_differ(file, language, family, row, names)
            if found is None:
                del candidates[pattern]
                changed = True
            else:
                family.differences[pattern] = found
    family.differences = {p: found for p, found in family.differences.items() if p in candidates}
    return [
        [row[n] for n in family.numbers]
        for _, row in sorted(candidates.items(), key=lambda e: e[1][family.numbers[0]].start)
    ]


def literals_that_differ(
    file: SourceFile, language: Language, family: Family, row: dict[int, Function], names: dict[Symbol | None, str]
) -> list[TwinLiteral] | None:
    """The literals in which the functions of a row differ; None if they differ in more than that and the number."""
    marks = []
    for number, f in sorted(row.items()):
        own = {symbols[number]: p for p, symbols in family.variables.items() if number in symbols}
        edits = []
        touched = False
        for r in file.within(f.params_start, f.end):
            if r.symbol in own:
                edits.append((r.start, r.end, "\1" + own[r.symbol]))
                touched = True
            elif r.symbol in names and r.symbol is not None:
                parts = family.split(r.symbol.name)
                same = parts is not None and parts[1] == number
                edits.append((r.start, r.end, ("\2" if same else "\3") + names[r.symbol]))
        for d in file.declarations_within(f.start, f.end):
            if d.symbol in own:
                edits.append((d.start, d.end, "\1" + own[d.symbol]))
        if not touched:
            return None
        marks.append(edits)
    return twin_literals(file, language, [f for _, f in sorted(row.items())], marks)


def near_twins(file: SourceFile, family: Family) -> list[str]:
    """Functions named alike for each number that differ in more: a sentence each, with the first lines that differ."""
    rows: dict[str, dict[int, Function]] = {}
    for f in file.tops:
        parts = family.split(f.name)
        if parts and parts[1] in family.numbers:
            rows.setdefault(parts[0], {})[parts[1]] = f
    same = {f.name for row in family.twins for f in row}
    found = []
    for row in rows.values():
        twins_ = [row[n] for n in family.numbers if n in row and row[n].name not in same]
        for other in twins_[1:]:
            a, b = body_lines(file, family, twins_[0]), body_lines(file, family, other)
            pairs = zip_longest(a, b, fillvalue=(0, "", ""))
            place = next(((x, y) for x, y in pairs if x[1] != y[1]), None)
            if place is not None:
                left, right = line_told(*place[0], twins_[0]), line_told(*place[1], other)
                found.append(
                    f"{other.name} is like {twins_[0].name} but not the same: {right} where {left}, so they stay "
                    "apart unless you ask for both in one class"
                )
    return found


def line_told(line: int, _: str, text: str, f: Function) -> str:
    return f"line {line} has '{text}'" if line else f"{f.name} has ended"


def body_lines(file: SourceFile, family: Family, f: Function) -> list[tuple[int, str, str]]:
    """(line, its text with the function's number taken out of the names, its text) of a function's body without
    layout."""
    parts = family.split(f.name)
    number = (family.told.told[parts[1] - 1] if family.told is not None else str(parts[1])) if parts else "0"
    found = []
    for at in range(file.line(f.body_start), file.line(f.end - 1) + 1):
        end = file.lines[at] if at < len(file.lines) else len(file.text)
        line = file.slice(file.lines[at - 1], end)
        text = " ".join(line.split())
        if text and not starts_remark(file, file.lines[at - 1], line):
            found.append((file.shown(file.lines[at - 1]), without_number(number, text), text))
    return found


def without_number(told: str, text: str) -> str:
    """A line without what tells the copies apart."""
    if told.isdigit():
        return re.sub(rf"(?<=[A-Za-z_]){told}(?=\b|_)", "#", text)
    return re.sub(rf"(?<![A-Za-z]){told}(?![a-z])|{told.capitalize()}(?![a-z])", "#", text)
