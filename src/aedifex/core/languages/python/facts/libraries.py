"""Classes of libraries that call methods by their names: which there are, and where a file makes or extends one."""

from __future__ import annotations

import tomllib
from functools import cache
from pathlib import Path
from typing import Any

from ....program.frameworks import Framework
from ....program.model import SourceFile, Symbol
from ..reading.imports import imported


@cache
def known() -> tuple[Framework, ...]:
    data = tomllib.loads((Path(__file__).parent / "frameworks.toml").read_text(encoding="utf-8"))
    found: dict[str, Framework] = {}
    for entry in data["base"]:
        like = found.get(entry.get("like", ""))
        found[entry["class"]] = Framework(
            entry["class"],
            frozenset(entry["makers"]),
            entry.get("decorator") or (like.decorator if like else ""),
            entry.get("register") or (like.register if like else ""),
            frozenset(entry.get("hooks", ())) | (like.hooks if like else frozenset()),
            frozenset(entry["continued"]),
            frozenset(entry["members"]) | (like.members if like else frozenset()),
        )
    return tuple(found.values())


def of(file: SourceFile, symbol: Symbol) -> Framework | None:
    """The library that a variable's value comes from; None if nothing tells."""
    if len(symbol.bindings) != 1 or symbol.scope is not file.scope:
        return None
    made = next(
        (s for s in file.statements if s.target is not None and s.target.symbol is symbol and s.value is not None), None
    )
    return made_by(file, made.value) if made is not None and made.value is not None else None


def base_of(file: SourceFile, node: Any) -> Framework | None:
    """The known class of a library that a class extends, and nothing else; None if it does not."""
    bases = node.child_by_field_name("superclasses")
    named = [c for c in bases.named_children if c.type != "comment"] if bases is not None else []
    if (
        len(named) != 1
        or named[0].type not in ("identifier", "attribute")
        or node.parent.type == "decorated_definition"
    ):
        return None
    told = qualified(file, named[0])
    return next((f for f in known() if f.name == told), None)


def made_by(file: SourceFile, value: tuple[int, int]) -> Framework | None:
    """The library that makes a value; None if nothing tells."""
    node = file.tree.root_node.named_descendant_for_byte_range(*value)
    if node.type != "call":
        return None
    callee = node.child_by_field_name("function")
    told = qualified(file, callee) if callee.type in ("identifier", "attribute") else ""
    return next((f for f in known() if told in f.makers), None)


def qualified(file: SourceFile, callee: Any) -> str:
    """The module and name that a dotted name stands for; "" if its first part is no import."""
    first, dot, rest = file.slice(callee.start_byte, callee.end_byte).partition(".")
    symbol = file.scope.symbols.get(first)
    if symbol is None or symbol.kinds != {"import"}:
        return ""
    for s in file.imports:
        for local, module, name in imported(file, s):
            if local == first:
                whole = f"{module}.{name}" if name else module if local != module.split(".")[0] else local
                return whole + dot + rest
    return ""
