"""What cannot be read, opened or run is told in one sentence: designs, scenario files, evidence, and what is named on the command line."""

import json

import pytest
from conftest import needs

from aedifex.core.apply.builder import Builder, Options
from aedifex.core.apply.by_hand import by_hand
from aedifex.core.apply.project import open_project
from aedifex.core.check.evidence import Evidence
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import load
from aedifex.core.design.toml import to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.program import snapshot
from aedifex.core.program.errors import AedifexError
from aedifex.core.program.program import find_sources, read_program
from aedifex.core.program.surroundings import digest

LINE = "load = 0\nlanes = []\n\n\ndef add(n):\n    global load\n    load += n\n    lanes.append(n)\n\n\ndef tell():\n    print(load, lanes)\n\n\nadd(2)\ntell()\n"
HEAD = 'format = 1\nlanguage = "python"\nentries = ["line.py"]\nsources = {sources}\n'

# (what stands in the design, what is said)
DESIGNS = [
    (b'format = 1\nlanguage = "\xff"\n', "is not UTF-8 text; save it as UTF-8"),
    (b"format = 1\n", "'language' is missing in the file"),
    (HEAD.replace("{sources}", "{}").encode(), "names no sources; draft it again"),
    (
        HEAD.replace("{sources}", '{ "../line.py" = "" }').encode(),
        "source '../line.py' leaves the design's folder; draft again",
    ),
    (
        HEAD.replace("{sources}", '{ "line.txt" = "" }').encode(),
        "line.txt: is not a script in a language that is installed",
    ),
    (HEAD.replace("{sources}", '{ "lane.py" = "" }').encode(), "lane.py: no such file; check the path"),
]


@pytest.mark.parametrize(("text", "said"), DESIGNS, ids=[d[1][:20] for d in DESIGNS])
def test_a_design_that_cannot_be_used(folder, text, said):
    folder.write("line.py", LINE)
    with pytest.raises(AedifexError) as error:
        open_project(str(folder.write("line.design.toml", text)))
    assert said in str(error.value)


# (what stands in the scenario file, or None for none, what is said)
SCENARIOS = [
    (b"scenario = 3\n", "line.scenarios.toml:1: 'scenario' must be written as [[scenario]] tables"),
    (b"", "holds no scenario; add a [[scenario]] table"),
    (b"turns = 3\n[[scenario]]\nname = 'a'\n", ":1: unknown key 'turns'; only [[scenario]] tables stand here"),
    (b"\xff", "cannot be read"),
    (None, "no such scenario file; check the path"),
]


@pytest.mark.parametrize(("text", "said"), SCENARIOS, ids=[s[1][:20] for s in SCENARIOS])
def test_a_scenario_file_that_cannot_be_used(folder, text, said):
    path = folder.write("line.scenarios.toml", text) if text is not None else folder.path / "none.toml"
    with pytest.raises(AedifexError) as error:
        load(str(path))
    assert said in str(error.value)


def test_what_a_scenario_brings_must_be_there(folder):
    program = folder.program("line.py", LINE)
    world = World(str(folder.path), "line.py", program.language, {}, list(program.files.values()))
    with pytest.raises(
        AedifexError, match=r"stops\.txt: no such file, though a scenario brings it; correct the scenario"
    ):
        world.lay_out(str(folder.path / "copy"), ["stops.txt"])


def test_evidence_that_is_damaged(folder):
    kept = Evidence(str(folder.path), "line")
    folder.write(kept.path, "{")
    with pytest.raises(AedifexError, match=r"is damaged .*; delete it and record again"):
        kept.load()
    folder.write(kept.path, json.dumps({"format": None}))
    assert kept.load() is None  # of another version: recorded again


NAMED = [
    ([], "no script was named; name at least one file or folder"),
    (["nowhere"], "nowhere: no such file or folder; check the path"),
    (["empty"], "empty: the folder holds no script"),
]


@pytest.mark.parametrize(("paths", "said"), NAMED, ids=[n[1][:20] for n in NAMED])
def test_what_is_named_must_be_there(folder, monkeypatch, paths, said):
    monkeypatch.chdir(folder.path)
    (folder.path / "empty").mkdir()
    with pytest.raises(AedifexError) as error:
        find_sources(paths)
    assert said in str(error.value)
    with pytest.raises(AedifexError, match="no script was named"):
        read_program(str(folder.path), [])


def test_a_file_that_is_too_large_or_cannot_be_read(folder, monkeypatch):
    monkeypatch.setattr(snapshot, "LIMIT", 4)
    with pytest.raises(AedifexError, match=r"line\.py: is larger than 0 MiB; name a source file"):
        snapshot.read_file(str(folder.write("line.py", LINE)), "line.py")
    small = folder.write("small.py", "")
    monkeypatch.setattr("builtins.open", refuse)
    with pytest.raises(AedifexError, match=r"small\.py: cannot be read \(permission denied\); check its permissions"):
        snapshot.read_file(str(small), "small.py")


def refuse(*args, **named):
    raise PermissionError(13, "Permission denied")


def test_a_design_built_in_part_is_built_to_its_end_first(folder):
    folder.write("line.py", LINE)
    folder.write("line.design.toml", to_toml(draft(read_program(str(folder.path), ["line.py"]))))
    assert folder.aedifex("build", "-q", "--unchecked", "--until", "found:LineApp", "line.design.toml").returncode == 0
    done = folder.aedifex("step", "rename", "tell", "say", "line.py", "--yes")
    assert (
        done.returncode == 1
        and "is built only in part; build it to its end, or undo it, before this step" in done.stderr
    )


def test_another_version_of_a_built_design(folder):
    folder.write("line.py", LINE)
    folder.write("line.design.toml", to_toml(draft(read_program(str(folder.path), ["line.py"]))))
    assert folder.aedifex("build", "-q", "--unchecked", "line.design.toml").returncode == 0
    folder.write("line.design.toml", folder.read("line.design.toml").replace("LineApp", "Evening"))
    done = folder.aedifex("build", "-q", "--unchecked", "line.design.toml")
    assert (
        done.returncode == 1
        and "the sources stand as another version of the design built them; run 'aedifex undo --all' first"
        in done.stderr
    )


BROKEN = [
    ("def f(:\n", "line.py:1: ')' is missing here; nothing is rewritten in a file that cannot be read whole"),
    (
        "def f():\n    nonlocal load\n",
        "line.py:2: the compiler refuses it (no binding for nonlocal 'load' found); nothing is rewritten in such a file",
    ),
]


@pytest.mark.parametrize(("broken", "said"), BROKEN, ids=["read", "compiled"])
def test_nothing_is_rewritten_in_a_file_that_the_language_does_not_take(folder, broken, said):
    folder.write("line.py", LINE)
    text = to_toml(draft(read_program(str(folder.path), ["line.py"])))
    folder.write("line.py", broken + LINE)
    digests = [digest(t.encode()) for t in (LINE, broken + LINE)]
    project = open_project(str(folder.write("line.design.toml", text.replace(*digests))))
    with pytest.raises(AedifexError) as error:
        Builder(project, [], Options()).build()
    assert str(error.value).rstrip(".") == said


def test_nothing_is_rewritten_that_a_compiler_refuses_as_a_whole(folder):
    needs("javac")
    text = "public class Line {\n    static int load = 1;\n    static int fare = 2;\n    static void add() {\n        load += fare;\n        fare += missing;\n    }\n    public static void main(String[] args) {\n        add();\n    }\n}\n"
    folder.write("Line.java", text)
    project = open_project(
        str(folder.write("Line.design.toml", to_toml(draft(read_program(str(folder.path), ["Line.java"])))))
    )
    with pytest.raises(
        AedifexError,
        match=r"Line\.java:6: the compiler refuses it \(cannot find symbol\); nothing is rewritten in such a file",
    ):
        Builder(project, [], Options()).build()


def test_a_rename_that_could_mean_two(folder):
    folder.write("line.py", "n = 1\n")
    folder.write("lane.py", "n = 2\n")
    with pytest.raises(
        AedifexError,
        match=r"'n' means several things \(line\.py:1, lane\.py:1\); write file::name, or rename them apart by hand",
    ):
        by_hand(read_program(str(folder.path), ["line.py", "lane.py"]), "rename", "n", "m")


def test_a_renamed_module_takes_its_uses_along_where_its_name_is_free(folder):
    folder.write("state.py", "count = 1\n")
    folder.write("line.py", "import state\n\n\ndef show():\n    print(state.count)\n\n\nshow()\n")
    folder.write("other.py", "import state\n\n\ndef depot():\n    print(state.count)\n")
    done = folder.aedifex(
        "step", "rename", "state.py", "depot.py", "line.py", "state.py", "other.py", "--yes", "--unchecked"
    )
    assert done.returncode == 0, done.stderr
    assert folder.read("line.py").startswith("import depot\n") and "print(depot.count)" in folder.read("line.py")
    assert folder.read("other.py").startswith("import depot as state\n") and "print(state.count)" in folder.read(
        "other.py"
    )
    assert folder.run("line.py") == (0, "1\n", "")
