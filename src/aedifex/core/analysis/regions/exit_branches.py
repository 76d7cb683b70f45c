"""Arms of a chain of conditions that do nothing but end the loop around it: they stay with the loop where the rest is
lifted (C19).

if key == "q":                    if key == "q":
    break                             break
elif key == "s":          →       handle(key)
    signal = not signal
elif ...
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise

from ...program.code_text import code_text, remark_spans
from ...program.language import Language
from ...program.model import Arm, SourceFile, Statement

SUBJECT = r"[A-Za-z_$][\w$]*(?:\.[A-Za-z_$][\w$]*|\[\d+\])*"
LITERAL = r"""(?:"[^"\\\n]*"|'[^'\\\n]*'|-?\d+)"""
TEST = re.compile(rf"({SUBJECT})\s*(?:===?\s*({LITERAL})|\.equals\(\s*({LITERAL})\s*\))")
OWN_WAYS = (
    b"__eq__",
    b"__getattr",
    b"__getitem__",
    b"@property",
    b"property(",
    b" equals(",
    b" get ",
)  # with which asking could do or tell anything


def staying(file: SourceFile, language: Language, statements: Sequence[Statement]) -> list[Arm]:
    """The arms that only leave, where what is to be lifted is one chain and each of them may be asked for first; else
    none."""
    arms = language.regions.arms(file, statements[0]) if len(statements) == 1 else []
    leaving = [i for i, arm in enumerate(arms) if leaves(arm)]
    rest = len(arms) - len(leaving)
    if not leaving or rest < 2 or any(remark_would_go(file, arms[i]) for i in leaving):
        return []
    first = next(i for i, arm in enumerate(arms) if i not in leaving)
    asked = arms[: leaving[-1] + 1]
    if leaving[-1] > first and not exclusive(file, asked):
        return []
    if first > 1:
        return []  # their edits would overlap
    neighbours = any(b - a == 1 for a, b in pairwise(leaving))
    return [] if neighbours else [arms[i] for i in leaving]


def leaves(arm: Arm) -> bool:
    return len(arm.statements) == 1 and arm.statements[0].kind == "break" and bool(arm.without)


def remark_would_go(file: SourceFile, arm: Arm) -> bool:
    """Whether a remark would go with what is taken out."""
    return any(a <= start and end <= b for a, b, _ in arm.without for start, end in remark_spans(file))


def exclusive(file: SourceFile, arms: Sequence[Arm]) -> bool:
    """Whether at most one of the conditions can hold, and asking one tells nothing to the others: each compares one
    thing with a literal of its own."""
    found = [TEST.fullmatch(" ".join(file.slice(*arm.test).split())) for arm in arms]
    told = [(m[1], m[2] or m[3]) for m in found if m is not None]
    own = any(word in code_text(file) for word in OWN_WAYS)
    return (
        len(told) == len(arms)
        and len({s for s, _ in told}) == 1
        and len({literal.strip("\"'") for _, literal in told}) == len(arms)
        and not own
    )
