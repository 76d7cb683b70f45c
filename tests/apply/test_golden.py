"""What is drafted and built of known programs is what it was; ``benchmarks/golden.py`` compares all of them, and shows what differs."""

import json
import sys
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).parents[2] / "benchmarks"))

import golden

from aedifex.core.planning import drafter
from aedifex.core.rewrites.pipeline import prepare

KEYS = golden.keys()
SOME = [k for k in KEYS if k.startswith("demo ")] + [k for k in KEYS if k.startswith("random ")][::40]


@pytest.mark.parametrize("key", SOME)
def test_design_and_texts_are_what_they_were(key, monkeypatch):
    """``python benchmarks/golden.py --against HEAD --only "<key>"`` shows the difference; ``--accept`` keeps it."""
    monkeypatch.setattr("aedifex.core.apply.verify.new_problems", lambda *_: [])
    assert golden.digest(golden.golden(key)) == json.loads(golden.KEPT.read_text())[key]


def test_each_program_has_its_digest():
    assert sorted(json.loads(golden.KEPT.read_text())) == sorted(KEYS)


AFTERWARDS = {
    "demo fares.py",
    "demo TramDesk.java",
    "demo tramsketch.pde",
}  # prepare more once the classes are known: branches, and variables for literals


@pytest.mark.parametrize("key", [k for k in KEYS if k.startswith("demo ") and k not in AFTERWARDS])
def test_draft_and_build_prepare_a_program_alike(key, tmp_path, monkeypatch):
    """The classes are planned on the very program that the steps before all classes leave behind."""
    program = golden.laid_out(key, tmp_path)
    planned = []
    plan = drafter.plan_file

    def noted(*args):
        planned.append(plan(*args))
        return planned[-1]

    monkeypatch.setattr(drafter, "plan_file", noted)
    design = golden.parse("design", golden.to_toml(golden.draft(program)))[0]
    prepared = prepare(design, program).program
    assert not design.classes or any(made.program.texts == prepared.texts for made in planned)
