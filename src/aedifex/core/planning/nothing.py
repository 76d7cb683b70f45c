"""Why a draft proposes no class, where no one name tells it: functions share no state, or one long function has it."""

from __future__ import annotations

from ..analysis.main_function import own_variables
from ..design.tables import Design, StayDesign
from ..program.model import Function, SourceFile
from ..program.program import Program
from .classes.facts import origin_in
from .objective import changing_variables

MIN_LINES = 60  # lines of a function that is most of its program
MIN_VARIABLES = 8  # variables of one that has all the state


def reasons_for_nothing(program: Program, design: Design) -> list[StayDesign]:
    """What stays and why, said of the program as a whole; none where there are classes, or that is said already."""
    if design.classes or design.parts or design.lifts or any(s.name == "main" for s in design.stays):
        return []
    if any(s.why.startswith(("what it holds", "its listeners")) for s in design.stays):
        return []
    for file in program.files.values():
        for f in sorted(file.tops, key=lambda f: f.start - f.end)[:1]:
            if file.line(f.end) - file.line(f.start) >= MIN_LINES and len(own_variables(f)) >= MIN_VARIABLES:
                return [StayDesign(str(origin_in(program, file, f.name)), why_closed(file, f))]
    if not changing_variables(program) and any(s.why != "constant" for s in design.stays):
        why = "the main code and the functions share no state that changes, so a class would hold nothing"
        return [StayDesign("main", why)]
    return []


def why_closed(file: SourceFile, f: Function) -> str:
    """Why what a long function holds cannot be an object's."""
    calls = file.calls_of(f.symbol) if f.symbol is not None else []
    count, lines = len(own_variables(f)), file.line(f.end) - file.line(f.start) + 1
    held = f"what it holds stays its own: {count} variables in {lines} lines"
    if not calls:
        return f"{held}, and nothing here calls it; call it once from the main code, or cut it with 'aedifex step lift'"
    where = ", ".join(str(file.shown(c.start)) for c in calls[:3])
    lines_ = f"line{'s' * (len(calls) > 1)} {where}"
    return f"{held}, and the main code does not call it just once ({lines_}); cut it with 'aedifex step lift'"
