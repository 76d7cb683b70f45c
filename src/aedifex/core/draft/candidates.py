"""Groups of variables that may become classes, and what their functions need of each other, worked out for all at once."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from ..program.model import Function, Symbol
from ..program.scopes import shadowed
from ..survey.effects import statement_order
from ..survey.families import Family
from .design import ObjectDesign

if TYPE_CHECKING:
    from .assign import Assigner


MOST = 6  # things that a method may be handed; one that needs more directs the others


@dataclass(eq=False)
class Candidate:
    """``rows``: for each object the variables of its fields; ``asked``: a person wants it."""

    rows: list[list[Symbol | None]]
    family: Family | None = None
    asked: bool = False
    fits: list[Fit] = field(default_factory=list)
    fixed: set[Symbol] = field(default_factory=set)  # constants that it takes over
    bound: bool = False  # whether its methods call functions that stay in the file and use its state
    name: str = ""
    objects: list[ObjectDesign] = field(default_factory=list)

    @property
    def symbols(self) -> set[Symbol]:
        return {s for row in self.rows for s in row if s is not None}

    def row_of(self, s: Symbol) -> int:
        return next(i for i, row in enumerate(self.rows) if s in row)


@dataclass(frozen=True)
class Link:
    """An object of a candidate, by its place among them."""

    of: Candidate
    index: int

    @property
    def name(self) -> str:
        return self.of.objects[self.index].name


Need = Symbol | Link


@dataclass
class Fit:
    """A function, or a row of twins, that fits a class."""

    functions: list[Function]
    drop: dict[str, int] = field(default_factory=dict)  # parameter → index of the field that it receives
    add: list[Need] = field(default_factory=list)  # somebody else's state, or object, that is passed in


class Settlement:
    """Leaves out what cannot be a method, until all that is left only calls and touches what it can be handed."""

    def __init__(self, assigner: Assigner, candidates: list[Candidate], lone: bool) -> None:
        self.a, self.candidates, self.lone = assigner, candidates, lone
        self.file, self.effects = assigner.file, assigner.effects
        self.owner = {s: c for c in candidates for s in c.symbols}
        # the class whose method a function becomes, and which of its twins it is
        self.where = {
            f.symbol: (candidate, fit, index) for candidate, fit in self.fits() for index, f in enumerate(fit.functions)
        }

    def settle(self) -> None:
        changed = True
        while changed:
            changed = False
            for candidate in self.candidates:
                candidate.bound = False
            for candidate, fit in list(self.fits()):
                needed = self.needs(candidate, fit)
                if needed is None:
                    candidate.fits.remove(fit)
                    for f in fit.functions:
                        del self.where[f.symbol]
                elif set(needed) == set(fit.add):
                    continue  # another order is no change: two that call each other would never agree on one
                else:
                    fit.add = needed
                changed = True

    def fits(self) -> Iterator[tuple[Candidate, Fit]]:
        for candidate in self.candidates:
            for fit in candidate.fits:
                yield candidate, fit

    def needs(self, mine: Candidate, fit: Fit) -> list[Need] | None:
        """What must be passed in, in order of first use; None if that is not possible."""
        needed: list[Need] = []
        for f in fit.functions:
            direct = self.effects.direct(f.start, f.end)
            for used in sorted(direct.uses, key=lambda s: s.name):
                more = self.called(mine, used)
                if more is None:
                    return None
                needed += [n for n in more if n not in needed]
            others = direct.names - mine.symbols - self.a.constants
            for s in sorted(others, key=lambda s: min(r.start for r in s.references if f.start <= r.start < f.end)):
                owner = self.owner.get(s)
                if owner is None and not self.passable(f, s):
                    return None
                need = Link(owner, owner.row_of(s)) if owner is not None else s
                needed += [need] if need not in needed else []
        if len(needed) > MOST or (needed and not all(self.can_be_handed(f, needed) for f in fit.functions)):
            return None
        return needed

    def called(self, mine: Candidate, used: Symbol) -> list[Need] | None:
        """What a method needs because it calls a function."""
        place = self.where.get(used)
        if place is None:
            bound = bool(self.effects.reach[used].names - self.a.constants)
            mine.bound |= bound and self.lone  # without an app, such a function stays beside the class
            return None if bound and not self.lone else []
        other, fit, index = place
        needed: list[Need] = [Link(other, index)] if other is not mine and not fit.drop else []
        for need in fit.add:
            if isinstance(need, Link) and need.of is mine:
                if len(mine.rows) > 1:
                    return None  # which of them it is, only the call knows
            elif need not in needed:
                needed.append(need)
        return needed

    def passable(self, f: Function, s: Symbol) -> bool:
        """Read only, whole, and unchanged while the function runs."""
        rebound_outside_main = any(r.writes and r.scope.frame is not self.file.scope for r in s.references)
        if s not in self.a.variables:
            return False
        if any((r.writes or r.form == "spelled") for r in self.file.within(f.start, f.end) if r.symbol is s):
            return False
        return not (rebound_outside_main and s in self.effects.of(f).writes)

    def can_be_handed(self, f: Function, needed: list[Need]) -> bool:
        if f.is_async or f.scope.generator or f.symbol in self.effects.escaped or f.symbol is None:
            return False
        if any(p.kind == "doublestar" for p in f.params):
            return False
        variables = [n for n in needed if isinstance(n, Symbol)]
        if not variables:
            return True
        if any(s.name in f.scope.symbols for s in variables):
            return False
        calls = self.file.calls_of(f.symbol)
        if any(shadowed(c.callee.scope, s.name, self.file.scope) for c in calls for s in variables):
            return False
        firsts = [min(s.bindings, key=lambda r: r.start) for s in variables]
        if any(first.scope is not self.file.scope for first in firsts):
            return False
        plain = {id(st.target) for st in self.file.statements if st.target is not None}
        if any(id(first) not in plain for first in firsts):
            return False
        latest = max(first.start for first in firsts)
        for statement in statement_order(self.file):
            if statement.start >= latest:
                return True
            if f.symbol in self.effects.touch(statement.start, statement.end).uses:
                return False
        return True
