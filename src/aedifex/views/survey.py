"""The survey as text: a table of state against functions that fits the terminal, then what else was found."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from .paper import Paper, Piece

if TYPE_CHECKING:
    from rich.console import Console

NAME_WIDTH = 24
TYPE_WIDTH = 6
LINE_WIDTH = 5
CELL = 5
LAST = 16  # letters of the last function's name, which stands to the right of the table
STYLES = {"r": "cyan", "w": "red", "rw": "magenta"}
COLOURS = {"input": "cyan", "drawing": "magenta", "console": "magenta", "timing": "yellow", "sound":
    "yellow", "files": "blue", "database": "blue", "network": "blue", "work": "green", "set-up": "",
    "closing": ""}  # fmt: skip


def show(console: Console, survey: Any) -> None:
    """Print what was found in the scripts."""
    paper = Paper(console)
    for file in survey.files:
        show_file(paper, file)
    paper.line()
    figures(paper, survey.figures.as_json())


def show_file(paper: Paper, file: Any) -> None:
    paper.line((file.path, "bold"))
    for problem in file.problems:
        paper.line(("  ", ""), (str(problem), "red"), ("; nothing will be rewritten in this file", ""))
    variables = [v for v in file.variables if v.nature != "constant"]
    touching = [u for u in file.units if u.access or u.kind != "function"]
    if variables and touching:
        matrix(paper, variables, touching)
    constants = [v.name for v in file.variables if v.nature == "constant"]
    if constants:
        paper.titled("constants", ", ".join(constants))
    idle = [u.name for u in file.units if u.kind == "function" and not u.access]
    if idle:
        paper.titled("touch no state", ", ".join(idle))
    families(paper, file)
    if file.regions:
        parts = [f"{r['kind']} {r['start']}-{r['end']} ({r['statements']})" for r in file.regions]
        paper.titled("main code", ", ".join(parts), "lines (statements)")
    if file.concerns:
        concern_strip(paper, file.concerns)
    proposals(paper, file)
    jobs(paper, file)
    if top := [h for h in file.handlers if not h.method]:
        paper.titled("handlers", ", ".join(f"{h.name} (line {h.line}, {h.registered_by})" for h in top))
    for method in dict.fromkeys(h.method for h in file.handlers if h.method):
        mine = [h for h in file.handlers if h.method == method]
        listed = ", ".join(f"{h.name or h.registered_by} (line {h.line})" for h in mine)
        paper.titled("listeners", f"{listed}  written in {method}")
    for h in file.hazards:
        place = f"{h.path}:{h.line}" if h.path != file.path else f"line {h.line}"
        paper.titled("hazard", f"{place}: {h.message}", style="red")


def families(paper: Paper, file: Any) -> None:
    """Copies, and what belongs together by its name or its use."""
    for family in file.families:
        numbers = ", ".join(family["words"] or map(str, family["numbers"]))
        twins = "; ".join(" = ".join(row) for row in family["twins"])
        words = ", ".join(row[0].rstrip("0123456789") for row in family["variables"])
        same = f"; the same but for the {'word' if family['words'] else 'number'}: {twins}" if twins else ""
        title = "copies" if family["words"] else "numbered copies"
        paper.titled(title, f"{family['stem'] or words} {numbers}: {len(family['variables'])} variables each{same}")
    for g in file.groups:
        why = f"named {g.word}_*" if g.reason == "stem" else "touched by the same functions"
        users = ", ".join(g.functions[:6]) + (" and others" if len(g.functions) > 6 else "")
        paper.titled("together", f"{', '.join(g.variables)}: {why}" + (f" ({users})" if users else ""))


def jobs(paper: Paper, file: Any) -> None:
    """Functions and classes that do several things, or are long."""
    for unit in file.jobs:
        told = "; ".join(
            f"{job} at {', '.join(map(str, lines[:5]))}{' ...' if len(lines) > 5 else ''}"
            for job, lines in unit["jobs"].items()
        )
        title = "several jobs" if len(unit["jobs"]) > 1 else "long"
        paper.titled(title, f"{unit['name']} (line {unit['start']}){': ' + told if told else ''}")
        if unit["split"]:
            concern_strip(paper, unit["split"], "  it could be split")


def proposals(paper: Paper, file: Any) -> None:
    """What a draft would make of the main code, and of classes with several jobs."""
    for of in dict.fromkeys(c["of"] for c in file.cuts):
        parts = ", ".join(f"{c['name']} {c['first']}-{c['last']}" for c in file.cuts if c["of"] == of)
        paper.titled("cuts", f"{f'{of}: ' if of else ''}{parts}", "methods that a draft would make of it")
    for p in file.parts:
        members = f"{', '.join(p['fields'])} with {', '.join(p['methods'])}"
        paper.titled("part", f"{p['class']}: {members}", f"a draft would make them a class {p['name']}")


def concern_strip(paper: Paper, parts: list[Any], title: str = "what it is about") -> None:
    """One row: a bar of as many blocks as there are statements, and what each stretch is about with its lines."""
    pieces: list[Piece] = [(title, "bold"), ("  ", "")]
    for number, part in enumerate(parts):
        lines = str(part["first"]) if part["first"] == part["last"] else f"{part['first']}-{part['last']}"
        bar = "▐" * min(8, max(1, part["statements"]))
        pieces += [
            ("  " if number else "", ""),
            (bar, COLOURS[part["concern"]]),
            (f"\N{NO-BREAK SPACE}{part['concern']}\N{NO-BREAK SPACE}{lines}", ""),
        ]
    paper.line(*pieces)


def matrix(paper: Paper, variables: list[Any], units: list[Any]) -> None:
    """Variables down, functions across, in as many blocks as the width asks for."""
    used = NAME_WIDTH + TYPE_WIDTH + LINE_WIDTH + 3
    fits = max(4, (paper.width - used - LAST) // CELL + 1)
    for at in range(0, len(units), fits):
        block(paper, variables, units[at : at + fits])
    paper.line(("r reads  w writes  (r) only through calls  ↻ changes in the loop", "dim"))


def block(paper: Paper, variables: list[Any], units: list[Any]) -> None:
    """Some functions: each name stands above its column, one line below the name before it."""
    head = f"{'state':<{NAME_WIDTH}} {'type':<{TYPE_WIDTH}} {'line':>{LINE_WIDTH}}"
    for number, u in enumerate(units):
        last = number == len(units) - 1
        stems = "".join("│".center(CELL) for _ in units[:number])
        name: list[Piece] = [(f"  {u.name}", "bold"), (f" {u.start}", "dim")]
        paper.line(
            (head if last else " " * len(head), "bold" if last else ""), (" ", ""), (stems, "dim"), *name, cut=True
        )
    shown = [v for v in variables if any(v.name in u.access for u in units)]
    for v in shown:
        mark = " ↻" if v.in_loop else ""
        name_ = v.name if len(v.name) + len(mark) <= NAME_WIDTH else v.name[: NAME_WIDTH - len(mark) - 1] + "…"
        kind = v.type if len(v.type) <= TYPE_WIDTH else v.type[: TYPE_WIDTH - 1] + "…"
        row: list[Piece] = [
            (f"{name_ + mark:<{NAME_WIDTH}} ", "italic" if v.nature == "local" else ""),
            (f"{kind:<{TYPE_WIDTH}} {v.line:>{LINE_WIDTH}} ", "dim"),
        ]
        row += [cell(u.access.get(v.name, "")) for u in units]
        paper.line(*row, cut=True)


def cell(access: str) -> Piece:
    if not access:
        return "·".center(CELL), "dim"
    style = STYLES["".join(letter for letter in "rw" if letter in access)]
    return access.center(CELL), style if not access.startswith("(") else f"dim {style}"


def figures(paper: Paper, values: dict[str, Any]) -> None:
    longest = f", the longest function {values['longest_name']} has {values['longest']}" if values["longest"] else ""
    paper.titled(
        "figures",
        f"{many(values['lines'], 'line')} in {many(values['files'], 'file')}{longest}; "
        f"{many(values['globals'], 'changing global')}, {many(values['constants'], 'constant')}; "
        f"{many(values['main_statements'], 'statement')} in main, nested {values['nesting']} deep; "
        f"{many(values['functions'], 'function')}, {many(values['classes'], 'class', 'classes')}",
    )


def many(count: int, one: str, several: str = "") -> str:
    return f"{count} {one if count == 1 else several or one + 's'}"
