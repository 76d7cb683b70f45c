"""``aedifex demo``: the whole path on a small tram line, with what to look at."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from importlib.resources import files

import click

from .common import QUIET


@click.command(name="demo")
@click.option("--folder", metavar="DIR", help="Work in this new folder and leave it there (default: a temporary one).")
@QUIET
def command(folder: str | None, quiet: bool) -> None:
    """Copy a small tram line to a temporary folder and go the whole path: survey, draft, preview, build, check, undo.

    \b
    Example: aedifex demo --folder tramline
    """
    from ..core.program.errors import Refused

    if folder is not None and os.path.lexists(folder):
        raise Refused(f"{folder}: is there already; name a new folder.")
    place = os.path.abspath(folder) if folder else tempfile.mkdtemp(prefix="aedifex-demo-")
    os.makedirs(place, exist_ok=True)
    try:
        for name in ("tramline.py", "tramline.scenarios.toml"):
            text = files("aedifex.demo").joinpath("programs", name).read_bytes()
            with open(os.path.join(place, name), "wb") as handle:
                handle.write(text)
        status = stages(place, quiet)
    finally:
        if folder is None:
            shutil.rmtree(place, ignore_errors=True)
    if not quiet and folder is not None:
        click.echo(f"Everything stays in {folder}.")
    sys.exit(status)


STAGES = [
    ("It works, but everything is global. Look at the columns that many rows share: who changes the trams?",
     ["survey", "tramline.py"]),
    ("Ask about one name. Look at who reads the signal, and that it changes while the program runs.",
     ["ask", "signal", "tramline.py"]),
    ("A proposal, with reasons. Look at tramline.design.toml: it is yours to edit.", ["draft", "tramline.py"]),
    ("What it would become. Look at the figures: globals and statements in main.", ["preview", "tramline.design.toml"]),
    ("Now the moves, one at a time. After each one the program is read again and run again on its scenarios.",
     ["build", "tramline.design.toml"]),
    ("The same program? Look for three times 'the same'.", ["check", "tramline.scenarios.toml"]),
]  # fmt: skip
AFTER = [
    ("Every step can be put back. Here the last two go...", ["undo", "--steps", "2"]),
    ("... and are built again; only what is missing is done.", ["build", "--quiet", "tramline.design.toml"]),
]


def stages(place: str, quiet: bool) -> int:
    """Run the stages as a person would; the status of the first that fails, else 0."""
    for sentence, args in STAGES:
        status = stage(place, sentence, args, quiet)
        if status:
            return status
    for name in ("tram.py", "tramline.py"):
        if not quiet:
            heading(f"What you hold now: {name}")
            with open(os.path.join(place, name), encoding="utf-8") as handle:
                click.echo(handle.read(), nl=False)
    for sentence, args in AFTER:
        status = stage(place, sentence, args, quiet)
        if status:
            return status
    return compared(place, quiet)


def heading(text: str) -> None:
    click.echo("\n" + click.style(f"== {text}", bold=True))


def stage(place: str, sentence: str, args: list[str], quiet: bool) -> int:
    if not quiet:
        heading(sentence)
        click.echo(click.style(f"$ aedifex {' '.join(args)}", fg="green"))
        sys.stdout.flush()
    command = [sys.executable, "-m", "aedifex.cli.main", *args]
    nowhere = subprocess.DEVNULL if quiet else None
    return subprocess.run(command, cwd=place, stdout=nowhere, stderr=nowhere).returncode


def compared(place: str, quiet: bool) -> int:
    """Figures before and after."""
    from ..core.build.project import open_project
    from ..core.survey.figures import figures
    from ..views.preview import figures_table
    from .common import console

    project = open_project(os.path.join(place, "tramline.design.toml"))
    before, after = figures(project.original), figures(project.current)
    if not quiet:
        heading("Before and after")
        console().print(figures_table(before.as_json(), after.as_json()))
    return 0 if after.globals == 0 else 1
