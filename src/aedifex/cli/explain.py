"""``aedifex explain``: what the code behind a refusal means."""

from __future__ import annotations

import click

from .common import QUIET, as_json

WIDTH = 88  # columns of running text


@click.command(name="explain")
@click.argument("code", required=False)
@click.option("--json", "json_", is_flag=True, help="Print the explanation as JSON.")
@QUIET
def command(code: str | None, json_: bool, quiet: bool) -> None:
    """Say what CODE means, with an example before and after, and what to do about it.

    The code stands in brackets at the end of what was refused. Without CODE, all codes are listed.

    \b
    Example: aedifex explain read-late
    """
    from dataclasses import asdict

    from ..core.apply.explanations import codes, explain
    from ..core.program.errors import AedifexError
    from ..core.program.near import perhaps

    if code is None:
        as_json(codes()) if json_ else click.echo("\n".join(codes()))
        return
    found = explain(code.strip("[]"))
    if found is None:
        raise AedifexError(f"'{code}' is not a code{perhaps(code, codes())}; 'aedifex explain' lists them.")
    if json_:
        as_json(asdict(found))
        return
    if found.sentence:
        click.echo(f"{found.code}: {found.sentence.replace('{', '<').replace('}', '>')}\n")
    click.echo(click.wrap_text(found.means, WIDTH) + "\n")
    for title, text in (("Before", found.before), ("After", found.after)):
        click.echo(f"{title}:\n" + "".join(f"    {line}".rstrip() + "\n" for line in text.splitlines()))
    click.echo(click.wrap_text(f"What to do: {found.do}", WIDTH))
