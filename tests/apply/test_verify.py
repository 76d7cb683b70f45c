"""Reading again after a step (D1): every mistake that rearranging by hand makes is seen before anything is written."""

import pytest

from aedifex.core.apply.verify import verify
from aedifex.core.program.program import read_program, reread

BEFORE = {
    "line.py": """
import math

LIMIT = 9
tram_x = 0
tram_speed = 2


def move(by, factor=1):
    global tram_x
    tram_x += by * tram_speed * factor
    return min(tram_x, LIMIT)


def twice(by):
    return move(by) + move(by, 2)


print(move(1), twice(math.floor(2.5)))
"""
}
AFTER = {
    "tram.py": """
LIMIT = 9


class Tram:
    def __init__(self, speed):
        self._x = 0
        self._speed = speed

    def move(self, by, factor=1):
        self._x += by * self._speed * factor
        return min(self._x, LIMIT)

    def twice(self, by):
        return self.move(by) + self.move(by, 2)
""",
    "line.py": """
import math

from tram import Tram

tram = Tram(2)
print(tram.move(1), tram.twice(math.floor(2.5)))
""",
}


def read(folder, texts):
    for name, text in texts.items():
        folder.write(name, text)
    return read_program(str(folder.path), list(texts))


def problems(folder, name, old, new):
    """What is found when one place of the rearranged program is wrong."""
    before = read(folder, BEFORE)
    assert old in AFTER[name]
    texts = {**AFTER, name: AFTER[name].replace(old, new, 1)}
    after = reread(before, {n: t.encode() for n, t in texts.items()})
    return [str(p) for p in verify(before, after, list(texts))]


def test_a_right_program_has_no_problems(folder):
    assert problems(folder, "tram.py", "LIMIT = 9", "LIMIT = 9") == []


@pytest.mark.parametrize(
    ("name", "old", "new", "message"),
    [
        ("tram.py", "LIMIT = 9", "OTHER = 9", "tram.py:12: the name 'LIMIT' means nothing here any more"),
        ("line.py", "import math\n", "\n", "line.py:7: the name 'math' means nothing here any more"),
        (
            "line.py",
            "from tram import Tram",
            "import tram as other",
            "line.py:6: the name 'Tram' means nothing here any more",
        ),
        (
            "tram.py",
            "by * self._speed",
            "by * tram_speed",
            "tram.py:11: the name 'tram_speed' means nothing here any more",
        ),
        ("tram.py", "by * self._speed", "by * self._sped", "tram.py:11: Tram has no member '_sped'"),
        ("tram.py", "        self._speed = speed\n", "", "tram.py:10: Tram has no member '_speed'"),
        ("tram.py", "self.move(by, 2)", "self.go(by, 2)", "tram.py:15: Tram has no member 'go'"),
        ("tram.py", "self.move(by, 2)", "self.move(by, 2, 3)", "'move' is called with 3 arguments, but takes 1 to 2"),
        ("tram.py", "self.move(by) ", "self.move() ", "'move' is called with 0 arguments, but takes 1 to 2"),
        ("tram.py", "self.move(by, 2)", "self.move(by, facto=2)", "'move' is called with 2 arguments"),
        ("line.py", "print(tram", "print(self", "'self' is used outside a method"),
        ("tram.py", "    def twice", "   def twice", "the compiler refuses it"),
        ("line.py", "Tram(2)", "Tram(2", "this is not Python"),
    ],
)
def test_a_mistake_is_found_with_its_line(folder, name, old, new, message):
    found = problems(folder, name, old, new)
    assert any(message in p for p in found), found


def test_members_set_from_outside_count(folder):
    assert problems(folder, "line.py", "tram = Tram(2)", "tram = Tram(2)\ntram._later = 3") == []
    found = problems(folder, "tram.py", "return min(self._x, LIMIT)", "return min(self._later, LIMIT)")
    assert found == ["tram.py:12: Tram has no member '_later'"]


def test_names_that_meant_nothing_before_are_the_programs_own_business(folder):
    before = read(folder, {"line.py": "def f():\n    return nowhere\n\n\nprint(1)\n"})
    after = reread(before, {"line.py": b"class A:\n    def f(self):\n        return nowhere\n\n\nprint(1)\n"})
    assert verify(before, after, ["line.py"]) == []
    worse = reread(before, {"line.py": b"class A:\n    def f(self):\n        return elsewhere\n\n\nprint(1)\n"})
    assert [p.message for p in verify(before, worse, ["line.py"])] == [
        "the name 'elsewhere' means nothing here any more"
    ]


def test_star_imports_may_give_any_name(folder):
    before = read(folder, {"line.py": "from math import *\nprint(sqrt(2))\n"})
    after = reread(before, {"line.py": b"from math import *\nprint(floor(sqrt(2)))\n"})
    assert verify(before, after, ["line.py"]) == []
