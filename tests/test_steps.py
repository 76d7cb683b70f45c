"""Each step by pairs of files before and after; both are run, and do the same.

This is what every language must pass: ``tests/steps/LANGUAGE/STEP/*.txt``, at least one pair for each kind of step.
"""

import pytest
from cases import STEPS, apply, files, load, outputs
from conftest import needs

from aedifex.core.program.language import languages

CASES = sorted(STEPS.rglob("*.txt"))
KINDS = ("found", "method", "pass_in", "main_code", "move_file", "clean", "rename", "lift", "collect")
TOOLS = {"java": "javac", "sketch": "javac", "javascript": "node", "typescript": "node"}


@pytest.mark.parametrize("path", CASES, ids=lambda p: "-".join([*p.parts[-3:-1], p.stem]))
def test_step(path):
    if path.parts[-3] in TOOLS:
        needs(TOOLS[path.parts[-3]])
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


@pytest.mark.parametrize("language", sorted(languages()))
def test_every_kind_of_step_has_cases(language):
    own = [p.parent.name for p in CASES if p.parts[-3] == language]
    missing = [kind for kind in KINDS if kind not in own]
    assert not missing, f"{language} shows no case of {missing}"
    if languages()[language].declares:
        assert "split" in own, "a language whose declarations hold several variables shows how they are taken apart"
