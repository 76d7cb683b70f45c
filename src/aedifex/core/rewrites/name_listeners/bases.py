"""What a class inherits, as far as it matters to new members of it."""

from __future__ import annotations

from ...program.model import Scope, SourceFile
from ...program.program import Program


def base_trouble(program: Program, file: SourceFile, scope: Scope) -> str:
    """Why no member can be added to a class; "" if one can."""
    listening = program.language.listening
    if listening is None:
        return "its language has no listeners"
    if why := listening.fixed(file, scope):
        return why
    base = listening.base_of(file, scope)
    if not base or listening.library_has(file, base, "") is not None:
        return ""
    above = class_called(program, base, scope)
    return base_trouble(program, *above) if above is not None else f"what its base {base} has is not known"


def inherits(program: Program, file: SourceFile, scope: Scope, name: str) -> bool:
    """Whether the base of a class has a member of this name."""
    listening = program.language.listening
    base = listening.base_of(file, scope) if listening is not None else ""
    if listening is None or not base:
        return False
    known = listening.library_has(file, base, name)
    above = class_called(program, base, scope)
    if known is not None or above is None:
        return known is not False
    return name in above[1].symbols or name in above[0].stored_members or inherits(program, *above, name)


def class_called(program: Program, name: str, but: Scope) -> tuple[SourceFile, Scope] | None:
    """The one class of the program that has a name; None if there is none, or several."""
    last = name.rpartition(".")[2]
    found = [(f, s) for f in program.files.values() for s, n in f.classes if n == last and s is not but]
    return found[0] if len(found) == 1 else None
