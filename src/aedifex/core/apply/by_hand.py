"""One step without a design: worked out, read again, run again, journalled; designs that speak of the files follow."""

from __future__ import annotations

import os
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import partial

from ..check import check as checking
from ..check.evidence import Evidence
from ..check.run_environment import World
from ..check.scenarios import Scenario, default, load
from ..design.toml import parse
from ..planning.by_hand import PLANNED
from ..program.errors import AedifexError, Refused
from ..program.program import Program, reread
from ..program.refusal import Refusal
from ..program.surroundings import digest, surrounded
from ..rewrites.by_hand import Asked, HandCommand, SmallDesign, empty_design
from ..rewrites.pipeline import REWRITES
from ..rewrites.renamed_designs import follow
from ..rewrites.step import Context, Step
from . import messages
from .builder import END, difference_sentences
from .journal import FOLDER, STEPS, Journal, names
from .outline import diff, diff_texts
from .project import DESIGN, SCENARIOS
from .sequence import Outcome, attempt, run


@dataclass
class Single:
    """A step as it would be done. ``changes``: every file that it writes, designs included."""

    step: Step | SmallDesign
    before: Program
    after: Program
    changes: dict[str, bytes | None]
    diff: str
    journal: Journal
    design: str = ""  # digest of the design that is built here, if one is
    entries: list[str] = field(default_factory=list)

    def check(self, scenarios: str | None = None, ran: Callable[[str], None] | None = None) -> list[str]:
        """Run the program before and after, in scratch copies; what differed, as sentences."""
        for number, entry in enumerate(self.entries):
            evidence = Evidence(os.path.join(self.before.root, FOLDER), f"{self.journal.name}.step{number}")
            runs = self.runs(entry, scenarios)
            was = self.world(self.before, entry)
            with self.journal.locked():
                seen = checking.record(runs, was, "", evidence, ran)
            found = checking.check(runs, self.world(self.after, entry), seen, True, ran, was)
            if found.differences:
                return difference_sentences(found.differences)
        return []

    def runs(self, entry: str, scenarios: str | None) -> list[Scenario]:
        beside = os.path.join(self.before.root, os.path.splitext(entry)[0] + SCENARIOS)
        return load(scenarios) if scenarios else load(beside) if os.path.exists(beside) else default()

    def world(self, program: Program, entry: str) -> World:
        changes = self.changes if program is self.after else {}
        return World(program.root, entry, program.language, dict(changes), list(program.files.values()), [])

    def write(self) -> None:
        with self.journal.locked():
            self.journal.write(self.step.id, self.step.title(), self.design, self.changes)


def commands() -> list[HandCommand]:
    """All steps by hand: those of the rewrites, and those that a draft works out."""
    return sorted([*(h for r in REWRITES for h in r.by_hand), *PLANNED], key=lambda h: h.name)


def by_hand(program: Program, name: str, *given: str) -> Single:
    """What a step that a person asks for would change. ``given``: as its command says. Raises Refused with the reason
    if it cannot be done."""
    command = next(h for h in commands() if h.name == name)
    try:
        asked = command.ask(program, *given)
    except Refusal as refusal:
        raise Refused(refusal) from None
    return single(program, asked)


def single(program: Program, asked: Asked) -> Single:
    """What is asked for, worked out; of a small design every step, and one that is refused refuses them all."""
    exists = partial(exists_in_project, program)
    if isinstance(asked.step, SmallDesign):
        changes: dict[str, bytes | None] = {}
        for outcome, _ in run(asked.step.design, program, homes=dict(asked.homes), exists=exists):
            changes |= changes_of(outcome)
        return shown(program, asked, changes)
    context = Context(surrounded(program), empty_design(program), dict(asked.homes))
    context.exists = exists  # type: ignore[method-assign]
    if asked.looks_back:
        context.original = reread(program, journal_for(program, set(program.texts))[0].original())
    return shown(program, asked, changes_of(attempt(asked.step, context, set())))


def exists_in_project(program: Program, path: str) -> bool:
    """Whether the project folder has something of that name."""
    return os.path.lexists(os.path.join(program.root, path))


def changes_of(outcome: Outcome) -> dict[str, bytes | None]:
    """What a step changes. Raises Refused with the reason if it is not done."""
    if outcome.refusal is not None:
        raise Refused(outcome.refusal)
    if outcome.problems:
        raise Refused("\n".join(str(p) for p in outcome.problems))
    return outcome.changes


def shown(program: Program, asked: Asked, done: dict[str, bytes | None]) -> Single:
    """What was worked out, with the journal that it belongs to. Raises Refused if that is nothing."""
    if not done:
        raise Refused(messages.NOTHING_CHANGES.in_file(step=asked.step.id))
    entries = empty_design(program).entries
    after = reread(program, done)
    journal, design = journal_for(program, set(done))
    changes = dict(done)
    if not design and asked.renamed is not None:
        changes |= designs(program, after, *asked.renamed)
    text = diff(program, after) + "".join(
        text_diff(program.root, p, t) for p, t in changes.items() if p.endswith(DESIGN)
    )
    return Single(asked.step, program, after, changes, text, journal, design, entries)


def text_diff(root: str, path: str, text: bytes | None) -> str:
    with open(os.path.join(root, path), "rb") as handle:
        return diff_texts({path: handle.read()}, {path: text or b""})


def journal_for(program: Program, changed: set[str]) -> tuple[Journal, str]:
    """The journal of the design that is built on these files, with that design's digest; else one for single steps."""
    stale = program.language.write.stale
    for name in names(program.root):
        journal = Journal(program.root, name, stale)
        standing = journal.standing()
        if standing and standing[-1].design and changed & {p for e in standing for p in e.files}:
            if not any(e.step == END for e in standing):
                raise Refused(messages.BUILT_IN_PART.in_file(f"{name}{DESIGN}"))
            return journal, standing[-1].design
    return Journal(program.root, STEPS, stale), ""


def designs(program: Program, after: Program, old: str, new: str) -> dict[str, bytes | None]:
    """The designs beside the files, not built yet, as they read after the step."""
    found: dict[str, bytes | None] = {}
    for name in sorted(os.listdir(program.root)):
        if not name.endswith(DESIGN):
            continue
        with open(os.path.join(program.root, name), "rb") as handle:
            data = handle.read()
        try:
            text = data.decode("utf-8")
            design = parse(name, text)[0]
        except (AedifexError, UnicodeDecodeError):
            continue  # not a design that anything could be built from
        if all(design.sources.get(p) == digest(t) for p, t in program.texts.items() if p in design.sources):
            changed = follow(text, program, after, old, new).encode()
            if changed != data and set(design.sources) & set(program.texts):
                found[name] = changed
    return found
