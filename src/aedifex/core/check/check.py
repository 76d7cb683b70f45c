"""Record the original, and compare what stands now with it."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field

from ..program.errors import Refused
from .compare import Difference, compare
from .evidence import Evidence, Observed, key
from .runners import frames, process, requests, terminal
from .scenarios import Scenario
from .world import World

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
    return RUNNERS[world.runner(scenario)](scenario, world)


def record(
    scenarios: list[Scenario],
    world: World,
    original: str,
    evidence: Evidence,
    tell: Callable[[str], None] | None = None,
) -> dict[str, Observed]:
    """Run every scenario twice on the original and keep what was seen.

    Raises Refused if a run does not end by itself, or if the two runs differ: nothing could be compared with them.
    """
    runs: dict[str, tuple[str, Observed]] = {}
    for scenario in scenarios:
        first = observe(scenario, world)
        if tell is not None:
            tell(scenario.name)
        if first.trouble:
            raise Refused(f"scenario '{scenario.name}': the original cannot be recorded, because {first.trouble}; "
                          "give it input that ends it, or raise 'seconds'.")  # fmt: skip
        missing = world.language.launch.missing_module(first.error)
        if missing:
            raise Refused(
                f"scenario '{scenario.name}': the original needs the module '{missing}', which is not installed for "
                f"{world.interpreter}; install it there."
            )
        again = compare(scenario, first, observe(scenario, world))
        if again:
            raise Refused(f"scenario '{scenario.name}': two runs of the original differ: {again[0].where}"
                          + (f", line {again[0].line}" if again[0].line else "")
                          + f", {again[0].before!r} and {again[0].after!r}; mask it with 'ignore'.")  # fmt: skip
        runs[scenario.name] = (key(scenario), first)
    evidence.save(original, runs)
    return {name: seen for name, (_, seen) in runs.items()}


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
) -> Checked:
    """Run the scenarios now and compare; ``first``: stop at the first scenario that differs."""
    result = Checked()
    with ThreadPoolExecutor(WORKERS) as pool:
        runs = [(scenario, pool.submit(observe, scenario, world)) for scenario in scenarios]
        for scenario, run in runs:
            result.names.append(scenario.name)
            result.differences += compare(scenario, seen[scenario.name], run.result())
            if tell is not None:
                tell(scenario.name)
            if first and result.differences:
                for _, other in runs:
                    other.cancel()
                break
    return result


def crashes(seen: dict[str, Observed], world: World) -> list[str]:
    """A sentence for each scenario that the original does not survive: nothing after that point is compared."""
    found = []
    for name, observed in seen.items():
        error = world.language.launch.crash(observed.error)
        if error:
            found.append(
                f"scenario '{name}': the original itself ends with '{error}'; what would follow is not checked."
            )
    return found
