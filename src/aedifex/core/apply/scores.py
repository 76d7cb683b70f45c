"""What each of several designs would come to, side by side."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from ..analysis.metrics import figures
from ..planning.alternatives import Rival
from ..planning.ties import ties
from ..program.program import Program
from .sequence import run


@dataclass
class Weighed:
    """``globals`` and ``main`` are what would be left: module-level variables that change, statements of main code;
    ``cohesion``, as in ``survey.figures``, is of all classes that would stand."""

    idea: str
    classes: list[str]
    cohesion: float | None
    coupling: float
    across: int
    globals: int
    main: int
    lines: int
    refused: list[str]  # steps that would be, with the reason

    def as_json(self) -> dict[str, Any]:
        return asdict(self)


def weigh(program: Program, rival: Rival) -> Weighed:
    """Work out all steps in memory and measure what stands after them."""
    last, refused = program, []
    for outcome, after in run(rival.design, program, exists=lambda p: False):
        if outcome.refusal is not None:
            refused.append(f"{outcome.step.id}: {outcome.refusal}")
        last = after
    left, held = figures(last), ties(program, rival.design)
    names = [c.name for c in rival.design.classes]
    return Weighed(
        rival.idea,
        names,
        left.cohesion,
        held.coupling,
        held.across,
        left.globals,
        left.main_statements,
        left.lines,
        refused,
    )
