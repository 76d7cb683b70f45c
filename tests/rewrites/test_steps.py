"""Each step by pairs of files before and after; both are run, and do the same.

This is what every language must pass: ``tests/steps/LANGUAGE/STEP/*.txt``, at least one pair for each kind of step.
"""

import ast
import sys
from pathlib import Path

import pytest
from cases import REFUSALS, STEPS, apply, files, load, outputs
from conftest import needs

import aedifex
from aedifex.core.program.language import languages
from aedifex.core.rewrites.step import Step

CASES = sorted([*STEPS.rglob("*.txt"), *REFUSALS.rglob("*.txt")])
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


# kind of step → whether a language must show it; every language must show all others
WHERE = {
    "split": lambda language: language.declares,
    "stream": lambda language: language.streams is not None,
    "extend": lambda language: language.name in ("python", "java"),
    "records": lambda language: language.name in ("python", "javascript", "typescript"),
    "wrap": lambda language: language.name in ("python", "javascript", "typescript"),
    "register": lambda language: language.name == "python",
    "open": lambda language: not language.joined,
    "handlers": lambda language: not language.joined,
    "bare": lambda language: language.bare_members,
    "listeners": lambda language: language.listening is not None and not language.joined,
    "base": lambda language: not language.joined,
    "order": lambda language: not language.joined,
    "setup": lambda language: language.code_at_top,
    "hand": lambda language: language.code_at_top,
    "fill": lambda language: language.name in ("python", "sketch"),
    "gather": lambda language: language.code_at_top or language.joined,
    "constants": lambda language: language.placement == "imports",
}


def kinds(of=Step):
    """Those of the package: a test that adds one, and takes it away, may have run before."""
    own = [s for s in of.__subclasses__() if s.__module__.startswith("aedifex.") and s.__module__ in sys.modules]
    return {k for s in own for k in [*kinds(s), getattr(s, "kind", "")]} - {"", "class", "stay"}


@pytest.mark.parametrize("language", sorted(languages()))
def test_every_kind_of_step_has_cases(language):
    read = languages()[language]
    own = {p.parent.name for p in CASES if p.parts[-3] == language}
    if language == "typescript":
        own |= {p.parent.name for p in CASES if p.parts[-3] == "javascript"}
    missing = {k for k in kinds() if WHERE.get(k, bool)(read)} - own
    assert not missing, missing


def test_no_list_of_kinds_stands_anywhere():
    """A kind of change says in its own file what it is: no list, and no table, names several of them."""
    known = kinds()
    for path in Path(aedifex.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())) if "languages" not in path.parts else ():
            named = (
                node.elts
                if isinstance(node, (ast.List, ast.Tuple, ast.Set))
                else node.keys
                if isinstance(node, ast.Dict)
                else []
            )
            assert len({n.value for n in named if isinstance(n, ast.Constant)} & known) < 2, f"{path}:{node.lineno}"
