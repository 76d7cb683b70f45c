"""A part is taken out of a class that does several jobs; the class keeps an object of it (C17). See
``rewrites/extract_class/text.py`` for an example."""

from __future__ import annotations

import copy
from collections.abc import Iterator
from dataclasses import dataclass

from ...design.tables import ClassDesign, Design, PartDesign
from ...program.edits import Edits
from ...program.program import Program
from ...program.refusal import Refusal
from ...program.surroundings import read_neighbours
from .. import messages, mistakes
from ..design_check import DesignCheck
from ..rewrite import Rewrite, State
from ..step import Context, Step, check_hazards
from .members import named_elsewhere, taking

ADVICE = "leave it in its class"


@dataclass
class TakePart(Step):
    """Fields and methods leave a class for one of their own."""

    kind = "part"
    path: str
    part: PartDesign
    outsiders: Program  # other files of the folder, which may use the class

    @property
    def subject(self) -> str:
        return self.part.name

    def title(self) -> str:
        return f"{self.part.name} becomes a part of {self.part.of}, which keeps it as {self.part.object}"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        check_hazards(context, file, {self.part.of}, ADVICE)
        if named_elsewhere(context.program, self.path, self.part.of) or named_elsewhere(
            self.outsiders, "", self.part.of
        ):
            raise messages.NAMED_ELSEWHERE.in_file(file.path, class_=self.part.of)
        try:
            for edit in taking(file, context.language, self.part).edits(self.part):
                out.replace(file.path, *edit)
        except Refusal as refusal:
            raise refusal.with_cure(ADVICE) from None
        return out


class ExtractClass(Rewrite[TakePart]):
    """The parts of a design, one after the other."""

    def requests(self, state: State) -> Iterator[TakePart]:
        outsiders = (
            read_neighbours(state.program, [p.of for p in state.design.parts]) if state.design.parts else state.program
        )
        for part in state.design.parts:
            holders = [f.path for f in state.program.files.values() if any(n == part.of for _, n in f.classes)]
            yield TakePart(next(iter([*holders, *state.design.sources]), ""), part, outsiders)

    def design_after(self, state: State, step: TakePart, after: Program | None) -> Design:
        if after is None:
            return state.design
        design, part = copy.copy(state.design), step.part
        design.classes = [*design.classes, *([ClassDesign(part.name, part.role, part.file)] if part.file else [])]
        return design

    def check(self, check: DesignCheck) -> None:
        for index, p in enumerate(check.design.parts):
            line = check.lines.of("part", index, -1, "name")
            check.name(line, p.name, mistakes.NO_CLASS_NAME)
            check.name(line, p.object)
            if not any(n == p.of for f in check.program.files.values() for _, n in f.classes):
                check.report(check.lines.of("part", index, -1, "of"), mistakes.NO_CLASS_OF_SOURCES, name=p.of)
            members = [("field", n, f.name, f.origins) for n, f in enumerate(p.fields)]
            members += [("method", n, m.name, m.origins) for n, m in enumerate(p.methods)]
            for kind, number, name, origins in members:
                if len(origins) != 1:
                    check.report(
                        check.lines.of(f"part.{kind}", index, number, "from"),
                        mistakes.NOT_ONE_MEMBER,
                        kind=kind,
                        name=name,
                        class_=p.of,
                    )
