"""Lift lines, or one expression, out of main code or a long function into a function of their own.

row = ["."] * 40                      def draw(row):
row[x] = "#"                  →           row[x] = "#"
print("".join(row))                       print("".join(row))
                                      row = ["."] * 40
                                      draw(row)
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ...design.tables import Design
from ...program.edits import Edits
from ...program.line_ranges import range_of
from ...program.program import Program
from ..step import Context, Step
from .extraction import Lifter


@dataclass
class Lift(Step):
    """``lines``: as a design gives them, ``file.py:10-14`` or ``file.py:10:8-10:40``. ``named``: variables that stay
    used by their name.

    ``now``: where the lines are by the time that the step's turn comes, in the same manner.
    """

    kind = "lift"
    lines: str
    name: str
    named: frozenset[str] = frozenset()
    now: str = ""
    types: dict[str, str] = field(default_factory=dict)  # of what is handed over, where nothing is written of it
    several: bool = False  # objects have such lines
    of: str = ""  # the method whose lines they are, of a class that stands
    told: str = ""  # the lines as the design names them, where steps before move these
    outsiders: Program | None = None  # files that are not the program's, whose classes may be based on its own
    traced = True

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        made = f"method {self.of.rpartition('.')[0]}.{self.name}" if self.of else f"function {self.name}"
        return f"{self.told or self.lines} becomes the {made}"

    def owner(self, design: Design) -> str:
        methods = [(c, m) for c in design.classes for m in c.methods]
        return next(
            (c.name for c, m in methods if not self.of and (self.told in (m.told or m.lines) or self.lines in m.lines)),
            "",
        )

    def apply(self, context: Context) -> Edits:
        place, out = range_of(self.now or self.lines, context.program), Edits()
        others = [
            f
            for f in [
                *context.program.files.values(),
                *(self.outsiders.files.values() if self.outsiders is not None else ()),
            ]
            if f is not place.file
        ]
        for edit in Lifter(context.language, place, self.name, self.named, self.several, self.types, others).edits():
            out.replace(place.file.path, *edit)
        return out
