"""Handlers that are written in place, in main code: arrow functions and function expressions that a call is given."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.inline import Inline
from ....program.layout import words
from ....program.model import SourceFile
from .structure import STATEMENTS
from .walk import FUNCTIONS

OWN = frozenset(
    [
        *FUNCTIONS,
        "function_declaration",
        "generator_function_declaration",
        "class_declaration",
        "class",
        "method_definition",
    ]
)
LISTENING = frozenset({"addEventListener", "on", "once", "bind", "addListener"})
AROUND = (b"document", b"window", b"process", b"document.body")
TIMERS = {"setInterval": ["tick"], "setTimeout": ["later"], "requestAnimationFrame": ["frame"]}


def inlines(file: SourceFile) -> list[Inline]:
    """Those of the main code with several lines, in source order."""
    return [made for call, node in handed(file.tree.root_node) if (made := inline(file, call, node)) is not None]


def handed(node: Any) -> Iterator[tuple[Any, Any]]:
    """(call, function) of each function that is an argument, outside of all other functions."""
    for child in node.named_children:
        if child.type in OWN:
            if node.type == "arguments" and child.type in FUNCTIONS:
                yield node.parent, child
        else:
            yield from handed(child)


def inline(file: SourceFile, call: Any, node: Any) -> Inline | None:
    """A function of several lines, and what it is handed to; None if it is no handler that could stand elsewhere."""
    body = node.child_by_field_name("body")
    plain = node.type in ("arrow_function", "function_expression", "function") and not any(
        c.type in ("async", "*") for c in node.children
    )
    if body is None or body.type != "statement_block" or not plain or node.child_by_field_name("name") is not None:
        return None
    named = parameters(node)
    if named is None or file.line(body.start_byte) == file.line(body.end_byte - 1):
        return None
    event, control = told(file, call)
    if not event and not control:
        return None
    rows = STATEMENTS.statements(file, body)
    return Inline(node.start_byte, node.end_byte, body.start_byte + 1, body.end_byte - 1, rows,
                  named, event, control, True)  # fmt: skip


def parameters(node: Any) -> list[tuple[str, str]] | None:
    """(name, type) of each parameter of a function; None if one is not plain."""
    single, several = node.child_by_field_name("parameter"), node.child_by_field_name("parameters")
    params = [single] if single is not None else list(several.named_children) if several is not None else []
    found = [p for p in map(parameter, params) if p is not None]
    return found if len(found) == len(params) else None


def parameter(node: Any) -> tuple[str, str] | None:
    """(name, type) of a plain parameter; None for any other."""
    name = node.child_by_field_name("pattern") if node.type == "required_parameter" else node
    kind = node.child_by_field_name("type")
    if name is None or name.type != "identifier" or node.child_by_field_name("value") is not None:
        return None
    if any(c.type in ("accessibility_modifier", "readonly", "decorator") for c in node.children):
        return None
    return name.text.decode(), kind.text.decode().lstrip(": ") if kind is not None else ""


def told(file: SourceFile, call: Any) -> tuple[list[str], list[str]]:
    """Words for the event that a call waits for, and for what it is asked of."""
    callee = call.child_by_field_name("function")
    if callee is None:
        return [], []
    if callee.type == "identifier":
        return TIMERS.get(callee.text.decode(), []), []
    if callee.type != "member_expression":
        return [], []
    name, owner = callee.child_by_field_name("property").text.decode(), callee.child_by_field_name("object")
    first = next(iter(call.child_by_field_name("arguments").named_children), None)
    if name not in LISTENING or first is None or first.type != "string":
        return [], []
    named = owner.child_by_field_name("property") if owner.type == "member_expression" else owner
    plain = named.type in ("identifier", "property_identifier", "private_property_identifier")
    control = words(named.text.decode().lstrip("#")) if plain and owner.text not in AROUND else []
    return [
        w for part in re.findall(r"[A-Za-z]+", file.slice(first.start_byte, first.end_byte)) for w in words(part)
    ], control
