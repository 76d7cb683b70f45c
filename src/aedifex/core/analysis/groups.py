"""Variables that belong together by their names or by who touches them (A2)."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from ..program.model import Symbol
from .effects import Effects


@dataclass(frozen=True)
class Group:
    """``reason``: stem (a first word in common) or access (touched by exactly the same functions)."""

    reason: str
    word: str
    variables: tuple[str, ...]
    functions: tuple[str, ...]


def first_word(name: str, words: Callable[[str], list[str]]) -> str:
    """The first of several words of a name, without a copy number; "" if there is no telling one."""
    parts = words(name)
    return parts[0].rstrip("0123456789") if len(parts) > 1 and len(parts[0]) > 2 else ""


def groups(variables: list[Symbol], effects: Effects, words: Callable[[str], list[str]]) -> list[Group]:
    """Groups of at least two variables, by stem first, then by shared access; in the order of the variables."""
    touched = [(u.name, effects.direct(u.start, u.end).names) for u in effects.units.values()]
    users = {v: tuple(name for name, names in touched if v in names) for v in variables}
    found: list[Group] = []
    for reason, key in (("stem", lambda v: first_word(v.name, words)), ("access", lambda v: users[v])):
        together: dict[object, list[Symbol]] = {}
        for v in variables:
            if key(v):
                together.setdefault(key(v), []).append(v)
        for value, members in together.items():
            if len(members) > 1 and not any(set(g.variables) == {m.name for m in members} for g in found):
                names = dict.fromkeys(n for m in members for n in users[m])
                word = value if isinstance(value, str) else ""
                found.append(Group(reason, word, tuple(m.name for m in members), tuple(names)))
    return found


def common_stems(symbols: Iterable[Symbol | None], words: Callable[[str], list[str]]) -> set[str]:
    """First words that at least two of the names share."""
    firsts = [first_word(s.name, words) for s in symbols if s is not None]
    return {w for w in firsts if w and firsts.count(w) >= 2}
