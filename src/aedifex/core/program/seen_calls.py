"""What languages share of tests made from calls that were seen; all but the mark for those whose calls are noted as
JSON."""

from __future__ import annotations

import json
from typing import Any

MARK = "written by aedifex from recorded runs"


def read_call(text: str) -> dict[str, Any]:
    """One call as the pinned program noted it."""
    found: dict[str, Any] = json.loads(text)
    return found


def written(text: str) -> str:
    """A text as a literal."""
    return json.dumps(text, ensure_ascii=False)


def beside(up: str) -> dict[str, str]:
    """Files that the tests need besides: none."""
    return {}


def ways(bodies: list[Any], block: str, apart: tuple[str, ...], tell: str) -> list[tuple[int, str]]:
    """Words at the start of each block in some bodies that say that it was gone through; ``apart``: what is not looked
    into."""
    found, stack = [], list(bodies)
    while stack:
        node = stack.pop()
        if node.type == block:
            found.append((node.start_byte + 1, f" {tell}({node.start_byte}); "))
        stack += [c for c in node.named_children if c.type not in apart]
    return found
