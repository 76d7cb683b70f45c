"""``aedifex preview``: what a design would make of the program."""

from __future__ import annotations

import sys

import click

from .common import DESIGN, QUIET, as_json, console, say


@click.command(name="preview")
@DESIGN
@click.option("--diff", is_flag=True, help="Print a unified diff that 'git apply' takes, and nothing else.")
@click.option("--json", "json_", is_flag=True, help="Print outline and figures as JSON.")
@QUIET
def command(design: str, diff: bool, json_: bool, quiet: bool) -> None:
    """Show what DESIGN would make of the program: outline, units before and after, figures. Writes nothing.

    Once the scenarios are recorded, it also says what of the code that moves they reach.

    \b
    Example: aedifex preview tramline.design.toml --diff | less
    """
    from ..core.apply.outline import foresee
    from ..core.apply.project import open_project
    from ..core.apply.reach import as_json as reach_json
    from ..core.apply.reach import moving, reach_sentence
    from ..core.design.tables import Design
    from ..core.planning.objective import objective
    from ..views import objective as objective_view
    from ..views.preview import show

    project = open_project(design)
    seen = foresee(project)
    runs = project.recorded(project.scenarios())
    stretches = moving(project.design, project.original) if runs else []
    if diff:
        click.echo(seen.diff.encode("utf-8", "surrogateescape"), nl=False)
        for o in seen.refused:
            say(f"{o.step.id}: {o.refusal.with_code if o.refusal else ''}")
    elif json_:
        costs = {"objective": [t.as_json() for t in objective(project.original, project.design)]}
        as_json(seen.as_json() | costs | ({"reach": reach_json(stretches, runs)} if runs else {}))
    else:
        show(console(), seen, quiet)
        terms = [] if quiet else objective(project.original, project.design)
        if terms:
            as_it_is = objective(project.original, Design(project.design.language, [], {}))
            click.echo()
            objective_view.show(console(), [("before", as_it_is), ("after", terms)])
        if runs and (sentence := reach_sentence(stretches, runs)):
            say(f"\n{sentence}", quiet)
    sys.exit(1 if seen.refused else 0)
