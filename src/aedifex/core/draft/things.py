"""The objects that variables tell of before they are classes: what they hold, and which of a stretch of lines is about one of them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..program.language import Language
from ..program.lists import ListUse, Span
from ..program.model import Function, Program, Reference, SourceFile, Statement, Symbol
from ..survey.families import families
from ..survey.groups import first_word
from .collections import proposed
from .design import ClassDesign, bare
from .records import records


@dataclass(frozen=True)
class Thing:
    """The variables of one object; ``number`` of a numbered one, -1 for the only one."""

    stem: str
    number: int
    roles: dict[Symbol, str]

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """Whether all of a stretch is about the same object."""
        return True

    @property
    def of_item(self) -> bool:
        """Whether it is one of those of a list."""
        return False

    def indexes(self, start: int, end: int) -> list[tuple[int, int]]:
        """Where a stretch says which one it is about."""
        return []

    def own_code(self, f: Function, used: set[Symbol | None]) -> bool:
        """Whether a function is this object's own anyway. ``used``: what changes and it uses."""
        return self.number >= 0 or len(used & set(self.roles)) * 2 >= len(used)

    def spoken(self, write: Any) -> dict[str, list[str]]:
        """Variable → what it is called in words."""
        return {s.name: list(write.words(s.name)) for s in self.roles}

    def worth(self, refs: Sequence[Reference], s: Statement) -> bool:
        """Whether one plain statement is worth a method. ``refs``: where it uses the object's variables."""
        sets = {r.symbol for r in refs if r.writes or r.mutates}
        return s.kind == "assign" and any(r.symbol in sets for r in refs if r.role.value != "write")

    def __hash__(self) -> int:
        return hash((self.stem, self.number))


def things(file: SourceFile, language: Language, free_: Sequence[Symbol]) -> list[list[Thing]]:
    """Rows of objects that variables tell of by their names: numbered copies, and those with a first word in common."""
    found = []
    for family in families(file, language, list(free_)):
        stem = family.stem or (family.told.told[0] if family.told is not None else "")
        if stem:
            found.append([
                Thing(stem, n, {row[n]: p for p, row in family.variables.items() if n in row}) for n in family.numbers
            ])  # fmt: skip
    taken = {s for row in found for t in row for s in t.roles}
    stems: dict[str, dict[Symbol, str]] = {}
    for s in free_:
        if s not in taken and (word := first_word(s.name, language.write.words)):
            stems.setdefault(word, {})[s] = s.name
    return found + [[Thing(word, -1, roles)] for word, roles in stems.items() if len(roles) > 1]


@dataclass(frozen=True)
class Item(Thing):
    """One object of those that lists with one index hold. ``uses``: of the lists; ``design``: the class that they would make."""

    uses: list[ListUse] = field(default_factory=list)
    design: ClassDesign = field(default_factory=lambda: ClassDesign(""))

    def __hash__(self) -> int:
        return hash((self.stem, self.number))

    @property
    def of_item(self) -> bool:
        return True

    def one(self, file: SourceFile, start: int, end: int) -> bool:
        """The index is a variable by itself, the same everywhere, which the stretch does not change."""
        uses = [u for u in self.uses if start <= u.ref.start < end]
        if any(u.kind != "item" for u in uses) or len({file.slice(*u.parts[0]) for u in uses}) != 1:
            return False
        refs = {(r.start, r.end): r for r in file.within(start, end)}
        found = [refs.get(u.parts[0]) for u in uses]
        index = found[0].symbol if found[0] is not None else None
        if index is None or index in self.roles or any(r is None or r.symbol is not index for r in found):
            return False
        return not any(r.symbol is index and (r.writes or (r.start, r.end) not in self.spans) for r in refs.values())

    @property
    def spans(self) -> set[Span]:
        return {u.parts[0] for u in self.uses if u.kind == "item"}

    def indexes(self, start: int, end: int) -> list[Span]:
        return sorted(s for s in self.spans if start <= s[0] < end)

    def own_code(self, f: Function, used: set[Symbol | None]) -> bool:
        """A function that is handed the index becomes a method whole."""
        handed = {f.scope.symbols[p.name] for p in f.params if p.name in f.scope.symbols}
        inside = {r for u in self.uses if u.kind == "item" and f.start <= u.ref.start < f.end for r in [u.parts[0]]}
        return used <= set(self.roles) and any((r.start, r.end) in inside for s in handed for r in s.references)

    def spoken(self, write: Any) -> dict[str, list[str]]:
        return {s.name: list(write.words(name)) for s, name in self.roles.items()}

    def worth(self, refs: Sequence[Reference], s: Statement) -> bool:
        """Where a value is worked out from what it was, or changes by another one."""
        first = min(refs, key=lambda r: r.start).symbol
        return sum(r.symbol is first for r in refs) > 1 or (s.kind == "augment" and len({r.symbol for r in refs}) > 1)


def item_things(program: Program, file: SourceFile, free_: Iterable[Symbol], taken: set[str]) -> list[Item]:
    """The objects of lists that are to become one list. ``taken``: names of classes."""
    found: list[Item] = []
    for made in records(file, program.language, free_):
        design = proposed(program, file, made, taken)
        names = {bare(o): f.name for f in design.fields for o in f.origins}
        uses = [u for s in made.lists for u in made.uses[s]]
        found.append(Item(design.objects[0].name, -1, {s: names[s.name] for s in made.lists}, uses, design))
        taken = taken | {design.name}
    return found
