"""The installed command as people meet it: output, JSON, bad input, exit status."""

import json
import re
import shutil
import subprocess
from pathlib import Path

import jsonschema
import pytest

import aedifex
from aedifex.core.analysis.effects import Effects
from aedifex.core.analysis.report import survey

SCHEMA = json.loads((Path(aedifex.__file__).parent / "core" / "analysis" / "survey.schema.json").read_text())


def test_the_demo(folder):
    done = folder.aedifex("demo", "--folder", "line")
    assert done.returncode == 0, done.stderr
    assert done.stdout.count(": the same") == 4
    assert "globals that change             19      0" in done.stdout
    assert "class Tram:" in done.stdout
    assert folder.run("line/tramline.py", "1\nq\n")[1].startswith("good evening, Brindlebeck\n")
    assert folder.aedifex("demo", "--folder", "line").returncode == 1


@pytest.mark.parametrize(
    "command", ["", "survey", "ask", "draft", "preview", "build", "record", "check", "undo", "demo"]
)
def test_help_has_an_example(folder, command):
    done = folder.aedifex(*([command] if command else []), "--help")
    assert done.returncode == 0
    assert "Example: aedifex " in done.stdout or "Start with: aedifex" in done.stdout


def test_version_and_completion(folder):
    assert folder.aedifex("--version").stdout == f"aedifex {aedifex.__version__}\n"
    done = folder.aedifex(env={"_AEDIFEX_COMPLETE": "bash_source"})
    assert done.returncode == 0 and "complete" in done.stdout


BAD = {
    "no such file": (["survey", "none.py"], 2, "none.py: no such file"),
    "no such design": (["build", "none.design.toml"], 2, "none.design.toml: no such file"),
    "no kind of picture": (["survey", "line.py", "--figure", "strip.gif"], 2, "strip.gif: is neither .png nor .svg"),
    "nothing to draw": (
        ["survey", "-q", "data.py", "--figure", "strip.png"],
        2,
        "there is no main code and no function with several jobs",
    ),
    "empty folder": (["survey", "empty"], 2, "empty: the folder holds no script"),
    "not Python": (["draft", "notes.txt"], 2, "notes.txt: is not a script"),
    "a folder as design": (["build", "empty"], 2, "empty: is a folder"),
    "broken syntax": (["draft", "broken.py"], 2, "broken.py:1: "),
    "not UTF-8": (["survey", "latin.py"], 2, "latin.py:2: is not utf-8 text"),
    "dangling link": (["survey", "dangling.py"], 2, "dangling.py: is a link to nowhere.py, which is not there"),
    "a script as design": (["preview", "line.py"], 2, "line.py:4: is not valid TOML"),
    "unknown name": (["ask", "linen", "line.py"], 2, "did you mean line?"),
    "nothing built": (["undo"], 1, "nothing was built here"),
    "unknown step": (["build", "line.design.toml", "--until", "x"], 2, "has no step 'x'; its steps are found:"),
    "no design to check": (["check", "lost.scenarios.toml"], 2, "lost.scenarios.toml"),
    "neither": (["record", "notes.txt"], 2, "neither a scenario file"),
    "unknown option": (["survey", "--nope", "line.py"], 2, "No such option"),
}


@pytest.mark.parametrize("what", BAD)
def test_bad_input_is_one_clear_sentence(folder, what):
    args, status, message = BAD[what]
    (folder.path / "empty").mkdir()
    folder.write("notes.txt", "x")
    folder.write("broken.py", "def f(:\n  pass\n")
    folder.write("data.py", "import os\n")
    folder.write("latin.py", b"a = 1\nb = '\xe9'\n")
    folder.write(
        "line.py",
        "line = 0\n\n\ndef go():\n    global line\n    line += 1\n\n\nfor _ in range(3):\n    go()\nprint(line)\n",
    )
    (folder.path / "dangling.py").symlink_to("nowhere.py")
    if what == "unknown step":
        folder.aedifex("draft", "-q", "line.py")
    before = sorted(p.name for p in folder.path.iterdir())
    done = folder.aedifex(*args)
    assert (done.returncode, message in done.stderr) == (status, True), done.stderr
    assert done.stdout == "" or what == "broken syntax"
    assert sorted(p.name for p in folder.path.iterdir()) == before, "nothing half-written"


@pytest.mark.parametrize(
    ("name", "text", "status"),
    [
        ("empty.py", "", 0),
        (
            "deep.py",
            "x = " + "(" * 180 + "1" + ")" * 180 + "\nn = 0\ndef f():\n    global n\n    n += x\nf()\nf()\nprint(n)\n",
            0,
        ),
        ("parens.py", "x = " + "[" * 500 + "]" * 500 + "\n", 1),
        ("blocks.py", "".join(" " * i + "if 1:\n" for i in range(90)) + " " * 90 + "print(1)\n", 0),
        ("long.py", "".join(f"def f{i}(a):\n    return a + {i}\n\n\n" for i in range(3_000)) + "print(f3(4))\n", 0),
        (
            "crlf.py",
            "\ufeffn = 0\r\n\r\n\r\ndef f():\r\n    global n\r\n    n += 1\r\n\r\n\r\nf()\r\nf()\r\nprint(n)\r\n",
            0,
        ),
    ],
)
def test_odd_files_go_all_the_way(folder, name, text, status):
    folder.write(name, text)
    before = folder.run(name)
    design = name.replace(".py", ".design.toml")
    assert folder.aedifex("survey", "-q", name).returncode == 0
    assert folder.aedifex("draft", "-q", name).returncode == 0
    done = folder.aedifex("build", "-q", design)
    assert done.returncode == status, done.stderr
    assert folder.run(name) == before
    if status:
        assert "the compiler refuses it" in done.stderr and f"{name}:1" in done.stderr
    if name == "crlf.py":
        for text_ in folder.sources().values():
            assert b"\n" not in text_.replace(b"\r\n", b"")
        assert folder.sources()["crlf.py"].startswith("\ufeff".encode())


def test_a_read_only_folder(tramline):
    """As a user without rights; the superuser may write anywhere."""
    target = tramline.path / ".aedifex"
    shutil.rmtree(target)
    target.write_text("a file where the folder should be")
    done = tramline.aedifex("build", "tramline.design.toml")
    assert (done.returncode, ".aedifex" in done.stderr) == (2, True)
    assert "cannot be" in done.stderr


def test_survey_draws_what_the_main_code_is_about(tramline):
    for name, start in (("strip.png", b"\x89PNG"), ("strip.svg", b"<?xml")):
        done = tramline.aedifex("survey", "-q", "tramline.py", "--figure", name)
        assert (done.returncode, done.stderr.strip()) == (0, f"Drew {name}")
        assert tramline.path.joinpath(name).read_bytes().startswith(start)
    shown = tramline.aedifex("survey", "tramline.py").stdout
    cuts = next(line for line in shown.splitlines() if line.startswith("cuts"))
    drawn = tramline.path.joinpath("strip.svg").read_text()
    assert all(
        f">{cut.replace(' ', '  ').replace('-', '–')}</text>" in drawn
        for cut in cuts.removeprefix("cuts  ").split("  ")[0].split(", ")
    )


def test_survey_json_follows_the_schema(tramline):
    for args in (["tramline.py"], ["."]):
        data = json.loads(tramline.aedifex("survey", "--json", *args).stdout)
        jsonschema.validate(data, SCHEMA)
    file = data["files"][0]
    assert [f["stem"] for f in file["families"]] == ["tram"]
    assert file["families"][0]["twins"] == [["move_tram1", "move_tram2"], ["board_tram1", "board_tram2"]]
    units = {u["name"]: u for u in file["units"]}
    assert units["move_tram1"]["access"] == {
        "tram1_x": "rw",
        "tram1_speed": "rw",
        "tram1_doors_open": "r",
        "signal": "r",
        "WIDTH": "r",
    }
    assert units["loop"]["access"]["fare_tickets"] == "(rw)"
    assert [r["kind"] for r in file["regions"]] == ["set-up", "loop", "closing"]
    assert {v["name"]: v["nature"] for v in file["variables"]}["STOPS"] == "constant"


def test_the_table_fits_120_columns_and_40_rows(folder):
    names = [f"value_{chr(97 + i // 20)}{chr(97 + i % 20)}" for i in range(40)]
    text = "".join(f"{n} = {i}\n" for i, n in enumerate(names))
    text += "".join(f"\n\ndef f{i}():\n    global {n}\n    {n} += {names[i - 1]}\n" for i, n in enumerate(names))
    folder.write("wide.py", text + "\n\n" + "".join(f"f{i}()\n" for i in range(40)))
    out = folder.aedifex("survey", "wide.py").stdout
    rows = [line for line in out.splitlines() if re.match(r"value_\w+ +int +\d+ ", line)]
    assert max(len(line) for line in out.splitlines()) <= 120
    assert len({r.split()[0] for r in rows}) == 40
    assert len(rows) <= 120


def test_colour_only_on_a_terminal(tramline):
    assert "\x1b" not in tramline.aedifex("survey", "tramline.py").stdout


def test_ask(tramline):
    said = tramline.aedifex("ask", "signal", "tramline.py").stdout
    for part in (
        "state; first set in line 28",
        "read by move_tram1, move_tram2",
        "changed by switch_signal",
        "becomes the field 'signal' of Service",
    ):
        assert part in said
    data = json.loads(tramline.aedifex("ask", "--json", "move_tram1", "tramline.py").stdout)
    assert data[0]["kind"] == "function" and {"line": 146, "role": "call", "in": "main code"} in data[0]["references"]


def test_handlers_and_transitive_effects(folder):
    program = folder.program(
        "line.py",
        "import window\n\nrides = 0\ndoors = 0\n\n\ndef open_doors():\n    global doors\n    doors += 1\n\n\ndef ride():\n    global rides\n"
        "    rides += 1\n    open_doors()\n\n\ndef on_key(key):\n    ride()\n\n\nwindow.bind('<Key>', on_key)\nwindow.loop()\n",
    )
    found = survey(program).files[0]
    assert [(h.name, h.registered_by) for h in found.handlers] == [("on_key", "window.bind")]
    units = {u.name: u for u in found.units}
    assert units["ride"].access == {"rides": "rw", "doors": "(rw)"}
    assert units["set-up"].access == {"rides": "w(r)", "doors": "w(r)"}, "unseen code may call what was handed to it"
    file = program.files["line.py"]
    assert {s.name for s in Effects(file, program.language).escaped} == {"on_key"}


def test_preview_writes_nothing_and_its_diff_applies(tramline):
    before = tramline.sources()
    shown = tramline.aedifex("preview", "tramline.design.toml").stdout
    for part in (
        "Tram (model)  in tram.py",
        "move(dt, signal)",
        "globals that change             19      0",
        "statements in main              44      1",
    ):
        assert part in shown
    assert tramline.sources() == before
    diff = tramline.aedifex("preview", "--diff", "tramline.design.toml").stdout
    tramline.write("x.patch", diff)
    subprocess.run(["git", "apply", "x.patch"], cwd=tramline.path, check=True)
    applied = tramline.sources()
    subprocess.run(["git", "apply", "-R", "x.patch"], cwd=tramline.path, check=True)
    assert tramline.sources() == before
    assert tramline.aedifex("build", "--unchecked", "-q", "tramline.design.toml").returncode == 0
    assert tramline.sources() == applied


def test_build_until_dry_and_out(tramline):
    before = tramline.sources()
    dry = tramline.aedifex("build", "--dry-run", "tramline.design.toml")
    assert (dry.returncode, tramline.sources()) == (0, before)
    assert "29 steps would be done" in dry.stderr
    out = tramline.aedifex("build", "--unchecked", "-q", "--out", "copy", "tramline.design.toml")
    assert (out.returncode, tramline.sources()) == (0, before)
    assert (tramline.path / "copy" / "tram.py").exists()
    assert {f["path"] for f in json.loads(tramline.aedifex("survey", "--json", ".").stdout)["files"]} == {
        "tramline.py"
    }, "the copy is no part of it"
    assert tramline.aedifex("build", "--out", "copy", "tramline.design.toml").returncode == 1
    assert (
        tramline.aedifex("build", "--unchecked", "-q", "--until", "method:Tram.move", "tramline.design.toml").returncode
        == 0
    )
    assert "class Tram" in tramline.read("tramline.py") and "def draw_tram" in tramline.read("tramline.py")
    assert tramline.aedifex("build", "--unchecked", "-q", "tramline.design.toml").returncode == 0
    built = dict(tramline.sources().items())
    assert built == {p.name: p.read_bytes() for p in (tramline.path / "copy").glob("*.py")}, "the same bytes both ways"
    assert "Nothing to do" in tramline.aedifex("build", "tramline.design.toml").stderr


def test_changed_after_drafting(tramline):
    tramline.write("tramline.py", tramline.read("tramline.py") + "\n# later\n")
    done = tramline.aedifex("build", "tramline.design.toml")
    assert (done.returncode, "was changed after tramline.design.toml was drafted" in done.stderr) == (1, True)


@pytest.mark.parametrize(
    "words",
    [
        "survey tramline.py",
        "ask tram1_x tramline.py",
        "draft --again --rivals 3 tramline.py",
        "preview tramline.design.toml",
        "build --unchecked tramline.design.toml",
        "undo --all",
    ],
)
def test_colours_are_those_of_the_terminals_own_palette(tramline, words):
    """Foreground colours by their place in the palette and no background, so that they can be read on dark and on light; never black or white."""
    seen = tramline.aedifex(*words.split(), env={"FORCE_COLOR": "1", "TERM": "xterm-256color"})
    codes = {
        int(n or 0) for given in re.findall(r"\x1b\[([\d;]*)m", seen.stdout + seen.stderr) for n in given.split(";")
    }
    assert words.startswith(("build", "undo")) or codes & {1, *range(31, 37)}
    assert codes <= {0, 1, 2, 3, 4, 22, 23, 24, 39, *range(31, 37)}, codes
