"""What the names in a design speak of: one grammar, read once.

score                        a variable or function at the top of a file
tramline.py::score           the same, where several files have one
main.score                   a variable of a function, or a member of a class
trams[speed]                 a key of the records that a variable holds
tramcanvas.js:93:38          what has no name, by its line and column
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import cache

PLACE = re.compile(r"(?P<file>.+?):(?P<place>\d+:\d+)")


@dataclass(frozen=True)
class Origin:
    """``file``: "" where one file has it, or nobody said which; ``holder``: the function or class that has it, with
    dots; ``key``: of a record; ``place``: line and column in the stead of a name. Without name and place it speaks of
    nothing: an object has no variable there."""

    name: str = ""
    holder: str = ""
    file: str = ""
    key: str = ""
    place: str = ""

    @classmethod
    def parse(cls, text: str) -> Origin:
        """Any text has a meaning; whether there is such a name, the sources say."""
        return parsed(text)

    def __str__(self) -> str:
        if self.place:
            return f"{self.file}:{self.place}"
        return f"{self.file}::{self.local}" if self.file else self.local

    def __bool__(self) -> bool:
        return bool(self.name or self.place)

    @property
    def variable(self) -> str:
        """The name as its file says it, without the key of a record."""
        return f"{self.holder}.{self.name}" if self.holder else self.name

    @property
    def local(self) -> str:
        """The name as its file says it; the place of what has none."""
        return str(self) if self.place else self.variable + (f"[{self.key}]" if self.key else "")

    def of_file(self, path: str) -> bool:
        """Whether it may speak of that file."""
        return self.file in ("", path)

    def in_holder(self, holder: str) -> Origin:
        """The same name in a function or class."""
        return replace(self, holder=holder)


@cache
def parsed(text: str) -> Origin:
    place = PLACE.fullmatch(text) if "::" not in text else None
    if place is not None:
        return Origin(file=place["file"], place=place["place"])
    file, _, local = text.rpartition("::")
    variable, bracket, rest = local.partition("[")
    key = rest.removesuffix("]") if bracket and variable and rest.endswith("]") else ""
    holder, _, name = (variable if key else local).rpartition(".")
    return Origin(name, holder, file, key)


def as_origins(*texts: str) -> list[Origin]:
    """Each text, read."""
    return [parsed(text) for text in texts]


def local_name(text: str) -> str:
    """A text that may name a file, without it: ``tramline.py::score`` → score."""
    return parsed(text).local
