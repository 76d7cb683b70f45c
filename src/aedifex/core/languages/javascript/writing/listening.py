"""Listeners as methods, and what they share as members of the object."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ....program.edits import Range
from ....program.fields import NewField
from ....program.inline import Listener, LocalField
from ....program.layout import lead_of
from ....program.model import Function, Reference, Scope, SourceFile, Symbol
from ....program.scopes import receiver_of
from ...braced.blocks import behind_fields, declared_alone, within
from ..reading.listeners import listeners as listeners
from .regions import OWN_THIS, REGIONS, before_super
from .text import TEXT, declaration
from .words import end, typed

ALL_MEMBERS = rb"stringify\(this\b|Object\.\w+\([^()]*\bthis\b(?!\.)|\.\.\.this\b(?!\.)|\b(?:in|of) this\b(?!\.)"
DECLARATIONS = ("lexical_declaration", "variable_declaration")
FIELDS = ("field_definition", "public_field_definition")


def can_be_field(file: SourceFile, method: Function, symbol: Symbol, moving: Sequence[Listener]) -> bool:
    own = [b for b in symbol.bindings if b.form != "parameter"]
    if any(b.form not in ("", "definition", "assigned") for b in own):
        return False
    if not all(sees(file, method, r, moving) for r in symbol.references if r.form != "parameter"):
        return False
    if symbol.kinds == {"parameter"}:
        return any(p.name == symbol.name and p.kind == "plain" and p.default is None for p in method.params)
    return symbol.kinds == {"variable"} and row_of(file, method, symbol) is not None


def sees(file: SourceFile, method: Function, ref: Reference, moving: Sequence[Listener]) -> bool:
    """Whether the object is called ``this`` where a variable is used, or will be once the lines around it are a
    method."""
    if receiver_of(ref.scope, method.outer):
        return True
    around = next((n for n in moving if n.opens <= ref.start < n.closes), None)
    if around is None:
        return False
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    while node is not None and node.start_byte >= around.opens:
        if node.type in OWN_THIS:
            return False
        node = node.parent
    return True


def row_of(file: SourceFile, method: Function, symbol: Symbol) -> Any:
    """The declaration of a variable, of it alone, right in the body of a method and where its object is there."""
    row = declared_alone(file, method, symbol, DECLARATIONS)
    return row if row is not None and not before_super(file, row.start_byte, row.end_byte) else None


def property_of(file: SourceFile, method: Function, symbol: Symbol) -> str:
    """``constructor(private readonly size: number)`` declares a member ``size``."""
    p = next((p for p in method.params if p.name == symbol.name), None)
    words = file.slice(p.start, p.end).split() if p is not None else []
    return symbol.name if words and words[0] in ("private", "protected", "public", "readonly") else ""


def leading(file: SourceFile, method: Function) -> list[Symbol]:
    """Every member is set where its variable was."""
    return []


def as_fields(file: SourceFile, method: Function, fields: Sequence[LocalField]) -> list[Range]:
    edits: list[Range] = []
    first: list[str] = []
    declared: list[str] = []
    unit, mark = TEXT.indent_unit(file), end(file)
    lead = lead_of(file, method.start) + unit
    for f in fields:
        row = row_of(file, method, f.symbol) if f.symbol.kinds == {"variable"} else None
        begin = min(b.start for b in f.symbol.bindings)
        for r in f.symbol.references:
            if r.form == "parameter" and f.there:
                continue
            if r.form == "parameter":
                first.append(f"this.{f.name} = {f.symbol.name}{mark}")
            elif row is not None and r.start == begin:
                edits += set_in_place(file, row, f.name)
            elif not (f.keeps and r.scope.frame is method.scope):
                edits.append((r.start, r.end, TEXT.use(r, f"this.{f.name}")))
        if f.there:
            continue
        kind = REGIONS.declared_as(file, f.symbol)[1]
        value = row is not None and value_of(row) is not None
        declared.append(declaration(unit, NewField(f.name, "x" if value or row is None else "", type=kind), mark))
    if first:
        at = after_super(file, method)
        edits.append((at, at, "".join(f"\n{lead}{line}" for line in first)))
    return [*edits, *(behind_fields(file, method, declared, FIELDS) if typed(file) else [])]


def set_in_place(file: SourceFile, row: Any, name: str) -> list[Range]:
    """A declaration becomes the statement that sets a member."""
    part = next(c for c in row.named_children if c.type == "variable_declarator")
    value = value_of(row)
    if value is None:
        return [(row.start_byte, part.end_byte, f"this.{name} = undefined")]
    return [(row.start_byte, value.start_byte, f"this.{name} = ")]


def value_of(row: Any) -> Any:
    return next(c for c in row.named_children if c.type == "variable_declarator").child_by_field_name("value")


def after_super(file: SourceFile, method: Function) -> int:
    """Where the first lines of a constructor stand: behind the call of ``super``."""
    body = method.node.child_by_field_name("body")
    calls = [n for n in within(body, body.start_byte, body.end_byte, OWN_THIS)
             if n.type == "call_expression" and n.child_by_field_name("function").type == "super"]  # fmt: skip
    return int(calls[0].parent.end_byte) if calls else int(body.start_byte) + 1


def registered(name: str, params: Sequence[str], more: Sequence[str], whole: bool) -> str:
    return REGIONS.in_place(params, f"this.{name}({', '.join([*params, *more])})")


def fixed(file: SourceFile, scope: Scope) -> str:
    """Members can be added to an object whose members nobody goes through."""
    text = file.text[scope.start : scope.end]
    return "the class goes through all that its objects hold" if re.search(ALL_MEMBERS, text) else ""


def base_of(file: SourceFile, scope: Scope) -> str:
    return next((n for s, n in file.inheriting if s is scope), "?" if scope.bases else "")


def library_has(file: SourceFile, base: str, name: str) -> bool | None:
    """No class of a library is known."""
    return None
