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
from ..program.model import Call, Function, SourceFile, Statement
from ..program.whole import MemberUse, Whole
from .design import PartDesign, bare
from .records import Range


@dataclass
class Unfit(Exception):
    """Why a part cannot be taken out, and where (an offset)."""

    message: str
    at: int = 0


@dataclass
class Value:
    """What one field of the part starts with. ``statement``: the one that is taken over; ``given``: whether the maker hands it in."""

    statement: Statement
    given: bool


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
        return [f for f in self.whole.methods if f.name not in self.methods]

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
        if f.decorators or not f.bound or (f.name.startswith("__") and f.name.endswith("__")):
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
            if n in f.scope.symbols or any(n in s.symbols for s in f.scope.walk()):
                raise Unfit(f"'{n}', which '{f.name}' would be handed, is a name of its own there", f.start)
            if self.changes(n) and self.whole.escapes:
                raise Unfit(f"'{n}' may change while '{f.name}' runs: the object is handed on", self.whole.escapes[0])
        if self.needs[f.name] and any(p.kind == "doublestar" for p in f.params):
            raise Unfit(f"'{f.name}' takes any named argument", f.start)

    # -- edits -----------------------------------------------------------------------------------

    def edits(self, part: PartDesign) -> list[Range]:
        """All that changes. Raises Unfit."""
        self.settle()
        self.check(part)
        write = self.language.write
        at, values = self.making()
        out: list[Range] = []
        for f in self.others:
            taken = [v.statement for v in values.values()]
            for u in self.whole.of(f):
                if not any(s.start <= u.start < s.end for s in taken):
                    out += self.outer_use(u, part)
        out += self.made(part, at, values)
        for f in self.functions:
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
            if (u.name in self.fields or u.name in self.methods) and u.kind == "other":
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

    def extended(self, u: MemberUse, given: list[tuple[str, str]]) -> list[Range]:
        """A call with what it hands over besides."""
        if not given:
            return []
        call = next(c for c in self.file.calls if c.callee.start == u.own[0])
        f = next(f for f in self.functions if f.name == u.name)
        _, how = self.language.write.added_parameters(self.file, f, [(n, "") for n, _ in given])
        arguments = self.language.arguments(self.file, call)
        if arguments and call.node is not None and call.node.start_byte == arguments[0].start:
            raise Unfit(f"the call of '{u.name}' has no parentheses of its own, so nothing can be handed over besides", u.start)
        by_name = how == "by name" or any(a.keyword for a in arguments)
        texts = [self.language.write.keyword_argument(n, value) if by_name else value for n, value in given]
        end = arguments[-1].end if arguments else self.inside(call)
        return [(end, end, (", " if arguments else "") + ", ".join(texts))]

    def inside(self, call: Call) -> int:
        return call.args_start

    # -- the new class ---------------------------------------------------------------------------

    def class_text(self, part: PartDesign, values: dict[str, Value]) -> str:
        write, unit = self.language.write, self.language.write.indent_unit(self.file)
        news = []
        for m, v in values.items():
            above = self.file.slice(write.comment_start(self.file, v.statement.start), write.line_start(self.file, v.statement.start))
            assert v.statement.value is not None
            text = str(write.indented(self.file, *v.statement.value, [], unit * 2)) if not v.given else bare(self.parameter(m))
            news.append(NewField(self.fields[m], text, v.given, above=[line.strip() for line in above.splitlines()],
                                 comment=write.trailing_comment(self.file, v.statement.end)))  # fmt: skip
        head = str(write.class_text(self.file, unit, part.name, "", news)) if news else str(write.class_around(self.file, unit, part.name, ""))
        methods = [self.method_text(f) for f in self.functions]
        return head + ("\n" if news else "") + "\n".join(methods)

    def parameter(self, member: str) -> str:
        return self.fields[member].lstrip("_")

    def method_text(self, f: Function) -> str:
        write = self.language.write
        edits = [(f.name_start, f.name_end, self.methods[f.name])]
        needs = self.needs[f.name]
        if needs:
            edits.append(write.added_parameters(self.file, f, [(n, "") for n in needs])[0])
        for u in self.whole.of(f):
            if u.name in self.fields:
                edits.append((u.own[1], u.end, f".{self.fields[u.name]}"))
            elif u.name in self.methods:
                edits.append((u.own[1], u.end, f".{self.methods[u.name]}"))
                edits += self.extended(u, [(n, n) for n in self.needs[u.name]]) if u.kind == "call" else []
                if u.kind != "call" and self.needs[u.name]:
                    raise Unfit(f"'{u.name}' is handed on here, so nobody could hand it {', '.join(self.needs[u.name])}", u.start)
            else:
                edits.append((u.start, u.end, u.name))
        start = write.comment_start(self.file, f.start)
        end = write.line_end(self.file, f.end - 1)
        parts, at = [], start
        for left, right, text in sorted(edits):
            parts += [self.file.slice(at, left), text]
            at = right
        return "".join([*parts, self.file.slice(at, end)]).replace("\r\n", "\n").rstrip("\n") + "\n"

    # -- where the part is made ------------------------------------------------------------------

    def making(self) -> tuple[Statement, dict[str, Value]]:
        """The statement of the constructor before which the part is made, and which first values it takes over."""
        maker = next((f for f in self.whole.methods if f.name == self.language.write.CONSTRUCTOR), None)
        if maker is None:
            raise Unfit(f"{self.whole.name} has no constructor in which the part could be made", self.whole.scope.start)
        body = self.language.body(self.file, maker)
        mine = {*self.fields, *self.methods}
        uses = self.whole.of(maker)
        known = {f.name for f in self.whole.methods}
        touched = [u.start for u in uses if u.name in mine or u.name in known] + [e for e in self.whole.escapes if maker.start <= e < maker.end]
        first = next((s for s in body if any(s.start <= t < s.end for t in touched)), None)
        if first is None:
            raise Unfit(f"nothing in the constructor of {self.whole.name} sets what the part would hold", maker.start)
        values: dict[str, Value] = {}
        free, seen, passed = True, set[str](), set[str]()  # ``passed``: what statements set that stay
        local = {n for n, s in maker.scope.symbols.items() if n not in {p.name for p in maker.params} or len(s.bindings) > 1}
        for s in body[body.index(first) :]:
            inside = [u for u in uses if s.start <= u.start < s.end]
            target = next((u for u in inside if u.kind == "set"), None)
            plain = s.kind == "assign" and s.value is not None and target is not None and s.value[0] > target.end and self.alone(s, target)
            if plain and target is not None and target.name in self.fields and target.name not in seen and self.movable(s, free, [u for u in inside if u is not target], local, passed):
                values[target.name] = Value(s, self.handed(s))
                seen |= {u.name for u in inside}
                continue
            passed |= {u.name for u in inside if u.kind != "read"}
            if not (plain and s.value is not None and self.language.purity(self.file, s.value) != "effect"):
                free = False
            seen |= {u.name for u in inside}
        return first, values

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

    def handed(self, s: Statement) -> bool:
        """Whether a first value is worked out where the part is made: it is no literal, so that nothing changes its order."""
        assert s.value is not None
        top = all(r.symbol is not None and (not r.symbol.kinds or r.symbol.scope is self.file.scope) for r in self.file.within(*s.value))
        return not (top and self.language.purity(self.file, s.value) != "effect")

    def made(self, part: PartDesign, first: Statement, values: dict[str, Value]) -> list[Range]:
        write = self.language.write
        own = next(f for f in self.whole.methods if f.name == write.CONSTRUCTOR).params[0].name
        args = [self.file.slice(*v.statement.value) for v in values.values() if v.given and v.statement.value is not None]
        line = f"{write.member(own, part.object)} = {write.make(part.name, args)}"
        left = write.line_start(self.file, first.start)
        lead = self.file.slice(left, first.start)
        out: list[Range] = []
        taken = [v.statement for v in values.values()]
        nl = write.newline(self.file)
        if first not in taken:
            start = write.comment_start(self.file, first.start)
            out.append((start, start, lead + line + nl))
        for s in taken:
            start, end = write.comment_start(self.file, s.start), write.line_end(self.file, s.end)
            out.append((start, end, lead + line + nl if s is first else ""))
        return out
