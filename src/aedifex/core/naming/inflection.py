"""Words in the singular and the plural."""

from __future__ import annotations

import contextlib
import sys
import types
from collections.abc import Iterator
from functools import cache
from typing import Any

# how English plurals end: the library, which takes as long to load as a small draft does, is not asked of other words
PLURAL_ENDINGS = (
    "s",
    "a",
    "ae",
    "i",
    "eaux",
    "men",
    "ren",
    "oxen",
    "ice",
    "eet",
    "eeth",
    "eese",
    "ople",
    "them",
    "they",
)


@contextlib.contextmanager
def unchecked() -> Iterator[None]:
    """What is imported meanwhile does not check the types of arguments by way of ``typeguard``, nor loads that."""
    held = sys.modules.get("typeguard")
    stand_in = types.ModuleType("typeguard")
    vars(stand_in)["typechecked"] = lambda target=None, **_: target
    sys.modules["typeguard"] = stand_in
    try:
        yield
    finally:
        del sys.modules["typeguard"]
        if held is not None:
            sys.modules["typeguard"] = held


@cache
def engine() -> Any:
    """The word library, loaded where lists become objects and not before.

    Its functions check the types of their arguments, for which each is taken apart and compiled anew as it is imported:
    seconds, before the first word is asked for. That is left out, as it is under ``python -O``.
    """
    with unchecked():
        import inflect
    return inflect.engine()


def singular(word: str) -> str:
    """``word`` in the singular, if it is a plural.

    >>> singular("names"), singular("xs"), singular("km"), singular("status")
    ("name", "x", "km", "status")
    """
    if len(word) == 2 and word[0] in "xyzw" and word[1] == "s":
        return word[0]
    if len(word) < 4 or word.endswith(("ss", "us", "is")) or not word.endswith(PLURAL_ENDINGS):
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
