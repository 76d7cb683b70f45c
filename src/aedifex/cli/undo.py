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

    DESIGN names the project (default: the folder you are in).

    \b
    Example: aedifex undo --steps 2
    """
    import os

    from ..core.build.builder import END
    from ..core.build.journal import Journal, names
    from ..core.build.project import stem_of
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
    name = stem_of(design) if design and not os.path.isdir(design) else ""
    known = [n for n in names(root) if not name or n == name]
    if not known:
        raise Refused(f"{os.path.relpath(root)}: nothing was built here, so there is nothing to put back.")
    journals = [Journal(root, n, lambda path: [p for s in stale for p in s(path)]) for n in known]
    active = [j for j in journals if any(e.state != "undone" for e in j.entries())] or journals[:1]
    if len(active) > 1:
        raise AedifexError(
            f"{len(active)} designs were built here; name the one to undo ({', '.join(j.name for j in active)})."
        )
    journal = active[0]
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
