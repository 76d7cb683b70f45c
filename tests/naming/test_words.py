"""Names, and what standard error says: each language's words for them, whatever the text."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from aedifex.core.naming.identifiers import class_name_for, file_for, file_stem, free, member_names
from aedifex.core.program.language import language_of

LANGUAGES = {n: language_of(n) for n in ("a.py", "a.js", "A.java", "a.pde", "a.ts")}
NAME = st.from_regex(r"[A-Za-z_][A-Za-z0-9_]{0,12}", fullmatch=True)
anyones = pytest.mark.parametrize("name", LANGUAGES)


@anyones
@given(parts=st.lists(NAME, min_size=1, max_size=3))
def test_a_name_made_of_words_can_be_written(name, parts):
    write = LANGUAGES[name].write
    for made in (
        write.class_name(parts),
        write.member_name(parts, "other_name"),
        write.member_name(parts, "otherName"),
    ):
        assert write.is_name(made) or not any(c.isalpha() for c in "".join(parts)), (made, parts)
        assert made != write.RECEIVER


@anyones
@given(
    names=st.lists(NAME, min_size=1, max_size=8, unique=True), stems=st.sets(st.sampled_from(["tram", "stop", "fare"]))
)
def test_members_are_told_apart_and_can_be_written(name, names, stems):
    write = LANGUAGES[name].write
    names = [n for n in names if write.is_name(n)]
    found = member_names(names, stems, write, {"run"})
    assert list(found) == names and len(set(found.values())) == len(names)
    assert "run" not in found.values() and write.RECEIVER not in found.values()


@pytest.mark.parametrize(
    ("names", "stems", "short"),
    [
        (["tramX", "tram_y", "trams"], {"tram"}, ["x", "y", "trams"]),
        (["tram1X", "speed"], {"tram"}, ["x", "speed"]),
        (["tramX", "x"], {"tram"}, ["x", "x_"]),
        (["_tram"], {"tram"}, ["_tram"]),
    ],
)
def test_members_lose_what_the_class_says(names, stems, short):
    assert list(member_names(names, stems, LANGUAGES["a.py"].write, set()).values()) == short


@pytest.mark.parametrize(
    ("file", "stem"),
    [
        ("_04A", "A"),
        ("2048", "program"),
        ("my-line", "my_line"),
        ("line", "line"),
        ("12_robot", "robot"),
        ("__", "program"),
    ],
)
def test_a_class_named_after_a_file_begins_with_a_letter(file, stem):
    assert file_stem(file) == stem
    for language in LANGUAGES.values():
        name = class_name_for([], [], language.write, set(), file_stem(file) + "_state")
        assert language.write.is_name(name)


@pytest.mark.parametrize(
    ("name", "variables", "functions", "taken", "made"),
    [
        ("a.py", ["tram_x", "tram_y"], ["move_tram"], set(), "Tram"),
        ("a.js", ["tramX", "tramY"], ["moveTram"], {"Tram"}, "LineState"),
        ("A.java", ["x", "y"], ["get", "set"], set(), "LineState"),
        ("a.pde", ["fare1", "fare2", "fareSum"], [], set(), "Fare"),
    ],
)
def test_a_class_is_named_by_what_its_names_share(name, variables, functions, taken, made):
    assert class_name_for(variables, functions, LANGUAGES[name].write, taken, "line_state") == made


@given(name=NAME, taken=st.sets(NAME))
def test_a_free_name_is_free(name, taken):
    assert free(name, taken) not in taken and free(name, taken).startswith(name)


def test_a_file_of_its_own_hides_nothing():
    assert file_for("Queue", "model", "line.py", LANGUAGES["a.py"].write, set()) == "queue_model.py"
    assert file_for("Tram", "model", "sub/line.py", LANGUAGES["a.py"].write, {"sub/tram.py"}) == "sub/tram_model.py"
    assert file_for("Tram", "model", "sub/Line.java", LANGUAGES["A.java"].write, set()) == "sub/Tram.java"
    assert file_for("TramLine", "model", "line.js", LANGUAGES["a.js"].write, set()) == "tramLine.js"


# what standard error says: (language, text, what is kept, the error that ended it, the module that was missing)
JS = "/tmp/x/line.js:3\n  go();\n  ^\n\nTypeError: go is not a function\n    at move (/tmp/x/line.js:3:3)\n    at node:internal/main:1:2\n\nNode.js v20.1.0\n"
LOST = "node:internal/modules/cjs/loader:1210\n  throw err;\n  ^\n\nError: Cannot find module 'stops'\nRequire stack:\n- /tmp/x/line.js\n    at f (a.js:1:2) {\n  requireStack: [\n    '/x/line.js'\n  ]\n}\n"
JAVA = 'Exception in thread "main" java.lang.IllegalStateException: full\n\tat Line.go(Line.java:7)\n\tat Line.main(Line.java:3)\n\t... 2 more\n'
PYTHON = "Traceback (most recent call last):\n  File \"line.py\", line 3, in <module>\n    go()\nModuleNotFoundError: No module named 'stops'\n"


@pytest.mark.parametrize(
    ("name", "text", "kept", "crash", "missing"),
    [
        ("a.js", JS, ["TypeError: go is not a function"], "TypeError: go is not a function", ""),
        ("a.js", LOST, ["Error: Cannot find module 'stops'"], "Error: Cannot find module 'stops'", "stops"),
        ("a.js", "warned at /x/line.js:12:3\n", ["warned at /x/line.js"], "", ""),
        ("A.java", JAVA, ["IllegalStateException: full"], "java.lang.IllegalStateException: full", ""),
        ("A.java", "seen in Line.java:12 only\n", ["seen in Line.java only"], "", ""),
        (
            "a.py",
            PYTHON,
            ["ModuleNotFoundError: No module named 'stops'"],
            "ModuleNotFoundError: No module named 'stops'",
            "stops",
        ),
    ],
)
def test_only_the_error_itself_is_compared(name, text, kept, crash, missing):
    launch = LANGUAGES[name].launch
    masked = launch.mask_trace(text)
    assert all(k in masked for k in kept), masked
    assert not any(
        gone in masked for gone in (":3", "    at ", "\tat ", ", line 3", "/tmp/x/line.js\n", "Node.js v")
    ), masked
    assert launch.crash(text) == crash
    assert launch.missing_module(text) == missing
