"""The original and what stands now, side by side on inputs that no scenario had (D8)."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from itertools import islice

from ..program.clues import Clues
from .check import WORKERS, observe
from .compare import Difference, compare
from .evidence import Observed
from .run_environment import World
from .scenarios import Scenario
from .variants import free_scenario_name, scenario_words, variants

QUICK = 8.0  # seconds that a run on such an input may take


@dataclass
class Explored:
    """``ran``: inputs on which both were run; ``skipped``: those on which the original cannot be compared with itself;
    ``scenario``: the first that shows ``differences``, None if there is none."""

    ran: int = 0
    skipped: int = 0
    scenario: Scenario | None = None
    differences: tuple[Difference, ...] = ()


def explore(
    number: int,
    scenarios: list[Scenario],
    clues: Clues,
    original: World,
    now: World,
    tell: Callable[[str], None] | None = None,
) -> Explored:
    """Run both on a number of inputs; stops at the first that differs."""
    found = Explored()
    kind = original.runner(Scenario("x"))
    inputs = islice(variants(scenarios, clues, kind), number)
    taken = {s.name for s in scenarios}
    with ThreadPoolExecutor(WORKERS) as pool:
        while batch := list(islice(inputs, WORKERS)):
            for i, s in enumerate(batch):
                batch[i] = replace(
                    s, name=free_scenario_name(f"explored: {scenario_words(s)}", taken), seconds=min(s.seconds, QUICK)
                )
                taken.add(batch[i].name)
            pairs = list(pool.map(lambda s: (observe(s, original), observe(s, now)), batch))
            for scenario, (before, after) in zip(batch, pairs, strict=True):
                if tell is not None:
                    tell(scenario.name)
                if before.trouble:
                    found.skipped += 1
                    continue
                found.ran += 1
                differences = compare(scenario, before, after, due=False)
                if differences and steady(scenario, before, original):
                    found.scenario, found.differences = replace(scenario, seconds=20.0), tuple(differences)
                    return found
                found.skipped += bool(differences)
    return found


def steady(scenario: Scenario, before: Observed, original: World) -> bool:
    """Whether the original itself does the same once more."""
    return not compare(scenario, before, observe(scenario, original), due=False)
