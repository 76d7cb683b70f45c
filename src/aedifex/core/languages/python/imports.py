"""Import statements: what they bind, and which file of the project a module name means."""

from __future__ import annotations

from ...program.model import SourceFile, Statement


def imported(file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
    """(local name, module, name in the module or "") for each name that an import statement binds.

    A star import gives ("*", module, "*").
    """
    node = statement.node
    text = lambda n: n.text.decode(file.encoding, "replace")  # noqa: E731
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
