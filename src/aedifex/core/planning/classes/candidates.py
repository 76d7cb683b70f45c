"""The groups of variables of one file that may become classes: what a person asks for, numbered copies, and what is
used together."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from ...analysis.families import Family, families
from ...analysis.groups import first_word
from ...design.tables import ObjectDesign, StayDesign
from ...program.model import Function, Symbol
from ..clustering.grouping import by_name, connected, group, serving, set_together
from ..clustering.homes import homes
from ..clustering.refine import refined
from .eligibility import numbered_constants
from .facts import AskedClass, FileFacts, resting_on, with_fields, without_fields


@dataclass(eq=False)
class Candidate:
    """``rows``: for each object the variables of its fields; ``asked``: what a person said of it."""

    rows: list[list[Symbol | None]]
    family: Family | None = None
    asked: AskedClass | None = None
    fits: list[Fit] = field(default_factory=list)
    fixed: set[Symbol] = field(default_factory=set)  # constants that it takes over
    bound: bool = False  # whether its methods call functions that stay in the file and use its state
    name: str = ""
    objects: list[ObjectDesign] = field(default_factory=list)

    @property
    def symbols(self) -> set[Symbol]:
        return {s for row in self.rows for s in row if s is not None}

    @property
    def variables(self) -> list[Symbol]:
        """Its variables, object by object."""
        return [s for row in self.rows for s in row if s is not None]

    @property
    def functions(self) -> list[Function]:
        return [f for fit in self.fits for f in fit.functions]

    @property
    def label(self) -> str:
        """What to call it before it has a name."""
        if self.name or (self.asked is not None and self.asked.name):
            return self.name or self.asked.name  # type: ignore[union-attr]
        return f"the object of {self.variables[0].name}"

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
    reach: str = ""  # why nothing can be passed in, so that it uses what it needs by its name in the file


@dataclass(frozen=True)
class Candidates:
    """``facts``: with the constants that numbered copies take over as variables; ``rest``: variables that are grouped
    by their use; ``parts``: all groups of these, also those that are worth no class; ``stays``: what is found to
    stay."""

    facts: FileFacts
    asked: list[Candidate]
    copies: list[Candidate]
    groups: list[Candidate] = field(default_factory=list)
    rest: list[Symbol] = field(default_factory=list)
    parts: list[set[Symbol]] = field(default_factory=list)
    stays: list[StayDesign] = field(default_factory=list)

    @property
    def all(self) -> list[Candidate]:
        return [*self.asked, *self.copies, *self.groups]


def candidates_of(facts: FileFacts, lone: bool) -> Candidates:
    """All groups of a file. ``lone``: there is no main code that an app could take over."""
    asked = [wished_candidate(facts, a) for a in facts.asked]
    return grouped(with_copies(Candidates(facts, asked, [])), lone)


def without_candidates(found: Candidates, bad: list[Candidate], lone: bool) -> Candidates:
    """The others; where copies are given up, the rest is grouped anew."""
    facts = found.facts
    for c in bad:
        facts = without_fields(facts, c.fixed) if c.fixed else facts
    left = replace(
        found,
        facts=facts,
        asked=[c for c in found.asked if c not in bad],
        copies=[c for c in found.copies if c not in bad],
        groups=[c for c in found.groups if c not in bad],
    )
    return grouped(left, lone) if any(c.family is not None for c in bad) else left


def wished_candidate(facts: FileFacts, asked: AskedClass) -> Candidate:
    """What a person wants in one class; numbered copies are objects of it."""
    for family in families(facts.file, facts.language, asked.variables, asked=True):
        if family.symbols == set(asked.variables):
            return Candidate(rows_of_copies(family), family, asked)
    return Candidate([list(asked.variables)], asked=asked)


def rows_of_copies(family: Family) -> list[list[Symbol | None]]:
    """For each number the variables of the copy."""
    return [[row.get(n) for row in family.variables.values()] for n in family.numbers]


def with_copies(found: Candidates) -> Candidates:
    """With numbered copies; constants are one object's share of what they differ in."""
    facts = found.facts
    if facts.idea in ("app", "asked"):
        return found
    fixed_ones, stays = numbered_constants(facts)
    copies: list[Candidate] = []
    taken = {s for c in found.asked for s in c.symbols}
    free = [s for s in [*facts.variables, *fixed_ones] if s not in taken and s.name not in facts.seen.streams]
    for family in families(facts.file, facts.language, free):
        fixed = family.symbols & facts.constants
        if fixed == family.symbols or family.symbols & taken:
            continue
        freed = fixed | resting_on(facts, fixed)
        facts = with_fields(facts, freed)
        copies.append(Candidate(rows_of_copies(family), family, fixed=freed))
        taken |= family.symbols
    return replace(found, facts=facts, copies=copies, stays=[*found.stays, *stays])


def grouped(found: Candidates, lone: bool) -> Candidates:
    """With groups of the variables that no other candidate has."""
    facts = found.facts
    taken = {s for c in [*found.asked, *found.copies] for s in c.symbols}
    # the console is nobody's but the app's
    rest = [s for s in facts.variables if s not in taken and s.name not in facts.seen.streams]
    devices = {s for s in rest if is_device(facts, s)}
    parts = [set(symbols) for symbols in divided(facts, rest, devices, lone)]
    if complete(facts, lone):
        fixed = [c.symbols for c in [*found.asked, *found.copies]]
        parts = better_parts(facts, rest, devices, parts, fixed)
    place = {s: i for i, s in enumerate(rest)}
    several = [sorted(symbols, key=lambda s: place[s]) for symbols in parts if len(symbols) >= 2]
    groups = [Candidate([list(symbols)]) for symbols in sorted(several, key=lambda symbols: place[symbols[0]])]
    return replace(found, groups=groups, rest=rest, parts=parts)


def complete(facts: FileFacts, lone: bool) -> bool:
    """Whether every variable is to find a home, for no app takes what is left."""
    return lone and facts.idea == "use"


def better_parts(
    facts: FileFacts, rest: list[Symbol], devices: set[Symbol], parts: list[set[Symbol]], fixed: list[set[Symbol]]
) -> list[set[Symbol]]:
    """Better groups beside ``fixed``; devices that serve several things stay on their own."""
    words, effects, functions = facts.write.words, facts.effects, list(facts.functions)
    stems = {v: first_word(v.name, words) for v in rest}
    touches = [effects.direct(f.start, f.end) for f in functions]
    used = set().union(*(t.names for t in touches)) - serving(devices, touches, stems)
    groups = [*fixed, *(part for part in parts if part <= used)]
    start = homes(groups, functions, effects, words)
    groups, _ = refined(groups, start, functions, effects, words, len(fixed))
    return [*(g for g in groups[len(fixed) :] if g), *(part for part in parts if not part <= used)]


def divided(facts: FileFacts, rest: list[Symbol], devices: set[Symbol], lone: bool) -> list[list[Symbol]]:
    """The variables in groups, by the idea that the draft follows."""
    words, effects, functions = facts.write.words, facts.effects, list(facts.functions)
    if facts.idea == "asked":
        return []
    if facts.idea == "names":
        return by_name(rest, words)
    if facts.idea in ("few", "app"):
        return connected(rest, functions, effects) if lone else []
    if facts.idea == "many":
        writes = [effects.direct(f.start, f.end).writes - devices for f in functions]
        return set_together(rest, writes, {v: first_word(v.name, words) for v in rest})
    there = facts.file.scope.symbols  # what lists held is theirs by now
    told = [t for t in facts.seen.things if t.noun and all(n in there and there[n].kinds for n in t.names)]
    evident = [row for t in told if (row := [v for v in rest if v.name in t.names])]
    left = [v for v in rest if not any(v in row for row in evident)]
    things = [[v for v in left if v.name in t.names] for t in facts.seen.things if not t.noun]
    return [*evident, *group(left, functions, effects, words, devices, things)]


def evident_noun(facts: FileFacts, candidate: Candidate) -> str:
    """What a thing of the main code is called that has these variables; "" if they are none."""
    names = {s.name for s in candidate.symbols}
    return next((t.noun for t in facts.seen.things if t.noun and names <= t.names), "")


def is_device(facts: FileFacts, s: Symbol) -> bool:
    """Whether a variable is bound once, to something that is no plain data."""
    kind = facts.kinds[s]
    value = kind.first.value if kind.first is not None else None
    effect = value is not None and facts.language.purity(facts.file, value) == "effect"
    return kind.nature == "companion" and effect
