"""What is done with numbered copies: with all of them in turn, or with one or another in branches that are alike."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ...analysis.construction import plan_construction
from ...analysis.families import Family
from ...analysis.regions.region import all_blocks
from ...analysis.startup import running
from ...design.origin import local_name
from ...design.tables import ClassDesign
from ...naming.identifiers import free, like
from ...naming.inflection import plural
from ...program.model import Statement, Symbol
from .candidates import Candidate
from .facts import FileFacts


def keep_together(facts: FileFacts, family: Family, candidate: Candidate, made: ClassDesign) -> None:
    """Keep the objects in a list, where some place does the same with each of them in turn; hand them to one method,
    where branches do the same with one or another."""
    language, write = facts.language, facts.write
    if not (language.code_at_top or language.joined) or len(candidate.objects) < 2:
        return
    told = Copies(facts, family, candidate)
    words = [family.stem] if family.stem else write.words(candidate.name)
    wishes = facts.task.wishes
    asked = any(made.name in w.collect for w in wishes)
    if ((at := told.in_turn()) >= 0 or asked) and not any(made.name in w.separate for w in wishes):
        name = write.member_name([*words[:-1], plural(words[-1])], like(facts.file))
        made.kept_in = free(name, facts.names)
        alike = f"line {facts.file.shown(at)} does the same with each of them in turn"
        made.why.append(alike if at >= 0 else "you asked for a list of them")
    for places in told.branches() if language.code_at_top else ():
        name = free(write.member_name(["handle", *words], like(facts.file)), facts.names | set(made.branches))
        made.branches.append(name)
        lines = " and ".join(str(facts.file.shown(at)) for at in places)
        made.why.append(f"lines {lines} begin branches that are alike but for the object, which {name} is handed")


class Copies:
    """Where the file speaks of the copies."""

    def __init__(self, facts: FileFacts, family: Family, candidate: Candidate) -> None:
        self.facts, self.file, self.language = facts, facts.file, facts.language
        self.numbers = family.numbers
        rows = [(p, row) for p, row in family.variables.items()]
        self.number: dict[Symbol, int] = {s: n for _, row in rows for n, s in row.items()}
        self.role: dict[Symbol, str] = {s: p for p, row in rows for s in row.values()}
        self.own = {f.symbol for f in candidate.functions}
        for fit in [f for f in candidate.fits if len(f.functions) == len(family.numbers)]:
            for n, f in zip(family.numbers, fit.functions, strict=True):
                if f.symbol is not None:
                    self.number[f.symbol], self.role[f.symbol] = n, fit.functions[0].name

    def rows(self) -> Iterator[Sequence[Statement]]:
        """Every block of statements outside of the copies' own functions."""
        functions = [f for f in self.file.tops if f.symbol not in self.own]
        for body in [self.file.statements, *(self.language.body(self.file, f) for f in functions)]:
            yield body
            yield from (b.statements for _, b in all_blocks(self.file, self.language, body))

    def shape(self, first: Statement, last: Statement, number: int) -> tuple[str, ...]:
        """Statements about one copy alone, without what says which; nothing if they are about none, or others."""
        refs = [r for r in self.file.within(first.start, last.end) if r.symbol in self.number]
        if not refs or any(r.symbol is None or self.number[r.symbol] != number for r in refs):
            return ()
        edits = [(r.start, r.end, "\1" + self.role[r.symbol]) for r in refs if r.symbol is not None]
        return tuple(self.language.tokens(self.file, first.start, last.end, edits))

    def in_turn(self) -> int:
        """Where neighbouring statements do the same with one copy after the other; -1 if none do."""
        for row in self.rows():
            for at in range(len(row) - len(self.numbers) + 1):
                found = row[at : at + len(self.numbers)]
                told = {self.shape(s, s, n) for n, s in zip(self.numbers, found, strict=True)}
                if len(told) == 1 and all(told) and all(s.kind == "expression" for s in found):
                    return found[0].start
        return -1

    def branches(self) -> list[list[int]]:
        """Where blocks begin that do the same with different copies."""
        found: dict[tuple[str, ...], dict[int, int]] = {}
        for row in self.rows():
            if len(row) < 2 or row is self.file.statements:
                continue
            for n in self.numbers:
                if shape := self.shape(row[0], row[-1], n):
                    found.setdefault(shape, {}).setdefault(n, row[0].start)
        return [sorted(places.values()) for places in found.values() if len(places) > 1]


def without_unkept(facts: FileFacts, classes: Sequence[ClassDesign]) -> dict[str, str]:
    """Leave every object its variable where a list could not take its place; class → why."""
    found = {}
    has_app = any(c.role == "app" for c in classes)
    for c in [c for c in classes if c.kept_in or c.branches]:
        if why := why_unkept(facts, classes, c, has_app):
            found[c.name] = why
            told = [*c.branches, "in turn", "a list of them"]
            c.kept_in, c.branches = "", []
            c.why = [w for w in c.why if not any(w.endswith(t) or f", which {t} is" in w for t in told)]
    return found


def why_unkept(facts: FileFacts, classes: Sequence[ClassDesign], c: ClassDesign, has_app: bool) -> str:
    """Why a list cannot take the place of the objects' variables; "" if it can."""
    names, owners = {o.name for o in c.objects}, {o.owner for o in c.objects}
    methods = {a["value"]: m.name for x in classes for m in x.methods for a in m.add}
    if handed := {local_name(value): name for value, name in methods.items() if local_name(value) in names}:
        first = min(handed)
        return f"{handed[first]} is handed {first}"
    if len(owners) > 1:
        return "they belong to different classes"
    if has_app and owners == {""}:  # the main code's own, which goes to run
        return "only the main code uses them"
    return "" if made_together(facts, c) else "they are not made one after the other from plain values"


def made_together(facts: FileFacts, c: ClassDesign) -> bool:
    """Whether the objects of a class are made one after the other, from plain values."""
    symbols = facts.file.scope.symbols
    count = len(c.objects)
    fields = [f for f in c.fields if len(f.origins) == count and any(f.origins)]
    rows = [[symbols.get(f.origins[i].local) if f.origins[i] else None for f in fields] for i in range(count)]
    mine = {s for row in rows for s in row if s is not None}
    founding = plan_construction(
        facts.file, facts.effects, facts.language, rows, set(), set(facts.constants), c.objects[0].owner != ""
    )
    if any(founding.kind(i) == "later" for i in range(len(rows[0]))) or None in founding.at:
        return False
    places = sorted(at.start for at in founding.at if at is not None)
    between = [s for s in running(facts.file, facts.language) if places[0] <= s.start < places[-1]]
    plain = [start.value for row in founding.starts for start in row if start.statement is not None]
    return all(s.target is not None and s.target.symbol in mine for s in between) and all(
        facts.language.purity(facts.file, value) != "effect"
        and all(
            r.symbol in facts.constants or r.symbol is None or not r.symbol.kinds for r in facts.file.within(*value)
        )
        for value in plain
    )
