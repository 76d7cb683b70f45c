"""Lists with one index become a list of objects: what a draft proposes, and the way from the shell."""

import pytest

from aedifex.core.naming.inflection import plural, singular
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program

DEPOT = """\
names = ["north", "south"]
km = [0, 0]
in_shed = [True, False]


def drive_wagon(i, distance):
    km[i] += distance
    if km[i] > 100:
        in_shed[i] = True


def report():
    for i in range(len(names)):
        print(names[i], "in" if in_shed[i] else "out")


def sell_wagon(i):
    del names[i]
    del km[i]
    del in_shed[i]


for i in range(len(names)):
    drive_wagon(i, 60 * (len(names)))
report()
sell_wagon(0)
report()
"""


def by_hand(design):
    return {
        c.name: (
            [(f.name, [*map(str, f.origins)], f.hidden) for f in c.fields],
            [(m.name, [*map(str, m.origins)], m.drop) for m in c.methods],
            [(o.name, o.collection) for o in c.objects],
            c.file,
        )
        for c in design.classes
        if c.role == "model"
    }


def test_the_depot_is_drafted_as_one_would_write_it(folder):
    """What nobody outside looks at is hidden; who gets an index only to work on that wagon is the wagon's method."""
    folder.write("depot.py", DEPOT)
    assert by_hand(draft(read_program(str(folder.path), ["depot.py"]))) == {
        "Wagon": (
            [("name", ["names"], False), ("km", ["km"], True), ("in_shed", ["in_shed"], False)],
            [("drive", ["drive_wagon"], ["i"])],
            [("wagon", "wagons")],
            "wagon.py",
        )
    }


def build(folder, stem: str) -> None:
    """Draft and build; nothing is refused."""
    assert folder.aedifex("draft", "--again", f"{stem}.py").returncode == 0
    done = folder.aedifex("build", f"{stem}.design.toml")
    assert done.returncode == 0 and "refused" not in done.stdout, done.stdout + done.stderr


def put_back(folder, stem: str, text: str) -> None:
    assert folder.aedifex("undo", "--all", f"{stem}.design.toml").returncode == 0
    assert folder.read(f"{stem}.py") == text


def test_the_depot_is_built_checked_and_put_back(folder):
    folder.write("depot.py", DEPOT)
    build(folder, "depot")
    assert folder.read("wagon.py") == (
        "class Wagon:\n    def __init__(self, name, km, in_shed):\n        self.name = name\n        self._km = km\n"
        "        self.in_shed = in_shed\n\n    def drive(self, distance):\n        self._km += distance\n"
        "        if self._km > 100:\n            self.in_shed = True\n"
    )
    app = folder.read("depot_app.py")
    assert "for wagon in self._wagons:\n            print(wagon.name" in app
    assert "for wagon in self._wagons:\n            wagon.drive(60 * (len(self._wagons)))" in app
    put_back(folder, "depot", DEPOT)


def test_what_starts_the_program_again_forbids_no_list(folder):
    """It keeps the class in its file; what the draft proposes, no step refuses."""
    text = "import pickle\n\n" + DEPOT + "print(len(pickle.dumps(len(names))) > 0)\n"
    folder.write("depot.py", text)
    build(folder, "depot")
    assert "class Wagon:" in folder.read("depot.py")
    put_back(folder, "depot", text)


@pytest.mark.parametrize(
    "old, new",
    [
        ("    del km[i]\n", ""),
        ("    del km[i]\n", "    print('gone')\n    del km[i]\n"),
        ("report()\n", "kept = km\nreport()\n"),
        ("report()\n", "km.sort()\nreport()\n"),
        ("km = [0, 0]", "km = [0, 0, 0]"),
        ("km = [0, 0]", "km = list(range(2))"),
        ("km = [0, 0]", "km = [0, len(names)]"),
        ("    km[i] += distance\n", "    globals()['km'][i] += distance\n"),
    ],
)
def test_lists_that_are_more_than_parts_of_one_thing_stay_lists(folder, old, new):
    """The one that is more is left out, and so are those that go with it."""
    assert DEPOT.count(old)
    folder.write("depot.py", DEPOT.replace(old, new, 1))
    classes = draft(read_program(str(folder.path), ["depot.py"])).classes
    assert not any(o.name == "km" for c in classes for f in c.fields for o in f.origins if c.objects[0].collection)


def test_mistakes_in_a_design_of_a_list_are_told(folder):
    folder.write("depot.py", DEPOT)
    folder.aedifex("draft", "depot.py")
    text = folder.read("depot.design.toml").replace('collection = "wagons"', 'collection = "report"')
    folder.write("depot.design.toml", text)
    line = text[: text.index('collection = "report"')].count("\n") + 1
    done = folder.aedifex("preview", "depot.design.toml")
    assert done.returncode == 2
    assert f"depot.design.toml:{line}: 'report' is in use already; choose another name. [name-in-use]" in done.stderr


FLOCK = """\
birds = [{"x": 3, "speed": 1, "name": "ada"}, {"x": 9, "speed": -2, "name": "bo"}]


def move_bird(bird, by):
    bird["x"] += bird["speed"] * by


def tell(bird):
    print(bird["name"], bird["x"])


def make_bird(name):
    return {"x": 0, "speed": 3, "name": name}


birds.append(make_bird("cy"))
for bird in birds:
    move_bird(bird, 2)
    tell(bird)
print(len(birds))
"""


def test_a_flock_is_drafted_built_checked_and_put_back(folder):
    folder.write("flock.py", FLOCK)
    assert by_hand(draft(read_program(str(folder.path), ["flock.py"]))) == {
        "Bird": (
            [("x", ["birds[x]"], True), ("speed", ["birds[speed]"], True), ("name", ["birds[name]"], True)],
            [("move", ["move_bird"], ["bird"]), ("tell", ["tell"], ["bird"])],
            [("bird", "birds")],
            "bird.py",
        )
    }
    asked = folder.aedifex("ask", "birds", "flock.py")
    assert "becomes the field 'x' of Bird" in asked.stdout
    build(folder, "flock")
    app = folder.read("flock_app.py")
    assert "bird.move(2)\n            bird.tell()" in app and "Bird(x=" not in app
    put_back(folder, "flock", FLOCK)


@pytest.mark.parametrize(
    "old, new",
    [
        ("print(len(birds))", "print(birds)"),
        ("print(len(birds))", "print(birds[0].get('x'))"),
        ("print(len(birds))", "print('x' in birds[0])"),
        ("print(len(birds))", "birds[0]['more'] = 1"),
        ("print(len(birds))", "key = 'x'\nprint(birds[0][key])"),
        ("print(len(birds))", "birds.append(len(birds))"),
        ("print(len(birds))", "birds.append({'x': 1})"),
        ("print(len(birds))", "other = dict(birds[0])"),
        ("print(len(birds))", "print(*birds)"),
        (
            "print(len(birds))",
            "def min(things, key):\n    return 7\n\n\nlast = birds[0]\nlast = min(birds, key=len)\nprint(last)",
        ),
        ("print(len(birds))", "def min(things, key):\n    return 7\n\n\nlast = birds[0]\nlast = min(birds, key=len)"),
        ("print(len(birds))", "tell({'x': 1, 'name': 'di'})"),
        ("print(len(birds))", "handler = tell\nhandler(birds[0])"),
        ("print(len(birds))", "print({**birds[0]})"),
        ("print(len(birds))", "del birds[0]['x']"),
        ("print(len(birds))", "print(f'{birds[0]}')"),
    ],
)
def test_records_that_are_used_as_tables_stay_tables(folder, old, new):
    assert old in FLOCK
    folder.write("flock.py", FLOCK.replace(old, new))
    classes = draft(read_program(str(folder.path), ["flock.py"])).classes
    assert not any(o.key for c in classes for f in c.fields for o in f.origins)


@pytest.mark.parametrize("kind", ["[]", "readonly number[]", "number[][]", "[][]", "Array<number>", "number[]"])
def test_a_list_of_any_written_type_is_read(folder, kind):
    body = "function go(i: number): void {\n  km[i] = km[i] + 1;\n  console.log(km[i], odd[i]);\n}\ngo(0);\n"
    folder.write("tram.ts", f"const odd: {kind} = [];\nconst km: number[] = [];\n{body}")
    classes = draft(read_program(str(folder.path), ["tram.ts"])).classes
    assert {str(o) for c in classes for f in c.fields for o in f.origins} == {"km"}


def test_words():
    assert [singular(w) for w in ("names", "km", "status", "axis", "glass", "xs")] == [
        "name",
        "km",
        "status",
        "axis",
        "glass",
        "x",
    ]
    assert [plural(w) for w in ("tram", "trams", "fly")] == ["trams", "trams", "flies"]
