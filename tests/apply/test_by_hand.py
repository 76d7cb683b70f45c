"""What single steps make of a program is to the byte what a design makes of it."""

from pathlib import Path

import pytest
from conftest import needs

HERE = Path(__file__).parents[1] / "by_hand"
PYTHON = [
    ("lift", "gate1_shut = not", "", "toggle_gate1_shut"),
    ("lift", "gate2_shut = not", "", "toggle_gate2_shut"),
    ("class", "Gate", "gate1_angle,gate2_angle,gate1_step,gate2_step,gate1_shut,gate2_shut,turn_gate1,turn_gate2,draw_gate,toggle_gate1_shut,toggle_gate2_shut"),
    ("app", "Morning", "--fields", "gate1,gate2,lamp,waiting"),
    ("lift", "if key == ", "self._lamp = ", "handle"),
    ("lift", "row = ", "print(", "show"),
    ("hide", "Morning.handle"),
    ("hide", "Morning.show"),
    ("hand", "Gate", "handle_gate"),
    ("gather", "Gate", "gates"),
    ("rename", "Morning._handle", "_handle_gates"),
    ("constants", "WIDTH", "constants.py"),
    ("file", "Gate", "gate.py"),
    ("file", "Morning", "morning.py"),
]  # fmt: skip
JAVASCRIPT = [
    ("lift", "gate1Shut = !", "", "toggleGate1Shut"),
    ("lift", "gate2Shut = !", "", "toggleGate2Shut"),
    ("class", "Gate", "gate1Angle,gate2Angle,gate1Step,gate2Step,gate1Shut,gate2Shut,turnGate1,turnGate2,drawGate,toggleGate1Shut,toggleGate2Shut"),
    ("app", "Morning", "--fields", "gate1,gate2,lamp,waiting"),
    ("lift", 'if (key === "1"', "before const turns", "handle"),
    ("lift", "const row = ", "console.log", "show"),
    ("hide", "Morning.handle"),
    ("hide", "Morning.show"),
    ("hand", "Gate", "handleGate"),
    ("gather", "Gate", "gates"),
    ("rename", "Morning._handle", "_handleGates"),
    ("constants", "WIDTH", "constants.js"),
    ("file", "Gate", "gate.js"),
    ("file", "Morning", "morning.js"),
]  # fmt: skip


def lines_from(folder, script: str, first: str, last: str) -> str:
    """The place of the lines from the one that begins with ``first`` to the next one that begins with ``last``, or to
    the one before that."""
    lines = [line.strip() for line in folder.read(script).split("\n")]
    start = next(i for i, line in enumerate(lines) if line.startswith(first))
    said = (last or first).removeprefix("before ")
    end = next(i for i, line in enumerate(lines) if i >= start and line.startswith(said))
    return f"{script}:{start + 1}-{end + (not last.startswith('before '))}"


@pytest.mark.parametrize(
    ("script", "steps", "handle"), [("gates.py", PYTHON, "handle_key"), ("gates.js", JAVASCRIPT, "handleKey")]
)
def test_single_steps_and_a_design_make_the_same_program(folder, script, steps, handle):
    needs("node")
    folder.write(script, (HERE / script).read_bytes())
    stem, _, ending = script.partition(".")
    design = f"{stem}.design.toml"
    folder.write(f"{stem}.scenarios.toml", '[[scenario]]\nname = "a morning"\nstdin = """1\n1\nl\n2\n\nl\n2\nq\n"""\n')
    for name, *given in steps:
        at = [lines_from(folder, script, *given[:2]), *given[2:]] if name == "lift" else given
        assert folder.aedifex("step", name, *at, script, "--yes", "--unchecked", "-q").returncode == 0, (name, given)
    by_steps = {p.name: p.read_bytes() for p in folder.path.glob(f"*.{ending}")}
    assert folder.aedifex("check", "-q", script).returncode == 0
    assert folder.aedifex("undo", "--all").returncode == 0
    assert {p.name: p.read_bytes() for p in folder.path.glob(f"*.{ending}")} == {script: (HERE / script).read_bytes()}
    assert folder.aedifex("draft", "-q", script).returncode == 0
    renamed = handle.replace("key", "gates").replace("Key", "Gates")
    for name, other in ((handle, renamed), ("draw", "show")):
        hidden, wanted = f'name = "{name}"\nlines', f'name = "{other}"\nlines'
        assert folder.read(design).count(hidden) == 1
        folder.write(design, folder.read(design).replace(hidden, wanted))
    assert folder.aedifex("build", "-q", "--unchecked", design).returncode == 0
    assert {p.name: p.read_bytes() for p in folder.path.glob(f"*.{ending}")} == by_steps
