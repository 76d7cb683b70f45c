"""Give a file another name, and say so in every import of it."""

from __future__ import annotations

from ..analysis.hazards import forbidding, hazards, importers
from ..program.edits import Edits
from ..program.model import Program, SourceFile, Statement, Symbol
from .rewrite import Context, Refusal


class FileRenamer:
    def __init__(self, context: Context, old: str, new: str, outsiders: Program | None) -> None:
        self.context, self.program, self.outsiders = context, context.program, outsiders
        self.language, self.write = context.language, context.write
        self.old, self.new = old, new
        self.out = Edits()
        self.seen: set[tuple[str, int]] = set()  # imports that say the new name already

    def edits(self) -> Edits:
        """Raises Refusal where the file is started by its name, cannot be imported under the new one, or is used in a way that was not read."""
        self.possible()
        module, wanted = self.write.module_of(self.old), self.write.module_of(self.new)
        used = False
        for other, local, origin, name, line in importers(self.program, self.outsiders).get(module, ()):
            if other.path == self.old or not self.language.means(other.path, origin, name, self.old):
                continue
            used = True
            if other.path not in self.program.files:
                raise Refusal(
                    f"{self.old} is imported by {other.path}",
                    other.path,
                    line,
                    "name that file too, so that it may be changed",
                )
            for s in other.imports:
                if other.line(s.start) == line and any(
                    b == (local, origin, name) for b in self.language.imported(other, s)
                ):
                    self.one(other, s, local, module, wanted)
        if not used or self.old in self.context.design.entries:
            raise Refusal(f"{self.old} is what people start", self.old, 0, "it keeps its name")
        self.out.created[self.new] = self.program.files[self.old].text
        self.out.removed.add(self.old)
        return self.out

    def possible(self) -> None:
        if not self.language.renames_imports:
            raise Refusal("files of this language are not renamed", self.old, 0, "rename it by hand")
        if self.new.rpartition("/")[0] != self.old.rpartition("/")[0]:
            raise Refusal(f"'{self.new}' lies in another folder", self.old, 0, "name a file beside it")
        if not self.write.is_name(self.write.module_of(self.new)) or not self.new.endswith(self.language.suffixes):
            raise Refusal(f"'{self.new}' is not a name that can be imported", self.old, 0, "choose another")
        if self.context.exists(self.new):
            raise Refusal(f"'{self.new}' already exists", self.old, 0, "choose another name")
        self.context.check_case(self.new, but=self.old)
        if self.write.hides_library(self.new):
            raise Refusal(
                f"'{self.new}' would hide the library's module of that name", self.old, 0, "choose another name"
            )
        wanted = self.write.module_of(self.new)
        for f in self.program.files.values():
            if any(self.write.top_module(m) == wanted for s in f.imports for _, m, _ in self.language.imported(f, s)):
                raise Refusal(
                    f"'{self.new}' would hide the module '{wanted}' that {f.path} imports",
                    self.old,
                    0,
                    "choose another name",
                )

    def one(self, other: SourceFile, s: Statement, local: str, module: str, wanted: str) -> None:
        """One import of the file; where it binds the module's own name, the uses of that follow, or it stays what it was."""
        if (other.path, s.start) in self.seen:
            return
        self.seen.add((other.path, s.start))
        span = self.language.module_word(other, s, module)
        if span is None:
            raise Refusal(
                f"{other.path} imports {self.old} in a way that was not read",
                other.path,
                other.line(s.start),
                "change that import by hand first",
            )
        bound = next((r.symbol for r in other.within(s.start, s.end) if r.form == "import" and r.start == span[0]), None)
        if bound is not None and not self.free_to_follow(other, bound, wanted):
            wanted, bound = f"{wanted} as {local}", None
        self.out.replace(other.path, *span, wanted)
        for r in bound.references if bound is not None else ():
            if r.start != span[0]:
                self.out.replace(other.path, r.start, r.end, self.write.use(r, wanted))

    def free_to_follow(self, other: SourceFile, bound: Symbol, wanted: str) -> bool:
        """Whether all uses of an imported module are known, and its new name means nothing else where they stand."""
        known = len(bound.bindings) == 1 and forbidding(hazards(self.program, other.path, self.outsiders), {bound.name}) is None
        spelled = any(r.form == "spelled" or r.deferred for r in bound.references)
        return known and not spelled and not any(r.name == wanted for r in other.references)
