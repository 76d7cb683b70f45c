"""The same state: variables of the original against the fields that replaced them; wanted differences; masks."""

from hypothesis import given
from hypothesis import strategies as st

from aedifex.core.check.compare import compare
from aedifex.core.check.evidence import Observed
from aedifex.core.check.scenarios import Scenario
from aedifex.core.check.state import differing

VALUES = st.sampled_from(["0", "1", "'go'", "[1, 2]", "?", "-"])
CHANGES = st.lists(st.tuples(st.integers(1, 30), VALUES), max_size=12, unique_by=lambda c: c[0]).map(
    lambda rows: [[f"frame {n}", v] for n, v in sorted(rows)]
)


@given(st.dictionaries(st.sampled_from("abc"), CHANGES))
def test_the_same_state_never_differs(state):
    assert differing(state, state) == []
    noisier = {n: [row for m, v in rows for row in ([m, v], [m, v])] for n, rows in state.items()}
    assert differing(state, noisier) == []


@given(CHANGES, CHANGES)
def test_a_difference_is_told_at_its_first_moment(old, new):
    """Against a plain reading of both histories, turn by turn."""

    def at(rows, turn):
        return next((v for m, v in reversed(rows) if int(m.split()[1]) <= turn), "?")

    expected = [(t, at(old, t), at(new, t)) for t in range(1, 31)]
    expected = [(t, a, b) for t, a, b in expected if "?" not in (a, b) and a != "-" and a != b]
    found = differing({"x": old}, {"x": new}) if new else []
    assert bool(found) == bool(expected)
    if found:
        name, moment, before, after, _ = found[0]
        turn, a, b = expected[0]
        assert (name, int(moment.split()[1]), before, after) == ("x", turn, a, "<not set>" if b == "-" else b)


def test_what_cannot_be_seen_says_nothing():
    before = {"x": [["prompt 1", "-"], ["prompt 2", "1"], ["the end", "?"]]}
    assert differing(before, {"x": [["prompt 1", "0"], ["prompt 2", "1"], ["the end", "5"]]}) == []
    assert differing(before, {}) == [] and differing(before, {"y": [["prompt 1", "3"]]}) == []
    assert differing(before, {"x": [["prompt 2", "-"]]})[0][:4] == ("x", "prompt 2", "1", "<not set>")


def seen(**fields):
    return Observed(0, **fields)


def test_a_wanted_difference_and_nothing_else():
    """D7: it passes when exactly that differs; not when it does not, nor when anything else does."""
    before = seen(output="a tram\nto Mill\nend\n", shots={"response 1 (GET /)": "200 OK\n\nold"})
    moved = seen(output="a tram\nto Market\nend\n", shots={"response 1 (GET /)": "200 OK\n\nnew"})
    wanted = [
        {"where": "output", "before": "to Mill", "after": "to Market"},
        {"where": "response 1", "after": "new"},
    ]
    scenario = Scenario("s", expect=wanted)
    assert compare(scenario, before, moved) == []
    [said] = compare(scenario, before, seen(output=moved.output, shots=before.shots))
    assert said.where == "response 1" and "expects anything to become 'new', which it did not" in str(said)
    more = seen(output="a tram\nto Market\nthe end\n", shots=moved.shots)
    [other] = compare(scenario, before, more)
    assert (other.where, other.line, other.before, other.after) == ("output", 3, "end", "the end")
    assert len(compare(Scenario("s"), before, moved)) == 2


def test_an_inserted_line_shifts_nothing_that_is_wanted():
    before, after = seen(output="one\ntwo\nthree"), seen(output="one\nnew\ntwo\nthree")
    assert compare(Scenario("s", expect=[{"where": "output", "after": "new"}]), before, after) == []


def test_a_wanted_state_and_frames_told_once():
    before = seen(state={"x": [["frame 2", "1"]]}, shots={f"frame {n}": f"9x9 {n}" for n in range(1, 6)})
    after = seen(state={"x": [["frame 2", "2"]]}, shots={f"frame {n}": f"9x9 {n + (n > 2)}" for n in range(1, 6)})
    frames, state = compare(Scenario("s"), before, after)
    assert str(frames) == "scenario 's', frame 3: the picture is another, and so on (3 frames differ)"
    assert str(state) == "scenario 's', state of x at frame 2: it was '1', now it is '2'"
    expect = [
        {"where": "state x", "before": "1", "after": "2"},
        {"where": "frame 3"},
        {"where": "frame 4"},
        {"where": "frame 5"},
    ]
    assert compare(Scenario("s", expect=expect), before, after) == []
    assert [d.where for d in compare(Scenario("s", expect=expect[:1]), before, after)] == ["frame 3"]


def test_ends_and_addresses():
    a, b = seen(output="<Tram object at 0x7f00aa>", turns=3), seen(output="<Tram object at 0x7f11bb>", turns=3)
    assert compare(Scenario("s"), a, b) == []
    [said] = compare(Scenario("s"), seen(turns=3), seen(turns=4))
    assert "it ended by itself after 3 turns" in str(said)


def test_a_wanted_difference_end_to_end(folder):
    """While the build goes on it need not have come; at its end the build says so, and a check wants exactly it."""
    folder.write(
        "line.py",
        "ride_count = 0\nride_total = 0\n\n\ndef ride():\n    global ride_count, ride_total\n    ride_count += 1\n    ride_total += ride_count\n\n\n"
        "def report():\n    return f'counted {ride_count}, total {ride_total}'\n\n\nride()\nride()\nprint(report())\nprint('end')\n",
    )
    expect = 'expect = [{ where = "output", before = "counted 2, total 3", after = "2 rides, total 3" }]\n'
    folder.write("line.scenarios.toml", "[[scenario]]\nname = 'run'\n" + expect)
    folder.aedifex("draft", "-q", "line.py")
    built = folder.aedifex("build", "line.design.toml")
    assert built.returncode == 1 and "every step stands, but not what the scenarios expect" in built.stdout, (
        built.stdout
    )
    assert "done     method:Ride.report" in built.stdout
    check = folder.aedifex("check", "line.scenarios.toml")
    assert check.returncode == 1 and "which it did not" in check.stdout
    text = folder.read("ride.py")
    folder.write("ride.py", text.replace("counted {self._count},", "{self._count} rides,"))
    done = folder.aedifex("check", "line.scenarios.toml")
    assert done.returncode == 0, done.stdout + folder.read("ride.py")
    folder.write("line.py", folder.read("line.py") + "print('more')\n")
    assert folder.aedifex("check", "line.scenarios.toml").returncode == 1


def test_a_field_whose_old_name_then_means_something_else(folder):
    """Once the variable is gone, its name is that of a star import again: the field is watched, not that."""
    folder.write(
        "line.py",
        "import sys\nfrom math import *\n\nfloor = 0\ntrams = []\n\n\ndef go_up(by):\n    global floor\n    floor += by\n    trams.append(floor)\n\n\ndef tell():\n    print(floor, trams, round(pi))\n\n\nfor line in sys.stdin:\n    go_up(len(line))\n    tell()\n",
    )
    folder.write("line.scenarios.toml", "[[scenario]]\nname = 'typed'\nrunner = 'process'\nstdin = 'a\\nbb\\n'\n")
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    done = folder.aedifex("build", "line.design.toml")
    assert done.returncode == 0 and "The program did the same" in done.stderr, done.stdout + done.stderr
