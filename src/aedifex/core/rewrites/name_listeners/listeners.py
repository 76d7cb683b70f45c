"""What listeners of a class need to be methods of it, and the edits by which they are (A5, C8)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from ...analysis.regions.region import ways_out
from ...program.edits import Range
from ...program.facets.listening import Listening
from ...program.inline import Listener, LocalField
from ...program.language import Language
from ...program.layout import lead_of, line_end, line_start
from ...program.line_ranges import column_of
from ...program.model import Function, NewFunction, Scope, SourceFile, Symbol
from ...program.scopes import shadowed
from ..name_handlers.handlers import remark_apart


@dataclass
class NewMethod:
    """A method to be, the listeners whose place it takes, which do the same, and the variables that it is handed."""

    name: str
    listeners: list[Listener]
    handed: list[Symbol] = field(default_factory=list)


def listeners_in(file: SourceFile, language: Language, scope: Scope) -> list[Listener]:
    """The listeners in the methods of a class, in source order."""
    if language.listening is None:
        return []
    return [n for n in language.listening.listeners(file) if n.method is not None and n.method.outer is scope]


def place_of(file: SourceFile, listener: Listener) -> str:
    """file:line:column, as a design says it."""
    at = listener.start if listener.whole else listener.opens
    path, line = file.stands(at)
    return f"{path}:{line}:{column_of(file, at)}"


def captured(file: SourceFile, listener: Listener) -> list[Symbol]:
    """The variables of the functions around it that it uses, in order of use."""
    assert listener.method is not None
    found: dict[Symbol, None] = {}
    for r in file.within(*span_of(listener)):
        s = r.symbol
        if s is None or s.scope is None or not s.kinds & {"variable", "parameter"} or s is own_symbol(listener):
            continue
        outside = not any(listener.start <= b.start < listener.end for b in s.bindings[:1])
        if outside and inside(s.scope, listener.method.scope) and s.name != receiver(listener.method):
            found[s] = None
    return list(found)


def receiver(method: Function) -> str:
    return method.params[0].name if method.bound and method.params else ""


def own_symbol(listener: Listener) -> Symbol | None:
    return listener.function.symbol if listener.function is not None else None


def span_of(listener: Listener) -> tuple[int, int]:
    """Where its lines stand."""
    return listener.opens, listener.closes


def inside(scope: Scope | None, top: Scope) -> bool:
    """Whether a scope is a function's own, or lies in it."""
    while scope is not None and scope is not top:
        scope = scope.parent
    return scope is top


def sets(file: SourceFile, listener: Listener, symbol: Symbol) -> bool:
    opens, closes = span_of(listener)
    return any(r.writes and opens <= r.start < closes for r in symbol.references)


def why_not(file: SourceFile, language: Language, listener: Listener, fields: Sequence[Symbol]) -> str:
    """Why a listener cannot be a method; "" if it can. ``fields``: variables that are fields by then."""
    listening = language.listening
    assert listening is not None and listener.method is not None
    stays = language.regions.bound_to_function(file, listener.opens, listener.closes)
    if stays is not None and not own_receiver(file, language, listener):
        return stays[0]
    if remark_apart(file, language, listener):
        return "a remark stands where its lines do not move"
    for s in captured(file, listener):
        if s in fields:
            continue
        if sets(file, listener, s) or len(s.bindings) > 1:
            return f"it shares '{s.name}' with others, which may change"
        if language.typed and not language.regions.declared_as(file, s)[1]:
            return f"nothing says the type of '{s.name}'"
    results = [at for kind, at in ways_out(file, language, listener.statements, False, False) if kind == "return"]
    if results and not listener.whole and not listener.gives:
        if not all(language.regions.returns_nothing(file, at) for at in results):
            return "it gives something back"
    return ""


def own_receiver(file: SourceFile, language: Language, listener: Listener) -> bool:
    """Whether it means the object of the method in which it stands, as the method will."""
    return False


def same(file: SourceFile, language: Language, first: Listener, other: Listener) -> bool:
    """Whether two listeners do the same with the same."""
    if first.params != other.params or first.gives != other.gives or first.says != other.says:
        return False
    if captured(file, first) != captured(file, other):
        return False
    return language.tokens(file, *lines_of(first), []) == language.tokens(file, *lines_of(other), [])


def lines_of(listener: Listener) -> tuple[int, int]:
    rows = listener.statements
    return (rows[0].start, rows[-1].end) if rows else (listener.opens, listener.closes)


class Naming:
    """Works out the edits that make listeners of one class its methods, and variables of their methods its fields.

    ``fields``: symbol → the name of the field, as it is written.
    """

    def __init__(
        self, file: SourceFile, language: Language, methods: Sequence[NewMethod], fields: Mapping[Symbol, str]
    ) -> None:
        assert language.listening is not None
        self.file, self.language, self.methods, self.fields = file, language, methods, fields
        self.listening: Listening = language.listening
        self.write, self.unit = language.write, language.write.indent_unit(file)

    def edits(self) -> list[Range]:
        changes = list(self.field_edits())
        bodies = [n for m in self.methods for n in m.listeners]
        moved = [(n, [c for c in changes if n.opens <= c[0] and c[1] <= n.closes]) for n in bodies]
        inner = {c for _, found in moved for c in found}
        found = [c for c in changes if c not in inner]
        texts: dict[Function, list[str]] = {}
        for m in self.methods:
            first = m.listeners[0]
            assert first.method is not None
            texts.setdefault(first.method, []).append(self.method_text(m, dict_of(moved, first)))
            for n in m.listeners:
                found += self.registration(m, n)
        nl = self.write.newline(self.file)
        for method, made in texts.items():
            at = line_end(self.file, method.end - 1)
            before = "" if self.file.text[:at].endswith(b"\n") else "\n"
            found.append((at, at, self.write.with_newlines(before + "".join(f"\n{t}" for t in made), nl)))
        return found

    def field_edits(self) -> Iterator[Range]:
        """The variables become fields."""
        by_method: dict[Function, list[LocalField]] = {}
        for s, name in self.fields.items():
            method = next(f for f in self.file.functions if inside(s.scope, f.scope) and s.scope is f.scope)
            by_method.setdefault(method, []).append(LocalField(s, name))
        for method, fields in by_method.items():
            yield from self.listening.as_fields(self.file, method, fields)

    def method_text(self, m: NewMethod, changes: list[Range]) -> str:
        first, regions = m.listeners[0], self.language.regions
        assert first.method is not None
        lead = lead_of(self.file, first.method.start)
        body = lead + self.unit + first.says if first.says else self.body(first, changes, lead + self.unit)
        given = [*first.params, *((s.name, regions.declared_as(self.file, s)[1]) for s in m.handed)]
        new = NewFunction(m.name, given, body, result=first.gives, home=first.method, hidden=True)
        return regions.lifted(self.file, lead, self.unit, new)

    def body(self, n: Listener, changes: list[Range], lead: str) -> str:
        """The lines of a listener as they stand in the method."""
        write, file, first = self.write, self.file, n.statements[0]
        old = file.slice(line_start(file, first.start), first.start)
        if old.strip():
            return lead + edited(file, first.start, n.statements[-1].end, changes)
        start = write.comment_start(file, first.start)
        end = write.line_end(file, n.statements[-1].end - 1)
        text = write.shifted(file, start + len(old.encode(file.encoding)), min(end, n.closes), changes, old, lead)
        return str(text).rstrip()

    def registration(self, m: NewMethod, n: Listener) -> list[Range]:
        """What stands in the place of a listener."""
        more = [s.name for s in m.handed]
        assert n.method is not None
        text = self.listening.registered(m.name, [name for name, _ in n.params], more, n.whole)
        if n.whole:
            return [(n.start, n.end, text)]
        first = n.statements[0].start
        above = self.write.comment_start(self.file, first)
        start = above + len(lead_of(self.file, first).encode()) if above < first else first
        return [(max(start, n.opens), n.statements[-1].end, text)]


def edited(file: SourceFile, start: int, end: int, changes: Sequence[Range]) -> str:
    """A stretch of text with edits in it."""
    found, at = [], start
    for a, b, text in sorted(changes):
        if start <= a and b <= end:
            found += [file.slice(at, a), text]
            at = b
    return "".join([*found, file.slice(at, end)])


def dict_of(moved: Sequence[tuple[Listener, list[Range]]], listener: Listener) -> list[Range]:
    return next(found for n, found in moved if n is listener)


def clear(file: SourceFile, symbol: Symbol, name: str, top: Scope) -> bool:
    """Whether every use of a variable means the field once that has its name."""
    return not any(shadowed(r.scope, name, top) for r in symbol.references if r.scope is not symbol.scope)
