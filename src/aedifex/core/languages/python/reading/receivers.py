"""How code inside a class names the object that it runs for."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.model import Reference, Scope, SourceFile
from ....program.scopes import shadowed

PRIVATE = re.compile(r"(?<!\w)__(?!\w*__(?!\w))\w+")
RECEIVER = "self"


def class_trouble(file: SourceFile, start: int, end: int, main: bool = False) -> str:
    """Why a stretch of code would mean something else inside a class; "" if it would not.

    ``main``: it is main code, which becomes the body of a method.
    """
    if match := PRIVATE.search(file.slice(start, end)):
        return f"'{match[0]}' would be another name inside a class"
    for ref in file.within(start, end):
        if ref.symbol is None or ref.symbol.scope is not file.scope:
            continue
        if ref.name == RECEIVER:
            return f"'{RECEIVER}' is a variable of the file, and would be the object"
        if "variable" in ref.symbol.kinds and not main and shadowed(ref.scope, RECEIVER, file.scope):
            return f"line {file.shown(ref.start)}: '{ref.name}' is used where '{RECEIVER}' means something else"
    return ""


def method_as_value(text: str, owner: str) -> str:
    """How a method is passed on as a value: a bound method carries its object."""
    return text


def outward(
    file: SourceFile, refs: Sequence[Reference], fields: set[str], methods: set[str]
) -> tuple[list[tuple[int, int, str]], str]:
    """Uses of other names inside a class that has members of the same names: a member is never meant without its
    object."""
    return [], ""


def receiver_at(file: SourceFile, scope: Scope, top: Scope, class_: str) -> str:
    """How code in ``scope`` names the object of the method ``top``: inner functions close over it."""
    return RECEIVER


def inner_receivers(file: SourceFile, top: Scope, refs: Sequence[Reference]) -> tuple[list[tuple[int, int, str]], str]:
    """Edits that let functions inside a method see its receiver, or why they cannot: where its name means something
    else."""
    hidden = next((r for r in refs if shadowed(r.scope, RECEIVER, top)), None)
    return [], f"line {file.shown(hidden.start)}: '{RECEIVER}' means something else there" if hidden is not None else ""
