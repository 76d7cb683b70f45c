"""Give a literal a name at the top of its file.

def sell(n):                  FARE = 3
    return n * 3       →
                              def sell(n):
                                  return n * FARE
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..design.origin import as_origins
from ..design.tables import ConstantDesign, Design
from ..program.edits import Edits
from ..program.errors import AedifexError
from ..program.line_ranges import range_of
from ..program.model import SourceFile
from ..program.program import Program, reread
from ..program.refusal import Refusal
from . import messages
from .by_hand import Asked, HandCommand, names_in
from .design_check import DesignCheck
from .rewrite import Rewrite, State, moved_design
from .step import Context, Step


@dataclass
class NameLiteral(Step):
    """A literal gets a name, at all its places."""

    kind = "constant"
    traced = True
    constant: ConstantDesign

    @property
    def subject(self) -> str:
        return self.constant.name

    def title(self) -> str:
        places = self.constant.origins
        return f"{', '.join(map(str, places))} {'get' if len(places) > 1 else 'gets'} the name {self.constant.name}"

    def apply(self, context: Context) -> Edits:
        name, out = self.constant.name, Edits()
        if not context.write.is_name(name):
            raise messages.NO_NAME.in_file(name=name)
        found = [literal_at(context, str(place)) for place in self.constant.origins]
        file, start, end, kind = found[0]
        value = file.slice(start, end)
        for other, a, b, _ in found:
            if other is not file or other.slice(a, b) != value:
                raise messages.OTHER_LITERAL.at(other, a, value=other.slice(a, b), first=value)
            out.replace(file.path, a, b, name)
        if name in context.language.builtins or any(name in s.symbols for s in file.scope.walk()):
            raise messages.NAME_IN_USE.in_file(file.path, name=name)
        out.insert(file.path, *declaration(context, file, context.write.declare_constant(file, name, value, kind)))
        after = reread(context.program, out.apply(context.program.files))
        for problem in context.language.accepts([*after.files.values()])[:1]:
            raise messages.NO_VARIABLE_FOR_LITERAL.in_file(problem.path, problem.line, message=problem.message)
        return out


def literal_at(context: Context, text: str) -> tuple[SourceFile, int, int, str]:
    """The literal that stands at a place. Raises Refusal if none does that a name could stand for."""
    try:
        place = range_of(text, context.program)
    except AedifexError:
        raise messages.NO_LITERAL.in_file(place=text) from None
    file = place.file
    line = file.line(place.start)
    ends = file.lines[line] if line < len(file.lines) else len(file.text)
    for start, end, kind in context.language.literals(file, file.lines[line - 1], ends):
        whole = any(s.start == start for s in file.statements) or any(
            s.start == start for f in file.functions for s in context.language.body(file, f)
        )
        if start <= place.start < end and place.end <= end and not whole:
            return file, start, end, kind
    raise messages.NO_LITERAL.in_file(file.path, file.shown(place.start), place=text)


def declaration(context: Context, file: SourceFile, line: str) -> tuple[int, str]:
    """Where a constant goes, behind the imports, and its text: with what else is set there, or apart."""
    write = context.write
    line = write.top_lead(file, write.indent_unit(file)) + line
    rest = [s for s in file.statements if s.start >= write.opening(file)]
    first = next((s for s in rest if s.kind not in ("import", "docstring")), None)
    above = [s for s in rest if first is None or s.start < first.start]
    if first is not None and (first.kind in ("assign", "annotate") or not above):
        gap = "" if first.kind in ("assign", "annotate") else "\n" * write.BLANKS
        at, text = write.comment_start(file, first.start), f"{line}\n{gap}"
    else:
        at, text = write.line_end(file, above[-1].end) if above else len(file.text), f"\n{line}\n"
    return at, write.with_newlines(text, write.newline(file))


def ask_constant(program: Program, places: str, name: str) -> Asked:
    return Asked(NameLiteral(ConstantDesign(name, as_origins(*names_in(places)))))


class IntroduceConstant(Rewrite[NameLiteral]):
    """Before all else: its places are those of the sources."""

    by_hand = (
        HandCommand(
            "constant",
            ("PLACES", "NAME"),
            "A literal gets a name.",
            """Give a literal a NAME at the top of its file.

            PLACES are file:line:column, both counted from one, with commas between them where the same literal means
            the same thing.""",
            "constant fares.py:33:17 GROUP fares.py",
            "Named",
            ask_constant,
        ),
    )

    def requests(self, state: State) -> Iterator[NameLiteral]:
        for i in range(len(state.design.constants)):
            yield NameLiteral(state.design.constants[i])

    def design_after(self, state: State, step: NameLiteral, after: Program | None) -> Design:
        if after is None:
            return state.design
        return moved_design(state, after)

    def check(self, check: DesignCheck) -> None:
        context = Context(check.program, check.design)
        for index, c in enumerate(check.design.constants):
            check.name(check.lines.of("constant", index, -1, "name"), c.name)
            for place in c.origins:
                try:
                    literal_at(context, str(place))
                except Refusal as refusal:
                    check.report(check.lines.of("constant", index, -1, "from"), refusal.message, **refusal.values)
