"""Classes are planned together: where functions belong, what is handed over, what stays; and the built programs do the same."""

import pytest
from conftest import needs

from aedifex.core.apply.sequence import run
from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program


def drafted(folder, name: str, text: str):
    folder.write(name, text)
    return draft(read_program(str(folder.path), [name]))


def classes(design) -> dict[str, tuple[list[str], dict[str, list[str]]]]:
    """Class → its variables, and its functions with what each is handed."""
    return {
        c.name: (
            sorted(str(o) for f in c.fields for o in f.origins),
            {str(m.origins[0]): [a["value"] for a in m.add] for m in c.methods},
        )
        for c in design.classes
    }


def built(folder, name: str, text: str, stdin: str = "") -> list[str]:
    """Build the draft in memory and run both; the steps that were refused."""
    program = read_program(str(folder.path), [name])
    refused, last = [], program
    for outcome, after in run(draft(program), program):
        assert outcome.result != "wrong", [str(p) for p in outcome.problems]
        if outcome.result == "refused":
            refused.append(f"{outcome.step.id}: {outcome.refusal}")
        last = after
    seen = []
    for p in (program, last):
        world = World(str(folder.path), name, p.language, dict(p.texts), list(p.files.values()))
        found = observe(Scenario("run", stdin=stdin), world)
        assert not found.trouble
        seen.append((found.status, found.output, found.error))
    assert seen[0] == seen[1] and seen[0][1]
    return refused


DEPOT = """\
import java.io.*;
import java.util.*;

public class Depot {
    static final int MAX = 12;
    static int wagonCount = 0;
    static String[] wagonNames = new String[MAX];
    static int[] wagonKm = new int[MAX];
    static Map<String, Integer> stock = new TreeMap<>();
    static int stockAlarms;
    static int hour = 6, minute = 30;
    static PrintStream out = System.out;

    static void addWagon(String name) {
        wagonNames[wagonCount] = name;
        wagonKm[wagonCount++] = 0;
    }

    static int findWagon(String name) {
        for (int i = 0; i < wagonCount; i++)
            if (wagonNames[i].equals(name)) return i;
        return -1;
    }

    static void driveWagon(String name, int km) {
        int i = findWagon(name);
        wagonKm[i] += km;
        tick(km);
        if (wagonKm[i] > 100) useStock("grease", 1);
    }

    static void useStock(String what, int n) {
        int left = stock.getOrDefault(what, 0) - n;
        if (left < 0) { stockAlarms++; out.println("ALARM: no " + what); left = 0; }
        stock.put(what, left);
    }

    static void fillStock(String what, int n) { stock.merge(what, n, Integer::sum); }

    static void tick(int minutes) {
        minute += minutes;
        while (minute >= 60) { minute -= 60; hour = (hour + 1) % 24; }
    }

    static String clock() { return String.format("%02d:%02d", hour, minute); }

    static void report() {
        out.println("--- " + clock() + " ---");
        for (int i = 0; i < wagonCount; i++) out.println(wagonNames[i] + " " + wagonKm[i]);
        stock.forEach((k, v) -> out.println(k + "=" + v));
        out.println(stockAlarms + " alarms");
    }

    public static void main(String[] args) {
        fillStock("grease", 2);
        addWagon("north");
        addWagon("south");
        for (int km = 40; km < 70; km += 10) driveWagon("north", km);
        driveWagon("south", 120);
        report();
    }
}
"""


def test_a_depot_becomes_what_one_would_write_by_hand(folder):
    """Three things with a life of their own; the one that works with the others is handed them; the report is the app's."""
    needs("javac")
    found = classes(drafted(folder, "Depot.java", DEPOT))
    assert found == {
        "Wagon": (["wagonKm", "wagonNames"], {}),
        "Wagons": (
            ["wagonCount", "wagons"],
            {"addWagon": [], "findWagon": [], "driveWagon": ["clockObject", "stock", "out"]},
        ),
        "Stock": (["stock", "stockAlarms"], {"useStock": ["out"], "fillStock": []}),
        "Clock": (["hour", "minute"], {"tick": [], "clock": []}),
        "DepotApp": (["out"], {"report": []}),
    }
    assert built(folder, "Depot.java", DEPOT) == []


STAR = """\
tram_x = 0
tram_v = 1
till_cash = 0
till_log = []


def move_tram(*ways, by=1):
    global tram_x
    tram_x += by * len(ways) * tram_v
    pay(tram_x)


def turn_tram():
    global tram_v, tram_x
    tram_v, tram_x = -tram_v, tram_x + 1


def pay(pence):
    global till_cash
    till_cash += pence
    till_log.append((pence, tram_v))


def empty_till():
    global till_cash
    till_cash = 0
    till_log.clear()
"""


def test_what_takes_any_number_is_handed_more_by_name(folder):
    text = (
        STAR
        + "\n\nmove_tram('a', 'b')\nturn_tram()\nmove_tram(*'cde', by=2)\nprint(tram_x, till_cash, till_log)\nempty_till()\nprint(till_cash)\n"
    )
    found = classes(drafted(folder, "line.py", text))
    assert found["Tram"][1] == {"move_tram": ["till"], "turn_tram": []}
    assert found["Till"][1] == {"pay": ["tram"], "empty_till": []}
    assert built(folder, "line.py", text) == []


def test_what_cannot_be_handed_an_object_uses_it_by_its_name(folder):
    """Nothing runs here, so no app takes over what is passed on as a value; its class stays in the file."""
    text = STAR.replace("    pay(tram_x)\n", "    pay(tram_x)\n    hooks.append(pay)\n") + "\n\nhooks = []\n"
    design = drafted(folder, "line.py", text)
    assert {c.name: (c.file, c.methods != []) for c in design.classes} == {
        "Tram": ("tram.py", True),
        "Till": ("", True),
    }
    text += "move_tram('a')\nprint(tram_x, till_cash, till_log, len(hooks))\n"
    folder.write("line.py", text)
    built(folder, "line.py", text)


@pytest.mark.parametrize(
    "call, moves",
    [
        ("exec(code, space)", True),
        ("print(eval(code, {'x': 2}, space))", True),
        ("exec(code)", False),
        ("exec(code, globals())", False),
        ("exec(code, *space)", False),
        ("exec(code, sys.modules['line'].__dict__)", False),
        ("exec(code, __import__('__main__').__dict__)", False),
        ("exec(code, __main__.__dict__)", True),  # the file only defines, so another one is started
        ("exec(code, __main__.__dict__)\n\n\ncalculate('', {})", False),
    ],
)
def test_text_that_is_run_among_names_of_its_own_blocks_nothing(folder, call, moves):
    design = drafted(
        folder, "line.py", f"import __main__\nimport sys\n{STAR}\n\ndef calculate(code, space):\n    {call}\n"
    )
    assert bool(design.classes) is moves
    assert moves or any("reach any name by its text" in s.why for s in design.stays)


def test_a_reporter_belongs_to_nobody_and_glues_nothing(folder):
    """It reads of three things; none of them gets it, and they stay three."""
    text = "".join(
        f"{n}_count = 0\n{n}_last = ''\n\n\ndef add_{n}(what):\n    global {n}_count, {n}_last\n    {n}_count += 1\n    {n}_last = what\n\n\n"
        f"def drop_{n}():\n    global {n}_count\n    {n}_count -= 1\n\n\n"
        for n in ("door", "stop", "fare")
    )
    text += "def tell():\n    return door_count, stop_last, fare_count, door_last, stop_count\n"
    found = classes(drafted(folder, "line.py", text))
    assert sorted(found) == ["Door", "Fare", "Stop"]
    assert all("tell" not in functions for _, functions in found.values())


LOOP = """\
x1 = 40
y1 = 120
v1 = 1.5
x2 = 300
y2 = 180
v2 = -0.8
score = 0


def move1():
    global x1, v1
    x1 += v1
    if x1 > 60:
        v1 = -v1


def move2():
    global x2, v2
    x2 += v2
    if x2 > 60:
        v2 = -v2


def draw_tram(x, y):
    print('tram', round(x, 2), y)


for turn in range(20):
    move1()
    move2()
    draw_tram(x1, y1)
    draw_tram(x2, y2)
    score += turn
print(score)
"""


def test_single_words_with_numbers_are_copies_where_they_are_used_together(folder):
    design = drafted(folder, "line.py", LOOP)
    tram = design.classes[0]
    assert (tram.name, [f.name for f in tram.fields], [o.name for o in tram.objects]) == (
        "Tram",
        ["x", "y", "v"],
        ["tram1", "tram2"],
    )
    assert [(m.name, [*map(str, m.origins)]) for m in tram.methods] == [
        ("move", ["move1", "move2"]),
        ("draw", ["draw_tram"]),
    ]
    assert built(folder, "line.py", LOOP) == []
    assert "numbered copies  x, v 1, 2: 2 variables each" in folder.aedifex("survey", "line.py").stdout
    assert "6 variables named x, y, v with 1 and 2 are numbered copies of 3" in tram.why[0]


@pytest.mark.parametrize(
    "old, new",
    [("draw_tram(x1, y1)", "draw_tram(x1, y2)"), ("    global x1, v1\n", "    global x1, v1\n    print(x2)\n")],
)
def test_words_whose_numbers_are_mixed_are_no_copies(folder, old, new):
    """What crosses the numbers is no twin; what is left still does the same."""
    text = LOOP.replace(old, new)
    drafted(folder, "line.py", text)
    assert built(folder, "line.py", text) == []


def test_near_twins_are_shown_with_what_differs(folder):
    """Only one of them turns round; they stay apart, and the reason says where."""
    text = "".join(
        f"tram{n}_x = {n}\ntram{n}_speed = 1\n\n\ndef ring_tram{n}():\n    print('tram', tram{n}_x)\n\n\n"
        f"def move_tram{n}():\n    global tram{n}_x, tram{n}_speed\n    tram{n}_x += tram{n}_speed\n"
        + "    tram1_speed = -tram1_speed\n" * (n == 1)
        + "\n\n"
        for n in (1, 2)
    )
    text += "move_tram1()\nmove_tram2()\nring_tram1()\nring_tram2()\nprint(tram1_x, tram2_x)\n"
    design = drafted(folder, "line.py", text)
    (tram,) = [c for c in design.classes if c.name == "Tram"]
    assert [m.name for m in tram.methods] == ["ring"]
    assert tram.why[-1] == (
        "move_tram2 is like move_tram1 but not the same: move_tram2 has ended where line 12 has "
        "'tram1_speed = -tram1_speed', so they stay apart unless you ask for both in one class"
    )
    assert built(folder, "line.py", text) == []


def test_three_of_a_kind_get_a_base_and_two_do_not(folder):
    text = "".join(
        f"{n}_x = {i}\n{n}_speed = 1\n{n}_{own} = {i}\n\n\ndef move_{n}():\n    global {n}_x, {n}_speed\n    {n}_x += {n}_speed\n    {n}_speed -= 1\n\n\n"
        f"def {own}_{n}():\n    global {n}_{own}\n    {n}_{own} += {n}_x\n\n\n"
        for i, (n, own) in enumerate([("ferry", "horn"), ("barge", "load"), ("canoe", "crew")])
    )
    main = "for turn in range(3):\n    move_ferry()\n    move_barge()\n    horn_ferry()\n    load_barge()\n"
    two = drafted(folder, "two.py", text[: text.index("canoe_x")] + main)
    assert [c.base for c in two.classes] == ["", "", ""]
    three = drafted(
        folder, "line.py", text + main + "    move_canoe()\n    crew_canoe()\nprint(ferry_x, barge_x, canoe_x)\n"
    )
    assert [c.base for c in three.classes] == ["MovingThing"] * 3 + [""]
    assert (
        "move and x, speed are the same in Barge and Canoe, so MovingThing holds what they share"
        in three.classes[0].why
    )


def test_a_handler_counts_from_where_it_is_handed_on(folder):
    """Unseen code cannot call it before: what stands between may still be moved into the constructor."""
    tick = "\n\n\ndef tick():\n    global turns\n    turns += 1\n    log.append(turns)\n\n\n"
    first = "turns = 0\nlog = []\n"
    before = (
        "import sched\n\ns = sched.scheduler()\n" + first + tick + "s.enter(0, 1, tick)\ns.run()\nprint(turns, log)\n"
    )
    after = (
        "import sched" + tick + "s = sched.scheduler()\ns.enter(0, 1, tick)\n" + first + "s.run()\nprint(turns, log)\n"
    )
    for text, start in ((before, "fixed"), (after, "later")):
        fields = [f for c in drafted(folder, "line.py", text).classes for f in c.fields]
        assert {f.name: f.start for f in fields if f.name in ("turns", "log")} == {"turns": start, "log": start}
