"""The whole survey of a program as plain data: who touches what, groups, main code, handlers, hazards, figures."""

from __future__ import annotations

from dataclasses import asdict, dataclass, field
from typing import Any

from ..program.language import Language
from ..program.model import SourceFile, Symbol
from ..program.pause import uncollected
from ..program.program import Program
from .concerns import ConcernRun, Concerns, jobs, strip
from .effects import Effects, Touch
from .families import families
from .groups import Group, groups
from .handlers import Handler, MainPart, handlers, in_methods, main_parts, stretches
from .hazards import hazards
from .main_function import main_function, own_access, own_variables, waiting_main
from .messages import Hazard
from .metrics import Figures, figures
from .regions.paragraphs import MIN_FUNCTION_LINES, paragraphs
from .variable_kinds import Variable, classify


@dataclass
class VariableFacts:
    """One row of the table of state: a variable, and who reads and changes it."""

    name: str
    line: int
    nature: str  # constant | companion | state | local (of a long main function)
    type: str
    sets: int
    in_loop: bool


@dataclass
class UnitFacts:
    """A function, or a stretch of main code; ``access``: variable → r, w or rw; in parentheses what only calls do."""

    name: str
    kind: str  # function | set-up | loop | closing
    start: int  # line
    end: int
    access: dict[str, str] = field(default_factory=dict)
    calls: list[str] = field(default_factory=list)


@dataclass
class FileSurvey:
    """All that is known of one file."""

    path: str
    variables: list[VariableFacts]
    units: list[UnitFacts]
    families: list[dict[str, Any]]
    groups: list[Group]
    handlers: list[Handler]
    regions: list[dict[str, Any]]
    concerns: list[dict[str, Any]]  # the main code, or a long main function, cut by what it is about
    cuts: list[
        dict[str, Any]
    ]  # what of it would be a method of the app, with name and lines; filled in by who knows what would be proposed
    parts: list[
        dict[str, Any]
    ]  # what could be a class of its own in a class, with its fields and methods; filled in likewise
    jobs: list[dict[str, Any]]  # units that do several things, with the lines of each
    hazards: list[Hazard]
    problems: list[str]


@dataclass
class Survey:
    """All that is known of a program, file by file."""

    files: list[FileSurvey]
    figures: Figures

    def as_json(self) -> dict[str, Any]:
        return {"format": 1, "files": [asdict(f) for f in self.files], "figures": self.figures.as_json()}


@uncollected
def survey(program: Program, outsiders: Program | None = None) -> Survey:
    """All that can be said of a program without changing it. ``outsiders``: files that may use its names."""
    return Survey([survey_file(program, path, outsiders) for path in program.files], figures(program))


def survey_file(program: Program, path: str, outsiders: Program | None = None) -> FileSurvey:
    file, language = program.files[path], program.language
    effects = Effects(file, language)
    kinds = classify(file, language)
    parts = main_parts(file, effects, language)
    units = [unit_of_region(file, effects, kinds, r) for r in parts]
    units += [
        facts(f.name, "function", file, effects, kinds, [(f.start, f.end)])
        for f in file.functions
        if f.outer is file.scope
    ]
    changing = {s for u in effects.units.values() for s in effects.direct(u.start, u.end).names}
    state = [s for s, v in kinds.items() if v.nature != "constant"]
    about = Concerns(file, language, effects)
    inside, long_units = long_main(file, effects, language, kinds)
    units = units[: len(parts)] + long_units + units[len(parts) :]
    found = families(file, language, state)
    copied = {s for family in found for s in family.symbols}
    copies = [
        {
            "stem": fam.stem,
            "numbers": fam.numbers,
            "words": fam.told.told if fam.told is not None else [],
            "variables": [[s.name for _, s in sorted(row.items())] for row in fam.variables.values()],
            "twins": [[f.name for f in row] for row in fam.twins],
        }
        for fam in found
    ]
    return FileSurvey(
        path,
        [variable_facts(file, v) for v in kinds.values()] + inside,
        units,
        copies,
        groups([s for s in state if s in changing and s not in copied], effects, language.write.words),
        sorted([*handlers(file, effects), *in_methods(file, language)], key=lambda h: (h.line, h.name)),
        [
            {"kind": r.kind, "start": file.shown(r.start), "end": file.shown(r.end), "statements": r.statements}
            for r in parts
        ],
        [asdict(part) for part in main_strip(file, effects, language, about)],
        [],
        [],
        several_jobs(file, effects, about),
        hazards(program, path, outsiders),
        [str(p) for p in file.problems],
    )


def main_strip(file: SourceFile, effects: Effects, language: Language, about: Concerns) -> list[ConcernRun]:
    """What the main code is about, stretch by stretch; of a long main function, if it does little more than call
    that."""
    function = main_function(file, effects, language) or waiting_main(file, effects, language)
    if function is not None:
        return strip(about, [s for s in language.body(file, function) if s.kind not in ("docstring", "declare")])
    return strip(about, effects.main())


def several_jobs(file: SourceFile, effects: Effects, about: Concerns) -> list[dict[str, Any]]:
    """Functions and classes that do several of the things that lead out of a program, long functions, and how these
    could be split."""
    found = []
    functions = {f.symbol: f for f in file.functions}
    for unit in sorted(effects.units.values(), key=lambda u: u.start):
        lines = jobs(about, unit.start, unit.end)
        f = functions.get(unit.symbol)
        long = f is not None and file.line(f.end) - file.line(f.start) + 1 >= MIN_FUNCTION_LINES
        if long or (len(lines) > 1 and sum(map(len, lines.values())) > 2):
            body = (
                [s for s in about.language.body(file, f) if s.kind not in ("docstring", "declare")]
                if f is not None
                else []
            )
            split = paragraphs(about, f.scope, body) if long and f is not None else strip(about, body, True)
            if len(split) > 1 or not long:
                found.append(
                    {
                        "name": unit.name,
                        "start": file.shown(unit.start),
                        "jobs": lines,
                        "split": [asdict(p) for p in split if len(split) > 1],
                    }
                )
    return found


def long_main(
    file: SourceFile, effects: Effects, language: Language, kinds: dict[Symbol, Variable]
) -> tuple[list[VariableFacts], list[UnitFacts]]:
    """The variables of a long main function, and its stretches as units of their own."""
    function = main_function(file, effects, language) or waiting_main(file, effects, language)
    if function is None:
        return [], []
    parts = stretches([s for s in language.body(file, function) if s.kind not in ("docstring", "declare")], language)
    symbols = own_variables(function)
    units = []
    for r in parts:
        made = facts(f"{function.name} {r.kind}", r.kind, file, effects, kinds, list(r.spans))
        made.access.update(own_access(file, symbols, list(r.spans)))
        units.append(made)
    loops = [span for r in parts if r.kind == "loop" for span in r.spans]
    variables = [
        VariableFacts(
            s.name,
            file.shown(min(r.start for r in s.bindings)),
            "local",
            "",
            len(s.bindings),
            any(a <= r.start < b for r in s.bindings for a, b in loops),
        )
        for s in symbols
    ]
    return variables, units


def variable_facts(file: SourceFile, v: Variable) -> VariableFacts:
    first = min(r.start for r in v.symbol.bindings)
    return VariableFacts(v.name, file.shown(first), v.nature, v.type, len(v.symbol.bindings), v.in_loop)


def unit_of_region(file: SourceFile, effects: Effects, kinds: dict[Symbol, Variable], region: MainPart) -> UnitFacts:
    return facts(region.kind, region.kind, file, effects, kinds, list(region.spans))


def facts(
    name: str,
    kind: str,
    file: SourceFile,
    effects: Effects,
    kinds: dict[Symbol, Variable],
    spans: list[tuple[int, int]],
) -> UnitFacts:
    """What the stretches of code of one unit do, by themselves and through calls."""
    direct, whole = Touch(), Touch()
    for start, end in spans:
        direct.add(effects.direct(start, end))
        whole.add(effects.touch(start, end))
    start, end = spans[0][0], spans[-1][1]
    made = UnitFacts(name, kind, file.shown(start), file.shown(end))
    order = {symbol: i for i, symbol in enumerate(kinds)} if len(kinds) < 2 * len(whole.names) else None
    touched = (whole.names | direct.names) & kinds.keys()
    for symbol in sorted(touched, key=lambda s: order[s] if order else min(r.start for r in s.bindings)):
        own = ("r" if symbol in direct.reads else "") + ("w" if symbol in direct.writes else "")
        far = ("r" if symbol in whole.reads else "") + ("w" if symbol in whole.writes else "")
        more = "".join(letter for letter in far if letter not in own)
        if own or more:
            made.access[symbol.name] = own + (f"({more})" if more else "")
    made.calls = sorted(s.name for s in direct.uses)
    return made
