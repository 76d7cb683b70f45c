"""What a grammar calls the ideas that languages with braces have in common."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Shapes:
    """Kinds of nodes, and the fields that hold their parts.

    ``member``: kind of node that takes a member of an object → the field of its name; ``through``: kinds through
    which a change of a part changes what the name at the bottom stands for.
    """

    member: dict[str, str]
    through: frozenset[str]
