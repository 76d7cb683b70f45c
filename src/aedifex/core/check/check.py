"""Record the original, and compare what stands now with it."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field, replace

from ..program.errors import Refused
from .compare import Difference, compare
from .evidence import Evidence, Observed, Sources, key
from .explain import explained
from .run_environment import World
from .runners import frames, process, requests, terminal
from .scenarios import Scenario

CLOSELY = 6  # times the time of a run that it may take when each of its lines is noted
WORKERS = min(8, os.cpu_count() or 1)
RUNNERS: dict[str, Callable[[Scenario, World], Observed]] = {
    "process": process.observe, "terminal": terminal.observe, "frames": frames.observe, "requests": requests.observe,
}  # fmt: skip


@dataclass
class Checked:
    """The outcome of a check: scenarios that ran, and what differed."""

    names: list[str] = field(default_factory=list)
    differences: list[Difference] = field(default_factory=list)


def observe(scenario: Scenario, world: World) -> Observed:
    """Run a scenario once, and note what could be seen."""
    return RUNNERS[world.runner(scenario)](scenario, world)


def record(
    scenarios: list[Scenario],
    world: World,
    original: str,
    evidence: Evidence,
    tell: Callable[[str], None] | None = None,
    sources: Sources | None = None,
) -> dict[str, Observed]:
    """Run every scenario twice on the original and keep what was seen, and where the texts of its ``sources`` are kept.

    Raises Refused if a run does not end by itself, or if the two runs differ: nothing could be compared with them. The
    second run also notes which functions are called and which lines are reached, to know later which scenarios a step
    can affect.
    """
    runs: dict[str, tuple[str, Observed]] = {}
    for scenario in scenarios:
        first = observe(scenario, world)
        if tell is not None:
            tell(scenario.name)
        if first.trouble:
            raise Refused(
                f"scenario '{scenario.name}': the original cannot be recorded, because "
                f"{first.trouble}{cure_for(first.trouble)}."
            )
        missing = world.language.launch.missing_module(first.error)
        if missing:
            raise Refused(
                f"scenario '{scenario.name}': the original needs the module '{missing}', which is not installed for "
                f"{world.interpreter}; install it there."
            )
        second = observed_closely(scenario, world)
        again = compare(replace(scenario, expect=[]), first, second)
        if again:  # to note each line can keep things alive for longer
            second = observe(scenario, world.wishing(cover=True))
            again = compare(replace(scenario, expect=[]), first, second)
        if again:
            d = again[0]
            raise Refused(f"scenario '{scenario.name}': two runs of the original differ: {difference_place(d)}, "
                          f"{d.before!r} and {d.after!r}; mask it with 'ignore'.")  # fmt: skip
        first.called, first.reached = second.called, second.reached
        runs[scenario.name] = (key(scenario), first)
    evidence.save(original, runs, sources or Sources())
    return {name: seen for name, (_, seen) in runs.items()}


def observed_closely(scenario: Scenario, world: World) -> Observed:
    """A run that notes where it comes: each line, which takes its time; where that is too long, only the functions."""
    seen = observe(replace(scenario, seconds=scenario.seconds * CLOSELY), world.wishing(cover="lines"))
    return seen if not seen.trouble else observe(scenario, world.wishing(cover=True))


def unsteady(scenario: Scenario, original: World, seen: dict[str, Observed]) -> list[str]:
    """A sentence if the original itself no longer does what was recorded of it: then the difference says nothing of a
    step."""
    again = compare(replace(scenario, expect=[]), seen[scenario.name], observe(scenario, original))
    return [
        f"the original itself does another thing by now ({difference_place(d)}: {d.before!r} and {d.after!r}); mask "
        "it with 'ignore'"
        for d in again[:1]
    ]


def difference_place(d: Difference) -> str:
    if d.line:
        return f"{d.where}, line {d.line}"
    return f"{d.where} of {d.name} at {d.moment}" if d.name else d.where


def cure_for(trouble: str) -> str:
    if "still running" in trouble:
        return "; give it input that ends it, or 'turns', or raise 'seconds'"
    return "" if ":" in trouble or ";" in trouble else "; change the scenario"


def recorded(scenarios: list[Scenario], original: str, evidence: Evidence) -> dict[str, Observed] | None:
    """The kept runs, if they are of this original and of exactly these scenarios."""
    kept = evidence.load()
    if kept is None or kept[0] != original or any(kept[1].get(s.name, ("",))[0] != key(s) for s in scenarios):
        return None
    return {s.name: kept[1][s.name][1] for s in scenarios}


def check(
    scenarios: list[Scenario],
    world: World,
    seen: dict[str, Observed],
    first: bool = False,
    tell: Callable[[str], None] | None = None,
    original: World | None = None,
    pictures: str = "",
    due: bool = True,
) -> Checked:
    """Run the scenarios now and compare; ``first``: stop at the first scenario that differs.

    With the ``original``, the first difference of each scenario is explained by further runs, with ``pictures`` of a
    differing frame in that folder. ``due``: wanted differences must have come by now.
    """
    result = Checked()
    with ThreadPoolExecutor(WORKERS) as pool:
        runs = [(scenario, pool.submit(observe, scenario, world)) for scenario in scenarios]
        for scenario, run in runs:
            result.names.append(scenario.name)
            found = compare(scenario, seen[scenario.name], run.result(), due)
            if found and original is not None:
                found = [explained(d, scenario, original, world, pictures) for d in found]
                found[0] = replace(found[0], context=(*unsteady(scenario, original, seen), *found[0].context))
            result.differences += found
            if tell is not None:
                tell(scenario.name)
            if first and result.differences:
                for _, other in runs:
                    other.cancel()
                break
    return result


def affected(
    scenarios: list[Scenario], seen: dict[str, Observed], touched: set[tuple[str, int]] | None
) -> list[Scenario]:
    """The scenarios that call one of the functions (file, first line in the original); all of which that is not
    known."""
    if touched is None:
        return list(scenarios)
    known = {s.name: seen[s.name].called for s in scenarios}
    return [s for s in scenarios if not known[s.name] or any(n in known[s.name].get(path, ()) for path, n in touched)]


def crashes(seen: dict[str, Observed], world: World) -> list[str]:
    """A sentence for each thing to know of the recorded runs: what was refused, and where the original itself fails."""
    found = []
    for name, observed in seen.items():
        found += [f"scenario '{name}': {note}." for note in observed.notes]
        error = world.language.launch.crash(observed.error)
        if error:
            found.append(
                f"scenario '{name}': the original itself ends with '{error}'; what would follow is not checked."
            )
    return found
