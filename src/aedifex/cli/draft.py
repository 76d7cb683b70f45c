"""``aedifex draft``: propose classes and write the design file."""

from __future__ import annotations

import os
from typing import TYPE_CHECKING, Any

import click

from .common import QUIET, console, replace_keeping, say
from .draft_ask import gone_through, needs_terminal

if TYPE_CHECKING:
    from ..core.design.tables import Design, WishDesign
    from ..core.planning.objective import Term
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
    "--arguments", multiple=True, metavar="A,B", help="Variables whose first values a constructor is given. Repeatable."
)
@click.option(
    "--fixed", multiple=True, metavar="A,B", help="Variables whose first values a constructor sets itself. Repeatable."
)
@click.option("--collect", multiple=True, metavar="CLASS", help="Keep the objects of CLASS in a list. Repeatable.")
@click.option(
    "--rivals",
    type=click.IntRange(2, 3),
    metavar="N",
    help="Write up to N proposals (2 or 3) that differ, and compare them.",
)
@click.option("--ask", is_flag=True, help="Go through the proposal on the terminal, class by class.")
@click.option("--anyway", is_flag=True, help="Write the proposal also where classes would cost more than they bring.")
@click.option("--again", is_flag=True, help="Replace a design that is there already, wishes kept.")
@QUIET
def command(
    paths: tuple[str, ...],
    output: str | None,
    keep: tuple[str, ...],
    together: tuple[str, ...],
    arguments: tuple[str, ...],
    fixed: tuple[str, ...],
    collect: tuple[str, ...],
    rivals: int | None,
    ask: bool,
    anyway: bool,
    again: bool,
    quiet: bool,
) -> None:
    """Propose classes for the scripts at PATHS and write them to a design file, with reasons.

    The file is meant to be read and edited.

    \b
    Example: aedifex draft tramline.py
    """
    from ..core.analysis.entries import starting
    from ..core.program.program import find_sources, read_program

    if ask:
        needs_terminal()
        if rivals:
            raise click.UsageError("--ask and --rivals do not go together; choose one of the two.")
    root, files = find_sources(paths)
    several = read_program(root, files) if len(files) > 1 and not output else None
    first = next(iter(starting(several)), files[0]) if several is not None else files[0]
    target = target_of(output, root, first)
    base = os.path.dirname(target)
    files = [os.path.relpath(os.path.join(root, f), base).replace(os.sep, "/") for f in files]
    wishes = kept_wishes(target, again) + asked(keep, together, arguments, fixed, collect)
    others = rival_targets(target, rivals)
    for other in others:
        kept_wishes(other, again)  # raises Refused where one is there
    program = several or read_program(base, files)
    for problem in program.problems:
        say(f"aedifex: {problem}; nothing will be rewritten in this file", quiet)
    design = wished_draft(program, wishes, ask)
    if design.classes and not (wishes or ask or rivals or anyway) and not_worth_it(program, design, quiet):
        return
    if rivals:
        write_rivals(program, design.wishes, [target, *others], quiet)
    else:
        write(target, program, design, quiet)


def target_of(output: str | None, root: str, first: str) -> str:
    """Where the design goes. Raises AedifexError for a place beside the folder of the scripts."""
    from ..core.apply.project import DESIGN
    from ..core.program.errors import AedifexError

    beside = os.path.join(root, os.path.splitext(os.path.basename(first))[0] + DESIGN)
    target = os.path.abspath(output) if output else beside
    base = os.path.dirname(target)
    if os.path.commonpath([base, root]) != base:
        raise AedifexError(
            f"{output}: the design must lie in the folder of the scripts or above it; choose another place."
        )
    return target


def rival_targets(target: str, rivals: int | None) -> list[str]:
    from ..core.apply.project import DESIGN

    return [target.removesuffix(DESIGN) + f".rival{n}{DESIGN}" for n in range(2, (rivals or 1) + 1)]


def wished_draft(program: Program, wishes: list[Placed], ask: bool) -> Design:
    """The proposal. Raises AedifexError for what cannot be read, and Refused for what it cannot do."""
    from ..core.planning.conversation import Conversation
    from ..core.planning.drafter import draft
    from ..core.planning.wishes import merged_wishes, unfulfilled, wish_mistakes
    from ..core.program.errors import AedifexError, Refused

    if all(f.problems for f in program.files.values()):
        raise AedifexError(f"{program.problems[0]}; correct the syntax, then draft again.")
    if wrong := wish_mistakes(program, wishes):
        raise AedifexError("\n".join(r.told() for r in wrong))
    design = draft(program, wishes=merged_wishes([w.wish for w in wishes]))
    if refused := unfulfilled(design, wishes):
        raise Refused("\n".join(r.told() for r in refused) + "\nNothing was written; change the wish.")
    return gone_through(Conversation(program, design, wishes)) if ask else design


def not_worth_it(program: Program, design: Design, quiet: bool) -> bool:
    """Whether the program had better stay as it is; says so."""
    from ..core.apply.advice import advice
    from ..core.design.tables import Design
    from ..core.planning.objective import objective, worth_it
    from ..core.planning.summary import summary
    from ..views.objective import show

    if worth_it(program, design) or not advice(program, design):
        return False
    if not quiet:
        for line in summary(design):
            click.echo(line)
        click.echo("Leave it as it is: these classes would cost more than they bring.\n")
        nothing = objective(program, Design(design.language, [], {}))
        show(console(), [("as it is", nothing), ("proposed", objective(program, design))])
    say("Nothing was written; add --anyway to have the design all the same.", quiet)
    return True


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
    from ..core.planning.objective import objective
    from ..views import objective as objective_view
    from ..views.rivals import show

    offer_schema(os.path.dirname(targets[0]))
    rows: list[tuple[str, Any]] = []
    terms: list[tuple[str, list[Term]]] = []
    for target, rival in zip(targets, rivals(program, wishes, len(targets)), strict=False):
        replace_keeping(target, to_toml(rival.design).encode(), quiet)
        rows.append((os.path.relpath(target), weigh(program, rival)))
        terms.append((str(len(rows)), objective(program, rival.design)))
    if not quiet:
        show(console(), rows, len(targets))
        click.echo()
        objective_view.show(console(), terms)
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


def asked(
    keep: tuple[str, ...],
    together: tuple[str, ...],
    arguments: tuple[str, ...],
    fixed: tuple[str, ...],
    collect: tuple[str, ...],
) -> list[Placed]:
    """The wishes of the command line. Raises click.BadParameter for one that cannot be read."""
    from ..core.design.origin import as_origins
    from ..core.design.tables import WishDesign
    from ..core.planning.wishes import Placed

    wishes = [Placed(WishDesign(keep=as_origins(k)), f"--keep {k}") for k in keep]
    for entry in together:
        name, equals, rest = entry.partition("=")
        names = listed(rest)
        if not equals or not name.strip() or not names:
            raise click.BadParameter(f"'{entry}' is not of the form Class=a,b,c", param_hint="--together")
        wishes.append(
            Placed(WishDesign(together=as_origins(*names), class_=name.strip()), f"--together {name.strip()}")
        )
    wishes += [Placed(WishDesign(arguments=as_origins(*listed(e))), f"--arguments {e}") for e in arguments]
    wishes += [Placed(WishDesign(fixed=as_origins(*listed(e))), f"--fixed {e}") for e in fixed]
    return wishes + [Placed(WishDesign(collect=listed(e)), f"--collect {e}") for e in collect]


def listed(text: str) -> list[str]:
    """The names in a text with commas between."""
    return [n.strip() for n in text.split(",") if n.strip()]
