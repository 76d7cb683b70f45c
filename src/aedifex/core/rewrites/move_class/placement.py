"""What a class needs at its new home: imports, constants and helper functions, or why it cannot go."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...analysis.effects import Effects
from ...analysis.variable_kinds import constants_of, only_imports
from ...program.language import Language
from ...program.model import SourceFile, Statement, Symbol
from ...program.tell import Means


@dataclass
class Dependencies:
    """What a class needs at its new home, or why it cannot go."""

    imports: list[str] = field(default_factory=list)  # statements, as written, in the order of the file
    places: dict[str, int] = field(default_factory=dict)  # where each of them comes from
    after: int = 0  # where the last of those imports ends
    moving: list[Statement] = field(default_factory=list)  # constants, functions and classes that go along
    refusal: tuple[str, int] | None = None  # (why, where)


def dependencies(file: SourceFile, language: Language, statements: list[Statement]) -> Dependencies:
    """Everything that the given statements read of the module, followed through what moves along."""
    found = Dependencies()
    constants = constants_of(file, language)
    homes = definitions(file)
    brought: dict[str, list[tuple[str, str, Statement]]] = {}
    for s in file.statements:
        if s.kind == "import":
            for local, module, name in language.imported(file, s):
                brought.setdefault(local, []).append((module, name, s))
    queue, done = list(statements), {id(s) for s in statements}
    seen: set[Symbol] = set()
    stars = False
    while queue and not found.refusal:
        at = queue.pop(0)
        if (tell := tell_of_file(file, language, at.start, at.end)) is not None:
            found.refusal = tell
            break
        for ref in file.within(at.start, at.end):
            symbol = ref.symbol
            if ref.name in language.elsewhere and symbol is not None and symbol.scope is file.scope:
                found.refusal = (f"'{ref.name}' means something else in another file", ref.start)
                break
            if symbol is None or symbol.scope is not file.scope or symbol in seen:
                continue
            seen.add(symbol)
            if not symbol.kinds:
                stars = stars or bool(file.scope.stars)
                continue
            trouble = place_name(file, language, symbol, homes, brought, constants, found, queue, done, ref.start)
            if trouble:
                found.refusal = trouble
                break
    if stars:
        for module, start in zip(file.scope.stars, file.star_imports, strict=False):
            found.imports.append(language.write.import_again(file, "*", module, "*"))
            found.places[found.imports[-1]] = start  # of one imported twice, the last counts
    found.imports = sorted(set(found.imports), key=lambda line: (found.places.get(line, 0), line))
    return found


def tied(file: SourceFile, effects: Effects, spans: list[tuple[int, int]]) -> tuple[str, int] | None:
    """What ties code, or a function that would go along with it, to the file: a name that the language gives each file.
    (why, where)."""
    queue = list(spans)
    seen: set[Symbol] = set()
    while queue:
        start, end = queue.pop()
        if (tell := tell_of_file(file, effects.language, start, end)) is not None:
            return tell
        for ref in file.within(start, end):
            if ref.name in effects.language.elsewhere and ref.symbol is not None and ref.symbol.scope is file.scope:
                return f"'{ref.name}' means something else in another file", ref.start
        for used in sorted(effects.direct(start, end).uses - seen, key=lambda s: s.name):
            seen.add(used)
            queue.append((effects.units[used].start, effects.units[used].end))
    return None


def tell_of_file(file: SourceFile, language: Language, start: int, end: int) -> tuple[str, int] | None:
    """What in a stretch of code tells in which file it stands. (why, where)."""
    return next(
        ((t.message, t.start) for t in language.tells(file) if t.means is Means.FILE and start <= t.start < end), None
    )


def definitions(file: SourceFile) -> dict[str, list[Statement]]:
    """Statements at the top that bind each name."""
    found: dict[str, list[Statement]] = {}
    for s in file.statements:
        for ref in file.within(s.start, s.end):
            if (
                ref.writes
                and ref.symbol is not None
                and ref.symbol.scope is file.scope
                and (ref.scope.frame is file.scope or ref.form != "definition")
            ):
                found.setdefault(ref.name, []).append(s)
    return found


def place_name(
    file: SourceFile,
    language: Language,
    symbol: Symbol,
    homes: dict[str, list[Statement]],
    brought: dict[str, list[tuple[str, str, Statement]]],
    constants: set[Symbol],
    found: Dependencies,
    queue: list[Statement],
    done: set[int],
    at: int,
) -> tuple[str, int] | None:
    """Import the name, take its definition along, or say why neither is possible."""
    name = symbol.name
    where = {id(s): s for s in homes.get(name, [])}
    if symbol.kinds == {"import"}:
        ways = sorted({(module, original) for module, original, _ in brought.get(name, [])})
        submodules = all(not original and language.write.top_module(module) == name for module, original in ways)
        if not ways or (len(ways) > 1 and not submodules) or len(where) != len(brought[name]):
            return f"'{name}' is imported in more than one way", at
        for _, _, statement in brought[name]:
            found.after = max(found.after, statement.end)
        for module, original in ways:
            if language.write.packaged_import(module):
                return f"'{name}' is imported relative to the package", at
            if not language.write.everywhere_import(module):
                found.imports.append(language.write.import_again(file, name, module, original))
                found.places.setdefault(found.imports[-1], brought[name][0][2].start)
        return None
    if len(where) != 1:
        return f"'{name}' is set in several places of the file that is left behind", at
    statement = next(iter(where.values()))
    if id(statement) in done:
        return None
    if language.write.anchored(file, statement):
        return f"'{name}' is offered to other files where it stands", at
    whole = (symbol in constants and statement.kind == "assign") or only_imports(file, language, statement)
    if whole or (symbol.kinds in ({"function"}, {"class"}, {"type"}) and statement.kind in ("function", "class")):
        if statement.kind == "function" and decorated(file, statement):
            return f"'{name}' is decorated and stays behind", at
        shared = [s for s in file.statements if statement.group is not None and s.group == statement.group]
        for s in shared or [statement]:  # variables of one declaration go together
            if id(s) not in done:
                done.add(id(s))
                found.moving.append(s)
                queue.append(s)
        return None
    return f"'{name}' belongs to the main code, which a moved class cannot reach", at


def decorated(file: SourceFile, statement: Statement) -> bool:
    function = file.function_ending(statement.end)
    return function is not None and bool(function.decorators)
