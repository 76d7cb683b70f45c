"""Which variables of the original are watched in every run, and which field replaces each: plain data for the check."""

from __future__ import annotations

from typing import Any

from ..analysis.effects import module_variables
from ..design.origin import Origin
from ..design.tables import Design
from ..program.program import Program
from ..rewrites.record_class.rewrite import is_keyed

MAX_VARIABLES = 400  # variables of one program


def watched(design: Design, original: Program) -> list[dict[str, Any]]:
    """A row for each variable: name, file, function, variable, and for one that moves its object, class and members.

    The rows are the same whatever steps stand: a variable is looked for where it was, then where the design puts it.
    """
    rows: dict[tuple[str, str, str], dict[str, Any]] = {}
    twice = len(original.files) > 1
    gone = {r.old.local for r in design.renames}  # not found by its old name any more
    listed = [c for c in design.classes if any(o.collection for o in c.objects)]
    gone |= {o.local for c in listed for f in c.fields for o in f.origins}  # items are objects now
    gone |= {o.collection for c in listed for o in c.objects}
    gone |= {o.local for c in design.classes for f in c.fields if f.shared for o in f.origins}  # no object's own
    gone |= {
        o.local for c in design.classes for f in c.fields if f.name == c.extends for o in f.origins
    }  # the object itself
    gone |= {
        f.origins[i].local
        for c in design.classes
        for i, o in enumerate(c.objects)
        for f in c.fields
        if f.origins[i : i + 1] and f.origins[i].local == o.name
    }
    if any(is_keyed(c) for c in design.classes):
        gone |= {
            n for f in original.files.values() for k in original.language.keyed(f) if k.trouble is None for n in k.names
        }
    for path, file in original.files.items():
        for symbol in module_variables(file):
            if not symbol.kinds - {"variable"} and len(rows) < MAX_VARIABLES and symbol.name not in gone:
                name = f"{path}::{symbol.name}" if twice else symbol.name
                rows[path, "", symbol.name] = {"name": name, "file": path, "function": "", "variable": symbol.name}
    hidden = original.language.write.hidden
    for c in design.classes:
        for index, made in enumerate(c.objects):
            for member, origin in c.origins(index) if not made.collection else ():
                if origin.key or origin.local in gone:
                    continue
                path = origin.file or c.source or home_file(origin, original)
                function, variable = origin.holder, origin.name
                row = rows.setdefault(
                    (path, function, variable),
                    {"name": origin.local, "file": path, "function": function.split(".")[-1], "variable": variable},
                )
                row |= {"object": made.name, "class": c.name, "members": (hidden(member.name), member.name)}
                row |= {"list": c.kept_in, "index": index} if c.kept_in else {}
    return list(rows.values())


def home_file(origin: Origin, program: Program) -> str:
    """The file that a bare name of a design means."""
    name = origin.local.split(".")[0]
    return next((p for p, f in program.files.items() if name in f.scope.symbols), next(iter(program.files)))
