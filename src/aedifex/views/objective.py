"""What speaks against a proposal, term by term, beside others."""

from __future__ import annotations

from collections.abc import Sequence

from rich.console import Console
from rich.markup import escape
from rich.table import Table

from ..core.planning.objective import Term, cost


def show(console: Console, columns: Sequence[tuple[str, Sequence[Term]]]) -> None:
    """``columns``: what is compared, and its terms. A cell is what the term costs: count times weight."""
    table = Table(box=None, pad_edge=False, header_style="bold")
    table.add_column("what it costs")
    for label, _ in columns:
        table.add_column(escape(label), justify="right")
    for says in dict.fromkeys(t.says for _, terms in columns for t in terms):
        costs = [next((t.cost for t in terms if t.says == says), 0.0) for _, terms in columns]
        table.add_row(escape(says), *(f"{round(c, 2):g}" if c else "-" for c in costs))
    table.add_row("[bold]together[/]", *(f"[bold]{cost(terms):g}[/]" for _, terms in columns))
    console.print(table)
