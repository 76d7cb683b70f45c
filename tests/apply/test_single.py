"""One step without a design: shown first, checked, journalled, followed by the designs; refused with a reason."""

import dis
import json
import random
import types

import pytest
from programs import Maker

from aedifex.core.apply.sequence import attempt
from aedifex.core.design.tables import Design
from aedifex.core.rewrites.rename import Rename
from aedifex.core.rewrites.step import Context


def names_used(text: bytes) -> list[list[tuple[str, object]]]:
    """What the interpreter's own compiler makes of each block: its operations with the names they work on."""

    def blocks(code: types.CodeType):
        yield [(i.opname, i.argval) for i in dis.get_instructions(code) if isinstance(i.argval, str)]
        for inner in code.co_consts:
            if isinstance(inner, types.CodeType):
                yield from blocks(inner)

    return list(blocks(compile(text, "line.py", "exec")))


@pytest.mark.parametrize("seed", range(12))
def test_whatever_is_renamed_the_compiler_sees_the_same_program(folder, seed):
    program = folder.program("line.py", Maker(seed).program())
    (file,) = program.files.values()
    owned = [
        (s, n) for s in file.scope.walk() for n, x in s.symbols.items() if x.kinds and s.kind in ("module", "function")
    ]
    scope, old = random.Random(seed).choice([(s, n) for s, n in owned if "import" not in s.symbols[n].kinds])
    dotted = old if scope is file.scope else f"{scope.name}.{old}"
    outcome = attempt(Rename(dotted, "fresh"), Context(program, Design("python", ["line.py"], {})), set())
    if outcome.result == "refused":
        return
    after = outcome.changes["line.py"]
    assert after is not None
    mine = {"LOAD_GLOBAL", "STORE_GLOBAL"} if scope is file.scope else {"LOAD_FAST", "STORE_FAST"}
    for was, now in zip(names_used(file.text), names_used(after), strict=True):
        assert [(op, old if name == "fresh" else name) for op, name in now] == was
        assert scope is not file.scope or (set(now) & {(op, old) for op in mine}) == set()


def test_a_rename_is_shown_first_and_the_design_follows(tramline):
    before = tramline.sources()
    words = ["step", "rename", "tram1_x", "first_x", "tramline.py"]
    shown = tramline.aedifex(*words)
    assert (shown.returncode, "+    global first_x, tram1_speed" in shown.stdout, tramline.sources()) == (
        0,
        True,
        before,
    )
    done = tramline.aedifex(*words, "--yes", "--json")
    assert json.loads(done.stdout)["files"] == ["tramline.design.toml", "tramline.py"]
    assert 'from = ["first_x", "tram2_x"]' in tramline.read("tramline.design.toml")
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    files = ["tramline.py", "tram.py", "fare.py", "service.py"]
    assert tramline.aedifex("step", "rename", "tram.py", "car.py", *files, "--yes").returncode == 0
    assert "from car import Tram" in tramline.read("service.py")
    assert tramline.aedifex("check", "-q", "tramline.design.toml").returncode == 0
    assert tramline.aedifex("undo", "--all", "tramline.design.toml").returncode == 0
    assert tramline.aedifex("undo").returncode == 0
    assert tramline.sources() == before


def test_what_cannot_be_renamed_says_why_and_writes_nothing(folder):
    folder.write(
        "line.py",
        "import desk\nstop = 1\n\ndef sell(n):\n    return eval('n') + stop\n\nprint(sell(n=2), desk.stop, __name__)\n",
    )
    folder.write("desk.py", "from line import stop\n")
    folder.write("alone.py", "print(1)\n")
    before = folder.sources()
    for old, new, why in [
        ("nothing", "x", "[no-such-name]"),
        ("stop", "2x", "[no-name]"),
        ("stop", "print", "[name-of-built-in]"),
        ("sell.n", "count", "[names-by-text]"),
        ("stop", "halt", "[dynamic-names]"),
        ("desk.py", "sys.py", "[hides-library-module]"),
        ("desk.py", "till.py", "[imported-by]"),
        ("alone.py", "main.py", "[people-start]"),
    ]:
        done = folder.aedifex("step", "rename", old, new, old if old.endswith(".py") else "line.py", "--yes")
        assert done.returncode in (1, 2) and why in done.stderr.replace(f"{old}:", ""), (old, done.stderr)
    assert folder.sources() == before


def test_a_rename_that_shows_is_put_back(folder):
    folder.write("line.py", "def sell():\n    pass\n\nprint(sell.__name__)\n")
    done = folder.aedifex("step", "rename", "sell", "hand_out", "line.py", "--yes")
    assert done.returncode == 1 and "would do something else" in done.stderr
    assert "def sell" in folder.read("line.py")


def test_lines_are_lifted_shown_first_and_put_back(folder):
    text = "total = 0\nfor riders in [1, 2, 5]:\n    total += riders\n    fare = 2 if riders < 3 else 1\n    print(fare * riders, total)\nprint(total)\n"
    folder.write("line.py", text)
    shown = folder.aedifex("step", "lift", "line.py:3-4", "board", "line.py")
    assert (shown.returncode, "+def board(riders):" in shown.stdout, folder.read("line.py")) == (0, True, text)
    done = folder.aedifex("step", "lift", "line.py:3-4", "board", "--yes", "line.py")
    assert done.returncode == 0, done.stderr
    assert "    fare = board(riders)\n    print(fare * riders, total)\n" in folder.read("line.py")
    assert "    global total\n    total += riders\n    return 2 if riders < 3 else 1\n" in folder.read("line.py")
    assert folder.aedifex("undo", "-q", "--all", ".").returncode == 0
    assert folder.read("line.py") == text


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        ("line.py:2-3", "[cut-in-two]"),
        ("line.py:9", "there are no lines 9 to 9"),
        ("other.py:1", "is not among the sources"),
        ("line.py", "names no lines"),
        ("line.py:4-5", "'return' leaves the lines before the function's end"),
        ("line.py:7", "'yield' gives something back from the function itself"),
    ],
)
def test_what_cannot_be_lifted_says_why_in_one_sentence(folder, lines, said):
    folder.write(
        "line.py",
        "def f(n):\n    for i in range(n):\n        n += 1\n        if n > 3:\n            return i\n    print(n)\n    yield n\n",
    )
    done = folder.aedifex("step", "lift", lines, "taken_out", "line.py")
    assert done.returncode in (1, 2) and said in done.stderr and done.stderr.count("\n") == 1


def test_a_new_method_hides_none_that_an_heir_in_a_file_beside_has(folder):
    folder.write(
        "line.py",
        "class Tram:\n    def go(self):\n        for n in range(2):\n            print(n)\n        return self\n\n\nTram().go()\n",
    )
    folder.write(
        "fast.py",
        "from line import Tram\n\n\nclass Fast(Tram):\n    def tell(self):\n        return 'fast'\n\n\nprint(Fast().go().tell())\n",
    )
    before = folder.run("fast.py")
    done = folder.aedifex("step", "lift", "line.py:3-4", "tell", "--yes", "line.py")
    assert done.returncode == 1 and "'tell' is in use already; choose another name" in done.stderr
    assert folder.aedifex("step", "lift", "line.py:3-4", "count", "--yes", "line.py").returncode == 0
    assert "self.count()" in folder.read("line.py") and folder.run("fast.py") == before


DEPOT = """import sys


class Depot:
    def __init__(self):
        self.tracks = []
        self.moves = 0
        self.cash = 0

    def park(self, tram):
        self.tracks.append(tram)

    def run(self):
        for line in sys.stdin:
            words = line.split()
            self.moves += 1
            print("heard", words)
            self.park(words[0])
            self.cash += len(words)
        print(self.moves, self.tracks, self.cash)


depot = Depot()
depot.run()
print(depot.cash)
"""
OWN_TABLES = """
[[part]]
name = "Yard"
of = "Depot"
object = "yard"

[[part.field]]
name = "trams"
from = ["tracks"]

[[part.method]]
name = "park"
from = ["park"]

[[lift]]
name = "hear"
of = "Depot.run"
lines = ["depot.py:16-17"]

[[stream]]
name = "console"
from = ["print"]
class = "Console"
"""


@pytest.mark.parametrize(
    "old, new, wanted",
    [
        ("Depot.tracks", "rails", ('from = ["rails"]', 'from = ["park"]', 'of = "Depot.run"')),
        ("Depot.park", "dock", ('from = ["tracks"]', 'from = ["dock"]', 'of = "Depot.run"')),
        ("Depot.run", "open", ('of = "Depot"\n', 'from = ["park"]', 'of = "Depot.open"')),
        ("Depot", "Barn", ('of = "Barn"\n', 'from = ["park"]', 'of = "Barn.run"')),
        ("Depot.run.words", "said", ('of = "Depot"\n', 'from = ["tracks"]', 'of = "Depot.run"')),
    ],
)
def test_a_rename_reaches_every_table_of_a_design(folder, old, new, wanted):
    folder.write("depot.py", DEPOT)
    assert folder.aedifex("draft", "-q", "depot.py").returncode == 0
    head = folder.read("depot.design.toml").split("\n\n")[0]
    folder.write("depot.design.toml", head + "\n" + OWN_TABLES)
    assert folder.aedifex("preview", "-q", "depot.design.toml").returncode == 0
    done = folder.aedifex("step", "rename", old, new, "depot.py", "--yes", "--unchecked")
    text = folder.read("depot.design.toml")
    assert done.returncode == 0 and all(w in text for w in wanted), done.stderr + text
    built = folder.aedifex("build", "--unchecked", "depot.design.toml")
    assert built.returncode == 0 and "Yard" in built.stdout, built.stdout + built.stderr
    assert folder.run("depot.py", "a b\nc\n")[:2] == (0, "heard ['a', 'b']\nheard ['c']\n2 ['a', 'c'] 3\n3\n")
