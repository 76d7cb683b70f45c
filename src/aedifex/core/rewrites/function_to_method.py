"""Turn a function, or the twins of one, into a method: own state through the object, calls rewritten.

def move(dt):                     class Tram:
    tram._x += dt         →           def move(self, dt):
                                          self._x += dt
move(1)                           tram.move(1)
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.effects import Effects
from ..analysis.hazards import by_text
from ..analysis.late_reads import read_after, rebound
from ..analysis.twins import local_marks
from ..design.tables import ClassDesign, FieldDesign, MethodDesign
from ..program.edits import Edits
from ..program.language import Language
from ..program.model import Argument, Call, Function, Reference, SourceFile, Symbol
from ..program.scopes import receiver_of, shadowed
from ..program.tell import Means, first_tell
from . import messages
from .class_check import check_methods
from .design_check import DesignCheck
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, add_method, check_hazards, class_scope, function_of, outward


@dataclass
class BecomeMethod(ClassStep):
    """A function becomes a method."""

    kind = "method"
    method: MethodDesign

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.method.name}"

    def title(self) -> str:
        names = " and ".join(o.local for o in self.method.origins)
        verb = "become" if len(self.method.origins) > 1 else "becomes"
        return f"{names} {verb} the method {self.design.name}.{self.method.name}"

    def apply(self, context: Context) -> Edits:
        return Mover(context, context.home(self.design), self.design, self.method).edits()


class FunctionToMethod(ClassRewrite):
    """The methods of a class, what one calls before it."""

    def steps(self, building: Building) -> Iterator[Step]:
        whole, design = building.plain, building.design
        file = building.program.holders.get(whole.source or design.entries[0])
        order = callees_first(whole, file, building.program.language) if file is not None else range(len(whole.methods))
        for i in order:
            yield BecomeMethod(whole, whole.methods[i], needs=building.ids_of(building.class_, "found"))

    def check(self, check: DesignCheck) -> None:
        check_methods(check)


def callees_first(c: ClassDesign, file: SourceFile, language: Language) -> list[int]:
    """Indexes of the methods so that what a method calls comes before it, as far as there is no circle."""
    effects = Effects(file, language)
    symbols = [{file.scope.symbols.get(o.local) for o in m.origins} for m in c.methods]
    found: list[int] = []

    def visit(i: int, path: tuple[int, ...]) -> None:
        if i in found or i in path:
            return
        for s in symbols[i]:
            unit = effects.units.get(s) if s is not None else None
            if unit is None:
                continue
            used = {r.symbol for r in file.within(unit.start, unit.end)}
            for j, others in enumerate(symbols):
                if j != i and others & used:
                    visit(j, (*path, i))
        found.append(i)

    for i in range(len(symbols)):
        visit(i, ())
    return found


class Mover:
    """Works out the edits for one method: its text, its calls, its parameters."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign, method: MethodDesign) -> None:
        self.context, self.file, self.design, self.method = context, file, design, method
        self.write = context.write
        self.scope = class_scope(file, design.name)
        self.functions = [function_of(file, o) for o in method.origins]
        self.twins = len(self.functions) > 1
        self.name = self.write.hidden(method.name) if method.hidden else method.name
        self.fields: dict[str, FieldDesign] = {
            (self.write.hidden(f.name) if f.hidden else f.name): f for f in design.fields
        }
        self.objects = [o.name for o in design.objects]
        self.out = Edits()

    def edits(self) -> Edits:
        if self.twins and len(self.functions) != len(self.objects):
            raise messages.FUNCTIONS_FOR_OBJECTS.in_file(
                self.file.path, functions=len(self.functions), objects=len(self.objects)
            )
        check_hazards(self.context, self.file, {f.name for f in self.functions}, "it stays a function")
        for f in self.functions:
            self.check(f)
        if self.twins:
            self.check_alike()
        for index, f in enumerate(self.functions):
            self.rewrite_uses(f, index)
        base = self.functions[0]
        inner = self.inner_edits(base)
        text = self.method_text(base, inner)
        add_method(self.context, self.file, self.scope, text, self.out)
        for f in self.functions:
            start = self.write.blank_before(self.file, self.write.comment_start(self.file, f.start))
            self.out.delete(self.file.path, start, self.write.line_end(self.file, f.end))
        return self.out

    # -- what must hold --------------------------------------------------------------------------

    def check(self, f: Function) -> None:
        language = self.context.language
        at = f.start
        if (around := self.file.around(f)) is not None:
            raise messages.MADE_IN_BLOCK.at(self.file, at, function=f.name, line=self.file.shown(around.start))
        if self.write.RECEIVER in f.scope.symbols:
            raise messages.USES_RECEIVER_NAME.at(self.file, at, function=f.name, receiver=self.write.RECEIVER)
        if (
            self.file.line(f.head) == self.file.line(f.start)
            and self.file.text[self.write.line_start(self.file, f.start) : f.start].strip()
        ):
            raise messages.NOT_FIRST_ON_LINE.at(self.file, at, function=f.name)
        rest = self.file.text[f.end : self.write.line_end(self.file, f.end - 1)].strip()
        if rest and not self.write.trailing_comment(self.file, f.end):
            raise messages.SHARES_LAST_LINE.at(self.file, at, function=f.name)
        for ref in by_text(self.file, language, f.start, f.end):
            raise messages.REACHES_BY_TEXT.at(self.file, ref.start, call=ref.name)
        if trouble := self.write.class_trouble(self.file, f.start, f.end):
            raise messages.STAYS_FUNCTION.at(self.file, at, why=trouble)
        if why := self.context.language.hooks(self.file).get(f.name):
            raise messages.STAYS_FUNCTION.at(self.file, at, why=why)
        looks = first_tell(language.tells(self.file), Means.STACK)
        if looks is not None and self.name != f.name:
            raise messages.LOOKED_AT.at(self.file, looks.start, why=looks.message, function=f.name)
        self.check_defaults(f)
        self.check_uses(f)

    def check_defaults(self, f: Function) -> None:
        """Defaults are evaluated where the definition stands, which is going to be the class."""
        for p in f.params:
            if p.default is None or self.context.language.purity(self.file, p.default) == "literal":
                continue
            for ref in self.file.within(*p.default):
                s = ref.symbol
                set_late = (
                    s is not None
                    and s.scope is self.file.scope
                    and s.kinds
                    and any(r.start > self.scope.start for r in s.bindings)
                )
                if set_late or self.context.language.purity(self.file, p.default) == "effect":
                    raise messages.DEFAULT_IN_PLACE.at(self.file, p.start, parameter=p.name, function=f.name)

    def check_uses(self, f: Function) -> None:
        assert f.symbol is not None
        changes = bool(self.method.drop or self.method.add)
        for ref in f.symbol.references:
            if ref.writes:
                continue
            if ref.form == "spelled":
                raise messages.SPELLED_OUT.at(self.file, ref.start, name=f.name)
            if ref.role != "call" and changes:
                raise messages.PASSED_AS_VALUE.at(self.file, ref.start, function=f.name)  # fmt: skip
            if ref.role == "call" and self.method.drop and not self.call_at(ref):
                raise messages.CALL_UNREADABLE.at(self.file, ref.start, function=f.name)

    def check_alike(self) -> None:
        """Twins must be the same text, up to the object and the twins' own names."""
        shapes = [self.shape(f, i) for i, f in enumerate(self.functions)]
        for f, shape in zip(self.functions[1:], shapes[1:], strict=True):
            if shape != shapes[0]:
                raise messages.TWINS_DIFFER.at(self.file, f.start, function=f.name, other=self.functions[0].name)

    def shape(self, f: Function, index: int) -> list[str]:
        own = self.object_symbol(index)
        mine = {f.symbol}
        edits = [
            (r.start, r.end, "\1" if r.symbol is own else "\2")
            for r in self.file.within(f.params_start, f.end)
            if r.symbol is own or r.symbol in mine
        ]
        edits += local_marks(self.file, f)
        edits += [(*f.docstring, "\5")] if f.docstring else []  # what documents one of them may differ
        return self.context.language.tokens(self.file, f.params_start, f.end, edits)

    def object_symbol(self, index: int) -> Symbol | None:
        return self.file.scope.symbols.get(self.objects[index]) if index < len(self.objects) else None

    # -- uses ------------------------------------------------------------------------------------

    def call_at(self, ref: Reference) -> Call | None:
        return next((c for c in self.file.calls if c.callee is ref), None)

    def rewrite_uses(self, f: Function, index: int) -> None:
        assert f.symbol is not None
        for ref in f.symbol.references:
            if ref.writes or (f.start <= ref.start < f.end and index > 0):
                continue
            call = self.call_at(ref) if ref.role == "call" else None
            owner = self.owner_text(f, index, ref, call)
            self.out.replace(self.file.path, ref.start, ref.end, self.use_text(f, ref, owner))
            if call is not None and self.method.drop:
                self.drop_arguments(f, call)

    def use_text(self, f: Function, ref: Reference, owner: str) -> str:
        """How a use of the function is written once it is a method of ``owner``."""
        if ref.role == "call":
            return str(self.write.member(owner, self.name))
        return str(self.write.use(ref, self.write.method_as_value(self.write.member(owner, self.name), owner)))

    def owner_text(self, f: Function, index: int, ref: Reference, call: Call | None) -> str:
        """Which object a use means: the receiver in the class's own methods, else the object by its name."""
        if f.start <= ref.start < f.end:
            return str(self.write.RECEIVER)
        if len(self.objects) == 1 or self.twins:
            name = self.objects[0 if len(self.objects) == 1 else index]
            if ref.scope.within(self.scope) and (receiver := receiver_of(ref.scope, self.scope)):
                if self.twins:
                    raise messages.CALLED_BY_OTHERS_METHOD.at(self.file, ref.start, function=f.name)  # fmt: skip
                return receiver
        else:
            name = self.object_of_call(f, ref, call)
        if shadowed(ref.scope, name, self.file.scope):
            raise messages.OBJECT_MEANS_ELSE.at(self.file, ref.start, name=name)
        return name

    def object_of_call(self, f: Function, ref: Reference, call: Call | None) -> str:
        """The object whose fields are handed to the dropped parameters: all of the same object."""
        if call is None or not self.method.drop:
            raise messages.WHICH_OBJECT.at(self.file, ref.start, function=f.name)
        owners = set()
        for name in self.method.drop:
            arg = self.argument_for(f, call, name)
            text = self.file.slice(arg.value_start, arg.end) if arg else ""
            owner, _, member = text.partition(".")
            if (owner not in self.objects and owner != self.write.RECEIVER) or member not in self.fields:
                raise messages.NO_SUCH_OBJECT_VALUE.at(
                    self.file, call.start, name=name, text=text, class_=self.design.name
                )
            owners.add(owner)
        if len(owners) != 1:
            raise messages.DIFFERENT_OBJECTS.at(self.file, call.start)
        return owners.pop()

    def argument_for(self, f: Function, call: Call, name: str) -> Argument | None:
        args = self.context.language.arguments(self.file, call)
        if any(a.keyword in ("*", "**") for a in args):
            raise messages.CALL_SPREADS.at(self.file, call.start, function=f.name)
        named = next((a for a in args if a.keyword == name), None)
        positions = [p.name for p in f.params]
        if name not in positions:
            raise messages.NO_PARAMETER.at(self.file, f.start, function=f.name, name=name)
        place = positions.index(name)
        positional = [a for a in args if not a.keyword]
        return named or (positional[place] if place < len(positional) else None)

    def drop_arguments(self, f: Function, call: Call) -> None:
        args = self.context.language.arguments(self.file, call)
        going = [self.argument_for(f, call, name) for name in self.method.drop]
        if any(g is None for g in going):
            raise messages.CALL_OMITS.at(self.file, call.start, function=f.name)
        self.same_field(f, call)
        if all(a in going for a in args):
            self.out.delete(self.file.path, call.args_start, call.args_end)
            return
        for i, a in enumerate(args):
            if a in going:
                kept_before = any(b not in going for b in args[:i])
                start = args[i - 1].end if kept_before else a.start
                end = a.end if kept_before or i + 1 == len(args) else args[i + 1].start
                self.out.delete(self.file.path, start, end)

    def same_field(self, f: Function, call: Call) -> None:
        """Every call must hand a dropped parameter the same field."""
        for name in self.method.drop:
            arg = self.argument_for(f, call, name)
            text = self.file.slice(arg.value_start, arg.end) if arg else ""
            member = text.partition(".")[2]
            if member not in self.fields or member != self.field_for(f, name):
                raise messages.FIELD_VARIES.at(self.file, call.start, name=name)

    def field_for(self, f: Function, parameter: str) -> str:
        """The field that the first call hands to a parameter."""
        for ref in (
            sorted((r for r in f.symbol.references if r.role == "call"), key=lambda r: r.start) if f.symbol else []
        ):
            call = self.call_at(ref)
            arg = self.argument_for(f, call, parameter) if call is not None else None
            if arg is not None:
                return self.file.slice(arg.value_start, arg.end).partition(".")[2]
        raise messages.NOBODY_PASSES.at(self.file, f.start, parameter=parameter, function=f.name)

    # -- the method ------------------------------------------------------------------------------

    def inner_edits(self, f: Function) -> list[tuple[int, int, str]]:
        """Edits inside the function itself: its own object is the receiver, dropped parameters are fields."""
        edits = self.write.method_header(self.file, f, self.name, set(self.method.drop), self.method.hidden)
        inner: list[Reference] = []
        own = self.object_symbol(0) if self.twins or len(self.objects) == 1 else None
        for ref in self.file.within(f.body_start, f.end):
            receiver = self.write.receiver_at(self.file, ref.scope, f.scope, self.design.name)
            if ref.symbol is own and own is not None:
                edits.append((ref.start, ref.end, receiver))
            elif ref.symbol is f.symbol:
                edits.append((ref.start, ref.end, self.use_text(f, ref, receiver)))
            else:
                continue
            inner.append(ref)
        more, trouble = self.write.inner_receivers(self.file, f.scope, inner)
        if trouble:
            raise messages.STAYS_FUNCTION.at(self.file, f.start, why=trouble)
        edits += more + outward(self.context, self.file, self.design, (f.body_start, f.end), inner, f.start)
        for name in self.method.drop:
            if name not in f.scope.symbols:
                raise messages.NO_PARAMETER.at(self.file, f.start, function=f.name, name=name)
            s = f.scope.symbols[name]
            if any(r.writes and r.form != "parameter" for r in s.references):
                raise messages.PARAMETER_CHANGED.at(self.file, f.start, function=f.name, name=name)
            known = self.field_for(f, name)
            late = read_after(self.file, self.context.language, f.scope, s)
            if late is not None and self.changes(known):
                raise messages.PARAMETER_READ_LATE.at(self.file, late.start, name=name, function=f.name, known=known)
            for r in s.references:
                text = self.write.member(self.write.receiver_at(self.file, r.scope, f.scope, self.design.name), known)
                if r.form == "spelled":
                    raise messages.PARAMETER_SPELLED_OUT.at(self.file, r.start, name=name)
                if r.form != "parameter":
                    edits.append((r.start, r.end, self.write.use(r, text)))
        return edits

    def changes(self, member: str) -> bool:
        """Whether a field may hold something else once it was set: one of the variables that it replaces did."""
        kept = self.fields.get(member)
        original = self.context.original
        if kept is None or original is None:
            return True
        found = [(f, f.scope.symbols.get(o.local)) for o in kept.origins if o for f in original.files.values()]
        known = [(f, s) for f, s in found if s is not None and s.kinds]
        return not known or any(rebound(f, self.context.language, s) for f, s in known)

    def method_text(self, f: Function, inner: list[tuple[int, int, str]]) -> str:
        unit = self.write.indent_unit(self.file)
        start = self.write.comment_start(self.file, f.start)
        outside = self.out.ranges.get(self.file.path, [])
        mine = [e for e in outside if f.start <= e[0] and e[1] <= f.end]
        self.out.ranges[self.file.path] = [e for e in outside if not (f.start <= e[0] and e[1] <= f.end)]
        for other in self.functions[1:]:
            self.out.ranges[self.file.path] = [
                e for e in self.out.ranges[self.file.path] if not (other.start <= e[0] and e[1] <= other.end)
            ]
        replaced = {(a, b) for a, b, _ in inner}
        inner += [e for e in mine if (e[0], e[1]) not in replaced]
        end = self.write.line_end(self.file, f.end)
        loose = None if self.write.reads_documents(list(self.context.program.files.values())) else f.docstring
        text = self.write.indented(self.file, start, end, inner, unit, loose)
        return text if text.endswith("\n") else text + "\n"
