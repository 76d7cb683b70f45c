"""How far a run came, in languages with braces: functions, lines, and where it asked for more; what is suggested from that."""

import pytest
from conftest import needs

from aedifex.cli.suggest import tried
from aedifex.core.check import suggest
from aedifex.core.check.check import affected, observe
from aedifex.core.check.evidence import Observed
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.program.program import read_program

JAVA = """\
import java.util.Scanner;

public class Till {
    static int cash;

    Till(int start) {
        this();
        cash = start;
    }

    Till() { super(); }

    static void sell(String kind) {
        switch (kind) {
            case "long": cash += 5; break;
            default:
                cash += 2;
        }
        if (cash > 1000)
            cash = 0;
    }

    static void never() {
        cash--;
    }

    public static void main(String[] args) {
        new Till(3);
        Scanner in = new Scanner(System.in);
        outer:
        while (in.hasNextLine()) {
            String[] words = in.nextLine().split(" ");
            if (words[0].equals("quit")) { break outer; }
            if (words[0].equals("sell") && words.length > 1) { sell(words[1]); }
        }
        System.out.println(cash);
    }
}
"""
NODE = """\
const readline = require("readline");
let cash = 0;
function sell(kind) {
  cash += kind ? kind.length : 2;
}
function close() {
  console.log(cash);
}
const rl = readline.createInterface({ input: process.stdin });
rl.on("line", (line) => {
  const words = line.split(" ");
  if (words[0] === "quit") rl.close();
  if (words[0] === "sell") {
    sell(words[1]);
  }
});
rl.on("close", close);
"""
SKETCH = """\
int n = 0;
void setup() { size(100, 100); }
void draw() { if (n > 2) { late(); } n++; }
void late() { rect(n, 1, 2, 3); }
void keyPressed() { n = -10; }
"""


def world(folder, name: str, text: str, **wishes) -> World:
    folder.write(name, text)
    program = read_program(str(folder.path), [name])
    return World(str(folder.path), name, program.language, {}, list(program.files.values())).wishing(**wishes)


def test_java_notes_functions_and_lines(folder):
    needs("javac")
    around = world(folder, "Till.java", JAVA, cover="lines")
    seen = observe(Scenario("x", stdin="sell long\nsell tram\nfoo\n"), around)
    assert (seen.status, seen.output) == (0, "10\n"), seen.error
    assert seen.starved and set(seen.called["Till.java"]) == {6, 11, 13, 27}
    assert set(seen.reached["Till.java"]) == {8, 14, 15, 17, 19, 28, 29, 30, 32, 33, 34, 36}
    ended = observe(Scenario("x", stdin="quit\nsell long\n"), around.wishing(cover=True))
    assert not ended.starved and set(ended.called["Till.java"]) == {6, 11, 27} and not ended.reached
    assert not observe(Scenario("x", stdin="quit\n"), around.wishing(cover=None)).called


def test_a_sketch_notes_them_by_its_files(folder):
    needs("javac")
    seen = observe(Scenario("x", turns=5), world(folder, "line.pde", SKETCH, cover="lines"))
    assert not seen.trouble and seen.called == {"line.pde": [2, 3, 4]} and seen.reached == {"line.pde": [2, 3, 4]}


@pytest.mark.parametrize("typed, starved", [("sell long\n", True), ("quit\n", False), ("", True)])
def test_node_tells_where_it_asked_for_more(folder, typed, starved):
    needs("node")
    seen = observe(Scenario("x", stdin=typed), world(folder, "till.js", NODE, cover="lines"))
    assert seen.status == 0 and bool(seen.starved) is starved
    assert (4 in seen.reached["till.js"]) is ("sell" in typed)


@pytest.mark.parametrize("read", ["require('fs').readFileSync(0)", "require('fs').readSync(0, Buffer.alloc(10))"])
def test_node_reads_at_once(folder, read):
    needs("node")
    assert observe(Scenario("x"), world(folder, "all.js", f"console.log(String({read}).length);\n")).starved


def test_a_scenario_of_which_no_calls_are_known_is_run_after_every_step():
    seen = {"a": Observed(called={"x.py": [3]}), "b": Observed(called={"x.py": [9]}), "c": Observed()}
    runs = [Scenario(name) for name in seen]
    assert [s.name for s in affected(runs, seen, {("x.py", 3)})] == ["a", "c"]
    assert affected(runs, seen, None) == runs


def test_lines_to_type_are_suggested(folder, monkeypatch):
    """Commands with what follows them."""
    needs("node")
    monkeypatch.setattr(suggest, "WALK", 2)
    around = world(folder, "till.js", NODE)
    typed = [s.stdin for s in suggest.suggest(around, around.language.launch.clues(around.sources))]
    assert any("sell tram" in t for t in typed) and any("quit" in t for t in typed)


def test_what_lies_beside_and_does_not_compile_is_no_part_of_a_program(folder):
    needs("javac")
    folder.write("Till.java", JAVA)
    folder.write("Stop.java", "class Stop {}\n")
    folder.write("tests/TillTest.java", "import no.such.Library;\nclass TillTest {}\n")
    found, stem = tried(str(folder.path / "Till.java"))
    assert (stem, [f.path for f in found.sources]) == ("Till", ["Till.java"])
