"""Which variables and functions belong together: set together, touched together, and called the same.

What one function sets belongs together, unless the names say that it sets two things. What is left apart is joined by
greedy agglomeration on modularity (Clauset, Newman, Moore: Finding community structure in very large networks, 2004)
over a weighted graph of those clusters and the functions that touch them.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import combinations, pairwise

from ...analysis.effects import Effects, Touch
from ...analysis.groups import first_word
from ...program.model import Function, Symbol

WRITE, READ, CALL, STEM = 3.0, 1.0, 0.5, 2.0


def group(
    variables: list[Symbol],
    functions: list[Function],
    effects: Effects,
    words: Callable[[str], list[str]],
    devices: set[Symbol] | None = None,
    things: list[list[Symbol]] | None = None,
) -> list[list[Symbol]]:
    """Groups of variables, each in the given order; functions only carry the ties. ``things``: variables that are known
    to be one thing's.

    ``devices``: bound once to what does something for others (a screen, a stream, a connection).
    """
    if len(variables) < 2:
        return [[v] for v in variables]
    touches = {f.symbol: effects.direct(f.start, f.end) for f in functions if f.symbol is not None}
    stems = {v: first_word(v.name, words) for v in variables}
    common = serving(devices or set(), list(touches.values()), stems) & set(variables)
    clusters = set_together(variables, [t.writes - common for t in touches.values()], stems)
    clusters = joined(variables, [*clusters, *(things or [])])
    home = {v: i for i, cluster in enumerate(clusters) for v in cluster}
    index: dict[Symbol, int] = {s: len(clusters) + i for i, s in enumerate(touches)}
    weights: dict[tuple[int, int], float] = {}

    def tie(i: int, j: int, weight: float) -> None:
        if i != j:
            weights[(min(i, j), max(i, j))] = weights.get((min(i, j), max(i, j)), 0.0) + weight

    written = {v for t in touches.values() for v in t.writes}
    readers = {v: sum(v in t.names for t in touches.values()) for v in home}
    shared = {v for v in home if v not in written and readers[v] > 2} | common  # many use it, and it is nobody's
    wide = max(3, 0.6 * len(clusters))
    for symbol, touch in touches.items():
        strength: dict[int, float] = {}
        for v in touch.names & home.keys() - shared:
            strength[home[v]] = strength.get(home[v], 0.0) + (WRITE if v in touch.writes else READ)
        if len(strength) > wide:
            continue  # a driver touches everything and says nothing about what belongs together
        for cluster, weight in sorted(strength.items()):
            tie(index[symbol], cluster, weight / sum(strength.values()) ** 0.5)
        for used in sorted(touch.uses & index.keys(), key=lambda s: index[s]):
            tie(index[symbol], index[used], CALL)
    said = [{stems[v] for v in cluster} - {""} for cluster in clusters]
    for i, j in combinations(range(len(clusters)), 2):
        if said[i] & said[j]:
            tie(i, j, STEM)
    labels = agglomerate(len(clusters) + len(index), weights)
    groups: dict[int, list[Symbol]] = {}
    for v in variables:
        groups.setdefault(labels[home[v]], []).append(v)
    return list(groups.values())


def by_name(variables: list[Symbol], words: Callable[[str], list[str]]) -> list[list[Symbol]]:
    """Groups of variables whose names begin with the same word."""
    found: dict[str, list[Symbol]] = {}
    for v in variables:
        found.setdefault(first_word(v.name, words) or v.name, []).append(v)
    return list(found.values())


def connected(variables: list[Symbol], functions: list[Function], effects: Effects) -> list[list[Symbol]]:
    """Groups of variables that functions tie together, however loosely; those that touch most of them tie nothing."""
    touched = [effects.direct(f.start, f.end).names & set(variables) for f in functions]
    return joined(variables, [[v for v in variables if v in t] for t in touched if len(t) * 2 <= len(variables)])


def joined(variables: list[Symbol], rows: list[list[Symbol]]) -> list[list[Symbol]]:
    """Classes of the least equivalence in which the variables of each row are together, in the given order."""
    head = {v: v for v in variables}

    def find(v: Symbol) -> Symbol:
        while head[v] is not v:
            v = head[v]
        return v

    for row in rows:
        for a, b in pairwise(row):
            head[find(b)] = find(a)
    found: dict[Symbol, list[Symbol]] = {}
    for v in variables:
        found.setdefault(find(v), []).append(v)
    return list(found.values())


def serving(devices: set[Symbol], touches: list[Touch], stems: dict[Symbol, str]) -> set[Symbol]:
    """The devices that functions use which work on different things."""
    found = set()
    for device in devices:
        users = [t.names - devices for t in touches if device in t.names]
        things = {stems[v] or v.name for names in users for v in names if v in stems}
        if len(users) > 1 and len(things) > 1:
            found.add(device)
    return found


def set_together(variables: list[Symbol], writes: list[set[Symbol]], stems: dict[Symbol, str]) -> list[list[Symbol]]:
    """Clusters of variables that the same functions set.

    A function that by their names sets two things, or a part of one thing and something else, joins each for itself; a
    few names among many say nothing.
    """
    rows: list[list[Symbol]] = []
    shared = {stem for stem in stems.values() if stem and list(stems.values()).count(stem) > 1}
    for written in writes:
        named: dict[str, list[Symbol]] = {}
        for v in variables:
            if v in written:
                named.setdefault(stems[v] if stems[v] in shared else "", []).append(v)
        mine = [v for part in named.values() for v in part]
        things = [part for stem, part in named.items() if stem]
        apart = len(things) > 1 or any(len(part) * 2 >= len(mine) for part in things)
        if len(things) == 1 and all(v in written for v in variables if stems[v] == stems[things[0][0]]):
            apart = False  # all of one thing is set here: what goes with it without its name is its own
        rows += named.values() if apart else [mine]
    return joined(variables, rows)


def agglomerate(count: int, weights: dict[tuple[int, int], float]) -> list[int]:
    """Community label of each node; ties are broken by node order, so equal input gives equal output."""
    total = sum(weights.values())
    if not total:
        return list(range(count))
    links: list[dict[int, float]] = [{} for _ in range(count)]
    for (i, j), w in weights.items():
        links[i][j] = w
        links[j][i] = w
    degree = [sum(row.values()) for row in links]
    labels = list(range(count))
    alive = set(range(count))
    while True:
        best = (1e-12, -1, -1)
        for i in sorted(alive):
            for j, w in links[i].items():
                if j > i:
                    gain = w / total - degree[i] * degree[j] / (2 * total * total)
                    if gain > best[0] + 1e-12:
                        best = (gain, i, j)
        _, i, j = best
        if i < 0:
            return labels
        for k, w in links[j].items():
            if k != i:
                links[i][k] = links[i].get(k, 0.0) + w
                links[k][i] = links[i][k]
            links[k].pop(j, None)
        links[i].pop(j, None)
        links[j] = {}
        degree[i] += degree[j]
        alive.discard(j)
        labels = [i if label == j else label for label in labels]
