"""How a long main function is written as main code, and how its ways out are."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.layout import line_end, line_start
from ....program.model import Call, Function, Reference, Role, SourceFile, Statement
from ..facts.pure import apis
from ..reading.imports import kind_of
from .regions import call_in_place as call_in_place_of

GOING_ON = (b"(", b"[", b"`", b"+", b"-", b"/")  # with these a line may go on with the one before
EXITS = re.compile(r"process\.exit\(")


def exits(before: str, after: str) -> bool | None:
    """Whether what stands around the call ends the program with what the function gives; None if it is something
    else."""
    if not before.strip() and after.strip() in ("", ";"):
        return False
    return True if EXITS.fullmatch(before) and after.rstrip(";") == ")" else None


def taken(file: SourceFile) -> frozenset[str]:
    """Names that mean something else for the file's own variables: a page's window has them."""
    return frozenset(apis()["names"]["window"]) if kind_of(file) == "page" else frozenset()


def call_in_place(file: SourceFile, statement: Statement) -> Call:
    """The call of a statement that makes a function and calls it; it is all that the statement does."""
    node = call_in_place_of(statement)
    given = node.child_by_field_name("arguments")
    callee = Reference("", node.start_byte, node.start_byte, Role.CALL, file.scope)
    end = statement.end - file.text.endswith(b";", statement.start, statement.end)
    return Call(callee, statement.start, end, given.start_byte + 1, given.end_byte - 1, given)


def runs_on(file: SourceFile, statement: Statement, body: Sequence[Statement]) -> bool:
    """Whether a line without a mark at its end, in front of a body or at its end, would go on with what follows."""
    before = file.text[: statement.start].rstrip(b" \t")
    opens = before.endswith(b";") and file.text[line_start(file, statement.start) : statement.start].strip() == b";"
    behind = file.text[statement.end :].lstrip()[:1]
    marked = file.text[body[-1].end - 1 : body[-1].end] in (b";", b"}")
    return (opens and file.text[body[0].start : body[0].start + 1] in GOING_ON) or (not marked and behind in GOING_ON)


def sets(name: str, value: str) -> str:
    return f"let {name} = {value};"


def span(statement: Statement) -> tuple[int, int]:
    """The value that a return gives; nothing where it stands alone."""
    given = [c for c in statement.node.named_children if c.type != "comment"]
    return (given[0].start_byte, given[0].end_byte) if given else (statement.end, statement.end)


def value(file: SourceFile, statement: Statement) -> str:
    return file.slice(*span(statement))


def nothing(file: SourceFile, statement: Statement) -> str:
    """What stands for a statement that does nothing; "" where its block needs none."""
    return "" if statement.node.parent.type == "statement_block" else ";"


def leave(loop: Statement) -> str:
    return "break;"


def end(file: SourceFile) -> str:
    """Nothing ends a program early and lets it finish what is under way."""
    return ""


def notices(file: SourceFile, s: Statement) -> bool:
    """Whether a statement around it might treat the end of the program otherwise than the end of a function."""
    return s.kind == "try"


def inside(file: SourceFile, f: Function, body: Sequence[Statement]) -> tuple[int, int]:
    """The lines between the braces, remarks included."""
    block = body[0].node
    while (
        block.type != "statement_block" or block.start_byte < f.params_end - 1 or block.parent.start_byte > f.params_end
    ):
        block = block.parent
    start, last = line_end(file, block.start_byte), line_start(file, block.end_byte - 1)
    while not file.text[start : line_end(file, start)].strip() and start < body[0].start:
        start = line_end(file, start)
    return start, last if last > body[-1].start else line_end(file, body[-1].end)
