"""Unit tests from what was seen, in languages with braces: they run, catch broken methods, and say what they leave out."""

import contextlib
import glob
import re
import shutil
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest
from conftest import needs

from aedifex.core.languages.java.running.compiler import warm

PROGRAMS = Path(__import__("aedifex").__file__).parent / "demo" / "programs"
CHANGES = [
    ("+=", "-="),
    (" + ", " - "),
    (" * ", " + "),
    (" < ", " >= "),
    (" > ", " <= "),
    ("if (", "if (!!0 && "),
    ("= -", "= "),
]
LINE = """\
let tramPlace = 0, tramSpeed = 1.5;
let tramLog = [];
let tillCash = 0;
let tillTickets = 0;

function moveTram(hours) {
  tramPlace += tramSpeed * hours;
  tramLog.push(tramPlace);
  if (tramPlace > 20) turnTram();
  return tramPlace;
}

function turnTram() {
  tramSpeed = -tramSpeed;
}

function shakeTram() {
  tramPlace += Math.random();
}

function sellTicket(kind, count) {
  if (count < 1) throw new RangeError("no tickets");
  tillCash += (kind === "long" ? 5 : 2) * count;
  tillTickets += count;
  return { kind, count };
}

function printTill() {
  console.log("till", tillCash, tillTickets);
}

function fillTill(coins) {
  while (coins.length) tillCash += coins.pop();
}

for (let i = 0; i < 20; i++) {
  moveTram(i % 3);
  sellTicket(i % 2 ? "long" : "short", i + 1);
  if (i % 5 === 0) { shakeTram(); printTill(); }
}
try { sellTicket("short", 0); } catch (error) { console.log(error.message); }
fillTill([1, 2, 5]);
console.log(tramPlace, tramLog.length);
printTill();
"""


class NotCompiled(Exception):
    pass


def broken(text: str) -> Iterator[str]:
    """The text with one operator changed, for each of them inside a method."""
    start = text.index("class ")
    for old, new in CHANGES:
        for found in re.finditer(re.escape(old), text[start:]):
            at = start + found.start()
            line = text[text.rfind("\n", 0, at) + 1 : text.find("\n", at)]
            if line.startswith("    ") and "throw" not in line:
                yield text[:at] + (new if "!!" not in new else "if (0 === 1 && ") + text[at + len(old) :]


def node_tests(place: Path) -> bool:
    return all(
        subprocess.run(["node", str(t)], cwd=place, capture_output=True, timeout=60).returncode == 0
        for t in sorted(place.glob("tests/*.test.?js"))
    )


def java_tests(place: Path) -> bool:
    jar = glob.glob("/usr/share/java/junit-platform-console-standalone.jar")[0]
    made = place / "made"
    files = [str(p) for p in [*place.glob("*.java"), *place.glob("tests/*.java")]]
    made.mkdir(exist_ok=True)
    fine, errors = warm().compile(jar, str(made), files)
    if not fine:
        raise NotCompiled(errors)
    run = ["java", "-XX:TieredStopAtLevel=1", "-jar", jar, "--class-path", str(made), "--scan-class-path", str(made)]
    return subprocess.run(run, capture_output=True, timeout=60).returncode == 0


def caught(place: Path, tests, every: int) -> float:
    """The share of broken classes that their tests notice."""
    noticed = []
    for path in sorted(p for p in place.glob("*.*") if p.suffix in (".js", ".mjs", ".java") and "App" not in p.name):
        text = path.read_text()
        if not re.search(r"^(export )?class (Tram|Till)\b", text, re.M):
            continue
        for number, mutant in enumerate(broken(text)):
            if number % every == 0:
                path.write_text(mutant)
                with contextlib.suppress(NotCompiled):
                    noticed.append(not tests(place))
        path.write_text(text)
    assert len(noticed) >= 3
    return sum(noticed) / len(noticed)


@pytest.mark.parametrize("name, head", [("line.js", '"use strict";\n'), ("line.mjs", 'import fs from "node:fs";\n')])
def test_javascript_classes_get_tests_that_catch_what_breaks_them(folder, name, head):
    needs("node")
    folder.write(name, head + LINE)
    folder.aedifex("draft", "-q", name)
    done = folder.aedifex("build", "--unchecked", "line.design.toml", "--tests", "tests")
    ending = "mjs" if name.endswith("mjs") else "cjs"
    assert re.search(rf"tests/till\.test\.{ending} +18 tests, all of them run", done.stdout), done.stdout + done.stderr
    assert "Run them again: node --test tests" in done.stderr
    text = folder.read(f"tests/till.test.{ending}") + folder.read(f"tests/tram.test.{ending}")
    for part in (
        'name: "RangeError", message: "no tickets"',
        'assert.equal(said, "till 2 1\\n");',
        "assert.deepEqual(given, []);",
        't.mock.method(Math, "random", () => drawn.shift());',
        '{ kind: "long", count: 2 }',
    ):
        assert part in text, text
    assert node_tests(folder.path)
    assert caught(folder.path, node_tests, 4) >= 0.8


def test_java_classes_get_tests_that_catch_what_breaks_them(folder):
    needs("javac")
    for name in ("TramDesk.java", "TramDesk.scenarios.toml"):
        shutil.copy(PROGRAMS / name, folder.path)
    folder.aedifex("draft", "-q", "TramDesk.java")
    done = folder.aedifex("build", "--unchecked", "-q", "TramDesk.design.toml", "--tests", "tests")
    assert done.returncode == 0, done.stderr
    text = folder.read("tests/TillTest.java")
    for part in (
        'assertEquals(2, field(till, "tickets"));',
        'set(till, "tickets", 3);',
        "assertFalse(till.sell(",
        "till.print(out);",
        'told.toString("UTF-8"));',
    ):
        assert part in text, text
    assert java_tests(folder.path)
    assert caught(folder.path, java_tests, 3) >= 0.8


JAVA = """\
package line;

import java.io.IOException;
import java.util.*;

public class Depot {
    private enum Kind { LONG, SHORT }
    private static int trackFree = 3;
    private static long[] trackTimes = {1, 2};
    private static Map<String, Integer> trackNames = new HashMap<>();
    private static Kind trackKind = Kind.LONG;

    static int enterTrack(String name, List<Integer> wagons) throws IOException {
        if (trackFree == 0) {
            throw new IOException("full \\u00e9");
        }
        trackFree--;
        trackNames.put(name, wagons.size());
        trackTimes[0] += 1;
        wagons.add(7);
        return trackFree;
    }

    static Kind kindOfTrack() {
        return trackKind;
    }

    static boolean luckyTrack() {
        trackFree += Math.random() < 2 ? 0 : 1;
        return trackFree > 1;
    }

    static char markOfTrack(char mark, float... weights) {
        return weights.length > trackFree ? mark : '\\'';
    }

    public static void main(String[] args) {
        for (String name : "north south \\"east\\" west".split(" ")) {
            List<Integer> wagons = new ArrayList<>(List.of(1, 2));
            try {
                System.out.println(enterTrack(name, wagons) + " " + luckyTrack());
            } catch (IOException error) {
                System.out.println(error.getMessage());
            }
        }
        System.out.println(kindOfTrack() + " " + markOfTrack('x', 1.5f, 2f) + trackNames.get("south") + trackTimes[0]);
    }
}
"""


def test_java_values_errors_and_chance(folder):
    """A call that asks for chance is left out; arrays, maps, errors and enums are written as the language has them."""
    needs("javac")
    folder.write("Depot.java", JAVA)
    folder.aedifex("draft", "-q", "Depot.java")
    done = folder.aedifex("build", "--unchecked", "Depot.design.toml", "--tests", ".")
    assert done.returncode == 0, done.stdout + done.stderr
    text = folder.read("TrackTest.java")
    assert text.startswith("package line;\n") and "lucky" not in text
    for part in (
        'assertEquals("full é", assertThrows(java.io.IOException.class, () -> track.enter("west", given)).getMessage());',
        "var given = new float[] {1.5f, 2.0f};",
        'assertEquals(new HashMap<>(Map.of("north", 2)), track.names);',
    ):
        assert part in text, text
    assert done.stdout.count("all of them run") == 1 and "assertEquals(line.Depot.Kind.LONG" in text


def test_what_has_no_life_of_its_own_gets_none(folder):
    """A sketch, a page and a class inside another are told apart from a class that merely was not called."""
    needs("node")
    needs("javac")
    for name in ("tramsketch.pde", "conductor.pde", "tramcanvas.js"):
        shutil.copy(PROGRAMS / name, folder.path)
    for name, why in (
        ("tramsketch.pde", "is a sketch, whose classes have no life outside it"),
        ("tramcanvas.js", "belongs to a page"),
    ):
        folder.aedifex("draft", "-q", name)
        done = folder.aedifex("build", "--unchecked", "-q", name.rsplit(".")[0] + ".design.toml", "--tests", "tests")
        assert done.returncode == 0 and why in done.stderr, done.stdout + done.stderr
    assert not (folder.path / "tests").exists()
