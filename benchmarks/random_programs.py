"""Random small programs: run, drafted, built, run again, and told where anything differs or is refused.

    python benchmarks/random_programs.py FIRST COUNT [--last] [--parts|--lifts] [--kind Python|Lists|Records|Flow|Things|Main|Console|Classes|JavaScript|Module|Java|JavaMain|Sketch|ArraysJavaScript|ArraysJava|ArraysSketch|RecordsJavaScript|ClassesJavaScript|ClassesJava|FlowJavaScript|FlowJava|Nested|Dispatch|NestedJavaScript|WrappedJavaScript|Late|LateJavaScript|LateJava|LateSketch]

The programs are made by ``tests/programs*.py`` from the seeds FIRST to FIRST + COUNT - 1, so a run can go on where another ended.
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
from typing import Any

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT / "tests"))

import programs  # noqa: E402
import programs_arrays  # noqa: E402
import programs_curly  # noqa: E402
import programs_curly_classes  # noqa: E402
import programs_curly_flow  # noqa: E402
import programs_late  # noqa: E402
import programs_lists  # noqa: E402
import programs_nested  # noqa: E402
import programs_records  # noqa: E402
import together  # noqa: E402
from inprocess import here  # noqa: E402
from programs_classes import ClassMaker  # noqa: E402
from programs_console import TYPED, ConsoleMaker  # noqa: E402
from programs_flow import FlowMaker, MainMaker, ThingMaker  # noqa: E402
from programs_lifts import lifted  # noqa: E402
from programs_nested import DispatchMaker, NestedMaker  # noqa: E402
from programs_parts import taken_out  # noqa: E402

from aedifex.core.apply.sequence import run  # noqa: E402
from aedifex.core.apply.verify import verify  # noqa: E402
from aedifex.core.check.check import observe  # noqa: E402
from aedifex.core.check.run_environment import World  # noqa: E402
from aedifex.core.check.scenarios import Scenario  # noqa: E402
from aedifex.core.design.toml import parse, to_toml  # noqa: E402
from aedifex.core.planning.drafter import draft  # noqa: E402
from aedifex.core.program.program import Program, read_program  # noqa: E402

ENTRY = {"Python": "line.py", "Lists": "line.py", "Records": "line.py", "Flow": "line.py", "Things": "line.py", "Main": "line.py", "Console": "line.py", "Classes": "line.py", "JavaScript": "line.js", "Module": "line.mjs", "Java": "Line.java", "JavaMain": "Line.java", "Sketch": "line.pde", "ArraysJavaScript": "line.js", "ArraysJava": "Line.java", "ArraysSketch": "line.pde", "RecordsJavaScript": "line.js", "ClassesJavaScript": "line.js", "ClassesJava": "Line.java", "FlowJavaScript": "line.js", "FlowJava": "Line.java", "Nested": "line.py", "Dispatch": "line.py", "NestedJavaScript": "line.js", "WrappedJavaScript": "line.js", "Late": "line.py", "LateJavaScript": "line.js", "LateJava": "Line.java", "LateSketch": "line.pde"}
Seen = tuple[object, ...]
LAST = False  # whether only what stands after the last step is compiled, and programs of one engine run in one process


def observed(program: Program, root: str, entry: str) -> Seen:
    if LAST and together.fits(program):
        return (together.observed(program, entry),)
    world = World(root, entry, program.language, dict(program.texts), list(program.files.values()))
    seen = observe(Scenario("run"), world)
    return seen.trouble, seen.status, seen.output, seen.shots


def maker_of(kind: str) -> Any:
    made = {"Python": programs.Maker, "Lists": programs_lists.ListMaker, "Records": programs_records.RecordMaker, "Flow": FlowMaker, "Things": ThingMaker, "Main": MainMaker, "Console": ConsoleMaker, "Classes": ClassMaker, "Nested": NestedMaker, "Dispatch": DispatchMaker, **programs_late.MAKERS}
    return made.get(kind) or next(getattr(m, kind) for m in (programs_arrays, programs_curly, programs_curly_classes, programs_curly_flow, programs_nested) if hasattr(m, kind))


def one(kind: str, seed: int, count: collections.Counter[str]) -> list[str]:
    """What is to be told of one program."""
    entry, told, maker = ENTRY[kind], [], maker_of(kind)
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
        look = (lambda p: here(p.texts, entry, TYPED)) if entry.endswith(".py") else (lambda p: observed(p, folder, entry))
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
    entry, told = ENTRY[kind], []
    made = ClassMaker(seed) if kind == "Classes" else getattr(programs_curly_classes, kind)(seed)
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(made.program())
        program = read_program(folder, [entry])
        for job, after in taken_out(program, entry, made.jobs):
            count["refused" if after is None else "taken out"] += 1
            if after is not None:
                told += [f"wrong {job}: {p}" for p in verify(program, after, [entry])]
                if not told and observed(program, folder, entry) != observed(after, folder, entry):
                    told.append(f"differs without {job}")
    count["programs"] += 1
    return told


def lifts(kind: str, seed: int, count: collections.Counter[str]) -> list[str]:
    """Lines and expressions of a random program become functions one by one; what is to be told of that."""
    entry, told = ENTRY[kind], []
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, entry).write_text(maker_of(kind)(seed).program())
        program = read_program(folder, [entry])
        look = (lambda p: here(p.texts, entry, TYPED)) if entry.endswith(".py") else (lambda p: observed(p, folder, entry))
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
    parser.add_argument("--kind", choices=ENTRY, default="Python")
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
