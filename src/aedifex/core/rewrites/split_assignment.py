"""Statements that set several variables at once, taken apart where functions use one of these: each may find another
home."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.startup import running
from ..analysis.variable_kinds import parted_values
from ..design.origin import Origin
from ..design.tables import ClassDesign, FieldDesign
from ..program.edits import Edits, Range, applied
from ..program.language import Language
from ..program.model import SourceFile
from ..program.program import Program, reread
from . import messages
from .by_hand import Asked, HandCommand, names_in
from .rewrite import Rewrite, State
from .split_declarations import TakeApart, shares_a_declaration
from .step import Context, FileStep


def unpackings(file: SourceFile, language: Language) -> list[Range]:
    """The edits that give each variable its own line."""
    edits = []
    for s in running(file, language):
        pairs = parted_values(file, language, s)
        used = [r for name, _ in pairs for b in file.within(*name) if b.symbol is not None for r in b.symbol.references]
        if not pairs or not any(r.scope.frame is not file.scope for r in used):
            continue
        start = language.write.line_start(file, s.start)
        lead = file.slice(start, s.start)
        rest = file.slice(s.end, language.write.line_end(file, s.end)).strip()
        if lead.strip() or (rest and not language.write.trailing_comment(file, s.end)):
            continue
        lines = [f"{file.slice(*name)} = {file.slice(*value)}" for name, value in pairs]
        edits.append((s.start, s.end, (language.write.newline(file) + lead).join(lines)))
    return edits


def taken_apart(program: Program, path: str) -> Program:
    """The program with such statements of a file taken apart."""
    file = program.files[path]
    edits = unpackings(file, program.language)
    return reread(program, {path: applied(file.text, edits, file.encoding)}) if edits else program


@dataclass
class SplitUnpacking(FileStep):
    """``WIDTH, HEIGHT = 60, 20`` becomes a statement for each, so that each can move on its own."""

    kind = "split"

    def title(self) -> str:
        return f"what sets several variables in {self.path} is taken apart"

    def apply(self, context: Context) -> Edits:
        out, file = Edits(), context.file(self.path)
        for edit in unpackings(file, context.language):
            out.replace(self.path, *edit)
        return out


def ask_split(program: Program, names: str) -> Asked:
    """A declaration that holds several, or a statement that sets them at once."""
    for path, file in program.files.items():
        if not all(n in file.scope.symbols for n in names_in(names)):
            continue
        design = ClassDesign("", fields=[FieldDesign(n, [Origin(n, file=path)]) for n in names_in(names)])
        if shares_a_declaration(design, program):
            return Asked(TakeApart(design), homes={"": path})
        if unpackings(file, program.language):
            return Asked(SplitUnpacking(path))
    raise messages.NOTHING_TO_SPLIT.in_file(names=", ".join(names_in(names)))


class SplitAssignments(Rewrite[SplitUnpacking]):
    """Files in which a statement sets several variables that functions use."""

    by_hand = (
        HandCommand(
            "split", ("NAMES",), "Variables set in one statement get one each.",
            "Give each of the variables NAMES, with commas between them, a statement of its own.",
            "split left,right switches.py", "Changed", ask_split,
        ),
    )  # fmt: skip

    def requests(self, state: State) -> Iterator[SplitUnpacking]:
        some = any(c.fields or c.methods or c.objects for c in state.design.classes)
        for path in [p for p in state.program.files if p in state.design.sources and some]:
            if unpackings(state.program.files[path], state.program.language):
                yield SplitUnpacking(path)
