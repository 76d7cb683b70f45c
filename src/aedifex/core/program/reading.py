"""What every reader does before and around its walk: bytes that are no source, syntax that is broken, nesting that is
deep."""

from __future__ import annotations

import contextlib
import sys
from collections.abc import Iterator
from typing import Any

from .errors import AedifexError
from .model import Problem

DEEP = 40_000  # frames: a walk takes a few for each level of nesting


def refuse_null(path: str, text: bytes, what: str = "source text") -> None:
    """Raise AedifexError for a text with a null byte, which is no ``what``."""
    if b"\0" in text:
        line = text.count(b"\n", 0, text.index(b"\0")) + 1
        raise AedifexError(f"{path}:{line}: holds a null byte, so it is not {what}; name a script.")


def refuse_returns(path: str, text: bytes) -> None:
    """Raise AedifexError for lines that end in a carriage return alone."""
    if b"\r" in text.rstrip(b"\r") and b"\n" not in text:
        raise AedifexError(f"{path}:1: its lines end in carriage returns alone; save it with line feeds.")


def refuse_unreadable(path: str, text: bytes) -> None:
    """Raise AedifexError for bytes that are not source text in UTF-8."""
    refuse_null(path, text)
    refuse_returns(path, text)
    try:
        text.decode("utf-8")
    except UnicodeDecodeError as error:
        line = text.count(b"\n", 0, error.start) + 1
        raise AedifexError(f"{path}:{line}: is not UTF-8 text; save it as UTF-8.") from error


@contextlib.contextmanager
def deeply(path: str) -> Iterator[None]:
    """Room for a walk through deep nesting. Raises AedifexError where even that is not enough."""
    limit = sys.getrecursionlimit()
    sys.setrecursionlimit(max(limit, DEEP))
    try:
        yield
    except RecursionError:
        raise AedifexError(f"{path}: is nested too deeply to be read; split its deepest expression.") from None
    finally:
        sys.setrecursionlimit(limit)


def broken(path: str, node: Any, what: str = "this cannot be read") -> list[Problem]:
    """Where the grammar stumbled: the first few places, outermost first."""
    found: list[Problem] = []
    stack = [node]
    while stack and len(found) < 20:
        at = stack.pop()
        if at.is_missing or at.type == "ERROR":
            said = f"'{at.type}' is missing here" if at.is_missing else what
            found.append(Problem(path, at.start_point[0] + 1, said))
        else:
            stack.extend(c for c in reversed(at.children) if c.has_error or c.is_missing)
    return found
