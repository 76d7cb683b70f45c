"""The objects that variables tell of before they are classes: what they hold, and which of a stretch of lines is about
one of them."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from ...analysis.concerns import Concerns
from ...analysis.effects import Effects
from ...analysis.families import families
from ...analysis.groups import first_word
from ...analysis.parallel_arrays import records
from ...analysis.regions.region import all_blocks, further
from ...analysis.variable_kinds import classify
from ...design.tables import ClassDesign
from ...naming.identifiers import says
from ...program.facets.text import Text
from ...program.keyed import Keyed
from ...program.language import Language
from ...program.lists import ListUse, Span
from ...program.model import Function, Reference, SourceFile, Statement, Symbol
from ...program.program import Program
from ...rewrites.record_class.objects import worth_a_class
from ..collections import class_of_lists, keyed_class, roots_of
from .evident_things import TALLY, EvidentThing

SHOWING = frozenset({"drawing", "sound"})
TALKING = frozenset({"console", "input", "network", "files", "database", "timing"})
WHOLE = frozenset({"background", "clear", "size", "frameRate", "exit"})  # what is for all of a picture


@dataclass(frozen=True, eq=False)
class Thing:
    """The variables of one object; ``number`` of a numbered one, -1 for the only one."""

    stem: str
    number: int
    roles: dict[Symbol, str]

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """Whether all of a stretch is about the same object."""
        return True

    def only(self, used: set[Symbol | None], state: set[Symbol]) -> bool:
        """Whether what a stretch uses is the object and nothing else that changes."""
        mine = used & state
        return bool(mine) and mine <= set(self.roles)

    def told(self, refs: Sequence[Reference]) -> list[str]:
        """What of the object is used, in order."""
        return [r.name for r in refs if r.symbol in self.roles]

    def sets(self, refs: Sequence[Reference]) -> list[str]:
        """What of the object is changed, in order."""
        return [r.name for r in refs if (r.writes or r.mutates) and r.symbol in self.roles]

    @property
    def named(self) -> frozenset[str]:
        """Variables that lines over it go on using by their name."""
        return frozenset(s.name for s in self.roles)

    @property
    def of_item(self) -> bool:
        """Whether it is one of those of a list."""
        return False

    def types(self) -> dict[str, str]:
        """The types of variables, where nothing is written of them."""
        return {}

    def indexes(self, start: int, end: int) -> list[tuple[int, int]]:
        """Where a stretch says which one it is about."""
        return []

    @property
    def parted(self) -> bool:
        """Whether what the author set apart is told apart."""
        return False

    def goes_along(self, s: Statement) -> bool:
        """Whether a statement that says nothing of it may stand among its lines."""
        return False

    def shows(self, start: int, end: int) -> bool:
        """Whether a stretch draws or sounds, as lines over such a thing may."""
        return False

    def may_call(self, at: int) -> bool:
        """Whether lines over it may call what is called at a place, whatever that does."""
        return False

    def own_code(self, f: Function, used: set[Symbol]) -> bool:
        """Whether a function is this object's own anyway. ``used``: what changes and it uses."""
        return self.number >= 0 or len(used & set(self.roles)) * 2 >= len(used)

    def spoken(self, write: Text) -> dict[str, list[str]]:
        """Variable → what it is called in words."""
        return {s.name: list(write.words(s.name)) for s in self.roles}

    def worth(self, refs: Sequence[Reference], s: Statement) -> bool:
        """Whether one plain statement is worth a method. ``refs``: where it uses the object's variables."""
        sets = {r.symbol for r in refs if r.writes or r.mutates}
        return s.kind == "assign" and any(r.symbol in sets for r in refs if r.role != "write")


@dataclass(frozen=True, eq=False)
class Evident(Thing):
    """A thing that all that speaks of its variables tells of; it may draw itself on what is made once.

    ``companions``: variables that are bound once, which its lines may be handed; ``about``: what calls are for.
    """

    companions: frozenset[Symbol] = frozenset()
    about: Concerns | None = None

    @property
    def parted(self) -> bool:
        return True

    def worth(self, refs: Sequence[Reference], s: Statement) -> bool:
        """Of what is counted, each count."""
        return super().worth(refs, s) or self.stem.endswith(TALLY)

    def only(self, used: set[Symbol | None], state: set[Symbol]) -> bool:
        mine = used & state
        return bool(mine & set(self.roles)) and mine - self.companions <= set(self.roles)

    def goes_along(self, s: Statement) -> bool:
        """What only sets the pen of a sketch, or works out a value for lines that follow."""
        if self.about is None or not self.about.language.joined:
            return False
        file, language = self.about.file, self.about.language
        used = [r for r in file.within(s.start, s.end) if r.symbol is not None and "variable" in r.symbol.kinds]
        if s.kind == "expression":
            calls = list(file.calls_within(s.start, s.end))
            return not used and self.shows(s.start, s.end) and not any(c.callee.name in WHOLE for c in calls)
        local = all(r.symbol is not None and r.symbol.scope is not file.scope for r in used)
        worked_out = s.value is not None and language.purity(file, s.value) != "effect"
        return s.kind in ("assign", "annotate") and bool(used) and local and worked_out

    def shows(self, start: int, end: int) -> bool:
        """Whether a stretch draws or sounds."""
        return self.about is not None and any(c in SHOWING for c, _ in self.about.direct(start, end))

    def may_call(self, at: int) -> bool:
        """Whether what is called at a place draws or sounds; in a sketch, whether it does not talk."""
        if self.about is None:
            return False
        concern = self.about.found.get(at)
        return concern in SHOWING or (self.about.language.joined and concern not in TALKING)

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """A condition that leads to its lines asks about it, and so does what is drawn: what asks for keys alone is for
        those who own it."""
        if self.about is None:
            return True
        language = self.about.language
        if any(start <= at < end for at in self.firsts):
            return False
        mine = sorted(r.start for s in self.roles for r in s.references if start <= r.start < end)
        last = -1
        for s in sorted(statements_between(file, language, start, end), key=lambda s: (s.start, -s.end)):
            blocks = language.regions.blocks(file, s)
            head = blocks[0].start if blocks else s.end
            outermost, last = s.start >= last, max(last, s.end)
            asks = s.kind in ("if", "match") and outermost
            told = any(s.start <= at < head for at in mine) or (not asks and self.passing(s.start, head, start, end))
            told = told or (not asks and self.goes_along(s))
            if (asks or self.shows(s.start, head)) and not told:
                return False
        return True

    def own_code(self, f: Function, used: set[Symbol]) -> bool:
        """A function that is named after it, or that works on it and draws nothing else."""
        if not super().own_code(f, used - self.companions) or self.about is None:
            return False
        file, language = self.about.file, self.about.language
        if f.name in language.hooks(file):
            return False
        if any(says(w, {self.stem}) for w in language.write.words(f.name)):
            return True
        body = [s for s in language.body(file, f) if s.kind not in ("docstring", "declare")]
        rows = [s for s in body if not any(r.symbol in self.roles for r in file.within(s.start, s.end))]
        return not any(self.shows(s.start, s.end) for s in rows)

    @cached_property
    def firsts(self) -> list[int]:
        """Where its variables get their first values."""
        assert self.about is not None
        kinds = classify(self.about.file, self.about.language)
        return [k.first.start for s in self.roles if (k := kinds.get(s)) is not None and k.first is not None]

    def passing(self, start: int, end: int, first: int, last: int) -> bool:
        """Whether a statement uses variables of nobody but a stretch of lines."""
        assert self.about is not None
        used = {
            r.symbol
            for r in self.about.file.within(start, end)
            if r.symbol is not None and "variable" in r.symbol.kinds
        }
        kinds = classify(self.about.file, self.about.language)
        changing = [s for s in used if s not in kinds or kinds[s].nature != "constant"]
        return bool(changing) and all(first <= r.start < last for s in changing for r in s.references)


def statements_between(file: SourceFile, language: Language, start: int, end: int) -> list[Statement]:
    """Every statement of a stretch, those inside others after them."""
    f = file.function_at(start)
    body = language.body(file, f) if f is not None else file.statements
    rows = [body, *(b.statements for _, b in all_blocks(file, language, body) if not further(b))]
    return [s for row in rows for s in row if start <= s.start and s.end <= end]


def things(
    file: SourceFile, language: Language, free_: Sequence[Symbol], evident: Sequence[EvidentThing] = ()
) -> list[list[Thing]]:
    """Rows of objects that variables tell of: numbered copies, those that all evidence tells of, and those with a first
    word in common."""
    found: list[list[Thing]] = []
    for family in families(file, language, list(free_)):
        stem = family.stem or (family.told.told[0] if family.told is not None else "")
        if stem:
            found.append([
                Thing(stem, n, {row[n]: p for p, row in family.variables.items() if n in row}) for n in family.numbers
            ])  # fmt: skip
    taken = {s for row in found for t in row for s in t.roles}
    kinds = classify(file, language)
    companions = frozenset(s for s, v in kinds.items() if v.nature == "companion")
    about = Concerns(file, language, Effects(file, language)) if evident else None
    for thing in evident:
        mine = {s: s.name for s in thing.symbols if s not in taken}
        if mine:
            found.append([Evident(thing.noun, -1, mine, companions - set(mine), about)])
            taken |= set(mine)
    stems: dict[str, dict[Symbol, str]] = {}
    for s in free_:
        if s not in taken and (word := first_word(s.name, language.write.words)):
            stems.setdefault(word, {})[s] = s.name
    return found + [[Thing(word, -1, roles)] for word, roles in stems.items() if len(roles) > 1]


@dataclass(frozen=True, eq=False)
class OneOfMany(Thing):
    """One of several objects of a class; ``design``: the class that they would make."""

    design: ClassDesign = field(default_factory=lambda: ClassDesign(""))

    @property
    def of_item(self) -> bool:
        return True

    def worth(self, refs: Sequence[Reference], s: Statement) -> bool:
        """Where a value is worked out from what it was, or changes by another one."""
        mine = self.told(refs)
        return mine.count(mine[0]) > 1 or (s.kind == "augment" and len(set(mine)) > 1)


@dataclass(frozen=True, eq=False)
class Item(OneOfMany):
    """One object of those that lists with one index hold. ``uses``: of the lists."""

    uses: list[ListUse] = field(default_factory=list)

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """The index is a variable by itself, the same everywhere, which the stretch does not change."""
        uses = [self.uses[i] for i in range(bisect_left(self.starts, start), bisect_left(self.starts, end))]
        if any(u.kind != "item" for u in uses) or len({file.slice(*u.parts[0]) for u in uses}) != 1:
            return False
        refs = {(r.start, r.end): r for r in file.within(start, end)}
        found = [refs.get(u.parts[0]) for u in uses]
        index = found[0].symbol if found[0] is not None else None
        if index is None or index in self.roles or any(r is None or r.symbol is not index for r in found):
            return False
        return not any(r.symbol is index and (r.writes or (r.start, r.end) not in self.spans) for r in refs.values())

    @cached_property
    def starts(self) -> list[int]:
        return [u.ref.start for u in self.uses]

    @cached_property
    def spans(self) -> set[Span]:
        return {u.parts[0] for u in self.uses if u.kind == "item"}

    def indexes(self, start: int, end: int) -> list[Span]:
        uses = [self.uses[i] for i in range(bisect_left(self.starts, start), bisect_left(self.starts, end))]
        return sorted(u.parts[0] for u in uses if u.kind == "item")

    def own_code(self, f: Function, used: set[Symbol]) -> bool:
        """A function that is handed the index becomes a method whole."""
        handed = {f.scope.symbols[p.name] for p in f.params if p.name in f.scope.symbols}
        inside = set(self.indexes(f.start, f.end))
        return used <= set(self.roles) and any((r.start, r.end) in inside for s in handed for r in s.references)

    def spoken(self, write: Text) -> dict[str, list[str]]:
        return {s.name: list(write.words(name)) for s, name in self.roles.items()}


def item_things(program: Program, file: SourceFile, free_: Iterable[Symbol], taken: set[str]) -> list[Item]:
    """The objects of lists that are to become one list. ``taken``: names of classes."""
    found: list[Item] = []
    for made in records(file, program.language, free_):
        design = class_of_lists(program, file, made, taken)
        names = {o.local: f.name for f in design.fields for o in f.origins}
        uses = sorted((u for s in made.lists for u in made.uses[s]), key=lambda u: u.ref.start)
        found.append(Item(design.objects[0].name, -1, {s: names[s.name] for s in made.lists}, design, uses))
        taken = taken | {design.name}
    return found


@dataclass(frozen=True, eq=False)
class Held(OneOfMany):
    """A record that a variable holds, of those that are to be objects of a class; ``roles``: all such variables."""

    found: Keyed = field(default_factory=Keyed)

    @property
    def named(self) -> frozenset[str]:
        return frozenset()  # what holds it is handed over

    def types(self) -> dict[str, str]:
        return {s.name: self.design.name for s in self.roles}

    @cached_property
    def keys(self) -> dict[int, tuple[str, bool]]:
        """Where a record is told → which of its keys is used there, and whether it is set."""
        return {at: (key, set_) for at, _, key, set_ in self.found.uses}

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """One variable, of which nothing is used but keys."""
        refs = [r for r in file.within(start, end) if r.symbol in self.roles]
        return len({r.symbol for r in refs}) == 1 and all(r.end in self.keys and not r.writes for r in refs)

    def only(self, used: set[Symbol | None], state: set[Symbol]) -> bool:
        return bool(used & set(self.roles)) and not (used & state) - set(self.roles)

    def told(self, refs: Sequence[Reference]) -> list[str]:
        return [self.keys[r.end][0] for r in refs if r.symbol in self.roles and r.end in self.keys]

    def sets(self, refs: Sequence[Reference]) -> list[str]:
        return [
            self.keys[r.end][0]
            for r in refs
            if r.symbol in self.roles and r.end in self.keys and (self.keys[r.end][1] or r.mutates)
        ]

    def own_code(self, f: Function, used: set[Symbol]) -> bool:
        """A function that is handed the record becomes a method whole."""
        return f in self.found.handed

    def spoken(self, write: Text) -> dict[str, list[str]]:
        words = {key: list(write.words(key)) for key in self.found.keys}
        return {form: words[key] for key in words for form in (key, f'"{key}"', f"'{key}'")}


def held_things(program: Program, file: SourceFile, free_: Iterable[Symbol], taken: set[str]) -> list[Held]:
    """The records in keyed tables that are to be objects. ``taken``: names of classes."""
    names, made = {s.name for s in free_}, []
    for found in program.language.keyed(file):
        roots = roots_of(file, found) if worth_a_class(file, found) and found.names <= names else []
        if roots:
            design = keyed_class(program, file, found, roots, taken)
            made.append(Held(design.objects[0].name, -1, {s: s.name for s in found.holders}, design, found))
            taken = taken | {design.name}
    return made
