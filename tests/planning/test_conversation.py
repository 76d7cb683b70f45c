"""A proposal gone through with a person: every answer is a wish, one that cannot be done changes nothing, and saying
yes to all of it changes nothing either."""

import os
import pty
import select
import signal
import subprocess
import sys

import pytest

from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.conversation import Conversation
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program
from aedifex.core.program.refusal import Refusal

LINE = """\
RAIL = 40
lamp_x = 4
lamp_lit = False
cab1_at = 1
cab1_load = 0
cab2_at = 9
cab2_load = 0
fares = 0


def draw_lamp(row):
    row[lamp_x] = "*" if lamp_lit else "o"


def swing():
    global lamp_x, lamp_lit
    lamp_x = (lamp_x + 1) % RAIL
    lamp_lit = not lamp_lit


def fill_cab1():
    global cab1_load, cab1_at
    cab1_load += 1
    cab1_at += 1


def fill_cab2():
    global cab2_load, cab2_at
    cab2_load += 1
    cab2_at += 1


def sell():
    global fares
    fares += 2


for word in input().split():
    if word == "s":
        swing()
    elif word == "f":
        sell()
    fill_cab1()
    fill_cab2()
    row = ["."] * RAIL
    draw_lamp(row)
    print("".join(row), cab1_load, cab2_load, cab1_at, cab2_at, fares)
"""


@pytest.fixture
def talk(tmp_path):
    (tmp_path / "line.py").write_text(LINE)
    program = read_program(str(tmp_path), ["line.py"])
    return Conversation(program, draft(program))


def members(talk, name):
    c = talk.design.class_named(name)
    return {m.name for m in [*c.fields, *c.methods]}


def test_yes_to_all_changes_nothing_but_the_wishes(talk):
    before = [c.name for c in talk.design.classes], [members(talk, c.name) for c in talk.design.classes]
    for name in before[0]:
        talk.keep(name)
    assert before == ([c.name for c in talk.design.classes], [members(talk, c.name) for c in talk.design.classes])
    assert {w.class_ for w in talk.design.wishes} >= {"Lamp", "Cab"}
    text = to_toml(talk.design)
    assert to_toml(parse("d", text)[0]) == text and talk.kept("Lamp") and not talk.kept("Tram")


def test_each_answer_is_a_wish_and_is_taken_back(talk):
    assert talk.take("Lamp", "argument lit") == "Lamp"
    lamp = talk.design.class_named("Lamp")
    assert [f.start for f in lamp.fields] == ["argument", "argument"] and lamp.objects[0].args == ["4", "False"]
    assert talk.take("Lamp", "fixed x") == "Lamp"
    assert {f.name: f.start for f in talk.design.class_named("Lamp").fields} == {"x": "fixed", "lit": "argument"}
    assert talk.take("Lamp", "name Lantern") == "Lantern" and "draw" in members(talk, "Lantern")
    assert talk.take("Lantern", "move fares Lantern") == "Lantern" and "fares" in members(talk, "Lantern")
    assert talk.take("Lantern", "out swing") == "Lantern" and "swing" not in members(talk, "Lantern")
    while talk.back():
        pass
    assert talk.design.class_named("Lamp") and not talk.design.wishes


def test_several_objects_are_a_list_or_a_variable_each(talk):
    assert talk.take("Cab", "list") == "Cab" and talk.design.class_named("Cab").kept_in == "cabs"
    assert talk.take("Cab", "apart") == "Cab" and not talk.design.class_named("Cab").kept_in


@pytest.mark.parametrize(
    "said, code",
    [
        ("sing", "no-answer"),
        ("move x", "answer-with"),
        ("out nothing", "no-member-so"),
        ("fixed at", "cannot-start"),
        ("name 3x", "no-class-name"),
        ("name fares", "class-named-so"),
    ],
)
def test_what_cannot_be_done_changes_nothing(talk, said, code):
    before = to_toml(talk.design)
    with pytest.raises(Refusal) as no:
        talk.take("Cab", said)
    assert no.value.code == code and to_toml(talk.design) == before and not talk.back()


def test_what_is_made_of_more_than_names_is_kept_or_left_out(tmp_path):
    handed = "def {0}(yard):\n    yard[0] = '{0}'\n    return yard[0]\n\n\n"
    text = "".join(handed.format(name) for name in ("park", "clear", "turn"))
    (tmp_path / "line.py").write_text(text + "yard = [0]\nprint(park(yard), clear(yard), turn(yard))\n")
    program = read_program(str(tmp_path), ["line.py"])
    talk = Conversation(program, draft(program))
    with pytest.raises(Refusal) as no:
        talk.take("Yard", "name Bay")
    assert no.value.code == "in-the-design"
    talk.keep("Yard")
    assert talk.design.class_named("Yard").wraps and not talk.design.wishes
    assert talk.take("Yard", "out") == "" and not talk.design.classes


def typed(folder, *lines):
    """What ``aedifex draft --ask`` on a terminal shows for typed lines, and its exit status; None is Ctrl-C."""
    ours, theirs = pty.openpty()
    command = [sys.executable, "-m", "aedifex.cli.main", "draft", "--ask", "line.py"]
    child = subprocess.Popen(command, cwd=folder, stdin=theirs, stdout=theirs, stderr=theirs, start_new_session=True)
    os.close(theirs)
    shown, waiting = b"", list(lines)
    while select.select([ours], [], [], 60)[0]:
        try:
            shown += os.read(ours, 65536)
        except OSError:  # the other side has ended
            break
        if shown.endswith(b"> ") and waiting:
            line = waiting.pop(0)
            if line is None:
                child.send_signal(signal.SIGINT)
            else:
                os.write(ours, line)
    os.close(ours)
    return shown.decode(), child.wait(60)


def test_on_a_terminal_the_design_is_written_at_the_end_and_only_then(tmp_path):
    (tmp_path / "line.py").write_text(LINE)
    for last in (b"\x04", None, b"quit\n"):
        assert typed(tmp_path, b"\n", last)[1] == 1 and not list(tmp_path.glob("*.design.toml"))
    shown, status = typed(tmp_path, b"?\n", b"nonsense\n", b"list\n", b"rest\n")
    assert status == 0 and "no-answer" in shown
    design = parse("d", (tmp_path / "line.design.toml").read_text())[0]
    assert any(w.collect == ["Cab"] for w in design.wishes) and design.class_named("Cab").kept_in == "cabs"
