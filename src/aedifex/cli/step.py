"""``aedifex step``: one step without a design."""

from __future__ import annotations

import inspect
import re
import sys
from typing import TYPE_CHECKING, Any

import click

from .common import QUIET, as_json, progress, say

if TYPE_CHECKING:
    from ..core.apply.by_hand import Single
    from ..core.program.program import Program
    from ..core.rewrites.by_hand import HandCommand


class Steps(click.Group):
    """A command for each step that a rewrite, or a draft, offers by hand."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        from ..core.apply.by_hand import commands

        return [hand.name for hand in commands()]

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        from ..core.apply.by_hand import commands

        return next((offered(hand) for hand in commands() if hand.name == cmd_name), None)


@click.group(name="step", cls=Steps)
def command() -> None:
    """Do one step without a design. It is shown first, and the program is run before and after.

    \b
    Example: aedifex step rename tick turn tramline.py
    """


def offered(hand: HandCommand) -> click.Command:
    def run(paths: tuple[str, ...], **options: Any) -> None:
        from ..core.apply.by_hand import by_hand

        given = [options.pop(name) for name in parameters]
        program = read(paths)
        done(by_hand(program, hand.name, *given), program.root, hand.done, given[0], **options)

    arguments = {re.sub(r"\W", "_", word).lower() + "_": word for word in hand.arguments}
    parameters = [*arguments, *(name for name, _, _ in hand.options)]
    made = click.Command(
        hand.name,
        callback=run,
        short_help=hand.short,
        help=f"{inspect.cleandoc(hand.help)}\n\n\b\nExample: aedifex step {hand.example}",
        params=[
            *(click.Argument([name], metavar=word) for name, word in arguments.items()),
            click.Argument(["paths"], nargs=-1, required=True),
            *(click.Option([f"--{name}"], metavar=word, default="", help=said) for name, word, said in hand.options),
            click.Option(["--yes"], is_flag=True, help="Write it without asking."),
            click.Option(["--scenarios"], metavar="FILE", help="Scenario file (default: the one beside each script)."),
            click.Option(["--unchecked"], is_flag=True, help="Do not run the program; read it again only."),
            click.Option(["--json", "json_"], is_flag=True, help="Print what changes as JSON."),
        ],
    )
    return QUIET(made)


def read(paths: tuple[str, ...]) -> Program:
    from ..core.program.errors import Refused
    from ..core.program.program import find_sources, read_program

    root, files = find_sources(paths)
    program = read_program(root, files)
    for problem in program.problems[:1]:
        raise Refused(f"{problem}; nothing is changed in a file that cannot be read whole.")
    return program


def done(
    single: Single,
    root: str,
    verb: str,
    what: str,
    yes: bool,
    scenarios: str | None,
    unchecked: bool,
    json_: bool,
    quiet: bool,
) -> None:
    """Show the step, ask, run the program before and after, and write it."""
    from ..core.program.errors import Refused

    written = yes
    if not json_ and not quiet:
        click.echo(single.diff, nl=False)
    if not yes and not json_ and sys.stdin.isatty():
        written = click.confirm("Write it?", err=True)
    if written:
        with progress(2, "run", quiet or json_) as advance:
            differed = [] if unchecked else single.check(scenarios, advance)
        if differed:
            raise Refused("\n".join([f"{what}: stays, because the program would do something else:", *differed]))
        single.write()
    if json_:
        as_json({"step": single.step.id, "files": sorted(single.changes), "written": written, "diff": single.diff})
    elif written:
        said = "It was not run (--unchecked)." if unchecked else "The program did the same."
        say(f"{verb} in {', '.join(sorted(single.changes))}. {said} Put back: aedifex undo {root}", quiet)
    else:
        say("Nothing was written; add --yes to write it.", quiet)
