"""What a program is said to have that makes a move unsafe: one sentence for each finding, under the kind of its hazard.

The kind is the code of the refusal (``aedifex explain``); several findings of one kind have one cause and one cure.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..program.model import SourceFile
from ..program.refusal import Message, Refusal
from ..program.tell import Means

PROCESSES = "other processes"
OUTSIDE = "used outside"
NAMING = (OUTSIDE, Means.TEXT.value)  # kinds that need a name to stay what it is in its file
WHOLE = (Means.ANY_TEXT.value, OUTSIDE)  # kinds that concern every name, where they name none


@dataclass(frozen=True)
class Hazard:
    """``names`` are the module-level names that it concerns; empty means the whole file."""

    kind: str
    path: str
    line: int
    message: str
    names: tuple[str, ...] = ()

    def told(self, reading: str) -> str:
        """The hazard with its place, as somebody reads it who has the file ``reading`` open."""
        place = f"line {self.line}" if self.path == reading else f"{self.path}:{self.line}"
        return f"{place}: {self.message}"

    def refusal(self, cure: str) -> Refusal:
        """What a step says that it keeps from its work. ``cure``: what the person can do there."""
        return Message(self.kind.replace(" ", "-"), "{why}", cure).in_file(self.path, self.line, why=self.message)


@dataclass(frozen=True)
class Finding:
    """A kind of hazard and its sentence, with values in braces."""

    kind: str
    sentence: str

    def at(self, file: SourceFile, offset: int, names: tuple[str, ...] = (), /, **values: Any) -> Hazard:
        return self.on_line(*file.place(offset), names, **values)

    def on_line(self, path: str, line: int, names: tuple[str, ...] = (), /, **values: Any) -> Hazard:
        return Hazard(self.kind, path, line, self.sentence.format(**values), names)


LOOKED_UP_IN_REGISTRY = Finding(Means.TEXT.value, "'{name}' is looked up through '{registry}'")
ANY_NAME_BY_REGISTRY = Finding(
    Means.ANY_TEXT.value, "'{registry}' can reach any name by its text, so no variable or function can move"
)
LOOKED_UP_BY_TEXT = Finding(Means.TEXT.value, "'{name}' is looked up by its text in '{call}()'")
ANY_NAME_BY_TEXT = Finding(
    Means.ANY_TEXT.value, "'{call}()' can reach any name by its text, so no variable or function can move"
)

COPIED_AS_VALUE = Finding(
    Means.VALUE.value,
    "'{name}' is passed on as a value, and in {where} {does}: as a method it would take its object along",
)
COMPARED = Finding(Means.VALUE.value, "'{name}' is compared or used as a key")
ASKED_ITSELF = Finding(Means.VALUE.value, "'{name}.{member}' asks the function itself")

BOUND_OTHERWISE = Finding("binding", "'{name}' {how}")
DEFINED_TWICE = Finding("redefined", "'{name}' is defined or bound more than once")
DECORATED = Finding("decorated", "'{name}' is decorated")
SEEN_LATE = Finding(
    "seen late",
    "a function made in this loop finds in '{name}' what it holds when it runs, not what it held when it was made",
)

STARTS_PROCESSES = Finding(PROCESSES, "'{module}' {how}")
STAR_IMPORT = Finding("star import", "a star import may bind any name")
STARTED_OR_SERVED = Finding(OUTSIDE, "'{name}' is named in {manifest} as what is started or served")
ALL_IMPORTED = Finding(OUTSIDE, "everything of {file} is imported by {other}")
NAME_IMPORTED_BY = Finding(OUTSIDE, "'{name}' is imported by {other}")
NAMED_IN_TEXT_OF = Finding(OUTSIDE, "'{name}' is named in a text of {other}")
USED_BY = Finding(OUTSIDE, "'{module}.{name}' is used by {other}")
MODULE_PASSED_ON = Finding(
    OUTSIDE, "{other} passes on '{local}' itself, through which any name of {file} can be reached"
)
