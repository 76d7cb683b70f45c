"""What the commands share: output, progress, options."""

from __future__ import annotations

import contextlib
import os
import sys
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Any

import click

if TYPE_CHECKING:
    from rich.console import Console

QUIET = click.option("--quiet", "-q", is_flag=True, help="Say only what is wrong.")
DESIGN = click.argument("design", type=click.Path(dir_okay=True))


def console(error: bool = False, width: int | None = None) -> Console:
    """Colour only on a terminal, and never with NO_COLOR."""
    from rich.console import Console

    stream = sys.stderr if error else sys.stdout
    wide = width or (None if stream.isatty() else 120)
    return Console(file=stream, highlight=False, soft_wrap=False, width=wide, no_color="NO_COLOR" in os.environ or None)


def say(text: str, quiet: bool = False) -> None:
    """A remark on what is going on, on stderr."""
    if not quiet:
        click.echo(text, err=True)


@contextlib.contextmanager
def progress(total: int, what: str, quiet: bool) -> Iterator[Callable[[str], None]]:
    """A bar on a terminal's stderr; nothing elsewhere."""
    if quiet or not sys.stderr.isatty():
        yield lambda name: None
        return
    from rich.progress import Progress

    with Progress(console=console(error=True), transient=True) as bar:
        task = bar.add_task(what, total=total)

        def advance(name: str) -> None:
            bar.update(task, advance=1, description=f"{what}: {name}")

        yield advance


def as_json(value: Any) -> None:
    import json

    click.echo(json.dumps(value, indent=2, ensure_ascii=False))
