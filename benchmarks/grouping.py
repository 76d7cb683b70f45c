"""How well drafts find classes that somebody took apart: pairwise precision, recall and F1, and classes found exactly.

    python benchmarks/grouping.py FOLDER...

Each folder holds scripts NNN.py, and beside each NNN.truth.json: {class: [its variables and functions]}. Printed next to simple
methods on the same scripts: everything in one class, one class for each first word, and one for each connected part of the graph
of who uses what.
"""

from __future__ import annotations

import json
import sys
from collections.abc import Callable
from itertools import combinations
from pathlib import Path

from aedifex.core.analysis.effects import Effects, module_variables
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import Program, read_program

Groups = list[set[str]]


def drafted(program: Program) -> Groups:
    return [
        {o.local for part in (c.fields, c.methods) for member in part for o in member.origins}
        for c in draft(program).classes
    ]


def links(program: Program) -> dict[str, set[str]]:
    """Each variable and function with the names that it uses."""
    (file,) = program.files.values()
    effects = Effects(file, program.language)
    found: dict[str, set[str]] = {s.name: set() for s in module_variables(file)}
    for f in file.functions:
        if f.outer is file.scope:
            touch = effects.direct(f.start, f.end)
            found[f.name] = {s.name for s in touch.names | touch.uses}
    return found


def one(program: Program) -> Groups:
    return [set(links(program))]


def first_words(program: Program) -> Groups:
    found: dict[str, set[str]] = {}
    for name in links(program):
        found.setdefault(name.split("_")[0], set()).add(name)
    return list(found.values())


def components(program: Program) -> Groups:
    found: Groups = []
    for name, used in links(program).items():
        mine = {name, *used}
        apart = [g for g in found if not g & mine]
        found = [*apart, mine.union(*(g for g in found if g & mine))]
    return found


METHODS: dict[str, Callable[[Program], Groups]] = {
    "draft": drafted, "one class": one, "first words": first_words, "connected parts": components,
}  # fmt: skip


def pairs(groups: Groups) -> set[frozenset[str]]:
    return {frozenset(p) for g in groups for p in combinations(sorted(g), 2)}


def score(truth: dict[str, list[str]], found: Groups) -> tuple[float, float, float, float]:
    """Precision, recall and F1 of the pairs that share a class, and the share of classes found to the name."""
    items = {n for names in truth.values() for n in names}
    found = [g & items for g in found]
    wanted, got = pairs([set(g) for g in truth.values()]), pairs(found)
    hits = len(wanted & got)
    precision = hits / len(got) if got else float(not wanted)
    recall = hits / len(wanted) if wanted else 1.0
    f1 = 2 * precision * recall / (precision + recall) if hits else 0.0
    return precision, recall, f1, sum(set(g) in found for g in truth.values()) / len(truth)


def main() -> None:
    for folder in map(Path, sys.argv[1:]):
        rows: dict[str, list[tuple[float, float, float, float]]] = {name: [] for name in METHODS}
        for path in sorted(folder.glob("*.truth.json")):
            truth = json.loads(path.read_text())
            program = read_program(str(folder), [path.name.replace(".truth.json", ".py")])
            for name, method in METHODS.items():
                rows[name].append(score(truth, method(program)))
        print(f"{folder}: {len(rows['draft'])} scripts")
        for name, found in rows.items():
            means = [sum(r[i] for r in found) / max(1, len(found)) for i in range(4)]
            print(
                f"  {name:<16} precision {means[0]:.3f}  recall {means[1]:.3f}  F1 {means[2]:.3f}  exact {means[3]:.3f}"
            )


if __name__ == "__main__":
    main()
