"""To which group of variables each function belongs: the one whose state it works on most.

What a function sets counts for more than what it reads; one that touches no state of its own belongs where the functions are that it
calls, and that call it; a name in common helps. A driver, which only reads of many groups, belongs to none.
"""

from __future__ import annotations

from collections.abc import Callable

from ..program.model import Function, Symbol
from ..survey.effects import Effects
from ..survey.groups import common_stems

WRITE, READ, NAMED, CALLED, CALLER = 10.0, 1.0, 1.5, 0.5, 0.4
MANY = 3  # groups that a function may look into without being a driver
ROUNDS = 4


def homes(
    groups: list[set[Symbol]], functions: list[Function], effects: Effects, words: Callable[[str], list[str]]
) -> dict[Symbol, int]:
    """Function → index of its group, for those that belong to one. ``words``: takes a name apart."""
    said = stems(groups, words)
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
            seen = {owner[v] for v in touch.names & owner.keys()}
            for used in touch.uses & found.keys():
                weights[found[used]] = weights.get(found[used], 0.0) + CALLED
                seen.add(found[used])
            for caller in callers.get(symbol, ()):
                if caller in found:
                    weights[found[caller]] = weights.get(found[caller], 0.0) + CALLER
            for word in set(words(symbol.name)) & said.keys():
                if said[word] in weights:
                    weights[said[word]] += NAMED
            writes = touch.writes & owner.keys()
            if weights and (writes or len(seen) < MANY):
                now[symbol] = min(weights, key=lambda i: (-weights[i], i))
        if now == found:
            break
        found = now
    return found


def stems(groups: list[set[Symbol]], words: Callable[[str], list[str]]) -> dict[str, int]:
    """The words with which the names of one group alone begin → its index."""
    found: dict[str, list[int]] = {}
    for index, group in enumerate(groups):
        for word in common_stems(group, words):
            found.setdefault(word, []).append(index)
    return {word: indexes[0] for word, indexes in found.items() if len(indexes) == 1}
