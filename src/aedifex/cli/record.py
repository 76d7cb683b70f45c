"""``aedifex record``: run the original and keep what it did."""

from __future__ import annotations

from typing import TYPE_CHECKING

import click

from .common import QUIET, progress, say

if TYPE_CHECKING:
    from ..core.apply.project import Project
    from ..core.check.evidence import Observed
    from ..core.check.scenarios import Scenario


def opened(path: str | None, recording: bool = False) -> tuple[Project, list[Scenario]]:
    """The program and the scenarios that a person names, with a word on what was found of an interrupted step."""
    from ..core.apply.find_project import found_project

    project, file = found_project(path, recording)
    for sentence in project.said:
        say(sentence)
    return project, project.scenarios(file)


@click.command(name="record")
@click.argument("scenarios", required=False)
@click.option(
    "--suggest", is_flag=True, help="Try the program out and write a first scenario file; name a script or a design."
)
@click.option("--again", is_flag=True, help="With --suggest: replace the scenario file that is there.")
@QUIET
def command(scenarios: str | None, suggest: bool, again: bool, quiet: bool) -> None:
    """Run the original program on SCENARIOS (a scenario file, a design or a script) twice, and keep what it did.

    After a build or single steps the original is taken from the journal. A script without a design is recorded as it
    stands.

    \b
    Example: aedifex record tramline.scenarios.toml
    Example: aedifex record --suggest tramline.py
    """
    if suggest:
        from .suggest import suggested

        suggested(scenarios, again, quiet)
        return
    from ..core.apply.reach import looked_at, reach_sentence
    from ..core.check.check import crashes

    project, runs = opened(scenarios, recording=True)
    with project.journal.locked(), progress(len(runs), "scenario", quiet) as advance:
        seen = project.record(runs, advance)
    for name, run in seen.items():
        if not quiet:
            click.echo(f"{name}: {', '.join(seen_of(run))}")
    for note in crashes(seen, project.original_world()):
        say(f"Note: {note}")
    stretches, what = looked_at(project.design, project.original)
    if sentence := reach_sentence(stretches, seen, what):
        say(sentence, quiet)


def seen_of(run: Observed) -> list[str]:
    """What a recorded run holds, in a few words."""
    found = [
        f"exit status {run.status}" if not run.ended else run.ended,
        f"{run.output.count(chr(10)) + run.device.count(chr(10))} lines",
    ]
    kinds: dict[str, int] = {}
    for label in run.shots:
        kind = label.split(" ")[0]
        kinds[kind] = kinds.get(kind, 0) + 1
    found += [f"{n} {kind}{'s' * (n != 1)}" for kind, n in kinds.items()]
    return found + ([f"{len(run.files)} files written"] if run.files else [])
