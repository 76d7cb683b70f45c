"""Compare two runs: the first difference in context, then how many there are; wanted differences apart."""

from __future__ import annotations

import difflib
import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from .evidence import Observed, State
from .scenarios import Scenario
from .state import differing

ADDRESS = re.compile(r"\bat 0x[0-9a-fA-F]{4,}")
NOTHING = "<nothing more>"
ABSENT = "<not there>"
UNMET = "<no such change>"
MIN_LINEWISE_LINES = 20000  # lines from which a text is compared line by line, without looking for shifts


@dataclass(frozen=True)
class Difference:
    """One way in which a run differs.

    ``where``: the run, output, errors, drawing, exit status, state, a frame, screen, window or response, or a file;
    ``context``: lines around the first difference; ``name``: the variable, for the state; ``moment``: when it first
    shows; ``source``: line of the program that made it, and the moved names there, where that could be found;
    ``pictures``: files that show it.
    """

    scenario: str
    where: str
    line: int
    before: str
    after: str
    context: tuple[str, ...] = ()
    count: int = 1
    name: str = ""
    moment: str = ""
    source: str = ""
    pictures: tuple[str, ...] = field(default=())

    def __str__(self) -> str:
        place = f"{self.where}, line {self.line}" if self.line else self.where
        if self.name:
            place = f"{self.where} of {self.name}"
        if self.moment:
            place += f" at {self.moment}"
        if self.where.startswith("frame ") and "<" not in self.before + self.after:
            more = f", and so on ({self.count} frames differ)" if self.count > 1 else ""
            sizes = [t.split(" ")[0] for t in (self.before, self.after)]
            size = f" ({sizes[0]}, now {sizes[1]})" if sizes[0] != sizes[1] else ""
            return f"scenario '{self.scenario}', {place}: the picture is another{size}{more}"
        if self.after == UNMET:
            return f"scenario '{self.scenario}', {self.where}: the scenario expects {self.before}, which it did not"
        what = "moments differ" if self.name else "lines differ" if self.line else "differ"
        more = f" ({self.count} {what})" if self.count > 1 else ""
        made = f"; made at {self.source}" if self.source else ""
        return (
            f"scenario '{self.scenario}', {place}: it was {show(self.before)}, now it is {show(self.after)}{more}{made}"
        )


def show(text: str) -> str:
    if re.fullmatch(r"<[^<>]*>", text):
        return text[1:-1]
    return repr(text if len(text) <= 100 else text[:97] + "...")


@dataclass
class Atom:
    """One line that differs; 0 and an empty context for what has no lines."""

    where: str
    line: int
    before: str
    after: str


def compare(scenario: Scenario, before: Observed, after: Observed, due: bool = True) -> list[Difference]:
    """Differences, the most telling first; empty if the runs are the same but for what the scenario expects.

    ``due``: what it expects must have come by now (false while a build is under way).
    """
    found: list[Difference] = []
    expected = [dict(row, met="") for row in scenario.expect]
    for where, old, new in sections(scenario, before, after):
        if old == new:
            continue
        atoms = [a for a in differing_lines(where, old, new) if not is_expected(a, expected)]
        if atoms:
            found.append(difference_sentence(scenario, atoms, old, new))
    found = first_of_each(found)
    found += [
        d
        for d in states(scenario, before.state, after.state)
        if not is_expected(Atom(f"state {d.name}", 0, d.before, d.after), expected)
    ]
    for row in expected if due else ():
        if not row["met"]:
            was, now = (repr(row[k]) if k in row else "anything" for k in ("before", "after"))
            found.append(Difference(scenario.name, row["where"], 0, f"{was} to become {now}", UNMET))
    return found


def sections(scenario: Scenario, before: Observed, after: Observed) -> Iterator[tuple[str, str, str]]:
    """(where, text before, text after) of everything that is compared as text, masked."""

    def masked(where: str, old: str, new: str) -> tuple[str, str, str]:
        return where, mask(scenario, old), mask(scenario, new)

    yield "the run", ending(before), ending(after)
    yield masked("output", before.output, after.output)
    yield masked("drawing", before.device, after.device)
    for label in [*before.shots, *(s for s in after.shots if s not in before.shots)]:
        yield masked(label, before.shots.get(label, ABSENT), after.shots.get(label, ABSENT))
    for name in sorted(set(before.files) | set(after.files)):
        yield masked(f"file {name}", before.files.get(name, "<not written>"), after.files.get(name, "<not written>"))
    yield masked("errors", before.error, after.error)
    yield "exit status", str(before.status), str(after.status)


def ending(seen: Observed) -> str:
    """How a run came to its end, the number of its turns included."""
    if seen.trouble:
        return f"<{seen.trouble}>"
    if seen.ended:
        return f"<it was {seen.ended}>"
    return f"<it ended by itself after {seen.turns} turns>" if seen.turns else "<it ended by itself>"


def differing_lines(where: str, old: str, new: str) -> list[Atom]:
    left, right = old.split("\n"), new.split("\n")
    whole = len(left) == len(right) == 1
    if len(left) == len(right) or len(left) + len(right) > MIN_LINEWISE_LINES:
        pairs = [(i, a, b) for i, (a, b) in enumerate(zip(left, right, strict=False)) if a != b]
        pairs += [(i, left[i], NOTHING) for i in range(len(right), len(left))]
        pairs += [(i, NOTHING, right[i]) for i in range(len(left), len(right))]
        return [Atom(where, 0 if whole and where in UNLINED else i + 1, a, b) for i, a, b in pairs]
    found = []
    for kind, i1, i2, j1, j2 in difflib.SequenceMatcher(None, left, right, autojunk=False).get_opcodes():
        if kind == "equal":
            continue
        for k in range(max(i2 - i1, j2 - j1)):
            a = left[i1 + k] if i1 + k < i2 else NOTHING if i2 == len(left) else ABSENT
            b = right[j1 + k] if j1 + k < j2 else NOTHING if j2 == len(right) else ABSENT
            found.append(Atom(where, min(i1 + k, i2) + 1, a, b))
    return found


UNLINED = ("the run", "exit status")


def is_expected(atom: Atom, expected: list[dict[str, str]]) -> bool:
    """Whether a scenario expects this line to differ in this way; notes that the expectation was met."""
    for row in expected:
        place = row["where"]
        if (atom.where == place or atom.where.startswith(place + " ")) and all(
            row[k] in (v, v.strip()) for k, v in (("before", atom.before), ("after", atom.after)) if k in row
        ):
            row["met"] = "yes"
            return True
    return False


def difference_sentence(scenario: Scenario, atoms: list[Atom], old: str, new: str) -> Difference:
    first = atoms[0]
    left, right = old.split("\n"), new.split("\n")
    at = max(first.line - 1, 0)
    around = list(
        difflib.unified_diff(left[max(0, at - 3) : at + 4], right[max(0, at - 3) : at + 4], lineterm="", n=3)
    )[2:]
    picture = first.where.startswith("frame ")
    context = () if picture or first.line == 0 else tuple(c for c in around if not c.startswith("@@"))
    line = 0 if picture else first.line
    return Difference(scenario.name, first.where, line, first.before, first.after, context, len(atoms))


def first_of_each(found: list[Difference]) -> list[Difference]:
    """One difference for all frames, one for all screens: the first, with the number of those that differ."""
    kept: list[Difference] = []
    first: dict[str, int] = {}
    for d in found:
        kind = d.where.split(" ")[0]
        if kind not in ("frame", "screen", "window"):
            kept.append(d)
        elif kind in first:
            earlier = kept[first[kind]]
            kept[first[kind]] = replace(earlier, count=earlier.count + 1)
        else:
            first[kind] = len(kept)
            kept.append(replace(d, count=1))
    return kept


def states(scenario: Scenario, before: State, after: State) -> list[Difference]:
    """The first moment at which a field does not hold what its variable held; one difference for each variable."""
    found = [
        Difference(scenario.name, "state", 0, old, new, name=name, moment=moment, count=count)
        for name, moment, old, new, count in differing(before, after)
    ]
    return (
        [
            replace(
                found[0],
                context=tuple(
                    f"also {d.name} at {d.moment}: it was {show(d.before)}, now it is {show(d.after)}"
                    for d in found[1:4]
                ),
            )
        ]
        if found
        else []
    )


def mask(scenario: Scenario, text: str) -> str:
    """Without what the scenario ignores, and without addresses in memory."""
    for pattern in scenario.ignore:
        text = re.sub(pattern, "<ignored>", text)
    return ADDRESS.sub("at <address>", text) if " 0x" in text else text
