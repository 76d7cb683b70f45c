"""Give an object a variable of its own for a companion that never changes, so that it can keep it.

screen = open_screen()                screen = open_screen()
lamp_lit = True              →        lamp_lit = True
def draw(): screen.put(...)           lamp_screen = screen
                                      def draw(): lamp_screen.put(...)
"""

from __future__ import annotations

from dataclasses import dataclass

from ..analysis.startup import running
from ..design.origin import Origin
from ..design.tables import ClassDesign, FieldDesign
from ..program.edits import Edits
from ..program.model import Function, SourceFile, Symbol
from ..program.program import Program
from ..program.scopes import shadowed
from . import messages
from .by_hand import Asked, HandCommand, names_in
from .introduce_variable import ForFields, Hoister, MakesVariables
from .step import Context, Step, check_hazards, drop_declarations, function_of, symbol


@dataclass
class StoreAs(Step):
    """Some functions use a variable that never changes under a name of their own."""

    kind = "store"
    path: str
    source: str
    name: str
    functions: list[str]

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        return f"{', '.join(self.functions)} use {self.source} as {self.name}"

    def apply(self, context: Context) -> Edits:
        file, out, write = context.file(self.path), Edits(), context.write
        check_hazards(context, file, {self.source}, "keep the one name")
        source = symbol(file, Origin.parse(self.source), "variable")
        if len(source.bindings) > 1:
            raise messages.COPY_STALE.at(file, source.bindings[1].start, source=source.name)
        if any(self.name in s.symbols for s in file.scope.walk()):
            raise messages.NAME_IN_USE.in_file(file.path, name=self.name)
        first = next(
            (s for s in running(file, context.language) if s.target is not None and s.target.symbol is source), None
        )
        if (
            first is None
            or first.group is not None
            or file.text[write.line_start(file, first.start) : first.start].strip()
        ):
            raise messages.NOTHING_SETS.in_file(file.path, name=self.source)
        for name in self.functions:
            replace_uses(context, file, function_of(file, Origin.parse(name)), source, self.name, out)
        lead = file.slice(write.line_start(file, first.start), first.start)
        line = write.declare_variable(file, self.name, self.source, context.type_of(file, source))
        out.insert(
            file.path, write.line_end(file, first.end), write.with_newlines(f"{lead}{line}\n", write.newline(file))
        )
        return out


class StoreCompanion(MakesVariables):
    """Each object of a class keeps what others have as well."""

    kind = "store"

    def title(self) -> str:
        return f"each object of {self.design.name} keeps {self.member.value}"

    def apply(self, context: Context) -> Edits:
        file, out = context.home(self.design), Edits()
        source = symbol(file, Origin.parse(self.member.value), "variable")
        if len(source.bindings) > 1:
            raise messages.COPY_STALE.at(file, source.bindings[1].start, source=source.name)
        hoister = Hoister(context, file, self, [])
        hoister.out = out
        for index, name in enumerate(self.names(context)):
            hoister.declare_as(index, name, self.member.value, context.type_of(file, source))
            after = hoister.last_first(index)
            if after is not None and source.bindings[0].start > after.start:
                raise messages.SOURCE_SET_AFTER.at(
                    file, source.bindings[0].start, source=source.name, class_=self.design.name
                )
            for m in self.design.methods:
                if index < len(m.origins) and len(m.origins) == len(self.design.objects):
                    replace_uses(context, file, function_of(file, m.origins[index]), source, name, out)
        return out


def replace_uses(context: Context, file: SourceFile, f: Function, source: Symbol, name: str, out: Edits) -> None:
    """Let a function use a variable under another name. Raises Refusal where it does more than read it."""
    for ref in file.within(f.body_start, f.end):
        if ref.symbol is source:
            if ref.writes or ref.form == "spelled" or shadowed(ref.scope, name, file.scope):
                raise messages.NO_OTHER_NAME.at(file, ref.start, source=source.name)
            out.replace(file.path, ref.start, ref.end, context.write.use(ref, name))
    drop_declarations(context.language, file, out, {source}, (f.start, f.end))


def stored(design: ClassDesign) -> list[FieldDesign]:
    """The fields that replace no variable, but keep one that others have."""
    return [f for f in design.fields if f.origins and not any(f.origins) and f.start == "argument" and f.value]


def ask_store(program: Program, source: str, name: str, functions: str) -> Asked:
    if not program.language.write.is_name(name):
        raise messages.NO_NAME.in_file(name=name)
    path = next((p for p, f in program.files.items() if source in f.scope.symbols), next(iter(program.files)))
    return Asked(StoreAs(path, source, name, names_in(functions)))


class AliasField(ForFields[StoreCompanion]):
    """Fields that keep a variable which never changes get a variable of their own for each object."""

    by_hand = (
        HandCommand(
            "store",
            ("VARIABLE", "NAME", "FUNCTIONS"),
            "Functions use a variable under a name of their own.",
            """Let FUNCTIONS, names with commas between them, use a VARIABLE that never changes under the NAME of a
            second one.

            What is stored so can become a field of the object whose methods they become.""",
            "store screen lamp_screen show_lamp,hide_lamp lamps.py",
            "Changed",
            ask_store,
        ),
    )

    def wanted(self, c: ClassDesign) -> list[StoreCompanion]:
        return [StoreCompanion(c, f) for f in stored(c)]
