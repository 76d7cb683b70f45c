"""Functions that are written where they are handed over, so that they have no name of their own."""

from __future__ import annotations

from dataclasses import dataclass, field

from .model import Statement


@dataclass
class Inline:
    """``start``, ``end``: the whole expression; ``opens``, ``closes``: what is between the braces of its body.
    ``params``: (name, type) of each.

    ``event``, ``control``: words for what it waits for and for what it is handed to. ``whole``: whether the name of a
    function could stand for it. ``says``: the one statement of a body that is an expression; "" where ``statements``
    stand in it.
    """

    start: int
    end: int
    opens: int
    closes: int
    statements: list[Statement] = field(default_factory=list)
    params: list[tuple[str, str]] = field(default_factory=list)
    event: list[str] = field(default_factory=list)
    control: list[str] = field(default_factory=list)
    whole: bool = False
    says: str = ""
