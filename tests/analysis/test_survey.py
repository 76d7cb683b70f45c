"""Facts: natures of variables, families, effects through calls and objects, hazards with their lines, figures."""

import pytest

from aedifex.core.analysis.ask import ask
from aedifex.core.analysis.effects import Effects
from aedifex.core.analysis.families import families, numbered
from aedifex.core.analysis.hazards import hazards
from aedifex.core.analysis.metrics import figures
from aedifex.core.analysis.report import survey
from aedifex.core.analysis.variable_kinds import classify, movable


def parts(folder, text):
    program = folder.program("line.py", text)
    file = program.files["line.py"]
    return program, file, Effects(file, program.language)


def test_natures(folder):
    program, file, _ = parts(
        folder,
        "import math\nWIDTH = 60\nHALF = WIDTH // 2 + math.floor(2.5)\nNAMES = ['a', 'b']\nlog = []\nstart = input()\nspeed = 2\n"
        "low = high = 1\nfor i in range(3):\n    speed += i\nlog.append(1)\nx: int = 4\nDEBUG = not True\n",
    )
    found = {v.name: (v.nature, v.type) for v in classify(file, program.language).values()}
    assert found == {
        "WIDTH": ("constant", "int"), "HALF": ("constant", ""), "NAMES": ("constant", "list"), "log": ("companion", "list"),
        "start": ("companion", ""), "speed": ("state", "int"), "low": ("companion", ""), "high": ("companion", ""), "i": ("state", ""),
        "x": ("constant", "int"), "DEBUG": ("constant", "bool"),
    }  # fmt: skip


@pytest.mark.parametrize(
    ("name", "expected"),
    [
        ("tram1_x", ("tram#_x", 1, "tram")),
        ("tram_12_x", ("tram_#_x", 12, "tram")),
        ("x2", ("x#", 2, "x")),
        ("move_tram2", ("move_tram#", 2, "move")),
        ("tram_x1", ("tram_x#", 1, "tram")),
        ("tram1Speed", ("tram#Speed", 1, "tram")),
        ("tram", None),
        ("_1", None),
        ("utf8", ("utf#", 8, "utf")),
    ],
)
def test_numbered_names(name, expected):
    assert numbered(name) == expected


def test_families_need_two_numbers_and_something_in_common(folder):
    program, file, _ = parts(
        folder,
        "car1_x = 1\ncar1_y = 2\ncar2_x = 3\ncar2_y = 4\ncar3_x = 9\nutf8 = 1\nbus1_x = 0\nbus2_x = 1\n\n\n"
        "def go_bus1():\n    global bus1_x\n    bus1_x += 1\n\n\ndef go_bus2():\n    global bus2_x\n    bus2_x += 1\n\n\n"
        "def stop_car1():\n    return car1_x\n\n\ndef stop_car2():\n    return car2_y\n",
    )
    kinds = classify(file, program.language)
    found = {f.stem: f for f in families(file, program.language, list(kinds))}
    assert set(found) == {"car", "bus"}
    assert found["car"].numbers == [1, 2, 3] and not found["car"].twins, "their bodies differ in more than the number"
    assert [[f.name for f in row] for row in found["bus"].twins] == [["go_bus1", "go_bus2"]]


def test_effects_reach_through_calls_and_known_objects(folder):
    _, file, effects = parts(
        folder,
        """
import window

count = 0
level = 0


class Depot:
    def take(self):
        global count
        count += 1

    def rest(self):
        return level


depot = Depot()


def first():
    second()


def second():
    depot.take()


def third():
    depot.rest()


def fourth():
    window.update()


def fifth():
    print(len("x"))


def handler():
    global level
    level += 1


window.on_key(handler)
""",
    )
    reach = {
        u.name: (sorted(s.name for s in effects.reach[s].writes if s.name in ("count", "level")))
        for s, u in effects.units.items()
    }
    assert reach["first"] == reach["second"] == ["count"]
    assert reach["third"] == [] and reach["fifth"] == []
    assert reach["fourth"] == ["level"], "unseen code may run the handler, but never got the depot"
    reads = {s.name for s in effects.reach[file.scope.symbols["third"]].reads}
    assert "level" in reads and "depot" in reads


def test_objects_that_get_about_may_be_called_by_unseen_code(folder):
    _, file, effects = parts(
        folder,
        "import window\n\ncount = 0\n\n\nclass Depot:\n    def take(self):\n        global count\n        count += 1\n\n\n"
        "depot = Depot()\nwindow.add(depot)\n\n\ndef wait():\n    window.update()\n",
    )
    assert {s.name for s in effects.escaped} == {"Depot"}
    assert file.scope.symbols["count"] in effects.reach[file.scope.symbols["wait"]].writes


def test_what_can_be_evaluated_elsewhere(folder):
    program, file, _ = parts(
        folder,
        "import math, os\nWIDTH = 2\nspeed = 1\nspeed = 2\na = WIDTH * 2 + math.floor(1.5)\nb = speed + 1\nc = os.getcwd()\n"
        "d = [WIDTH, {'k': (1, -2)}, f'{WIDTH:>3}']\ne = print\nf = len([1]) if WIDTH else abs(-3)\ng = (lambda: 1)\nh = math.pi\n",
    )
    constants = {s for s, v in classify(file, program.language).items() if v.nature == "constant"}
    spans = {s.target.name: s.value for s in file.statements if s.target is not None}
    found = {name for name, span in spans.items() if movable(file, span, constants, program.language)}
    assert found >= {"WIDTH", "a", "d", "f", "h"}
    assert not found & {"b", "c", "g"}


@pytest.mark.parametrize(
    ("text", "kind", "line", "names"),
    [
        ("x = 1\nglobals()['x'] = 2\n", "named by text", 2, ("x",)),
        ("x = 1\nglobals()['x' * 1] = 2\n", "dynamic names", 2, ()),
        ("x = 1\nprint(eval('x'))\n", "dynamic names", 2, ()),
        ("x = 1\nprint(vars())\n", "dynamic names", 2, ()),
        ("def f():\n    return locals()\n", None, 0, ()),
        ("if (x := 3):\n    pass\n", "binding", 1, ("x",)),
        ("x = 1\nprint(f'{x=}')\n", "binding", 2, ("x",)),
        ("x = 1\ndel x\n", "binding", 2, ("x",)),
        ("def f(): pass\n\n\ndef f(): pass\n", "redefined", 4, ("f",)),
        ("def f(): pass\nf = 3\n", "redefined", 1, ("f",)),
        ("import abc\n\n\n@abc.x\ndef f(): pass\n", "decorated", 4, ("f",)),
        ("def f(): pass\nprint(f is None)\n", "function as value", 2, ("f",)),
        ("def f(): pass\nf.count = 1\n", "function as value", 2, ("f",)),
        ("def f(): pass\nt = {f: 1}\n", "function as value", 2, ("f",)),
        ("import multiprocessing\n", "other processes", 1, ()),
        ("def f():\n    import pickle\n", "other processes", 2, ()),
        ("from os import *\n", "star import", 1, ()),
        ("__all__ = ['x']\nx = 1\n", "used outside", 1, ("x",)),
    ],
)
def test_hazards_have_their_place(folder, text, kind, line, names):
    program = folder.program("line.py", text)
    found = [(h.kind, h.line, h.names) for h in hazards(program, "line.py")]
    assert found == ([(kind, line, names)] if kind else [])


def test_other_files_that_import_set_or_patch(folder):
    folder.write(
        "other.py",
        "from line import speed\nimport line as l\n\n\ndef patch():\n    import line\n    l.doors = 1\n    line.go()\n",
    )
    folder.write("star.py", "from line import *\n")
    program = folder.program("line.py", "speed = 1\ndoors = 0\n\n\ndef go(): pass\n")
    from aedifex.core.program.surroundings import read_neighbours

    found = {(h.path, h.line, h.names) for h in hazards(program, "line.py", read_neighbours(program))}
    assert found == {
        ("other.py", 1, ("speed",)),
        ("other.py", 7, ("doors",)),
        ("other.py", 8, ("go",)),
        ("star.py", 1, ()),
    }


def test_figures(folder):
    program = folder.program(
        "line.py",
        "LIMIT = 3\ncount = 0\n\n\nclass Tram:\n    def go(self):\n        self.x = 1\n\n    def stop(self):\n        self.x = 0\n\n"
        "    def paint(self):\n        self.colour = 1\n\n\ndef long():\n    for i in range(3):\n        if i:\n            while i:\n"
        "                i -= 1\n    return 1\n\n\nwhile count < LIMIT:\n    count += 1\nprint(count)\n",
    )
    found = figures(program)
    assert (found.lines, found.globals, found.constants, found.main_statements) == (26, 1, 1, 4)
    assert (found.functions, found.classes, found.longest, found.longest_name, found.nesting) == (4, 1, 6, "long", 3)
    assert found.cohesion == pytest.approx(0.33), "one pair of three shares a field"


def test_ask_tells_all_references(folder):
    program = folder.program(
        "line.py", "n = 1\n\n\ndef f():\n    global n\n    n += 1\n    return n\n\n\nhandler = f\nprint(handler(), n)\n"
    )
    answer = ask(program, "n")[0]
    assert answer.references == [
        (1, "write", "main code"),
        (6, "both", "f"),
        (7, "value", "f"),
        (11, "value", "main code"),
    ]
    function = ask(program, "f")[0]
    assert "is passed on as a value, so unseen code may call it" in function.facts
    assert "changes n (calls included)" in function.facts


def test_a_long_main_function_is_looked_into(folder):
    program = folder.program(
        "line.py",
        "import sys\n\nrides = 0\n\n\ndef main(argv):\n    global rides\n    speed = 1\n    log = []\n    while speed < 5:\n"
        "        speed += 1\n        log.append(speed)\n        rides += 1\n    for entry in log:\n        print(entry)\n    return rides\n\n\n"
        "if __name__ == '__main__':\n    sys.exit(main(sys.argv))\n",
    )
    found = survey(program).files[0]
    units = {u.name: u.access for u in found.units}
    assert units["main set-up"] == {"speed": "w", "log": "w"}
    assert units["main loop"] == {"rides": "rw", "speed": "rw", "log": "rw"}
    assert units["main closing"] == {"rides": "r", "log": "r", "entry": "rw"}
    natures = {v.name: (v.nature, v.in_loop) for v in found.variables}
    assert (
        natures["speed"] == ("local", True) and natures["argv"] == ("local", False) and natures["rides"][0] == "state"
    )


def test_functions_made_in_a_loop_that_see_its_variable_late_are_told(folder):
    text = "kept = []\nfor i in range(3):\n    def press():\n        return i\n    kept.append(press)\n    kept.append(lambda: i)\n    kept.append(lambda i=i: i)\n    print(sorted([1, 2], key=lambda n: n * i))\n"
    program = folder.program("line.py", text)
    assert [(h.line, "'i'" in h.message) for h in hazards(program, "line.py") if h.kind == "seen late"] == [
        (4, True),
        (6, True),
    ]
    page = folder.program(
        "line.js", "for (var m of [1, 2]) kept.push(() => m);\nfor (let i = 0; i < 2; i++) kept.push(() => i);\n"
    )
    assert [h.line for h in hazards(page, "line.js") if h.kind == "seen late"] == [1]


@pytest.mark.parametrize("own", ["this.", ""])
def test_a_field_that_is_named_alone_counts_for_cohesion(folder, own):
    text = (
        "public class Line {\n    static class Tram {\n        int x, doors;\n"
        f"        void move() {{ {own}x += 1; }}\n        int place() {{ move(); return {own}x; }}\n"
        f"        void open() {{ {own}doors = 1; }}\n    }}\n"
        "    public static void main(String[] args) { new Tram().move(); }\n}\n"
    )
    assert figures(folder.program("Line.java", text)).cohesion == pytest.approx(0.33)
