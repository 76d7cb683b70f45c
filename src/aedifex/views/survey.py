"""The survey as text: a table of state against functions that fits the terminal, then what else was found."""

from __future__ import annotations

from typing import Any

from rich.console import Console
from rich.markup import escape
from rich.table import Table
from rich.text import Text

NAME_WIDTH = 24
CELL = 5
STYLES = {"r": "cyan", "w": "red", "rw": "magenta"}


def show(console: Console, survey: Any) -> None:
    for file in survey.files:
        show_file(console, file)
    console.print()
    figures(console, survey.figures.as_json())


def show_file(console: Console, file: Any) -> None:
    console.print(f"[bold]{escape(file.path)}[/]")
    for problem in file.problems:
        console.print(f"  [red]{escape(problem)}[/]; nothing will be rewritten in this file")
    variables = [v for v in file.variables if v.nature != "constant"]
    touching = [u for u in file.units if u.access or u.kind != "function"]
    if variables and touching:
        matrix(console, variables, touching)
    constants = [v.name for v in file.variables if v.nature == "constant"]
    if constants:
        console.print(f"[bold]constants[/]  {escape(', '.join(constants))}")
    idle = [u.name for u in file.units if u.kind == "function" and not u.access]
    if idle:
        console.print(f"[bold]touch no state[/]  {escape(', '.join(idle))}")
    for family in file.families:
        numbers = ", ".join(family["words"] or map(str, family["numbers"]))
        twins = "; ".join(" = ".join(row) for row in family["twins"])
        words = ", ".join(row[0].rstrip("0123456789") for row in family["variables"])
        console.print(
            f"[bold]{'copies' if family['words'] else 'numbered copies'}[/]  {escape(family['stem'] or words)} {numbers}: {len(family['variables'])} variables each"
            + (f"; the same but for the {'word' if family['words'] else 'number'}: {escape(twins)}" if twins else "")
        )
    for g in file.groups:
        why = f"named {g.word}_*" if g.reason == "stem" else "touched by the same functions"
        users = ", ".join(g.functions[:6]) + (" and others" if len(g.functions) > 6 else "")
        console.print(
            f"[bold]together[/]  {escape(', '.join(g.variables))}: {escape(why)}"
            + (f" ({escape(users)})" if users else "")
        )
    if file.regions:
        parts = [f"{r['kind']} {r['start']}-{r['end']} ({r['statements']})" for r in file.regions]
        console.print(f"[bold]main code[/]  {', '.join(parts)}  [dim]lines (statements)[/]")
    if file.concerns:
        concern_strip(console, file.concerns)
    proposals(console, file)
    for unit in file.jobs:
        told = "; ".join(f"{job} at {', '.join(map(str, lines[:5]))}{' ...' if len(lines) > 5 else ''}" for job, lines in unit["jobs"].items())
        title = "several jobs" if len(unit["jobs"]) > 1 else "long"
        console.print(f"[bold]{title}[/]  {escape(unit['name'])} (line {unit['start']}){escape(': ' + told if told else '')}")
        if unit["split"]:
            concern_strip(console, unit["split"], "  it could be split")
    if file.handlers:
        console.print(
            "[bold]handlers[/]  "
            + escape(", ".join(f"{h.name} (line {h.line}, {h.registered_by})" for h in file.handlers))
        )
    for h in file.hazards:
        place = f"{h.path}:{h.line}" if h.path != file.path else f"line {h.line}"
        console.print(f"[yellow]hazard[/]  {escape(place)}: {escape(h.message)}")


def proposals(console: Console, file: Any) -> None:
    """What a draft would make of the main code, and of classes with several jobs."""
    for of in dict.fromkeys(c["of"] for c in file.cuts):
        parts = ", ".join(f"{c['name']} {c['first']}-{c['last']}" for c in file.cuts if c["of"] == of)
        console.print(f"[bold]cuts[/]  {escape(f'{of}: ' if of else '')}{escape(parts)}  [dim]methods that a draft would make of it[/]")
    for p in file.parts:
        members = f"{', '.join(p['fields'])} with {', '.join(p['methods'])}"
        console.print(f"[bold]part[/]  {escape(p['class'])}: {escape(members)}  [dim]a draft would make them a class {escape(p['name'])}[/]")


COLOURS = {"input": "cyan", "drawing": "magenta", "console": "magenta", "timing": "yellow", "sound": "yellow", "files": "blue",
           "database": "blue", "network": "blue", "work": "green", "set-up": "white", "closing": "white"}  # fmt: skip


def concern_strip(console: Console, parts: list[Any], title: str = "what it is about") -> None:
    """One row: a bar of as many blocks as there are statements, and what each stretch is about with its lines."""
    text = Text(title + "  ", style="bold")
    for number, part in enumerate(parts):
        lines = str(part["first"]) if part["first"] == part["last"] else f"{part['first']}-{part['last']}"
        text.append("  " if number else "", style="default")
        text.append("▐" * min(8, max(1, part["statements"])) + f"\N{NO-BREAK SPACE}{part['concern']}\N{NO-BREAK SPACE}{lines}", style=f"not bold {COLOURS[part['concern']]}")
    console.print(text)


def matrix(console: Console, variables: list[Any], units: list[Any]) -> None:
    """Variables down, functions across, in as many blocks as the width asks for."""
    fits = max(4, (console.width - NAME_WIDTH - 16) // CELL)
    for at in range(0, len(units), fits):
        block(console, variables, units[at : at + fits], at)
    legend = Text("r reads  w writes  (r) only through calls  ↻ changes in the loop", style="dim")
    console.print(legend)


def block(console: Console, variables: list[Any], units: list[Any], offset: int) -> None:
    grid = Table(box=None, padding=(0, 1, 0, 0), pad_edge=False, header_style="bold", show_edge=False)
    grid.add_column("state", width=NAME_WIDTH, no_wrap=True, overflow="ellipsis")
    grid.add_column("type", width=6, no_wrap=True, overflow="ellipsis", style="dim")
    grid.add_column("line", justify="right", style="dim")
    for number, unit in enumerate(units, offset + 1):
        grid.add_column(str(number), justify="center", min_width=CELL - 1)
        del unit
    shown = [v for v in variables if any(v.name in u.access for u in units)]
    for row, v in enumerate(shown):
        cells = [cell(u.access.get(v.name, "")) for u in units]
        name = Text(v.name + (" ↻" if v.in_loop else ""), style="italic" if v.nature == "local" else "")
        grid.add_row(name, v.type, str(v.line), *cells, style="on grey11" if row % 2 and console.is_terminal else "")
    console.print(grid)
    for line in wrapped([f"{n} {u.name}:{u.start}" for n, u in enumerate(units, offset + 1)], console.width):
        console.print(Text(line, style="dim"))


def wrapped(items: list[str], width: int) -> list[str]:
    """Items in lines of at most so many columns, none of them broken."""
    lines = [""]
    for item in items:
        if lines[-1] and len(lines[-1]) + 2 + len(item) > width:
            lines.append("")
        lines[-1] += ("  " if lines[-1] else "") + item
    return lines


def cell(access: str) -> Text:
    if not access:
        return Text("·", style="bright_black")
    style = STYLES["".join(letter for letter in "rw" if letter in access)]
    return Text(access, style=f"dim {style}" if access.startswith("(") else style)


def figures(console: Console, values: dict[str, Any]) -> None:
    longest = f", the longest function {values['longest_name']} has {values['longest']}" if values["longest"] else ""
    console.print(
        f"[bold]figures[/]  {many(values['lines'], 'line')} in {many(values['files'], 'file')}{escape(longest)}; "
        f"{many(values['globals'], 'changing global')}, {many(values['constants'], 'constant')}; "
        f"{many(values['main_statements'], 'statement')} in main, nested {values['nesting']} deep; "
        f"{many(values['functions'], 'function')}, {many(values['classes'], 'class', 'classes')}"
    )


def many(count: int, one: str, several: str = "") -> str:
    return f"{count} {one if count == 1 else several or one + 's'}"
