"""What a run sees around the program's folder: what the program names above it, as copies, and nothing of the rest."""

import pytest
from conftest import needs

from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World, named_above
from aedifex.core.check.scenarios import Scenario
from aedifex.core.program.program import read_program


def seen(folder, entry: str, place: str = "line/demo"):
    root = folder.path / place
    program = read_program(str(root), [entry])
    world = World(str(root), entry, program.language, sources=list(program.files.values()))
    return observe(Scenario("run"), world)


@pytest.mark.parametrize(
    ("text", "levels", "names"),
    [
        ("require('../');", 1, {""}),
        ('import x from "../lib/x.js";', 1, {"lib"}),
        ("require('./a'); require('a..b'); f('..'.length ? '...' : 'x/..');", 1, {""}),
        ("open(here + '/../../data/stops.txt');", 2, {"data"}),
        ("const up = '../../../../../..';", 0, set()),
        ("// nothing above '.'", 0, set()),
    ],
)
def test_what_a_program_names_above_itself(folder, text, levels, names):
    folder.write("demo.js", text)
    sources = list(read_program(str(folder.path), ["demo.js"]).files.values())
    assert len(named_above(sources)) == levels
    assert set().union(*named_above(sources)) == names


def test_a_module_above_the_folder_is_there_and_finds_its_own(folder):
    needs("node")
    folder.write("line/package.json", '{"main": "lib/line.js"}')
    folder.write("line/lib/line.js", "module.exports = require('./stop') + require('stops');\n")
    folder.write("line/lib/stop.js", "module.exports = 'mill ';\n")
    folder.write("line/node_modules/stops/index.js", "module.exports = 'of many';\n")
    folder.write("line/demo/run.js", "console.log(require('../'));\n")
    found = seen(folder, "run.js")
    assert (found.output, found.status) == ("mill of many\n", 0), found.error


def test_what_a_run_writes_above_its_folder_is_a_copy(folder):
    folder.write("line/board.txt", "closed\n")
    folder.write("line/other/kept.txt", "kept\n")
    folder.write(
        "line/demo/run.py",
        "import os\nprint(open('../board.txt').read(), os.listdir('../other'))\n"
        "open('../board.txt', 'w').write('open')\nos.unlink('../other/kept.txt')\nprint(open('../board.txt').read())\n",
    )
    found = seen(folder, "run.py")
    assert found.output == "closed\n ['kept.txt']\nopen\n", found.error
    assert folder.read("line/board.txt") == "closed\n" and folder.read("line/other/kept.txt") == "kept\n"


def test_a_program_that_looks_nowhere_sees_nothing_above(folder):
    folder.write("line/secret.txt", "x")
    folder.write("line/demo/run.py", "import os\nprint(sorted(os.listdir(os.pardir)))\n")
    assert "secret" not in seen(folder, "run.py").output


def test_what_the_original_does_otherwise_by_now_is_not_blamed_on_a_step(folder):
    flag = folder.path / "outside"
    folder.write(
        "p/line.py",
        f"import os\nstops = 0\nfares = 0\n\n\ndef stop():\n    global stops, fares\n    stops += 1\n    fares += stops\n"
        f"    print(stops, os.path.exists({str(flag)!r}))\n\n\ndef show():\n    print(stops + fares)\n\n\nstop()\nshow()\n",
    )
    for words in (["draft", "-q", "p/line.py"], ["record", "p/line.design.toml"]):
        assert folder.aedifex(*words).returncode == 0
    flag.touch()
    built = folder.aedifex("build", "p/line.design.toml")
    assert (
        built.returncode
        and "the original itself does another thing by now (output, line 1: '1 False' and '1 True')" in built.stdout
    )
