"""What classes of the JDK hand down to those that extend them: the names of their members, from a table."""

from __future__ import annotations

import tomllib
from functools import cache
from pathlib import Path
from typing import Any

from ....program.model import SourceFile
from ..reading.imports import imported


@cache
def table() -> dict[str, dict[str, list[str]]]:
    return tomllib.loads((Path(__file__).parent / "jdk.toml").read_text(encoding="utf-8"))


@cache
def handed_down(name: str, what: str = "members") -> frozenset[str]:
    """The names of all members, or hooks, of a class by its full name."""
    return frozenset(m.partition("/")[0] for m in listed(name, what))


@cache
def listed(name: str, what: str = "members") -> frozenset[str]:
    """All members as the table has them: a method with the number of its parameters, ``move/2``."""
    entry = table()[name]
    return frozenset(entry.get(what, ())).union(*(listed(b, what) for b in entry["based"]))


def overridden(body: Any) -> set[str]:
    """The names of the methods of a class that is written in place."""
    return {c.child_by_field_name("name").text.decode() for c in body.named_children if c.type == "method_declaration"}


def full_name(file: SourceFile, base: str) -> str:
    """The class of the JDK that a simple name means in a file; "" if it is none of those that are known."""
    plain = base.partition("<")[0].strip()
    if plain in table():
        return plain
    if any(name == plain for _, name in file.classes):
        return ""
    packages = ["java.lang"]
    for s in file.imports:
        for simple, full, member in imported(file, s):
            if simple == plain and not member:
                return full if full in table() else ""
            if simple == "*" and member == "*":
                packages.append(full)
    return next((f"{p}.{plain}" for p in packages if f"{p}.{plain}" in table()), "")
