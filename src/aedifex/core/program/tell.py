"""What in a program can tell where its code stands or what it is called, as a language finds it by reading."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum


class Means(StrEnum):
    """By what it is told, and so which moves show."""

    TEXT = "named by text"  # the names are said in a text that is run, or looked up by it
    ANY_TEXT = "dynamic names"  # some text may name anything
    VALUE = "function as value"  # the functions are looked at themselves
    STACK = "call stack"  # which functions are running: names are kept, and the main code stays where it is
    FILE = "own file"  # in which file it stands: what does so stays there


@dataclass(frozen=True)
class Tell:
    """``start``: its offset; ``names``: what it concerns, none for the whole file; ``message``: a sentence without its
    place."""

    means: Means
    start: int
    message: str
    names: tuple[str, ...] = ()


def first_tell(tells: Iterable[Tell], means: Means) -> Tell | None:
    """The first of the tells by these means; None if there is none."""
    return next((t for t in tells if t.means is means), None)
