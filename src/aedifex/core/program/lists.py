"""How a list is used, place by place: what a language tells of it, so that several with one index can become one of
objects."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from .model import Reference, Symbol

Span = tuple[int, int]


@dataclass(frozen=True)
class ListUse:
    """``kind``:

    - first: the statement at the top that gives it its items (``parts``: the items);
    - item: one item (``parts``: the index);
    - length: how many there are;
    - append, delete: a statement of its own (``parts``: the new item, the index; none for the last one);
    - empty: a statement that takes all out, or gives it a new list without items;
    - each: what goes through all of them, one after another;
    - all: what looks at all of them at once and keeps nothing;
    - other: another use in which the list itself does not get about (of lists of objects only).

    ``span``: the expression or statement; ``block``: where the statement's block starts; ``bound``: whether a statement
    binds the name; ``size``: how many items a list begins with, where none is written.
    """

    kind: str
    ref: Reference
    span: Span
    parts: tuple[Span, ...] = ()
    block: int = -1
    bound: bool = False
    size: Span | None = None


@dataclass(frozen=True)
class WholeLoop:
    """A loop that counts from nothing up to a bound. ``name``: its variable; ``header``: what says so, as
    ``write.each`` replaces it; ``opens``: where what it repeats begins; ``block``: whether that is a block."""

    name: str
    header: Span
    opens: int
    block: bool = True


def uses_of(symbol: Symbol, told: Callable[[Reference], ListUse | None]) -> list[ListUse] | None:
    """What a language tells of every use of a list, in source order; None if it cannot tell of one of them."""
    found = []
    for ref in sorted(symbol.references, key=lambda r: r.start):
        use = told(ref)
        if use is None:
            return None
        found.append(use)
    return found


def span(node: Any) -> Span:
    """Where a node stands, in bytes."""
    return node.start_byte, node.end_byte


def same(a: Any, b: Any) -> bool:
    """Whether two nodes stand at the same place."""
    return a is not None and (a.start_byte, a.end_byte) == (b.start_byte, b.end_byte)


@dataclass
class Records:
    """``uses``: each list with all its uses; ``together``: rows of statements that add, take out or empty, one for each
    list."""

    lists: list[Symbol]
    uses: dict[Symbol, list[ListUse]]
    together: list[list[ListUse]] = field(default_factory=list)

    @property
    def firsts(self) -> list[ListUse]:
        return [self.uses[s][0] for s in self.lists]

    @property
    def named(self) -> str:
        return ", ".join(s.name for s in self.lists)
