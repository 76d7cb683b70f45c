"""Imports and exports as they are written: import and export, or require and module.exports."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.model import Scope, SourceFile, Statement
from ...braced.text import bound_names
from ..reading.imports import kind_of
from .words import end, quote

LIBRARY = frozenset(
    """
    assert buffer child_process console crypto events fs http https net os path perf_hooks process querystring readline
    stream
    string_decoder timers tty url util v8 vm worker_threads zlib
    """.split()
)


def quiet_module(module: str) -> bool:
    """Whether loading a module a little earlier or later can be told from outside."""
    return module.removeprefix("node:").split("/")[0] in LIBRARY


def stays_in(file: SourceFile, scope: Scope | None = None) -> str:
    """Why a class cannot leave its file; "" if it can."""
    if kind_of(file) == "page":
        return "it is a script that a page names, which cannot import another file"
    return ""


def head(file: SourceFile) -> str:
    """What a new file begins with."""
    first = next((s for s in file.statements if s.kind == "docstring"), None)
    if first is None or kind_of(file) == "module":
        return ""
    return file.slice(first.start, first.end) + "\n" if "use strict" in file.slice(first.start, first.end) else ""


def import_names(file: SourceFile, module: str, names: Sequence[str]) -> str:
    """The import of names from another file of the project."""
    q, mark = quote(file), end(file)
    ending = file.path[file.path.rindex(".") :]
    if kind_of(file) == "module":
        shown = {".ts": ".js", ".tsx": ".js", ".mts": ".mjs"}.get(ending, ending)
        return f"import {{ {', '.join(names)} }} from {q}./{module}{shown}{q}{mark}\n"
    shown = "" if ending == ".js" else ending
    return f"const {{ {', '.join(names)} }} = require({q}./{module}{shown}{q}){mark}\n"


def import_again(file: SourceFile, local: str, module: str, name: str) -> str:
    """The line that imports a name which another file imports as well."""
    return binding(file, [(local, module, name)]) + "\n"


def binding(file: SourceFile, bound: Sequence[tuple[str, str, str]]) -> str:
    """One statement that binds these names of one module."""
    q, mark, module = quote(file), end(file), bound[0][1]
    if kind_of(file) == "module":
        parts = [local for local, _, name in bound if name == "default"]
        parts += [f"* as {local}" for local, _, name in bound if not name]
        named = [
            name if name == local else f"{name} as {local}" for local, _, name in bound if name and name != "default"
        ]
        parts += [f"{{ {', '.join(named)} }}"] if named else []
        return f"import {', '.join(parts)} from {q}{module}{q}{mark}"
    whole = [local for local, _, name in bound if not name]
    if whole:
        return f"const {whole[0]} = require({q}{module}{q}){mark}"
    named = [name if name == local else f"{name}: {local}" for local, _, name in bound]
    return f"const {{ {', '.join(named)} }} = require({q}{module}{q}){mark}"


def import_list(file: SourceFile, statement: Statement, bound: Sequence[tuple[str, str, str]]) -> str:
    """An import with only some of its names."""
    return binding(file, bound)


def merged_imports(lines: Sequence[str], own: set[str]) -> str:
    """Import statements in the order given, so that modules are loaded as before; plain names of one module on one
    line."""
    found: dict[tuple[str, str], list[str]] = {}
    for line in dict.fromkeys(lines):
        match = re.fullmatch(r"(import|const) \{ (.+) \}( .+)\n", line)
        key, names = ((match[1], match[3]), [match[2]]) if match else ((line, ""), [])
        found.setdefault(key, []).extend(names)
    return "".join(
        f"{word} {{ {', '.join(sorted(names))} }}{rest}\n" if names else word for (word, rest), names in found.items()
    )


def moved(file: SourceFile, statement: Statement, start: int, stop: int, offered_names: set[str]) -> str:
    """A statement as it stands in a file of its own: exported where others import what it binds."""
    text = file.slice(start, stop)
    names = bound_names(file, statement) | {n for s, n in file.classes if statement.start <= s.start < statement.end}
    if kind_of(file) != "module" or not names & offered_names:
        return text
    at = len(file.slice(start, statement.start))
    return text[:at] + "export " + text[at:]


def offer(file: SourceFile, names: Sequence[str]) -> str:
    """What closes a new file so that others can import these names."""
    if kind_of(file) == "module" or not names:
        return ""
    return f"\nmodule.exports = {{ {', '.join(names)} }}{end(file)}\n"


def offered(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
    """What a file exports, by either means."""
    found: list[tuple[int, tuple[str, ...], str]] = []
    for node in file.tree.root_node.named_children:
        if node.type == "export_statement":
            names = [
                r.name
                for r in file.within(node.start_byte, node.end_byte)
                if r.symbol is not None and r.symbol.scope is file.scope and r.scope is file.scope
            ]
            whole = node.child_by_field_name("value")
            shown = tuple(
                dict.fromkeys(n for n in names if whole is None or whole.type == "identifier" or n in file.scope.bound)
            )
            found.append((node.start_byte, shown, "it is exported to other files"))
    for statement in file.statements:
        text = file.slice(statement.start, min(statement.end, statement.start + 40)).replace(" ", "")
        if re.match(r"(module\.)?exports\b[^=]*=", text):
            names = [
                r.name
                for r in file.within(statement.start, statement.end)
                if r.name not in ("module", "exports") and r.scope is file.scope
            ]
            found.append((statement.start, tuple(dict.fromkeys(names)), "it is exported to other files"))
    return [row for row in found if row[1]]
