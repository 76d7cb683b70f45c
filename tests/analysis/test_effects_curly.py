"""What code touches, and what may be worked out elsewhere, is told alike in every language."""

import pytest

from aedifex.core.analysis.effects import Effects, module_variables
from aedifex.core.analysis.hazards import hazards
from aedifex.core.analysis.variable_kinds import classify
from aedifex.core.program.language import language_of
from aedifex.core.program.program import read_program

# one program in each language: (file, text); the facts below hold for all of them
SAME = {
    "line.py": """
DOORS = 2
place = 0
fares = []
def ring(times): return times * DOORS
def move(by):
    global place
    place += by
def sell(price): fares.append(price)
def step(n):
    move(n)
    if place > 3: sell(n)
def turn(f): return f(1)
step(1)
turn(step)
""",
    "line.js": """
const DOORS = 2;
let place = 0;
const fares = [];
function ring(times) { return times * DOORS; }
function move(by) { place += by; }
const sell = (price) => { fares.push(price); };
function step(n) { move(n); if (place > 3) { sell(n); } }
function turn(f) { return f(1); }
step(1);
turn(step);
""",
    "Line.java": """
import java.util.*;
import java.util.function.*;
public class Line {
    static final int DOORS = 2;
    static int place = 0;
    static List<Integer> fares = new ArrayList<>();
    static int ring(int times) { return times * DOORS; }
    static void move(int by) { place += by; }
    static void sell(int price) { fares.add(price); }
    static void step(int n) { move(n); if (place > 3) { sell(n); } }
    static void turn(IntConsumer f) { f.accept(1); }
    public static void main(String[] args) { step(1); turn(Line::step); }
}
""",
    "line.pde": """
final int DOORS = 2;
int place = 0;
ArrayList<Integer> fares = new ArrayList<Integer>();
int ring(int times) { return times * DOORS; }
void move(int by) { place += by; }
void sell(int price) { fares.add(price); }
void step(int n) { move(n); if (place > 3) { sell(n); } }
void turn(Runnable f) { f.run(); }
void setup() { step(1); }
void draw() { turn(() -> step(1)); }
""",
}


def facts(folder, name: str):
    program = read_program(str(folder.path), [name])
    (file,) = program.files.values()
    assert not file.problems, [str(p) for p in file.problems]
    return file, Effects(file, program.language), program.language


@pytest.mark.parametrize("name", SAME)
def test_who_touches_what_directly_and_through_calls(folder, name):
    folder.write(name, SAME[name])
    file, effects, _ = facts(folder, name)

    def touched(function: str) -> dict[str, str]:
        found = effects.of(file.function(function))
        names = {s.name for s in found.names} & {"place", "fares", "DOORS"}
        writes = {s.name for s in found.writes}
        return {n: "writes" if n in writes else "reads" for n in names}

    assert touched("ring") == {"DOORS": "reads"}
    assert touched("move") == {"place": "writes"}
    assert "fares" in touched("sell")
    assert touched("step")["place"] == "writes" and "fares" in touched("step")


@pytest.mark.parametrize("name", SAME)
def test_natures_are_told_alike(folder, name):
    folder.write(name, SAME[name])
    file, _, language = facts(folder, name)
    natures = {s.name: v.nature for s, v in classify(file, language).items()}
    assert (natures["DOORS"], natures["place"]) == ("constant", "state")
    assert natures["fares"] in ("companion", "state")
    assert {s.name for s in module_variables(file)} >= {"DOORS", "place", "fares"}


# what an expression is: literal (no names), pure (the same wherever it is worked out), effect (anything else)
PURITY = [
    ("line.js", {
        "literal": ["1", "'a'", "[1, 'b']", "{ a: 1 }", "-2", "`a`", "null", "true"],
        "pure": ["A", "A + 1", "[A, A]", "A ? 1 : 2", "Math.sqrt(A)", "[...A]", "`a${A}`"],
        "effect": ["A()", "new B()", "A.b.c()", "A++", "A = 1", "Math.random()", "Date.now()", "await A", "delete A.b"],
    }),
    ("Line.java", {
        "literal": ["1", '"a"', "-2", "'c'", "1 + 2", "null", "true"],
        "pure": ["A", "A + 1", "Math.sqrt(A)", "A > 1 ? 1 : 2", "Math.max(A, 2)"],
        "effect": ["f()", "A++", "Math.random()", "System.currentTimeMillis()", "q.get()", "(A = 2)"],
    }),
    ("line.pde", {
        "literal": ["1", '"a"', "1.5", "#FF8000"],
        "pure": ["A", "A * 2", "max(A, 2)", "float(A)"],
        "effect": ["random(9)", "f()", "A++", "millis()", "loadStrings(\"a\")"],
    }),
]  # fmt: skip
FRAME = {
    "line.js": "let A = 1;\nlet x = {};\n",
    "Line.java": "class Line {{ static int A = 1; static int f() {{ return 1; }} static Object x = {}; public static void main(String[] a) {{ }} }}",
    "line.pde": "int A = 1;\nint f() {{ return 1; }}\nfloat x = {};\nvoid setup() {{ }}\n",
}


@pytest.mark.parametrize(
    ("name", "kind", "text"), [(n, k, t) for n, kinds in PURITY for k, ts in kinds.items() for t in ts]
)
def test_what_may_be_worked_out_elsewhere(folder, name, kind, text):
    frame = FRAME[name].format(text) if "{{" in FRAME[name] else FRAME[name].replace("{}", text)
    folder.write(name, frame)
    file, _, language = facts(folder, name)
    start = frame.encode().index(b"x = ") + 4
    assert language.purity(file, (start, start + len(text.encode()))) == kind


# (file, text, kind of hazard or part of its message)
HAZARDS = [
    ("l.js", "let a = 1; eval('a');", "by its text"),
    ("l.js", "let a = 1; export { a };", "is exported"),
    ("l.js", "function f() {} f.count = 1;", "asks the function itself"),
    ("l.js", "function f() {} function f() {}", "more than once"),
    ("l.js", "exports.tell = tell; function tell() {}", "is exported"),
    ("L.java", "class L { static void f() {} static void f(int n) {} public static void main(String[] a) {} }", "more than once"),
    ("L.java", "class L { static int n; public static void main(String[] a) throws Exception { L.class.getDeclaredField(\"n\"); } }", "can reach 'n'"),
    ("L.java", "class L { static int n; static void f(Object o) throws Exception { o.getClass().getMethods(); } public static void main(String[] a) {} }", "any name"),
    ("l.pde", "int n; void setup() { } void f() { } void f(int m) { }", "more than once"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "text", "said"), HAZARDS)
def test_what_will_bite_is_found(folder, name, text, said):
    folder.write(name, text + "\n")
    program = read_program(str(folder.path), [name])
    found = [h.message for h in hazards(program, name)]
    assert any(said in m for m in found), found


@pytest.mark.parametrize("name", ["a.py", "a.js", "a.mjs", "a.cjs", "a.ts", "A.java", "a.pde"])
def test_a_language_is_known_by_its_ending(name):
    language = language_of(name)
    assert name.endswith(language.suffixes)
    assert language.builtins and language.write.RECEIVER in ("self", "this")


@pytest.mark.parametrize(("text", "tells"), [
    ("Error.captureStackTrace(this);", False),
    ("Error.captureStackTrace(this); console.log(this.stack);", True),
    ("Error.prepareStackTrace = (error, trace) => trace[0].getFileName();", False),
    ("Error.prepareStackTrace = (error, trace) => trace.map(String);", True),
    ("console.trace();", True),
])  # fmt: skip
def test_what_an_error_notes_tells_only_where_it_is_read(folder, text, tells):
    program = folder.program("line.js", text + "\n")
    assert bool(program.language.tells(program.files["line.js"])) is tells
