"""Words in the singular and the plural."""

from __future__ import annotations

from functools import cache
from typing import Any


@cache
def engine() -> Any:
    """The word library, loaded where lists become objects and not before."""
    import inflect

    return inflect.engine()


def singular(word: str) -> str:
    """``word`` in the singular, if it is a plural.

    >>> singular("names"), singular("xs"), singular("km"), singular("status")
    ("name", "x", "km", "status")
    """
    if len(word) == 2 and word[0] in "xyzw" and word[1] == "s":
        return word[0]
    if len(word) < 4 or word.endswith(("ss", "us", "is")):
        return word
    return str(engine().singular_noun(word) or word)


def plural(word: str) -> str:
    """
    >>> plural("tram"), plural("trams")
    ("trams", "trams")
    """
    return str(engine().plural_noun(singular(word)))


def doing(verb: str) -> str:
    """
    >>> doing("move"), doing("run")
    ("moving", "running")
    """
    return str(engine().present_participle(verb))
