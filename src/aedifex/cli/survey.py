"""``aedifex survey``: who touches what."""

from __future__ import annotations

import sys

import click

from .common import QUIET, as_json, console, say


@click.command(name="survey")
@click.argument("paths", nargs=-1, required=True)
@click.option("--json", "json_", is_flag=True, help="Print everything as JSON (see survey.schema.json in the package).")
@QUIET
def command(paths: tuple[str, ...], json_: bool, quiet: bool) -> None:
    """Show who touches what in the scripts at PATHS: state against functions, groups in sight, main code, hazards.

    \b
    Example: aedifex survey tramline.py
    """
    from ..core.draft.drafter import read_neighbours
    from ..core.program.language import find_sources, read_program
    from ..core.survey.survey import survey

    root, files = find_sources(paths)
    program = read_program(root, files)
    result = survey(program, read_neighbours(program))
    if json_:
        as_json(result.as_json())
    elif not quiet:
        from ..views.survey import show

        show(console(), result)
    broken = [p for f in program.files.values() for p in f.problems[:1]]
    for problem in broken:
        say(f"aedifex: {problem}; the rest of the file was surveyed")
    if broken and len(broken) == len(program.files):
        sys.exit(2)


__all__ = ["command"]
