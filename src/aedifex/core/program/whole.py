"""What the methods of one class do with its members: what a language tells, so that a part can be taken out of the
class (C17)."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Protocol

from .model import Function, Scope, SourceFile


@dataclass
class MemberUse:
    """One use of a member through the object itself. ``start``, ``end``: the whole, ``self.name``; ``own``: where the
    object's name stands.

    ``kind``: read, set (bound anew), call (as a method), or other (deleted, or in a way that cannot be written
    otherwise). ``later``: whether it stands in a function inside the method.
    """

    name: str
    start: int
    end: int
    own: tuple[int, int]
    function: Function
    kind: str
    later: bool = False


@dataclass
class Declared:
    """A field that the head of a class declares. ``value``: its first value there; ``plain``: whether it could be
    declared elsewhere."""

    start: int
    end: int
    value: tuple[int, int] | None = None
    type: str = ""
    plain: bool = True


@dataclass
class Whole:
    """A class as a whole. ``uses``: of its members in its own methods; ``escapes``: where the object itself is handed
    on or kept.

    ``reserved``: names that a base from a library has. ``plain``: the methods that are called and no more;
    ``receiver``: what they call their object. ``head``: stands for the code that gives declared fields their first
    values, if there is any.
    """

    name: str
    scope: Scope
    methods: list[Function]
    receiver: str
    plain: set[str]
    reserved: frozenset[str] = frozenset()
    declared: dict[str, Declared] = field(default_factory=dict)
    head: Function | None = None
    uses: list[MemberUse] = field(default_factory=list)
    escapes: list[int] = field(default_factory=list)

    def of(self, function: Function) -> list[MemberUse]:
        return [u for u in self.uses if u.function is function]

    @property
    def fields(self) -> list[str]:
        """The members that are declared or set through the object, in the order in which they are first named."""
        named = {f.name for f in self.methods}
        return list(
            dict.fromkeys([*self.declared, *(u.name for u in self.uses if u.kind == "set" and u.name not in named)])
        )


def in_front(file: SourceFile, whole: Whole) -> int:
    """The statement that defines the class: where a part stands that needs nothing of it."""
    return next(s.start for s in file.statements if s.kind == "class" and s.start <= whole.scope.start < s.end)


class Members(Protocol):
    """What a language offers for taking a part out of a class."""

    def whole(self, file: SourceFile, name: str) -> Whole | None:
        """The class of a name, if its members can be told: it has no base, and nothing reaches them by their text."""
        ...

    def flattened(self, file: SourceFile, whole: Whole) -> tuple[bytes, dict[str, str]]:
        """The class as variables and functions, to see what belongs together; and for each of their names the
        member."""
        ...

    def place(self, file: SourceFile, whole: Whole) -> int:
        """The start of what a class that is taken out of it stands in front of."""
        ...

    def outside(self, file: SourceFile, whole: Whole, names: set[str]) -> tuple[str, int] | None:
        """(why, where) if anything but its own methods may use members of these names."""
        ...

    def declaration(self, file: SourceFile, like: Declared, name: str, class_: str, value: str) -> str:
        """The line that declares a field which holds an object; "" where none is wanted because it has no first value
        there."""
        ...

    def opened(self, file: SourceFile, function: Function) -> list[tuple[int, int, str]]:
        """Edits that let a method be called from outside of its class."""
        ...
