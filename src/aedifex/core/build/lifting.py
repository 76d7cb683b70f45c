"""Methods that come from lines: these are lifted into functions before all else, and places are followed through what changes."""

from __future__ import annotations

import copy
from collections.abc import Callable
from dataclasses import dataclass, field

from ..draft.design import Design, MethodDesign, bare
from ..draft.lines import Place, lines_of, moved, placed
from ..draft.names import free
from ..program.errors import AedifexError
from ..program.model import Program
from ..survey.region import region_of
from .edits import Edits
from .steps.keyed import is_keyed
from .steps.lift import Lift

Key = tuple[int, int, int]  # class, method, which of its lines


@dataclass
class Trace:
    """Where stretches of the sources are, while steps change the text around them."""

    places: dict[Key, tuple[str, int, int]] = field(default_factory=dict)

    def follow(self, program: Program, edits: Edits) -> None:
        """``program``: as it was before the edits."""
        for path, ranges in edits.ranges.items():
            for key, (holder, start, end) in self.places.items():
                if program.files[path].path == holder:
                    self.places[key] = (holder, moved(start, ranges, False), moved(end, ranges, True))


def lifts(design: Design, program: Program) -> tuple[dict[Key, Lift], Trace]:
    """The lifts of a design in their order, smaller stretches first, as one may hold another."""
    found: list[tuple[Key, MethodDesign, Place]] = []
    for i, c in enumerate(design.classes):
        for j, m in enumerate(c.methods):
            for k, lines in enumerate(m.lines):
                found.append(((i, j, k), m, placed(lines, program)))
    for n, x in enumerate(design.lifts):
        found += [((-1, n, k), MethodDesign(x.name, [], lines=x.lines, told=x.told), placed(lines, program)) for k, lines in enumerate(x.lines)]
    found.sort(key=lambda e: (e[2].end - e[2].start, e[2].file.path, e[2].start))
    taken = {n for f in program.files.values() for s in f.scope.walk() for n in s.symbols} | set(program.language.builtins)
    made, trace, named = {}, Trace(), names_of(design)
    wanted = {key: design.lifts[key[1]].name if key[0] < 0 else wanted_name(design, key) for key, _, _ in found}
    for key, m, place in sorted(found, key=lambda e: e[0]):
        name = free(wanted[key], taken)
        taken.add(name)
        made[key] = Lift(m.lines[key[2]], name, named, several=len(m.lines) > 1, types=types_of(design, key) if key[0] >= 0 else {}, told=(m.told or m.lines)[key[2]], of=design.lifts[key[1]].of if key[0] < 0 else "")
        region = region_of(place.file, program.language, place.start, place.end)
        span = (region.start, region.end) if region is not None else (place.start, place.end)
        trace.places[key] = (place.file.path, *span)
    return {key: made[key] for key, _, _ in found}, trace


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
    fields = {bare(o) for c in design.classes for f in c.fields for o in f.origins if o}
    return frozenset(fields | {o.name for c in design.classes for o in c.objects if not o.collection and not is_keyed(c)})


def lifted(
    design: Design, program: Program, tried: Callable[[Lift, Program, Trace], Program | None]
) -> tuple[list[Lift], Design, Program]:
    """The steps, and design and program as they are after them: the methods then come from functions."""
    try:
        wanted, trace = lifts(design, program)
    except AedifexError:
        return [], design, program  # lines that are not there: told by the validation
    if not wanted:
        return [], design, program
    design = copy.deepcopy(design)
    for key, step in wanted.items():
        holder, start, end = trace.places[key]
        step.now = lines_of(program.files[holder], start, end, False)
        program = tried(step, program, trace) or program
    for i, c in enumerate(design.classes):
        for j, m in enumerate(c.methods):
            if m.lines:
                steps = [wanted[(i, j, k)] for k in range(len(m.lines))]
                m.origins = [s.name for s in steps] if all(s.refused is None for s in steps) else []
                m.lines, m.told = [], m.told or m.lines  # which say where the class comes from
        c.methods = [m for m in c.methods if m.origins]
    return list(wanted.values()), design, program
