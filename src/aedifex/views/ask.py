"""One name as text: facts, what would become of it, every reference."""

from __future__ import annotations

from typing import Any

from rich.console import Console
from rich.markup import escape


def show(console: Console, answers: list[Any], becomes: list[str], quiet: bool = False) -> None:
    """Print what a program says of a name."""
    for a in answers:
        console.print(f"[bold]{escape(a.name)}[/]  {escape(a.kind)} in {escape(a.path)}")
        for fact in a.facts:
            console.print(f"  {escape(fact)}")
        for sentence in becomes:
            console.print(f"  [green]draft[/]: {escape(sentence)}")
        for h in a.hazards:
            console.print(f"  [red]hazard[/]: {escape(h)}")
        if not quiet:
            holders: dict[str, list[str]] = {}
            for line, role, holder in a.references:
                holders.setdefault(holder, []).append(f"{line} {role}")
            for holder, rows in holders.items():
                listed = ", ".join(rows)
                console.print(f"  [dim]{escape(holder)}[/]: {escape(listed)}")
