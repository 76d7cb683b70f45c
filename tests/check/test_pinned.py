"""The parts that run inside a checked program, tried on their own: values as text, sources, the terminal's other side, clues."""

import ast
import importlib
import sys
from pathlib import Path
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from test_corners import seen

from aedifex.core.check.evidence import Observed
from aedifex.core.check.run_log import read_log
from aedifex.core.check.runners.terminal import Typing, characters
from aedifex.core.check.scenario_rules import rule_mistakes
from aedifex.core.check.scenarios import Scenario
from aedifex.core.languages.python.facts.clues_arguments import arguments
from aedifex.core.languages.python.facts.clues_web import requests
from aedifex.core.languages.python.running import unit_tests
from aedifex.core.languages.python.running.launch import runner
from aedifex.core.program.program import read_program

PINNED = Path(__import__("aedifex").__file__).parent / "core" / "languages" / "python" / "running" / "pinned"
PLAIN = st.recursive(
    st.none()
    | st.booleans()
    | st.integers()
    | st.floats(allow_nan=False)
    | st.text(max_size=20)
    | st.binary(max_size=9),
    lambda inner: (
        st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=3), inner, max_size=4) | st.tuples(inner, inner)
    ),
    max_leaves=12,
)


@pytest.fixture(scope="module")
def pinned():
    """The package as the child has it, without starting anything."""
    sys.path.insert(0, str(PINNED))
    try:
        yield lambda name: importlib.import_module(f"aedifex_pinned.{name}")
    finally:
        sys.path.remove(str(PINNED))


LOGGED = """\
import functools, inspect, logging, pickle, time, types, datetime, random
logging.basicConfig(format="%(asctime)s %(message)s")
logging.warning("late")
class Watch:
    told = time.localtime
    now = time.time
print(Watch().told().tm_year, Watch().now(), isinstance(time.time, types.BuiltinFunctionType), callable(functools.partial(time.sleep, 0)))
print(pickle.loads(pickle.dumps(time.time)) is time.time, isinstance(datetime.datetime.now(), datetime.datetime), time.strftime("%Y", time.localtime(0)))
"""


def test_what_is_pinned_is_of_the_kind_that_it_replaces(folder):
    """A formatter of the log holds ``time.localtime`` as a member of its class, where a function of Python's own would take the object along."""
    run = seen(folder, LOGGED)
    assert (run.status, run.output.splitlines()[1]) == (0, "True True 1970"), run.error
    assert run.output.startswith("20") and run.output.splitlines()[0].endswith("True True") and "late" in run.error


@given(PLAIN)
def test_source_text_makes_the_value_again(pinned, value):
    text = pinned("sources").code(value)
    if text is not None:
        assert eval(text) == value and type(eval(text)) is type(value)


@given(PLAIN, PLAIN)
def test_values_are_told_apart(pinned, a, b):
    """The same value has the same text; two that are told alike are alike, or too long to be told whole."""
    tell = pinned("values").tell
    assert tell(a) == tell(a)
    if tell(a) == tell(b) and "..." not in tell(a):
        assert repr(a) == repr(b) or a == b


def test_values_that_are_odd(pinned):
    tell = pinned("values").tell

    class Odd:
        def __repr__(self):
            raise RuntimeError("no")

    loop: list = []
    loop.append(loop)
    assert tell(loop) == "[...]" and tell(Odd()) == "<Odd>" and tell(print) == "<function>"
    assert tell({3, 1, 2}) == "{1, 2, 3}" and tell({"b": 1, "a": 2}) == "{'b': 1, 'a': 2}"
    assert len(tell("x" * 10**6)) < 400 and tell("x" * 1000) != tell("x" * 999 + "y")
    assert len(tell(list(range(10**5)))) < 600 and tell([0] * 60) != tell([0] * 61)
    deep: list = []
    for _ in range(200):
        deep = [deep]
    assert "..." in tell(deep)


def test_sources_that_have_none(pinned):
    code = pinned("sources").code
    assert code(object()) is None and code([1, object()]) is None and code({"a": print}) is None
    assert code(float("inf")) == "float('inf')" and code((1,)) == "(1,)" and code(set()) == "set([])"
    assert code("x" * 5000) is None


def test_escapes_survive_the_log(pinned, tmp_path):
    log = pinned("log")
    fields = ["a\tb", "line\nline", "back\\slash\\n", "\r", "ü\udcff"]
    text = "\t".join(["state", *(log.escaped(f) for f in ("x", "frame 1", "".join(fields)))]) + "\n"
    path = tmp_path / "log"
    path.write_text(text + "turns\t7\nend\tafter\nnot finished", encoding="utf-8", errors="surrogateescape", newline="")
    seen = Observed()
    read_log(str(path), seen)
    assert seen.state == {"x": [["frame 1", "".join(fields)]]} and (seen.turns, seen.ended) == (7, "after")


# -- the other side of the terminal --------------------------------------------------------------


def typing(**given):
    return Typing(Scenario("s", "terminal", **given))


def test_keys_come_at_their_turn_or_when_nothing_else_helps():
    keys = typing(events=[{"turn": 2, "key": "UP"}, {"turn": 9, "text": "ab\n"}])
    assert keys.due(1, False, False) == "" and keys.due(2, False, False) == "\x1b[A"
    assert keys.due(3, False, False) == "" and keys.due(3, True, False) == "ab\r", (
        "a program that cannot go on gets the next"
    )
    assert keys.due(4, True, False) == ""


def test_lines_wait_for_their_prompt():
    lines = typing(typed=[{"after": "Stop?", "text": "2\n"}, {"text": "x"}])
    assert lines.due(1, True, True) == "" and lines.left_prompt() == "Stop?"
    lines.shown += "Which Stop? "
    assert lines.due(1, False, True) == "", "only when it asks"
    assert lines.due(1, True, True) == "2\r" and lines.due(1, True, True) == "x" and lines.left_prompt() == ""
    assert [lines.due(1, True, True) for _ in range(3)] == ["\x04", "\x04", ""], "then the end of input, twice"


@pytest.mark.parametrize(
    ("event", "text"),
    [({"key": "ctrl-c"}, "\x03"), ({"key": "F5"}, "\x1b[[E"), ({"key": "q"}, "q"), ({"quit": True}, "\x04"), ({"key": "Enter"}, "\r")],
)  # fmt: skip
def test_characters_of_keys(event, text):
    assert characters({"turn": 1, **event}) == text


# -- what a scenario may say ---------------------------------------------------------------------


@pytest.mark.parametrize(
    ("entry", "said"),
    [
        ({"events": [{"turn": 0, "key": "a"}]}, "counted from 1"),
        ({"events": [{"turn": 1}]}, "exactly one of key"),
        ({"events": [{"turn": 1, "click": [1]}]}, "must be [x, y]"),
        ({"events": [{"turn": 1, "kye": "a"}]}, "unknown key 'kye' in 'events'"),
        ({"events": [{"turn": True, "key": "a"}]}, "'turn' in 'events' has the wrong kind"),
        ({"events": [{"turn": 9, "key": "a"}], "turns": 5}, "after the last turn, 5"),
        ({"events": ["a"]}, "a table in braces"),
        ({"events": [], "runner": "process"}, "does not apply to the process runner"),
        ({"stdin": "", "runner": "terminal"}, "does not apply to the terminal runner"),
        ({"requests": [{"path": "x"}]}, "begins with /"),
        ({"requests": [{"path": "/", "json": {}, "body": ""}]}, "one of json, body and form"),
        ({"runner": "requests"}, "needs 'requests'"),
        ({"expect": [{"before": "a"}]}, "needs 'where'"),
        ({"expect": [{"where": "output"}]}, "needs 'before' or 'after'"),
        ({"typed": [{"text": 1}]}, "must be { after"),
        ({"turns": 0}, "at least 1"),
        ({"seconds": 4000}, "between 0 and 3600"),
        ({"run": []}, "'run' is empty"),
        ({"bring": ["/etc/passwd"]}, "leaves the project folder"),
        ({"env": []}, "wrong kind of value"),
        ({"runner": "web"}, "is not one of process, terminal, frames, requests"),
    ],
)
def test_mistakes_in_a_scenario(entry, said):
    found = rule_mistakes({"name": "a", **entry})
    assert len(found) == 1 and said in found[0][2], found


def test_a_right_scenario_has_none():
    assert (
        rule_mistakes(
            {
                "name": "a",
                "runner": "frames",
                "turns": 9,
                "events": [{"turn": 9, "click": [1, 2], "button": 3, "press": True}],
            }
        )
        == []
    )
    assert (
        rule_mistakes(
            {
                "name": "a",
                "requests": [{"path": "/", "json": [1], "headers": {"A": "b"}}],
                "ignore": [r"\d"],
                "seconds": 1,
            }
        )
        == []
    )


# -- what the text of a program tells ------------------------------------------------------------


@pytest.mark.parametrize(
    ("code", "kind"),
    [
        ("import pygame.locals", "frames"), ("from turtle import *", "frames"), ("import tkinter as tk", "frames"),
        ("import os, curses", "terminal"), ("def f():\n    import termios", "terminal"), ("from flask import Flask", "requests"),
        ("import http.server", "requests"), ("x = 'import pygame'", "process"), ("from mypygame import x", "process"),
    ],
)  # fmt: skip
def test_the_runner_that_fits(folder, code, kind):
    program = folder.program("line.py", code + "\n")
    assert runner(list(program.files.values())) == kind


def test_arguments_worth_a_run():
    tree = ast.parse(
        "p.add_argument('stops', type=int)\np.add_argument('--mode', choices=('a', 'b'))\np.add_argument('-v', action='store_true')\n"
    )
    assert arguments(tree) == [["2"], ["--mode", "a", "2"], ["--mode", "b", "2"], ["-v", "2"], ["--no-such-option"]]
    assert arguments(ast.parse("import sys\nif sys.argv[1] == 'open': pass\nn = int(sys.argv[2])\n")) == [
        ["open"],
        ["3"],
    ]
    assert arguments(ast.parse("print(1)")) == []


def test_requests_in_an_order_that_makes_sense():
    tree = ast.parse(
        "@app.get('/')\ndef home(): pass\n@app.route('/stops/<name>/<int:n>', methods=['GET', 'DELETE'])\ndef stop(name, n): return request.args.get('q')\n"
        "@app.post('/stops')\ndef add(): return request.form['name'] + request.form.get('zone')\n"
    )
    found = [f"{r.get('method', 'GET')} {r['path']}" for r in requests(tree)]
    looks = ["GET /", "GET /stops/1/1", "GET /stops/1/1?q=2", "GET /stops/nobody/99", "GET /stops/nobody/99?q=2"]
    assert found == [
        *looks,
        "POST /stops",
        *looks,
        "DELETE /stops/1/1",
        "DELETE /stops/nobody/99",
        *looks,
        "GET /no-such-place",
    ]
    assert next(r for r in requests(tree) if r.get("method") == "POST")["form"] == {"name": "2", "zone": "2"}


def test_which_files_can_be_imported():
    for text, good in (("X = 1\nclass A: pass\n", True), ("print(1)\n", False), ("if __name__ == '__main__':\n    run()\n", True),
                       ('"""Doc."""\nimport os\n', True), ("for i in x:\n    pass\n", False)):  # fmt: skip
        assert (unit_tests.bound(SimpleNamespace(text=text.encode()), "A") == "") is good, text


def test_neighbours_can_be_suggested_for(folder):
    """A program of two files is read whole: keys in the other file are clues as well."""
    from aedifex.core.languages.python.facts.clues import clues

    folder.write("keys.py", "def act(word):\n    return word == 'whistle'\n")
    folder.write("line.py", "import keys\nprint(keys.act(input()))\n")
    found = clues(list(read_program(str(folder.path), ["line.py", "keys.py"]).files.values()))
    assert found.words == ["whistle"] and found.reads
