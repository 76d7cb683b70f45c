"""Functions that a decoration registers are registered by a call instead, so that they can become methods (C8).

@window.event                       def on_draw():
def on_draw():                →         ...
    ...                             window.set_handler("on_draw", on_draw)

Only where the library gives the function back as it is. Used by the draft and by the step.
"""

from __future__ import annotations

from ...design.tables import ClassDesign
from ...program.edits import Range, applied
from ...program.program import Program, reread


def unfoldings(program: Program, path: str) -> list[Range]:
    """The edits in a file; none where its language has no such registrations."""
    frameworks = program.language.frameworks
    return frameworks.unfolded(program.files[path]) if frameworks is not None else []


def unfolded(program: Program, path: str) -> Program:
    """The program with the functions of a file registered by calls."""
    edits, file = unfoldings(program, path), program.files[path]
    return reread(program, {path: applied(file.text, edits, file.encoding)}) if edits else program


def propose_extension(c: ClassDesign, program: Program, path: str) -> None:
    """Let a class extend what one of its fields holds, if a library calls methods of that by their names and nothing is
    in the way."""
    frameworks, write, file = program.language.frameworks, program.language.write, program.files[path]
    named = {write.hidden(m.name) if m.hidden else m.name: {o.local for o in m.origins} for m in c.methods}
    found = []
    for f in c.fields if frameworks is not None else ():
        symbol = file.scope.symbols.get(f.origins[0].local) if len(f.origins) == 1 and f.start != "later" else None
        kind = frameworks.extendable(file, symbol, named) if symbol is not None and frameworks is not None else None
        found += [(f, kind)] if kind is not None else []
    if len(found) != 1:
        return
    ((field, kind),) = found
    c.extends = field.name
    c.why.append(
        f"the library calls methods of what {field.origins[0].local} holds, so the class can extend {kind.name} and "
        "have them as its own"
    )
    for other in c.fields:
        if (
            other is not field
            and (write.hidden(other.name) if other.hidden else other.name) in kind.members | kind.hooks
        ):
            other.name = write.member_name(["own", *write.words(other.name)], other.name)
