"""A class is made whole or not at all, what a design asks for is obeyed or refused, and every step keeps each name's meaning and each remark."""

import random
import re

import pytest
import tomlkit

from aedifex.core.apply.outline import foresee
from aedifex.core.apply.project import open_project
from aedifex.core.apply.resolved import shadowed_names
from aedifex.core.apply.sequence import run
from aedifex.core.apply.transactions import settled
from aedifex.core.planning.drafter import draft
from aedifex.core.program.errors import AedifexError
from aedifex.core.program.program import read_program, reread

LINE = """till_cash = 0
till_open = True
log_lines = []
log_pages = 1

def sell(n):
    global till_cash
    till_cash += n if till_open else 0

def close_till():
    global till_open, till_cash
    log_lines.append(till_cash)
    till_open = False
    till_cash = 0

def turn_page():
    global log_pages
    log_pages += 1
    log_lines.append(till_cash)

sell(3)
turn_page()
close_till()
print(till_cash, till_open, log_lines, log_pages)
"""
DESIGN = """format = 1
language = "python"
entries = ["line.py"]
sources = {{ "line.py" = "{digest}" }}
[[class]]
name = "Till"
file = "till.py"
field = [{{ name = "cash", from = ["till_cash"], hidden = false }}, {{ name = "open", from = ["till_open"], hidden = false }}]
method = [{{ name = "sell", from = ["sell"] }}, {{ name = "close", from = ["close_till"]{close} }}]
object = [{{ name = "till" }}]
[[class]]
name = "Log"
file = "log_book.py"
field = [{{ name = "lines", from = ["log_lines"], hidden = false }}, {{ name = "pages", from = ["log_pages"], hidden = false }}]
method = [{{ name = "turn", from = ["turn_page"]{turn} }}]
object = [{{ name = "log" }}]
[[class]]
name = "App"
role = "app"
file = "app.py"
object = [{{ name = "app" }}]
"""


def designed(folder, close="", turn=""):
    from aedifex.core.program.surroundings import digest

    folder.write("line.py", LINE)
    folder.write("line.design.toml", DESIGN.format(digest=digest(LINE.encode()), close=close, turn=turn))
    return open_project(str(folder.path / "line.design.toml"))


def test_what_a_class_is_not_given_is_said_with_the_cure_and_nothing_of_it_stands(folder):
    project = designed(folder)
    found = settled(project.design, project.original)
    assert [(o.step.id, o.refusal.path, o.refusal.line) for o in found.dropped] == [
        ("class:Till", "line.py", 10),
        ("class:Log", "line.py", 16),
    ]
    assert found.dropped[-1].step.others == ["App"], "what depends on them goes with them"
    assert not [o for o, _ in found.played if o.result == "done" and ":Till" in o.step.id]
    cures = [re.search(r"add = \[.*?\]", str(o.refusal))[0] for o in found.dropped]
    project = designed(folder, f", {cures[0]}", f", {cures[1]}")
    done = folder.aedifex("build", "line.design.toml")
    assert done.returncode == 0 and not settled(project.design, project.original).dropped, done.stdout
    assert "self" not in folder.read("line.py") and folder.run("line.py")[1] == "0 False [3, 3] 2\n"


def test_preview_shows_what_is_refused_and_says_so_by_its_status(folder):
    designed(folder)
    done = folder.aedifex("preview", "line.design.toml", "--diff")
    assert done.returncode == 1 and "class:Till" in done.stderr and "class:" not in done.stdout


# -- every key of every table ----------------------------------------------------------------------

RECORDS = """def make_bus(name, speed):
    return {"name": name, "speed": speed, "x": 0}
def move_bus(bus, delta):
    bus["x"] += bus["speed"] * delta
def tell(bus):
    print(bus["name"], bus["x"])
buses = [make_bus("a", 1), make_bus("b", 2)]
for bus in buses:
    move_bus(bus, 0.5)
    tell(bus)
"""
TABLES = ("class", "field", "method", "object", "part", "rename", "stay", "lift", "stream")
SILENT = {
    ("object", "name"),
    ("method", "drop"),
    ("stream", "from"),
}  # a name that does not last, and what has no order


def others(key, value):
    if isinstance(value, bool):
        return [not value]
    if isinstance(value, str):
        return {
            "role": ["view"],
            "start": [s for s in ("argument", "fixed", "later", "derived") if s != value],
            "value": ["987"],
        }.get(key, [value + "x", "list"])
    return [[f"{v}1" for v in value] or ["zz"], value[:-1]] if all(isinstance(v, str) for v in value) else [[]]


def tables(doc):
    """(name of its kind, table) of every table in a design."""
    for kind in TABLES:
        for table in doc.get(kind, []):
            yield kind, table
            yield from tables(table)


def foreseen(folder, doc):
    folder.write("line.design.toml", tomlkit.dumps(doc))
    try:
        seen = foresee(open_project(str(folder.path / "line.design.toml")))
    except AedifexError as error:
        return str(error)
    assert not any("cannot be worked out" in str(o.refusal) for o in seen.refused), [
        str(o.refusal) for o in seen.refused
    ]
    return seen.diff, [str(c) for c in seen.classes], [str(o.refusal) for o in seen.refused]


@pytest.mark.parametrize("text", [LINE, RECORDS], ids=["state", "records"])
def test_each_key_of_a_design_changes_the_result_or_is_refused(folder, text):
    folder.write("line.py", text)
    folder.aedifex("draft", "-q", "line.py", "-o", "line.design.toml")
    plain = tomlkit.parse(folder.read("line.design.toml")).unwrap()
    want = foreseen(folder, plain)
    assert not want[2]
    for number, (kind, table) in enumerate(list(tables(plain))):
        for key, value in [
            (k, v) for k, v in table.items() if k not in (*TABLES, "why", "add") and (kind, k) not in SILENT
        ]:
            for other in others(key, value):
                doc = tomlkit.parse(tomlkit.dumps(plain)).unwrap()
                list(tables(doc))[number][1][key] = other
                assert foreseen(folder, doc) != want, (kind, key, value, other)


@pytest.mark.parametrize(("more", "line"), [
    ('value = "3"', "value"), ("shared = true", "shared"), ('start = "fixed"', "start"), ('type = "str"', "type"),
])  # fmt: skip
def test_records_say_all_of_their_fields(folder, more, line):
    folder.write("line.py", RECORDS)
    folder.aedifex("draft", "-q", "line.py", "-o", "line.design.toml")
    text = re.sub(r'start = "argument".*\n', "", folder.read("line.design.toml"), count=1).replace(
        'from = ["buses[name]"]', f'from = ["buses[name]"]\n{more}', 1
    )
    folder.write("line.design.toml", text)
    done = folder.aedifex("preview", "line.design.toml")
    at = next(n for n, row in enumerate(text.splitlines(), 1) if row.startswith(line + " "))
    assert done.returncode == 2 and f"line.design.toml:{at}:" in done.stderr


# -- names and remarks -----------------------------------------------------------------------------


@pytest.mark.parametrize(("before", "after", "line"), [
    ("total = 0\ndef f(n):\n    return total + n\nf(1)\n", "total = 0\ndef f(total):\n    return total + n\nf(1)\n", 3),
    ("def g():\n    return 1\ndef f(n):\n    return g() + n\n", "def g():\n    return 1\ndef f(n):\n    g = int\n    return g() + n\n", 5),
    ("def f(n):\n    return list(n)\n", "list = 3\ndef f(n):\n    return list(n)\n", 3),
])  # fmt: skip
def test_a_name_that_means_something_else_is_found(folder, before, after, line):
    """Whatever the step: a use that no step touched still means the same."""
    program = folder.read_all({"line.py": before})
    changed = reread(program, {"line.py": after.encode()})
    assert [p.line for p in shadowed_names(program, changed, [changed.files["line.py"]])][:1] == [line]


def test_a_variable_that_is_handed_over_under_its_name_is_the_same(folder):
    program = folder.read_all({"line.py": "rate = 1\ndef f(n):\n    return rate + n\nf(2)\n"})
    changed = reread(program, {"line.py": b"rate = 1\ndef f(n, rate):\n    return rate + n\nf(2, rate)\n"})
    assert not shadowed_names(program, changed, [changed.files["line.py"]])


def strewn(text: str, mark: str, chance: random.Random) -> str:
    """The text with remarks above lines and behind them."""
    rows = []
    for number, row in enumerate(text.split("\n"), 1):
        lead = row[: len(row) - len(row.lstrip())]
        rows += [f"{lead}{mark} above {number}"] if row.strip() and chance.random() < 0.3 else []
        rows.append(f"{row}  {mark} at {number}" if row.strip() and mark not in row and chance.random() < 0.3 else row)
    return "\n".join(rows)


CURLY = "let cash = 0;\nconst log = [];\nfunction sell(n) {\n  cash += n;\n  log.push(cash);\n}\nfunction show() {\n  console.log(cash, log);\n}\nsell(2);\nshow();\n"
TWINS = "import sys\ntram1_x = 1\ntram2_x = 2\ndef move1(n):\n    global tram1_x\n    tram1_x += n\ndef move2(n):\n    global tram2_x\n    tram2_x += n\nmove1(1); move2(2)\nprint(tram1_x, tram2_x, sys.argv[1:])\n"


@pytest.mark.parametrize(
    ("name", "text", "mark"), [("line.py", LINE, "#"), ("twins.py", TWINS, "#"), ("line.js", CURLY, "//")]
)
def test_every_remark_stands_somewhere_afterwards_each_once(folder, name, text, mark):
    for seed in range(12):
        folder.write(name, strewn(text, mark, random.Random(seed)))
        program = read_program(str(folder.path), [name])
        found = settled(draft(program), program).played
        was = sorted(re.findall(rf"{mark} (?:above|at) \d+", program.files[name].text.decode()))
        now = sorted(
            m for t in found[-1][1].texts.values() for m in re.findall(rf"{mark} (?:above|at) \d+", t.decode())
        )
        assert now == was, (seed, set(was) ^ set(now))


def test_reasons_speak_of_lines_that_are_there(folder):
    """Each line that a reason of the demos names holds what the reason says of it."""
    from pathlib import Path

    import aedifex

    checked = 0
    for source in sorted((Path(aedifex.__file__).parent / "demo" / "programs").glob("*.py")):
        program = read_program(str(source.parent), [source.name])
        design = draft(program)
        rows = source.read_text().splitlines()
        reasons = (
            [w for c in design.classes for w in c.why]
            + [s.why for s in design.stays]
            + [w for p in design.parts for w in p.why]
        )
        for why in reasons:
            for number in [
                int(n)
                for span in re.findall(r"\blines? (\d+(?: to \d+)?(?:, \d+)*)", why)
                for n in re.findall(r"\d+", span)
            ]:
                assert 1 <= number <= len(rows), (source.name, why)
                checked += 1
            for number, name in re.findall(r"line (\d+): '(\w+)'", why):
                assert re.search(rf"\b{name}\b", rows[int(number) - 1]), (source.name, why)
            if match := re.match(r"(.+?) (?:is|are) used by functions as well as by the main code", why):
                console = {s.name for s in design.streams}  # stands for the calls of print and input
                for name in set(match[1].removesuffix(" and others").split(", ")) - console:
                    inside = [
                        f
                        for f in program.files[source.name].functions
                        if any(r.name == name for r in program.files[source.name].within(f.start, f.end))
                    ]
                    assert inside, (source.name, why, "no function uses it")
    assert checked > 10


def test_the_result_of_run_and_settled_agree(folder):
    program = folder.read_all({"line.py": LINE})
    design = draft(program)
    assert [o.step.id for o, _ in run(design, program)] == [o.step.id for o, _ in settled(design, program).played]


LATER = """rain = False
stock = 5
sold = 0
waiting = []

def sell(n):
    global stock, sold
    stock -= n
    sold += n + (1 if rain else 0)

def refill(n):
    global stock, sold
    stock += n
    sold += 0

def weather():
    global rain
    rain = not rain

def later(queue):
    return [lambda: sell(n) for n in queue]

waiting.extend(later([1, 2]))
weather()
while waiting:
    waiting.pop(0)()
refill(3)
weather()
print(stock, sold, rain)
"""


def test_what_calls_later_what_would_be_handed_over_is_not_handed_it(folder):
    """The draft makes no class that its own preview would refuse."""
    folder.write("line.py", LATER)
    before = folder.run("line.py")
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    assert folder.aedifex("preview", "line.design.toml").returncode == 0
    assert folder.aedifex("build", "-q", "line.design.toml").returncode == 0
    assert folder.run("line.py") == before and "class " in "".join(p.read_text() for p in folder.path.glob("*.py"))
