"""The run through the steps of a design, in memory."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from ..design.tables import Design
from ..program.model import Problem
from ..program.program import Program
from ..program.refusal import Refusal
from ..program.surroundings import by_itself, surrounded
from ..rewrites.move_class.rewrite import MoveToFile
from ..rewrites.pipeline import following, prepare
from ..rewrites.remarks import with_remarks
from ..rewrites.step import Context, Step, carried_out
from . import messages
from .verify import verify


@dataclass
class Outcome:
    """What became of one step: done, nothing (to do), refused, skipped, wrong (D1: refused for what it would write) or
    different (D2)."""

    step: Step
    result: str
    changes: dict[str, bytes | None] = field(default_factory=dict)
    refusal: Refusal | None = None
    problems: list[Problem] = field(default_factory=list)
    unreached: bool = False  # whether no scenario runs what it moves
    after: Program | None = None  # the program with the changes


def run(
    design: Design,
    program: Program,
    done: set[str] | None = None,
    original: Program | None = None,
    homes: dict[str, str] | None = None,
    exists: Callable[[str], bool] | None = None,
) -> Iterator[tuple[Outcome, Program]]:
    """Apply the steps one after another in memory; yields each outcome with the program after it.

    The consumer may stop at any time; a step whose outcome is "wrong" is not kept. ``done``: ids of steps that
    stand already. Send nothing; what the consumer refuses it must not ask further.
    """
    original = surrounded(original or program)
    program.outsiders = original.outsiders
    prepared = prepare(design, original)
    if done and any(s.id in done and s.refused is not None for s in prepared.steps):
        prepared = prepare(design, by_itself(original))
    context = Context(program, prepared.design, dict(homes or {}), original)
    if exists is not None:
        context.exists = lambda path: path in context.program.holders or exists(path)  # type: ignore[method-assign]
    lost: set[str] = set()
    for step in following(prepared):
        if done and step.id in done:
            if isinstance(step, MoveToFile):
                context.homes[step.design.name] = step.design.file
            continue
        outcome = attempt(step, context, lost)
        if outcome.result == "done":
            context.program = outcome.after or context.program
            if isinstance(step, MoveToFile):
                context.homes[step.design.name] = step.design.file
        elif outcome.result != "nothing":
            lost.add(step.id)
        yield outcome, context.program


def attempt(step: Step, context: Context, lost: set[str]) -> Outcome:
    """Try a step, unless one that it needs was lost; nothing is written."""
    missing = [n for n in step.needs if n in lost]
    if missing:
        return Outcome(step, "skipped", refusal=messages.NEEDS_STEP.in_file(step=missing[0]))
    if step.refused is not None:  # it prepares, and was tried already
        return Outcome(step, "refused", refusal=step.refused)
    try:
        _, changes = carried_out(step, context)
    except Refusal as refusal:
        return Outcome(step, "wrong" if refusal.code == messages.NOT_FORESEEN.code else "refused", refusal=refusal)
    if not changes:
        return Outcome(step, "nothing")
    after, changes = with_remarks(step, context.program, changes)
    problems = verify(context.program, after, list(changes))
    if not problems:
        return Outcome(step, "done", changes, after=after)
    first = problems[0]
    place = "" if first.path in context.program.holders else f" in {first.path}"
    broken = messages.WRITES_BROKEN.in_file(
        first.path if not place else "", place=place, message=first.message, line=first.line
    )
    return Outcome(step, "wrong", changes, broken, problems)
