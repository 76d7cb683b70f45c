"""Lists of a size that are filled later: where their objects are made, before anything looks at one.

float[] x = new float[n];            Drop[] drops = new Drop[n];
void setup() {                       void setup() {
  for (int i = 0; i < n; i++) {        for (int i = 0; i < n; i++) {
    x[i] = random(width);      →         drops[i] = new Drop();
  }                                      drops[i].x = random(width);
}                                      }
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from ..program.language import Language
from ..program.lists import WholeLoop
from ..program.model import Function, SourceFile, Statement, Symbol
from .counting_loops import counting_loop
from .effects import Effects
from .regions.region import ways_out
from .variable_kinds import constants_of, movable

if TYPE_CHECKING:
    from ..program.edits import Range
    from ..program.lists import Records


def size_trouble(file: SourceFile, language: Language, made: Records) -> str:
    """Why lists that begin with a size alone cannot be filled; "" if they can."""
    sizes = [u.size for u in made.firsts if u.size is not None]
    if len(sizes) < len(made.lists) or len({"".join(file.slice(*s).split()) for s in sizes}) > 1:
        return f"{made.named} do not begin with as many items each"
    if not all(movable(file, s, constants_of(file, language), language) for s in sizes):
        return f"the size of {made.named} may change while the program runs"
    f = starter(file, language)
    if f is None:
        return f"nothing tells where {made.named} would be filled"
    if f.symbol is None or any(not r.writes for r in f.symbol.references):
        return f"'{f.name}' may run more than once"
    effects = Effects(file, language)
    firsts = [u.span for u in made.firsts]
    for s in file.statements:
        plain = s.kind in ("function", "class", "import", "guard", "docstring", "pass") or any(
            a <= s.start < b for a, b in firsts
        )
        if not plain and may_touch(effects, s, set(made.lists)):
            return f"line {file.shown(s.start)} looks at {made.named} before '{f.name}' runs"
    return ""


def starter(file: SourceFile, language: Language) -> Function | None:
    """The function that runs first, and once."""
    guard = next((s for s in file.statements if s.kind == "guard"), None)
    if guard is not None:
        return next((f for f in file.tops if guard.start <= f.start < guard.end), None)
    return file.function(language.starts) if language.starts else None


def may_touch(effects: Effects, s: Statement, lists: set[Symbol]) -> bool:
    """Whether a statement may look at the lists, itself or by what it calls."""
    touch = effects.touch(s.start, s.end)
    called_back = (
        [n for x in effects.escaped if x in effects.reach for n in effects.reach[x].names] if touch.unseen else []
    )
    return bool((touch.names | set(called_back)) & lists)


@dataclass
class Filling:
    """Where the objects are made. ``given``: lists whose first items are handed over there, and what they are given;
    ``taken``: their statements."""

    edit: Range
    given: list[tuple[Symbol, str]] = field(default_factory=list)
    taken: tuple[int, int] = (0, 0)


def filling(file: SourceFile, language: Language, made: Records, class_: str, collection: str) -> Filling:
    """The edit that makes the objects: in the first loop that goes through all of them, else in one of its own before
    it."""
    f = starter(file, language)
    assert f is not None
    write, effects = language.write, Effects(file, language)
    body, lists = language.body(file, f), set(made.lists)
    at = next(
        (
            i
            for i, s in enumerate(body)
            if may_touch(effects, s, lists)
            or any(k == "return" for k, _ in ways_out(file, language, [s], False, False))
        ),
        len(body),
    )
    if at < len(body) and (found := in_loop(file, language, effects, made, body[at])) is not None:
        name, opens = found.name, found.opens
        if starts := first_items(file, language, effects, made, body[at], name):
            given = [(s.target_list, file.slice(*s.value)) for s in starts]
            start, end = starts[0].span[0], starts[-1].span[1]
            text = write.placed(collection, name, write.make(class_, [value for _, value in given]))
            return Filling((start, end, text), given, (start, end))
        lead = file.slice(write.line_start(file, body[at].start), body[at].start) + write.indent_unit(file)
        text = f"\n{lead}{write.placed(collection, name, write.make(class_, []))}"
        return Filling((opens, opens, write.with_newlines(text, write.newline(file))))
    taken = {n for s in f.scope.walk() for n in s.symbols}
    name = next(n for n in ["i", "j", "k", "n", *(f"i{n}" for n in range(2, 1000))] if n not in taken)
    unit = write.indent_unit(file)
    if at < len(body):
        place = write.comment_start(file, body[at].start)
        lead = file.slice(write.line_start(file, body[at].start), body[at].start)
        lead = lead[: len(lead) - len(lead.lstrip())]
    else:
        place = write.line_end(file, body[-1].end) if body else write.line_start(file, f.end - 1)
        lead = file.slice(write.line_start(file, f.start), f.start) + unit
    return Filling(
        (
            place,
            place,
            write.with_newlines(
                write.filled(lead, unit, collection, name, write.make(class_, [])), write.newline(file)
            ),
        )
    )


@dataclass(frozen=True)
class FirstItem:
    """A statement that gives the item of a turn its first value."""

    target_list: Symbol
    span: tuple[int, int]
    value: tuple[int, int]


def first_items(
    file: SourceFile, language: Language, effects: Effects, made: Records, loop: Statement, name: str
) -> list[FirstItem]:
    """The statements with which a loop begins that set one list each, from values that look at none of them."""
    body = language.regions.blocks(file, loop)[0].statements
    uses = {u.span[0]: (s, u) for s in made.lists for u in made.uses[s] if u.kind == "item"}
    found: list[FirstItem] = []
    for s in body:
        mine = uses.get(s.start)
        value = language.item_value(file, s.start, s.end) if mine is not None else None
        if (
            mine is None
            or value is None
            or mine[0] in [x.target_list for x in found]
            or file.slice(*mine[1].parts[0]) != name
        ):
            break
        refs = {r.symbol for r in file.within(*value)}
        if refs & set(made.lists) or inside_others(effects, Statement("expression", *value), set(made.lists)):
            break
        if found and file.text[found[-1].span[1] : s.start].strip():
            break
        found.append(FirstItem(mine[0], (s.start, s.end), value))
    return found if all(language.handed_over(file, made.uses[x.target_list][0].ref) for x in found) else []


def in_loop(file: SourceFile, language: Language, effects: Effects, made: Records, s: Statement) -> WholeLoop | None:
    """A loop that goes through all objects and looks at no other than that of its turn."""
    assert made.firsts[0].size is not None
    bounds = {"".join(file.slice(*made.firsts[0].size).split()), *(language.write.length(x.name) for x in made.lists)}
    found = counting_loop(file, language, s, bounds)
    if (
        found is None
        or not found.block
        or inside_others(effects, s, set(made.lists))
        or list(ways_out(file, language, [s], False, False))
    ):
        return None
    name, opens = found.name, found.opens
    changed = [r for r in file.within(opens, s.end) if r.name == name and r.writes]
    uses = [u for x in made.lists for u in made.uses[x] if opens <= u.ref.start < s.end]
    breaks = [
        k
        for b in language.regions.blocks(file, s)
        for k, _ in ways_out(file, language, b.statements, False, False)
        if k != "continue"
    ]
    same = all(u.kind in ("item", "length") and (u.kind == "length" or file.slice(*u.parts[0]) == name) for u in uses)
    return found if uses and same and not changed and not breaks else None


def inside_others(effects: Effects, s: Statement, lists: set[Symbol]) -> bool:
    """Whether functions that a statement calls look at the lists."""
    direct = effects.direct(s.start, s.end)
    if any(effects.reach[x].names & lists for x in direct.uses if x in effects.reach):
        return True
    return effects.touch(s.start, s.end).unseen and any(
        effects.reach[x].names & lists for x in effects.escaped if x in effects.reach
    )


def has_size(made: Records) -> bool:
    """Whether the size of the arrays is told before they are filled."""
    return any(u.size is not None for u in made.firsts)
