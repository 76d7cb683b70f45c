"""Random small programs: run, drafted, built, run again, and told where anything differs or is refused.

    python benchmarks/random_programs.py FIRST COUNT [--last] [--parts|--lifts] [--kind KIND]

The programs are made by ``tests/makers/programs*.py`` from the seeds FIRST to FIRST + COUNT - 1, so a run can go on where another ended.
Python's are run in this process, the others as a check runs them. With --last a compiler reads only what stands after
the last step, and Java's programs run in one process, which takes a quarter of the time. A line for each finding, and one with the counts at the end;
exit status 1 if a program differs, a step is wrong, or anything crashes.
"""

from __future__ import annotations

import argparse
import collections
import random
import sys
import tempfile
import unittest.mock
from pathlib import Path

ROOT = Path(__file__).parent.parent
sys.path[:0] = [str(ROOT / "tests"), str(ROOT / "tests" / "makers")]

from programs_lifts import lifted  # noqa: E402
from programs_parts import taken_out  # noqa: E402
from registry import MAKERS, entry_of, seen  # noqa: E402

from aedifex.core.apply.sequence import run  # noqa: E402
from aedifex.core.apply.verify import verify  # noqa: E402
from aedifex.core.design.toml import parse, to_toml  # noqa: E402
from aedifex.core.planning.drafter import draft  # noqa: E402
from aedifex.core.program.program import Program, read_program  # noqa: E402

Seen = tuple[object, ...]
LAST = False  # whether only what stands after the last step is compiled, and programs of one engine run in one process


def one(kind: str, seed: int, count: collections.Counter[str]) -> list[str]:
    """What is to be told of one program."""
    entry, told, maker = entry_of(kind), [], MAKERS[kind]
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(maker(seed).program())
        program = last = read_program(folder, [entry])
        design = parse("design", to_toml(draft(program)))[0]
        for outcome, after in run(design, program):
            count[outcome.result] += 1
            if outcome.result in ("wrong", "refused"):
                why = outcome.refusal or "; ".join(map(str, outcome.problems))
                told.append(f"{outcome.result} {outcome.step.id}: {why}")
            last = after
        def look(p: Program) -> Seen:
            return seen(p, folder, entry, LAST)

        count["programs"] += 1
        count["rearranged"] += last is not program
        before = look(program) if last is not program else ()
        if before and "refuses it" in str(before[0]):
            count["unfit"] += 1  # the maker's program does not compile itself
        elif last is not program and before != look(last):
            told.append("differs")
    return told


def parts(kind: str, seed: int, count: collections.Counter[str]) -> list[str]:
    """One job after the other is taken out of the class of a random program, whatever a draft would propose; what is to be told of that."""
    entry, told = entry_of(kind), []
    made = MAKERS[kind](seed)
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(made.program())
        program = read_program(folder, [entry])
        for job, after in taken_out(program, entry, made.jobs):
            count["refused" if after is None else "taken out"] += 1
            if after is not None:
                told += [f"wrong {job}: {p}" for p in verify(program, after, [entry])]
                if not told and seen(program, folder, entry, LAST) != seen(after, folder, entry, LAST):
                    told.append(f"differs without {job}")
    count["programs"] += 1
    return told


def lifts(kind: str, seed: int, count: collections.Counter[str]) -> list[str]:
    """Lines and expressions of a random program become functions one by one; what is to be told of that."""
    entry, told = entry_of(kind), []
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(MAKERS[kind](seed).program())
        program = read_program(folder, [entry])
        def look(p: Program) -> Seen:
            return seen(p, folder, entry, LAST)

        before = look(program)
        for lines, after in lifted(program, entry, random.Random(seed), 12):
            count["refused" if isinstance(after, str) else "lifted"] += 1
            if not isinstance(after, str):
                wrong = [f"wrong {lines}: {p}" for p in verify(program, after, [entry])]
                told += wrong or ([f"differs {lines}"] if look(after) != before else [])
    count["programs"] += 1
    return told


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("first", type=int)
    parser.add_argument("count", type=int)
    parser.add_argument("--kind", choices=MAKERS, default="Python")
    parser.add_argument("--parts", action="store_true", help="take parts out of classes instead of building what is drafted")
    parser.add_argument("--lifts", action="store_true", help="lift lines chosen by chance instead")
    parser.add_argument("--last", action="store_true", help="compile only what stands after the last step")
    options = parser.parse_args()
    if options.last:
        global LAST
        LAST = True
        unittest.mock.patch("aedifex.core.apply.verify.new_problems", return_value=[]).start()
    count: collections.Counter[str] = collections.Counter()
    bad = 0
    for seed in range(options.first, options.first + options.count):
        try:
            told = (parts if options.parts else lifts if options.lifts else one)(options.kind, seed, count)
        except Exception as error:
            told = [f"crashes: {type(error).__name__}: {error}"]
        for line in told:
            print(f"{options.kind} {seed}: {line}", flush=True)
            bad += not line.startswith("refused")
    print(options.kind, options.first, options.count, dict(count), f"{bad} bad", flush=True)
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
