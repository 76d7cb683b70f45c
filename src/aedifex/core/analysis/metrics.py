"""Figures of a program: lines, globals, statements in main, longest function, nesting, cohesion, coupling."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from itertools import combinations
from typing import Any

from ..program.language import Language
from ..program.model import Scope, SourceFile
from ..program.program import Program
from .effects import statement_order
from .variable_kinds import classify


@dataclass
class Figures:
    """``cohesion``: mean share of method pairs of a class that use a common field, 0 to 1 (Bieman and Kang: Cohesion
    and reuse in an object-oriented system, 1995, direct pairs only). ``coupling``: names that files import of each
    other."""

    files: int = 0
    lines: int = 0
    globals: int = 0  # module-level variables that change
    constants: int = 0
    main_statements: int = 0  # statements of main code, nested ones included
    functions: int = 0
    classes: int = 0
    longest: int = 0  # lines of the longest function
    longest_name: str = ""
    nesting: int = 0  # deepest nesting of blocks in main code or a function; a definition is no level
    cohesion: float | None = None
    coupling: int = 0

    def as_json(self) -> dict[str, Any]:
        return asdict(self)


def figures(program: Program) -> Figures:
    """The figures of a program: classes, the longest function, nesting, cohesion, names that files import."""
    found = Figures(files=len(program.texts))
    shares: list[float] = []
    paths: dict[str, list[str]] = {}
    for path in program.files:
        paths.setdefault(program.language.write.module_of(path), []).append(path)

    def own(importer: str, module: str, name: str) -> bool:
        """Whether an import is of another file of the program."""
        near = [p for last in program.language.last_parts(module, name) for p in paths.get(last, ())]
        return any(p != importer and program.language.means(importer, module, name, p) for p in near)

    for file in program.files.values():
        language = program.language
        found.lines += file.line_count()
        natures = classify(file, language)
        for variable in natures.values():
            if variable.nature == "constant":
                found.constants += 1
            else:
                found.globals += 1
        constants = {s for s, v in natures.items() if v.nature == "constant"}
        moving = [s for s in statement_order(file.statements) if s.target is None or s.target.symbol not in constants]
        found.main_statements += sum(language.count(s) for s in moving)
        found.nesting = max([found.nesting, *(language.depth(s) for s in file.statements)])
        found.functions += len(file.functions)
        found.classes += len(file.classes)
        for f in file.functions:
            length = file.line(f.end) - file.line(f.head) + 1
            if length > found.longest:
                found.longest, found.longest_name = length, f.key
        shares += [share for scope, _ in file.classes if (share := cohesion(file, scope, language)) is not None]
        for s in file.statements:
            if s.kind == "import":
                found.coupling += sum(1 for _, m, n in language.imported(file, s) if own(file.path, m, n))
    found.cohesion = round(sum(shares) / len(shares), 2) if shares else None
    return found


def cohesion(file: SourceFile, scope: Scope, language: Language) -> float | None:
    """Share of pairs of methods that use a common field; None for fewer than two methods. To call a method is no use of
    a field."""
    used = []
    methods = {name for name, symbol in scope.symbols.items() if "function" in symbol.kinds}
    for child in scope.children:
        if (
            child.kind != "function"
            or child.receiver is None
            or language.special(child.name)
            or child.name == language.write.CONSTRUCTOR
        ):
            continue
        refs = file.within(child.start, child.end)
        named = {r.member for r in refs if r.name == child.receiver and r.member}
        if language.bare_members:
            named |= {r.name for r in refs if r.symbol is not None and r.symbol.scope is scope}
        used.append(named - methods)
    if len(used) < 2:
        return None
    pairs = list(combinations(used, 2))
    return sum(1 for a, b in pairs if a & b) / len(pairs)
