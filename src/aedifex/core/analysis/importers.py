"""Which files of a program import which: by the last part of a module's name, and from what is started."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import SourceFile
from ..program.program import Program

Importers = dict[str, list[tuple[SourceFile, str, str, str, int]]]


def importers(program: Program, outsiders: Program | None) -> Importers:
    """Last part of a module's name → (file, local name, module, name in the module, line) of its imports; worked out
    once."""
    key = id(outsiders)
    kept: dict[int, Importers] = program.memo.setdefault("importers", {})
    if key not in kept:
        found: Importers = {}
        kept[key] = found
        for other in {**program.files, **(outsiders.files if outsiders else {})}.values():
            for s in other.imports:
                for local, origin, name in program.language.imported(other, s):
                    for last in program.language.last_parts(origin, name):
                        found.setdefault(last, []).append((other, local, origin, name, other.line(s.start)))
            for local, origin, name, at in program.language.ambient(other):
                for last in program.language.last_parts(origin, name):
                    found.setdefault(last, []).append((other, local, origin, name, other.line(at)))
    return kept[key]


def files_needed(files: list[SourceFile], entry: str, language: Language) -> list[SourceFile]:
    """The files that a program is made of: the one that is started, and those that it names, directly or not."""
    found = [f for f in files if f.path == entry] or files[:1]
    for file in found:
        says = [(origin, name) for s in file.imports for _, origin, name in language.imported(file, s)]
        says += [(origin, name) for _, origin, name, _ in language.ambient(file)]
        found += [
            f
            for f in files
            if f not in found and any(language.means(file.path, origin, name, f.path) for origin, name in says)
        ]
    return found
