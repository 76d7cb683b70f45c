"""Objects of one class that have a variable each are kept in one list; what is done with all of them in turn asks each.

self._tram1 = Tram(2.0)               self._trams = [Tram(2.0), Tram(30.0)]
self._tram2 = Tram(30.0)
...                           →       for tram in self._trams:
self._tram1.move(dt)                      tram.move(dt)
self._tram2.move(dt)
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..analysis.regions.region import all_blocks
from ..analysis.variable_kinds import constants_of
from ..design.tables import ClassDesign, ObjectDesign
from ..program.edits import Edits
from ..program.model import Call, Function, Scope, SourceFile, Statement
from ..program.program import Program
from . import messages
from .by_hand import Asked, HandCommand, home_of
from .filled_constructor import keeps_plain_values
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, class_scope


@dataclass(frozen=True)
class Use:
    """One place where an object is named: its number, and where that stands."""

    number: int
    start: int
    end: int


class GatherObjects(ClassStep):
    """The objects of a class are kept in one list."""

    kind = "gather"

    def title(self) -> str:
        names = [o.name for o in self.design.objects]
        return f"{', '.join(names[:-1])} and {names[-1]} become the list {self.design.kept_in}"

    def apply(self, context: Context) -> Edits:
        return Gatherer(context, context.home(self.design), self.design).edits()


class Gatherer:
    """Works out the list, the loops over it, and the other uses."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign) -> None:
        self.context, self.file, self.class_ = context, file, design.name
        self.language, self.write = context.language, context.write
        self.objects, self.list = design.objects, design.kept_in
        self.owner = self.objects[0].owner
        self.scope: Scope = class_scope(file, self.owner) if self.owner else file.scope
        self.out = Edits()

    def edits(self) -> Edits:
        uses = self.uses()
        makings = self.makings(uses)
        made = self.name_of_list()
        self.make_list(makings, made)
        taken: set[int] = {u.start for u in uses if any(s.start <= u.start < s.end for s in makings)}
        for row in self.rows():
            for run in self.runs(row, uses, taken):
                self.loop(run, uses, made)
                taken |= {u.start for s in run for u in uses if s.start <= u.start < s.end}
        for u in [u for u in uses if u.start not in taken]:
            self.out.replace(self.file.path, u.start, u.end, f"{made}[{u.number}]")
        return self.out

    # -- where the objects are named ---------------------------------------------------------------

    def spelled(self, number: int) -> str:
        return f"{self.write.RECEIVER}.{self.member(number)}" if self.owner else self.objects[number].name

    def member(self, number: int) -> str:
        """What the owner calls the object: hidden, or as the design names it."""
        name = self.objects[number].name
        hidden = str(self.write.hidden(name))
        return hidden if any(r.member == hidden for r in self.file.references) else name

    def name_of_list(self) -> str:
        if not self.owner:
            return self.list
        open_ = self.member(0) == self.objects[0].name
        return f"{self.write.RECEIVER}.{self.list if open_ else self.write.hidden(self.list)}"

    def uses(self) -> list[Use]:
        """Raises Refusal where an object is reached in another way."""
        found = []
        for number in range(len(self.objects)):
            if self.owner:
                found += self.member_uses(number)
            else:
                symbol = self.file.scope.symbols.get(self.objects[number].name)
                if symbol is None or any(r.role == "delete" or r.form == "spelled" for r in symbol.references):
                    raise messages.NOT_COLLECTED.in_file(self.file.path, name=self.objects[number].name)
                found += [Use(number, r.start, r.end) for r in symbol.references]
        return sorted(found, key=lambda u: u.start)

    def member_uses(self, number: int) -> list[Use]:
        name = self.member(number)
        found = []
        for ref in self.file.references:
            if ref.member != name:
                continue
            after = re.match(rf"\s*\.\s*{re.escape(name)}\b", self.file.slice(ref.end, ref.end + len(name) + 20))
            inside = self.scope.start <= ref.start < self.scope.end
            if ref.name != self.write.RECEIVER or not inside or after is None:
                raise messages.NOT_COLLECTED.at(self.file, ref.start, name=self.objects[number].name)
            found.append(Use(number, ref.start, ref.end + len(after[0].encode())))
        return found

    # -- where they are made -----------------------------------------------------------------------

    def rows(self) -> list[Sequence[Statement]]:
        """Every block of statements in which the objects may be named."""
        functions: list[Function] = [
            f for f in self.file.functions if not self.owner or self.scope.start <= f.start < self.scope.end
        ]
        bodies: list[Sequence[Statement]] = [self.language.body(self.file, f) for f in functions]
        bodies += [] if self.owner else [self.file.statements]
        inner = [b.statements for body in bodies for _, b in all_blocks(self.file, self.language, body)]
        return [*bodies, *inner]

    def makings(self, uses: list[Use]) -> list[Statement]:
        """The statements that make the objects, one after the other. Raises Refusal where they do not stand so."""
        count = len(self.objects)
        for row in self.rows():
            for at in range(len(row) - count + 1):
                found = list(row[at : at + count])
                if all(self.makes(s, i) for i, s in enumerate(found)):
                    if not any(self.runs_before(u, found[0]) for u in uses):
                        return found
        raise messages.NOT_MADE_TOGETHER.in_file(self.file.path, class_=self.class_)

    def runs_before(self, use: Use, made: Statement) -> bool:
        """Whether a use stands in the same function before the objects are made: others run later."""
        around = [f for f in self.file.functions if f.start <= made.start < f.end]
        inside = [f for f in self.file.functions if f.start <= use.start < f.end]
        return use.start < made.start and inside == around

    def makes(self, s: Statement, number: int) -> bool:
        call = self.making(s)
        if call is None or s.value is None or s.group is not None:
            return False
        target = self.file.slice(s.start, s.value[0]).rstrip().rstrip("=").strip()
        named = target == self.spelled(number) or target.split()[-1] == self.spelled(number)
        constants = constants_of(self.file, self.language)
        given = self.file.within(call.args_start, call.args_end)
        plain = all(r.symbol in constants or r.symbol is None or not r.symbol.kinds for r in given)
        return named and (plain or keeps_plain_values(self.context, self.file, self.class_, call))

    def making(self, s: Statement) -> Call | None:
        """The call of the class that is the value of a statement."""
        if s.value is None:
            return None
        calls = [c for c in self.file.calls_within(*s.value) if c.callee.name == self.class_ and c.end == s.value[1]]
        return calls[0] if calls and calls[0].callee.start - s.value[0] <= len("new ") else None

    def make_list(self, makings: list[Statement], made: str) -> None:
        file, write = self.file, self.write
        texts = [file.slice(*s.value) for s in makings if s.value is not None]
        first, last = makings[0], makings[-1]
        lead = file.slice(write.line_start(file, first.start), first.start)
        unit = write.indent_unit(file)
        if self.owner:
            text = write.listed_in(file, made, texts, lead, unit)
        else:
            text = write.listed(file, made, self.class_, texts, unit)
        remarks = [file.slice(write.comment_start(file, s.start), s.start).strip() for s in makings]
        said = [r for r in dict.fromkeys(remarks) if r]
        above = "".join(f"{lead}{r}\n" for r in said)
        start = write.line_start(file, write.comment_start(file, first.start))
        end = last.end + len(self.ending(last).encode())
        self.out.replace(file.path, start, end, above + lead + text + self.said(makings))

    # -- loops -------------------------------------------------------------------------------------

    def runs(self, row: Sequence[Statement], uses: list[Use], taken: set[int]) -> Iterator[list[Statement]]:
        """Neighbouring statements that do the same with each object in turn."""
        count, at = len(self.objects), 0
        while at + count <= len(row):
            run = list(row[at : at + count])
            if self.alike(run, uses) and not any(s.start <= t < s.end for s in run for t in taken):
                yield run
                at += count
            else:
                at += 1

    def alike(self, run: list[Statement], uses: list[Use]) -> bool:
        texts = set()
        for i, s in enumerate(run):
            mine = [u for u in uses if s.start <= u.start < s.end]
            if s.kind != "expression" or not mine or any(u.number != i for u in mine):
                return False
            edits = [(u.start, u.end, "\1") for u in mine]
            texts.add(tuple(self.language.tokens(self.file, s.start, s.end, edits)))
        return len(texts) == 1

    def loop(self, run: list[Statement], uses: list[Use], made: str) -> None:
        file, write, s = self.file, self.write, run[0]
        item = self.item(run)
        mine = [u for u in uses if s.start <= u.start < s.end]
        text = ""
        last = s.start
        for u in mine:
            text += file.slice(last, u.start) + item
            last = u.end
        text += file.slice(last, s.end)
        lead = file.slice(write.line_start(file, s.start), s.start)
        loop = write.loop(write.each(self.class_, item, made), lead, write.indent_unit(file), text + self.said(run))
        self.out.replace(file.path, s.start, run[-1].end + len(self.ending(run[-1]).encode()), loop)

    def ending(self, s: Statement) -> str:
        """The remark behind a statement, with the blanks before it."""
        return str(self.write.trailing_comment(self.file, s.end))

    def said(self, row: Sequence[Statement]) -> str:
        """The first remark behind one of several statements."""
        return next((said for s in row if (said := self.ending(s))), "")

    def item(self, run: list[Statement]) -> str:
        """A name for one of them that means nothing else there."""
        words = self.write.words(self.class_)
        name = str(self.write.member_name(words))
        taken = {r.name for r in self.file.references} | {o.name for o in self.objects}
        for candidate in (name, f"one_{name}", f"each_{name}"):
            if candidate not in taken or (candidate == name and not self.seen(run, name)):
                return candidate
        raise messages.NAME_IN_USE.in_file(self.file.path, name=name)

    def seen(self, run: list[Statement], name: str) -> bool:
        """Whether a name is used in the function around these statements, or at the top."""
        f = max(
            (f for f in self.file.functions if f.start <= run[0].start < f.end), key=lambda f: f.start, default=None
        )
        inside = {r.name for r in self.file.within(f.start, f.end)} if f is not None else set()
        return name in inside or name in self.file.scope.symbols


def objects_made(program: Program, class_: str, path: str) -> list[ObjectDesign]:
    """The objects of a class that have a variable, or a member, each. Raises Refusal if there are not several."""
    file, write = program.files[path], program.language.write
    found = []
    for call in [c for c in file.calls if c.callee.name == class_ and not c.callee.member]:
        line = file.slice(write.line_start(file, call.callee.start), call.callee.start)
        named = re.search(r"([\w.]+)\s*=\s*(?:new )?$", line)
        scope = next((n for s, n in file.classes if s.start <= call.start < s.end), "")
        if named is not None:
            name = named[1].removeprefix(f"{write.RECEIVER}.")
            owner = scope if name != named[1] else ""
            bare = name[1:] if owner and write.hidden(name[1:]) == name else name
            found.append(ObjectDesign(bare, owner=owner))
    if len(found) < 2:
        raise messages.NOT_MADE_TOGETHER.in_file(path, class_=class_)
    return found


def maker_of(program: Program, class_: str) -> str:
    """The file that makes the objects of a class; that of the class if none of these does. Raises Refusal if there is
    no such class anywhere."""
    makers = [p for p, f in program.files.items() if any(c.callee.name == class_ for c in f.calls)]
    return makers[0] if makers else home_of(program, class_)


def ask_gather(program: Program, class_: str, name: str) -> Asked:
    path = maker_of(program, class_)
    design = ClassDesign(class_, objects=objects_made(program, class_, path), kept_in=name)
    return Asked(GatherObjects(design), homes={class_: path})


class GatheredObjects(ClassRewrite):
    """The classes of a design that name a list for all their objects."""

    by_hand = (
        HandCommand(
            "gather", ("CLASS", "LIST"), "The objects of a class are kept in one list.",
            "Keep the objects of a CLASS, which have a variable each, in one LIST; what is done with each in turn "
            "becomes a loop.",
            "gather Tram trams two_trams.py", "Moved", ask_gather,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        for c in building.design.classes:
            if c.kept_in and len(c.objects) > 1:
                yield GatherObjects(c, needs=building.ids_of(c, "found"))
