"""What somebody who mistyped a name may have meant."""

from __future__ import annotations

from collections.abc import Iterable
from difflib import get_close_matches


def perhaps(name: str, known: Iterable[str]) -> str:
    """The end of a sentence about a name that is not known; "" if none is like it."""
    near = get_close_matches(name, list(dict.fromkeys(known)), 1)
    return f"; perhaps '{near[0]}' is meant" if near else ""
