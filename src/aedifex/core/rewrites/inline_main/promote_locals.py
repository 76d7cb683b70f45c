"""Variables of the function that starts a program raised to its class, in languages where no code stands outside of
functions.

public static void main(...) {            static int score = 0;
    int score = 0;                  →
    while (score < 3) ...                 public static void main(...) {
}                                             while (score < 3) ...
                                          }

Only those whose first value is the same wherever it is worked out.
"""

from __future__ import annotations

from itertools import groupby

from ...analysis.variable_kinds import constants_of, movable
from ...program.edits import Range
from ...program.language import Language
from ...program.layout import text_lines
from ...program.model import Function, SourceFile, Statement
from ...program.refusal import Refusal
from .. import messages
from .opening import Opening


def raised(file: SourceFile, language: Language, name: str) -> Opening | Refusal | None:
    """How the variables are raised; why not, or None if there are none. ``name``: of the function that is meant."""
    guard = next((s for s in file.statements if s.kind == "guard"), None)
    f = next((f for f in file.tops if guard is not None and guard.start <= f.start < guard.end), None)
    if guard is None or f is None or (name and f.name != name):
        return None
    if f.symbol is not None and any(not r.writes for r in f.symbol.references):
        return messages.CALLED_BY_PROGRAM.at(file, f.start, function=f.name)
    found = [
        group
        for group in declarations(file, language, guard)
        if all(can(file, language, f, s) for s in group) and stands_alone(file, language, group)
    ]
    return promotion(file, language, f, found, language.inner(file, guard)) if found else None


def declarations(file: SourceFile, language: Language, guard: Statement) -> list[list[Statement]]:
    """The declarations right in its body, each with its variables."""
    own = [s for s in language.inner(file, guard) if s.kind == "assign" and s.annotation is not None]
    return [list(group) for _, group in groupby(own, key=lambda s: s.group or (s.start, s.end))]


def can(file: SourceFile, language: Language, f: Function, s: Statement) -> bool:
    """Whether a variable can be the class's: a free name, a written type, a value that can be worked out before."""
    assert s.annotation is not None and s.value is not None
    symbol = s.target.symbol if s.target is not None else None
    if (
        symbol is None
        or symbol.scope is file.scope
        or not language.regions.declared_as(file, symbol)[1]
        or s.value[0] == s.value[1]
    ):
        return False
    other = file.scope.symbols.get(symbol.name)
    if other is not None and (other.bindings or other.references):
        return False
    refs = file.within(*s.value)
    here = all(r.symbol is not None and (r.symbol.scope is file.scope or not r.symbol.bindings) for r in refs)
    early = all(
        b.start < f.start
        for r in refs
        if r.symbol is not None and r.symbol.scope is file.scope
        for b in r.symbol.bindings
    )
    return (
        here
        and early
        and not file.calls_within(*s.value)
        and movable(file, s.value, constants_of(file, language), language)
    )


def stands_alone(file: SourceFile, language: Language, group: list[Statement]) -> bool:
    """Whether a declaration has its lines for itself, but for a remark."""
    write = language.write
    start, end = group[0].group or (group[0].start, group[0].end)
    behind = file.slice(end, write.line_end(file, end)).replace(write.trailing_comment(file, end), "")
    return not file.slice(write.line_start(file, start), start).strip() and not behind.strip()


def promotion(
    file: SourceFile, language: Language, f: Function, found: list[list[Statement]], body: list[Statement]
) -> Opening:
    write = language.write
    at = write.comment_start(file, f.start)
    lead = file.slice(write.line_start(file, f.start), f.start)
    lines: list[str] = []
    gone: list[Range] = []
    for group in found:
        start, end = group[0].group or (group[0].start, group[0].end)
        above, right = write.comment_start(file, start), write.line_end(file, end)
        lines += [lead + line.strip() for line in text_lines(file.slice(above, write.line_start(file, start)))]
        lines.append(f"{lead}static {file.slice(start, end)}{write.trailing_comment(file, end)}")
        gone.append((above, right, ""))
    if (
        gone
        and not file.text[gone[-1][1] : write.line_end(file, gone[-1][1])].strip()
        and gone[-1][1] < body[-1].start
        and gone[0][0] == write.comment_start(file, body[0].start)
    ):
        gone[-1] = (gone[-1][0], write.line_end(file, gone[-1][1]), "")
    text = write.with_newlines("".join(line + "\n" for line in [*lines, ""]), write.newline(file))
    out = Opening(file, [(at, at, text), *gone], f)
    out.names = [s.target.name for group in found for s in group if s.target is not None]
    out.body = (file.line(f.start), file.line(f.end - 1))
    out.at = file.line(f.start) + len(lines) + 1
    out.gone = [n for a, b, _ in gone for n in range(file.line(a), file.line(b - 1) + 1)]
    return out
