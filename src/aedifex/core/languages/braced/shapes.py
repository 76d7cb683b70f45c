"""What a grammar calls the ideas that languages with braces have in common."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field


@dataclass(frozen=True)
class Shapes:
    """Kinds of nodes, and the fields that hold their parts.

    ``member``: kind of node that takes a member of an object → the field of its name, "" where its last child is that;
    ``making``: makes an object; ``through``: kinds through which a change of a part changes what the name at the bottom
    stands for.
    """

    member: Mapping[str, str]
    through: frozenset[str] = frozenset()
    making: str = ""


@dataclass(frozen=True)
class StatementShapes:
    """``kinds``: kind of node → that of the statement, as ``program.model.Statement`` has them; ``declarations``: of
    variables, each with its ``declarator``; ``blocks``: in braces; ``groups``: other rows of statements; ``cases``: of
    a switch, rows of statements where no braces stand in them; ``holders``: looked through for blocks; ``compound``:
    how kinds end that may hold a lone statement; ``definitions``: how kinds end in which no level of nesting is
    counted; ``spread``: arguments that stand for any number.
    """

    kinds: Mapping[str, str]
    declarations: frozenset[str]
    declarator: str = "variable_declarator"
    comments: frozenset[str] = frozenset(["comment"])
    blocks: frozenset[str] = frozenset(["block"])
    groups: frozenset[str] = frozenset()
    cases: frozenset[str] = frozenset()
    holders: frozenset[str] = field(default_factory=frozenset)
    compound: tuple[str, ...] = ("_statement", "_clause")
    definitions: tuple[str, ...] = ("_declaration",)
    spread: str = ""
