"""Proposals that really differ: the same program, divided by other ideas of what belongs together."""

from __future__ import annotations

from dataclasses import dataclass

from ..analysis.effects import Effects
from ..design.origin import Origin
from ..design.tables import ClassDesign, Design, WishDesign
from ..program.model import SourceFile, Symbol
from ..program.program import Program
from .drafter import draft

IDEAS = {
    "use": "what functions set and use together",
    "few": "few classes: what was written twice, and one that runs the rest",
    "plain": "no class around the main code; more of what functions share becomes classes",
    "many": "many classes: only what is set together",
    "names": "variables whose names begin alike",
}


@dataclass
class Rival:
    """A proposal, and the idea that it follows."""

    idea: str
    design: Design


@dataclass
class Ties:
    """How well the classes of a design keep to themselves, told from the functions as they stand.

    ``coupling``: mean number of other classes whose fields or methods a class uses (Chidamber and Kemerer: A metrics
    suite for object oriented design, 1994). ``across``: calls from a method of one class to a method of another.
    """

    coupling: float
    across: int


def rivals(program: Program, wishes: list[WishDesign], most: int, entries: list[str] | None = None) -> list[Rival]:
    """Up to ``most`` designs of which no two have the same classes; the one that ``draft`` gives comes first."""
    found: list[Rival] = []
    seen: list[set[frozenset[Origin]]] = []
    for idea in IDEAS:
        design = draft(program, entries, wishes, idea)
        classes = {members_taken(c) for c in design.classes}
        if len(found) < most and classes not in seen and (classes or not found):
            found.append(Rival(idea, design))
            seen.append(classes)
    return found


def members_taken(c: ClassDesign) -> frozenset[Origin]:
    """The variables and functions that a class takes over."""
    origins = [*(f.origins for f in c.fields), *(m.origins for m in c.methods)]
    return frozenset(o for names in origins for o in names if o)


def ties(program: Program, design: Design) -> Ties:
    """How the classes of a design hang together and on each other."""
    used: list[set[str]] = []
    across = 0
    for file in program.files.values():
        owner = {s: c.name for c in design.classes for s in owned(file, c)}
        effects = Effects(file, program.language)
        for c in (c for c in design.classes if any(n == c.name for n in owner.values())):
            mine = [f for f in file.functions if f.symbol is not None and owner.get(f.symbol) == c.name]
            touches = [effects.direct(f.start, f.end) for f in mine]
            used.append({owner[s] for t in touches for s in (t.names | t.uses) & owner.keys()} - {c.name})
            calls = [x for f in mine for x in file.calls_within(f.start, f.end) if x.callee.symbol in owner]
            across += sum(1 for x in calls if x.callee.symbol is not None and owner[x.callee.symbol] != c.name)
    return Ties(round(sum(map(len, used)) / len(used), 2) if used else 0.0, across)


def owned(file: SourceFile, c: ClassDesign) -> list[Symbol]:
    symbols = file.scope.symbols
    return [symbols[o.local] for o in sorted(members_taken(c), key=str) if o.local in symbols and o.of_file(file.path)]
