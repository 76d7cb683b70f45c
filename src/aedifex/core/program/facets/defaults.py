"""Parts of facets that a language need not write, because the question never comes up there.

Where files see each other without imports, nobody asks how an import is written; where lists have a size, nobody asks
how one grows. A language takes these in its module; that they are asked all the same is a defect of the core, and said
so.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NoReturn

from ..edits import Range
from ..model import Call, Scope, SourceFile, Statement


def unasked(what: str) -> NoReturn:
    raise NotImplementedError(f"{what} is asked of a language in which it never comes up")


# -- where classes find the rest without imports -------------------------------------------------


def head(file: SourceFile) -> str:
    unasked("the head of a new file")


def import_again(file: SourceFile, local: str, module: str, name: str) -> str:
    unasked("an import")


def import_list(file: SourceFile, statement: Statement, bound: Sequence[tuple[str, str, str]]) -> str:
    unasked("an import")


def import_names(file: SourceFile, module: str, names: Sequence[str]) -> str:
    unasked("an import")


def merged_imports(lines: Sequence[str], own: set[str]) -> str:
    unasked("imports in order")


def moved(file: SourceFile, statement: Statement, start: int, end: int, offered: set[str], /) -> str:
    unasked("what moves to a file that is imported")


def offer(file: SourceFile, names: Sequence[str]) -> str:
    unasked("what a file offers")


# -- where classes are imported ------------------------------------------------------------------


def moved_out(file: SourceFile, statement: Statement, start: int, unit: str, imports: list[str]) -> str:
    unasked("a type that leaves its file")


def opened(file: SourceFile, statement: Statement) -> list[Range]:
    unasked("what is opened to other files")


def renamed_elsewhere(file: SourceFile, home: SourceFile, name: str) -> list[Range]:
    unasked("what other files call a type")


# -- lists that grow, or have a size; records; types ---------------------------------------------


def appended(file: SourceFile, name: str, object_: str) -> str:
    unasked("how a list grows")


def sized(file: SourceFile, name: str, class_: str, size: str) -> str:
    unasked("an array of a size")


def placed(name: str, index: str, object_: str) -> str:
    unasked("an item of an array of a size")


def filled(lead: str, unit: str, name: str, index: str, object_: str) -> str:
    unasked("a loop that fills an array")


def needless_receivers(file: SourceFile, scope: Scope, /) -> list[Range]:
    """A member is never meant without its object."""
    return []


def equality(unit: str, class_: str) -> str:
    unasked("how records are compared")


def has_members(file: SourceFile, span: tuple[int, int]) -> bool:
    unasked("whether a value has members")


def typed(file: SourceFile) -> bool:
    """Whether a file of a language that need not write types does."""
    return False


# -- where no function is made and called in one statement ---------------------------------------


def in_place(params: Sequence[str], call: str) -> str:
    unasked("a function written in place")


def runs_on(file: SourceFile, statement: Statement, body: Sequence[Statement]) -> bool:
    """No function is made and called in one statement."""
    unasked("a function that is called in place")


def call_in_place(file: SourceFile, statement: Statement) -> Call:
    """No function is made and called in one statement."""
    unasked("a function that is called in place")
