"""In which function a stretch of code lies, and where a function that is made of its lines would stand."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ...program.language import Language
from ...program.model import Block, Function, Scope, SourceFile, Statement


@dataclass(frozen=True)
class Ground:
    """Beside the function ``home``, in front of the statement ``site``, or, with neither, above the main code.

    ``scope``: whose names are seen there. ``trouble``: why there is no such place.
    """

    scope: Scope
    home: Function | None = None
    site: Statement | None = None
    trouble: str = ""


def ground_of(file: SourceFile, language: Language, function: Function | None) -> Ground:
    """Where a function made of a function's lines stands; of main code for None."""
    if function is None:
        return Ground(file.scope)
    own = function.scope.function is function
    if function.outer.kind == "class" or (own and function.outer is file.scope):
        return Ground(function.outer, home=function)
    if not language.regions.CLOSURES:
        around = innermost_function(file, language, function.start, function.end)
        if around is None or around.scope.function is not around:
            return Ground(
                function.outer,
                trouble="these lines stand in a function that is written in place, and no method holds that",
            )
        return Ground(around.outer, home=around)
    return insertion_before(file, language, function)


def insertion_before(file: SourceFile, language: Language, function: Function) -> Ground:
    """In front of the nearest statement around a function, its own if it has one, that begins a line."""
    inner = function
    while True:
        around = innermost_function(file, language, inner.start, inner.end)
        body = language.body(file, around) if around is not None else file.statements
        site = statement_at(file, language, body, inner.start, inner.end)
        frame = around.scope if around is not None else file.scope
        if site is None:
            return Ground(
                frame, trouble="what makes the function of these lines is a statement without a block of its own"
            )
        if site.kind == "class" or (site.kind == "function" and site.start != inner.start):
            return Ground(
                frame,
                trouble="these lines stand in a function that is written in the head of another one, or in a class",
            )
        if not file.text[language.write.line_start(file, site.start) : site.start].strip():
            return Ground(frame, site=site)
        if around is None:
            return Ground(frame, trouble="what makes the function of these lines begins in the middle of a line")
        inner = around


def statement_at(
    file: SourceFile, language: Language, body: Sequence[Statement], start: int, end: int
) -> Statement | None:
    """The innermost statement of a body, and of the blocks in it, that holds a stretch; None if it has no room in front
    of it."""
    found, room = None, True
    while True:
        s = next((s for s in body if s.start <= start and end <= s.end), None)
        if s is None:
            return found if room else None
        found = s
        within: list[Block] = [b for b in language.regions.blocks(file, s) if b.start <= start and end <= b.end]
        if not within:
            return found if room else None
        room = not language.regions.lone(file, within[0])
        body = within[0].statements


def innermost_function(file: SourceFile, language: Language, start: int, end: int) -> Function | None:
    """The innermost function whose statements hold a stretch; None for main code."""
    for scope in scopes_around(file, start, end):
        f = scope.function or language.regions.unnamed(file, scope)
        if f is not None and f.params_end <= start and end <= f.end and (f.start, f.end) != (start, end):
            return f
    return None


def scopes_around(file: SourceFile, start: int, end: int) -> Iterator[Scope]:
    """The scopes of functions that hold a stretch, the innermost first."""
    if "functions" not in file.memo:
        found = sorted((s for s in file.scope.walk() if s.kind == "function"), key=lambda s: s.start)
        file.memo["functions"] = (found, [s.start for s in found])
    scopes, starts = file.memo["functions"]
    last = bisect_right(starts, start) - 1
    at: Scope | None = scopes[last] if last >= 0 else None
    while at is not None:
        if at.kind == "function" and end <= at.end:
            yield at
        at = at.parent
