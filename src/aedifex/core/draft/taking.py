"""A part is taken out of a class that does several jobs: fields and methods go into a class of their own, an object of which the first one keeps (C17).

class Evening:                            class Log:
    def __init__(self):                       def __init__(self):
        self.open = True                          self._lines = []
        self.log_lines = []                   def write(self, text):
    def write_log(self, text):        →           self._lines.append(text)
        self.log_lines.append(text)       class Evening:
    def run(self):                            def __init__(self):
        self.write_log("open")                    self.open = True
                                                  self.log = Log()
                                              def run(self):
                                                  self.log.write("open")

What its methods need of the class that keeps it is handed over at each call. Used by the draft and by the step.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ..program.language import Language, NewField
from ..program.model import Function, SourceFile, Statement
from ..program.whole import Declared, MemberUse, Whole
from .design import PartDesign, bare
from .records import Range


@dataclass
class Unfit(Exception):
    """Why a part cannot be taken out, and where (an offset)."""

    message: str
    at: int = 0


@dataclass
class Value:
    """What one field of the part starts with: ``span``. ``whole``: the statement or declaration that says so; ``given``: whether the maker hands it in."""

    span: tuple[int, int]
    whole: tuple[int, int]
    given: bool
    declared: bool = False


@dataclass
class Making:
    """Where the part is made: before a statement of the constructor, or (None) where its fields were declared; and what its fields start with."""

    first: Statement | None
    values: dict[str, Value]


@dataclass
class Taking:
    file: SourceFile
    language: Language
    whole: Whole
    fields: dict[str, str]  # member of the whole → field of the part
    methods: dict[str, str]
    needs: dict[str, list[str]] = field(default_factory=dict)  # method → members of the whole that it is handed

    @property
    def functions(self) -> list[Function]:
        return [f for f in self.whole.methods if f.name in self.methods]

    @property
    def others(self) -> list[Function]:
        return [f for f in self.whole.methods if f.name not in self.methods] + ([self.whole.head] if self.whole.head is not None else [])

    @property
    def taken(self) -> list[Declared]:
        """The declarations of the part's fields, in their order."""
        return [d for n, d in self.whole.declared.items() if n in self.fields]

    # -- what its methods need -------------------------------------------------------------------

    def settle(self) -> None:
        """Work out what is handed over. Raises Unfit where something cannot be."""
        for f in self.functions:
            self.needs[f.name] = self.own_needs(f)
        changed = True
        while changed:  # a method that calls another hands on what that one needs
            changed = False
            for f in self.functions:
                for u in self.whole.of(f):
                    for n in self.needs.get(u.name, ()) if u.kind == "call" else ():
                        if n not in self.needs[f.name]:
                            self.needs[f.name].append(n)
                            changed = True
        for f in self.functions:
            self.check_handed(f)

    def own_needs(self, f: Function) -> list[str]:
        fields = set(self.whole.fields)
        found: dict[str, None] = {}
        if f.name not in self.whole.plain:
            raise Unfit(f"'{f.name}' is no plain method", f.start)
        for u in self.whole.of(f):
            if u.name in self.fields or u.name in self.methods:
                continue
            if u.name not in fields:
                raise Unfit(f"'{f.name}' uses '{u.name}' of {self.whole.name}, which is no field", u.start)
            if u.kind not in ("read", "call"):
                raise Unfit(f"'{f.name}' sets '{u.name}', which {self.whole.name} keeps", u.start)
            if u.later and self.changes(u.name):
                raise Unfit(f"a function inside '{f.name}' uses '{u.name}' later, and {self.whole.name} changes it", u.start)
            found[u.name] = None
        return list(found)

    def changes(self, name: str) -> bool:
        """Whether a member is bound anew once the object is made."""
        return any(u.name == name and u.kind == "set" and u.function.name != self.language.write.CONSTRUCTOR for u in self.whole.uses)

    def check_handed(self, f: Function) -> None:
        for n in self.needs[f.name]:
            if self.needs[f.name] and (f.is_async or f.scope.generator) and self.changes(n):
                raise Unfit(f"'{f.name}' goes on later, when '{n}' may be another", f.start)
            if any(self.given(n) in s.symbols for s in f.scope.walk()):
                raise Unfit(f"'{self.given(n)}', which '{f.name}' would be handed, is a name of its own there", f.start)
            if self.changes(n) and self.whole.escapes:
                raise Unfit(f"'{n}' may change while '{f.name}' runs: the object is handed on", self.whole.escapes[0])
        if self.needs[f.name] and any(p.kind == "doublestar" for p in f.params):
            raise Unfit(f"'{f.name}' takes any named argument", f.start)

    def given(self, member: str) -> str:
        """What a method calls a member of the whole that it is handed."""
        plain = member.strip("_#")
        return plain if self.language.write.is_name(plain) and plain not in self.language.builtins else member

    def type_of(self, member: str) -> str:
        return self.whole.declared[member].type if member in self.whole.declared else ""

    # -- edits -----------------------------------------------------------------------------------

    def edits(self, part: PartDesign) -> list[Range]:
        """All that changes. Raises Unfit."""
        self.settle()
        self.check(part)
        write = self.language.write
        making = self.making()
        values = making.values
        out: list[Range] = []
        gone = [v.whole for v in values.values()]
        for f in self.others:
            for u in self.whole.of(f):
                if not any(start <= u.start < end for start, end in gone):
                    out += self.outer_use(u, part)
        out += self.made(part, making)
        for f in self.functions:
            self.on_own_lines(f.start, f.end)
            start = write.blank_before(self.file, write.comment_start(self.file, f.start))
            out.append((start, write.line_end(self.file, f.end - 1), ""))
        statement = next(s for s in self.file.statements if s.kind == "class" and s.start <= self.whole.scope.start < s.end)
        place = write.comment_start(self.file, statement.start)
        text = self.class_text(part, values)
        return [(place, place, write.with_newlines(text + "\n" * write.BLANKS, write.newline(self.file))), *out]

    def check(self, part: PartDesign) -> None:
        """That nobody else uses what moves, and that the new names are free."""
        own = {f.name for f in self.whole.methods} | {u.name for u in self.whole.uses}
        if part.object in own:
            raise Unfit(f"{self.whole.name} has a member '{part.object}' already", self.whole.scope.start)
        if any(part.name in s.symbols for s in self.file.scope.walk()) or part.name in self.language.builtins:
            raise Unfit(f"'{part.name}' is in use already")
        for u in self.whole.uses:
            mine = u.name in self.fields or u.name in self.methods
            if mine and u.function is self.whole.head and not u.later:
                raise Unfit(f"'{u.name}' is used where {self.whole.name} declares its fields, when the part may not be there", u.start)
            if mine and u.kind == "other":
                raise Unfit(f"'{u.name}' is used here in a way that it could not be as a part's", u.start)
        trouble = self.language.members.outside(self.file, self.whole, {*self.fields, *self.methods})  # type: ignore[union-attr]
        if trouble is not None:
            raise Unfit(*trouble)

    def outer_use(self, u: MemberUse, part: PartDesign) -> list[Range]:
        """A use by what stays."""
        if u.name in self.fields:
            return [(u.own[1], u.end, f".{part.object}.{self.fields[u.name]}")]
        if u.name not in self.methods:
            return []
        needs = self.needs[u.name]
        edits = [(u.own[1], u.end, f".{part.object}.{self.methods[u.name]}")]
        if needs and u.kind != "call":
            raise Unfit(f"'{u.name}' is handed on here, so nobody could hand it {', '.join(needs)}", u.start)
        owner = self.file.slice(*u.own)
        return [*edits, *self.extended(u, [(n, self.language.write.member(owner, n)) for n in needs])]

    def on_own_lines(self, start: int, end: int) -> None:
        write = self.language.write
        behind = self.file.slice(end, write.line_end(self.file, end - 1)).strip()
        if self.file.slice(write.line_start(self.file, start), start).strip() or (behind and not write.trailing_comment(self.file, end)):
            raise Unfit("it shares a line with others of its class", start)

    def extended(self, u: MemberUse, given: list[tuple[str, str]]) -> list[Range]:
        """A call with what it hands over besides."""
        if not given:
            return []
        call = next(c for c in self.file.calls if c.callee.start == u.start)
        f = next(f for f in self.functions if f.name == u.name)
        _, how = self.language.write.added_parameters(self.file, f, [(n, "") for n, _ in given])
        arguments = self.language.arguments(self.file, call)
        if arguments and call.node is not None and call.node.start_byte == arguments[0].start:
            raise Unfit(f"the call of '{u.name}' has no parentheses of its own, so nothing can be handed over besides", u.start)
        by_name = how == "by name" or any(a.keyword for a in arguments)
        texts = [self.language.write.keyword_argument(self.given(n), value) if by_name else value for n, value in given]
        if how == "first" and not by_name:
            at = arguments[0].start if arguments else call.args_start
            return [(at, at, ", ".join(texts) + (", " if arguments else ""))]
        if not by_name and len(arguments) != len(f.arguments) and not self.language.exact_calls:
            raise Unfit(f"'{u.name}' is called with another number of arguments than it takes, so nothing can be handed over besides", u.start)
        end = arguments[-1].end if arguments else call.args_start
        return [(end, end, (", " if arguments else "") + ", ".join(texts))]

    # -- the new class ---------------------------------------------------------------------------

    def class_text(self, part: PartDesign, values: dict[str, Value]) -> str:
        write, unit = self.language.write, self.language.write.indent_unit(self.file)
        news = []
        for m in [*values, *(n for n in self.fields if n not in values and n in self.whole.declared)]:
            v = values.get(m)
            if v is None:
                news.append(NewField(self.fields[m], later=True, type=self.type_of(m)))
                continue
            above = self.file.slice(write.comment_start(self.file, v.whole[0]), write.line_start(self.file, v.whole[0]))
            text = str(write.indented(self.file, *v.span, [], unit * 2)) if not v.given else bare(self.parameter(m))
            news.append(NewField(self.fields[m], text, v.given, type=self.type_of(m), above=[line.strip() for line in above.splitlines()],
                                 comment=write.trailing_comment(self.file, v.whole[1])))  # fmt: skip
        head = str(write.class_text(self.file, unit, part.name, "", news)) if news else str(write.class_around(self.file, unit, part.name, ""))
        return str(write.with_methods(head, [self.method_text(f) for f in self.functions]))

    def parameter(self, member: str) -> str:
        return self.fields[member].lstrip("_")

    def method_text(self, f: Function) -> str:
        write = self.language.write
        edits = [(f.name_start, f.name_end, self.methods[f.name])]
        needs = self.needs[f.name]
        if needs:
            edits.append(write.added_parameters(self.file, f, [(self.given(n), self.type_of(n)) for n in needs])[0])
        if any(u.name == f.name and u.function not in self.functions for u in self.whole.uses):
            edits += self.language.members.opened(self.file, f)  # type: ignore[union-attr]
        for u in self.whole.of(f):
            if u.name in self.fields:
                edits.append((u.own[1], u.end, f".{self.fields[u.name]}"))
            elif u.name in self.methods:
                edits.append((u.own[1], u.end, f".{self.methods[u.name]}"))
                edits += self.extended(u, [(n, self.given(n)) for n in self.needs[u.name]]) if u.kind == "call" else []
                if u.kind != "call" and self.needs[u.name]:
                    raise Unfit(f"'{u.name}' is handed on here, so nobody could hand it {', '.join(self.needs[u.name])}", u.start)
            else:
                edits.append((u.start, u.end, self.given(u.name)))
        start = write.comment_start(self.file, f.start)
        end = write.line_end(self.file, f.end - 1)
        parts, at = [], start
        for left, right, text in sorted(edits):
            parts += [self.file.slice(at, left), text]
            at = right
        return "".join([*parts, self.file.slice(at, end)]).replace("\r\n", "\n").rstrip("\n") + "\n"

    # -- where the part is made ------------------------------------------------------------------

    def making(self) -> Making:
        declared = self.declared_values()
        maker = next((f for f in self.whole.methods if f.name == self.language.write.CONSTRUCTOR), None)
        if maker is None:
            if not self.taken:
                raise Unfit(f"{self.whole.name} has no constructor in which the part could be made", self.whole.scope.start)
            return Making(None, declared)
        body = self.language.body(self.file, maker)
        first = self.first_touched(maker, body)
        values = self.set_values(maker, body[body.index(first) :]) if first is not None else {}
        if any(v.given for v in values.values()) or not self.taken:
            if first is None:
                raise Unfit(f"nothing in the constructor of {self.whole.name} sets what the part would hold", maker.start)
            return Making(first, {**declared, **values})
        return Making(None, {**declared, **values})

    def declared_values(self) -> dict[str, Value]:
        """First values that are declared, each of which can be worked out at any time."""
        values: dict[str, Value] = {}
        for n in [n for n in self.whole.declared if n in self.fields]:
            d = self.whole.declared[n]
            self.on_own_lines(d.start, d.end)
            own = d.value is not None and any(d.value[0] <= u.start < d.value[1] for u in self.whole.uses)
            if not d.plain or own or (d.value is not None and (self.language.purity(self.file, d.value) == "effect" or self.handed(d.value))):
                raise Unfit(f"'{n}' is declared here in a way that only {self.whole.name} can", d.start)
            if d.value is not None:
                values[n] = Value(d.value, (d.start, d.end), False, True)
        return values

    def first_touched(self, maker: Function, body: list[Statement]) -> Statement | None:
        """The first statement of the constructor that has to do with the part, or could have."""
        mine = {*self.fields, *self.methods, *(f.name for f in self.whole.methods)}
        touched = [u.start for u in self.whole.of(maker) if u.name in mine] + [e for e in self.whole.escapes if maker.start <= e < maker.end]
        return next((s for s in body if any(s.start <= t < s.end for t in touched)), None)

    def set_values(self, maker: Function, body: list[Statement]) -> dict[str, Value]:
        """First values that these statements of the constructor set, and that are the same where the part is made before them."""
        uses = self.whole.of(maker)
        values: dict[str, Value] = {}
        free, seen, passed = True, set[str](), set[str]()  # ``passed``: what statements set that stay
        seen |= {n for n, d in self.whole.declared.items() if d.value is not None}
        local = {n for n, s in maker.scope.symbols.items() if n not in {p.name for p in maker.params} or len(s.bindings) > 1}
        for s in body:
            inside = [u for u in uses if s.start <= u.start < s.end]
            target = next((u for u in inside if u.kind == "set"), None)
            plain = s.kind == "assign" and s.value is not None and target is not None and s.value[0] > target.end and self.alone(s, target)
            if plain and target is not None and target.name in self.fields and target.name not in seen and self.movable(s, free, [u for u in inside if u is not target], local, passed):
                assert s.value is not None
                values[target.name] = Value(s.value, (s.start, s.end), self.handed(s.value))
                seen |= {u.name for u in inside}
                continue
            passed |= {u.name for u in inside if u.kind != "read"}
            if not (plain and s.value is not None and self.language.purity(self.file, s.value) != "effect"):
                free = False
            seen |= {u.name for u in inside}
        return values

    def alone(self, s: Statement, target: MemberUse) -> bool:
        """Whether a statement is one plain assignment on lines of its own."""
        write = self.language.write
        left = self.file.slice(write.line_start(self.file, s.start), s.start)
        right = self.file.slice(s.end, write.line_end(self.file, s.end))
        assert s.value is not None
        between = self.file.slice(target.end, s.value[0]).strip()
        return not left.strip() and (not right.strip() or bool(write.trailing_comment(self.file, s.end))) and target.start == s.start and between == "="

    def movable(self, s: Statement, free: bool, reads: list[MemberUse], local: set[str], passed: set[str]) -> bool:
        """Whether the value is the same where the part is made. ``reads``: members that it uses; ``local``: names that are set on the way."""
        assert s.value is not None
        names = {r.name for r in self.file.within(*s.value)}
        if names & local or any(u.name in {*self.fields, *self.methods, *passed} or u.later for u in reads):
            return False
        return free or (not reads and self.language.purity(self.file, s.value) == "literal")

    def handed(self, value: tuple[int, int]) -> bool:
        """Whether a first value is worked out where the part is made: it is no literal, so that nothing changes its order."""
        top = all(r.symbol is not None and (not r.symbol.kinds or r.symbol.scope is self.file.scope) for r in self.file.within(*value))
        own = any(value[0] <= u.start < value[1] for u in self.whole.uses)
        return own or not (top and self.language.purity(self.file, value) != "effect")

    def made(self, part: PartDesign, making: Making) -> list[Range]:
        """The line that makes the part, in place of what set and declared its fields."""
        write, members = self.language.write, self.language.members
        assert members is not None
        given = [self.file.slice(*v.span) for v in making.values.values() if v.given]
        new = write.make(part.name, given)
        out: list[Range] = []
        nl = write.newline(self.file)
        for i, d in enumerate(self.taken):
            text = members.declaration(self.file, d, part.object, part.name, "" if making.first is not None else new) if i == 0 else ""
            lead = self.file.slice(write.line_start(self.file, d.start), d.start)
            out.append((*self.lines_of(d.start, d.end), lead + text + nl if text else ""))
        line = f"{write.member(self.whole.receiver, part.object)} = {new}" + write.statement_end(self.file)
        first = making.first
        lead = self.file.slice(write.line_start(self.file, first.start), first.start) if first is not None else ""
        taken = [v.whole for v in making.values.values() if not v.declared]
        if first is not None and (first.start, first.end) not in taken:
            start = write.comment_start(self.file, first.start)
            out.append((start, start, lead + line + nl))
        for span in taken:
            out.append((*self.lines_of(*span), lead + line + nl if first is not None and span == (first.start, first.end) else ""))
        return out

    def lines_of(self, start: int, end: int) -> tuple[int, int]:
        """Whole lines, with the remarks above them."""
        return self.language.write.comment_start(self.file, start), self.language.write.line_end(self.file, end)
