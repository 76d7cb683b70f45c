"""Whether classes are worth it (A11): where they would only add lines, that is said, with the figures."""

from __future__ import annotations

from ..analysis.metrics import figures
from ..design.tables import Design
from ..program.program import Program
from .sequence import run

MIN_MEMBERS = 2  # fields, and methods, that make a class of its own


def advice(program: Program, design: Design) -> str:
    """A sentence if the program may as well stay as it is; "" if the classes earn their lines.

    They do if one holds several values that several functions share, has several objects, or takes over what functions
    hand to each other.
    """
    if not design.classes or any(len(c.objects) > 1 or any(o.collection for o in c.objects) for c in design.classes):
        return ""
    if any(len(c.fields) >= MIN_MEMBERS and len(c.methods) >= MIN_MEMBERS for c in design.classes):
        return ""
    if any((c.wraps or c.existing) and len(c.methods) >= MIN_MEMBERS for c in design.classes):
        return ""
    if any(c.existing and c.fields for c in design.classes):  # what closures shared is the object's
        return ""
    before, last = figures(program), program
    for outcome, after in run(design, program, exists=lambda p: False):
        if outcome.result == "wrong":
            return ""
        last = after
    now = figures(last)
    if now.lines <= before.lines:
        return ""
    fields = sum(len(c.fields) for c in design.classes)
    methods = sum(len(c.methods) for c in design.classes)
    shared = (
        f"{fields} value{'s' * (fields != 1)} and {methods} function{'s' * (methods != 1)}"
        if fields + methods
        else "no state"
    )
    return (
        f"Perhaps leave it as it is: classes would make {now.lines} lines of {before.lines}, "
        f"to hold {shared}, in {now.files} files instead of {before.files}."
    )
