"""To which group of variables each function belongs: the one whose state it works on most.

What a function sets counts for more than what it reads; one that touches no state of its own belongs where the functions are that it
calls, and that call it. A driver, which only reads of many groups, belongs to none.
"""

from __future__ import annotations

from ..program.model import Function, Symbol
from ..survey.effects import Effects

WRITE, READ, CALLED, CALLER = 10.0, 1.0, 0.5, 0.4
MANY = 3  # groups that a function may look into without being a driver
ROUNDS = 4


def homes(groups: list[set[Symbol]], functions: list[Function], effects: Effects) -> dict[Symbol, int]:
    """Function → index of its group, for those that belong to one."""
    owner = {v: i for i, group in enumerate(groups) for v in group}
    touches = {f.symbol: effects.direct(f.start, f.end) for f in functions if f.symbol is not None}
    callers: dict[Symbol, list[Symbol]] = {}
    for symbol, touch in touches.items():
        for used in touch.uses & touches.keys():
            callers.setdefault(used, []).append(symbol)
    found: dict[Symbol, int] = {}
    for _ in range(ROUNDS):
        now: dict[Symbol, int] = {}
        for symbol, touch in touches.items():
            weights: dict[int, float] = {}
            for v in touch.names & owner.keys():
                weights[owner[v]] = weights.get(owner[v], 0.0) + (WRITE if v in touch.writes else READ)
            seen = set(weights)
            for used in touch.uses & found.keys():
                weights[found[used]] = weights.get(found[used], 0.0) + CALLED
                seen.add(found[used])
            for caller in callers.get(symbol, ()):
                if caller in found:
                    weights[found[caller]] = weights.get(found[caller], 0.0) + CALLER
            writes = touch.writes & owner.keys()
            if weights and (writes or len(seen) < MANY):
                now[symbol] = min(weights, key=lambda i: (-weights[i], i))
        if now == found:
            break
        found = now
    return found
