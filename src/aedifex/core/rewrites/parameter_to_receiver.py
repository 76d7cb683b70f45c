"""Functions that are told which object they are for, by its index or by the object itself, as methods of it."""

from __future__ import annotations

from ..analysis.effects import Effects
from ..analysis.variable_kinds import constants_of
from ..program.edits import Range
from ..program.language import Language
from ..program.model import Argument, Call, Function, Role, SourceFile
from ..program.program import Program


def argument_of(file: SourceFile, language: Language, f: Function, call: Call, parameter: str) -> Argument | None:
    """What a call gives a parameter; None if it does not say so plainly."""
    args = language.arguments(file, call)
    if any(a.keyword in ("*", "**") for a in args):
        return None
    place = [p.name for p in f.params].index(parameter)
    positional = [a for a in args if not a.keyword]
    return next((a for a in args if a.keyword == parameter), positional[place] if place < len(positional) else None)


def calls_alone(file: SourceFile, f: Function) -> list[Call] | None:
    """All uses of a function, where each is a call of it; None where it is used in another way."""
    if f.symbol is None:
        return None
    uses, calls = [r for r in f.symbol.references if not r.writes], file.calls_of(f.symbol)
    return None if len(calls) != len(uses) or any(r.role != Role.CALL for r in uses) else list(calls)


class ParameterCalls:
    """What such functions of a file have in common; ``told_of``: how a call's argument says the object."""

    def __init__(self, file: SourceFile, language: Language) -> None:
        self.file, self.language, self.write = file, language, language.write
        self.effects = Effects(file, language)
        self.constants = set(constants_of(file, language))

    def told_of(self, argument: str) -> str:
        return argument

    def argument(self, f: Function, call: Call, param: str) -> Argument | None:
        """What a call gives a parameter; None if it does not say so plainly."""
        return argument_of(self.file, self.language, f, call, param)

    def quiet_before(self, call: Call, argument: Argument) -> bool:
        """Whether nothing has an effect in a call before an argument is worked out."""
        before = [a for a in self.language.arguments(self.file, call) if a.start < argument.start]
        return not any(self.language.purity(self.file, (a.value_start, a.end)) == "effect" for a in before)

    def moved(self, f: Function, param: str, name: str, class_: str, inner: list[Range], loose: bool) -> list[Range]:
        """The function becomes a method without ``param``, each call asks the object. ``inner``: what else changes in
        the function; ``loose``: its document string may be indented."""
        file, write = self.file, self.write
        assert f.symbol is not None
        scope = next(s for s, n in file.classes if n == class_ and s.parent is file.scope)
        edits = [e for call in self.calls_outside(f) for e in self.call_edits(f, call, param, name)]
        start, end = write.comment_start(file, f.start), write.line_end(file, f.end)
        inner = [*write.method_header(file, f, name, {param}), *inner]
        text = write.indented(file, start, end, inner, write.indent_unit(file), f.docstring if loose else None)
        at, before, after = write.method_place(file, scope)
        text = text if text.endswith("\n") else text + "\n"
        new = write.with_newlines(f"{before}\n{text}{after}", write.newline(file))
        return [*edits, (at, at, new), (write.blank_before(file, start), self.closed_up(start, end), "")]

    def calls_outside(self, f: Function) -> list[Call]:
        """The calls that ``inner`` says nothing of."""
        return self.file.calls_of(f.symbol) if f.symbol is not None else []

    def closed_up(self, start: int, end: int) -> int:
        """Where what goes with a function ends: one blank line is enough between what is neither function nor class."""
        tops = self.file.statements
        beside = [*(s for s in tops if s.end <= start)][-1:], [s for s in tops if s.start >= end][:1]
        if not all(beside) or any(s.kind in ("function", "class") for row in beside for s in row):
            return end
        gap = self.file.slice(end, beside[1][0].start)
        blank = [line for line in gap[: len(gap) - len(gap.lstrip())].splitlines(keepends=True) if line.endswith("\n")]
        return end + sum(len(line) for line in blank[:-1])

    def call_edits(self, f: Function, call: Call, param: str, name: str) -> list[Range]:
        """The argument goes in front of the call."""
        arg = self.argument(f, call, param)
        assert arg is not None
        return self.asking(f, call, param, name, self.told_of(self.file.slice(arg.value_start, arg.end)))

    def asking(self, f: Function, call: Call, param: str, name: str, owner: str) -> list[Range]:
        """The call asks ``owner``, without the argument that told of it."""
        args, arg = self.language.arguments(self.file, call), self.argument(f, call, param)
        assert arg is not None
        place = next(i for i, a in enumerate(args) if a.start == arg.start)
        edits: list[Range] = [(call.callee.start, call.callee.end, f"{owner}.{name}")]
        if len(args) == 1:
            return [*edits, (call.args_start, call.args_end, "")]
        return [*edits, (args[place - 1].end, arg.end, "") if place else (arg.start, args[1].start, "")]


def loose(program: Program) -> bool:
    """Whether nothing reads document strings, so that they may be indented."""
    return not program.language.write.reads_documents(list(program.files.values()))
