"""Statements of main code and of bodies, and the arguments of calls, from the syntax tree."""

from __future__ import annotations

from typing import Any

from ....program.model import Argument, Call, Reference, SourceFile, Statement
from ... import tree
from ...braced import text as curly
from .imports import is_require
from .walk import FUNCTIONS

MEMBERS = {"member_expression": "property"}  # nodes that take a member, and the field that holds its name
KINDS = {
    "import_statement": "import",
    "function_declaration": "function",
    "generator_function_declaration": "function",
    "class_declaration": "class",
    "abstract_class_declaration": "class",
    "interface_declaration": "class",
    "type_alias_declaration": "class",
    "enum_declaration": "class",
    "empty_statement": "pass",
    "if_statement": "if",
    "for_statement": "for",
    "for_in_statement": "for",
    "while_statement": "while",
    "do_statement": "while",
    "try_statement": "try",
    "switch_statement": "match",
    "with_statement": "with",
    "return_statement": "return",
    "throw_statement": "raise",
    "break_statement": "break",
    "continue_statement": "continue",
}
DECLARATIONS = frozenset(["lexical_declaration", "variable_declaration"])
GUARDS = frozenset(["require.main===module", "module===require.main", "require.main==module"])


def statements(file: SourceFile, node: Any) -> list[Statement]:
    """The statements directly in a program or block, in source order; one for each variable of a declaration."""
    found: list[Statement] = []
    for child in node.named_children:
        if child.type not in ("comment", "hash_bang_line", "html_comment"):
            found += statement(file, child, first=all(s.kind == "docstring" for s in found))
    return found


def statement(file: SourceFile, node: Any, first: bool = False) -> list[Statement]:
    inner = node.child_by_field_name("declaration") if node.type == "export_statement" else node
    if inner is None:
        inner = node
    made = Statement(KINDS.get(inner.type, "other"), node.start_byte, node.end_byte, node=inner)
    if inner.type in DECLARATIONS:
        return declared(file, node, inner, made)
    if inner.type == "expression_statement":
        expression(file, inner, made, first)
    elif inner.type == "if_statement" and is_guard(inner):
        made.kind = "guard"
    return [made]


def declared(file: SourceFile, whole: Any, node: Any, made: Statement) -> list[Statement]:
    parts = [c for c in node.named_children if c.type == "variable_declarator"]
    if is_require(node):
        made.kind = "import"
        return [made]
    if len(parts) == 1:
        fill(file, made, parts[0])
        return [made]
    found = []
    for part in parts:
        one = Statement("assign", part.start_byte, part.end_byte, node=node, group=(whole.start_byte, whole.end_byte))
        fill(file, one, part)
        found.append(one)
    return found


def fill(file: SourceFile, made: Statement, part: Any) -> None:
    """A variable, its type and its first value; a variable without one starts as the language has it."""
    name, value, kind = (part.child_by_field_name(f) for f in ("name", "value", "type"))
    made.kind = "assign"
    if value is not None and value.type in FUNCTIONS and name.type == "identifier" and made.group is None:
        made.kind = "function"
        return
    if name.type != "identifier":
        made.kind = "other"
        return
    made.target = reference(file, name)
    made.value = (value.start_byte, value.end_byte) if value is not None else (part.end_byte, part.end_byte)
    if kind is not None:
        inner = kind.named_children[0]
        made.annotation = (inner.start_byte, inner.end_byte)


def reference(file: SourceFile, node: Any) -> Reference | None:
    return next((r for r in file.within(node.start_byte, node.start_byte + 1)), None)


def expression(file: SourceFile, node: Any, made: Statement, first: bool) -> None:
    inner = node.named_children[0]
    made.kind = "expression"
    if inner.type == "string" and first:
        made.kind = "docstring"  # a directive
    elif inner.type in ("augmented_assignment_expression", "update_expression"):
        made.kind = "augment"
    elif inner.type == "assignment_expression":
        left, right = inner.child_by_field_name("left"), inner.child_by_field_name("right")
        made.kind = "assign"
        made.value = (right.start_byte, right.end_byte)
        if left.type == "identifier":
            made.target = reference(file, left)


def is_guard(node: Any) -> bool:
    text = node.child_by_field_name("condition").text.decode("utf-8", "replace")
    return "".join(text.split()).strip("()") in GUARDS


def blocks(node: Any) -> list[Any]:
    """The blocks, or lone statements, directly inside a compound statement."""
    found: list[Any] = []
    if node.type == "statement_block":
        return [node]
    for child in node.named_children:
        if child.type == "statement_block":
            found.append(child)
        elif child.type.endswith("_clause") or child.type in (
            "switch_body",
            "switch_case",
            "switch_default",
            "labeled_statement",
        ):
            found.extend(blocks(child) or [child])
        elif (
            child.type.endswith("_statement")
            and node.type.endswith(("_statement", "_clause"))
            and node.type != "for_statement"
        ):
            found.append(child)
    body = node.child_by_field_name("body") if node.type == "for_statement" else None
    if body is not None and body.type != "statement_block":
        found.append(body)
    return found


def inner_statements(file: SourceFile, node: Any) -> list[Statement]:
    found: list[Statement] = []
    for block in blocks(node):
        if block.type in ("statement_block", "switch_case", "switch_default"):
            found += statements(file, block)
        else:
            found += statement(file, block)
    return [s for s in found if s.node.type.endswith(("_statement", "_declaration"))]


def body_of(file: SourceFile, function: Any) -> list[Statement]:
    body = function.node.child_by_field_name("body") if function.node is not None else None
    if body is None:
        return []
    return (
        statements(file, body)
        if body.type == "statement_block"
        else [Statement("return", body.start_byte, body.end_byte, node=body)]
    )


def arguments(file: SourceFile, call: Call) -> list[Argument]:
    """The arguments of a call in order; a spread one is marked with a star."""
    if call.node.type != "arguments":
        return []
    return [
        Argument("*" if c.type == "spread_element" else "", c.start_byte, c.end_byte, c.start_byte)
        for c in call.node.named_children
        if c.type != "comment"
    ]


def count(node: Any) -> int:
    """How many statements stand in a statement, itself and nested ones included."""
    total = 1
    for block in blocks(node):
        inner = block.named_children if block.type in ("statement_block", "switch_case", "switch_default") else [block]
        total += sum(count(c) for c in inner if c.type.endswith(("_statement", "_declaration")))
    return total


def depth(node: Any) -> int:
    """How deep blocks are nested inside a statement (0 for a plain one); a definition is no level, what it holds
    counts."""
    if node.type == "export_statement" or node.type.startswith(("class_", "abstract_class_")):
        return max((depth(c) for c in node.named_children), default=0)
    within = blocks(node)
    inner = [depth(c) for b in within for c in b.named_children if c.type.endswith(("_statement", "_declaration"))]
    return max(inner, default=0) + (1 if within and not node.type.endswith(("_declaration", "_definition")) else 0)


def tokens(file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
    return curly.tokens(file, start, end, edits, ("comment",))


def member_owner(file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
    return tree.member_owner(file, start, end, MEMBERS, "new_expression")
