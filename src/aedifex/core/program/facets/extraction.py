"""What can be extracted into a function of its own, and how that is written."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Protocol

from ..model import Arm, Beside, Block, Function, NewFunction, Scope, SourceFile, Statement, Symbol


class Extraction(Protocol):
    """``CLOSURES``: whether functions can stand in functions; ``LEAVES``, ``GOES_ON``: what an extracted function tells
    the loop around its call; ``NOTHING``: the type of a function that gives nothing, "" where none is written."""

    CLOSURES: bool
    LEAVES: str
    GOES_ON: str
    NOTHING: str

    def loop_body(self, file: SourceFile, offset: int, /) -> tuple[int, int] | None:
        """The body of the innermost loop over something in whose head or body an offset lies."""
        ...

    def result_type(self, file: SourceFile, function: Function, /) -> str:
        """The type of what a function gives; "" where none is written."""
        ...

    def returns_nothing(self, file: SourceFile, at: int, /) -> bool:
        """Whether the ``return`` there gives nothing."""
        ...

    def given_back(self, file: SourceFile, statement: Statement, /) -> tuple[int, int] | None:
        """The one expression that a ``return`` gives; None if it gives none, or several."""
        ...

    def blocks(self, file: SourceFile, statement: Statement, /) -> list[Block]:
        """The blocks directly inside a statement, with what each is for."""
        ...

    def arms(self, file: SourceFile, statement: Statement, /) -> list[Arm]:
        """The conditions of a chain in their order; none for any other statement."""
        ...

    def lone(self, file: SourceFile, block: Block, /) -> bool:
        """Whether a statement stands for a block: none does."""
        ...

    def ended(self, file: SourceFile, text: str, /) -> str:
        """A statement with what closes it."""
        ...

    def expression(self, file: SourceFile, start: int, end: int, /) -> bool:
        """Whether a stretch is one whole expression, whose value is all that is wanted of it."""
        ...

    def expressions(self, file: SourceFile, start: int, end: int, /) -> Iterator[tuple[int, int, bool]]:
        """(start, end, whether it is a condition) of what is worked out in a stretch, the whole before its parts."""
        ...

    def declared_as(self, file: SourceFile, symbol: Symbol, /) -> tuple[str, str]:
        """Nothing is declared."""
        ...

    def bound_to_function(self, file: SourceFile, start: int, end: int, /) -> tuple[str, int] | None:
        """(why, where) of what would mean something else in another function; None if nothing would."""
        ...

    def beside(self, file: SourceFile, function: Function, /) -> Beside:
        """How a method beside this one is written and called: also for what is decorated as static or as the class's
        own."""
        ...

    def unnamed(self, file: SourceFile, scope: Scope, /) -> Function | None:
        """The function of statements that is written where it is used, by its scope; None if it is none, or has but an
        expression."""
        ...

    def method_around(self, file: SourceFile, function: Function | None, /) -> Function | None:
        """The method of a class whose ``this`` an arrow function inside it uses."""
        ...

    def called_in_place(self, file: SourceFile, statement: Statement, /) -> Function | None:
        """The function of statements that a statement makes, calls, and drops: ``(function () { ... })();``."""
        ...

    def called_when_ready(self, file: SourceFile, statement: Statement, /) -> Function | None:
        """The function of statements that a page calls once it is there: ``window.onload = function () { ... };``."""
        ...

    def several_results(self, file: SourceFile, start: int, declared: bool, /) -> str:
        """Why several values cannot come back at a place: they always can."""
        ...

    def result_of(self, file: SourceFile, start: int, end: int, /) -> str:
        """Nothing says what a function gives."""
        ...

    def word_for(self, file: SourceFile, words: Sequence[str], /) -> str: ...

    def give_back(self, values: Sequence[str], /) -> str:
        """The statement that ends a function with values, or with none."""
        ...

    def take_back(
        self, file: SourceFile, names: Sequence[str], call: str, unit: str, lead: str, leaves: str, word: str, /
    ) -> str:
        """The statement that calls a lifted function. ``leaves``: how its lines left the place where they stood; "" if
        they did not."""
        ...

    def leave_first(self, test: str, lead: str, unit: str, word: str, /) -> str:
        """The statement that leaves a loop under a condition."""
        ...

    def lifted(self, file: SourceFile, lead: str, unit: str, new: NewFunction, /) -> str:
        """A function, or a method, made of lines that stood elsewhere."""
        ...

    def in_place(self, params: Sequence[str], call: str, /) -> str:
        """A function without a name that only calls."""
        ...

    def only(self, file: SourceFile, start: int, call: str, /) -> str:
        """What stands for the body of a handler that only calls."""
        ...

    def either(
        self, lead: str, unit: str, number: str, wanted: str, first: Sequence[str], other: Sequence[str], /
    ) -> str:
        """Lines for one number, and others for the rest; either may be none."""
        ...
