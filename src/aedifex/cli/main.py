"""The ``aedifex`` command: finds the sub-command, runs it, turns errors into one sentence and a status."""

from __future__ import annotations

import atexit
import gc
import importlib
import io
import signal
import sys
from typing import Any

import click

from .. import __version__

FRAMES = 40_000  # programs are nested, and so is the work on them
COMMANDS = {
    "survey": "Who touches what: state against functions, groups, main code, hazards.",
    "ask": "All there is to know about one variable or function.",
    "draft": "Propose classes and write them to a design file.",
    "preview": "Show what a design would make of the program; write nothing.",
    "build": "Make the classes, one checked step at a time.",
    "record": "Run the original program on its scenarios and keep what it did.",
    "check": "Run what stands now and compare it with what was recorded.",
    "step": "Do one step without a design: lift, class, rename and others.",
    "explain": "What the code behind a refusal means, and what to do.",
    "undo": "Put files back as they were before one or more steps.",
    "demo": "Go the whole path on a small tram line, in a temporary folder.",
}


class Commands(click.Group):
    """Imports a sub-command only when it is used, so that starting is quick."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        return list(COMMANDS)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in COMMANDS:
            return None
        module = importlib.import_module(f"aedifex.cli.{cmd_name}")
        command: click.Command = module.command
        return command

    def format_commands(self, ctx: click.Context, formatter: click.HelpFormatter) -> None:
        with formatter.section("Commands"):
            formatter.write_dl(list(COMMANDS.items()))


def version(ctx: click.Context, param: click.Parameter, value: bool) -> None:
    if value and not ctx.resilient_parsing:
        click.echo(f"aedifex {__version__}")
        ctx.exit()


@click.group(cls=Commands, context_settings={"help_option_names": ["-h", "--help"]})
@click.option("--version", is_flag=True, callback=version, expose_value=False, is_eager=True, help="Show the version.")
def cli() -> None:
    """Turn a working procedural script into classes, and see after every step that it still does the same.

    Start with: aedifex survey script.py
    """


def main(args: list[str] | None = None) -> Any:
    """Entry point. Exit status: 0 done; 1 a difference or a refusal; 2 wrong usage or unreadable input."""
    from ..core.program.errors import AedifexError

    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="replace")  # what a terminal has no sign for is no reason to stop
    for number in (signal.SIGTERM, signal.SIGHUP):
        if signal.getsignal(number) is signal.SIG_DFL:
            signal.signal(number, lambda n, _: sys.exit(128 + n))  # so that what was begun is cleared away
    sys.setrecursionlimit(max(sys.getrecursionlimit(), FRAMES))
    atexit.register(
        gc.freeze
    )  # all is given back when the process ends; to look for cycles in it first takes a tenth of a survey
    try:
        cli.main(args=args, prog_name="aedifex", standalone_mode=True)
    except AedifexError as error:
        for line in f"{error}{f' [{error.code}]' if error.code else ''}".splitlines():
            click.echo(f"aedifex: {''.join(c if c.isprintable() else '?' for c in line)}", err=True)
        sys.exit(error.status)
    except BrokenPipeError:
        sys.stderr.close()
        sys.exit(0)
    except RecursionError:
        click.echo("aedifex: the program is nested too deeply to be worked on; split its deepest expression.", err=True)
        sys.exit(2)
    except OSError as error:
        name = f"{error.filename}: " if error.filename else ""
        click.echo(
            f"aedifex: {name}{(error.strerror or str(error)).lower()}; check the path, its permissions and the free "
            "space.",
            err=True,
        )
        sys.exit(2)


if __name__ == "__main__":
    main()
