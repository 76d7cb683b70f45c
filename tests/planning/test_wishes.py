"""Whatever a person wants together, each step stands or is refused with a reason, and the program does the same."""

import random
import tempfile
from pathlib import Path

import pytest
from conftest import needs

from aedifex.core.analysis.effects import module_variables
from aedifex.core.apply.sequence import run
from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import load
from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import WishDesign
from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program

DEMO = Path(__import__("aedifex").__file__).parent / "demo" / "programs"
PROGRAMS = {
    "tramline.py": ["tramline.py"],
    "tramcanvas.js": ["tramcanvas.js"],
    "TramDesk.java": ["TramDesk.java"],
    "tramsketch.pde": ["tramsketch.pde", "conductor.pde"],
}
TOOL = {"tramline.py": "python3", "tramcanvas.js": "node", "TramDesk.java": "javac", "tramsketch.pde": "javac"}


def wanted(names: list[str], seed: int) -> list[WishDesign]:
    """One to three classes of some variables each, in any mixture, and some that must stay."""
    chance = random.Random(seed)
    chance.shuffle(names)
    wishes = []
    for number in range(chance.randint(1, 3)):
        size = chance.randint(1, 6)
        wishes.append(WishDesign(together=as_origins(*names[:size]), class_=f"Wish{'ABC'[number]}"))
        names = names[size:]
    return [
        *(w for w in wishes if w.together),
        *(WishDesign(keep=as_origins(n)) for n in names[: chance.randint(0, 2)]),
    ]


@pytest.mark.parametrize("entry, seed", [*((entry, 0) for entry in PROGRAMS), ("tramline.py", 1), ("tramcanvas.js", 1)])
def test_a_wish_is_fulfilled_or_refused_and_nothing_changes(entry, seed):
    needs(TOOL[entry])
    with tempfile.TemporaryDirectory() as folder:
        for name in PROGRAMS[entry]:
            Path(folder, name).write_bytes((DEMO / name).read_bytes())
        program = read_program(folder, PROGRAMS[entry])
        (file,) = program.files.values()
        wishes = wanted(sorted(s.name for s in module_variables(file) if "import" not in s.kinds), seed)
        text = to_toml(draft(program, wishes=wishes))
        design, _, problems = parse("design", text)
        assert not problems, (problems, text)
        kept = {n for w in wishes for n in w.keep}
        assert not kept & {o for c in design.classes for f in c.fields for o in f.origins}
        last, told = program, []
        for outcome, after in run(design, program):
            told.append(f"{outcome.step.id}: {outcome.result} {outcome.refusal or ''}")
            assert outcome.result != "wrong", (told, [str(p) for p in outcome.problems], text)
            assert outcome.result != "refused" or outcome.refusal
            last = after
        assert behaviour(program, folder, entry) == behaviour(last, folder, entry), (told, text)


def behaviour(program, folder: str, entry: str) -> list[tuple]:
    """What the demo's own scenarios show of it."""
    name = entry.rsplit(".", 1)[0] + ".scenarios.toml"
    scenarios = load(str(DEMO / name))
    world = World(folder, entry, program.language, dict(program.texts), list(program.files.values()))
    found = []
    for scenario in scenarios[:2]:
        seen = observe(scenario, world)
        assert not seen.trouble, seen.trouble
        found.append((seen.status, seen.output, seen.shots, seen.error))
    return found
