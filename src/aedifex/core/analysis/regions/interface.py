"""A region that could be a function of its own: what it takes, what it gives back, how it is left, and why it cannot be
one."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

from ...program.model import Scope, Statement, Symbol
from ...program.scopes import shadowed
from ..dataflow import Exits, Flow, Symbols, flow_of
from ..hazards import by_text
from ..late_reads import deferred
from ..variable_kinds import UNFIT, constants_of
from .region import Region, all_blocks, set_just_once

EXITS = Exits()


@dataclass
class Interface:
    """``takes``: variables handed over; ``gives``: those whose new value comes back; ``sets``: those of the file that
    it sets by name, or that are hidden where it stands; ``around``: those of functions around it that it sets by name.

    ``declares``: whether what it gives is declared there. ``leaves``: how it is left before its end: "return",
    "continue", "break" or "". ``trouble``: (why it cannot be lifted, where).
    """

    takes: list[Symbol] = field(default_factory=list)
    gives: list[Symbol] = field(default_factory=list)
    sets: list[Symbol] = field(default_factory=list)
    around: list[Symbol] = field(default_factory=list)
    declares: bool = False
    leaves: str = ""
    trouble: tuple[str, int] | None = None


def interface(region: Region, named: Symbols) -> Interface:
    """What a region needs and gives. ``named``: variables of the file that are used by their name, since they are its
    state."""
    return Cut(region, named).interface()


class Cut:
    """What a stretch of lines takes and gives."""

    def __init__(self, region: Region, named: Symbols) -> None:
        self.r, self.file, self.language = region, region.file, region.language
        self.frame = region.frame
        self.flow = flow_of(self.file, self.language, self.frame, region.body)
        self.named = named | self.carried()
        self.made = Interface()

    def interface(self) -> Interface:
        r = self.r
        if (trouble := self.forbidden() or self.exits() or self.late()) is not None:
            self.made.trouble = trouble
            return self.made
        reads = self.exposed()
        writes = self.flow.writes(r.start, r.end)
        at = r.statements[-1] if r.statements else r.around[-1]
        needed = self.needed(at)
        gives = {s for s in writes if s in needed and not self.by_name(s)}
        first = r.statements[0] if r.statements else r.around[-1]
        inside = {s for s in writes if self.language.declares and self.declared_inside(s)}
        outside = {s for s in inside if self.used_outside(s)}
        gives = (gives - inside) | outside  # what a block declares is another each time that it runs
        bound = self.flow.bound.get(first.start, frozenset())
        kept = gives - self.sure() if not self.language.declares else writes - inside
        takes = {
            s for s in reads | kept if not self.by_name(s) and self.frames(s) and s.name != r.beside.receiver
        } - inside
        unsure = sorted((s for s in takes if s not in bound and not self.there(s)), key=first_use)
        if unsure:
            self.made.trouble = (f"'{unsure[0].name}' may not be set yet where these lines begin", r.start)
        elif gives & self.flow.exits.get(at.start, EXITS).raised:
            self.made.trouble = ("a handler around these lines uses what they set", r.start)
        elif not r.statements and any(not self.by_name(s) and self.used_outside(s) for s in writes):
            self.made.trouble = ("the expression sets a variable", r.start)
        elif inside & gives and gives - inside:
            names = ", ".join(sorted(s.name for s in gives))
            self.made.trouble = (
                f"of {names}, which are needed afterwards, some are declared there and some before",
                r.start,
            )
        self.made.declares = bool(inside & gives)
        self.made.takes, self.made.gives = self.ordered(takes | self.crossed), self.ordered(gives)
        self.made.sets, self.made.around = self.set_by_name()
        self.made.trouble = self.made.trouble or self.annotated()
        return self.made

    def annotated(self) -> tuple[str, int] | None:
        """A variable of the file cannot be declared with its type in another function."""
        rows = [self.r.statements, *(b.statements for _, b in all_blocks(self.file, self.language, self.r.statements))]
        for s in (s for row in rows for s in row):
            if (
                s.annotation is not None
                and not self.language.declares
                and s.target is not None
                and s.target.symbol in self.made.sets
            ):
                return f"'{s.target.name}' is declared with its type there, and belongs to the file", s.start
        return None

    def declared_inside(self, s: Symbol) -> bool:
        return self.r.start <= min((x.start for x in s.bindings), default=-1) < self.r.end

    def used_outside(self, s: Symbol) -> bool:
        return any(not self.r.start <= x.start < self.r.end for x in s.references)

    def there(self, s: Symbol) -> bool:
        """Whether a declaration, which every path runs through, stands before: the language sees to that."""
        return self.language.declares and min((x.start for x in s.bindings), default=self.r.end) < self.r.start

    def set_by_name(self) -> tuple[list[Symbol], list[Symbol]]:
        """Variables of the file, and of functions around, that it must say are theirs."""
        sets, around = {}, {}
        for ref in self.file.within(self.r.start, self.r.end):
            s = ref.symbol
            if s is None or ref.scope.frame is not self.frame or s in self.crossed:
                continue
            if s.scope is self.file.scope and self.by_name(s) and (ref.writes or self.hidden(s.name)):
                sets[s] = True
            elif (
                ref.writes
                and s.scope.frame is not self.frame
                and s.scope is not self.file.scope
                and not s.scope.within(self.frame)
            ):
                around[s] = True
        return list(sets), list(around)

    def hidden(self, name: str) -> bool:
        """Whether a name of the file means something nearer where the new function stands."""
        return self.r.ground.site is not None and shadowed(self.r.ground.scope, name, self.file.scope)

    @cached_property
    def crossed(self) -> Symbols:
        """What belongs to functions between the lines and the place where their function stands."""
        return frozenset(s for s in self.r.crossed(self.r.ground.scope) if s.name != self.r.beside.receiver)

    def carried(self) -> Symbols:
        """Variables of the file that main code changes there from what they were, and needs again: they stay what they
        are."""
        r = self.r
        if r.function is not None or not r.statements:
            return frozenset()
        at = r.statements[-1].start
        after = self.flow.after.get(at, frozenset()) | self.flow.exits.get(at, EXITS).raised
        both = self.exposed() & self.flow.writes(r.start, r.end) & after
        return frozenset(
            s
            for s in both
            if s.scope is self.file.scope and s.kinds == {"variable"} and not any(x.form in UNFIT for x in s.bindings)
        )

    def ordered(self, found: set[Symbol]) -> list[Symbol]:
        """In the order in which they are first used inside."""
        place: dict[Symbol | None, int] = {}
        for ref in self.flow.refs(self.r.start, self.r.end):
            place.setdefault(ref.symbol, ref.start)
        return sorted(found, key=lambda s: (place.get(s, 0), s.name))

    def by_name(self, s: Symbol) -> bool:
        return s in self.named or (s.scope is self.file.scope and not s.kinds <= {"variable"} and not self.only_here(s))

    def only_here(self, s: Symbol) -> bool:
        """Whether a function is made by the lines, which do nothing but call it, and used nowhere else: it can be their
        own."""
        mine = all(self.r.start <= x.start < self.r.end and (x.writes or x.role == "call") for x in s.references)
        return mine and s.kinds == {"function"} and not any(f.decorators for f in self.file.functions if f.symbol is s)

    def frames(self, s: Symbol) -> bool:
        return bool(s.kinds & {"variable", "parameter", "import", "function", "class"})

    def exposed(self) -> set[Symbol]:
        """What is read before it is set inside."""
        r = self.r
        if not r.statements:
            return set(self.flow.reads(r.start, r.end))
        return set(self.inner.first)

    @cached_property
    def inner(self) -> Flow:
        """The flow of the statements alone."""
        return Flow(self.file, self.language, self.frame, self.r.statements, part=True)

    def sure(self) -> Symbols:
        """What is set for certain wherever the lines are left, whatever was set before."""
        ways = [self.inner.bound.get(at, frozenset()) for _, at in self.r.jumps()]
        ends = [self.inner.last, *ways] if self.inner.last is not None else ways
        return (
            frozenset.intersection(*map(frozenset, ends))
            if ends
            else frozenset(self.flow.writes(self.r.start, self.r.end))
        )

    def needed(self, at: Statement) -> Symbols:
        exits = self.flow.exits.get(at.start, EXITS)
        goes_on = self.r.statements and self.inner.last is not None
        found = self.flow.after.get(at.start, frozenset()) if goes_on else frozenset()
        ways = {"break": exits.broken, "continue": exits.continued}
        return found | exits.raised | ways.get(self.made.leaves, frozenset())

    @cached_property
    def ran(self) -> Scope:
        """The scope in whose run the lines lie: their function's, or that of a function of one expression around
        them."""
        r = self.r
        rows = [
            s for s in self.frame.walk() if s.start <= r.start and r.end <= s.end and s.kind in ("function", "lambda")
        ]
        return rows[-1] if rows else self.frame

    # -- what must not be ------------------------------------------------------------------------

    def forbidden(self) -> tuple[str, int] | None:
        r = self.r
        for ref in by_text(self.file, self.language, r.start, r.end):
            return f"'{ref.name}()' reaches names by their text", ref.start
        if r.ground.site is not None:
            for ref in by_text(self.file, self.language, r.ground.scope.start, r.ground.scope.end):
                return f"'{ref.name}()' would see the new function by its text", ref.start
        if at := next((x for x in self.file.star_imports if r.start <= x < r.end), 0):
            return "a star import stands there", at
        for d in self.file.declarations_within(r.start, r.end):
            if d.scope.frame is self.frame:
                return "a statement there says which names belong to the file", d.start
        for ref in self.flow.refs(r.start, r.end):
            if ref.role == "delete" and not self.by_name(ref.symbol):  # type: ignore[arg-type]
                return f"'{ref.name}' is deleted there", ref.start
            if ref.form == "spelled":
                return f"'{ref.name}' is spelled out by a self-documenting format", ref.start
        for ref in self.file.within(r.start, r.end):
            if (
                ref.writes
                and ref.symbol is not None
                and ref.symbol.scope is self.frame
                and ref.symbol.kinds & {"function", "class", "import"}
            ):
                outside = [o for o in ref.symbol.references if not r.start <= o.start < r.end]
                if outside:
                    return f"'{ref.name}' is defined there and used elsewhere", ref.start
            if ref.symbol in self.crossed and (ref.writes or not set_just_once(ref.symbol)):
                return (
                    f"'{ref.name}' belongs to a function that is made around it, and is no plain value there",
                    ref.start,
                )
        spans = [(s.start, s.end) for s in r.statements] or [(r.start, r.end)]
        return next(
            (t for a, b in spans if (t := self.language.regions.bound_to_function(self.file, a, b)) is not None), None
        )

    def exits(self) -> tuple[str, int] | None:
        """The ways out before the end must be one kind that a caller can follow."""
        found: dict[str, int] = {}
        for kind, at in self.r.jumps():
            found.setdefault(kind, at)
        if not found:
            return None
        if len(found) > 1:
            kinds = " and by ".join(repr(k) for k in found)
            return f"these lines are left by {kinds}", min(found.values())
        kind, at = found.popitem()
        if kind == "return" and not self.ends():
            return "'return' leaves the lines before the function's end", at
        if kind == "continue" and not self.last_of_loop():
            return "'continue' leaves lines after which the loop's body goes on", at
        if kind == "break" and self.inner.last is None:
            return "these lines end the loop whenever they run; leave out the 'break'", at
        self.made.leaves = kind
        return None

    def ends(self) -> bool:
        """Whether nothing of the function comes after the lines."""
        r = self.r
        if r.function is None or r.statements[-1] is not r.block[-1]:
            return False
        return r.falls_through() or r.statements[-1].kind in ("return", "raise")

    def last_of_loop(self) -> bool:
        """Whether the loop goes on to its next turn after the lines anyway."""
        r = self.r
        if r.statements[-1] is not r.block[-1]:
            return False
        for s in reversed(r.around):
            if s.kind in ("for", "while"):
                return True
            if (
                s.kind not in ("if", "match")
                or any(b.role == "case" for b in self.language.regions.blocks(self.file, s))
                or not r.last(s)
            ):
                return False
        return False

    def late(self) -> tuple[str, int] | None:
        """Functions that run later see a variable as it is then: it must not change on one side only."""
        r = self.r
        for ref in self.flow.refs(r.start, r.end):
            s = ref.symbol
            if (
                s is None
                or s.scope.frame is not self.frame
                or (self.by_name(s) and not (self.language.declares and self.declared_inside(s)))
            ):
                continue
            inner = [
                o
                for o in s.references
                if deferred(o.scope, self.frame)
                and not (r.start <= o.start < r.end and not deferred(o.scope, self.ran))
            ]
            if not inner:
                continue
            if any(o.writes and not r.start <= o.start < r.end for o in inner) and self.file.calls_within(
                r.start, r.end
            ):
                return f"'{s.name}' may be changed by a function while these lines run", ref.start
            sides = {r.start <= o.start < r.end for o in inner}
            written = {r.start <= o.start < r.end for o in s.references if o.writes}
            looped = any(a.kind in ("for", "while") for a in r.around)
            if sides == {True} and written == {True} and not looped:
                continue
            if True in written and False in sides:
                return f"'{s.name}' is set there and used by a function that runs later", ref.start
            if True in sides and any(
                o.writes and not r.start <= o.start < r.end and (looped or o.start > r.start) for o in s.references
            ):
                return f"a function made there sees '{s.name}', which changes afterwards", ref.start
        return None


def first_use(s: Symbol) -> tuple[int, str]:
    return min((r.start for r in s.references), default=0), s.name


def state_names(region: Region) -> Symbols:
    """Variables of the file that a region of main code uses by their name: constants, and whatever other functions use
    as well."""
    file = region.file
    if region.function is not None:
        return frozenset(s for s in file.scope.symbols.values() if "variable" in s.kinds) | constants_of(
            file, region.language
        )
    if "state names" not in file.memo:
        constants = constants_of(file, region.language)
        others = {s for s in file.scope.symbols.values() if any(deferred(r.scope, file.scope) for r in s.references)}
        file.memo["state names"] = frozenset(constants | others)
    found: Symbols = file.memo["state names"]
    return found
