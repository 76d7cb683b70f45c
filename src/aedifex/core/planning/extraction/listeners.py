"""Methods for classes that stand: listeners that are written in their methods, and what these share."""

from __future__ import annotations

import re
from collections.abc import Sequence
from collections.abc import Set as AbstractSet

from ...analysis.hazards import forbidding, hazards
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign, MethodDesign, StayDesign
from ...naming.identifiers import free, like
from ...program.edits import Range, applied
from ...program.inline import Listener, LocalField
from ...program.language import Language
from ...program.model import Function, Scope, SourceFile, Symbol
from ...program.program import Program, reread
from ...rewrites.name_listeners.bases import base_trouble, inherits
from ...rewrites.name_listeners.listeners import (
    Naming,
    NewMethod,
    captured,
    do_the_same,
    functions_used,
    kept_as,
    listeners_in,
    place_of,
    why_not,
)
from ...rewrites.name_listeners.rewrite import field_trouble, origin_of
from ...rewrites.standing_class import names_of_members, standing_scope
from ..classes.facts import Task

REPEATED = (["tick"], ["frame"])
LATER = ["later"]
MAX_LINES_IN_PLACE = 3  # of one statement and what is around it: more is more noise than a line elsewhere


def listeners_that_stay(program: Program, task: Task) -> list[StayDesign]:
    """Classes whose listeners stay where they are, with the reason."""
    file, language = program.files[task.path], program.language
    found = []
    for scope, name in file.classes if language.listening is not None else []:
        why = base_trouble(program, file, scope)
        if why and scope.parent is file.scope and any(said_of(n) for n in listeners_in(file, language, scope)):
            found.append(StayDesign(name, f"its listeners cannot be methods: {why}"))
    return found


def listeners_of_standing(program: Program, task: Task) -> tuple[list[ClassDesign], list[Range]]:
    """The classes of a file whose listeners become methods, and the edits that this takes."""
    file = program.files[task.path]
    if program.language.listening is None or forbidding(hazards(program, task.path, task.outsiders), set()) is not None:
        return [], []
    made, edits = [], []
    for scope, name in file.classes:
        if name in task.kept or scope.parent is not file.scope or standing_scope(file, name) is not scope:
            continue
        if forbidding(hazards(program, task.path, task.outsiders), {name}) is not None:
            continue
        found = Gathered(program, file, scope, name)
        if found.methods and (change := found.edits()):
            made.append(found.design())
            edits += change
    return made, edits


class Gathered:
    """The listeners of one class, those that do the same together, and the variables that become fields."""

    def __init__(self, program: Program, file: SourceFile, scope: Scope, name: str) -> None:
        self.program, self.file, self.scope, self.name = program, file, scope, name
        self.language: Language = program.language
        listening = self.language.listening
        assert listening is not None
        self.listening = listening
        everyone = [] if base_trouble(program, file, scope) else listeners_in(file, self.language, scope)
        self.moving = everyone
        while True:  # fewer listeners can mean fewer fields, and these fewer listeners
            self.fields = self.shared(self.moving)
            able = self.able(self.moving)
            if len(able) == len(self.moving):
                break
            self.moving = able
        self.fields = self.needed(able)
        self.groups: list[list[Listener]] = []
        for n in able:
            home = next((g for g in self.groups if do_the_same(file, self.language, g[0], n)), None)
            if home is None:
                self.groups.append([n])
            else:
                home.append(n)
        self.methods = self.named()

    def able(self, listeners: Sequence[Listener]) -> list[Listener]:
        """Those that can be methods: what waits for something, and the functions that such use."""
        left = list(listeners)
        while True:
            functions = {n.function.symbol: n for n in left if n.function is not None and n.function.symbol is not None}
            kept = [n for n in left if not why_not(self.file, self.language, n, self.fields, functions)]
            if len(kept) == len(left):
                break
            left = kept
        found = [n for n in left if said_of(n) and self.pays(n)]
        for n in found:  # grows while it is gone through
            found += [x for s in functions_used(self.file, n) if (x := functions[s]) not in found]
        return sorted(found, key=lambda n: n.start)

    def pays(self, n: Listener) -> bool:
        """Whether a method is easier to read than the listener where it stands: not where one statement is left, and
        what it works on is handed to it, or the call would take its place."""
        if len(n.statements) != 1 or n.statements[0].kind not in ("expression", "assign", "augment"):
            return True
        used = captured(self.file, self.language, n)
        if any(s not in self.fields for s in used):
            return False
        return n.whole and (bool(used) if n.function is not None else self.lines(n) > MAX_LINES_IN_PLACE)

    def lines(self, n: Listener) -> int:
        return self.file.line(n.end - 1) - self.file.line(n.start) + 1

    def shared(self, listeners: Sequence[Listener]) -> dict[Symbol, LocalField]:
        """Variables that listeners use and that can be fields, or are kept in one."""
        found: dict[Symbol, LocalField] = {}
        for n in listeners:
            assert n.method is not None
            for s in captured(self.file, self.language, n):
                method = self.holder(s)
                name = self.language.write.hidden(s.name)
                if s not in found and (kept := kept_as(self.file, self.language, n, s)):
                    found[s] = LocalField(s, kept, True)
                if s not in found and method is not None and name not in [f.name for f in found.values()]:
                    if not field_trouble(self.program, self.file, method, s, name, self.moving):
                        found[s] = LocalField(s, name)
        return found

    def holder(self, symbol: Symbol) -> Function | None:
        """The method whose variable it is."""
        return next((f for f in self.file.functions if f.scope is symbol.scope and f.outer is self.scope), None)

    def needed(self, able: Sequence[Listener]) -> dict[Symbol, LocalField]:
        """What the listeners that can be methods use, and the variables that are made between such."""
        used = {s for n in able for s in captured(self.file, self.language, n)} & set(self.fields)
        found = {s: self.fields[s] for s in used}
        for method in [f for f in self.file.functions if f.outer is self.scope]:
            run = self.listening.leading(self.file, method)
            last = max((i for i, s in enumerate(run) if s in used), default=-1)
            for s in [s for s in run[: last + 1] if s not in found]:
                name = self.language.write.hidden(s.name)
                if not field_trouble(self.program, self.file, method, s, name, self.moving):
                    found[s] = LocalField(s, name)
        return {s: found[s] for s in sorted(found, key=lambda s: min(b.start for b in s.bindings))}

    def named(self) -> list[NewMethod]:
        write, taken = self.language.write, set(names_of_members(self.file, self.scope))
        found = []
        for group in self.groups:
            name = self.name_for(group, taken)
            taken.add(name)
            handed = [s for s in captured(self.file, self.language, group[0]) if s not in self.fields]
            found.append(NewMethod(write.hidden(name), group, handed))
        return found

    def name_for(self, group: Sequence[Listener], taken: AbstractSet[str]) -> str:
        """A name that is free: after the control and what happens to it."""
        write = self.language.write
        names = [write.member_name(said, like(self.file)) for n in group for said in said_of(n)]
        names = [n.function.name for n in group if n.function is not None] + names
        inherited = {n for n in names if inherits(self.program, self.file, self.scope, write.hidden(n))}
        used = taken | inherited | {unhidden(n) for n in taken}
        return next((n for n in names if n not in used), free(names[-1], used))

    def edits(self) -> list[Range]:
        """The edits; none where they do not give a program."""
        found = Naming(self.file, self.language, self.methods, self.fields).edits()
        path = self.file.path
        after = reread(self.program, {path: applied(self.file.text, found, self.file.encoding)}).files[path]
        return [] if after.problems or standing_scope(after, self.name) is None else found

    def design(self) -> ClassDesign:
        several = len(self.program.files) > 1
        made = ClassDesign(self.name, existing=True)
        for s in [s for s, f in self.fields.items() if not f.there]:
            method = self.holder(s)
            assert method is not None
            origin = origin_of(self.file, self.language, method, s.name, several)
            made.fields.append(FieldDesign(s.name, [origin]))
        for m in self.methods:
            places = [Origin.parse(place_of(self.file, n)) for n in m.listeners]
            made.methods.append(MethodDesign(unhidden(m.name), places, hidden=True))
            lines = ", ".join(str(self.file.shown(n.start)) for n in m.listeners)
            what = "a listener written" if len(m.listeners) == 1 else "listeners that do the same, written"
            made.why.append(f"{unhidden(m.name)} is {what} in place at {lines}")
        return made


def said_of(listener: Listener) -> list[list[str]]:
    """The words that may name it, the best first; none where nothing tells what it is for."""
    if not listener.control and listener.event in REPEATED:
        return [listener.event]
    if not listener.control and listener.event == LATER and listener.function is None:
        return []  # lines that wait are best read where they wait
    plain = [*(w for w in listener.control if len(w) > 1), *listener.event]
    return [said for said in (listener.own, ["on", *plain] if plain else []) if said]


def unhidden(name: str) -> str:
    return re.sub(r"^_+", "", name)
