"""Random small programs are drafted and built, and print what they printed before."""

import tempfile
from pathlib import Path

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from inprocess import here
from programs import Maker
from programs_lists import ListMaker
from programs_records import RecordMaker

from aedifex.core.build.sequence import run
from aedifex.core.draft.designfile import parse, to_toml
from aedifex.core.draft.drafter import draft
from aedifex.core.program.language import read_program


@settings(max_examples=140, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_prints_the_same(seed):
    same_when_built(Maker(seed).program().encode())


@settings(max_examples=80, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_of_lists_prints_the_same(seed):
    same_when_built(ListMaker(seed).program().encode())


@settings(max_examples=80, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_of_records_prints_the_same(seed):
    same_when_built(RecordMaker(seed).program().encode())


def same_when_built(source: bytes) -> None:
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
    assert here(last.texts, "line.py") == here({"line.py": source}, "line.py")
    assert to_toml(draft(read_program_again(source))) == text, "the same input gives the same design"


def read_program_again(source: bytes):
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_bytes(source)
        return read_program(folder, ["line.py"])
