"""A long main function: its stretches, and its own variables against them."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import Function, SourceFile, Symbol
from .effects import Effects
from .handlers import main_statements

MAX_STARTING_STATEMENTS = 3  # statements of main code that only start something
MIN_STATEMENTS = 8  # statements from which a function is worth a look inside


MAIN = "main"  # how a design speaks of a long main function that has no name


def main_function(file: SourceFile, effects: Effects, language: Language) -> Function | None:
    """The one long function that the main code does little more than call; None if there is no such thing."""
    if "main function" not in file.memo:
        file.memo["main function"] = found_main(file, effects, language)
    found: Function | None = file.memo["main function"]
    return found


def found_main(file: SourceFile, effects: Effects, language: Language) -> Function | None:
    made = made_in_place(file, effects, language)
    if made is not None and is_long(file, language, made):
        return made
    statements = main_statements(file, effects, language)
    starting = [s for s in statements if effects.direct(s.start, s.end).uses]
    if not starting or sum(language.count(s) for s in starting) > 2 * MAX_STARTING_STATEMENTS:
        return None
    called = [c.callee.symbol for s in starting for c in file.calls_within(s.start, s.end)]
    functions = [f for f in file.tops if f.symbol in called]
    long = [f for f in functions if is_long(file, language, f)]
    return max(long, key=lambda f: f.end - f.start) if long else None


def made_in_place(file: SourceFile, effects: Effects, language: Language) -> Function | None:
    """The one function that the main code makes and calls in one statement, and does little else."""
    statements = main_statements(file, effects, language)
    little = sum(language.count(s) for s in statements) <= 2 * MAX_STARTING_STATEMENTS
    return (
        the_one(file, [f for s in statements if (f := language.regions.called_in_place(file, s)) is not None])
        if little
        else None
    )


def waiting_main(file: SourceFile, effects: Effects, language: Language) -> Function | None:
    """The one long function that the main code only gives to its page, which calls it once it is there."""
    found = the_one(
        file,
        [
            f
            for s in main_statements(file, effects, language)
            if (f := language.regions.called_when_ready(file, s)) is not None
        ],
    )
    return found if found is not None and is_long(file, language, found) else None


def the_one(file: SourceFile, found: list[Function]) -> Function | None:
    """The only function of several without a name, under that by which a design speaks of it; None where that is
    taken."""
    if len(found) != 1 or MAIN in file.scope.symbols:
        return None
    found[0].name = MAIN
    return found[0]


def is_long(file: SourceFile, language: Language, f: Function) -> bool:
    return sum(language.count(s) for s in language.body(file, f)) >= MIN_STATEMENTS


def named_main(file: SourceFile, effects: Effects, language: Language, name: str) -> Function | None:
    """The function that is meant by a name: one at the top, or that which the main code makes and calls at once."""
    return file.function(name) or (made_in_place(file, effects, language) if name == MAIN else None)


def own_variables(function: Function) -> list[Symbol]:
    """The function's local variables, parameters included, in the order in which they are first bound."""
    found = [s for s in function.scope.symbols.values() if s.kinds & {"variable", "parameter"} and s.bindings]
    return sorted(found, key=lambda s: min(r.start for r in s.bindings))


def own_access(file: SourceFile, symbols: list[Symbol], spans: list[tuple[int, int]]) -> dict[str, str]:
    """Variable → r, w or rw in a stretch of the function."""
    found: dict[Symbol, set[str]] = {}
    for start, end in spans:
        for ref in file.within(start, end):
            if ref.symbol is not None and ref.symbol.scope.kind != "module":
                marks = found.setdefault(ref.symbol, set())
                if ref.writes or ref.mutates:
                    marks.add("w")
                if not ref.writes or ref.role == "both":
                    marks.add("r")
    return {s.name: "".join(sorted(found[s])) for s in symbols if s in found}
