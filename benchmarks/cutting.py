"""How far the cuts told for long functions agree with the blank lines and remarks that their authors left.

    python benchmarks/cutting.py [--seed N] [--count N] [--list]

Takes functions of 40 lines and more with at least three such gaps, one a file, in turn of Python's standard library and of installed
packages. Of all gaps between two statements of their bodies: how many of the cuts stand where the author left a blank line or a remark
(precision), how many of the author's are found (recall), on how many both agree, and that agreement less what chance would give
(Cohen's kappa); next to cutting wherever the concern changes, and to cutting everywhere. The weights in ``analysis/regions/paragraphs.py`` were
fitted to functions of seed 1.
"""

from __future__ import annotations

import argparse
import random
import sysconfig
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path

from aedifex.core.analysis.concerns import Concerns
from aedifex.core.analysis.effects import Effects
from aedifex.core.analysis.regions.paragraphs import MIN_FUNCTION_LINES, cut_points
from aedifex.core.program.errors import AedifexError
from aedifex.core.program.model import Function, SourceFile, Statement
from aedifex.core.program.program import read_program

LEAST = 3  # gaps that the author left in a function
APART = ("test", "lib2to3", "idlelib", "aedifex")


def files(seed: int) -> Iterator[Path]:
    rng, rows = random.Random(seed), []
    for kind in ("stdlib", "purelib"):
        root = Path(sysconfig.get_paths()[kind])
        row = sorted(p for p in root.rglob("*.py") if not any(a in str(p.relative_to(root)) for a in APART) and (kind == "purelib" or "site-packages" not in str(p)))
        rng.shuffle(row)
        rows.append(row)
    for pair in zip(*rows, strict=False):
        yield from pair


def left_apart(file: SourceFile, a: Statement, b: Statement) -> bool:
    lines = file.slice(a.end, b.start).split("\n")[1:-1]
    return any(not line.strip() or line.strip().startswith("#") for line in lines)


def long_functions(seed: int, count: int) -> Iterator[tuple[Path, Function, Concerns, list[Statement]]]:
    for path in files(seed):
        try:
            program = read_program(str(path.parent), [path.name])
        except (AedifexError, OSError):
            continue
        (file,) = program.files.values()
        for f in file.functions if not file.problems else ():
            body = [s for s in program.language.body(file, f) if s.kind not in ("docstring", "declare", "function", "class")]
            own = f.outer is file.scope or f.outer.kind == "class"
            if own and len(body) >= 8 and file.line(f.end) - file.line(f.start) + 1 >= MIN_FUNCTION_LINES and sum(left_apart(file, a, b) for a, b in pairwise(body)) >= LEAST:
                yield path, f, Concerns(file, program.language, Effects(file, program.language)), body
                count -= 1
                break
        if not count:
            return


def agreement(rows: list[tuple[list[bool], list[bool]]]) -> str:
    """``rows``: for each function what was cut, and where its author left a gap."""
    pairs = [(a, b) for cut, left in rows for a, b in zip(cut, left, strict=True)]
    both, cuts, left = sum(a and b for a, b in pairs), sum(a for a, _ in pairs), sum(b for _, b in pairs)
    same = sum(a == b for a, b in pairs) / len(pairs)
    chance = (cuts * left + (len(pairs) - cuts) * (len(pairs) - left)) / len(pairs) ** 2
    return f"{both / max(1, cuts):9.3f} {both / left:9.3f} {same:9.3f} {(same - chance) / (1 - chance):9.3f}"


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--seed", type=int, default=2)
    parser.add_argument("--count", type=int, default=30)
    parser.add_argument("--list", action="store_true", help="show each function with its cuts and its author's gaps, as lines")
    options = parser.parse_args()
    ways: dict[str, list[tuple[list[bool], list[bool]]]] = {"told": [], "concern changes": [], "everywhere": []}
    for path, f, about, body in long_functions(options.seed, options.count):
        file, cuts = about.file, set(cut_points(about, f.scope, body))
        left = [left_apart(file, a, b) for a, b in pairwise(body)]
        ways["told"].append(([i in cuts for i in range(len(left))], left))
        ways["concern changes"].append(([about.of(a, True) != about.of(b, True) for a, b in pairwise(body)], left))
        ways["everywhere"].append(([True] * len(left), left))
        if options.list:
            line = lambda i: file.shown(body[i + 1].start)  # noqa: E731, B023
            print(f"{path}:{file.shown(f.start)} {f.name}\n  cut  {[line(i) for i in sorted(cuts)]}\n  left {[line(i) for i, x in enumerate(left) if x]}")
    print(f"{len(ways['told'])} functions      precision    recall      same     kappa")
    for name, rows in ways.items():
        print(f"{name:18s} {agreement(rows)}")


if __name__ == "__main__":
    main()
