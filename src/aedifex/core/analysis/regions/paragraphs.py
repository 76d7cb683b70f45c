"""Where a long function could be cut (A6): what a reader would set apart with a blank line.

Each gap between two statements of a block is weighed by what the statements on both sides are, and by how the local
variables tie them together. The weights were fitted to where the authors of functions of Python's standard library and
of packages left blank lines and remarks; blank lines and remarks themselves are not looked at.
``benchmarks/cutting.py`` measures the agreement on others.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from ...program.language import Language
from ...program.model import Scope, SourceFile, Statement, Symbol
from ..concerns import WORK, ConcernRun, Concerns, chief
from .region import ways_out

MIN_FUNCTION_LINES = 40  # lines of a function from which its cuts are told
MIN_PARAGRAPH_LINES = 2  # lines of a paragraph
COMPOUND = frozenset({"for", "while", "if", "with", "try", "match"})


def paragraphs(about: Concerns, frame: Scope, body: Sequence[Statement]) -> list[ConcernRun]:
    """The statements of a function's body as paragraphs, each with what it is about."""
    file, language = about.file, about.language
    cuts = cut_points(about, frame, body)
    starts = [0, *(i + 1 for i in cuts), len(body)]
    found = []
    for a, b in pairwise(starts):
        row = body[a:b]
        if row:
            concern = chief(about.whole(row[0].start, row[-1].end)) or WORK
            found.append(
                ConcernRun(
                    concern, file.shown(row[0].start), file.shown(row[-1].end - 1), sum(language.count(s) for s in row)
                )
            )
    return found


def cut_points(about: Concerns, frame: Scope, body: Sequence[Statement]) -> list[int]:
    """After which statements of a body a paragraph ends, in their order; the clearest gaps are cut first."""
    file = about.file
    marks = weights(about, frame, body)
    lines = [height(file, s) for s in body]
    cuts: set[int] = set()
    for i in sorted(range(len(marks)), key=lambda i: (-marks[i], i)):
        if marks[i] <= 0:
            break
        before = max((c for c in cuts if c < i), default=-1)
        after = min((c for c in cuts if c > i), default=len(body) - 1)
        if (
            sum(lines[before + 1 : i + 1]) >= MIN_PARAGRAPH_LINES
            and sum(lines[i + 1 : after + 1]) >= MIN_PARAGRAPH_LINES
        ):
            cuts.add(i)
    return sorted(cuts)


def weights(about: Concerns, frame: Scope, body: Sequence[Statement]) -> list[float]:
    """How much each gap, after the first statement and so on, sets apart what stands around it; above 0 it does."""
    file, language = about.file, about.language
    rows = [
        [r for r in file.within(s.start, s.end) if r.symbol is not None and r.symbol.scope.frame is frame] for s in body
    ]
    uses = [{r.symbol for r in row} for row in rows]  # of the function's own variables
    sets = [{r.symbol for r in row if r.writes} for row in rows]
    tall = [height(file, s) for s in body]
    concern = [about.of(s, True) for s in body]
    known: set[Symbol | None] = set()
    found = []
    for i, (a, b) in enumerate(pairwise(body)):
        known |= sets[i]
        mark = -0.8 + 0.5 * (concern[i] != concern[i + 1])
        mark += (
            0.75 * (a.kind in COMPOUND) - 0.25 * (b.kind in COMPOUND) + 0.5 * (tall[i] > 1) + 0.5 * (tall[i + 1] > 1)
        )
        mark += 0.25 * min(3, tall[i] // 4) + 0.2 * early(file, language, a)
        mark += 0.75 * bool(sets[i + 1] - known) - 0.9 * (a.target is not None and b.target is not None)
        mark -= 0.3 * min(2, len(sets[i] & uses[i + 1])) + 0.15 * min(3, len(uses[i] & uses[i + 1]))
        found.append(mark - 0.4 * (b.kind in ("return", "raise")))
    return found


def height(file: SourceFile, s: Statement) -> int:
    return file.line(max(s.start, s.end - 1)) - file.line(s.start) + 1


def early(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether a condition leads out of the function."""
    return s.kind == "if" and any(kind == "return" for kind, _ in ways_out(file, language, [s], False, False))
