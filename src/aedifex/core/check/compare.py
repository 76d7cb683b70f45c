"""Compare two runs: the first difference in context, then how many there are."""

from __future__ import annotations

import difflib
import re
from dataclasses import dataclass

from .evidence import Observed
from .scenarios import Scenario


@dataclass(frozen=True)
class Difference:
    """``where``: exit status, output, errors, drawing, or a file; ``context``: lines around the first difference."""

    scenario: str
    where: str
    line: int
    before: str
    after: str
    context: tuple[str, ...] = ()
    count: int = 1

    def __str__(self) -> str:
        place = f"{self.where}, line {self.line}" if self.line else self.where
        more = f" ({self.count} lines differ)" if self.count > 1 else ""
        return f"scenario '{self.scenario}', {place}: it was {show(self.before)}, now it is {show(self.after)}{more}"


def show(text: str) -> str:
    return repr(text if len(text) <= 100 else text[:97] + "...")


def compare(scenario: Scenario, before: Observed, after: Observed) -> list[Difference]:
    """Differences, the most telling first; empty if the runs are the same."""
    found: list[Difference] = []
    if after.trouble != before.trouble:
        found.append(Difference(scenario.name, "the run", 0, before.trouble or "it ended", after.trouble or "it ended"))
    pairs = [("output", before.output, after.output), ("drawing", before.device, after.device)]
    names = sorted(set(before.files) | set(after.files))
    pairs += [(f"file {n}", before.files.get(n, "<not written>"), after.files.get(n, "<not written>")) for n in names]
    pairs.append(("errors", before.error, after.error))
    for where, old, new in pairs:
        difference = texts(scenario, where, old, new)
        if difference is not None:
            found.append(difference)
    if before.status != after.status:
        found.append(Difference(scenario.name, "exit status", 0, str(before.status), str(after.status)))
    return found


def texts(scenario: Scenario, where: str, old: str, new: str) -> Difference | None:
    left, right = mask(scenario, old).split("\n"), mask(scenario, new).split("\n")
    if left == right:
        return None
    at = next((i for i, (a, b) in enumerate(zip(left, right, strict=False)) if a != b), min(len(left), len(right)))
    before = left[at] if at < len(left) else "<nothing more>"
    after = right[at] if at < len(right) else "<nothing more>"
    differing = sum(1 for a, b in zip(left, right, strict=False) if a != b) + abs(len(left) - len(right))
    context = list(
        difflib.unified_diff(left[max(0, at - 3) : at + 4], right[max(0, at - 3) : at + 4], lineterm="", n=3)
    )[2:]
    return Difference(
        scenario.name, where, at + 1, before, after, tuple(c for c in context if not c.startswith("@@")), differing
    )


def mask(scenario: Scenario, text: str) -> str:
    for pattern in scenario.ignore:
        text = re.sub(pattern, "<ignored>", text)
    return text
