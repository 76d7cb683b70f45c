"""``record`` and ``check`` without a design: after single steps, after changes by hand, where a design is out of date or gone."""

import json
import os

import pytest

CONSOLE = """\
riders = 0


def board(n):
    global riders
    riders += n
    print("riders", riders)


while True:
    word = input("> ")
    if word == "q":
        break
    board(int(word))
"""
CURLY = {
    "Line.java": 'public class Line {\n    static int riders = 0;\n    static void board(int n) {\n        riders += n;\n        System.out.println(riders);\n    }\n'
    "    public static void main(String[] args) {\n        board(3);\n    }\n}\n",
    "line.js": "let riders = 0;\nfunction board(n) {\n  riders += n;\n  console.log(riders);\n}\nboard(3);\n",
}  # fmt: skip
SCENARIOS = '[[scenario]]\nname = "two come"\nstdin = "2\\nq\\n"\n'


def check(folder, *args):
    """(status, scenarios that differ, files changed since)."""
    done = folder.aedifex("check", "--json", *args)
    found = json.loads(done.stdout)
    return done.returncode, {d["scenario"] for d in found["differences"]}, found.get("changed")


@pytest.fixture
def console(folder):
    folder.write("line.py", CONSOLE)
    folder.write("line.scenarios.toml", SCENARIOS)
    return folder


def test_a_change_by_hand_is_compared_with_what_was_recorded(console):
    nothing = console.aedifex("check")
    assert (nothing.returncode, "nothing is recorded" in nothing.stderr) == (1, True)
    assert console.aedifex("record", "line.py").returncode == 0
    assert check(console) == (0, set(), [])
    console.write("line.py", CONSOLE.replace("global riders", "global riders  # counted here"))
    assert check(console, "line.scenarios.toml") == (0, set(), ["line.py"])
    console.write("line.py", CONSOLE.replace("+= n", "+= n + 1"))
    assert check(console, "line.py") == (1, {"two come"}, ["line.py"])
    assert console.aedifex("record").returncode == 0, "what stands is the original from now on"
    assert check(console) == (0, set(), [])


def test_what_was_split_by_hand_is_compared_with_the_one_file_it_was(console):
    console.aedifex("record")
    head, tail = CONSOLE.split("\n\n\nwhile")
    console.write("riding.py", head + "\n")
    console.write("line.py", "from riding import board\n\nwhile" + tail)
    assert check(console) == (0, set(), ["line.py", "riding.py"])
    console.write("riding.py", head.replace('"riders", ', "") + "\n")
    assert check(console)[:2] == (1, {"two come"})


def test_single_steps_are_compared_with_what_stood_before_them(console):
    console.aedifex("step", "rename", "riders", "people", "line.py", "--yes", "--unchecked")
    console.aedifex("step", "rename", "board", "let_in", "line.py", "--yes", "--unchecked")
    assert check(console, "line.py") == (0, set(), ["line.py"])
    console.write("line.py", console.read("line.py").replace('"riders"', '"people"'))
    assert check(console, "line.py") == (1, {"two come"}, ["line.py"])


def test_new_scenarios_are_run_on_the_original_that_was_recorded(console):
    console.aedifex("record")
    console.write("line.py", CONSOLE.replace("riders += n", "riders += n if n < 5 else 0"))
    console.write("line.scenarios.toml", SCENARIOS + SCENARIOS.replace("two", "seven").replace("2\\n", "7\\n"))
    assert check(console) == (1, {"seven come"}, ["line.py"])


def test_a_design_that_is_out_of_date_or_gone_does_not_hide_a_change(console):
    console.aedifex("draft", "-q", "line.py")
    console.aedifex("record")
    console.write("line.py", CONSOLE.replace("+= n", "-= n"))
    assert check(console) == (1, {"two come"}, ["line.py"])
    console.aedifex("draft", "-q", "--again", "line.py")
    assert check(console) == (1, {"two come"}, ["line.py"]), "a new draft is no new recording"
    console.aedifex("record")
    assert console.aedifex("build", "-q", "line.design.toml").returncode == 0
    assert check(console) == (0, set(), None)
    os.unlink(console.path / "line.design.toml")
    status, different, changed = check(console, "line.scenarios.toml")
    assert (status, different, "line.py" in changed) == (0, set(), True)
    assert console.aedifex("undo", "-q", "--all").returncode == 0, "the last steps are known without their design"
    assert "-= n" in console.read("line.py")


def test_a_build_compares_state_though_the_same_sources_were_recorded_without_its_design(console):
    console.aedifex("record")
    console.aedifex("draft", "-q", "line.py")
    assert console.aedifex("build", "-q", "line.design.toml").returncode == 0
    kept = json.loads(console.read(".aedifex/line.evidence.json"))
    assert kept["runs"]["two come"]["seen"]["state"]["riders"]


def test_each_script_of_a_folder_is_its_own_program(console):
    console.write("other.py", "n = 0\n\n\ndef count():\n    global n\n    n += 1\n\n\ncount()\nprint(n)\n")
    console.aedifex("draft", "-q", "other.py")
    console.aedifex("record", "line.py")
    assert check(console, "line.py") == (0, set(), [])
    assert check(console, "other.py") == (0, set(), None)


@pytest.mark.parametrize("name", CURLY)
def test_other_languages_too(folder, name):
    from conftest import needs

    needs("javac" if name.endswith("java") else "node")
    folder.write(name, CURLY[name])
    assert folder.aedifex("record", name).returncode == 0
    assert folder.aedifex("step", "rename", f"{name}::riders", "people", name, "--yes", "-q").returncode == 0
    assert check(folder, name) == (0, set(), [name])
    folder.write(name, CURLY[name].replace("board(3)", "board(4)"))
    assert check(folder, name)[0] == 1


def test_a_step_that_is_refused_speaks_of_no_design(folder):
    folder.write(
        "line.py", "class Line:\n    def __init__(self):\n        self.window = []\n\n\nprint(Line().window)\n"
    )
    done = folder.aedifex("step", "extend", "Line", "window", "line.py")
    assert (done.returncode, "design" in done.stderr) == (1, False)
