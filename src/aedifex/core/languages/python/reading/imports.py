"""Import statements: what they bind, and which file of the project a module name means."""

from __future__ import annotations

from typing import Any

from ....program.model import SourceFile, Statement


def imported(file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
    """(local name, module, name in the module or "") for each name that an import statement binds.

    A star import gives ("*", module, "*").
    """
    node = statement.node

    def text(n: Any) -> str:
        return str(n.text.decode(file.encoding, "replace"))

    found: list[tuple[str, str, str]] = []
    module = node.child_by_field_name("module_name")
    origin = "__future__" if node.type == "future_import_statement" else text(module) if module is not None else ""
    for child in node.children_by_field_name("name"):
        aliased = child.type == "aliased_import"
        name = text(child.child_by_field_name("name") if aliased else child)
        alias = text(child.child_by_field_name("alias")) if aliased else ""
        if origin:
            found.append((alias or name, origin, name))
        else:
            found.append((alias or name.split(".")[0], name, ""))
    if any(c.type == "wildcard_import" for c in node.named_children):
        found.append(("*", origin, "*"))
    return found


def module_name(path: str) -> str:
    """The name under which a file next to the entry is imported: ``depot/tram.py`` is ``depot.tram``."""
    stem = path.rsplit(".", 1)[0].replace("/", ".")
    return stem.removesuffix(".__init__")


def imported_word(file: SourceFile, statement: Statement, name: str) -> tuple[int, int] | None:
    """Where an import from a module says the name that it takes; None if it does not."""
    for child in statement.node.children_by_field_name("name"):
        word = child.child_by_field_name("name") if child.type == "aliased_import" else child
        if word.text.decode(file.encoding, "replace") == name:
            return word.start_byte, word.end_byte
    return None


def module_word(file: SourceFile, statement: Statement, module: str) -> tuple[int, int] | None:
    """Where an import says the last part of a module's name; None if it does not, or binds a package by it."""
    node = statement.node
    source = node.child_by_field_name("module_name")
    names = [source] if source is not None else []
    if source is None or imported_word(file, statement, module):
        names += node.children_by_field_name("name")
    for child in reversed(names):
        aliased = child.type == "aliased_import"
        dotted = child.child_by_field_name("name") if aliased else child
        words = [n for n in dotted.named_children if n.type == "identifier"] or [
            n for d in dotted.named_children if d.type == "dotted_name" for n in d.named_children
        ]
        if words and words[-1].text.decode(file.encoding, "replace") == module:
            whole = source is None and not aliased and len(words) > 1
            return None if whole else (words[-1].start_byte, words[-1].end_byte)
    return None
