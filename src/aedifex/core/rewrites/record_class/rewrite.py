"""Make records held in keyed tables objects of a class, and what is handed one its methods.

birds = [{"x": 3, "name": "ada"}]         class Bird:
def move(bird): bird["x"] += 1      →         def __init__(self, x, name): ...
move(birds[0])                                def move(self): self.x += 1
                                          birds = [Bird(3, "ada")]
                                          birds[0].move()
"""

from __future__ import annotations

import copy
from abc import abstractmethod
from collections.abc import Iterator

from ...design.tables import ClassDesign, Design, MethodDesign
from ...program.edits import Edits, Range
from ...program.keyed import Keyed
from ...program.model import SourceFile
from ...program.program import Program
from .. import messages
from ..parameter_to_receiver import loose
from ..rewrite import Rewrite, State
from ..step import ClassStep, Context, check_hazards, function_of
from .objects import Handed, keyed_fields, record_edits


class MakesObjects(ClassStep):
    """What the steps that give a class its objects and methods before all others have in common."""

    left = "the records stay as they are"

    def apply(self, context: Context) -> Edits:
        out, file = Edits(), context.home(self.design)
        for edit in self.edits(context, file):
            out.replace(file.path, *edit)
        return out

    @abstractmethod
    def edits(self, context: Context, file: SourceFile) -> list[Range]: ...

    def check_names(self, context: Context, file: SourceFile, concerned: set[str], new: set[str]) -> None:
        """Nothing forbids to change the concerned names, and the new ones are free. Raises Refusal."""
        check_hazards(context, file, concerned, self.left)
        for name in sorted(new):
            if any(name in s.symbols for s in file.scope.walk()):
                raise messages.NAME_IN_USE.in_file(file.path, name=name)


class RecordsToObjects(MakesObjects):
    """Records become objects of a class."""

    kind = "records"

    def title(self) -> str:
        return f"records with {', '.join(f.name for f in self.design.fields)} become objects of {self.design.name}"

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        found = the_records(self.design, file, context)
        self.check_names(
            context, file, found.names, {self.design.name} - ({found.named.name} if found.named is not None else set())
        )
        return record_edits(file, context.language, found, self.design.name, keyed_fields(context.program, self.design))


def the_records(design: ClassDesign, file: SourceFile, context: Context) -> Keyed:
    """The records that a design means. Raises Refusal if there are none, or they cannot be objects."""
    keys = {o.key for f in design.fields for o in f.origins if o}
    for found in context.language.keyed(file):
        if set(found.keys) == keys and record_holders(design) & found.names:
            if found.trouble is not None:
                why, at = found.trouble
                raise messages.RECORD_CANNOT.at(file, at, keys=", ".join(found.keys), why=why)
            return found
    raise messages.NO_RECORDS.in_file(file.path, keys=", ".join(sorted(keys)))


class BecomesMethod(MakesObjects):
    """A function that is told which object it is for becomes a method of it."""

    kind = "method"

    def __init__(self, design: ClassDesign, method: MethodDesign, needs: list[str]) -> None:
        super().__init__(design, needs=needs)
        self.method = method

    @property
    def subject(self) -> str:
        return f"{self.design.name}.{self.method.name}"

    def title(self) -> str:
        return f"{self.method.origins[0].local} becomes the method {self.design.name}.{self.method.name}"


class RecordMethod(BecomesMethod):
    """A function that is handed a record at every call becomes a method of it."""

    def __init__(
        self, design: ClassDesign, method: MethodDesign, needs: list[str], sure: set[tuple[str, str, str]]
    ) -> None:
        """``sure``: (file, function, parameter) of what was handed a record at every call, before the records became
        objects."""
        super().__init__(design, method, needs)
        self.sure = sure

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        f = function_of(file, self.method.origins[0])
        if len(self.method.drop) != 1 or (file.path, f.name, self.method.drop[0]) not in self.sure:
            raise messages.NOT_HANDED_OBJECT.in_file(
                file.path, file.line(f.start), function=f.name, class_=self.design.name
            )
        methods, param = Handed(file, context.language, self.design.name), self.method.drop[0]
        if why := methods.why_not(f, param):
            raise messages.STAYS_FUNCTION.in_file(file.path, file.line(f.start), why=why)
        return methods.method_edits(f, param, self.method.name, loose(context.program))


def is_keyed(c: ClassDesign) -> bool:
    """Whether the objects of a class take the place of records in keyed tables."""
    return any(o.key for f in c.fields for o in f.origins)


def record_holders(c: ClassDesign) -> set[str]:
    return {o.variable for f in c.fields for o in f.origins if o.key}


class RecordClass(Rewrite[MakesObjects]):
    """``loops``: makes the step by which loops go through the objects of a class; it is that of lists."""

    def __init__(self, loops: type[MakesObjects]) -> None:
        self.loops = loops

    def requests(self, state: State) -> Iterator[MakesObjects]:
        for c in [c for c in state.design.classes if is_keyed(c)]:
            made, language = RecordsToObjects(c), state.program.language
            sure = {
                (file.path, f.name, p)
                for file in state.program.files.values()
                for k in language.keyed(file)
                for f, p in k.sure
            }
            yield made
            for m in c.methods:
                yield RecordMethod(c, m, [made.id], sure)
            yield self.loops(c, needs=[made.id])

    def design_after(self, state: State, step: MakesObjects, after: Program | None) -> Design:
        return (
            with_class_standing(state.design, step.design, after is not None)
            if isinstance(step, RecordsToObjects)
            else state.design
        )


def with_class_standing(design: Design, c: ClassDesign, stands: bool) -> Design:
    """The design with a class that stands already and has only to move, or without it."""
    made = copy.copy(design)
    bones = ClassDesign(c.name, c.role, c.file, c.base)
    made.classes = [
        bones if other.name == c.name else other for other in design.classes if stands or other.name != c.name
    ]
    return made
