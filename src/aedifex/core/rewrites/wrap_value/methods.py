"""Functions that are handed what an object holds, as methods of it.

def show(yard): print(yard)          class Yard: ...
show(yard.places)              →         def show(self): print(self.places)
                                     yard.show()
"""

from __future__ import annotations

from ...program.edits import Range
from ...program.language import Language
from ...program.model import Call, Function, Reference, SourceFile
from ..record_class.objects import Handed
from .wrapping import PLAIN_FORMS


class HandedValue(Handed):
    """Functions that are handed the value, in a file where objects of ``class_`` hold it by now in ``member``."""

    def __init__(self, file: SourceFile, language: Language, class_: str, member: str) -> None:
        super().__init__(file, language, class_)
        self.member = member
        self.head, self.tail = self.write.make(class_, ["\0"]).split("\0")

    def told_of(self, argument: str) -> str:
        """The object that holds what an argument says: it is asked for it there, or made for it."""
        owner, dot, member = argument.rpartition(".")
        if dot and member == self.member and (owner.isidentifier() or owner == self.write.RECEIVER):
            return owner
        return f"{self.head}{argument}{self.tail}"

    def unreadable(self, f: Function, call: Call, param: str) -> str:
        """Why a call cannot ask an object; "" if it can."""
        line, arg = self.file.shown(call.start), self.argument(f, call, param)
        if arg is None:
            return f"line {line}: nothing tells what this call hands over"
        if not self.quiet_before(call, arg):
            return f"line {line}: something happens before the object is known"
        inner = self.file.within(arg.value_start, arg.end)
        own = f.start <= call.start < f.end and any(r.symbol is f.scope.symbols[param] for r in inner)
        if own and self.file.slice(arg.value_start, arg.end) != param:
            return f"line {line}: it calls itself with something that is worked out"
        if any(c.callee.symbol is f.symbol for c in self.file.calls_within(arg.value_start, arg.end)):
            return f"line {line}: it is handed what it gives itself"
        return ""

    def why_not(self, f: Function, param: str) -> str:
        why = super().why_not(f, param)
        uses = [r for r in f.scope.symbols[param].references if not r.writes]
        if not why and any(r.form not in PLAIN_FORMS for r in uses):
            why = f"'{param}' is spelled out in '{f.name}'"
        edits, trouble = self.write.inner_receivers(self.file, f.scope, uses)
        return why or trouble or ("a function inside of it has an object of its own" if edits else "")

    def calls_outside(self, f: Function) -> list[Call]:
        return [c for c in super().calls_outside(f) if not f.start <= c.start < f.end]

    def method_edits(self, f: Function, param: str, name: str, loose: bool) -> list[Range]:
        """The function becomes a method, the value what the object holds, each call asks the object."""
        assert f.symbol is not None
        calls = [c for c in self.file.calls_of(f.symbol) if f.start <= c.start < f.end]
        told = [self.argument(f, c, param) for c in calls]
        spans = [(a.value_start, a.end) for a in told if a is not None]
        inner: list[Range] = [e for c in calls for e in self.inner_call(f, c, param, name)]
        for r in f.scope.symbols[param].references:
            if not r.writes and not any(a <= r.start < b for a, b in spans):
                inner.append(self.inside(r))
        return self.moved(f, param, name, self.class_, inner, loose)

    def inside(self, r: Reference) -> Range:
        """A use of the value in its method: the object itself, where one was made of it for a call."""
        start, end = r.start - len(self.head), r.end + len(self.tail)
        if self.file.slice(start, r.start) == self.head and self.file.slice(r.end, end) == self.tail:
            return (start, end, self.write.RECEIVER)
        return (r.start, r.end, f"{self.write.RECEIVER}.{self.member}")

    def inner_call(self, f: Function, call: Call, param: str, name: str) -> list[Range]:
        """A call of a function by itself: the object calls its own method."""
        arg = self.argument(f, call, param)
        assert arg is not None
        if self.file.slice(arg.value_start, arg.end) != param:
            return self.asking(f, call, param, name, self.told_of(self.file.slice(arg.value_start, arg.end)))
        return self.asking(f, call, param, name, self.write.RECEIVER)
