"""Take apart declarations that hold several variables, so that each can move on its own.

let a = 1, b = 2;      →      let a = 1;
                              let b = 2;
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from ..analysis.variable_kinds import constants_of
from ..design.tables import ClassDesign
from ..program.code_text import remark_at
from ..program.edits import Edits
from ..program.language import Language
from ..program.model import SourceFile, Statement
from ..program.program import Program
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step


@dataclass
class TakeApart(ClassStep):
    """The declarations that hold a variable of a class, and others, are taken apart."""

    kind = "split"

    def title(self) -> str:
        return f"declarations with several variables of {self.design.name} are taken apart"

    def apply(self, context: Context) -> Edits:
        out = Edits()
        file = context.home(self.design)
        for statements in shared_declarations(self.design, file, context.language):
            take_apart(context, file, statements, out)
        return out


class SplitDeclarations(ClassRewrite):
    """Each class of which a variable shares its declaration."""

    def steps(self, building: Building) -> Iterator[Step]:
        if shares_a_declaration(building.whole, building.program):
            yield TakeApart(building.whole)


def shares_a_declaration(design: ClassDesign, program: Program) -> bool:
    """Whether a variable of the class shares its declaration with another."""
    return any(shared_declarations(design, file, program.language) for file in program.files.values())


def shared_declarations(design: ClassDesign, file: SourceFile, language: Language) -> list[list[Statement]]:
    """The declarations to take apart, each as its statements: those that hold one of the class's variables, and those
    of which only a part can change, or will, since it reads what becomes a field."""
    names = {o.local for f in design.fields for o in f.origins if o}
    constants = {s.name for s in constants_of(file, language)}
    groups: dict[tuple[int, int], list[Statement]] = {}
    for s in file.statements:
        if s.group is not None:
            groups.setdefault(s.group, []).append(s)
    held = [[s.target.name if s.target is not None else "" for s in g] for g in groups.values()]

    def mixed(group: list[Statement]) -> bool:
        reads = [s.value is not None and any(r.name in names for r in file.within(*s.value)) for s in group]
        return any(reads) and not all(reads)

    return [
        g for g, found in zip(groups.values(), held, strict=True)
        if names & set(found) or (constants & set(found) and set(found) - constants) or mixed(g)
    ]  # fmt: skip


def take_apart(context: Context, file: SourceFile, statements: list[Statement], out: Edits) -> None:
    """Every comma between two variables ends a statement; the next opens with the same words as the first."""
    assert statements[0].group is not None
    start, end = statements[0].group
    left = context.write.line_start(file, start)
    lead = file.slice(left, start)
    lead = lead[: len(lead) - len(lead.lstrip())]
    opening = file.slice(start, statements[0].start)
    mark = ";" if file.slice(start, end).endswith(";") else ""
    nl = context.write.newline(file)
    for s, following in pairwise(statements):
        comma = comma_in(file, s.end)
        tail = file.slice(comma + 1, following.start)
        spaces = len(tail) - len(tail.rstrip(" \t"))
        out.replace(file.path, comma, comma + 1, mark)
        at = following.start - spaces
        if "\n" in tail:
            out.replace(file.path, at, following.start, lead + opening)
        else:
            out.replace(file.path, at, following.start, nl + lead + opening)


def comma_in(file: SourceFile, at: int) -> int:
    """Where the comma stands behind a variable of a declaration, remarks left aside."""
    while file.text[at : at + 1] != b",":
        remark = remark_at(file, at)
        at = remark[1] if remark is not None else at + 1
    return at
