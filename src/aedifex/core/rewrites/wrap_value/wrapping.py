"""Where a bare value becomes an object that holds it: each place that gives it to a variable makes one, each place that
reads the variable asks the object for it.

yard = new_yard()                    yard = Yard(new_yard())
yard[0] = "R"                  →     yard.places[0] = "R"
show(yard)                           show(yard.places)

The object is never asked for anything but the value, so that nothing can tell whether two variables share it.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from collections.abc import Set as AbstractSet
from functools import cached_property

from ...analysis.counting_loops import with_inner
from ...design.origin import Origin
from ...program.edits import Range
from ...program.fields import NewField
from ...program.language import Language
from ...program.model import Argument, Call, Function, Reference, Role, SourceFile, Statement, Symbol
from ..parameter_to_receiver import argument_of
from .start_value import StartValue, same_start_value

PLAIN_FORMS = ("", "format", "compared")  # forms of a use that a member can take the place of
OPENING, CLOSING = "([{", ")]}"


def symbol_of(file: SourceFile, origin: Origin) -> Symbol | None:
    """The variable, or parameter, that an origin means."""
    if not origin.holder:
        return file.scope.symbols.get(origin.name)
    holder = next((f for f in file.functions if f.key == origin.holder), None)
    return holder.scope.symbols.get(origin.name) if holder is not None else None


def assignments(file: SourceFile, language: Language) -> dict[int, Statement]:
    """Every statement that gives one variable a value, by where the variable stands in it."""
    if "assignments" not in file.memo:
        rows: list[Statement] = []
        for body in [file.statements, *(language.body(file, f) for f in file.functions)]:
            rows += with_inner(file, language, body)
        file.memo["assignments"] = {
            s.target.start: s for s in rows if s.kind == "assign" and s.target is not None and s.value is not None
        }
    found: dict[int, Statement] = file.memo["assignments"]
    return found


class Wrapping:
    """``variables``: those that hold an object from then on, parameters among them; ``member``: its field, as it is
    written."""

    def __init__(
        self,
        file: SourceFile,
        language: Language,
        class_: str,
        member: str,
        variables: Sequence[Symbol],
        type_: str = "",
        fixed: bool = False,
        methods: Sequence[tuple[Function, str]] = (),
    ) -> None:
        """``type_``: of the value, where the language writes types; ``fixed``: whether the constructor sets it by
        itself; ``methods``: functions that become methods, with the parameter that goes."""
        self.type, self.fixed, self.methods = type_, fixed, methods
        self.file, self.language, self.write = file, language, language.write
        self.class_, self.member, self.variables = class_, member, set(variables)
        self.head, self.tail = self.write.make(class_, ["\0"]).split("\0")

    @cached_property
    def parameters(self) -> list[tuple[Function, str]]:
        """The parameters among the variables, with their functions."""
        return [
            (f, p.name) for f in self.file.functions for p in f.params if f.scope.symbols.get(p.name) in self.variables
        ]

    @cached_property
    def handed(self) -> list[tuple[Call, Argument | None]]:
        """What calls give those parameters."""
        return [
            (call, argument_of(self.file, self.language, f, call, name))
            for f, name in self.parameters
            if f.symbol is not None
            for call in self.file.calls_of(f.symbol)
        ]

    def trouble(self) -> tuple[str, int] | None:
        """Why a variable cannot hold an object, and where; None if all can."""
        return next(self.troubles(), None)

    def troubles(self) -> Iterator[tuple[str, int]]:
        if self.fixed and self.first is None:
            yield "objects begin with different values, or with what a constructor cannot know", self.first_place()
        for f, name in self.parameters:
            uses = [r for r in f.symbol.references if not r.writes] if f.symbol is not None else []
            if f.symbol is None or f.symbol.kinds != {"function"} or any(r.role != Role.CALL for r in uses):
                yield f"'{f.name}' is used other than by calling it", f.start
            if any(p.name == name and p.default is not None for p in f.params):
                yield f"'{name}' of '{f.name}' may be left out", f.start
            if any(p.name == name and p.annotated for p in f.params):
                yield f"a type is written beside '{name}' of '{f.name}'", f.start
        for call, argument in self.handed:
            if argument is None:
                yield "nothing tells what this call hands over", call.start
        for s in sorted(self.variables, key=lambda s: s.name):
            for r in s.references:
                if why := self.unfit(r):
                    yield f"{why} '{s.name}'", r.start

    def unfit(self, r: Reference) -> str:
        """Why a use of a variable cannot be one of an object; "" if it can."""
        if r.writes and r.form == "parameter":
            return ""
        if r.writes:
            given = assignments(self.file, self.language).get(r.start)
            if r.role != Role.WRITE or given is None or given.value is None or given.value[0] == given.value[1]:
                return "this does more than give a value to"
            if given.annotation is not None:
                return "a type is written beside"
            return "several values are given to" if self.several(*given.value) else ""
        return "" if r.form in PLAIN_FORMS and not r.deferred else "this needs the very name of"

    def several(self, start: int, end: int) -> bool:
        """Whether an expression is more than one could hand over as it stands: values with a comma between, or a
        ``yield``."""
        depth, text = 0, self.file.slice(start, end)
        if text.startswith("yield"):
            return True
        for token in self.language.tokens(self.file, start, end, []):
            depth += (token in OPENING) - (token in CLOSING) if len(token) == 1 else 0
            if token == "," and not depth:
                return True
        return False

    def edits(self) -> list[Range]:
        """The class, and every use of the variables."""
        return [*self.class_edits(), *self.use_edits()]

    @cached_property
    def given(self) -> list[tuple[int, int]]:
        """Every expression that one of the variables is given."""
        spans = [(a.value_start, a.end) for _, a in self.handed if a is not None]
        rows = assignments(self.file, self.language)
        set_here = [r for s in self.variables for r in s.references if r.writes and r.form != "parameter"]
        return spans + [v for r in set_here if r.start in rows and (v := rows[r.start].value) is not None]

    @cached_property
    def first(self) -> StartValue | None:
        """What every object begins with; None where that differs, or a method is asked of a value made for it."""
        own = {f.scope.symbols[p] for f, p in self.methods}
        for f, p in self.methods:
            for call in self.file.calls_of(f.symbol) if f.symbol is not None else []:
                a = argument_of(self.file, self.language, f, call, p)
                if a is None or not self.bare(a.value_start, a.end, own):
                    return None
        return same_start_value(self.file, self.language, [v for v in self.given if not self.bare(*v)])

    def use_edits(self) -> list[Range]:
        kept = {start for start, end in self.given if self.bare(start, end)}
        found = [e for v in self.given if not self.bare(*v) for e in self.made(*v)]
        for s in self.variables:
            found += [(r.end, r.end, f".{self.member}") for r in s.references if not r.writes and r.start not in kept]
        if (f := self.factory) is not None and f.start != self.first_place():
            start = self.write.blank_before(self.file, self.write.comment_start(self.file, f.start))
            found.append((start, self.write.line_end(self.file, f.end - 1), ""))
        return found

    @property
    def factory(self) -> Function | None:
        """The function whose place the constructor takes."""
        return self.first.factory if self.fixed and self.first is not None else None

    def made(self, start: int, end: int) -> list[Range]:
        if self.fixed:
            return [(start, end, self.write.make(self.class_, []))]
        return [(start, start, self.head), (end, end, self.tail)]

    def bare(self, start: int, end: int, more: AbstractSet[Symbol] = frozenset()) -> bool:
        """Whether an expression is nothing but one of the variables, or of ``more``."""
        refs = self.file.within(start, end)
        whole = len(refs) == 1 and (refs[0].start, refs[0].end) == (start, end)
        return whole and refs[0].symbol in self.variables | more

    def class_edits(self) -> list[Range]:
        """The class stands before the first function or statement that could need it."""
        file, write = self.file, self.write
        at = write.comment_start(file, self.first_place())
        held = NewField(self.member, self.member.strip("_#"), given=True, type=self.type)
        if self.fixed and self.first is not None:
            held = NewField(self.member, self.first.text, type=self.type, above=self.first.remarks)
        text = write.class_text(file, write.indent_unit(file), self.class_, "", [held])
        gap = "\n" * write.BLANKS
        before = write.blank_before(file, at)
        new = f"{gap if before else ''}{text.rstrip(chr(10))}\n{gap}"
        if (f := self.factory) is not None and f.start == self.first_place():
            at = write.blank_after(file, write.line_end(file, f.end - 1))
        return [(before, at, write.with_newlines(new, write.newline(file)))]

    def first_place(self) -> int:
        """Where the first statement stands that is about the variables, or a function that is handed one."""
        spans = [r.start for s in self.variables for r in s.references]
        spans += [call.start for call, _ in self.handed]
        users = [s.start for s in self.file.statements if any(s.start <= at < s.end for at in spans)]
        functions = [s.start for s in self.file.statements if s.kind == "function"]
        return min([*users, *functions])
