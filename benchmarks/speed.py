"""Speed as ratios, side by side in one run:  python benchmarks/speed.py

start-up   aedifex --version          against  python -c "import click"          at most 2.5
reading    scopes and references      against  tree-sitter parsing the same files  at most 3
survey     aedifex survey             against  the same parsing                    at most 5
draft      a script of 2,000 lines    against  aedifex --version                   at most 15
steps      one of aedifex build, which does not run it, against  aedifex survey of the same script  at most 0.25
build      aedifex build of the demo  against  as many times aedifex check as it has steps  at most 0.6
growth     exponent of the survey's time from 500 to 50,000 lines                  at most 1.15
"""

from __future__ import annotations

import json
import math
import os
import shutil
import subprocess
import sys
import sysconfig
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import aedifex
from aedifex.core.analysis.report import survey
from aedifex.core.languages.python.reading.read import parser
from aedifex.core.program.program import read_program

COMMAND = str(Path(sys.executable).parent / "aedifex")
PROGRAMS = Path(aedifex.__file__).parent / "demo" / "programs"
LIBRARY = Path(sysconfig.get_paths()["stdlib"])


def best(work: Callable[[], object], times: int = 5) -> float:
    """Seconds of the fastest of several runs."""
    found = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        found.append(time.perf_counter() - began)
    return min(found)


def run(*command: str) -> Callable[[], object]:
    """The command as a user has it: its modules are compiled once, not at each start."""
    env = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    return lambda: subprocess.run(command, check=True, capture_output=True, env=env)


def script(lines: int) -> str:
    """A made-up procedural script of about so many lines: groups of state, functions on them, calls among them."""
    parts = ['"""A long line."""', "import sys", ""]
    groups = max(1, lines // 25)
    for g in range(groups):
        parts += [f"depot{chr(97 + g % 26)}_{g}_cars = {g}", f"depot{chr(97 + g % 26)}_{g}_log = []"]
    for g in range(groups):
        cars, log = f"depot{chr(97 + g % 26)}_{g}_cars", f"depot{chr(97 + g % 26)}_{g}_log"
        parts += [
            "", "", f"def take_{g}(n):", f"    global {cars}", f"    if {cars} > n:", f"        {cars} -= n", f"        {log}.append(n)",
            f"    return {cars}", "", "", f"def show_{g}():", f"    for entry in {log}:", "        print(entry)",
            f"    total = sum({log}) + {cars}", f"    return total + take_{max(0, g - 1)}(1)",
        ]  # fmt: skip
    parts += ["", "", *(f"print(show_{g}())" for g in range(groups))]
    return "\n".join(parts) + "\n"


def main() -> int:
    rows: list[tuple[str, float, float]] = []
    version = best(run(COMMAND, "--version"))
    rows.append(("start-up", version / best(run(sys.executable, "-c", "import click")), 2.5))
    names = sorted(p.name for p in LIBRARY.glob("*.py"))
    texts = [(LIBRARY / n).read_bytes() for n in names]
    parsing = best(lambda: [parser().parse(t) for t in texts], 3)
    reading = best(lambda: read_program(str(LIBRARY), names), 3)
    rows.append(("reading", reading / parsing, 3.0))
    with tempfile.TemporaryDirectory() as folder:
        for name in names:
            shutil.copy(LIBRARY / name, folder)
        rows.append(("survey", best(run(COMMAND, "survey", "-q", folder), 3) / parsing, 5.0))
    rows.append(("build", demo_build(), 0.6))
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "line.py").write_text(script(2000))
        drafting = best(run(COMMAND, "draft", "--again", "-q", str(Path(folder, "line.py"))), 3)
        rows.append(("draft", drafting / version, 15.0))
        rows.append(("steps", seconds_a_step(folder) / best(run(COMMAND, "survey", "-q", str(Path(folder, "line.py"))), 3), 0.25))
        points = []
        for lines in (500, 2000, 8000, 50_000):
            text = script(lines)
            Path(folder, "grow.py").write_text(text)
            count = text.count("\n")
            points.append((math.log(count), math.log(best(lambda: survey(read_program(folder, ["grow.py"])), 3))))
        rows.append(("growth", slope(points), 1.15))
    for name, value, limit in rows:
        print(f"{name:10} {value:6.2f}   at most {limit:5.2f}   {'ok' if value <= limit else 'TOO SLOW'}")
    return 0 if all(value <= limit for _, value, limit in rows) else 1


def built(design: str, *options: str) -> tuple[float, int]:
    """(seconds that a build takes, steps that it does); everything is put back."""
    began = time.perf_counter()
    done = subprocess.run([COMMAND, "build", "--json", *options, design], check=True, capture_output=True, text=True)
    took = time.perf_counter() - began
    run(COMMAND, "undo", "-q", "--all", design)()
    return took, sum(1 for s in json.loads(done.stdout)["steps"] if s["result"] == "done")


def seconds_a_step(folder: str) -> float:
    took, steps = built(str(Path(folder, "line.design.toml")), "--unchecked")
    return took / steps


def demo_build() -> float:
    """A build of the demo against a check of all its scenarios after each of its steps."""
    with tempfile.TemporaryDirectory() as folder:
        for name in ("tramline.py", "tramline.scenarios.toml"):
            shutil.copy(PROGRAMS / name, folder)
        design = str(Path(folder, "tramline.design.toml"))
        run(COMMAND, "draft", "-q", str(Path(folder, "tramline.py")))()
        run(COMMAND, "record", "-q", design)()
        took, steps = min(built(design) for _ in range(2))
        return took / (steps * best(run(COMMAND, "check", "-q", design), 3))


def slope(points: list[tuple[float, float]]) -> float:
    """Least squares through (log lines, log seconds)."""
    n = len(points)
    mx, my = sum(x for x, _ in points) / n, sum(y for _, y in points) / n
    return sum((x - mx) * (y - my) for x, y in points) / sum((x - mx) ** 2 for x, _ in points)


if __name__ == "__main__":
    sys.exit(main())
