"""What a draft would propose, for those who only look so far: cuts of the main code, parts of classes (A4, A6)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..analysis.effects import Effects
from ..analysis.hazards import forbidding, hazards
from ..program.program import Program
from ..rewrites.inline_main.opened import inlined
from .extraction.extracted_classes import parts_in
from .extraction.long_methods import long_methods
from .extraction.main_loop_split import cuts, taken_by


@dataclass(frozen=True)
class ProposedMethod:
    """Lines, as a person sees them and both in, that would be a method of this name."""

    name: str
    first: int
    last: int
    of: str = ""  # the method of a class whose lines they are; of the main code, where it is empty


def proposed_cuts(program: Program, path: str, outsiders: Program | None = None) -> list[ProposedMethod]:
    """In source order; none where something forbids to touch the file."""
    language, o = program.language, None
    if (
        language.joined
        or program.files[path].problems
        or forbidding(hazards(program, path, outsiders), set()) is not None
    ):
        return []
    if outsiders is not None:
        o = inlined(program, path, outsiders)
    file = (o.program if o is not None else program).files[path]
    line = o.line if o is not None else int
    found = cuts(file, language, Effects(file, language), taken_by(file, language))
    others = [f for p in (program, outsiders) if p is not None for f in p.files.values() if f.path != path]
    found += long_methods(file, language, Effects(file, language), set(), others)
    return [
        ProposedMethod(p.name, line(file.stands(p.region.start)[1]), line(file.stands(p.region.end - 1)[1]), p.of)
        for p in found
    ]


def proposed_parts(program: Program, path: str, outsiders: Program | None = None) -> list[dict[str, Any]]:
    """Class, name, fields and methods of each, as a draft would have them."""
    return [
        {
            "class": p.of,
            "name": p.name,
            "fields": [o.local for f in p.fields for o in f.origins],
            "methods": [o.local for m in p.methods for o in m.origins],
        }
        for p in parts_in(program, path, outsiders, set(), set())
    ]
