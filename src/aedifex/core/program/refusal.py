"""The one way to say no: a message with its code, the place that it speaks of, and what the person can do.

The sentences stand on one page a package, ``messages.py``; what a code means in more words is in ``aedifex explain``.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from .model import SourceFile


@dataclass(frozen=True)
class Message:
    """``sentence`` and ``cure`` name their values in braces. ``by_hand``: the cure where there is no design; None if it
    is the same."""

    code: str
    sentence: str
    cure: str = ""
    by_hand: str | None = None

    def but(self, cure: str = "", by_hand: str | None = None) -> Message:
        """The same where something else can be done about it."""
        return replace(self, cure=cure, by_hand=by_hand)

    def at(self, file: SourceFile, offset: int, /, **values: Any) -> Refusal:
        return Refusal(self, *file.place(offset), **values)

    def in_file(self, path: str = "", line: int = 0, /, **values: Any) -> Refusal:
        return Refusal(self, path, line, **values)


class Refusal(Exception):
    """Why something is not done: what blocks it, where (``line`` 0: in no one line), and the cure."""

    def __init__(self, message: Message, path: str = "", line: int = 0, /, **values: Any) -> None:
        super().__init__(message.code)
        self.message, self.path, self.line = message, path, line
        self.values = values

    @property
    def code(self) -> str:
        return self.message.code

    @property
    def place(self) -> str:
        return f"{self.path}:{self.line}" if self.line else self.path

    @property
    def sentence(self) -> str:
        return self.message.sentence.format(**self.values)

    @property
    def cure(self) -> str:
        return self.message.cure.format(**self.values)

    def __str__(self) -> str:
        return (f"{self.place}: " if self.place else "") + self.sentence + (f"; {self.cure}" if self.cure else "")

    @property
    def with_code(self) -> str:
        """As people read it: the code at the end is what ``aedifex explain`` takes."""
        return f"{self}  [{self.code}]"

    def told(self) -> str:
        """As people read it where there are several, a line each."""
        return f"{self}. [{self.code}]"

    def as_json(self) -> dict[str, Any]:
        return {"code": self.code, "path": self.path, "line": self.line, "sentence": self.sentence, "cure": self.cure}

    def by_hand(self) -> str:
        """What a single step is told: there is no design that could be changed."""
        cure = self.message.cure if self.message.by_hand is None else self.message.by_hand
        return str(Refusal(replace(self.message, cure=cure), self.path, self.line, **self.values))

    def with_cure(self, cure: str, by_hand: str | None = None) -> Refusal:
        """The same where something else can be done about it."""
        return Refusal(self.message.but(cure, by_hand), self.path, self.line, **self.values)
