"""``aedifex step``: one step without a design."""

from __future__ import annotations

import sys

import click

from .common import QUIET, as_json, progress, say


@click.group(name="step")
def command() -> None:
    """Do one step without a design. It is shown first, and the program is run before and after.

    \b
    Example: aedifex step rename tick turn tramline.py
    """


@command.command(name="rename")
@click.argument("old")
@click.argument("new")
@click.argument("paths", nargs=-1, required=True)
@click.option("--yes", is_flag=True, help="Write it without asking.")
@click.option("--scenarios", metavar="FILE", help="Scenario file (default: the one beside each script).")
@click.option("--unchecked", is_flag=True, help="Do not run the program; read it again only.")
@click.option("--json", "json_", is_flag=True, help="Print what changes as JSON.")
@QUIET
def rename(
    old: str,
    new: str,
    paths: tuple[str, ...],
    yes: bool,
    scenarios: str | None,
    unchecked: bool,
    json_: bool,
    quiet: bool,
) -> None:
    """Call OLD by the name NEW, wherever it is used in the scripts at PATHS; their designs follow.

    OLD is a name, function.local, Class.member or a file; write file.py::name where several files have it. Only the scripts
    named are changed. Without --yes the change is shown and you are asked.

    \b
    Example: aedifex step rename tram1_x first_x tramline.py
    """
    from ..core.build.single import rename as worked_out
    from ..core.program.errors import Refused
    from ..core.program.language import find_sources, read_program

    root, files = find_sources(paths)
    program = read_program(root, files)
    for problem in program.problems[:1]:
        raise Refused(f"{problem}; nothing is renamed in a file that cannot be read whole.")
    single = worked_out(program, old, new)
    written = yes
    if not json_ and not quiet:
        click.echo(single.diff, nl=False)
    if not yes and not json_ and sys.stdin.isatty():
        written = click.confirm("Write it?", err=True)
    if written:
        with progress(2, "checking", quiet or json_) as advance:
            differed = [] if unchecked else single.check(scenarios, advance)
        if differed:
            raise Refused("\n".join([f"{old}: stays, because the program would do something else:", *differed]))
        single.write()
    if json_:
        as_json({"step": single.step.id, "files": sorted(single.changes), "written": written, "diff": single.diff})
    elif written:
        said = "It was not run (--unchecked)." if unchecked else "The program did the same."
        say(f"Renamed in {', '.join(sorted(single.changes))}. {said} Put back: aedifex undo {root}", quiet)
    else:
        say("Nothing was written; add --yes to write it.", quiet)
