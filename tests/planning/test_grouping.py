"""Which variables belong together: what is set together, whatever else touches them, and in whatever order it stands."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from aedifex.core.analysis.effects import Effects, module_variables
from aedifex.core.languages.python.reading.read import read
from aedifex.core.planning.clustering.grouping import agglomerate, group, set_together
from aedifex.core.program.language import language_of

PYTHON = language_of("line.py")
# what a script is about: (functions, the groups that a person would make)
SCRIPTS = {
    "two things that a driver mixes": (
        {
            "start_a": "global p, q, r\np = q = r = 0",
            "grow": "global p\np += q",
            "start_b": "global u, v\nu = v = 1",
            "sink": "global v\nv -= u",
            "main_loop": "grow()\nsink()\nprint(p, v)",
        },
        [{"p", "q", "r"}, {"u", "v"}],
    ),
    "one use of another's variable glues nothing": (
        {
            "start_a": "global p, q\np = q = 0",
            "grow": "global p\np += q\nif u: return",
            "start_b": "global u, v\nu = v = 1",
            "sink": "global v\nv -= u",
        },
        [{"p", "q"}, {"u", "v"}],
    ),
    "what resets everything says nothing where names say more": (
        {
            "reset": "global tram_x, tram_y, fare_sum, fare_count\ntram_x = tram_y = fare_sum = fare_count = 0",
            "move": "global tram_x, tram_y\ntram_x += 1\ntram_y += 1",
            "pay": "global fare_sum, fare_count\nfare_sum += 1\nfare_count += 1",
        },
        [{"tram_x", "tram_y"}, {"fare_sum", "fare_count"}],
    ),
    "names alone": ({"a": "print(tram_x)", "b": "print(tram_y)", "c": "print(fare)"}, [{"tram_x", "tram_y"}, {"fare"}]),
}


def grouped(names: list[str], functions: dict[str, str], seed: int = 0) -> set[frozenset[str]]:
    chance = random.Random(seed)
    order = sorted(functions)
    chance.shuffle(order)
    names = sorted(names)
    chance.shuffle(names)
    text = "".join(f"{n} = 0\n" for n in names)
    for name in order:
        text += f"\n\ndef {name}():\n" + "".join(f"    {line}\n" for line in functions[name].splitlines())
    file = read("line.py", text.encode())
    assert not file.problems
    found = group(module_variables(file), file.functions, Effects(file, PYTHON), PYTHON.write.words)
    return {frozenset(v.name for v in g) for g in found}


@pytest.mark.parametrize("about", SCRIPTS)
@pytest.mark.parametrize("seed", range(3))
def test_a_person_would_group_them_so(about, seed):
    functions, wanted = SCRIPTS[about]
    assert grouped([n for g in wanted for n in g], functions, seed) == {frozenset(g) for g in wanted}


@given(st.lists(st.integers(2, 5), min_size=1, max_size=4), st.integers(0, 99))
def test_classes_flattened_are_found_again(sizes, seed):
    """Each class: one function that sets all its fields, one for each field, and a driver that calls one of each."""
    functions, wanted = {}, []
    for number, size in enumerate(sizes):
        fields = [f"{'pqrs'[number]}{'abcde'[i]}" for i in range(size)]
        wanted.append(set(fields))
        functions[f"start{number}"] = f"global {', '.join(fields)}\n" + " = ".join(fields) + " = 0"
        for f in fields:
            functions[f"use_{f}"] = f"return {f}, {fields[0]}"
    functions["drive"] = "\n".join(f"start{n}()" for n in range(len(sizes)))
    assert grouped([n for g in wanted for n in g], functions, seed) == {frozenset(g) for g in wanted}


def test_set_together_joins_over_common_members():
    a, b, c, d = (object() for _ in range(4))
    stems = dict.fromkeys((a, b, c, d), "")
    found = set_together([a, b, c, d], [{a, b}, {b, c}, set()], stems)
    assert found == [[a, b, c], [d]]


@given(st.dictionaries(st.tuples(st.integers(0, 5), st.integers(0, 5)), st.floats(0.1, 5)))
def test_agglomeration_gives_each_node_one_label_and_never_joins_the_unconnected(weights):
    weights = {(min(k), max(k)): w for k, w in weights.items() if k[0] != k[1]}
    labels = agglomerate(6, weights)
    assert len(labels) == 6 and labels == agglomerate(6, dict(reversed(weights.items())))
    reach = {i: {i} for i in range(6)}
    for _ in range(6):
        for i, j in weights:
            reach[i] |= reach[j]
            reach[j] |= reach[i]
    assert all(labels[i] != labels[j] for i in range(6) for j in range(6) if j not in reach[i])
