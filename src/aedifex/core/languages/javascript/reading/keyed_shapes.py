"""What JavaScript's objects with fixed keys look like, and where following them ends."""

from __future__ import annotations

from typing import Any

from ....program.lists import same, span
from .walk import FUNCTIONS

__all__ = ["NOTHING", "Stop", "found_in", "id_of", "literals", "pairs", "returns", "same", "span"]

MIN_KEYS = 2  # keys of a record
NOTHING = frozenset({"null", "undefined"})
INNER = frozenset(
    [*FUNCTIONS, "function_declaration", "generator_function_declaration", "class_declaration", "method_definition"]
)
RESERVED = frozenset({"constructor", "prototype", "__proto__", "toString", "valueOf"})


class Stop(Exception):
    """A use that records cannot have."""

    def __init__(self, why: str, at: int) -> None:
        self.why, self.at = why, at


def literals(root: Any) -> list[Any]:
    """The objects with plain keys, in source order."""
    found, stack = [], [root]
    while stack:
        at = stack.pop()
        if at.type == "object" and pairs(at) is not None:
            found.append(at)
        stack += reversed(at.named_children)
    return found


def pairs(node: Any) -> list[tuple[str, int, tuple[int, int]]] | None:
    """(key, where it starts, span of its value) of an object; None if it is no record."""
    found = []
    for child in node.named_children:
        if child.type == "comment":
            continue
        if child.type == "shorthand_property_identifier":
            found.append((child.text.decode("utf-8", "replace"), child.start_byte, span(child)))
            continue
        key, value = (child.child_by_field_name(n) for n in ("key", "value")) if child.type == "pair" else (None, None)
        if key is None or key.type != "property_identifier" or value is None or value.type in FUNCTIONS:
            return None
        found.append((key.text.decode("utf-8", "replace"), child.start_byte, span(value)))
    keys = [key for key, _, _ in found]
    plain = len(keys) >= MIN_KEYS and len(set(keys)) == len(keys) and not RESERVED & set(keys)
    return found if plain and all(k.isidentifier() and not k.startswith("_") for k in keys) else None


def returns(body: Any) -> list[Any]:
    """The return statements of a function itself."""
    found, stack = [], [body]
    while stack:
        at = stack.pop()
        if at.type == "return_statement":
            found.append(at)
        elif at.type not in INNER:
            stack += reversed(at.named_children)
    return found


def id_of(node: Any) -> tuple[int, int, str]:
    """What tells a node from all others of its tree."""
    return node.start_byte, node.end_byte, node.type


def found_in(call: Any) -> Any:
    """The array of which a call gives an item (``birds.find(...)``, ``birds.pop()``); None for other calls."""
    callee = call.child_by_field_name("function")
    if callee.type == "member_expression" and callee.child_by_field_name("property").text in (
        b"find",
        b"findLast",
        b"pop",
        b"shift",
        b"at",
    ):
        return callee.child_by_field_name("object")
    return None
