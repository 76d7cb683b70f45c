"""Each command that README and --help give as an example works on the shipped demo."""

import re
import shlex
import shutil
from pathlib import Path

import pytest

import aedifex
from aedifex.core.apply.by_hand import commands

HOME = Path(aedifex.__file__).parent
README = Path(__file__).parents[2] / "README.md"
PANEL = 'import pyglet\n\nwindow = pyglet.window.Window(60, 40)\nspeed = 1\n\n\n@window.event\ndef on_draw():\n    window.clear()\n\n\n@window.event("on_key_press")\ndef press(symbol, modifiers):\n    global speed\n    speed = 0\n\n\npyglet.app.run()\n'
PANEL_APP = "import pyglet\n\n\nclass PanelApp:\n    def __init__(self):\n        self.window = pyglet.window.Window(60, 40)\n        self.window.set_handler('on_draw', self.on_draw)\n\n    def on_draw(self):\n        self.window.clear()\n\n\napp = PanelApp()\npyglet.app.run()\n"
VEHICLES = "class Tram:\n    def __init__(self):\n        self.x = 0\n\n    def move(self, n):\n        self.x += n\n        print(self.x)\n\n\nclass Bus:\n    def __init__(self):\n        self.x = 0\n\n    def move(self, n):\n        self.x += n\n        print(self.x)\n\n\nTram().move(2)\nBus().move(3)\n"
TRAMS = 'class Tram:\n    def __init__(self, x):\n        self.x = x\n\n    def move(self):\n        self.x += 1\n        print(self.x)\n\n\nclass Line:\n    def __init__(self):\n        self.first = Tram(2)\n        self.second = Tram(30)\n        self.riders = 0\n\n    def handle(self, key):\n        if key == "1":\n            self.first.move()\n            self.riders += self.first.x\n        elif key == "2":\n            self.second.move()\n            self.riders += self.second.x\n\n    def run(self):\n        for key in "121":\n            self.handle(key)\n            self.first.move()\n            self.second.move()\n        print(self.riders)\n\n\nLine().run()\n'
HALL = "class Depot:\n    def __init__(self):\n        self.trams = []\n\n    def fill(self):\n        for n in range(3):\n            self.trams.append(n)\n\n\ncount = len('ab')\ndepot = Depot()\ndepot.fill()\nprint(depot.trams, count)\n"
APP = "class TramlineApp:\n    def stop(self):\n        print('stops')\n\n    def start(self):\n        print('starts')\n\n    def run(self):\n        self.stops = []\n        self.stops.append('Mill')\n        for _ in range(2):\n            self.start()\n            self.stop()\n        print(self.stops)\n\n\nTramlineApp().run()\n"
LOG_BOOK = 'line = "north"\n\n\nclass Log:\n    def __init__(self):\n        self.lines = []\n\n    def add(self, text):\n        self.lines.append(f"{line}: {text}")\n        print(self.lines[-1])\n\n\nlog = Log()\nlog.add("first tram")\n'
BELLS = (
    "".join(f"bell{n}_rings = 0\n" for n in (1, 2))
    + "".join(
        f"\n\ndef ring_bell{n}():\n    global bell{n}_rings\n    bell{n}_rings += 1\n    print('{'ding' * n}')\n{'    print(2)' * (n - 1)}"
        for n in (1, 2)
    )
    + "\n\nring_bell1()\nring_bell2()\nprint(bell1_rings, bell2_rings)\n"
)
DEPOT_WINDOW = "class DepotWindow:\n    def __init__(self, bell):\n        rings = 0\n\n        def ring(event):\n            nonlocal rings\n            rings += 1\n            print(event, rings)\n\n        bell.bind('ring', ring)\n\n\nclass Bell:\n    def bind(self, event, listener):\n        listener(event)\n\n\nDepotWindow(Bell())\n"
SWITCHES = "left, right = 0, 1\n\n\ndef turn():\n    global left\n    left += 1\n\n\nturn()\nprint(left, right)\n"
DESK_BOOK = "book = []\ncount = 0\n\n\ndef serve(command, rest):\n    global count\n    if command == 'add':\n        book.append(rest)\n        count += len(rest)\n        print('added', rest)\n    elif command == 'clear':\n        book.clear()\n        count = 0\n        print('empty', book)\n    else:\n        print('what?')\n\n\nserve('add', 'hat')\nserve('clear', '')\nprint(count)\n"
STOPS = 'names = ["Mill", "Quarry"]\nwaiting = [0, 2]\n\n\ndef board(i, n):\n    waiting[i] += n\n    print(names[i], waiting[i])\n\n\nfor i in range(len(names)):\n    board(i, 3)\n'
FLOCK = 'birds = [{"x": 3, "name": "ada"}, {"x": 5, "name": "bo"}]\ncount = 0\n\n\ndef move(bird):\n    global count\n    bird["x"] += 1\n    count += 1\n\n\ndef show(bird):\n    print(bird["name"], bird["x"])\n\n\nfor b in birds:\n    move(b)\n    show(b)\nprint(count)\n'
LAMPS = 'import sys\n\nscreen = sys.stdout\nlamp_lit = True\n\n\ndef show_lamp():\n    screen.write("lit\\n" if lamp_lit else "dark\\n")\n\n\ndef hide_lamp():\n    global lamp_lit\n    lamp_lit = False\n    screen.write("hidden\\n")\n\n\nshow_lamp()\nhide_lamp()\nscreen.write("end\\n")\n'
DESK = 'import sys\n\n\ndef main():\n    count = 0\n    for n in range(3):\n        count += n\n        print(count)\n\n\nif __name__ == "__main__":\n    sys.exit(main())\n'
SIDINGS = """\
def park(yard, n, tram):
    yard[n][0] = tram


def show(yard):
    for siding in yard:
        print(*siding)


def free(yard):
    return [n for n in range(2) if not yard[n][0]]


yard = [[0, 0], [0, 0]]
park(yard, 1, "A")
show(yard)
print(free(yard))
"""
TRAMS_STANDING = """\
class Tram:
    def __init__(self, x):
        self.x = x
        self.pace = 2


def stop(tram):
    tram.pace = 0


def turn(tram):
    tram.pace = -tram.pace


first = Tram(3)
turn(first)
stop(first)
print(first.pace)
"""
FILES = {
    " trams.py": TRAMS_STANDING,
    "sidings.py": SIDINGS,
    "stops.py": STOPS,
    "flock.py": FLOCK,
    "lamps.py": LAMPS,
    "desk.py": DESK,
    "log_book.py": LOG_BOOK,
    "bells.py": BELLS,
    "switches.py": SWITCHES,
    "desk_book.py": DESK_BOOK,
    "depot_window.py": DEPOT_WINDOW,
    "panel.py": PANEL,
    "panel_app.py": PANEL_APP,
    "vehicles.py": VEHICLES,
    "tramline_app.py": APP,
    "two_trams.py": TRAMS,
    "hall.py": HALL,
}
NEED_NO_FILE = {"draft", "record --suggest"}  # they write what the demo ships with
BEFORE = {
    "step clean": "step open main desk.py --yes --unchecked -q",
    "step file": "step class Fare fare_box,fare_tickets,sell_fares tramline.py --yes --unchecked -q",
    "undo": "step rename tick turn tramline.py --yes --unchecked -q",
}
DESIGNED = ("build", "check", "preview", "record tramline")


def examples() -> list[str]:
    found = [f"step {hand.example}" for hand in commands()]
    for file in sorted((HOME / "cli").glob("*.py")):
        found += re.findall(r"Example: aedifex ([^{\n]+)\n", file.read_text())
    readme = README.read_text()
    found += re.findall(r"^aedifex (\w.*?)(?: +#.*)?$", readme, re.M)
    found += re.findall(r"^\| `(step .+?)` \|", readme, re.M)
    return [
        e for e in dict.fromkeys(e.split(" | ")[0].strip() for e in found) if not e.startswith("demo")
    ]  # test_cli runs demos, with and without a folder


@pytest.mark.parametrize("example", examples())
def test_example(folder, example):
    for source in (HOME / "demo" / "programs").iterdir():
        if source.is_file() and not (example.startswith(tuple(NEED_NO_FILE)) and source.name.endswith(".toml")):
            shutil.copy(source, folder.path)
    for name, text in FILES.items():
        if name in example:
            folder.write(name.strip(), text)
    if example.startswith(DESIGNED):
        assert folder.aedifex("draft", "-q", "tramline.py").returncode == 0
    for beginning, command in BEFORE.items():
        if example.startswith(beginning):
            assert folder.aedifex(*command.split()).returncode == 0
    more = ["--yes", "--unchecked"] if example.startswith("step") else []
    done = folder.aedifex(*shlex.split(example), *more, timeout=300)
    assert done.returncode == 0, done.stdout + done.stderr
