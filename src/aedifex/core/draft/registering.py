"""Functions that a decoration registers are registered by a call instead, so that they can become methods (C8).

@window.event                       def on_draw():
def on_draw():                →         ...
    ...                             window.set_handler("on_draw", on_draw)

Only where the library gives the function back as it is. Used by the draft and by the step.
"""

from __future__ import annotations

from ..program.language import reread
from ..program.model import Program
from .design import ClassDesign, bare
from .records import Range, applied


def unfoldings(program: Program, path: str) -> list[Range]:
    """The edits in a file; none where its language has no such registrations."""
    frameworks = program.language.frameworks
    return frameworks.unfolded(program.files[path]) if frameworks is not None else []


def unfolded(program: Program, path: str) -> Program:
    """The program with the functions of a file registered by calls."""
    edits, file = unfoldings(program, path), program.files[path]
    return reread(program, {path: applied(file.text, edits, file.encoding)}) if edits else program


def extend(c: ClassDesign, program: Program, path: str) -> None:
    """Let a class extend what one of its fields holds, if a library calls methods of that by their names and nothing is in the way."""
    frameworks, write, file = program.language.frameworks, program.language.write, program.files[path]
    for f in c.fields if frameworks is not None else ():
        symbol = file.scope.symbols.get(bare(f.origins[0])) if len(f.origins) == 1 else None
        kind = frameworks.of(file, symbol) if symbol is not None and frameworks is not None else None
        if symbol is None or kind is None or frameworks is None:
            continue
        called = {function for event, function in frameworks.registered(file, symbol).items() if event in kind.hooks}
        named = {write.hidden(m.name) if m.hidden else m.name: {bare(o) for o in m.origins} for m in c.methods}
        taken = kind.members | kind.hooks
        if any(origins & called for origins in named.values()) and not any(n in taken and not origins & called for n, origins in named.items()):
            c.extends = f.name
            c.why.append(f"the library calls what is registered with {symbol.name} by event, so the class can extend {kind.name} and have it as its methods")
            for other in [o for o in c.fields if o is not f and (write.hidden(o.name) if o.hidden else o.name) in taken]:
                other.name = f"own_{other.name}"
            return
