"""Make lists with one index one list of objects.

names = ["Mill", "Quarry"]           class Stop:
waiting = [0, 0]               →         def __init__(self, name, waiting): ...
waiting[i] += 1                      stops = [Stop("Mill", 0), Stop("Quarry", 0)]
                                     stops[i].waiting += 1
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ...analysis.parallel_arrays import lists_named
from ...design.tables import ClassDesign, Design
from ...program.edits import Range
from ...program.model import SourceFile
from ...program.program import Program
from .. import messages
from ..parameter_to_receiver import loose
from ..record_class.rewrite import BecomesMethod, MakesObjects, is_keyed, with_class_standing
from ..rewrite import Rewrite, State
from ..step import Context, function_of
from .indexed_methods import Items
from .text import collection_edits, loops


class CollectRecords(MakesObjects):
    """Lists with one index become one list of objects."""

    kind = "collect"
    left = "the lists stay lists"

    def title(self) -> str:
        lists = ", ".join(o.local for f in self.design.fields for o in f.origins)
        return f"{lists} become one list {self.design.objects[0].collection} of {self.design.name} objects"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        names = {o.local: None for f in self.design.fields for o in f.origins}
        self.check_names(context, file, set(names), {self.design.objects[0].collection, self.design.name} - set(names))
        found = lists_named(file, context.language, list(names))
        if isinstance(found, str):
            place = re.match(r"line (\d+):? ", found)
            said, line = (found[place.end() :], int(place[1])) if place and ":" in place[0] else (found, 0)
            raise messages.LISTS_STAY.in_file(file.path, line, why=said)
        return collection_edits(file, context.language, found, self.design)


class ItemMethod(BecomesMethod):
    """A function that gets an index becomes a method of the object that it is of."""

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        f = function_of(file, self.method.origins[0])
        items = Items(file, context.language, self.design.objects[0].collection)
        if len(self.method.drop) != 1 or self.method.drop[0] not in [p.name for p in f.params]:
            raise messages.NO_INDEX_PARAMETER.in_file(file.path, file.line(f.start), function=f.name)
        param = self.method.drop[0]
        p = next(p for p in f.params if p.name == param)
        why = items.why_not(f, param) if items.told and items.is_index(f, p) else f"'{param}' is more than an index"
        if why:
            raise messages.STAYS_FUNCTION.in_file(file.path, file.line(f.start), why=why)
        return items.method_edits(f, param, self.method.name, self.design.name, loose(context.program))


class AskItems(MakesObjects):
    """Loops that count through a list go through its objects."""

    kind = "loops"

    def title(self) -> str:
        kept = [o for o in self.design.objects if o.collection]
        return "; ".join(f"loops go through {o.collection} and ask each {o.name}" for o in kept) or "loops stay"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        return loops(file, context.language, self.design)


def is_collection(c: ClassDesign) -> bool:
    """Whether the objects of a class are kept in a list that takes the place of several."""
    return len(c.objects) == 1 and bool(c.objects[0].collection) and not is_keyed(c)


class ListOfObjects(Rewrite[MakesObjects]):
    """Each class of the design whose objects take the place of several lists."""

    def requests(self, state: State) -> Iterator[MakesObjects]:
        for c in [c for c in state.design.classes if is_collection(c)]:
            collect = CollectRecords(c)
            yield collect
            for m in c.methods:
                yield ItemMethod(c, m, [collect.id])
            yield AskItems(c, needs=[collect.id])

    def design_after(self, state: State, step: MakesObjects, after: Program | None) -> Design:
        return (
            with_class_standing(state.design, step.design, after is not None)
            if isinstance(step, CollectRecords)
            else state.design
        )
