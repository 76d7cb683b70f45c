"""Check a design against the program it was drafted from; every mistake at once, with its line."""

from __future__ import annotations

from ..design.lines import Lines
from ..design.origin import Origin, local_name
from ..design.tables import Design
from ..program.program import Program
from ..program.refusal import Refusal
from ..rewrites import mistakes
from ..rewrites.class_check import DONE
from ..rewrites.design_check import DesignCheck
from ..rewrites.inline_main.opened import main_of
from ..rewrites.pipeline import REWRITES, UNFOLDING, prepare
from .wishes import wish_mistakes, wishes_placed


def validate(path: str, design: Design, lines: Lines, program: Program) -> list[Refusal]:
    """Mistakes of meaning: names that do not exist, are used twice, or cannot be written."""
    design, program = as_opened(design, program)
    check = DesignCheck(path, design, lines, program)
    check_head(check)
    for rewrite in REWRITES:
        rewrite.check(check)
    check.found += wish_mistakes(program, wishes_placed(path, design, lines))
    return sorted(check.found, key=lambda r: (r.line, r.sentence))


def as_opened(design: Design, program: Program) -> tuple[Design, Program]:
    """Design and program once main functions are inlined and handlers have names; a name of a function that is not
    inlined is a mistake."""
    mains = [(i, c.methods.index(m)) for i, c in enumerate(design.classes) if (m := main_of(c)) is not None]
    prepared = prepare(design, program, UNFOLDING)
    for i, at in mains:
        methods = prepared.design.classes[i].methods
        if len(methods) < len(design.classes[i].methods):
            methods.insert(at, DONE)
    return prepared.design, prepared.program


def check_head(check: DesignCheck) -> None:
    """What no rewrite owns: language, entries, and what stays."""
    design, program = check.design, check.program
    if design.language != program.language.name:
        check.report(check.lines.of("", key="language"), mistakes.OTHER_LANGUAGE, language=design.language)
    for entry in design.entries:
        if entry not in design.sources:
            check.report(check.lines.of("", key="entries"), mistakes.NO_SOURCE, entry=entry)
    if not design.entries:
        check.report(check.lines.of("", key="entries"), mistakes.NO_ENTRY)
    for index, s in enumerate(design.stays):
        if (
            s.name != "main"
            and local_name(s.name) not in check.collections
            and not any(local_name(s.name) in f.scope.symbols for f in program.files.values())
        ):
            check.absent(check.lines.of("stay", index, -1, "name"), Origin.parse(s.name))
