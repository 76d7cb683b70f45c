"""Whether an index is sure to be one of a list's, in languages in which an item that is not there is no error: an
object that is not there would be one."""

from __future__ import annotations

from ..program.language import Language
from ..program.lists import ListUse, Records
from ..program.model import Function, SourceFile, Symbol
from .counting_loops import whole_loops
from .effects import Effects

DEEP = 8  # functions that hand an index on


def unsure(file: SourceFile, language: Language, made: Records) -> ListUse | None:
    """The first use of an item that may not be there."""
    checker = BoundsChecker(file, language, made)
    uses = sorted((u for s in made.lists for u in made.uses[s] if u.kind == "item"), key=lambda u: u.span)
    return next((u for u in uses if not checker.sure(u.parts[0])), None)


class BoundsChecker:
    """Whether an index stays within its list, from how it is counted."""

    def __init__(self, file: SourceFile, language: Language, made: Records) -> None:
        self.file, self.language, self.made = file, language, made
        self.effects = Effects(file, language)
        self.least = len(made.firsts[0].parts)
        self.shrinking = [u for s in made.lists for u in made.uses[s] if u.kind in ("delete", "empty")]
        self.changers = {f.symbol for f in file.tops for u in self.shrinking if f.start <= u.ref.start < f.end}
        bounds = {language.write.length(s.name) for s in made.lists} | (
            {str(n) for n in range(1, self.least + 1)} if not self.shrinking else set()
        )
        self.loops = whole_loops(file, language, bounds)

    def sure(self, index: tuple[int, int], depth: int = 0) -> bool:
        text = self.file.slice(*index)
        if text.isdigit():
            return int(text) < self.least and not self.shrinking
        ref = next(
            (r for r in self.file.within(*index) if r.start == index[0] and r.end == index[1] and not r.member), None
        )
        if ref is None or ref.symbol is None or depth > DEEP:
            return False
        return self.counted(ref.symbol, index[0]) or self.handed(ref.symbol, index[0], depth)

    def counted(self, s: Symbol, at: int) -> bool:
        """Whether it counts through the list in a loop that takes nothing out."""
        for loop, counting in self.loops:
            if (
                counting.opens <= at < loop.end
                and s.name == counting.name
                and all(loop.start <= b.start < counting.opens for b in s.bindings)
            ):
                return not self.shrinks(loop.start, loop.end)
        return False

    def handed(self, s: Symbol, at: int, depth: int) -> bool:
        """Whether it is a parameter that every call gives such an index."""
        f = self.file.function_at(at)
        if (
            f is None
            or f.symbol is None
            or f.scope.symbols.get(s.name) is not s
            or s.name not in [p.name for p in f.params]
        ):
            return False
        plain = (
            len(s.bindings) == 1
            and f.symbol.kinds == {"function"}
            and f.symbol not in self.effects.escaped
            and not self.shrinks(f.start, f.end)
        )
        calls = self.file.calls_of(f.symbol)
        return plain and bool(calls) and all(self.given(f, s.name, c.start, depth) for c in calls)

    def given(self, f: Function, param: str, at: int, depth: int) -> bool:
        call = next(c for c in self.file.calls_of(f.symbol) if c.start == at)  # type: ignore[arg-type]
        place = [p.name for p in f.params].index(param)
        args = self.language.arguments(self.file, call)
        return (
            place < len(args)
            and not any(a.keyword for a in args)
            and self.sure((args[place].value_start, args[place].end), depth + 1)
        )

    def shrinks(self, start: int, end: int) -> bool:
        touch = self.effects.touch(start, end)
        inside = any(start <= u.ref.start < end for u in self.shrinking)
        return (
            inside or bool(touch.uses & self.changers) or (touch.unseen and bool(self.effects.escaped & self.changers))
        )
