"""Step cases: one text file each, with a design, the files before and the files after, or the refusal.

    --- step found:Tram
    --- design
    [[class]] ...
    --- before line.py
    ...
    --- after line.py
    ...
    --- refused            (instead of "after": the whole message)

``python tests/cases.py --accept FILE...`` writes what the step gives into a case; read it before you keep it.
"""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
from pathlib import Path

from aedifex.core.build.sequence import run
from aedifex.core.draft.designfile import parse
from aedifex.core.draft.drafter import digest
from aedifex.core.program.language import read_program

STEPS = Path(__file__).parent / "steps"


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
    wanted = next(t.split()[1] for t in case if t.startswith("step "))
    before = files(case, "before")
    with tempfile.TemporaryDirectory() as folder:
        for name, text in before.items():
            Path(folder, name).write_bytes(text.encode())
        program = read_program(folder, list(before))
        sources = ", ".join(f'"{n}" = "{digest(t.encode())}"' for n, t in before.items())
        head = f'format = 1\nlanguage = "python"\nentries = ["{next(iter(before))}"]\nsources = {{ {sources} }}\n'
        design, _, problems = parse("design", head + case["design"])
        assert not problems, problems
        program_after = program
        for outcome, after in run(design, program):
            assert outcome.result != "wrong", [str(p) for p in outcome.problems]
            if outcome.step.id == wanted:
                if outcome.refusal is not None:
                    return {}, str(outcome.refusal)
                return {n: f.text.decode() for n, f in after.files.items()}, ""
            program_after = after
        raise AssertionError(f"no step {wanted}: {program_after}")


def outputs(texts: dict[str, str]) -> tuple[int, str]:
    """Exit status and output of a program made of these files; the first is started."""
    with tempfile.TemporaryDirectory() as folder:
        for name, text in texts.items():
            Path(folder, name).write_bytes(text.encode())
        done = subprocess.run(
            [sys.executable, "-B", next(iter(texts))], cwd=folder, capture_output=True, text=True, timeout=30
        )
        return done.returncode, done.stdout + "".join(done.stderr.splitlines()[-1:])


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
