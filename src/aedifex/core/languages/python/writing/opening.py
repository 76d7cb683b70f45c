"""How a long main function is written as main code, and how its ways out are."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ....program.facets.defaults import call_in_place as call_in_place
from ....program.facets.defaults import runs_on as runs_on
from ....program.layout import line_end
from ....program.model import Function, SourceFile, Statement

EXITS = re.compile(r"(sys\.exit|exit|quit|SystemExit|raise SystemExit|os\._exit)\(")
TELLING = (b"BaseException", b"SystemExit")


def taken(file: SourceFile) -> frozenset[str]:
    """Names that mean something else for the file's own variables: none but those that every file has."""
    return frozenset()


def exits(before: str, after: str) -> bool | None:
    """Whether what stands around the call ends the program with what the function gives; None if it is something
    else."""
    if not before.strip() and not after.strip():
        return False
    return True if EXITS.fullmatch(before) and after == ")" else None


def sets(name: str, value: str) -> str:
    return f"{name} = {value}"


def span(statement: Statement) -> tuple[int, int]:
    """The value that a return gives; nothing where it stands alone."""
    given = [c for c in statement.node.named_children if c.type != "comment"]
    return (given[0].start_byte, given[0].end_byte) if given else (statement.end, statement.end)


def value(file: SourceFile, statement: Statement) -> str:
    given = [c for c in statement.node.named_children if c.type != "comment"]
    text = file.slice(*span(statement))
    return f"({text})" if given and given[0].type == "expression_list" else text


def nothing(file: SourceFile, statement: Statement) -> str:
    """What stands for a statement that does nothing; "" where its block needs none."""
    return "pass" if len([c for c in statement.node.parent.named_children if c.type != "comment"]) == 1 else ""


def leave(loop: Statement) -> str:
    return "break"


def end(file: SourceFile) -> str:
    """How main code ends the program before its last line."""
    found = file.scope.symbols.get("sys")
    early = (
        found is not None
        and found.kinds == {"import"}
        and any(c.text == b"sys" for s in file.imports for c in s.node.named_children)
    )
    return "sys.exit()" if early else "raise SystemExit"


def notices(file: SourceFile, s: Statement) -> bool:
    """Whether a statement around it might treat the end of the program otherwise than the end of a function."""
    if s.kind == "with":
        return not all(opens(file, item) for item in items(s.node))
    if s.kind != "try":
        return False
    handlers = [c for c in s.node.named_children if c.type in ("except_clause", "except_group_clause")]
    return any(
        c.named_children[0].type == "block" or any(word in c.named_children[0].text for word in TELLING)
        for c in handlers
    )


def items(node: Any) -> list[Any]:
    clause = next((c for c in node.named_children if c.type == "with_clause"), None)
    return [c for c in clause.named_children if c.type == "with_item"] if clause is not None else []


def opens(file: SourceFile, item: Any) -> bool:
    return bool(item.text.startswith(b"open("))


def inside(file: SourceFile, f: Function, body: Sequence[Statement]) -> tuple[int, int]:
    """The lines between the head and the end, remarks included."""
    definition = body[0].node.parent.parent
    colon = next(c for c in reversed(definition.children) if c.type == ":")
    start = line_end(file, colon.end_byte)
    while not file.text[start : line_end(file, start)].strip() and start < body[0].start:
        start = line_end(file, start)
    return start, line_end(file, f.end - 1)
