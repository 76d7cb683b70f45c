"""Which files people start, and which are only imported."""

from __future__ import annotations

from ..program.program import Program
from .importers import importers


def imported_by_others(program: Program, path: str) -> bool:
    """Whether another file of the program names what a file defines, by an import or because it lies beside it."""
    language = program.language
    named = importers(program, None).get(language.write.module_of(path), ())
    return any(
        other.path != path and language.means(other.path, module, name, path) for other, _, module, name, _ in named
    )


def starting(program: Program) -> list[str]:
    """The files that people start, as far as can be told: those that no other file imports; else all."""
    whole = [f.path for f in program.files.values() if not f.problems]
    if not program.language.code_at_top and not program.language.joined:
        whole = [p for p in whole if any(s.kind == "guard" for s in program.files[p].statements)] or whole
    return [p for p in whole if not imported_by_others(program, p)] or whole
