"""Functions that are handed an object of a class that stands become its methods.

class Tram: ...                      class Tram:
def stop(tram): tram.pace = 0            ...
car = Tram(4)                  →         def stop(self): self.pace = 0
stop(car)                            car = Tram(4)
                                     car.stop()
"""

from __future__ import annotations

from collections.abc import Iterator

from ..design.tables import Design
from ..program.edits import Range
from ..program.language import Language
from ..program.model import Call, Function, Scope, SourceFile, Symbol
from ..program.program import Program
from . import messages, mistakes
from .design_check import DesignCheck
from .parameter_to_receiver import argument_of, calls_alone, loose
from .record_class.objects import Handed
from .record_class.rewrite import BecomesMethod, MakesObjects, with_class_standing
from .rewrite import Rewrite, State
from .step import Context, function_of
from .wrap_value.wrapping import assignments


def standing_scope(file: SourceFile, name: str) -> Scope | None:
    """The scope of a class at the top of a file; None if there is none, or several."""
    found = [s for s, n in file.classes if n == name and s.parent is file.scope]
    symbol = file.scope.symbols.get(name)
    return found[0] if len(found) == 1 and symbol is not None and len(symbol.bindings) == 1 else None


def handed_objects(file: SourceFile, language: Language, class_: str) -> dict[Function, str]:
    """Functions at the top that are handed an object of a class at every call, with the parameter that gets it.

    A variable holds one if all that it is ever given is made by the class; a parameter if every call hands over such a
    variable, such a parameter, or the object of one of its methods.
    """
    own = standing_scope(file, class_)
    if own is None:
        return {}
    symbol = file.scope.symbols[class_]
    calls = {(c.start, c.end) for c in file.calls_of(symbol)}
    given: dict[Symbol, list[tuple[int, int] | None]] = {}
    rows = assignments(file, language)
    for scope in file.scope.walk():
        for s in scope.symbols.values():
            if s.kinds == {"variable"} and s.bindings:
                made = [rows.get(r.start) for r in s.bindings]
                given[s] = [x.value if x is not None else None for x in made]
    variables = {s for s, values in given.items() if all(v in calls for v in values)}
    variables |= {f.scope.symbols[f.params[0].name] for f in file.functions if f.bound and f.outer is own and f.params}
    nodes = {f.scope.symbols[p.name]: (f, p.name) for f in file.tops for p in f.params if plain_parameter(f, p.name)}
    while True:
        objects = variables | nodes.keys()
        kept = {s for s, (f, p) in nodes.items() if all_objects(file, language, f, p, objects, own)}
        if len(kept) == len(nodes):
            break
        nodes = {s: node for s, node in nodes.items() if s in kept}
    found: dict[Function, str] = {}
    for f, p in nodes.values():
        found.setdefault(f, p)
    return found


def plain_parameter(f: Function, name: str) -> bool:
    """Whether a parameter has its value from the call alone, and keeps it."""
    p = next(p for p in f.params if p.name == name)
    plain = p.kind not in ("star", "doublestar") and p.default is None
    return plain and name in f.scope.symbols and len(f.scope.symbols[name].bindings) == 1


def all_objects(file: SourceFile, language: Language, f: Function, name: str, objects: set[Symbol], own: Scope) -> bool:
    """Whether a function is only ever called, and each call hands the parameter one of these variables, or the object
    of a method in ``own``."""
    calls = calls_alone(file, f)
    for call in calls or ():
        argument = argument_of(file, language, f, call, name)
        refs = file.within(argument.value_start, argument.end) if argument is not None else []
        if argument is None:
            return False
        if file.slice(argument.value_start, argument.end) == language.write.RECEIVER:
            if not in_method(file, call, own):
                return False
            continue
        if len(refs) != 1 or refs[0].symbol not in objects:
            return False
        if (refs[0].start, refs[0].end) != (argument.value_start, argument.end):
            return False
    return bool(calls)


def in_method(file: SourceFile, call: Call, own: Scope) -> bool:
    """Whether a call stands right in a method of a class, and in no function inside of that."""
    around = [f for f in file.functions if f.start <= call.start < f.end]
    return bool(around) and max(around, key=lambda f: f.start).outer is own


def names_of_members(file: SourceFile, scope: Scope) -> set[str]:
    """Names that members of a class may have: its own, those of its heirs, and whatever the file sets on an object."""
    name = next(n for s, n in file.classes if s is scope)
    heirs = [s for s, base in file.inheriting if base == name]
    return {n for s in (scope, *heirs) for n in s.symbols} | file.stored_members


class JoinClass(BecomesMethod):
    """A function that is handed an object of a class that stands becomes a method of it."""

    left = "the functions stay as they are"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        scope, name = standing_scope(file, self.design.name), self.method.name
        if scope is None:
            raise messages.NO_CLASS_YET.in_file(file.path, name=self.design.name)
        f = function_of(file, self.method.origins[0])
        (param,) = self.method.drop if len(self.method.drop) == 1 else ("",)
        if (
            param not in [p.name for p in f.params]
            or handed_objects(file, context.language, self.design.name).get(f) != param
        ):
            raise messages.NOT_HANDED_OBJECT.at(file, f.start, function=f.name, class_=self.design.name)
        written = context.write.hidden(name) if self.method.hidden else name
        if written in names_of_members(file, scope):
            raise messages.MEMBER_THERE.at(file, scope.start, class_=self.design.name, name=written)
        self.check_names(context, file, {f.name}, set())
        methods = Handed(file, context.language, self.design.name)
        if why := methods.why_not(f, param):
            raise messages.STAYS_FUNCTION.at(file, f.start, why=why)
        return methods.method_edits(f, param, written, loose(context.program))


class StandingClasses(Rewrite[MakesObjects]):
    """Classes that stand gain methods."""

    def requests(self, state: State) -> Iterator[MakesObjects]:
        for c in [c for c in state.design.classes if c.existing]:
            for m in c.methods:
                yield JoinClass(c, m, [])

    def design_after(self, state: State, step: MakesObjects, after: Program | None) -> Design:
        return with_class_standing(state.design, step.design, True)

    def check(self, check: DesignCheck) -> None:
        for index, c in enumerate(check.design.classes):
            if not c.existing:
                continue
            if not any(standing_scope(f, c.name) is not None for f in check.program.files.values()):
                check.report(check.lines.of("class", index, -1, "name"), mistakes.NO_CLASS_STANDS, name=c.name)
            if c.objects or (c.fields and not any(m.in_place for m in c.methods)):
                check.report(check.lines.of("class", index, -1, "existing"), mistakes.ONLY_METHODS, name=c.name)
