"""Random small programs are drafted and built, and print what they printed before."""

import random
import tempfile
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from inprocess import here
from programs import Maker
from programs_classes import ClassMaker
from programs_console import TYPED, ConsoleMaker
from programs_flow import FlowMaker, MainMaker, ThingMaker
from programs_late import LateMaker
from programs_lifts import lifted
from programs_lists import ListMaker
from programs_nested import DispatchMaker, NestedMaker
from programs_records import RecordMaker

from aedifex.core.apply.sequence import run
from aedifex.core.apply.verify import verify
from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program

MAKERS = {  # how many of each; benchmarks/random_programs.py makes thousands
    Maker: 12, LateMaker: 12, ListMaker: 6, RecordMaker: 6, ThingMaker: 5, MainMaker: 5, ConsoleMaker: 5, NestedMaker: 5, DispatchMaker: 5, ClassMaker: 5,
}  # fmt: skip


@pytest.mark.parametrize("maker", MAKERS)
def test_a_random_program_prints_the_same(maker):
    @settings(max_examples=MAKERS[maker], deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
    @given(st.integers(0, 10**9))
    def same(seed):
        same_when_built(maker(seed).program().encode(), TYPED if maker is ConsoleMaker else "")

    same()


@settings(max_examples=14, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9), st.sampled_from([FlowMaker, ClassMaker, MainMaker, ThingMaker, RecordMaker, NestedMaker]))
def test_lines_of_a_random_program_that_become_a_function_do_the_same(seed, maker):
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_text(maker(seed).program())
        program = read_program(folder, ["line.py"])
    before = here(program.texts, "line.py")
    for lines, after in lifted(program, "line.py", random.Random(seed), 6):
        if not isinstance(after, str):
            assert not verify(program, after, ["line.py"]), lines
            assert here(after.texts, "line.py") == before, lines


def same_when_built(source: bytes, typed: str = "") -> None:
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_bytes(source)
        program = read_program(folder, ["line.py"])
    text = to_toml(draft(program))
    design, _, problems = parse("design", text)
    assert not problems
    assert to_toml(design) == text
    last = program
    for outcome, after in run(design, program):
        assert outcome.result != "wrong", [str(p) for p in outcome.problems]
        last = after
    assert here(last.texts, "line.py", typed) == here({"line.py": source}, "line.py", typed)
    if len(source) % 3 == 0:
        assert to_toml(draft(read_program_again(source))) == text, "the same input gives the same design"


def read_program_again(source: bytes):
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_bytes(source)
        return read_program(folder, ["line.py"])
