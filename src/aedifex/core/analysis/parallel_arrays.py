"""Lists with one index: several that hold a part each of what would be one list of objects (C15).

names = ["Mill", "Quarry"]           class Stop:
waiting = [0, 0]               →         def __init__(self, name, waiting): ...
waiting[i] += 1                      stops = [Stop("Mill", 0), Stop("Quarry", 0)]
                                     stops[i].waiting += 1

Used by the draft, which goes on with the program as it is afterwards, and by the steps that do it.
"""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from ..program.code_text import code_text
from ..program.language import Language
from ..program.lists import ListUse, Records
from ..program.model import SourceFile, Statement, Symbol
from .array_fill import has_size, size_trouble
from .effects import module_variables
from .index_bounds import unsure

GROWING = ("append", "delete", "empty")


def records(file: SourceFile, language: Language, free: Iterable[Symbol]) -> list[Records]:
    """The groups of lists of a file that have one index, in source order. ``free``: the variables that may be
    changed."""
    told: dict[Symbol, list[ListUse]] = {}
    for s in module_variables(file):
        uses = language.list_uses(file, s) if s in free and s.kinds == {"variable"} else None
        if uses := first_of_all(file, uses):
            told[s] = uses
    found = []
    for lists in indexed_alike(file, told):
        made = Records(lists, {s: told[s] for s in lists})
        if not why_not_one(file, language, made):
            found.append(made)
    return found


def first_of_all(file: SourceFile, uses: list[ListUse] | None) -> list[ListUse]:
    """The uses of a list that is given its items in one statement at the top, that first; none if another one may come
    before it."""
    firsts = [u for u in uses or [] if u.kind == "first"]
    if len(firsts) != 1 or any(u.span < firsts[0].span and file.function_at(u.span[0]) is None for u in uses or []):
        return []
    return [*firsts, *(u for u in uses or [] if u.kind != "first")]


def lists_named(file: SourceFile, language: Language, names: list[str]) -> Records | str:
    """The lists that a design names as one; why not if they are none."""
    made = Records([], {})
    for name in names:
        s = file.scope.symbols.get(name)
        uses = first_of_all(file, language.list_uses(file, s)) if s is not None else []
        if s is None or not uses:
            return f"'{name}' is used in a way that a list of objects could not be"
        made.lists.append(s)
        made.uses[s] = uses
    made.lists.sort(key=lambda s: made.uses[s][0].span)
    return why_not_one(file, language, made) or made


def indexed_alike(file: SourceFile, told: dict[Symbol, list[ListUse]]) -> list[list[Symbol]]:
    """Lists of one length that are used with the same index in the same function, or stretch of main code, or grow one
    after another."""
    indexes: dict[tuple[object, str], set[Symbol]] = {}
    for s, uses in told.items():
        for u in uses:
            if u.kind == "item":
                indexes.setdefault((file.function_at(u.span[0]), file.slice(*u.parts[0])), set()).add(s)
            elif u.kind in GROWING:
                indexes.setdefault((u.block, u.kind), set()).add(s)
    head = {s: s for s in told}
    for held in indexes.values():
        ordered = sorted(held, key=lambda s: told[s][0].span)
        for other in ordered[1:]:
            if as_long(file, told[other][0], told[ordered[0]][0]):
                old, new = head[other], head[ordered[0]]
                head = {s: new if h is old else h for s, h in head.items()}
    groups: dict[Symbol, list[Symbol]] = {}
    for s in told:
        groups.setdefault(head[s], []).append(s)
    return [g for g in groups.values() if len(g) > 1]


def as_long(file: SourceFile, a: ListUse, b: ListUse) -> bool:
    """Whether two lists begin with as many items, as far as that is written."""
    sizes = ["".join(file.slice(*u.size).split()) if u.size is not None else "" for u in (a, b)]
    return len(a.parts) == len(b.parts) and sizes[0] == sizes[1]


def why_not_one(file: SourceFile, language: Language, made: Records) -> str:
    """ "" if the lists can become one, else why not; finds what grows and shrinks together."""
    firsts = made.firsts
    if len({len(u.parts) for u in firsts}) > 1:
        return f"{made.named} do not begin with as many items each"
    if has_size(made) and (why := size_trouble(file, language, made)):
        return why
    if not any(
        u.kind in GROWING or (u.kind == "item" and (u.ref.writes or u.ref.mutates))
        for s in made.lists
        for u in made.uses[s]
    ):
        return f"nothing changes {made.named}: they are a table of constants"
    for s, first in zip(made.lists, firsts, strict=True):
        if any(r.symbol is not None and r.symbol in made.uses for part in first.parts for r in file.within(*part)):
            return f"{s.name} begins with items of the others"
        if any(language.purity(file, part) == "effect" for part in first.parts):
            return f"the items of {s.name} are made where they stand"
    if any(not leaves_lists_alone(file, language, s, made) for s in between(file, firsts)):
        return f"something happens between the first statements of {made.named}"
    rows = [u for s in made.lists for u in made.uses[s] if u.kind in ("first", *GROWING)]
    if crowded := next((u for u in rows if not whole_line(file, language, u.span)), None):
        return f"line {file.shown(crowded.span[0])} holds more than one statement"
    if why := grown(file, language, made):
        return why
    if language.lenient_lists:
        if (u := unsure(file, language, made)) is not None:
            return f"line {file.shown(u.span[0])}: index '{file.slice(*u.parts[0])}' may be out of range"
    return ""


def whole_line(file: SourceFile, language: Language, span: tuple[int, int]) -> bool:
    """Whether a statement has its lines for itself, but for a remark."""
    start = file.lines[file.line(span[0]) - 1]
    end = file.text.find(b"\n", span[1])
    rest = file.text[span[1] : end if end >= 0 else len(file.text)].strip()
    return not file.text[start : span[0]].strip() and (not rest or bool(language.write.trailing_comment(file, span[1])))


def between(file: SourceFile, firsts: list[ListUse]) -> list[Statement]:
    """The statements at the top from the first list to the last."""
    start, end = min(u.span[0] for u in firsts), max(u.span[1] for u in firsts)
    return [
        s
        for s in file.statements
        if start <= s.start < end and not any(u.span[0] <= s.start < u.span[1] for u in firsts)
    ]


def leaves_lists_alone(file: SourceFile, language: Language, s: Statement, made: Records) -> bool:
    """Whether a statement neither does anything nor looks at the lists."""
    if s.kind in ("function", "class", "import", "docstring", "pass"):
        return True
    quiet = (
        s.kind in ("assign", "annotate")
        and s.target is not None
        and (s.value is None or language.purity(file, s.value) != "effect")
    )
    return quiet and not any(r.symbol in made.uses for r in file.within(s.start, s.end))


def grown(file: SourceFile, language: Language, made: Records) -> str:
    """Whatever adds, takes out or empties does so for all lists, one statement after another."""
    made.together = []
    for kind in GROWING:
        uses = sorted((u for s in made.lists for u in made.uses[s] if u.kind == kind), key=lambda u: u.span)
        size = len(made.lists)
        for row in (uses[i : i + size] for i in range(0, len(uses), size)):
            line = file.shown(row[0].span[0])
            if {u.ref.symbol for u in row} != set(made.lists) or len({u.block for u in row}) != 1:
                return f"line {line}: {made.named} do not grow and shrink together"
            for a, b in pairwise(row):
                gap = code_text(file)[a.span[1] : b.span[0]]
                if gap.strip() or b"\n" not in gap:
                    return f"line {line}: something stands between what is done to {made.named}"
            if why := uneven(file, language, made, row):
                return f"line {line}: {why}"
            made.together.append(row)
    return ""


def uneven(file: SourceFile, language: Language, made: Records, row: list[ListUse]) -> str:
    """Why statements for one list each cannot be one for all; "" if they can."""
    if row[0].kind == "delete":
        texts = {file.slice(*p) for u in row for p in u.parts}
        same = len(texts) <= 1 and len({len(u.parts) for u in row}) == 1
        if not same or any(language.purity(file, p) == "effect" for u in row for p in u.parts):
            return "different items are taken out"
    if row[0].kind == "empty" and len({u.bound for u in row}) > 1:
        return "some are emptied and some made anew"
    if row[0].kind == "append":
        if not language.write.keyword_argument("a", "") and [u.ref.symbol for u in row] != made.lists:
            return "items are added in another order than the lists stand"
        for u in row[1:]:
            if language.purity(file, u.parts[0]) == "effect":
                return f"what is added to {u.ref.name} is worked out after the first has grown"
            if any(r.symbol in made.uses for r in file.within(*u.parts[0])):
                return f"what is added to {u.ref.name} looks at the lists"
    return ""
