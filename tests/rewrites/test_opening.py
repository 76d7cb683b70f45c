"""A script in one long function goes the whole way: asked about, wished for, opened alone, drafted, built, put back."""

import pytest

from aedifex.core.program.edits import applied
from aedifex.core.program.line_map import LineMap
from aedifex.core.program.program import read_program
from aedifex.core.rewrites.inline_main.opened import how
from aedifex.core.rewrites.inline_main.opening import Opening

FERRY = '''"""A ferry between two banks."""
import sys

WIDTH = 20


def mark(row, sign, x):
    row[max(0, min(int(x), WIDTH - 1))] = sign


# the whole evening
def main():
    """Go to and fro."""
    boat_x = 2.0
    boat_speed = 1.5
    bell_rung = 0
    bell_tone = "ding"
    money = 0

    def ring(times=1):
        nonlocal bell_rung
        bell_rung += times
        print(bell_tone * times)

    for line in sys.stdin:
        key = line.strip()
        if key == "q":
            print("early")
            return
        if key == "turn":
            boat_speed = -boat_speed
        elif key == "pay":
            money += 3
            ring()
        elif key == "bell":
            ring(2)
        # move the boat
        boat_x += boat_speed
        if boat_x < 0 or boat_x >= WIDTH:
            boat_speed = -boat_speed
        row = ["."] * WIDTH
        mark(row, "B", boat_x)
        print("".join(row), money)
    print("end", bell_rung)


if __name__ == "__main__":
    main()
'''
TYPED = "turn\npay\nbell\n\nturn\n\n\n"


@pytest.fixture
def ferry(folder):
    folder.write("ferry.py", FERRY)
    return folder


def test_it_is_divided_and_put_back(ferry):
    runs = [ferry.run("ferry.py", typed) for typed in (TYPED, TYPED + "q\nbell\n", "")]
    assert ferry.aedifex("draft", "-q", "ferry.py").returncode == 0
    design = ferry.read("ferry.design.toml")
    assert 'from = ["main.boat_x"]' in design and 'name = "run"\nfrom = ["main"]' in design
    assert 'lines = ["ferry.py:38-40"]' in design, "lines are those of the source"
    done = ferry.aedifex("build", "ferry.design.toml")
    assert done.returncode == 0 and "ferry.py:38-40 becomes the function" in done.stdout, done.stdout + done.stderr
    assert [ferry.run("ferry.py", typed) for typed in (TYPED, TYPED + "q\nbell\n", "")] == runs
    assert ferry.read("ferry.py").endswith('if __name__ == "__main__":\n    FerryApp().run()\n')
    assert "def move(self):\n        # move the boat\n" in ferry.read("boat.py")
    assert ferry.aedifex("undo", "-q", "--all").returncode == 0
    assert ferry.read("ferry.py") == FERRY


def test_what_it_holds_can_be_asked_for_and_wished_for(ferry):
    said = ferry.aedifex("ask", "boat_speed", "ferry.py").stdout
    assert "main.boat_speed  variable of main" in said and "becomes the field 'speed' of Boat" in said
    done = ferry.aedifex("draft", "ferry.py", "--together", "Till=main.money,main.bell_rung")
    assert done.returncode == 0 and "Till (model): 2 fields" in done.stdout, done.stdout + done.stderr
    assert 'together = ["main.money", "main.bell_rung"]' in ferry.read("ferry.design.toml")
    assert ferry.aedifex("build", "-q", "ferry.design.toml").returncode == 0
    ferry.aedifex("undo", "-q", "--all")
    kept = ferry.aedifex("draft", "--again", "ferry.py", "--keep", "main.bell_tone")
    assert (
        kept.returncode == 1
        and "'main.money' cannot be in Till: main stays a function" in kept.stderr
        and "bell_tone" in kept.stderr
    )
    wrong = ferry.aedifex("draft", "-q", "--again", "ferry.py", "--together", "Till=main.moneys")
    assert wrong.returncode == 2 and "'main.moneys' is not a name of these scripts" in wrong.stderr


def test_one_step_opens_it(ferry):
    before = ferry.run("ferry.py", TYPED)
    done = ferry.aedifex("step", "open", "main", "ferry.py", "--yes")
    assert done.returncode == 0 and "+        sys.exit()" not in done.stdout.split('print("early")')[0], done.stderr
    text = ferry.read("ferry.py")
    assert "def main" not in text and "    global bell_rung\n" in text and "            sys.exit()\n" in text
    assert ferry.run("ferry.py", TYPED) == before
    again = ferry.aedifex("step", "open", "main", "ferry.py")
    assert again.returncode == 1 and "[no-function]" in again.stderr


def test_what_an_installed_command_calls_stays(ferry):
    ferry.write("pyproject.toml", '[project.scripts]\nferry = "ferry:main"\n')
    done = ferry.aedifex("draft", "ferry.py")
    assert "'main' is named in pyproject.toml as what is started or served" in done.stdout
    step = ferry.aedifex("step", "open", "main", "ferry.py")
    assert step.returncode == 1 and "'main' is named in pyproject.toml as what is started or served" in step.stderr


def test_a_mistake_in_the_design_is_told_with_its_line(ferry):
    assert ferry.aedifex("draft", "-q", "ferry.py").returncode == 0
    text = ferry.read("ferry.design.toml").replace('"main.boat_x"', '"main.boat_y"')
    ferry.write("ferry.design.toml", text)
    line = text[: text.index("main.boat_y")].count("\n") + 1
    done = ferry.aedifex("build", "ferry.design.toml")
    assert (
        done.returncode == 2 and f"ferry.design.toml:{line}: 'main.boat_y' does not exist in the sources" in done.stderr
    )


def test_every_line_is_found_again_on_the_other_side(folder):
    folder.write("ferry.py", FERRY)
    file = read_program(str(folder.path), ["ferry.py"]).files["ferry.py"]
    found = how(file, read_program(str(folder.path), ["ferry.py"]).language)
    assert isinstance(found, Opening) and isinstance(found, LineMap)
    before = FERRY.split("\n")
    after = applied(file.text, found.edits, "utf-8").decode().split("\n")
    moved = {n: found.forward(f"ferry.py:{n}") for n in found.kept() if n <= len(before) and before[n - 1].strip()}
    other = {n for n, now in moved.items() if after[int(now.rpartition(":")[2]) - 1].strip() != before[n - 1].strip()}
    assert {before[n - 1].strip() for n in other} == {"nonlocal bell_rung", "return"}, "what is rewritten"
    assert all(found.back(now) == f"ferry.py:{n}" for n, now in moved.items() if n not in other)
