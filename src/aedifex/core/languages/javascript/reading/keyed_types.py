"""The types of TypeScript's records: the class takes the place of the type that is written for them, or has those that
their values tell."""

from __future__ import annotations

from typing import Any

from ....program.keyed import Keyed
from ....program.model import SourceFile, Symbol
from ...braced import blocks as braces
from ..writing.words import typed
from .keyed_shapes import Stop, span
from .lists import PLAIN

DECLARATIONS = {"interface_declaration": "body", "type_alias_declaration": "value"}
VALUES = frozenset(
    {
        "predefined_type",
        "literal_type",
        "array_type",
        "union_type",
        "type_identifier",
        "generic_type",
        "parenthesized_type",
        "function_type",
    }
)


def settle(file: SourceFile, found: Keyed) -> None:
    """Say of followed records which types their keys have, and which type goes. Raises Stop if the types forbid to make
    them objects."""
    if not typed(file):
        return
    root = file.tree.root_node
    held = [a for s in (*found.holders, *found.lists, *found.makers) for a in written(root, s)]
    for a in held:
        if any(
            n.type not in VALUES and n.type not in ("type_arguments", "null", "undefined")
            for n in braces.within(a, *span(a))
            if n.is_named and n.id != a.id
        ):
            raise Stop("has a type that is written out where it is used", a.start_byte)
    spans = [span(a) for a in held]
    named = {
        r.symbol
        for a, b in spans
        for r in file.within(a, b)
        if r.form == "type" and r.symbol is not None and r.symbol.kinds
    }
    if not named:
        found.types = told_by_values(root, found)
    elif len(named) > 1:
        raise Stop("is of more than one type", spans[0][0])
    else:
        found.named = named.pop()
        declared(root, found, found.named)
        for r in found.named.references:
            if not r.writes and not any(a <= r.start < b for a, b in spans):
                raise Stop(f"is of a type, '{r.name}', that says more than what holds one", r.start)


def written(root: Any, s: Symbol) -> list[Any]:
    """What is written of the type of a variable or parameter, or of what a function gives."""
    found = []
    for r in s.bindings:
        node = root.named_descendant_for_byte_range(r.start, r.end).parent
        value = node.child_by_field_name("value")
        given = (
            value.child_by_field_name("return_type")
            if value is not None and value.type in ("arrow_function", "function_expression")
            else None
        )
        found.append(node.child_by_field_name("type") or node.child_by_field_name("return_type") or given)
    return [a for a in found if a is not None]


def declared(root: Any, found: Keyed, s: Symbol) -> None:
    """The type is written once, in this file alone, with just the keys of the records."""
    at = s.bindings[0]
    node = root.named_descendant_for_byte_range(at.start, at.end).parent
    body = node.child_by_field_name(DECLARATIONS[node.type]) if node.type in DECLARATIONS else None
    plain = {"type_identifier", "interface_body", "object_type"}
    if (
        len(s.bindings) > 1
        or body is None
        or node.parent.type != "program"
        or any(c.type not in plain for c in node.named_children)
    ):
        raise Stop(f"is of a type, '{s.name}', whose place a class could not take", at.start)
    members = [c for c in body.named_children if c.type != "comment"]
    for m in members:
        if (
            m.type != "property_signature"
            or any(c.type in ("?", "readonly") for c in m.children)
            or m.child_by_field_name("type") is None
        ):
            raise Stop(f"is of a type, '{s.name}', whose place a class could not take", m.start_byte)
        found.types[m.child_by_field_name("name").text.decode()] = (
            m.child_by_field_name("type").named_children[0].text.decode()
        )
    if set(found.types) != set(found.keys) or len(members) < body.named_child_count:
        raise Stop(f"is of a type, '{s.name}', with other keys or remarks of its own", at.start)
    end = node.end_byte
    after = node.next_sibling
    found.declared = (
        node.start_byte,
        after.end_byte if after is not None and after.type == ";" and after.start_byte == end else end,
    )


def told_by_values(root: Any, found: Keyed) -> dict[str, str]:
    """The types of the keys, where each value tells its own."""
    types: dict[str, str] = {}
    for made in found.made:
        for key, _, (start, end) in made.pairs:
            node = root.named_descendant_for_byte_range(start, end)
            if node.type == "unary_expression" and node.children[0].type in ("-", "+"):
                node = node.named_children[0]
            kind = PLAIN.get(node.type, "")
            if not kind or types.setdefault(key, kind) != kind:
                raise Stop(f"has a key, '{key}', whose type is not told", start)
    return types
