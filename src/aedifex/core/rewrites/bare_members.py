"""Methods of new classes name members without the object, where the language lets them, as the program does itself.

void move() { this.x += this.step(); }      →      void move() { x += step(); }
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ..program.edits import Edits
from ..program.program import Program
from .rewrite import Building, ClassRewrite
from .step import Context, FileStep, Step


@dataclass
class BareMembers(FileStep):
    """What need not be said in front of a member goes, in the new classes of a file."""

    kind = "bare"
    classes: list[str]

    def title(self) -> str:
        return f"methods in {self.path} name their members alone"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        for scope, name in file.classes:
            if name in self.classes and scope.parent is file.scope:
                for edit in context.write.needless_receivers(file, scope):
                    out.replace(file.path, *edit)
        return out


class NameMembersAlone(ClassRewrite):
    """Each file of the sources, unless its author says the object."""

    def steps(self, building: Building) -> Iterator[Step]:
        program, design = building.program, building.design
        if not program.language.bare_members or says_receiver(program):
            return
        for path in design.sources:
            made = [c.name for c in design.classes if not c.existing]
            held = program.holders.get(path)
            if held is not None and held.path == path and made:
                yield BareMembers(path, made)


def says_receiver(program: Program) -> bool:
    """Whether a program says the object in front of members where nothing asks for it."""
    own = re.escape(program.language.write.RECEIVER)
    told = re.compile(rf"\b{own}\.(\w+)(?!\s*=\s*\1\b)".encode())
    written = [f for file in program.files.values() for f in file.drafted or (file,)]  # by people, not by steps
    return any(told.search(f.text) for f in written)
