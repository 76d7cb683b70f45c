"""Values that are handed from function to function and changed on the way: a board, a grid, a plan. Nothing of them is
global, so only the parameters tell.

def park(yard, n): yard[n] = "R"
def show(yard): print(yard)            →      a Yard, which park and show are about
yard = new_yard()
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, field

from ...analysis.concerns import Concerns
from ...analysis.effects import Effects
from ...analysis.hazards import forbidding, hazards
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign, MethodDesign
from ...naming.identifiers import VERBS, free, member_names, taken_names
from ...naming.inflection import plural, singular
from ...program.edits import applied
from ...program.language import Language
from ...program.model import Call, Function, SourceFile, Symbol
from ...program.program import Program, reread
from ...rewrites.parameter_to_receiver import argument_of, calls_alone, loose
from ...rewrites.wrap_value.methods import HandedValue
from ...rewrites.wrap_value.wrapping import Wrapping
from ..classes.facts import Task, origin_in
from .evident_things import BROAD, NO_NOUNS

MIN_FUNCTIONS = 3  # functions that are handed the value
MIN_METHODS = 2  # functions that work on what it holds
LOOPED = re.compile(r"\b(\w+)\s+(?:in|of)\s+(?:\w+\()?$")  # what a loop calls one of what follows
STORED = re.compile(rb"\.\w+\s*[-+*/%]?=[^=]")  # what sets a member of what stands before it
CELLS, ITEMS = "cells", "items"  # what a value holds that is asked by two indices, or by one


@dataclass(eq=False)
class Traveling:
    """``called``: what the parameters are called; ``nodes``: the functions that are handed the value, with the
    parameter; ``variables``: those that bring it, by the function that has them ("" is the file)."""

    called: str
    nodes: list[tuple[Function, str]] = field(default_factory=list)
    variables: dict[Symbol, str] = field(default_factory=dict)

    @property
    def parameters(self) -> set[Symbol]:
        return {f.scope.symbols[p] for f, p in self.nodes}

    @property
    def symbols(self) -> set[Symbol]:
        return self.parameters | set(self.variables)


def traveling_values(
    file: SourceFile, language: Language, fixed: AbstractSet[str] = frozenset(), asked: str = ""
) -> list[Traveling]:
    """What at least three functions are handed under one name, and some change or look into.

    ``fixed``: functions and variables that must stay as they are; ``asked``: what a person wants, whatever speaks for
    it.
    """
    rows: dict[str, Traveling] = {}
    for f in file.tops:
        if f.symbol is None or f.symbol.kinds != {"function"} or f.decorators or f.is_async or f.name in fixed:
            continue
        for p in f.params:
            if p.default is None and p.kind not in ("star", "doublestar") and p.name in f.scope.symbols:
                rows.setdefault(p.name, Traveling(p.name)).nodes.append((f, p.name))
    found = []
    for row in rows.values():
        telling = len(row.nodes) >= MIN_FUNCTIONS and is_noun(row.called, language)
        if row.called == asked or (telling and not asked):
            at_top = {s.name for s in row.variables if s.scope is file.scope} if brought(file, language, row) else None
            if at_top is not None and not at_top & fixed and (asked or is_container(file, row)):
                found.append(row)
    return sorted(found, key=lambda row: -len(row.nodes))


def is_noun(name: str, language: Language) -> bool:
    """Whether a parameter is called after a thing."""
    words = [w.lower() for w in language.write.words(name)]
    return len(words) == 1 and len(name) > 2 and singular(words[0]) not in BROAD | NO_NOUNS | VERBS


def brought(file: SourceFile, language: Language, row: Traveling) -> bool:
    """Whether every call says plainly what it hands over, and most hand over a variable; notes the variables."""
    worked_out = total = 0
    holders = {s: f for f in file.functions for s in f.scope.symbols.values()}
    parameters = row.parameters
    for f, name in row.nodes:
        if (calls := calls_alone(file, f)) is None:
            return False
        for call in calls:
            argument = argument_of(file, language, f, call, name)
            if argument is None:
                return False
            total += 1
            refs = file.within(argument.value_start, argument.end)
            whole = len(refs) == 1 and (refs[0].start, refs[0].end) == (argument.value_start, argument.end)
            s = refs[0].symbol if whole else None
            worked_out += s is None
            if s is None or s in parameters:
                continue
            if s.kinds != {"variable"} or not (s.scope is file.scope or s in holders):
                return False
            row.variables[s] = holders[s].key if s in holders else ""
    return bool(row.variables) and worked_out * 3 <= total


def is_container(file: SourceFile, row: Traveling) -> bool:
    """Whether something is changed inside of the value, and it is asked by index: no object, no text, no number is."""
    uses = [r for s in row.symbols for r in s.references if not r.writes]
    indexed = [r for r in uses if file.text[r.end : r.end + 1] == b"["]
    stored = any(r.member and STORED.match(file.text, r.end) for r in uses)
    keyed = [r for r in indexed if file.text[r.end + 1 : r.end + 2] in (b'"', b"'")]
    return bool(indexed) and not keyed and not stored and any(r.mutates for r in uses)


class Proposal:
    """The class of one traveling value, and the program with it."""

    def __init__(
        self, program: Program, file: SourceFile, row: Traveling, taken: AbstractSet[str], asked: str = ""
    ) -> None:
        """``asked``: what a person calls the class."""
        self.program, self.file, self.row, self.language = program, file, row, program.language
        self.write, self.effects = self.language.write, Effects(file, self.language)
        used = taken_names(file, self.language.builtins) | taken
        name = self.write.class_name([singular(w) for w in self.write.words(row.called)])
        self.least = 1 if asked else MIN_METHODS
        self.arguments: AbstractSet[str] = frozenset()  # variables that a constructor is to be given
        self.design = ClassDesign(asked or free(name, used))
        types = {p.type for f, called in row.nodes for p in f.params if p.name == called and p.type}
        kind = types.pop() if len(types) == 1 else ""
        self.field = FieldDesign(self.held(), [], "argument", type=kind, hidden=False)

    def held(self) -> str:
        """What the value is made of: what loops call one of it, or what is found by its indices."""
        ordered = [f.scope.symbols[p] for f, p in self.row.nodes]
        for r in [r for s in ordered for r in s.references if not r.writes]:
            line = self.file.slice(max(0, r.start - 80), r.start).rpartition("\n")[2]
            looped = LOOPED.search(line)
            if looped is not None and len(looped[1]) > 2 and singular(looped[1]) == looped[1]:
                return plural(looped[1])
        twice = any(
            b"][" in self.file.text[r.end : r.end + 40].split(b"\n")[0] for s in self.row.symbols for r in s.references
        )
        return CELLS if twice else ITEMS

    def made(self) -> tuple[ClassDesign, Program] | None:
        """None where the value cannot be held by an object, or too few functions can be its methods."""
        methods = self.methods()
        if len(methods) < self.least or (self.least > 1 and len(methods) * 2 < len(self.row.nodes)):
            return None
        own = {f.scope.symbols[p] for f, p in methods}
        typed = {f.scope.symbols[p.name] for f, _ in self.row.nodes for p in f.params if p.annotated}
        wraps = [*self.row.variables, *(self.row.parameters - own - typed)]
        self.design.fields = [self.field]
        self.design.wraps = [self.origin(s) for s in self.in_order(wraps)]
        after = self.carried_out(wraps, methods)
        if after is None:
            return None
        self.field.hidden = self.unseen(after)
        after = self.carried_out(wraps, methods)
        lines = ", ".join(dict.fromkeys(str(self.file.shown(f.start)) for f, _ in self.row.nodes[:4]))
        self.design.why = [
            f"{self.row.called} is handed to {len(self.row.nodes)} functions (lines {lines}"
            f"{' and others' if len(self.row.nodes) > 4 else ''}), and changed in some of them",
            *(f"{f.name} works on what {self.row.called} holds" for f, _ in methods),
        ]
        return (self.design, after) if after is not None else None

    def in_order(self, symbols: Sequence[Symbol]) -> list[Symbol]:
        return sorted(symbols, key=lambda s: min(r.start for r in s.references))

    def origin(self, s: Symbol) -> Origin:
        holder = self.row.variables.get(s, "")
        if s in self.row.parameters:
            holder = next(f.key for f, p in self.row.nodes if f.scope.symbols[p] is s)
        said = origin_in(self.program, self.file, s.name)
        return said.in_holder(holder) if holder else said

    def methods(self) -> list[tuple[Function, str]]:
        """The functions that are about the value: they look into it, or change it, ask nobody and need nothing else."""
        about = Concerns(self.file, self.language, self.effects)
        calls = HandedValue(self.file, self.language, self.design.name, self.field.name)
        found = []
        for f, p in self.row.nodes:
            concerns = {concern for concern, _ in about.direct(f.start, f.end)}
            talks = "input" in concerns or (concerns and not self.looked_into(f, p))
            if not talks and not calls.why_not(f, p):
                found.append((f, p))
        return found

    def looked_into(self, f: Function, parameter: str) -> bool:
        """Whether a function does more with the value than hand it on."""
        handed = {
            a.value_start
            for g, name in self.row.nodes
            if g.symbol is not None
            for c in self.file.calls_of(g.symbol)
            if (a := argument_of(self.file, self.language, g, c, name)) is not None
        }
        return any(not r.writes and r.start not in handed for r in f.scope.symbols[parameter].references)

    def carried_out(self, wraps: Sequence[Symbol], methods: Sequence[tuple[Function, str]]) -> Program | None:
        """The program with the class, its objects and methods, which the design gets; None if a step is refused."""
        design, member = self.design, self.write.hidden(self.field.name) if self.field.hidden else self.field.name
        wrapping = self.wrapping(wraps, member, methods)
        if wrapping.trouble() is not None:
            return None
        design.methods = []
        program = self.edited(self.program, wrapping.edits())
        words = {w.lower() for w in self.write.words(design.name)}
        inner = {f.name for f, _ in methods}
        for f, p in methods:
            here = program.files[self.file.path]
            now, calls = here.function(f.name), HandedValue(here, self.language, design.name, member)
            if now is None or calls.why_not(now, p):
                return None
            taken = {member, self.field.name} | {m.name for m in design.methods}
            short = member_names([f.name], words, self.write, taken)[f.name]
            hidden = self.called_inside(f, inner)
            name = self.write.hidden(short) if hidden else short
            program = self.edited(program, calls.method_edits(now, p, name, loose(program)))
            design.methods.append(
                MethodDesign(short, [origin_in(self.program, self.file, f.name)], drop=[p], hidden=hidden)
            )
        return program

    def wrapping(self, wraps: Sequence[Symbol], member: str, methods: Sequence[tuple[Function, str]]) -> Wrapping:
        """The constructor sets what every object begins with, unless a person wants it handed over."""
        kind, name = self.field.type, self.design.name
        found = Wrapping(self.file, self.language, name, member, wraps, kind, False, methods)
        if found.first is None or {s.name for s in self.row.symbols} & self.arguments:
            return found
        self.field.start, self.field.value = "fixed", found.first.text
        return Wrapping(self.file, self.language, name, member, wraps, kind, True, methods)

    def called_inside(self, f: Function, methods: AbstractSet[str]) -> bool:
        """Whether only methods of the class call a function."""
        calls: list[Call] = self.file.calls_of(f.symbol) if f.symbol is not None else []
        outer = [self.file.function_at(c.start) for c in calls]
        return bool(outer) and all(o is not None and o.name in methods for o in outer)

    def edited(self, program: Program, edits: list[tuple[int, int, str]]) -> Program:
        file = program.files[self.file.path]
        return reread(program, {file.path: applied(file.text, edits, file.encoding)})

    def unseen(self, program: Program) -> bool:
        """Whether nobody outside of the class asks for what it holds."""
        file = program.files[self.file.path]
        scope = next(s for s, n in file.classes if n == self.design.name and s.parent is file.scope)
        text = file.text[: scope.start] + file.text[scope.end :]
        return f".{self.field.name}".encode() not in text


def classes_of_values(program: Program, task: Task, taken: AbstractSet[str]) -> tuple[list[ClassDesign], Program]:
    """Classes for the traveling values of a file, and the program with them."""
    made: list[ClassDesign] = []
    fixed = fixed_names(program, task)
    for called in [row.called for row in traveling_values(program.files[task.path], program.language, fixed)]:
        file = program.files[task.path]
        rows = traveling_values(file, program.language, fixed)
        row = next((r for r in rows if r.called == called), None)
        if row is None:
            continue
        proposal = Proposal(program, file, row, taken | {c.name for c in made})
        proposal.arguments = {o.name for w in task.wishes for o in w.arguments}
        found = proposal.made()
        if found is not None and not found[1].files[task.path].problems:
            made.append(found[0])
            program = found[1]
    return made, program


def fixed_names(program: Program, task: Task) -> set[str]:
    """The names of a file that something, or somebody, wants left as they are."""
    found = hazards(program, task.path, task.outsiders)
    symbols = program.files[task.path].scope.symbols
    return {n for n in symbols if forbidding(found, {n}) is not None} | task.kept
