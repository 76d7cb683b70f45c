"""What main code does before its loop, and nobody could tell from outside if the constructor of the app did it."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ..program.language import Language
from ..program.model import SourceFile, Statement
from .concerns import Concerns
from .regions.region import all_blocks

TALKING = frozenset({"console", "input", "network"})
STARTING = frozenset({"mainloop", "serve_forever", "exec", "exec_", "run", "start", "setVisible", "done"})
WITH_LOOPS = ("for", "if", "with", "expression", "assign", "augment", "pass", "docstring")


def set_up_of(file: SourceFile, language: Language, about: Concerns, body: Sequence[Statement]) -> list[Statement]:
    """The leading statements of a body that make and prepare things: none that talks, goes_off, goes round for long or
    hands over to a framework. Plain first values just before what comes next belong to that."""
    found: list[Statement] = []
    for s in body:
        if s.kind not in WITH_LOOPS or goes_off(file, language, s) or talks(about, s) or gives_way(file, s):
            break
        found.append(s)
    after = body[len(found)] if len(found) < len(body) else None
    while found and (needs_nothing(file, language, found[-1]) or (after is not None and alike(file, found[-1], after))):
        found.pop()
    return found if len(found) < len(body) else []


def alike(file: SourceFile, s: Statement, after: Statement) -> bool:
    """Whether two statements call the same, as registrations do that belong together."""
    if s.kind != "expression" or after.kind != "expression":
        return False
    called = [set(re.findall(r"(\w+)\s*\(", file.slice(x.start, x.end))) for x in (s, after)]
    return bool(called[0] & called[1])


def goes_off(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether something in a statement goes_off the code around it, or goes round until something changes."""
    inner = [x for _, b in all_blocks(file, language, [s]) for x in b.statements]
    return any(x.kind in ("return", "raise", "while", "try", "global", "declare", "delete") for x in inner)


def talks(about: Concerns, s: Statement) -> bool:
    return bool(TALKING & set(about.whole(s.start, s.end)))


def gives_way(file: SourceFile, s: Statement) -> bool:
    return any((c.callee.member or c.callee.name) in STARTING for c in file.calls_within(s.start, s.end))


def needs_nothing(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether a statement only gives a variable a value that needs nothing."""
    return s.kind == "assign" and s.value is not None and language.purity(file, s.value) == "literal"
