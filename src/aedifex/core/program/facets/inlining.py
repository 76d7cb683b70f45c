"""How a long main function is written as main code."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from ..model import Call, Function, SourceFile, Statement


class Inlining(Protocol):
    """Only where code can stand at the top."""

    def taken(self, file: SourceFile, /) -> frozenset[str]:
        """Names that mean something else for the file's own variables: a page's window has them."""
        ...

    def runs_on(self, file: SourceFile, statement: Statement, body: Sequence[Statement], /) -> bool:
        """Whether a line without a mark at its end, in front of a body or at its end, would go on with what follows."""
        ...

    def call_in_place(self, file: SourceFile, statement: Statement, /) -> Call:
        """The call of a statement that is nothing but one, whatever brackets or sign stand around it."""
        ...

    def sets(self, name: str, value: str, /) -> str: ...

    def exits(self, before: str, after: str, /) -> bool | None:
        """Whether what stands around the call ends the program with what the function gives; None if it is something
        else."""
        ...

    def value(self, file: SourceFile, statement: Statement, /) -> str: ...

    def span(self, statement: Statement, /) -> tuple[int, int]:
        """The value that a return gives; nothing where it stands alone."""
        ...

    def leave(self, loop: Statement, /) -> str: ...

    def end(self, file: SourceFile, /) -> str:
        """Nothing ends a program early and lets it finish what is under way."""
        ...

    def notices(self, file: SourceFile, s: Statement, /) -> bool:
        """Whether a statement around it might treat the end of the program otherwise than the end of a function."""
        ...

    def nothing(self, file: SourceFile, statement: Statement, /) -> str:
        """What stands for a statement that does nothing; "" where its block needs none."""
        ...

    def inside(self, file: SourceFile, f: Function, body: Sequence[Statement], /) -> tuple[int, int]:
        """The lines between the braces, remarks included."""
        ...
