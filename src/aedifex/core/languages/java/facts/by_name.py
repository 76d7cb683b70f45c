"""What tells which methods are running, or in which class."""

from __future__ import annotations

from ....program.model import SourceFile
from ....program.tell import Means, Tell
from .pure import apis


def tells(file: SourceFile) -> list[Tell]:
    """What of a program tells how its classes or functions are called."""
    facts = apis()["stack"]
    found = []
    for ref in file.references:
        if ref.member in facts["members"] and not ref.writes:
            found.append(Tell(Means.STACK, ref.start, f"'{ref.member}' tells which methods are running"))
        elif ref.name in facts["classes"]:
            found.append(Tell(Means.STACK, ref.start, f"'{ref.name}' tells which methods are running"))
    return found


def copies(file: SourceFile) -> list[tuple[str, int]]:
    """Functions are neither copied nor held weakly."""
    return []
