"""How a list is used, place by place: what a language tells of it, so that several with one index can become one of objects."""

from __future__ import annotations

from dataclasses import dataclass

from .model import Reference

Span = tuple[int, int]


@dataclass(frozen=True)
class ListUse:
    """``kind``:

    - first: the statement at the top that gives it its items (``parts``: the items);
    - item: one item (``parts``: the index);
    - length: how many there are;
    - count: a loop that counts through the indexes (``parts``: its variable, what it goes through, all loops that bind the variable;
      ``block``: where its body starts);
    - append, delete: a statement of its own (``parts``: the new item, the index; none for the last one);
    - empty: a statement that takes all out, or gives it a new list without items;
    - each: what goes through all of them, one after another;
    - all: what looks at all of them at once and keeps nothing.

    ``span``: the expression or statement; ``block``: where the statement's block starts; ``bound``: whether a statement binds the name;
    ``size``: how many items a list begins with, where none is written.
    """

    kind: str
    ref: Reference
    span: Span
    parts: tuple[Span, ...] = ()
    block: int = -1
    bound: bool = False
    size: Span | None = None
