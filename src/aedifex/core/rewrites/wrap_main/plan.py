"""What of the main code can move into ``run``, and what forbids it."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...analysis.construction import inert
from ...analysis.effects import Effects
from ...analysis.hazards import by_text
from ...analysis.variable_kinds import constants_of, only_imports
from ...program.language import Language
from ...program.model import Reference, SourceFile, Statement, Symbol
from ...program.tell import Means, first_tell


@dataclass
class MainPlan:
    """``moving``: statements at the top, in order; ``inside``: those of the guard that starts the program."""

    moving: list[Statement] = field(default_factory=list)
    guard: Statement | None = None
    inside: list[Statement] = field(default_factory=list)
    refusal: tuple[str, int] | None = None  # (why, where)
    keep_alive: bool = False  # the app must outlive ``run``, as what it holds did

    def stretches(self, file: SourceFile) -> list[list[Statement]]:
        """Runs of moving statements with nothing that stays between them."""
        moving = {id(s) for s in self.moving}
        found: list[list[Statement]] = []
        open_ = False
        for s in file.statements:
            if id(s) in moving:
                if not open_:
                    found.append([])
                found[-1].append(s)
            open_ = id(s) in moving
        return found

    @property
    def statements(self) -> list[Statement]:
        return self.moving + self.inside

    def binds(self, file: SourceFile) -> set[Symbol]:
        """The names of the file that the moving lines bind: they would become locals."""
        found = {
            r.symbol
            for s in self.statements
            for r in file.within(s.start, s.end)
            if r.writes and r.scope.frame is file.scope
        }
        return {s for s in found if s is not None and s.scope is file.scope}


def plan_main(
    file: SourceFile,
    effects: Effects,
    language: Language,
    app: str = "",
    leaving: set[Symbol] | None = None,
    founded: set[Symbol] | None = None,
) -> MainPlan:
    """What moves. ``app``: the variable that holds the app, if it is made already. Before that, ``leaving`` are
    the functions that will be its methods and ``founded`` the variables that will be fields of some class."""
    plan = MainPlan()
    constants = constants_of(file, language)
    leaving = leaving or set()
    looks = first_tell(language.tells(file), Means.STACK)
    for s in file.statements:
        if s.kind in ("function", "class", "docstring", "pass", "import"):
            continue
        if s.kind == "guard":
            plan.guard, plan.inside = s, language.inner(file, s)
            continue
        if s.kind == "assign" and s.target is not None and s.target.symbol in constants:
            continue
        if only_imports(file, language, s) or s.kind == "annotate":
            continue
        if s.kind == "assign" and s.target is not None and s.target.name in language.introspective | language.reserved:
            continue
        plan.moving.append(s)
    plan.refusal = (
        (
            (f"{looks.message}, so that the main code stays where it is", looks.start)
            if looks is not None and language.code_at_top
            else None
        )
        or guard_trouble(file, language, plan)
        or order_trouble(file, effects, language, plan, constants)
        or name_trouble(file, language, plan, app, leaving, founded or set())
    )
    plan.keep_alive = must_outlive(file, language)
    return plan


def guard_trouble(file: SourceFile, language: Language, plan: MainPlan) -> tuple[str, int] | None:
    if plan.guard is None and not language.code_at_top and plan.moving:
        return "nothing in this file starts a program", plan.moving[0].start
    if plan.guard is None or not language.code_at_top:
        return None
    after = [s for s in plan.moving if s.start > plan.guard.start]
    if after:
        return "code stands after the guard that starts the program", after[0].start
    if language.has_alternative(plan.guard):
        return "the guard that starts the program has an 'else'", plan.guard.start
    return None


def order_trouble(
    file: SourceFile, effects: Effects, language: Language, plan: MainPlan, constants: set[Symbol]
) -> tuple[str, int] | None:
    """Whatever stays behind now runs before all the main code: it must not notice."""
    if not plan.moving:
        return None
    first = plan.moving[0].start
    moved = {id(s) for s in plan.moving}
    bound = {r.symbol for s in plan.moving for r in file.within(s.start, s.end) if r.writes}
    for s in file.statements:
        if s.start < first or id(s) in moved or s is plan.guard:
            continue
        if s.kind == "import" or only_imports(file, language, s):
            strange = (
                [m for _, m, _ in language.imported(file, s) if not language.write.quiet_module(m)]
                if s.kind == "import"
                else []
            )
            if strange:
                return f"'{strange[0]}' is imported in the middle of the main code", s.start
        elif s.kind == "function":
            f = file.function_ending(s.end)
            if f is None or f.decorators:
                return "a decorated function stands in the middle of the main code", s.start
            for p in f.params:
                if p.default and (
                    language.purity(file, p.default) == "effect"
                    or any(r.symbol in bound for r in file.within(*p.default))
                ):
                    return f"the default of '{p.name}' is worked out in the middle of the main code", p.start
        elif s.kind == "class":
            heads = [
                r for r in file.within(s.start, s.end) if r.scope.frame is file.scope or r.scope.parent is file.scope
            ]
            if any(r.symbol in bound for r in heads if r.scope.kind in ("class", "module")) or calls_in_class(file, s):
                return "a class in the middle of the main code is made from what the code before it sets", s.start
        elif not inert(file, effects, language, s, constants):
            return "code that stays stands in the middle of the main code", s.start
    return None


def calls_in_class(file: SourceFile, statement: Statement) -> bool:
    """Whether the class statement itself (not its methods) calls anything."""
    calls = [c for c in file.calls if statement.start <= c.start < statement.end]
    return any(c.callee.scope.kind in ("class", "module") for c in calls)


def name_trouble(
    file: SourceFile, language: Language, plan: MainPlan, app: str, leaving: set[Symbol], founded: set[Symbol]
) -> tuple[str, int] | None:
    """Names that become locals must not be needed outside, nor mean something else before they are set."""
    spans = [(s.start, s.end) for s in plan.statements]

    def inside(ref: Reference) -> bool:
        return any(a <= ref.start < b for a, b in spans)

    if not language.code_at_top and (made := made_of_locals(file, plan, app, founded)) is not None:
        return made
    for start, end in spans:
        if trouble := language.write.class_trouble(file, start, end, main=True):
            return trouble, start
        for ref in by_text(file, language, start, end):
            return f"'{ref.name}()' reaches names by their text", ref.start
        for ref in file.within(start, end):
            symbol = ref.symbol
            if symbol is None:
                continue
            if symbol.name == app and symbol.scope is file.scope:
                outside = [r for r in symbol.references if not inside(r)]
                if outside:
                    return f"line {file.shown(outside[0].start)} still needs the app from outside", outside[0].start
            if symbol.scope is not file.scope or not ref.writes or symbol.name == app or symbol in founded:
                continue
            if symbol.name in language.builtins and not language.declares:
                return (
                    f"'{symbol.name}' also is a builtin, and could not be read before it is set if it were a local",
                    ref.start,
                )
            if symbol.kinds != {"variable"} and not all(inside(r) for r in symbol.references):
                return f"'{symbol.name}' is defined here and used outside the main code", ref.start
            outside = [r for r in symbol.references if not inside(r) and not in_leaving(file, r, leaving)]
            if outside:
                where = file.shown(outside[0].start)
                return (
                    f"'{symbol.name}' is set here and used in line {where}, outside the main code: it would have to "
                    "be a field of a class",
                    ref.start,
                )
        for d in file.declarations:
            if start <= d.start < end and (
                d.scope.frame is file.scope
                or (d.symbol is not None and d.symbol.scope is file.scope and d.symbol not in founded)
            ):
                return "a 'global' statement stands in the main code", d.start
        for scope, _ in file.classes:
            if start <= scope.start < end:
                return "a class is defined inside the main code", scope.start
        if any(start <= at < end for at in file.star_imports):
            return "a star import stands inside the main code", start
    return None


def made_of_locals(file: SourceFile, plan: MainPlan, app: str, founded: set[Symbol]) -> tuple[str, int] | None:
    """Fields, and the app, are made before ``run``: their first values cannot read what would be a local of it."""
    made = [
        s
        for s in plan.moving
        if s.target is not None and s.value is not None and (s.target.symbol in founded or s.target.name == app)
    ]
    locals_ = {s.target.symbol for s in plan.moving if s.target is not None and s not in made}
    for s in made:
        for ref in file.within(*s.value):  # type: ignore[misc]
            if ref.symbol in locals_:
                return (
                    f"'{ref.name}' is needed before the main code runs: it would have to be a field of a class",
                    ref.start,
                )
    return None


def in_leaving(file: SourceFile, ref: Reference, leaving: set[Symbol]) -> bool:
    holder = file.function_at(ref.start)
    return holder is not None and holder.symbol in leaving


def must_outlive(file: SourceFile, language: Language) -> bool:
    """Whether the program makes something that dies with its last holder, and can tell when it does."""
    mortal = language.held | mortal_classes(file, language)
    return any((c.callee.member or c.callee.name) in mortal for c in file.calls)


def mortal_classes(file: SourceFile, language: Language) -> set[str]:
    """Classes of the file whose objects do something when they die."""
    return {name for scope, name in file.classes if language.write.DESTRUCTOR in scope.symbols}
