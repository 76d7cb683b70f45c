"""Imports, and what files of one folder see of each other without any."""

from __future__ import annotations

from ...program.model import SourceFile, Statement
from .resolve import inherited


def imported(file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
    """(simple name, full name, "" or the member that is imported by itself); a star gives ("*", package or class, "*")."""
    node = statement.node
    last = node.named_children[-1]
    static = any(c.type == "static" for c in node.children)
    if last.type == "asterisk":
        path = node.named_children[-2]
        return [("*", file.slice(path.start_byte, path.end_byte), "*")]
    full = file.slice(last.start_byte, last.end_byte)
    owner, _, simple = full.rpartition(".")
    return [(simple, owner, simple)] if static else [(simple, full, "")]


def last_parts(module: str, name: str) -> set[str]:
    return {module.rsplit(".", 1)[-1]}


def means(importer: str, module: str, name: str, path: str) -> bool:
    """A class is looked for in the file of its name."""
    return path.rsplit("/", 1)[-1].rsplit(".", 1)[0] == module.rsplit(".", 1)[-1]


def ambient(file: SourceFile) -> list[tuple[str, str, str, int]]:
    """(name, class, "", offset) of classes that a file uses without defining or importing them: those beside it."""
    found = []
    for symbol in file.scope.symbols.values():
        if not symbol.kinds and symbol.name[:1].isupper() and symbol.references:
            found.append((symbol.name, symbol.name, "", symbol.references[0].start))
    return found


def offered(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
    """Names that a class with an unread base may have inherited, and so mean something else."""
    return [
        (at, (name,), f"'{name}' is used in a class whose base was not read and may have a member of that name")
        for at, name in inherited(file)
    ]
