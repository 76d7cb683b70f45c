"""Work on one object's data that others do: lines and conditions that are to be methods of it (A7, C18).

if tram1_load < tram1_seats and tram1_open:         if tram1.load_under_seats_and_open():
    tram1_load += 1                          →          tram1.add_to_load()

Each is lifted into a function first; the draft then finds that it belongs to the object.
"""

from __future__ import annotations

import re
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from ...analysis.dataflow import Flow
from ...analysis.late_reads import deferred
from ...analysis.regions.interface import interface, state_names
from ...analysis.regions.region import Region, all_blocks, further, region_of
from ...analysis.regions.repeats import repeats
from ...analysis.variable_kinds import classify
from ...design.tables import ClassDesign
from ...naming.identifiers import VERBS as DOING
from ...naming.identifiers import free, like, says
from ...naming.inflection import plural
from ...naming.verbs import guarded_words, key_asked, question, remark, remark_words, verb
from ...program.edits import applied
from ...program.language import Language
from ...program.line_ranges import Place, lines_of, moved_offset
from ...program.model import Block, SourceFile, Statement, Symbol
from ...program.program import Program, reread
from ...program.refusal import Refusal
from ...rewrites.extract_function.extraction import Lifter
from .data_clumps import Thing, things
from .evident_things import EvidentThing
from .paragraphs import set_apart

EACH = frozenset({"all", "each", "every"})


@dataclass
class Piece:
    """``lines``: as a design gives them; ``name``: of the function; ``region``: in the file as it was read."""

    lines: str
    name: str
    region: Region
    named: frozenset[str]
    size: int = 0
    several: bool = False
    app: bool = False  # it is to be a method of the app
    of_item: bool = False  # it is to be a method of one object of a list
    also: list[int] = field(default_factory=list)  # lines where the same stands
    takes: set[str] = field(default_factory=set)  # what it is handed, once it is lifted
    types: dict[str, str] = field(default_factory=dict)  # of that, where nothing is written
    of: str = ""  # the method whose lines they are, of a class that stands

    @property
    def uses(self) -> set[str]:
        """The variables that it takes to be the object's."""
        return {r.name for r in self.region.file.within(self.region.start, self.region.end)} & self.named


def lift_all(program: Program, path: str, wanted: Sequence[Piece]) -> tuple[Program, list[Piece]]:
    """The program with the pieces as functions, and those that could be lifted. Smaller ones first, as one may hold
    another."""
    places = {p.name: (p.region.start, p.region.end) for p in wanted}
    stood = []
    for piece in sorted(wanted, key=lambda p: (p.size, p.region.start)):
        file = program.files[path]
        try:
            lifter = Lifter(
                program.language, Place(file, *places[piece.name]), piece.name, piece.named, piece.several, piece.types
            )
            edits = lifter.edits()
            piece.takes = {s.name for s in lifter.made.takes}
        except Refusal:
            continue
        program = reread(program, {path: applied(file.text, edits, file.encoding)})
        places = {n: (moved_offset(a, edits, False), moved_offset(b, edits, True)) for n, (a, b) in places.items()}
        stood.append(piece)
    return program, stood


def from_lines(classes: list[ClassDesign], stood: Sequence[Piece], line: Callable[[int], int] = int) -> None:
    """Say of the methods that come from lifted functions which lines they are. ``line``: that of the source for one of
    the program."""
    by_name = {p.name: p for p in stood}
    places = {p.name: p.region.start for p in stood if p.app}
    for c in classes:
        c.methods.sort(
            key=lambda m: places.get(m.origins[0].local, 0) if m.origins else 0
        )  # parts of the main code in its order, at the end
        for m in c.methods:
            mine = [by_name[o.local] for o in m.origins if o.local in by_name]
            if not mine:
                continue
            m.origins, m.lines = [], [p.lines for p in mine]
            c.why = [said for w in c.why if (said := reason_without(w, by_name))]
            where = " and ".join(numbers(p, line) for p in mine)
            if mine[0].app:
                c.why.append(f"{m.name} is one job of the main loop, at {where}")
            else:
                c.why.append(f"{m.name} is what other code does with its data alone, at {where}")


def numbers(piece: Piece, line: Callable[[int], int] = int) -> str:
    """The lines of a piece, as said in a sentence."""
    file, region = piece.region.file, piece.region
    first, last = line(file.stands(region.start)[1]), line(file.stands(region.end - 1)[1])
    more = "".join(f", {line(n)}" for n in piece.also)
    return (f"lines {first} to {last}" if last > first else f"line {first}") + more


def reason_without(why: str, names: Mapping[str, Piece]) -> str:
    """A reason that does not speak of functions which are not in the sources; "" if nothing is left of it."""
    spoken = [n for n in names if re.search(rf"\b{re.escape(n)}\b", why)]
    if not spoken:
        return why
    listed = re.search(r"used by the same functions \((.*)\)", why)
    if listed is None:
        return why.split(";")[0] if "numbered copies" in why and not any(n in why.split(";")[0] for n in spoken) else ""
    left = [n for n in listed[1].split(", ") if n not in names]
    head = why[: listed.start()]
    return f"{head}used by the same functions ({', '.join(left)})" if left else f"{head}worked on together"


def pieces(
    file: SourceFile,
    language: Language,
    free_: Sequence[Symbol],
    items: Sequence[Thing] = (),
    evident: Sequence[EvidentThing] = (),
) -> list[Piece]:
    """What is to be lifted, in source order. ``free_``: the variables that may become fields; ``items``: objects of
    lists; ``evident``: things of the main code."""
    used = {n for s in file.scope.walk() for n in s.symbols} | set(language.builtins)
    found: list[Piece] = []
    for row in [*things(file, language, free_, evident), *([t] for t in items)]:
        for group in outermost_groups(list(matched(file, language, row, clump_regions(file, language, row)))):
            if not group[0].statements and not any(repeats(r) for r in group) and len(row) < 2:
                continue  # an expression that stands once says more than a name for it
            named = frozenset(n for t in row for n in t.named)
            words = named_after(group[0], row[0])
            if not words:
                continue
            stem = "" if row[0].stem in words and row[0].number < 0 else row[0].stem
            base = free(named_apart(group[0], row[0], words, language.write.words(stem) if stem else [], used), used)
            for r, thing in zip(group, row, strict=True):
                name = base if thing.number < 0 else f"{base}{thing.number}"
                used.add(name)
                more = [o.line for o in repeats(r)]
                found.append(
                    Piece(
                        lines_of(file, r.start, r.end, bool(r.statements)),
                        name,
                        r,
                        named,
                        r.end - r.start,
                        len(row) > 1,
                        False,
                        thing.of_item,
                        more,
                        types=thing.types(),
                    )
                )
            used.add(base)
    return sorted(found, key=lambda p: p.region.start)


def named_apart(region: Region, thing: Thing, words: list[str], stem: list[str], used: set[str]) -> str:
    """A name of words; with what is set, where another piece of the same object has the short one."""
    write = region.language.write
    name, own = write.member_name([*words, *stem], like(region.file)), thing.spoken(write)
    set_ = [own[n][-1] for n in thing.sets(region.file.within(region.start, region.end))]
    longer = write.member_name([*words, *set_[:1], *stem], like(region.file))
    return str(longer if name in used and set_ and set_[0] not in words and longer not in used else name)


def named_after(region: Region, thing: Thing) -> list[str]:
    write = region.language.write
    own = thing.spoken(write)
    f = region.function
    starts = f is not None and any(s.kind == "guard" and s.start <= f.start < s.end for s in region.file.statements)
    starts = starts or (f is not None and f.name in region.language.hooks(region.file))
    if f is not None and not starts and len(region.statements) * 2 >= len(region.body):
        words = [w for w in write.words(f.name) if not says(w, {thing.stem}) and w not in EACH]
        if words:  # most of what that function does
            return list(words)
    if region.statements:
        sets = thing.sets(region.file.within(region.start, region.end))
        if f is not None and thing.parted and region.language.joined and f.name in region.language.hooks(region.file):
            said = remark(region.file, region, write, nouns=False)
            if said and not sets and said[0] not in DOING:
                return ["show", *said]
            return said or (["set", "up"] if f.name == "setup" else ["update"] if sets else ["show"])
        if thing.shows(region.start, region.end) and not remark(region.file, region, write, nouns=False):
            return filling_words(region, thing) or ["draw"]
        return [w for w in verb(region, own, sets, thing.stem, write) if not says(w, {thing.stem})] or ["update"]
    return question(region, own, thing.stem, write) or guarded_words(region, thing.stem, write)


def filling_words(region: Region, thing: Thing) -> list[str]:
    """Words for lines that fill lists of a thing with what is drawn: what stands above these, or their last word."""
    file, write = region.file, region.language.write
    refs = [r for r in file.within(region.start, region.end) if r.symbol in thing.roles]
    lists = list(dict.fromkeys(r.symbol for r in refs if r.mutates))
    if not lists or lists[0] is None or any(r.writes for r in refs) or len(lists) < len({r.symbol for r in refs}):
        return []
    first = min(lists[0].bindings, key=lambda r: r.start)
    said = remark_words(file, write.line_start(file, first.start), write)
    return ["make", plural(said[0] if said and said[0].endswith("s") else write.words(lists[0].name)[-1])]


def matched(
    file: SourceFile, language: Language, row: list[Thing], found: list[tuple[Thing, Region]]
) -> Iterator[list[Region]]:
    """The regions of each shape that all objects of a row have; the first of each object."""
    shapes: dict[tuple[str, ...], dict[Thing, Region]] = {}
    for thing, region in found:
        refs = file.within(region.start, region.end)
        edits = [(r.start, r.end, "\1" + thing.roles[r.symbol]) for r in refs if r.symbol in thing.roles]
        edits += [(*span, "\2") for span in thing.indexes(region.start, region.end)]
        shape = tuple(language.tokens(file, region.start, region.end, edits))
        shapes.setdefault(shape, {}).setdefault(thing, region)
    for by_thing in shapes.values():
        if len(by_thing) == len(row):
            yield [by_thing[t] for t in row]


def clump_regions(file: SourceFile, language: Language, row: list[Thing]) -> list[tuple[Thing, Region]]:
    """Every stretch that works on one object of a row and on nothing else, and is worth a method."""
    found: list[tuple[Thing, Region]] = []
    state = changing(file, language)
    places = [sorted(r.start for s in thing.roles for r in s.references) for thing in row]
    for body, whole in bodies(file, language, state, row):
        for block in [body, *inner_blocks(file, language, body)]:
            for thing, mine in zip(row, places, strict=True):
                for parts in longest_rows(file, language, block, thing, state, mine):
                    regions = [r for run in parts if (r := own_region(file, language, thing, run, whole, body))]
                    if len(regions) < len(parts) > 1:  # what one works out, the next needs
                        merged = own_region(file, language, thing, [s for run in parts for s in run], whole, body)
                        regions = [merged] if merged is not None else regions
                    found += [(thing, region) for region in regions]
    return [*found, *conditions(file, language, row, state)]


def own_region(
    file: SourceFile, language: Language, thing: Thing, run: Sequence[Statement], whole: bool, body: Sequence[Statement]
) -> Region | None:
    """Statements as something to lift, without those at their head that only go along if they need not; None if they
    cannot be, or are not worth it."""
    if whole and list(run) == list(body):
        return None
    for first in range(len(run)):
        region = region_of(file, language, run[first].start, run[-1].end)
        if region is not None and takes_nothing_back(region, thing) and does_enough(region, thing):
            return region
        if not thing.goes_along(run[first]):
            return None
    return None


def changing(file: SourceFile, language: Language) -> set[Symbol]:
    """The variables that are state: what never changes and what each turn makes anew is none."""
    if "changing" not in file.memo:
        found = {s for s, v in classify(file, language).items() if v.nature != "constant"}
        file.memo["changing"] = found - turn_locals(file, language)
    state: set[Symbol] = file.memo["changing"]
    return state


def inner_blocks(file: SourceFile, language: Language, body: Sequence[Statement]) -> list[list[Statement]]:
    key = ("blocks", body[0].start if body else -1)
    if key not in file.memo:
        file.memo[key] = [b.statements for _, b in all_blocks(file, language, body) if not further(b)]
    found: list[list[Statement]] = file.memo[key]
    return found


def places_within(places: Sequence[int], start: int, end: int) -> int:
    """How many of the places lie in a stretch."""
    return bisect_left(places, end) - bisect_left(places, start)


def outermost_groups(groups: list[list[Region]]) -> list[list[Region]]:
    """Without those that lie in another whole."""
    spans = [[(r.start, r.end) for r in group] for group in groups]

    def inside(one: list[tuple[int, int]], other: list[tuple[int, int]]) -> bool:
        return one != other and all(any(a <= x and y <= b for a, b in other) for x, y in one)

    return [g for g, mine in zip(groups, spans, strict=True) if not any(inside(mine, other) for other in spans)]


def turn_locals(file: SourceFile, language: Language) -> set[Symbol]:
    """Variables of the main code that are set anew on every turn of a loop, and that no function uses."""
    if not language.code_at_top:
        return loop_locals(file, language)
    main = main_code(file)
    flow = Flow(file, language, file.scope, main)
    found: set[Symbol] = set()
    for s, block, anew in set_anew(file, language, flow, main):
        looped = {r.symbol for r in flow.refs(s.start, block.start) if r.writes}
        for x in anew | looped:
            if (
                x is not None
                and all(s.start <= r.start < block.end for r in x.bindings)
                and not any(deferred(r.scope, file.scope) for r in x.references)
            ):
                found.add(x)
    return found


def set_anew(
    file: SourceFile, language: Language, flow: Flow, body: Sequence[Statement]
) -> Iterator[tuple[Statement, Block, set[Symbol]]]:
    """Each loop of a body, what it repeats, and the variables that this sets on every turn before it needs them."""
    for s, block in all_blocks(file, language, body):
        if s.kind in ("for", "while") and block.role == "body" and block.statements:
            first = block.statements[0]
            kept = flow.before(first, flow.after[first.start], flow.exits[first.start])
            yield (
                s,
                block,
                {r.symbol for r in flow.refs(block.start, block.end) if r.writes and r.symbol is not None} - kept,
            )


def loop_locals(file: SourceFile, language: Language) -> set[Symbol]:
    """The variables that are declared in a loop of the function that starts the program."""
    loops = [
        s for g in file.statements if g.kind == "guard" for s in language.inner(file, g) if s.kind in ("for", "while")
    ]
    written = {
        r.symbol
        for s in loops
        for r in file.within(s.start, s.end)
        if r.writes and r.symbol is not None and r.symbol.scope is not file.scope
    }
    return {x for x in written if any(s.start <= min(b.start for b in x.bindings) < s.end for s in loops)}


def main_code(file: SourceFile) -> list[Statement]:
    return [s for s in file.statements if s.kind not in ("function", "class", "import", "docstring")]


def bodies(
    file: SourceFile, language: Language, state: set[Symbol], row: list[Thing]
) -> Iterator[tuple[Sequence[Statement], bool]]:
    """Main code, and the functions that are not one object's own; whether it is a function's."""
    yield file.statements, False
    holders = {f for t in row for s in t.roles for r in s.references if (f := file.function_at(r.start)) is not None}
    for f in sorted(holders, key=lambda f: f.start):
        used = {r.symbol for r in file.within(f.start, f.end) if r.symbol is not None}
        theirs = [t for t in row if used & set(t.roles)]
        own = len(theirs) == 1 and theirs[0].own_code(f, used & state)
        if theirs and not own:
            yield language.body(file, f), True


def statements_with(block: Sequence[Statement], places: Sequence[int]) -> list[int]:
    """The indexes of the statements of a block in which one of the places lies."""
    if not block:
        return []
    starts = [s.start for s in block]
    inside = places[bisect_left(places, block[0].start) : bisect_left(places, block[-1].end)]
    found = sorted({bisect_right(starts, p) - 1 for p in inside})
    return [i for i in found if places_within(places, block[i].start, block[i].end)]


def longest_rows(
    file: SourceFile,
    language: Language,
    block: Sequence[Statement],
    thing: Thing,
    state: set[Symbol],
    places: Sequence[int],
) -> Iterator[list[list[Statement]]]:
    """The longest rows of statements that work on the object alone, each cut where its author began something new.
    ``places``: where its variables are used, sorted."""
    told = set(statements_with(block, places))
    parts: list[list[int]] = []  # of one row
    between: list[int] = []  # what may go with the next
    for i in range(min(told, default=0) if not thing.parted else 0, max(told, default=-1) + 1):
        if i not in told and thing.goes_along(block[i]):
            between.append(i)
            continue
        mine = i in told and of_one(file, language, block[i], thing, state)
        follows = bool(parts) and parts[-1][-1] == i - len(between) - 1
        if parts and not (mine and follows and thing.one(file, block[parts[-1][0]].start, block[i].end)):
            yield [[block[j] for j in part] for part in parts]
            parts = []
        if mine:
            new = next((j for j in [*between, i] if j and set_apart(file, language, block[j - 1], block[j])), -1)
            if parts and (not thing.parted or new < 0):
                parts[-1] += [*between, i]
            elif parts:
                parts[-1] += [j for j in between if j < new]
                parts.append([j for j in [*between, i] if j >= new])
            else:
                parts = [[*between, i]]
        between = []
    if parts:
        yield [[block[j] for j in part] for part in parts]


def of_one(file: SourceFile, language: Language, s: Statement, thing: Thing, state: set[Symbol]) -> bool:
    used = {r.symbol for r in file.within(s.start, s.end)}
    if s.kind in ("function", "class", "import", "declare", "return", "guard") or not thing.only(used, state):
        return False
    return thing.one(file, s.start, s.end) and quiet(file, language, s.start, s.end, thing)


def quiet(file: SourceFile, language: Language, start: int, end: int, thing: Thing) -> bool:
    """Whether nothing is called but what only works something out, and methods of the object's own data."""
    calls = file.calls_within(start, end)
    inner = [c for c in calls if c.callee.symbol not in thing.roles and not thing.may_call(c.callee.start)]
    return all(language.purity(file, (c.callee.start, c.end)) != "effect" for c in inner) and not any(
        start <= at < end and not thing.may_call(at) for at in file.opaque_calls
    )


def takes_nothing_back(region: Region, thing: Thing) -> bool:
    """Whether it takes nothing back to where it stood but the object's data."""
    named = state_names(region) | {s for s in thing.roles if s.name in thing.named}
    made = interface(region, named)
    return made.trouble is None and not made.gives and not made.leaves and len(made.takes) <= 2 + thing.of_item


def does_enough(region: Region, thing: Thing) -> bool:
    """Whether statements do more than give one variable a value."""
    refs = [r for r in region.file.within(region.start, region.end) if r.symbol in thing.roles]
    firsts = region.function is None and all(s.kind == "guard" for s in region.around)
    if firsts and all(s.kind == "assign" for s in region.statements):
        return False  # first values
    if not thing.sets(refs):
        return thing.shows(region.start, region.end) and len(refs) > 1
    if thing.shows(region.start, region.end) or key_asked(region):
        return True
    plain = all(s.kind in ("assign", "augment", "expression") for s in region.statements)
    return len(region.statements) > 1 or not plain or thing.worth(refs, region.statements[0])


def conditions(
    file: SourceFile, language: Language, row: list[Thing], state: set[Symbol]
) -> Iterator[tuple[Thing, Region]]:
    """Conditions over an object's data that others work out."""
    last = -1
    places = sorted(r.start for thing in row for s in thing.roles for r in s.references)
    for body, _ in bodies(file, language, state, row):
        for s in (body[i] for i in statements_with(body, places)):
            for start, end, test in worked_out(file, language, s):
                if start < last or not test or places_within(places, start, end) < 2:
                    continue
                refs = file.within(start, end)
                used = {r.symbol for r in refs}
                thing = next((t for t in row if t.only(used, state)), None)
                if thing is None or len(set(thing.told(refs))) < 2 or not thing.one(file, start, end):
                    continue
                if (
                    not quiet(file, language, start, end, thing)
                    if thing.of_item
                    else language.purity(file, (start, end)) == "effect"
                ):
                    continue
                region = region_of(file, language, start, end)
                if region is not None and not region.statements and takes_nothing_back(region, thing):
                    yield thing, region
                    last = end


def worked_out(file: SourceFile, language: Language, s: Statement) -> list[tuple[int, int, bool]]:
    key = ("expressions", s.start)
    if key not in file.memo:
        file.memo[key] = list(language.regions.expressions(file, s.start, s.end))
    found: list[tuple[int, int, bool]] = file.memo[key]
    return found
