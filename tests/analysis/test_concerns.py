"""What code is about, the role of a class, and the lines that do not go with it; verbs for code over one object's data."""

import pytest

from aedifex.core.analysis.report import survey
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program


def surveyed(folder, name, text):
    folder.write(name, text)
    return survey(read_program(str(folder.path), [name])).files[0]


def test_main_code_is_a_strip_of_concerns(folder):
    found = surveyed(
        folder,
        "line.py",
        "import pygame\nfrom time import sleep as wait\n\npygame.init()\nlamp = 0\nscreen = pygame.display.set_mode((9, 9))\n\n\n"
        "def paint():\n    pygame.draw.line(screen, 1, (0, 0), (9, lamp))\n\n\n"
        "while lamp < 3:\n    for event in pygame.event.get():\n        lamp += 1\n    lamp += 1\n    lamp = lamp * 2\n    paint()\n    screen.fill(2)\n    wait(1)\n"
        "print(lamp)\n",
    )
    assert [(c["concern"], c["first"], c["last"]) for c in found.concerns] == [
        ("set-up", 4, 5), ("drawing", 6, 6), ("input", 14, 15), ("work", 16, 17), ("drawing", 18, 19), ("timing", 20, 20), ("console", 21, 21),
    ]  # fmt: skip


def test_a_function_with_several_jobs_is_shown_with_them(folder):
    text = "import json\n\n\ndef evening(path):\n    with open(path) as f:\n        rows = json.load(f)\n    total = sum(rows)\n    print(total)\n    print(len(rows))\n    return total\n"
    (unit,) = surveyed(folder, "line.py", text).jobs
    assert (unit["name"], unit["jobs"]) == ("evening", {"files": [5, 6], "console": [8, 9]})
    assert [(c["concern"], c["first"], c["last"]) for c in unit["split"]] == [
        ("files", 5, 6),
        ("work", 7, 7),
        ("console", 8, 9),
        ("work", 10, 10),
    ]


@pytest.mark.parametrize(
    ("name", "text", "strip"),
    [
        ("line.js", 'const fs = require("fs");\nlet n = fs.readFileSync("x");\nconsole.log(n);\nn += 1;\n', ["files", "console", "set-up"]),
        ("Line.java", 'class Line { static int n = 1;\n public static void main(String[] a) {\n  n += 1;\n  System.out.println(n);\n  n = 4;\n  n++;\n }}', ["set-up", "console", "set-up"]),
    ],
)  # fmt: skip
def test_other_languages_say_what_their_calls_are_for(folder, name, text, strip):
    assert [c["concern"] for c in surveyed(folder, name, text).concerns][-3:] == strip


def roles(folder, text):
    folder.write("line.py", text)
    return {c.name: (c.role, c.why) for c in draft(read_program(str(folder.path), ["line.py"])).classes}


def test_roles_and_the_lines_that_do_not_go_with_them(folder):
    found = roles(
        folder,
        "panel_width = 9\npanel_mark = '#'\nstock_count = 2\nstock_sold = 0\n\n\n"
        "def draw_panel():\n    print(panel_mark * panel_width)\n\n\ndef frame_panel():\n    print(panel_mark, panel_width)\n\n\n"
        "def widen_panel():\n    global panel_width, panel_mark\n    panel_width += 1\n    panel_mark = '='\n    print(panel_width)\n\n\n"
        "def sell_stock():\n    global stock_count, stock_sold\n    stock_count -= 1\n    stock_sold += 1\n\n\n"
        "def fill_stock(n):\n    global stock_count\n    stock_count += n\n    print('filled', stock_count)\n\n\n"
        "for turn in range(2):\n    draw_panel()\n    frame_panel()\n    widen_panel()\n    sell_stock()\n    fill_stock(turn)\n",
    )
    assert (found["Panel"][0], found["Stock"][0]) == ("view", "model")
    assert "line 31 talks to the console, which a model should leave to those that use it" in found["Stock"][1]


def test_what_callers_decide_over_an_object_becomes_its_own(folder):
    lines = [
        f"{t}_{n} = {v}"
        for t in ("ferry1", "ferry2")
        for n, v in (("x", 0), ("load", 0), ("seats", 4), ("open", False))
    ]
    for t in ("ferry1", "ferry2"):
        lines += [
            f"if {t}_load < {t}_seats and {t}_open:",
            f"    print('{t}')",
            f"{t}_open = not {t}_open",
            f"{t}_load, {t}_x = 0, 3",
            f"{t}_x += 1",
        ]
    folder.write("line.py", "\n".join(lines) + "\nprint(ferry1_x, ferry2_x)\n")
    (ferry,) = [c for c in draft(read_program(str(folder.path), ["line.py"])).classes if c.name == "Ferry"]
    assert {m.name: m.lines for m in ferry.methods} == {
        "load_under_seats_and_open": ["line.py:9:4-9:45", "line.py:14:4-14:45"],
        "update": ["line.py:11-13", "line.py:16-18"],
    }


def test_the_main_loop_is_cut_into_its_jobs(folder):
    folder.write(
        "line.py",
        "import sys\n\nsignal = 'go'\nmoved = 0\nturns = 0\n\n\ndef move_tram(dt):\n    global moved\n    moved += dt\n\n\ndef move_bus(dt):\n    global moved\n    moved -= dt\n\n\n"
        "for line in sys.stdin:\n    key = line.strip()\n    if key == 'quit':\n        break\n    elif key == 'signal':\n        signal = 'stop' if signal == 'go' else 'go'\n"
        "        moved = 0\n        print(signal)\n    elif key == 'tell':\n        print(moved)\n    dt = 2 if signal == 'go' else 0\n    dt += 1\n    move_tram(dt)\n    move_bus(dt)\n"
        "    # show the line\n    row = ['.'] * 9\n    row[moved % 9] = '#'\n    print(''.join(row))\n    print(signal)\n    turns += 1\nprint(turns)\n",
    )
    app = draft(read_program(str(folder.path), ["line.py"])).classes[-1]
    assert {m.name: (m.lines, m.hidden) for m in app.methods if m.lines} == {
        "handle_key": (["line.py:20-27"], True),
        "handle_signal": (["line.py:23-25"], True),
        "move": (["line.py:29-31"], True),
        "show_line": (["line.py:33-36"], True),
    }


def test_a_long_function_is_cut_where_a_reader_would_set_it_apart(folder):
    rows = ["    names = []", "    for line in text.split():", "        if line:", "            names.append(line)"]
    counts = ["    counts = {}", "    for name in names:", "        counts[name] = counts.get(name, 0) + 1"]
    most = [
        "    most = 0",
        "    for name in sorted(counts):",
        "        if counts[name] > most:",
        "            most = counts[name]",
        "    return most",
    ]
    pad = [f"            names.append('{n}')" for n in range(30)]
    text = "\n".join(["def count(text):", *rows, *pad, *counts, *most, "", "", "print(count('a b a'))"]) + "\n"
    (unit,) = surveyed(folder, "line.py", text).jobs
    assert unit["jobs"] == {}
    assert [(p["first"], p["last"]) for p in unit["split"]] == [(2, 35), (36, 38), (39, 43)]
