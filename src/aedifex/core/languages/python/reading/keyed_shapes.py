"""What Python's dicts with fixed keys look like, and where following them ends."""

from __future__ import annotations

import keyword
from typing import Any

from ....program.lists import span
from ....program.model import SourceFile
from .lists import is_builtin

MIN_KEYS = 2  # keys of a record
PASSING = frozenset({"parenthesized_expression"})
KEEPING = frozenset({"sorted", "list", "reversed", "tuple"})  # give the same records in a new list
LOOKUPS = (b"remove", b"index", b"count")  # find an item by what it holds
CONDITIONS = frozenset({"if_statement", "while_statement", "elif_clause"})
ERRORS = frozenset({"TypeError", "AttributeError", "KeyError", "LookupError"})
LOOKING = frozenset({"len", "any", "all", "bool"})


def literals(node: Any) -> list[Any]:
    """The dicts with plain texts as keys, in source order."""
    found, stack = [], [node]
    while stack:
        at = stack.pop()
        if at.type == "dictionary" and pairs(at) is not None:
            found.append(at)
        stack += reversed(at.named_children)
    return found


def pairs(node: Any) -> list[tuple[str, int, tuple[int, int]]] | None:
    """(key, where it starts, span of its value) of a dict; None if it is no record."""
    found = []
    for child in plain(node):
        if child.type != "pair":
            return None
        key, value = child.child_by_field_name("key"), child.child_by_field_name("value")
        name = text_of(key)
        if name is None:
            return None
        found.append((name, child.start_byte, span(value)))
    keys = [key for key, _, _ in found]
    return found if len(keys) >= MIN_KEYS and len(set(keys)) == len(keys) else None


def plain(node: Any) -> list[Any]:
    """What a node holds, remarks left aside."""
    return [c for c in node.named_children if c.type != "comment"]


def text_of(node: Any) -> str | None:
    """The plain text that a node spells, if that can be a name."""
    if node.type != "string" or len(node.named_children) != 3 or node.named_children[1].type != "string_content":
        return None
    name = node.named_children[1].text.decode("utf-8", "replace")
    plain = node.text[:1] in b"'\"" and name.isidentifier() and not keyword.iskeyword(name) and not name.startswith("_")
    return name if plain else None


class Stop(Exception):
    """A use that records cannot have."""

    def __init__(self, why: str, at: int) -> None:
        self.why, self.at = why, at


def returns(node: Any) -> list[Any]:
    """The return statements of a function itself."""
    found, stack = [], [node.child_by_field_name("body")]
    while stack:
        at = stack.pop()
        if at.type == "return_statement":
            found.append(at)
        elif at.type not in ("function_definition", "lambda", "class_definition"):
            stack += reversed(at.named_children)
    return found


def id_of(node: Any) -> tuple[int, int, str]:
    """What tells a node from all others of its tree."""
    return node.start_byte, node.end_byte, node.type


def taken_from(file: SourceFile, call: Any) -> Any:
    """The list of which a call gives an item (``min(items, key=...)``, ``items.pop()``); None for other calls."""
    callee, args = call.child_by_field_name("function"), call.child_by_field_name("arguments").named_children
    if callee.type == "attribute" and callee.child_by_field_name("attribute").text == b"pop":
        return callee.child_by_field_name("object")
    named = len(args) == 2 and args[1].type == "keyword_argument" and args[1].child_by_field_name("name").text == b"key"
    return (
        args[0]
        if callee.type == "identifier" and callee.text in (b"min", b"max") and named and is_builtin(file, callee)
        else None
    )
