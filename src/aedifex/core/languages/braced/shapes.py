"""What a grammar calls the ideas that languages with braces have in common."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Shapes:
    """Kinds of nodes, and the fields that hold their parts.

    ``member``: kind of node that takes a member of ``object`` → the field of its name; ``through``: kinds through
    which a change of a part changes what
    the name at the bottom stands for; ``functions``: kinds of definitions of functions; ``blocks``: kinds that open a
    scope; ``declaration``: kind that declares variables, each a ``declarator``.
    """

    member: dict[str, str]
    object: str
    through: frozenset[str]
    functions: frozenset[str] = frozenset()
    blocks: frozenset[str] = frozenset()
    declaration: str = "declaration"
    declarator: str = "init_declarator"
