"""What a person can ask for as one step: ``aedifex step NAME ...``."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from ..analysis.entries import imported_by_others
from ..design.tables import Design
from ..program.program import Program
from ..program.surroundings import digest
from . import messages
from .step import Step


@dataclass(frozen=True)
class SmallDesign:
    """What is one step for a person and takes several: a design of its own, all of it or nothing. ``subject``: as in a
    step's id."""

    kind: str
    subject: str
    words: str
    design: Design

    @property
    def id(self) -> str:
        return f"{self.kind}:{self.subject}"

    def title(self) -> str:
        return self.words


@dataclass(frozen=True)
class Asked:
    """What was asked for, worked out.

    ``homes``: class → the file that has it; ``renamed``: (old, new), where designs beside the files follow;
    ``looks_back``: whether the step
    needs what stood before the first of the steps that stand.
    """

    step: Step | SmallDesign
    homes: Mapping[str, str] = field(default_factory=dict)
    renamed: tuple[str, str] | None = None
    looks_back: bool = False


@dataclass(frozen=True)
class HandCommand:
    """One command of ``aedifex step``. ``arguments``: its words for what is given, before the scripts; ``done``: what
    it says once it is done.

    ``options``: (name, what it takes, help). ``ask``: takes the program, the arguments and the options in their order.
    Raises Refusal, or Refused where several things are wrong.
    """

    name: str
    arguments: tuple[str, ...]
    short: str
    help: str
    example: str
    done: str
    ask: Callable[..., Asked]
    options: tuple[tuple[str, str, str], ...] = ()


def empty_design(program: Program) -> Design:
    """A design of nothing yet, for the files of the program."""
    entries = [p for p in program.files if not imported_by_others(program, p)]
    return Design(program.language.name, entries, {p: digest(t) for p, t in program.texts.items()})


def names_in(text: str) -> list[str]:
    """Names with commas between them."""
    return [m.strip() for m in text.split(",") if m.strip()]


def home_of(program: Program, class_: str) -> str:
    """The file of a class. Raises Refusal if there is no such class."""
    path = next((f.path for f in program.files.values() if any(n == class_ for _, n in f.classes)), "")
    if not path:
        raise messages.NO_CLASS.in_file(name=class_)
    return path
