"""Step cases: one text file each, with a design, the files before and the files after, or the refusal.

    --- step found:Tram
    --- design
    [[class]] ...
    --- before line.py
    ...
    --- after line.py
    ...
    --- refused            (instead of "after": the code, the place)

A case that begins with ``--- by hand lift line.py:3-4 told`` has no design: a person asks for the one step. The language is that of the first file;
``--- beside other.py`` is in the folder and not among the scripts. ``python tests/cases.py --accept FILE...`` writes what the step gives into a case; read it before you keep it.
"""

from __future__ import annotations

import re
import shlex
import sys
import tempfile
from pathlib import Path

import together

from aedifex.core.apply.by_hand import by_hand
from aedifex.core.apply.sequence import run
from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.design.toml import parse
from aedifex.core.program.errors import Refused, Says
from aedifex.core.program.language import language_of
from aedifex.core.program.program import Program, read_program
from aedifex.core.program.refusal import Refusal
from aedifex.core.program.surroundings import digest

STEPS = Path(__file__).parent / "steps"
REFUSALS = Path(__file__).parent / "refusals"


def load(path: Path) -> dict[str, str]:
    """Section title → text."""
    parts = re.split(r"^--- (.+)\n", path.read_text(), flags=re.M)
    return dict(zip(parts[1::2], parts[2::2], strict=True))


def files(case: dict[str, str], kind: str) -> dict[str, str]:
    found = {title.split()[1]: text for title, text in case.items() if title.startswith(kind + " ")}
    if "crlf" in case:
        found = {name: text.replace("\n", "\r\n") for name, text in found.items()}
    return found


def apply(case: dict[str, str]) -> tuple[dict[str, str], str]:
    """(files after the step and all steps before it, its refusal or "")."""
    wanted = next(t for t in case if t.startswith(("step ", "by hand ")))
    before = files(case, "before")
    with tempfile.TemporaryDirectory() as folder:
        for name, text in {**before, **files(case, "beside")}.items():
            Path(folder, name).parent.mkdir(parents=True, exist_ok=True)
            Path(folder, name).write_bytes(text.encode())
        program = read_program(folder, [n for n in before if n.endswith(language_of(next(iter(before))).suffixes)])
        if wanted.startswith("by hand "):
            return alone(program, *shlex.split(wanted)[2:])
        sources = ", ".join(f'"{n}" = "{digest(t.encode())}"' for n, t in before.items() if n in program.texts)
        language = program.language.name
        head = f'format = 1\nlanguage = "{language}"\nentries = ["{next(iter(before))}"]\nsources = {{ {sources} }}\n'
        design, _, problems = parse("design", head + case["design"])
        assert not problems, problems
        program_after = program
        for outcome, after in run(design, program):
            assert outcome.result != "wrong", [str(p) for p in outcome.problems]
            if outcome.step.id == wanted.split()[1]:
                if outcome.refusal is not None:
                    return {}, coded(outcome.refusal)
                return {n: text.decode() for n, text in after.texts.items()}, ""
            program_after = after
        raise AssertionError(f"no {wanted}: {program_after}")


def coded(refusal: Refusal | Says | None) -> str:
    """A refusal as the cases have it: its code, its place, and the reason where that comes from elsewhere."""
    assert isinstance(refusal, Refusal)
    return " ".join(x for x in (refusal.code, refusal.place, str(refusal.values.get("why", ""))) if x)


def alone(program: Program, step: str, *given: str) -> tuple[dict[str, str], str]:
    """(the files after one step by hand, its refusal or "")."""
    try:
        return {n: text.decode() for n, text in by_hand(program, step, *given).after.texts.items()}, ""
    except Refused as error:
        return {}, coded(error.refusal) if error.refusal is not None else str(error)


def outputs(texts: dict[str, str]) -> tuple[object, ...]:
    """Exit status, output and what was drawn by a program made of these files; the first is started."""
    with tempfile.TemporaryDirectory() as folder:
        for name, text in texts.items():
            Path(folder, name).write_bytes(text.encode())
        first = next(iter(texts))
        program = read_program(folder, [n for n in texts if n.endswith(language_of(first).suffixes)])
        if together.fits(program):
            return (together.observed(program, first),)
        world = World(folder, first, program.language, {}, list(program.files.values()))
        seen = observe(Scenario("case"), world)
        assert not seen.trouble, seen.trouble
        return seen.status, seen.output, seen.error.splitlines()[-1:], seen.shots


def accept(path: Path) -> None:
    case = load(path)
    after, refusal = apply(case)
    text = path.read_text().split("--- after ")[0].split("--- refused")[0].rstrip("\n") + "\n"
    if refusal:
        text += f"--- refused\n{refusal}\n"
    for name, content in after.items():
        text += f"--- after {name}\n" + content.replace("\r\n", "\n")
    path.write_text(text)


if __name__ == "__main__":
    for argument in sys.argv[2:]:
        accept(Path(argument))
