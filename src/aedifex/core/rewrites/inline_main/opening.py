"""A long main function opened: its lines become the main code itself, so that its variables can be an object's fields.

def main():
    score = 0                        if __name__ == "__main__":
    while score < 3: ...      →          score = 0
                                         while score < 3: ...
if __name__ == "__main__":
    main()

Used by the draft, which goes on with the program as it is then, and by the step that does it.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from ...analysis.effects import Effects
from ...analysis.handlers import main_statements
from ...analysis.hazards import by_text
from ...analysis.main_function import main_function, named_main
from ...analysis.regions.region import all_blocks
from ...program.edits import Range
from ...program.language import Language
from ...program.layout import text_lines
from ...program.line_map import LineMap
from ...program.line_ranges import FORM
from ...program.model import Call, Declaration, Function, SourceFile, Statement
from ...program.refusal import Refusal
from .. import messages
from ..wrap_main.plan import mortal_classes


@dataclass
class Opening(LineMap):
    """``names``: the function's own variables. ``body``: its first and last line; ``at``: where the first is
    afterwards; ``columns``: how far its lines move to the right; ``gone``: lines of it that are no more."""

    function: Function | None = None
    names: list[str] = field(default_factory=list)
    body: tuple[int, int] = (0, 0)
    at: int = 0
    columns: int = 0
    gone: list[int] = field(default_factory=list)
    hoisted: list[tuple[int, int, int]] = field(
        default_factory=list
    )  # (first line, last line, where the first is) of functions that it held
    inner: int = 0  # how far these moved to the right
    told: int = 0  # the last line of its document string
    added: int = 0  # lines that follow that one: what sets the parameters
    called: str = ""  # the statement that called it, where that was all of the main code

    def line(self, line: int) -> tuple[int, int]:
        """Where a line is afterwards, and how far it moved to the right."""
        first, last = self.body
        for start, end, at in self.hoisted:
            if start <= line <= end:
                return at + line - start, self.inner
        if first <= line <= last:
            return self.at + line - first - sum(g < line for g in self.gone) + self.added * (
                line > self.told
            ), self.columns
        return line + self.shift(line), 0

    def kept(self) -> list[int]:
        """The lines that are still there, those of the body after all others."""
        first, last = self.body
        outside = [n for n in super().kept() if not first <= n <= last]
        return [
            *outside,
            *(n for n in range(first, last + 1) if n not in self.gone or any(a <= n <= b for a, b, _ in self.hoisted)),
        ]

    def holds(self, lines: str) -> bool:
        """Whether lines of the source are the function's."""
        match = FORM.fullmatch(lines)
        return (
            match is not None
            and match["path"] == self.file.path
            and self.body[0] <= int(match["first"]) <= self.body[1]
        )


def opening(file: SourceFile, language: Language, name: str = "") -> Opening | Refusal | None:
    """How the long main function of a file is opened, or why it cannot be; None if there is none. ``name``: of the one
    that is meant."""
    effects = Effects(file, language)
    f = named_main(file, effects, language, name) if name else main_function(file, effects, language)
    if f is None or not language.code_at_top:
        return None
    return Opener(file, language, effects, f).opened()


class Opener:
    """Works out how the lines of a main function become main code."""

    def __init__(self, file: SourceFile, language: Language, effects: Effects, f: Function) -> None:
        self.file, self.language, self.effects, self.f = file, language, effects, f
        assert language.opened is not None, "code can stand at the top"
        self.write, self.opened_ = language.write, language.opened
        self.body = language.body(file, f)
        self.follows: Statement | None = None  # what the main code does after it

    def opened(self) -> Opening | Refusal:
        try:
            self.check_function()
            self.check_names()
            statement, call = self.the_call()
            made = self.made(statement, self.given(call), *self.ways(statement, call))
            if not self.f.params and self.f.symbol is not None and self.alone(statement):
                made.called = self.file.slice(statement.start, statement.end)
            return made
        except Refusal as found:
            return found

    def alone(self, statement: Statement) -> bool:
        """Whether a statement is all that the main code does."""
        main = main_statements(self.file, self.effects, self.language)
        return [s.start for s in main if s.kind != "docstring"] == [statement.start]

    # -- whether it can be -----------------------------------------------------------------------

    def check_function(self) -> None:
        """Nothing about the function keeps its lines from being the main code. Raises Refusal."""
        f, file = self.f, self.file
        if f.decorators or f.is_async or f.scope.generator:
            raise messages.MORE_THAN_PLAIN.at(file, f.start, function=f.name)
        uses = [r for r in f.symbol.references if not r.writes and r.role != "define"] if f.symbol is not None else []
        if f.symbol is not None and (f.symbol.kinds != {"function"} or len(uses) != 1):
            raise messages.NOT_CALLED_ONCE.at(file, f.start, function=f.name)
        if file.line(self.body[0].start) == file.line(f.start):
            raise messages.STANDS_ON_ONE_LINE.at(file, f.start, function=f.name)
        if (tied := self.language.regions.bound_to_function(file, self.body[0].start, f.end)) is not None:
            raise messages.BOUND_TO_FUNCTION.at(file, tied[1], why=tied[0])
        if why := self.write.class_trouble(file, f.start, f.end, main=True):
            raise messages.BOUND_TO_FUNCTION.at(file, f.start, why=why)
        for ref in by_text(file, self.language, f.start, f.end):
            raise messages.LOOKS_UP_NAMES.at(file, ref.start, call=ref.name)
        for scope, _ in file.classes:
            if f.start <= scope.start < f.end:
                raise messages.CLASS_INSIDE.at(file, scope.start)
        if any(self.outer(d) for d in self.inner()) and any(
            not all(self.outer(o) for o in self.inner() if o.statement == d.statement)
            for d in self.inner()
            if self.outer(d)
        ):
            raise messages.SETS_OF_SEVERAL.at(file, f.start)
        if mortal_classes(file, self.language):
            raise messages.DIE_LATER.at(file, f.start)
        if any(n in self.language.unset_errors and s.references for n, s in file.scope.symbols.items()):
            raise messages.CATCHES_UNSET.at(file, f.start)
        if self.language.declares and self.body[0].kind == "docstring" and not self.whole:
            raise messages.STRICTNESS_INSIDE.at(file, self.body[0].start)
        if (at := self.strange_type()) is not None:
            raise messages.TYPE_LOOKED_UP.at(file, at)
        if file.star_imports:
            raise messages.STAR_IMPORT_BINDS.at(file, file.star_imports[0])

    @property
    def whole(self) -> bool:
        """Whether the file is nothing but the function, made and called in one statement."""
        return self.f.symbol is None and len(self.file.statements) == 1

    def strange_type(self) -> int | None:
        """Where a variable is declared with a type that is not there: in a function nobody looks it up."""
        if self.language.declares or "annotations" in self.file.futures:
            return None
        for s in [*self.body, *(x for _, b in all_blocks(self.file, self.language, self.body) for x in b.statements)]:
            for r in self.file.within(*s.annotation) if s.annotation is not None else ():
                known = r.symbol is not None and (
                    r.symbol.kinds & {"import", "class"} or (not r.symbol.kinds and r.name in self.language.builtins)
                )
                if not known:
                    return r.start
        return None

    def inner(self) -> list[Declaration]:
        """What functions inside it say of whose variables they set."""
        return [d for d in self.file.declarations_within(self.f.start, self.f.end) if d.scope is not self.f.scope]

    def outer(self, d: Declaration) -> bool:
        """Whether it is a variable of the function itself."""
        return d.symbol is not None and d.symbol.scope is self.f.scope

    def check_names(self) -> None:
        """Its variables become the file's own: none may mean something there already. Raises Refusal."""
        outer = self.file.scope.symbols
        for name, s in self.f.scope.symbols.items():
            if not s.bindings or any(d.name == name and d.scope is self.f.scope for d in self.file.declarations):
                continue
            other = outer.get(name)
            used = (other is not None and (other.bindings or other.references)) or (
                self.language.declares and name in self.language.builtins
            )
            own = {self.f.name} if self.f.symbol is not None else set()
            if (
                used
                or name in self.language.introspective | self.language.reserved | self.opened_.taken(self.file) | own
            ):
                raise messages.OUTER_NAME.at(self.file, s.bindings[0].start, name=name)

    def the_call(self) -> tuple[Statement, Call]:
        """The statement that calls it, one of the main code."""
        statements = main_statements(self.file, self.effects, self.language)
        if self.f.symbol is None:
            holder = next(s for s in statements if s.start <= self.f.start < s.end)
            self.follows = next((s for s in statements if s.start > holder.start), None)
            if self.opened_.runs_on(self.file, holder, self.body):
                raise messages.LINES_JOIN.at(self.file, holder.start)
            return holder, self.opened_.call_in_place(self.file, holder)
        calls = self.file.calls_of(self.f.symbol)
        if len(calls) != 1 or not statements:
            raise messages.CALLED_ELSEWHERE.at(self.file, self.f.start, function=self.f.name)
        call = calls[0]
        found = next((s for s in statements if s.start <= call.start < s.end), None)
        if found is None or call.start < self.f.start:
            raise messages.CALLED_ELSEWHERE.at(self.file, call.start, function=self.f.name)
        if self.language.declares and found not in self.file.statements:
            raise messages.OTHER_VARIABLES.at(self.file, found.start)
        if not self.language.declares and any(found.start < f.start for f in self.file.tops):
            raise messages.FUNCTIONS_AFTER_MAIN.at(self.file, found.start)
        self.follows = next((s for s in statements if s.start > found.start), None)
        return found, call

    def given(self, call: Call) -> list[str]:
        """What sets the parameters, as statements."""
        arguments, found = self.language.arguments(self.file, call), []
        plain = [p for p in self.f.params if p.kind in ("plain", "positional", "keyword")]
        if len(plain) != len(self.f.params) or any(a.keyword in ("*", "**") for a in arguments):
            raise messages.ANY_ARGUMENTS.at(self.file, self.f.start)
        by_name = {a.keyword: a for a in arguments if a.keyword}
        by_place = [a for a in arguments if not a.keyword]
        for i, p in enumerate(plain):
            a = by_name.get(p.name) or (by_place[i] if i < len(by_place) else None)
            span = (a.value_start, a.end) if a is not None else p.default
            if span is None:
                raise messages.NOTHING_GIVES_PARAMETER.at(self.file, self.f.start, parameter=p.name)
            if a is None and self.language.purity(self.file, span) == "effect":
                raise messages.DEFAULT_OF_FUNCTION.at(self.file, p.start, parameter=p.name)
            found.append(self.opened_.sets(p.name, self.file.slice(*span)))
        return found

    # -- how it is left --------------------------------------------------------------------------

    def ways(self, statement: Statement, call: Call) -> tuple[list[Range], str]:
        """Edits for each ``return``, and what the program does at the end; what the function gives ends the program or
        is dropped."""
        before = self.file.slice(statement.start, call.start)
        after = self.file.slice(call.end, statement.end)
        exits = self.opened_.exits(before, after)
        if exits is None or (exits and self.follows is not None):
            raise messages.RESULT_USED.at(self.file, call.start, function=self.f.name)
        edits: list[Range] = []
        ends = f"{before}{after}" if exits else ""
        for r, loop, tail, around in self.returns(self.body, None, True, []):
            value = self.opened_.value(self.file, r)
            last = r is self.body[-1]
            if exits:
                edits.append((r.start, r.end, f"{before}{value}{after}"))
                ends = "" if last else ends
            elif value and self.language.purity(self.file, self.opened_.span(r)) == "effect":
                raise messages.VALUE_NOBODY_TAKES.at(self.file, r.start)
            elif last:
                edits.append((r.start, r.end, ""))
            elif tail:
                edits.append(self.without(r))
            elif loop is not None:
                edits.append((r.start, r.end, self.opened_.leave(loop)))
            else:
                leave = self.opened_.end(self.file) if self.follows is None else ""
                if not leave:
                    raise messages.ENDS_EARLY.at(self.file, r.start)
                edits.append((r.start, r.end, leave))
            early = not last if exits else not tail and loop is None
            if early and any(self.opened_.notices(self.file, s) for s in around):
                raise messages.ENDS_EARLY_INSIDE.at(self.file, r.start)
        return edits, ends

    def returns(
        self, row: Sequence[Statement], loop: Statement | None, tail: bool, around: list[Statement]
    ) -> Iterator[tuple[Statement, Statement | None, bool, list[Statement]]]:
        """Each return with: the loop around it after which nothing comes, whether nothing comes after itself, the
        statements around it."""
        for i, s in enumerate(row):
            last = tail and i == len(row) - 1
            if s.kind == "return":
                yield s, loop, last, around
            blocks = self.language.regions.blocks(self.file, s) if s.kind not in ("function", "class") else []
            for b in blocks:
                inner = None if b.role == "case" else loop
                if s.kind in ("for", "while"):
                    inner = s if last and len(blocks) == 1 else None
                yield from self.returns(b.statements, inner, last and s.kind in ("if", "match", "with"), [*around, s])

    def without(self, r: Statement) -> Range:
        """A return that changes nothing goes with its line, if it has one and its block holds more."""
        if stands := self.opened_.nothing(self.file, r):
            return r.start, r.end, stands
        left, right = self.write.line_start(self.file, r.start), self.write.line_end(self.file, r.end)
        alone = self.file.text[left:right].strip() == self.file.text[r.start : r.end].strip()
        return (left, right, "") if alone else (r.start, r.end, "")

    # -- the text --------------------------------------------------------------------------------

    def made(self, statement: Statement, given: list[str], ways: list[Range], ends: str) -> Opening:
        file, write, f = self.file, self.write, self.f
        left = write.line_start(file, statement.start)
        lead = file.slice(left, statement.start)
        shared = lead.strip() not in ("", ";")  # the guard stands on the same line
        new = lead[: len(lead) - len(lead.lstrip())] + write.indent_unit(file) * shared
        start, end = self.opened_.inside(file, f, self.body)
        out = Opening(file, function=f)
        moving = self.hoistable()
        dropped = sorted([*self.declared(), *(self.with_blanks(s, start) for s in moving)])
        while any(a <= start < b for a, b, _ in dropped):  # the first lines go
            start = write.blank_after(file, next(b for a, b, _ in dropped if a <= start < b))
        dropped = [d for d in dropped if d[0] >= start]
        old = file.slice(write.line_start(file, self.body[0].start), self.body[0].start)
        above = (
            text_lines(file.slice(write.comment_start(file, f.start), write.line_start(file, f.start)))
            if f.symbol is not None
            else []
        )
        ways = [*ways, *self.shared()]
        lines = [
            new + line + "\n"
            for line in (*(line.strip() for line in above), write.trailing_comment(file, statement.end).strip())
            if line
        ]
        sets, told = (
            [new + line + "\n" for line in given],
            write.line_end(file, self.body[0].end) if self.body[0].kind == "docstring" else 0,
        )
        if told and told < end:
            ways = [*ways, (told, told, "".join(sets))]
        else:
            lines, told = lines + sets, 0
        here = [w for w in ways if not any(a < w[1] and w[0] < b and (a, b) != w[:2] for a, b, _ in dropped)]
        text = write.shifted(file, start + len(old.encode(file.encoding)), end, [*here, *dropped], old, new)
        text = "".join(lines) + text.rstrip() + "\n" + (f"{new}{ends}\n" if ends else "")
        text = write.with_newlines("\n" * shared + text, write.newline(file))
        gone = self.gone()
        first = left + len(lead.rstrip().encode(file.encoding)) if shared else left
        top_statement = next(s for s in file.statements if s.start <= statement.start < s.end)
        place = write.comment_start(file, top_statement.start)
        taken = file.text.count(b"\n", *gone[:2]) if gone is not None else 0
        apart = self.apart(out, moving, ways, old, file.line(place) - taken)
        out.edits = [
            *([gone] if gone is not None else []),
            *([(place, place, write.with_newlines(apart, write.newline(file)))] if apart else []),
            (first, write.line_end(file, statement.end), text),
        ]
        out.at = file.line(statement.start) - taken + apart.count("\n") + shared + len(lines)
        out.body = (file.line(start), file.line(end - 1))
        out.told, out.added = (file.line(told - 1), len(sets)) if told else (0, 0)
        out.columns = len(new) - len(old)
        self.note_gone(out, [*here, *dropped], start, end)
        return out

    def with_blanks(self, s: Statement, start: int) -> Range:
        """A statement goes with the blank lines above it, from ``start`` on."""
        write, file = self.write, self.file
        first = write.blank_before(file, write.comment_start(file, s.start))
        return max(start, first), write.line_end(file, s.end - 1), ""

    def note_gone(self, out: Opening, edits: list[Range], start: int, end: int) -> None:
        """The lines that are not there any more, and the names that are the file's from then on."""
        file, write, f = self.file, self.write, self.f
        whole = [
            (a, b)
            for a, b, text in edits
            if a >= start and not text and a == write.line_start(file, a) and file.text[a:b].endswith(b"\n") and b < end
        ]
        out.gone = sorted({n for a, b in whole for n in range(file.line(a), file.line(b - 1) + 1)})
        shared_names = {d.name for d in file.declarations if d.scope is f.scope}
        out.names = [n for n, s in f.scope.symbols.items() if s.bindings and n not in shared_names]

    def gone(self) -> Range | None:
        """The function where it stood; None where that is what its lines take the place of."""
        write, file = self.write, self.file
        if self.f.symbol is None:
            return None
        top, bottom = (
            write.blank_before(file, write.comment_start(file, self.f.start)),
            write.line_end(file, self.f.end - 1),
        )
        return top, bottom if file.text[:top].strip() else write.blank_after(file, bottom), ""

    def hoistable(self) -> list[Statement]:
        """What can stand beside the other functions: functions right in its body, plain ones, defined once, and the
        constants that they use."""
        if self.language.declares:
            return []  # they do, once the lines around them are main code
        found: list[Statement] = []
        for s in self.body:
            if self.is_constant(s, found):
                found.append(s)
                continue
            inner = (
                next((g for g in self.file.functions if g.outer is self.f.scope and g.start == s.start), None)
                if s.kind == "function"
                else None
            )
            plain = (
                inner is not None
                and not inner.decorators
                and inner.symbol is not None
                and len(inner.symbol.bindings) == 1
            )
            if (
                plain
                and inner is not None
                and all(not p.default or self.language.purity(self.file, p.default) == "literal" for p in inner.params)
            ):
                found.append(s)
        return found

    def is_constant(self, s: Statement, before: list[Statement]) -> bool:
        """Whether a statement of the body sets a constant in capitals that functions inside use, from literals and from
        constants ``before`` it."""
        target = s.target.symbol if s.kind == "assign" and s.target is not None else None
        if target is None or s.value is None or not target.name.isupper() or len(target.bindings) != 1:
            return False
        known = {x.target.symbol for x in before if x.target is not None}
        plain = self.language.purity(self.file, s.value) == "literal" or (
            self.language.purity(self.file, s.value) != "effect"
            and not self.file.calls_within(*s.value)
            and all(r.symbol in known for r in self.file.within(*s.value))
        )
        return plain and any(r.scope.frame is not self.f.scope for r in target.references)

    def shared(self) -> list[Range]:
        """Where functions inside say that they set its variables, which are the file's now."""
        spans = {d.statement for d in self.inner() if self.outer(d)}
        return [
            (a, a + len("nonlocal"), "global") for a, _ in sorted(spans) if self.file.text[a : a + 8] == b"nonlocal"
        ]

    def apart(self, out: Opening, moving: list[Statement], ways: list[Range], old: str, line: int) -> str:
        """The text of functions that come to stand beside the others, from a line on."""
        file, write, text = self.file, self.write, ""
        moving = sorted(moving, key=lambda s: s.kind != "assign")
        for i, s in enumerate(moving):
            start, end = write.comment_start(file, s.start), write.line_end(file, s.end - 1)
            out.hoisted.append((file.line(start), file.line(end - 1), line + text.count("\n")))
            lead = file.slice(start, start + len(old.encode(file.encoding)))
            mine = [w for w in ways if start <= w[0] and w[1] <= end]
            text += write.shifted(file, start + len(lead.encode(file.encoding)), end, mine, old, "").rstrip()
            together = s.kind == "assign" and any(x.kind == "assign" for x in moving[i + 1 : i + 2])
            text += "\n" if together else "\n" * (1 + write.BLANKS)
        out.inner = -len(old)
        return text

    def declared(self) -> list[Range]:
        """``global a, b`` of the function itself goes with its line."""
        spans = {
            d.statement
            for d in self.file.declarations
            if d.scope is self.f.scope and self.f.start <= d.start < self.f.end
        }
        return [(self.write.line_start(self.file, a), self.write.line_end(self.file, b), "") for a, b in sorted(spans)]
