"""All that can be refused has one code, one sentence and one cure, is used with the values that it names, and can be explained."""

import ast
import re
from pathlib import Path

import pytest

import aedifex
from aedifex.core.analysis import messages as findings
from aedifex.core.apply.explanations import PAGES, codes, explain, messages
from aedifex.core.program.refusal import Message

CORE = Path(aedifex.__file__).parent / "core"
NAMED = {name: m for page in PAGES for name, m in vars(page).items() if isinstance(m, Message)}
FINDINGS = {name: f for name, f in vars(findings).items() if isinstance(f, findings.Finding)}
HAZARDS = {f.kind.replace(" ", "-") for f in FINDINGS.values()} | {m.value.replace(" ", "-") for m in findings.Means}


def test_every_code_is_explained_and_no_other():
    assert set(codes()) == set(messages()) | HAZARDS
    assert len(codes()) == len(set(codes()))
    assert all(explain(code) and explain(code).do for code in codes())


def raised(path):
    """(the call, the page's name for it) wherever a message is given its values, ``messages.X.at(...)`` or ``report(line, mistakes.X, ...)``."""
    for call in [n for n in ast.walk(ast.parse(path.read_text())) if isinstance(n, ast.Call)]:
        given = (
            [call.func.value]
            if isinstance(call.func, ast.Attribute) and call.func.attr in ("at", "in_file", "on_line")
            else call.args
        )
        for page in given:
            if (
                isinstance(page, ast.Attribute)
                and isinstance(page.value, ast.Name)
                and page.value.id in ("messages", "mistakes")
                and page.attr.isupper()
            ):
                yield call, page.attr


def test_messages_get_the_values_that_they_name():
    """Wherever one is raised: those in braces, no others."""
    used = set()
    for path in CORE.rglob("*.py"):
        for call, name in raised(path):
            m = NAMED.get(name) or FINDINGS[name]
            said = m.sentence if name in FINDINGS else m.sentence + m.cure + (m.by_hand or "")
            named = set(re.findall(r"\{(\w+)\}", said))
            keywords = {k.arg for k in call.keywords} or {"name"}  # DesignCheck.name gives that itself
            assert not named or named == keywords, f"{path.name}:{call.lineno} {name}"
            used.add(name)
    assert {NAMED[n].code for n in used & {*NAMED}} == set(messages()) and used >= {*FINDINGS}


def test_a_sentence_has_one_code():
    said = {}
    for m in NAMED.values():
        said.setdefault(re.sub(r"\{\w+\}", "{}", m.sentence), set()).add(m.code)
    assert not {s: c for s, c in said.items() if len(c) > 1 and s != "{}"}


@pytest.mark.parametrize("code", sorted(messages()))
def test_sentences(code):
    """A sentence has a subject and a verb, its cure is an order; a design is named only where one can be there."""
    m = messages()[code]
    assert not re.match(r"what |nothing tells|it is ", m.sentence.replace("it is built", "")), m.sentence
    assert not re.search(r"[.!]$", m.sentence + m.cure)
    assert "the design" not in (m.cure if m.by_hand is None else m.by_hand) and "  " not in m.sentence


def test_explained_on_the_command_line(folder):
    assert "read-late" in folder.aedifex("explain").stdout.split()
    done = folder.aedifex("explain", "[read-late]")
    assert (
        done.returncode == 0
        and done.stdout.startswith("read-late: '<source>' is read here")
        and "What to do: " in done.stdout
    )
    near = folder.aedifex("explain", "read-latte")
    assert near.returncode == 2 and "perhaps 'read-late' is meant" in near.stderr
