"""What is done with one object or another, in branches that are alike, is one method that is handed the object.

if key == "1":                        if key == "1":
    self._trams[0].toggle()               self._board(self._trams[0])
    if self._trams[0].open: ...       elif key == "2":
elif key == "2":              →           self._board(self._trams[1])
    self._trams[1].toggle()
    if self._trams[1].open: ...       def _board(self, tram): ...
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import islice

from ..analysis.regions.region import all_blocks, ways_out
from ..design.tables import ClassDesign
from ..program.edits import Edits
from ..program.model import Block, Function, NewFunction, SourceFile
from ..program.program import Program
from . import messages
from .by_hand import Asked, HandCommand
from .gather_objects import Gatherer, Use, maker_of, objects_made
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step


class HandObjects(ClassStep):
    """Branches that do the same to different objects become one method each, which is handed the object."""

    kind = "hand"

    def title(self) -> str:
        names = ", ".join(self.design.branches)
        return f"{names} {'are' if len(self.design.branches) > 1 else 'is'} handed one {self.design.name} or another"

    def apply(self, context: Context) -> Edits:
        return Handing(context, context.home(self.design), self).edits()


@dataclass(frozen=True)
class Branch:
    """A block of statements that is about one object."""

    function: Function
    block: Block
    number: int
    uses: tuple[Use, ...]


class Handing(Gatherer):
    """Works out the methods, and the calls of them."""

    def __init__(self, context: Context, file: SourceFile, step: HandObjects) -> None:
        super().__init__(context, file, step.design)
        self.names = step.design.branches

    def edits(self) -> Edits:
        groups = list(islice(self.groups(), len(self.names)))
        if not self.owner or not groups:
            return self.out
        for name, group in zip(self.names, groups, strict=False):
            self.hand(str(self.write.hidden(name)), group)
        return self.out

    def groups(self) -> Iterator[list[Branch]]:
        """Branches that are alike but for the object, in the order of the source."""
        uses, found = self.uses(), dict[tuple[str, ...], list[Branch]]()
        for f in [f for f in self.file.functions if self.scope.start <= f.start < self.scope.end]:
            for _, block in all_blocks(self.file, self.language, self.language.body(self.file, f)):
                mine = tuple(u for u in uses if block.start <= u.start < block.end)
                if len(block.statements) > 1 and len({u.number for u in mine}) == 1 and self.free(f, block):
                    start, end = block.statements[0].start, block.statements[-1].end
                    edits = [(u.start, u.end, "\1") for u in mine]
                    shape = tuple(self.language.tokens(self.file, start, end, edits))
                    found.setdefault(shape, []).append(Branch(f, block, mine[0].number, mine))
        for group in found.values():
            if len({b.number for b in group}) > 1:
                yield group

    def free(self, f: Function, block: Block) -> bool:
        """Whether statements use nothing of the function around them but the object whose method it is, and do not
        leave it."""
        start, end = block.statements[0].start, block.statements[-1].end
        local = [
            r
            for r in self.file.within(start, end)
            if r.symbol is not None and r.symbol.scope.frame is f.scope and r.name != self.write.RECEIVER
        ]
        return not local and not list(ways_out(self.file, self.language, block.statements, False, False))

    def hand(self, name: str, group: list[Branch]) -> None:
        """Write the method behind that of the first branch, and call it in each."""
        file, write, first = self.file, self.write, group[0]
        if any(name in (r.member, r.name) for r in file.references):
            raise messages.NAME_IN_USE.in_file(file.path, name=name)
        unit = write.indent_unit(file)
        f, statements = first.function, first.block.statements
        lead = file.slice(write.line_start(file, f.start), f.start)
        item = str(write.member_name(write.words(self.class_)))
        here = file.slice(write.line_start(file, statements[0].start), statements[0].start)
        edits = [(u.start, u.end, item) for u in first.uses]
        last = statements[-1].end + len(str(write.trailing_comment(file, statements[-1].end)).encode())
        body = write.shifted(
            file, write.comment_start(file, statements[0].start) + len(here.encode()), last, edits, here, lead + unit,
        )  # fmt: skip
        new = NewFunction(
            name,
            [(item, self.class_ if self.language.typed or self.write.typed(file) else "")],
            body,
            function=f,
            home=f,
        )
        text = self.language.regions.lifted(file, lead, unit, new)
        at = write.line_end(file, f.end - 1)
        self.out.insert(file.path, at, write.with_newlines("\n" + text, write.newline(file)))
        for branch in group:
            start = write.line_start(file, write.comment_start(file, branch.block.statements[0].start))
            at, end = branch.block.statements[0].start, branch.block.statements[-1].end
            ahead = file.slice(write.line_start(file, at), at)
            end += len(str(write.trailing_comment(file, end)).encode())
            held = file.slice(branch.uses[0].start, branch.uses[0].end)
            call = write.statement_end(file)
            self.out.replace(file.path, start, end, f"{ahead}{write.RECEIVER}.{name}({held}){call}")


def ask_hand(program: Program, class_: str, name: str) -> Asked:
    path = maker_of(program, class_)
    design = ClassDesign(class_, objects=objects_made(program, class_, path), branches=[name])
    return Asked(HandObjects(design), homes={class_: path})


class HandedObjects(ClassRewrite):
    """The classes of a design that name methods of their owner which are handed one of their objects."""

    by_hand = (
        HandCommand(
            "hand", ("CLASS", "METHOD"), "Like branches about different objects are one method.",
            "Make a METHOD of branches that do the same to different objects of a CLASS, each kept by the same owner.",
            "hand Tram board two_trams.py", "Changed", ask_hand,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        for c in building.design.classes:
            if c.branches and len(c.objects) > 1:
                yield HandObjects(c, needs=building.ids_of(c, "found"))
