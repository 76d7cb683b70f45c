"""What the code of a refusal or a hazard means, with an example before and after, and what can be done."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

from ..design import messages as form
from ..planning import messages as planning
from ..program import messages as languages
from ..program.refusal import Message
from ..rewrites import messages as rewrites
from ..rewrites import mistakes
from . import messages as applying


@dataclass(frozen=True)
class Explanation:
    """``sentence``, ``cure``: as a refusal says them, values in braces; "" for a hazard, whose sentence says what was
    found."""

    code: str
    sentence: str
    cure: str
    means: str
    before: str
    after: str
    do: str


PAGES = (languages, form, rewrites, mistakes, planning, applying)


def messages() -> dict[str, Message]:
    """All that a step can say, by code."""
    found = [m for page in PAGES for m in vars(page).values() if isinstance(m, Message)]
    return {m.code: m for m in found}


@lru_cache(maxsize=1)
def topics() -> list[dict[str, Any]]:
    with Path(__file__).with_name("explanations.toml").open("rb") as handle:
        found: list[dict[str, Any]] = tomllib.load(handle)["topic"]
    return found


def codes() -> list[str]:
    """Every code that can be explained, in order."""
    return sorted(code for topic in topics() for code in topic["codes"])


def explain(code: str) -> Explanation | None:
    """None if there is no such code."""
    topic = next((t for t in topics() if code in t["codes"]), None)
    if topic is None:
        return None
    said = messages().get(code, Message(code, ""))
    means, before, after, do = (topic[key].strip("\n") for key in ("means", "before", "after", "do"))
    return Explanation(code, said.sentence, said.cure, means, before, after, do)
