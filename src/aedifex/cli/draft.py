"""``aedifex draft``: propose classes and write the design file."""

from __future__ import annotations

import os
from typing import TYPE_CHECKING

import click

from .common import QUIET, console, replace_keeping, say

if TYPE_CHECKING:
    from ..core.design.tables import Design, WishDesign
    from ..core.planning.wishes import Placed
    from ..core.program.program import Program


@click.command(name="draft")
@click.argument("paths", nargs=-1, required=True)
@click.option("-o", "--output", metavar="FILE", help="Where to write the design (default: beside the script).")
@click.option(
    "--keep", multiple=True, metavar="NAME", help="A variable or function that must stay where it is. Repeatable."
)
@click.option("--together", multiple=True, metavar="CLASS=A,B", help="Variables that belong in one class. Repeatable.")
@click.option(
    "--rivals",
    type=click.IntRange(2, 3),
    metavar="N",
    help="Write up to N proposals (2 or 3) that differ, and compare them.",
)
@click.option("--again", is_flag=True, help="Replace a design that is there already, wishes kept.")
@QUIET
def command(
    paths: tuple[str, ...],
    output: str | None,
    keep: tuple[str, ...],
    together: tuple[str, ...],
    rivals: int | None,
    again: bool,
    quiet: bool,
) -> None:
    """Propose classes for the scripts at PATHS and write them to a design file, with reasons.

    The file is meant to be read and edited.

    \b
    Example: aedifex draft tramline.py
    """
    from ..core.analysis.entries import starting
    from ..core.apply.project import DESIGN
    from ..core.planning.drafter import draft
    from ..core.planning.wishes import merged_wishes, unfulfilled, wish_mistakes
    from ..core.program.errors import AedifexError, Refused
    from ..core.program.program import find_sources, read_program

    root, files = find_sources(paths)
    several = read_program(root, files) if len(files) > 1 and not output else None
    first = next(iter(starting(several)), files[0]) if several is not None else files[0]
    target = (
        os.path.abspath(output) if output else os.path.join(root, os.path.splitext(os.path.basename(first))[0] + DESIGN)
    )
    base = os.path.dirname(target)
    if os.path.commonpath([base, root]) != base:
        raise AedifexError(
            f"{output}: the design must lie in the folder of the scripts or above it; choose another place."
        )
    files = [os.path.relpath(os.path.join(root, f), base).replace(os.sep, "/") for f in files]
    wishes = kept_wishes(target, again) + asked(keep, together)
    others = [target.removesuffix(DESIGN) + f".rival{n}{DESIGN}" for n in range(2, (rivals or 1) + 1)]
    for other in others:
        kept_wishes(other, again)  # raises Refused where one is there
    program = several or read_program(base, files)
    for problem in program.problems:
        say(f"aedifex: {problem}; nothing will be rewritten in this file", quiet)
    if all(f.problems for f in program.files.values()):
        raise AedifexError(f"{program.problems[0]}; correct the syntax, then draft again.")
    if wrong := wish_mistakes(program, wishes):
        raise AedifexError("\n".join(r.told() for r in wrong))
    wanted = merged_wishes([w.wish for w in wishes])
    design = draft(program, wishes=wanted)
    if refused := unfulfilled(design, wishes):
        raise Refused("\n".join(r.told() for r in refused) + "\nNothing was written; change the wish.")
    if rivals:
        write_rivals(program, wanted, [target, *others], quiet)
    else:
        write(target, program, design, quiet)


def write(target: str, program: Program, design: Design, quiet: bool) -> None:
    from ..core.apply.advice import advice
    from ..core.apply.project import offer_schema
    from ..core.design.toml import to_toml
    from ..core.planning.summary import summary

    offer_schema(os.path.dirname(target))
    replace_keeping(target, to_toml(design).encode(), quiet)
    if not quiet:
        shown = os.path.relpath(target)
        for line in summary(design):
            click.echo(line)
        if text := advice(program, design):
            click.echo(text)
        say(f"Wrote {shown}. Read and edit it, then: aedifex preview {shown}")


def write_rivals(program: Program, wishes: list[WishDesign], targets: list[str], quiet: bool) -> None:
    """Write proposals that differ, each to a file of its own, and compare them."""
    from ..core.apply.project import offer_schema
    from ..core.apply.scores import weigh
    from ..core.design.toml import to_toml
    from ..core.planning.alternatives import rivals
    from ..views.rivals import show

    offer_schema(os.path.dirname(targets[0]))
    rows = []
    for target, rival in zip(targets, rivals(program, wishes, len(targets)), strict=False):
        replace_keeping(target, to_toml(rival.design).encode(), quiet)
        rows.append((os.path.relpath(target), weigh(program, rival)))
    if not quiet:
        show(console(), rows, len(targets))
        say(f"Wrote {', '.join(p for p, _ in rows)}. Look at one: aedifex preview {rows[0][0]}")


def kept_wishes(target: str, again: bool) -> list[Placed]:
    """The wishes in a design that is there already. Raises Refused unless it may be replaced."""
    from ..core.design.toml import parse
    from ..core.planning.wishes import wishes_placed
    from ..core.program.errors import Refused

    if not os.path.lexists(target):
        return []
    shown = os.path.relpath(target)
    if not again:
        raise Refused(f"{shown}: is there already; edit it, or add --again to draft anew (wishes are kept).")
    with open(target, encoding="utf-8") as handle:
        design, lines, _ = parse(shown, handle.read())
    return wishes_placed(shown, design, lines)


def asked(keep: tuple[str, ...], together: tuple[str, ...]) -> list[Placed]:
    """The wishes of the command line. Raises click.BadParameter for one that cannot be read."""
    from ..core.design.origin import as_origins
    from ..core.design.tables import WishDesign
    from ..core.planning.wishes import Placed

    wishes = [Placed(WishDesign(keep=as_origins(k)), f"--keep {k}") for k in keep]
    for entry in together:
        name, equals, rest = entry.partition("=")
        names = [n.strip() for n in rest.split(",") if n.strip()]
        if not equals or not name.strip() or not names:
            raise click.BadParameter(f"'{entry}' is not of the form Class=a,b,c", param_hint="--together")
        wishes.append(
            Placed(WishDesign(together=as_origins(*names), class_=name.strip()), f"--together {name.strip()}")
        )
    return wishes
