"""Suggested scenarios: every branch that can be reached, the same file every time, found faults."""

import tomllib
from pathlib import Path

import pytest
from conftest import needs
from test_runners import LIFT, ROUTES, SKETCH, WINDOW

from aedifex.core.check import suggest
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenario_text import as_toml
from aedifex.core.check.scenarios import Scenario, load
from aedifex.core.languages.python.facts.clues import clues
from aedifex.core.program.errors import Refused
from aedifex.core.program.program import read_program

PROGRAMS = Path(__import__("aedifex").__file__).parent / "demo" / "programs"
TILL = """import sys

price = 2
sold = 0
log = []


def sell(count):
    global sold
    sold += count
    log.append(count)


def undo():
    global sold
    if log:
        sold -= log.pop()
        return True
    return False


while True:
    line = input("> ")
    if line == "sell":
        count = int(input("how many? "))
        if count > 100:
            print("too many")
        else:
            sell(count)
    elif line in ("undo", "u"):
        print("undone" if undo() else "nothing to undo")
    elif line.startswith("price"):
        price += 1
        print("price", price)
    elif line == "stop":
        print("sold", sold, sold * price)
        sys.exit(3)
    elif line == "quit":
        break
    else:
        print("what?")
print("bye", sold)
"""


def suggested(folder, name, text=None):
    folder.write(f"{name}.py", text or (PROGRAMS / f"{name}.py").read_bytes())
    done = folder.aedifex("record", "--suggest", f"{name}.py")
    assert done.returncode == 0, done.stderr
    return tomllib.loads(folder.read(f"{name}.scenarios.toml"))["scenario"]


def test_every_answer_and_every_end(folder):
    scenarios = suggested(folder, "till", TILL)
    reached = set()
    for s in scenarios:
        reached |= set(
            folder.run("till.py", s.get("stdin", ""))[1].replace("> ", "\n").replace("? ", "?\n").split("\n")
        )
    for word in ("too many", "undone", "nothing to undo", "price 3", "what?"):
        assert word in reached, (word, scenarios)
    assert {folder.run("till.py", s.get("stdin", ""))[0] for s in scenarios} >= {0, 3}
    assert folder.aedifex("draft", "-q", "till.py").returncode == 0
    assert folder.aedifex("build", "-q", "--unchecked", "till.design.toml").returncode == 0
    assert folder.aedifex("check", "-q", "till.scenarios.toml").returncode == 0


def test_arguments_are_tried(folder):
    text = (
        "import argparse\n\nparser = argparse.ArgumentParser()\nparser.add_argument('--stops', type=int, default=1)\n"
        "parser.add_argument('--mode', choices=['day', 'night'])\nparser.add_argument('-v', '--verbose', action='store_true')\n"
        "args = parser.parse_args()\nif args.verbose:\n    print('verbose')\nif args.mode == 'night':\n    print('night')\n"
        "for n in range(args.stops):\n    print(n)\n"
    )
    runs = [" ".join(s.get("run", [])[2:]) for s in suggested(folder, "line", text)]
    assert {"", "--mode night", "--verbose"} <= set(runs), runs
    first = folder.read("line.scenarios.toml")
    assert folder.aedifex("record", "--suggest", "line.py").returncode == 1, "an edited file is not replaced"
    assert folder.aedifex("record", "--suggest", "--again", "line.py").returncode == 0
    assert folder.read("line.scenarios.toml") == first


@pytest.mark.parametrize(
    ("name", "text", "runner", "wanted"),
    [
        ("tramwindow", None, "frames", {"SPACE", "s", "RIGHT", "LEFT"}),
        ("lift", LIFT, "terminal", {"UP", "DOWN", " ", "q"}),
        ("walk", SKETCH, "frames", {"Up", "Left"}),
        ("counter", WINDOW, "frames", {"Adult", "Child", "Entry 1", "a"}),
        ("routes", ROUTES, "requests", {"GET /", "GET /stops/1", "GET /stops/99", "POST /stops/1", "GET /report"}),
    ],
)
def test_events_of_each_kind(folder, name, text, runner, wanted):
    if name == "counter":
        needs("Xvfb")
    scenarios = suggested(folder, name, text)
    given = {e.get("key", e.get("control")) for s in scenarios for e in s.get("events", [])}
    given |= {f"{r.get('method', 'GET')} {r['path']}" for s in scenarios for r in s.get("requests", [])}
    imports = {"process"} if runner == "requests" else set()  # a server is also imported by others
    assert wanted <= given and {s["runner"] for s in scenarios} == {runner} | imports


def test_what_cannot_be_run_is_refused(folder, monkeypatch):
    folder.write("line.py", "import no_such_module\n")
    done = folder.aedifex("record", "--suggest", "line.py")
    assert done.returncode == 1 and "needs the module 'no_such_module'" in done.stderr
    folder.write("loop.py", "count = 0\nwhile True:\n    count += 1\n")
    monkeypatch.setattr(suggest, "QUICK", 0.5)
    monkeypatch.setattr(suggest, "LONGEST", 1.0)
    program = read_program(str(folder.path), ["loop.py"])
    world = World(str(folder.path), "loop.py", program.language, {}, list(program.files.values()))
    with pytest.raises(Refused, match="still running"):
        suggest.suggest(world, clues(world.sources))
    assert not list(folder.path.glob("*.toml"))


def test_clues(folder):
    folder.write("a.py", "import pygame\nW, H = 300, 200\npygame.display.set_mode((W, H))\nk = pygame.key.get_pressed()\nif k[pygame.K_UP]: pass\n"
                         "if e.key == pygame.K_a or e.type == pygame.MOUSEBUTTONDOWN: pass\nmatch x:\n    case 'north': pass\n"
                         "table = {'go': run, 'look': look}\nif word in 'xyz': pass\n")  # fmt: skip
    found = clues(list(read_program(str(folder.path), ["a.py"]).files.values()))
    assert found.keys == ["a"] and found.held == ["UP"] and found.mouse and found.size == (300, 200)
    assert {"north", "go", "look", "x", "y", "z"} <= set(found.words)


def test_a_written_file_reads_as_it_was(tmp_path):
    given = [
        Scenario(
            'a "b"\\',
            "process",
            env={"X Y": "ü\n"},
            stdin='1\n\t\x7f\n\n"""\\\nü\n',
            ignore=[r"\d+"],
            seconds=3.0,
            files=["*.csv"],
        ),
        Scenario("c", "frames", turns=5, events=[{"turn": 1, "key": "a", "press": True}, {"turn": 2, "quit": True}]),
        Scenario(
            "d",
            "requests",
            requests=[{"path": "/", "method": "POST", "json": {"a b": [1, {"c": None or 0}]}}],
            expect=[{"where": "output", "after": "x"}],
        ),
        Scenario(
            "e", "terminal", typed=[{"after": "?", "text": "1\n"}], run=["{python}", "{entry}", "-v"], bring=["x.txt"]
        ),
    ]
    path = tmp_path / "x.scenarios.toml"
    path.write_text(as_toml(given, "made up"))
    assert load(str(path)) == given
