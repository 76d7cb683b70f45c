"""Designs after a rename: the names, files and digests of which they speak."""

from __future__ import annotations

from collections.abc import Callable

import tomlkit

from ..draft.design import Design, bare
from ..draft.designfile import parse, to_toml
from ..draft.drafter import digest, read_neighbours
from ..program.language import reread
from ..program.model import Program
from .edits import Overlap
from .step import Context, Refusal
from .steps.rename import Rename


def renamed(design: Design, program: Program) -> tuple[list[Rename], Design, Program]:
    """The renames of a design as steps, and design and program as the other steps need them: after those that can be done."""
    if not design.renames:
        return [], design, program
    outsiders = read_neighbours(program)
    steps = [Rename(old, new, outsiders=outsiders) for old, new in design.renames]
    for step in steps:
        try:
            changes = step.apply(Context(program, design)).apply(program.files)
        except Refusal as refusal:
            step.refused = refusal  # whatever stands when its turn comes
            continue
        except Overlap as overlap:
            step.refused = Refusal(str(overlap))
            continue
        after = reread(program, changes)
        text = follow(to_toml(design), program, after, step.old, step.new)
        design, program = parse("", text)[0], after
    return steps, design, program


def follow(text: str, program: Program, after: Program, old: str, new: str) -> str:
    """The text of a design after a rename: names, files, and the digests of the sources."""
    path, _, dotted = old.rpartition("::")
    head, _, last = dotted.rpartition(".")
    moved = {old: new} if old in program.texts else {}
    doc = tomlkit.parse(text)

    def name(value: str) -> str:
        place, mark, word = value.rpartition("::")
        place = moved.get(place, place)
        if not moved and not head and word == last and place in ("", path or place):
            word = new
        return f"{place}{mark}{word}"

    def every(values: list[str], change: Callable[[str], str] = name) -> None:
        for i, v in enumerate(values):
            if change(v) != v:
                values[i] = change(v)

    for c in doc.get("class", []):
        for member in [*c.get("field", []), *c.get("method", [])]:
            every(member.get("from", []))
            if head and head in [bare(o) for o in member.get("from", [])]:
                every(member.get("drop", []), lambda v: new if v == last else v)
            for add in member.get("add", []):
                same = add["name"] == bare(add["value"])
                add["value"] = name(add["value"])
                add["name"] = bare(add["value"]) if same else add["name"]
    for key in ("stay", "wish", "rename"):
        for entry in doc.get(key, []):
            for part in ("name", "from"):
                if part in entry and name(entry[part]) != entry[part]:
                    entry[part] = name(entry[part])
            every(entry.get("together", []))
            every(entry.get("keep", []))
    every(doc.get("entries", []), lambda v: moved.get(v, v))
    sources = doc["sources"]
    for source in list(sources):
        now = moved.get(source, source)
        if now in after.texts:
            if now != source:
                del sources[source]
            sources[now] = digest(after.texts[now])
    return tomlkit.dumps(doc)
