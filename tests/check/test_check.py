"""Evidence: what a run did, compared; runs that cannot be compared are reported and leave nothing behind."""

import json
import subprocess

import pytest

from aedifex.core.check.compare import compare, mask
from aedifex.core.check.evidence import Observed
from aedifex.core.check.scenarios import Scenario, load
from aedifex.core.program.errors import AedifexError

COUNTER = """
import {imports}
count = 0


def step():
    global count
    count += 1
    return count


for _ in range(2):
    step()
{main}
print(step())
"""


def recorded(folder, main, imports="sys", scenario="", stem="line"):
    folder.write(f"{stem}.py", COUNTER.format(main=main, imports=imports))
    if scenario:
        folder.write(f"{stem}.scenarios.toml", "[[scenario]]\nname = 'run'\n" + scenario)
    assert folder.aedifex("draft", "-q", f"{stem}.py").returncode == 0
    return folder.aedifex("record", f"{stem}.design.toml")


def running(word: str) -> int:
    listed = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True).stdout
    return sum(1 for line in listed.splitlines() if word in line and "ps -eo" not in line)


def test_chance_and_clock_are_pinned(folder):
    main = """
print(random.random(), random.SystemRandom().random(), uuid.uuid4(), time.time(), datetime.datetime.now(), hash("x"))
print(time.strftime("%H:%M"), datetime.date.today(), isinstance(datetime.datetime.now(), datetime.datetime), os.getcwd()[-4:])
time.sleep(3600)
print(sorted({"a", "b", "c"}), {"b", "a"}, tempfile.gettempdir() != "/tmp")
"""
    done = recorded(folder, main, "random, uuid, time, datetime, os, tempfile")
    assert done.returncode == 0, done.stderr
    assert done.stdout == "run: exit status 0, 4 lines\n"


@pytest.mark.parametrize(
    ("main", "imports", "message"),
    [
        (
            "print(id(object()), open('/proc/self/stat').read())",
            "sys",
            "two runs of the original differ: output, line 1",
        ),
        ("import no_such_module", "sys", "the original needs the module 'no_such_module', which is not installed for"),
        ("while True: pass", "sys", "still running after 2 seconds"),
        ("while True: print('x' * 9999)", "sys", "wrote more than 8 MiB"),
        (
            "subprocess.Popen(['sleep', '77123']); os.fork(); signal.pause()",
            "os, subprocess, signal",
            "still running after 2 seconds",
        ),
    ],
)
def test_runs_that_cannot_be_compared(folder, main, imports, message):
    before = folder.sources()
    stem = f"runaway{len(message)}{len(main)}"
    done = recorded(folder, main, imports, "seconds = 2\n", stem)
    assert (done.returncode, message in done.stderr) == (1, True), done.stderr
    assert running(f"{stem}.py") == 0 and (running("sleep 77123") == 0 or "sleep" not in main)
    assert set(folder.sources()) == {*before, f"{stem}.py"}


def test_a_crash_of_the_original_is_noted(folder):
    done = recorded(folder, "print(1 / 0)")
    assert (done.returncode, "the original itself ends with 'ZeroDivisionError: division by zero'" in done.stderr) == (
        0,
        True,
    )


def test_memory_is_bounded(folder):
    done = recorded(folder, "try:\n    x = bytearray(1 << 33)\nexcept MemoryError:\n    print('no room')")
    assert done.returncode == 0, done.stderr


def test_output_files_and_status_count(folder):
    scenario = (
        "run = ['{python}', '{entry}', 'out.txt']\nbring = ['data/stops.csv']\nfiles = ['*.txt']\nstdin = \"Mill\\n\"\n"
    )
    main = "open(sys.argv[1], 'w').write(input('stop? ') + open('data/stops.csv').read())\nopen('other.log', 'w').write('x')\nsys.exit(3)"
    folder.write("data/stops.csv", "Mill,1\n")
    done = recorded(folder, main, "sys", scenario)
    assert done.stdout == "run: exit status 3, 0 lines, 1 files written\n"
    assert not (folder.path / "out.txt").exists() and not (folder.path / "other.log").exists()
    kept = json.loads((folder.path / ".aedifex" / "line.evidence.json").read_text())["runs"]["run"]["seen"]
    assert kept["files"] == {"out.txt": "MillMill,1\n"} and kept["output"] == "stop? "


ASKING = """sold = 0
fares = []


def sell(n):
    global sold
    sold += len((lambda: 0).__qualname__)
    fares.append(n)


def report():
    print(sold, fares)


for n in (1, 2, 3):
    sell(n)
    report()
"""
FAULTS = [
    ("self.x += self._speed * dt", "self.x += self._speed", "output, line"),
    ("self.riders += boarding", "pass", "output, line"),
    ("self.doors_open = False", "self.doors_open = True", "output, line"),
]


def test_a_fault_is_found(tramline):
    """A stale value, a forgotten field, another start: the check says where it shows."""
    assert tramline.aedifex("record", "-q", "tramline.py").returncode == 0
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    text = tramline.read("tram.py")
    for old, new, where in FAULTS:
        assert old in text
        tramline.write("tram.py", text.replace(old, new, 1))
        done = tramline.aedifex("check", "tramline.scenarios.toml")
        assert (done.returncode, where in done.stdout) == (1, True), done.stdout + done.stderr


def test_a_difference_stops_the_build_and_leaves_earlier_steps(folder):
    """A program that asks a lambda where it was made cannot stay the same; the step that shows it is put back."""
    folder.write("line.py", ASKING)
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    done = folder.aedifex("build", "line.design.toml")
    assert done.returncode == 1
    assert "Stopped at method:LineApp.sell; that step is put back" in done.stdout
    assert ", output, line 1" in done.stdout
    assert "class LineApp:" in folder.read("line.py") and "\ndef sell(" in folder.read("line.py")
    assert folder.aedifex("check", "-q", "line.design.toml").returncode == 0
    assert folder.aedifex("build", "-q", "line.design.toml").returncode == 1, "it stops at the same place again"


def test_compare_shows_the_first_difference_and_counts():
    scenario = Scenario("s", ignore=[r"took \d+ ms"])
    before = Observed(0, "one\ntwo took 4 ms\nthree\nfour", files={"a": "x"})
    after = Observed(1, "one\ntwo took 9 ms\n3\n4", files={"a": "y", "b": "z"})
    found = compare(scenario, before, after)
    assert [(d.where, d.line, d.count) for d in found] == [
        ("output", 3, 2),
        ("file a", 1, 1),
        ("file b", 1, 1),
        ("exit status", 0, 1),
    ]
    assert str(found[0]) == "scenario 's', output, line 3: it was 'three', now it is '3' (2 lines differ)"
    assert "-three" in found[0].context
    assert compare(scenario, before, before) == []
    assert mask(scenario, "took 31 ms") == "<ignored>"


def test_scenario_mistakes_have_line_and_key(tmp_path):
    path = tmp_path / "x.scenarios.toml"
    path.write_text(
        '[[scenario]]\nname = "a"\nsecond = 3\n[[scenario]]\nrunner = "web"\nignore = ["("]\nseconds = -1\nbring = ["../x"]\n'
        'typed = [{ say = "x" }]\nevents = [{ turn = 1, key = "a", click = [1] }]\nother = 1\n'
    )
    with pytest.raises(AedifexError) as error:
        load(str(path))
    said = str(error.value)
    for line, word in (
        (3, "'second'"),
        (5, "'web'"),
        (6, "'('"),
        (7, "'seconds'"),
        (8, "'../x'"),
        (9, "'typed'"),
        (10, "exactly one of key"),
    ):
        assert any(f":{line}: " in row and word in row for row in said.splitlines()), (line, word, said)
    assert "'name' is missing" in said
    for text, message in (("x = [", "not valid TOML"), ("", "holds no scenario"), ("[other]\n", "unknown key 'other'")):
        path.write_text(text)
        with pytest.raises(AedifexError, match=message):
            load(str(path))


def test_typed_prompts_must_come(folder):
    scenario = "typed = [{ after = 'how many?', text = '2\\n' }, { after = 'and now?', text = '3\\n' }]\n"
    done = recorded(folder, "print(input('how many? '), input())", "sys", scenario)
    assert (done.returncode, "the prompt 'and now?' never came" in done.stderr) == (1, True)
    folder.write("line.py", COUNTER.format(main="print(input('how many? '), input('and now? '))", imports="sys"))
    folder.aedifex("draft", "-q", "--again", "line.py")
    assert folder.aedifex("record", "line.scenarios.toml").returncode == 0


def test_a_drawing_is_compared(folder):
    folder.write(
        "spiral.py",
        "from turtle import *\n\nlength = 5\nturns = 0\n\n\ndef grow():\n    global length, turns\n    forward(length)\n    left(90)\n"
        "    length += 3\n    turns += 1\n\n\nfor _ in range(6):\n    grow()\nwrite(turns)\nmainloop()\n",
    )
    folder.aedifex("draft", "-q", "spiral.py")
    assert folder.aedifex("record", "spiral.design.toml").stdout.startswith("run: exit status 0, 1")
    assert folder.aedifex("build", "-q", "spiral.design.toml").returncode == 0
    kept = json.loads((folder.path / ".aedifex" / "spiral.evidence.json").read_text())["runs"]["run"]["seen"]["device"]
    assert "turtle1.at(5.0000, 0.0000, True)" in kept and "turtle1.write('6'" in kept


RIDES = """import sys

ride_count = 0
ride_log = []


def note_ride(length):
    global ride_count
    ride_count += 1
    ride_log.append(length)


def undo_ride():
    global ride_count
    if ride_log:
        ride_log.pop()
        ride_count -= 1


def play(word):
    if word == "long":
        note_ride(9)
    elif word == "short":
        note_ride(1)
    elif word == "undo":
        undo_ride()


for line in sys.stdin:
    play(line.strip())
print(ride_count, ride_log)
"""


def test_only_scenarios_that_can_tell_run_after_a_step(folder):
    """A step inside functions runs the scenarios that call them; at the end all have run."""
    from aedifex.core.apply import builder
    from aedifex.core.apply.project import open_project
    from aedifex.core.check import check as checking

    folder.write("rides.py", RIDES)
    folder.write(
        "rides.scenarios.toml",
        "".join(f"[[scenario]]\nname = '{w}'\nstdin = '{w}'\n" for w in ("long", "undo"))
        + "[[scenario]]\nname = 'none'\n",
    )
    folder.aedifex("draft", "-q", "rides.py")
    project = open_project(str(folder.path / "rides.design.toml"))
    runs = project.scenarios()
    seen = checking.record(runs, project.original_world(), project.original_hash(), project.evidence())
    assert [[s.name for s in checking.affected(runs, seen, {("rides.py", line)})] for line in (7, 13, 20)] == [
        ["long"], ["undo"], ["long", "undo"],
    ]  # fmt: skip
    assert checking.affected(runs, seen, None) == runs
    ran: list[str] = []
    after: dict[str, list[str]] = {}

    def tell(outcome) -> None:
        after[outcome.step.id] = list(ran)
        ran.clear()

    built = builder.Builder(project, runs, builder.Options(dry=True), tell, ran.append).build()
    assert built.status == 0, built.difference
    sets = {step: set(names) for step, names in after.items()}
    assert {"long", "undo", "none"} in sets.values() and {"long", "undo"} in sets.values(), sets


def test_a_difference_seen_only_at_the_end_puts_steps_back(folder, monkeypatch):
    """If no scenario was thought to be affected, all run at the end, and the steps go that change what they show."""
    from aedifex.core.apply.builder import Builder, Options
    from aedifex.core.apply.project import open_project
    from aedifex.core.check import check as checking

    folder.write("line.py", ASKING)
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    project = open_project(str(folder.path / "line.design.toml"), writing=True)
    monkeypatch.setattr(checking, "affected", lambda scenarios, seen, touched: [])
    built = Builder(project, project.scenarios(), Options()).build()
    assert built.stopped == "method:LineApp.sell" and built.status == 1
    monkeypatch.undo()
    assert "\ndef sell(" in folder.read("line.py") and not (folder.path / "line_app.py").exists()
    assert folder.aedifex("check", "-q", "line.design.toml").returncode == 0
