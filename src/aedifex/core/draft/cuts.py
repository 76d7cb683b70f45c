"""Main code that does everything, cut into methods of the app: what handles input, what moves on, what draws (A4, A6, C3).

Statements of the main loop about the same thing are one method, unless they are few; values that are made anew on every turn and
needed on one side of a cut alone keep to that side. Branches of a command get a method each, named after the command.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise

from ..program.language import Language
from ..program.model import Block, SourceFile, Statement, Symbol
from ..survey.concerns import Concerns
from ..survey.effects import Effects
from ..survey.handlers import main_statements, stretches
from ..survey.region import Region, interface, region_of, state_names
from .lines import lines_of
from .names import free, like
from .pieces import Piece, further, turn_locals
from .verbs import remark

LONG = 18  # lines of a loop's body from which it is cut
FEW = 3  # lines that are left where they are
VERBS = {"input": "handle input", "work": "update", "drawing": "draw", "console": "show", "sound": "play sounds", "files": "save", "network": "exchange"}
LITERAL = re.compile(r"""['"]([A-Za-z][A-Za-z_]+)['"]""")


def cuts(file: SourceFile, language: Language, effects: Effects, taken: set[str]) -> list[Piece]:
    """What of the main loop is to be a method of the app, in source order. ``taken``: names in use."""
    loop = main_loop(file, effects, language)
    blocks = language.regions.blocks(file, loop) if loop is not None else []
    if not blocks or not blocks[0].statements:
        return []
    body = blocks[0].statements
    if file.line(body[-1].end - 1) - file.line(body[0].start) + 1 < LONG:
        return []
    about = Concerns(file, language, effects)
    locals_ = turn_locals(file, language)
    found: list[Piece] = []
    for row in rows(file, about, body, locals_):
        words = named(file, language, effects, about, row)
        found += piece(file, language, row, words, locals_, taken)
    for row, words in branches(file, language, body):
        found += piece(file, language, row, words, locals_, taken)
    return sorted(found, key=lambda p: p.region.start)


def main_loop(file: SourceFile, effects: Effects, language: Language) -> Statement | None:
    statements = main_statements(file, effects, language)
    parts = [p for p in stretches(statements, language) if p.kind == "loop"]
    return next((s for s in statements if parts and s.start == parts[0].start), None)


def rows(file: SourceFile, about: Concerns, body: Sequence[Statement], locals_: set[Symbol]) -> Iterator[list[Statement]]:
    """Neighbouring statements about the same thing, those that prepare a value together with those that use it."""
    found: list[tuple[str, list[Statement]]] = []
    for s in body:
        concern = about.of(s, True)
        if found and found[-1][0] == concern:
            found[-1][1].append(s)
        else:
            found.append((concern, [s]))
    for (_, before), (_, after) in pairwise(found):
        needed = {r.symbol for s in after for r in file.within(s.start, s.end)} & locals_
        made = [i for i, s in enumerate(before) if {r.symbol for r in file.within(s.start, s.end) if r.writes} & needed]
        if made and made[0] > 0:
            after[:0] = before[made[0] :]
            del before[made[0] :]
    for _, row in found:
        if row and len(row) < len(body):
            yield row


def piece(
    file: SourceFile, language: Language, row: Sequence[Statement], words: Sequence[str], locals_: set[Symbol], taken: set[str]
) -> Iterator[Piece]:
    """The statements as something to lift, if they can be and are worth it."""
    lines = file.line(row[-1].end - 1) - file.line(row[0].start) + 1
    region = region_of(file, language, row[0].start, row[-1].end)
    if region is None or lines < FEW or not words:
        return
    used = {r.symbol for r in file.within(region.start, region.end) if r.symbol is not None and r.symbol.scope is file.scope}
    named_ = frozenset(s for s in used if "variable" in s.kinds and s not in locals_)
    made = interface(region, state_names(region) | named_)
    if made.trouble is not None or len(made.gives) > 1 or (made.leaves == "break" and made.gives):
        return
    name = free(language.write.member_name(words, like(file)), taken)
    taken.add(name)
    yield Piece(lines_of(file, region.start, region.end), name, region, frozenset(s.name for s in named_), region.end - region.start, app=True)


def named(file: SourceFile, language: Language, effects: Effects, about: Concerns, row: Sequence[Statement]) -> list[str]:
    """Words for a method: the remark above, what the functions that it calls have in common, else what it is about."""
    region = Region(file, language, row[0].start, row[-1].end, None, list(row))
    if said := remark(file, region, language.write):
        return said
    calls = [language.write.words(c.callee.name) for c in file.calls_within(region.start, region.end) if c.callee.symbol in effects.units]
    if len(calls) > 1 and len({words[0] for words in calls}) == 1:
        return [calls[0][0]]
    if subject := next((found for s in row if (found := subject_of(file, language, s))), ""):
        return ["handle", *language.write.words(subject)]
    concern = Counter(about.of(s, True) for s in row).most_common(1)[0][0]
    if concern == "input" and "event" in file.slice(region.start, region.end):
        return ["handle", "events"]
    return VERBS.get(concern, "").split()


def subject_of(file: SourceFile, language: Language, s: Statement) -> str:
    """The variable that every branch of a conditional compares with a literal; "" if there is none."""
    blocks = chain(file, language, s)
    if len(blocks) < 3:
        return ""
    first = next((r for r in file.within(s.start, blocks[0].start) if r.symbol is not None and "variable" in r.symbol.kinds), None)
    return first.name if first is not None else ""


def chain(file: SourceFile, language: Language, s: Statement) -> list[Block]:
    """The blocks of a conditional with all its further conditions, however the language nests these."""
    found: list[Block] = []
    for b in language.regions.blocks(file, s) if s.kind in ("if", "match") else []:
        found += chain(file, language, b.statements[0]) if further(b) else [b]
    return found


def branches(file: SourceFile, language: Language, body: Sequence[Statement]) -> Iterator[tuple[list[Statement], list[str]]]:
    """The branches of commands in a loop's body, each with the words of its command: a thing is handled, anything else is done."""
    nouns = {w for n, s in file.scope.symbols.items() if "variable" in s.kinds for w in language.write.words(n)[:1]}
    for s in body:
        if not subject_of(file, language, s):
            continue
        last = s.start
        for b in chain(file, language, s):
            literal = LITERAL.search(file.slice(last, b.start))
            last = b.end
            if literal is not None and b.role in ("branch", "case") and b.statements:
                words = [w for w in language.write.words(literal[1]) if w.isalpha()]
                yield list(b.statements), words if not set(words) & nouns else ["handle", *words]
