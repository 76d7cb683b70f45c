"""``aedifex check``: run what stands now and compare."""

from __future__ import annotations

import os
import sys
from typing import TYPE_CHECKING, Any

import click

from .common import QUIET, as_json, progress, say
from .record import opened

if TYPE_CHECKING:
    from ..core.apply.project import Project
    from ..core.check.check import Checked
    from ..core.check.explore import Explored
    from ..core.check.scenarios import Scenario


@click.command(name="check")
@click.argument("scenarios", required=False)
@click.option(
    "--explore",
    metavar="N",
    type=click.IntRange(1),
    help=(
        "Also run the original and what stands now on N inputs that no scenario had; the first difference becomes a "
        "scenario."
    ),
)
@click.option("--json", "json_", is_flag=True, help="Print the outcome as JSON.")
@QUIET
def command(scenarios: str | None, explore: int | None, json_: bool, quiet: bool) -> None:
    """Run the program as it stands on SCENARIOS (a scenario file, a design or a script) and compare with what was
    recorded.

    It compares after a build, after single steps and after changes by hand, with a design or without. Exit status 1 if
    anything differs.

    \b
    Example: aedifex check tramline.scenarios.toml
    Example: aedifex check tramline.scenarios.toml --explore 50
    """
    from ..core.apply.reach import as_json as reach_json
    from ..core.apply.reach import looked_at, reach_sentence
    from ..core.check.check import check

    project, runs = opened(scenarios)
    with progress(len(runs), "scenario", quiet or json_) as advance:
        seen = project.recorded(runs)
        if seen is None:
            with project.journal.locked():
                seen = project.record(runs)
        result = check(runs, project.world(), seen, False, advance, project.original_world(), project.pictures)
    found = explored(project, runs, explore, quiet or json_, scenarios) if explore else None
    stretches, what = looked_at(project.design, project.original)
    if json_:
        as_json(
            report(result, found, reach_json(stretches, seen))
            | ({"changed": project.changed()} if project.before is not None else {})
        )
    else:
        show(result, found, reach_sentence(stretches, seen, what), quiet)
        if project.before is not None:
            say(
                f"Compared with the program as {project.before.known}; changed since: "
                f"{', '.join(project.changed()) or 'nothing'}.",
                quiet,
            )
    sys.exit(1 if result.differences or (found is not None and found.scenario is not None) else 0)


def report(result: Checked, found: Explored | None, reach: dict[str, Any]) -> dict[str, Any]:
    return {
        "scenarios": result.names,
        "reach": reach,
        "explored": {
            "ran": found.ran,
            "skipped": found.skipped,
            "scenario": found.scenario.name if found.scenario is not None else None,
            "differences": [str(d) for d in found.differences],
        }
        if found is not None
        else None,
        "differences": [
            {
                "scenario": d.scenario,
                "where": d.where,
                "line": d.line,
                "before": d.before,
                "after": d.after,
                "count": d.count,
                "field": d.name or None,
                "moment": d.moment or None,
                "source": d.source or None,
                "pictures": list(d.pictures),
            }
            for d in result.differences
        ],
    }


def show(result: Checked, found: Explored | None, reach: str, quiet: bool) -> None:
    for name in result.names:
        mine = [d for d in result.differences if d.scenario == name]
        if not quiet or mine:
            click.echo(f"{name}: {'different' if mine else 'the same'}")
        for d in mine:
            click.echo(f"  {d}")
            for line in [*d.context, *(f"picture: {os.path.relpath(p)}" for p in d.pictures)]:
                click.echo(f"    {line}")
    if not quiet:
        same = len(result.names) - len({d.scenario for d in result.differences})
        click.echo(f"{same} of {len(result.names)} the same.")
        if reach:
            click.echo(reach)
    if found is not None:
        tell_explored(found, quiet)


def explored(project: Project, runs: list[Scenario], number: int, quiet: bool, path: str | None) -> Explored:
    """Both versions on new inputs; a difference is written as a scenario."""
    from ..core.apply.project import SCENARIOS
    from ..core.check.explore import explore
    from ..core.check.scenario_text import as_toml
    from ..core.program.atomic import replace

    world = project.original_world()
    with progress(number, "input", quiet) as advance:
        found = explore(
            number,
            runs,
            world.language.launch.clues(list(project.original.files.values())),
            world,
            project.world(),
            advance,
        )
    if found.scenario is not None:
        target = path if path is not None and path.endswith(SCENARIOS) else project.scenario_file
        if os.path.exists(target):
            with open(target, encoding="utf-8") as handle:
                before = handle.read().rstrip("\n") + "\n\n"
            text = before + as_toml([found.scenario], "Found by trying inputs that no scenario had.")
        else:
            text = as_toml([*runs, found.scenario], "The last one was found by trying inputs that no scenario had.")
        replace(target, text.encode(), None)
        say(f"Wrote it to {os.path.relpath(target)}.", quiet)
    return found


def tell_explored(found: Explored, quiet: bool) -> None:
    tried = f"{found.ran} input{'s' * (found.ran != 1)} that no scenario had"
    left = f" ({found.skipped} more cannot be compared)" if found.skipped else ""
    if found.scenario is None:
        if not quiet:
            click.echo(f"The original and what stands now do the same on {tried}{left}.")
        return
    click.echo(f"{found.scenario.name}: different")
    for d in found.differences:
        click.echo(f"  {d}")
