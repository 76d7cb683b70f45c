"""A design is checked against the program that it was drafted from: what the checks of the rewrites ask in common."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ..analysis.regions.region import region_of
from ..design.lines import Lines
from ..design.origin import Origin
from ..design.tables import Design
from ..program.errors import AedifexError
from ..program.keyed import Keyed
from ..program.line_ranges import range_of
from ..program.model import SourceFile
from ..program.near import perhaps
from ..program.program import Program
from ..program.refusal import Message, Refusal
from . import mistakes


class DesignCheck:
    """``design``, ``program``: once main functions are inlined and handlers have names; ``lines``: where each key
    stands in the file ``path``."""

    def __init__(self, path: str, design: Design, lines: Lines, program: Program) -> None:
        self.path, self.design, self.lines, self.program = path, design, lines, program
        self.write = program.language.write
        self.found: list[Refusal] = []
        self.owners: dict[str, str] = {}
        self.members: dict[int, set[str]] = {}  # number of a class → its members so far
        self.objects = {o.name for c in design.classes for o in c.objects}
        self.collections = {o.collection for c in design.classes for o in c.objects if o.collection}  # lists to come
        self.streams = {s.name for s in design.streams}

    def report(self, line: int, message: Message, **values: Any) -> None:
        self.found.append(message.in_file(self.path, line, **values))

    def name(self, line: int, name: str, message: Message = mistakes.NO_NAME) -> None:
        if not self.write.is_name(name):
            self.report(line, message, name=name)

    def absent(self, line: int, origin: Origin) -> None:
        """Say of a name that no one file has it."""
        files = self.program.files.values()
        having = [f.path for f in files if (x := f.scope.symbols.get(str(origin))) is not None and x.kinds]
        if len(having) > 1:
            self.report(line, mistakes.IN_SEVERAL_FILES, name=origin, files=" and ".join(having), first=having[0])
            return
        known = [n for f in files for n, x in f.scope.symbols.items() if x.kinds]
        hint = perhaps(origin.local, known).removeprefix("; ") or "correct it"
        self.report(line, mistakes.NOT_IN_SOURCES, name=origin, hint=hint)

    def file_of(self, origin: Origin) -> SourceFile | None:
        """The file that defines an origin; None if none or several do."""
        files = [f for f in self.program.files.values() if origin.of_file(f.path)]
        symbols = [(f, f.scope.symbols.get(origin.local)) for f in files]
        found = [f for f, s in symbols if s is not None and (s.kinds or origin.file)]
        return found[0] if len(found) == 1 else None

    def member_name(self, line: int, class_: int, name: str, hidden: bool) -> None:
        members = self.members.setdefault(class_, set())
        shown = self.write.hidden(name) if hidden else name
        if name and not self.write.is_name(name):
            self.report(line, mistakes.NO_NAME, name=name)
        elif name and (name == self.write.CONSTRUCTOR or self.write.inherited(name)):
            self.report(line, mistakes.CALLED_BY_LANGUAGE, name=name)
        elif shown in members:
            self.report(line, mistakes.GIVEN_TWICE, what="member", name=name)
        members.add(shown)

    def origin(self, line: int, origin: Origin, owner: str, kind: str) -> None:
        """A variable or a function that a class takes over."""
        if origin.local in self.collections | self.streams:
            return
        if origin.key:
            self.keyed_origin(line, origin)
            return
        file = self.file_of(origin)
        if file is None:
            self.absent(line, origin)
            return
        if kind not in file.scope.symbols[origin.local].kinds:
            self.report(line, mistakes.OTHER_KIND, name=origin, kind=kind)
        full = f"{file.path}::{origin.local}"
        if full in self.owners:
            self.report(line, mistakes.BELONGS_ALREADY, name=origin, class_=self.owners[full])
        self.owners[full] = owner

    def keyed_origin(self, line: int, origin: Origin) -> None:
        """A key of a record that a variable, or a list, holds."""
        holder = replace(origin, key="")
        if (file := self.file_of(holder)) is None:
            self.absent(line, holder)
        elif not any(origin.key in k.keys and origin.variable in k.names for k in file_keyed(self.program, file)):
            self.report(line, mistakes.NO_RECORD_KEY, name=holder, key=origin.key)

    def method_lines(self, line: int, lines: list[str]) -> None:
        """Each stretch is whole statements of one block, or one expression."""
        for text in lines:
            try:
                place = range_of(text, self.program)
            except AedifexError as error:
                self.report(line, mistakes.NO_SUCH_LINES, why=str(error).rstrip("."))
                continue
            region = region_of(place.file, self.program.language, place.start, place.end)
            if region is None:
                self.report(line, mistakes.CUT_IN_TWO)
            elif region.ground.site is not None:
                self.report(line, mistakes.IN_INNER_FUNCTION, lines=text)


def file_keyed(program: Program, file: SourceFile) -> list[Keyed]:
    """The records of a file, followed once."""
    kept: dict[str, list[Keyed]] = program.memo.setdefault("keyed", {})
    if file.path not in kept:
        kept[file.path] = program.language.keyed(file)
    return kept[file.path]
