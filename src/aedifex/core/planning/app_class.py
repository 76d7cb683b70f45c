"""The app class: what is left of state and behaviour, around the main code."""

from __future__ import annotations

from collections.abc import Iterator

from ..design.tables import ClassDesign, StayDesign, bare
from ..naming.identifiers import file_stem, free
from ..program.model import Function, Reference, Statement, Symbol
from ..rewrites.wrap_main.plan import mortal_classes, plan_main
from .class_builder import ClassBuilder
from .dependencies import Fit
from .file_plan import FilePlan

SHORT = 2  # main code of so few statements is an entry already
FEW = 5  # lines of main code that only start what classes do


class AppMaker:
    """Makes the class of what is left: the main code, and the state and functions that it shares."""

    def __init__(self, assigner: FilePlan) -> None:
        self.a = assigner
        self.file, self.effects = assigner.file, assigner.effects

    def make(self) -> None:
        """Add an app class to the draft, or say in a stay why there is none."""
        methods, why = self.methods()
        fields = self.fields(methods) if methods is not None else []
        plan = plan_main(self.file, self.effects, self.a.language)
        statements = [s for s in plan.statements if s.kind != "docstring"]
        asked = self.a.idea == "app"  # whether a person wants the app, whatever it is worth
        if methods is None or (not fields and len(statements) <= SHORT and not asked) or not statements:
            if methods is None:
                self.a.stays.append(StayDesign("main", f"the main code stays where it is: {why}"))
            return
        if not fields and not methods and not self.file.functions and not self.a.classes and not asked:
            self.a.stays.append(
                StayDesign("main", "a class around main code that has no functions would only add lines")
            )
            return
        if (
            not asked
            and not fields
            and not methods
            and not self.a.classes
            and self.file.classes
            and self.lines(statements) <= FEW
        ):
            self.a.stays.append(StayDesign("main", "the main code only starts what stands in a class already"))
            return
        leaving = {f.symbol for f in methods if f.symbol is not None} | self.a.taken_functions
        founded = set(fields) | self.a.taken_variables
        own = {f.symbol for f in methods if f.symbol is not None} | set(fields)
        why = self.a.main_possible(leaving, founded, own)
        if why:
            self.a.stays.append(StayDesign("main", f"the main code stays where it is: {why}"))
            return
        self.add(methods, fields)

    def lines(self, statements: list[Statement]) -> int:
        return sum(self.file.line(s.end - 1) - self.file.line(s.start) + 1 for s in statements)

    def add(self, methods: list[Function], fields: list[Symbol]) -> None:
        stem = file_stem(self.a.write.module_of(self.file.path))
        base = self.a.write.class_name([stem, "app"])
        name = free(base if self.a.write.is_name(base) else "App", self.a.names | {c.name for c in self.a.classes})
        objects = self.a.object_names(["app"])
        if fields or methods:
            members = ClassBuilder(self.a, [list(fields)])
            made = members.build(name, "app", [Fit([f]) for f in methods], objects, set())
        else:
            made = ClassDesign(name, "app", objects=objects)
        for m in made.methods:
            if m.name == "run":
                m.name = self.a.write.member_name(["run", *self.a.write.words(stem)], self.a.like())
        self.own_objects(made, methods)
        self.reasons(made, methods, fields)
        self.a.accept(made, set(fields), [Fit([f]) for f in methods])

    def own_objects(self, made: ClassDesign, methods: list[Function]) -> None:
        """Objects of other classes that the app's methods use are its own."""
        used = {s for f in methods for s in self.effects.direct(f.start, f.end).names}
        called = {s for f in methods for s in self.effects.direct(f.start, f.end).uses}
        by_name = {s.name: s for s in self.file.scope.symbols.values()}
        handed = self.handed_on(called)
        for c in self.a.classes:
            functions = {by_name.get(o.rsplit("::", 1)[-1]) for m in c.methods for o in m.origins}
            for index, obj in enumerate(c.objects):
                variables = {by_name.get(o.rsplit("::", 1)[-1]) for _, o in c.origins(index)}
                if variables & used or functions & called or obj.name in handed:
                    obj.owner = made.name

    def reasons(self, made: ClassDesign, methods: list[Function], fields: list[Symbol]) -> None:
        made.why = ["the main code becomes its run method"]
        inside = {s for f in methods if f not in self.a.parts for s in self.effects.direct(f.start, f.end).names}
        spans = [(m.start, m.end) for m in plan_main(self.file, self.effects, self.a.language).statements] + [
            (f.start, f.end) for f in self.a.parts
        ]
        main = {s for a, b in spans for s in self.effects.direct(a, b).names}
        for names, said in (
            ([s.name for s in fields if s in inside and s in main], "used by functions as well as by the main code"),
            ([s.name for s in fields if s in inside and s not in main], "used by functions"),
            ([s.name for s in fields if s not in inside and s in main], "the main code's own"),
        ):
            if names:
                made.why.append(
                    f"{', '.join(names[:6])}{' and others' if len(names) > 6 else ''} "
                    f"{'is' if len(names) == 1 else 'are'} {said}"
                )

    def methods(self) -> tuple[list[Function] | None, str]:
        """Functions that touch state which is going to live in the app; None if one of them cannot be a method."""
        state = {s for s in self.a.kinds if s not in self.a.constants}
        found: list[Function] = []
        taken = set(self.a.taken_functions)
        for f in self.file.functions:
            if (
                f.outer is not self.file.scope
                or f.symbol in taken
                or self.a.starts(f)
                or self.file.around(f) is not None
            ):
                continue  # what main code makes goes with it
            if not self.needed(f, state, taken):
                continue
            if f not in self.a.functions and f not in self.a.parts:
                why = next((s.why for s in self.a.stays if s.name == f.name), "it cannot be a method")
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
            if s not in self.a.variables and s not in self.a.taken_variables:
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
        asked = self.a.asked_fields
        return [
            s
            for s in self.a.variables
            if s not in self.a.taken_variables
            and (
                s in asked
                or s in used
                or s.name in handed | self.a.streams
                or s in held
                or s.name in self.a.language.builtins
                or self.a.write.must_be_field(self.file, s, calls.get(s, []))
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
        for c in self.a.classes:
            for m in c.methods:
                functions = [symbols[bare(o)] for o in m.origins if bare(o) in symbols]
                for a in m.add:
                    yield functions, bare(a["value"])

    def handed_on(self, called: set[Symbol]) -> set[str]:
        """Names of the state and objects that the app's methods must hand to the other classes' methods that they
        call."""
        return {value for functions, value in self.additions() if called & set(functions)}

    def held(self) -> set[Symbol]:
        """Variables whose value dies with its last holder: a local of ``run`` would let it go too early."""
        mortal = self.a.language.held | mortal_classes(self.file, self.a.language)
        found = set()
        for s in self.file.statements:
            if any((c.callee.member or c.callee.name) in mortal for c in self.file.calls_within(s.start, s.end)):
                found |= {r.symbol for r in self.file.within(s.start, s.end) if r.writes and r.symbol is not None}
        return found
