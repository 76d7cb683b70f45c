"""Which of a frame's own variables are needed, and which are surely set, at each of its statements.

A frame is the main code of a file or the body of a function. Liveness (backwards) and definite assignment (forwards)
over its statements, as in Aho, Lam, Sethi, Ullman, "Compilers", 9.2; where a construct is not known in detail, more is
taken to be needed and less to be set.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from ..program.language import Language
from ..program.model import Block, Reference, Scope, SourceFile, Statement, Symbol

Symbols = frozenset[Symbol]
NONE: Symbols = frozenset()
LEAVING = frozenset({"return", "raise", "break", "continue"})


@dataclass
class Exits:
    """What is needed where ``break``, ``continue`` and an exception lead to."""

    broken: Symbols = NONE
    continued: Symbols = NONE
    raised: Symbols = NONE


@dataclass
class Flow:
    """``after``: statement (by where it starts) → variables needed after it; ``bound``: those surely set before it.

    ``exits``: statement → what is needed where the ways out of its block lead.
    """

    file: SourceFile
    language: Language
    frame: Scope
    body: Sequence[Statement]
    needed: Symbols = NONE  # after the last statement
    part: bool = False  # whether the body is a part of a function's, before which nothing counts as set
    after: dict[int, Symbols] = field(default_factory=dict)
    bound: dict[int, Symbols] = field(default_factory=dict)
    exits: dict[int, Exits] = field(default_factory=dict)

    first: Symbols = NONE  # needed before the first statement
    last: Symbols | None = None  # surely set after the last one; None if its end is never reached

    def __post_init__(self) -> None:
        self.first = self.live(self.body, self.needed, Exits())
        self.last = self.set(self.body, self.given())

    def given(self) -> Symbols:
        return NONE if self.part else frozenset(s for s in self.frame.symbols.values() if "parameter" in s.kinds)

    # -- references ------------------------------------------------------------------------------

    def refs(self, start: int, end: int) -> list[Reference]:
        """References to the frame's own variables, from inner functions as well."""
        return [r for r in self.file.within(start, end) if r.symbol is not None and r.symbol.scope.frame is self.frame]

    def ends(self, s: Statement) -> bool:
        """Whether a statement ends the program."""
        if s.kind != "expression":
            return False
        call = next((c for c in self.file.calls_within(s.start, s.start + 1)), None)
        name = (
            f"{call.callee.name}.{call.callee.member}"
            if call is not None and call.callee.member
            else call.callee.name
            if call is not None
            else ""
        )
        symbol = call.callee.symbol if call is not None else None
        return name in self.language.endings and (symbol is None or symbol.kinds <= {"import"})

    def reads(self, start: int, end: int) -> Symbols:
        return frozenset(r.symbol for r in self.refs(start, end) if r.symbol is not None and r.role != "write")

    def writes(self, start: int, end: int) -> Symbols:
        return frozenset(r.symbol for r in self.refs(start, end) if r.symbol is not None and r.writes)

    def head(self, s: Statement, blocks: Sequence[Block]) -> list[Reference]:
        """The references of a statement that stand in none of its blocks."""
        return [r for r in self.refs(s.start, s.end) if not any(b.start <= r.start < b.end for b in blocks)]

    def sets(self, s: Statement) -> Symbols:
        """What a plain statement is sure to set."""
        if s.kind in ("import", "function", "class"):
            return frozenset(
                r.symbol for r in self.refs(s.start, s.end) if r.symbol and r.writes and r.scope.frame is self.frame
            )
        if s.kind not in ("assign", "augment") or (s.value is None and s.kind == "assign"):
            return NONE
        end = s.value[0] if s.value is not None else s.end
        found = {
            r.symbol
            for r in self.refs(s.start, max(end, s.start + 1))
            if r.writes and r.form != "walrus" and r.scope.frame is self.frame
        }
        return frozenset(x for x in found if x is not None)

    def headed(self, s: Statement, blocks: Sequence[Block], forms: Sequence[str]) -> Symbols:
        return frozenset(r.symbol for r in self.head(s, blocks) if r.symbol and r.writes and r.form in forms)

    # -- what is needed --------------------------------------------------------------------------

    def live(self, statements: Sequence[Statement], after: Symbols, exits: Exits) -> Symbols:
        """What is needed before a row of statements."""
        for s in reversed(statements):
            self.after[s.start] = self.after.get(s.start, NONE) | after
            self.exits[s.start] = exits
            after = self.before(s, after, exits) | exits.raised
        return after

    def before(self, s: Statement, after: Symbols, exits: Exits) -> Symbols:
        blocks = self.language.regions.blocks(self.file, s)
        if not blocks:
            if s.kind in LEAVING or self.ends(s):
                after = {"break": exits.broken, "continue": exits.continued}.get(s.kind, NONE)
            return (after - self.sets(s)) | self.reads(s.start, s.end)
        reads = frozenset(r.symbol for r in self.head(s, blocks) if r.symbol and r.role != "write")
        if s.kind in ("for", "while"):
            return reads | self.loop(s, blocks, after, exits, reads)
        if s.kind == "try":
            return self.tried(blocks, after, exits, self.headed(s, blocks, ("except",))) | reads
        if any(b.role == "case" for b in blocks):
            everything = after | self.reads(s.start, s.end)
            for b in blocks:
                self.live(b.statements, everything, Exits(everything, exits.continued | everything, exits.raised))
            return everything
        found = [self.live(b.statements, after, exits) for b in blocks]
        if s.kind in ("if", "match") and not any(b.role == "otherwise" for b in blocks):
            found.append(after)
        names = self.headed(s, blocks, ("with",))
        return frozenset().union(*found) - names | reads

    def loop(self, s: Statement, blocks: Sequence[Block], after: Symbols, exits: Exits, reads: Symbols) -> Symbols:
        names = self.headed(s, blocks, ("loop",))
        behind = after
        for b in blocks[1:]:
            behind = self.live(b.statements, after, exits)
        top = behind | (reads if s.kind == "while" else NONE)
        while True:
            found = top | (self.live(blocks[0].statements, top, Exits(after, top, exits.raised)) - names)
            if found == top:
                return top
            top = found

    def tried(self, blocks: Sequence[Block], after: Symbols, exits: Exits, names: Symbols) -> Symbols:
        """The statements of the body may all lead to each handler."""

        def role(*names: str) -> list[Block]:
            return [b for b in blocks if b.role in names]

        for b in role("finally"):
            inside = self.live(b.statements, after | exits.broken | exits.continued | exits.raised, exits)
            after, exits = inside, Exits(exits.broken | inside, exits.continued | inside, exits.raised | inside)
        caught = exits.raised
        for b in role("handler"):
            caught |= self.live(b.statements, after, exits) - names  # the handlers set these themselves
        behind = after
        for b in role("otherwise"):
            behind = self.live(b.statements, after, exits)
        inner = Exits(exits.broken, exits.continued, caught)
        found = behind
        for b in role("body"):
            found = self.live(b.statements, behind, inner)
        return found | caught

    # -- what is set -----------------------------------------------------------------------------

    def set(self, statements: Sequence[Statement], known: Symbols) -> Symbols | None:
        """What is surely set after a row of statements; None if its end is never reached."""
        at: Symbols | None = known
        for s in statements:
            if at is None:
                at = NONE  # never run; nothing is known of it
            self.bound[s.start] = at
            gone = frozenset(r.symbol for r in self.refs(s.start, s.end) if r.symbol and r.role == "delete")
            at = self.behind(s, at - gone)
            at = at - gone if at is not None else None
        return at

    def behind(self, s: Statement, known: Symbols) -> Symbols | None:
        blocks = self.language.regions.blocks(self.file, s)
        if not blocks:
            return None if s.kind in LEAVING or self.ends(s) else known | self.sets(s)
        if s.kind in ("for", "while"):
            inside = known | self.headed(s, blocks, ("loop",))
            for b in blocks:
                self.set(b.statements, inside if b is blocks[0] else known)
            return known
        if s.kind == "try":
            caught = [b for b in blocks if b.role == "handler"]
            found = [self.set(b.statements, known | self.headed(s, blocks, ("except",))) for b in caught]
            body: Symbols | None = known
            for b in blocks:
                if b.role in ("body", "otherwise"):
                    body = self.set(b.statements, body if body is not None else known)
            for b in blocks:
                if b.role == "finally":
                    self.set(b.statements, known)
            return body if not caught else meet([*found, body])
        if any(b.role == "case" for b in blocks):
            for b in blocks:
                self.set(b.statements, known)
            return known
        names = self.headed(s, blocks, ("with",))
        inside = known | names
        found = [self.set(b.statements, inside | self.matched(s, blocks, i)) for i, b in enumerate(blocks)]
        if s.kind == "with" and not names:  # what gives nothing to work with may be there to swallow errors
            return known
        if s.kind in ("if", "match") and not any(b.role == "otherwise" for b in blocks):
            found.append(inside)
        return meet(found) if s.kind in ("if", "match") else found[0]

    def matched(self, s: Statement, blocks: Sequence[Block], number: int) -> Symbols:
        """What the pattern in front of a branch sets."""
        start = blocks[number - 1].end if number else s.start
        refs = self.refs(start, blocks[number].start) if s.kind == "match" else []
        return frozenset(r.symbol for r in refs if r.symbol is not None and r.form == "pattern")


def meet(ways: Sequence[Symbols | None]) -> Symbols | None:
    """What is set on every way that goes on."""
    going = [w for w in ways if w is not None]
    return frozenset.intersection(*going) if going else None


def flow_of(file: SourceFile, language: Language, frame: Scope, body: Sequence[Statement]) -> Flow:
    """The flow of a whole frame, worked out once for a file as it was read."""
    key = ("flow", frame)
    if key not in file.memo:
        file.memo[key] = Flow(file, language, frame, body)
    found: Flow = file.memo[key]
    return found
