"""``aedifex undo``: put files back."""

from __future__ import annotations

import click

from .common import QUIET, say


@click.command(name="undo")
@click.argument("design", required=False)
@click.option("--steps", metavar="N", type=click.IntRange(1), help="How many steps to put back (default: one).")
@click.option("--all", "all_", is_flag=True, help="Put back every step.")
@QUIET
def command(design: str | None, steps: int | None, all_: bool, quiet: bool) -> None:
    """Put files back as they were before the last step, the last N steps, or all of them.

    DESIGN names the project (default: the folder you are in). Example: aedifex undo --steps 2
    """
    import os

    from ..core.build.builder import END
    from ..core.build.journal import Journal
    from ..core.program.errors import AedifexError, Refused
    from ..core.program.language import languages

    if steps and all_:
        raise click.UsageError("give --steps or --all, not both")
    root = (
        os.path.dirname(os.path.abspath(design))
        if design and not os.path.isdir(design)
        else os.path.abspath(design or ".")
    )
    if design and not os.path.exists(design):
        raise AedifexError(f"{design}: no such file or folder; check the path.")
    stale = [language.write.stale for language in languages().values()]
    journal = Journal(root, lambda path: [p for s in stale for p in s(path)])
    if not journal.entries():
        raise Refused(f"{os.path.relpath(root)}: nothing was built here, so there is nothing to put back.")
    with journal.locked():
        for sentence in journal.recover():
            say(sentence)
        standing = journal.standing()
        ends = [e for e in standing if e.step == END]
        if not [e for e in standing if e.step != END]:
            raise Refused("every step is put back already.")
        count = None if all_ else (steps or 1) + (1 if ends and standing[-1] is ends[-1] else 0)
        gone = [e for e in journal.undo(count) if e.step != END]
    for entry in gone:
        if not quiet:
            click.echo(f"put back  {entry.step:<28}  {', '.join(sorted(entry.files))}")
