"""Set-up, loop and handlers: which stretches of code run when."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..program.inline import Listener
from ..program.language import Language
from ..program.model import Function, SourceFile, Statement
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
    """A function that is handed on to be called later, with the call that takes it.

    ``name``: "" of what is written in place; ``method``: in which it is written, Class.method, the
    class alone for its constructor, "" at the top.
    """

    name: str
    line: int
    registered_by: str
    method: str = ""


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
            if callee := taken_by_call(file, ref.start):
                found.append(Handler(symbol.name, file.shown(ref.start), callee))
    return sorted(found, key=lambda h: (h.line, h.name))


def taken_by_call(file: SourceFile, at: int) -> str:
    """The call in whose arguments something stands, as ``name.member``; "" if it stands in none."""
    holding = [c for c in file.calls if c.args_start <= at < c.args_end]
    inner = max(holding, key=lambda c: c.start, default=None)
    return inner.callee.name + (f".{inner.callee.member}" if inner.callee.member else "") if inner is not None else ""


def listeners_of(file: SourceFile, language: Language) -> list[Listener]:
    """Listeners that are written in the methods of classes, and the functions beside them; worked out once."""
    if "listeners" not in file.memo:
        file.memo["listeners"] = language.listening.listeners(file) if language.listening is not None else []
    found: list[Listener] = file.memo["listeners"]
    return found


def in_methods(file: SourceFile, language: Language) -> Iterator[Handler]:
    """Listeners that are written in the methods of classes."""
    for n in listeners_of(file, language):
        if (n.own or n.event or n.control) and n.method is not None:
            uses = n.function.symbol.references if n.function is not None and n.function.symbol is not None else []
            at = next((r.start for r in uses if r.role == "value"), n.start)
            name = n.function.name if n.function is not None else ""
            yield Handler(name, file.shown(at), taken_by_call(file, at), method_key(n.method, language))


def method_key(method: Function, language: Language) -> str:
    """Class.method, and the class alone for its constructor."""
    return method.key.rpartition(".")[0] if method.name == language.write.CONSTRUCTOR else method.key
