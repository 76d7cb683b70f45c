"""The preview as text: outline, figures before and after, what would be refused."""

from __future__ import annotations

from typing import Any

from rich.console import Console
from rich.markup import escape
from rich.table import Table

ROWS = [
    ("files", "files"), ("lines", "lines"), ("globals", "globals that change"), ("constants", "constants"),
    ("main_statements", "statements in main"), ("functions", "functions and methods"), ("classes", "classes"),
    ("longest", "longest function, lines"), ("nesting", "deepest nesting"), ("cohesion", "cohesion of classes"),
    ("coupling", "names imported among files"),
]  # fmt: skip


def figures_table(before: dict[str, Any], after: dict[str, Any]) -> Table:
    """Figures before and after, side by side."""
    table = Table(box=None, pad_edge=False, header_style="bold")
    table.add_column("figure")
    table.add_column("before", justify="right")
    table.add_column("after", justify="right")
    for key, label in ROWS:
        old, new = before[key], after[key]
        table.add_row(label, "-" if old is None else str(old), "-" if new is None else str(new))
    return table


def show(console: Console, seen: Any, quiet: bool = False) -> None:
    """Print what a build would do."""
    for c in seen.classes:
        kind = f" ({c.role})" if c.role else ""
        kept = (
            f", kept {'in' if c.objects[0].startswith('the list ') else 'as'} {', '.join(c.objects)}"
            if c.objects
            else ""
        )
        console.print(f"[bold]{escape(c.name)}[/]{escape(kind)}  in {escape(c.file)}{escape(kept)}")
        console.print(f"  constructor takes {escape(', '.join(c.made_with)) or 'no arguments'}")
        for index, (method, doc) in enumerate(c.can):
            console.print(
                f"  {'can' if index == 0 else '   '}        {escape(method)}"
                + (f"  [dim]{escape(doc)}[/]" if doc else "")
            )
        console.print()
    if not seen.classes:
        console.print("No class would be made.\n")
    for o in seen.refused:
        console.print(
            f"[red]{o.result}[/]  {escape(o.step.id)}: {escape(o.step.title())}\n         because: "
            f"{escape(o.refusal.with_code)}"
        )
    if seen.refused:
        console.print()
    for sentence in seen.assumed if seen.classes else ():
        console.print(f"[dim]assumed:[/] {escape(sentence)}")
    if seen.assumed and seen.classes:
        console.print()
    if not quiet:
        console.print(figures_table(seen.before.as_json(), seen.after.as_json()))
