"""Imports, and what files of one folder see of each other without any."""

from __future__ import annotations

from ....program.model import SourceFile, Statement
from ..facts.pure import apis


def imported(file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
    """(simple name, full name, "" or the member that is imported by itself); a star gives ("*", package or class,
    "*")."""
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
    """The words by which an import may name a file."""
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


def reached(file: SourceFile) -> list[tuple[int, str, str | None]]:
    """(offset, member, text) of calls with which a program reaches its own members by their names; None: the text is
    not known."""
    found: list[tuple[int, str, str | None]] = []
    members = frozenset(apis()["dynamic"]["members"])
    if not any(m.encode() in file.text for m in members):
        return found
    stack = [file.tree.root_node]
    while stack:
        node = stack.pop()
        stack.extend(node.named_children)
        name = node.child_by_field_name("name") if node.type == "method_invocation" else None
        if name is None or name.text.decode("utf-8", "replace") not in members:
            continue
        base = node.child_by_field_name("object")
        if base is not None and base.type == "class_literal":
            if base.text.decode("utf-8", "replace").removesuffix(".class") not in {
                file.scope.name,
                *(n for _, n in file.classes),
            }:
                continue  # a class that is not the program's own
        given = [
            a.text.decode("utf-8", "replace")[1:-1]
            for a in node.child_by_field_name("arguments").named_children
            if a.type == "string_literal"
        ]
        found.append((node.start_byte, name.text.decode("utf-8", "replace"), given[0] if given else None))
    return sorted(found)
