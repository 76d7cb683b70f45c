"""Who touches what: reads and writes of module-level names, directly and through calls."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from ..program.language import Language
from ..program.model import Argument, Call, Function, Reference, Scope, SourceFile, Statement, Symbol
from ..program.scopes import receiver_of
from .startup import running, set_once


@dataclass
class Touch:
    """What a stretch of code may do: names by symbol, project functions called, and whether it runs unseen code."""

    reads: set[Symbol] = field(default_factory=set)
    writes: set[Symbol] = field(default_factory=set)
    uses: set[Symbol] = field(default_factory=set)  # functions and classes of the file that it calls or hands on
    unseen: bool = False

    def copy(self) -> Touch:
        return Touch(set(self.reads), set(self.writes), set(self.uses), self.unseen)

    def add(self, other: Touch) -> None:
        """Take over another's effects."""
        self.reads |= other.reads
        self.writes |= other.writes
        self.uses |= other.uses
        self.unseen |= other.unseen

    def take(self, other: Touch) -> bool:
        """Take over another's effects; True if anything was new."""
        new = (
            (other.unseen and not self.unseen)
            or not other.reads <= self.reads
            or not other.writes <= self.writes
            or not other.uses <= self.uses
        )
        if new:
            self.add(other)
        return new

    @property
    def names(self) -> set[Symbol]:
        return self.reads | self.writes


@dataclass(frozen=True)
class Unit:
    """A function, class or piece of main code whose effects are known."""

    name: str
    start: int
    end: int
    symbol: Symbol | None


class Effects:
    """Effects within one file. Functions that are handed on as values may run in any unseen call."""

    def __init__(self, file: SourceFile, language: Language) -> None:
        self.file = file
        self.language = language
        self.memo: dict[str, Any] = {}  # what others worked out from these effects once
        self.seen: dict[tuple[int, int], Touch] = {}

    @cached_property
    def units(self) -> dict[Symbol, Unit]:
        """Top-level functions, classes and their methods by symbol; a redefined name has the span of all its
        definitions."""
        found: dict[Symbol, Unit] = {}
        tops = {id(s) for s, _ in self.file.classes if s.parent is self.file.scope} | {id(self.file.scope)}
        spans = [(f.symbol, f.key, f.start, f.end) for f in self.file.functions if id(f.outer) in tops]
        for scope, name in self.file.classes:
            if scope.parent is self.file.scope:
                spans.append((self.file.scope.symbols.get(name), name, scope.start, scope.end))
        for symbol, name, start, end in spans:
            if symbol is None:
                continue
            old = found.get(symbol)
            found[symbol] = (
                Unit(name, min(start, old.start), max(end, old.end), symbol) if old else Unit(name, start, end, symbol)
            )
        return found

    def direct(self, start: int, end: int) -> Touch:
        """What a stretch of code does by itself; kept, so a copy is what may be added to."""
        found = self.seen.get((start, end))
        if found is None:
            found = self.seen[start, end] = self.look(start, end)
        return found

    def look(self, start: int, end: int) -> Touch:
        touch = Touch()
        starts, telling = self.telling
        for ref, symbol, method in telling[bisect_left(starts, start) : bisect_left(starts, end)]:
            if method is not None:
                touch.uses.add(method)
            if symbol is None:
                continue
            if symbol in self.units and not ref.writes:
                touch.uses.add(symbol)
            if "variable" in symbol.kinds:
                if ref.writes or ref.mutates:
                    touch.writes.add(symbol)
                if not ref.writes or ref.role == "both":
                    touch.reads.add(symbol)
        at = bisect_left(self.unseen_at, start)
        touch.unseen = at < len(self.unseen_at) and self.unseen_at[at] < end
        return touch

    @cached_property
    def telling(self) -> tuple[list[int], list[tuple[Reference, Symbol | None, Symbol | None]]]:
        """The references that touch something of the file, where they start; with each its name at the top and the
        method that it names."""
        found: list[tuple[Reference, Symbol | None, Symbol | None]] = []
        for ref in self.file.within(0, len(self.file.text) + 1):
            symbol = ref.symbol if ref.symbol is not None and ref.symbol.scope is self.file.scope else None
            if symbol is not None and "variable" not in symbol.kinds and symbol not in self.units:
                symbol = None
            method = self.method_of(ref) if ref.member else None
            if symbol is not None or method is not None:
                found.append((ref, symbol, method))
        return [ref.start for ref, _, _ in found], found

    @cached_property
    def unseen_at(self) -> list[int]:
        """Where unseen code is called, sorted."""
        opaque = [at for at in self.file.opaque_calls if not all(map(self.quiet_name, self.file.opaque_members[at]))]
        return sorted([*opaque, *(c.start for c in self.file.calls if self.unseen(c))])

    def unseen(self, call: Call) -> bool:
        """Whether a call runs code that was not read (and that may call back)."""
        ref = call.callee
        symbol = ref.symbol
        if symbol is None:
            return True
        if symbol in self.units and not ref.member:
            return symbol in self.based  # what the file itself says of a class is seen, what its base does is not
        if ref.member:
            if self.method_of(ref) is not None:
                return False
            return not self.quiet_member(ref, symbol)
        return not (symbol.kinds <= {"import"} and symbol.name in self.language.quiet)

    def quiet_member(self, ref: Reference, symbol: Symbol) -> bool:
        """Whether a member that is called is known to run no other code of the program."""
        if symbol.kinds <= {"import"} and symbol.name in self.language.quiet_modules:
            return True
        return self.quiet_name(ref.member)

    def quiet_name(self, member: str) -> bool:
        """Whether members of this name run no other code of the program, whatever they are taken from."""
        return member in self.language.quiet_members and member not in self.own_members

    @cached_property
    def own_members(self) -> set[str]:
        """Members that the file's own classes and objects have."""
        return self.file.stored_members.union(*(s.symbols for s, _ in self.file.classes))

    @cached_property
    def instances(self) -> dict[Symbol, Scope]:
        """Variables that hold one object of a class of this file, and nothing else ever."""
        scopes = {self.file.scope.symbols.get(n): s for s, n in self.file.classes if s.parent is self.file.scope}
        made = set_once(self.file, self.language)
        return {v: scopes[call.callee.symbol] for v, call in made.items() if call.callee.symbol in scopes}

    @cached_property
    def handed_over(self) -> dict[Symbol, Scope]:
        """Parameters that are one object of a class of this file, the same class at every call, where all calls are
        seen."""
        found: dict[Symbol, Scope] = {}
        if not self.instances:
            return found
        members: dict[str, list[Reference]] = {}
        for ref in self.file.references:
            if ref.member:
                members.setdefault(ref.member, []).append(ref)
        called = {id(c.callee): c for c in self.file.calls}
        functions = [f for f in self.file.functions if f.symbol in self.units and not f.decorators and f.arguments]
        names = Counter(f.name for f in self.file.functions)
        more = True
        while more:
            more = False
            for f in functions:
                method = f.outer.kind == "class"
                if names[f.name] > 1 or (method and self.file.scope.symbols.get(f.outer.name) in self.escaped_classes):
                    continue
                uses = members.get(f.name, []) if method else [r for r in f.symbol.references if not r.writes]  # type: ignore[union-attr]
                if not uses or any(id(r) not in called or (r.member and not method) for r in uses):
                    continue
                rows = [self.language.arguments(self.file, called[id(r)]) for r in uses]
                for at, p in enumerate(f.arguments):
                    symbol = f.scope.symbols.get(p.name)
                    if (
                        symbol is not None
                        and symbol not in found
                        and len(symbol.bindings) == 1
                        and (scope := self.same_class([row[at : at + 1] for row in rows], found))
                    ):
                        found[symbol] = scope
                        more = True
        return found

    def same_class(self, given: list[list[Argument]], known: dict[Symbol, Scope]) -> Scope | None:
        """The class of which every one of these arguments is an object; None if one is missing, unknown or of another
        class."""
        classes = set()
        for row in given:
            refs = self.file.within(row[0].start, row[0].end) if row and not row[0].keyword else []
            bare = (
                len(refs) == 1
                and refs[0].symbol is not None
                and (refs[0].start, refs[0].end) == (row[0].start, row[0].end)
                and not refs[0].member
            )
            classes.add((self.instances.get(refs[0].symbol) or known.get(refs[0].symbol)) if bare else None)  # type: ignore[arg-type]
        return classes.pop() if len(classes) == 1 else None

    def method_of(self, ref: Reference) -> Symbol | None:
        """The method that ``ref.member`` names, where the object's class is known."""
        owner = (self.instances.get(ref.symbol) or self.handed_over.get(ref.symbol)) if ref.symbol is not None else None
        at: Scope | None = ref.scope if owner is None else None
        while at is not None and at.parent is not None:
            if at.receiver is not None:
                owner = at.parent if at.parent.kind == "class" and at.receiver == ref.name else None
                break
            at = at.parent
        found = owner.symbols.get(ref.member) if owner is not None else None
        return found if found in self.units else None

    @cached_property
    def based(self) -> set[Symbol]:
        """Classes with bases, or made by other than the usual means."""
        return {
            symbol
            for scope, name in self.file.classes
            if scope.bases and (symbol := self.file.scope.symbols.get(name)) is not None
        }

    @cached_property
    def escaped_classes(self) -> set[Symbol]:
        """Classes whose objects unseen code may hold, and so call."""
        found = set()
        called = {(c.callee.start, c.callee.member) for c in self.file.calls}
        for scope, name in self.file.classes:
            symbol = self.file.scope.symbols.get(name)
            if symbol is None or scope.parent is not self.file.scope:
                continue
            made = [v for v, s in self.instances.items() if s is scope]
            uses = [r for r in symbol.references if not r.writes and not r.deferred]
            bare = [r for v in made for r in v.references if not r.writes and not r.member]
            handed = [
                r
                for v in made
                for r in v.references
                if has_method(scope, r.member) and (r.start, r.member) not in called
            ]
            inside = [r for r in self.file.within(scope.start, scope.end) if r.name == receiver_of(r.scope, scope)]
            loose = [
                r
                for r in inside
                if not r.writes
                and (not r.member or (has_method(scope, r.member) and (r.start, r.member) not in called))
            ]
            special = any(self.language.special(n) for n in scope.symbols)
            if len(uses) != len(made) or bare or handed or loose or special or scope.bases:
                found.add(symbol)
        return found

    @cached_property
    def escaped(self) -> set[Symbol]:
        """Functions used other than by calling them, and classes whose objects get about: unseen code may run them."""
        found = set()
        for symbol in self.units:
            if symbol.scope is not self.file.scope:
                continue
            if ("class" in symbol.kinds and symbol in self.escaped_classes) or (
                "function" in symbol.kinds and any(not r.writes and r.role != "call" for r in symbol.references)
            ):
                found.add(symbol)
        return found | {f.symbol for f in self.file.tops if f.decorators and f.symbol is not None}

    @cached_property
    def handed_at(self) -> dict[Symbol, int]:
        """From where on unseen code may have each of these: the statement of main code that first hands it on, the
        file's start where a function may."""
        rows = running(self.file, self.language)
        starts = [s.start for s in rows]

        def place(r: Reference) -> int:
            at = bisect_right(starts, r.start) - 1
            main = r.scope.frame is self.file.scope and not r.deferred and at >= 0 and r.start < rows[at].end
            return rows[at].start if main and starts == sorted(starts) else 0

        found = {}
        for symbol in self.escaped:
            handed = [r for r in symbol.references if not r.writes and r.role != "call"]
            plain = (
                symbol.kinds == {"function"}
                and bool(handed)
                and not any(f.decorators for f in self.file.functions_named(symbol.name))
            )
            found[symbol] = min(map(place, handed)) if plain else 0
        return found

    @cached_property
    def loose(self) -> list[tuple[int, Touch]]:
        """What functions without a name of their own at the top do, which are handed on, so that unseen code may run
        them.

        Each with the offset from which it is there: its own in main code, the file's first where a function makes it.
        """
        own = {u.symbol for u in self.units.values()}
        found = []
        for scope in self.file.scope.walk():
            f = scope.function
            if scope.kind not in ("function", "lambda") or (f is not None and f.symbol in own):
                continue
            uses = f.symbol.references if f is not None and f.symbol is not None else []
            if not uses or any(not r.writes and r.role != "call" for r in uses):
                top = scope
                while top.parent is not None and top.parent is not self.file.scope:
                    top = top.parent
                inside = top.kind == "class" or (top.function is not None and top.function.symbol in own)
                found.append((0 if inside else top.start, self.direct(scope.start, scope.end)))
        return found

    @cached_property
    def reach(self) -> dict[Symbol, Touch]:
        """Transitive effects of each function and class."""
        found: dict[Symbol | None, Touch] = {s: self.direct(u.start, u.end).copy() for s, u in self.units.items()}
        found[None] = Touch(uses=set(self.escaped))  # what any unseen call may run
        for _, touch in self.loose:
            found[None].add(touch)
        users: dict[Symbol | None, list[Symbol | None]] = {}
        for symbol, touch in found.items():
            for used in touch.uses:
                users.setdefault(used, []).append(symbol)
            if touch.unseen:
                users.setdefault(None, []).append(symbol)
        waiting = list(found)
        queued = set(waiting)
        while waiting:
            source = waiting.pop()
            queued.discard(source)
            for user in users.get(source, ()):
                if found[user].take(found[source]) and user not in queued:
                    waiting.append(user)
                    queued.add(user)
        return {s: t for s, t in found.items() if s is not None}

    def touch(self, start: int, end: int) -> Touch:
        """Transitive effects of a stretch of code outside functions, or of a part of one."""
        touch = self.direct(start, end).copy()
        for symbol in list(touch.uses):
            touch.add(self.reach[symbol])
        if touch.unseen:
            touch.add(self.unseen_before(end))
        return touch

    @cached_property
    def handed_in_order(self) -> list[int]:
        return sorted([*(self.handed_at[s] for s in self.escaped), *(at for at, _ in self.loose)])

    def unseen_before(self, end: int) -> Touch:
        """What unseen code may do that is called before an offset: all that was handed on until then; kept by how much
        that is."""
        kept: dict[int, Touch] = self.memo.setdefault("unseen before", {})
        count = bisect_left(self.handed_in_order, end)
        if count not in kept:
            made = kept[count] = Touch()
            used = {s for s in self.escaped if self.handed_at[s] < end}
            for at, other in self.loose:
                if at < end:
                    made.add(other)
                    used |= other.uses & self.reach.keys()
            for symbol in used:
                made.add(self.reach[symbol])
        return kept[count]

    def of(self, function: Function) -> Touch:
        symbol = function.symbol
        return self.reach[symbol] if symbol in self.reach else self.touch(function.start, function.end)

    def main(self) -> list[Statement]:
        """Main code: the statements at the top of the file that do something when it is started."""
        return statement_order(self.file.statements)


def has_method(scope: Scope, name: str) -> bool:
    return name in scope.symbols and "function" in scope.symbols[name].kinds


def module_variables(file: SourceFile) -> list[Symbol]:
    """Variables of the module, in the order in which they are first bound."""
    found = [s for s in file.scope.symbols.values() if "variable" in s.kinds]
    return sorted(found, key=lambda s: min(r.start for r in s.bindings))


def statement_order(statements: Sequence[Statement]) -> list[Statement]:
    """Main statements in the order in which they run."""
    return [s for s in statements if s.kind not in ("import", "function", "class", "docstring", "pass")]
