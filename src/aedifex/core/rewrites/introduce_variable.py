"""Give the literals in which twins differ a variable each, so that the twins are the same.

def ring1(): print("Mill")               bell1_label = "Mill"
def ring2(): print("Quarry")      →      bell2_label = "Quarry"
                                         def ring1(): print(bell1_label)
"""

from __future__ import annotations

import copy
from abc import abstractmethod
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TypeVar

from ..analysis.startup import running
from ..analysis.twins import TwinLiteral, twin_literals
from ..design.origin import as_origins
from ..design.tables import ClassDesign, Design, FieldDesign
from ..program.edits import Edits
from ..program.model import Function, SourceFile, Statement, Symbol
from ..program.program import Program, reread
from . import messages
from .rewrite import Rewrite, State
from .step import ClassStep, Context, function_of


@dataclass
class MakesVariables(ClassStep):
    """A step that makes the variables of a field; ``made``: one for each object, before it is tried."""

    member: FieldDesign
    made: list[str] = field(default_factory=list, kw_only=True)

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.member.name}"

    def names(self, context: Context) -> list[str]:
        """The variables that are made, one for each object."""
        write = context.write
        taken = {n for f in context.program.files.values() for s in f.scope.walk() for n in s.symbols}
        found = []
        for o in self.design.objects:
            name = write.member_name(
                [*write.words(o.name), *write.words(self.member.name)], naming_example(self.design) or o.name
            )
            while name in taken:
                name += "_"
            found.append(name)
        return found


@dataclass
class HoistLiteral(MakesVariables):
    """``texts``: the literal of each object."""

    kind = "hoist"
    texts: list[str]

    def title(self) -> str:
        return f"{', '.join(self.texts)} get names: they differ in twins of {self.design.name}"

    def apply(self, context: Context) -> Edits:
        out = Hoister(context, context.home(self.design), self, self.texts).edits()
        after = reread(context.program, out.apply(context.program.files))
        for problem in [*context.language.accepts([*after.files.values()])][:1]:
            raise messages.NO_VARIABLE_FOR_LITERAL.in_file(problem.path, problem.line, message=problem.message)
        return out


def literal_fields(design: ClassDesign) -> list[tuple[FieldDesign, list[str]]]:
    """The fields that replace no variable, but a literal in which twins differ; with the literals, the last arguments
    of the objects."""
    found = [f for f in design.fields if f.origins and not any(f.origins) and not (f.start == "argument" and f.value)]
    rows = [
        o.args[len(o.args) - len(found) :] if len(o.args) >= len(found) else [""] * len(found) for o in design.objects
    ]
    return [(f, [row[i] for row in rows]) for i, f in enumerate(found)]


def naming_example(design: ClassDesign) -> str:
    """How the variables of the class write names of several words."""
    return next((o.local for f in design.fields for o in f.origins if o), "")


class Hoister:
    """Works out the variables for literals in which twins differ."""

    def __init__(self, context: Context, file: SourceFile, step: MakesVariables, texts: list[str]) -> None:
        self.context, self.file, self.step, self.texts, self.design = context, file, step, texts, step.design
        self.out = Edits()

    def edits(self) -> Edits:
        found = [d for d in self.differences() if d.texts == self.texts]
        if not found:
            raise messages.NO_DIFFERING_TWINS.in_file(
                self.file.path, class_=self.design.name, texts=" and ".join(self.texts)
            )
        names = self.step.names(self.context)
        for difference in found:
            for name, places in zip(names, difference.places, strict=True):
                for start, end in places:
                    self.out.replace(self.file.path, start, end, name)
        for index, name in enumerate(names):
            self.declare(index, name, found[0])
        return self.out

    def differences(self) -> list[TwinLiteral]:
        rows = [[function_of(self.file, o) for o in m.origins] for m in self.design.methods if len(m.origins) > 1]
        found: list[TwinLiteral] = []
        for row in rows:
            found += (
                twin_literals(
                    self.file, self.context.language, row, [self.marks(f, i, rows) for i, f in enumerate(row)]
                )
                or []
            )
        return found

    def marks(self, f: Function, index: int, rows: list[list[Function]]) -> list[tuple[int, int, str]]:
        """What may differ otherwise: the object's own variables, and its own twins."""
        mine: dict[Symbol | None, str] = {
            self.file.scope.symbols.get(o.local): "\1" + d.name for d, o in self.design.origins(index)
        }
        mine |= {row[index].symbol: "\2" + row[0].name for row in rows if index < len(row)}
        uses = [(r.start, r.end, r.symbol) for r in self.file.within(f.params_start, f.end)]
        uses += [(d.start, d.end, d.symbol) for d in self.file.declarations_within(f.start, f.end)]
        spans = {(a, b): mine[s] for a, b, s in uses if s in mine and s is not None}
        return [(a, b, text) for (a, b), text in spans.items()]

    def declare(self, index: int, name: str, difference: TwinLiteral) -> None:
        self.declare_as(index, name, difference.texts[index], difference.kind)

    def declare_as(self, index: int, name: str, value: str, kind: str) -> None:
        """The variable's line, after the last of the object's own."""
        write, file = self.context.write, self.file
        after = self.last_first(index)
        if after is None:
            raise messages.NOTHING_SETS.in_file(file.path, name=name)
        first, last = after.group or (
            after.start,
            after.end,
        )  # behind the whole declaration, where it holds several variables
        end = write.line_end(file, last)
        lead = file.slice(write.line_start(file, first), first)
        if lead.strip() or any(last <= s.start < end for s in file.statements):
            raise messages.SEVERAL_ON_LINE.in_file(file.path, line=file.shown(after.start))
        line = write.declare_variable(file, name, value, kind)
        gap = "" if file.text[:end].endswith(b"\n") else "\n"
        self.out.insert(file.path, end, write.with_newlines(f"{gap}{lead}{line}\n", write.newline(file)))

    def last_first(self, index: int) -> Statement | None:
        """The last statement at the top that first sets a variable of an object."""
        mine = {self.file.scope.symbols.get(o.local) for _, o in self.design.origins(index)}
        firsts = [
            s
            for s in running(self.file, self.context.language)
            if s.target is not None and s.target.symbol in mine and s.kind == "assign"
        ]
        seen: set[Symbol | None] = set()
        found = None
        for s in firsts:
            assert s.target is not None
            if s.target.symbol not in seen:
                seen.add(s.target.symbol)
                found = s
        return found


V = TypeVar("V", bound=MakesVariables)


class ForFields(Rewrite[V]):
    """Fields that replace no variable get one for each object; those that cannot go."""

    @abstractmethod
    def wanted(self, c: ClassDesign) -> list[V]:
        """The steps for a class, one for each such field."""

    def requests(self, state: State) -> Iterator[V]:
        for step in [step for c in state.design.classes for step in self.wanted(c)]:
            step.design = state.design.class_named(step.design.name) or step.design
            step.made = step.names(Context(state.program, state.design))
            yield step

    def design_after(self, state: State, step: V, after: Program | None) -> Design:
        return with_as_origins(state.design, step.design, step.member, step.made if after is not None else None)


class IntroduceVariable(ForFields[HoistLiteral]):
    """Fields for literals in which twins differ."""

    def wanted(self, c: ClassDesign) -> list[HoistLiteral]:
        return [HoistLiteral(c, f, texts) for f, texts in literal_fields(c)]


def with_as_origins(design: Design, c: ClassDesign, f: FieldDesign, names: list[str] | None) -> Design:
    """The design with variables for a field that had none; without the field if there are None."""
    made = copy.copy(design)
    made.classes = []
    for other in design.classes:
        if other.name == c.name:
            other = copy.copy(other)
            fields = [copy.copy(g) for g in other.fields if names is not None or g.name != f.name]
            for g in fields:
                if g.name == f.name and names is not None:
                    g.origins = as_origins(*names)
            other.fields = fields
        made.classes.append(other)
    return made
