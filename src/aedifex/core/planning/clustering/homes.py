"""To which group of variables each function belongs: the one whose state it works on most.

What a function sets counts for more than what it reads; one that touches no state of its own belongs where the
functions are that it calls, and that call it; a name in common helps. A driver, which only reads of many groups,
belongs to none.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from itertools import pairwise

from ...analysis.effects import Effects
from ...analysis.groups import common_stems
from ...program.model import Function, Symbol

WRITE, READ, NAMED, CALLED, CALLER, NEAR = 10.0, 1.0, 1.5, 0.5, 0.4, 0.6
MAX_GROUPS_SEEN = 3  # groups that a function may look into without being a driver
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
    order = [f.symbol for f in sorted(functions, key=lambda f: f.start) if f.symbol is not None]
    for _ in range(ROUNDS):
        now: dict[Symbol, int] = {}
        tidy = orderly([found[s] for s in order if s in found])
        beside = neighbour_groups(order, found) if tidy else {}
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
            for near in beside.get(symbol, ()):
                if near in weights:
                    weights[near] += NEAR * tidy
            for word in set(words(symbol.name)) & said.keys():
                if said[word] in weights:
                    weights[said[word]] += NAMED
            writes = touch.writes & owner.keys()
            if weights and (writes or len(seen) < MAX_GROUPS_SEEN):
                now[symbol] = min(weights, key=lambda i: (-weights[i], i))
        if now == found:
            break
        found = now
    return found


def neighbour_groups(order: list[Symbol], found: dict[Symbol, int]) -> dict[Symbol, list[int]]:
    """The groups of the functions before and after each."""
    near: dict[Symbol, list[int]] = {}
    for a, b in pairwise(order):
        near.setdefault(a, []).extend([found[b]] if b in found else [])
        near.setdefault(b, []).extend([found[a]] if a in found else [])
    return near


def orderly(labels: list[int]) -> float:
    """How much more often neighbours are of one group than chance would have it: 0 for a shuffled order, 1 for one
    group after another."""
    total = len(labels)
    if total < 4:
        return 0.0
    counts = Counter(labels)
    chance = sum(n * (n - 1) for n in counts.values()) / (total * (total - 1))
    most = 1 - (len(counts) - 1) / (total - 1)
    seen = sum(a == b for a, b in pairwise(labels)) / (total - 1)
    return max(0.0, (seen - chance) / (most - chance)) if most > chance else 0.0


def stems(groups: list[set[Symbol]], words: Callable[[str], list[str]]) -> dict[str, int]:
    """The words with which the names of one group alone begin → its index."""
    found: dict[str, list[int]] = {}
    for index, group in enumerate(groups):
        for word in common_stems(group, words):
            found.setdefault(word, []).append(index)
    return {word: indexes[0] for word, indexes in found.items() if len(indexes) == 1}
