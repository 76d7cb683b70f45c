"""Nodes of a stretch, for every language; blocks, and what is tied to its function, in languages with braces."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Sequence
from itertools import takewhile
from typing import Any

from ...program.edits import Range
from ...program.layout import blank, lead_of, line_end
from ...program.lists import WholeLoop
from ...program.model import Arm, Block, Function, SourceFile, Statement, Symbol

FIELDS = (("consequence", "branch"), ("alternative", "otherwise"))
COMMENTS = frozenset(["comment", "line_comment", "block_comment"])
CASES = frozenset(["switch_case", "switch_default", "switch_block_statement_group", "switch_rule"])
BLOCKS = frozenset(["block", "statement_block"])
Told = Callable[[SourceFile, Any], list[Statement]]


def told_blocks(file: SourceFile, s: Statement, inside: Told, single: Told) -> list[Block]:
    """The blocks directly inside a statement. ``inside``: the statements of a block's node; ``single``: of a lone
    one."""
    node = s.node
    if node is not None and node.type in BLOCKS:  # braces by themselves
        return [Block("body", inside(file, node), node.start_byte, node.end_byte)]
    if node is None or s.kind in ("assign", "expression", "augment", "function", "class", "import", "declare"):
        return []

    def block(role: str, at: Any) -> Block:
        if at.type == "else_clause":
            at = at.named_children[-1]
        found = inside(file, at) if at.type in BLOCKS or at.type in CASES else single(file, at)
        return Block(role, found, at.start_byte, at.end_byte)

    if s.kind == "if":
        return [block(role, at) for name, role in FIELDS if (at := node.child_by_field_name(name)) is not None]
    if s.kind == "match":
        return [block("case", c) for c in node.child_by_field_name("body").named_children if c.type in CASES]
    found = [block("body", at)] if (at := node.child_by_field_name("body")) is not None else []
    if s.kind == "try":
        for child in node.named_children:
            if child.type == "catch_clause":
                found.append(block("handler", child.child_by_field_name("body")))
            elif child.type == "finally_clause":
                found.append(block("finally", child.named_children[-1]))
    return found


def none_such(file: SourceFile, where: Any) -> None:
    """What a language answers that has no function of some kind, wherever it is asked for one."""


def lone(file: SourceFile, block: Block) -> bool:
    """Whether a statement stands for a block, without braces."""
    return block.role != "case" and not file.text.startswith(b"{", block.start)


def arms(file: SourceFile, s: Statement, inside: Told) -> list[Arm]:
    """The conditions of a chain in their order, where each has a block; none for any other statement. ``inside``: as
    above."""
    found: list[Arm] = []
    node = s.node if s.kind == "if" and s.node is not None and s.node.type == "if_statement" else None
    before = 0  # where the block in front ends
    while node is not None:
        test, body, other = (node.child_by_field_name(n) for n in ("condition", "consequence", "alternative"))
        if other is not None and other.type == "else_clause":
            other = other.named_children[-1]
        if "block" not in body.type or (
            other is not None and "block" not in other.type and other.type != "if_statement"
        ):
            return []
        start, end = (node.start_byte, other.start_byte) if other is not None else (before, node.end_byte)
        keeps = bool(found) or (other is not None and other.type == "if_statement")
        found.append(
            Arm((test.start_byte + 1, test.end_byte - 1), inside(file, body), [(start, end, "")] if keeps else [])
        )
        before = body.end_byte
        node = other if other is not None and other.type == "if_statement" else None
    return found


def leave_first(test: str, lead: str, unit: str, word: str) -> str:
    """The statement that leaves a loop under a condition."""
    return f"if ({test}) {{\n{lead}{unit}{word};\n{lead}}}\n{lead}"


def within(node: Any, start: int, end: int, functions: frozenset[str] = frozenset()) -> Iterator[Any]:
    """The nodes that stand wholly in a stretch, without what is inside the functions of some kinds there."""
    if node.end_byte <= start or node.start_byte >= end:
        return
    if start <= node.start_byte and node.end_byte <= end:
        yield node
        if node.type in functions:
            return
    for child in node.children:
        yield from within(child, start, end, functions)


def labelled(file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
    """A jump to a label, which may lead anywhere."""
    for node in within(file.tree.root_node.descendant_for_byte_range(start, end), start, end):
        if node.type in ("break_statement", "continue_statement") and node.named_child_count:
            return f"'{node.children[0].type}' jumps to a label", int(node.start_byte)
    return None


# what stands in brackets that belong to the statement
HEADS = frozenset([("if_statement", "condition"), ("while_statement", "condition"), ("do_statement",
    "condition"), ("switch_statement", "value"), ("switch_expression", "condition"), ("with_statement",
    "object"), ("synchronized_statement", "")])  # fmt: skip


def whole(file: SourceFile, start: int, end: int, kinds: frozenset[str], targets: frozenset[tuple[str, str]]) -> bool:
    """Whether a stretch is one expression of some kinds that is not what something is assigned to.

    ``targets``: (kind of the node around it, field) of places that take no value.
    """
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    if (
        node is None
        or (node.start_byte, node.end_byte) != (start, end)
        or node.type not in kinds
        or node.parent is None
    ):
        return False
    return not any(
        node.parent.type == kind and (not name or node.parent.child_by_field_name(name) == node)
        for kind, name in targets | HEADS
    )


def either(
    lead: str,
    unit: str,
    number: str,
    wanted: str,
    first: Sequence[str],
    other: Sequence[str],
    equal: str = "==",
    unlike: str = "!=",
) -> str:
    """Lines for one number, and others for the rest; either may be none."""

    def block(lines: Sequence[str]) -> str:
        return "".join(f"{lead}{unit}{line}\n" if line.strip() else "\n" for line in lines)

    if not first:
        return f"{lead}if ({number} {unlike} {wanted}) {{\n{block(other)}{lead}}}\n"
    rest = f" else {{\n{block(other)}{lead}}}" if other else ""
    return f"{lead}if ({number} {equal} {wanted}) {{\n{block(first)}{lead}}}{rest}\n"


def whole_loop(
    file: SourceFile,
    start: int,
    end: int,
    bounds: set[str],
    fields: tuple[str, str, str],
    declarations: tuple[str, ...],
    blocks: str,
) -> WholeLoop | None:
    """A loop that counts with ``for`` and ``++``. ``fields``: what the grammar calls its parts; ``declarations``,
    ``blocks``: kinds of nodes."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    init, test, step, body = (node.child_by_field_name(n) for n in (*fields, "body"))
    if node.type != "for_statement" or init is None or test is None or step is None or init.type not in declarations:
        return None
    parts = [c for c in init.named_children if c.type == "variable_declarator"]
    value = parts[0].child_by_field_name("value") if len(parts) == 1 else None
    name = parts[0].child_by_field_name("name").text.decode() if len(parts) == 1 else ""
    words = ["".join(file.slice(n.start_byte, n.end_byte).split()).rstrip(";") for n in (test, step)]
    up = words[1] in (f"{name}++", f"++{name}", f"{name}+=1")
    zero = value is not None and value.text == b"0" and not any(c.type.endswith("comment") for c in node.named_children)
    if not zero or not up or not any(words[0] == f"{name}<{b}" for b in bounds):
        return None
    block = body.type == blocks
    return WholeLoop(name, (init.start_byte, step.end_byte), body.start_byte + block, block)


LOOPS = frozenset(["for_statement", "for_in_statement"])  # those that set a variable on each turn


def loop_body(file: SourceFile, offset: int) -> tuple[int, int] | None:
    """The body of the innermost loop over something in whose head or body an offset lies."""
    node = file.tree.root_node.descendant_for_byte_range(offset, offset)
    while node is not None and node.type not in LOOPS:
        node = node.parent
    body = node.child_by_field_name("body") if node is not None else None
    return (body.start_byte, body.end_byte) if body is not None else None


def declared_alone(file: SourceFile, method: Function, symbol: Symbol, kinds: Collection[str]) -> Any:
    """The declaration of a variable, of it alone, right in the body of a method; None if it stands elsewhere."""
    first = min(symbol.bindings, key=lambda r: r.start)
    part = file.tree.root_node.named_descendant_for_byte_range(first.start, first.end).parent
    row = part.parent if part is not None and part.type == "variable_declarator" else None
    if row is None or row.type not in kinds or row.parent.start_byte != method.body_start:
        return None
    return row if sum(c.type == "variable_declarator" for c in row.named_children) == 1 else None


def behind_fields(file: SourceFile, method: Function, fields: Sequence[str], kinds: Collection[str]) -> list[Range]:
    """More fields of the class of a method, behind those that open it. ``fields``: lines; ``kinds``: of a field."""
    if not fields:
        return []
    members = [m for m in method.node.parent.named_children if m.type not in COMMENTS]
    before = list(takewhile(lambda m: m.type in kinds, members))
    at = line_end(file, before[-1].end_byte - 1 if before else method.node.parent.start_byte)
    lead = lead_of(file, method.start)
    lines = "".join(f"{lead}{line.strip()}\n" for text in fields for line in text.splitlines())
    return [(at, at, lines if blank(file, at) else lines + "\n")]


def given_back(file: SourceFile, statement: Statement) -> tuple[int, int] | None:
    """The one expression that a ``return`` gives; None if it gives none, or several."""
    node = statement.node
    inside = [c for c in node.named_children if "comment" not in c.type] if node is not None else []
    if len(inside) != 1 or inside[0].type in ("expression_list", "sequence_expression"):
        return None
    return inside[0].start_byte, inside[0].end_byte


def returns_nothing(file: SourceFile, at: int) -> bool:
    """Whether the ``return`` there gives nothing."""
    return file.text[at + len("return") :].lstrip()[:1] in (b";", b"}")
