"""Where a console program asks and tells: what a language says of it, so that streams can be handed in (C14)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from .model import SourceFile


@dataclass(frozen=True)
class StreamUse:
    """One place where the program asks or tells. ``start``, ``end``: the text that ``text`` replaces, which names the stream as ``{name}``.

    ``origin``: what the language calls that; ``asks``: whether it waits for what is typed.
    """

    start: int
    end: int
    text: str
    origin: str
    asks: bool


class Streams(Protocol):
    """What a language that has console programs must offer."""

    NAMES: tuple[str, ...]  # names for the variable that holds the stream, the best first
    CLASSES: tuple[str, ...]  # names for its class, where the language itself has none that fits

    def uses(self, file: SourceFile) -> list[StreamUse]:
        """Every use that could go through the stream, in source order."""
        ...

    def asks(self, file: SourceFile) -> bool:
        """Whether the program waits anywhere for what a person types."""
        ...

    def trouble(self, file: SourceFile) -> tuple[str, int] | None:
        """Why no variable can stand for the console: (why, where)."""
        ...

    def declared(self, file: SourceFile, name: str, class_: str, origins: list[str]) -> list[tuple[int, int, str]]:
        """The edits that declare the variable, with its class where it needs one, before anything uses it."""
        ...

    def value(self, class_: str) -> str:
        """What the program's own stream is made with."""
        ...
