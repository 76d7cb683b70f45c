"""Which candidates are worth a class: each is given its functions, those that cannot be methods are left out, and what
earns no class by the rest is given up."""

from __future__ import annotations

from dataclasses import dataclass

from ...analysis.groups import common_stems, first_word
from ...design.tables import StayDesign
from ...naming.identifiers import says
from ...program.model import Symbol
from ..clustering.homes import homes
from ..clustering.refine import refined
from .candidates import Candidate, Candidates, Fit, candidates_of, complete, evident_noun, without_candidates
from .class_builder import ClassBuilder
from .dependencies import Settlement
from .facts import FileFacts


@dataclass(frozen=True)
class Selection:
    """The candidates that are worth a class, with their functions; why others are no methods, and what stays."""

    facts: FileFacts
    candidates: list[Candidate]
    why_not: dict[str, str]
    stays: list[StayDesign]


def select(facts: FileFacts, lone: bool) -> Selection:
    """What is worth a class in a file. ``lone``: there is no main code that an app could take over, so whatever
    functions share is worth more."""
    found = candidates_of(facts, lone)
    stays = list(found.stays)
    while True:
        why_not = give_functions(found, lone)
        bad = []
        for c in found.all:
            earned = deserves(found, c, lone)
            late = first_late(found.facts, c) if earned else None
            if late is not None:
                stays.append(worked_out_between(c.symbols, late.name))
            if late is not None or not earned:
                bad.append(c)
        if not bad:
            return Selection(found.facts, found.all, why_not, stays)
        found = without_candidates(found, bad, lone)


def give_functions(found: Candidates, lone: bool) -> dict[str, str]:
    """Give every candidate its functions; function → why it is no method."""
    facts = found.facts
    used: set[Symbol | None] = set()
    wanted = {s: c.symbols for c in found.asked if c.asked is not None for s in c.asked.functions}
    for c in [*found.asked, *found.copies]:
        if c.family is not None:
            members = ClassBuilder(facts, c.rows)
            elsewhere = used | {s for s, symbols in wanted.items() if symbols != c.symbols}
            fits = members.twins(c.family) + members.known()
            c.fits = [f for f in fits if not elsewhere & {g.symbol for g in f.functions}]
            used |= {f.symbol for f in c.functions}
    free = [f for f in facts.functions if f.symbol not in used]
    groups = [*(c.symbols for c in [*found.asked, *found.copies]), *found.parts]
    home = homes(groups, free, facts.effects, facts.write.words)
    if complete(facts, lone) and len(groups) > 1:
        home = refined(groups, home, free, facts.effects, facts.write.words, len(groups))[1]
    home |= named_after_things(found, groups) | {s: groups.index(symbols) for s, symbols in wanted.items()}
    mine: dict[frozenset[Symbol], list[Fit]] = {}
    for f in free:
        if f.symbol in home:
            mine.setdefault(frozenset(groups[home[f.symbol]]), []).append(Fit([f]))
    for c in found.all:
        if c.family is None:
            c.fits = mine.get(frozenset(c.symbols), [])
    for c in [c for c in found.all if c.family is None and evident_noun(facts, c)]:
        placed = {f.symbol for x in found.all for f in x.functions}
        c.fits += [fit for fit in ClassBuilder(facts, c.rows).known() if fit.functions[0].symbol not in placed]
    settlement = Settlement(facts, found.all, lone)
    settlement.settle()
    return settlement.why_not | not_copied(found, wanted)


def named_after_things(found: Candidates, groups: list[set[Symbol]]) -> dict[Symbol, int]:
    """Functions that are named after a thing of the main code and work on it → the group that is its."""
    facts, home = found.facts, dict[Symbol, int]()
    for c in found.groups:
        noun = evident_noun(facts, c)
        for f in facts.functions if noun and c.symbols in groups else ():
            named = any(says(w, {noun}) for w in facts.write.words(f.name))
            if named and f.symbol is not None and facts.effects.direct(f.start, f.end).names & c.symbols:
                home[f.symbol] = groups.index(c.symbols)
    return home


def not_copied(found: Candidates, wanted: dict[Symbol, set[Symbol]]) -> dict[str, str]:
    """The functions that a person wants with several objects, and that are no methods of them."""
    several = [c for c in found.asked if c.family is not None]
    inside = {f.symbol for c in several for f in c.functions}
    lost = [s for s, symbols in wanted.items() if s not in inside and any(c.symbols == symbols for c in several)]
    return {s.name: "it is not the same for each of the numbered objects" for s in lost}


def deserves(found: Candidates, candidate: Candidate, lone: bool) -> bool:
    """A group earns a class if a person asks for it, or if it has behaviour of its own and is not simply everything
    there is."""
    facts, symbols, fits = found.facts, candidate.symbols, candidate.fits
    if candidate.asked is not None:
        return True
    if candidate.family is not None:
        return bool(fits)
    sets = any(facts.effects.of(f.functions[0]).writes & symbols for f in fits)
    noun = bool(evident_noun(facts, candidate))
    changed = noun and any(len(s.bindings) > 1 or any(r.mutates for r in s.references) for s in symbols)
    if not sets and not changed and not (lone and is_shared(facts, candidate)):
        return False
    if lone:
        return len(fits) >= 2 or not facts.does_something
    stems = common_stems(candidate.rows[0], facts.write.words)
    named = [s for s in symbols if first_word(s.name, facts.write.words) in stems]
    spans = [(f.functions[0].start, f.functions[0].end) for f in fits]
    together = any(symbols <= facts.effects.direct(*span).writes for span in spans)
    one = together or len(named) * 2 >= len(symbols) or noun
    working = [f for f in fits if f.drop or facts.effects.direct(*span_of(f)).names & symbols]
    return one and len(fits) >= 2 and bool(working) and (noun or len(symbols) < len(found.rest))


def span_of(fit: Fit) -> tuple[int, int]:
    """Where the function of a fit stands, or the first of its twins."""
    return fit.functions[0].start, fit.functions[0].end


def is_shared(facts: FileFacts, candidate: Candidate) -> bool:
    """Whether several functions read several of the variables, whoever sets them."""
    firsts = [f.functions[0] for f in candidate.fits]
    touches = [facts.effects.direct(f.start, f.end).names & candidate.symbols for f in firsts]
    return sum(len(t) > 1 for t in touches) > 1


def first_late(facts: FileFacts, candidate: Candidate) -> Symbol | None:
    """A variable whose first value cannot be given where the object is made, in a language that has no other place for
    it."""
    if facts.language.code_at_top:
        return None
    founding = ClassBuilder(facts, candidate.rows).founding(candidate.fits, "model")
    late = [i for i in range(len(candidate.rows[0])) if founding.kind(i) == "later"]
    return next((s for row in candidate.rows if late and (s := row[late[0]]) is not None), None)


def worked_out_between(variables: set[Symbol], name: str) -> StayDesign:
    """No class, because a first value could only be given after the object is made."""
    names = ", ".join(sorted(s.name for s in variables))
    return StayDesign(name, f"no class for {names}: the first value of {name} is worked out from code between")
