"""Set-up, loop and handlers: which stretches of code run when."""

from __future__ import annotations

from dataclasses import dataclass

from ..program.language import Language
from ..program.model import SourceFile, Statement
from .effects import Effects


@dataclass(frozen=True)
class MainPart:
    """A stretch of main code. ``kind``: set-up, loop, closing."""

    kind: str
    spans: tuple[tuple[int, int], ...]  # of its statements; functions may stand between them
    statements: int

    @property
    def start(self) -> int:
        return self.spans[0][0]

    @property
    def end(self) -> int:
        return self.spans[-1][1]


@dataclass(frozen=True)
class Handler:
    """A function that is handed on to be called later, with the call that takes it."""

    name: str
    line: int
    registered_by: str


def main_parts(file: SourceFile, effects: Effects, language: Language) -> list[MainPart]:
    """Main code in order: what comes before the first loop, the loops, what comes after the last."""
    return stretches(main_statements(file, effects, language), language)


def main_statements(file: SourceFile, effects: Effects, language: Language) -> list[Statement]:
    """The statements of the main code in the order in which they run, those of the guard that starts it in its
    place."""
    return [inner for s in effects.main() for inner in (language.inner(file, s) if s.kind == "guard" else [s])]


def stretches(statements: list[Statement], language: Language) -> list[MainPart]:
    """What comes before the main loop, the loop itself (the first ``while``, else the last ``for``), and what
    follows."""
    loops = [i for i, s in enumerate(statements) if s.kind in ("while", "for")]
    main_loop = next((i for i in loops if statements[i].kind == "while"), loops[-1] if loops else None)
    found: list[tuple[str, list[tuple[int, int]], list[int]]] = []
    for i, s in enumerate(statements):
        kind = "loop" if i == main_loop else "set-up" if main_loop is None or i < main_loop else "closing"
        if not found or found[-1][0] != kind:
            found.append((kind, [], []))
        found[-1][1].append((s.start, s.end))
        found[-1][2].append(language.count(s))
    return [MainPart(kind, tuple(spans), sum(counts)) for kind, spans, counts in found]


def handlers(file: SourceFile, effects: Effects) -> list[Handler]:
    """Functions of the file that a call receives as a value."""
    found = []
    for symbol in effects.units:
        if "function" not in symbol.kinds:
            continue
        for ref in symbol.references:
            if ref.role != "value":
                continue
            holding = [c for c in file.calls if c.args_start <= ref.start < c.args_end]
            if holding:
                inner = max(holding, key=lambda c: c.start)
                callee = inner.callee.name + (f".{inner.callee.member}" if inner.callee.member else "")
                found.append(Handler(symbol.name, file.shown(ref.start), callee))
    return sorted(found, key=lambda h: (h.line, h.name))
