"""What was read: files, scopes, symbols, references, functions, calls, statements.

Everything here is the same for every language; a language's reader fills it in. All positions are
byte offsets into the file's text (``bytes``), half open: ``start`` is in, ``end`` is out. Lines and
columns are counted from one.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from .symbols import WRITING, Declaration, Function, Parameter, Reference, Role, Scope, Symbol
from .traced import origins

__all__ = [ "WRITING", "Argument", "Block", "Call", "Declaration", "Function", "NewFunction",
    "Parameter", "Problem", "Reference", "Role", "Scope", "SourceFile", "Statement", "Symbol", ]  # fmt: skip


@dataclass(slots=True)
class Argument:
    """One argument of a call: ``keyword`` is "" if positional, "*" or "**" if spread."""

    keyword: str
    start: int
    end: int
    value_start: int


@dataclass(slots=True, eq=False)
class Call:
    """A call whose callee is a plain name or a member of one."""

    callee: Reference
    start: int
    end: int
    args_start: int  # between the parentheses
    args_end: int
    node: Any = field(repr=False, default=None)

    @property
    def bare(self) -> bool:
        """Whether its one argument stands without parentheses of the call's own, as a lone generator does."""
        return self.node is not None and self.args_start == self.node.start_byte


@dataclass(slots=True, eq=False)
class Statement:
    """A statement of main code or of a body.

    ``kind``: assign, augment, annotate, import, function, class, expression, docstring, declare, delete, pass, if, for,
    while, with, try, match, guard, return, raise, assert, other. ``target`` is the one plain name that an assignment
    binds, ``value`` the span of what it is given: an empty span where a declaration leaves it to the language.
    ``group``: the span of the whole declaration, where several share one.
    """

    kind: str
    start: int
    end: int
    target: Reference | None = None
    value: tuple[int, int] | None = None
    annotation: tuple[int, int] | None = None
    node: Any = field(repr=False, default=None)
    group: tuple[int, int] | None = None
    brackets: str = ""  # what of the type stands behind the name


@dataclass(slots=True)
class Block:
    """Statements that stand inside another. ``role``:

    - body: of a loop, a ``with``, a ``try`` or a guard;
    - branch: of a conditional; otherwise: its last one, where none of the others is taken (of a loop or ``try``: what
    follows it);
    - case: one that may run into the next, and that ``break`` ends;
    - handler, finally: of a ``try``.
    """

    role: str
    statements: list[Statement]
    start: int
    end: int


@dataclass(slots=True)
class Arm:
    """One of the conditions of a chain, ``if`` or ``else if``. ``test``: where its condition stands; ``without``: the
    edits that take it out of the chain."""

    test: tuple[int, int]
    statements: list[Statement]
    without: list[tuple[int, int, str]]


@dataclass(frozen=True, slots=True)
class Beside:
    """How a method beside another one is written and called.

    ``receiver``: what both call their object, or their class; "" if they have none. ``through``: what the call is led
    by, "" for a bare name. ``words``: what stands in front of the new method. ``trouble``: why there can be none.
    """

    receiver: str = ""
    through: str = ""
    words: str = ""
    trouble: str = ""


@dataclass
class NewFunction:
    """A function, or a method, that is made of lines which stood elsewhere.

    ``params``: (name, type) of what it is handed; ``sets``, ``around``: names of the file, and of functions around it,
    that it sets; ``last``: its last statement, or ""; ``result``: the type of what it gives, where types are written.
    ``function``: whose lines they were, None for main code; ``home``: beside which it stands, None where it stands by
    itself.
    """

    name: str
    params: Sequence[tuple[str, str]]
    body: str
    last: str = ""
    result: str = ""
    sets: Sequence[str] = ()
    around: Sequence[str] = ()
    function: Function | None = None
    home: Function | None = None
    hidden: bool = False

    @property
    def method(self) -> bool:
        return self.home is not None and self.home.outer.kind == "class"


@dataclass(frozen=True, slots=True)
class Problem:
    """Something that stands in the way, with its place (``line`` 0: the whole file)."""

    path: str
    line: int
    message: str

    def __str__(self) -> str:
        return f"{self.path}:{self.line}: {self.message}" if self.line else f"{self.path}: {self.message}"


class SourceFile:
    """One file as read. ``text`` is what stands on disk or in the overlay, to the byte."""

    def __init__(self, path: str, text: bytes, encoding: str, scope: Scope) -> None:
        self.path = path
        self.text = text
        self.encoding = encoding
        self.scope = scope
        self.references: list[Reference] = []
        self.functions: list[Function] = []
        self.classes: list[tuple[Scope, str]] = []  # the scope of each class, and the name it is bound to
        self.calls: list[Call] = []
        self.opaque_calls: list[int] = []  # where something other than a name or its member is called
        self.opaque_members: dict[
            int, set[str]
        ] = {}  # where such calls start → the members that they call; "" is none that is known
        self.quiet_calls: list[
            int
        ] = []  # where something is called that runs nothing of the program, and is no name or member of one
        self.statements: list[Statement] = []
        self.problems: list[Problem] = []
        self.declarations: list[Declaration] = []
        self.strings: list[tuple[int, int]] = []  # texts of more than one line, whose inside must not move
        self.futures: list[str] = []
        self.star_imports: list[int] = []
        self.imports: list[Statement] = []  # every import statement, wherever it stands
        self.stored_members: set[str] = set()  # members that are assigned somewhere in the file
        self.inheriting: list[tuple[Scope, str]] = []  # classes, and the name of the base that each has
        self.parts: list[tuple[str, int, int]] = [
            (path, 0, len(text))
        ]  # (path, start, end) of each file that was read as one
        self.drafted: tuple[
            SourceFile, ...
        ] = ()  # the files as people have them, where steps wrote this text in memory
        self.tree: Any = None
        self.memo: dict[Any, Any] = {}  # what was worked out from it once
        self._starts: list[int] | None = None
        self._lines: list[int] | None = None

    def opaque(self, at: int, member: str = "") -> None:
        """Note a call of something other than a name or its member; of which member, where it is one."""
        self.opaque_calls.append(at)
        self.opaque_members.setdefault(at, set()).add(member)

    @property
    def lines(self) -> list[int]:
        """Offset at which each line starts."""
        if self._lines is None:
            found, at = [0], self.text.find(b"\n")
            while at >= 0:
                found.append(at + 1)
                at = self.text.find(b"\n", at + 1)
            self._lines = found
        return self._lines

    def line(self, offset: int) -> int:
        return bisect_right(self._lines or self.lines, offset)

    def place(self, offset: int) -> tuple[str, int]:
        """The path and line of an offset as a person sees it: in the file that is there, whatever steps made of it in
        memory."""
        if not self.drafted:
            return self.stands(offset)
        if "origins" not in self.memo:
            self.memo["origins"] = origins(self, self.drafted)
        found: tuple[str, int] = self.memo["origins"][min(self.line(offset), len(self.memo["origins"])) - 1]
        return found

    def stands(self, offset: int) -> tuple[str, int]:
        """The path and line of an offset in this very text, in its own file where several were read as one."""
        for path, start, end in reversed(self.parts):
            if start <= offset:
                return path, self.line(min(offset, end)) - self.line(start) + 1
        return self.path, self.line(offset)

    def shown(self, offset: int) -> int:
        """The line of an offset as a person sees it."""
        return self.place(offset)[1]

    def line_count(self) -> int:
        return len(self.lines) - (1 if not self.text or self.text.endswith(b"\n") else 0)

    def slice(self, start: int, end: int) -> str:
        return self.text[start:end].decode(self.encoding, "replace")

    def within(self, start: int, end: int) -> list[Reference]:
        """The references that start in [start, end), in source order."""
        if self._starts is None:
            self.references.sort(key=lambda r: (r.start, r.end))
            self._starts = [r.start for r in self.references]
        return self.references[bisect_left(self._starts, start) : bisect_left(self._starts, end)]

    @cached_property
    def tops(self) -> list[Function]:
        """The functions at the top of the file, in source order."""
        return sorted((f for f in self.functions if f.outer is self.scope), key=lambda f: f.start)

    @cached_property
    def _tops_by_end(self) -> dict[int, Function]:
        return {f.end: f for f in self.tops}

    @cached_property
    def _tops_by_name(self) -> dict[str, list[Function]]:
        found: dict[str, list[Function]] = {}
        for f in self.tops:
            found.setdefault(f.name, []).append(f)
        return found

    @cached_property
    def _calls_by_symbol(self) -> dict[Symbol | None, list[Call]]:
        found: dict[Symbol | None, list[Call]] = {}
        for c in self.calls:
            if not c.callee.member:
                found.setdefault(c.callee.symbol, []).append(c)
        return found

    def function(self, name: str) -> Function | None:
        """The one function of this name at the top of the file; None if there is none or several."""
        found = self._tops_by_name.get(name, [])
        return found[0] if len(found) == 1 else None

    def functions_named(self, name: str) -> list[Function]:
        return self._tops_by_name.get(name, [])

    def function_ending(self, end: int) -> Function | None:
        """The function at the top of the file that ends at an offset: that of its statement."""
        return self._tops_by_end.get(end)

    def around(self, function: Function) -> Statement | None:
        """The statement at the top, other than its own and the guard that starts the program, in which a function at
        the top is made."""
        at = bisect_right(self._statement_starts, function.start) - 1
        s = self._by_start[at] if at >= 0 else None
        return (
            s
            if s is not None and function.start < s.end and s.kind in ("if", "for", "while", "with", "try", "match")
            else None
        )

    @cached_property
    def _by_start(self) -> list[Statement]:
        return sorted(self.statements, key=lambda s: s.start)

    @cached_property
    def _statement_starts(self) -> list[int]:
        return [s.start for s in self._by_start]

    def function_at(self, offset: int) -> Function | None:
        """The outermost function at the top of the file whose text holds the offset."""
        at = bisect_right(self._top_starts, offset) - 1
        return self.tops[at] if at >= 0 and offset < self.tops[at].end else None

    @cached_property
    def _top_starts(self) -> list[int]:
        return [f.start for f in self.tops]

    def calls_of(self, symbol: Symbol) -> list[Call]:
        return self._calls_by_symbol.get(symbol, [])

    def calls_within(self, start: int, end: int) -> list[Call]:
        """The calls that start in [start, end)."""
        return self._calls_sorted[bisect_left(self._call_starts, start) : bisect_left(self._call_starts, end)]

    def declarations_within(self, start: int, end: int) -> list[Declaration]:
        return self._declared[bisect_left(self._declared_starts, start) : bisect_left(self._declared_starts, end)]

    @cached_property
    def _declared(self) -> list[Declaration]:
        return sorted(self.declarations, key=lambda d: d.start)

    @cached_property
    def _declared_starts(self) -> list[int]:
        return [d.start for d in self._declared]

    @cached_property
    def functions_sorted(self) -> list[Function]:
        """All functions and methods, nested ones too, in source order."""
        return sorted(self.functions, key=lambda f: f.start)

    @cached_property
    def _calls_sorted(self) -> list[Call]:
        return sorted(self.calls, key=lambda c: c.start)

    @cached_property
    def _call_starts(self) -> list[int]:
        return [c.start for c in self._calls_sorted]
