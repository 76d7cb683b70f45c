"""What becomes of a function that turns into a method: its use as a value, its receiver, its locks."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.model import Function, Reference, Scope, SourceFile
from .walk import modifiers

Edit = tuple[int, int, str]


def class_trouble(file: SourceFile, start: int, end: int, main: bool = False) -> str:
    """Why a stretch of code would mean something else inside a class; "" if it would not."""
    f = next((f for f in file.functions if f.start == start and f.end == end), None)
    if f is None:
        return ""
    if "synchronized" in modifiers(f.node):
        return "it locks the class, and would lock an object"
    if "native" in modifiers(f.node):
        return "it is written in another language"
    for ref in file.within(f.body_start, f.end):
        if ref.symbol is None or ref.symbol.scope is not file.scope or not ref.symbol.kinds & {"variable", "function"}:
            continue
        if between(ref.scope, f.scope) is not None:
            return f"line {file.shown(ref.start)}: '{ref.name}' is used inside a class that stands in it"
    return ""


def between(scope: Scope, top: Scope) -> Scope | None:
    """The class, if any, that stands inside a function around a scope."""
    at: Scope | None = scope
    while at is not None and at is not top:
        if at.kind == "class":
            return at
        at = at.parent
    return None


def inner_receivers(file: SourceFile, top: Scope, refs: Sequence[Reference]) -> tuple[list[Edit], str]:
    """In a class that stands inside a method "this" is another object: the move is refused."""
    for ref in refs:
        if between(ref.scope, top) is not None:
            return [], f"line {file.shown(ref.start)}: '{ref.name}' is used inside a class that stands in it"
    return [], ""


def method_as_value(file: SourceFile, f: Function, ref: Reference, text: str, owner: str) -> tuple[str, str]:
    """A reference to a method names its object."""
    return f"{owner}::{text.rsplit('.', 1)[-1]}", ""
