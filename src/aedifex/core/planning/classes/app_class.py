"""The app class: what is left of state and behaviour, around the main code."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property

from ...analysis.concerns import Concerns
from ...analysis.handlers import main_statements
from ...analysis.messages import NAMING
from ...analysis.same_arguments import same_arguments
from ...analysis.set_up import set_up_of
from ...design.origin import local_name
from ...design.tables import ClassDesign, StayDesign
from ...naming.identifiers import free, like
from ...program.model import Function, Reference, Statement, Symbol
from ...rewrites.wrap_main.plan import MainPlan, mortal_classes, plan_main
from ..extraction.pieces import turn_locals
from .app_names import app_name
from .candidates import Fit
from .class_builder import ClassBuilder
from .file_plan import FilePlan, with_class
from .names import module_stem, object_names

MAX_ENTRY_STATEMENTS = 2  # main code of so few statements is an entry already
MAX_ENTRY_LINES = 5  # lines of main code that only start what classes do
MAX_STRAIGHT_LINES = 12  # the same where nothing goes round


def with_app(plan: FilePlan) -> FilePlan:
    """With an app class, or with the reason why there is none."""
    return AppMaker(plan).made()


class AppMaker:
    """Makes the class of what is left: the main code, and the state and functions that it shares."""

    def __init__(self, plan: FilePlan) -> None:
        self.plan, self.facts = plan, plan.facts
        self.file, self.language, self.effects = plan.facts.file, plan.facts.language, plan.facts.effects

    def made(self) -> FilePlan:
        """The plan with an app, or with a stay that says why there is none."""
        methods, why = self.methods
        if methods is None:
            return self.plan.staying(StayDesign("main", f"the main code stays where it is: {why}"))
        fields = self.fields(methods)
        statements = [s for s in self.main.statements if s.kind != "docstring"]
        own = [s for s in fields if s not in self.passing_on]
        if not statements or (self.facts.idea != "app" and not own and len(statements) <= MAX_ENTRY_STATEMENTS):
            return self.plan
        if self.facts.idea != "app" and (why := self.not_worth(methods, own, statements)):
            return self.plan.staying(StayDesign("main", why))
        if why := self.why_not_wrapped(methods, fields):
            return self.plan.staying(StayDesign("main", f"the main code stays where it is: {why}"))
        return with_class(self.plan, self.design(methods, fields), set(fields), methods)

    @cached_property
    def main(self) -> MainPlan:
        return plan_main(self.file, self.effects, self.language)

    def not_worth(self, methods: list[Function], fields: list[Symbol], statements: list[Statement]) -> str:
        """Why a class around the main code would say nothing; "" if it would."""
        if fields or methods or self.plan.classes:
            return ""
        if not self.file.functions:
            return "a class around main code that has no functions would only add lines"
        lines = sum(self.file.line(s.end - 1) - self.file.line(s.start) + 1 for s in statements)
        goes_round = any(s.kind in ("for", "while") for s in statements)
        if self.file.classes and lines <= (MAX_ENTRY_LINES if goes_round else MAX_STRAIGHT_LINES):
            return "the main code only starts what stands in a class already"
        return ""

    def why_not_wrapped(self, methods: list[Function], fields: list[Symbol]) -> str:
        """Why the main code cannot be wrapped; "" if it can."""
        mine = {f.symbol for f in methods if f.symbol is not None}
        founded, own = {*fields, *self.plan.variables}, mine | set(fields)
        plan = plan_main(self.file, self.effects, self.language, "", mine | self.plan.functions, founded)
        if plan.refusal:
            return f"line {self.file.shown(plan.refusal[1])}: {plan.refusal[0]}"
        blocked = self.facts.blocked
        for bound in sorted(plan.binds(self.file) - founded - own, key=lambda s: s.name):
            if bound.name in blocked and blocked[bound.name].kind in NAMING:
                return blocked[bound.name].told(self.file.path)
        for s in plan.statements:
            uses = [r for r in self.file.within(s.start, s.end) if r.symbol in own and not r.writes]
            if trouble := self.facts.write.inner_receivers(self.file, self.file.scope, uses)[1]:
                return str(trouble)
        return "" if plan.statements else "there is no main code"

    def design(self, methods: list[Function], fields: list[Symbol]) -> ClassDesign:
        """The class, with its reasons."""
        facts, write = self.facts, self.facts.write
        stem = module_stem(facts)
        asked = next((w.app for w in reversed(facts.task.wishes) if w.app), "")
        base = asked or app_name(facts, [c.name for c in self.plan.classes])
        name = free(base if write.is_name(base) else "App", facts.names | {c.name for c in self.plan.classes})
        objects = object_names(facts, ["app"], self.plan.object_names)
        if fields or methods:
            members = ClassBuilder(facts, [list(fields)])
            made = members.build(name, "app", self.fits(members, fields, methods), objects, set())
        else:
            made = ClassDesign(name, "app", objects=objects)
        for m in made.methods:
            if m.name == "run":
                m.name = write.member_name(["run", *write.words(stem)], like(self.file))
        self.own_objects(made, methods)
        self.reasons(made, methods, fields)
        if self.prepared and not self.language.joined:
            made.set_up = True
            made.why.append("the constructor does what comes before the loop")
        return made

    def fits(self, members: ClassBuilder, fields: list[Symbol], methods: list[Function]) -> list[Fit]:
        """The methods, without the parameters by which they are handed fields at every call: also functions that are
        handed the object around a value."""

        def fit(f: Function, handed: set[int]) -> Fit:
            drop = members.known_parameters(f) if handed and f in self.facts.functions else {}
            return Fit([f], drop if handed & set(drop.values()) else {})

        traveling = {i for i, s in enumerate(fields) if s in self.traveling}
        wrapped = {i for i, s in enumerate(fields) if s.name in self.facts.seen.wrapped}
        taken = {f.symbol for f in methods} | self.plan.functions
        others = [f for f in self.facts.functions if f.symbol not in taken and f.outer is self.file.scope]
        return [*(fit(f, traveling) for f in methods), *(x for f in others if (x := fit(f, wrapped)).drop)]

    @cached_property
    def traveling(self) -> set[Symbol]:
        """Variables that a method of the app is handed at every call, two or more of them together; not what is made
        anew on every turn."""
        if self.facts.idea != "use":
            return set()
        free_ = set(self.facts.variables) - self.plan.variables - turn_locals(self.file, self.language)
        found: set[Symbol] = set()
        for f in self.methods[0] or ():
            if f in self.facts.functions and f.symbol is not None and len(self.file.calls_of(f.symbol)) > 1:
                given = sorted(set(same_arguments(self.file, self.language, f).values()) & free_, key=lambda s: s.name)
                drop = ClassBuilder(self.facts, [[*given]]).known_parameters(f) if len(given) > 1 else {}
                found |= {given[i] for i in drop.values()} if len(drop) > 1 else set()
        return found

    @cached_property
    def passing_on(self) -> set[Symbol]:
        """What the constructor prepares for the loop."""
        return self.crossing(self.prepared) if self.prepared else set()

    @cached_property
    def prepared(self) -> list[Statement]:
        """What the main code does before its loop that the constructor can do: more than first values."""
        if self.facts.idea != "use" or not self.language.code_at_top:
            return []
        file, main = self.file, main_statements(self.file, self.effects, self.language)
        found = set_up_of(file, self.language, Concerns(file, self.language, self.effects), main)
        while found and (lost := self.crossing(found) - set(self.facts.variables) - set(self.plan.variables)):
            first = min(r.start for s in lost for r in s.bindings if any(x.start <= r.start < x.end for x in found))
            found = [s for s in found if s.end <= first]
        effects = [s for s in found if s.value is None or self.language.purity(file, s.value) == "effect"]
        return found if effects else []

    def crossing(self, found: list[Statement]) -> set[Symbol]:
        """The variables that statements set, and main code after them uses, or sets again."""
        end = found[-1].end
        set_ = {r.symbol for s in found for r in self.file.within(s.start, s.end) if r.writes and r.symbol is not None}
        later = [s for s in self.main.statements if s.start >= end]
        used = {r.symbol for s in later for r in self.file.within(s.start, s.end)}
        return {s for s in set_ & used if s.scope is self.file.scope and s not in self.facts.constants}

    def own_objects(self, made: ClassDesign, methods: list[Function]) -> None:
        """Objects of other classes that the app's methods use are its own."""
        used = {s for f in methods for s in self.effects.direct(f.start, f.end).names}
        called = {s for f in methods for s in self.effects.direct(f.start, f.end).uses}
        by_name = {s.name: s for s in self.file.scope.symbols.values()}
        handed = self.handed_on(called)
        collected = {name for w in self.facts.task.wishes for name in w.collect}
        for c in self.plan.classes:
            functions = {by_name.get(o.local) for m in c.methods for o in m.origins}
            for index, obj in enumerate(c.objects):
                variables = {by_name.get(o.local) for _, o in c.origins(index)}
                asked = bool(c.kept_in) and c.name in collected  # a list is somebody's
                if variables & used or functions & called or obj.name in handed or asked:
                    obj.owner = made.name

    def reasons(self, made: ClassDesign, methods: list[Function], fields: list[Symbol]) -> None:
        made.why = ["the main code becomes its run method"]
        inside = {s for f in methods if f not in self.facts.parts for s in self.effects.direct(f.start, f.end).names}
        firsts = {id(v.first) for v in self.facts.kinds.values() if v.first is not None}
        spans = [(m.start, m.end) for m in self.main.statements if id(m) not in firsts]  # a first value is no use
        spans += [(f.start, f.end) for f in self.facts.parts]
        main = {s for a, b in spans for s in self.effects.direct(a, b).names}
        for names, said in (
            ([s.name for s in fields if s in inside and s in main], "used by functions as well as by the main code"),
            ([s.name for s in fields if s in inside and s not in main], "used by functions"),
            ([s.name for s in fields if s not in inside], "the main code's own"),
        ):
            if names:
                made.why.append(
                    f"{', '.join(names[:6])}{' and others' if len(names) > 6 else ''} "
                    f"{'is' if len(names) == 1 else 'are'} {said}"
                )

    @cached_property
    def methods(self) -> tuple[list[Function] | None, str]:
        """Functions that touch state which is going to live in the app; None if one of them cannot be a method."""
        state = {s for s in self.facts.kinds if s not in self.facts.constants}
        found: list[Function] = []
        taken = set(self.plan.functions)
        for f in self.file.functions:
            if (
                f.outer is not self.file.scope
                or f.symbol in taken
                or self.facts.starts(f)
                or self.file.around(f) is not None
            ):
                continue  # what main code makes goes with it
            if not self.needed(f, state, taken):
                continue
            if f not in self.facts.functions and f not in self.facts.parts:
                why = next((s.why for s in self.plan.stays if s.name == f.name), "it cannot be a method")
                return None, f"{f.name} uses what the main code sets, but {why}"
            found.append(f)
        for scope, name in self.file.classes:
            if scope.parent is self.file.scope:
                touch = self.effects.touch(scope.start, scope.end)
                if touch.names & state or touch.uses & (taken | {f.symbol for f in found}):
                    return None, f"class {name} uses what the main code sets"
        for s in sorted(
            {x for f in found for x in self.effects.direct(f.start, f.end).names & state}, key=lambda s: s.name
        ):
            if s not in self.facts.variables and s not in self.plan.variables:
                return None, f"'{s.name}' is used by functions, but cannot be a field"
        return found, ""

    def needed(self, f: Function, state: set[Symbol], taken: set[Symbol]) -> bool:
        """Whether a function reads state, or calls by name, at any depth, something that needs an object."""
        seen: set[Symbol] = set()
        queue = [(f.start, f.end)]
        while queue:
            direct = self.effects.direct(*queue.pop())
            if direct.names & state or direct.uses & taken:
                return True
            for used in direct.uses - seen:
                seen.add(used)
                if "class" not in used.kinds:
                    queue.append(self.span(used))
        return False

    def span(self, s: Symbol) -> tuple[int, int]:
        unit = self.effects.units[s]
        return unit.start, unit.end

    def fields(self, methods: list[Function]) -> list[Symbol]:
        """Variables that the app's methods use, and those that must not become locals."""
        used = {s for f in methods for s in self.effects.direct(f.start, f.end).names}
        used |= {
            d.symbol
            for f in self.file.tops
            if self.file.around(f) is not None
            for d in self.file.declarations_within(f.start, f.end)
            if d.symbol is not None
        }
        handed = self.handed_on({s for f in methods for s in self.effects.direct(f.start, f.end).uses})
        held = self.held()
        calls = self.handing()
        asked = self.facts.asked_fields | self.passing_on | self.traveling
        return [
            s
            for s in self.facts.variables
            if s not in self.plan.variables
            and (
                s in asked
                or s in used
                or s.name in handed | self.facts.seen.streams | self.facts.seen.wrapped
                or s in held
                or s.name in self.language.builtins
                or self.facts.write.must_be_field(self.file, s, calls.get(s, []))
            )
        ]

    def handing(self) -> dict[Symbol, list[Reference]]:
        """Variable → the calls at which it is going to be handed to a method."""
        found: dict[Symbol, list[Reference]] = {}
        for functions, value in self.additions():
            if value in self.file.scope.symbols:
                uses = [r for f in functions for r in f.references]
                found.setdefault(self.file.scope.symbols[value], []).extend(uses)
        return found

    def additions(self) -> Iterator[tuple[list[Symbol], str]]:
        """The functions that become a method of another class, and each name of what it is handed."""
        symbols = self.file.scope.symbols
        for c in self.plan.classes:
            for m in c.methods:
                functions = [symbols[o.local] for o in m.origins if o.local in symbols]
                for a in m.add:
                    yield functions, local_name(a["value"])

    def handed_on(self, called: set[Symbol]) -> set[str]:
        """Names of the state and objects that the app's methods must hand to the other classes' methods that they
        call."""
        return {value for functions, value in self.additions() if called & set(functions)}

    def held(self) -> set[Symbol]:
        """Variables whose value dies with its last holder: a local of ``run`` would let it go too early."""
        mortal = self.language.held | mortal_classes(self.file, self.language)
        found = set()
        for s in self.file.statements:
            if any((c.callee.member or c.callee.name) in mortal for c in self.file.calls_within(s.start, s.end)):
                found |= {r.symbol for r in self.file.within(s.start, s.end) if r.writes and r.symbol is not None}
        return found
