"""A part is taken out of a class that does several jobs: fields and methods go into a class of their own, an object of
which the first one keeps (C17).

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

from ...design.tables import PartDesign
from ...program.code_text import remark_at
from ...program.edits import Range
from ...program.language import NewField
from ...program.layout import text_lines
from ...program.model import Function, Scope
from ...program.whole import MemberUse
from .. import messages
from .construction import PartConstruction, PartMaking, Value


class Taking(PartMaking):
    """How a part is taken out of its class: which uses change, and to what."""

    def edits(self, part: PartDesign) -> list[Range]:
        """All that changes. Raises Refusal."""
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
        out += [(write.blank_before(self.file, start), end, "") for start, end in self.headings().values()]
        place = write.comment_start(self.file, self.language.members.place(self.file, self.whole))  # type: ignore[union-attr]
        text = self.class_text(part, values)
        return [(place, place, write.with_newlines(text + "\n" * write.BLANKS, write.newline(self.file))), *out]

    def check(self, part: PartDesign) -> None:
        """That nobody else uses what moves, and that the new names are free."""
        own = {f.name for f in self.whole.methods} | {u.name for u in self.whole.uses} | self.whole.reserved
        if part.object in own:
            raise messages.MEMBER_ALREADY.at(
                self.file, self.whole.scope.start, class_=self.whole.name, name=part.object
            )
        if any(part.name in s.symbols for s in self.file.scope.walk()) or part.name in self.language.builtins:
            raise messages.PART_NAME_IN_USE.in_file(self.file.path, name=part.name)
        for n in self.fields:
            if n in self.whole.reserved:
                raise messages.NAME_OF_BASE.at(self.file, self.whole.scope.start, class_=self.whole.name, name=n)
        for u in self.whole.uses:
            mine = u.name in self.fields or u.name in self.methods
            if mine and u.function is self.whole.head and not u.later:
                raise messages.USED_BEFORE_PART.at(self.file, u.start, member=u.name, class_=self.whole.name)
            if mine and u.kind == "other":
                raise messages.USED_NOT_AS_PART.at(self.file, u.start, member=u.name)
        for n in self.kept:
            if not self.keepable(n):
                raise messages.NOT_SET_ONCE_BEFORE_PART.at(
                    self.file, self.whole.scope.start, name=n, object=part.object, part=part.name
                )
        self.check_bare()
        trouble = self.language.members.outside(self.file, self.whole, {*self.fields, *self.methods, *self.kept})  # type: ignore[union-attr]
        if trouble is not None:
            raise messages.USED_OUTSIDE_CLASS.at(self.file, trouble[1], why=trouble[0])

    def outer_use(self, u: MemberUse, part: PartDesign) -> list[Range]:
        """A use by what stays."""
        if u.name in self.fields:
            return [self.reach(u, f"{part.object}.{self.fields[u.name]}")]
        if u.name not in self.methods:
            return []
        needs = self.needs[u.name]
        edits = [self.reach(u, f"{part.object}.{self.methods[u.name]}")]
        if needs and u.kind != "call":
            raise messages.METHOD_HANDED_ON.at(self.file, u.start, member=u.name, names=", ".join(needs))
        return [*edits, *self.extended(u, [(n, self.named(u, n)) for n in needs])]

    def reach(self, u: MemberUse, path: str) -> Range:
        """A use of a member by another path from the object."""
        if u.own[0] == u.own[1]:
            return u.start, u.end, self.named(u, path)
        return u.own[1], u.end, f".{path}"

    def named(self, u: MemberUse, path: str) -> str:
        """How a path from the object is written where a member is used."""
        if u.own[0] != u.own[1]:
            return str(self.language.write.member(self.file.slice(*u.own), path))
        scope: Scope | None = next(r.scope for r in self.file.within(u.start, u.end))
        shadowed, inner = False, False
        while scope is not None and scope is not self.whole.scope:
            shadowed = shadowed or path.partition(".")[0] in scope.symbols
            inner = inner or scope.kind == "class"
            scope = scope.parent
        if shadowed and inner:
            raise messages.PART_MEANS_ELSE.at(self.file, u.start, name=path.partition(".")[0])
        return str(self.language.write.member(self.whole.receiver, path)) if shadowed else path

    def check_bare(self) -> None:
        """That no name which the part's methods use for something else becomes that of a member there."""
        new = (
            {*self.fields.values(), *self.methods.values(), *self.kept.values()}
            if self.language.bare_members
            else set()
        )
        mine = {u.start for u in self.whole.uses}
        for f in self.functions if new else ():
            for r in self.file.within(f.body_start, f.end):
                if r.name in new and r.start not in mine and (r.symbol is None or r.symbol.scope is self.file.scope):
                    raise messages.PART_MEMBER_MEANT.at(self.file, r.start, name=r.name)

    def extended(self, u: MemberUse, given: list[tuple[str, str]]) -> list[Range]:
        """A call with what it hands over besides."""
        if not given:
            return []
        call = next(c for c in self.file.calls if c.callee.start == u.start)
        f = next(f for f in self.functions if f.name == u.name)
        _, how = self.language.write.added_parameters(self.file, f, [(n, "") for n, _ in given])
        arguments = self.language.arguments(self.file, call)
        if arguments and call.bare:
            raise messages.NO_PARENTHESES.at(self.file, u.start, member=u.name)
        by_name = how == "by name" or any(a.keyword for a in arguments)
        texts = [self.language.write.keyword_argument(self.given(n), value) if by_name else value for n, value in given]
        if how == "first" and not by_name:
            at = arguments[0].start if arguments else call.args_start
            return [(at, at, ", ".join(texts) + (", " if arguments else ""))]
        if not by_name and len(arguments) != len(f.arguments) and not self.language.exact_calls:
            raise messages.OTHER_ARGUMENT_COUNT.at(self.file, u.start, member=u.name)
        end = arguments[-1].end if arguments else call.args_start
        return [(end, end, (", " if arguments else "") + ", ".join(texts))]

    def made(self, part: PartDesign, making: PartConstruction) -> list[Range]:
        """The line that makes the part, in place of what set and declared its fields."""
        write, members = self.language.write, self.language.members
        assert members is not None
        given = [write.member(self.whole.receiver, n) for n in self.kept] + [
            self.file.slice(*v.span) for v in making.values.values() if v.given
        ]
        new = write.make(part.name, given)
        out: list[Range] = []
        nl = write.newline(self.file)
        for i, d in enumerate(self.taken):
            text = (
                members.declaration(
                    self.file,
                    d,
                    part.object,
                    part.name,
                    "" if making.first is not None or making.after is not None else new,
                )
                if i == 0
                else ""
            )
            lead = self.file.slice(write.line_start(self.file, d.start), d.start)
            out.append((*self.lines_of(d.start, d.end), lead + text + nl if text else ""))
        line = f"{write.member(self.whole.receiver, part.object)} = {new}" + write.statement_end(self.file)
        first = making.first
        lead = self.file.slice(write.line_start(self.file, first.start), first.start) if first is not None else ""
        if making.after is not None:
            at = write.line_end(self.file, making.after.end)
            out.append(
                (
                    at,
                    at,
                    self.file.slice(write.line_start(self.file, making.after.start), making.after.start) + line + nl,
                )
            )
        taken = [v.whole for v in making.values.values() if not v.declared]
        if first is not None and (first.start, first.end) not in taken:
            start = write.comment_start(self.file, first.start)
            out.append((start, start, lead + line + nl))
        for span in taken:
            out.append(
                (
                    *self.lines_of(*span),
                    lead + line + nl if first is not None and span == (first.start, first.end) else "",
                )
            )
        return out

    def lines_of(self, start: int, end: int) -> tuple[int, int]:
        """Whole lines, with the remarks above them."""
        return self.language.write.comment_start(self.file, start), self.language.write.line_end(self.file, end)

    # -- the new class ---------------------------------------------------------------------------

    def class_text(self, part: PartDesign, values: dict[str, Value]) -> str:
        write, unit = self.language.write, self.language.write.indent_unit(self.file)
        news = []
        order = list(self.whole.declared)
        listed = [*values, *(n for n in self.fields if n not in values and n in order)]
        as_declared = sorted(listed, key=lambda m: order.index(m) if m in order else len(order))
        handed = [[m for m in row if m in values and values[m].given] for row in (listed, as_declared)]
        for m in (
            as_declared if handed[0] == handed[1] else listed
        ):  # what is handed over is worked out in the order in which it stands
            v = values.get(m)
            if v is None:
                news.append(NewField(self.fields[m], type=self.type_of(m), hidden=self.alone_with(m)))
                continue
            above = self.file.slice(write.comment_start(self.file, v.whole[0]), write.line_start(self.file, v.whole[0]))
            text = str(write.indented(self.file, *v.span, [], unit * 2)) if not v.given else self.parameter(m)
            news.append(
                NewField(
                    self.fields[m],
                    text,
                    v.given,
                    type=self.type_of(m),
                    hidden=self.alone_with(m, v.whole),
                    above=[line.strip() for line in text_lines(above)],
                    comment=write.trailing_comment(self.file, v.whole[1]),
                )
            )
        news = [
            NewField(n, self.given(m), True, type=self.type_of(m), hidden=True) for m, n in self.kept.items()
        ] + news
        head = (
            str(write.class_text(self.file, unit, part.name, "", news))
            if news
            else str(write.class_around(self.file, unit, part.name, ""))
        )
        heads = {f: self.file.slice(*span) for f, span in self.headings().items()}
        title = ""
        if heads and list(heads) == self.functions[:1]:  # it speaks of all that the part can do
            title = "".join(f"{self.lead}{line.strip()}\n" for line in text_lines(heads.popitem()[1]))
        return title + str(
            write.with_methods(
                head, [(heads[f] + "\n" if f in heads else "") + self.method_text(f) for f in self.functions]
            )
        )

    def headings(self) -> dict[Function, tuple[int, int]]:
        """Remarks that stand for themselves above several methods, all of which the part takes over: the first of
        these, and where it stands."""
        found: dict[Function, tuple[int, int]] = {}
        section: list[Function] = []
        for f in [*sorted(self.whole.methods, key=lambda f: f.start), None]:
            span = self.heading(f) if f is not None else None
            if f is None or span is not None:
                if section and section[0] in found and not all(m in self.functions for m in section):
                    del found[section[0]]
                section = []
            if f is not None:
                section.append(f)
            if f is not None and span is not None:
                found[f] = span
        return found

    def heading(self, f: Function) -> tuple[int, int] | None:
        """Whole lines of a remark above a method and apart from it."""
        write = self.language.write
        start = write.comment_start(self.file, f.start)
        end = write.blank_before(self.file, start)
        if end == start:
            return None
        last = write.line_start(self.file, end - 1)
        first = last + len(self.file.text[last:end]) - len(self.file.text[last:end].lstrip())
        remark = remark_at(self.file, first)
        if remark is None or self.file.slice(write.line_start(self.file, remark[0]), remark[0]).strip():
            return None
        return write.comment_start(self.file, remark[0]), end

    def alone_with(self, member: str, gone: tuple[int, int] = (0, 0)) -> bool:
        """Whether only the part's own methods use a field, but for the statement that is ``gone``."""
        return all(
            u.function in self.functions or gone[0] <= u.start < gone[1] for u in self.whole.uses if u.name == member
        )

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
            edits += self.inner_use(u)
        start = write.comment_start(self.file, f.start)
        lead = self.file.slice(write.line_start(self.file, f.start), f.start)
        text = str(
            write.shifted(
                self.file,
                start + len(lead.encode()),
                write.line_end(self.file, f.end - 1),
                edits,
                lead,
                self.lead + write.indent_unit(self.file),
            )
        )
        return text.replace("\r\n", "\n").rstrip("\n") + "\n"

    @property
    def lead(self) -> str:
        """How far the new class is indented."""
        write, scope = self.language.write, self.whole.scope
        home = scope.name == self.file.scope.name and self.language.bare_members
        unit = write.indent_unit(self.file)
        return (
            str(write.top_lead(self.file, unit))
            if home
            else self.file.slice(write.line_start(self.file, scope.start), scope.start)
        )

    def inner_use(self, u: MemberUse) -> list[Range]:
        """A use by one of the part's methods."""
        if u.name in self.fields:
            return [self.reach(u, self.fields[u.name])]
        if u.name in self.kept:
            return [self.reach(u, self.kept[u.name])]
        if u.name not in self.methods:
            return [(u.start, u.end, self.given(u.name))]
        if u.kind != "call" and self.needs[u.name]:
            raise messages.METHOD_HANDED_ON.at(self.file, u.start, member=u.name, names=", ".join(self.needs[u.name]))
        return [
            self.reach(u, self.methods[u.name]),
            *(self.extended(u, [(n, self.given(n)) for n in self.needs[u.name]]) if u.kind == "call" else []),
        ]
