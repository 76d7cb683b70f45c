"""Statements that set several variables at once, taken apart where functions use one of these: each may find another home."""

from __future__ import annotations

from ..analysis.startup import running
from ..analysis.variable_kinds import parted
from ..program.edits import Range, applied
from ..program.language import Language, reread
from ..program.model import Program, SourceFile


def unpackings(file: SourceFile, language: Language) -> list[Range]:
    """The edits that give each variable its own line."""
    edits = []
    for s in running(file, language):
        pairs = parted(file, language, s)
        used = [r for name, _ in pairs for b in file.within(*name) if b.symbol is not None for r in b.symbol.references]
        if not pairs or not any(r.scope.frame is not file.scope for r in used):
            continue
        start = language.write.line_start(file, s.start)
        lead = file.slice(start, s.start)
        rest = file.slice(s.end, language.write.line_end(file, s.end)).strip()
        if lead.strip() or (rest and not language.write.trailing_comment(file, s.end)):
            continue
        lines = [f"{file.slice(*name)} = {file.slice(*value)}" for name, value in pairs]
        edits.append((s.start, s.end, (language.write.newline(file) + lead).join(lines)))
    return edits


def taken_apart(program: Program, path: str) -> Program:
    """The program with such statements of a file taken apart."""
    file = program.files[path]
    edits = unpackings(file, program.language)
    return reread(program, {path: applied(file.text, edits, file.encoding)}) if edits else program
