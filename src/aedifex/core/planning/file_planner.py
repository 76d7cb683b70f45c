"""Which variables and functions of one file go into which class, and what stays."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import cached_property

from ..analysis.concerns import Concerns
from ..analysis.effects import Effects
from ..analysis.families import numbered
from ..analysis.groups import first_word
from ..analysis.handlers import handlers
from ..analysis.hazards import NAMING, PROCESSES, Hazard, by_text, forbidding, hazards
from ..analysis.regions.region import all_blocks
from ..analysis.variable_kinds import UNFIT, classify
from ..analysis.word_variants import Variants, word_sets
from ..design.tables import ClassDesign, ObjectDesign, StayDesign, WishDesign, bare, by_dependency
from ..naming.identifiers import class_name_for, file_for, file_stem, free, like, member_names, taken_names
from ..program.model import Function, Reference, SourceFile, Symbol
from ..program.program import Program
from ..program.tell import Means, first_tell
from ..rewrites.move_class.placement import tied
from ..rewrites.wrap_main.plan import plan_main
from .app_class import AppMaker
from .candidates import Planner
from .class_roles import Roles
from .common_bases import common_bases
from .dependencies import AskedClass, Fit
from .injected_fields import kept_companions

HOLDING = frozenset({"dict", "list", "set", "array", "object"})


class FilePlanner:
    """Drafts the classes of one file.

    ``outsiders``: files that may use its names; ``beside``: all paths in its folder; ``parts``: functions that are cut
    out of the main code, which say no more of what belongs together than that does; ``things``: variables that lines
    were found to work on as on one thing; ``streams``: those that stand for the console, which the app is handed.
    """

    def __init__(
        self,
        program: Program,
        file: SourceFile,
        outsiders: Program,
        beside: list[str],
        wishes: list[WishDesign],
        entry: bool,
        taken: set[str],
        idea: str = "use",
        parts: frozenset[str] = frozenset(),
        things: Sequence[frozenset[str]] = (),
        streams: frozenset[str] = frozenset(),
    ) -> None:
        self.program, self.file, self.language = program, file, program.language
        self.write = program.language.write
        self.wishes, self.entry, self.idea, self.things, self.streams = wishes, entry, idea, things, streams
        self.effects = Effects(file, self.language)
        self.kinds = classify(file, self.language)
        self.hooks = self.language.hooks(file)
        self.guards = [s for s in file.statements if s.kind == "guard"]
        self.constants = {s for s, v in self.kinds.items() if v.nature == "constant"}
        self.hazards: list[Hazard] = hazards(program, file.path, outsiders)
        self.blocked = {name: h for h in reversed(self.hazards) for name in h.names}
        self.whole = forbidding(self.hazards, set())
        self.processes = next((h for h in self.hazards if h.kind == PROCESSES), None)
        self.names = taken_names(file, self.language.builtins) | taken
        self.files = set(program.files) | set(beside) | {self.write.module_of(p) for p in beside}
        self.files |= {
            self.write.top_module(m)
            for f in program.files.values()
            for s in f.imports
            for _, m, _ in self.language.imported(f, s)
        }
        self.files |= taken
        self.classes: list[ClassDesign] = []
        self.stays: list[StayDesign] = []
        self.why_not: dict[str, str] = {}  # function → why it is no method
        self.taken_functions: set[Symbol] = set()
        self.taken_variables: set[Symbol] = set()
        self.kept = kept = {n for w in wishes for n in w.keep}
        self.variables = [
            s for s, v in self.kinds.items() if v.nature != "constant" and s.name not in kept and self.fit_variable(s)
        ]
        self.own_constants()
        asked = self.asked_groups()  # before the functions: what is asked for is no constant any more
        self.asked, self.asked_fields = (
            ([], {s for a in asked for s in a.variables}) if idea == "app" else (asked, set())
        )
        fit = [
            f
            for f in file.functions
            if f.outer is file.scope and f.name not in kept and not self.starts(f) and self.fit_function(f)
        ]
        self.functions = [f for f in fit if f.name not in parts]
        self.parts = [f for f in fit if f.name in parts]

    def design(self) -> tuple[list[ClassDesign], list[StayDesign]]:
        if self.whole is not None:
            self.stay_all(f"line {self.whole.line}: {self.whole.message}")
            return [], self.stays
        has_main = self.entry and self.idea not in ("plain", "asked") and self.does_something()
        self.found(lone=not has_main)
        if has_main:
            AppMaker(self).make()
            if not any(c.role == "app" for c in self.classes):
                # where the main code cannot become an app, what functions share can still become classes
                self.classes, self.taken_functions, self.taken_variables = [], set(), set()
                self.found(lone=True)
        kept_companions(self.file, self.language, self.classes, self.kinds)
        common_bases(self.file, self.language, self.classes, self.names)
        self.finish()
        return self.classes, self.stays

    def found(self, lone: bool) -> None:
        """Classes from what was asked for, from numbered copies, and from what functions work on together."""
        self.reserved: set[str] = set()
        self.objects: set[str] = set()
        self.bound: set[str] = set()  # classes that call functions which stay in the file
        planner = Planner(self, self.asked, lone)
        for candidate, made in planner.classes():
            self.accept(made, candidate.symbols, candidate.fits)
            if candidate.bound:
                self.bound.add(candidate.name)
        self.why_not = planner.why_not

    def does_something(self) -> bool:
        """Whether there is main code beyond first values."""
        firsts = {id(v.first) for v in self.kinds.values() if v.first is not None}
        return any(id(s) not in firsts and s.kind != "annotate" for s in self.effects.main())

    # -- what may move at all --------------------------------------------------------------------

    def fit_variable(self, s: Symbol) -> bool:
        why = ""
        if s.name in self.blocked:
            why = f"line {self.blocked[s.name].line}: {self.blocked[s.name].message}"
        elif s.kinds != {"variable"}:
            why = f"'{s.name}' is also bound to something other than a value"
        elif any(r.form in UNFIT or r.role == "delete" for r in s.references):
            why = "it is bound in a way that a field cannot be"
        elif s.name in self.language.builtins and not self.language.declares:
            why = "it is named like a builtin, which is read wherever it is not set yet"
        elif self.kinds[s].first is None and self.catches_unset():
            why = "it may not be set yet where it is read, and the program catches the error of that kind"
        elif s.name in self.language.introspective or s.name in self.language.reserved:
            why = "the language itself reads it"
        elif self.language.heads_run and any(self.in_head(r) for r in s.references):
            why = "the head of a function says it, which is worked out where the function stands"
        if why and any(r.scope.frame is not self.file.scope for r in s.references):
            self.stays.append(StayDesign(s.name, why))
        return not why

    def in_head(self, ref: Reference) -> bool:
        """Whether a use stands in a type that a function's head names."""
        f = self.file.function_at(ref.start)
        if f is None or not f.head <= ref.start < f.body_start:
            return False
        return not any(p.default is not None and p.default[0] <= ref.start < p.default[1] for p in f.params)

    def starts(self, f: Function) -> bool:
        """Whether a function is what the program starts with: its body is main code."""
        return any(s.start <= f.start < s.end for s in self.guards)

    def catches_unset(self) -> bool:
        """Whether the program handles names that are not bound."""
        names = self.language.unset_errors
        return any(n in names and s.references for n, s in self.file.scope.symbols.items())

    def fit_function(self, f: Function) -> bool:
        why = ""
        if f.name in self.blocked:
            why = f"line {self.blocked[f.name].line}: {self.blocked[f.name].message}"
        elif f.symbol in self.effects.escaped and self.processes is not None:
            why = f"line {self.processes.line}: {self.processes.message}, and this function is passed on"
        elif f.name in self.hooks:
            why = self.hooks[f.name]
        elif (around := self.file.around(f)) is not None:
            why = (
                "it is made inside of lines that may run more than once, or not at all (line "
                f"{self.file.shown(around.start)})"
            )
        elif self.shares_lines(f):
            why = "it shares its first or last line with other code"
        elif self.file.scope.symbols.get(f.name) is not f.symbol:
            why = "a variable has the same name"
        elif self.write.RECEIVER in f.scope.symbols:
            why = f"it already uses the name '{self.write.RECEIVER}'"
        else:
            for ref in by_text(self.file, self.language, f.start, f.end):
                why = f"line {self.file.shown(ref.start)}: '{ref.name}()' reaches names by their text"
            if trouble := self.write.class_trouble(self.file, f.start, f.end):
                why = trouble
            for p in f.params:
                if p.default and self.language.purity(self.file, p.default) != "literal" and not self.early(p.default):
                    why = (
                        f"line {self.file.shown(p.start)}: the default of '{p.name}' is worked out where the "
                        "function stands"
                    )
        if why:
            self.stays.append(StayDesign(f.name, why))
        return not why

    def shares_lines(self, f: Function) -> bool:
        """Whether other code stands on a line of a function's, so that it cannot be moved by its lines."""
        before = self.file.text[self.write.line_start(self.file, f.start) : f.start]
        after = self.file.text[f.end : self.write.line_end(self.file, f.end - 1)]
        return bool(before.strip()) or bool(after.strip() and not self.write.trailing_comment(self.file, f.end))

    def early(self, span: tuple[int, int]) -> bool:
        """Made of imports, and of constants that are set before the first function or main code."""
        if self.language.purity(self.file, span) == "effect":
            return False
        limit = next((s.start for s in self.file.statements if s.kind in ("function", "class")), 0)
        return all(
            r.symbol is None
            or not r.symbol.kinds
            or (
                all(b.start < limit for b in r.symbol.bindings)
                and (r.symbol in self.constants or r.symbol.kinds == {"import"})
            )
            for r in self.file.within(*span)
        )

    def stay_all(self, why: str) -> None:
        for s, v in self.kinds.items():
            if v.nature != "constant":
                self.stays.append(StayDesign(s.name, why))
        self.why_not = {f.name: why for f in self.file.tops}

    def numbered_constants(self) -> list[Symbol]:
        """Constants that may be one object's share of what its copies differ in."""
        fixed = [
            s
            for s in self.kinds
            if s in self.constants and (numbered(s.name) or self.worded(s)) and s.name not in self.kept
        ]
        return [s for s in fixed if self.fit_variable(s)]

    def own_constants(self) -> None:
        """What never changes is an object's all the same, where it is named as its other variables are and not written
        as a constant."""
        firsts = [first_word(s.name, self.write.words) for s in self.variables if self.kinds[s].nature == "state"]
        for s in sorted(self.constants, key=lambda s: s.bindings[0].start):
            word = first_word(s.name, self.write.words)
            if (
                s in self.constants
                and word
                and firsts.count(word) > 1
                and s.name[:1].islower()
                and s.name not in self.kept
                and not numbered(s.name)
                and self.fit_variable(s)
            ):
                freed = {s} | self.resting_on({s})
                self.constants -= freed
                self.variables += [x for x in self.kinds if x in freed and (x is s or self.fit_variable(x))]

    def resting_on(self, fixed: set[Symbol]) -> set[Symbol]:
        """Constants that are worked out from others, which are going to be fields."""
        found: set[Symbol] = set()
        while True:
            firsts = [(s, self.kinds[s].first) for s in self.constants - found - fixed]
            more = {
                s
                for s, f in firsts
                if f is not None
                and f.value is not None
                and any(r.symbol in fixed | found for r in self.file.within(*f.value))
            }
            if not more:
                return found
            found |= more

    def worded(self, s: Symbol) -> bool:
        """Whether a word of a constant's name tells copies apart."""
        return any(v.split(s.name) for v in self.variants)

    @cached_property
    def variants(self) -> list[Variants]:
        return word_sets(self.file, self.write.words, list(self.kinds))

    # -- wishes ----------------------------------------------------------------------------------

    def asked_groups(self) -> list[AskedClass]:
        by_name = {s.name: s for s in self.kinds}
        functions = {f.name: f.symbol for f in self.file.functions if f.outer is self.file.scope}
        found = []
        for wish in self.wishes:
            names = [bare(n) for n in wish.together if n in (bare(n), f"{self.file.path}::{bare(n)}")]
            asked = [by_name[n] for n in names if n in by_name]
            fixed = [s for s in asked if s in self.constants and s.name not in self.kept and self.fit_variable(s)]
            self.constants -= set(fixed)  # a person may want them in the class all the same
            self.variables += fixed
            symbols = [s for s in asked if s in self.variables]
            if symbols:
                methods = {s for n in names if (s := functions.get(n)) is not None}
                found.append(AskedClass(symbols, methods, wish.class_))
        return found

    # -- classes ---------------------------------------------------------------------------------

    def holder(self, symbols: Iterable[Symbol]) -> str:
        """The one variable of several that holds many things; "" if there is none, or there are more."""
        found = [s.name for s in symbols if self.kinds[s].type in HOLDING]
        return found[0] if len(found) == 1 else ""

    def speaking(self, functions: Sequence[Function]) -> list[str]:
        """The names of functions without those of one word that give nothing: what these say is done, not what with."""
        return [f.name for f in functions if len(self.write.words(f.name)) > 1 or self.gives(f)]

    def gives(self, f: Function) -> bool:
        body = self.language.body(self.file, f)
        rows = [*body, *(s for _, b in all_blocks(self.file, self.language, body) for s in b.statements)]
        return any(s.kind == "return" and self.file.slice(s.start, s.end).strip(" ;\n") != "return" for s in rows)

    def class_name(self, variables: list[str], functions: list[str], holder: str = "") -> str:
        stem = file_stem(self.write.module_of(self.file.path))
        used = self.names | self.reserved
        if len(functions) == 1 and all(functions[0] in v.lower() for v in variables):
            name = self.write.class_name(functions)
            if self.write.is_name(name):
                return free(name, used)
        return class_name_for(variables, functions, self.write, used, stem + "_state", holder)

    def like(self) -> str:
        """A name of the file's own that shows how it writes names of several words."""
        return like(self.file)

    def object_names(self, wanted: list[str], own: frozenset[str] = frozenset()) -> list[ObjectDesign]:
        """Free names for objects. ``own``: variables that they take over, whose names are free then."""
        used = (self.names - own) | self.objects
        found = []
        for name in wanted:
            base = self.write.member_name([name], name)
            longer = self.write.member_name([*self.write.words(base), "object"], self.like())
            found.append(ObjectDesign(free(base if base not in used else longer, used)))
            used.add(found[-1].name)
        self.objects |= {o.name for o in found}
        return found

    def accept(self, made: ClassDesign, variables: set[Symbol], fits: list[Fit]) -> None:
        late = [f for f in made.fields if f.start == "later"] if not self.language.code_at_top else []
        if late:
            origins = [bare(o) for o in late[0].origins if o]
            self.worked_out_between(variables, origins[0])
            return
        self.classes.append(made)
        self.taken_variables |= variables
        self.taken_functions |= {f.symbol for fit in fits for f in fit.functions if f.symbol is not None}

    def worked_out_between(self, variables: set[Symbol], name: str) -> None:
        """No class, because a first value could only be given after the object is made."""
        names = ", ".join(sorted(s.name for s in variables))
        self.stays.append(
            StayDesign(name, f"no class for {names}: the first value of {name} is worked out from code between")
        )

    @cached_property
    def roles(self) -> Roles:
        names = {h.name for h in handlers(self.file, self.effects)}
        registered = {f.symbol for f in self.file.tops if f.name in names}
        return Roles(
            self.file, self.language, self.effects, Concerns(self.file, self.language, self.effects), registered
        )

    # -- at the end ------------------------------------------------------------------------------

    def place(self, classes: list[ClassDesign]) -> None:
        """A file of its own for each class that can have one; why not for the others."""
        for c in classes:
            if self.write.stays_in(self.file):
                break
            if c.name in self.bound:
                continue
            if self.processes is not None and self.language.placement == "imports":
                c.why.append(f"it stays in {self.file.path}: line {self.processes.line}: {self.processes.message}")
                continue
            if self.language.placement == "imports" and (why := tied(self.file, self.effects, self.spans(c))):
                c.why.append(f"it stays in {self.file.path}: line {self.file.shown(why[1])}: {why[0]}")
                continue
            c.file = file_for(c.name, c.role, self.file.path, self.write, self.files)
            self.files.add(c.file)
            self.files.add(self.write.module_of(c.file))

    def finish(self) -> None:
        """Places, constants, and a reason for all that stays."""
        readers: dict[Symbol, str] = {}
        self.place(self.classes)
        for c in by_dependency(self.classes):
            for s in self.read_by(c) if c.file and self.language.placement == "imports" else ():
                readers.setdefault(s, c.file)
        for s in self.kinds:
            if s in self.constants:
                self.stays.append(StayDesign(s.name, "constant", readers.get(s, "")))
        stated = {x.name for x in self.stays}
        self.stay_functions(stated)
        moved = {o.rsplit("::", 1)[-1] for c in self.classes for f in c.fields for o in f.origins}
        app = next((c for c in self.classes if c.role == "app"), None)
        for s in self.variables:
            if s.name not in stated and s.name not in moved and app is None:
                self.stays.append(StayDesign(s.name, self.why_left(s)))

    def place_constants(self, standing: list[ClassDesign]) -> None:
        """Constants that a class reads which stands already move with it: such classes move before the others."""
        homes = {c.name: c.file for c in reversed(standing) if c.file and self.language.placement == "imports"}
        scopes = [(s, homes[n]) for s, n in self.file.classes if n in homes and s.parent is self.file.scope]
        for stay in [s for s in self.stays if s.why == "constant"]:
            symbol = self.file.scope.symbols.get(stay.name)
            readers = [home for s, home in scopes if symbol in self.effects.direct(s.start, s.end).reads]
            stay.file = readers[0] if readers else stay.file

    def spans(self, c: ClassDesign) -> list[tuple[int, int]]:
        """The code that is going to be a class's: its functions, and for the app the main code."""
        names = {bare(o) for m in c.methods for o in m.origins}
        found = [(f.start, f.end) for f in self.file.functions if f.outer is self.file.scope and f.name in names]
        if c.role == "app":
            plan = plan_main(self.file, self.effects, self.language)
            found += [(s.start, s.end) for s in plan.statements]
        return found

    def why_left(self, s: Symbol) -> str:
        units = {x: u for x, u in self.effects.units.items() if x.scope is self.file.scope}
        users = [u.name for u in units.values() if s in self.effects.direct(u.start, u.end).names]
        if not users:
            return "only the main code uses it"
        return f"it is used by {', '.join(users[:4])}, which no class owns"

    def stay_functions(self, stated: set[str]) -> None:
        """Functions that belong to a class but cannot be its methods."""
        for f in self.functions:
            if f.name in self.why_not and f.name not in stated and f.symbol not in self.taken_functions:
                self.stays.append(StayDesign(f.name, self.why_not[f.name]))

    def read_by(self, c: ClassDesign) -> list[Symbol]:
        found = []
        names = {o.rsplit("::", 1)[-1] for m in c.methods for o in m.origins}
        for f in self.file.functions:
            if f.outer is self.file.scope and f.name in names:
                found += [s for s in self.effects.of(f).reads if s in self.constants]
        return sorted(set(found), key=lambda s: s.bindings[0].start)

    def short_names(self, names: list[str], stems: set[str], taken: set[str]) -> dict[str, str]:
        if first_tell(self.language.tells(self.file), Means.STACK) is not None:  # what is called how shows
            stems = set()
        return member_names(names, stems, self.write, taken)

    def main_possible(self, leaving: set[Symbol], founded: set[Symbol], own: set[Symbol]) -> str:
        """ "" if the main code can be wrapped, else why not. ``own``: what is going to be the app's."""
        plan = plan_main(self.file, self.effects, self.language, "", leaving, founded)
        if plan.refusal:
            return f"line {self.file.shown(plan.refusal[1])}: {plan.refusal[0]}"
        for bound in sorted(plan.binds(self.file) - founded - own, key=lambda s: s.name):
            if bound.name in self.blocked and self.blocked[bound.name].kind in NAMING:
                return self.blocked[bound.name].told(self.file.path)
        for s in plan.statements:
            mine = [r for r in self.file.within(s.start, s.end) if r.symbol in own and not r.writes]
            if trouble := self.write.inner_receivers(self.file, self.file.scope, mine)[1]:
                return str(trouble)
        return "" if plan.statements else "there is no main code"
