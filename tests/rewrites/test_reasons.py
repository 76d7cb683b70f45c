"""What a draft leaves where it is, it says why: each reason is given to a script that has it."""

import pytest

from aedifex.core.analysis.families import families
from aedifex.core.analysis.parallel_arrays import lists_named
from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import WishDesign
from aedifex.core.planning.drafter import draft
from aedifex.core.program.refusal import Refusal
from aedifex.core.rewrites.list_of_objects.indexed_methods import Items
from aedifex.core.rewrites.move_class.placement import dependencies
from aedifex.core.rewrites.record_class.objects import Handed
from aedifex.core.rewrites.unify_twins.twins import half, merge_edits

LINE = "load = 0\nlanes = []\n\n\ndef add(n):\n    global load\n    load += n\n    lanes.append(n)\n\n\ndef tell():\n    print(load, lanes)\n\n\n"
FARE = LINE + "fare = int(input())\nadd(fare)\n"
GUARD = LINE + "if __name__ == '__main__':\n    fare = 2\n    add(fare)\n    tell()\n"
STOPS = (
    LINE
    + "lamp = 0\nbulbs = []\n\n\ndef light(n):\n    global lamp\n    lamp += n\n    bulbs.append(n)\n\n\ndef dim():\n    global lamp\n    lamp -= 1\n    print(lamp, bulbs)\n\n\n"
)


# (script, what the draft says of something that stays, or of a class)
STAYS = [
    (GUARD + "\nadd(3)\nprint(fare)\n", "line 20: code stands after the guard that starts the program"),
    (GUARD + "else:\n    print(1)\n", "line 15: the guard that starts the program has an 'else'"),
    (
        {"line.py": FARE + "import other\ntell()\n", "other.py": "print(1)\n"},
        "line 17: 'other' is imported in the middle of the main code",
    ),
    (
        FARE + "@print\ndef other():\n    pass\ntell()\n",
        "line 17: a decorated function stands in the middle of the main code",
    ),
    (
        FARE + "class Other:\n    print(1)\ntell()\n",
        "a class in the middle of the main code is made from what the code before it sets",
    ),
    (FARE + "class Other:\n    n = fare\ntell()\nprint(Other.n)\n", "class Other uses what the main code sets"),
    (
        FARE + "if fare:\n    def show():\n        print(1)\ndef other():\n    show()\ntell()\nother()\n",
        "line 18: 'show' is defined here and used outside the main code",
    ),
    (FARE + "global day\nday = 3\nadd(day)\n", "line 17: a 'global' statement stands in the main code"),
    (
        STOPS.replace("lanes = []", "lanes = []\nif load:\n    import json as lanes")
        + "add(2)\ntell()\nlight(1)\ndim()\n",
        "'lanes' is also bound to something other than a value",
    ),
    (
        LINE.replace("load = 0", "__version__ = 0").replace("load", "__version__") + "add(1)\ntell()\n",
        "the language itself reads it",
    ),
    (
        LINE.replace("def tell():", "def tell(most: load = 1):") + "add(1)\ntell()\n",
        "the head of a function says it, which is worked out where the function stands",
    ),
    (
        "from threading import Thread\n\n"
        + LINE
        + "if input():\n    def shut():\n        print(load)\nThread(target=add, args=(1,)).start()\ntell()\n",
        "it is made inside of lines that may run more than once, or not at all (line",
    ),
    (FARE + "__version__ = str(load)\ntell()\n", "line 17: code that stays stands in the middle of the main code"),
    (FARE + "if fare:\n    class Day:\n        pass\ntell()\n", "line 18: a class is defined inside the main code"),
]


@pytest.mark.parametrize(("files", "said"), STAYS, ids=[f"stays-{i}" for i in range(len(STAYS))])
def test_what_stays_has_its_reason(folder, files, said):
    design = draft(folder.read_all(files))
    reasons = [s.why for s in design.stays] + [w for c in design.classes for w in c.why] + list(design.why_not.values())
    assert any(said in why for why in reasons), reasons


ITEMS = "class Car:\n    def __init__(self, x):\n        self.x = x\n\n\ncars = [Car(1), Car(2)]\nload = 3\n\n\n{function}\n\n\n{calls}\n"


def items(function, calls="move(0)"):
    return ITEMS.format(function=function, calls=calls)


# (script, the function, what it says of it as a method of one of many objects)
OF_MANY = [
    (items("def move(i):\n    cars[i].x += cars[1].x"), "'move' works with more than one object of cars"),
    (items("def move(i):\n    cars[i].x += 1\n    i += 1"), "'i' is more than an index"),
    (items("def move(i=0):\n    cars[i].x += 1"), "'i' is more than an index"),
    (items("def move(i):\n    cars[i].x += 1", "list(map(move, [0]))"), "'move' is used other than by calling it"),
    (items("@staticmethod\ndef move(i):\n    cars[i].x += 1"), "'move' is used other than by calling it"),
    (items("def move(i, by=print()):\n    cars[i].x += 1"), "'move' depends on where it stands"),
    (items("def move(i):\n    cars[i].x += len(locals())"), "'move' depends on where it stands"),
    (items("def move(i):\n    self = 1\n    cars[i].x += self"), "'move' cannot stand in a class"),
    (items("def move(i):\n    cars[i].x += load", "load += 1\nmove(0)"), "'move' works with more than its object"),
    (
        items("def move(i):\n    print('moves')\n    cars[i].x += 1"),
        "'move' may do something else before it looks at its object",
    ),
    (items("def move(i):\n    cars[i].x += 1", "move(*[0])"), "line 14: nothing tells which object this call is for"),
    (
        items("def move(by, i):\n    cars[i].x += by", "move(print(), 0)"),
        "line 14: something happens before the index is known",
    ),
    (
        items("def move(i):\n    cars[i].x += 1\n    return 0", "move(move(0))"),
        "line 15: the index is found by the same function",
    ),
]


@pytest.mark.parametrize(("text", "said"), OF_MANY, ids=[f"many-{i}" for i in range(len(OF_MANY))])
def test_a_function_of_one_of_many_objects_has_its_reason(folder, text, said):
    program = folder.read_all(text)
    file = program.files["line.py"]
    assert Items(file, program.language, "cars").why_not(file.function("move"), "i") == said


HANDED = "class Car:\n    def __init__(self, x):\n        self.x = x\n\n\ncar = Car(1)\nload = 3\n\n\n{function}\n\n\n{calls}\n"


def handed(function, calls="move(car)"):
    return HANDED.format(function=function, calls=calls)


WITH_RECORDS = [
    (handed("def move(c):\n    c.x += 1", "list(map(move, [car]))"), "'move' is used other than by calling it"),
    (
        handed("def move(c):\n    c = Car(2)"),
        "'c' of 'move' is set again, or a default is worked out where the function stands",
    ),
    (
        handed("def move(c, by=print()):\n    c.x += 1"),
        "'c' of 'move' is set again, or a default is worked out where the function stands",
    ),
    (handed("def move(c):\n    self = 1\n    c.x += self"), "'move' cannot stand in a class"),
    (handed("def move(c):\n    c.x += len(locals())"), "'move' depends on where it stands"),
    (handed("def move(c):\n    c.x += load", "load += 1\nmove(car)"), "'move' works with more than what it is passed"),
    (handed("def move(c):\n    c.x += 1", "move(*[car])"), "line 14: nothing tells what this call hands over"),
    (
        handed("def move(by, c):\n    c.x += by", "move(int(input()), car)"),
        "line 14: something happens before the object is known",
    ),
    (
        handed("def move(c):\n    c.x += 1\n    return c", "move(move(car))"),
        "line 15: 'move(car)' cannot be asked for a member",
    ),
    (handed("def move(c):\n    c.x += 1", "move(3)"), "line 14: '3' cannot be asked for a member"),
]


@pytest.mark.parametrize(("text", "said"), WITH_RECORDS, ids=[f"handed-{i}" for i in range(len(WITH_RECORDS))])
def test_a_function_that_is_handed_a_record_has_its_reason(folder, text, said):
    program = folder.read_all(text)
    file = program.files["line.py"]
    assert Handed(file, program.language, "Car").why_not(file.function("move"), "c") == said


TWINS = "x1 = 0\nx2 = 0\ny1 = 0\n\n\ndef move1({p1}):\n{one}\n\n\ndef move2({p2}):\n{two}\n\n\nmove1()\nmove2()\nprint(x1, x2, y1)\n"


def twins(one, two, p1="", p2=""):
    return TWINS.format(one=one, two=two, p1=p1, p2=p2)


UNLIKE = "tram1_x = 0\ntram2_x = 0\ntram1_y = 0\ntram3_y = 0\n\n\ndef move1():\n    global tram1_x\n    {one}\n\n\ndef move2():\n    global tram2_x\n    {two}\n\n\nmove1()\nmove2()\n"
NEAR_TWINS = [
    (twins("    global x1\n    x1 += 1", "    global x2\n    x2 += 2", p2="by=1"), "other-parameters"),
    (twins("    global x1\n    x1 += 1\n    super()", "    global x2\n    x2 += 2"), "lines-bound-to-place"),
    (UNLIKE.format(one="tram1_x += tram1_y", two="tram2_x += 2"), "uses-foreign"),
    (twins("    '''Nothing.'''", "    global x2\n    x2 += 1"), "one-does-nothing"),
    (
        twins("    print(x1)", "    print(x2); print(x2)").replace("def move2():\n    ", "def move2(): "),
        "twins-on-one-line",
    ),
    (twins("    global x1\n    global z\n    x1 = z = 1", "    global x2\n    x2 = 2"), "several-declarations"),
    (
        UNLIKE.format(one="tram1_x = 1", two="tram2_x = 2").replace("global tram1_x", "global tram1_x, tram1_y"),
        "sets-foreign",
    ),
]


@pytest.mark.parametrize(("text", "said"), NEAR_TWINS, ids=[f"twins-{i}" for i in range(len(NEAR_TWINS))])
def test_functions_that_cannot_be_made_the_same_have_a_reason(folder, text, said):
    program = folder.read_all(text)
    file = program.files["line.py"]
    variables = [s for s in file.scope.symbols.values() if s.kinds == {"variable"}]
    [family] = families(file, program.language, variables, asked=True)
    with pytest.raises(Refusal) as found:
        merge_edits(file, program.language, [half(file, family, file.function(n)) for n in ("move1", "move2")])
    assert found.value.code == said


def test_only_two_functions_are_made_the_same(folder):
    program = folder.read_all(twins("    global x1\n    x1 += 1", "    global x2\n    x2 += 2"))
    file = program.files["line.py"]
    [family] = families(
        file, program.language, [s for s in file.scope.symbols.values() if s.kinds == {"variable"}], asked=True
    )
    with pytest.raises(Refusal, match="only two functions can become one"):
        merge_edits(file, program.language, 3 * [half(file, family, file.function("move1"))])


WANTED = """tram_x = 0
tram_load = 0
{signal}


def move(by):
    global tram_x, tram_load
    tram_x += by
    tram_load += 1


def board(n{more}):
    global tram_load, tram_x
    tram_load += n
    tram_x += 1
    {body}


def set_signal(to):
    global signal
    signal = to


move(1)
{main}
"""


def asked(body="print(signal)", main="set_signal('stop')\nboard(2)", more="", signal='signal = "go"'):
    return WANTED.format(body=body, main=main, more=more, signal=signal)


LETTERS = "a1, b2, c3, d4, e5, f6, g7, h8"
# (script, why 'board' does not become a method although somebody wants it)
NO_METHOD = [
    (asked(body="yield signal", main="set_signal('stop')\nlist(board(2))"), "it runs later than it is called, so it cannot be passed signal"),
    (asked(more=", **rest"), "it takes any named argument, so it cannot be passed signal"),
    (asked(body="print(signal)\n    set_signal('x')"), "it calls set_signal, which is no method of these classes and uses state"),
    (asked(main="set_signal('stop')\nprint([board(2) for signal in [1]])"), "'signal' means something else in it or where it is called"),
    (asked(main="signal = 'go'\nset_signal('stop')\nboard(2)", signal=""), "signal would be passed, but may not be set yet"),
    (asked(main="board(1)\nsignal = 'go'\nboard(2)\nsignal = 'stop'", signal="").replace("    global signal\n    signal = to", "    print(to)"), "it is called before signal would be set"),
    (asked(main="set_signal('stop')\nlist(map(board, [2]))"), "it is passed on as a value, so nobody could pass it signal"),
    (asked(body=f"print({LETTERS})", signal=f"{LETTERS} = [1] * 8").replace("global signal\n    signal = to", f"global {LETTERS}\n    {LETTERS} = [to] * 8"), f"it works with too much that is not its own ({LETTERS})"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "said"), NO_METHOD, ids=[f"asked-{i}" for i in range(len(NO_METHOD))])
def test_what_is_asked_for_and_not_possible_has_its_reason(folder, text, said):
    wish = WishDesign(as_origins("tram_x", "tram_load", "move", "board"), "Tram")
    assert draft(folder.read_all(text), wishes=[wish]).why_not["board"] == said


# (script, why its class has no file of its own)
STAYS_THERE = [
    (
        "json = None\nif len('a'):\n    json = 1\n",
        "json",
        "'json' is set in several places of the file that is left behind",
    ),
    ("import json\nimport os as json\n", "json.dumps(1)", "'json' is imported in more than one way"),
    ("from . import rails\n", "rails", "'rails' is imported relative to the package"),
    ("@print\ndef told():\n    pass\n", "told", "'told' is decorated and stays behind"),
    ("most = len(input())\n", "most", "'most' belongs to the main code, which a moved class cannot reach"),
]


@pytest.mark.parametrize(("before", "used", "said"), STAYS_THERE, ids=[f"there-{i}" for i in range(len(STAYS_THERE))])
def test_a_class_that_needs_its_file_has_a_reason(folder, before, used, said):
    program = folder.read_all(f"{before}\n\nclass Tram:\n    def run(self):\n        return {used}\n")
    file = program.files["line.py"]
    found = dependencies(file, program.language, [next(s for s in file.statements if s.kind == "class")])
    assert found.refusal is not None and found.refusal[0] == said


SIZED = "int n = 3;\nfloat[] xs = new float[n];\nfloat[] ys = new float[n];\n{more}\nvoid setup() {{\n  for (int i = 0; i < n; i++) {{\n    xs[i] = i;\n    ys[i] = i;\n  }}\n}}\nvoid draw() {{\n  for (int i = 0; i < n; i++) {{\n    xs[i] += ys[i];\n  }}\n}}\n"
ROWS = "const xs = [1, 2];\nconst ys = [3, 4];\nfunction move(i) {{\n  xs[i] += ys[i];\n}}\n{more}\nfor (let i = 0; i < xs.length; i++) {{\n  move(i);\n}}\n"


def sized(more="", **changes):
    text = SIZED.format(more=more)
    for old, new in changes.values():
        assert old in text
        text = text.replace(old, new)
    return {"line.pde": text}


TOGETHER = [
    (sized(a=("ys = new float[n]", "ys = new float[n + 1]")), "xs, ys do not begin with as many items each"),
    (sized(a=("void setup() {", "void make() {")), "nothing tells where xs, ys would be filled"),
    (sized(a=("void draw() {", "void draw() {\n  setup();")), "'setup' may run more than once"),
    (sized(more="float first = xs[0];"), "line 4 looks at xs, ys before 'setup' runs"),
    (sized(a=("int n = 3;\n", "int n = 3;\nvoid keyPressed() {\n  n++;\n}\n")), "the size of xs, ys may change while the program runs"),
    ({"line.js": ROWS.format(more="").replace("[3, 4]", "[3, 4, 5]")}, "xs, ys do not begin with as many items each"),
    ({"line.js": ROWS.format(more="ys.push(1);\nxs.push(2);")}, "line 6: items are added in another order than the lists stand"),
    ({"line.py": "xs = [1, 2]\nys = [3, 4]\n\n\ndef move(i):\n    xs[i] += ys[i]\n\n\ndef reset():\n    global ys\n    xs.clear()\n    ys = []\n\n\nfor i in range(len(xs)):\n    move(i)\nreset()\n"}, "line 11: some are emptied and some made anew"),
    ({"line.js": ROWS.format(more="console.log(ys[9]);")}, "line 6: index '9' may be out of range"),
]  # fmt: skip


@pytest.mark.parametrize(("files", "said"), TOGETHER, ids=[f"together-{i}" for i in range(len(TOGETHER))])
def test_lists_of_other_languages_that_cannot_be_one_say_why(folder, files, said):
    program = folder.read_all(files)
    assert lists_named(program.files[next(iter(files))], program.language, ["xs", "ys"]) == said


MAIN = "import sys\n\n\ndef main({params}):\n    lanes = []\n    load = 0\n\n    def add(n):\n        nonlocal load\n        load += n\n        lanes.append(n)\n\n    add(1)\n    add(2)\n{more}    print(load, lanes)\n\n\n{call}\n"


def main(params="", more="", call="main()"):
    return MAIN.format(params=params, more=more, call=call)


LOOSE = "let load = 1;\nfunction move(n) {{\n  {body}\n}}\nmove(2);\nconsole.log(load);\n"
# (script, why the function cannot stand in a class)
IN_CLASS = [
    (LOOSE.format(body="load += n + 010;"), "a number is written in the old octal way, which a class does not allow"),
    (LOOSE.format(body="delete n;"), "'n' is deleted, which a class does not allow"),
    (LOOSE.format(body="var static = n; load += static;"), "the name 'static' cannot be used inside a class"),
    (LOOSE.format(body="lane = n;"), "'lane' is never declared, which a class does not allow"),
    (LOOSE.format(body="n += 1; load += arguments[0];"), "'arguments' follows the parameters only outside a class"),
    (LOOSE.format(body="this.load = n;"), "it already uses 'this'"),
    (LOOSE.format(body="load += n;").replace("move(2)", "new move(2)"), "line 5: it is called with 'new'"),
    ("let load = 1;\nconst move = function again(n) {\n  if (n > 0) again(n - 1);\n  load += n;\n};\nmove(2);\n", "it calls itself by its inner name 'again'"),
    ("let load = 1;\nconst move = (n) => {\n  load += this === undefined ? 1 : n;\n};\nmove(2);\n", "'this' is that of the file"),
    ("let load = 1;\nconst move = (n) => {\n  load += arguments.length;\n};\nmove(2);\n", "'arguments' is not its own"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "said"), IN_CLASS, ids=[f"class-{i}" for i in range(len(IN_CLASS))])
def test_a_function_that_a_class_would_change_has_its_reason(folder, text, said):
    program = folder.read_all({"line.js": text})
    file = program.files["line.js"]
    f = file.function("move")
    assert program.language.write.class_trouble(file, f.start, f.end) == said


OFFERS = [
    ("exports.load = 1;\n", "the main code offers names to other files"),
    ("await null;\n", "the main code waits for something"),
]


@pytest.mark.parametrize(("text", "said"), OFFERS, ids=["offers", "waits"])
def test_main_code_that_no_method_could_be_has_its_reason(folder, text, said):
    name = "line.mjs" if "await" in text else "line.js"
    program = folder.read_all({name: text})
    file = program.files[name]
    assert program.language.write.class_trouble(file, 0, len(file.text), main=True) == said


def test_reasons_name_lines_of_the_source_where_listeners_move_first(folder):
    text = (
        "class Bell:\n    def __init__(self, town):\n        self.heard = []\n        rings = 0\n\n        def ring(event):\n            nonlocal rings\n            rings += 1\n            print(town, event, rings)\n\n        self.bind('ring', ring)\n        self.bind('twice', lambda e: (ring(e), ring(e)))\n\n    def bind(self, event, listener):\n        self.heard.append(listener)\n\n\n"
        "tram_x = 0\ntram_doors = False\n\n\ndef draw_tram():\n    print(tram_x, tram_doors)\n\n\n"
        "for key in 'drdq':\n    if key == 'r':\n        tram_x += 2\n        draw_tram()\n"
        "    elif key == 'd':\n        tram_doors = not tram_doors\n        print('doors', tram_doors)\n"
    )
    design = draft(folder.program("line.py", text))
    bell, tram = design.class_named("Bell"), design.class_named("Tram")
    assert bell is not None and [str(o) for m in bell.methods for o in m.origins] == ["line.py:6:9", "line.py:12:28"]
    assert tram is not None
    lines = [x for m in tram.methods for x in m.lines]
    assert lines
    for row in lines:
        first, _, last = row.rpartition(":")[2].partition("-")
        assert text.split("\n")[int(first) - 1].strip().startswith("tram_")
        assert any(f"line {first}" in why or f"lines {first} to {last}" in why for why in tram.why)
