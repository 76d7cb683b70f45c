"""What works on one object of a list: functions that get its index become its methods, loops that count go through the
objects.

def drive(i, far): wagons[i].km += far          class Wagon:  def drive(self, far): self.km += far
for i in range(len(wagons)): drive(i, 5)   →    for wagon in wagons: wagon.drive(5)

Used by the draft and by the steps that do it.
"""

from __future__ import annotations

from dataclasses import dataclass

from ...analysis.counting_loops import statements, whole_loops
from ...analysis.hazards import by_text
from ...analysis.late_reads import deferred
from ...analysis.parallel_arrays import GROWING
from ...program.edits import Range
from ...program.language import Language
from ...program.lists import ListUse, Span, WholeLoop
from ...program.model import Call, Function, Parameter, SourceFile, Symbol
from ...program.scopes import shadowed
from ..parameter_to_receiver import ParameterCalls

CHANGING = (*GROWING, "other")


@dataclass(frozen=True)
class Each:
    """A loop through all objects; ``start`` and ``end`` of what it repeats."""

    loop: WholeLoop
    start: int
    end: int


class Items(ParameterCalls):
    """A list of objects and its uses in a file as it stands. ``collection``: its name. ``told``: whether every use of
    it can be told."""

    def __init__(self, file: SourceFile, language: Language, collection: str) -> None:
        super().__init__(file, language)
        symbol = file.scope.symbols.get(collection)
        uses = language.object_list_uses(file, symbol) if symbol is not None else None
        self.collection, self.symbol, self.told = collection, symbol, uses is not None
        self.uses: list[ListUse] = uses or []
        changing = [u.ref for u in self.uses if u.kind in CHANGING]
        self.changers = {f.symbol for f in file.tops for r in changing if f.start <= r.start < f.end}
        tops = [(f.start, f.end) for f in file.tops]
        self.elsewhere = any(
            deferred(r.scope, file.scope) and not any(a <= r.start < b for a, b in tops) for r in changing
        )  # in methods, and the like

    def items(self, start: int, end: int) -> list[ListUse]:
        return [u for u in self.uses if u.kind == "item" and start <= u.ref.start < end]

    # -- functions -------------------------------------------------------------------------------

    def functions(self) -> list[tuple[Function, str]]:
        """The functions that can be methods of one object, with the parameter that is its index."""
        found = []
        for f in self.file.tops if self.told else ():
            for p in f.params:
                if self.is_index(f, p) and not self.why_not(f, p.name):
                    found.append((f, p.name))
                    break
        return found

    def is_index(self, f: Function, p: Parameter) -> bool:
        """Whether a parameter is nothing but the index of the objects that a function works with."""
        spans = {u.parts[0] for u in self.items(f.start, f.end)}
        s = f.scope.symbols.get(p.name)
        uses = [r for r in s.references if not r.writes] if s is not None else []
        return bool(uses) and all((r.start, r.end) in spans for r in uses)

    def why_not(self, f: Function, param: str) -> str:
        """ "" if a function can be a method of the object with the index ``param``, else why not."""
        file, language = self.file, self.language
        p = next(p for p in f.params if p.name == param)
        inside = [u for u in self.uses if f.start <= u.ref.start < f.end]
        if any(u.kind != "item" or file.slice(*u.parts[0]) != param for u in inside):
            return f"'{f.name}' works with more than one object of {self.collection}"
        if len(f.scope.symbols[param].bindings) > 1 or p.default or p.kind not in ("plain", "positional"):
            return f"'{param}' is more than an index"
        if (
            f.symbol is None
            or f.symbol.kinds != {"function"}
            or f.symbol in self.effects.escaped
            or f.decorators
            or f.is_async
            or f.scope.generator
        ):
            return f"'{f.name}' is used other than by calling it"
        if any(q.default and language.purity(file, q.default) != "literal" for q in f.params) or list(
            by_text(file, language, f.start, f.end)
        ):
            return f"'{f.name}' depends on where it stands"
        if self.write.RECEIVER in {n for s in f.scope.walk() for n in s.symbols} or self.write.class_trouble(
            file, f.start, f.end
        ):
            return f"'{f.name}' cannot stand in a class"
        direct = self.effects.direct(f.start, f.end)
        names = (direct.names | {n for used in direct.uses for n in self.effects.reach[used].names}) - self.constants
        if names - {self.symbol} or any(self.symbol in self.effects.reach[used].names for used in direct.uses):
            return f"'{f.name}' works with more than its object"
        if not self.at_once(f):
            return f"'{f.name}' may do something else before it looks at its object"
        return next((why for c in file.calls_of(f.symbol) if (why := self.unreadable(f, c, param))), "")

    def at_once(self, f: Function) -> bool:
        """Whether the object is looked at first, so that an index that is wrong fails at the same point."""
        body = [s for s in self.language.body(self.file, f) if s.kind not in ("docstring", "declare")]
        first = min(u.ref.start for u in self.items(f.start, f.end))
        if (
            not body
            or not body[0].start <= first < body[0].end
            or any(c.end <= first for c in self.file.calls_within(body[0].start, first))
        ):
            return False
        inner = (
            self.language.inner(self.file, body[0])
            if body[0].kind in ("if", "for", "while", "with", "try", "match")
            else []
        )
        return body[0].kind in ("assign", "augment", "expression", "return") or (bool(inner) and first < inner[0].start)

    def unreadable(self, f: Function, call: Call, param: str) -> str:
        arg = self.argument(f, call, param)
        line = self.file.shown(call.start)
        if (
            arg is None
            or f.start <= call.start < f.end
            or shadowed(call.callee.scope, self.collection, self.file.scope)
        ):
            return f"line {line}: nothing tells which object this call is for"
        if not self.quiet_before(call, arg):
            return f"line {line}: something happens before the index is known"
        inner = self.file.calls_within(arg.value_start, arg.end)
        return (
            f"line {line}: the index is found by the same function"
            if any(c.callee.symbol is f.symbol for c in inner)
            else ""
        )

    def method_edits(self, f: Function, param: str, name: str, class_: str, loose: bool) -> list[Range]:
        """The function becomes a method, each call asks the object. ``loose``: its document string may be indented."""
        inner = [(*u.span, self.write.RECEIVER) for u in self.items(f.start, f.end)]
        return self.moved(f, param, name, class_, inner, loose)

    def told_of(self, argument: str) -> str:
        return f"{self.collection}[{argument}]"

    # -- loops -----------------------------------------------------------------------------------

    def loops(self, item: str) -> list[Each]:
        """The loops that count through the list only to look at each object, and could go through the objects."""
        found, counting = [], whole_loops(self.file, self.language, self.bounds()) if self.told else []
        headers = [loop.header for _, loop in counting]
        for s, loop in counting:
            each = Each(loop, loop.opens, self.language.regions.blocks(self.file, s)[0].end)
            if self.only_looks(each, item, headers):
                found.append(each)
        return found

    def bounds(self) -> set[str]:
        """What says how many objects there are."""
        file, first = self.file, next((u for u in self.uses if u.kind == "first"), None)
        if first is None:
            return {self.write.length(self.collection)}
        size = "".join(file.slice(*first.size).split()) if first.size is not None else str(len(first.parts))
        fixed = {
            s.target.symbol.name
            for s in file.statements
            if s.target is not None
            and s.target.symbol in self.constants
            and s.value is not None
            and file.slice(*s.value) == size
        }
        return {
            self.write.length(self.collection),
            *({size, *fixed} if not any(u.kind in CHANGING for u in self.uses) else ()),
        }

    def only_looks(self, u: Each, item: str, headers: list[Span]) -> bool:
        """``headers``: of all loops that count through the list."""
        file, loop = self.file, u.loop
        bound = next((r for r in file.within(*loop.header) if r.name == loop.name and r.writes), None)
        if bound is None or bound.symbol is None or item in bound.scope.symbols:
            return False

        def asked(i: ListUse) -> bool:
            return file.text[i.span[1] :].lstrip()[:1] == b"." or not (i.ref.writes or i.ref.mutates)

        spans = {i.parts[0] for i in self.items(u.start, u.end) if asked(i)}
        mine = [r for r in bound.symbol.references if u.start <= r.start < u.end]
        looks = [r for r in mine if (r.start, r.end) in spans and not r.writes]
        if (
            not mine
            or len(looks) < len(mine)
            or any(deferred(r.scope, bound.scope) or shadowed(r.scope, item, bound.scope) for r in mine)
        ):
            return False
        bodies = [(u.start, u.end), *headers, *self.bodies(bound.symbol)]
        if not all(
            any(a <= r.start < b for a, b in bodies) for r in bound.symbol.references if r not in bound.symbol.bindings
        ):
            return False
        if any(g.kind in CHANGING and u.start <= g.ref.start < u.end for g in self.uses):
            return False
        f = file.function_at(u.start)
        if f is not None and (f.is_async or f.scope.generator):
            return False  # others run between its turns
        if self.elsewhere and (
            file.calls_within(u.start, u.end) or any(u.start <= at < u.end for at in file.opaque_calls)
        ):
            return False
        touch = self.effects.touch(u.start, u.end)
        return not touch.uses & self.changers and not (touch.unseen and self.effects.escaped & self.changers)

    def bodies(self, variable: Symbol) -> list[Span]:
        """What is repeated by loops that give a variable its value on each turn."""
        found = []
        for s in statements(self.file, self.language):
            block = self.language.regions.blocks(self.file, s)[0] if s.kind == "for" else None
            if block is not None and any(s.start <= b.start < block.start for b in variable.bindings):
                found.append((block.start, block.end))
        return found

    def loop_edits(self, u: Each, class_: str, item: str) -> list[Range]:
        mine = [i for i in self.items(u.start, u.end) if self.file.slice(*i.parts[0]) == u.loop.name]
        return [(*u.loop.header, self.write.each(class_, item, self.collection)), *((*i.span, item) for i in mine)]
