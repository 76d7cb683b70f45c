"""``aedifex record --suggest``: try a program out and write a first scenario file."""

from __future__ import annotations

import os
from typing import TYPE_CHECKING

import click

from .common import progress, replace_keeping, say

if TYPE_CHECKING:
    from ..core.check.run_environment import World


def suggested(path: str | None, again: bool, quiet: bool) -> None:
    """Write ``<stem>.scenarios.toml`` beside a script or a design. Refuses to replace one unless told."""
    from ..core.apply.project import SCENARIOS
    from ..core.check.scenario_text import as_toml
    from ..core.check.suggest import RUNS, suggest
    from ..core.program.errors import Refused

    world, stem = tried(path)
    target = os.path.join(world.root, stem + SCENARIOS)
    shown = os.path.relpath(target)
    if os.path.lexists(target) and not again:
        raise Refused(f"{shown}: is there already; edit it, or use --again to replace it.")
    runs: list[str] = []
    clues = world.language.launch.clues(world.sources)
    with progress(RUNS, "try", quiet) as advance:

        def ran(name: str) -> None:
            runs.append(name)
            advance(name)

        found = suggest(world, clues, ran)
    remark = "What was found by trying the program out. It is yours to edit; each run is compared after every step."
    replace_keeping(target, as_toml(found, remark).encode(), quiet)
    for scenario in found:
        if not quiet:
            given = len(scenario.events) + len(scenario.requests) + len(scenario.typed) + scenario.stdin.count("\n")
            click.echo(f"{scenario.name}: {scenario.runner}, {given} input{'s' * (given != 1)}")
    say(f"Tried it {len(runs)} times. Wrote {shown}. Read and edit it, then: aedifex draft, aedifex build.", quiet)


def tried(path: str | None) -> tuple[World, str]:
    """The program to try, and the stem of its scenario file."""
    from ..core.apply.find_project import meant_project, program_of
    from ..core.apply.project import DESIGN, design_stem, open_project
    from ..core.check.run_environment import World
    from ..core.program.errors import AedifexError

    if path is None or path.endswith(DESIGN):
        design = meant_project(path).design
        if not design:
            raise AedifexError("no design is here; name a script or a design.")
        project = open_project(design)
        return project.original_world(), design_stem(design)
    program = program_of(path)
    entry = next(iter(program.files))
    stem = os.path.splitext(os.path.basename(entry))[0]
    return World(program.root, entry, program.language, {}, list(program.files.values())), stem
