"""``aedifex demo``: the whole path on a small tram line, with what to look at."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from importlib.resources import files
from typing import Any

import click

from .common import QUIET

PROGRAMS: dict[str, dict[str, Any]] = tomllib.loads(files("aedifex.demo").joinpath("programs.toml").read_text("utf-8"))


@click.command(name="demo")
@click.option("--folder", metavar="DIR", help="Work in this new folder and leave it there (default: a temporary one).")
@click.option(
    "--program", type=click.Choice(list(PROGRAMS)), default="tramline", show_default=True,
    help="Which: " + "; ".join(f"{name}, {p['about']}" for name, p in PROGRAMS.items()) + ".",
)  # fmt: skip
@QUIET
def command(folder: str | None, program: str, quiet: bool) -> None:
    """Copy a small tram line to a temporary folder and go the whole path: survey, draft, preview, build, check, undo.

    \b
    Example: aedifex demo --program fares --folder fares
    """
    from ..core.program.errors import Refused

    if folder is not None and os.path.lexists(folder):
        raise Refused(f"{folder}: is there already; name a new folder.")
    place = os.path.abspath(folder) if folder else tempfile.mkdtemp(prefix="aedifex-demo-")
    os.makedirs(place, exist_ok=True)
    try:
        for name in PROGRAMS[program]["files"]:
            text = files("aedifex.demo").joinpath("programs", name).read_bytes()
            with open(os.path.join(place, name), "wb") as handle:
                handle.write(text)
        status = stages(place, program, quiet)
    finally:
        if folder is None:
            shutil.rmtree(place, ignore_errors=True)
    if not quiet and folder is not None:
        click.echo(f"Everything stays in {folder}.")
    sys.exit(status)


def before(program: str) -> list[tuple[str, list[str]]]:
    told = PROGRAMS[program]
    script, design = told["files"][0], f"{program}.design.toml"
    name, hint = told["ask"], told["hint"]
    tests = ["--tests", "tests"] if told["tests"] else []
    more = "; at the end tests are written from what was seen" if tests else ""
    return [
        (
            "It works, but everything is global. Look at the columns that many rows share: who changes what?",
            ["survey", script],
        ),
        (f"Ask about one name. {hint}", ["ask", name, script]),
        (f"A proposal, with reasons. Look at {design}: it is yours to edit.", ["draft", script]),
        ("What it would become. Look at the figures: globals and statements in main.", ["preview", design]),
        (
            "Now the moves, one at a time. After each one the program is read again and run again on its "
            f"scenarios{more}.",
            ["build", design, *tests],
        ),
        ("The same program? Look for 'the same' at every scenario.", ["check", f"{program}.scenarios.toml"]),
    ]


def after(program: str) -> list[tuple[str, list[str]]]:
    return [
        ("Every step can be put back. Here the last two go...", ["undo", "--steps", "2"]),
        ("... and are built again; only what is missing is done.", ["build", "--quiet", f"{program}.design.toml"]),
    ]


def stages(place: str, program: str, quiet: bool) -> int:
    """Run the stages as a person would; the status of the first that fails, else 0."""
    for sentence, args in before(program):
        status = stage(place, sentence, args, quiet)
        if status:
            return status
    for name in PROGRAMS[program]["shows"]:
        if not quiet:
            heading(f"What you hold now: {name}")
            with open(os.path.join(place, name), encoding="utf-8") as handle:
                click.echo(handle.read(), nl=False)
    for sentence, args in after(program):
        status = stage(place, sentence, args, quiet)
        if status:
            return status
    return compared(place, program, quiet)


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


def compared(place: str, program: str, quiet: bool) -> int:
    """Figures before and after."""
    from ..core.analysis.metrics import figures
    from ..core.apply.project import open_project
    from ..views.preview import figures_table
    from .common import console

    project = open_project(os.path.join(place, f"{program}.design.toml"))
    then, now = figures(project.original), figures(project.current)
    if not quiet:
        heading("Before and after")
        console().print(figures_table(then.as_json(), now.as_json()))
    return 0 if now.globals < then.globals else 1
