"""Records held in keyed tables: where they are made, where they go, and which of their keys is used where."""

from __future__ import annotations

from dataclasses import dataclass, field

from .model import Function, Symbol

Span = tuple[int, int]


@dataclass
class RecordLiteral:
    """One record as it is written: its span, and (key, where the key starts, the span of the value) in order."""

    span: Span
    pairs: list[tuple[str, int, Span]]

    @property
    def keys(self) -> list[str]:
        return [key for key, _, _ in self.pairs]


@dataclass
class Keyed:
    """All that may hold records of one kind.

    ``uses``: (where the record's expression ends, where its key's brackets end, key, whether it is set). ``holders``:
    variables and parameters that hold one; ``lists``: those that hold several; ``makers``: functions that return one.
    ``handed``: function → parameters that get one at every call. ``sure``: those of them that never get nothing
    instead.
    ``equal``: whether they are compared by what they hold.
    ``types``: key → its type, where types are written; ``named``, ``declared``: the type whose place the class takes,
    and its declaration.
    ``trouble``: (why the records cannot be objects, where), if they cannot.
    """

    made: list[RecordLiteral] = field(default_factory=list)
    uses: list[tuple[int, int, str, bool]] = field(default_factory=list)
    holders: list[Symbol] = field(default_factory=list)
    lists: list[Symbol] = field(default_factory=list)
    makers: list[Symbol] = field(default_factory=list)
    handed: dict[Function, list[str]] = field(default_factory=dict)
    sure: set[tuple[Function, str]] = field(default_factory=set)
    equal: bool = False
    types: dict[str, str] = field(default_factory=dict)
    named: Symbol | None = None
    declared: Span | None = None
    trouble: tuple[str, int] | None = None

    @property
    def keys(self) -> list[str]:
        return self.made[0].keys

    @property
    def names(self) -> set[str]:
        """The names at the top of the file that are concerned."""
        held = [*self.holders, *self.lists, *self.makers]
        return {s.name for s in held if s.scope.parent is None} | {f.name for f in self.handed}
