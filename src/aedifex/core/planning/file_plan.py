"""What has been planned of a file so far, and what is asked of it while classes are made."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Protocol

from ..design.tables import ClassDesign, ObjectDesign
from ..program.model import Function, Symbol
from .class_roles import Roles
from .dependencies import Fit
from .facts import FileFacts


class FilePlan(FileFacts, Protocol):
    """Implemented by ``file_planner``; here so that the makers of classes do not know it."""

    @property
    def roles(self) -> Roles: ...

    def accept(self, made: ClassDesign, variables: set[Symbol], fits: list[Fit]) -> None:
        """Take a class into the design, with the variables and functions that it takes over."""
        ...

    def worked_out_between(self, variables: set[Symbol], name: str) -> None:
        """No class, because a first value could only be given after the object is made."""
        ...

    def starts(self, f: Function) -> bool:
        """Whether a function is what the program starts with: its body is main code."""
        ...

    def main_possible(self, leaving: set[Symbol], founded: set[Symbol], own: set[Symbol]) -> str:
        """ "" if the main code can be wrapped, else why not. ``own``: what is going to be the app's."""
        ...

    def does_something(self) -> bool:
        """Whether there is main code beyond first values."""
        ...

    def class_name(self, variables: list[str], functions: list[str], holder: str = "") -> str: ...

    def object_names(self, wanted: list[str], own: frozenset[str] = frozenset()) -> list[ObjectDesign]:
        """Free names for objects. ``own``: variables that they take over, whose names are free then."""
        ...

    def like(self) -> str:
        """A name of the file's own that shows how it writes names of several words."""
        ...

    def speaking(self, functions: Sequence[Function]) -> list[str]:
        """The names of functions without those of one word that give nothing: what these say is done, not what with."""
        ...

    def holder(self, symbols: Iterable[Symbol]) -> str:
        """The one variable of several that holds many things; "" if there is none, or there are more."""
        ...

    def resting_on(self, fixed: set[Symbol]) -> set[Symbol]:
        """Constants that are worked out from others, which are going to be fields."""
        ...

    def numbered_constants(self) -> list[Symbol]:
        """Constants that may be one object's share of what its copies differ in."""
        ...
