"""The commands on programs in the languages with braces: what they say, what they refuse, what they leave alone."""

import json
import shutil
import subprocess
from pathlib import Path

import pytest
from conftest import needs

DEMO = Path(__import__("aedifex").__file__).parent / "demo" / "programs"
SKETCH = ["tramsketch.pde", "conductor.pde", "tramsketch.scenarios.toml"]


def bring(folder, *names: str) -> None:
    for name in names:
        shutil.copy(DEMO / name, folder.path)


# -- see and decide --------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("script", "variable", "kind", "reader", "handler"),
    [
        ("tramcanvas.js", "tram1X", "number", "moveTram1", "loop"),
        ("TramDesk.java", "tram1Place", "double", "moveTram1", ""),
        ("tramsketch.pde", "tram1X", "float", "moveTram1", ""),
    ],
)
def test_survey_tells_who_touches_what(folder, script, variable, kind, reader, handler):
    bring(folder, script, *(SKETCH if script.endswith("pde") else []))
    found = json.loads(folder.aedifex("survey", "--json", script).stdout)["files"][0]
    (facts,) = [v for v in found["variables"] if v["name"] == variable]
    assert facts["type"] == kind and facts["nature"] == "state"
    (unit,) = [u for u in found["units"] if u["name"] == reader]
    assert unit["access"][variable] == "rw"
    assert [f["numbers"] for f in found["families"]] in ([[1, 2]], [[1, 2, 3]])
    assert any(h["name"] == handler for h in found["handlers"]) or not handler


def test_ask_says_what_would_become_of_a_name(folder):
    bring(folder, "TramDesk.java")
    said = folder.aedifex("ask", "sell", "TramDesk.java").stdout
    assert "method 'sell' of Till" in said and "day passed in" in said


def test_a_folder_is_one_sketch_and_its_preview_applies(folder):
    bring(folder, *SKETCH)
    assert folder.aedifex("draft", "-q", ".").returncode == 0
    before = sorted(p.name for p in folder.path.iterdir())
    shown = folder.aedifex("preview", "--diff", "tramsketch.design.toml").stdout
    assert sorted(p.name for p in folder.path.iterdir()) == before
    assert "+++ b/Tram.pde" in shown and "b/conductor.pde" in shown
    done = subprocess.run(["git", "apply", "-"], input=shown, text=True, cwd=folder.path, capture_output=True)
    assert done.returncode == 0, done.stderr
    applied = {p.name: p.read_bytes() for p in folder.path.glob("*.pde")}
    subprocess.run(["git", "apply", "-R", "-"], input=shown, text=True, cwd=folder.path, check=True)
    needs("javac")
    assert folder.aedifex("build", "-q", "--unchecked", "tramsketch.design.toml").returncode == 0
    assert {p.name: p.read_bytes() for p in folder.path.glob("*.pde")} == applied


def test_lines_are_those_of_the_file_that_a_person_sees(folder):
    bring(folder, *SKETCH)
    said = folder.aedifex("ask", "showFares", "tramsketch.pde").stdout
    assert "lines 16 to 19" in said, said
    text = folder.read("conductor.pde")
    folder.write("conductor.pde", text + "int = ;\n")
    broken = folder.aedifex("draft", "tramsketch.pde")
    assert f"conductor.pde:{text.count(chr(10)) + 1}:" in broken.stderr, broken.stderr


def test_a_type_that_the_design_gives_is_written(folder):
    folder.write(
        "line.ts",
        "let tramX = start();\nlet tramLog = [];\nfunction start() { return 2; }\n"
        "function go(by: number) { tramX += by; tramLog.push(by); }\nfunction at() { return tramX + tramLog.length; }\n"
        "go(2);\nconsole.log(at());\n",
    )
    assert folder.aedifex("draft", "-q", "line.ts").returncode == 0
    text = folder.read("line.design.toml")
    assert 'name = "log"' in text
    folder.write("line.design.toml", text.replace('name = "log"\n', 'name = "log"\ntype = "number[]"\n'))
    needs("node")
    built = folder.aedifex("build", "line.design.toml")
    assert built.returncode == 0, built.stdout + built.stderr
    assert "_log: number[];" in "".join(p.read_text() for p in folder.path.glob("*.ts"))


# -- move and check --------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("script", "wanted"),
    [
        ("tramcanvas.js", ['key = "1"', 'key = "s"', 'runner = "frames"']),
        ("tramsketch.pde", ['key = "1"', 'runner = "frames"']),
    ],
)
def test_scenarios_are_suggested(folder, script, wanted):
    needs("node" if script.endswith("js") else "javac")
    bring(folder, script, *(SKETCH[:2] if script.endswith("pde") else []))
    done = folder.aedifex("record", "--suggest", script, timeout=280)
    assert done.returncode == 0, done.stderr
    text = folder.read(script.rsplit(".", 1)[0] + ".scenarios.toml")
    assert all(w in text for w in wanted), text


def test_the_clock_of_java_is_pinned_and_its_errors_compared(folder):
    needs("javac")
    folder.write(
        "Line.java",
        "import java.util.*;\nimport java.time.*;\npublic class Line {\n    static int lineCount = 0;\n    static long lineAt = 0;\n"
        "    static void note() { lineCount++; lineAt = System.currentTimeMillis(); }\n"
        '    static String told() { return lineCount + " " + lineAt + " " + LocalDate.now() + " " + System.nanoTime(); }\n'
        "    public static void main(String[] args) throws Exception {\n        note();\n        Thread.sleep(50000);\n"
        "        System.out.println(told() + new Random().nextInt() + Math.random() + UUID.randomUUID() + new Date());\n"
        "        int[] none = new int[0];\n        none[lineCount] = 1;\n    }\n}\n",
    )
    folder.write("Line.scenarios.toml", '[[scenario]]\nname = "once"\nseconds = 20\n')
    assert folder.aedifex("draft", "-q", "Line.java").returncode == 0
    built = folder.aedifex("build", "Line.design.toml")
    assert built.returncode == 0, built.stdout + built.stderr
    assert "ArrayIndexOutOfBounds" in built.stdout + built.stderr
    assert folder.aedifex("check", "Line.scenarios.toml").returncode == 0


# -- input that is hostile until read -------------------------------------------------------------


@pytest.mark.parametrize("name", ["line.js", "line.ts", "Line.java", "line.pde"])
@pytest.mark.parametrize(
    ("content", "said"),
    [(b"int x\0 = 3;", "null byte"), (b"// caf\xe9\n", "not UTF-8"), (b"((((", ""), (b"", ""), (b"\n\n", "")],
)
def test_odd_files_get_a_sentence(folder, name, content, said):
    folder.write(name, content)
    for command in ("survey", "draft"):
        done = folder.aedifex(command, name)
        assert done.returncode in ((2,) if said else (0, 1, 2))
        assert said in done.stderr
        assert len(done.stderr.strip().splitlines()) <= 2
    assert (folder.path / name).read_bytes() == content


def test_two_languages_are_not_one_program(folder):
    folder.write("a.js", "let x = 1;\n")
    folder.write("b.py", "x = 1\n")
    done = folder.aedifex("survey", "a.js", "b.py")
    assert done.returncode == 2 and "name one language" in done.stderr


NODE_SERVER = """const http = require("http");
let notes = [];
let nextId = 1;
function makeNote(response) {
  notes.push({ id: nextId, text: "tide" });
  nextId += 1;
  response.end(JSON.stringify(notes));
}
function listNotes(response) {
  response.end(JSON.stringify(notes));
}
const server = http.createServer((request, response) => {
  if (request.url === "/make") {
    makeNote(response);
  } else {
    listNotes(response);
  }
});
server.listen(8123);
"""


def test_a_server_is_asked_and_a_fault_in_its_answers_found(folder):
    needs("node")
    folder.write("notes.js", NODE_SERVER)
    folder.write(
        "notes.scenarios.toml",
        '[[scenario]]\nname = "all"\nrunner = "requests"\nrequests = [{ path = "/make" }, { path = "/all" }]\n',
    )
    assert folder.aedifex("draft", "-q", "notes.js").returncode == 0
    built = folder.aedifex("build", "notes.design.toml")
    assert built.returncode == 0 and "found:Notes" in built.stdout, built.stdout + built.stderr
    home = next(p for p in folder.path.glob("*.js") if "nextId += 1" in p.read_text())
    home.write_text(home.read_text().replace("nextId += 1", "nextId += 2"))
    assert folder.aedifex("check", "notes.design.toml").returncode == 1
    home.write_text(home.read_text().replace("nextId += 2", "nextId += 1").replace('"tide"', '"ebb"'))
    found = json.loads(folder.aedifex("check", "--json", "notes.design.toml").stdout)["differences"]
    assert found[0]["where"] == "response 1 (GET /make)", found


def test_what_needs_the_real_compiler_says_so(folder):
    needs("node")
    folder.write("line.ts", "enum Way { Out, Back }\nlet lineWay = Way.Out;\nlet lineTurns = 0;\nfunction turn() { lineWay = Way.Back; lineTurns++; }\n"
                 "function told() { return lineWay + lineTurns; }\nturn();\nconsole.log(told());\n")  # fmt: skip
    folder.aedifex("draft", "-q", "line.ts")
    done = folder.aedifex("build", "line.design.toml")
    assert done.returncode == 1 and "an enum needs the language's own compiler" in done.stdout + done.stderr


def test_packages_that_are_installed_are_found(folder):
    needs("node")
    folder.write("node_modules/bell/index.js", "module.exports = (n) => 'ring'.repeat(n);\n")
    folder.write("line.js", "const bell = require('bell');\nlet rings = 0;\nlet last = '';\nfunction ring() { rings++; last = bell(rings); }\n"
                 "function told() { return last; }\nring();\nring();\nconsole.log(told());\n")  # fmt: skip
    folder.aedifex("draft", "-q", "line.js")
    built = folder.aedifex("build", "line.design.toml")
    assert built.returncode == 0, built.stdout + built.stderr
    assert sorted(p.name for p in (folder.path / "node_modules").iterdir()) == ["bell"]


# -- what is told of a value ------------------------------------------------------------------------

VALUES = [
    ("1.5", "1.5"),
    ("-0", "-0"),
    ('"a\\nb"', r'"a\nb"'),
    ("[1, [2], 'x']", '[1, [2], "x"]'),
    ("{ a: 1, _b: null }", "{a: 1, b: null}"),
    ("new Map([['k', { n: 1 }]])", '{"k" => {n: 1}}'),
    ("new Set([3, 4])", "{3, 4}"),
    ("new (class Tram { constructor() { this.x = 2; } })()", "Tram{x: 2}"),
    ("{ get now() { throw 1; } }", "{now: <computed>}"),
    ("new Date(5)", "<date 5>"),
    ("() => 1", "<function>"),
    ("new Uint8Array([1, 2])", "[1, 2]"),
    ("require('http').createServer()", "<Server>"),
    ("new (require('events'))()", "<EventEmitter>"),
    ("setTimeout(() => {}, 1)", "<Timeout>"),
    ("Array.from({ length: 60 }, (_, i) => i)", "[" + ", ".join(map(str, range(50))) + ", ... 60 in all]"),
    ("(() => { const a = {}; a.a = a; return a; })()", "{a: ...}"),
]


def test_a_value_is_told_alike_in_any_process(folder):
    needs("node")
    values = Path(__import__("aedifex").__file__).parent / "core/languages/javascript/running/pinned/values.cjs"
    lines = "\n".join(f"console.log(tell({text}));" for text, _ in VALUES)
    folder.write("tell.cjs", f"const {{ tell }} = require({str(values)!r});\n{lines}\n")
    done = subprocess.run(["node", "tell.cjs"], cwd=folder.path, capture_output=True, text=True, timeout=60)
    assert done.stdout.splitlines() == [told for _, told in VALUES], done.stderr
