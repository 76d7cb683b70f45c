"""What is drafted and built of programs for which it was written by hand what should become of them: ``tests/targets``."""

import shutil
import sys
from pathlib import Path

import pytest
from conftest import needs

ROOT = Path(__file__).parents[2]
TARGETS = ROOT / "tests" / "targets"
sys.path.append(str(ROOT / "benchmarks"))

import targets  # noqa: E402

LEAST = 0.85  # of the structure that is wanted


@pytest.mark.parametrize("pair", sorted(p.name for p in TARGETS.iterdir()))
def test_it_becomes_what_one_would_write(folder, pair):
    """Without an edit, and the program does the same."""
    before, after = targets.sides(TARGETS / pair)
    shutil.copytree(before, folder.path, dirs_exist_ok=True)
    [script] = [p.relative_to(folder.path) for p in folder.path.rglob("*") if p.suffix in targets.SUFFIXES]
    if script.suffix == ".pde":
        needs("javac")
    design = script.with_suffix(".design.toml")
    assert folder.aedifex("draft", "-q", str(script)).returncode == 0
    tried = [] if (folder.path / script.with_suffix(".scenarios.toml")).exists() else ["--suggest"]
    assert folder.aedifex("record", *tried, "-q", str(design)).returncode == 0
    built = folder.aedifex("build", "--unchecked", str(design))
    assert built.returncode == 0, built.stdout + built.stderr
    assert folder.aedifex("check", str(design)).returncode == 0
    made, wanted = targets.structure_of(folder.path), targets.structure_of(after)
    found = targets.distances(made, wanted)
    assert targets.mean(found) >= LEAST, found
