"""Listeners: what stands in a method of a class and is called when something happens."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from ..edits import Range
from ..inline import Listener, LocalField
from ..model import Function, Scope, SourceFile, Symbol


class Listening(Protocol):
    """What a language tells of listeners in methods, and how it writes them as methods."""

    def listeners(self, file: SourceFile, /) -> list[Listener]:
        """Those that do more than delegate, in source order; none inside another."""
        ...

    def can_be_field(self, file: SourceFile, method: Function, symbol: Symbol, moving: Sequence[Listener], /) -> bool:
        """Whether a variable of a constructor is made once for each object, and every use can name a field instead.

        ``moving``: the listeners that become methods.
        """
        ...

    def property_of(self, file: SourceFile, method: Function, symbol: Symbol, /) -> str:
        """The member that a parameter of a constructor declares by itself; "" if it declares none."""
        ...

    def leading(self, file: SourceFile, method: Function, /) -> list[Symbol]:
        """Variables that a constructor makes first, whose values go along where they become fields."""
        ...

    def as_fields(self, file: SourceFile, method: Function, fields: Sequence[LocalField], /) -> list[Range]:
        """The edits by which variables of a constructor are fields; a list of one item, in which others can set a
        value, is that value."""
        ...

    def registered(self, name: str, params: Sequence[str], more: Sequence[str], whole: bool, /) -> str:
        """What stands for a listener that is a method. ``more``: what it is handed besides; ``whole``: whether it is an
        expression, and not lines of a method."""
        ...

    def base_of(self, file: SourceFile, scope: Scope, /) -> str:
        """The class that a class extends, by its last name; "" if it is none, or one that is known not to matter."""
        ...

    def fixed(self, file: SourceFile, scope: Scope, /) -> str:
        """Why no member can be added to the objects of a class, whatever its base is; "" if one can."""
        ...

    def library_has(self, file: SourceFile, base: str, name: str, /) -> bool | None:
        """Whether a class of a library that a file names has a member of this name; None if the class is not known."""
        ...
