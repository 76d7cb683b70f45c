"""Statements of main code and of bodies, and the arguments of calls, from the syntax tree.

In a class the program's "statements" are its static members in their order; ``main`` is what starts it.
"""

from __future__ import annotations

from typing import Any

from ....program.model import Argument, Call, Reference, SourceFile, Statement
from ... import tree
from ...braced import text as curly
from .walk import TYPES, modifiers

MEMBERS = {
    "field_access": "field",
    "method_invocation": "name",
    "method_reference": "",
}  # nodes that take a member, and the field that holds its name
COMMENTS = ("line_comment", "block_comment")
KINDS = {
    "import_declaration": "import",
    "package_declaration": "docstring",
    "method_declaration": "function",
    "if_statement": "if",
    "for_statement": "for",
    "enhanced_for_statement": "for",
    "while_statement": "while",
    "do_statement": "while",
    "try_statement": "try",
    "try_with_resources_statement": "try",
    "switch_expression": "match",
    "return_statement": "return",
    "throw_statement": "raise",
    "break_statement": "break",
    "continue_statement": "continue",
    **dict.fromkeys(TYPES, "class"),
}
DECLARATIONS = frozenset(["field_declaration", "local_variable_declaration"])


def top(file: SourceFile, root: Any, main: str) -> list[Statement]:
    """The statements of a program: imports, the static members of its main class, and other classes."""
    found: list[Statement] = []
    for child in root.named_children:
        if child.type in COMMENTS:
            continue
        if child.type == "class_declaration" and main and name_of(file, child) == main:
            for member in child.child_by_field_name("body").named_children:
                if member.type not in COMMENTS:
                    found += member_statements(file, member)
        else:
            found += statement(file, child)
    return sorted(found, key=lambda s: s.kind == "guard")  # all first values come before main, wherever it stands


def name_of(file: SourceFile, node: Any) -> str:
    name = node.child_by_field_name("name")
    return file.slice(name.start_byte, name.end_byte)


def member_statements(file: SourceFile, node: Any) -> list[Statement]:
    words = modifiers(node)
    if node.type in ("field_declaration", "method_declaration") and "static" not in words:
        return [Statement("pass", node.start_byte, node.end_byte, node=node)]
    if node.type in ("constructor_declaration", "block"):
        return [Statement("pass", node.start_byte, node.end_byte, node=node)]
    if node.type == "method_declaration" and name_of(file, node) == "main":
        return [Statement("guard", node.start_byte, node.end_byte, node=node)]
    return statement(file, node)


def statements(file: SourceFile, node: Any) -> list[Statement]:
    """The statements directly in a block, in source order."""
    return [s for c in node.named_children if c.type not in COMMENTS for s in statement(file, c)]


def statement(file: SourceFile, node: Any) -> list[Statement]:
    made = Statement(KINDS.get(node.type, "other"), node.start_byte, node.end_byte, node=node)
    if node.type in DECLARATIONS:
        return declared(file, node, made)
    if node.type == "expression_statement":
        expression(file, node, made)
    elif node.type == ";":
        made.kind = "pass"
    return [made]


def declared(file: SourceFile, node: Any, made: Statement) -> list[Statement]:
    parts = [c for c in node.named_children if c.type == "variable_declarator"]
    kind = node.child_by_field_name("type")
    if len(parts) == 1:
        fill(file, made, parts[0], kind)
        return [made]
    found = []
    for part in parts:
        one = Statement("assign", part.start_byte, part.end_byte, node=node, group=(node.start_byte, node.end_byte))
        fill(file, one, part, kind)
        found.append(one)
    return found


def fill(file: SourceFile, made: Statement, part: Any, kind: Any) -> None:
    name, value = part.child_by_field_name("name"), part.child_by_field_name("value")
    dimensions = part.child_by_field_name("dimensions")
    if dimensions is not None:
        made.brackets = "".join(file.slice(dimensions.start_byte, dimensions.end_byte).split())
    made.kind = "assign"
    made.target = reference(file, name)
    made.value = (value.start_byte, value.end_byte) if value is not None else (part.end_byte, part.end_byte)
    made.annotation = (kind.start_byte, kind.end_byte)


def reference(file: SourceFile, node: Any) -> Reference | None:
    return next((r for r in file.within(node.start_byte, node.start_byte + 1)), None)


def expression(file: SourceFile, node: Any, made: Statement) -> None:
    inner = node.named_children[0]
    made.kind = "expression"
    if inner.type == "update_expression":
        made.kind = "augment"
    elif inner.type == "assignment_expression":
        left, right = inner.child_by_field_name("left"), inner.child_by_field_name("right")
        made.kind = (
            "assign"
            if file.slice(inner.child_by_field_name("operator").start_byte, right.start_byte).strip() == "="
            else "augment"
        )
        if made.kind == "assign":
            made.value = (right.start_byte, right.end_byte)
            made.target = reference(file, left) if left.type == "identifier" else None


def blocks(node: Any) -> list[Any]:
    """The blocks, or lone statements, directly inside a compound statement."""
    found: list[Any] = []
    if node.type in ("block", "constructor_body"):
        return [node]
    for child in node.named_children:
        if child.type in ("block", "switch_block_statement_group"):
            found.append(child)
        elif child.type in ("catch_clause", "finally_clause", "switch_block", "switch_rule", "labeled_statement"):
            found.extend(blocks(child))
        elif child.type.endswith("_statement") and node.type.endswith("_statement"):
            found.append(child)
    return found


def inner_statements(file: SourceFile, node: Any) -> list[Statement]:
    if node.type in ("method_declaration", "constructor_declaration"):
        body = node.child_by_field_name("body")
        return statements(file, body) if body is not None else []
    found: list[Statement] = []
    for block in blocks(node):
        found += (
            statements(file, block)
            if block.type in ("block", "switch_block_statement_group")
            else statement(file, block)
        )
    return [s for s in found if s.node.type != "switch_label"]


def arguments(file: SourceFile, call: Call) -> list[Argument]:
    return [
        Argument("", c.start_byte, c.end_byte, c.start_byte) for c in call.node.named_children if c.type not in COMMENTS
    ]


def count(node: Any) -> int:
    """How many statements stand in a statement, itself and nested ones included."""
    if node.type == "method_declaration":
        body = node.child_by_field_name("body")
        return sum(count(c) for c in body.named_children if c.type not in COMMENTS) if body is not None else 0
    total = 1
    for block in blocks(node):
        inner = block.named_children if block.type in ("block", "switch_block_statement_group") else [block]
        total += sum(count(c) for c in inner if c.type not in (*COMMENTS, "switch_label"))
    return total


def depth(node: Any) -> int:
    """How deep blocks are nested inside a statement (0 for a plain one); a definition is no level, what it holds
    counts."""
    if node.type in ("class_declaration", "class_body"):
        return max((depth(c) for c in node.named_children), default=0)
    within = blocks(node)
    inner = [depth(c) for b in within for c in b.named_children if c.type.endswith(("_statement", "_declaration"))]
    return max(inner, default=0) + (1 if within and not node.type.endswith("_declaration") else 0)


def tokens(file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
    return curly.tokens(file, start, end, edits, COMMENTS)


def member_owner(file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
    return tree.member_owner(file, start, end, MEMBERS, "object_creation_expression")
