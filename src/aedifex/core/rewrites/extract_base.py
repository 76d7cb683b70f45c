"""Give classes that share fields and methods a base of their own, each keeping what differs.

class Ferry:                              class Vessel:
    def __init__(self, x, horn):              def __init__(self, x):
        self.x = x                                self.x = x
        self.horn = horn              →       def move(self): self.x += 1
    def move(self): self.x += 1
class Barge:                              class Ferry(Vessel):
    def __init__(self, x):                    def __init__(self, x, horn):
        self.x = x                                super().__init__(x)
    def move(self): self.x += 1                   self.horn = horn
                                          class Barge(Vessel):
                                              pass
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ..design.tables import ClassDesign, Design
from ..program.edits import Edits
from ..program.model import Function, Scope, SourceFile, Statement
from ..program.program import Program
from . import messages, mistakes
from .by_hand import Asked, HandCommand, home_of, names_in
from .design_check import DesignCheck
from .rewrite import Building, ClassRewrite
from .step import Context, Step, class_scope


@dataclass
class ShareBase(Step):
    """Several classes get a base of what they have in common."""

    kind = "base"
    name: str
    designs: list[ClassDesign]

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        return f"{' and '.join(c.name for c in self.designs)} get the common base {self.name}"

    def apply(self, context: Context) -> Edits:
        return Sharer(context, self.name, self.designs).edits()


def ask_base(program: Program, name: str, classes: str) -> Asked:
    if not program.language.write.is_name(name):
        raise messages.NO_CLASS_NAME.in_file(name=name)
    if len(set(names_in(classes))) < 2:
        raise messages.BASE_OF_ONE.in_file()
    homes = {c: home_of(program, c) for c in names_in(classes)}
    return Asked(ShareBase(name, [ClassDesign(c, "model") for c in homes]), homes=homes)


class ExtractBase(ClassRewrite):
    """The bases that classes of the design name."""

    by_hand = (
        HandCommand(
            "base", ("NAME", "CLASSES"), "What classes have in common becomes their base.",
            """Make a class NAME of what CLASSES have in common, fields and methods, and let them extend it.

            CLASSES are names with commas between them.""",
            "base Vehicle Tram,Bus vehicles.py", "Changed", ask_base,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        for name, sharing in bases(building.design):
            yield ShareBase(name, sharing, needs=[i for c in sharing for i in building.ids_of(c, "found", "main")])

    def check(self, check: DesignCheck) -> None:
        """A base is what several classes of the design have in common."""
        for index, c in enumerate(check.design.classes):
            line = check.lines.of("class", index, -1, "base")
            if c.base and not check.write.is_name(c.base):
                check.report(line, mistakes.NO_CLASS_NAME, name=c.base)
            elif c.base and check.design.class_named(c.base) is not None:
                check.report(line, mistakes.BASE_IS_A_CLASS, name=c.base)
            elif c.base and sum(o.base == c.base for o in check.design.classes) < 2:
                check.report(line, mistakes.BASE_OF_ONE_CLASS, name=c.base, class_=c.name)


def bases(design: Design) -> list[tuple[str, list[ClassDesign]]]:
    """The bases that classes of a design are to have in common, with these classes."""
    found: dict[str, list[ClassDesign]] = {}
    for c in design.classes:
        if c.base:
            found.setdefault(c.base, []).append(c)
    return list(found.items())


class Sharer:
    """Works out the edits for a base: what is common, what stays."""

    def __init__(self, context: Context, name: str, designs: list[ClassDesign]) -> None:
        assert context.write.bases is not None, "languages without bases propose none"
        self.context, self.name, self.write, self.bases = context, name, context.write, context.write.bases
        self.file: SourceFile = context.home(designs[0])
        if any(context.home(c) is not self.file for c in designs):
            raise messages.BASE_OF_SEVERAL_FILES.in_file(self.file.path, name=name)
        self.scopes: list[Scope] = [class_scope(self.file, c.name) for c in designs]
        self.methods = [{f.name: f for f in self.file.functions if f.outer is s} for s in self.scopes]
        self.fields = [self.bases.fields(self.file, s) for s in self.scopes]
        self.unit = self.write.indent_unit(self.file)
        self.out = Edits()

    def edits(self) -> Edits:
        self.check()
        held = self.shared_fields()
        shared = self.shared_methods(held)
        common, parameters = self.common_fields(held)
        if not shared and not common and not held:
            raise messages.NOTHING_IN_COMMON.in_file(self.file.path, self.file.line(self.scopes[0].start))
        if common or self.bases.BASE_IS_CALLED:
            self.constructors(common, parameters)
        gone: list[set[str]] = [set(shared) for _ in self.scopes]
        for methods, going in zip(self.methods, gone, strict=True):
            if common and self.needless(methods, common, parameters):
                going.add(self.write.CONSTRUCTOR)
        for scope, methods, going in zip(self.scopes, self.methods, gone, strict=True):
            self.out.replace(self.file.path, *self.bases.extends(self.file, scope, self.name))
            self.remove(scope, [methods[n] for n in going if n in methods], len(methods))
        for fields in self.fields:
            last = max((fields[n][1] for n in held), default=0) if set(fields) == set(held) else 0
            for name in held:
                start, end = fields[name]
                right = self.write.line_end(self.file, end)
                right = self.write.blank_after(self.file, right) if end == last else right  # no field is left
                self.out.delete(self.file.path, self.write.comment_start(self.file, start), right)
        self.out.insert(self.file.path, self.place(), self.text(held, shared, common, parameters))
        return self.out

    def check(self) -> None:
        if any(self.name in s.symbols for s in self.file.scope.walk()) or self.name in self.context.language.builtins:
            raise messages.NAME_IN_USE.in_file(self.file.path, name=self.name)
        for s in self.scopes:
            if s.bases:
                raise messages.BASE_ALREADY.at(self.file, s.start, class_=s.name)

    # -- what is shared --------------------------------------------------------------------------

    def words(self, f: Function) -> list[str]:
        return self.context.language.tokens(self.file, f.start, f.end, [])

    def shared_fields(self) -> list[str]:
        """Fields that all declare in the same way, in the order of the first class."""
        first, *others = self.fields

        def said(span: tuple[int, int]) -> str:
            return self.bases.field_text(" ".join(self.context.language.tokens(self.file, span[0], span[1], [])))

        return [n for n in first if all(n in o and said(o[n]) == said(first[n]) for o in others)]

    def shared_methods(self, held: list[str]) -> list[str]:
        """Methods that all have, word for word, in the order of the first class; what they use of the object must be
        shared where it is declared."""
        first, *others = self.methods
        names = [n for n in first if n != self.write.CONSTRUCTOR and all(n in m for m in others)]
        names = [n for n in names if all(self.words(m[n]) == self.words(first[n]) for m in others)]
        own = {n for fields in self.fields for n in fields} | {n for m in self.methods for n in m}
        while self.context.language.typed or any(self.fields):
            left = [n for n in names if not (self.used(first[n]) & own) - {*held, *names}]
            if left == names:
                break
            names = left
        return names

    def used(self, f: Function) -> set[str]:
        """The members of its own object that a method asks for."""
        text = self.file.slice(f.body_start, f.end)
        return set(re.findall(rf"\b{self.write.RECEIVER}\s*\.\s*(\w+)", text)) | (
            {r.name for r in self.file.within(f.body_start, f.end)} if self.context.language.bare_members else set()
        )

    def body(self, methods: dict[str, Function]) -> list[Statement]:
        f = methods.get(self.write.CONSTRUCTOR)
        return self.context.language.body(self.file, f) if f is not None else []

    def said(self, s: Statement) -> str:
        return " ".join(self.context.language.tokens(self.file, s.start, s.end, []))

    def common_fields(self, held: list[str]) -> tuple[list[str], list[str]]:
        """The statements that all constructors have, as words, and the parameters that they use."""
        rows = [self.body(m) for m in self.methods]
        if any(not self.plain(s) for row in rows for s in row):
            return [], []
        common = [
            self.said(s)
            for s in rows[0]
            if all(self.said(s) in [self.said(x) for x in row] for row in rows[1:]) and self.fits(s, held)
        ]
        used = {r.name for s in rows[0] if self.said(s) in common for r in self.file.within(s.start, s.end)}
        return common, [p for p in self.given(self.methods[0]) if p in used]

    def fits(self, s: Statement, held: list[str]) -> bool:
        """Whether what a statement sets is the base's, where fields are declared."""
        match = re.match(rf"{self.write.RECEIVER}\s*\.\s*(\w+)", self.file.slice(s.start, s.end))
        return not any(self.fields) or (match is not None and match[1] in held)

    def plain(self, s: Statement) -> bool:
        """Whether a statement gives a field a value that nothing else can tell of."""
        return (
            s.kind == "assign"
            and s.value is not None
            and s.target is None
            and self.context.language.purity(self.file, s.value) != "effect"
        )

    def given(self, methods: dict[str, Function]) -> list[str]:
        f = methods.get(self.write.CONSTRUCTOR)
        return [p.name for p in f.arguments] if f is not None else []

    def needless(self, methods: dict[str, Function], common: list[str], parameters: list[str]) -> bool:
        """Whether the base's constructor does all that a class's does."""
        return (
            self.bases.CONSTRUCTOR_IS_INHERITED
            and self.left(methods, common) == []
            and self.given(methods) == parameters
        )

    def left(self, methods: dict[str, Function], common: list[str]) -> list[Statement]:
        return [s for s in self.body(methods) if self.said(s) not in common]

    # -- what is written -------------------------------------------------------------------------

    def constructors(self, common: list[str], parameters: list[str]) -> None:
        """In the constructors that stay, the base sets what is common."""
        for methods in self.methods:
            if self.needless(methods, common, parameters):
                continue
            statements = self.body(methods)
            if not statements:
                continue
            at = self.write.comment_start(self.file, statements[0].start)
            lead = self.file.slice(self.write.line_start(self.file, statements[0].start), statements[0].start)
            self.out.insert(
                self.file.path, at, lead + self.bases.base_call(self.file, parameters) + self.write.newline(self.file)
            )
            for s in statements:
                if self.said(s) in common:
                    self.out.delete(
                        self.file.path,
                        self.write.comment_start(self.file, s.start),
                        self.write.line_end(self.file, s.end),
                    )

    def remove(self, scope: Scope, methods: list[Function], count: int) -> None:
        last, opening = 0, False
        for number, f in enumerate(sorted(methods, key=lambda f: f.start)):
            start = self.write.blank_before(self.file, self.write.comment_start(self.file, f.start))
            end = self.write.line_end(self.file, f.end - 1)
            empty = self.bases.nothing(self.file, self.unit) if len(methods) == count and number == 0 else ""
            opening = self.file.text[:start].rstrip().endswith((b":", b"{")) or (opening and start <= last)
            end = self.write.blank_after(self.file, end) if opening and not empty else end
            self.out.replace(self.file.path, max(start, last), end, empty)
            last = end

    def place(self) -> int:
        at = min(s.start for s in self.scopes)
        first = next(s for s in self.file.statements if s.start <= at < s.end)
        return int(self.write.comment_start(self.file, first.start))

    def text(self, held: list[str], shared: list[str], common: list[str], parameters: list[str]) -> str:
        first, nl = self.methods[0], self.write.newline(self.file)
        parts = []
        if held:
            spans = [self.fields[0][n] for n in held]
            lines = [
                self.file.slice(self.write.comment_start(self.file, a), self.write.line_end(self.file, b))
                for a, b in spans
            ]
            parts.append(self.bases.field_text("".join(lines)))
        if common:
            statements = [s for s in self.body(first) if self.said(s) in common]
            lines = []
            for s in statements:
                start = self.write.comment_start(self.file, s.start)
                lines.append(self.file.slice(start, self.write.line_end(self.file, s.end)).rstrip("\r\n"))
            given = [
                self.file.slice(p.start, p.end) for p in first[self.write.CONSTRUCTOR].arguments if p.name in parameters
            ]
            parts.append(self.bases.constructor_text(self.file, self.unit, self.name, given, lines))
        for name in shared:
            f = first[name]
            start = self.write.comment_start(self.file, f.start)
            parts.append(self.file.slice(start, self.write.line_end(self.file, f.end - 1)).rstrip("\r\n") + "\n")
        text = self.bases.class_with(self.file, self.unit, self.name, "\n".join(parts)) + "\n" * self.write.BLANKS
        return str(self.write.with_newlines(text, nl))
