"""A field of a class that is about to be written."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass
class NewField:
    """One field of a class that is about to be written.

    ``value``: the text of its first value, or the name of the constructor's parameter that brings it (``given``); ""
    where the language's own first value will do. ``derived``: that text reads other fields, or parameters that bring
    them. ``later``: it is set after construction. ``above`` and ``comment``: remarks that travel. ``words``: what else
    its declaration says ("volatile", annotations).
    """

    name: str
    value: str = ""
    given: bool = False
    derived: bool = False
    later: bool = False
    type: str = ""
    hidden: bool = False
    above: list[str] = field(default_factory=list)
    comment: str = ""
    words: str = ""
