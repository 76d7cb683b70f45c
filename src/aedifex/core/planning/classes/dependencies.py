"""What the functions of all candidates need of each other, worked out for all at once."""

from __future__ import annotations

from collections.abc import Iterator

from ...analysis.effects import statement_order
from ...analysis.late_reads import deferring, goes_stale, outlives, rebound
from ...analysis.startup import running
from ...program.model import Function, Symbol
from ...program.scopes import shadowed
from .candidates import Candidate, Fit, Link, Need
from .facts import FileFacts

MAX_PASSED = 6  # things that a method may be passed; one that needs more directs the others


class Settlement:
    """Leaves out what cannot be a method, until all that is left only calls and touches what it can be handed."""

    def __init__(self, facts: FileFacts, candidates: list[Candidate], lone: bool) -> None:
        self.facts, self.candidates, self.lone = facts, candidates, lone
        self.file, self.language, self.effects = facts.file, facts.language, facts.effects
        self.owner = {s: c for c in candidates for s in c.symbols}
        self.why_not: dict[str, str] = {}  # function → why it is no method
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
                if isinstance(needed, str):
                    candidate.fits.remove(fit)
                    for f in fit.functions:
                        del self.where[f.symbol]
                        self.why_not.setdefault(f.name, needed)
                elif set(needed) == set(fit.add):
                    continue  # another order is no change: two that call each other would never agree on one
                else:
                    fit.add = needed
                changed = True

    def fits(self) -> Iterator[tuple[Candidate, Fit]]:
        for candidate in self.candidates:
            for fit in candidate.fits:
                yield candidate, fit

    def needs(self, mine: Candidate, fit: Fit) -> list[Need] | str:
        """What must be passed in, in order of first use; why not if that is not possible."""
        needed: list[Need] = []
        fit.reach = ""
        for f in fit.functions:
            direct = self.effects.direct(f.start, f.end)
            for used in sorted(direct.uses, key=lambda s: s.name):
                more = self.called(mine, used)
                if isinstance(more, str):
                    return more
                if why := next((why for n in more if isinstance(n, Symbol) and (why := self.impassable(f, n))), ""):
                    return why
                needed += [n for n in more if n not in needed]
            others = direct.names - mine.symbols - self.facts.constants
            for s in sorted(others, key=lambda s: min(r.start for r in s.references if f.start <= r.start < f.end)):
                owner = self.owner.get(s)
                if owner is None and (why := self.impassable(f, s)):
                    if not self.reachable(mine, s):
                        return why
                    continue
                need = Link(owner, owner.row_of(s)) if owner is not None else s
                needed += [need] if need not in needed else []
        if len(needed) > MAX_PASSED:
            names = ", ".join(n.name if isinstance(n, Symbol) else n.of.label for n in needed)
            return f"it works with too much that is not its own ({names})"
        if why := next((why for f in fit.functions if needed and (why := self.cannot_be_handed(f, needed))), ""):
            if not all(self.reachable(mine, n) for n in needed):
                return why
            fit.reach, needed = why, []
        return needed

    def reachable(self, mine: Candidate, need: Need) -> bool:
        """Whether a method can use something that is not its own by the name that it has in the file, where its class
        then stays."""
        one = isinstance(need, Link) or "variable" in need.kinds
        mine.bound |= (found := self.lone and self.language.code_at_top and one and len(mine.rows) == 1)
        return found

    def called(self, mine: Candidate, used: Symbol) -> list[Need] | str:
        """What a method needs because it calls a function."""
        place = self.where.get(used)
        if place is None:
            bound = bool(self.effects.reach[used].names - self.facts.constants)
            mine.bound |= bound and self.lone  # without an app, such a function stays beside the class
            return (
                []
                if not bound or self.lone
                else f"it calls {used.name}, which is no method of these classes and uses state"
            )
        other, fit, index = place
        needed: list[Need] = [Link(other, index)] if other is not mine and not fit.drop else []
        for need in fit.add:
            if isinstance(need, Link) and need.of is mine:
                if len(mine.rows) > 1:
                    return f"it calls {used.name}, and which of the objects it would hand over, only the call knows"
            elif need not in needed:
                needed.append(need)
        return needed

    def impassable(self, f: Function, s: Symbol) -> str:
        """ "" if a variable is read only, whole, and unchanged while the function runs; else why it cannot be handed
        over."""
        rebound_outside_main = any(r.writes and r.scope.frame is not self.file.scope for r in s.references)
        if s not in self.facts.variables:
            return f"it uses '{s.name}', which is no state that a class could have"
        if any((r.writes or r.form == "spelled") for r in self.file.within(f.start, f.end) if r.symbol is s):
            return f"it sets '{s.name}', which belongs to no class"
        if rebound_outside_main and s in self.effects.of(f).writes:
            return f"what it calls may change '{s.name}' while it runs"
        if goes_stale(self.file, self.language, f.scope, s) is not None or self.called_later(f, s):
            return f"what it makes reads '{s.name}' later, when that may have changed"
        return ""

    def called_later(self, f: Function, s: Symbol) -> bool:
        """Whether what a function makes may call, later, what reads a variable that changes: the callee would be handed
        a stale copy."""
        reach = self.effects.reach
        calls = [
            c
            for c in self.file.calls_within(f.start, f.end)
            if c.callee.symbol in reach and s in reach[c.callee.symbol].reads
        ]
        late = [scope for c in calls for scope in deferring(c.callee.scope, f.scope)]
        return any(outlives(self.file, self.language, scope) for scope in late) and rebound(self.file, self.language, s)

    def cannot_be_handed(self, f: Function, needed: list[Need]) -> str:
        """ "" if all calls of a function can hand things over, else why not."""
        names = ", ".join(n.name if isinstance(n, Symbol) else n.of.label for n in needed)
        if f.is_async or f.scope.generator:
            return f"it runs later than it is called, so it cannot be passed {names}"
        if f.symbol in self.effects.escaped or f.symbol is None:
            return f"it is passed on as a value, so nobody could pass it {names}"
        if any(p.kind == "doublestar" for p in f.params):
            return f"it takes any named argument, so it cannot be passed {names}"
        variables = [n for n in needed if isinstance(n, Symbol)]
        if not variables:
            return ""
        calls = self.file.calls_of(f.symbol)
        for s in variables:
            if s.name in f.scope.symbols or any(shadowed(c.callee.scope, s.name, self.file.scope) for c in calls):
                return f"'{s.name}' means something else in it or where it is called"
        firsts = [min(s.bindings, key=lambda r: r.start) for s in variables]
        plain = {id(st.target) for st in running(self.file, self.language) if st.target is not None}
        if any(first.scope is not self.file.scope or id(first) not in plain for first in firsts):
            return f"{names} would be passed, but may not be set yet"
        latest = max(first.start for first in firsts)
        for statement in statement_order(running(self.file, self.language)):
            if statement.start >= latest:
                return ""
            if f.symbol in self.effects.touch(statement.start, statement.end).uses:
                return f"it is called before {names} would be set"
        return ""
