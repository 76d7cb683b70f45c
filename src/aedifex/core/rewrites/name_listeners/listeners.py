"""What listeners of a class need to be methods of it, and the edits by which they are (A5, C8)."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from ...analysis.handlers import listeners_of
from ...analysis.regions.region import ways_out
from ...program.edits import Edits, Range
from ...program.facets.listening import Listening
from ...program.inline import Listener, LocalField
from ...program.language import Language
from ...program.layout import lead_of, line_end, line_start
from ...program.line_ranges import column_of
from ...program.model import Function, NewFunction, Role, Scope, SourceFile, Symbol
from ...program.scopes import shadowed
from ..name_handlers.handlers import remark_apart
from ..step import drop_declarations


@dataclass
class NewMethod:
    """A method to be, the listeners whose place it takes, which do the same, and the variables that it is handed."""

    name: str
    listeners: list[Listener]
    handed: list[Symbol] = field(default_factory=list)


def listeners_in(file: SourceFile, language: Language, scope: Scope) -> list[Listener]:
    """The listeners in the methods of a class, in source order."""
    return [n for n in listeners_of(file, language) if n.method is not None and n.method.outer is scope]


def place_of(file: SourceFile, listener: Listener) -> str:
    """file:line:column, as a design says it."""
    at = listener.start if listener.whole else listener.opens
    path, line = file.stands(at)
    return f"{path}:{line}:{column_of(file, at)}"


def captured(file: SourceFile, language: Language, listener: Listener) -> list[Symbol]:
    """The variables of the functions around it that it uses, in order of use."""
    assert listener.method is not None
    own = listener.method.params[0].name if listener.method.bound else language.write.RECEIVER
    found: dict[Symbol, None] = {}
    for r in file.within(listener.opens, listener.closes):
        s = r.symbol
        if s is None or s.scope is None or not s.kinds & {"variable", "parameter"} or s is own_symbol(listener):
            continue
        outside = not any(listener.start <= b.start < listener.end for b in s.bindings[:1])
        if outside and s.scope.within(listener.method.scope) and s.name != own:
            found[s] = None
    return list(found)


def own_symbol(listener: Listener) -> Symbol | None:
    return listener.function.symbol if listener.function is not None else None


def set_around(listener: Listener, symbol: Symbol) -> bool:
    """Whether only the method around a listener sets a variable: then it keeps its value while the listener runs."""
    assert listener.method is not None
    return all(b.scope.frame is listener.method.scope for b in symbol.bindings)


def functions_used(file: SourceFile, listener: Listener) -> list[Symbol]:
    """The functions of the method around it that it uses."""
    assert listener.method is not None
    top = listener.method.scope
    found = {r.symbol for r in file.within(listener.opens, listener.closes) if r.symbol is not None}
    return [
        s for s in found
        if s.kinds == {"function"} and s.scope is not None and s.scope.within(top) and s is not own_symbol(listener)
        and not any(listener.start <= b.start < listener.end for b in s.bindings)
    ]  # fmt: skip


def why_not(
    file: SourceFile, language: Language, listener: Listener, fields: Collection[Symbol], methods: Collection[Symbol]
) -> str:
    """Why a listener cannot be a method; "" if it can. ``fields``, ``methods``: variables that are fields by then, and
    functions that are methods."""
    stays = language.regions.bound_to_function(file, listener.opens, listener.closes)
    if stays is not None:
        return stays[0]
    if not listener.stands_apart and remark_apart(file, language, listener):
        return "a remark stands where its lines do not move"
    for s in functions_used(file, listener):
        if s not in methods:
            return f"it uses '{s.name}', which stands in the same method"
    for s in captured(file, language, listener):
        if s in fields:
            continue
        if not set_around(listener, s):
            return f"'{s.name}' is set by what may run later, and is no field"
        if language.typed and not language.regions.declared_as(file, s)[1]:
            return f"nothing says the type of '{s.name}'"
        if listener.function is not None and called_by_name(listener):
            return f"it is called by its name, and needs '{s.name}' besides"
    results = [at for kind, at in ways_out(file, language, listener.statements, False, False) if kind == "return"]
    if results and not listener.whole and not listener.gives:
        if not all(language.regions.returns_nothing(file, at) for at in results):
            return "it gives something back"
    return ""


def called_by_name(listener: Listener) -> bool:
    s = own_symbol(listener)
    return s is not None and any(r.role == Role.CALL for r in s.references)


def do_the_same(file: SourceFile, language: Language, first: Listener, other: Listener) -> bool:
    """Whether two listeners do the same with the same."""
    if first.params != other.params or first.gives != other.gives or first.says != other.says:
        return False
    if captured(file, language, first) != captured(file, language, other):
        return False
    return language.tokens(file, *moving_lines(first), []) == language.tokens(file, *moving_lines(other), [])


def moving_lines(listener: Listener) -> tuple[int, int]:
    rows = listener.statements
    return (rows[0].start, rows[-1].end) if rows else (listener.opens, listener.closes)


class Naming:
    """Works out the edits that make listeners of one class its methods, and variables of their methods its fields.

    ``fields``: each variable, and the field that it becomes or is kept in.
    """

    def __init__(
        self, file: SourceFile, language: Language, methods: Sequence[NewMethod], fields: Mapping[Symbol, LocalField]
    ) -> None:
        assert language.listening is not None
        self.file, self.language, self.methods, self.fields = file, language, methods, fields
        self.listening: Listening = language.listening
        self.write = language.write

    def edits(self) -> list[Range]:
        changes = [*self.field_edits(), *self.use_edits()]
        bodies = [n for m in self.methods for n in m.listeners]
        moved = {id(n): [c for c in changes if n.opens <= c[0] and c[1] <= n.closes] for n in bodies}
        inner = {c for found in moved.values() for c in found}
        found = [c for c in changes if c not in inner]
        texts: dict[Function, list[str]] = {}
        for m in self.methods:
            first = m.listeners[0]
            assert first.method is not None
            texts.setdefault(first.method, []).append(self.method_text(m, moved[id(first)]))
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
        for s, made in self.fields.items():
            method = next(f for f in self.file.functions if s.scope is f.scope)
            by_method.setdefault(method, []).append(made)
        for method, fields in by_method.items():
            yield from self.listening.as_fields(self.file, method, fields)
        yield from self.declared()

    def declared(self) -> Iterator[Range]:
        """Nothing says any more that a function sets a variable of the one around it."""
        bodies = [n for m in self.methods for n in m.listeners]
        elsewhere = self.dropped(set(self.fields), None)
        yield from (e for e in elsewhere if not any(n.opens <= e[0] < n.closes for n in bodies))
        for n in bodies:
            said = {d.symbol for d in self.file.declarations_within(n.opens, n.closes) if d.symbol is not None}
            assert n.method is not None
            around = {s for s in said if s.scope.within(n.method.scope) and not n.start <= s.scope.start < n.end}
            yield from self.dropped(around, (n.opens, n.closes))

    def dropped(self, symbols: set[Symbol], within: tuple[int, int] | None) -> list[Range]:
        out = Edits()
        drop_declarations(self.language, self.file, out, symbols, within)
        return out.ranges.get(self.file.path, [])

    def use_edits(self) -> Iterator[Range]:
        """A function in a method is named by the method that it becomes."""
        for m in self.methods:
            for n in m.listeners:
                s = own_symbol(n)
                text = self.listening.registered(m.name, [x for x, _ in n.params], [h.name for h in m.handed], True)
                for r in [r for r in s.references if not r.writes] if s is not None else []:
                    called = self.write.member(self.write.RECEIVER, m.name)
                    yield r.start, r.end, called if r.role == Role.CALL else self.write.use(r, text)
                yield from ((a, b, text) for a, b in n.made)

    def method_text(self, m: NewMethod, changes: list[Range]) -> str:
        first, regions = m.listeners[0], self.language.regions
        assert first.method is not None
        lead, unit = lead_of(self.file, first.method.start), self.unit_of(first.method)
        body = self.said(first, changes, lead + unit) if first.says else self.body(first, changes, lead + unit)
        given = [*first.params, *((s.name, regions.declared_as(self.file, s)[1]) for s in m.handed)]
        new = NewFunction(m.name, given, body, result=first.gives, home=first.method, hidden=True)
        return self.remarks(first, lead) + regions.lifted(self.file, lead, unit, new)

    def unit_of(self, method: Function) -> str:
        """By how much the lines of a method stand further in than its head."""
        rows = self.language.body(self.file, method)
        head, inner = lead_of(self.file, method.start), lead_of(self.file, rows[0].start) if rows else ""
        return inner[len(head) :] if inner.startswith(head) and inner != head else self.write.indent_unit(self.file)

    def remarks(self, n: Listener, lead: str) -> str:
        """What stands above a function in a method."""
        if not n.stands_apart:
            return ""
        start, end = self.write.comment_start(self.file, n.start), line_start(self.file, n.start)
        return "".join(f"{lead}{line.strip()}\n" for line in self.file.slice(start, end).splitlines() if line.strip())

    def said(self, n: Listener, changes: list[Range], lead: str) -> str:
        """The one statement of a listener that is an expression."""
        if n.rows:
            return "\n".join(lead + edited(self.file, a, b, changes) for a, b in n.rows)
        old, new = self.file.slice(n.opens, n.closes), edited(self.file, n.opens, n.closes, changes)
        more = self.write.indent_unit(self.file)
        text = n.says.replace(old.replace("\n", "\n" + more), new.replace("\n", "\n" + more))
        return lead + text

    def body(self, n: Listener, changes: list[Range], lead: str) -> str:
        """The lines of a listener as they stand in the method."""
        write, file = self.write, self.file
        rows = [s for s in n.statements if not any(a <= s.start and s.end <= b and not x for a, b, x in changes)]
        if not rows:
            return lead + write.empty_body()
        first, end = rows[0], write.line_end(file, rows[-1].end - 1)
        old = file.slice(line_start(file, first.start), first.start)
        if old.strip():
            return lead + edited(file, first.start, rows[-1].end, changes)
        start = write.comment_start(file, first.start)
        text = write.shifted(file, start + len(old.encode(file.encoding)), min(end, n.closes), changes, old, lead)
        return str(text).rstrip()

    def registration(self, m: NewMethod, n: Listener) -> list[Range]:
        """What stands in the place of a listener."""
        if n.stands_apart:
            return [self.taken_out(n)]
        more = [s.name for s in m.handed]
        text = self.listening.registered(m.name, [name for name, _ in n.params], more, n.whole)
        if n.whole:
            return [(n.start, n.end, text)]
        first = n.statements[0].start
        above = self.write.comment_start(self.file, first)
        start = above + len(lead_of(self.file, first).encode()) if above < first else first
        return [(max(start, n.opens), n.statements[-1].end, text)]

    def taken_out(self, n: Listener) -> Range:
        """A function in a method goes, with the blank lines around it that are too many then."""
        write, file = self.write, self.file
        start, end = write.comment_start(file, n.start), write.line_end(file, n.end - 1)
        above = write.blank_before(file, start)
        if len(lead_of(file, max(above - 1, 0))) < len(lead_of(file, n.start)):  # it is the first of its block
            return above, write.blank_after(file, end), ""
        return above, end, ""


def edited(file: SourceFile, start: int, end: int, changes: Sequence[Range]) -> str:
    """A stretch of text with edits in it."""
    found, at = [], start
    for a, b, text in sorted(changes):
        if start <= a and b <= end:
            found += [file.slice(at, a), text]
            at = b
    return "".join([*found, file.slice(at, end)])


def kept_as(file: SourceFile, language: Language, listener: Listener, symbol: Symbol) -> str:
    """The member in which the constructor keeps a parameter before the listener is there, and which nothing sets again;
    "" if there is none."""
    method, write = listener.method, language.write
    if method is None or language.listening is None or symbol.kinds != {"parameter"} or len(symbol.bindings) != 1:
        return ""
    if symbol.scope is not method.scope or method.name != write.CONSTRUCTOR:
        return ""
    declared = language.listening.property_of(file, method, symbol)
    own = method.params[0].name if method.bound else write.RECEIVER
    said = re.compile(rf"{re.escape(own)}\.(\w+)\s*(?::[^=]+)?=\s*{re.escape(symbol.name)}\s*;?")
    rows = [s for s in language.body(file, method) if s.end <= listener.start]
    found = next((m[1] for s in rows if (m := said.fullmatch(file.slice(s.start, s.end)))), "")
    name = declared or found
    member = ("" if language.bare_members else r"\.") + rf"\b{re.escape(name)}\b"
    sets = rf"{member}\s*(?::[^=\n]+)?(?:[-+*/%&|^]|<<|>>|\*\*|//)?=(?!=)|{member}\s*(?:\+\+|--)"
    sets += rf"|(?:\+\+|--)\s*(?:\w+\.)?{re.escape(name)}\b"
    text = file.slice(0, len(file.text))
    return name if name and len(re.findall(sets, text)) == int(not declared) else ""


def clear(file: SourceFile, symbol: Symbol, name: str, top: Scope) -> bool:
    """Whether every use of a variable means the field once that has its name."""
    return not any(shadowed(r.scope, name, top) for r in symbol.references if r.scope is not symbol.scope)
