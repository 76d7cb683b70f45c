"""``aedifex record``: run the original and keep what it did."""

from __future__ import annotations

from typing import TYPE_CHECKING

import click

from .common import QUIET, progress, say

if TYPE_CHECKING:
    from ..core.build.project import Project
    from ..core.check.evidence import Observed
    from ..core.check.scenarios import Scenario


def located(path: str | None) -> tuple[str, str | None]:
    """(design, scenario file or None) for what a person names: a design, a scenario file, or nothing."""
    import glob
    import os

    from ..core.build.project import DESIGN, SCENARIOS
    from ..core.program.errors import AedifexError

    if path is not None and path.endswith(DESIGN):
        return path, None
    if path is not None and path.endswith(SCENARIOS):
        beside = path.removesuffix(SCENARIOS) + DESIGN
        found = (
            [beside]
            if os.path.exists(beside)
            else glob.glob(os.path.join(glob.escape(os.path.dirname(path) or "."), "*" + DESIGN))
        )
        if not os.path.exists(path):
            raise AedifexError(f"{path}: no such scenario file; check the path.")
    elif path is not None:
        raise AedifexError(
            f"{path}: is neither a scenario file (*{SCENARIOS}) nor a design (*{DESIGN}); name one of those."
        )
    else:
        found = glob.glob("*" + DESIGN)
    if len(found) != 1:
        what = "no design" if not found else f"{len(found)} designs"
        raise AedifexError(f"{what} found beside the scenarios; draft one, or name it.")
    return found[0], path


def opened(path: str | None) -> tuple[Project, list[Scenario]]:
    """The project and the scenarios that a person names, with a word on what was found of an interrupted step."""
    from ..core.build.project import open_project

    design, file = located(path)
    project = open_project(design)
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
    """Run the original program on SCENARIOS (a scenario file or a design) twice, and keep what it did.

    After a build the original is taken from the journal.

    \b
    Example: aedifex record tramline.scenarios.toml
    Example: aedifex record --suggest tramline.py
    """
    if suggest:
        from .suggest import suggested

        suggested(scenarios, again, quiet)
        return
    from ..core.build.reach import everything, moving, told
    from ..core.check.check import crashes, record

    project, runs = opened(scenarios)
    with project.journal.locked(), progress(len(runs), "recording", quiet) as advance:
        seen = record(runs, project.original_world(), project.original_hash(), project.evidence(), advance)
    for name, run in seen.items():
        if not quiet:
            click.echo(f"{name}: {', '.join(seen_of(run))}")
    for note in crashes(seen, project.original_world()):
        say(f"Note: {note}")
    stretches = moving(project.design, project.original)
    what = "functions and stretches that move" if stretches else "functions"
    if sentence := told(stretches or everything(project.original), seen, what):
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
