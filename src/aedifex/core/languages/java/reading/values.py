"""What becomes of a function that turns into a method: its use as a value, its receiver, its locks."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.edits import Range as Edit
from ....program.model import Reference, Scope, SourceFile
from ....program.scopes import receiver_of, shadowed
from ..writing.words import INHERITED
from .walk import modifiers
from .walk_names import RECEIVER

OF_SKETCH = re.compile(rb"this(?![\w$])")  # alone, or in front of what is taken from it


def class_trouble(file: SourceFile, start: int, end: int, main: bool = False) -> str:
    """Why a stretch of code would mean something else inside a class; "" if it would not."""
    for ref in file.within(start, end):
        if OF_SKETCH.match(file.text, ref.start) and ref.symbol is not None and ref.symbol.scope is file.scope:
            return f"line {file.shown(ref.start)}: '{RECEIVER}' is the sketch there, and would be the object"
    f = next((f for f in file.functions if f.start == start and f.end == end), None)
    if f is None:
        return ""
    if "synchronized" in modifiers(f.node):
        return "it locks the class, and would lock an object"
    if "native" in modifiers(f.node):
        return "it is written in another language"
    for ref in file.within(f.body_start, f.end):
        if ref.symbol is None or ref.symbol.scope is not file.scope or not ref.symbol.kinds & {"variable", "function"}:
            continue
        if trouble := blind(file, ref, f.scope):
            return trouble
    return ""


def between(scope: Scope, top: Scope) -> Scope | None:
    """The class, if any, that stands inside a function around a scope."""
    at: Scope | None = scope
    while at is not None and at is not top:
        if at.kind == "class":
            return at
        at = at.parent
    return None


def blind(file: SourceFile, ref: Reference, top: Scope) -> str:
    """Why a use inside a method cannot name the method's object; "" if it can."""
    inner = between(ref.scope, top)
    if inner is None:
        return ""
    node = file.tree.root_node.named_descendant_for_byte_range(inner.start, inner.end)
    while node is not None and not node.type.endswith(("_declaration", "_expression")):
        node = node.parent
    if node is None or node.type not in ("class_declaration", "object_creation_expression"):
        return (
            f"line {file.shown(ref.start)}: '{ref.name}' is used inside a type that stands in it and has no object "
            "around"
        )
    return ""


def needless_receivers(file: SourceFile, scope: Scope) -> list[Edit]:
    """``this.`` in front of a member that no variable hides."""
    edits: list[Edit] = []
    for ref in file.within(scope.start, scope.end):
        node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end) if ref.name == "this" else None
        if node is None or node.type != "this" or receiver_of(ref.scope, scope) != ref.name:
            continue
        part = {"field_access": "field", "method_invocation": "name"}.get(node.parent.type, "")
        name = node.parent.child_by_field_name(part) if part else None
        if name is None or node.parent.child_by_field_name("object") != node:
            continue
        said = file.slice(name.start_byte, name.end_byte)
        between = file.slice(node.end_byte, name.start_byte)
        if said in scope.symbols and between == "." and not shadowed(ref.scope, said, scope):
            edits.append((node.start_byte, name.start_byte, ""))
    return edits


def receiver_at(file: SourceFile, scope: Scope, top: Scope, class_: str) -> str:
    """How code in ``scope`` names the object of the method ``top``: in a class of its own it says whose object it
    means."""
    return f"{class_}.this" if between(scope, top) is not None else "this"


def inner_receivers(file: SourceFile, top: Scope, refs: Sequence[Reference]) -> tuple[list[Edit], str]:
    """A class that stands inside a method sees the method's object under another name; a type without an object around
    does not."""
    return [], next((why for r in refs if (why := blind(file, r, top))), "")


def outward(file: SourceFile, refs: Sequence[Reference], fields: set[str], methods: set[str]) -> tuple[list[Edit], str]:
    """Uses of the home's members inside a class that has members of the same names: they say whose they are."""
    edits: list[Edit] = []
    for ref in refs:
        if ref.symbol is None or ref.symbol.scope is not file.scope or ref.form in ("qualified", "method reference"):
            continue
        given = not ref.symbol.kinds  # by the language or its surroundings
        if given:
            hiding = set() if ref.member else methods if ref.role == "call" else fields
        else:
            hiding = (
                fields
                if "variable" in ref.symbol.kinds
                else methods | INHERITED
                if "function" in ref.symbol.kinds
                else set()
            )
        if ref.name not in hiding:
            continue
        if given or file.path.endswith(".pde"):
            return [], f"line {file.shown(ref.start)}: the class has a member '{ref.name}' too, which would be meant"
        edits.append((ref.start, ref.start, file.scope.name + "."))
    return edits, ""


def method_as_value(text: str, owner: str) -> str:
    """A reference to a method names its object."""
    return f"{owner}::{text.rsplit('.', 1)[-1]}"
