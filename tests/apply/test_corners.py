"""Corners of the runners: programs that read, wait, draw and serve in less usual ways, observed once."""

import pytest
from conftest import needs

from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario


def seen(folder, text, watch=(), **scenario):
    """What one run of a program does; ``watch``: variables of the file whose values are noted."""
    program = folder.program("line.py", text)
    rows = [{"name": n, "file": "line.py", "function": "", "variable": n} for n in watch]
    world = World(str(folder.path), "line.py", program.language, {}, list(program.files.values()), rows)
    return observe(Scenario("s", **{"seconds": 10, **scenario}), world)


def pygame_program(loop: str, setup: str = "") -> str:
    inside = "\n    ".join(loop.strip().split("\n"))
    return (
        "import pygame\npygame.init()\nscreen = pygame.display.set_mode((90, 60))\nclock = pygame.time.Clock()\n"
        f"{setup}\nwhile True:\n    {inside}\n"
    )


def test_held_keys_modifiers_and_text(folder):
    text = pygame_program(
        "for e in pygame.event.get():\n"
        "    if e.type == pygame.KEYDOWN: print('down', pygame.key.name(e.key), repr(e.unicode), e.mod & pygame.KMOD_SHIFT != 0)\n"
        "    if e.type == pygame.TEXTINPUT: print('text', e.text)\n"
        "    if e.type == pygame.QUIT: raise SystemExit(4)\n"
        "if pygame.key.get_pressed()[pygame.K_UP]: print('up', pygame.key.get_mods() & pygame.KMOD_SHIFT != 0)\n"
        "pygame.display.flip()"
    )
    events = [
        {"turn": 2, "key": "LSHIFT", "press": True},
        {"turn": 3, "key": "UP", "press": True},
        {"turn": 5, "key": "UP", "press": False},
        {"turn": 6, "text": "aB"},
        {"turn": 8, "key": "x"},
        {"turn": 12, "quit": True},
    ]
    run = seen(folder, text, runner="frames", events=events)
    assert run.status == 4 and run.turns == 11 and len(run.shots) == 12 - 1, run
    assert run.output.splitlines()[1:] == [
        "down left shift '' True", "down up '' True", "up True", "up True", "down a 'a' True", "text a",
        "down b 'B' True", "text B", "down x 'x' True",
    ]  # fmt: skip


def test_the_mouse(folder):
    text = pygame_program(
        "for e in pygame.event.get():\n"
        "    if e.type in (pygame.MOUSEBUTTONDOWN, pygame.MOUSEBUTTONUP): print(e.type == pygame.MOUSEBUTTONDOWN, e.pos, e.button)\n"
        "    if e.type == pygame.MOUSEMOTION: print('moved', e.pos, e.rel, e.buttons)\n"
        "if pygame.mouse.get_pressed()[2]: print('held at', pygame.mouse.get_pos())\n"
        "pygame.display.update()"
    )
    events = [{"turn": 1, "move": [5, 6]}, {"turn": 2, "click": [8, 9], "button": 3}]
    run = seen(folder, text, runner="frames", events=events, turns=5)
    assert run.output.splitlines()[1:] == [
        "moved (5, 6) (5, 6) (0, 0, 0)", "moved (8, 9) (3, 3) (0, 0, 0)", "True (8, 9) 3", "held at (8, 9)",
        "False (8, 9) 3",
    ]  # fmt: skip
    assert run.ended == "ended after 5 turns"


def test_time_in_a_window(folder):
    """Ticks follow the frame rate, timers come when they are due, nothing waits for real."""
    text = pygame_program(
        "dt = clock.tick(50)\n"
        "for e in pygame.event.get():\n    if e.type == BELL: bells += 1\n"
        "pygame.display.flip()\nframes += 1\n"
        "if frames == 101: print(dt, bells, round(clock.get_fps())); pygame.time.wait(60000); break",
        "BELL = pygame.USEREVENT + 1\npygame.time.set_timer(BELL, 500)\nbells = frames = 0",
    )
    run = seen(folder, text, runner="frames", turns=500)
    assert run.output.splitlines()[1:] == ["20 4 50"] and run.status == 0, run


@pytest.mark.parametrize(
    "loop", ["event = pygame.event.wait()\nprint(event.type == pygame.KEYDOWN)", "pygame.event.get()", "clock.tick(30)"]
)
def test_loops_without_frames_end_too(folder, loop):
    run = seen(folder, pygame_program(loop), runner="frames", events=[{"turn": 3, "key": "a"}], turns=40)
    assert not run.trouble and run.ended and run.status == 0, run
    assert ("True" in run.output) == ("wait" in loop)


def test_sounds_and_captions_are_noted(folder):
    setup = (
        "import array\npygame.mixer.init()\nbell = pygame.mixer.Sound(buffer=array.array('h', [0] * 100))\n"
        "pygame.display.set_caption('Brindlebeck')"
    )
    run = seen(folder, pygame_program("bell.play()\npygame.display.flip()", setup), runner="frames", turns=2)
    assert run.device.splitlines() == ["caption Brindlebeck", *["sound of 200 bytes played"] * 2], run


RAW = """import os, select, sys, termios, tty

kept = termios.tcgetattr(0)
tty.setcbreak(0)
count = 0
try:
    while True:
        ready, _, _ = select.select([sys.stdin], [], [], 30)
        count += 1
        if ready:
            key = os.read(0, 8)
            print("key", key, "at", count)
            if key == b"q":
                break
finally:
    termios.tcsetattr(0, termios.TCSADRAIN, kept)
print(os.isatty(0), os.get_terminal_size())
"""


def test_raw_keys_on_a_terminal(folder):
    events = [{"turn": 2, "key": "UP"}, {"turn": 5, "key": "q"}]
    run = seen(folder, RAW, runner="terminal", events=events)
    last = run.shots["screen at the end"].split("\n")
    assert (
        last[0] == "key b'\\x1b[A' at 2"
        and "key b'q' at" in last[1]
        and last[2].startswith("True os.terminal_size(columns=80, lines=24)")
    )
    assert run.status == 0


def test_a_secret_is_typed_and_not_shown(folder):
    text = "import getpass\nname = input('Who? ')\nsecret = getpass.getpass('Secret: ')\nprint(name, len(secret))\n"
    typed = [{"after": "Who?", "text": "Oda\n"}, {"after": "Secret:", "text": "quarry\n"}]
    run = seen(folder, text, runner="terminal", typed=typed)
    assert run.shots["screen at the end"].split("\n")[:3] == ["Who? Oda", "Secret:", "Oda 6"], run


def test_colours_scrolling_and_errors_on_a_terminal(folder):
    text = "import sys\nfor n in range(40):\n    print('\\x1b[31mred\\x1b[0m' if n == 39 else n)\nprint(1 / 0)\n"
    run = seen(folder, text, runner="terminal")
    shot = run.shots["screen at the end"].split("\n")
    assert shot[:3] == ["0", "1", "2"] and "red" in shot and any("fg red" in row for row in shot)
    assert run.status == 1 and "ZeroDivisionError" in run.error


def test_windows_over_windows(folder):
    needs("Xvfb")
    text = (
        "import tkinter as tk\nfrom tkinter import ttk\nroot = tk.Tk()\nbox = tk.Listbox(root)\nbox.insert(0, 'Mill', 'Bridge')\nbox.pack()\n"
        "on = tk.BooleanVar()\ntk.Checkbutton(root, text='Lights', variable=on).pack()\nnote = tk.Text(root, height=2)\nnote.pack()\n"
        "choice = ttk.Combobox(root, values=['day', 'night'])\nchoice.pack()\n\n\ndef more():\n    top = tk.Toplevel(root)\n    top.title('More')\n"
        "    tk.Label(top, text='here').pack()\n    root.after(2000, top.destroy)\n\n\ntk.Button(root, text='More', command=more).pack()\n"
        "root.protocol('WM_DELETE_WINDOW', lambda: (print('closing', on.get(), choice.get()), root.destroy()))\nroot.mainloop()\n"
    )
    events = [
        {"turn": 2, "control": "More"},
        {"turn": 2, "control": "Lights"},
        {"turn": 3, "control": "Text 1", "value": "all aboard"},
        {"turn": 3, "control": "Combobox 1", "value": "night"},
        {"turn": 3, "control": "Listbox 1", "value": "Bridge"},
        {"turn": 6, "quit": True},
    ]
    run = seen(folder, text, runner="frames", events=events)
    assert run.output == "closing True night\n" and not run.trouble, run
    shots = list(run.shots.values())
    assert "Toplevel" in shots[1] and "Toplevel" not in shots[-1] and "holds='all aboard'" in shots[-1]
    assert "chosen=(1,)" in shots[-1] and "holds='night'" in shots[-1] and "is=" in shots[0]


def test_an_app_that_is_only_there(folder):
    """A WSGI callable that nothing starts; cookies go along; an error in a handler is an answer."""
    text = (
        "hits = 0\n\n\ndef application(environ, start_response):\n    global hits\n    hits += 1\n    if environ['PATH_INFO'] == '/bad':\n        raise ValueError('no')\n"
        "    start_response('200 OK', [('Content-Type', 'text/plain'), ('Set-Cookie', f'n={hits}; Path=/'), ('Date', 'now')])\n"
        "    body = environ['wsgi.input'].read(int(environ['CONTENT_LENGTH']))\n"
        "    return [environ.get('HTTP_COOKIE', '-').encode(), b' ', environ['QUERY_STRING'].encode(), b' ', body]\n"
    )
    asked = [
        {"path": "/?a=1"},
        {"path": "/bad"},
        {"path": "/", "method": "POST", "form": {"b": "2 3"}},
        {"path": "/", "body": "ü"},
    ]
    run = seen(folder, text, ("hits",), runner="requests", requests=asked)
    first, bad, third, last = run.shots.values()
    assert first == "200 OK\nContent-Type: text/plain\nSet-Cookie: n=1; Path=/\n\n- a=1 "
    assert bad.startswith("it raised ValueError: no") and third.endswith("n=1  b=2+3") and last.endswith("n=3  ü")
    assert run.state["hits"] == [[f"request {n}", str(n)] for n in (1, 2, 3, 4)]


def test_a_server_of_its_own_kind(folder):
    """A plain socket that answers by hand, in an endless loop."""
    text = (
        "import socket\nserver = socket.socket()\nserver.bind(('0.0.0.0', 80))\nserver.listen()\ncount = 0\nwhile True:\n    peer, _ = server.accept()\n"
        "    head = peer.recv(9999).split(b' ')[1]\n    count += 1\n"
        "    peer.sendall(b'HTTP/1.0 200 OK\\r\\nX-Other: 1\\r\\n\\r\\n%s %d' % (head, count))\n    peer.close()\n"
    )
    run = seen(folder, text, runner="requests", requests=[{"path": "/a"}, {"path": "/b"}])
    assert (
        [s.split("\n")[-1] for s in run.shots.values()] == ["/a 1", "/b 2"] and run.status == 0 and not run.trouble
    ), run


def test_a_program_that_serves_nothing(folder):
    run = seen(folder, "print('hello')\n", runner="requests", requests=[{"path": "/"}])
    assert "neither served anything nor has an app" in run.trouble


def test_what_holds_at_the_end(folder):
    """A program that asks nothing and waits for nothing is looked at when it ends, also if it ends with an error."""
    for last, status in (("", 0), ("print(1 / 0)\n", 1), ("import os\nos._exit(3)\n", 3), ("raise SystemExit(2)\n", 2)):
        text = "class Stop:\n    def __init__(self, n):\n        self._n = n\n\n\ncount = 0\nstops = []\nfor n in range(2):\n    count += 1\n    stops.append(Stop(n))\n"
        run = seen(folder, text + last, ("count", "stops"))
        ends = {"count": [["the end", "2"]], "stops": [["the end", "[Stop(n=0), Stop(n=1)]"]]}
        assert run.status == status and run.state == ends, (last, run)


def test_what_is_typed_line_by_line(folder):
    """Each line is a turn, however it is read; what is left goes to children as before."""
    text = "import sys\nlast = input()\nlast = sys.stdin.readline()\nfor last in sys.stdin:\n    if last == 'c\\n':\n        break\nlast = sys.stdin.read()\nprint(repr(last))\n"
    run = seen(folder, text, ("last",), stdin="a\nb\nx\nc\nd\ne\n")
    assert run.output == "'d\\ne\\n'\n"
    values = [value for _, value in run.state["last"]]
    assert values == ["?", "'a'", "'b\\n'", "'x\\n'", "'c\\n'", "'d\\ne\\n'"], run.state


def test_children_are_pinned_and_say_nothing(folder):
    """A forked child and a started interpreter have the same clock and chance, and write nothing into the log."""
    text = (
        "import os, random, subprocess, sys, time\ncount = 0\nif os.fork() == 0:\n    count = 99\n    time.sleep(5)\n    os._exit(0)\nos.wait()\ncount += 1\n"
        "code = 'import random, time; print(random.random(), time.time() < 1.8e9)'\n"
        "told = subprocess.run([sys.executable, '-c', code], capture_output=True, text=True).stdout\n"
        "print(told == f'{random.random()} True\\n')\n"
    )
    run = seen(folder, text, ("count",))
    assert run.output == "True\n" and run.state == {"count": [["the end", "1"]]} and run.turns == 0, run


def test_the_other_name_of_the_clock(folder):
    run = seen(
        folder,
        pygame_program("print(clock.tick(20))\npygame.display.flip()", "clock = pygame.Clock()"),
        runner="frames",
        turns=3,
    )
    assert run.output.splitlines()[1:] == ["50", "50", "50"], run


def test_a_walk_ends_at_a_turn_of_a_sketch(folder):
    """Clicks reach the turtle that stands there; a sketch that animates by itself ends at its last turn."""
    text = (
        "import turtle\npen = turtle.Turtle()\nhits = 0\n\n\ndef hit(x, y):\n    global hits\n    hits += 1\n    pen.forward(30)\n\n\n"
        "pen.onclick(hit)\nwhile True:\n    turtle.update()\n"
    )
    events = [{"turn": 2, "click": [0, 0]}, {"turn": 3, "click": [0, 0]}, {"turn": 4, "click": [30, 0]}]
    run = seen(folder, text, ("hits",), runner="frames", events=events, turns=6)
    assert run.ended == "ended after 6 turns" and run.state["hits"][-1][1] == "2", run
    assert run.device.count("turtle1.at(") == 2


def test_another_program_on_the_same_terminal(folder):
    """What reads without saying so gets its keys when all is quiet; with none left the run ends and can be compared."""
    text = "import subprocess\nprint('before')\nsubprocess.run(['sh', '-c', 'read x; echo got $x; read y'])\nprint('after')\n"
    run = seen(folder, text, runner="terminal", typed=[{"text": "Mill\n"}])
    assert run.shots["screen at the end"].split("\n")[:3] == ["before", "Mill", "got Mill"] and not run.trouble, run
