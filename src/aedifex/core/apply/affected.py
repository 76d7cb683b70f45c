"""Which functions of the original a step touches, to know which scenarios can tell."""

from __future__ import annotations

from ..program.model import Function, SourceFile
from ..program.program import Program
from .project import Project


def touched_functions(before: Program, after: Program, project: Project) -> set[tuple[str, int]] | None:
    """(file, first line) in the original of every function whose text a step changes; None if it changes more than
    that."""
    was, now = function_texts(before), function_texts(after)
    if {p: main_text(f) for p, f in before.files.items()} != {p: main_text(f) for p, f in after.files.items()}:
        return None
    found: set[tuple[str, int]] = set()
    for key in [k for k, text in was.items() if now.get(k) != text]:
        places = originals(key, project)
        if not places:
            return None
        found |= places
    return found


def function_texts(program: Program) -> dict[tuple[str, str], bytes]:
    return {(p, f.key): file.text[f.start : f.end] for p, file in program.files.items() for f in outer_functions(file)}


def outer_functions(file: SourceFile) -> list[Function]:
    """Functions and methods that stand in no other function."""
    return [f for f in file.functions if f.outer.kind in ("module", "class")]


def main_text(file: SourceFile) -> list[bytes]:
    """The statements that run when the file does."""
    return [
        file.text[s.start : s.end] for s in file.statements if s.kind not in ("function", "class", "docstring", "pass")
    ]


def originals(key: tuple[str, str], project: Project) -> set[tuple[str, int]]:
    """Where the function, or those that became this method, stood in the original."""
    names = {key[1]}
    for c in project.design.classes:
        for m in c.methods:
            if key[1] in (f"{c.name}.{m.name}", f"{c.name}.{project.original.language.write.hidden(m.name)}"):
                names = {o.local for o in m.origins}
    return {
        (path, file.line(f.start))
        for path, file in project.original.files.items()
        for f in outer_functions(file)
        if f.key in names
    }
