"""``aedifex ask``: everything about one name."""

from __future__ import annotations

import click

from .common import QUIET, as_json, console


@click.command(name="ask")
@click.argument("name")
@click.argument("paths", nargs=-1, required=True)
@click.option("--json", "json_", is_flag=True, help="Print the answer as JSON.")
@QUIET
def command(name: str, paths: tuple[str, ...], json_: bool, quiet: bool) -> None:
    """Tell all there is to know about NAME in the scripts at PATHS, and what a draft would make of it.

    \b
    Example: aedifex ask signal tramline.py
    """
    from ..core.analysis.ask import ask
    from ..core.planning.drafter import draft
    from ..core.planning.summary import fate
    from ..core.program.program import find_sources, read_program
    from ..core.program.surroundings import read_neighbours

    root, files = find_sources(paths)
    program = read_program(root, files)
    answers = ask(program, name, read_neighbours(program))
    becomes = fate(draft(program), answers[0].name) if not all(f.problems for f in program.files.values()) else []
    if json_:
        as_json([{**a.as_json(), "becomes": becomes} for a in answers])
    else:
        from ..views.ask import show

        show(console(), answers, becomes, quiet)
