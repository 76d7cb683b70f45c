"""The same state: what each variable held in the original, against what the field that replaced it holds."""

from __future__ import annotations

import bisect
import re

from .evidence import State

UNSEEN, UNSET = "?", "-"
END = 1 << 60


def turn(moment: str) -> int:
    """The number in a moment's name; the end comes last."""
    match = re.search(r"(\d+)$", moment)
    return int(match[1]) if match else END


def differing(before: State, after: State) -> list[tuple[str, str, str, str, int]]:
    """(variable, moment, value then, value now, moments that differ) for each that differs, the earliest first.

    Compared is only what can be seen in both runs: a variable that was not set yet in the original, or whose function
    does not run, or whose object is not made yet, says nothing.
    """
    found = []
    for name, old in before.items():
        new = after.get(name)
        if not new or old == new:
            continue
        moments = sorted({(turn(m), m) for m, _ in (*old, *new)})
        left, right = ValueTimeline(old), ValueTimeline(new)
        differing_at = []
        for number, moment in moments:
            a, b = left.at(number), right.at(number)
            if UNSEEN not in (a, b) and a != UNSET and a != b:
                differing_at.append((number, moment, a, b))
        if differing_at:
            number, moment, a, b = differing_at[0]
            value = "<not set>" if b == UNSET else b
            found.append((number, (name, moment, a, value, len(differing_at))))
    return [row for _, row in sorted(found)]


class ValueTimeline:
    """What a variable holds from each change on."""

    def __init__(self, rows: list[list[str]]) -> None:
        self.turns = [turn(m) for m, _ in rows]
        self.values = [v for _, v in rows]

    def at(self, number: int) -> str:
        i = bisect.bisect_right(self.turns, number)
        return self.values[i - 1] if i else UNSEEN
