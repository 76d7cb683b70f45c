"""Handlers that are written in place in ``main``: lambdas with a block, and anonymous classes of one method, that a
call is given."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.inline import Inline
from ....program.layout import words
from ....program.model import SourceFile
from ..facts.events import event_of, imported_name
from .structure import STATEMENTS

OWN = frozenset(
    ["lambda_expression", "class_body", "class_declaration", "record_declaration", "local_class_declaration"]
)
COMMENTS = ("line_comment", "block_comment")


def inlines(file: SourceFile) -> list[Inline]:
    """Those of ``main`` with several lines, in source order."""
    guards = [s.node.child_by_field_name("body") for s in file.statements if s.kind == "guard"]
    return [
        made
        for body in guards
        if body is not None
        for call, node in handed(body)
        if (made := inline(file, call, node)) is not None
    ]


def handed(node: Any) -> Iterator[tuple[Any, Any]]:
    """(call, lambda or new object) of each that is an argument, outside of all others."""
    for child in node.named_children:
        anonymous = child.type == "object_creation_expression" and any(
            c.type == "class_body" for c in child.named_children
        )
        if node.type == "argument_list" and (child.type == "lambda_expression" or anonymous):
            yield node.parent, child
        elif child.type not in OWN and not anonymous:
            yield from handed(child)


def inline(file: SourceFile, call: Any, node: Any) -> Inline | None:
    event, control, kind = told(call)
    if not event and not control:
        return None
    if node.type == "lambda_expression":
        return arrow(file, node, event, control, kind)
    members = [
        c
        for c in next(c for c in node.named_children if c.type == "class_body").named_children
        if c.type not in COMMENTS
    ]
    if (
        len(members) != 1
        or members[0].type != "method_declaration"
        or any(c.type == "throws" for c in members[0].named_children)
    ):
        return None
    body, name = members[0].child_by_field_name("body"), members[0].child_by_field_name("name").text.decode()
    params = [
        (p.child_by_field_name("name"), p.child_by_field_name("type"))
        for p in members[0].child_by_field_name("parameters").named_children
        if p.type == "formal_parameter"
    ]
    if (
        body is None
        or not several(file, body)
        or own_this(body)
        or members[0].child_by_field_name("type").type != "void_type"
    ):
        return None
    more = words(name) if name not in ("actionPerformed", "run") and words(name) != event else []
    rows = STATEMENTS.statements(file, body)
    return Inline(node.start_byte, node.end_byte, body.start_byte + 1, body.end_byte - 1, rows,
                  [(n.text.decode(), t.text.decode()) for n, t in params], [*event, *more], control)  # fmt: skip


def arrow(file: SourceFile, node: Any, event: list[str], control: list[str], kind: str) -> Inline | None:
    body, given = node.child_by_field_name("body"), node.child_by_field_name("parameters")
    if body.type != "block" or not several(file, body):
        return None
    names = [given] if given.type == "identifier" else list(given.named_children)
    if any(n.type != "identifier" for n in names) or len(names) > 1:
        return None
    used = [n for n in names if re.search(rb"\b" + n.text + rb"\b", body.text)]
    if used and not kind:
        return None
    imported = imported_name(file, kind) if kind else ""
    return Inline(node.start_byte, node.end_byte, body.start_byte, body.end_byte, STATEMENTS.statements(file, body),
                  [(n.text.decode(), imported) for n in used], event, control)  # fmt: skip


def several(file: SourceFile, body: Any) -> bool:
    """Whether a body has statements, and lines of its own for them."""
    return file.line(body.start_byte) < file.line(body.end_byte - 1) and bool(body.named_children)


def own_this(body: Any) -> bool:
    """Whether the anonymous object itself is meant."""
    return re.search(rb"\b(this|super)\b", body.text) is not None


def told(call: Any) -> tuple[list[str], list[str], str]:
    """Words for the event and for what is asked to tell of it, and the type of what a handler gets; "" if that is not
    told."""
    if call.type == "object_creation_expression":
        name = call.child_by_field_name("type").text.decode().rsplit(".", 1)[-1]
        return (["tick"], [], event_of("ActionListener")) if name == "Timer" else ([], [], "")
    if call.type != "method_invocation":
        return [], [], ""
    name, owner = call.child_by_field_name("name").text.decode(), call.child_by_field_name("object")
    if not re.fullmatch(r"add\w+Listener|set[Oo]n\w+", name):
        return [], [], ""
    event = words(re.sub(r"^(add|set[Oo]n)|Listener$", "", name))
    control = words(owner.text.decode()) if owner is not None and owner.type == "identifier" else []
    return [w for w in event if w != "action"], control, event_of(re.sub(r"^(add|set)", "", name))
