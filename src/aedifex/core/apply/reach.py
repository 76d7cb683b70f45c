"""How much of the code that moves the scenarios ran: what no run reached can change without a word."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..analysis.counting_loops import with_inner
from ..check.evidence import Observed
from ..design.origin import Origin
from ..design.tables import Design
from ..program.errors import AedifexError
from ..program.line_ranges import range_of
from ..program.model import Function, SourceFile
from ..program.program import Program

MAX_NAMES_LISTED = 4  # names that a sentence lists
MOVING = "functions and stretches that move"


@dataclass(frozen=True)
class MovingStretch:
    """A function, or lines that become one. ``path``, ``first``, ``last``: in the sources as drafted; ``entry``: of a
    function its first line, else 0.

    ``lines``: where its statements begin.
    """

    name: str
    path: str
    first: int
    last: int
    entry: int
    lines: tuple[int, ...]

    def __str__(self) -> str:
        return f"{self.name} ({self.path}:{self.first})"


def moving(design: Design, original: Program) -> list[MovingStretch]:
    """The functions and lines of the sources that a design makes methods of, in the order of the sources."""
    found: dict[tuple[str, int, int], MovingStretch] = {}
    for c in design.classes:
        for m in c.methods:
            for holder, function in [x for o in m.origins for x in functions_of(o, original)]:
                add(found, function_stretch(holder, function, original))
            for text in m.lines:
                add(found, line_stretch(m.name, text, original))
    for p in design.parts:
        names = {o.name for m in p.methods for o in m.origins}
        for file in original.files.values():
            for f in [
                f for f in file.functions if f.outer.kind == "class" and f.outer.name == p.of and f.name in names
            ]:
                add(found, function_stretch(file, f, original))
    for x in design.lifts:
        for text in x.lines:
            add(found, line_stretch(x.name, text, original))
    return sorted(found.values(), key=lambda s: (s.path, s.first, -s.last))


def everything(original: Program) -> list[MovingStretch]:
    """All functions and methods of the sources."""
    return [
        function_stretch(file, f, original)
        for file in original.files.values()
        for f in file.functions_sorted
        if f.outer.kind in ("module", "class")
    ]


def add(found: dict[tuple[str, int, int], MovingStretch], stretch: MovingStretch | None) -> None:
    if stretch is not None:
        found.setdefault((stretch.path, stretch.first, stretch.last), stretch)


def functions_of(origin: Origin, program: Program) -> list[tuple[SourceFile, Function]]:
    """The functions that an origin may mean, each with its file."""
    files = [f for f in program.files.values() if origin.of_file(f.path)]
    return [(f, g) for f in files if (g := f.function(origin.local)) is not None]


def function_stretch(file: SourceFile, f: Function, program: Program) -> MovingStretch:
    """The lines of a function, as people see them."""
    path, first = file.stands(f.start)
    body = with_inner(file, program.language, program.language.body(file, f))
    lines = sorted(
        {file.stands(s.start)[1] for s in body if s.kind not in ("docstring", "declare", "function", "class")}
    )
    return MovingStretch(f.key, path, first, file.stands(max(f.start, f.end - 1))[1], first, tuple(lines))


def line_stretch(name: str, text: str, program: Program) -> MovingStretch | None:
    """The lines that a design names, as people see them; None if there are none."""
    try:
        place = range_of(text, program)
    except AedifexError:
        return None
    path, first = place.file.stands(place.start)
    last = place.file.stands(max(place.start, place.end - 1))[1]
    return MovingStretch(name, path, first, last, 0, tuple(range(first, last + 1)))


def ran(stretch: MovingStretch, seen: Iterable[Observed]) -> bool:
    """Whether a run entered it."""
    for run in seen:
        if stretch.entry and stretch.entry in run.called.get(stretch.path, ()):
            return True
        if any(
            stretch.first <= n <= stretch.last
            for n in run.reached.get(stretch.path, ())
            if not stretch.entry or n in stretch.lines
        ):
            return True
    return False


def unreached(stretches: Sequence[MovingStretch], seen: Mapping[str, Observed]) -> list[MovingStretch]:
    """The stretches that no run came through."""
    return [s for s in stretches if not ran(s, seen.values())]


def missed_lines(stretches: Sequence[MovingStretch], seen: Mapping[str, Observed]) -> list[str]:
    """Lines of what was entered that no run reached, as ``file:first-last``; none where lines were not noted."""
    found = []
    for path in dict.fromkeys(s.path for s in stretches):
        hit = {n for run in seen.values() for n in run.reached.get(path, ())}
        missed = (
            {
                n
                for s in stretches
                if s.path == path and s.entry and ran(s, seen.values())
                for n in s.lines
                if n not in hit
            }
            if hit
            else set()
        )
        found += [f"{path}:{a}" if a == b else f"{path}:{a}-{b}" for a, b in neighbour_lines(sorted(missed), hit)]
    return found


def neighbour_lines(lines: list[int], hit: set[int]) -> list[tuple[int, int]]:
    """Neighbours together, as long as nothing between them was reached."""
    found: list[tuple[int, int]] = []
    for n in lines:
        if found and not any(found[-1][1] < h < n for h in hit) and n - found[-1][1] <= 3:
            found[-1] = (found[-1][0], n)
        else:
            found.append((n, n))
    return found


def looked_at(design: Design, original: Program) -> tuple[list[MovingStretch], str]:
    """What moves, or all functions where nothing does; and what a sentence calls it."""
    stretches = moving(design, original)
    return (stretches, MOVING) if stretches else (everything(original), "functions")


def reach_sentence(stretches: Sequence[MovingStretch], seen: Mapping[str, Observed], what: str = MOVING) -> str:
    """What the runs reached, in a sentence; "" where there is nothing to reach."""
    if not stretches:
        return ""
    missing, lines = unreached(stretches, seen), missed_lines(stretches, seen)
    sentence = f"The scenarios reach {len(stretches) - len(missing)} of {len(stretches)} {what}"
    if missing:
        sentence += f"; never: {some([str(s) for s in missing])}"
    if lines:
        sentence += f"; lines never reached{' in the others' if missing else ''}: {some(lines)}"
    return sentence + "."


def some(names: Sequence[str]) -> str:
    more = len(names) - MAX_NAMES_LISTED
    return ", ".join(names[:MAX_NAMES_LISTED]) + (f" and {more} more" if more > 0 else "")


def as_json(stretches: Sequence[MovingStretch], seen: Mapping[str, Observed]) -> dict[str, Any]:
    """What moves, with the scenarios that reach it."""
    missing = unreached(stretches, seen)
    return {
        "moving": len(stretches),
        "reached": len(stretches) - len(missing),
        "never": [{"name": s.name, "file": s.path, "line": s.first} for s in missing],
        "lines": missed_lines(stretches, seen),
    }
