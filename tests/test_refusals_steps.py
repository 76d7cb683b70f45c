"""What steps of a design refuse beside the founding of a class: twins, records, lists, common bases, what is shared, handed over, or moved."""

import pytest
from cases import apply

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


def car(name, field, object_, more=""):
    return CAR.format(name=name, field=field, object=object_, more=more)


def based(first, second):
    return car("Car", "x", "car", 'base = "Rail"') + car("Tram", "y", "tram", 'base = "Rail"').replace('from = ["y"]', f'from = ["{second}"]').replace('from = ["x"]', f'from = ["{first}"]')


# (step, design, files, what it says)
REFUSED = [
    ("base:Rail", car("Car", "line.py::x", "car", 'base = "Rail"').replace('name = "line.py::x"', 'name = "x"') + car("Tram", "page.py::y", "tram", 'base = "Rail"').replace('name = "page.py::y"', 'name = "y"'),
     {"line.py": "x = 1\nprint(x)\n", "page.py": "y = 2\nprint(y)\n"}, "the classes that are to have the base 'Rail' come from several files"),
    ("method:Car.move", LISTS.format(drop=""), XS, "'move' has no one parameter that is the index; name it in 'drop'"),
    ("method:Car.move", LISTS.format(drop='drop = ["by"]\n'), XS, "'by' is more than an index; it stays a function"),
    ("records:move", RECORDS.format(name="move", holder="car", more=""), RECORD, "'move' is in use already; choose another name in the design"),
    ("records:Car", RECORDS.format(name="Car", holder="car", more="").replace("[b]", "[a]"), RECORD, "there are no records with just the keys a; correct the design"),
    ("records:Car", RECORDS.format(name="Car", holder="car", more=""), RECORD + "print(eval('car'))\n", "'eval()' can reach any name by its text"),
    ("method:Car.move", RECORDS.format(name="Car", holder="car", more=MOVES.format(drop="")), RECORD, "'move' is not handed an object of Car at every call; name the parameter in 'drop', or leave it a function"),
    ("method:Car.move", RECORDS.format(name="Car", holder="car", more=MOVES.format(drop='drop = ["c"]\n')), RECORD.replace("def move(c):", "def move(c, by=print()):"), "'c' of 'move' is set again, or a default is worked out where the function stands; it stays a function"),
    ("hoist:Tram.step", TWINS.format(more=STEPPED, method="").replace('name = "a"\n', 'name = "a"\nargs = ["1"]\n').replace('name = "b"\n', 'name = "b"\nargs = ["2"]\n'), PAIR.format(one=1, two=2).replace("a_x = 1\n", "(a_x) = 1\n"), "nothing shows where"),
    ("hoist:Tram.step", TWINS.format(more=STEPPED, method="").replace('name = "a"\n', 'name = "a"\nargs = ["1"]\n').replace('name = "b"\n', 'name = "b"\nargs = ["2"]\n'), PAIR.format(one=1, two=2).replace("a_x = 1\n", "a_x = 1; n = 1\n"), "line 1 holds several statements; put each on a line of its own"),
    ("store:Tram.load", TWINS.format(more=STORED, method=""), PAIR.format(one="load", two="load").replace("move_a()\nmove_b()", "load = 5\nmove_a()\nmove_b()"), "'load' is set after Tram is made; pass it in with 'add'"),
    ("store:Tram.load", TWINS.format(more=STORED, method=""), "load = 5\n" + PAIR.format(one="len(f'{load=}')", two="load"), "'load' cannot be another name here; pass it in with 'add'"),
    ("share:Tram.rate", SHARED, RATE.replace("def show():", "def show(Tram=1):"), "'Tram' means something else here; choose another name for the class"),
    ("share:Tram.rate", SHARED, "x = 1\nrate = 2; n = 1\nprint(rate, x)\n", "the first value of 'rate' shares its line; give it a line of its own"),
    ("share:Tram.rate", SHARED, "x = 1\nrate = len('ab')\nprint(rate, x)\n", "the first value of 'rate' is worked out where it stands"),
    ("pass:Tram.move", ADDED.replace('name = "n", value', 'name = "m", value'), HANDED.replace("    x += n", "    x += n\n    for m in [1]:\n        pass"), "means something else here; choose another name"),
    ("method:Tram.move", TRAM.format(more=""), MOVE.replace("def move", "if x:\n    print(x)\ndef move").replace("\ndef move():\n    global x\n    x += 1\n", "\nif x:\n    def move():\n        global x\n        x += 1\n"), "function 'move' is made inside of lines that may run more than once, or not at all (line"),
    ("method:Tram.move", TRAM.format(more=""), {"line.js": "let x = 1; function move() {\n  x += 1;\n}\nmove();\nconsole.log(x);\n"}, "function 'move' does not start its line; put it on a line of its own"),
    ("file:Tram", TRAM.format(more='file = "tram.py"\n'), {"line.py": MOVE, "tram.txt": ""}, ""),
    ("split:Tram", TRAM.format(more="").replace('from = ["x"]', 'from = ["x"]'), {"line.js": "let x = 1 /* , */, y = 2;\nfunction move() {\n  x += 1;\n}\nmove();\nconsole.log(x, y);\n"}, ""),
]  # fmt: skip


@pytest.mark.parametrize(("step", "designed", "files", "said"), REFUSED, ids=[f"{r[0]}-{i}" for i, r in enumerate(REFUSED)])
def test_a_step_says_why_not(step, designed, files, said):
    files = {"line.py": files} if isinstance(files, str) else files
    after, refusal = apply({f"step {step}": "", "design": designed, **{f"before {n}": t for n, t in files.items()}})
    assert (said in refusal and not after) if said else not refusal, refusal
