"""What functions hand to each other, and classes that stand: what is proposed for them, and what is left alone."""

import pytest

from aedifex.core.apply.sequence import run
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program

PARK = "def park(yard, n, tram):\n    yard[n][0] = tram\n\n\n"
FREE = "def free(yard):\n    return [siding for siding in yard if not siding[0]]\n\n\n"
COUNT = "def count(yard):\n    return sum(1 for siding in yard if siding[0])\n\n\n"
SHOW = "def show(yard):\n    screen.append([siding[0] for siding in yard])\n\n\n"
MAIN = "yard = [[0], [0]]\npark(yard, 1, 'A')\nprint(free(yard), count(yard))\n"


def drafted(folder, text, name="line.py"):
    (folder / name).write_text(text)
    program = read_program(str(folder), [name])
    return draft(program), program


def built(design, program):
    after = program
    for outcome, now in run(design, program):
        assert outcome.result in ("done", "nothing"), (outcome.step.id, outcome.refusal)
        after = now
    return {path: text.decode() for path, text in after.texts.items()}


def test_what_travels_is_an_object_and_is_asked(tmp_path):
    design, program = drafted(tmp_path, PARK + FREE + COUNT + MAIN)
    yard = design.class_named("Yard")
    assert [m.name for m in yard.methods] == ["park", "free", "count"]
    assert (yard.fields[0].name, yard.fields[0].hidden, [str(o) for o in yard.wraps]) == ("sidings", True, ["yard"])
    text = "".join(built(design, program).values())
    assert "yard.park(1, 'A')" in text and "self._sidings[n][0] = tram" in text


def test_what_somebody_else_looks_into_is_open(tmp_path):
    design, program = drafted(
        tmp_path, "screen = []\n\n\n" + PARK + FREE + SHOW + MAIN.replace("count(", "show(") + "screen = screen[:]\n"
    )
    yard = design.class_named("Yard")
    assert not yard.fields[0].hidden and "show" not in [m.name for m in yard.methods]
    text = "".join(built(design, program).values())
    assert "yard.sidings" in text and "._sidings" not in text


def test_what_another_file_imports_stays_a_function(tmp_path):
    (tmp_path / "other.py").write_text("from line import count\n\nprint(count([[1]]))\n")
    text = PARK + FREE + COUNT + "def widen(yard):\n    yard.append([0])\n\n\n" + MAIN + "widen(yard)\n"
    design, program = drafted(tmp_path, text)
    assert "count" not in [m.name for m in design.class_named("Yard").methods]
    assert "def count(yard):" in "".join(built(design, program).values())


@pytest.mark.parametrize(
    "text",
    [
        PARK + FREE + MAIN.replace(", count(yard)", ""),  # too few functions
        (PARK + FREE + COUNT + MAIN).replace("yard", "data"),  # no thing's name
        (PARK + FREE + COUNT + MAIN).replace("yard[n][0] = tram", "print(yard[n], tram)"),  # nothing changes in it
        PARK + FREE + COUNT + MAIN + "print([free])\n",  # a function is handed on
        PARK + FREE + COUNT + MAIN + "yard += [[0]]\n",  # the variable itself grows
        PARK + FREE + COUNT + MAIN + "for yard in [yard]:\n    park(yard, 0, 'B')\n",  # a loop brings it
    ],
)
def test_what_does_not_travel_alike_stays_bare(tmp_path, text):
    assert drafted(tmp_path, text)[0].class_named("Yard" if "yard" in text else "Data") is None


CLASS = "class Tram:\n    def __init__(self, x):\n        self.x = x\n\n\n"
MOVE = "def move_tram(tram, by):\n    tram.x += by\n\n\ndef far(tram):\n    return tram.x > 9\n\n\n"
CALLS = "first = Tram(3)\nmove_tram(first, 4)\nprint(far(first))\n"


def test_a_class_that_stands_gains_what_is_handed_its_objects(tmp_path):
    design, program = drafted(tmp_path, CLASS + MOVE + CALLS)
    tram = design.class_named("Tram")
    assert tram.existing and [m.name for m in tram.methods] == ["move", "far"]
    assert "first.move(4)" in "".join(built(design, program).values())


@pytest.mark.parametrize(
    "text",
    [
        CLASS + MOVE + CALLS + "move_tram(None or first, 1)\nprint(far(None or first))\n",  # not surely an object of it
        CLASS.replace("Tram:", "Tram(dict):") + MOVE + CALLS,  # its base may have such members
        CLASS + "def show(tram):\n    print(tram.x)\n\n\nshow(Tram(1))\n",  # it shows, which the class does not
    ],
)
def test_what_is_handed_something_else_at_times_stays_a_function(tmp_path, text):
    assert drafted(tmp_path, text)[0].class_named("Tram") is None
