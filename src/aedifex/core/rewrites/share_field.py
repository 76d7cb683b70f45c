"""Keep a variable once for a class instead of once for each object.

fare = 3                         class Till:
class Till:                          fare = 3
    ...                    →         ...
def sell():                      def sell():
    return fare                      return Till.fare
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.startup import running
from ..analysis.variable_kinds import UNFIT, declared_type
from ..design.tables import FieldDesign
from ..program.edits import Edits
from ..program.layout import text_lines
from ..program.model import SourceFile, Statement, Symbol
from ..program.scopes import shadowed
from . import messages
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, class_scope, drop_declarations, symbol

ADVICE = "leave 'shared' out"


@dataclass
class KeepOnce(ClassStep):
    """A variable is kept once for a class."""

    kind = "share"
    member: FieldDesign

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.member.name}"

    def title(self) -> str:
        return f"{self.member.origins[0]} is kept once for the class {self.design.name}"

    def apply(self, context: Context) -> Edits:
        file, out, write = context.home(self.design), Edits(), context.write
        s, scope = symbol(file, self.member.origins[0], "variable"), class_scope(file, self.design.name)
        if context.language.joined:
            raise messages.SKETCH_SHARES_NOTHING.in_file(file.path)
        first = self.first(context, file, s)
        assert first.value is not None
        name = write.hidden(self.member.name) if self.member.hidden else self.member.name
        for r in s.references:
            if not first.start <= r.start < first.end:
                if shadowed(r.scope, self.design.name, file.scope):
                    raise messages.MEANS_ELSE_CLASS.at(file, r.start, name=self.design.name)
                out.replace(file.path, r.start, r.end, write.use(r, write.member(self.design.name, name)))
        drop_declarations(context.language, file, out, {s})
        out.delete(file.path, write.comment_start(file, first.start), write.line_end(file, first.end))
        at = write.line_end(file, scope.start)
        unit = write.indent_unit(file)
        kind = self.member.type or declared_type(file, first)
        lead = write.top_lead(file, unit) + unit
        above = [
            f"{lead}{line.strip()}\n"
            for line in text_lines(
                file.slice(write.comment_start(file, first.start), write.line_start(file, first.start))
            )
        ]
        text = (
            "".join(above)
            + lead
            + write.class_variable(file, name, file.slice(*first.value), kind)
            + write.trailing_comment(file, first.end)
            + "\n"
        )
        gap = "\n" if not any(f.shared for f in self.before()) and file.text[at : at + 1].strip() != b"}" else ""
        out.insert(file.path, at, write.with_newlines(text + gap, write.newline(file)))
        return out

    def before(self) -> list[FieldDesign]:
        """The shared fields that stand already; each is put above them."""
        return self.design.fields[: self.design.fields.index(self.member)]

    def first(self, context: Context, file: SourceFile, s: Symbol) -> Statement:
        """The statement that gives it its first value, which must be the same wherever it stands. Raises Refusal."""
        for r in s.references:
            if r.form in UNFIT or r.role == "delete":
                raise messages.CANNOT_BE_SHARED.at(file, r.start, name=s.name, why=UNFIT.get(r.form, "is deleted"))
        found = next(
            (t for t in running(file, context.language) if t.target is not None and t.target.symbol is s), None
        )
        start = min(r.start for r in s.bindings)
        if (
            found is None
            or found.value is None
            or found.target is None
            or found.target.start != start
            or context.language.purity(file, found.value) != "literal"
        ):
            raise messages.FIRST_VALUE_IN_PLACE.at(file, start, name=s.name)
        left, right = context.write.line_start(file, found.start), context.write.line_end(file, found.end)
        rest = file.slice(found.end, right).replace(context.write.trailing_comment(file, found.end), "")
        if file.slice(left, found.start).strip() or rest.strip() or found.group is not None:
            raise messages.FIRST_VALUE_SHARES_LINE.at(file, found.start, name=s.name)
        unset = next(
            (n for n, x in file.scope.symbols.items() if n in context.language.unset_errors and x.references), ""
        )
        if unset:
            raise messages.UNSET_CAUGHT.at(file, found.start, error=unset, name=s.name)
        effects = context.effects(file)
        for earlier in running(file, context.language):
            if earlier is found:
                return found
            if s in effects.touch(earlier.start, earlier.end).reads:
                break
        raise messages.READ_BEFORE_FIRST_VALUE.at(file, earlier.start, name=s.name)


class ShareField(ClassRewrite):
    """The fields of a class that all its objects share."""

    def steps(self, building: Building) -> Iterator[Step]:
        for f in [f for f in building.whole.fields if f.shared]:
            yield KeepOnce(building.class_, f, needs=building.ids_of(building.class_, "found"))
