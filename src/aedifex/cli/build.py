"""``aedifex build``: the steps in order, each verified and checked."""

from __future__ import annotations

import os
import sys
from typing import TYPE_CHECKING, Any

import click

from .common import DESIGN, QUIET, Bar, as_json, in_columns, progress, say

if TYPE_CHECKING:
    from ..core.apply.builder import Built
    from ..core.apply.project import Project
    from ..core.apply.sequence import Outcome
    from ..core.check.scenarios import Scenario
    from ..core.check.unit_tests import Written


@click.command(name="build")
@DESIGN
@click.option(
    "--until", metavar="STEP", default="", help="Stop after this step (ids as in the output, e.g. found:Tram)."
)
@click.option("--dry-run", is_flag=True, help="Work out and check every step, but write nothing.")
@click.option("--commit", is_flag=True, help="Make one git commit for each step.")
@click.option("--with-changes", is_flag=True, help="With --commit: even if other changes are not committed.")
@click.option(
    "--out", metavar="DIR", help="Build in a copy of the project in this new folder; leave the original alone."
)
@click.option("--tests", metavar="DIR", help="Write unit tests for each class, made of what was seen in its runs.")
@click.option("--scenarios", metavar="FILE", help="Scenario file (default: the one beside the design).")
@click.option(
    "--unchecked",
    is_flag=True,
    help="Do not run the program; read it again only. For programs that cannot be run here.",
)
@click.option("--strict", is_flag=True, help="Make no class of which the scenarios never run something.")
@click.option("--json", "json_", is_flag=True, help="Print the outcome as JSON.")
@QUIET
def command(
    design: str,
    until: str,
    dry_run: bool,
    commit: bool,
    with_changes: bool,
    out: str | None,
    tests: str | None,
    scenarios: str | None,
    unchecked: bool,
    strict: bool,
    json_: bool,
    quiet: bool,
) -> None:
    """Make the classes of DESIGN. After each step the program is read and run again; at the first difference it stops.

    \b
    Example: aedifex build tramline.design.toml
    """
    from ..core.apply.builder import Builder, Options
    from ..core.apply.git import Git
    from ..core.apply.project import open_project

    fit_together(strict, unchecked, tests, dry_run)
    if out is not None:
        design = copied(design, out)
    project = open_project(design, writing=True)
    for sentence in project.said:
        say(sentence)
    ids = ids_of(project, until)
    width = max([34, *(len(i) for i in ids)])
    runs = project.scenarios(scenarios)
    git = Git(project.root, with_changes) if commit and not dry_run else None
    with progress(len(ids), "step", quiet or json_) as advance:

        def tell(outcome: Outcome) -> None:
            advance("")
            if not json_:
                show(outcome, quiet, advance, width)

        options = Options(until, dry_run, not unchecked, git, strict)
        built = Builder(project, runs, options, tell, advance.note).build()
    written = tested(design, runs, tests, quiet or json_) if tests and not built.stopped and not dry_run else None
    if json_:
        as_json(report(built) | ({"tests": written.counts} if written is not None else {}))
    else:
        close(built, len(runs), design, quiet, dry_run, unchecked)
        if written is not None:
            tell_tests(written, tests or "", quiet)
    sys.exit(built.status)


def fit_together(strict: bool, unchecked: bool, tests: str | None, dry_run: bool) -> None:
    """Raises UsageError for options that exclude each other."""
    if strict and unchecked:
        raise click.UsageError("--strict asks what the scenarios run; leave out --unchecked")
    if tests and dry_run:
        raise click.UsageError("--tests needs the classes on disk; leave out --dry-run")


def tell_tests(written: Written, folder: str, quiet: bool) -> None:
    for note in written.notes:
        say(f"Note: {note}")
    for name, count in written.counts.items() if not quiet else ():
        click.echo(
            f"wrote    {os.path.join(folder, name):<34}  {count} "
            f"test{'s' * (count != 1)}{', all of them run' if written.proven else ', not run yet'}"
        )
    if written.command:
        say(f"Run them again: {written.command}", quiet)


def tested(design: str, runs: list[Scenario], folder: str, quiet: bool) -> Written:
    """Unit tests for the classes that stand by now."""
    from ..core.apply.project import open_project
    from ..core.check.unit_tests import write_tests

    project = open_project(design)
    named = {c.name for c in project.design.classes} | {n for p in project.design.parts for n in (p.name, p.of)}
    homes = {name: path for path, file in project.current.files.items() for _, name in file.classes}
    streams = {s.class_: homes[s.class_] for s in project.design.streams if s.class_ in homes}
    homes = {name: path for name, path in homes.items() if name in named}
    with progress(len(runs), "test run", quiet) as advance:
        return write_tests(runs, project.world(), homes, os.path.abspath(folder), advance, streams)


def ids_of(project: Project, until: str) -> list[str]:
    """The steps of a design. Raises AedifexError if ``until`` names none of them."""
    from ..core.program.errors import AedifexError
    from ..core.program.near import perhaps
    from ..core.rewrites.pipeline import steps_of

    ids = [s.id for s in steps_of(project.design, project.original)]
    if until and until not in ids:
        raise AedifexError(
            f"{project.path}: has no step '{until}'{perhaps(until, ids) or '; its steps are ' + ', '.join(ids)}."
        )
    return ids


def copied(design: str, out: str) -> str:
    """Copy the project to a new folder; the path of the design there."""
    from ..core.apply.project import open_project
    from ..core.program.atomic import replace
    from ..core.program.errors import Refused
    from ..core.program.snapshot import BUILT_COPY

    project = open_project(design)
    if os.path.lexists(out) and (not os.path.isdir(out) or os.listdir(out)):
        raise Refused(f"{out}: is there already and not empty; name a new folder.")
    if os.path.isdir(out):
        os.rmdir(out)
    project.original_world().lay_out(os.path.abspath(out), [], pinned=False)
    mark = os.path.join(out, BUILT_COPY)
    os.makedirs(os.path.dirname(mark), exist_ok=True)
    replace(
        mark,
        f"Copied from {os.path.relpath(project.root, out)}; not read as a part of what lies around it.\n".encode(),
        None,
    )
    return os.path.join(out, os.path.basename(design))


MARKS = {"done": "done   ", "refused": "refused", "skipped": "skipped", "wrong": "refused", "different": "stopped"}


def show(outcome: Outcome, quiet: bool, bar: Bar, width: int) -> None:
    if outcome.result == "nothing" or (quiet and outcome.result == "done"):
        return
    mark = "  (no scenario reaches it)" if outcome.unreached and outcome.result == "done" else ""
    bar.echo(f"{MARKS[outcome.result]}  {outcome.step.id:<{width}}  {outcome.step.title()}{mark}")
    if outcome.refusal is not None:
        bar.echo(in_columns(f"because: {outcome.refusal.with_code}", " " * 9))


def close(built: Built, runs: int, design: str, quiet: bool, dry: bool, unchecked: bool) -> None:
    """What stopped the build, or what stands now."""
    for note in built.notes:
        say(f"Note: {note}")
    done = sum(1 for o in built.outcomes if o.result == "done")
    if built.stopped:
        unwanted = (
            "every step stands, but not what the scenarios expect"
            if built.stopped == "the end"
            else "that step is put back, the earlier ones stand"
        )
        click.echo(f"Stopped at {built.stopped}; {unwanted}. What differed:")
        for line in built.difference:
            click.echo(f"  {line}")
    elif not done and not any(o.refusal for o in built.outcomes) and built.outcomes:
        say("Nothing to do: the design proposes no class.", quiet)
    elif built.reached:
        say(f"Nothing to do: {built.reached} stands already.", quiet)
    elif not built.outcomes:
        say("Nothing to do: this design is built already.", quiet)
    else:
        times = f"{runs} scenario{'s' * (runs != 1)}"
        same = (
            "It was not run (--unchecked)." if unchecked else f"The program did the same after each of them ({times})."
        )
        say(
            f"{done} step{'s' * (done != 1)} {'would be done' if dry else 'done'}. {same if done else ''}".rstrip(),
            quiet,
        )
        say(built.reach, quiet or not built.reach)
        if done and not dry:
            say(f"Put back: aedifex undo --all {design}", quiet)


def report(built: Built) -> dict[str, Any]:
    return {
        "status": built.status,
        "stopped": built.stopped or None,
        "difference": built.difference,
        "notes": built.notes,
        "reach": built.never or None,
        "steps": [
            {
                "id": o.step.id,
                "title": o.step.title(),
                "result": o.result,
                "unreached": o.unreached,
                "because": str(o.refusal) if o.refusal else None,
                "refusal": o.refusal.as_json() if o.refusal else None,
                "files": sorted(o.changes),
            }
            for o in built.outcomes
        ],
    }
