"""Handlers that are written in place, in main code: lambdas that do more than delegate."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.inline import Inline
from ....program.layout import words
from ....program.model import SourceFile
from ...braced.blocks import within
from ..writing.text import TEXT
from .imports import imported

OWN = frozenset(["function_definition", "class_definition"])
LISTENING = frozenset({"bind", "bind_all", "bind_class", "tag_bind", "protocol", "trace_add", "connect", "on", "once"})
AROUND = (b"root", b"window", b"master", b"parent", b"self")
TIMERS = {"after": ["later"], "after_idle": ["later"]}
KEYWORDS = frozenset({"command", "callback", "handler", "on_click", "on_change", "on_press", "on_close"})
SAYING = ("name", "text", "label")  # what tells a control, the best first
WORK = frozenset(
    [
        "conditional_expression",
        "boolean_operator",
        "tuple",
        "list",
        "named_expression",
        "list_comprehension",
        "set_comprehension",
        "dictionary_comprehension",
    ]
)
SILENT = frozenset([b"print", b"setattr"])  # what they give is nothing


def inlines(file: SourceFile) -> list[Inline]:
    """Those of the main code that do more than call one thing, in source order."""
    return [
        made
        for call, argument, node in handed(file.tree.root_node)
        if (made := inline(file, call, argument, node)) is not None
    ]


def handed(node: Any) -> Iterator[tuple[Any, Any, Any]]:
    """(call, argument, lambda) of each lambda that is an argument, outside of all others and of functions."""
    for child in node.named_children:
        if child.type in OWN:
            continue
        value = child.child_by_field_name("value") if child.type == "keyword_argument" else child
        if node.type == "argument_list" and value.type == "lambda":
            yield node.parent, child, value
        elif child.type != "lambda":
            yield from handed(child)


def inline(file: SourceFile, call: Any, argument: Any, node: Any) -> Inline | None:
    """A lambda that does more than delegate, and what it is handed to; None if it is no handler."""
    body, several = node.child_by_field_name("body"), node.child_by_field_name("parameters")
    params = list(several.named_children) if several is not None else []
    if (
        any(p.type != "identifier" for p in params)
        or delegates(body)
        or any(c.type == "comment" for c in within(node, node.start_byte, node.end_byte))
    ):
        return None
    event, control = told(file, call, argument)
    if not event and not control:
        return None
    text = file.slice(body.start_byte, body.end_byte)
    if "\n" in text and any(mark in text for mark in ('"""', "'''", "\\\n")):
        return None  # lines that must stay as they are
    text = text.replace("\n", "\n" + TEXT.indent_unit(file))
    if "\n" in text and body.type not in ("call", "parenthesized_expression", "tuple", "list"):
        text = f"({text})"
    called = body.child_by_field_name("function").text if body.type == "call" else b""
    own = file.scope.symbols.get(called.decode(file.encoding)) if called in SILENT else None
    nothing = called in SILENT and (own is None or not own.kinds)
    made = Inline(node.start_byte, node.end_byte, body.start_byte, body.end_byte)
    made.params, made.event, made.control, made.whole = [(p.text.decode(), "") for p in params], event, control, True
    made.says = text if nothing else f"return {text}"
    if "\n" not in text and body.type in ("tuple", "list") and unasked(file, call, argument):
        made.rows = [(c.start_byte, c.end_byte) for c in body.named_children if c.type == "call"]
        made.rows = made.rows if len(made.rows) == body.named_child_count else []
    return made


def unasked(file: SourceFile, call: Any, argument: Any) -> bool:
    """Whether what a handler gives is of no interest but for the word "break", as where a window of tkinter calls
    it."""
    callee = call.child_by_field_name("function")
    if argument.type == "keyword_argument":
        first = callee.text.decode().partition(".")[0]
        bound = [x for s in file.imports for x in imported(file, s)]
        modules = [m for n, m, _ in bound if n == first or (n == "*" and callee.type == "identifier")]
        return any(m.split(".")[0] == "tkinter" for m in modules)
    first = next((c for c in call.child_by_field_name("arguments").named_children if c.type != "comment"), None)
    return callee.text.endswith((b".bind", b".bind_all")) and first is not None and first.text[1:2] == b"<"


def delegates(body: Any) -> bool:
    """Whether a lambda does no more than call one thing with what is there."""
    inside = list(within(body, body.start_byte, body.end_byte))
    return sum(n.type == "call" for n in inside) < 2 and not any(n.type in WORK for n in inside)


def told(file: SourceFile, call: Any, argument: Any) -> tuple[list[str], list[str]]:
    """Words for the event that a call waits for, and for the control that it is about."""
    callee = call.child_by_field_name("function")
    if argument.type == "keyword_argument" and argument.child_by_field_name("name").text.decode() in KEYWORDS:
        return [], said(call) or held(call) or (words(callee.text.decode().rpartition(".")[2]))
    if argument.type == "keyword_argument" or callee.type != "attribute":
        return [], []
    name, owner = callee.child_by_field_name("attribute").text.decode(), callee.child_by_field_name("object")
    if name in TIMERS:
        return TIMERS[name], []
    first = next((c for c in call.child_by_field_name("arguments").named_children if c.type != "comment"), None)
    if name not in LISTENING or first is None or first.type != "string":
        return [], []
    named = owner.child_by_field_name("attribute") if owner.type == "attribute" else owner
    plain = named.type == "identifier" and named.text not in AROUND
    control = words(named.text.decode()) if plain else []
    return [
        w for part in re.findall(r"[A-Za-z]+", file.slice(first.start_byte, first.end_byte)) for w in words(part)
    ], control


def said(call: Any) -> list[str]:
    """The words with which a control is made: its name, or the text on it."""
    given = {
        c.child_by_field_name("name").text.decode(): c.child_by_field_name("value")
        for c in call.child_by_field_name("arguments").named_children
        if c.type == "keyword_argument"
    }
    for key in SAYING:
        if key in given and given[key].type == "string":
            found = [w for part in re.findall(r"[A-Za-z]+", given[key].text.decode()) for w in words(part)]
            if found and len(found) < 4:
                return found
    return []


def held(call: Any) -> list[str]:
    """The words of the variable that holds a control."""
    left = call.parent.child_by_field_name("left") if call.parent.type == "assignment" else None
    return words(left.text.decode()) if left is not None and left.type == "identifier" else []
