"""How the classes of a design hang together and on each other, told from the functions as they stand."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.effects import Effects
from ..design.origin import Origin
from ..design.tables import ClassDesign, Design
from ..program.model import Function, SourceFile, Symbol
from ..program.program import Program


@dataclass
class Ties:
    """How well the classes of a design keep to themselves, told from the functions as they stand.

    ``coupling``: mean number of other classes whose fields or methods a class uses (Chidamber and Kemerer: A metrics
    suite for object oriented design, 1994). ``across``: calls from a method of one class to a method of another.
    """

    coupling: float
    across: int


def members_taken(c: ClassDesign) -> frozenset[Origin]:
    """The variables and functions that a class takes over."""
    origins = [*(f.origins for f in c.fields), *(m.origins for m in c.methods)]
    return frozenset(o for names in origins for o in names if o)


def ties(program: Program, design: Design) -> Ties:
    """How the classes of a design hang together and on each other."""
    used: list[set[str]] = []
    across = 0
    for file in program.files.values():
        owner = owners(file, design)
        for name, mine, others in uses_of_others(file, program, design):
            used.append(others)
            calls = [x for f in mine for x in file.calls_within(f.start, f.end)]
            across += sum(owner.get(x.callee.symbol, name) != name for x in calls if x.callee.symbol is not None)
    return Ties(round(sum(map(len, used)) / len(used), 2) if used else 0.0, across)


def uses_of_others(
    file: SourceFile, program: Program, design: Design
) -> Iterator[tuple[str, list[Function], set[str]]]:
    """(class, its functions, the other classes whose members these use) of each class that has something of a file."""
    owner, effects = owners(file, design), Effects(file, program.language)
    for c in [c for c in design.classes if c.name in owner.values()]:
        mine = [f for f in file.functions if f.symbol is not None and owner.get(f.symbol) == c.name]
        touches = [effects.direct(f.start, f.end) for f in mine]
        yield c.name, mine, {owner[s] for t in touches for s in (t.names | t.uses) & owner.keys()} - {c.name}


def owners(file: SourceFile, design: Design) -> dict[Symbol, str]:
    """The variables and functions of a file with the class that takes each over."""
    return {s: c.name for c in design.classes for s in owned(file, c)}


def owned(file: SourceFile, c: ClassDesign) -> list[Symbol]:
    symbols = file.scope.symbols
    return [symbols[o.local] for o in sorted(members_taken(c), key=str) if o.local in symbols and o.of_file(file.path)]
