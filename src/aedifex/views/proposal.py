"""A proposed class as one reads it before saying yes: what it is made of, and where each value comes from."""

from __future__ import annotations

from collections.abc import Iterable

from rich.console import Console
from rich.markup import escape
from rich.table import Table

from ..core.design.tables import ClassDesign, Design, FieldDesign, MethodDesign

HELP = [
    ("keep", "take this class as it is (or press Enter)"),
    ("name Tram", "call the class Tram"),
    ("move x Tram", "give a field or method to another class, or to a new one"),
    ("out x", "leave a variable or function as it stands; 'out' alone: the whole class"),
    ("argument x", "the constructor is given the first value of x"),
    ("fixed x", "the constructor sets x by itself"),
    ("list", "keep the objects in a list"),
    ("apart", "keep each object in a variable"),
    ("why", "the reasons for this class"),
    ("back", "take the last answer back"),
    ("rest", "take all that follows as it is, and write the design"),
    ("quit", "end, and write nothing"),
]


def outline(console: Console, design: Design) -> None:
    """All classes in a line each."""
    for c in design.classes:
        console.print(f"[bold]{escape(c.name)}[/]{kept(c)}: {escape(members_in_short(c))}")


def members_in_short(c: ClassDesign) -> str:
    made = [f"{f.name} (argument)" if f.start == "argument" else f.name for f in c.fields]
    return "; ".join(x for x in (", ".join(made), ", ".join(f"{m.name}()" for m in c.methods)) if x) or "no members"


def kept(c: ClassDesign) -> str:
    names = ", ".join(o.name for o in c.objects)
    if c.kept_in:
        return f" [dim]{len(c.objects)} in the list {escape(c.kept_in)}[/]"
    return f" [dim]{escape(names)}[/]" if names else ""


def show(console: Console, c: ClassDesign, number: int, count: int) -> None:
    """One class, its members in a table: what each was, and where its first value comes from."""
    console.print(
        f"\n{number} of {count}  [bold]{escape(c.name)}[/]{kept(c)}" + (f" in {escape(c.file)}" if c.file else "")
    )
    if c.existing:
        console.print("  stands already, and gains")
    if c.wraps:
        console.print(f"  holds what {escape(', '.join(dict.fromkeys(o.name for o in c.wraps)))} held")
    table = Table(box=None, pad_edge=False, show_header=False, padding=(0, 2, 0, 0))
    for f in c.fields:
        table.add_row("  field", escape(f.name), was(f.name, f), escape(first_value(c, f)))
    for m in c.methods:
        lines = ", ".join(text.split(":")[-1] for text in (m.told or m.lines))
        word = "lines" if "-" in lines or "," in lines else "line"
        parameters = ", ".join(a["name"] for a in m.add)
        origin = f"[dim]{word} {escape(lines)}[/]" if lines else was(m.name, m)
        table.add_row("  method", escape(m.name), origin, escape(f"is handed {parameters}" if parameters else ""))
    console.print(table)


def was(name: str, member: FieldDesign | MethodDesign) -> str:
    """The variables or functions that a member takes the place of, where their names differ from its own."""
    names = [o.local for o in member.origins if o]
    return "" if names == [name] else f"[dim]{escape(', '.join(names))}[/]"


def first_value(c: ClassDesign, f: FieldDesign) -> str:
    """Where a field gets its first value from, as one says it."""
    if f.start == "argument":
        return "argument"
    if f.start == "later":
        return "set later"
    return f"starts as {f.value}" if f.value else "fixed"


def reasons(console: Console, c: ClassDesign) -> None:
    for line in c.why or ["no reason is given"]:
        console.print(f"  {escape(line)}")


def lost(console: Console, before: Design, after: Design) -> None:
    """Why there is no class around the main code any more."""
    apps = [next((c.name for c in d.classes if c.role == "app"), "") for d in (before, after)]
    if apps[0] and not apps[1]:
        why = next((s.why for s in after.stays if s.name == "main"), "no class needs it")
        console.print(f"{escape(apps[0])} is gone: {escape(why)}.")


def refused(console: Console, why: str) -> None:
    console.print(f"[red]no[/]  {escape(why)}")


def answers(console: Console, rows: Iterable[tuple[str, str]] = HELP) -> None:
    """What can be answered."""
    table = Table(box=None, pad_edge=False, show_header=False, padding=(0, 2, 0, 0))
    for words, means in rows:
        table.add_row(f"  [bold]{escape(words)}[/]", escape(means))
    console.print(table)
