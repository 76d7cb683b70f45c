"""``aedifex survey``: who touches what."""

from __future__ import annotations

import gc
import sys
from dataclasses import asdict
from typing import TYPE_CHECKING

import click

from .common import QUIET, as_json, console, say

if TYPE_CHECKING:
    from ..core.analysis.report import Survey
    from ..core.program.program import Program


@click.command(name="survey")
@click.argument("paths", nargs=-1, required=True)
@click.option("--json", "json_", is_flag=True, help="Print everything as JSON (see survey.schema.json in the package).")
@click.option(
    "--figure",
    type=click.Path(dir_okay=False),
    metavar="FILE",
    help="Draw what the main code is about, and how it would be cut, to FILE (.png or .svg).",
)
@QUIET
def command(paths: tuple[str, ...], json_: bool, figure: str | None, quiet: bool) -> None:
    """Show who touches what in the scripts at PATHS: state against functions, groups in sight, main code, hazards.

    \b
    Example: aedifex survey tramline.py
    """
    if figure is not None and not figure.endswith((".png", ".svg")):
        raise click.UsageError(f"{figure}: is neither .png nor .svg; name a file of one of these.")
    program, result = surveyed(paths, json_ or figure is not None or not quiet)
    if json_:
        as_json(result.as_json())
    elif not quiet:
        from ..views.survey import show

        show(console(), result)
    if figure is not None:
        drawn(result, figure)
    broken = [p for f in program.files.values() for p in f.problems[:1]]
    for problem in broken:
        say(f"aedifex: {problem}; the rest of the file was surveyed")
    if broken and len(broken) == len(program.files):
        sys.exit(2)


def surveyed(paths: tuple[str, ...], whole: bool) -> tuple[Program, Survey]:
    """What was read, and the survey of it. ``whole``: with what a draft would make of it. Nothing of it is garbage
    before the end."""
    from ..core.analysis.report import survey
    from ..core.planning.proposals import proposed_cuts, proposed_parts
    from ..core.program.program import find_sources, read_program
    from ..core.program.surroundings import read_neighbours

    gc.disable()
    root, files = find_sources(paths)
    program = read_program(root, files)
    beside = read_neighbours(program)
    result = survey(program, beside)
    for file in result.files if whole else ():
        file.cuts = [asdict(cut) for cut in proposed_cuts(program, file.path, beside)]
        file.parts = proposed_parts(program, file.path, beside)
    return program, result


def drawn(result: Survey, path: str) -> None:
    """Draw the figure. Raises AedifexError if there is nothing to draw, OSError if the file cannot be written."""
    from ..core.program.atomic import replace
    from ..core.program.errors import AedifexError
    from ..views.figure import picture

    data = picture(result, path.rpartition(".")[2])
    if data is None:
        raise AedifexError("there is no main code and no function with several jobs to draw; nothing was written.")
    replace(path, data, None)
    say(f"Drew {path}")


__all__ = ["command"]
