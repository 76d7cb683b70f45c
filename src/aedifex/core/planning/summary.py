"""A design in sentences: what becomes of each class, and of each name."""

from __future__ import annotations

from ..design.origin import local_name
from ..design.tables import ClassDesign, Design


def summary(design: Design) -> list[str]:
    """One sentence a class, and one on what stays."""
    lines = [sentence(c) for c in design.classes]
    lines += [
        f"{p.name}, a part of {p.of}: {len(p.fields)} fields, {len(p.methods)} methods; kept as {p.object}"
        + (f" in {p.file}" if p.file else "")
        for p in design.parts
    ]
    for of in dict.fromkeys(x.of for x in design.lifts):
        lines.append(f"{of}: lines of it become {', '.join(x.name for x in design.lifts if x.of == of)}")
    if not lines:
        chief = [s for s in design.stays if s.name == "main" or s.why.startswith(("what it holds", "its listeners"))]
        telling = chief or sorted(
            (s for s in design.stays if s.why != "constant"), key=lambda s: "by its name" in s.why
        )
        why = "there is no state to hold"
        if telling:
            why = (
                telling[0].why
                if telling[0].why.startswith("the main code")
                else f"{local_name(telling[0].name)} stays, because {telling[0].why}"
            )
        lines.append(f"No class is proposed: {why}.")
    return lines


def sentence(c: ClassDesign) -> str:
    objects = [o.name for o in c.objects]
    parts = [
        f"{len(c.fields)} field{'s' * (len(c.fields) != 1)}",
        f"{len(c.methods)} method{'s' * (len(c.methods) != 1)}",
    ]
    where = f" in {c.file}" if c.file else ""
    if c.existing:
        return f"{c.name} stands already and gains {parts[1]}" + (f"; it moves to {c.file}" if c.file else "")
    if c.wraps:
        held = ", ".join(dict.fromkeys(o.name for o in c.wraps))
        return f"{c.name} ({c.role}): {', '.join(parts)}; it holds what {held} held{where}"
    return (
        f"{c.name} ({c.role}): {', '.join(parts)}; object{'s' * (len(objects) != 1)} "
        f"{', '.join(objects) or 'none'}{where}"
    )


def fate(design: Design, name: str) -> list[str]:
    """What a design makes of a name, as sentences; empty if it says nothing of it."""
    found = []
    for c in design.classes:
        for f in c.fields:
            if name in [o.variable for o in f.origins]:
                found.append(f"becomes the field '{f.name}' of {c.name} ({f.start})")
        if name in [o.variable for o in c.wraps] + [o.name for o in c.wraps if not o.holder]:
            found.append(f"holds an object of {c.name} from then on, which holds what it held")
        for m in c.methods:
            if name in [o.local for o in m.origins]:
                more = f", without {', '.join(m.drop)}" if m.drop else ""
                more += f", with {', '.join(a['name'] for a in m.add)} passed in" if m.add else ""
                found.append(f"becomes the method '{m.name}' of {c.name}{more}")
        if found and c.why:
            telling = [w for w in c.why if name.rpartition(".")[2] in w.replace(",", " ").split()] or c.why
            found.append(f"because {telling[0]}")
            break
    for s in design.stays:
        if local_name(s.name) == name:
            found.append(f"stays: {s.why}" + (f" (moves to {s.file} with its readers)" if s.file else ""))
    return found
