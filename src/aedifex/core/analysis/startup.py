"""The statements that a file runs when it is started, in order: those of the guard that starts the program stand in the
guard's place."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import Call, SourceFile, Statement, Symbol


def running(file: SourceFile, language: Language) -> list[Statement]:
    """The statements at the top, with those of a guard around main code that set the file's own variables."""
    if "running" not in file.memo:
        found: list[Statement] = []
        for s in file.statements:
            found += guarded(file, language, s) or [s]
        file.memo["running"] = found
    result: list[Statement] = file.memo["running"]
    return result


def set_once(file: SourceFile, language: Language) -> dict[Symbol, Call]:
    """Variables at the top that are bound once, to what a call of a plain name gives, with that call."""
    calls = {(c.start, c.end): c for c in file.calls if not c.callee.member}
    found = {}
    for s in running(file, language):
        call = calls.get(s.value) if s.value is not None else None
        symbol = s.target.symbol if s.target is not None else None
        if call is not None and symbol is not None and len(symbol.bindings) == 1:
            found[symbol] = call
    return found


def guarded(file: SourceFile, language: Language, s: Statement) -> list[Statement]:
    """What a guard holds, line by line; nothing where its variables are not the file's, or it holds something else
    besides."""
    if s.kind != "guard" or not language.code_at_top or language.declares or language.has_alternative(s):
        return []
    inner = language.inner(file, s)
    return inner if inner and file.line(inner[0].start) > file.line(s.start) else []


def under_guard(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether a statement only runs where the file is started, not where it is imported."""
    if "guards" not in file.memo:
        file.memo["guards"] = [(g.start, g.end) for g in file.statements if g.kind == "guard"]
    return any(a < s.start < b for a, b in file.memo["guards"])
