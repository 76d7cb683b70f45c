"""Several proposals in one table."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from rich.console import Console
from rich.markup import escape
from rich.table import Table

from ..core.planning.alternatives import IDEAS

COLUMNS = [
    ("cohesion", "cohesion"), ("coupling", "coupling"), ("across", "calls\nacross"), ("globals", "globals\nleft"),
    ("main", "main,\nstatements"), ("lines", "lines"),
]  # fmt: skip


def show(console: Console, rows: Sequence[tuple[str, Any]], wanted: int) -> None:
    """``rows``: the file of each proposal, and what it would come to."""
    table = Table(box=None, pad_edge=False, header_style="bold")
    table.add_column("", justify="right")
    table.add_column("classes", overflow="fold")
    for _, label in COLUMNS:
        table.add_column(label, justify="right")
    for number, (_, weighed) in enumerate(rows, 1):
        figures = weighed.as_json()
        cells = ["-" if figures[key] is None else str(figures[key]) for key, _ in COLUMNS]
        table.add_row(str(number), escape(", ".join(weighed.classes)) or "none", *cells)
    console.print(table)
    console.print()
    for number, (path, weighed) in enumerate(rows, 1):
        console.print(f"{number}  {escape(path)}: {IDEAS[weighed.idea]}")
    for path, weighed in rows:
        for reason in weighed.refused:
            console.print(f"[red]refused[/]  {escape(path)}: {escape(reason)}")
    if len(rows) < wanted:
        console.print(f"Only {len(rows)} of {wanted}: other ideas come to the same classes." if len(rows) > 1 else
                      "There is no rival: every other idea comes to the same classes.")  # fmt: skip
