"""Corners of the languages with braces: each small program is rearranged as said, or left with a reason, and does the same."""

import re
import tempfile
from pathlib import Path

import pytest
from conftest import needs

from aedifex.core.apply.sequence import run
from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program


def rearranged(entry: str, source: str) -> tuple[str, str]:
    """(all files after the build, what the design says), once both programs were run and did the same."""
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(source, newline="")
        program = read_program(folder, [entry])
        assert not program.problems, [str(p) for p in program.problems]
        text = to_toml(draft(program))
        design, _, problems = parse("design", text)
        assert not problems
        last = program
        for outcome, after in run(design, program):
            assert outcome.result != "wrong", (outcome.step.id, [str(p) for p in outcome.problems])
            text += f"\n{outcome.step.id}: {outcome.result} {outcome.refusal or ''}"
            last = after
        before, now = (ran(p, folder, entry) for p in (program, last))
        assert now == before
        return "\n".join(t.decode() for t in last.texts.values()), text


def ran(program, folder: str, entry: str):
    world = World(folder, entry, program.language, dict(program.texts), list(program.files.values()))
    seen = observe(Scenario("run"), world)
    assert not seen.trouble, seen.trouble
    assert seen.status == 0, seen.error
    return seen.output, seen.shots, [line for line in seen.error.splitlines() if "Error" in line]


# what a program is about: (source, a pattern that the result has, or one that the design gives as the reason)
COUNTER = """
let tickCount = 0;
let tickLast = "";
function tick(name) { tickCount += 1; tickLast = name; return tickCount; }
function show() { return tickLast + tickCount; }
"""
MOVED = {
    "a function is called above its definition": (
        "let sumTotal = 0;\nlet sumCount = 0;\nadd(2);\nconsole.log(mean());\n"
        "function add(n) { sumTotal += n; sumCount++; }\nfunction mean() { return sumTotal / sumCount; }\n",
        r"return this\.\w+ / this\.\w+; \}",
    ),
    "names that stand for key and value": (
        COUNTER + "tick('a');\nconsole.log({ tickCount, tickLast }, show());\nconst { length } = show();\nconsole.log(length);\n",
        r"\{ tickCount: this\.[\w.]+, tickLast: this\.[\w.]+ \}",
    ),
    "a swap by destructuring": (
        "let pairLeft = 1;\nlet pairRight = 2;\nfunction swap() { [pairLeft, pairRight] = [pairRight, pairLeft]; }\n"
        "function text() { return pairLeft + ':' + pairRight; }\nswap();\nconsole.log(text());\nswap();\nconsole.log(text());\n",
        r"\[this\.\w+, this\.\w+\] = \[this\.\w+, this\.\w+\]",
    ),
    "a parameter with the name of a global": (
        COUNTER + "function other(tickCount) { return tickCount * 2 + tickLast; }\ntick('b');\nconsole.log(other(5), show());\n",
        r"other\(tickCount\) \{ return tickCount \* 2 \+ this\._\w*[lL]ast",
    ),
    "a callback that is kept for later": (
        COUNTER + "setTimeout(tick, 5, 'late');\nsetTimeout(() => console.log(show()), 9);\n[1, 2].forEach(tick);\nconsole.log(show());\n",
        r"tick\.bind\(\w+|tick\.bind\(this\._\w+\)",
    ),
    "an inner function becomes an arrow": (
        "let seenList = [];\nlet seenTimes = 0;\nfunction see(all) {\n  all.forEach(function (one) {\n    seenList.push(one);\n    seenTimes++;\n  });\n}\n"
        "function tell() { console.log(seenList, seenTimes); }\nsee([3, 4]);\ntell();\n",
        r"all\.forEach\(\(one\) => \{",
    ),
    "an arrow with an expression": (
        "let tillCash = 3;\nlet tillCount = 0;\nconst pay = (n) => (tillCash += n);\nconst count = () => ({ all: tillCount++ });\n"
        "console.log(pay(2), count(), count(), tillCash);\n",
        r"count\(\) \{ return \(\{ all: this\.\w+\+\+ \}\); \}",
    ),
    "no semicolons, another style of quotes": (
        "let doorOpen = false\nlet doorTimes = 0\n\nfunction turn() {\n  doorOpen = !doorOpen\n  doorTimes += 1\n}\n\nfunction state() {\n  return doorOpen + '' + doorTimes\n}\n\n"
        "turn()\nconsole.log(state(), 'done')\n",
        r"this\.\w+ = false\n",
    ),
    "old code with var": (
        "var boxSize = 2, boxText;\nfunction grow() { boxSize *= 2; boxText = 'x' + boxSize; }\nfunction look() { return boxText + boxSize; }\n"
        "for (var i = 0; i < 3; i++) { grow(); }\nconsole.log(look(), i);\n",
        r"class LineApp",
    ),
    "text of several lines keeps its inside": (
        "let noteText = `one\n  two`;\nlet noteCount = 0;\nfunction note() {\n  noteCount++;\n  noteText += `\nthree\n    four`;\n}\n"
        "function read() { return noteText + noteCount; }\nnote();\nconsole.log(read());\n",
        r"\nthree\n    four`",
    ),
    "remarks travel with what they explain": (
        "/* the lamp */\nlet lampOn = false; // at first\nlet lampUses = 0;\n\n/**\n * Turns it.\n */\nfunction turnLamp() { lampOn = !lampOn; lampUses++; }\n"
        "function lampState() { return lampOn + ' ' + lampUses; }\nturnLamp();\nconsole.log(lampState());\n",
        r"/\*\*\n +\* Turns it\.\n +\*/\n +turn",
    ),
    "a generator and a function that waits": (
        "let railAt = 0;\nlet railEnd = 3;\nfunction* steps() { while (railAt < railEnd) { railAt++; yield railAt; } }\n"
        "async function far() { await null; railEnd += 1; return railAt + railEnd; }\nconsole.log([...steps()]);\nfar().then((n) => console.log(n));\n",
        r"\*steps\(\) \{|async far\(\)",
    ),
    "objects of a class that was there": (
        "class Stop { constructor(n) { this.n = n; } next() { return new Stop(this.n + 1); } }\nlet lineStop = new Stop(1);\nlet lineMoves = 0;\n"
        "function go() { lineStop = lineStop.next(); lineMoves++; }\nfunction where() { return lineStop.n * 10 + lineMoves; }\ngo();\ngo();\nconsole.log(where());\n",
        r"this\.\w+ = this\.\w+\.next\(\)",
    ),
}  # fmt: skip
STAYS = {
    "evaluated text": (COUNTER + "eval('tickCount = 5');\nconsole.log(show());\n", "reaches|by its text|by their text"),
    "with": (COUNTER + "with ({ tickCount: 7 }) { console.log(tickCount); }\ntick('x');\n", "by its text|by their text"),
    "called with new": (
        "let madeCount = 0;\nlet madeLast = '';\nfunction Tram(n) { madeCount++; madeLast = n; this.n = n; }\nconst t = new Tram('a');\n"
        "console.log(t.n, t instanceof Tram, madeCount, madeLast);\n",
        "asks the function|compared|'this'|'new'",
    ),
    "compared with another": (COUNTER + "const kept = tick;\nconsole.log(kept === tick, kept('q'), show());\n", "compared|which function it is"),
    "taken off again by who it is": (
        COUNTER + "const bell = new (require('events'))();\nbell.on('ring', tick);\nbell.emit('ring', 'a');\nbell.off('ring', tick);\nbell.emit('ring', 'b');\nconsole.log(show());\n",
        "which function it is",
    ),
    "a function with properties": (COUNTER + "tick.times = 3;\ntick('z');\nconsole.log(tick.times, show());\n", "asks the function itself"),
    "exported names": (COUNTER + "tick('e');\nconsole.log(show());\nmodule.exports = { tick, show };\n", "exported to other files|offers names"),
    "never declared": ("function set() { loose = 4; wide = 5; }\nfunction get() { return loose + wide; }\nset();\nconsole.log(get());\n", "never declared|no class|not"),
    "deleted": ("sureValue = 1;\nlet sureCount = 0;\nfunction drop() { delete sureValue; sureCount++; }\nfunction has() { return typeof sureValue + sureCount; }\ndrop();\nconsole.log(has());\n", "delete"),
    "arguments that follow the parameters": (
        "let lastSum = 0;\nlet lastTimes = 0;\nfunction sum(a) { a = 9; lastSum = arguments[0]; lastTimes++; return arguments.length; }\n"
        "function told() { return lastSum + lastTimes; }\nconsole.log(sum(1, 2), told());\n",
        "arguments",
    ),
    "bound by a pattern": ("let { left: sideLeft, right: sideRight } = { left: 1, right: 2 };\nfunction move() { sideLeft++; sideRight--; }\nfunction side() { return sideLeft + sideRight; }\nmove();\nconsole.log(side());\n", "a field cannot be|pattern"),
}  # fmt: skip


@pytest.mark.parametrize("about", sorted(MOVED))
def test_javascript_is_rearranged(about):
    needs("node")
    source, wanted = MOVED[about]
    after, said = rearranged("line.js", source)
    assert re.search(wanted, after), after + said


@pytest.mark.parametrize("about", sorted(STAYS))
def test_javascript_stays_with_a_reason(about):
    needs("node")
    source, reason = STAYS[about]
    _, said = rearranged("line.js", source)
    assert re.search(reason, said), said


def java(fields: str, methods: str, main: str, imports: str = "") -> str:
    return (
        f"{imports}\npublic class Line {{\n{fields}\n{methods}\n"
        f"    public static void main(String[] args) throws Exception {{\n{main}\n    }}\n}}\n"
    )


PLAIN = '    static int tickCount = 0;\n    static String tickLast = "";\n'
TICK = "    static int tick(String name) {\n        tickCount += 1;\n        tickLast = name;\n        return tickCount;\n    }\n"
SHOW = "    static String show() {\n        return tickLast + tickCount;\n    }\n"
SAY = '        tick("a");\n        System.out.println(show());'
JAVA_MOVED = {
    "written with its class": (java(PLAIN, TICK.replace("tickCount += 1", "Line.tickCount += 1") + SHOW, SAY), r"\n\s+\w*[cC]ount \+= 1"),
    "a local with the name of a global": (
        java(PLAIN, TICK + SHOW + "    static int other() {\n        int tickCount = 5;\n        return tickCount + tickLast.length();\n    }\n", SAY + "\n        System.out.println(other());"),
        r"int tickCount = 5;\n\s+return tickCount \+ \w+\.",
    ),
    "a method and a variable of one name": (
        java("    static int fare = 2;\n    static int fareSum = 0;\n", "    static int fare() {\n        fareSum += fare;\n        return fare;\n    }\n    static int sum() {\n        return fareSum;\n    }\n",
             "        fare();\n        System.out.println(fare() + sum());"),
        r"class \w+",
    ),
    "lambdas and method references": (
        java(PLAIN, TICK + SHOW, '        java.util.List.of("x", "y").forEach(Line::tick);\n        Runnable r = () -> tick("r");\n        r.run();\n        System.out.println(show());'),
        r"::tick",
    ),
    "lists of values": (
        java("    static int[] gridCells = {1, 2, 3};\n    static int gridAt = 0;\n", "    static int next() {\n        gridAt = (gridAt + 1) % gridCells.length;\n        return gridCells[gridAt]++;\n    }\n    static int at() {\n        return gridAt;\n    }\n",
             "        next();\n        System.out.println(next() + at());"),
        r"int\[\] \w+ = \{1, 2, 3\};",
    ),
    "a class that stands in a function": (
        java(PLAIN, TICK + SHOW + "    static void later() {\n        new Thread() {\n            public void run() {\n                tickCount++;\n            }\n        }.run();\n    }\n", SAY + "\n        later();"),
        r"LineApp\.this\.\w+\+\+",
    ),
    "fields without a first value": (
        java("    static int boxSize;\n    static String boxName;\n", "    static void fill(String n) {\n        boxSize++;\n        boxName = n;\n    }\n    static String look() {\n        return boxName + boxSize;\n    }\n",
             '        System.out.println(look());\n        fill("b");\n        System.out.println(look());'),
        r"private int \w+;",
    ),
}  # fmt: skip
JAVA_STAYS = {
    "overloads": (java(PLAIN, TICK + SHOW + "    static int tick() {\n        tickCount++;\n        return 0;\n    }\n", SAY + "\n        tick();"), "more than once"),
    "a lock on the class": (java(PLAIN, TICK.replace("static int", "static synchronized int") + SHOW, SAY), "locks the class"),
    "a first value from code between": (
        java(PLAIN + "    static int tickStart = first();\n", TICK + SHOW + "    static int first() {\n        tickCount = 7;\n        return tickCount;\n    }\n    static int start() {\n        return tickStart + tickCount;\n    }\n", SAY + "\n        System.out.println(start());"),
        "worked out|no class|after the object|start is passed it",
    ),
}  # fmt: skip


@pytest.mark.parametrize("about", sorted(JAVA_MOVED))
def test_java_is_rearranged(about):
    needs("javac")
    source, wanted = JAVA_MOVED[about]
    after, said = rearranged("Line.java", source)
    assert re.search(wanted, after), after + said


@pytest.mark.parametrize("about", sorted(JAVA_STAYS))
def test_java_stays_with_a_reason(about):
    needs("javac")
    source, reason = JAVA_STAYS[about]
    _, said = rearranged("Line.java", source)
    assert re.search(reason, said), said


NAMED = {
    "Line.java": """public class Line {
    static int tramX = 0;
    static int tramSpeed = 2;

    static void runTram() { tramX += tramSpeed; }

    static void closeTram() { tramSpeed -= tramX; }

    static String toStringTram() { return tramX + "/" + tramSpeed; }

    public static void main(String[] args) {
        runTram();
        closeTram();
        System.out.println(toStringTram());
    }
}
""",
    "line.js": """let tramX = 0;
let tramSpeed = 2;

function runTram() { tramX += tramSpeed; }

function closeTram() { tramSpeed -= tramX; }

function thenTram() { return tramX + "/" + tramSpeed; }

runTram();
closeTram();
console.log(thenTram());
""",
}


@pytest.mark.parametrize("name", NAMED)
def test_a_method_takes_no_name_that_every_object_has_and_others_it_may(folder, name):
    folder.write(name, NAMED[name])
    assert folder.aedifex("draft", "-q", "--together", "Tram=tramX,tramSpeed,runTram,closeTram", name).returncode == 0
    shown = folder.aedifex("preview", "--json", "line.design.toml" if name == "line.js" else "Line.design.toml")
    text = next(folder.path.glob("*.toml")).read_text()
    assert shown.returncode == 0, shown.stdout + shown.stderr
    assert (
        all(f'name = "{n}"' in text for n in ("run", "close"))
        and 'name = "then"' not in text
        and 'name = "toString"' not in text
    )
