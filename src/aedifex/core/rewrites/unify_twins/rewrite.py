"""Make two near-twins the same but for a number, so that they can be one method of two objects."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ...analysis.families import Family, families
from ...analysis.twins import twin_literals
from ...design.origin import Origin
from ...design.tables import ClassDesign, MethodDesign
from ...program.edits import Edits
from ...program.model import SourceFile
from ...program.program import Program
from ...program.refusal import Refusal
from .. import messages
from ..by_hand import Asked, HandCommand
from ..rewrite import Rewrite, State
from ..step import ClassStep, Context, Step, function_of
from .twins import Half, half, merge_edits, spans


@dataclass
class MergeTwins(ClassStep):
    """Two functions become the same but for a number."""

    kind = "merge"
    method: MethodDesign

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.method.name}"

    def title(self) -> str:
        return f"{' and '.join(o.local for o in self.method.origins)} become the same but for a number"

    def apply(self, context: Context) -> Edits:
        file, out = context.home(self.design), Edits()
        try:
            edits = merge_edits(file, context.language, halves(self.design, self.method, file))
        except Refusal as refusal:
            raise refusal.with_cure("leave them apart in the design", "leave them apart") from None
        for edit in edits:
            out.replace(file.path, *edit)
        return out


@dataclass
class UnifyPair(Step):
    """Two functions of a family, without a design."""

    kind = "merge"
    path: str
    family: Family
    names: list[str]

    @property
    def subject(self) -> str:
        return self.names[0]

    def title(self) -> str:
        return f"{' and '.join(self.names)} become the same but for a number"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        for edit in merge_edits(
            file, context.language, [half(file, self.family, function_of(file, Origin.parse(n))) for n in self.names]
        ):
            out.replace(file.path, *edit)
        return out


def halves(design: ClassDesign, method: MethodDesign, file: SourceFile) -> list[Half]:
    found = []
    for index, origin in enumerate(method.origins):
        own = {file.scope.symbols.get(o.local): "\1" + f.name for f, o in design.origins(index)}
        own |= {
            file.scope.symbols.get(m.origins[index].local): "\2" + m.name
            for m in design.methods
            if index < len(m.origins)
        }
        found.append(Half(function_of(file, origin), own, str(index + 1)))
    return found


def unlike(design: ClassDesign, program: Program) -> list[MethodDesign]:
    """The methods of two objects whose functions are not the same."""
    file = program.holders.get(design.source) or next(iter(program.files.values()))
    found = []
    for m in design.methods:
        if len(m.origins) == 2 == len(design.objects) and all(file.function(o.local) for o in m.origins):
            mine = halves(design, m, file)
            if (
                twin_literals(file, program.language, [h.function for h in mine], [spans(file, h) for h in mine])
                is None
            ):
                found.append(m)
    return found


def ask_unify(program: Program, first: str, second: str) -> Asked:
    for path, file in program.files.items():
        variables = [s for s in file.scope.symbols.values() if s.kinds == {"variable"}]
        for family in families(file, program.language, variables, asked=True):
            parts = [family.split(n) if file.function(n) is not None else None for n in (first, second)]
            if all(parts) and parts[0][0] == parts[1][0]:  # type: ignore[index]
                return Asked(UnifyPair(path, family, [first, second]))
    raise messages.NO_TWINS.in_file(first=first, second=second)


class UnifyTwins(Rewrite[MergeTwins]):
    """The methods of two objects whose functions are not the same."""

    by_hand = (
        HandCommand(
            "unify",
            ("FIRST", "SECOND"),
            "Two near-twins become the same but for a number.",
            """Make the functions FIRST and SECOND, numbered copies that differ in some lines, the same but for their
            number.

            They can then be one method of two objects.""",
            "unify ring_bell1 ring_bell2 bells.py",
            "Changed",
            ask_unify,
        ),
    )

    def requests(self, state: State) -> Iterator[MergeTwins]:
        for c in state.design.classes:
            for m in unlike(c.apart(), state.program):
                yield MergeTwins(c.apart(), m)
