"""Methods that come from lines: these are lifted into functions before all else, and places are followed through what
changes."""

from __future__ import annotations

import copy
from collections.abc import Iterator
from dataclasses import dataclass, field

from ...analysis.regions.region import region_of
from ...design.origin import Origin
from ...design.tables import Design, MethodDesign
from ...naming.identifiers import free
from ...program.edits import Edits
from ...program.errors import AedifexError
from ...program.line_ranges import Place, lines_of, moved_offset, range_of
from ...program.program import Program
from ...program.surroundings import read_neighbours
from .. import mistakes
from ..by_hand import Asked, HandCommand
from ..design_check import DesignCheck
from ..record_class.rewrite import is_keyed
from ..rewrite import Rewrite, State
from .rewrite import Lift

Key = tuple[int, int, int]  # class (-1: one that stands), method, which of its lines


@dataclass
class Trace:
    """Where stretches of the sources are, while steps change the text around them."""

    places: dict[Key, tuple[str, int, int]] = field(default_factory=dict)

    def follow(self, program: Program, edits: Edits) -> None:
        """``program``: as it was before the edits."""
        for path, ranges in edits.ranges.items():
            for key, (holder, start, end) in self.places.items():
                if program.files[path].path == holder:
                    self.places[key] = (holder, moved_offset(start, ranges, False), moved_offset(end, ranges, True))


@dataclass
class Wanted:
    """A stretch that is to be lifted: the ``number``-th of a method's lines. ``of``: the method of a class that stands
    whose lines they are."""

    method: MethodDesign
    number: int
    place: Place
    name: str
    types: dict[str, str] = field(default_factory=dict)
    of: str = ""

    def step(self, name: str, named: frozenset[str]) -> Lift:
        lines = self.method.lines
        return Lift(
            lines[self.number],
            name,
            named,
            several=len(lines) > 1,
            types=self.types,
            told=(self.method.told or lines)[self.number],
            of=self.of,
        )


def wanted_stretches(design: Design, program: Program) -> dict[Key, Wanted]:
    found: dict[Key, Wanted] = {}
    for n, x in enumerate(design.lifts):
        m = MethodDesign(x.name, [], lines=x.lines, told=x.told)
        found |= {
            (-1, n, k): Wanted(m, k, range_of(lines, program), x.name, of=x.of) for k, lines in enumerate(x.lines)
        }
    for i, c in enumerate(design.classes):
        for j, m in enumerate(c.methods):
            for k, lines in enumerate(m.lines):
                found[i, j, k] = Wanted(
                    m, k, range_of(lines, program), wanted_name(design, (i, j, k)), types_of(design, (i, j, k))
                )
    return found


def lifts(design: Design, program: Program) -> tuple[dict[Key, Lift], Trace]:
    """The lifts of a design in their order, smaller stretches first, as one may hold another."""
    found = wanted_stretches(design, program)
    taken = {n for f in program.files.values() for s in f.scope.walk() for n in s.symbols} | set(
        program.language.builtins
    )
    made, trace, named = {}, Trace(), names_of(design)
    for key, w in found.items():
        name = free(w.name, taken)
        taken.add(name)
        made[key] = w.step(name, named)
        region = region_of(w.place.file, program.language, w.place.start, w.place.end)
        span = (region.start, region.end) if region is not None else (w.place.start, w.place.end)
        trace.places[key] = (w.place.file.path, *span)
    smaller_first = sorted(
        found, key=lambda k: (found[k].place.end - found[k].place.start, found[k].place.file.path, found[k].place.start)
    )
    return {key: made[key] for key in smaller_first}, trace


def types_of(design: Design, key: Key) -> dict[str, str]:
    """The class of what a method's lines are handed and it knows itself."""
    c = design.classes[key[0]]
    return dict.fromkeys(c.methods[key[1]].drop, c.name) if is_keyed(c) else {}


def wanted_name(design: Design, key: Key) -> str:
    """The method's name; with the object's, where there are several."""
    c = design.classes[key[0]]
    m = c.methods[key[1]]
    return f"{m.name}_{c.objects[key[2]].name}" if len(c.objects) > 1 and key[2] < len(c.objects) else m.name


def names_of(design: Design) -> frozenset[str]:
    """Variables that become fields, and objects: lifted code keeps using them by their name."""
    fields = {o.local for c in design.classes for f in c.fields for o in f.origins if o}
    return frozenset(
        fields | {o.name for c in design.classes for o in c.objects if not o.collection and not is_keyed(c)}
    )


def ask_lift(program: Program, lines: str, name: str) -> Asked:
    return Asked(Lift(lines, name, outsiders=read_neighbours(program)))


class ExtractFunction(Rewrite[Lift]):
    """The methods then come from functions."""

    by_hand = (
        HandCommand(
            "lift",
            ("LINES", "NAME"),
            "Lines, or an expression, become a function.",
            """Make the LINES of a script a function NAME, which is called where they stood.

            LINES are whole statements, file.py:10-14, or one expression, file.py:10:8-10:40 (line and column, both
            in). What they need is
            passed, what they set comes back; the same lines elsewhere call the function too. Lines of a method become
            a method; those of a
            function inside another one become a function beside it.""",
            "lift tramline.py:151-152 draw_trams tramline.py",
            "Lifted",
            ask_lift,
        ),
    )

    def requests(self, state: State) -> Iterator[Lift]:
        try:
            steps, trace = lifts(state.design, state.program)
        except AedifexError:
            return  # lines that are not there: told by the validation
        if not steps:
            return
        design = copy.deepcopy(state.design)
        for key, step in steps.items():
            holder, start, end = trace.places[key]
            before = state.program
            step.now = lines_of(before.files[holder], start, end, False)
            yield step
            if step.refused is None:
                trace.follow(before, state.edits)
        for i, c in enumerate(design.classes):
            for j, m in enumerate(c.methods):
                if m.lines:
                    mine = [steps[i, j, k] for k in range(len(m.lines))]
                    m.origins = [Origin(s.name) for s in mine] if all(s.refused is None for s in mine) else []
                    m.lines, m.told = [], m.told or m.lines  # which say where the class comes from
            c.methods = [m for m in c.methods if m.origins]
        state.design = design

    def check(self, check: DesignCheck) -> None:
        """The lines of a method of a class that stands; those of new methods are checked with these."""
        for index, x in enumerate(check.design.lifts):
            line = check.lines.of("lift", index, -1, "lines")
            check.name(check.lines.of("lift", index, -1, "name"), x.name)
            if len(x.lines) != 1:
                check.report(line, mistakes.NOT_ONE_STRETCH, name=x.name)
            check.method_lines(line, x.lines)
            for text in x.lines:
                if not held_by(check.program, text, x.of):
                    check.report(
                        check.lines.of("lift", index, -1, "of"), mistakes.OTHER_METHOD, lines=text, method=x.of
                    )


def held_by(program: Program, lines: str, method: str) -> bool:
    """Whether lines stand in the method ``Class.method``; also where they are no lines at all, which is told
    elsewhere."""
    try:
        place = range_of(lines, program)
    except AedifexError:
        return True
    region = region_of(place.file, program.language, place.start, place.end)
    f = region.function if region is not None else None
    return region is None or (f is not None and f"{f.outer.name}.{f.name}" == method)
