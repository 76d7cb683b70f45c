"""Constants that several files read move to a file of their own.

WIDTH = 60                            # constants.py
SPEED = 2                             WIDTH = 60
                                      SPEED = 2
class Tram: ... WIDTH ...     →
                                      # tram.py
for x in range(WIDTH): ...            from constants import WIDTH
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ...analysis.variable_kinds import constants_of
from ...design.origin import Origin, local_name
from ...design.tables import ClassDesign
from ...program.edits import Edits
from ...program.model import SourceFile, Statement
from ...program.program import Program
from .. import messages
from ..by_hand import Asked, HandCommand, names_in
from ..rewrite import Building, ClassRewrite
from ..step import Context, Step
from .rewrite import FileMover


@dataclass
class MoveConstants(Step):
    """Constants of one file move to a new one. ``path``: the file that has them; ``to``: the new one."""

    kind = "constants"
    path: str
    to: str
    names: list[str]

    @property
    def subject(self) -> str:
        return self.to

    def title(self) -> str:
        few = ", ".join(self.names[:3]) + (f" and {len(self.names) - 3} more" if len(self.names) > 3 else "")
        return f"{few} {'move' if len(self.names) > 1 else 'moves'} to {self.to}"

    def apply(self, context: Context) -> Edits:
        file = context.file(self.path)
        mover = FileMover(context, file, ClassDesign(self.names[0], file=self.to))
        mover.check_target()
        if context.language.placement != "imports":
            raise messages.NO_FILE_OF_CONSTANTS.in_file(file.path, language=context.language.name)
        return mover.relocated([self.statement(context, file, n) for n in self.names], set())

    def statement(self, context: Context, file: SourceFile, name: str) -> Statement:
        """Where a constant is set."""
        symbol = file.scope.symbols.get(name)
        if symbol is None or symbol not in constants_of(file, context.language) or len(symbol.bindings) != 1:
            raise messages.NO_CONSTANT.in_file(file.path, name=name)
        at = symbol.bindings[0].start
        return next(s for s in file.statements if s.start <= at < s.end)


def ask_constants(program: Program, names: str, path: str) -> Asked:
    wanted = [Origin.parse(n) for n in names_in(names)]
    homes = [p for p, f in program.files.items() if wanted and wanted[0].local in f.scope.symbols]
    if not homes:
        raise messages.NO_CONSTANT.in_file(name=names)
    return Asked(MoveConstants(homes[0], path, [n.local for n in wanted]))


class ShareConstants(ClassRewrite):
    """The constants that a design wants in a file of which no class is the owner."""

    by_hand = (
        HandCommand(
            "constants", ("NAMES", "FILE"), "Constants that several files read get a file of their own.",
            "Move constants NAMES (with commas between them) to a new FILE beside their own; imports follow.",
            "constants WIDTH,FARE constants.py tramline.py", "Moved", ask_constants,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        design = building.design
        owners = {*design.sources, *(c.file for c in design.classes if c.file), *(s.file for s in design.streams)}
        wanted: dict[tuple[str, str], list[str]] = {}
        for stay in [s for s in design.stays if s.file and s.file not in owners]:
            path = next((p for p in design.sources if Origin.parse(stay.name).of_file(p)), design.entries[0])
            wanted.setdefault((path, stay.file), []).append(local_name(stay.name))
        for (path, to), names in wanted.items():
            if path not in building.program.files or building.program.language.placement == "imports":
                yield MoveConstants(path, to, names)
