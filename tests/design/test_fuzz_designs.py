"""Designs that somebody spoilt by hand: each key and each table deleted, doubled, swapped and given another type. Told in sentences, whatever it is."""

import copy
import itertools
import tomllib

import pytest
import tomlkit

from aedifex.core.apply.outline import foresee
from aedifex.core.apply.project import open_project
from aedifex.core.program.errors import AedifexError

PROGRAM = """\
tram1_x = 0
tram1_log = []
tram2_x = 5
tram2_log = []
fares = 0
riders = 0


def move_tram1(by):
    global tram1_x
    tram1_x += by
    tram1_log.append(tram1_x)


def move_tram2(by):
    global tram2_x
    tram2_x += by
    tram2_log.append(tram2_x)


def sell(n):
    global fares, riders
    fares += n
    riders += 1
    print("sold", n)


class Depot:
    def __init__(self):
        self.cars = 3
        self.log = []

    def take(self):
        self.cars -= 1
        self.log.append(self.cars)

    def tell(self):
        print(self.cars, self.log)


depot = Depot()
for n in range(3):
    move_tram1(n)
    move_tram2(-n)
    sell(n)
    depot.take()
depot.tell()
print(tram1_x, tram2_x, tram1_log, tram2_log, fares, riders)
"""
PART = '\n[[part]]\nname = "Log"\nof = "Depot"\nobject = "log_book"\n\n[[part.field]]\nname = "log"\nfrom = ["log"]\n'
OTHER = [7, -1, 0.5, True, "", "x y", "line.py::", [], ["", 3], {}, [{}], tomlkit.date("2026-01-01")]


def places(value, path=()):
    """The path of each key and each item of the tables."""
    rows = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, inner in rows:
        yield (*path, key)
        yield from places(inner, (*path, key))


def changed(data, path, how, other):
    """The data with one thing changed; None where that is not possible."""
    made = copy.deepcopy(data)
    *above, last = path
    holder = made
    for key in above:
        holder = holder[key]
    if how == "delete":
        del holder[last]
    elif how == "double" and isinstance(holder, list):
        holder.insert(last, copy.deepcopy(holder[last]))
    elif how == "double":
        holder[f"{last}s"] = holder[last]
    elif how == "swap":
        keys = list(holder) if isinstance(holder, dict) else list(range(len(holder)))
        near = keys[(keys.index(last) + 1) % len(keys)]
        holder[last], holder[near] = holder[near], holder[last]
    else:
        holder[last] = other
    return made


@pytest.mark.parametrize("how", ["delete", "double", "swap", "retype"])
def test_a_spoilt_design_is_told_in_sentences(folder, how):
    folder.write("line.py", PROGRAM)
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    data = tomllib.loads(folder.read("line.design.toml") + PART)
    others = itertools.cycle(OTHER)
    told, worked, wrong = 0, 0, []
    for path in list(places(data))[len(how) % 2 :: 2]:
        folder.write("line.design.toml", tomlkit.dumps(changed(data, path, how, next(others))))
        try:
            seen = foresee(open_project(str(folder.path / "line.design.toml")))
        except AedifexError as error:
            wrong += [(path, str(error))] if "Error:" in str(error) else []
            told += 1
        except Exception as error:
            wrong.append((path, repr(error)))
        else:
            wrong += [(path, str(o.refusal)) for o in seen.refused if "cannot be worked out" in str(o.refusal)]
            worked += 1
    assert not wrong and told > 2 and worked > 2
