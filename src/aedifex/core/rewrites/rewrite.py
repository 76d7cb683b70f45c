"""A kind of change, declared once: what a design asks for, its steps, how the rest of the design speaks afterwards, its
words by hand."""

from __future__ import annotations

import copy
from abc import abstractmethod
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Generic, TypeVar

from ..design.origin import Origin
from ..design.tables import ClassDesign, Design, FieldDesign, placed_anew
from ..program.edits import Edits
from ..program.line_ranges import moved_lines
from ..program.program import Program
from .by_hand import HandCommand
from .design_check import DesignCheck
from .step import ClassStep, Step


@dataclass
class State:
    """What has come of design and program while steps prepare them. ``edits``: of the last step that was done."""

    design: Design
    program: Program
    edits: Edits = field(default_factory=Edits)


@dataclass
class Building:
    """What is planned while the steps that make the classes are listed.

    ``class_``: the one whose steps are asked for, nameless behind all classes; ``whole``: it, with the objects that it
    owns as fields; ``plain``: that without shared fields; ``steps``: those that are planned so far, but for those that
    prepare.
    """

    design: Design
    program: Program
    steps: list[Step]
    class_: ClassDesign = field(default_factory=lambda: ClassDesign(""))

    @cached_property
    def whole(self) -> ClassDesign:
        return with_owned(self.class_, self.design)

    @cached_property
    def plain(self) -> ClassDesign:
        return self.whole.apart()

    def ids_of(self, c: ClassDesign, *kinds: str) -> list[str]:
        """The steps of a class that are planned so far, of all kinds or of these."""
        return [
            s.id
            for s in self.steps
            if isinstance(s, ClassStep) and s.design.name == c.name and (s.kind in kinds or not kinds)
        ]


def with_owned(c: ClassDesign, design: Design) -> ClassDesign:
    """The class with the objects that it owns as further fields."""
    owned = [o for other in design.classes for o in other.objects if o.owner == c.name and other is not c]
    if not owned:
        return c
    made = copy.deepcopy(c)
    made.fields = [FieldDesign(o.name, [Origin(o.name)], "") for o in owned] + made.fields
    return made


def moved_design(state: State, after: Program) -> Design:
    """The design as it speaks of lines and places once the edits of the last step have moved them."""
    design = copy.deepcopy(state.design)

    def moved(lines: str) -> str:
        return moved_lines(lines, state.program, after, state.edits.ranges)

    def placed(origin: Origin) -> Origin:
        return Origin.parse(moved(str(origin))) if origin.place else origin

    for m in [m for c in design.classes for m in c.methods]:
        m.origins = [placed(o) for o in m.origins]
        placed_anew(m, moved)
    for x in design.lifts:
        placed_anew(x, moved)
    for constant in design.constants:
        constant.origins = [placed(o) for o in constant.origins]
    return design


S = TypeVar("S", bound=Step)


class Change:
    """What each kind of change says of itself: its steps by hand, and what is wrong with what a design asks of it."""

    by_hand: tuple[HandCommand, ...] = ()

    def check(self, check: DesignCheck) -> None:
        """Report every mistake in the tables of this kind of change."""
        return


class Rewrite(Change, Generic[S]):
    """One kind of change that comes before all classes: what a design asks for, and how the rest of the design speaks
    afterwards."""

    @abstractmethod
    def requests(self, state: State) -> Iterator[S]:
        """The steps that the design asks for, one after the other: each is tried before the next is asked for, and
        ``state`` says what came of it."""

    def design_after(self, state: State, step: S, after: Program | None) -> Design:
        """The design as it speaks of the program ``after`` the step; None if it was refused. ``state``: as it was
        before."""
        return state.design


class ClassRewrite(Change):
    """One kind of change that makes the classes, or comes after them."""

    @abstractmethod
    def steps(self, building: Building) -> Iterable[Step]:
        """The steps for one class, or for the whole of the design where it comes after all classes."""
