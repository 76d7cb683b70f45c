"""Pass in at each call what a method used to read of somebody else's changing state.

def move(self, dt):                    def move(self, dt, signal):
    if signal == "go": ...       →         if signal == "go": ...
tram.move(1)                           tram.move(1, signal)
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.effects import Effects, statement_order
from ..analysis.late_reads import goes_stale
from ..analysis.object_classes import ObjectClasses
from ..analysis.startup import running
from ..design.origin import Origin, local_name
from ..design.tables import ClassDesign, MethodDesign, ObjectDesign
from ..program.edits import Edits
from ..program.members import members_named
from ..program.model import Call, Function, Reference, Scope, SourceFile, Symbol
from ..program.program import Program
from ..program.scopes import receiver_of, shadowed
from ..program.surroundings import read_neighbours
from . import messages
from .by_hand import Asked, HandCommand, home_of
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, class_scope, drop_declarations, symbol


@dataclass
class PassIn(ClassStep):
    """A method is passed values at every call."""

    kind = "pass"
    method: MethodDesign

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.method.name}"

    def title(self) -> str:
        names = ", ".join(a["value"] for a in self.method.add)
        return f"{self.design.name}.{self.method.name} is passed {names} at each call"

    def apply(self, context: Context) -> Edits:
        return Passer(context, context.home(self.design), self.design, self.method).edits()


def ask_pass(program: Program, method: str, value: str) -> Asked:
    """``value``: a variable, ``name=value`` where the parameter is called otherwise."""
    class_, dot, member = method.partition(".")
    name, sign, source = value.partition("=")
    if not dot:
        raise messages.NO_MEMBER_NAMED.in_file(name=method)
    path = home_of(program, class_)
    made = class_that_stands(program.files[path], class_)
    made.methods = [
        MethodDesign(member, [Origin(member, file=path)], add=[{"name": name, "value": source if sign else name}])
    ]
    check_calls(program, path, made, member)
    return Asked(PassIn(made, made.methods[0]), homes={class_: path})


def class_that_stands(file: SourceFile, class_: str) -> ClassDesign:
    """A class that stands, with the objects of it that variables at the top hold."""
    symbol = file.scope.symbols.get(class_)
    made = [
        s.target.name
        for s in file.statements
        if s.target is not None
        and s.value is not None
        and any(c.callee.symbol is symbol for c in file.calls_within(*s.value))
    ]
    return ClassDesign(class_, objects=[ObjectDesign(n) for n in dict.fromkeys(made)])


def check_calls(program: Program, path: str, made: ClassDesign, member: str) -> None:
    """Raises Refusal where a member of that name is asked of what may be an object of the class, and is none that it is
    known to have."""
    beside = read_neighbours(program, [member])
    objects = ObjectClasses(program, beside)
    home, own = program.files[path], class_scope(program.files[path], made.name)
    for file in [*program.files.values(), *beside.files.values()]:
        for m in members_named(file, program.language, member):
            base, known = m.base, False
            if base is not None and file is home and not m.field:
                mine = base.name in {o.name for o in made.objects} and not shadowed(base.scope, base.name, file.scope)
                known = mine or (base.scope.within(own) and base.name == receiver_of(base.scope, own))
            held = objects.of(file, base, m.field) if base is not None else None
            if not known and held in (None, (path, made.name)):
                raise messages.WHOSE_CALL.at(file, m.start, member=member)


class PassArguments(ClassRewrite):
    """Methods are passed what is not theirs; it may be an object of another class."""

    by_hand = (
        HandCommand(
            "pass",
            ("CLASS.METHOD", "VALUE"),
            "A method is passed a value at every call.",
            """Pass the variable VALUE to a method at every call, instead of letting it read that from outside.

            NAME=VALUE calls the parameter otherwise. It is refused where the value may change while the method
            runs.""",
            "pass Log.add line log_book.py",
            "Changed",
            ask_pass,
        ),
    )

    def steps(self, building: Building) -> Iterator[Step]:
        c, design = building.class_, building.design
        shared = {o.local for k in design.classes for f in k.fields if f.shared for o in f.origins}
        for m in c.methods:
            m.add = [a for a in m.add if local_name(a["value"]) not in shared]  # a method finds these by itself
            if m.add:
                founded = [f"found:{maker.name}" for a in m.add if (maker := design.maker_of(a["value"])) is not None]
                yield PassIn(c, m, needs=[f"method:{c.name}.{m.name}", *founded])


class Passer:
    """Works out the parameters of a method, and the arguments of its calls."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign, method: MethodDesign) -> None:
        self.context, self.file, self.design, self.method = context, file, design, method
        self.write = context.write
        self.scope = class_scope(file, design.name)
        self.name = self.shown(method)
        found = [s.function for s in self.scope.children if s.kind == "function" and s.name == self.name]
        if not found or found[0] is None:
            raise messages.NO_METHOD_YET.in_file(file.path, class_=design.name, name=self.name)
        self.function: Function = found[0]
        self.effects = Effects(file, context.language)
        self.out = Edits()

    def shown(self, method: MethodDesign) -> str:
        """The name of a method as it is written."""
        return str(self.write.hidden(method.name)) if method.hidden else method.name

    def edits(self) -> Edits:
        if self.function.is_async or self.function.scope.generator:
            raise messages.RUNS_LATER.at(self.file, self.function.start, name=self.name)  # fmt: skip
        calls = self.calls()
        sources = [symbol(self.file, Origin.parse(add["value"])) for add in self.method.add]
        for source, add in zip(sources, self.method.add, strict=True):
            self.check(source, calls)
            self.replace_inside(source, add["name"])
        inside = (self.function.start, self.function.end)
        drop_declarations(self.context.language, self.file, self.out, set(sources), inside)
        self.extend(calls)
        return self.out

    def check(self, source: Symbol, calls: list[Call]) -> None:
        touch = self.effects.touch(self.function.start, self.function.end)
        for ref in self.file.within(self.function.start, self.function.end):
            if ref.symbol is source and ref.writes:
                raise messages.CHANGED_NOT_READ.at(self.file, ref.start, source=source.name)
            if ref.symbol is source and ref.form == "spelled":
                raise messages.SPELLED_OUT.at(self.file, ref.start, name=source.name)
        rebinds = {s for s in touch.writes if any(r.writes for r in s.references if not self.at_top(r))}
        if source in rebinds:
            raise messages.CHANGES_DURING_CALL.at(self.file, self.function.start, source=source.name, name=self.name)
        if (late := goes_stale(self.file, self.context.language, self.function.scope, source)) is not None:
            raise messages.READ_LATE.at(self.file, late.start, source=source.name, name=self.name)  # fmt: skip
        first = min((r.start for r in source.bindings), default=0)
        for statement in statement_order(running(self.file, self.context.language)):
            if statement.start >= first:
                break
            if any(statement.start <= c.start < statement.end for c in calls):
                raise messages.CALLED_BEFORE_SET.at(self.file, statement.start, name=self.name, source=source.name)

    def at_top(self, ref: Reference) -> bool:
        return ref.scope.frame is self.file.scope

    def replace_inside(self, source: Symbol, name: str) -> None:
        for ref in self.file.within(self.function.body_start, self.function.end):
            if ref.symbol is source and ref.name != name:
                if shadowed(ref.scope, name, self.scope):
                    raise messages.MEANS_ELSE.at(self.file, ref.start, name=name)
                self.out.replace(self.file.path, ref.start, ref.end, self.write.use(ref, name))
        if name in self.function.scope.symbols and self.function.scope.symbols[name].scope is self.function.scope:
            raise messages.LOCAL_OF_THAT_NAME.at(self.file, self.function.start, function=self.name, name=name)

    def calls(self) -> list[Call]:
        """Every call of the method. Raises Refusal where it is used in another way."""
        owners = {self.file.scope.symbols.get(o.name) for o in self.design.objects} | self.carriers()
        found = []
        for ref in self.file.references:
            if ref.member != self.name:
                continue
            inside = ref.scope.within(self.scope) and self.is_receiver(ref.symbol)
            if ref.symbol in owners or inside:
                call = next((c for c in self.file.calls if c.callee is ref), None)
                if call is None:
                    raise messages.HANDED_ON.at(self.file, ref.start, name=self.name)  # fmt: skip
                found.append(call)
        return found

    def carriers(self) -> set[Symbol | None]:
        """Parameters with which an object of this class was handed to a method of another."""
        names = {o.name for o in self.design.objects}
        found: set[Symbol | None] = set()
        for c in self.context.design.classes:
            handed = {(self.shown(m), a["name"]) for m in c.methods for a in m.add if a["value"] in names}
            for scope, name in self.file.classes if handed else ():
                for inner in scope.children if name == c.name else ():
                    found |= {
                        s for n, s in inner.symbols.items() if (inner.name, n) in handed and inner.kind == "function"
                    }
        return found

    def is_receiver(self, s: Symbol | None) -> bool:
        at: Scope | None = s.scope if s is not None else None
        return at is not None and at.parent is self.scope and at.receiver == (s.name if s else "")

    def extend(self, calls: list[Call]) -> None:
        names = [a["name"] for a in self.method.add]
        if any(p.kind in ("doublestar",) for p in self.function.params):
            raise messages.FUNCTION_TAKES_ANY_ARGUMENT.at(self.file, self.function.start, function=self.name)
        typed = [(name, self.type_of(add)) for name, add in zip(names, self.method.add, strict=True)]
        (at, _, text), where = self.write.added_parameters(self.file, self.function, typed)
        self.out.insert(self.file.path, at, text)
        for call in calls:
            args = self.context.language.arguments(self.file, call)
            named = where == "by name" or any(a.keyword for a in args)
            more = []
            for add in self.method.add:
                own = call.start >= self.function.start and call.end <= self.function.end
                value = self.itself(call, add["value"]) or (add["name"] if own else add["value"])
                if (
                    not own
                    and value == add["value"]
                    and shadowed(call.callee.scope, add["value"], self.file.scope)
                    and not self.handed(call, add["value"])
                ):
                    raise messages.VALUE_MEANS_ELSE.at(self.file, call.start, name=value)
                more.append(self.write.keyword_argument(add["name"], value) if named else value)
            if where == "first":
                at = args[0].start if args else call.args_start
                self.out.insert(self.file.path, at, ", ".join(more) + (", " if args else ""))
            else:
                at = args[-1].end if args else call.args_start
                self.out.insert(self.file.path, at, (", " if args else "") + ", ".join(more))

    def itself(self, call: Call, value: str) -> str:
        """How a method of the class whose object is handed over names it: that is the object it runs for; ""
        elsewhere."""
        owner = self.context.design.maker_of(value)
        if owner is None or not any(n == owner.name and call.callee.scope.within(s) for s, n in self.file.classes):
            return ""
        if len(owner.objects) > 1:
            raise messages.ONLY_CALLER_KNOWS.at(self.file, call.start, class_=owner.name)
        top = call.callee.scope
        while top.parent is not None and top.parent.kind != "class":
            top = top.parent
        edits, trouble = self.write.inner_receivers(self.file, top, [call.callee])
        if trouble:
            raise messages.CANNOT_BE_PASSED.at(self.file, call.start, why=trouble)
        for start, end, text in edits:
            self.out.replace(self.file.path, start, end, text)
        return str(self.write.receiver_at(self.file, call.callee.scope, top, owner.name))

    def type_of(self, add: dict[str, str]) -> str:
        """The declared type of what is handed over; "" if it has none."""
        owner = self.context.design.maker_of(add["value"])
        return (
            owner.name
            if owner is not None
            else self.context.type_of(self.file, symbol(self.file, Origin.parse(add["value"])))
        )

    def handed(self, call: Call, name: str) -> bool:
        """Whether the caller is a method that was itself handed the same value under this name."""
        for c in self.context.design.classes:
            holder = next((s for s, n in self.file.classes if n == c.name), None)
            scope: Scope | None = call.callee.scope if holder is not None else None
            while scope is not None and scope.parent is not holder:
                scope = scope.parent
            for m in c.methods if scope is not None else ():
                if (
                    scope is not None
                    and scope.name == self.shown(m)
                    and any(a["value"] == name == a["name"] for a in m.add)
                ):
                    return True
        return False
