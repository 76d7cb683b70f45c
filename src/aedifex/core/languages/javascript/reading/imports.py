"""Imports and ``require``: what they bind, which file of the project they may mean, and how a file is loaded."""

from __future__ import annotations

import posixpath
import re
from typing import Any

from ....program.model import SourceFile, Statement

SUFFIX = re.compile(r"\.(?:[cm]?[jt]s|[jt]sx)$")
PAGE = frozenset(
    """
    document window canvas addEventListener alert localStorage requestAnimationFrame createCanvas
    """.split()
)


def required(value: Any) -> str:
    """The module that ``require("...")`` names; "" for any other expression."""
    if value.type != "call_expression":
        return ""
    function, args = value.child_by_field_name("function"), value.child_by_field_name("arguments")
    if function.type != "identifier" or function.text != b"require" or args is None or args.named_child_count != 1:
        return ""
    return string(args.named_children[0])


def string(node: Any) -> str:
    return node.text.decode("utf-8", "replace")[1:-1] if node.type == "string" else ""


def imported(file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
    """(local name, module, name in the module) of what an import binds; "" stands for the module itself, "default" for
    its main value."""
    node = statement.node

    def text(n: Any) -> str:
        return str(n.text.decode(file.encoding, "replace"))

    found: list[tuple[str, str, str]] = []
    if node.type == "import_statement":
        source = node.child_by_field_name("source")
        module = string(source) if source is not None else ""
        stack = list(node.named_children)
        while stack:
            child = stack.pop(0)
            if child.type == "identifier":
                found.append((text(child), module, "default"))
            elif child.type == "namespace_import":
                found.append((text(child.named_children[0]), module, ""))
            elif child.type == "import_specifier":
                name, alias = child.child_by_field_name("name"), child.child_by_field_name("alias")
                found.append((text(alias or name), module, text(name)))
            elif child.type in ("import_clause", "named_imports"):
                stack = list(child.named_children) + stack
        return found or [("", module, "")]
    for child in node.named_children:
        if child.type != "variable_declarator":
            continue
        name, value = child.child_by_field_name("name"), child.child_by_field_name("value")
        module = required(value) if value is not None else ""
        if name.type == "identifier":
            found.append((text(name), module, ""))
            continue
        for part in name.named_children:
            if part.type == "shorthand_property_identifier_pattern":
                found.append((text(part), module, text(part)))
            elif part.type == "pair_pattern":
                found.append((text(part.child_by_field_name("value")), module, text(part.child_by_field_name("key"))))
    return found


def is_require(node: Any) -> bool:
    """Whether a declaration does nothing but bind what one module offers, by plain names."""
    parts = [c for c in node.named_children if c.type == "variable_declarator"]
    if (
        len(parts) != 1
        or parts[0].child_by_field_name("value") is None
        or not required(parts[0].child_by_field_name("value"))
    ):
        return False
    name = parts[0].child_by_field_name("name")
    plain = all(
        c.type == "shorthand_property_identifier_pattern"
        or (
            c.type == "pair_pattern"
            and c.child_by_field_name("value").type == "identifier"
            and c.child_by_field_name("key").type == "property_identifier"
        )
        for c in name.named_children
    )
    return name.type == "identifier" or (name.type == "object_pattern" and plain)


def stem(path: str) -> str:
    """The name of a file without folder and ending."""
    return SUFFIX.sub("", posixpath.basename(path))


def last_parts(module: str, name: str) -> set[str]:
    last = stem(module)
    return {last, "index"} if module.startswith(".") else {last}


def named_by(path: str) -> set[str]:
    """The file's name without its ending; that of its folder too for an index, or the bare words for "this folder"."""
    name = stem(path)
    return {name} if name != "index" else {name, "require", "import", "from"}


def means(importer: str, module: str, name: str, path: str) -> bool:
    """A relative module is a file, with or without its ending, or the index of a folder."""
    if not module.startswith("."):
        return False
    target = posixpath.normpath(posixpath.join(posixpath.dirname(importer), module))
    bare = SUFFIX.sub("", path)
    return bare in (target, SUFFIX.sub("", target)) or (stem(path) == "index" and posixpath.dirname(path) == target)


def kind_of(file: SourceFile) -> str:
    """How a file is loaded: "module" (import, export), "commonjs" (require) or "page" (a script that a page names)."""
    if file.path.endswith((".mjs", ".mts")):
        return "module"
    if file.path.endswith((".cjs", ".cts")):
        return "commonjs"
    if any(n.type in ("import_statement", "export_statement") for n in file.tree.root_node.named_children):
        return "module"
    if file.path.endswith((".ts", ".tsx")):
        return "module"
    free = {n for n, s in file.scope.symbols.items() if not s.kinds}
    if free & {"require", "module", "exports", "process", "__dirname"}:
        return "commonjs"
    return "page" if free & PAGE else "commonjs"
