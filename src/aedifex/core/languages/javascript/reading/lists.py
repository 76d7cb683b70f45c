"""How JavaScript's arrays are used: those that are written where they are declared, of which nothing is taken but items
and the length."""

from __future__ import annotations

from typing import Any

from ....program.lists import ListUse, WholeLoop, same, span, uses_of
from ....program.model import Reference, SourceFile, Symbol
from ...braced import blocks as braces
from ..writing.words import typed

OFFERED = frozenset(
    """
    push pop shift unshift splice forEach map filter find findLast
    findIndex some every includes indexOf join reduce slice concat at flatMap
    """.split()
)
PLAIN = {"number": "number", "string": "string", "template_string": "string", "true": "boolean", "false": "boolean"}


def list_uses(file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
    """Every use of a file's array, in source order; None if one of them lets the array itself get about."""
    return uses_of(symbol, lambda ref: told(file, ref))


def object_list_uses(file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
    """As ``list_uses``, of an array of objects."""
    return uses_of(symbol, lambda ref: told(file, ref) or offered(file, ref))


def offered(file: SourceFile, ref: Reference) -> ListUse | None:
    """A call of what an array offers, which does not give the array itself on; a loop through it."""
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent
    if parent.type == "member_expression" and same(parent.child_by_field_name("object"), node):
        called = parent.parent.type == "call_expression" and same(parent.parent.child_by_field_name("function"), parent)
        return (
            ListUse("other", ref, span(node))
            if called and parent.child_by_field_name("property").text.decode() in OFFERED
            else None
        )
    if parent.type == "variable_declarator" and same(parent.child_by_field_name("name"), node):
        value = parent.child_by_field_name("value")
        alone = value is not None and value.type == "array" and parent.parent.parent.type == "program"
        return (
            ListUse("all", ref, span(node)) if alone else None
        )  # with remarks, spread or beside others: how many there are is not told
    through = parent.type == "for_in_statement" and same(parent.child_by_field_name("right"), node)
    return ListUse("each", ref, span(node)) if through else None


def item_type(file: SourceFile, ref: Reference) -> str:
    """The type of an array's items where types are written: as it is declared, else that of all of its values; "" where
    neither tells."""
    if not typed(file):
        return ""
    part = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end).parent
    kind, value = part.child_by_field_name("type"), part.child_by_field_name("value")
    if kind is not None:
        inner = kind.named_children[0]
        text = file.slice(inner.start_byte, inner.end_byte)
        return (
            text[:-2]
            if inner.type == "array_type" and inner.named_children[0].type in ("predefined_type", "type_identifier")
            else ""
        )
    kinds = {made_of(c) for c in value.named_children} if value is not None else set()
    return kinds.pop() if len(kinds) == 1 else ""


def told(file: SourceFile, ref: Reference) -> ListUse | None:
    node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
    parent = node.parent if node.type == "identifier" else None
    if parent is None:
        return None
    if parent.type == "subscript_expression" and same(parent.child_by_field_name("object"), node):
        return item(ref, parent)
    if parent.type == "member_expression" and same(parent.child_by_field_name("object"), node):
        return member(ref, parent)
    if parent.type == "variable_declarator" and same(parent.child_by_field_name("name"), node):
        first = given(ref, parent)
        return None if first is not None and typed(file) and not item_type(file, ref) else first
    return None


def made_of(value: Any) -> str:
    """The type of a value that says it by itself; "" for any other."""
    return (
        value.child_by_field_name("constructor").text.decode()
        if value.type == "new_expression"
        else PLAIN.get(value.type, "")
    )


def item(ref: Reference, node: Any) -> ListUse | None:
    deleted = node.parent.type == "unary_expression" and node.parent.children[0].type == "delete"
    called = node.parent.type == "call_expression" and same(node.parent.child_by_field_name("function"), node)
    optional = any(c.type == "optional_chain" for c in node.children)
    if deleted or called or optional or node.parent.type in ("array_pattern", "object_pattern", "pair_pattern"):
        return None
    return ListUse("item", ref, span(node), (span(node.child_by_field_name("index")),))


def member(ref: Reference, node: Any) -> ListUse | None:
    """Its length, or a call that adds an item or takes one out, as a statement of its own."""
    name, outer = node.child_by_field_name("property").text, node.parent
    if name == b"length":
        target = outer.type in ("assignment_expression", "augmented_assignment_expression") and same(
            outer.child_by_field_name("left"), node
        )
        return None if target or outer.type == "update_expression" else ListUse("length", ref, span(node))
    if (
        outer.type != "call_expression"
        or not same(outer.child_by_field_name("function"), node)
        or outer.parent.type != "expression_statement"
    ):
        return None
    statement, args = outer.parent, outer.child_by_field_name("arguments").named_children
    if any(a.type in ("spread_element", "comment") for a in args):
        return None
    if name == b"push" and len(args) == 1:
        return ListUse("append", ref, span(statement), (span(args[0]),), statement.parent.start_byte)
    if name == b"splice" and len(args) == 2 and args[1].text == b"1":
        return ListUse("delete", ref, span(statement), (span(args[0]),), statement.parent.start_byte)
    return (
        ListUse("delete", ref, span(statement), (), statement.parent.start_byte)
        if name == b"pop" and not args
        else None
    )


def given(ref: Reference, part: Any) -> ListUse | None:
    """The declaration at the top, with its items."""
    whole, value = part.parent, part.child_by_field_name("value")
    several = sum(c.type == "variable_declarator" for c in whole.named_children) > 1
    if value is None or value.type != "array" or several or whole.parent.type != "program":
        return None
    plain = not any(c.type in ("spread_element", "comment") for c in value.named_children) and b",," not in b"".join(
        value.text.split()
    )
    return (
        ListUse("first", ref, span(whole), tuple(span(c) for c in value.named_children), whole.parent.start_byte, True)
        if plain
        else None
    )


def whole_loop(file: SourceFile, start: int, end: int, bounds: set[str]) -> WholeLoop | None:
    return braces.whole_loop(
        file,
        start,
        end,
        bounds,
        ("initializer", "condition", "increment"),
        ("lexical_declaration", "variable_declaration"),
        "statement_block",
    )
