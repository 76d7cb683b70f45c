"""Listeners as methods, and what they share as members of the object."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ....program.edits import Range
from ....program.inline import Listener, LocalField
from ....program.layout import lead_of, line_end
from ....program.model import Function, Role, Scope, SourceFile, Symbol
from ..facts.pure import apis
from ..reading.imports import imported
from ..reading.listeners import listeners as listeners
from ..reading.structure import body_of
from .regions import in_place
from .text import TEXT

PLAIN = frozenset(["", "unpack", "chain"])
OBJECT = "object"


def can_be_field(file: SourceFile, method: Function, symbol: Symbol, moving: Sequence[Listener]) -> bool:
    if not method.bound or any(r.form == "spelled" for r in symbol.references):
        return False
    own = [r for r in symbol.bindings if r.form != "parameter"]
    if any(r.form not in PLAIN or r.role == Role.DELETE or r.scope.kind == "comprehension" for r in own):
        return False
    if symbol.kinds == {"parameter"}:
        return plain_parameter(method, symbol.name)
    return symbol.kinds == {"variable"} and any(r.scope is method.scope for r in own)


def plain_parameter(method: Function, name: str) -> bool:
    return any(p.name == name and p.kind in ("plain", "keyword") for p in method.arguments)


def property_of(file: SourceFile, method: Function, symbol: Symbol) -> str:
    """No parameter declares a member."""
    return ""


def leading(file: SourceFile, method: Function) -> list[Symbol]:
    """Every member is set where its variable was."""
    return []


def as_fields(file: SourceFile, method: Function, fields: Sequence[LocalField]) -> list[Range]:
    own = method.params[0].name
    edits: list[Range] = []
    first: list[str] = []
    for f in fields:
        whole = items(file, f.symbol)
        for r in f.symbol.references:
            if r.form == "parameter" and f.there:
                continue
            if r.form == "parameter":
                first.append(f"{own}.{f.name} = {f.symbol.name}")
            elif f.keeps and r.scope.frame is method.scope:
                continue
            elif whole is None or r.writes:
                edits.append((r.start, r.end, f"{own}.{f.name}"))
        for node in whole or []:
            edits.append((node.start_byte, node.end_byte, f"{own}.{f.name}"))
        if whole is not None:
            value = given(file, f.symbol)
            edits.append((value.start_byte, value.end_byte, value.named_children[0].text.decode(file.encoding)))
    if first:
        at, lead = after_super(file, method)
        edits.append((at, at, "".join(f"{lead}{line}\n" for line in first)))
    return edits


def after_super(file: SourceFile, method: Function) -> tuple[int, str]:
    """Where the first lines of a constructor stand: behind that of its base, where that is called first."""
    rows = [s for s in body_of(file, method) if s.kind != "docstring"]
    text = file.slice(rows[0].start, rows[0].end)
    called = rows[0].kind == "expression" and f".{TEXT.CONSTRUCTOR}(" in text
    at = line_end(file, rows[0].end - 1) if called else TEXT.comment_start(file, rows[0].start)
    return at, lead_of(file, rows[0].start)


def given(file: SourceFile, symbol: Symbol) -> Any:
    """What a variable is given where it is set, once."""
    first = symbol.bindings[0]
    node = file.tree.root_node.named_descendant_for_byte_range(first.start, first.end).parent
    return node.child_by_field_name("right") if node.type == "assignment" else None


def items(file: SourceFile, symbol: Symbol) -> list[Any] | None:
    """The uses of a list of one item, in which others can set a value, as its first item; None if it is used in another
    way, or is no such list."""
    value = given(file, symbol) if len(symbol.bindings) == 1 and symbol.kinds == {"variable"} else None
    if value is None or value.type != "list" or len(value.named_children) != 1:
        return None
    if value.named_children[0].type in ("comment", "list_splat"):
        return None
    found = []
    for r in symbol.references:
        if not r.writes:
            node = file.tree.root_node.named_descendant_for_byte_range(r.start, r.end)
            whole = node.parent
            plain = whole.type == "subscript" and whole.child_by_field_name("value") == node
            if not plain or whole.named_child_count != 2 or whole.named_children[1].text != b"0":
                return None
            if whole.parent.type == "delete_statement":
                return None
            found.append(whole)
    return found


def registered(name: str, params: Sequence[str], more: Sequence[str], whole: bool) -> str:
    call = f"{TEXT.RECEIVER}.{name}"
    return in_place(params, f"{call}({', '.join([*params, *more])})") if more else call


def fixed(file: SourceFile, scope: Scope) -> str:
    """Why no member can be added: the class says what its objects may have, or has several bases."""
    if any(n in scope.symbols for n in ("__slots__", "__setattr__", "__getattribute__")):
        return "the class says itself what can be set on its objects"
    if re.search(rb"\b__dict__\b|\bvars\(", file.text):
        return "the file looks at all that objects hold"
    return "it has several bases" if len(bases(file, scope)) > 1 else ""


def base_of(file: SourceFile, scope: Scope) -> str:
    return next((b for b in bases(file, scope)), "")


def bases(file: SourceFile, scope: Scope) -> list[str]:
    """What a class names in its head, as it is written."""
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    while node is not None and node.type != "class_definition":
        node = node.parent
    above = node.child_by_field_name("superclasses") if node is not None else None
    found = [
        b.text.decode(file.encoding) for b in (above.named_children if above is not None else []) if b.type != "comment"
    ]
    return [b for b in found if b != OBJECT]


def library_has(file: SourceFile, base: str, name: str) -> bool | None:
    if full_name(file, base) not in apis()["bases"]["tkinter"]:
        return None
    return not name.startswith("_") or name in apis()["bases"]["hidden"]


def full_name(file: SourceFile, said: str) -> str:
    """The name of a class of a library, with its module: ``tk.Frame`` → tkinter.Frame."""
    first, _, rest = said.partition(".")
    for s in file.imports:
        for local, module, name in imported(file, s):
            if local == first:
                return ".".join(x for x in (module, name, rest) if x)
            if local == "*" and f"{module}.{said}" in apis()["bases"]["tkinter"]:
                return f"{module}.{said}"
    return said
