"""Groups of variables and functions made better, one move and one merge at a time, until no change makes the program
likelier.

The measure is the likelihood of a degree-corrected stochastic block model (Karrer and Newman: Stochastic blockmodels
and community structure in networks, 2011) that is assortative: what a function uses is nearly always its own group's,
in proportion to how much each member is used. What it sets is other people's less often than what it reads, and a call
that neither gives nor takes anything says less than one that does. Names with a first word in common, and functions and
variables that stand beside each other where the source is in order, add their share. A function that is likelier to
draw from everywhere is a driver and belongs to no group.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from heapq import heapify, heappop, heappush
from itertools import pairwise
from math import lgamma, log

from ...analysis.effects import Effects
from ...analysis.groups import first_word
from ...program.model import Call, Function, SourceFile, Symbol

FOREIGN, FOREIGN_SET = 0.10, 0.03  # how often what a function reads or calls, and what it sets, is another group's
SET, CALL, TRIGGER = (
    3.0,
    0.9,
    0.5,
)  # what setting, calling, and calling without giving or taking count beside reading once
AGAIN = 0.15  # what each further use counts, by the logarithm of how many there are
DRIVER, SERVED = (
    -0.7,
    0.2,
)  # the cost of a driver (they are common); how much likelier than a foreign use is a use of what belongs to nobody
NAMES, NEW = 0.8, 1.5  # the weight of names; the readiness to make one more group
MAX_NEIGHBOUR_WEIGHT = 2.5  # the most that a neighbour counts
ROUNDS, SWEEPS = 6, 8
Between = defaultdict[int, defaultdict[int, float]]
NOBODY, OUT = -1, -2  # the labels of what belongs to no group, and of what is being moved


@dataclass
class Tally:
    """One group: its members' degrees, number and first words, and the weight of the uses inside it."""

    degree: float = 0.0
    size: int = 0
    inside: float = 0.0
    words: Counter[str] = field(default_factory=Counter)

    def said(self, word: str) -> float:
        """How likely a member's name begins with this word, as a logarithm."""
        return NAMES * log((self.words[word] + 0.2) / (self.size + 1.0))

    @property
    def naming(self) -> float:
        """How likely all its names are: what ``said`` gives, one name after another."""
        found, total = 0.0, sum(self.words.values())
        for count in self.words.values():
            found += sum(log(n + 0.2) for n in range(count))
        return NAMES * (found - sum(log(self.size * n / total + 1.0) for n in range(total)))


class Refinement:
    """Nodes are the variables and then the functions, in the order of the source; ``label`` is the group of each.

    ``free``: nodes that may change their group; variables never belong to nobody unless they did from the start.
    """

    def __init__(
        self, variables: list[Symbol], functions: list[Function], effects: Effects, words: Callable[[str], list[str]]
    ) -> None:
        order = sorted((f for f in functions if f.symbol is not None), key=lambda f: f.start)
        self.nodes: list[Symbol] = [*variables, *dict.fromkeys(f.symbol for f in order if f.symbol is not None)]
        self.index = {s: i for i, s in enumerate(self.nodes)}
        self.first_function = len(variables)
        count = len(self.nodes)
        self.uses: list[list[tuple[int, float, bool]]] = [[] for _ in range(count)]  # (what, weight, whether it is set)
        self.users: list[list[tuple[int, float, bool]]] = [[] for _ in range(count)]
        for f in order:
            self.tie(f, effects)
        self.degree = [1.0 + sum(w for _, w, _ in rows) for rows in self.users]
        self.total = sum(self.degree)
        firsts = [first_word(s.name, words) for s in self.nodes]
        shared = Counter(firsts)
        self.word = [w if shared[w] > 1 else "" for w in firsts]
        self.beside: list[list[int]] = [[] for _ in range(count)]
        for a, b in [*pairwise(range(self.first_function)), *pairwise(range(self.first_function, count))]:
            self.beside[a].append(b)
            self.beside[b].append(a)
        self.near = 0.0
        self.label: list[int] = [NOBODY] * count
        self.tallies: defaultdict[int, Tally] = defaultdict(Tally)
        self.free: list[int] = []

    def tie(self, f: Function, effects: Effects) -> None:
        assert f.symbol is not None
        me, touch = self.index[f.symbol], effects.direct(f.start, f.end)
        found: dict[int, tuple[float, bool]] = {}
        times = Counter(r.symbol for r in effects.file.within(f.start, f.end))
        calls: dict[Symbol | None, list[Call]] = {}
        for call in effects.file.calls_within(f.start, f.end):
            calls.setdefault(call.callee.symbol, []).append(call)
        for s in touch.names | touch.uses:
            if (i := self.index.get(s)) is None or i == me:
                continue
            weight = SET if s in touch.writes else 1.0
            if i >= self.first_function:
                mere = s in calls and all(mere_call(effects.file, c) for c in calls[s])
                weight = CALL * (TRIGGER if mere else 1.0)
            found[i] = (weight * (1 + AGAIN * log(max(1, times[s]))), s in touch.writes)
        for i, (weight, sets) in sorted(found.items()):
            self.uses[me].append((i, weight, sets))
            self.users[i].append((me, weight, sets))

    # -- how likely ------------------------------------------------------------------------------

    def use(self, user: int, used: int, weight: float, sets: bool) -> float:
        """The share of one use, but for what depends on the size of its group."""
        if user == NOBODY:
            return -weight * log(self.total)
        if used == NOBODY:
            return weight * log(SERVED / self.total)
        foreign = FOREIGN_SET if sets else FOREIGN
        return weight * (log(1 - foreign) if user == used else log(foreign / self.total))

    def gain(self, i: int, group: int) -> float:
        """How likely the program is with a node in a group, as far as that depends on it; the node is in none now."""
        found, inside = 0.0, 0.0
        for j, weight, sets in self.uses[i]:
            found += self.use(group, self.label[j], weight, sets)
            inside += weight * (self.label[j] == group)
        for j, weight, sets in self.users[i]:
            found += self.use(self.label[j], group, weight, sets)
            inside += weight * (self.label[j] == group)
        if group == NOBODY:
            return found - DRIVER + (NAMES * log(0.1) if self.word[i] else 0.0)
        tally = self.tallies[group]
        before = tally.inside * log(tally.degree) if tally.inside > 1e-9 else 0.0
        found += before - (tally.inside + inside) * log(tally.degree + self.degree[i])
        found += log(tally.size) if tally.size else log(NEW)
        found += tally.said(self.word[i]) if self.word[i] else 0.0
        return found + self.near * sum(self.label[j] == group for j in self.beside[i])

    # -- moves -----------------------------------------------------------------------------------

    def place(self, i: int, group: int) -> None:
        """Take a node out of its group and put it into another (or ``OUT``)."""
        for label, sign in ((self.label[i], -1), (group, 1)):
            if label >= 0:
                tally = self.tallies[label]
                tally.degree += sign * self.degree[i]
                tally.size += sign
                tally.words[self.word[i]] += sign if self.word[i] else 0
                ties = [*self.uses[i], *self.users[i]]
                tally.inside += sign * sum(w for j, w, _ in ties if self.label[j] == label)
            self.label[i] = OUT if sign < 0 else group

    def sweep(self) -> int:
        """Each free node to the group where it is likeliest; how many moved."""
        moved = 0
        for i in self.free:
            old = self.label[i]
            self.place(i, OUT)
            groups = {old, *(self.label[j] for j, _, _ in self.uses[i]), *(self.label[j] for j, _, _ in self.users[i])}
            groups |= {self.label[j] for j in self.beside[i]}
            groups -= {OUT, NOBODY}
            if i >= self.first_function:
                groups.add(NOBODY)
            best = max(sorted(groups), key=lambda g: (self.gain(i, g), g == old))
            self.place(i, best)
            moved += best != old
        return moved

    def merge(self, fixed: int) -> int:
        """Join groups as long as that makes the program likelier; how many were joined. ``fixed``: the first ones stay
        as they are."""
        between, likelier, adjacent = self.ties(fixed)
        into: dict[int, int] = {}
        waiting = [(-self.joint(a, b, likelier[a, b], between[a][b], adjacent[a, b]), a, b) for a, b in likelier]
        heapify(waiting)
        current = {(a, b): gain for gain, a, b in waiting}
        while waiting:
            gain, a, b = heappop(waiting)
            if gain >= 0:
                break
            if current.get((a, b)) != gain:
                continue
            into[b] = a
            self.tallies[a] = self.joined(a, b, between[a][b])
            for c in [*between[a], *between[b]]:
                for x in (a, b):
                    current.pop((min(x, c), max(x, c)), None)
            for c, weight in between.pop(b).items():
                between[c].pop(b, None)
                if c == a:
                    continue
                between[a][c] += weight
                between[c][a] += weight
                joint, part = (min(a, c), max(a, c)), (min(b, c), max(b, c))
                likelier[joint] += likelier[part]
                adjacent[joint] += adjacent[part]
            for c, weight in between[a].items():
                pair = (min(a, c), max(a, c))
                current[pair] = -self.joint(*pair, likelier[pair], weight, adjacent[pair])
                heappush(waiting, (current[pair], *pair))
        self.relabel(into)
        return len(into)

    def relabel(self, into: dict[int, int]) -> None:
        for i, label in enumerate(self.label):
            while label in into:
                label = into[label]
            self.label[i] = label
        for b in into:
            self.tallies.pop(b, None)

    def ties(self, fixed: int) -> tuple[Between, defaultdict[tuple[int, int], float], Counter[tuple[int, int]]]:
        """Between groups: the weight of the uses, what joining them says of those, and how often they stand beside each
        other."""
        between: Between = defaultdict(lambda: defaultdict(float))
        likelier: defaultdict[tuple[int, int], float] = defaultdict(float)
        for i, rows in enumerate(self.uses):
            for j, weight, sets in rows:
                a, b = self.label[i], self.label[j]
                if a >= fixed and b >= fixed and a != b:
                    between[a][b] += weight
                    between[b][a] += weight
                    likelier[min(a, b), max(a, b)] += self.use(a, a, weight, sets) - self.use(a, b, weight, sets)
        adjacent: Counter[tuple[int, int]] = Counter()
        for i, beside in enumerate(self.beside):
            for other in beside:
                a, b = self.label[i], self.label[other]
                if i < other and a != b:
                    adjacent[min(a, b), max(a, b)] += 1
        return between, likelier, adjacent

    def joined(self, a: int, b: int, weight: float) -> Tally:
        x, y = self.tallies[a], self.tallies[b]
        return Tally(x.degree + y.degree, x.size + y.size, x.inside + y.inside + weight, x.words + y.words)

    def joint(self, a: int, b: int, likelier: float, weight: float, adjacent: int) -> float:
        """How much likelier the program is with two groups in one."""
        x, y, both = self.tallies[a], self.tallies[b], self.joined(a, b, weight)
        found = likelier - both.inside * log(both.degree) + x.inside * log(x.degree) + y.inside * log(y.degree)
        found += lgamma(both.size) - lgamma(x.size) - lgamma(y.size) - log(NEW)
        return found + both.naming - x.naming - y.naming + self.near * adjacent

    def order(self) -> float:
        """What a neighbour counts: nothing in a shuffled source, up to ``MAX_NEIGHBOUR_WEIGHT`` where one group stands
        after another."""
        pairs = [(i, j) for i, rows in enumerate(self.beside) for j in rows if i < j]
        pairs = [(i, j) for i, j in pairs if self.label[i] >= 0 and self.label[j] >= 0]
        if len(pairs) < 4:
            return 0.0
        seen = (sum(self.label[i] == self.label[j] for i, j in pairs) + 1) / (len(pairs) + 2)
        sizes = [t.size for t in self.tallies.values()]
        chance = min(max(sum(n * n for n in sizes) / sum(sizes) ** 2, 0.05), 0.95)
        return min(MAX_NEIGHBOUR_WEIGHT, max(0.0, log(seen / (1 - seen)) - log(chance / (1 - chance))))

    def run(self, label: list[int], free: list[int], fixed: int) -> None:
        """Start from a label for each node; ``free``: the nodes that may move; groups below ``fixed`` are joined with
        none."""
        self.label, self.free = [OUT] * len(label), free
        for i, group in enumerate(label):
            self.place(i, group)
        for turn in range(ROUNDS):
            moved = 0
            for _ in range(SWEEPS):
                now = self.sweep()
                moved += now
                if not now:
                    break
            merged = self.merge(fixed)
            self.near = self.order()
            if turn and not moved and not merged:
                break


def mere_call(file: SourceFile, call: Call) -> bool:
    """Whether a call is a statement of its own that gives nothing."""
    text, line = file.text, file.text.rfind(b"\n", 0, call.start) + 1
    end = text.find(b"\n", call.end)
    after = text[call.end : end if end >= 0 else len(text)].strip()
    given = text[call.args_start : call.args_end].strip()
    return not given and not text[line : call.start].strip() and after in (b"", b";")


def refined(
    groups: list[set[Symbol]],
    home: dict[Symbol, int],
    functions: list[Function],
    effects: Effects,
    words: Callable[[str], list[str]],
    fixed: int,
) -> tuple[list[set[Symbol]], dict[Symbol, int]]:
    """Better groups, and the group of each function.

    ``groups`` and ``home`` are the start; ``fixed``: so many of the first groups keep just the variables that they
    have.
    """
    owner = {s: i for i, group in enumerate(groups) for s in group}
    variables = sorted(owner, key=lambda s: min(r.start for r in s.bindings))
    model = Refinement(variables, functions, effects, words)
    label = [owner.get(s, home.get(s, NOBODY)) for s in model.nodes]
    kept = range(len(model.nodes))
    free = [i for i in kept if i >= model.first_function or label[i] >= fixed]
    model.run(label, free, fixed)
    found: list[set[Symbol]] = [set() for _ in groups]
    for i, s in enumerate(model.nodes[: model.first_function]):
        found[model.label[i]].add(s)
    rest = {s: model.label[i] for i, s in enumerate(model.nodes) if i >= model.first_function and model.label[i] >= 0}
    return found, rest
