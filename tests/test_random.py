"""Random small programs are drafted and built, and print what they printed before."""

import random
import tempfile
from pathlib import Path

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from inprocess import here
from programs import Maker
from programs_classes import ClassMaker
from programs_console import TYPED, ConsoleMaker
from programs_flow import FlowMaker, MainMaker, ThingMaker
from programs_lifts import lifted
from programs_lists import ListMaker
from programs_nested import DispatchMaker, NestedMaker
from programs_records import RecordMaker

from aedifex.core.build.sequence import run
from aedifex.core.build.verify import verify
from aedifex.core.draft.designfile import parse, to_toml
from aedifex.core.draft.drafter import draft
from aedifex.core.program.language import read_program


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_prints_the_same(seed):
    same_when_built(Maker(seed).program().encode())


@settings(max_examples=28, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_of_lists_prints_the_same(seed):
    same_when_built(ListMaker(seed).program().encode())


@settings(max_examples=28, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_of_records_prints_the_same(seed):
    same_when_built(RecordMaker(seed).program().encode())


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_over_the_data_of_things_prints_the_same(seed):
    same_when_built(ThingMaker(seed).program().encode())


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_in_one_long_function_prints_the_same(seed):
    same_when_built(MainMaker(seed).program().encode())


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_that_asks_hears_and_prints_the_same(seed):
    same_when_built(ConsoleMaker(seed).program().encode(), TYPED)


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_with_functions_in_functions_prints_the_same(seed):
    same_when_built(NestedMaker(seed).program().encode())


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_that_tells_commands_apart_prints_the_same(seed):
    same_when_built(DispatchMaker(seed).program().encode())


@settings(max_examples=16, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
@given(st.integers(0, 10**9))
def test_a_random_program_with_a_class_of_several_jobs_prints_the_same(seed):
    same_when_built(ClassMaker(seed).program().encode())


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
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
    assert to_toml(draft(read_program_again(source))) == text, "the same input gives the same design"


def read_program_again(source: bytes):
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_bytes(source)
        return read_program(folder, ["line.py"])
