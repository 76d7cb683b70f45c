"""Each step by pairs of files before and after; both are run, and do the same."""

import pytest
from cases import STEPS, apply, files, load, outputs

CASES = sorted(STEPS.rglob("*.txt"))


@pytest.mark.parametrize("path", CASES, ids=lambda p: f"{p.parent.name}-{p.stem}")
def test_step(path):
    case = load(path)
    after, refusal = apply(case)
    assert refusal == case.get("refused", "").strip()
    wanted = files(case, "after")
    assert wanted or refusal, "a case shows what comes out, or why nothing does"
    assert {n: t.replace("\r\n", "\n") for n, t in after.items()} == {
        n: t.replace("\r\n", "\n") for n, t in wanted.items()
    }
    if "crlf" in case:
        assert all("\n" not in text.replace("\r\n", "") for text in after.values())
    if after:
        assert outputs(after) == outputs(files(case, "before"))


def test_every_kind_of_step_has_cases():
    for kind in ("found", "method", "pass_in", "main_code", "move_file", "clean"):
        assert len([p for p in CASES if p.parent.name == kind]) >= 2
