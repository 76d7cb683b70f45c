"""Each runner end to end: a rearranged program is the same, and a deliberate fault in it is found and placed."""

import json
import os
import shutil
from pathlib import Path

import pytest
from conftest import needs

PROGRAMS = Path(__import__("aedifex").__file__).parent / "demo" / "programs"

LIFT = """import curses

floor = 0
doors_open = False
log_lines = []


def go(step):
    global floor
    if not doors_open:
        floor = max(0, min(9, floor + step))
        log_lines.append("floor %d" % floor)


def toggle():
    global doors_open
    doors_open = not doors_open
    log_lines.append("doors %s" % ("open" if doors_open else "shut"))


def draw(win):
    win.erase()
    win.addstr(1, 2, "LIFT", curses.A_REVERSE)
    win.addstr(3, 2, "floor %d %s" % (floor, "[ ]" if doors_open else "[|]"))
    for i, line in enumerate(log_lines[-5:]):
        win.addstr(5 + i, 2, line)
    win.refresh()


def main(win):
    win.timeout(500)
    while True:
        draw(win)
        key = win.getch()
        if key == curses.KEY_UP:
            go(1)
        elif key == curses.KEY_DOWN:
            go(-1)
        elif key == ord(" "):
            toggle()
        elif key == ord("q"):
            break


curses.wrapper(main)
print("stopped at", floor)
"""
LIFT_KEYS = """[[scenario]]
name = "ride"
runner = "terminal"
events = [{ turn = 1, key = "UP" }, { turn = 3, key = "UP" }, { turn = 4, key = " " }, { turn = 6, key = "DOWN" }, { turn = 8, text = "xq" }]
"""

ROUTES = """from flask import Flask, jsonify, redirect, request, session

app = Flask(__name__)
app.secret_key = "quarry"
visit_count = 0
visit_paths = []
stop_names = {1: "Mill"}
stop_changes = 0


def count_visit(path):
    global visit_count
    visit_count += 1
    visit_paths.append(path)
    return visit_count


def visit_report():
    return {"visits": visit_count, "paths": visit_paths}


def rename_stop(number, name):
    global stop_changes
    stop_names[number] = name
    stop_changes += 1


@app.route("/")
def home():
    session["n"] = count_visit("/")
    return "<h1>Brindlebeck</h1> visit %d" % session["n"]


@app.route("/stops/<int:n>", methods=["GET", "POST"])
def stop(n):
    if request.method == "POST":
        rename_stop(n, request.get_json()["name"])
        return redirect("/report")
    if n not in stop_names:
        return "no such stop", 404
    return jsonify(name=stop_names[n], seen=session.get("n"), changes=stop_changes)


@app.route("/report")
def report():
    count_visit("/report")
    return jsonify(visit_report())


if __name__ == "__main__":
    app.run(port=8000, debug=True)
"""
ASKED = """[[scenario]]
name = "visits"
requests = [
    { path = "/" },
    { method = "POST", path = "/stops/3", json = { name = "Quarry" } },
    { path = "/stops/3" },
    { path = "/stops/9" },
    { path = "/report" },
]
"""

SERVER = """import http.server

hit_count = 0
hit_last = ""


def note_hit(path):
    global hit_count, hit_last
    hit_count += 1
    hit_last = path


def hit_report():
    return "%d hits, last %s" % (hit_count, hit_last)


class Handler(http.server.BaseHTTPRequestHandler):
    def do_GET(self):
        note_hit(self.path)
        self.send_response(200)
        self.send_header("Content-Type", "text/plain")
        self.end_headers()
        self.wfile.write(hit_report().encode())

    def log_message(self, *args):
        pass


server = http.server.HTTPServer(("", 8080), Handler)
print("serving")
try:
    server.serve_forever()
except KeyboardInterrupt:
    print("bye", hit_report())
"""

WINDOW = """import tkinter as tk

root = tk.Tk()
root.title("Fares")
fare_count = 0
fare_total = 0


def sell_fare(price):
    global fare_count, fare_total
    fare_count += 1
    fare_total += price


def fare_text():
    return "%d fares, %d marks" % (fare_count, fare_total)


def adult():
    sell_fare(3)
    label.config(text=fare_text())


def child():
    sell_fare(int(entry.get()))
    label.config(text=fare_text())
    canvas.create_oval(fare_count * 10, 5, fare_count * 10 + 8, 13)


def tick():
    root.title("Fares " + fare_text())
    root.after(1000, tick)


label = tk.Label(root, text="nothing sold")
label.pack()
tk.Button(root, text="Adult", command=adult).pack()
entry = tk.Entry(root)
entry.pack()
tk.Button(root, text="Child", command=child).pack()
canvas = tk.Canvas(root, width=200, height=30)
canvas.pack()
root.bind("<Key-a>", lambda event: adult())
tick()
root.mainloop()
print("sold", fare_count)
"""
WINDOW_USED = """[[scenario]]
name = "sell"
events = [
    { turn = 2, control = "Adult" },
    { turn = 3, control = "Entry 1", value = "2" },
    { turn = 4, control = "Child" },
    { turn = 5, key = "a" },
    { turn = 8, quit = true },
]
"""

SKETCH = """import turtle

walker = turtle.Turtle()
walk_steps = 0
walk_turns = 0


def step():
    global walk_steps
    walk_steps += 1
    walker.forward(10 + walk_steps)


def turn_left():
    global walk_turns
    walk_turns += 1
    walker.left(90)


def show():
    walker.write("%d steps, %d turns" % (walk_steps, walk_turns))
    turtle.ontimer(show, 500)


turtle.onkey(step, "Up")
turtle.onkey(turn_left, "Left")
turtle.listen()
show()
turtle.mainloop()
"""
SKETCHED = """[[scenario]]
name = "walk"
turns = 12
events = [{ turn = 2, key = "Up" }, { turn = 3, key = "Left" }, { turn = 5, key = "Up" }, { turn = 9, key = "Up" }]
"""

CASES = {
    "frames": ("tramwindow", None, None, "self._speed *= 0.98", "self._speed *= 0.97", "frame 20", "tram.speed"),
    "terminal": ("lift", LIFT, LIFT_KEYS, "not self._doors_open:", "True:", "screen 7", "app.floor"),
    "lines on a terminal": ("fares", None, None, "self._items.remove(item)", "pass", "", "lost.items"),
    "an app": ("routes", ROUTES, ASKED, "self.count += 1", "self.count = 1", "response 5 (GET /report)", "visit.count"),
    "a server": (
        "serve", SERVER, ASKED.split("requests")[0] + 'requests = [{ path = "/" }, { path = "/x?y=1" }]\n',
        "self._last = path", "last = path", "response 1 (GET /)", "hit.last",
    ),
    "a window": ("counter", WINDOW, WINDOW_USED, "(3)", "(4)", "window 2", "fare.total"),
    "a sketch": ("walk", SKETCH, SKETCHED, "_steps += 1", "_steps += 2", "drawing", "app.walk_steps"),
}  # fmt: skip


@pytest.mark.parametrize("kind", CASES)
def test_the_same_and_then_a_fault(folder, kind):
    """The program is rearranged and does the same; a fault is found where it first shows, and in the field it spoils."""
    stem, text, scenarios, old, new, where, field = CASES[kind]
    if kind == "a window":
        needs("Xvfb")
    if text is None:
        for name in (f"{stem}.py", f"{stem}.scenarios.toml"):
            shutil.copy(PROGRAMS / name, folder.path)
    else:
        folder.write(f"{stem}.py", text)
        folder.write(f"{stem}.scenarios.toml", scenarios)
    assert folder.aedifex("draft", "-q", f"{stem}.py").returncode == 0
    apart = ["--unchecked"] if text is None else []  # the dear ones are compared once, at the end
    built = folder.aedifex("build", *apart, f"{stem}.design.toml")
    assert built.returncode == 0 and "class" in built.stdout, built.stdout + built.stderr
    assert folder.aedifex("check", f"{stem}.scenarios.toml").returncode == 0
    homes = [p for p in folder.path.glob("*.py") if old in p.read_text()]
    assert homes, {p.name: p.read_text() for p in folder.path.glob("*.py")}
    homes[0].write_text(homes[0].read_text().replace(old, new, 1))
    done = folder.aedifex("check", "--json", f"{stem}.scenarios.toml")
    found = json.loads(done.stdout)["differences"]
    assert done.returncode == 1 and found, done.stdout + done.stderr
    assert not where or any(d["where"] == where for d in found), found
    assert any((d["field"] or "").startswith(field + " ") for d in found if d["where"] == "state"), [
        d["field"] for d in found
    ]


def test_pictures_of_the_first_frame_that_differs(folder):
    """Before, after, and what differs in red."""
    from PIL import Image

    for name in ("tramwindow.py", "tramwindow.scenarios.toml"):
        shutil.copy(PROGRAMS / name, folder.path)
    folder.aedifex("draft", "-q", "tramwindow.py")
    assert folder.aedifex("build", "-q", "--unchecked", "tramwindow.design.toml").returncode == 0
    text = folder.read("signal_model.py")
    folder.write("signal_model.py", text.replace("(40, 160, 70) if self.green", "(40, 160, 70) if not self.green"))
    found = json.loads(folder.aedifex("check", "--json", "tramwindow.scenarios.toml").stdout)["differences"]
    first = next(d for d in found if d["scenario"] == "drive and board" and d["where"].startswith("frame"))
    assert first["where"] == "frame 1" and [p.rsplit(".", 2)[1] for p in first["pictures"]] == [
        "before",
        "after",
        "difference",
    ]
    images = [Image.open(os.path.join(folder.path, p)).convert("RGB") for p in first["pictures"]]
    assert [i.size for i in images] == [(480, 200)] * 3
    assert [i.getpixel((250, 56)) for i in images] == [(40, 160, 70), (200, 40, 40), (214, 40, 40)]


def test_a_window_without_a_screen_is_refused(folder):
    folder.write("counter.py", WINDOW)
    folder.write("counter.scenarios.toml", WINDOW_USED)
    folder.aedifex("draft", "-q", "counter.py")
    done = folder.aedifex("record", "counter.scenarios.toml", env={"PATH": "/nowhere"})
    assert done.returncode == 1 and "install Xvfb" in done.stderr, done.stderr


def test_a_control_or_key_that_is_not_there_is_said(folder):
    needs("Xvfb")
    folder.write("counter.py", WINDOW)
    folder.write("counter.scenarios.toml", WINDOW_USED.replace('control = "Child"', 'control = "Dog"'))
    folder.aedifex("draft", "-q", "counter.py")
    done = folder.aedifex("record", "counter.scenarios.toml")
    assert done.returncode == 1 and "the control 'Dog', which the window does not show at turn 4" in done.stderr
    shutil.copy(PROGRAMS / "tramwindow.py", folder.path)
    folder.write("tramwindow.scenarios.toml", '[[scenario]]\nname = "a"\nevents = [{ turn = 1, key = "WHISTLE" }]\n')
    folder.aedifex("draft", "-q", "tramwindow.py")
    done = folder.aedifex("record", "tramwindow.scenarios.toml")
    assert done.returncode == 1 and "pygame knows no key 'WHISTLE'" in done.stderr


def test_turns_end_a_program_that_never_ends(folder):
    """Frames, prompts and waits are counted; the run ends after the last and can be compared."""
    folder.write(
        "loop.py",
        "import time\ncount = 0\n\n\ndef step():\n    global count\n    count += 1\n\n\nwhile True:\n    step()\n    print(count)\n    time.sleep(60)\n",
    )
    folder.write("loop.scenarios.toml", '[[scenario]]\nname = "ten"\nturns = 10\n')
    folder.aedifex("draft", "-q", "loop.py")
    done = folder.aedifex("record", "loop.scenarios.toml")
    assert done.stdout == "ten: ended after 10 turns, 10 lines\n", done.stderr
