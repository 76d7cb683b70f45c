"""The methods of new classes stand in the order in which a reader meets them: what starts the program, then what that
calls.

class App:                            class App:
    def __init__(self): ...               def __init__(self): ...
    def _draw(self): ...                  def run(self):
    def _move(self): ...          →           self._move()
    def run(self):                            self._draw()
        self._move()                      def _move(self): ...
        self._draw()                      def _draw(self): ...
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from ..program.edits import Edits
from ..program.model import Function, Scope, SourceFile
from ..program.program import Program
from .by_hand import Asked, HandCommand, home_of
from .rewrite import Building, ClassRewrite
from .step import Context, FileStep, Step


@dataclass
class ArrangeMethods(FileStep):
    """The methods of classes in a file stand in the order in which they are met."""

    kind = "order"
    classes: list[str]

    def title(self) -> str:
        return "methods stand in the order in which they are met"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        scopes = [(s, n) for s, n in file.classes if n in self.classes and s.parent is file.scope]
        met = Meeting(context, file, [s for s, _ in scopes]).order()
        for scope, _ in scopes:
            self.arrange(context, file, scope, met, out)
        return out

    def arrange(self, context: Context, file: SourceFile, scope: Scope, met: dict[int, int], out: Edits) -> None:
        write = context.write
        methods = methods_of(context, file, scope)
        spans = [(write.comment_start(file, f.start), write.line_end(file, f.end - 1)) for f in methods]
        gaps = [file.text[a:b] for (_, a), (b, _) in pairwise(spans)]
        if any(a[1] > b[0] for a, b in pairwise(spans)) or any(gap.strip() for gap in gaps):
            return  # something else stands between them
        wanted = sorted(range(len(methods)), key=lambda i: (met.get(methods[i].start, len(file.text)), i))
        for place, i in enumerate(wanted):
            if place != i:
                text = file.slice(*spans[i])
                out.replace(file.path, *spans[place], text if text.endswith("\n") else text + write.newline(file))


def ask_order(program: Program, name: str) -> Asked:
    return Asked(ArrangeMethods(home_of(program, name), [name]))


class OrderMethods(ClassRewrite):
    """Each file of the sources, where there are methods."""

    by_hand = (
        HandCommand(
            "order",
            ("CLASS",),
            "Methods stand in the order in which they are met.",
            "Put the methods of a CLASS in the order in which a reader meets them: the constructor, what starts the "
            "program, what that calls.",
            "order TramlineApp tramline_app.py",
            "Changed",
            ask_order,
        ),
    )

    def steps(self, building: Building) -> Iterator[Step]:
        design = building.design
        for path in building.program.files:
            if path in design.sources and any(
                c.methods for c in design.classes
            ):  # an app may have no method but that which runs it
                yield ArrangeMethods(path, [c.name for c in design.classes])


def methods_of(context: Context, file: SourceFile, scope: Scope) -> list[Function]:
    """The methods of a class but for its constructor, in source order; a language's own name for that may be the
    class's."""
    found = [f for f in file.functions if f.outer is scope and f.name not in makers(context, scope)]
    return sorted(found, key=lambda f: f.start)


def makers(context: Context, scope: Scope) -> tuple[str, str]:
    """What the constructor of a class may be called."""
    return context.write.CONSTRUCTOR, scope.name


class Meeting:
    """A walk through the program from where it starts, into each method where it is first named."""

    def __init__(self, context: Context, file: SourceFile, scopes: list[Scope]) -> None:
        self.context, self.file = context, file
        self.found: dict[int, int] = {}
        self.named: dict[str, list[Function]] = {}
        for scope in scopes:
            for f in methods_of(context, file, scope):
                self.named.setdefault(f.name, []).append(f)
            for f in [f for f in file.functions if f.outer is scope and f.name in makers(context, scope)]:
                self.named.setdefault(scope.name, []).append(f)  # who makes an object meets what its constructor calls
        for f in file.tops:
            self.named.setdefault(f.name, []).append(f)

    def order(self) -> dict[int, int]:
        """Where a function starts → how many were met before it."""
        rest = [s for s in self.file.statements if s.kind not in ("class", "function", "import", "docstring")]
        for s in sorted(rest, key=lambda s: s.start):
            self.walk(s.start, s.end)
        return self.found

    def walk(self, start: int, end: int) -> None:
        stack = [iter(self.words(start, end))]
        while stack:
            f = next(stack[-1], None)
            if f is None:
                stack.pop()
            elif f.start not in self.found:
                self.found[f.start] = len(self.found)
                stack.append(iter(self.words(f.body_start, f.end)))

    def words(self, start: int, end: int) -> list[Function]:
        """The functions that a stretch names, in the order in which it does."""
        return [f for word in self.context.language.tokens(self.file, start, end, []) for f in self.named.get(word, ())]
