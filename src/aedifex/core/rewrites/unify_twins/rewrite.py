"""Make two near-twins the same but for a number, so that they can be one method of two objects."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ...analysis.families import Family
from ...analysis.twins import twin_literals
from ...design.tables import ClassDesign, MethodDesign, bare
from ...program.edits import Edits
from ...program.model import SourceFile
from ...program.program import Program
from ...program.refusal import Refusal
from ..rewrite import Context, Rewrite, State, function_of
from .twins import Half, half, merge_edits, spans


@dataclass
class MergeTwins:
    design: ClassDesign
    method: MethodDesign
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None

    @property
    def id(self) -> str:
        return f"merge:{self.design.name}.{self.method.name}"

    def title(self) -> str:
        return f"{' and '.join(map(bare, self.method.origins))} become the same but for a number"

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
class UnifyPair:
    """Two functions of a family, without a design."""

    path: str
    family: Family
    names: list[str]
    needs: list[str] = field(default_factory=list)

    @property
    def id(self) -> str:
        return f"merge:{self.names[0]}"

    def title(self) -> str:
        return f"{' and '.join(self.names)} become the same but for a number"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        for edit in merge_edits(file, context.language, [half(file, self.family, function_of(file, n)) for n in self.names]):
            out.replace(file.path, *edit)
        return out


def halves(design: ClassDesign, method: MethodDesign, file: SourceFile) -> list[Half]:
    found = []
    for index, origin in enumerate(method.origins):
        own = {file.scope.symbols.get(bare(o)): "\1" + f.name for f, o in design.origins(index)}
        own |= {file.scope.symbols.get(bare(m.origins[index])): "\2" + m.name for m in design.methods if index < len(m.origins)}
        found.append(Half(function_of(file, origin), own, str(index + 1)))
    return found


def unlike(design: ClassDesign, program: Program) -> list[MethodDesign]:
    """The methods of two objects whose functions are not the same."""
    file = program.holders.get(design.source) or next(iter(program.files.values()))
    found = []
    for m in design.methods:
        if len(m.origins) == 2 == len(design.objects) and all(file.function(bare(o)) for o in m.origins):
            mine = halves(design, m, file)
            if twin_literals(file, program.language, [h.function for h in mine], [spans(file, h) for h in mine]) is None:
                found.append(m)
    return found


class UnifyTwins(Rewrite[MergeTwins]):
    def requests(self, state: State) -> Iterator[MergeTwins]:
        for c in state.design.classes:
            for m in unlike(c.apart(), state.program):
                yield MergeTwins(c.apart(), m)
