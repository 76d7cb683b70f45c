"""What steps of a design refuse beside the founding of a class: twins, records, lists, common bases, what is shared, handed over, or moved."""

import pytest
from cases import apply
from conftest import needs

CAR = '[[class]]\nname = "{name}"\n{more}\n[[class.field]]\nname = "{field}"\nfrom = ["{field}"]\n[[class.object]]\nname = "{object}"\n'
TWINS = '[[class]]\nname = "Tram"\n{more}[[class.field]]\nname = "x"\nfrom = ["a_x", "b_x"]\n[[class.method]]\nname = "move"\nfrom = ["move_a", "move_b"]\n{method}[[class.object]]\nname = "a"\n[[class.object]]\nname = "b"\n'
PAIR = "a_x = 1\nb_x = 2\n\n\ndef move_a():\n    global a_x\n    a_x += {one}\n\n\ndef move_b():\n    global b_x\n    b_x += {two}\n\n\nmove_a()\nmove_b()\nprint(a_x, b_x)\n"
STORED = '[[class.field]]\nname = "load"\nfrom = ["", ""]\nstart = "argument"\nvalue = "load"\n'
STEPPED = '[[class.field]]\nname = "step"\nfrom = ["", ""]\n'
RECORDS = '[[class]]\nname = "{name}"\n[[class.field]]\nname = "a"\nfrom = ["{holder}[a]"]\n[[class.field]]\nname = "b"\nfrom = ["{holder}[b]"]\n{more}[[class.object]]\nname = "{holder}"\n'
RECORD = 'car = {"a": 1, "b": 2}\n\n\ndef move(c):\n    c["a"] += 1\n\n\nmove(car)\nprint(car["a"], car["b"])\n'
MOVES = '[[class.method]]\nname = "move"\nfrom = ["move"]\n{drop}'
SHARED = '[[class]]\nname = "Tram"\n[[class.field]]\nname = "x"\nfrom = ["x"]\n[[class.field]]\nname = "rate"\nfrom = ["rate"]\nshared = true\n[[class.object]]\nname = "tram"\n'
RATE = "x = 1\nrate = 2\n\n\ndef show():\n    print(rate, x)\n\n\nrate += 1\nshow()\n"
ADDED = '[[class]]\nname = "Tram"\n[[class.field]]\nname = "x"\nfrom = ["x"]\n[[class.method]]\nname = "move"\nfrom = ["move"]\nadd = [{ name = "n", value = "n" }]\n[[class.object]]\nname = "tram"\n'
HANDED = "n = 1\nx = 1\n\n\ndef move():\n    global x\n    x += n\n\n\nmove()\nn = 2\nmove()\nprint(x)\n"
MOVE = "x = 1\n\n\ndef move():\n    global x\n    x += 1\n\n\nmove()\nprint(x)\n"
TRAM = '[[class]]\nname = "Tram"\n{more}[[class.field]]\nname = "x"\nfrom = ["x"]\n[[class.method]]\nname = "move"\nfrom = ["move"]\n[[class.object]]\nname = "tram"\n'
LISTS = '[[class]]\nname = "Car"\n[[class.field]]\nname = "x"\nfrom = ["xs"]\n[[class.field]]\nname = "y"\nfrom = ["ys"]\n[[class.method]]\nname = "move"\nfrom = ["move"]\n{drop}[[class.object]]\nname = "car"\ncollection = "cars"\n'
XS = "xs = [1, 2]\nys = [3, 4]\n\n\ndef move(i, by):\n    xs[i] += by\n    print(ys[i])\n\n\nfor i in range(len(xs)):\n    move(i, 1)\n"
STARTED = '[[class]]\nname = "Tram"\n[[class.field]]\nname = "x"\nfrom = ["tram_x"]\nstart = "argument"\n[[class.field]]\nname = "f"\nfrom = ["tram_f"]\n[[class.object]]\nname = "tram"\nargs = ["3"]\n'
BY = TRAM.replace('from = ["move"]\n', 'from = ["move"]\ndrop = ["by"]\n')
TURNS = TWINS.format(more="", method="").replace("[[class.object]]", '[[class.method]]\nname = "turn"\nfrom = ["turn"]\ndrop = ["which"]\n[[class.object]]', 1)
TURN = "a_x = 1\nb_x = 2\n\n\n" + "".join(f"def move_{n}():\n    global {n}_x\n    {n}_x += 1\n    if {n}_x < 3:\n        turn({n}_x)\n\n\n" for n in "ab") + "def turn(which):\n    print(which)\n    if which > 5:\n        move_a()\n\n\nturn(a_x)\nmove_b()\n"
LOG = '[[class]]\nname = "Log"\n[[class.field]]\nname = "n"\nfrom = ["n"]\n[[class.method]]\nname = "note"\nfrom = ["note"]\nadd = [{{ name = "{0}", value = "{0}" }}]\n[[class.object]]\nname = "log"\n'
NOTED = "n = 0\n\n\ndef note(k=1):\n    global n\n    n += {0}_x + k\n\n\n"
APP = '[[class]]\nname = "LineApp"\nrole = "app"\n[[class.field]]\nname = "x"\nfrom = ["x"]\n[[class.method]]\nname = "move"\nfrom = ["move"]\n[[class.object]]\nname = "app"\n'
BYTES = "public class Line {\n    static int aX = 1;\n    static int bX = 2;\n\n    static void moveA() {\n        byte n = 1;\n        aX += n;\n    }\n\n    static void moveB() {\n        byte n = 2;\n        bX += n;\n    }\n\n    public static void main(String[] args) {\n        moveA();\n        moveB();\n        System.out.println(aX + bX);\n    }\n}\n"


def car(name, field, object_, more=""):
    return CAR.format(name=name, field=field, object=object_, more=more)


def based(first, second):
    return car("Car", "x", "car", 'base = "Rail"') + car("Tram", "y", "tram", 'base = "Rail"').replace('from = ["y"]', f'from = ["{second}"]').replace('from = ["x"]', f'from = ["{first}"]')


# (step, design, files, what it says)
REFUSED = [
    ("base:Rail", car("Car", "line.py::x", "car", 'base = "Rail"').replace('name = "line.py::x"', 'name = "x"') + car("Tram", "page.py::y", "tram", 'base = "Rail"').replace('name = "page.py::y"', 'name = "y"'),
     {"line.py": "x = 1\nprint(x)\n", "page.py": "y = 2\nprint(y)\n"}, "base-of-several-files line.py"),
    ("method:Car.move", LISTS.format(drop=""), XS, "no-index-parameter line.py:10"),
    ("method:Car.move", LISTS.format(drop='drop = ["by"]\n'), XS, "stays-function line.py:10 'by' is more than an index"),
    ("records:move", RECORDS.format(name="move", holder="car", more=""), RECORD, "name-in-use line.py"),
    ("records:Car", RECORDS.format(name="Car", holder="car", more="").replace("[b]", "[a]"), RECORD, "no-records line.py"),
    ("records:Car", RECORDS.format(name="Car", holder="car", more=""), RECORD + "print(eval('car'))\n", "dynamic-names line.py:10 'eval()' can reach any name by its text, so no variable or function can move"),
    ("method:Car.move", RECORDS.format(name="Car", holder="car", more=MOVES.format(drop="")), RECORD, "not-handed-object line.py:10"),
    ("method:Car.move", RECORDS.format(name="Car", holder="car", more=MOVES.format(drop='drop = ["c"]\n')), RECORD.replace("def move(c):", "def move(c, by=print()):"), "stays-function line.py:10 'c' of 'move' is set again, or a default is worked out where the function stands"),
    ("hoist:Tram.step", TWINS.format(more=STEPPED, method="").replace('name = "a"\n', 'name = "a"\nargs = ["1"]\n').replace('name = "b"\n', 'name = "b"\nargs = ["2"]\n'), PAIR.format(one=1, two=2).replace("a_x = 1\n", "(a_x) = 1\n"), "nothing-sets line.py"),
    ("hoist:Tram.step", TWINS.format(more=STEPPED, method="").replace('name = "a"\n', 'name = "a"\nargs = ["1"]\n').replace('name = "b"\n', 'name = "b"\nargs = ["2"]\n'), PAIR.format(one=1, two=2).replace("a_x = 1\n", "a_x = 1; n = 1\n"), "several-on-line line.py"),
    ("store:Tram.load", TWINS.format(more=STORED, method=""), PAIR.format(one="load", two="load").replace("move_a()\nmove_b()", "load = 5\nmove_a()\nmove_b()"), "source-set-after line.py:15"),
    ("store:Tram.load", TWINS.format(more=STORED, method=""), "load = 5\n" + PAIR.format(one="len(f'{load=}')", two="load"), "no-other-name line.py:8"),
    ("share:Tram.rate", SHARED, RATE.replace("def show():", "def show(Tram=1):"), "means-else-class line.py:6"),
    ("share:Tram.rate", SHARED, "x = 1\nrate = 2; n = 1\nprint(rate, x)\n", "first-value-shares-line line.py:2"),
    ("share:Tram.rate", SHARED, "x = 1\nrate = len('ab')\nprint(rate, x)\n", "first-value-in-place line.py:2"),
    ("pass:Tram.move", ADDED.replace('name = "n", value', 'name = "m", value'), HANDED.replace("    x += n", "    x += n\n    for m in [1]:\n        pass"), "means-else line.py:7"),
    ("method:Tram.move", TRAM.format(more=""), MOVE.replace("def move", "if x:\n    print(x)\ndef move").replace("\ndef move():\n    global x\n    x += 1\n", "\nif x:\n    def move():\n        global x\n        x += 1\n"), "made-in-block line.py:7"),
    ("method:Tram.move", TRAM.format(more=""), {"line.js": "let x = 1; function move() {\n  x += 1;\n}\nmove();\nconsole.log(x);\n"}, "not-first-on-line line.js:2"),
    ("file:Tram", TRAM.format(more='file = "tram.py"\n'), {"line.py": MOVE, "tram.txt": ""}, ""),
    ("split:Tram", TRAM.format(more="").replace('from = ["x"]', 'from = ["x"]'), {"line.js": "let x = 1 /* , */, y = 2;\nfunction move() {\n  x += 1;\n}\nmove();\nconsole.log(x, y);\n"}, ""),
    ("found:Tram", STARTED, "from math import pi as x\n\ntram_x = 3\ntram_f = x * 2\n\n\ndef show():\n    print(tram_x, tram_f)\n\n\nshow()\n", "parameter-hides line.py"),
    ("found:Tram", TRAM.format(more=""), MOVE + "print(globals())\n", "dynamic-names line.py:11 'globals()' can reach any name by its text, so no variable or function can move"),
    ("hoist:Tram.step", TWINS.format(more=STEPPED, method="").replace('"a_x", "b_x"', '"aX", "bX"').replace('"move_a", "move_b"', '"moveA", "moveB"').replace('name = "a"\n', 'name = "a"\nargs = ["1"]\n').replace('name = "b"\n', 'name = "b"\nargs = ["2"]\n'), {"Line.java": BYTES}, "no-variable-for-literal Line.java:8"),
    ("method:Tram.move", BY.format(more=""), {"line.js": "let x = [1];\nfunction move(by) {\n  x[0] += by.length;\n}\nmove(x);\nmove`a`;\nconsole.log(x);\n"}, "call-unreadable line.js:6"),
    ("method:Tram.move", TURNS, TURN, "called-by-others-method line.py:22"),
    ("method:Tram.move", TRAM.format(more=""), MOVE.replace("    x += 1", "    x += sum(self * x for self in [1])"), "stays-function line.py:4 line 6: 'tram' is used where 'self' means something else"),
    ("method:Tram.move", TRAM.format(more=""), MOVE.replace("    x += 1", "    x += sum(move() for self in [])"), "stays-function line.py:4 line 6: 'self' means something else there"),
    ("method:Tram.move", TRAM.format(more=""), "self = 3\n" + MOVE.replace("    x += 1", "    x += self"), "stays-function line.py:5 'self' is a variable of the file, and would be the object"),
    ("pass:Log.note", TWINS.format(more="", method="") + LOG.format("a"), NOTED.format("a") + PAIR.format(one="1\n    note()", two="1\n    note()"), "only-caller-knows line.py:16"),
    ("pass:Log.note", TRAM.format(more="").replace('["x"]', '["tram_x"]') + LOG.format("tram"), NOTED.format("tram") + MOVE.replace("x", "tram_x").replace("+= 1", "+= 1\n    print([note(self) for self in (1, 2)])"), "cannot-be-passed line.py:15 line 15: 'self' means something else there"),
    ("pass:Tram.move", ADDED, {"line.js": "let n = 1;\nlet x = 1;\nfunction move() {\n  x += n;\n}\nmove();\nn = 2;\nmove`a`;\nconsole.log(x);\n"}, "handed-on line.js:8"),
    ("pass:Tram.move", ADDED.replace('name = "n", value', 'name = "m", value'), HANDED.replace("x += n", "m = 3\n    x += m"), "local-of-that-name line.py:5"),
    ("share:Tram.rate", SHARED, "print(1)\nx = 1\nif x > 3:\n    print(rate)\nrate = 2\nprint(x, rate)\n", "read-before-first-value line.py:3"),
    ("share:Tram.rate", SHARED, {"line.js": "function tell() {\n  console.log(rate);\n}\ntell();\nvar x = 1;\nvar rate = 2;\ntell();\nconsole.log(x);\n"}, "read-before-first-value line.js:1"),
    ("stream:out", '[[stream]]\nname = "out"\nfrom = ["println"]\n', {"line.pde": "int x = 1;\nvoid setup() {\n  println(x);\n}\n"}, "no-console line.pde"),
    ("main:LineApp.run", APP, MOVE.replace("move()\nprint(x)", "def tell():\n    print(x)\n\n\nmove()\ntell()"), "main-stays line.py:10 line 10 still needs the app from outside"),
    ("main:LineApp.run", APP, MOVE.replace("move()\nprint", "f = lambda: vars()\nmove()\nprint"), "main-stays line.py:9 'vars()' reaches names by their text"),
    ("main:LineApp.run", APP, MOVE.replace("\nmove()\nprint(x)", "\nif __name__ == '__main__':\n    move()\n    from os import *\n    print(x)"), "main-stays line.py:11 a star import stands inside the main code"),
]  # fmt: skip


@pytest.mark.parametrize(("step", "designed", "files", "said"), REFUSED, ids=[f"{r[0]}-{i}" for i, r in enumerate(REFUSED)])
def test_a_step_says_why_not(step, designed, files, said):
    files = {"line.py": files} if isinstance(files, str) else files
    if "Line.java" in files:
        needs("javac")
    after, refusal = apply({f"step {step}": "", "design": designed, **{f"before {n}": t for n, t in files.items()}})
    assert refusal == said and (not said or not after)
