"""Functions of the program that give the same wherever they are called, and do nothing else: they only make a value.

def new_board():
    board = []
    for row in range(ROWS): board.append([FREE] * COLUMNS)
    return board
"""

from __future__ import annotations

from collections.abc import Set as AbstractSet

from ..program.language import Language
from ..program.model import Call, Function, SourceFile, Symbol
from .counting_loops import with_inner
from .effects import Effects
from .variable_kinds import movable


def same_anywhere(
    file: SourceFile, effects: Effects, language: Language, span: tuple[int, int], known: set[Symbol], before: int
) -> bool:
    """Whether an expression gives the same value wherever it is worked out: plain data, or what a quiet function of the
    program makes of such. ``known``: constants that are set by then; ``before``: where it would be worked out."""
    if movable(file, span, known, language):
        return True
    call = next((c for c in file.calls_within(*span) if (c.start, c.end) == span and not c.callee.member), None)
    symbol = call.callee.symbol if call is not None else None
    if call is None or symbol is None or symbol.kinds != {"function"} or len(symbol.bindings) != 1:
        return False
    f = next((f for f in file.tops if f.symbol is symbol), None)
    if f is None or (language.code_at_top and symbol.bindings[0].start >= before):
        return False
    return is_quiet(file, effects, language, f, known) and all(
        movable(file, (a.value_start, a.end), known, language) for a in language.arguments(file, call)
    )


def is_quiet(file: SourceFile, effects: Effects, language: Language, f: Function, known: AbstractSet[Symbol]) -> bool:
    """Whether a function reads nothing but constants, and changes nothing but what it makes itself."""
    if f.decorators or f.is_async or f.scope.generator:
        return False
    touch = effects.of(f)
    if touch.unseen or touch.uses or touch.names - known:
        return False
    if any(s.kind in ("raise", "import", "with", "try") for s in with_inner(file, language, language.body(file, f))):
        return False
    return all(
        language.purity(file, (c.start, c.end)) != "effect" or fills_own(file, language, f, c)
        for c in file.calls_within(f.start, f.end)
    )


def fills_own(file: SourceFile, language: Language, f: Function, call: Call) -> bool:
    """Whether a call only changes a collection that the function has made itself, by plain values."""
    ref = next((r for r in file.within(call.start, call.end) if r.start == call.start), None)
    if ref is None or not ref.mutates or ref.symbol is None or ref.symbol.scope is not f.scope:
        return False
    inner = with_inner(file, language, language.body(file, f))
    made = [s for s in inner if s.target is not None and s.target.symbol is ref.symbol]
    fresh = len(made) == len(ref.symbol.bindings) and all(
        s.value is not None and language.purity(file, s.value) == "literal" for s in made
    )
    return bool(made) and fresh
