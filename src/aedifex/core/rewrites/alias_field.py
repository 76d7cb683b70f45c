"""Give an object a variable of its own for a companion that never changes, so that it can keep it.

screen = open_screen()                screen = open_screen()
lamp_lit = True              →        lamp_lit = True
def draw(): screen.put(...)           lamp_screen = screen
                                      def draw(): lamp_screen.put(...)
"""

from __future__ import annotations

from ..design.tables import ClassDesign, FieldDesign, bare
from ..program.edits import Edits
from ..program.model import SourceFile, Symbol
from ..program.scopes import shadowed
from . import messages
from .introduce_variable import ForFields, Hoister, MakesVariables
from .step import Context, drop_declarations, function_of, symbol


class StoreCompanion(MakesVariables):
    kind = "store"

    def title(self) -> str:
        return f"each object of {self.design.name} keeps {self.member.value}"

    def apply(self, context: Context) -> Edits:
        file, out = context.home(self.design), Edits()
        source = symbol(file, self.member.value, "variable")
        if len(source.bindings) > 1:
            raise messages.COPY_STALE.at(file, source.bindings[1].start, source=source.name)
        hoister = Hoister(context, file, self, [])
        hoister.out = out
        for index, name in enumerate(self.names(context)):
            hoister.declare_as(index, name, self.member.value, context.type_of(file, source))
            after = hoister.last_first(index)
            if after is not None and source.bindings[0].start > after.start:
                raise messages.SOURCE_SET_AFTER.at(file, source.bindings[0].start, source=source.name, class_=self.design.name)
            for m in self.design.methods:
                if index < len(m.origins) and len(m.origins) == len(self.design.objects):
                    self.replace(context, file, bare(m.origins[index]), source, name, out)
        return out

    def replace(self, context: Context, file: SourceFile, origin: str, source: Symbol, name: str, out: Edits) -> None:
        f = function_of(file, origin)
        for ref in file.within(f.body_start, f.end):
            if ref.symbol is source:
                if ref.writes or ref.form == "spelled" or shadowed(ref.scope, name, file.scope):
                    raise messages.NO_OTHER_NAME.at(file, ref.start, source=source.name)
                out.replace(file.path, ref.start, ref.end, context.write.use(ref, name))
        drop_declarations(context.language, file, out, {source}, (f.start, f.end))


def stored(design: ClassDesign) -> list[FieldDesign]:
    """The fields that replace no variable, but keep one that others have."""
    return [f for f in design.fields if f.origins and not any(f.origins) and f.start == "argument" and f.value]


class AliasField(ForFields[StoreCompanion]):
    def wanted(self, c: ClassDesign) -> list[StoreCompanion]:
        return [StoreCompanion(c, f) for f in stored(c)]
