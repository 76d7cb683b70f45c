"""Statements of main code and of bodies, and the arguments of calls, from the syntax tree."""

from __future__ import annotations

from typing import Any

from ....program.model import Argument, Call, Function, SourceFile, Statement
from ... import tree
from ..facts.pure import PURITY

MEMBERS = {"attribute": "attribute"}  # nodes that take a member, and the field that holds its name
KINDS = {
    "import_statement": "import",
    "import_from_statement": "import",
    "future_import_statement": "import",
    "function_definition": "function",
    "class_definition": "class",
    "global_statement": "declare",
    "nonlocal_statement": "declare",
    "delete_statement": "delete",
    "pass_statement": "pass",
    "if_statement": "if",
    "for_statement": "for",
    "while_statement": "while",
    "with_statement": "with",
    "try_statement": "try",
    "match_statement": "match",
    "return_statement": "return",
    "raise_statement": "raise",
    "assert_statement": "assert",
    "break_statement": "break",
    "continue_statement": "continue",
}
FLAT = frozenset(
    {"comment", "expression_statement", "return_statement"}
)  # most of what stands in a block, and holds none
BLOCKS = frozenset({"if", "for", "while", "with", "try", "match", "guard"})


def definition(file: SourceFile, function: Function) -> Any:
    """The node that defines a function, without its decorators."""
    return file.tree.root_node.named_descendant_for_byte_range(function.name_start, function.name_end).parent


def body_of(file: SourceFile, function: Function) -> list[Statement]:
    """The statements of a function."""
    node = PURITY.node_at(file, (function.body_start, function.end))
    while node.type not in ("block", "module", "function_definition"):
        node = node.parent
    if node.type == "function_definition":
        node = node.child_by_field_name("body")
    return statements(file, node)


def statements(file: SourceFile, node: Any) -> list[Statement]:
    """The statements directly in a module or block, in source order."""
    found: list[Statement] = []
    for child in node.named_children:
        if child.type != "comment":
            found.append(statement(file, child, first=not found))
    return found


def statement(file: SourceFile, node: Any, first: bool = False) -> Statement:
    kind = KINDS.get(node.type, "other")
    made = Statement(kind, node.start_byte, node.end_byte, node=node)
    if node.type == "decorated_definition":
        made.kind = KINDS[node.child_by_field_name("definition").type]
    elif node.type == "expression_statement":
        expression(file, node, made, first)
    elif kind == "if" and is_guard(node):
        made.kind = "guard"
    return made


def expression(file: SourceFile, node: Any, made: Statement, first: bool) -> None:
    inner = node.named_children[0]
    made.kind = "expression"
    if node.named_child_count > 1:
        return
    if inner.type in ("string", "concatenated_string") and first:
        made.kind = "docstring"
    elif inner.type == "augmented_assignment":
        made.kind = "augment"
    elif inner.type == "assignment":
        left, right, kind = (inner.child_by_field_name(f) for f in ("left", "right", "type"))
        made.kind = "assign" if right is not None else "annotate"
        if kind is not None:
            made.annotation = (kind.start_byte, kind.end_byte)
        if left.type == "identifier":
            made.target = next((r for r in file.within(left.start_byte, left.start_byte + 1)), None)
        if right is not None:
            made.value = (right.start_byte, right.end_byte)
            if right.type == "assignment":
                made.target = None


def is_guard(node: Any) -> bool:
    condition = node.child_by_field_name("condition")
    while condition.type == "parenthesized_expression":
        condition = condition.named_children[0]
    text = condition.text.replace(b"'", b'"').replace(b" ", b"")
    return text in (b'__name__=="__main__"', b'"__main__"==__name__')


def blocks(node: Any) -> list[Any]:
    """The blocks directly inside a compound statement."""
    if node.type == "expression_statement":  # most are
        return []
    found: list[Any] = []
    for child in node.named_children:
        if child.type == "block":
            found.append(child)
        elif child.type.endswith("_clause") or child.type == "definition":
            found.extend(blocks(child))
    return found


def arguments(file: SourceFile, call: Call) -> list[Argument]:
    """The arguments of a call in order; a lone generator expression counts as one."""
    found: list[Argument] = []
    if call.node.type != "argument_list":
        return [Argument("", call.node.start_byte, call.node.end_byte, call.node.start_byte)]
    for child in call.node.named_children:
        keyword, value = "", child
        if child.type == "comment":
            continue
        if child.type == "keyword_argument":
            keyword = child.named_children[0].text.decode()
            value = child.named_children[-1]
        elif child.type == "list_splat":
            keyword = "*"
        elif child.type == "dictionary_splat":
            keyword = "**"
        found.append(Argument(keyword, child.start_byte, child.end_byte, value.start_byte))
    return found


def count(node: Any) -> int:
    """How many statements stand in a statement, itself and nested ones included."""
    total = 1
    for block in blocks(node):
        for child in block.named_children:
            kind = child.type
            total += count(child) if kind not in FLAT else kind != "comment"
    return total


def depth(node: Any) -> int:
    """How deep blocks are nested inside a statement (0 for a plain one); a definition is no level, what it holds
    counts."""
    if node.type == "decorated_definition":
        return depth(node.child_by_field_name("definition"))
    within = blocks(node)
    inner = [depth(c) for b in within for c in b.named_children if c.type not in FLAT]
    return max(inner, default=0) + (1 if within and not node.type.endswith("_definition") else 0)


def alone(file: SourceFile, start: int, end: int) -> bool:
    """Whether the statement there is all that its block holds (the top of a file is no block)."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    while node.parent is not None and node.parent.type != "block":
        node = node.parent
    return node.parent is not None and sum(1 for c in node.parent.named_children if c.type != "comment") == 1


def tokens(file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
    """The words of a stretch of code without comments and layout, with some ranges replaced."""
    replaced = {(a, b): text for a, b, text in edits}
    found: list[str] = []
    stack = [file.tree.root_node.descendant_for_byte_range(start, end)]
    while stack:
        node = stack.pop()
        place = (node.start_byte, node.end_byte)
        if node.end_byte <= start or node.start_byte >= end or node.type == "comment":
            continue
        if place in replaced:
            found.append(replaced[place])
        elif node.child_count == 0:
            if node.start_byte >= start:
                found.append(file.slice(*place))
        else:
            if node.type == "block":
                found.append("{")
            stack.extend(reversed(node.children))
    return found


def unpacked(file: SourceFile, statement: Statement) -> list[tuple[tuple[int, int], tuple[int, int]]]:
    """(name, value) of each variable where several are set on one line, ``a, b = 1, 2``; none if it is written in
    another way."""
    node = statement.node.named_children[0] if statement.kind == "assign" and statement.target is None else None
    if node is None or node.type != "assignment" or file.line(statement.start) != file.line(statement.end):
        return []
    left, right = node.child_by_field_name("left"), node.child_by_field_name("right")
    if (
        right is None
        or left.type not in ("pattern_list", "tuple_pattern")
        or right.type not in ("expression_list", "tuple")
    ):
        return []
    names, values = left.named_children, right.named_children
    plain = all(n.type == "identifier" for n in names) and not any(
        v.type in ("list_splat", "comment", "yield") for v in values
    )
    if len(names) != len(values) or not plain or len({n.text for n in names}) < len(names):
        return []
    return [((n.start_byte, n.end_byte), (v.start_byte, v.end_byte)) for n, v in zip(names, values, strict=True)]


def member_owner(file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
    """As ``tree.member_owner`` says."""
    return tree.member_owner(file, start, end, MEMBERS, "")
