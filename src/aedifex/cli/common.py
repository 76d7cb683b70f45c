"""What the commands share: output, progress, options."""

from __future__ import annotations

import contextlib
import os
import sys
from collections.abc import Iterator
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
    asked = os.environ.get("COLUMNS", "")
    wide = width or (None if stream.isatty() else int(asked) if asked.isdigit() and int(asked) >= 40 else 120)
    return Console(
        file=stream,
        highlight=False,
        soft_wrap=False,
        emoji=False,
        width=wide,
        no_color="NO_COLOR" in os.environ or None,
    )


def say(text: str, quiet: bool = False) -> None:
    """A remark on what is going on, on stderr."""
    if not quiet:
        click.echo(text, err=True)


def replace_keeping(target: str, data: bytes, quiet: bool = False) -> None:
    """Write a file that people edit. What stood there stays beside it, as ``<name>.old``, ``.old2``, ..., unless it is
    the same or kept already."""
    from ..core.program.atomic import replace

    if os.path.isfile(target):
        with open(target, "rb") as handle:
            stood = handle.read()
        kept = copies(target)
        if stood != data and stood not in kept:
            copy = copy_name(target, len(kept))
            replace(copy, stood, None)
            say(f"What stood in {os.path.relpath(target)} is kept as {os.path.relpath(copy)}.", quiet)
    replace(target, data, None)


def copy_name(target: str, number: int) -> str:
    return f"{target}.old{number + 1 if number else ''}"


def copies(target: str) -> list[bytes]:
    """What earlier copies of a file hold, oldest first."""
    found: list[bytes] = []
    while os.path.lexists(path := copy_name(target, len(found))):
        with open(path, "rb") as handle:
            found.append(handle.read())
    return found


class Bar:
    """A progress bar on a terminal's stderr, ``step 7 of 38 · 0:40 left``; nothing elsewhere. Calling it tells that one
    more is done."""

    def __init__(self, total: int, what: str, quiet: bool) -> None:
        self.bar: Any = None
        if not quiet and sys.stderr.isatty():
            from rich.progress import BarColumn, Progress, TextColumn

            plain = BarColumn(style="dim", complete_style="default", finished_style="default", pulse_style="default")
            text = TextColumn(
                "{task.fields[what]} {task.fields[number]} of {task.total}{task.fields[left]}  "
                "[dim]{task.fields[note]}[/]",
                style="default",
            )
            self.bar = Progress(plain, text, console=console(error=True), transient=True)
            self.task = self.bar.add_task("", total=total, what=what, number=min(1, total), left="", note="")

    def __call__(self, name: str) -> None:
        if self.bar is not None:
            task = self.bar.tasks[self.task]
            self.bar.update(self.task, advance=1)
            left = task.time_remaining
            self.bar.update(
                self.task,
                number=min(int(task.completed) + 1, int(task.total or 0)),
                left=f" · {int(left) // 60}:{int(left) % 60:02} left" if left else "",
            )
            self.note(name)

    def note(self, name: str) -> None:
        """What is going on, without anything being done."""
        if self.bar is not None:
            from rich.markup import escape

            self.bar.update(self.task, note=escape(name))

    def echo(self, text: str) -> None:
        """A line of the result, clear of the bar."""
        if self.bar is not None:
            self.bar.stop()
        click.echo(text)
        if self.bar is not None:
            self.bar.start()


@contextlib.contextmanager
def progress(total: int, what: str, quiet: bool) -> Iterator[Bar]:
    """A bar for work of so many steps; none where output is no terminal or nobody wants to see it."""
    bar = Bar(total, what, quiet)
    try:
        if bar.bar is not None:
            bar.bar.start()
        yield bar
    finally:
        if bar.bar is not None:
            bar.bar.stop()


def in_columns(text: str, lead: str) -> str:
    """A paragraph behind a margin, in lines as wide as the terminal; one line where nobody looks."""
    import shutil
    import textwrap

    if not sys.stdout.isatty():
        return lead + text
    width = max(40, shutil.get_terminal_size().columns)
    return textwrap.fill(
        text, width, initial_indent=lead, subsequent_indent=lead, break_on_hyphens=False, break_long_words=False
    )


def as_json(value: Any) -> None:
    """Print a value as JSON."""
    import json

    click.echo(json.dumps(value, indent=2, ensure_ascii=False))
