"""The cuts that a draft would propose for the main code, for those who only look at it so far (A4)."""

from __future__ import annotations

from dataclasses import dataclass

from ..program.model import Program
from ..survey.effects import Effects
from ..survey.hazards import forbidding, hazards
from .cuts import cuts, taken_by
from .opened import opened


@dataclass(frozen=True)
class Cut:
    """Lines, as a person sees them and both in, that would be a method of this name."""

    name: str
    first: int
    last: int


def proposed_cuts(program: Program, path: str, outsiders: Program | None = None) -> list[Cut]:
    """In source order; none where something forbids to touch the file."""
    language, o = program.language, None
    if language.joined or program.files[path].problems or forbidding(hazards(program, path, outsiders), set()) is not None:
        return []
    if outsiders is not None:
        o = opened(program, path, outsiders)
    file = (o.program if o is not None else program).files[path]
    line = o.line if o is not None else int
    found = cuts(file, language, Effects(file, language), taken_by(file, language))
    return [Cut(p.name, line(file.shown(p.region.start)), line(file.shown(p.region.end - 1))) for p in found]
