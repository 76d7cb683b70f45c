"""Give a file another name, and say so in every import of it."""

from __future__ import annotations

from ..analysis.hazards import forbidding, hazards
from ..analysis.importers import importers
from ..program.edits import Edits
from ..program.model import SourceFile, Statement, Symbol
from ..program.program import Program
from . import messages
from .step import Context


class FileRenamer:
    """Works out the edits for a file that gets another name."""

    def __init__(self, context: Context, old: str, new: str, outsiders: Program | None) -> None:
        self.context, self.program, self.outsiders = context, context.program, outsiders
        self.language, self.write = context.language, context.write
        self.old, self.new = old, new
        self.out = Edits()
        self.seen: set[tuple[str, int]] = set()  # imports that say the new name already

    def edits(self) -> Edits:
        """Raises Refusal where the file is started by its name, cannot be imported under the new one, or is used in a
        way that was not read."""
        self.possible()
        module, wanted = self.write.module_of(self.old), self.write.module_of(self.new)
        used = False
        for other, local, origin, name, line in importers(self.program, self.outsiders).get(module, ()):
            if other.path == self.old or not self.language.means(other.path, origin, name, self.old):
                continue
            used = True
            if other.path not in self.program.files:
                raise messages.IMPORTED_BY.in_file(other.path, line, name=self.old, path=other.path)
            for s in other.imports:
                if other.line(s.start) == line and any(
                    b == (local, origin, name) for b in self.language.imported(other, s)
                ):
                    self.one(other, s, local, module, wanted)
        if not used or self.old in self.context.design.entries:
            raise messages.PEOPLE_START.in_file(self.old, name=self.old)
        self.out.created[self.new] = self.program.files[self.old].text
        self.out.removed.add(self.old)
        return self.out

    def possible(self) -> None:
        if not self.language.renames_imports:
            raise messages.FILES_NOT_RENAMED.in_file(self.old)
        if self.new.rpartition("/")[0] != self.old.rpartition("/")[0]:
            raise messages.OTHER_FOLDER.in_file(self.old, path=self.new)
        if not self.write.is_name(self.write.module_of(self.new)) or not self.new.endswith(self.language.suffixes):
            raise messages.NO_MODULE_NAME.in_file(self.old, path=self.new)
        if self.context.exists(self.new):
            raise messages.PATH_EXISTS.in_file(self.old, path=self.new)
        self.context.check_case(self.new, but=self.old)
        if self.write.hides_library(self.new):
            raise messages.HIDES_LIBRARY_MODULE.in_file(self.old, path=self.new)
        wanted = self.write.module_of(self.new)
        for f in self.program.files.values():
            if any(self.write.top_module(m) == wanted for s in f.imports for _, m, _ in self.language.imported(f, s)):
                raise messages.HIDES_IMPORTED_MODULE.in_file(self.old, path=self.new, module=wanted, other=f.path)

    def one(self, other: SourceFile, s: Statement, local: str, module: str, wanted: str) -> None:
        """One import of the file; where it binds the module's own name, the uses of that follow, or it stays what it
        was."""
        if (other.path, s.start) in self.seen:
            return
        self.seen.add((other.path, s.start))
        span = self.language.module_word(other, s, module)
        if span is None:
            raise messages.IMPORT_NOT_READ.in_file(other.path, other.line(s.start), path=other.path, name=self.old)
        bound = next(
            (r.symbol for r in other.within(s.start, s.end) if r.form == "import" and r.start == span[0]), None
        )
        if bound is not None and not self.free_to_follow(other, bound, wanted):
            wanted, bound = f"{wanted} as {local}", None
        self.out.replace(other.path, *span, wanted)
        for r in bound.references if bound is not None else ():
            if r.start != span[0]:
                self.out.replace(other.path, r.start, r.end, self.write.use(r, wanted))

    def free_to_follow(self, other: SourceFile, bound: Symbol, wanted: str) -> bool:
        """Whether all uses of an imported module are known, and its new name means nothing else where they stand."""
        known = (
            len(bound.bindings) == 1
            and forbidding(hazards(self.program, other.path, self.outsiders), {bound.name}) is None
        )
        spelled = any(r.form == "spelled" or r.deferred for r in bound.references)
        return known and not spelled and not any(r.name == wanted for r in other.references)
