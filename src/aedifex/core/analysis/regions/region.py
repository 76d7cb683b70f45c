"""A run of statements, or one expression, as it stands in its function: the statements around it, its block, the jumps
that lead out."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from ...program.code_text import code_text
from ...program.language import Language
from ...program.model import Arm, Beside, Block, Function, Scope, SourceFile, Statement, Symbol
from .exit_branches import staying
from .insertion_point import Ground, ground_of, innermost_function

BLANK = b" \t\r\n\f;"
MIN_SEARCHED_STATEMENTS = 50  # statements of a block from which it is searched, not walked


@dataclass
class Region:
    """``statements``: one after another in one block; none for an expression. ``function``: whose body holds it, None
    for main code."""

    file: SourceFile
    language: Language
    start: int
    end: int
    function: Function | None
    statements: list[Statement] = field(default_factory=list)
    around: list[Statement] = field(default_factory=list)  # the statements around it, outermost first
    block: list[Statement] = field(default_factory=list)  # all statements of its block

    @property
    def frame(self) -> Scope:
        return self.function.scope if self.function is not None else self.file.scope

    @property
    def body(self) -> list[Statement]:
        return self.language.body(self.file, self.function) if self.function is not None else main_body(self.file)

    @property
    def line(self) -> int:
        return self.file.shown(self.start)

    @cached_property
    def ground(self) -> Ground:
        """Where a function made of it stands: as a method, where that can be handed all that it needs."""
        found = ground_of(self.file, self.language, self.function)
        home = self.language.regions.method_around(self.file, self.function) if found.site is not None else None
        own = self.language.regions.beside(self.file, home).receiver if home is not None else ""
        if home is not None and all(set_just_once(s) for s in self.crossed(home.outer) if s.name != own):
            return Ground(home.outer, home=home)
        return found

    def crossed(self, ground: Scope) -> list[Symbol]:
        """What it uses of functions, or of what is gone through, between its own function and a scope further out."""
        found: dict[Symbol, bool] = {}
        for ref in self.file.within(self.start, self.end):
            s = ref.symbol
            if s is None or not s.kinds or s.scope.frame in (ground, self.frame) or not s.scope.within(ground):
                continue
            if not all(self.start <= r.start < self.end for r in s.references):
                found[s] = True
        return list(found)

    @cached_property
    def beside(self) -> Beside:
        """How a function where a function made of it stands is written and called."""
        home = self.ground.home
        return (
            self.language.regions.beside(self.file, home) if home is not None else Beside(trouble=self.ground.trouble)
        )

    @cached_property
    def staying(self) -> list[Arm]:
        """Arms that only end the loop around the lines, and stay with it."""
        return (
            staying(self.file, self.language, self.statements)
            if any(s.kind in ("for", "while") for s in self.around)
            else []
        )

    def returns(self) -> list[int]:
        """Where it gives something back from its function."""
        return [
            at for kind, at in ways_out(self.file, self.language, self.statements, False, False) if kind == "return"
        ]

    def falls_through(self) -> bool:
        """Whether its function ends after it anyway."""
        return self.statements[-1] is self.block[-1] and all(
            s.kind in ("if", "with") and self.last(s) for s in self.around
        )

    def last(self, s: Statement) -> bool:
        """Whether a statement around the lines is the last of its own block."""
        rows = [self.body, *(b.statements for _, b in all_blocks(self.file, self.language, self.body))]
        return any(row and row[-1].start == s.start for row in rows)

    def jumps(self) -> list[tuple[str, int]]:
        """(kind, where) of each jump that leads out, but for those that stay."""
        kept = {arm.statements[0].start for arm in self.staying}
        return [
            (kind, at)
            for kind, at in ways_out(self.file, self.language, self.statements, False, False)
            if at not in kept
        ]


def set_just_once(s: Symbol) -> bool:
    """Whether a variable is set just once, so that its value can be handed over whenever it is there."""
    return len(s.bindings) == 1 and s.kinds <= {"variable", "parameter"}


def main_body(file: SourceFile) -> list[Statement]:
    return list(file.statements)


def region_of(file: SourceFile, language: Language, start: int, end: int) -> Region | None:
    """The statements, or else the expression, that stand just in [start, end); None if nothing does."""
    text = file.text[start:end]
    start, end = start + len(text) - len(text.lstrip()), end - (len(text) - len(text.rstrip()))
    function = innermost_function(file, language, start, end)
    made = Region(file, language, start, end, function)
    block = made.body
    while True:
        touched = overlapping(file, block, start, end)
        inside = [s for s in touched if start <= s.start and s.end <= end]
        if (
            len(inside) == 1
            and inside[0].kind == "return"
            and language.regions.expression(file, inside[0].start, inside[0].end)
        ):
            made.around, made.block = [inside[0]], block
            return made  # all that an arrow function is worked out from
        if inside:
            if (
                len(inside) < len(touched)
                or more_code(file, start, inside[0].start)
                or more_code(file, inside[-1].end, end)
            ):
                return None
            made.statements, made.block = inside, block
            made.start, made.end = inside[0].start, inside[-1].end
            return made
        if len(touched) != 1 or touched[0].kind in ("class", "function"):
            return None  # functions inside functions have variables of their own
        made.around.append(touched[0])
        within = [b for b in language.regions.blocks(file, touched[0]) if b.start < end and b.end > start]
        if not within:
            made.block = block
            return made if language.regions.expression(file, start, end) else None
        head = language.regions.blocks(file, touched[0])[0].start
        if len(within) > 1 or (start <= touched[0].start < head and file.slice(start, touched[0].start + 1).strip()):
            return None
        block = within[0].statements


def more_code(file: SourceFile, start: int, end: int) -> bool:
    """Whether anything but layout and remarks stands there, such as the head of the next branch."""
    return bool(file.text[start:end].strip(BLANK)) and bool(code_text(file)[start:end].strip(BLANK))


def overlapping(file: SourceFile, block: list[Statement], start: int, end: int) -> list[Statement]:
    """The statements of a block that share a byte with a stretch."""
    if len(block) < MIN_SEARCHED_STATEMENTS:
        return [s for s in block if s.start < end and s.end > start]
    key = ("starts", block[0].start, len(block))
    if key not in file.memo:
        found = [s.start for s in block]
        file.memo[key] = found if found == sorted(found) else []
    starts: list[int] = file.memo[key]
    if not starts:  # not in the order of the source
        return [s for s in block if s.start < end and s.end > start]
    first = max(0, bisect_right(starts, start) - 1)
    return [s for s in block[first : bisect_left(starts, end)] if s.end > start]


def all_blocks(
    file: SourceFile, language: Language, statements: Sequence[Statement]
) -> Iterator[tuple[Statement, Block]]:
    """Every block below a row of statements, with the statement that it stands in."""
    for s in statements:
        for b in language.regions.blocks(file, s):
            yield s, b
            yield from all_blocks(file, language, b.statements)


def further(b: Block) -> bool:
    """Whether a block is nothing but a further condition, ``else if``."""
    return (
        b.role == "otherwise"
        and len(b.statements) == 1
        and b.statements[0].kind == "if"
        and b.start == b.statements[0].start
    )


def chain(file: SourceFile, language: Language, s: Statement) -> list[Block]:
    """The blocks of a conditional with all its further conditions, however the language nests these."""
    found: list[Block] = []
    for b in language.regions.blocks(file, s) if s.kind in ("if", "match") else []:
        found += chain(file, language, b.statements[0]) if further(b) else [b]
    return found


def ways_out(
    file: SourceFile, language: Language, statements: Sequence[Statement], looped: bool, cased: bool
) -> Iterator[tuple[str, int]]:
    """(kind, where) of each jump that leads out of a row of statements."""
    for s in statements:
        if (
            s.kind == "return"
            or (s.kind == "break" and not looped and not cased)
            or (s.kind == "continue" and not looped)
        ):
            yield s.kind, s.start
        for b in language.regions.blocks(file, s):
            loop = looped or (s.kind in ("for", "while") and b.role == "body")
            yield from ways_out(file, language, b.statements, loop, cased or b.role == "case")
