"""What every object of a wrapped value begins with: then its constructor sets that, and is handed nothing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from ...analysis.variable_kinds import constants_of
from ...program.code_text import remark_spans
from ...program.language import Language
from ...program.model import Function, SourceFile
from ..parameter_to_receiver import calls_alone

Span = tuple[int, int]


@dataclass
class StartValue:
    """``text``: the expression; ``factory``: the function that did nothing but give it; ``remarks``: those in and above
    that."""

    text: str
    factory: Function | None = None
    remarks: list[str] = field(default_factory=list)


def same_start_value(file: SourceFile, language: Language, spans: Sequence[Span]) -> StartValue | None:
    """What all objects begin with, where it can be worked out in the constructor as well; None if they differ.

    ``spans``: the expressions that are wrapped.
    """
    found = [start_value(file, language, span, spans) for span in spans]
    first = found[0] if found else None
    if first is None or any(f is None or (f.text, f.factory) != (first.text, first.factory) for f in found):
        return None
    return first


def start_value(file: SourceFile, language: Language, span: Span, spans: Sequence[Span]) -> StartValue | None:
    made = factory_at(file, language, span, spans)
    value = returned(file, language, made) if made is not None else span
    if value is None or "\n" in file.slice(*value) or not says_the_same(file, language, value):
        return None
    if made is None:
        return StartValue(file.slice(*value))
    start = language.write.comment_start(file, made.start)
    remarks = [file.slice(a, b) for a, b in remark_spans(file) if start <= a < made.end]
    return StartValue(file.slice(*value), made, remarks)


def factory_at(file: SourceFile, language: Language, span: Span, spans: Sequence[Span]) -> Function | None:
    """The function that a value is a call of, where it is called for such values only."""
    call = next((c for c in file.calls_within(*span) if (c.start, c.end) == span and not c.callee.member), None)
    made = file.function(call.callee.name) if call is not None else None
    if made is None or made.params or made.decorators or made.is_async:
        return None
    calls = calls_alone(file, made)
    return made if calls and all((c.start, c.end) in spans for c in calls) else None


def returned(file: SourceFile, language: Language, made: Function) -> Span | None:
    """The expression that is all that a function gives; None if it does more."""
    rows = [s for s in language.body(file, made) if s.kind != "docstring"]
    if len(rows) != 1 or rows[0].kind != "return":
        return None
    return language.regions.given_back(file, rows[0])


def says_the_same(file: SourceFile, language: Language, value: Span) -> bool:
    """Whether an expression means the same in a constructor: it names what is built in, imported, or constant."""
    constants = constants_of(file, language)
    for r in file.within(*value):
        s = r.symbol
        own = s is not None and s.bindings and all(value[0] <= b.start < value[1] for b in s.bindings)
        if s is None or own or not s.kinds or s.kinds == {"import"} or s in constants:
            continue
        return False
    return True
