"""What tells a function from a method, or a variable from a field, by its name, its kind or its place: paths that no scenario runs behave the same."""

import pytest

from aedifex.core.analysis.hazards import hazards
from aedifex.core.apply.sequence import run
from aedifex.core.design.origin import as_origins
from aedifex.core.planning.drafter import draft
from aedifex.core.program.surroundings import read_neighbours

PROGRAM = """import sys
{imports}
fares = 0
riders = 3
log = []
{above}
def sell(n, who="me"):
    global fares
    fares += n
    log.append(fares)
    return fares
def leave():
    global riders
    riders -= 1
    log.append(-riders)
    return riders
def total():
    return fares + riders
{below}
def show():
    print(fares, riders, log, total())
sell(2); leave(); show()
if sys.argv[1:]:
    {late}
    show()
"""
DOCUMENT = 'def check():\n    """\n    >>> sell(0) == fares\n    True\n    """'
HELD = "class Button:\n    def __init__(self, call): self.call = call\n    def press(self): return self.call(1)\nbutton = Button(sell)"
ITEM = "class Item:\n    fares = lambda self: 1\n    take = sell\n    def __add__(self, other): return other\n    def __radd__(self, other): return other + 5"
WARNING = "def old():\n    global fares\n    fares += 1\n    warnings.warn(f'old {riders}', stacklevel=2)"
LOGGED = "def tell(text): logging.info('%s %d', text, fares)"
CALLER = (
    "def who(): return inspect.stack()[1].function\ndef caller():\n    global fares\n    fares += 1\n    return who()"
)
WEAK = "kept = weakref.WeakSet()\ndef keep(f): kept.add(f)\nkeep(total)"
GENERATOR = "made = []\ndef watch():\n    global log\n    made.append(x * fares for x in [1, 2])\n    made.append(lambda: riders)"
VALUE, TEXT, STACK, OUTSIDE = "function as value", "named by text", "", "used outside"

# (imports, above, below, what runs with an argument, kind of hazard, names that stay)
CASES = {
    "examples in documents": ("import doctest", "", DOCUMENT, "print(doctest.testmod())", TEXT, "sell fares"),
    "declared variables": (
        "",
        "best: int = 0",
        "def better():\n    global best\n    best = max(best, fares)",
        "print(sorted(__annotations__))",
        TEXT,
        "best",
    ),
    "import __main__": (
        "",
        "",
        "",
        "import __main__; __main__.fares = 50; print(__main__.total())",
        OUTSIDE,
        "fares total",
    ),
    "from __main__ import": (
        "",
        "",
        "",
        "from __main__ import fares as f, sell as s; s(3); print(f)",
        OUTSIDE,
        "fares sell",
    ),
    "globals spread into a format": (
        "",
        "",
        "",
        "print('{fares}'.format(**globals()), '%(riders)s' % globals())",
        TEXT,
        "fares riders",
    ),
    "globals by a literal": ("", "", "", "globals()['fares'] += 5; print(total())", TEXT, "fares"),
    "vars into a format": (
        "import string",
        "",
        "",
        "print('{fares}'.format_map(vars()), string.Template('$log').substitute(locals()))",
        TEXT,
        "fares log",
    ),
    "a frame's globals": ("", "", "", "print(sys._getframe(0).f_globals['fares'])", TEXT, "fares"),
    "sys.modules": (
        "",
        "",
        "",
        "this = sys.modules[__name__]; this.fares += 1; print(getattr(this, 'tot' + 'al')())",
        "dynamic names",
        "",
    ),
    "timeit": (
        "import timeit",
        "",
        "",
        "print(timeit.timeit('sell(1)', setup='from __main__ import sell', number=3) > 0)",
        TEXT,
        "sell",
    ),
    "timeit with globals": (
        "import timeit",
        "",
        "",
        "print(timeit.timeit('total()', globals=globals(), number=3) > 0)",
        TEXT,
        "total",
    ),
    "a profile": (
        "import cProfile as p, io, contextlib",
        "",
        "",
        "b = io.StringIO()\n    with contextlib.redirect_stdout(b): p.run('sell(4)')\n    print('sell' in b.getvalue())",
        TEXT,
        "sell",
    ),
    "a member of a class": ("", "", ITEM, "print(Item().take(2))", VALUE, "sell"),
    "a member given to a class": (
        "",
        "",
        "class Item: pass\ndef count(self=None):\n    return (self is None, fares)",
        "Item.count = count; print(Item().count())",
        VALUE,
        "count",
    ),
    "a member set by its text": (
        "",
        "",
        "class Item: pass\ndef count(self=None):\n    return (self is None, fares)",
        "setattr(Item, 'count', count); print(Item().count())",
        VALUE,
        "count",
    ),
    "written out": ("", "", "", "print(repr(sell)[:14], f'{total}'[:14])", VALUE, "sell total"),
    "its kind": (
        "import types, inspect",
        "",
        "",
        "print(isinstance(sell, types.FunctionType), inspect.isfunction(leave), type(total).__name__)",
        VALUE,
        "sell leave total",
    ),
    "its arguments": ("import inspect", "", "", "print(inspect.getfullargspec(sell).args)", VALUE, "sell"),
    "its members": ("", "", "", "print(getattr(sell, 'n', 5), hasattr(leave, '__self__'))", VALUE, "sell leave"),
    "copied with a table": (
        "import copy",
        "",
        "table = {'a': sell, 'b': leave}",
        "t = copy.deepcopy(table); print(t['a'](5), t['b']())",
        VALUE,
        "sell leave",
    ),
    "copied with an object": (
        "from copy import deepcopy as copied",
        "",
        HELD,
        "b = copied(button); print(b.press(), button.press())",
        VALUE,
        "sell",
    ),
    "held weakly": ("import weakref", "", WEAK, "print(len(kept))", VALUE, "total"),
    "which functions run": ("import inspect", "", CALLER, "print(caller())", STACK, ""),
    "how deep they run": (
        "",
        "",
        "def deep(n):\n    try: return deep(n + 1)\n    except RecursionError: return n",
        "print(deep(0))",
        STACK,
        "",
    ),
    "the lines of an error": (
        "import traceback",
        "",
        "def boom():\n    global fares\n    fares = 1 // 0",
        "try: boom()\n    except ZeroDivisionError: print([f.name for f in traceback.extract_tb(sys.exc_info()[2])])",
        STACK,
        "",
    ),
    "the file of a warning": (
        "import warnings",
        "",
        WARNING,
        "warnings.simplefilter('always'); warnings.showwarning = lambda m, c, f, *a: print(m, f.split('/')[-1]); old()",
        STACK,
        "",
    ),
    "the log": (
        "import logging",
        "",
        LOGGED,
        "logging.basicConfig(format='%(funcName)s %(module)s %(message)s', stream=sys.stdout, level=10); tell('hi')",
        STACK,
        "",
    ),
    "read later than handed over": (
        "",
        "",
        GENERATOR,
        "watch(); sell(7); leave(); print(list(made[0]), made[1]())",
        STACK,
        "",
    ),
}
WITHOUT = {"its kind", "sys.modules", "vars into a format", "globals spread into a format"}  # nothing is left to hold


@pytest.mark.parametrize("name", CASES)
def test_what_no_scenario_runs_does_the_same(folder, name):
    imports, above, below, late, kind, stays = CASES[name]
    text = PROGRAM.format(imports=imports, above=above, below=below, late=late)
    program = folder.read_all({"line.py": text})
    named = {n for h in hazards(program, "line.py", read_neighbours(program)) if h.kind == kind for n in h.names}
    assert named >= set(stays.split()), named
    wanted = [folder.run("line.py", "", *args) for args in ([], ["x"])]
    classes = built(folder, program)
    assert [folder.run("line.py", "", *args) for args in ([], ["x"])] == wanted
    assert bool(classes) == (name not in WITHOUT), "all that it does not concern still moves"


def built(folder, program) -> list[str]:
    """Draft, do all steps and write the result; the classes that came."""
    design = draft(program)
    for outcome, after in run(design, program):
        assert outcome.result != "wrong", outcome.problems
        program = after
    for path, text in program.texts.items():
        folder.write(path, text)
    return [c.name for c in design.classes]


CLOSURE = """import sys
made = []
uses = 0
rate = 2
def make():
    global uses
    uses += 1
    {body}
def set_rate(r):
    global rate
    rate = r
def show(): print(uses, len(made))
make(); show()
set_rate(5); show()
if sys.argv[1:]: print({shown})
"""


@pytest.mark.parametrize(("body", "shown", "stale"), [
    ("made.append(lambda x: x * rate)", "made[0](2)", True),
    ("def f(x): return x * rate\n    made.append(f)", "made[0](2)", True),
    ("made.append(x * rate for x in (1, 2))", "list(made[0])", True),
    ("made.append(sum(x * rate for x in (1, 2)))", "made", False),
    ("made.append(sorted([1, 2], key=lambda x: x * -rate))", "made", False),
    ("def f(x): return x * rate\n    made.append(f(3))", "made", False),
])  # fmt: skip
def test_a_copy_that_is_read_later_is_not_handed_over(folder, body, shown, stale):
    """Asked for in one class without the rate, a function that keeps reading it cannot be handed it."""
    program = folder.read_all({"line.py": CLOSURE.format(body=body, shown=shown)})
    wanted = folder.run("line.py", "", "x")
    from aedifex.core.design.tables import WishDesign

    design = draft(program, None, [WishDesign(together=as_origins("made", "uses"), class_="Maker")])
    assert any(m.add for c in design.classes for m in c.methods if m.name == "make") is not stale
    for _, after in run(design, program):
        program = after
    for path, text in program.texts.items():
        folder.write(path, text)
    assert folder.run("line.py", "", "x") == wanted


def test_every_importer_is_read(folder):
    """One file among many more than are worth reading sets a variable."""
    for i in range(420):
        folder.write(f"a{i:03}.py", f"x = {i}\n")
    folder.write("zz.py", "import line\nline.load = 5\nline.tell()\n")
    program = folder.read_all(
        {
            "line.py": "load = 0\nlanes = []\ndef add(n):\n    global load\n    load += n\n    lanes.append(n)\ndef tell():\n    print(load, lanes)\nadd(2)\ntell()\n"
        }
    )
    found = [(h.path, h.line, h.names) for h in hazards(program, "line.py", read_neighbours(program))]
    assert found == [("zz.py", 2, ("load",)), ("zz.py", 3, ("tell",))]


@pytest.mark.parametrize(("files", "stays"), [
    ({"line.py": "from flask import Flask\napp = Flask(__name__)\nn = 0\ndef add():\n    global n\n    n += 1\napp.add_url_rule('/', view_func=add)\n"}, {"app"}),
    ({"line.py": "def application(environ, start_response):\n    return []\nn = 0\n"}, {"application"}),
    ({"line.py": "def main():\n    return 0\n", "pyproject.toml": "[project.scripts]\nt = \"line:main\"\n"}, {"main"}),
    ({"line.py": "tool = print\n", "Procfile": "web: gunicorn line:tool\n"}, {"tool"}),
    ({"line.py": "WIDTH = 300\ntram = Actor('tram')\ndef draw():\n    screen.clear()\n    move()\ndef move():\n    tram.x += 1\n"}, {"draw", "WIDTH"}),
    ({"line.py": "n = 0\n", "other.py": "import importlib\nm = importlib.import_module('line')\nm.n = 4\n"}, {"n"}),
    ({"line.py": "n = 0\n", "other.py": "import importlib\nimportlib.import_module('line')\n"}, set()),
    ({"line.py": "n = 0\n", "other.py": "from unittest import mock\nwith mock.patch('line.n', 9): pass\n"}, {"n"}),
])  # fmt: skip
def test_what_others_import_by_convention_or_by_text_stays(folder, files, stays):
    for name, text in files.items():
        folder.write(name, text)
    program = folder.read_all({"line.py": files["line.py"]})
    found = [h for h in hazards(program, "line.py", read_neighbours(program)) if h.kind == "used outside"]
    assert found and {n for h in found for n in h.names} == stays
