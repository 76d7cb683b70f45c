"""Everything about one name (A10)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from ..program.errors import AedifexError
from ..program.model import Function, SourceFile, Symbol
from ..program.program import Program
from .effects import Effects
from .hazards import hazards
from .main_function import main_function, own_variables, waiting_main
from .variable_kinds import classify


@dataclass
class Answer:
    """What is known of one name in one file; references are (line, role, holder)."""

    name: str
    path: str
    kind: str
    facts: list[str] = field(default_factory=list)
    references: list[tuple[int, str, str]] = field(default_factory=list)
    hazards: list[str] = field(default_factory=list)

    def as_json(self) -> dict[str, Any]:
        rows = [{"line": line, "role": role, "in": holder} for line, role, holder in self.references]
        return {
            "name": self.name,
            "file": self.path,
            "kind": self.kind,
            "facts": self.facts,
            "references": rows,
            "hazards": self.hazards,
        }


def ask(program: Program, name: str, outsiders: Program | None = None) -> list[Answer]:
    """One answer for each file that binds the name. Raises AedifexError if none does, with near spellings."""
    found = []
    for file in program.files.values():
        symbol = file.scope.symbols.get(name)
        if symbol is not None and symbol.kinds:
            found.append(answer(program, file, symbol, outsiders))
    found = found or list(own_answers(program, name))
    if not found:
        from difflib import get_close_matches

        known = sorted(
            {n for f in program.files.values() for n, s in f.scope.symbols.items() if s.kinds}
            | {n for n, _, _, _ in inner(program)}
        )
        near = get_close_matches(name, known, 3)
        hint = f"did you mean {', '.join(near)}?" if near else "for a variable inside main write main.name."
        raise AedifexError(f"no variable or function called '{name}' here; {hint}")
    return found


def inner(program: Program) -> Iterator[tuple[str, SourceFile, Function, Symbol]]:
    """The variables of long main functions, each with the name by which a design speaks of it."""
    for file in program.files.values():
        effects = Effects(file, program.language)
        f = main_function(file, effects, program.language) or waiting_main(file, effects, program.language)
        if f is not None:
            yield from ((f"{f.name}.{s.name}", file, f, s) for s in own_variables(f))


def own_answers(program: Program, name: str) -> Iterator[Answer]:
    """What is known of a variable of a long main function, asked for as ``main.score`` or ``score``."""
    for dotted, file, f, s in inner(program):
        if name in (dotted, s.name):
            made = Answer(dotted, file.path, f"{' and '.join(sorted(s.kinds))} of {f.name}")
            sets = len(s.bindings)
            made.facts.append(
                f"first set in line {file.shown(min(r.start for r in s.bindings))}, set in {sets} "
                f"place{'s' * (sets != 1)}"
            )
            for ref in sorted(s.references, key=lambda r: r.start):
                holder = next((g.name for g in reversed(file.functions_sorted) if g.start <= ref.start < g.end), f.name)
                made.references.append(
                    (file.shown(ref.start), ref.role.value + (" (in place)" if ref.mutates else ""), holder)
                )
            yield made


def answer(program: Program, file: SourceFile, symbol: Symbol, outsiders: Program | None) -> Answer:
    effects = Effects(file, program.language)
    made = Answer(symbol.name, file.path, " and ".join(sorted(symbol.kinds)))
    for ref in sorted(symbol.references, key=lambda r: r.start):
        holder = file.function_at(ref.start)
        role = ref.role.value + (" (in place)" if ref.mutates else "")
        made.references.append((file.shown(ref.start), role, holder.name if holder else "main code"))
    made.hazards = [
        f"line {h.line}: {h.message}"
        for h in hazards(program, file.path, outsiders)
        if symbol.name in h.names or not h.names
    ]
    if "function" in symbol.kinds and symbol in effects.reach:
        function_facts(file, effects, symbol, made)
    variable = classify(file, program.language).get(symbol)
    if variable is not None:
        sets = len(symbol.bindings)
        made.facts.append(
            f"{variable.nature}; first set in line {file.shown(min(r.start for r in symbol.bindings))}, set in "
            f"{sets} place{'s' * (sets != 1)}"
        )
        if variable.type:
            made.facts.append(f"starts as {variable.type}")
        if variable.in_loop:
            made.facts.append("changes in the main loop")
        for word, part in (("read", "reads"), ("changed", "writes")):
            direct = [u.name for u in effects.units.values() if symbol in getattr(effects.direct(u.start, u.end), part)]
            far = [
                u.name
                for s, u in effects.units.items()
                if symbol in getattr(effects.reach[s], part) and u.name not in direct
            ]
            if direct or far:
                made.facts.append(
                    f"{word} by {', '.join(direct) or 'no function directly'}"
                    + (f"; through calls by {', '.join(far)}" if far else "")
                )
    return made


def function_facts(file: SourceFile, effects: Effects, symbol: Symbol, made: Answer) -> None:
    function = file.function(symbol.name)
    if function is not None:
        params = ", ".join(p.name for p in function.params) or "nothing"
        made.facts.append(f"lines {file.shown(function.start)} to {file.shown(function.end)}; takes {params}")
    touch = effects.reach[symbol]
    for word, names in (("reads", touch.reads), ("changes", touch.writes)):
        if names:
            made.facts.append(f"{word} {', '.join(sorted(s.name for s in names))} (calls included)")
    unit = effects.units[symbol]
    uses = effects.direct(unit.start, unit.end).uses
    if uses:
        made.facts.append(f"calls {', '.join(sorted(s.name for s in uses))}")
    if symbol in effects.escaped:
        made.facts.append("is passed on as a value, so unseen code may call it")
