"""Proposals that really differ: the same program, divided by other ideas of what belongs together."""

from __future__ import annotations

from dataclasses import dataclass

from ..design.origin import Origin
from ..design.tables import Design, WishDesign
from ..program.program import Program
from .drafter import draft
from .ties import members_taken

IDEAS = {
    "use": "what functions set and use together",
    "few": "few classes: what was written twice, and one that runs the rest",
    "plain": "no class around the main code; more of what functions share becomes classes",
    "many": "many classes: only what is set together",
    "names": "variables whose names begin alike",
}


@dataclass
class Rival:
    """A proposal, and the idea that it follows."""

    idea: str
    design: Design


def rivals(program: Program, wishes: list[WishDesign], most: int, entries: list[str] | None = None) -> list[Rival]:
    """Up to ``most`` designs of which no two have the same classes; the one that ``draft`` gives comes first."""
    found: list[Rival] = []
    seen: list[set[frozenset[Origin]]] = []
    for idea in IDEAS:
        design = draft(program, entries, wishes, idea)
        classes = {members_taken(c) for c in design.classes}
        if len(found) < most and classes not in seen and (classes or not found):
            found.append(Rival(idea, design))
            seen.append(classes)
    return found
