"""Make lists with one index one list of objects.

names = ["Mill", "Quarry"]           class Stop:
waiting = [0, 0]               →         def __init__(self, name, waiting): ...
waiting[i] += 1                      stops = [Stop("Mill", 0), Stop("Quarry", 0)]
                                     stops[i].waiting += 1
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from ...draft.collections import collection_edits, loops, loose
from ...draft.design import ClassDesign, bare
from ...draft.items import Items
from ...draft.records import Range, wanted
from ...program.model import Function, SourceFile
from ...survey.hazards import hazards
from ..edits import Edits
from ..step import Context, Refusal
from .keyed import BecomesMethod, is_keyed


@dataclass
class CollectRecords:
    design: ClassDesign
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None  # where it was tried already

    @property
    def id(self) -> str:
        return f"collect:{self.design.name}"

    def title(self) -> str:
        lists = ", ".join(bare(o) for f in self.design.fields for o in f.origins)
        return f"{lists} become one list {self.design.objects[0].collection} of {self.design.name} objects"

    def apply(self, context: Context) -> Edits:
        if self.refused is not None:
            raise self.refused
        file = context.home(self.design)
        names = [bare(o) for f in self.design.fields for o in f.origins]
        for h in hazards(context.program, file.path):
            if not h.names or set(h.names) & set(names):
                raise Refusal(h.message, h.path, h.line, "the lists stay lists")
        collection = self.design.objects[0].collection
        for name in (collection, self.design.name):
            if name not in names and any(name in s.symbols for s in file.scope.walk()):
                raise Refusal(f"'{name}' is in use already", file.path, 0, "choose another name in the design")
        found = wanted(file, context.language, names)
        if isinstance(found, str):
            place = re.match(r"line (\d+):? ", found)
            said, line = (found[place.end() :], int(place[1])) if place and ":" in place[0] else (found, 0)
            raise Refusal(said, file.path, line, "take the class out of the design")
        out = Edits()
        for start, end, text in collection_edits(file, context.language, found, self.design):
            out.replace(file.path, start, end, text)
        return out


class ItemMethod(BecomesMethod):
    """A function that gets an index becomes a method of the object that it is of."""

    def edits(self, context: Context, file: SourceFile, f: Function) -> list[Range]:
        items = Items(file, context.language, self.design.objects[0].collection)
        if len(self.method.drop) != 1 or self.method.drop[0] not in [p.name for p in f.params]:
            raise Refusal(f"'{f.name}' has no one parameter that is the index", file.path, file.line(f.start), "name it in 'drop'")
        param = self.method.drop[0]
        p = next(p for p in f.params if p.name == param)
        why = items.why_not(f, param) if items.told and items.is_index(f, p) else f"'{param}' is more than an index"
        if why:
            raise Refusal(why, file.path, file.line(f.start), "it stays a function")
        return items.method_edits(f, param, self.method.name, self.design.name, loose(context.program, file))


@dataclass
class AskItems:
    """Loops that count through a list go through its objects."""

    design: ClassDesign
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None

    @property
    def id(self) -> str:
        return f"loops:{self.design.name}"

    def title(self) -> str:
        obj = self.design.objects[0]
        return f"loops go through {obj.collection} and ask each {obj.name}"

    def apply(self, context: Context) -> Edits:
        if self.refused is not None:
            raise self.refused
        file, out = context.home(self.design), Edits()
        for edit in loops(file, context.language, self.design):
            out.replace(file.path, *edit)
        return out


def is_collection(c: ClassDesign) -> bool:
    """Whether the objects of a class are kept in a list that takes the place of several."""
    return len(c.objects) == 1 and bool(c.objects[0].collection) and not is_keyed(c)
