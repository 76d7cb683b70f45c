"""Let an object hold what functions hand to each other, and make these functions its methods.

def park(yard, n): yard[n] = "R"          class Yard:
def show(yard): print(yard)                   def __init__(self, places): ...
yard = new_yard()                   →         def park(self, n): self._places[n] = "R"
park(yard, 2)                                 def show(self): print(self._places)
show(yard)                                yard = Yard(new_yard())
                                          yard.park(2)
                                          yard.show()
"""

from __future__ import annotations

from collections.abc import Iterator

from ...design.tables import ClassDesign, Design
from ...program.edits import Range
from ...program.model import SourceFile, Symbol
from ...program.program import Program
from .. import messages, mistakes
from ..design_check import DesignCheck
from ..parameter_to_receiver import loose
from ..record_class.rewrite import BecomesMethod, MakesObjects, with_class_standing
from ..rewrite import Rewrite, State
from ..step import Context, function_of
from .methods import HandedValue
from .wrapping import Wrapping, symbol_of


def member_of(c: ClassDesign, context: Context) -> str:
    """The field that holds the value, as it is written."""
    (f,) = c.fields
    return str(context.write.hidden(f.name) if f.hidden else f.name)


class WrapValue(MakesObjects):
    """Variables hold an object instead of the bare value."""

    kind = "wrap"
    left = "the value stays bare"

    def title(self) -> str:
        names = ", ".join(dict.fromkeys(o.name for o in self.design.wraps))
        return f"{names} become{'s' if ', ' not in names else ''} an object of {self.design.name}"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        symbols = wrapped(self.design, file)
        handed = {f.name for f in file.functions for p in f.params if f.scope.symbols.get(p.name) in symbols}
        self.check_names(context, file, {s.name for s in symbols} | handed, {self.design.name})
        member, held = member_of(self.design, context), self.design.fields[0]
        fixed = held.start == "fixed"
        methods = [(function_of(file, m.origins[0]), m.drop[0]) for m in self.design.methods if m.drop]
        wrapping = Wrapping(file, context.language, self.design.name, member, symbols, held.type, fixed, methods)
        if (trouble := wrapping.trouble()) is not None:
            raise messages.CANNOT_WRAP.at(file, trouble[1], class_=self.design.name, why=trouble[0])
        return wrapping.edits()


def wrapped(c: ClassDesign, file: SourceFile) -> list[Symbol]:
    """The variables that a design means. Raises Refusal if the file has one not."""
    found = []
    for origin in c.wraps:
        s = symbol_of(file, origin)
        if s is None or not s.kinds:
            raise messages.NO_SUCH.in_file(file.path, what="variable", name=origin)
        found.append(s)
    return found


class WrappedMethod(BecomesMethod):
    """A function that is handed the value becomes a method of the object that holds it."""

    left = "the functions stay as they are"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        f = function_of(file, self.method.origins[0])
        if len(self.method.drop) != 1 or self.method.drop[0] not in [p.name for p in f.params]:
            raise messages.NOT_HANDED_OBJECT.at(file, f.start, function=f.name, class_=self.design.name)
        self.check_names(context, file, {f.name}, set())
        methods = HandedValue(file, context.language, self.design.name, member_of(self.design, context))
        (param,) = self.method.drop
        if why := methods.why_not(f, param):
            raise messages.STAYS_FUNCTION.at(file, f.start, why=why)
        name = self.method.name
        return methods.method_edits(
            f, param, context.write.hidden(name) if self.method.hidden else name, loose(context.program)
        )


class WrappedValues(Rewrite[MakesObjects]):
    """Values that functions hand to each other become objects."""

    def requests(self, state: State) -> Iterator[MakesObjects]:
        for c in [c for c in state.design.classes if c.wraps]:
            made = WrapValue(c)
            yield made
            for m in c.methods:
                yield WrappedMethod(c, m, [made.id])

    def design_after(self, state: State, step: MakesObjects, after: Program | None) -> Design:
        if isinstance(step, WrapValue):
            return with_class_standing(state.design, step.design, after is not None)
        return state.design

    def check(self, check: DesignCheck) -> None:
        for index, c in enumerate(check.design.classes):
            if c.wraps and (len(c.fields) != 1 or any(c.fields[0].origins)):
                check.report(check.lines.of("class", index, -1, "wraps"), mistakes.ONE_FIELD_HOLDS, class_=c.name)
