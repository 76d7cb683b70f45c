"""Projects of more than one file, and what the drafts and builds of them leave alone."""

import json

MAIN = """
import sys

import depot
from tickets import PRICE, sell

rides = 0
doors = 0


def ride():
    global rides
    rides += 1
    depot.take(1)
    return sell(rides)


def open_doors():
    global doors
    doors += 1


for _ in range(3):
    print(ride(), depot.cars, PRICE)
    open_doors()
depot.limit = 9
print(depot.report(), doors, len(sys.argv))
"""
DEPOT = """
cars = 5
limit = 3
log_lines = []
log_count = 0


def take(n):
    global cars
    cars -= n
    note(f"took {n}")


def note(text):
    global log_count
    log_lines.append(text)
    log_count += 1


def last():
    return log_lines[-1] if log_count else ""


def report():
    return cars, limit, last()
"""
TICKETS = "PRICE = 3\nsold = 0\n\n\ndef sell(n):\n    global sold\n    sold += n\n    return sold * PRICE\n"


def write(folder):
    folder.write("main.py", MAIN)
    folder.write("depot.py", DEPOT)
    folder.write("tickets.py", TICKETS)


def test_only_named_files_are_written(folder):
    write(folder)
    before = folder.run("main.py")
    assert folder.aedifex("draft", "-q", "main.py").returncode == 0
    built = json.loads(folder.aedifex("build", "--json", "main.design.toml").stdout)
    assert built["stopped"] is None
    assert {f for s in built["steps"] for f in s["files"]} == {"main.py", "app.py"}
    assert folder.read("depot.py") == DEPOT and folder.read("tickets.py") == TICKETS
    assert folder.run("main.py") == before
    assert folder.read("main.py") == "from app import App\n\nApp().run()\n"


def test_a_folder_is_drafted_whole(folder):
    write(folder)
    before = folder.run("main.py")
    assert folder.aedifex("draft", "-q", ".", "-o", "line.design.toml").returncode == 0
    design = folder.read("line.design.toml")
    assert 'entries = ["main.py"]' in design
    assert "'depot.cars' is used by main.py" in design and "'sell' is imported by main.py" in design
    built = json.loads(folder.aedifex("build", "--json", "line.design.toml").stdout)
    assert built["stopped"] is None
    assert folder.run("main.py") == before
    assert folder.read("main.py").endswith("App().run()\n")
    assert 'from = ["depot.py::log_lines"]' in design
    assert "class Log:" in "".join(t.decode() for t in folder.sources().values())
    assert folder.aedifex("undo", "-q", "--all", "line.design.toml").returncode == 0
    assert folder.read("depot.py") == DEPOT


def test_a_package_keeps_its_classes_in_place(folder):
    folder.write("__init__.py", "")
    folder.write(
        "main.py", "n = 0\n\n\ndef f():\n    global n\n    n += 1\n\n\nfor _ in range(2):\n    f()\nprint(n)\n"
    )
    folder.aedifex("draft", "-q", "main.py")
    done = folder.aedifex("build", "main.design.toml")
    assert done.returncode == 1
    assert "the folder is a package" in done.stdout
    assert folder.run("main.py")[1] == "2\n"
    assert set(folder.sources()) == {"__init__.py", "main.py"}


def test_two_designs_in_one_folder(folder):
    for name in ("one", "two"):
        folder.write(
            f"{name}.py", "n = 0\n\n\ndef f():\n    global n\n    n += 1\n\n\nfor _ in range(2):\n    f()\nprint(n)\n"
        )
        folder.aedifex("draft", "-q", f"{name}.py")
        assert folder.aedifex("build", "-q", f"{name}.design.toml").returncode == 0
    undecided = folder.aedifex("undo")
    assert (undecided.returncode, "aedifex undo one or two" in undecided.stderr) == (2, True)
    assert folder.aedifex("undo", "-q", "--all", "one.design.toml").returncode == 0
    assert "def f" in folder.read("one.py") and "def f" not in folder.read("two.py")
    assert folder.aedifex("undo", "-q", "--all").returncode == 0
    assert "def f" in folder.read("two.py")


def test_the_projects_own_interpreter_runs_it(folder):
    import os
    import sys

    fake = folder.write(".venv/bin/python", f'#!/bin/sh\necho own interpreter\nexec {sys.executable} "$@"\n')
    os.chmod(fake, 0o755)
    folder.write("main.py", "n = 0\n\n\ndef f():\n    global n\n    n += 1\n\n\nf()\nf()\nprint(n)\n")
    folder.aedifex("draft", "-q", "main.py")
    assert folder.aedifex("record", "main.design.toml").returncode == 0
    kept = json.loads((folder.path / ".aedifex" / "main.evidence.json").read_text())
    assert kept["runs"]["run"]["seen"]["output"] == "own interpreter\n2\n"


def test_a_design_must_lie_above_its_sources(folder):
    write(folder)
    (folder.path / "sub").mkdir()
    done = folder.aedifex("draft", "main.py", "-o", "sub/main.design.toml")
    assert (done.returncode, "must lie in the folder of the scripts or above it" in done.stderr) == (2, True)
    folder.write(
        "evil.design.toml",
        'format = 1\nlanguage = "python"\nentries = ["../x.py"]\nsources = { "../x.py" = "sha256:0" }\n',
    )
    done = folder.aedifex("build", "evil.design.toml")
    assert (done.returncode, "leaves the design's folder" in done.stderr) == (2, True)
