"""Listeners as methods, and what they share as fields of the object."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ....program.edits import Range
from ....program.inline import Listener, LocalField
from ....program.layout import lead_of, line_start
from ....program.model import Function, Scope, SourceFile, Symbol
from ...braced.blocks import behind_fields, declared_alone, within
from ..facts.jdk import full_name, handed_down
from ..reading.inlines import COMMENTS, OWN
from ..reading.listeners import listeners, text_of
from ..reading.walk import modifiers
from .regions import REGIONS
from .text import TEXT, span
from .words import default_value, sketch

SUPER = "explicit_constructor_invocation"
DECLARATIONS = ("local_variable_declaration",)
FIELDS = ("field_declaration",)


class JavaListening:
    """``private JLabel status`` instead of a local that listeners capture; ``this::doorsPressed`` instead of one."""

    listeners = staticmethod(listeners)

    def can_be_field(self, file: SourceFile, method: Function, symbol: Symbol, moving: Sequence[Listener]) -> bool:
        if len(constructors(file, method.outer)) > 1 or method.name != TEXT.CONSTRUCTOR:
            return False
        if symbol.kinds == {"parameter"}:
            return len(symbol.bindings) == 1 and bool(REGIONS.declared_as(file, symbol)[1])
        row = declared_alone(file, method, symbol, DECLARATIONS)
        if row is None or not type_of(file, row, symbol):
            return False
        return len(symbol.bindings) == 1 or box(file, symbol) is not None

    def property_of(self, file: SourceFile, method: Function, symbol: Symbol) -> str:
        return ""

    def leading(self, file: SourceFile, method: Function) -> list[Symbol]:
        if method.name != TEXT.CONSTRUCTOR or begins_late(file, method):
            return []
        rows = [s for s in method.node.child_by_field_name("body").named_children if s.type not in (*COMMENTS, SUPER)]
        symbols = [s for s in method.scope.symbols.values() if s.kinds == {"variable"}]
        found = []
        for row in rows:
            made = [s for s in symbols if declared_alone(file, method, s, DECLARATIONS) == row]
            if not made or not stands_alone(file, method, row):
                break
            found += made
        return found

    def as_fields(self, file: SourceFile, method: Function, fields: Sequence[LocalField]) -> list[Range]:
        """A declaration moves to the fields while nothing but such declarations stands above it; below other
        statements, it leaves its value behind."""
        body = method.node.child_by_field_name("body")
        rows = [s for s in body.named_children if s.type not in COMMENTS]
        begin = rows[0].end_byte if rows and rows[0].type == SUPER else body.start_byte + 1
        wanted = {f.symbol: f for f in fields}
        edits: list[Range] = []
        declared, set_first, leading = [], [], not begins_late(file, method)
        for f in [f for f in fields if f.there]:
            away = [r for r in f.symbol.references if r.scope.frame is not method.scope]
            edits += [(r.start, r.end, f.name) for r in away if f.name != r.name]
        for f in [f for f in fields if f.symbol.kinds == {"parameter"} and not f.there]:
            declared.append(f"private final {REGIONS.declared_as(file, f.symbol)[1]} {f.name};")
            set_first.append(f"this.{f.name} = {f.symbol.name};")
        for row in rows:
            mine = [s for s in wanted if declared_alone(file, method, s, DECLARATIONS) == row]
            if row.type == SUPER:
                continue
            leading = leading and bool(mine) and stands_alone(file, method, row)
            if mine:
                text, change = self.field(file, method, row, wanted[mine[0]], leading)
                declared.append(text)
                edits += change
            for s in mine:
                edits += unboxed(file, s) if box(file, s) is not None else []
        lead = lead_of(file, method.start) + TEXT.indent_unit(file)
        if set_first:
            edits.append((begin, begin, "".join(f"\n{lead}{line}" for line in set_first)))
        return [*edits, *behind_fields(file, method, declared, FIELDS)]

    def field(
        self, file: SourceFile, method: Function, row: Any, f: LocalField, moves: bool
    ) -> tuple[str, list[Range]]:
        """The text of a field, and what becomes of the declaration of the variable."""
        part = next(c for c in row.named_children if c.type == "variable_declarator")
        value, boxed, kind = part.child_by_field_name("value"), box(file, f.symbol), type_of(file, row, f.symbol)
        given = boxed[1] if boxed is not None else file.slice(*span(value)) if value is not None else ""
        kind = boxed[0] if boxed is not None else kind
        notes = "".join(m + " " for m in words_of(file, row) if m != "final")
        fixed = "final " if boxed is None and value is not None and not leaves(file, method) else ""
        start, end = TEXT.comment_start(file, row.start_byte), TEXT.line_end(file, row.end_byte - 1)
        if moves or value is None:
            above = file.slice(start, line_start(file, row.start_byte)).strip()
            remark = TEXT.trailing_comment(file, row.end_byte)
            first = f" = {given}" if value is not None else ""
            text = f"private {notes}{fixed}{kind} {f.name}{first};{remark}"
            return (f"{above}\n{text}" if above else text), [(start, end, "")]
        name = part.child_by_field_name("name")
        edits: list[Range] = [(row.start_byte, name.start_byte, ""), (name.end_byte, value.start_byte, " = ")]
        if boxed is not None:
            edits.append((*span(value), given))
        elif given.startswith("{"):
            edits.append((value.start_byte, value.start_byte, f"new {kind} "))
        return f"private {notes}{fixed}{kind} {f.name};", edits

    def registered(self, name: str, params: Sequence[str], more: Sequence[str], whole: bool) -> str:
        call = f"{name}({', '.join([*params, *more])})"
        if not whole:
            return f"{call};"
        return REGIONS.in_place(params, call) if more else f"this::{name}"

    def base_of(self, file: SourceFile, scope: Scope) -> str:
        return base_of(file, scope)

    def fixed(self, file: SourceFile, scope: Scope) -> str:
        node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
        plain = node is not None and node.type == "class_declaration" and not sketch(file)
        return "" if plain else "it is no plain class"

    def library_has(self, file: SourceFile, base: str, name: str) -> bool | None:
        full = full_name(file, base)
        return name in handed_down(full) if full else None


def base_of(file: SourceFile, scope: Scope) -> str:
    """The class that a class extends, as it is written; "" if it says none."""
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    above = node.child_by_field_name("superclass") if node is not None else None
    return file.slice(*span(above.named_children[0])).partition("<")[0] if above is not None else ""


def constructors(file: SourceFile, scope: Scope) -> list[Function]:
    return [f for f in file.functions if f.outer is scope and f.name == TEXT.CONSTRUCTOR]


def type_of(file: SourceFile, row: Any, symbol: Symbol) -> str:
    """The type of a variable as a field says it: where it is left to the compiler, that of the object that is made."""
    said = REGIONS.declared_as(file, symbol)[1]
    part = next(c for c in row.named_children if c.type == "variable_declarator")
    value = part.child_by_field_name("value")
    if said or value is None or value.type != "object_creation_expression":
        return said
    made = file.slice(*span(value.child_by_field_name("type")))
    anonymous = any(c.type == "class_body" for c in value.named_children)
    return "" if made.endswith("<>") or anonymous else made


def stands_alone(file: SourceFile, method: Function, row: Any) -> bool:
    """Whether a declaration says the same outside of the constructor: it reads nothing of its, and holds no lines."""
    own = {method.scope.symbols[p.name] for p in method.params}
    holds = any(n.type in ("lambda_expression", "class_body") for n in within(row, *span(row)))
    return not holds and not any(r.symbol in own for r in file.within(*span(row)))


def begins_late(file: SourceFile, method: Function) -> bool:
    """Whether a member of the object gets its first value below the fields that open the class: then what moves there
    would come before it."""
    members = [m for m in method.node.parent.named_children if m.type not in COMMENTS]
    opening = next((i for i, m in enumerate(members) if m.type != "field_declaration"), len(members))
    return any(
        m.type in ("field_declaration", "block") and "static" not in modifiers(m) and "=" in file.slice(*span(m))
        for m in members[opening:]
    )


def leaves(file: SourceFile, method: Function) -> bool:
    """Whether a constructor may end before its last statement."""
    body = method.node.child_by_field_name("body")
    return any(n.type == "return_statement" for n in within(body, *span(body), OWN))


def words_of(file: SourceFile, row: Any) -> list[str]:
    group = next((c for c in row.children if c.type == "modifiers"), None)
    return [file.slice(*span(c)) for c in group.children if c.type not in COMMENTS] if group is not None else []


def box(file: SourceFile, symbol: Symbol) -> tuple[str, str] | None:
    """(type, first value) of the one item of an array in which listeners can set a value; None if it is none."""
    kind = REGIONS.declared_as(file, symbol)[1]
    if not kind.endswith("[]") or kind.endswith("[][]") or len(symbol.bindings) != 1 or items(file, symbol) is None:
        return None
    name = file.tree.root_node.named_descendant_for_byte_range(symbol.bindings[0].start, symbol.bindings[0].end)
    value = name.parent.child_by_field_name("value")
    plain = kind.removesuffix("[]").strip()
    given = value
    if value is not None and value.type == "array_creation_expression":
        given = value.child_by_field_name("value")
        sizes = [c for c in value.named_children if c.type == "dimensions_expr"]
        if given is None and [text_of(s).replace(" ", "") for s in sizes] == ["[1]"]:
            return plain, default_value(plain)
    if given is None or given.type != "array_initializer":
        return None
    inside = [c for c in given.named_children if c.type not in COMMENTS]
    return (plain, file.slice(*span(inside[0]))) if len(inside) == 1 and len(given.named_children) == 1 else None


def items(file: SourceFile, symbol: Symbol) -> list[tuple[Any, Any]] | None:
    """(name, whole) of every use as its first item; None if it is used in another way."""
    found = []
    for r in symbol.references:
        if r in symbol.bindings:
            continue
        node = file.tree.root_node.named_descendant_for_byte_range(r.start, r.end)
        whole = node.parent
        if whole.type != "array_access" or text_of(whole.child_by_field_name("index")) != "0":
            return None
        if whole.child_by_field_name("array").start_byte != node.start_byte:
            return None
        found.append((node, whole))
    return found


def unboxed(file: SourceFile, symbol: Symbol) -> list[Range]:
    return [(node.end_byte, whole.end_byte, "") for node, whole in items(file, symbol) or []]


LISTENING = JavaListening()
