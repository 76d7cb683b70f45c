"""Move a class to a file of its own, with the imports, constants and helpers that it reads.

What moves along lands in the lowest file that reads it; the file left behind imports what it still uses.
Nothing that moves may need the file it leaves: importing an entry would run the program a second time.
"""

from __future__ import annotations

from collections.abc import Iterator

from ...analysis.construction import inert
from ...analysis.variable_kinds import constants_of, only_imports
from ...design.tables import ClassDesign, Design, by_dependency
from ...program.edits import Edits
from ...program.model import SourceFile, Statement
from ...program.program import Program, neighbours
from .. import messages
from ..by_hand import Asked, HandCommand, SmallDesign, empty_design, home_of
from ..rewrite import Building, ClassRewrite
from ..step import ClassStep, Context, Step, class_scope
from .placement import Dependencies, dependencies

PLACES = {"assign": 1, "function": 2, "class": 2}  # imports that may fail come first


class MoveToFile(ClassStep):
    """A class moves to a file of its own."""

    kind = "file"

    def title(self) -> str:
        return f"class {self.design.name} moves to {self.design.file}"

    def apply(self, context: Context) -> Edits:
        return FileMover(context, context.home(self.design), self.design).edits()

    def owner(self, design: Design) -> str:
        return ""  # the class is as good where it stands


def ask_file(program: Program, name: str, path: str) -> Asked:
    home = home_of(program, name)
    if path in program.holders and path != home:
        raise messages.PATH_EXISTS.in_file(path=path)
    design = empty_design(program)
    design.entries, design.classes = [home], [ClassDesign(name, "model", file=path)]
    return Asked(SmallDesign("file", name, f"class {name} moves to {path}", design), homes={name: home})


class MoveClass(ClassRewrite):
    """The classes of the design that name a file, those that others need first."""

    by_hand = (
        HandCommand(
            "file", ("CLASS", "FILE"), "A class gets a file of its own.",
            "Move a CLASS with what it needs to a new FILE beside its own; imports follow.",
            "file Fare fare.py tramline.py", "Moved", ask_file,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        for c in by_dependency(building.design.classes):
            if c.file and c.file not in building.design.sources:
                # a class moves once it stands and its main code is in it; single methods may have been refused
                yield MoveToFile(c, needs=building.ids_of(c, "found", "main"))


def whole_declarations(statements: list[Statement]) -> list[Statement]:
    """Variables that share a declaration move together."""
    found: dict[tuple[int, int], Statement] = {}
    for s in statements:
        start, end = s.group or (s.start, s.end)
        found.setdefault((start, end), Statement(s.kind, start, end, node=s.node) if s.group else s)
    return list(found.values())


class FileMover:
    """Works out the new file, and what is left behind."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign) -> None:
        self.context, self.file, self.design = context, file, design
        self.write = context.write
        self.out = Edits()

    def edits(self) -> Edits:
        self.check_target()
        scope = class_scope(self.file, self.design.name)
        if trouble := self.write.stays_in(self.file, scope):
            raise messages.STAYS_IN_FILE.in_file(
                self.file.path, why=trouble, class_=self.design.name, path=self.file.path
            )
        statement = next(s for s in self.file.statements if s.kind == "class" and s.start <= scope.start < s.end)
        if self.context.language.placement != "imports":
            return self.bodily(statement)
        return self.relocated([statement], {self.design.name})

    def relocated(self, statements: list[Statement], offered: set[str]) -> Edits:
        """Statements go to the new file with all that they need. ``offered``: names in them that others import in any
        case."""
        needs = dependencies(self.file, self.context.language, statements)
        if needs.refusal:
            message, at = needs.refusal
            raise messages.STAYS_IN_FILE.at(self.file, at, why=message, class_=self.design.name, path=self.file.path)
        moving = whole_declarations([*needs.moving, *statements])
        names = self.wanted_back(moving)
        self.out.create(self.design.file, self.new_text(needs, moving, {*names, *offered}))
        for s in moving:
            start = self.write.comment_start(self.file, s.start)
            after = self.write.blank_after(self.file, self.write.line_end(self.file, s.end))
            self.out.delete(
                self.file.path,
                start,
                after if s.kind in ("class", "function") or not start else self.write.line_end(self.file, s.end),
            )
        self.import_back(moving, names, needs)
        return self.out

    def bodily(self, statement: Statement) -> Edits:
        """Where no import is needed, the class alone changes its place; what it uses of its old home opens up for
        it."""
        start = self.write.comment_start(self.file, statement.start)
        imports = [self.file.slice(s.start, s.end) + "\n" for s in self.file.imports if self.needed(s, statement)]
        text = self.write.moved_out(self.file, statement, start, self.write.indent_unit(self.file), imports)
        self.out.create(self.design.file, text if text.endswith("\n") else text + "\n")
        after = self.write.blank_after(self.file, self.write.line_end(self.file, statement.end))
        self.out.delete(
            self.file.path, self.write.line_start(self.file, start), min(after, self.part_end(statement.end))
        )
        for left, right, new in self.write.opened(self.file, statement):
            self.out.replace(self.file.path, left, right, new)
        for other in self.context.program.files.values():
            if other is not self.file:
                for left, right, new in self.write.renamed_elsewhere(other, self.file, self.design.name):
                    self.out.replace(other.path, left, right, new)
        return self.out

    def part_end(self, offset: int) -> int:
        return next(end for _, start, end in self.file.parts if start <= offset <= end)

    def needed(self, imported: Statement, statement: Statement) -> bool:
        bound = {local for local, _, _ in self.context.language.imported(self.file, imported)}
        return "*" in bound or any(r.name in bound for r in self.file.within(statement.start, statement.end))

    def check_target(self) -> None:
        path = self.design.file
        folder = self.file.path.rpartition("/")[0]
        if path.rpartition("/")[0] != folder:
            raise messages.OTHER_FOLDER.in_file(self.file.path, path=path)
        if not self.write.is_name(self.write.module_of(path)) or not path.endswith(self.context.language.suffixes):
            raise messages.NO_MODULE_NAME.in_file(self.file.path, path=path)
        if self.context.exists(path):
            raise messages.PATH_EXISTS.in_file(self.file.path, path=path)
        self.context.check_case(path)
        if self.write.hides_library(path):
            raise messages.HIDES_LIBRARY_MODULE.in_file(self.file.path, path=path)
        for s in self.file.imports:
            for _, name, _ in self.context.language.imported(self.file, s):
                if why := self.context.language.reentrant(name):
                    raise messages.CANNOT_MOVE_WITH.at(
                        self.file, s.start, name=name, why=why, class_=self.design.name, path=self.file.path
                    )
        module = self.write.module_of(path)
        for f in self.context.program.files.values():
            for s in f.statements:
                if s.kind == "import" and any(
                    self.write.top_module(m) == module for _, m, _ in self.context.language.imported(f, s)
                ):
                    raise messages.HIDES_IMPORTED_MODULE.in_file(
                        f.path, f.line(s.start), path=path, module=module, other=f.path
                    )
        if trouble := self.write.packaged(folder, self.context.exists):
            raise messages.STAYS_IN_FILE.in_file(
                self.file.path, why=trouble, class_=self.design.name, path=self.file.path
            )

    def new_text(self, needs: Dependencies, moving: list[Statement], offered: set[str]) -> str:
        """The new file; ``offered``: names in it that other files import."""
        nl = self.write.newline(self.file)
        head = self.write.head(self.file)
        program = self.context.program
        beside = neighbours(program.root, program.texts, program.language)
        own = {self.write.module_of(p) for p in [*program.files, *beside]}
        imports = self.write.merged_imports(needs.imports, own)
        text = head + ("\n" if head and imports else "") + imports
        previous = "import" if text else ""
        before: Statement | None = None
        for s in sorted(moving, key=lambda s: (self.rank(s), s.start)):
            start = self.write.comment_start(self.file, s.start)
            body = self.write.moved(self.file, s, start, self.write.line_end(self.file, s.end), offered)
            big = s.kind in ("class", "function")
            if previous:
                apart = previous == "import" or (before is not None and self.blank_between(before, s))
                text += "\n" * self.write.BLANKS if big or previous == "big" else "\n" if apart else ""
            text += body if body.endswith("\n") else body + "\n"
            previous, before = "big" if big else "small", s
        return str(self.write.with_newlines(text + self.write.offer(self.file, sorted(offered)), nl))

    def blank_between(self, before: Statement, s: Statement) -> bool:
        """Whether a statement begins a paragraph behind another one."""
        between = self.file.slice(before.end, s.start).split("\n")[1:-1]
        return (
            bool(between) and self.file.line(s.start) > self.file.line(before.end) and not all(map(str.strip, between))
        )

    def rank(self, s: Statement) -> int:
        """Types come first, then what may fail, then definitions."""
        classes = [c for c, _ in self.file.classes if s.start <= c.start < s.end]
        return PLACES.get(s.kind, 0) if s.kind != "class" or classes else 0

    def wanted_back(self, moving: list[Statement]) -> set[str]:
        """The names that the old file still uses of what moves."""
        names = set()
        spans = [(s.start, s.end) for s in moving]
        for symbol in self.file.scope.symbols.values():
            homes = [r for r in symbol.references if r.writes and any(a <= r.start < b for a, b in spans)]
            defined = [r for r in homes if r.scope.frame is self.file.scope]
            if defined and any(not any(a <= r.start < b for a, b in spans) for r in symbol.references):
                names.add(symbol.name)
        return names

    def import_back(self, moving: list[Statement], names: set[str], needs: Dependencies) -> None:
        if not names:
            return
        needed = needs.after
        nl = self.write.newline(self.file)
        line = self.write.import_names(self.file, self.write.module_of(self.design.file), sorted(names)).replace(
            "\n", nl
        )
        at, before, after = self.import_place(moving, needed if needed < self.first_use(moving, names) else 0)
        self.check_order(
            at,
            [*needs.places.values(), *(s.start for s in moving if only_imports(self.file, self.context.language, s))],
        )
        self.out.insert(self.file.path, at, before.replace("\n", nl) + line + after.replace("\n", nl))

    def check_order(self, at: int, imports: list[int]) -> None:
        """What the new file imports is loaded where it is imported itself: nothing that runs until then today may
        notice."""
        file, language = self.file, self.context.language
        last = max((s.start for s in file.statements if s.start in imports and self.noticed(s)), default=0)
        constants, effects = constants_of(file, language), self.context.effects(file)
        for s in file.statements:
            if (
                at <= s.start < last
                and not inert(file, effects, language, s, constants)
                and not only_imports(file, language, s)
            ):
                raise messages.IMPORTED_LATER.at(
                    file, s.start, class_=self.design.name, line=file.shown(last), path=file.path
                )

    def noticed(self, s: Statement) -> bool:
        """Whether it can be told when an import is made."""
        brought = self.context.language.imported(self.file, s) if s.kind == "import" else []
        return s.kind != "import" or not all(self.write.quiet_module(m) for _, m, _ in brought)

    def first_use(self, moving: list[Statement], names: set[str]) -> int:
        uses = [r.start for n in names for r in self.file.scope.symbols[n].references]
        return min((u for u in uses if not any(m.start <= u < m.end for m in moving)), default=0)

    def import_place(self, moving: list[Statement], needed: int) -> tuple[int, str, str]:
        """After the last import at the top, and after what the new file imports itself, so that modules are loaded in
        the same order.

        Without imports: after the document string; else before the first statement.
        """
        last: Statement | None = None
        for s in self.file.statements:
            if s.kind == "import":
                last = s
            elif s.start >= needed and s.kind != "docstring" and not any(m.start <= s.start < m.end for m in moving):
                break
        if last is not None:
            end = self.write.line_end(self.file, last.end)
            gap = "\n" if self.is_library(last) and self.write.PARTED_IMPORTS else ""
            return end, ("" if self.file.text[:end].endswith(b"\n") else "\n") + gap, ""
        docs = [s for s in self.file.statements[:1] if s.kind == "docstring"]
        if docs:
            return self.write.line_end(self.file, docs[0].end), "\n", ""
        first = next((s for s in self.file.statements if not any(m.start <= s.start < m.end for m in moving)), None)
        if first is None:
            return len(self.file.text), "", ""
        blanks = self.write.BLANKS if first.kind in ("class", "function") else 1
        return self.write.comment_start(self.file, first.start), "", "\n" * blanks

    def is_library(self, statement: Statement) -> bool:
        bound = self.context.language.imported(self.file, statement)
        means = self.context.language.means
        return not any(means(self.file.path, m, n, p) for _, m, n in bound for p in self.context.program.files)
