"""The keys of the design file, declared as fields of dataclasses."""

from __future__ import annotations

from dataclasses import MISSING, dataclass, field
from typing import Any

KEY = "key"  # under which the metadata of a field hold it


@dataclass(frozen=True)
class Key:
    """``doc``: what may be written there; ``choices``: the only values; ``entries``: the keys of each inline table in a
    list.

    ``speaks``: what its texts speak of, for those that follow a renaming (``rewrites.renamed_designs``); ``of``: the
    dataclass of the tables of this name, of which ``only`` some keys may be written and ``required`` must be; ``said``:
    the attribute that says whether the key was written.
    """

    doc: str
    name: str = ""
    needed: bool = False
    choices: tuple[str, ...] = ()
    entries: tuple[str, ...] = ()
    of: type | None = None
    only: tuple[str, ...] = ()
    required: tuple[str, ...] = ()
    said: str = ""
    speaks: str = ""


def text(doc: str, default: str = "", **more: Any) -> Any:
    """A key that holds a text."""
    found = Key(doc, **more)
    return field(default=MISSING if found.needed else default, metadata={KEY: found})


def flag(doc: str, default: bool, **more: Any) -> Any:
    """A key that holds true or false."""
    return field(default=default, metadata={KEY: Key(doc, **more)})


def texts(doc: str, **more: Any) -> Any:
    """A key that holds a list of texts."""
    found = Key(doc, **more)
    return field(metadata={KEY: found}) if found.needed else field(default_factory=list, metadata={KEY: found})


def digests(doc: str, **more: Any) -> Any:
    """A key that holds a table of texts."""
    return field(metadata={KEY: Key(doc, **more)})


def rows(of: type, name: str, **more: Any) -> Any:
    """Tables of their own, ``[[name]]``."""
    return field(default_factory=list, metadata={KEY: Key("", name, of=of, **more)})
