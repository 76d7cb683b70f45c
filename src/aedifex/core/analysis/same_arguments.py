"""Parameters that receive the same variable at every call."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import Function, SourceFile, Symbol


def same_arguments(file: SourceFile, language: Language, f: Function) -> dict[str, Symbol]:
    """Parameter → the variable of the file that it receives at every call; empty if the function is used in any other
    way."""
    if f.symbol is None or any(p.kind in ("star", "doublestar") for p in f.params):
        return {}
    calls = list(file.calls_of(f.symbol))
    if not calls or len(calls) != sum(not r.writes for r in f.symbol.references):
        return {}
    found: dict[str, set[Symbol | None]] = {}
    for call in calls:
        given: dict[str, Symbol | None] = {}
        for i, arg in enumerate(language.arguments(file, call)):
            if arg.keyword in ("*", "**"):
                return {}
            name = arg.keyword or (f.params[i].name if i < len(f.params) else "")
            refs = list(file.within(arg.value_start, arg.end))
            whole = len(refs) == 1 and (refs[0].start, refs[0].end) == (arg.value_start, arg.end)
            given[name] = refs[0].symbol if whole and refs[0].symbol is not None else None
        for p in f.params:
            found.setdefault(p.name, set()).add(given.get(p.name))
    top = file.scope
    return {
        p: s
        for p, symbols in found.items()
        if len(symbols) == 1 and (s := next(iter(symbols))) is not None and s.scope is top and "variable" in s.kinds
    }
