"""Found a class: its fields, its constructor, and its objects where the variables were first set.

x = 3              class Depot:
def f():               def __init__(self):
    print(x)     →         self._x = 3

                   depot = Depot()
                   def f():
                       print(depot._x)
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from ..analysis.construction import Founding, Start, inert, plan_construction
from ..analysis.effects import Effects
from ..analysis.startup import running
from ..analysis.variable_kinds import UNFIT, constants_of, declared_type
from ..design.tables import ClassDesign, FieldDesign, ObjectDesign
from ..program.edits import Edits, rewritten
from ..program.language import NewField
from ..program.layout import text_lines
from ..program.model import Reference, SourceFile, Statement, Symbol
from ..program.scopes import shadowed
from . import messages
from .class_check import check_classes
from .design_check import DesignCheck
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, check_hazards, drop_declarations, symbol


@dataclass
class CreateClass(ClassStep):
    """A class is written, and its objects take the place of variables."""

    kind = "found"

    def title(self) -> str:
        count = sum(1 for f in self.design.fields for o in f.origins if o)
        objects = ", ".join(o.name for o in self.design.objects)
        fields = (
            f": {count} variable{'s become fields' if count != 1 else ' becomes a field'}"
            + (f" of {objects}" if objects else "")
            if count
            else ""
        )
        return f"create class {self.design.name}{fields}"

    def apply(self, context: Context) -> Edits:
        file = context.home(self.design)
        return Founder(context, file, self.design).edits()


class FoundClass(ClassRewrite):
    """Each class of the design that has fields or methods."""

    def steps(self, building: Building) -> Iterator[Step]:
        if building.plain.fields or building.plain.methods:
            yield CreateClass(building.plain, needs=building.ids_of(building.class_))

    def check(self, check: DesignCheck) -> None:
        check_classes(check)


class Founder:
    """Works out the edits for one class in one file."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign) -> None:
        self.context, self.file, self.design = context, file, design
        self.write = context.write
        self.effects: Effects = context.effects(file)
        self.unit = self.write.indent_unit(file)
        self.names = {f.name: self.write.hidden(f.name) if f.hidden else f.name for f in design.fields}
        self.variables = [
            [
                symbol(file, f.origins[i], "variable") if f.origins[i : i + 1] and f.origins[i] else None
                for f in design.fields
            ]
            for i in range(len(design.objects))
        ]
        self.edits_ = Edits()
        self.going: list[Statement] = []  # statements that the constructor takes over
        self.given: set[int] = set()  # fields that the constructor is handed
        self.turned: set[int] = set()  # fields that the design makes arguments

    def edits(self) -> Edits:
        self.check()
        founding = self.founding()
        objects = self.design.objects
        moved = [x.statement for row in founding.starts for x in row if x.statement is not None]
        self.going = [x for x in moved if x not in founding.at]
        for index, obj in enumerate(objects):
            self.replace_references(index, obj, founding)
        mine = {s for row in self.variables for s in row if s is not None}
        drop_declarations(self.context.language, self.file, self.edits_, mine)
        nl = self.write.newline(self.file)
        at, before = self.place(founding)
        text = self.class_text(founding)
        self.edits_.insert(self.file.path, at, self.write.with_newlines(before + text + "\n" * self.write.BLANKS, nl))
        for index, obj in enumerate(objects):
            self.make(index, obj, founding)
        return self.edits_

    def check(self) -> None:
        if self.design.name in self.file.scope.symbols and self.file.scope.symbols[self.design.name].references:
            raise messages.CLASS_NAME_IN_USE.in_file(self.file.path, name=self.design.name)
        mine = [v for row in self.variables for v in row if v is not None]
        check_hazards(self.context, self.file, {v.name for v in mine}, "leave it out of the class")
        for v in mine:
            self.check_variable(v)
        self.check_hidden()
        for index, obj in enumerate(self.design.objects):
            taken = self.file.scope.symbols.get(obj.name)
            shared = obj.name in self.context.language.builtins and not self.context.language.declares
            own = any(taken is s for s in self.variables[index]) and len(self.design.objects) == 1
            if taken is not None and (taken.kinds or shared) and not own:
                raise messages.OBJECT_NAME_IN_USE.in_file(self.file.path, name=obj.name)
            for s in self.variables[index]:
                for ref in s.references if s is not None else ():
                    if shadowed(ref.scope, obj.name, self.file.scope):
                        raise messages.OBJECT_MEANS_ELSE.at(self.file, ref.start, name=obj.name)  # fmt: skip

    def check_hidden(self) -> None:
        """A field that others use is open. What becomes of main code is the app's."""
        if self.design.role == "app" or self.context.language.joined:
            return
        names = {o.local for m in self.design.methods for o in m.origins}
        inside = [(f.start, f.end) for f in self.file.tops if f.name in names]
        firsts = [
            (s.start, s.end)
            for s in running(self.file, self.context.language)
            if s.target is not None and s.target.symbol is not None
        ]
        for index, f in enumerate(self.design.fields):
            for row in self.variables if f.hidden and f.wanted_hidden and f.origins else ():
                for r in row[index].references if row[index] is not None else ():  # type: ignore[union-attr]
                    own = any(a <= r.start < b for a, b in inside) or any(
                        a == r.start or (a <= r.start < b and r.writes) for a, b in firsts
                    )
                    if not own and not any(a <= r.start < b for a, b in firsts):
                        raise messages.HIDDEN_USED_OUTSIDE.at(
                            self.file, r.start, field=f.name, name=r.name, class_=self.design.name
                        )

    def check_variable(self, s: Symbol) -> None:
        for ref in s.references:
            if ref.form in UNFIT or ref.role == "delete":
                why = UNFIT.get(ref.form, "is deleted")
                raise messages.CANNOT_BE_FIELD.at(self.file, ref.start, name=s.name, why=why)

    def founding(self) -> Founding:
        constants = constants_of(self.file, self.context.language)
        methods = {
            self.file.scope.symbols[name]
            for m in self.design.methods
            for name in [o.local for o in m.origins]
            if name in self.file.scope.symbols
        }
        constants -= {s for row in self.variables for s in row if s is not None}
        first = self.design.role == "app"
        found = plan_construction(
            self.file, self.effects, self.context.language, self.variables, methods, constants, first
        )
        for index, f in enumerate(self.design.fields):
            self.obey(found, index, f)
        self.check_values(found)
        return found

    def obey(self, found: Founding, index: int, f: FieldDesign) -> None:
        """Start a field as the design says, where that can be; later is always possible."""
        kind = found.kind(index)
        rows = [row[index] for row in found.starts]
        if f.start == "later" and kind != "later":
            for start in rows:
                start.kind, start.statement = "later", None
        elif f.start == "argument" and kind == "fixed" and all(s.statement is not None for s in rows):
            self.turned.add(index)
            for start in rows:
                start.kind = "argument"
        elif f.start == "derived" and kind in ("argument", "fixed") and all(s.statement is not None for s in rows):
            raise messages.START_NOT_DERIVED.in_file(self.file.path, field=f.name, kind=kind)
        elif f.start == "fixed" and kind == "argument":
            raise messages.START_NOT_FIXED.in_file(self.file.path, field=f.name)  # fmt: skip

    def check_values(self, found: Founding) -> None:
        """Literal start values in the design must be those of the source: a build changes no behaviour."""
        language = self.context.language
        for index, f in enumerate(self.design.fields):
            start = found.starts[0][index]
            if f.value and start.statement is not None and language.purity(self.file, start.value) == "literal":
                self.compare(f.value, start, f"field '{f.name}'")
        order = self.argument_order(found)
        needed = [i for i in order if i not in self.turned and not self.design.fields[i].value]
        for row, obj in zip(found.starts, self.design.objects, strict=True):
            if obj.args and len(obj.args) not in (len(order), len(needed)):
                takes = ", ".join(self.design.fields[i].name for i in order) or "nothing"
                raise messages.ARGUMENT_COUNT.in_file(
                    self.file.path,
                    object=obj.name,
                    count=len(obj.args),
                    plural="s" * (len(obj.args) != 1),
                    class_=self.design.name,
                    takes=takes,
                )
            for given, i in zip(obj.args, order if len(obj.args) == len(order) else needed, strict=False):
                if language.purity(self.file, row[i].value) == "literal" or not self.as_drafted(given, row[i], i, obj):
                    self.compare(given, row[i], f"object '{obj.name}'")

    def as_drafted(self, given: str, start: Start, index: int, obj: ObjectDesign) -> bool:
        """Whether an argument says what the source says, now or before steps rewrote the names in it."""
        origin = self.design.fields[index].origins[self.design.objects.index(obj)]
        texts = [self.file.slice(*start.value)]
        for file in self.context.original.files.values() if self.context.original is not None else ():
            texts += [
                file.slice(*s.value)
                for s in running(file, self.context.language)
                if s.target is not None and s.value is not None and s.target.name == origin.local
            ]
        owners = {o.name for c in self.context.design.classes for o in c.objects} | {self.write.RECEIVER}
        said = [
            [w.strip("_") for w in re.findall(r"\w+|\S", t) if w not in owners and w != "."] for t in (given, *texts)
        ]
        return said[0] in said[1:]

    def compare(self, given: str, start: Start, what: str) -> None:
        there = self.file.slice(*start.value)
        if "".join(given.split()) != "".join(there.split()):
            raise messages.START_DIFFERS.at(self.file, start.value[0], what=what, given=given, there=there)  # fmt: skip

    def replace_references(self, index: int, obj: ObjectDesign, founding: Founding) -> None:
        moved = [s.statement for row in founding.starts for s in row if s.statement is not None]
        for number, s in enumerate(self.variables[index]):
            for ref in s.references if s is not None else ():
                if any(m.start <= ref.start < m.end for m in moved):
                    continue
                text = self.write.use(ref, self.write.member(obj.name, self.names[self.design.fields[number].name]))
                first = self.firsts.get(id(ref))
                if first is not None and first.start < ref.start:
                    self.undeclare(first, ref, text)
                else:
                    self.edits_.replace(self.file.path, ref.start, ref.end, text)

    @cached_property
    def firsts(self) -> dict[int, Statement]:
        """The statement at the top for each target, by the target's identity."""
        return {id(s.target): s for s in running(self.file, self.context.language) if s.target is not None}

    def undeclare(self, s: Statement, ref: Reference, text: str) -> None:
        """A declaration whose variable is now a field: an assignment remains, or nothing."""
        if not self.context.language.code_at_top:
            raise messages.SET_AFTER_CONSTRUCTION.at(self.file, s.start, name=ref.name)  # fmt: skip
        assert s.value is not None
        if s.value[0] == s.value[1]:
            self.going.append(s)
            self.remove(s)
        else:
            self.edits_.replace(self.file.path, s.start, ref.end, text)

    # -- the class -------------------------------------------------------------------------------

    def place(self, founding: Founding) -> tuple[int, str]:
        """Where the class is put: after imports and constants at the top, before anything that runs."""
        constants = constants_of(self.file, self.context.language)
        opening = self.write.opening(self.file)
        last: Statement | None = None
        for s in self.file.statements:
            if s.start < opening:
                continue
            if (
                s.kind in ("function", "class")
                or s in founding.at
                or not inert(self.file, self.effects, self.context.language, s, constants)
            ):
                if last is not None and self.file.line(last.end - 1) == self.file.line(s.start):
                    line = self.write.line_start(self.file, s.start)  # the class stands before what shares its line
                    first = next(o for o in self.file.statements if line <= o.start)
                    return self.write.comment_start(self.file, first.start), ""
                break
            last = s
        if last is None:
            if not self.file.statements:
                return self.write.line_start(self.file, 0), ""
            first = next((s for s in self.file.statements if s.start >= opening), self.file.statements[0])
            return self.write.comment_start(self.file, first.start), ""
        end = self.write.line_end(self.file, last.end)
        gap = "" if self.file.text[:end].endswith(b"\n") else "\n"
        after = self.write.blank_after(self.file, end)
        if after > end:
            return after, gap + "\n" * max(0, self.write.BLANKS - self.file.text.count(b"\n", end, after))
        return end, gap + "\n" * self.write.BLANKS

    def class_text(self, founding: Founding) -> str:
        row = founding.starts[0] if founding.starts else []
        order = sorted(
            range(len(row)), key=lambda i: (row[i].statement is None, row[i].value[0] if row[i].statement else 0)
        )
        self.given = {i for i in order if founding.kind(i) == "argument"}
        fields = [self.new_field(i, row[i], founding.kind(i)) for i in order]
        self.safe_params([f.value for f in fields if f.given], founding)
        return str(self.write.class_text(self.file, self.unit, self.design.name, "", fields))

    def new_field(self, index: int, start: Start, kind: str) -> NewField:
        """The field as the class gets it, with the comments of the line that it comes from."""
        f = self.design.fields[index]
        made = NewField(self.names[f.name], hidden=f.hidden, type=f.type or self.declared(index))
        made.words = self.words(index, kind)
        if kind == "argument":
            made.value, made.given = f.name, True
        elif kind == "later":
            made.later = True
        else:
            s = start.statement
            assert s is not None and s.target is not None
            members = self.own_members(s)
            made.derived = bool(members)
            made.value = self.write.indented(self.file, *start.value, members, self.unit * 2)
            if self.on_lines(s) == [s]:  # remarks of a line of several stay where the object is made
                made.comment = self.write.trailing_comment(self.file, s.end)
                made.above = self.leading_comment(s)
        return made

    def words(self, index: int, kind: str) -> str:
        """What the declarations of its variables say besides their types. Raises Refusal where a field cannot say
        it."""
        said: dict[str, Statement] = {}
        for row in self.variables:
            for ref in row[index].bindings if row[index] is not None else ():  # type: ignore[union-attr]
                if (s := self.firsts.get(id(ref))) is not None:
                    said.setdefault(self.write.declared_words(self.file, s), s)
        name = self.design.fields[index].name
        if len(said) > 1:
            raise messages.DECLARED_UNALIKE.at(
                self.file, list(said.values())[1].start, field=name, ways="; ".join(w or "none" for w in said)
            )
        words = next(iter(said), "")
        if kind == "later" and self.write.set_once(words):
            raise messages.DECLARED_AND_SET_LATER.at(self.file, said[words].start, name=name, words=words)
        return words

    def declared(self, index: int) -> str:
        """The type with which the variables of a field are declared; "" if they are declared without one."""
        for row in self.variables:
            for ref in row[index].bindings if row[index] is not None else ():  # type: ignore[union-attr]
                if kind := declared_type(self.file, self.firsts.get(id(ref))):
                    return kind
        return ""

    def safe_params(self, params: list[str], founding: Founding) -> list[str]:
        """A parameter must not hide a name that the constructor's other lines read, but for fields, which are read of
        the object."""
        own = {s for row in self.variables for s in row}
        used = {
            r.name for row in founding.starts for s in row if s.statement is not None and s.kind != "argument"
            for r in self.file.within(*s.value) if r.symbol not in own
        }  # fmt: skip
        for p in params:
            if p in used:
                raise messages.PARAMETER_HIDES.in_file(self.file.path, parameter=p)  # fmt: skip
        return params

    def on_lines(self, s: Statement) -> list[Statement]:
        """A statement, and those that begin or end on its lines, in their order."""
        left, right = self.write.line_start(self.file, s.start), self.write.line_end(self.file, s.end)
        return [
            o
            for o in running(self.file, self.context.language)
            if o is s or left <= o.start < right or left < o.end <= right
        ]

    def leading_comment(self, s: Statement) -> list[str]:
        """The remarks above a first value."""
        start = self.write.comment_start(self.file, s.start)
        return [line.strip() for line in text_lines(self.file.slice(start, self.write.line_start(self.file, s.start)))]

    def own_members(self, s: Statement) -> list[tuple[int, int, str]]:
        assert s.value is not None
        found, refs = [], []
        for row in self.variables[:1]:
            for number, own in enumerate(row):
                name = self.names[self.design.fields[number].name]
                for r in self.file.within(*s.value):
                    if own is not None and r.symbol is own and number in self.given and len(own.bindings) == 1:
                        found.append((r.start, r.end, self.write.use(r, self.design.fields[number].name)))
                    elif own is not None and r.symbol is own:
                        owner = self.write.receiver_at(self.file, r.scope, self.file.scope, self.design.name)
                        found.append((r.start, r.end, self.write.use(r, self.write.member(owner, name))))
                        refs.append(r)
        more, trouble = self.write.inner_receivers(self.file, self.file.scope, refs)
        assert not trouble, "such a field starts later"
        return found + more

    # -- the objects -----------------------------------------------------------------------------

    def make(self, index: int, obj: ObjectDesign, founding: Founding) -> None:
        """Write the line that makes the object, and take away the lines whose values it takes over."""
        row, at = founding.starts[index], founding.at[index]
        args = [self.argument(index, row[i]) for i in self.argument_order(founding)]
        line = self.write.declare(self.file, obj.name, self.write.make(self.design.name, args), self.design.name, at)
        moved = [s.statement for s in row if s.statement is not None]
        nl = self.write.newline(self.file)
        if at is None:
            start = self.end_of_setup()
            lead = self.write.top_lead(self.file, self.unit)
            self.edits_.insert(self.file.path, start, self.write.with_newlines(lead + line + "\n", nl))
        elif at in moved:
            comments = [] if index == 0 else [self.write.trailing_comment(self.file, s.end) for s in moved]
            comment = next(iter([c for c in comments if c]), "") if len([c for c in comments if c]) == 1 else ""
            keep_above = index > 0 or row[[s.statement for s in row].index(at)].kind == "argument"
            start = at.start if keep_above else self.write.comment_start(self.file, at.start)
            self.remove(at, replacement=line, start=start, comment=comment)
        else:
            start = self.write.comment_start(self.file, at.start)
            if self.file.text[self.write.line_start(self.file, at.start) : at.start].strip():
                self.edits_.insert(self.file.path, at.start, line + "; ")
            else:
                lead = self.file.slice(self.write.line_start(self.file, at.start), at.start)
                self.edits_.insert(self.file.path, start, self.write.with_newlines(lead + line + "\n", nl))
        for statement in moved:
            if statement is not at:
                self.remove(
                    statement, start=self.write.comment_start(self.file, statement.start) if index == 0 else None
                )

    def argument_order(self, founding: Founding) -> list[int]:
        row = founding.starts[0]
        found = [i for i in range(len(row)) if founding.kind(i) == "argument"]
        return sorted(found, key=lambda i: row[i].value[0])

    def argument(self, index: int, start: Start) -> str:
        """The start value as the caller writes it: other moved variables are read from their objects."""
        edits: list[tuple[int, int, str]] = []
        for i, obj in enumerate(self.design.objects):
            for number, own in enumerate(self.variables[i]):
                name = self.names[self.design.fields[number].name]
                edits += [
                    (r.start, r.end, self.write.use(r, self.write.member(obj.name, name)))
                    for r in self.file.within(*start.value)
                    if own is not None and r.symbol is own
                ]
        kind = declared_type(self.file, start.statement)
        text = rewritten(self.file, *start.value, edits) or self.write.default_value(kind)
        return str(self.write.as_argument(self.file, start.value, text, kind))

    def remove(self, s: Statement, replacement: str = "", start: int | None = None, comment: str = "") -> None:
        """Take a statement away with its line, or only itself where it shares the line with others."""
        left = self.write.line_start(self.file, s.start)
        right = self.write.line_end(self.file, s.end)
        line = self.on_lines(s)
        if replacement and len(line) > 1:
            self.edits_.replace(self.file.path, s.start, s.end, replacement)
        elif not replacement and any(o not in self.going for o in line):
            self.remove_from(line, s)
        elif replacement:
            nl = self.write.newline(self.file)
            lead = self.file.slice(left, s.start)
            start = start if start is not None and start < left else left
            text = lead + replacement + comment + "\n"
            self.edits_.replace(self.file.path, start, right, self.write.with_newlines(text, nl))
        elif s is line[0]:
            start = left if start is None or start > left else start
            self.edits_.delete(self.file.path, start, right)

    def remove_from(self, line: list[Statement], s: Statement) -> None:
        """Statements that share a line: those at its end go together, with the separator before them."""
        at = line.index(s)
        if any(o not in self.going for o in line[at:]):
            self.edits_.delete(self.file.path, s.start, line[at + 1].start)
        elif line[at - 1] not in self.going:
            self.edits_.delete(self.file.path, line[at - 1].end, line[-1].end)

    def end_of_setup(self) -> int:
        """Before the first main statement, or at the end of a file that has none."""
        main = [s for s in self.effects.main() if s.kind != "assign" or s.target is None]
        if main:
            return int(self.write.comment_start(self.file, main[0].start))
        return len(self.file.text)
