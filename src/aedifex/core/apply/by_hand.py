"""One step without a design: worked out, read again, run again, journalled; designs that speak of the files follow."""

from __future__ import annotations

import os
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import Protocol

from ..analysis.entries import imported_by_others
from ..check import check as checking
from ..check.evidence import Evidence
from ..check.run_environment import World
from ..check.scenarios import Scenario, default, load
from ..design.tables import ClassDesign, Design, FieldDesign
from ..design.toml import parse
from ..planning.extracted_classes import wished_part
from ..program.errors import AedifexError, Refused
from ..program.program import Program, reread
from ..program.refusal import Refusal
from ..program.surroundings import digest, read_neighbours, surrounded
from ..rewrites.extend_base import ExtendClass
from ..rewrites.extract_class.rewrite import TakePart
from ..rewrites.extract_function.rewrite import Lift
from ..rewrites.inject_console.rewrite import OpenStream
from ..rewrites.inject_console.streams import stream_for
from ..rewrites.inline_main.opened import main_holder
from ..rewrites.inline_main.rewrite import OpenMain
from ..rewrites.name_handlers.rewrite import NameHandlers
from ..rewrites.rename import Rename, words_of
from ..rewrites.renamed_designs import follow
from ..rewrites.rewrite import Context, Step
from . import messages
from .builder import END, difference_sentences
from .journal import FOLDER, STEPS, Journal, names
from .outline import diff, diff_texts
from .project import DESIGN, SCENARIOS
from .sequence import Outcome, attempt


class Done(Protocol):
    """A step, or several that a person asks for as one."""

    @property
    def id(self) -> str: ...

    def title(self) -> str: ...


@dataclass
class Single:
    """A step as it would be done. ``changes``: every file that it writes, designs included."""

    step: Done
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


def rename(program: Program, old: str, new: str) -> Single:
    """What a rename would change. Raises Refused with the reason if it cannot be done."""
    return single(program, Rename(old, new, outsiders=read_neighbours(program, words_of(old))), lambda after: designs(program, after, old, new))


def lift(program: Program, lines: str, name: str) -> Single:
    """What lifting lines into a function would change. Raises Refused with the reason if it cannot be done."""
    return single(program, Lift(lines, name, outsiders=read_neighbours(program)))


def open_main(program: Program, name: str) -> Single:
    """What opening a long main function would change. Raises Refused with the reason if it cannot be done."""
    path = main_holder(program, name)
    if not path:
        raise Refused(messages.NO_FUNCTION.in_file(name=name))
    return single(program, OpenMain(path, name))


def name_handler(program: Program, place: str, name: str) -> Single:
    """What giving a handler that is written in place a name would change. Raises Refused with the reason if it cannot be done."""
    path = place.split(":")[0]
    if path not in program.files:
        raise Refused(messages.NO_PLACE.in_file(place=place))
    return single(program, NameHandlers(path, [(place, name)]))


def open_stream(program: Program, word: str, name: str) -> Single:
    """What putting a variable in the place of the console would change. Raises Refused with the reason if it cannot be done."""
    if not program.language.write.is_name(name):
        raise Refused(messages.NO_NAME.in_file(name=name))
    for path, file in program.files.items():
        if (stream := stream_for(file, program.language, word, name)) is not None:
            return single(program, OpenStream(path, stream))
    raise Refused(messages.NO_CONSOLE_USE.in_file(word=word))


def take_part(program: Program, whole: str, name: str, members: list[str]) -> Single:
    """What taking members out of a class would change. Raises Refused with the reason if it cannot be done."""
    path = home_of(program, whole)
    if not program.language.write.is_name(name):
        raise Refused(messages.NO_CLASS_NAME.in_file(name=name))
    try:
        part = wished_part(program.files[path], program.language, whole, name, members)
    except Refusal as refusal:
        raise Refused(refusal) from None
    return single(program, TakePart(path, part, read_neighbours(program)))


def extend(program: Program, whole: str, member: str) -> Single:
    """What it would change if a class extended what its member holds. Raises Refused with the reason if it cannot."""
    path = home_of(program, whole)
    made = ClassDesign(whole, "app", extends=member, fields=[FieldDesign(member, [f"{path}::{member}"], hidden=False)])
    return single(program, ExtendClass(made))


def home_of(program: Program, class_: str) -> str:
    """The file of a class. Raises Refused if there is no such class."""
    path = next((f.path for f in program.files.values() if any(n == class_ for _, n in f.classes)), "")
    if not path:
        raise Refused(messages.NO_CLASS.in_file(name=class_))
    return path


Others = Callable[[Program], dict[str, bytes | None]]  # what else changes with the program, if no design is built on it


def nothing(after: Program) -> dict[str, bytes | None]:
    return {}


def single(program: Program, step: Step, others: Others = nothing, homes: Mapping[str, str] | None = None) -> Single:
    """``homes``: class → its file."""
    context = Context(surrounded(program), empty_design(program), dict(homes or {}))
    context.exists = partial(exists_in_project, program)  # type: ignore[method-assign]
    return shown(program, step, changes_of(attempt(step, context, set())), others)


def empty_design(program: Program) -> Design:
    """A design of nothing yet, for the files of the program."""
    return Design(program.language.name, entries_here(program), {p: digest(t) for p, t in program.texts.items()})


def entries_here(program: Program) -> list[str]:
    return [p for p in program.files if not imported_by_others(program, p)]


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


def shown(program: Program, step: Done, done: dict[str, bytes | None], others: Others = nothing) -> Single:
    """What was worked out, with the journal that it belongs to. Raises Refused if that is nothing."""
    if not done:
        raise Refused(messages.NOTHING_CHANGES.in_file(step=step.id))
    entries = entries_here(program)
    after = reread(program, done)
    journal, design = journal_for(program, set(done))
    changes = dict(done)
    if not design:
        changes |= others(after)
    text = diff(program, after) + "".join(
        text_diff(program.root, p, t) for p, t in changes.items() if p.endswith(DESIGN)
    )
    return Single(step, program, after, changes, text, journal, design, entries)


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
