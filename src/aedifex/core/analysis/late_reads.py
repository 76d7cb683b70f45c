"""Code that is made while a function runs and may run later: it finds in a name what that holds by then."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import Reference, Scope, SourceFile, Symbol
from .variable_kinds import loop_spans


def deferred(scope: Scope, frame: Scope) -> bool:
    """Whether code in a scope below a frame may run after what stands around it."""
    return bool(deferring(scope, frame))


def deferring(scope: Scope, frame: Scope) -> list[Scope]:
    """The scopes between a scope and the frame around it whose code may run later, from the inside."""
    found = []
    at: Scope | None = scope
    while at is not None and at is not frame:
        if at.kind in ("function", "lambda", "class") or at.generator:
            found.append(at)
        at = at.parent
    return found


def read_after(file: SourceFile, language: Language, frame: Scope, symbol: Symbol) -> Reference | None:
    """The first read of a variable in a frame by code that may run after the frame's own run has ended; None if there
    is none."""
    for ref in file.within(frame.start, frame.end):
        if ref.symbol is symbol and any(outlives(file, language, s) for s in deferring(ref.scope, frame)):
            return ref
    return None


def outlives(file: SourceFile, language: Language, scope: Scope) -> bool:
    """Whether a function, lambda or generator may be used once the run that makes it is over."""
    if scope.kind == "class":
        return True
    function = scope.function
    if function is not None and function.symbol is not None and not function.is_async and not scope.generator:
        uses = [r for r in function.symbol.references if not r.writes]
        return function.decorators > 0 or any(
            r.role != "call" or deferring(r.scope, function.outer.frame) not in ([], [scope]) for r in uses
        )
    return not at_once(file, language, scope.start)


def at_once(file: SourceFile, language: Language, start: int) -> bool:
    """Whether a function or generator is handed to what uses it there and then, and no more."""
    holding = [c for c in file.calls if c.args_start <= start < c.args_end]
    inner = max(holding, key=lambda c: c.start, default=None)
    return inner is not None and (inner.callee.member or inner.callee.name) in language.at_once


def rebound(file: SourceFile, language: Language, symbol: Symbol) -> bool:
    """Whether a variable of the file may hold something else once it was set."""
    bindings = symbol.bindings
    loops = loop_spans(file, language) if bindings else []
    return len(bindings) > 1 or any(
        b.scope.frame is not file.scope or any(a <= b.start < e for a, e in loops) for b in bindings
    )


def goes_stale(file: SourceFile, language: Language, frame: Scope, symbol: Symbol) -> Reference | None:
    """Where a copy of a variable that is handed to a function would be read when the variable may hold something else
    by then."""
    return read_after(file, language, frame, symbol) if rebound(file, language, symbol) else None
