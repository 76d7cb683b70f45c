"""Classes of libraries that call methods by their names: what a language tells, so that a class can extend one
(B11)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from .edits import Range
from .model import SourceFile, Symbol


@dataclass(frozen=True)
class Framework:
    """A class of a library. ``hooks``: the events for which it calls a method; ``members``: names that it has for other
    things."""

    name: str
    makers: frozenset[str]
    decorator: str
    register: str
    hooks: frozenset[str]
    continued: frozenset[str]
    members: frozenset[str]


@dataclass
class Extended:
    """What extending would change. ``hooks``: the events whose functions become methods that the library calls."""

    framework: Framework
    edits: list[Range]
    hooks: list[str]


class Frameworks(Protocol):
    """What a language offers for classes that libraries call."""

    def unfolded(self, file: SourceFile) -> list[Range]:
        """The edits that turn functions registered by decoration into functions that a call registers."""
        ...

    def extendable(self, file: SourceFile, symbol: Symbol, methods: dict[str, set[str]]) -> Framework | None:
        """The library's class that a class with these methods could extend, because it calls some of them and a
        variable at the top holds an object of it.

        ``methods``: the name of each, and the names of the functions that it was.
        """
        ...

    def extended(self, file: SourceFile, class_: str, field: str) -> Extended:
        """The class as one that extends what its field holds. Raises Refusal."""
        ...
