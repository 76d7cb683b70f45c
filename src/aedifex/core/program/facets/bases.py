"""How a class with a base is written, and the fields that it declares."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from ..edits import Range
from ..model import Scope, SourceFile


class Bases(Protocol):
    """``CONSTRUCTOR_IS_INHERITED``: whether a class without one has that of its base; ``BASE_IS_CALLED``: whether a
    constructor must call it."""

    CONSTRUCTOR_IS_INHERITED: bool
    BASE_IS_CALLED: bool

    def extendable(self, file: SourceFile, /) -> bool:
        """Whether a class of the file can be given a base."""
        ...

    def extends(self, file: SourceFile, scope: Scope, base: str, /) -> Range:
        """The edit that gives a class without bases one."""
        ...

    def fields(self, file: SourceFile, scope: Scope, /) -> dict[str, tuple[int, int]]:
        """Nothing is declared."""
        ...

    def field_text(self, text: str, /) -> str: ...

    def base_call(self, file: SourceFile, arguments: Sequence[str], /) -> str:
        """The statement by which a constructor lets that of the base work."""
        ...

    def constructor_text(
        self, file: SourceFile, unit: str, name: str, parameters: Sequence[str], lines: Sequence[str], /
    ) -> str: ...

    def class_with(self, file: SourceFile, unit: str, name: str, members: str, /) -> str: ...

    def nothing(self, file: SourceFile, unit: str, /) -> str:
        """What an empty class holds."""
        ...
