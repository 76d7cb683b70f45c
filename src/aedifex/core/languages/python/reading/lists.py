"""How Python's lists are used."""

from __future__ import annotations

import re
from typing import Any

from ....program.lists import ListUse, Span, WholeLoop, same, span, uses_of
from ....program.model import Reference, SourceFile, Symbol
from ...braced.blocks import within

EACH = frozenset(
    {"sum", "max", "min", "any", "all", "sorted", "list", "tuple", "set", "zip", "enumerate", "map", "filter"}
)
ALL = frozenset({"print", "str", "repr", "reversed"})
OFFERED = frozenset(
    [b"append", b"extend", b"insert", b"remove", b"pop", b"clear", b"sort", b"reverse", b"index", b"count", b"copy"]
)
MAX_REPEATED_ITEMS = 64  # items written as one times a number


def list_uses(file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
    """Every use of a module's list, in source order; None if one of them lets the list itself get about."""
    return uses_of(symbol, lambda ref: told(file, ref))


def object_list_uses(file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
    """As ``list_uses``, of a list of objects."""
    return uses_of(symbol, lambda ref: told(file, ref) or offered(file, ref))


def offered(file: SourceFile, ref: Reference) -> ListUse | None:
    """A call of what a list offers; none gives the list itself on."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent
    called = (
        parent.type == "attribute" and same(parent.child_by_field_name("object"), node) and parent.parent.type == "call"
    )
    whole = called and same(parent.parent.child_by_field_name("function"), parent)
    return (
        ListUse("other", ref, span(node)) if whole and parent.child_by_field_name("attribute").text in OFFERED else None
    )


def told(file: SourceFile, ref: Reference) -> ListUse | None:
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent if node.type == "identifier" else None
    if parent is None:
        return None
    if parent.type == "subscript":
        return item(ref, node, parent)
    if parent.type == "assignment":
        return given(ref, node, parent)
    if parent.type == "attribute":
        return called(file, ref, node, parent)
    if parent.type in ("for_statement", "for_in_clause") and same(parent.child_by_field_name("right"), node):
        return ListUse("each", ref, span(node))
    if (
        parent.type == "comparison_operator"
        and len(parent.named_children) == 2
        and same(parent.named_children[1], node)
    ):
        words = {c.type for c in parent.children}
        return ListUse("all", ref, span(node)) if words & {"in", "not in"} else None
    if parent.type == "argument_list" and parent.parent.type == "call":
        return argument(file, ref, node, parent.parent)
    return None


def item(ref: Reference, node: Any, parent: Any) -> ListUse | None:
    indexes = parent.children_by_field_name("subscript")
    if (
        not same(parent.child_by_field_name("value"), node)
        or len(indexes) != 1
        or indexes[0].type in ("slice", "list_splat")
    ):
        return None
    if parent.parent.type == "delete_statement":
        return ListUse("delete", ref, span(parent.parent), (span(indexes[0]),), parent.parent.parent.start_byte)
    return ListUse("item", ref, span(parent), (span(indexes[0]),))


def given(ref: Reference, node: Any, parent: Any) -> ListUse | None:
    """An assignment of the whole list: its first items, or none."""
    value, statement = parent.child_by_field_name("right"), parent.parent
    if not same(parent.child_by_field_name("left"), node) or value is None or statement.type != "expression_statement":
        return None
    if statement.parent.type == "module":
        items = listed(value)
        return (
            ListUse("first", ref, span(statement), tuple(items), statement.parent.start_byte, True)
            if items is not None
            else None
        )
    if value.type == "list" and not value.named_children:
        return ListUse("empty", ref, span(statement), (), statement.parent.start_byte, True)
    return None


def listed(value: Any) -> list[Span] | None:
    """The items of a list as written, or of one item times a number."""
    if value.type == "list":
        plain = not any(c.type in ("list_splat", "comment") for c in value.named_children)
        return [span(c) for c in value.named_children] if plain else None
    if value.type == "binary_operator" and value.children[1].type == "*":
        left, right = value.named_children
        if left.type == "list" and len(left.named_children) == 1 and right.type == "integer" and right.text.isdigit():
            return [span(left.named_children[0])] * int(right.text) if int(right.text) <= MAX_REPEATED_ITEMS else None
    return None


def called(file: SourceFile, ref: Reference, node: Any, parent: Any) -> ListUse | None:
    """A method of the list."""
    call = parent.parent
    if (
        not same(parent.child_by_field_name("object"), node)
        or call.type != "call"
        or not same(call.child_by_field_name("function"), parent)
    ):
        return None
    args = call.child_by_field_name("arguments").named_children
    if any(a.type in ("keyword_argument", "list_splat", "dictionary_splat", "comment") for a in args):
        return None
    name, statement = parent.child_by_field_name("attribute").text, call.parent
    alone = statement.type == "expression_statement"
    block = statement.parent.start_byte if alone else -1
    if alone and name == b"append" and len(args) == 1:
        return ListUse("append", ref, span(statement), (span(args[0]),), block)
    if alone and name == b"pop" and len(args) <= 1:
        return ListUse("delete", ref, span(statement), tuple(span(a) for a in args), block)
    if alone and name == b"clear" and not args:
        return ListUse("empty", ref, span(statement), (), block)
    return ListUse("all", ref, span(node)) if name in (b"index", b"count") and len(args) == 1 else None


def argument(file: SourceFile, ref: Reference, node: Any, call: Any) -> ListUse | None:
    """The list as an argument of what keeps nothing of it."""
    callee, args = call.child_by_field_name("function"), call.child_by_field_name("arguments").named_children
    if callee.type == "attribute" and callee.child_by_field_name("object").type == "string":
        return ListUse("each", ref, span(node)) if callee.child_by_field_name("attribute").text == b"join" else None
    if callee.type != "identifier" or not is_builtin(file, callee):
        return None
    name = callee.text.decode("utf-8", "replace")
    if name == "len" and len(args) == 1:
        return ListUse("length", ref, span(call))
    if name in ALL or (name in ("max", "min") and len([a for a in args if a.type != "keyword_argument"]) > 1):
        return ListUse("all", ref, span(node))
    return (
        ListUse("each", ref, span(node))
        if name in EACH and not (name in ("map", "filter") and same(args[0], node))
        else None
    )


def whole_loop(file: SourceFile, start: int, end: int, bounds: set[str]) -> WholeLoop | None:
    """``for i in range(bound):``"""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    if node.type != "for_statement" or node.children[0].type == "async":
        return None
    left, right, body = (node.child_by_field_name(n) for n in ("left", "right", "body"))
    if left.type != "identifier" or right.type != "call" or right.child_by_field_name("function").text != b"range":
        return None
    args = right.child_by_field_name("arguments").named_children
    called = [
        right.child_by_field_name("function"),
        *(n for n in within(right, *span(right)) if n.type == "identifier" and n.text == b"len"),
    ]
    if (
        len(args) != 1
        or "".join(file.slice(*span(args[0])).split()) not in bounds
        or not all(is_builtin(file, n) for n in called)
    ):
        return None
    return WholeLoop(left.text.decode("utf-8", "replace"), (left.start_byte, right.end_byte), body.start_byte)


def is_builtin(file: SourceFile, node: Any) -> bool:
    """Whether a name is the language's own."""
    return any(r.symbol is not None and not r.symbol.kinds for r in file.within(node.start_byte, node.start_byte + 1))


def item_type(file: SourceFile, ref: Reference) -> str:
    """The type of a list's items as its annotation says it; "" where it has none."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end).parent
    kind = node.child_by_field_name("type") if node is not None and node.type == "assignment" else None
    match = (
        re.fullmatch(r"""["']?(?:\w+\.)?[Ll]ist\[(.*)\]["']?""", file.slice(kind.start_byte, kind.end_byte), re.S)
        if kind is not None
        else None
    )
    return match[1].strip() if match is not None else ""
