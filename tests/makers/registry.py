"""Every maker of random programs, and how what it makes is run: ``maker(seed).program()`` is a text, the same for the same seed."""

from __future__ import annotations

from typing import Any

import programs
import programs_arrays as arrays
import programs_classes as classes
import programs_console as console
import programs_curly as curly
import programs_curly_classes as curly_classes
import programs_curly_flow as curly_flow
import programs_flow as flow
import programs_late as late
import programs_listening as listening
import programs_lists as lists
import programs_nested as nested
import programs_records as records
import programs_standing as standing
import programs_values as values
import together
from inprocess import here

from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.program.program import Program

PYTHON = {
    "Python": programs.Maker, "Lists": lists.ListMaker, "Records": records.RecordMaker, "Flow": flow.FlowMaker, "Things": flow.ThingMaker,
    "Main": flow.MainMaker, "Console": console.ConsoleMaker, "Classes": classes.ClassMaker, "Nested": nested.NestedMaker,
    "Dispatch": nested.DispatchMaker, "Late": late.LateMaker, "Values": values.ValueMaker,
    "Standing": standing.StandingMaker, "Listening": listening.ListeningMaker,
}  # fmt: skip
CURLY = (
    curly.JavaScript, curly.Module, curly.Java, curly.JavaMain, curly.Sketch, arrays.ArraysJavaScript, arrays.ArraysJava, arrays.ArraysSketch,
    arrays.RecordsJavaScript, curly_flow.FlowJavaScript, curly_flow.FlowJava, curly_classes.ClassesJavaScript, curly_classes.ClassesJava,
    nested.NestedJavaScript, nested.WrappedJavaScript, late.LateJavaScript, late.LateJava, late.LateSketch,
    listening.ListeningJavaScript,
)  # fmt: skip
MAKERS: dict[str, Any] = {**PYTHON, **{maker.__name__: maker for maker in CURLY}}


def entry_of(kind: str) -> str:
    """The file in which a program of a kind stands."""
    if kind in PYTHON:
        return "line.py"
    if kind == "Module":
        return "line.mjs"
    return "line.js" if kind.endswith("JavaScript") else "line.pde" if kind.endswith("Sketch") else "Line.java"


def tool_of(kind: str) -> str:
    """What must be installed to run it."""
    return (
        "python3"
        if kind in PYTHON
        else "node"
        if entry_of(kind).startswith("line.") and not kind.endswith("Sketch")
        else "javac"
    )


def seen(program: Program, root: str, entry: str, one_engine: bool = True) -> tuple[object, ...]:
    """What a program does, to be compared. ``one_engine``: Java's programs share a process, which takes a quarter of the time."""
    if entry.endswith(".py"):
        return here(program.texts, entry, console.TYPED)
    if one_engine and together.fits(program):
        return (together.observed(program, entry),)
    found = observe(
        Scenario("run"), World(root, entry, program.language, dict(program.texts), list(program.files.values()))
    )
    return found.trouble, found.status, found.output, found.shots


def ran(told: tuple[object, ...]) -> bool:
    """Whether a program came to its end."""
    return not told[0] or str(told[0]).startswith(("done", "status 0"))
