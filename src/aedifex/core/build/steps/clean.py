"""Delete what the earlier steps left dead: imports that only moved code used."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...program.model import SourceFile, Statement
from ..edits import Edits
from ..step import Context


@dataclass
class CleanUp:
    path: str
    needs: list[str] = field(default_factory=list)

    @property
    def id(self) -> str:
        return f"clean:{self.path}"

    def title(self) -> str:
        return f"what is dead in {self.path} goes"

    def apply(self, context: Context) -> Edits:
        out = Edits()
        file = context.file(self.path)
        before = context.original.files.get(self.path) if context.original is not None else None
        if before is None:
            return out
        imports = [s for s in file.statements if s.kind == "import"]
        for s in imports:
            self.clean_import(context, file, before, s, out)
        self.clean_blank(context, file, out)
        return out

    def clean_import(self, context: Context, file: SourceFile, before: SourceFile, s: Statement, out: Edits) -> None:
        bound = context.language.imported(file, s)
        if any(local == "*" or module == "__future__" for local, module, _ in bound):
            return
        dead = [b for b in bound if not used(file, b[0]) and used(before, b[0])]
        if not dead:
            return
        shared = [o for o in file.statements if o is not s and file.line(o.start) == file.line(s.start)]
        if len(dead) == len(bound) and not shared:
            out.delete(file.path, context.write.comment_start(file, s.start), context.write.line_end(file, s.end))
        elif len(dead) < len(bound):
            keep = [b for b in bound if b not in dead]
            out.replace(file.path, s.start, s.end, context.write.import_list(keep))

    def clean_blank(self, context: Context, file: SourceFile, out: Edits) -> None:
        """Blank lines at the start that the deletions left behind."""
        if context.original is None or not file.statements:
            return
        first = file.statements[0]
        start = context.write.comment_start(file, first.start)
        blanks = context.write.blank_before(file, start)
        if blanks == 0 and start > 0 and not any(s.start == first.start for s in context.original.files[self.path].statements):
            deleted = any(r[0] <= blanks < r[1] or r[0] < start < r[1] for r in out.ranges.get(file.path, []))
            if not deleted:
                out.delete(file.path, 0, start)


def used(file: SourceFile, name: str) -> bool:
    symbol = file.scope.symbols.get(name)
    return symbol is not None and any(not r.writes for r in symbol.references)
