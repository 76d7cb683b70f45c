"""``aedifex check``: run what stands now and compare."""

from __future__ import annotations

import os
import sys

import click

from .common import QUIET, as_json, progress
from .record import opened


@click.command(name="check")
@click.argument("scenarios", required=False)
@click.option("--json", "json_", is_flag=True, help="Print the outcome as JSON.")
@QUIET
def command(scenarios: str | None, json_: bool, quiet: bool) -> None:
    """Run the program as it stands on SCENARIOS (a scenario file or a design) and compare with what was recorded.

    Exit status 1 if anything differs.

    \b
    Example: aedifex check tramline.scenarios.toml
    """
    from ..core.check.check import check, record, recorded

    project, runs = opened(scenarios)
    with progress(len(runs), "checking", quiet or json_) as advance:
        original = project.original_hash()
        seen = recorded(runs, original, project.evidence())
        if seen is None:
            with project.journal.locked():
                seen = record(runs, project.original_world(), original, project.evidence())
        result = check(runs, project.world(), seen, False, advance, project.original_world(), project.pictures)
    if json_:
        as_json({
            "scenarios": result.names,
            "differences": [
                {"scenario": d.scenario, "where": d.where, "line": d.line, "before": d.before, "after": d.after, "count": d.count,
                 "field": d.name or None, "moment": d.moment or None, "source": d.source or None,
                 "pictures": list(d.pictures)} for d in result.differences
            ],
        })  # fmt: skip
    else:
        for name in result.names:
            mine = [d for d in result.differences if d.scenario == name]
            if not quiet or mine:
                click.echo(f"{name}: {'different' if mine else 'the same'}")
            for d in mine:
                click.echo(f"  {d}")
                for line in [*d.context, *(f"picture: {os.path.relpath(p)}" for p in d.pictures)]:
                    click.echo(f"    {line}")
    sys.exit(1 if result.differences else 0)
