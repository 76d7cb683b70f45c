"""The design file: what draft proposes, and every mistake of a hand edit at its line."""

import re

import pytest

from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.planning.summary import fate


def names(design):
    return {
        c.name: ([f.name for f in c.fields], [m.name for m in c.methods], [o.name for o in c.objects])
        for c in design.classes
    }


def test_the_tram_line(tramline):
    design, _, problems = parse("tramline.design.toml", tramline.read("tramline.design.toml"))
    assert not problems
    assert names(design) == {
        "Tram": (
            ["x", "speed", "doors_open", "riders"],
            ["move", "board", "draw", "stop_name", "toggle_doors"],
            ["tram1", "tram2"],
        ),
        "Fare": (["box", "tickets", "history"], ["sell", "collect", "report"], ["fare"]),
        "Service": (
            ["signal", "frames_drawn"],
            ["switch_signal", "draw_line", "send_to_depot", "handle_key", "draw"],
            ["app"],
        ),
    }
    tram = design.class_named("Tram")
    assert [f.start for f in tram.fields] == ["argument", "argument", "fixed", "fixed"]
    assert [f.hidden for f in tram.fields] == [False, True, False, False]
    assert tram.objects[0].args == ["4.0", "1.5"] and tram.objects[0].owner == "Service"
    move, _, draw, stop, toggle = tram.methods
    assert [*map(str, move.origins)] == ["move_tram1", "move_tram2"] and move.add == [
        {"name": "signal", "value": "signal"}
    ]
    assert draw.drop == ["x", "doors_open", "riders"] and stop.drop == ["x"]
    assert toggle.lines == ["tramline.py:130", "tramline.py:135"]
    assert {(s.name, s.why, s.file) for s in design.stays} >= {
        ("WIDTH", "constant", "constants.py"),
        ("FARE", "constant", "constants.py"),
    }
    assert "8 variables named tram1_*, tram2_* are numbered copies of 4" in tram.why[0]
    assert to_toml(design) == tramline.read("tramline.design.toml")


def test_a_draft_is_never_overwritten_unless_told(tramline):
    edited = tramline.read("tramline.design.toml").replace('name = "Fare"', 'name = "Purse"')
    tramline.write("tramline.design.toml", edited)
    done = tramline.aedifex("draft", "tramline.py")
    assert (done.returncode, "is there already" in done.stderr) == (1, True)
    assert tramline.read("tramline.design.toml") == edited
    assert tramline.aedifex("draft", "-q", "--again", "tramline.py").returncode == 0
    assert "Purse" not in tramline.read("tramline.design.toml")


def test_wishes_are_obeyed_and_kept(tramline):
    wish = ["--together", "Lamp=signal,frames_drawn", "--keep", "fare_history"]
    assert tramline.aedifex("draft", "-q", "--again", *wish, "tramline.py").returncode == 0
    for _ in range(2):
        design = parse("d", tramline.read("tramline.design.toml"))[0]
        assert names(design)["Lamp"][0] == ["signal", "frames_drawn"]
        assert "fare_history" not in [o.name for c in design.classes for f in c.fields for o in f.origins]
        assert tramline.aedifex("draft", "-q", "--again", "tramline.py").returncode == 0
    assert tramline.aedifex("build", "--unchecked", "-q", "tramline.design.toml").returncode in (0, 1)
    assert tramline.aedifex("check", "-q", "tramline.design.toml").returncode == 0
    assert "not a name" in tramline.aedifex("draft", "--again", "--keep", "nobody", "tramline.py").stderr
    assert tramline.aedifex("draft", "--again", "--together", "Lamp", "tramline.py").returncode == 2


MISTAKES = [
    ('name = "Tram"', 'nmae = "Tram"', "unknown-key"),
    ('role = "model"', 'role = "king"', "other-value"),
    ('start = "argument"', 'start = "magic"', "other-value"),
    ('from = ["tram1_x", "tram2_x"]', 'from = ["tram1_y", "tram2_x"]', "not-in-sources"),
    ('from = ["fare_box"]', 'from = ["fare_tickets"]', "belongs-already"),
    ('from = ["fare_box"]', 'from = ["fare_box", "signal"]', "other-number"),
    ('from = ["draw_tram"]', 'from = ["WIDTH"]', "other-kind"),
    ('drop = ["x"]', 'drop = ["y"]', "no-parameter"),
    ('name = "tram1"\nargs', 'name = "1tram"\nargs', "no-name"),
    ('owner = "Service"', 'owner = "Nobody"', "no-owner"),
    ('name = "riders"', 'name = "x"', "given-twice"),
    ('hidden = false', 'hidden = "no"', "other-type"),
    ('[[class.object]]\nname = "fare"', '[[class.object]]\nnombre = "fare"', "unknown-key"),
    ("format = 1", "format = 7", "other-format"),
]  # fmt: skip


@pytest.mark.parametrize(("old", "new", "code"), MISTAKES, ids=[f"{m[2]}-{i}" for i, m in enumerate(MISTAKES)])
def test_one_mistake(tramline, old, new, code):
    text = tramline.read("tramline.design.toml")
    assert old in text
    broken = text.replace(old, new, 1)
    tramline.write("tramline.design.toml", broken)
    before = tramline.sources()
    done = tramline.aedifex("build", "tramline.design.toml")
    assert done.returncode == 2
    line = next(n for n, (a, b) in enumerate(zip(text.split("\n"), broken.split("\n"), strict=False), 1) if a != b)
    found = re.findall(r"tramline\.design\.toml:(\d+): (.+)", done.stderr)
    lines = [int(n) for n, said in found if said.endswith(f"[{code}]")]
    assert lines, done.stderr
    assert line in lines or code == "belongs-already"
    assert tramline.sources() == before


def test_all_mistakes_at_once(tramline):
    text = tramline.read("tramline.design.toml")
    for old, new, _ in [MISTAKES[i] for i in (1, 2, 3, 6, 7, 9)]:
        text = text.replace(old, new, 1)
    tramline.write("tramline.design.toml", text)
    done = tramline.aedifex("build", "tramline.design.toml")
    assert done.returncode == 2
    lines = [int(n) for n in re.findall(r"toml:(\d+):", done.stderr)]
    assert len(lines) >= 5 and lines == sorted(lines)


def test_broken_toml(tramline):
    tramline.write("tramline.design.toml", "format = 1\nentries = [\n")
    done = tramline.aedifex("preview", "tramline.design.toml")
    assert done.returncode == 2
    assert re.search(r"tramline\.design\.toml:\d: is not valid TOML", done.stderr)


def test_groups_by_shared_access(folder):
    program = folder.program(
        "line.py",
        """
stock = 0
orders = []
gauge = 1
lamp_on = False


def order(n):
    global stock
    stock -= n
    orders.append(n)


def restock():
    global stock
    stock += sum(orders)
    orders.clear()


def dim():
    global gauge, lamp_on
    gauge -= 1
    lamp_on = gauge > 0


def light():
    global gauge, lamp_on
    gauge = 5
    lamp_on = True
""",
    )
    groups = [{o.name for f in c.fields for o in f.origins} for c in draft(program).classes]
    assert groups == [{"stock", "orders"}, {"gauge", "lamp_on"}]


def test_what_becomes_of_a_name(tramline):
    design = parse("d", tramline.read("tramline.design.toml"))[0]
    assert fate(design, "move_tram2")[0] == "becomes the method 'move' of Tram, with signal passed in"
    assert fate(design, "fare_box")[0] == "becomes the field 'box' of Fare (fixed)"
    assert fate(design, "WIDTH") == ["stays: constant (moves to constants.py with its readers)"]


def test_nothing_to_gain(folder):
    folder.write("small.py", "import sys\nname = sys.argv[0]\nprint(len(name) > 0)\n")
    done = folder.aedifex("draft", "small.py")
    assert done.returncode == 0
    assert "No class is proposed" in done.stdout
    before = folder.sources()
    assert folder.aedifex("build", "small.design.toml").returncode == 0
    assert folder.sources() == before


def test_hashing_and_time_change_nothing(tramline):
    """The same input gives the same design, steps and bytes, whatever the order of sets."""
    seen = []
    for seed in ("1", "77"):
        assert tramline.aedifex("draft", "-q", "--again", "tramline.py", env={"PYTHONHASHSEED": seed}).returncode == 0
        diff = tramline.aedifex("preview", "--diff", "tramline.design.toml", env={"PYTHONHASHSEED": seed}).stdout
        survey = tramline.aedifex("survey", "--json", "tramline.py", env={"PYTHONHASHSEED": seed}).stdout
        seen.append((tramline.read("tramline.design.toml"), diff, survey))
    assert seen[0] == seen[1]


@pytest.mark.parametrize(
    ("old", "new", "expected"),
    [
        (
            'start = "fixed"\nvalue = "0"\nhidden = false',
            'start = "argument"\nhidden = false',
            "def __init__(self, x, speed, riders):",
        ),
        ('start = "fixed"\nvalue = "0"\nhidden = false', 'start = "later"\nhidden = false', "tram1.riders = 0"),
    ],
)
def test_an_edit_is_obeyed(tramline, old, new, expected):
    obeyed(tramline, [(old, new, expected)])


def test_other_names_are_obeyed(tramline):
    edits = [
        ('name = "speed"', 'name = "pace"', "self._pace = pace"),
        ('name = "board"', 'name = "take_on"\nhidden = true', "def _take_on(self):"),
        ('name = "tram1"', 'name = "first_tram"', "first_tram = Tram(4.0, 1.5)"),
    ]
    obeyed(tramline, edits)


def obeyed(tramline, edits):
    text = tramline.read("tramline.design.toml")
    for old, new, _ in edits:
        assert old in text
        text = text.replace(old, new, 1)
    tramline.write("tramline.design.toml", text)
    done = tramline.aedifex("build", "--unchecked", "--until", "pass:Tram.move", "tramline.design.toml")
    assert done.returncode == 0, done.stdout + done.stderr
    assert all(expected in tramline.read("tramline.py") for _, _, expected in edits)
    assert tramline.aedifex("build", "--unchecked", "-q", "tramline.design.toml").returncode == 0
    assert tramline.aedifex("check", "-q", "tramline.design.toml").returncode == 0


@pytest.mark.parametrize(
    ("old", "new", "code"),
    [
        ('start = "argument"', 'start = "fixed"', "start-not-fixed"),
        (
            'args = ["4.0", "1.5"]',
            'args = ["5.0", "1.5"]',
            "start-differs",
        ),
        ('value = "False"', 'value = "True"', "start-differs"),
        ('file = "tram.py"', 'file = "random.py"', "hides-library-module"),
        ('file = "tram.py"', 'file = "sub/tram.py"', "other-folder"),
        ('drop = ["x"]', "drop = []", "which-object"),
    ],
)
def test_an_edit_that_cannot_be_is_refused_with_the_reason(tramline, old, new, code):
    text = tramline.read("tramline.design.toml")
    tramline.write("tramline.design.toml", text.replace(old, new, 1))
    done = tramline.aedifex("build", "--unchecked", "tramline.design.toml")
    assert (done.returncode, f"[{code}]" in done.stdout) == (1, True), done.stdout + done.stderr
    if code == "start-differs":
        assert tramline.aedifex("check", "-q", "tramline.design.toml").returncode == 0, "what could be done was"


def test_bad_wishes_are_told_all_at_once_and_nothing_is_written(tramline):
    before = tramline.read("tramline.design.toml")
    wishes = [
        "Bad=nope,tram1_x",
        "Lamp=tram1_x,signal",
        "3x=frames_drawn",
        "print=move_tran1",
        "Line=sys",
        "move_tram1=fare_box",
    ]
    together = [word for w in wishes for word in ("--together", w)]
    done = tramline.aedifex("draft", "--again", *together, "--keep", "signal", "tramline.py")
    assert (done.returncode, done.stdout) == (2, "")
    said = [
        re.fullmatch(r"aedifex: --together (\w+): .* \[([a-z-]+)\]", line).groups() for line in done.stderr.splitlines()
    ]
    assert said == [
        ("Bad", "not-a-name"), ("Lamp", "asked-twice"), ("Lamp", "asked-to-stay"), ("3x", "no-class-name"), ("print", "not-a-name"),
        ("print", "name-of-built-in"), ("Line", "no-variable"), ("move_tram1", "class-named-so"),
    ]  # fmt: skip
    assert "perhaps 'move_tram1' is meant" in done.stderr and "(tramline.py:36)" in done.stderr
    assert tramline.read("tramline.design.toml") == before
    tramline.write("tramline.design.toml", before + '\n[[wish]]\nclass = "Lamp"\ntogether = ["signals"]\n')
    line = len(before.splitlines()) + 2
    done = tramline.aedifex("preview", "tramline.design.toml")
    assert f"tramline.design.toml:{line}: 'signals' is not a name" in done.stderr


def test_where_first_values_come_from_and_how_objects_are_kept_can_be_asked_for(tramline):
    done = tramline.aedifex("draft", "--again", "--arguments", "tram1_doors_open", "--collect", "Tram", "tramline.py")
    tram = parse("d", tramline.read("tramline.design.toml"))[0].class_named("Tram")
    assert done.returncode == 0 and [f.start for f in tram.fields if f.name == "doors_open"] == ["argument"]
    assert tram.kept_in == "trams" and all("False" in o.args for o in tram.objects)
    wrong = [
        ("--arguments", "move_tram1", 2, "no-value-of-its-own"),
        ("--fixed", "tram1_x,nowhere", 2, "not-a-name"),
        ("--fixed", "tram1_x", 1, "cannot-start"),
        ("--arguments", "WIDTH", 1, "cannot-start"),
        ("--collect", "Depot", 1, "no-list-of-them"),
    ]
    before = tramline.read("tramline.design.toml")
    for option, names, status, code in wrong:
        done = tramline.aedifex("draft", "--again", option, names, "tramline.py")
        assert done.returncode == status and f"[{code}]" in done.stderr, done.stderr
    assert tramline.read("tramline.design.toml") == before


def test_functions_can_be_asked_for_and_what_cannot_be_has_a_reason(tramline):
    asked = ["draft", "--again", "tramline.py", "--together"]
    assert tramline.aedifex(*asked, "Till=fare_box,fare_tickets,move_tram1,send_to_depot").returncode == 0
    till = parse("d", tramline.read("tramline.design.toml"))[0].class_named("Till")
    assert {m.name for m in till.methods} >= {"move_tram1", "send_to_depot"}
    assert tramline.aedifex("build", "-q", "tramline.design.toml", "--dry-run").returncode == 0
    before = tramline.read("tramline.design.toml")
    text = tramline.read("tramline.py")
    tramline.write("tramline.py", text.replace("def switch_signal", "@staticmethod\ndef switch_signal"))
    done = tramline.aedifex("draft", "--again", "tramline.py", "--together", "Lamp=frames_drawn,switch_signal")
    assert done.returncode == 1 and tramline.read("tramline.design.toml") == before
    assert "'switch_signal' cannot be in Lamp: line 103: 'switch_signal' is decorated" in done.stderr


def test_numbered_variables_that_are_asked_for_are_objects_of_one_class(tramline):
    assert (
        tramline.aedifex("draft", "-q", "--again", "tramline.py", "--together", "Car=tram1_x,tram2_x").returncode == 0
    )
    made = names(parse("d", tramline.read("tramline.design.toml"))[0])
    assert made["Car"] == (["x"], ["draw", "stop_name"], ["tram1", "tram2"])
    assert made["Tram"][0] == ["speed", "doors_open", "riders"]
    assert tramline.aedifex("build", "--unchecked", "-q", "tramline.design.toml").returncode in (0, 1)
    assert tramline.aedifex("check", "-q", "tramline.design.toml").returncode == 0


def test_what_is_worked_out_before_the_object_exists_is_foreseen(folder):
    folder.write("road.py", "SIZE = 10\nspeed = SIZE * 2\n\ndef wide(n=SIZE):\n    return n * speed\n\n"
                 "def go():\n    global speed\n    speed += SIZE\n    print(wide())\n\ngo()\ngo()\n")  # fmt: skip
    wish = ["--together", "Road=SIZE,speed,wide"]
    done = folder.aedifex("draft", "road.py", *wish)
    assert (done.returncode, "the default of 'n' is worked out" in done.stderr) == (1, True)
    assert folder.aedifex("draft", "-q", "road.py", "--together", "Road=SIZE,speed").returncode == 0
    assert folder.aedifex("build", "road.design.toml").returncode == 0


def test_rivals_differ_are_compared_and_can_be_built(tramline):
    assert tramline.aedifex("draft", "tramline.py", "--rivals", "3").returncode == 1  # one is there already
    done = tramline.aedifex("draft", "--again", "tramline.py", "--rivals", "3")
    assert done.returncode == 0, done.stderr
    rows = [line.split() for line in done.stdout.splitlines() if re.match(r"[123]  T", line)]
    assert [row[-5:] for row in rows] == [
        ["0.67", "0", "0", "1", "150"], ["1.0", "0", "0", "1", "134"], ["0.0", "0", "11", "35", "143"],
    ]  # fmt: skip
    texts = [tramline.read(f"tramline{n}.design.toml") for n in ("", ".rival2", ".rival3")]
    assert [list(names(parse("d", t)[0])) for t in texts] == [
        ["Tram", "Fare", "Service"], ["Tram", "Service"], ["Tram", "Fare"],
    ]  # fmt: skip
    built = tramline.aedifex("build", "tramline.rival3.design.toml")  # checked by the scenarios of the script
    assert built.returncode == 0 and "(4 scenarios)" in built.stderr, built.stderr
