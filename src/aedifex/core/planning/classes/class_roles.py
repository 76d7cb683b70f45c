"""What kind of thing a class is (B2), and which lines do what such a thing should leave to others."""

from __future__ import annotations

from collections.abc import Sequence

from ...analysis.concerns import Concerns
from ...analysis.effects import Effects
from ...design.tables import ClassDesign
from ...program.language import Language
from ...program.model import Function, SourceFile, Symbol

SHOWING = frozenset(["drawing", "console"])
SAYS = {
    "console": ("talks", "to the console"),
    "drawing": ("draws", ""),
    "sound": ("makes", "sound"),
    "files": ("works", "on files"),
    "database": ("asks", "the database"),
    "network": ("uses", "the network"),
    "input": ("asks", "for input"),
    "timing": ("looks", "at the clock"),
}
OTHERS = {
    "model": ("console", "drawing", "sound", "input", "network"),
    "view": ("files", "database", "network"),
    "service": ("console", "drawing"),
    "handle": ("drawing", "console"),
}
MAX_LINES_NAMED = 6  # lines that a reason names


class Roles:
    """What kind of thing a class is, from what its functions do."""

    def __init__(
        self, file: SourceFile, language: Language, effects: Effects, concerns: Concerns, registered: set[Symbol | None]
    ) -> None:
        self.file, self.language, self.effects, self.concerns = file, language, effects, concerns
        self.registered = registered

    def role(self, functions: Sequence[Function], variables: Sequence[Symbol], devices: set[Symbol]) -> str:
        """The role of a class that is made of these."""
        if not functions:
            return "model"
        sets = [self.effects.direct(f.start, f.end).writes & set(variables) for f in functions]
        seen = [SHOWING & set(self.concerns.whole(f.start, f.end)) for f in functions]
        if variables and set(variables) <= devices:
            return "handle"
        if sum(f.symbol in self.registered for f in functions) * 2 > len(functions):
            return "controller"
        if all(seen) and sum(bool(s) for s in sets) * 2 <= len(functions):
            return "view"
        return "model" if variables and (any(sets) or self.set_elsewhere(variables)) else "service"

    def set_elsewhere(self, variables: Sequence[Symbol]) -> bool:
        return any(len(s.bindings) > 1 or any(r.mutates for r in s.references) for s in variables)

    def broken(self, design: ClassDesign, functions: Sequence[Function]) -> list[str]:
        """Sentences on the lines that do what the role should leave to others."""
        found = []
        for concern in OTHERS.get(design.role, ()):
            lines = sorted(
                {
                    self.file.shown(at)
                    for f in functions
                    for c, at in self.concerns.direct(f.start, f.end)
                    if c == concern
                }
            )
            if lines:
                listed = ", ".join(map(str, lines[:MAX_LINES_NAMED])) + (
                    " and others" if len(lines) > MAX_LINES_NAMED else ""
                )
                verb, rest = SAYS[concern]
                said = f"lines {listed} {verb.removesuffix('s')}" if len(lines) > 1 else f"line {listed} {verb}"
                found.append(f"{said} {rest}".rstrip() + f", which a {design.role} should leave to those that use it")
        return found
