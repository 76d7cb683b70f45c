"""Main code that does everything, cut into methods of the app: what handles input, what moves on, what draws (A4, A6,
C3).

Statements of the main loop about the same thing are one method, unless they are few; values that are made anew on every
turn and needed on one side of a cut alone keep to that side. Branches of a command get a method each, named after the
command.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise

from ...analysis.concerns import WORK, Concerns
from ...analysis.counting_loops import with_inner
from ...analysis.effects import Effects
from ...analysis.handlers import main_statements, stretches
from ...analysis.regions.interface import Interface, interface, state_names
from ...analysis.regions.region import Region, chain, region_of
from ...naming.identifiers import VERBS as DOING
from ...naming.identifiers import like
from ...naming.inflection import plural
from ...naming.prompts import prompt_words
from ...naming.verbs import remark
from ...program.language import Language
from ...program.line_ranges import lines_of
from ...program.model import SourceFile, Statement, Symbol
from .paragraphs import blank_between, set_apart
from .pieces import Piece, turn_locals

MIN_LOOP_LINES = 18  # lines of a loop's body from which it is cut
FEW_LINES_THAT_END = 6  # lines that may end the loop, and read better where they are
MAX_LEFT_LINES = 3  # lines that are left where they are
BATCH = 25  # lines of a program without a loop of its own from which it is cut
MUCH = 12  # lines before the loop from which they are cut
FRAMEWORKS = frozenset({"mainloop", "serve_forever", "exec", "exec_", "run"})
SHOWING = re.compile(r"\.\s*setVisible\s*\(\s*true\s*\)\s*;?$")
VERBS = {
    "input": "handle input",
    "work": "update",
    "drawing": "draw",
    "console": "show",
    "sound": "play sounds",
    "files": "save",
    "network": "exchange",
}
CONSTANT = re.compile(r"\b([A-Z][A-Z_]{2,})\b")
LITERAL = re.compile(r"""['"]([A-Za-z][A-Za-z_]+)['"]""")


def cuts(file: SourceFile, language: Language, effects: Effects, taken: set[str]) -> list[Piece]:
    """What of the main code is to be a method of the app, in source order. ``taken``: names in use."""
    loop = main_loop(file, effects, language)
    blocks = language.regions.blocks(file, loop) if loop is not None else []
    body = blocks[0].statements if blocks else []
    locals_ = turn_locals(file, language)
    main = main_statements(file, effects, language)
    framework = next((s for s in main if hands_over(file, s)), None) or next(
        (s for s in reversed(main) if SHOWING.search(file.slice(s.start, s.end))), None
    )
    if framework is not None and (loop is None or loop.kind == "for"):
        return list(set_up(file, language, effects, framework, locals_, taken))
    if (
        loop is not None
        and loop.kind == "for"
        and main
        and lines_in(file, main) >= BATCH
        and lines_in(file, body or [loop]) < MIN_LOOP_LINES
    ):
        return list(one_after_another(file, language, effects, main, locals_, taken))
    found = list(set_up(file, language, effects, loop, locals_, taken))
    if not body or lines_in(file, body) < MIN_LOOP_LINES:
        return found
    about = Concerns(file, language, effects)
    for row in concern_rows(file, language, about, body, locals_):
        while row and asks_events(file, language, about, row[0]) and ends(file, language, loop, row[0]):
            for inner, said in event_branches(file, language, loop, row[0]):
                found += main_piece(file, language, inner, said, locals_, taken)
            row = row[1:]  # what ends the loop stays with it
        row = without_own_fields(file, row, locals_)
        if not row:
            continue
        words = spoken_words(file, language, effects, about, row)
        found += main_piece(file, language, row, words, locals_, taken)
    for row, words in command_branches(file, language, body):
        found += main_piece(file, language, row, words, locals_, taken)
    found += closing(file, language, effects, about, loop, locals_, taken)
    return sorted(found, key=lambda p: p.region.start)


def closing(
    file: SourceFile, language: Language, effects: Effects, about: Concerns, loop: Statement | None,
    locals_: set[Symbol], taken: set[str],
) -> list[Piece]:  # fmt: skip
    """What is done after the main loop, if that is much and says what came of it; what may end the program stays."""
    row = [s for s in main_statements(file, effects, language) if loop is not None and s.start > loop.end]
    while row and ends_program(file, language, row[-1]):
        row.pop()
    if not row or lines_in(file, row) < MUCH // 2:
        return []
    if Counter(about.of(s, True) for s in row).most_common(1)[0][0] != "console":
        return []
    said = remark(file, Region(file, language, row[0].start, row[-1].end, None, list(row)), language.write)
    return list(main_piece(file, language, row, said if said[:1] and said[0] in DOING else ["report"], locals_, taken))


def ends_program(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether a statement may be the last that runs."""
    return any(x.kind in ("return", "raise") for x in with_inner(file, language, [s])) or exit_call(file, s)


def exit_call(file: SourceFile, s: Statement) -> bool:
    return any(
        (c.callee.member or c.callee.name) in ("exit", "quit", "_exit") for c in file.calls_within(s.start, s.end)
    )


def taken_by(file: SourceFile, language: Language) -> set[str]:
    """The names that what main code is cut into cannot have."""
    guards = [(s.start, s.end) for s in file.statements if s.kind == "guard"]
    scopes = [file.scope, *(s for s in file.scope.walk() if any(a <= s.start < b for a, b in guards))]
    return {n for s in scopes for n in s.symbols} | set(language.builtins) | {"run"}


def one_after_another(
    file: SourceFile,
    language: Language,
    effects: Effects,
    main: Sequence[Statement],
    locals_: set[Symbol],
    taken: set[str],
) -> Iterator[Piece]:
    """The jobs of a program that runs once from its first line to its last: neighbouring statements about the same
    thing."""
    about = Concerns(file, language, effects)
    found: list[tuple[str, list[Statement]]] = []
    for s in main:
        concern = "" if first_value(file, language, s) else about.of(s, True)
        together = (
            found
            and found[-1][0] in (concern, WORK)
            and concern
            and not any(found[-1][1][-1].end <= x.start < s.start for x in file.statements)
        )
        if together and not (
            blank_between(file, found[-1][1][-1], s) and lines_in(file, found[-1][1]) > MAX_LEFT_LINES
        ):
            found[-1] = (concern, [*found[-1][1], s])
        else:
            found.append((concern, [s]))
    rows_ = [(concern, row) for concern, row in found if concern and lines_in(file, row) > MAX_LEFT_LINES]
    for concern, row in rows_ if len(rows_) > 1 else []:
        words = job_words(file, language, concern, row)
        own = {
            s
            for s in file.scope.symbols.values()
            if s.references and all(row[0].start <= r.start < row[-1].end for r in s.references)
        }
        yield from main_piece(file, language, row, words, locals_ | own, taken)


def job_words(file: SourceFile, language: Language, concern: str, row: Sequence[Statement]) -> list[str]:
    """Words for one job of several: the remark above, what a loop goes through, else what it is about."""
    said = remark(file, Region(file, language, row[0].start, row[-1].end, None, list(row)), language.write)
    if said and said[0] in DOING:
        return said
    looped = next((r for r in file.within(row[0].start, row[0].end) if r.form == "loop"), None)
    if looped is not None and len(row) == 1:
        names = [
            r.name
            for r in file.within(looped.start, row[0].end)
            if r.form == "loop" and file.line(r.start) == file.line(looped.start)
        ]
        return [
            "handle",
            *(
                plural(w) if i == len(words) - 1 else w
                for words in [language.write.words(names[-1])]
                for i, w in enumerate(words)
            ),
        ]
    if concern == "files":
        return ["write"] if re.search(r"""['"][wax]b?['"]|write""", file.slice(row[0].start, row[-1].end)) else ["read"]
    return VERBS.get(concern, "").split()


def first_value(file: SourceFile, language: Language, s: Statement) -> bool:
    """Whether a statement only gives a variable a plain value."""
    return (s.target is not None and s.value is not None and language.purity(file, s.value) != "effect") or s.kind in (
        "docstring",
        "import",
    )


def set_up(
    file: SourceFile, language: Language, effects: Effects, end: Statement | None, locals_: set[Symbol], taken: set[str]
) -> Iterator[Piece]:
    """What is done before the main loop, or before a framework's runs, if that is much. ``end``: the statement of
    that."""
    found: list[list[Statement]] = [[]]
    for s in [s for s in main_statements(file, effects, language) if end is not None and s.start < end.start]:
        follows = bool(found[-1]) and not any(found[-1][-1].end <= x.start < s.start for x in file.statements)
        if first_value(file, language, s) or s.kind in ("while", "return") or (s.kind == "for" and not makes(file, s)):
            found.append([])
        else:
            found += [] if follows else [[]]
            found[-1].append(s)
    parted = [
        part for row in found if row for part in (paragraphs_of(file, row) if lines_in(file, row) > BATCH else [row])
    ]
    rows_ = [row for row in parted if lines_in(file, row) >= MAX_LEFT_LINES + 2]
    if sum(lines_in(file, row) for row in rows_) < MUCH:
        return
    for row in rows_:
        own = {
            s
            for s in file.scope.symbols.values()
            if s.references and all(row[0].start <= r.start < row[-1].end for r in s.references)
        }
        yield from main_piece(
            file, language, row, made_words(file, language, row, len(rows_) > 1), locals_ | own, taken
        )


def paragraphs_of(file: SourceFile, row: list[Statement]) -> list[list[Statement]]:
    """Set-up that is too long for one method, cut where its author left a line blank."""
    found = [[row[0]]]
    for before, s in pairwise(row):
        if blank_between(file, before, s):
            found.append([])
        found[-1].append(s)
    return found


def makes(file: SourceFile, s: Statement) -> bool:
    """Whether a loop does nothing but call, with nothing that is set or jumps."""
    inside = [r for r in file.within(s.start, s.end) if r.writes and r.form not in ("loop", "parameter")]
    return not inside


def hands_over(file: SourceFile, s: Statement) -> bool:
    """Whether a statement hands over to a framework, which then calls the program."""
    return s.kind == "expression" and any(
        c.callee.member in FRAMEWORKS and c.end == s.end for c in file.calls_within(s.start, s.end)
    )


def made_words(file: SourceFile, language: Language, row: Sequence[Statement], several: bool) -> list[str]:
    """Words for what prepares things: after what it makes, if that is of one kind, else after the remark above, or what
    it fills.

    ``several``: whether other lines prepare things too.
    """
    firsts = [words[0] for s in row if s.target is not None and (words := language.write.words(s.target.name))]
    word, count = Counter(firsts).most_common(1)[0] if firsts else ("", 0)
    if count > 1 and count * 5 >= len(firsts) * 3:
        return ["make", plural(word)]
    said = remark(file, Region(file, language, row[0].start, row[-1].end, None, list(row)), language.write)
    calls = [c.callee for s in row for c in file.calls_within(s.start, s.end)]
    called = Counter(
        re.sub(r"^J(?=[A-Z])", "", c.member or c.name) for c in calls if (c.member or c.name)[:1].isupper()
    )
    kind, often = called.most_common(1)[0] if called else ("", 0)
    if said and said[0] in DOING:
        return said
    if often > 1 and often * 2 > sum(called.values()):
        return ["make", plural(kind.lower())]
    first = row[0].target
    held = sum(first is not None and any(r.name == first.name for r in file.within(s.start, s.end)) for s in row)
    return (
        ["make", *language.write.words(first.name)]
        if first is not None and several and held * 2 > len(row)
        else ["set", "up"]
    )


def lines_in(file: SourceFile, row: Sequence[Statement]) -> int:
    """How many lines statements stand on."""
    return file.line(row[-1].end - 1) - file.line(row[0].start) + 1


def main_loop(file: SourceFile, effects: Effects, language: Language) -> Statement | None:
    """The loop that the main code is about: of several that go on until something changes, the longest."""
    statements = main_statements(file, effects, language)
    if whiles := [s for s in statements if s.kind == "while"]:
        return max(whiles, key=lambda s: (lines_in(file, [s]), -s.start))
    parts = [p for p in stretches(statements, language) if p.kind == "loop"]
    return next((s for s in statements if parts and s.start == parts[0].start), None)


def concern_rows(
    file: SourceFile, language: Language, about: Concerns, body: Sequence[Statement], locals_: set[Symbol]
) -> Iterator[list[Statement]]:
    """Neighbouring statements about the same thing, those that prepare a value together with those that use it."""
    found: list[tuple[str, list[Statement]]] = []
    for s in body:
        concern = "input" if dispatches(file, language, about, s) else about.of(s, True)
        if found and found[-1][0] == concern and not set_apart(file, language, found[-1][1][-1], s):
            found[-1][1].append(s)
        else:
            found.append((concern, [s]))
    for i, ((_, before), (concern, after)) in enumerate(pairwise(found)):
        needed = {r.symbol for s in after for r in file.within(s.start, s.end)} & locals_
        made = [i for i, s in enumerate(before) if {r.symbol for r in file.within(s.start, s.end) if r.writes} & needed]
        between = (
            i > 0 and found[i - 1][0] == concern and len(made) == len(before)
        )  # it only prepares, amid the same job
        begun = (
            bool(made) and i > 0 and bool(found[i - 1][1]) and set_apart(file, language, found[i - 1][1][-1], before[0])
        )  # a remark speaks of both
        if made and (made[0] > 0 or between or begun):
            after[:0] = before[made[0] :]
            del before[made[0] :]
    joined: list[tuple[str, list[Statement]]] = []
    for concern, row in found:
        if joined and joined[-1][0] == concern and row and not set_apart(file, language, joined[-1][1][-1], row[0]):
            joined[-1][1].extend(row)
        elif row:
            joined.append((concern, row))
    for _, row in joined:
        if len(row) < len(body):
            yield row
        else:  # one job: what a command brings about can still be told apart from the asking
            yield from (
                [s]
                for s in body
                if subject_of(file, language, s) and lines_in(file, [s]) * 2 > lines_in(file, body) and len(body) > 1
            )


def without_own_fields(file: SourceFile, row: list[Statement], locals_: set[Symbol]) -> list[Statement]:
    """Neighbouring statements without the first of them, as long as that only works out a value for the others from a
    variable that they do not use: the value is handed over, and the variable need not be a field."""
    while len(row) > 1 and (made := row[0].target) is not None and made.symbol in locals_:
        first, rest = row[0], row[1:]
        used = {r.symbol for s in rest for r in file.within(s.start, s.end)}
        read = {r.symbol for r in file.within(first.start, first.end) if not r.writes and r.symbol is not None}
        own = {
            s for s in read - used - locals_ if s.scope is file.scope and any(r.role != "read" for r in s.references)
        }
        changing = {s for s in own if "variable" in s.kinds and len(s.bindings) > 1}
        if made.symbol not in used or not changing:
            break
        row = rest
    return row


def asks_events(file: SourceFile, language: Language, about: Concerns, s: Statement) -> bool:
    """Whether a statement goes through what came in."""
    blocks = language.regions.blocks(file, s) if s.kind == "for" else []
    return bool(blocks) and any(c == "input" for c, _ in about.direct(s.start, blocks[0].start))


def dispatches(file: SourceFile, language: Language, about: Concerns, s: Statement) -> bool:
    """Whether a statement tells by what came in what is to be done."""
    return asks_events(file, language, about, s) or bool(subject_of(file, language, s))


def ends(file: SourceFile, language: Language, loop: Statement | None, s: Statement) -> bool:
    """Whether a statement in a loop sets what the loop goes on by."""
    blocks = language.regions.blocks(file, loop) if loop is not None else []
    asked = {r.symbol for r in file.within(loop.start, blocks[0].start)} if loop is not None and blocks else set()
    return any(r.writes and r.symbol in asked for r in file.within(s.start, s.end))


def event_branches(
    file: SourceFile, language: Language, loop: Statement | None, s: Statement
) -> Iterator[tuple[list[Statement], list[str]]]:
    """What is done for one kind of event, where that does not end the loop, with words for it."""
    for x in [x for b in language.regions.blocks(file, s) for x in b.statements]:
        last = x.start
        for b in chain(file, language, x):
            asked, last = CONSTANT.findall(file.slice(last, b.start)), b.end
            if b.statements and asked and not any(ends(file, language, loop, y) for y in b.statements):
                yield b.statements, ["handle", *language.write.words(asked[-1].lower())]


def main_piece(
    file: SourceFile,
    language: Language,
    row: Sequence[Statement],
    words: Sequence[str],
    locals_: set[Symbol],
    taken: set[str],
) -> Iterator[Piece]:
    """The statements as something to lift, if they can be and are worth it."""
    lines = lines_in(file, row)
    region = region_of(file, language, row[0].start, row[-1].end)
    if region is None or lines < MAX_LEFT_LINES or not words:
        return
    used = {
        r.symbol for r in file.within(region.start, region.end) if r.symbol is not None and r.symbol.scope is file.scope
    }
    named_ = frozenset(s for s in used if "variable" in s.kinds and s not in locals_)
    made = interface(region, state_names(region) | named_)
    if not reads_well(made) or (made.leaves == "break" and lines < FEW_LINES_THAT_END):
        return
    name = name_told_apart(file, language, row, words, taken)
    if not name:
        return
    taken.add(name)
    yield Piece(
        lines_of(file, region.start, region.end),
        name,
        region,
        frozenset(s.name for s in named_),
        region.end - region.start,
        app=True,
    )


def name_told_apart(
    file: SourceFile, language: Language, row: Sequence[Statement], words: Sequence[str], taken: set[str]
) -> str:
    """A name that tells these lines from others, if need be by what they set first; "" if nothing does."""
    write, target = language.write, next((s.target.name for s in row if s.target is not None), "")
    names = [write.member_name(words, like(file))]
    names = [n if n not in language.builtins else write.member_name(["handle", *words], like(file)) for n in names]
    names += [write.member_name([*words, *write.words(target)], like(file))] if target else []
    return next((n for n in names if n not in taken), "")


def reads_well(made: Interface) -> bool:
    """Whether lines can be lifted, and at most one value comes back."""
    return made.trouble is None and len(made.gives) < 2 and not (made.leaves == "break" and made.gives)


def spoken_words(
    file: SourceFile, language: Language, effects: Effects, about: Concerns, row: Sequence[Statement]
) -> list[str]:
    """Words for a method: the remark above, what the functions that it calls have in common, else what it is about."""
    region = Region(file, language, row[0].start, row[-1].end, None, list(row))
    if said := remark(file, region, language.write):
        return said
    calls = [
        language.write.words(c.callee.name)
        for c in file.calls_within(region.start, region.end)
        if c.callee.symbol in effects.units
    ]
    if len(calls) > 1 and len({words[0] for words in calls}) == 1:
        return [calls[0][0]]
    uses = language.streams.uses(file) if language.streams is not None else []
    asked = [u for u in uses if u.asks and region.start <= u.start < region.end]
    if asked and (said := prompt_words(file.slice(asked[0].start, file.text.find(b"\n", asked[0].start)))):
        return said
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
    told = (
        r
        for r in file.within(s.start, blocks[0].start)
        if r.symbol is not None and r.symbol.kinds & {"variable", "parameter"}
    )
    first = next(told, None)
    return (
        first.name
        if first is not None and first.symbol is not None and first.symbol.scope.receiver != first.name
        else ""
    )


def command_branches(
    file: SourceFile, language: Language, body: Sequence[Statement]
) -> Iterator[tuple[list[Statement], list[str]]]:
    """The branches of commands in a loop's body, each with the words of its command: a thing is handled, anything else
    is done."""
    nouns = {w for n, s in file.scope.symbols.items() if "variable" in s.kinds for w in language.write.words(n)[:1]}
    for s in body:
        if not subject_of(file, language, s):
            continue
        last = s.start
        for b in chain(file, language, s):
            literal = LITERAL.search(
                file.slice(last, b.statements[0].start if b.role == "case" and b.statements else b.start)
            )
            last = b.end
            if literal is not None and b.role in ("branch", "case") and b.statements:
                words = [w for w in language.write.words(literal[1]) if w.isalpha()]
                row = b.statements
                if (
                    b.role == "case"
                    and len(row) == 1
                    and row[0].kind not in ("for", "while", "if", "match", "with", "try")
                ):
                    row = next(
                        (x.statements for x in language.regions.blocks(file, row[0])), row
                    )  # in braces of its own
                ended = b.role == "case" and len(row) > 1 and row[-1].kind == "break"  # which stays where it is
                yield row[: len(row) - ended], words if not set(words) & nouns else ["handle", *words]
