"""``aedifex undo``: put files back."""

from __future__ import annotations

import os
from typing import TYPE_CHECKING

import click

from .common import QUIET, say

if TYPE_CHECKING:
    from ..core.apply.journal import Journal


@click.command(name="undo")
@click.argument("design", required=False)
@click.option("--steps", metavar="N", type=click.IntRange(1), help="How many steps to put back (default: one).")
@click.option("--all", "all_", is_flag=True, help="Put back every step.")
@QUIET
def command(design: str | None, steps: int | None, all_: bool, quiet: bool) -> None:
    """Put files back as they were before the last step, the last N steps, or all of them.

    DESIGN names the project (default: the last steps of the folder you are in); "steps" are those without a design.

    \b
    Example: aedifex undo --steps 2
    """
    from ..core.apply.builder import END
    from ..core.apply.journal import Journal, names
    from ..core.apply.project import PUT_BACK, design_stem
    from ..core.program.errors import AedifexError, Refused
    from ..core.program.language import languages

    if steps and all_:
        raise click.UsageError("give --steps or --all, not both")
    root = (
        os.path.dirname(os.path.abspath(design))
        if design and not os.path.isdir(design)
        else os.path.abspath(design or ".")
    )
    name = design_stem(design) if design and not os.path.isdir(design) else ""
    known = [n for n in names(root) if not name or n == name]
    if design and not known and not os.path.exists(design):
        raise AedifexError(f"{design}: no such file or folder; check the path.")
    stale = [language.write.stale for language in languages().values()]
    if not known:
        raise Refused(f"{os.path.relpath(root)}: nothing was built here, so there is nothing to put back.")
    journals = [Journal(root, n, lambda path: [p for s in stale for p in s(path)]) for n in known]
    active = [j for j in journals if any(e.state != "undone" for e in j.entries())] or journals[:1]
    latest = [j for j in active if j.stands()] if len(active) > 1 else active
    if len(latest) != 1:
        raise AedifexError(
            f"{len(active)} journals of steps are here; name the one to undo: aedifex undo "
            f"{' or '.join(j.name for j in active)}."
        )
    journal = latest[0]
    with journal.locked():
        for sentence in journal.recover():
            say(sentence)
        if journal.put_back_otherwise():
            say(PUT_BACK)
            return
        standing = journal.standing()
        ends = [e for e in standing if e.step == END]
        if not [e for e in standing if e.step != END]:
            raise Refused(nothing_to_undo(journal, design))
        count = None if all_ else (steps or 1) + (1 if ends and standing[-1] is ends[-1] else 0)
        back, gone = journal.undo(count)
    for entry in back:
        if not quiet and entry.step != END:
            click.echo(f"put back  {entry.step:<28}  {', '.join(sorted(entry.files))}")
    for path in gone:
        say(f"Note: {path} was gone already.")


def nothing_to_undo(journal: Journal, design: str | None) -> str:
    """Why there is nothing to put back; where the journal was cut off, how to get the originals all the same."""
    from ..core.apply.journal import FOLDER, STORE

    if not journal.cut_off():
        return "nothing to undo."
    where = os.path.join(FOLDER, STORE)
    path = design if design and os.path.isfile(design) else os.path.join(journal.root, journal.name + ".design.toml")
    lines = [
        f"the journal {FOLDER}/{journal.name}.journal is cut off, so that it is not known which steps stand; every "
        f"text that a file had is kept in {where}."
    ]
    stored = journal.stored()
    sources = originals(path)
    made = sorted(
        n
        for n in os.listdir(journal.root)
        if n not in sources and os.path.isfile(os.path.join(journal.root, n)) and journal.current(n) in stored
    )
    lines += [f"{name}: was written by a step; delete it if it was not there before" for name in made]
    for source, digest in sources.items():
        kept = journal.kept(digest)
        if os.path.exists(kept) and journal.current(source) != digest:
            lines.append(
                f"{source}: is not as it was drafted; its original: cp {os.path.relpath(kept, journal.root)} {source}"
            )
    return "\n".join(lines)


def originals(path: str) -> dict[str, str]:
    """Source → SHA-256 of its text, as a design names them; nothing where it cannot be read."""
    import tomllib

    try:
        with open(path, "rb") as handle:
            sources = tomllib.load(handle).get("sources", {})
    except (OSError, ValueError):
        return {}
    return (
        {s: d.removeprefix("sha256:") for s, d in sources.items() if isinstance(d, str)}
        if isinstance(sources, dict)
        else {}
    )
