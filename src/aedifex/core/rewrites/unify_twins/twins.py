"""Twins that differ in some of their lines, made the same: each asks its number which lines are its own.

def move_tram1():                     def move_tram1():
    ...                                   ...
    turn_round()                          if 1 == 1:
def move_tram2():             →               turn_round()
    ...                                   else:
    stop()                                    stop()

The literal in which they differ then becomes a field. Done only where a person asks for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...analysis.families import Family, families
from ...analysis.twins import twin_literals
from ...design.tables import WishDesign
from ...program.edits import Range, applied
from ...program.language import Language
from ...program.model import Function, SourceFile, Statement, Symbol
from ...program.program import Program, reread
from ...program.refusal import Refusal
from .. import messages

Marks = dict[Symbol | None, str]  # symbol → what it is to its object


@dataclass
class Half:
    """One of two twins. ``own``: what it works on, by what that is to its object; ``number``: of the object."""

    function: Function
    own: Marks
    number: str


def with_unified_twins(program: Program, path: str, wishes: Sequence[WishDesign]) -> Program:
    """The program with near-twins made the same that are wished for in one class."""
    for wish in wishes:
        names = {n.local for n in wish.together}
        file = program.files[path]
        variables = [s for s in file.scope.symbols.values() if s.name in names and s.kinds == {"variable"}]
        for family in families(file, program.language, variables, asked=True):
            for row in near_twins_wanted(file, family, names):
                file = program.files[path]
                halves = [half(file, family, file.function(f.name) or f) for f in row]
                try:
                    edits = merge_edits(file, program.language, halves)
                except Refusal:
                    continue
                program = reread(program, {path: applied(file.text, edits, file.encoding)})
    return program


def near_twins_wanted(file: SourceFile, family: Family, names: set[str]) -> list[list[Function]]:
    """Pairs of functions that a person wants together and that are no twins."""
    rows: dict[str, dict[int, Function]] = {}
    same = {f.name for row in family.twins for f in row}
    for f in file.tops:
        parts = family.split(f.name)
        if parts and f.name in names and f.name not in same and parts[1] in family.numbers:
            rows.setdefault(parts[0], {})[parts[1]] = f
    return [
        [row[n] for n in family.numbers]
        for row in rows.values()
        if len(family.numbers) == 2 and set(row) == set(family.numbers)
    ]


def half(file: SourceFile, family: Family, f: Function) -> Half:
    """One of two near-twins, with what its variables are called in both."""
    parts = family.split(f.name)
    number = parts[1] if parts else 0
    own: Marks = {
        file.scope.symbols.get(row[number].name): "\1" + p for p, row in family.variables.items() if number in row
    }
    for other in file.tops:
        theirs = family.split(other.name)
        if theirs and theirs[1] == number:
            own[other.symbol] = "\2" + theirs[0]
    return Half(f, own, str(number))


def merge_edits(file: SourceFile, language: Language, halves: Sequence[Half]) -> list[Range]:
    """The edits that make two functions the same but for a number. Raises Refusal."""
    if len(halves) != 2:
        raise messages.ONLY_TWO.at(file, halves[0].function.start)
    first, second = halves
    marks = [spans(file, h) for h in halves]
    if twin_literals(file, language, [h.function for h in halves], marks) is not None:
        return []
    bodies = [[s for s in language.body(file, h.function) if s.kind not in ("declare", "docstring")] for h in halves]
    heads = [language.tokens(file, h.function.params_start, h.function.params_end, []) for h in halves]
    if heads[0] != heads[1]:
        raise messages.OTHER_PARAMETERS.at(file, second.function.start)
    shapes = [[shape(file, language, s, m) for s in body] for body, m in zip(bodies, marks, strict=True)]
    start = next((i for i, (a, b) in enumerate(zip(*shapes, strict=False)) if a != b), min(map(len, shapes)))
    most = min(map(len, shapes)) - start
    behind = next((i for i in range(most) if shapes[0][-1 - i] != shapes[1][-1 - i]), most)
    parts = [body[start : len(body) - behind] for body in bodies]
    if any(language.regions.bound_to_function(file, p[0].start, p[-1].end) for p in parts if p):
        raise messages.LINES_BOUND_TO_PLACE.at(file, second.function.start)
    edits: list[Range] = []
    for index, (h, other) in enumerate(((first, second), (second, first))):
        texts = [part_lines(file, language, p, halves[i], h) for i, p in enumerate(parts)]
        edits += either_lines(file, language, h, bodies[index], parts[index], start, texts, first.number)
        edits += declared_by_either(file, language, h, other)
    return edits


def spans(file: SourceFile, h: Half) -> list[Range]:
    """The uses of numbered names in a near-twin, with what both call them."""
    f = h.function
    found = [(r.start, r.end, h.own[r.symbol]) for r in file.within(f.params_start, f.end) if r.symbol in h.own]
    return found + [
        (d.start, d.end, h.own[d.symbol]) for d in file.declarations_within(f.start, f.end) if d.symbol in h.own
    ]


def shape(file: SourceFile, language: Language, s: Statement, marks: list[Range]) -> list[str]:
    return language.tokens(file, s.start, s.end, [m for m in marks if s.start <= m[0] < s.end])


def part_lines(file: SourceFile, language: Language, part: Sequence[Statement], of: Half, to: Half) -> list[str]:
    """The lines of a part, speaking of another object, led by nothing."""
    if not part:
        return []
    back = {text: s for s, text in to.own.items() if s is not None}
    edits = []
    for a, b, text in spans(file, of):
        if part[0].start <= a < part[-1].end:
            if text not in back:
                raise messages.USES_FOREIGN.at(file, of.function.start)
            edits.append((a, b, back[text].name))
    write = language.write
    start = write.comment_start(file, part[0].start)
    lead = file.slice(write.line_start(file, part[0].start), part[0].start)
    end = part[-1].end + len(write.trailing_comment(file, part[-1].end).encode(file.encoding))
    return str(write.shifted(file, start + len(lead.encode()), end, edits, lead, "")).replace("\r\n", "\n").split("\n")


def either_lines(
    file: SourceFile,
    language: Language,
    h: Half,
    body: Sequence[Statement],
    part: Sequence[Statement],
    at: int,
    texts: list[list[str]],
    number: str,
) -> list[Range]:
    """The lines of both, under the condition of whose they are."""
    write, unit = language.write, language.write.indent_unit(file)
    anchor = part[0] if part else body[at] if at < len(body) else body[-1] if body else None
    if anchor is None:
        raise messages.ONE_DOES_NOTHING.at(file, h.function.start)
    lead = file.slice(write.line_start(file, anchor.start), anchor.start)
    if lead.strip():
        raise messages.TWINS_ON_ONE_LINE.at(file, h.function.start)
    text = write.with_newlines(
        language.regions.either(lead, unit, f"{h.number}", number, texts[0], texts[1]), write.newline(file)
    )
    if part:
        return [(write.comment_start(file, part[0].start), write.line_end(file, part[-1].end), text)]
    place = write.comment_start(file, anchor.start) if at < len(body) else write.line_end(file, anchor.end)
    return [(place, place, text)]


def declared_by_either(file: SourceFile, language: Language, h: Half, other: Half) -> list[Range]:
    """What either function says that it sets, said by both in one order."""
    if language.declares:
        return []
    mine, theirs = (file.declarations_within(x.function.start, x.function.end) for x in (h, other))
    said = [[x.own.get(d.symbol, d.name) for d in row] for x, row in ((h, mine), (other, theirs))]
    if said[0] == said[1]:
        return []
    if any(len({d.statement for d in row}) > 1 for row in (mine, theirs)):
        raise messages.SEVERAL_DECLARATIONS.at(file, h.function.start)
    back = {text: s.name for s, text in h.own.items() if s is not None}
    union = sorted({*said[0], *said[1]})
    if any(text.startswith(("\1", "\2")) and text not in back for text in union):
        raise messages.SETS_FOREIGN.at(file, h.function.start)
    names = ", ".join(back.get(text, text) for text in union)
    if mine:
        return [(min(d.start for d in mine), max(d.end for d in mine), names)]
    first = next(
        s for s in language.body(file, h.function) if s.kind != "docstring"
    )  # one that does nothing was refused before
    at = language.write.line_start(file, first.start)
    return [(at, at, f"{file.slice(at, first.start)}global {names}{language.write.newline(file)}")]
