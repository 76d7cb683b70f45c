"""Remove what the earlier steps left unused: imports that only moved code needed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from ..program.edits import Edits
from ..program.model import SourceFile, Statement
from ..program.program import Program
from . import messages
from .by_hand import Asked, HandCommand
from .rewrite import Building, ClassRewrite
from .step import Context, FileStep, Step


@dataclass
class Clean(FileStep):
    """The imports and blank lines of a file that steps left without a use go."""

    kind = "clean"

    def title(self) -> str:
        return f"remove unused imports from {self.path}"

    def apply(self, context: Context) -> Edits:
        out = Edits()
        file = context.file(self.path)
        before = context.original.files.get(self.path) if context.original is not None else None
        if before is None or before.text == file.text:
            return out
        imports = [s for s in file.statements if s.kind == "import"]
        for s in imports:
            self.clean_import(context, file, before, s, out)
        self.clean_blank(context, file, out)
        self.part_imports(context, file, before, out)
        return out

    def part_imports(self, context: Context, file: SourceFile, before: SourceFile, out: Edits) -> None:
        """A blank line after an import or a class of ours that code follows directly."""
        old = {module for s in before.imports for _, module, _ in context.language.imported(before, s)}
        for s, following in pairwise(file.statements):
            if s.kind == "class":
                ours = before.scope.symbols.get(defined_class(file, s)) is None
            else:
                ours = s.kind == "import" and following.kind != "import"
                ours = ours and not {m for _, m, _ in context.language.imported(file, s)} & old
            near = file.line(following.start) == file.line(s.end) + 1
            if ours and near and file.stands(s.start)[0] == file.stands(following.start)[0]:
                out.insert(file.path, context.write.line_start(file, following.start), context.write.newline(file))

    def clean_import(self, context: Context, file: SourceFile, before: SourceFile, s: Statement, out: Edits) -> None:
        bound = context.language.imported(file, s)
        if any(local == "*" for local, _, _ in bound):
            self.clean_star(context, file, before, s, out)
            return
        if any(context.write.everywhere_import(module) for _, module, _ in bound):
            return
        dead = self.dead(context, file, before, s)
        if not dead:
            return
        line = [o for o in file.statements if file.line(o.start) == file.line(s.start)]
        whole = all(
            o.kind == "import" and len(self.dead(context, file, before, o)) == len(context.language.imported(file, o))
            for o in line
        )
        if whole:
            if s is line[0]:
                self.take_out(context, file, s, line[-1], out)
        elif len(dead) < len(bound):
            keep = [b for b in bound if b not in dead]
            out.replace(file.path, s.start, s.end, context.write.import_list(file, s, keep))

    def dead(self, context: Context, file: SourceFile, before: SourceFile, s: Statement) -> list[tuple[str, str, str]]:
        """What an import binds that nobody uses any more: used before, or brought by a step."""
        return [
            b
            for b in context.language.imported(file, s)
            if b[0] != "*" and not used(file, b[0]) and (used(before, b[0]) or b[0] not in before.scope.symbols)
        ]

    def clean_star(self, context: Context, file: SourceFile, before: SourceFile, s: Statement, out: Edits) -> None:
        """A star import goes when every name that it may have given has moved away."""
        ours = context.language.introspective
        loose = [
            n
            for n, x in file.scope.symbols.items()
            if not x.kinds and any(not r.writes for r in x.references) and n not in ours
        ]
        had = any(not x.kinds and x.references for n, x in before.scope.symbols.items() if n not in ours)
        if not loose and had:
            self.take_out(context, file, s, s, out)

    def take_out(self, context: Context, file: SourceFile, first: Statement, last: Statement, out: Edits) -> None:
        """A line goes; remarks above it, and behind it, may speak of more than it and stay."""
        start, end = context.write.line_start(file, first.start), context.write.line_end(file, last.end)
        remark = context.write.trailing_comment(file, last.end).strip()
        if remark:
            out.replace(file.path, start, end, remark + context.write.newline(file))
        else:
            out.delete(file.path, start, end)

    def clean_blank(self, context: Context, file: SourceFile, out: Edits) -> None:
        """Runs of blank lines that the earlier steps left behind: none at the ends, at most two between."""
        before = context.original.files[self.path].text if context.original is not None else b""
        dead = [(a, b) for a, b, text in out.ranges.get(file.path, []) if not text]
        starts = [context.write.line_start(file, 0), *file.lines[1:]]
        lines = [file.text[a:b] for a, b in pairwise([*starts, len(file.text)])]
        inside = [any(a < at < b for a, b in file.strings) for at in starts]
        gone = [any(a <= at and at + len(line) <= b for a, b in dead) for at, line in zip(starts, lines, strict=False)]
        number = 0
        kept: bytes | None = None
        while number < len(lines):
            start = number
            while number < len(lines) and not inside[number] and (gone[number] or not lines[number].strip()):
                number += 1
            following = lines[number] if number < len(lines) else None
            blanks = [i for i in range(start, number) if not gone[i]]
            room = self.room(context, kept, following)
            old = b"" if kept is None else kept + b"".join(lines[i] for i in blanks) + (following or b"")
            if len(blanks) > room and (not old or old not in before):
                for i in blanks[room:]:
                    out.delete(file.path, starts[i], starts[i] + len(lines[i]))
            kept = following
            number += 1

    def room(self, context: Context, above: bytes | None, below: bytes | None) -> int:
        """How many blank lines may stand between two lines."""
        if above is None or below is None:
            return 0
        return int(context.write.room(above, below))


def defined_class(file: SourceFile, statement: Statement) -> str:
    """The name of the class that a statement defines."""
    return next((n for s, n in file.classes if statement.start <= s.start < statement.end), "")


def used(file: SourceFile, name: str) -> bool:
    symbol = file.scope.symbols.get(name)
    return symbol is not None and any(not r.writes for r in symbol.references)


def ask_clean(program: Program, path: str) -> Asked:
    if path not in program.files:
        raise messages.NO_SCRIPT.in_file(path=path)
    return Asked(Clean(path), looks_back=True)


class CleanUp(ClassRewrite):
    """The last step of each file."""

    by_hand = (
        HandCommand(
            "clean",
            ("SCRIPT",),
            "Imports and blank lines that steps left behind go.",
            "Remove from a SCRIPT the imports, and the blank lines, that the steps which stand have left without a "
            "use.",
            "clean desk.py desk.py",
            "Changed",
            ask_clean,
        ),
    )

    def steps(self, building: Building) -> Iterator[Step]:
        for path in building.program.files:
            if path in building.design.sources:
                yield Clean(path)
