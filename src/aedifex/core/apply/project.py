"""A program with what belongs to it: its design, the sources as drafted and as they stand, the journal and the
scenarios."""

from __future__ import annotations

import contextlib
import hashlib
import os
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..check import check as checking
from ..check.evidence import Evidence, Observed, Sources
from ..check.run_environment import World
from ..check.scenarios import Scenario, default, load
from ..design.tables import Design
from ..design.toml import SCHEMA, SHIPPED, parse
from ..planning.validate import validate
from ..program.atomic import replace
from ..program.errors import AedifexError, Refused
from ..program.language import language_of
from ..program.program import Program, read_program
from ..program.refusal import Refusal
from ..program.snapshot import read_file
from ..program.surroundings import digest
from .journal import FOLDER, Journal, check_places, unnoticed
from .watch_list import watched

DESIGN = ".design.toml"
SCENARIOS = ".scenarios.toml"


class Stale(Refused):
    """A source does not stand as a design knows it."""


@dataclass(frozen=True)
class Before:
    """The original of a program without a design. ``texts``: its files as they were (None: not there); ``recorded``:
    the hash under which its runs are kept, "" if they are not; ``known``: from when it is, in words."""

    texts: dict[str, bytes | None]
    recorded: str = ""
    known: str = ""


def offer_schema(root: str) -> None:
    """Put the JSON Schema of designs where drafted files name it, for editors; a draft does not fail for it."""
    folder = os.path.join(root, FOLDER)
    with contextlib.suppress(OSError):
        os.makedirs(folder, exist_ok=True)
        unnoticed(folder)
        replace(os.path.join(folder, SCHEMA), SHIPPED.read_bytes(), None)


@dataclass
class Project:
    """A design with the program it is of, the journal of what was done, and what stands now."""

    path: str  # of the design, as given
    root: str
    design: Design
    digest: str
    journal: Journal
    original: Program
    current: Program
    said: list[str] = field(default_factory=list)  # what was found of an interrupted step
    before: Before | None = (
        None  # what the original is, where no design says it; ``design`` only names the program then
    )

    @property
    def done(self) -> set[str]:
        return {e.step for e in self.journal.standing() if e.design == self.digest}

    @property
    def pictures(self) -> str:
        """Folder for pictures of frames that differ."""
        return os.path.join(self.journal.folder, "pictures")

    @property
    def scenario_file(self) -> str:
        """The file beside the design, whether it is there or not."""
        return self.path.removesuffix(DESIGN) + SCENARIOS

    def evidence(self) -> Evidence:
        return Evidence(self.journal.folder, design_stem(self.path))

    def recorded(self, scenarios: list[Scenario]) -> dict[str, Observed] | None:
        """What the original did, if it is kept for exactly these scenarios."""
        return checking.recorded(
            scenarios, (self.before.recorded if self.before else "") or self.original_hash(), self.evidence()
        )

    def record(self, scenarios: list[Scenario], tell: Callable[[str], None] | None = None) -> dict[str, Observed]:
        """Run the original and keep what it does, with its sources. The journal must be locked; raises Refused as
        ``check.record`` does."""
        sources = Sources(self.design.entries[0], {p: self.journal.keep(t) for p, t in self.original.texts.items()})
        return checking.record(scenarios, self.original_world(), self.original_hash(), self.evidence(), tell, sources)

    def scenarios(self, path: str | None = None) -> list[Scenario]:
        """Those of the file named, of the file beside the design, or one run without input."""
        beside = self.scenario_file
        if path is not None:
            return load(path)
        others = os.path.join(self.root, os.path.splitext(self.design.entries[0])[0] + SCENARIOS)  # of a rival
        return next((load(p) for p in (beside, others) if os.path.exists(p)), None) or default()

    def original_world(self) -> World:
        overlay = self.before.texts if self.before is not None else self.journal.original()
        return World(
            self.root,
            self.design.entries[0],
            self.original.language,
            overlay,
            list(self.original.files.values()),
            self.watched(),
        )

    def world(self, overlay: dict[str, bytes | None] | None = None, program: Program | None = None) -> World:
        files = list((program or self.current).files.values())
        return World(
            self.root, self.design.entries[0], self.original.language, overlay or {}, files, self.watched(),
        )  # fmt: skip

    def watched(self) -> list[dict[str, Any]]:
        """Without a design nobody knows what a variable became."""
        return watched(self.design, self.original) if self.before is None else []

    def changed(self) -> list[str]:
        """The files that do not stand as they were in the original."""
        was, now = self.original.texts, self.current.texts
        return sorted(p for p in was.keys() | now.keys() if was.get(p) != now.get(p))

    def original_hash(self) -> str:
        rows = [f"{p}:{digest(t)}" for p, t in sorted(self.original.texts.items())] + (
            [] if self.before is None else ["no design"]
        )
        return hashlib.sha256("\n".join(rows).encode()).hexdigest()


def open_project(path: str, writing: bool = False) -> Project:
    """Read a design and everything it speaks of.

    Raises AedifexError for an unusable design (all mistakes in one message) and Refused if the sources are not in a
    state that the design or its journal knows. ``writing``: nobody may have changed the files since the last step.
    """
    if not path.isprintable():
        raise AedifexError(f"{path}: has a name that cannot be printed; rename it.")
    text = read_file(os.path.abspath(path), path)
    try:
        design, lines, problems = parse(path, text.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise AedifexError(f"{path}: is not UTF-8 text; save it as UTF-8.") from error
    if problems and not (design.sources and design.language):
        raise AedifexError(problem_list(problems))
    root = os.path.dirname(os.path.abspath(path))
    language = language_of(next(iter(design.sources), "")) if design.sources else None
    if language is None:
        raise AedifexError(f"{path}: names no sources; draft it again.")
    for source in design.sources:
        if os.path.isabs(source) or ".." in source.split("/"):
            raise AedifexError(
                f"{path}:{lines.of('', key='sources')}: source '{source}' leaves the design's folder; draft again."
            )
    journal = Journal(root, design_stem(path), language.write.stale)
    said = recover(journal)
    overlay = journal.original()
    original = read_program(root, design.sources, {p: d for p, d in overlay.items() if p in design.sources})
    as_drafted(path, design, original)
    problems += validate(path, design, lines, original)
    if problems:
        raise AedifexError(problem_list(sorted(problems, key=lambda r: r.line)))
    if writing:
        check_places(root, design.sources)
        said += as_left(journal)
    created = [p for p, d in overlay.items() if d is None and journal.current(p)]
    current = read_program(root, [*design.sources, *created])
    return Project(path, root, design, digest(text), journal, original, current, said)


def design_stem(path: str) -> str:
    """The name of a design without its ending."""
    return os.path.basename(path).removesuffix(DESIGN).removesuffix(".toml")


def recover(journal: Journal) -> list[str]:
    """Put right what an interrupted command left behind; what was done, as sentences."""
    if not any(e.state == "begun" for e in journal.entries()):
        return []
    with journal.locked():
        return journal.recover()


def as_drafted(path: str, design: Design, original: Program) -> None:
    """Every source was as drafted before the first step: else whatever is wrong with the design may be of that."""
    for source, expected in design.sources.items():
        if digest(original.texts[source]) != expected:
            raise Stale(f"{source}: was changed after {path} was drafted; draft again.")


PUT_BACK = (
    "The files stand as before the first step: something other than undo put them back, and the steps count as undone."
)


def as_left(journal: Journal) -> list[str]:
    """Every file stands as the last step left it, or as before the first one; a sentence about the latter."""
    if journal.stands():
        return []
    with journal.locked():
        if journal.put_back_otherwise():
            return [PUT_BACK]
    changed = next(p for p, after in journal.last().items() if journal.current(p) != after)
    raise Refused(f"{changed}: was changed after the last step; undo cannot tell your change from its own. "
                  f"Restore it, or delete {FOLDER} and draft again.")  # fmt: skip


def problem_list(problems: list[Refusal]) -> str:
    return "\n".join(r.told() for r in problems)
