"""What looks at a function itself, and modules that are loaded where they are used."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.model import SourceFile
from ....program.tell import Means, Tell
from .pure import apis

HOLDERS = frozenset(
    [
        "arguments",
        "array",
        "object",
        "pair",
        "parenthesized_expression",
        "spread_element",
        "shorthand_property_identifier",
    ]
)


def tells(file: SourceFile) -> list[Tell]:
    if "tells" not in file.memo:
        file.memo["tells"] = [*values(file), *stack(file)]
    return list(file.memo["tells"])


def values(file: SourceFile) -> Iterator[Tell]:
    functions = {f.symbol for f in file.functions if f.outer is file.scope and f.symbol is not None}
    for symbol in sorted(functions, key=lambda s: s.name):
        for ref in symbol.references:
            if ref.writes or ref.role == "call" or ref.member:
                continue
            node = file.tree.root_node.descendant_for_byte_range(ref.start, ref.end).parent
            while node is not None and node.type in HOLDERS:
                node = node.parent
            if node is not None and (
                node.type == "template_substitution" or (node.type == "call_expression" and shows(file, node))
            ):
                yield Tell(Means.VALUE, ref.start, f"'{symbol.name}' is written out", (symbol.name,))
                break


def shows(file: SourceFile, call: Any) -> bool:
    """Whether a call writes out, or asks, what it is given."""
    callee = file.slice(call.child_by_field_name("function").start_byte, call.child_by_field_name("function").end_byte)
    return callee in apis()["asks"]["functions"] or callee.partition(".")[0] in apis()["asks"]["modules"]


STACK = re.compile(rb"\.stack\b")
TELLER = re.compile(rb"\w+\.prepareStackTrace\s*=\s*(?:function\s*)?\(\s*\w+\s*,\s*(\w+)\s*\)")


def stack(file: SourceFile) -> Iterator[Tell]:
    facts = apis()["stack"]
    functions = [*facts["functions"], *(facts["noting"] if STACK.search(file.text) else ())]
    for ref in file.references:
        if ref.member == "prepareStackTrace" and looks_no_further(file, ref.start):
            continue
        if (ref.member in facts["members"] and not ref.writes) or f"{ref.name}.{ref.member}" in functions:
            yield Tell(Means.STACK, ref.start, f"'{ref.name}.{ref.member}' tells which functions are running")


def looks_no_further(file: SourceFile, at: int) -> bool:
    """Whether what is told of each error is made of the place alone that it comes from, whatever runs around that."""
    match = TELLER.match(file.text, at)
    if match is None:
        return False
    uses = re.findall(rb"\b" + re.escape(match[1]) + rb"\b(\s*\[\s*0\s*\])?", file.text)
    return len(uses) > 1 and sum(1 for use in uses if not use) == 1


def required_in_place(file: SourceFile) -> list[tuple[str, str, str, int]]:
    """("", module, "*" or the member that is taken, offset) of modules that are loaded in the middle of an
    expression."""
    found = []
    spans = [(s.start, s.end) for s in file.imports]
    if b"require" not in file.text and b"import" not in file.text:
        return []
    queue = [file.tree.root_node]
    while queue:
        node = queue.pop()
        queue += node.named_children
        if node.type != "call_expression" or any(a <= node.start_byte < b for a, b in spans):
            continue
        callee, args = node.child_by_field_name("function"), node.child_by_field_name("arguments")
        text = args.named_children[0] if args is not None and args.named_child_count == 1 else None
        if callee.text not in (b"require", b"import") or text is None or text.type != "string":
            continue
        module = file.slice(text.start_byte + 1, text.end_byte - 1)
        if module.startswith("."):
            around = node.parent
            member = (
                around.child_by_field_name("property")
                if around is not None and around.type == "member_expression"
                else None
            )
            found.append(
                (
                    "",
                    module,
                    file.slice(member.start_byte, member.end_byte) if member is not None else "*",
                    node.start_byte,
                )
            )
    return found
