"""Which variables and functions belong together: shared access, and shared words in their names.

Greedy agglomeration on modularity (Clauset, Newman, Moore: Finding community structure in very large
networks, 2004) over a weighted graph of variables and the functions that touch them.
"""

from __future__ import annotations

from collections.abc import Callable

from ..program.model import Function, Symbol
from ..survey.effects import Effects
from ..survey.groups import first_word

WRITE, READ, CALL, STEM = 2.0, 1.0, 0.5, 1.0


def group(
    variables: list[Symbol], functions: list[Function], effects: Effects, words: Callable[[str], list[str]]
) -> list[list[Symbol]]:
    """Groups of variables, each in the given order; functions only carry the ties."""
    if len(variables) < 2:
        return [[v] for v in variables]
    nodes: list[Symbol] = [*variables, *(f.symbol for f in functions if f.symbol is not None)]
    index = {s: i for i, s in enumerate(nodes)}
    weights: dict[tuple[int, int], float] = {}

    def tie(a: Symbol, b: Symbol, weight: float) -> None:
        i, j = sorted((index[a], index[b]))
        if i != j:
            weights[(i, j)] = weights.get((i, j), 0.0) + weight

    wide = max(6, 0.6 * len(variables))
    for f in functions:
        if f.symbol is None:
            continue
        touch = effects.direct(f.start, f.end)
        mine = [v for v in variables if v in touch.names]
        if len(mine) > wide:
            continue  # a driver touches everything and says nothing about what belongs together
        for v in mine:
            tie(f.symbol, v, (WRITE if v in touch.writes else READ) / max(1, len(mine)) ** 0.5)
        for used in sorted(touch.uses & set(index), key=lambda s: index[s]):
            tie(f.symbol, used, CALL)
    stems = {s: first_word(s.name, words) for s in nodes}
    for i, a in enumerate(variables):
        for b in variables[i + 1 :]:
            if stems[a] and stems[a] == stems[b]:
                tie(a, b, STEM)
    labels = agglomerate(len(nodes), weights)
    groups: dict[int, list[Symbol]] = {}
    for v in variables:
        groups.setdefault(labels[index[v]], []).append(v)
    return list(groups.values())


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
