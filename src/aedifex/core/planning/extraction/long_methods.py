"""Long methods of classes that stand, cut into methods of their own: what handles input, what moves on, what draws (A6,
C3, C17).

def run(self):                          def run(self):
    while True:                             while True:
        line = input()                          line = input()
        if line == "f": ...        →            self._handle_line(line)
        self.x += self.speed ...                self._move()
        print(...) ...                          self._show()

Lines that can be parts of the class afterwards (``planning/extracted_classes.py``) are methods then, which a part can
take.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from ...analysis.concerns import WORK, Concerns
from ...analysis.dataflow import flow_of
from ...analysis.effects import Effects
from ...analysis.regions.interface import interface, state_names
from ...analysis.regions.region import region_of
from ...naming.identifiers import VERBS as DOING
from ...naming.identifiers import free, like
from ...program.language import Language
from ...program.line_ranges import lines_of
from ...program.model import Function, SourceFile, Statement, Symbol
from ...rewrites.extract_class.members import class_with_uses
from .main_loop_split import (
    BATCH,
    MAX_LEFT_LINES,
    VERBS,
    command_branches,
    concern_rows,
    lines_in,
    paragraphs_of,
    reads_well,
    spoken_words,
    subject_of,
)
from .pieces import Piece, set_anew

MAX_PARAMETERS = 3  # values that such a method is handed


def long_methods(
    file: SourceFile, language: Language, effects: Effects, kept: set[str], others: Iterable[SourceFile] = ()
) -> list[Piece]:
    """What is to be lifted out of methods of more than ``BATCH`` lines, in source order.

    ``kept``: classes and methods that somebody wants as they are; ``others``: files that may base a class on one of
    this file.
    """
    about = Concerns(file, language, effects)
    taken = members_in(file).union(*map(members_in, others))
    found: list[Piece] = []
    for scope, name in file.classes:
        if scope.parent is not file.scope or name in kept or not open_(file, language, name):
            continue
        for f in [
            f for f in file.functions if f.outer is scope and f.name not in kept and f"{name}.{f.name}" not in kept
        ]:
            if file.line(f.end - 1) - file.line(f.start) + 1 > BATCH:
                found += cut(file, language, effects, about, f, taken)
    return sorted(found, key=lambda p: p.region.start)


def members_in(file: SourceFile) -> set[str]:
    """Every name that a member of a class of a file, or of a class that is based on one of it, may have."""
    return {n for s in file.scope.walk() for n in s.symbols} | {r.member for r in file.references if r.member}


def open_(file: SourceFile, language: Language, name: str) -> bool:
    """Whether a class can have one more method, and nobody takes it for another: its members are known, and none is
    found by its text."""
    return class_with_uses(file, language, name) is not None and not any(base == name for _, base in file.inheriting)


def cut(
    file: SourceFile, language: Language, effects: Effects, about: Concerns, f: Function, taken: set[str]
) -> list[Piece]:
    """The jobs of a method: those of its main loop, if that is most of it, else what its author set apart."""
    body, loop, inner = looped(file, language, f)
    jobs = (
        list(concern_rows(file, language, about, inner, locals_of(file, language, f, body)))
        if loop is not None
        else paragraphs_of(file, inner)
    )
    spoken = [
        (row, words_for(file, language, effects, about, row, loop is not None))
        for row in jobs
        if len(row) < len(body) or loop is not None
    ]
    count = Counter(" ".join(w) for _, w in spoken)
    clear = [
        (row, w) for row, w in spoken if w and count[" ".join(w)] == 1
    ]  # what two jobs are called alike says of neither what it does
    found = [(w, p) for row, w in clear for p in method_piece(file, language, f, row, w, taken)]
    arms = [(row, w if w[0] in DOING else ["handle", *w]) for row, w in command_branches(file, language, inner) if w]
    more = [(w, p) for row, w in arms for p in method_piece(file, language, f, row, w, taken)]
    found += more if len(found) + len(more) > 1 else []
    alone = len(found) == 1 and (
        loop is None or " ".join(found[0][0]) in VERBS.values()
    )  # says no more than what it is about
    return [] if alone else [p for _, p in found]


def looped(
    file: SourceFile, language: Language, f: Function
) -> tuple[list[Statement], Statement | None, list[Statement]]:
    """The statements of a function, the loop that is most of them, and the statements in that; all of them if there is
    none."""
    body = [s for s in language.body(file, f) if s.kind != "docstring"]
    loop = next(
        (s for s in body if s.kind in ("while", "for") and lines_in(file, [s]) * 2 > lines_in(file, body)), None
    )
    blocks = language.regions.blocks(file, loop) if loop is not None else []
    return body, loop, blocks[0].statements if blocks else body


def dispatched(file: SourceFile, language: Language, f: Function, taken: set[str], batch: int = BATCH) -> list[Piece]:
    """The branches of the commands that a function of more than ``batch`` lines tells apart, if there are several to
    lift."""
    if file.line(f.end - 1) - file.line(f.start) + 1 <= batch:
        return []
    found: list[Piece] = []
    for row, words in command_branches(file, language, looped(file, language, f)[2]):
        plain = language.write.member_name(words, like(file)) if words else ""
        said = words if words[:1] and words[0] in DOING and plain not in language.builtins else ["handle", *words]
        for p in method_piece(file, language, f, row, said, set()):
            name = free(language.write.member_name(said, like(file)), taken)
            taken.add(name)
            found.append(replace(p, name=name, of=""))
    return found if len(found) > 1 else []


def words_for(
    file: SourceFile, language: Language, effects: Effects, about: Concerns, row: Sequence[Statement], looped: bool
) -> list[str]:
    """What to call a job: a verb, and what the program itself calls it. ``looped``: it is one of a loop's, of which
    what it is about says enough."""
    words = spoken_words(file, language, effects, about, row)
    if not words or words[0] in DOING:
        return words if looped or " ".join(words) not in VERBS.values() else []
    if subject := next((found for s in row if (found := subject_of(file, language, s))), ""):
        return ["handle", *language.write.words(subject)]
    about_ = Counter(c for s in row if (c := about.of(s, True)) != WORK) or Counter([WORK])
    return [*VERBS.get(about_.most_common(1)[0][0], "").split()[:1], *words] if looped else []


def locals_of(file: SourceFile, language: Language, f: Function, body: Sequence[Statement]) -> set[Symbol]:
    """The variables of a method that are set anew on every turn of a loop."""
    flow = flow_of(file, language, f.scope, language.body(file, f))
    return {x for _, _, anew in set_anew(file, language, flow, body) for x in anew}


def method_piece(
    file: SourceFile, language: Language, f: Function, row: Sequence[Statement], words: Sequence[str], taken: set[str]
) -> Iterator[Piece]:
    """The statements as something to lift, if they can be and read well then."""
    region = region_of(file, language, row[0].start, row[-1].end)
    if region is None or lines_in(file, row) < MAX_LEFT_LINES or not words or region.beside.trouble:
        return
    made = interface(region, state_names(region))
    if not reads_well(made) or len(made.takes) > MAX_PARAMETERS:
        return
    plain = language.write.member_name(list(words), like(file))
    name = free(str(language.write.hidden(plain)), taken)
    taken.add(name)
    yield Piece(
        lines_of(file, region.start, region.end),
        name,
        region,
        frozenset(),
        region.end - region.start,
        of=f"{f.outer.name}.{f.name}",
    )
