"""Where a console program asks and tells: what a language says of it, so that streams can be handed in (C14)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

from .model import Scope, SourceFile


@dataclass(frozen=True)
class StreamKind:
    """What one variable can stand for. ``origins``: what the language calls that; ``names``, ``classes``: for the
    variable, and for its class where the language itself has none that fits, the best first; ``value``: what the
    program's own is made with, of the class ``{class}``."""

    origins: tuple[str, ...]
    names: tuple[str, ...]
    value: str
    classes: tuple[str, ...] = ()


@dataclass(frozen=True)
class StreamUse:
    """One place where the program asks or tells. ``start``, ``end``: the text that ``text`` replaces, which names the
    stream as ``{name}``.

    ``origin``: what the language calls that; ``asks``: whether it waits for what is typed.
    """

    start: int
    end: int
    text: str
    origin: str
    asks: bool


class Streams(Protocol):
    """What a language that has console programs must offer."""

    KINDS: Sequence[StreamKind]

    def uses(self, file: SourceFile) -> list[StreamUse]:
        """Every use that could go through a stream, in source order."""
        ...

    def trouble(self, file: SourceFile) -> tuple[str, int] | None:
        """Why no variable can stand for the console: (why, where)."""
        ...

    def declared(
        self, file: SourceFile, kind: StreamKind, name: str, class_: str, origins: Sequence[str]
    ) -> list[tuple[int, int, str]]:
        """The edits that declare the variable, with its class where it needs one, before anything uses it."""
        ...


def in_class(file: SourceFile, scope: Scope | None) -> bool:
    """Whether a scope lies in a class that stands already, whose objects nobody hands anything."""
    while scope is not None and scope is not file.scope:
        if scope.kind == "class":
            return True
        scope = scope.parent
    return False
