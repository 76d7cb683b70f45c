"""Designs after a rename: the names, files and digests of which they speak."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import tomlkit

from ..design.tables import bare
from ..program.program import Program
from ..program.surroundings import digest


def every(values: list[str], change: Callable[[str], str]) -> None:
    """Change the texts of a list in its place."""
    for i, v in enumerate(values):
        if change(v) != v:
            values[i] = change(v)


def follow_owners(doc: Any, head: str, last: str, new: str, moved: dict[str, str]) -> None:
    """The tables that name a class, one of its members, or lines of a file. ``head``: the class of the member ``last``,
    or ""."""

    def holder(value: str) -> str:
        owner, dot, member = value.partition(".")
        if head and owner == head and member == last:
            return f"{owner}.{new}"
        return f"{new}{dot}{member}" if not moved and not head and owner == last else value

    for p in doc.get("part", []):
        if head and p.get("of") == head:
            for member in [*p.get("field", []), *p.get("method", [])]:
                every(member.get("from", []), lambda v: new if v == last else v)
            every(p.get("keep", []), lambda v: new if v == last else v)
        p["of"] = holder(p.get("of", ""))
    for x in doc.get("lift", []):
        x["of"] = holder(x.get("of", ""))
    for x in [*doc.get("lift", []), *(m for c in doc.get("class", []) for m in c.get("method", []))]:
        every(
            x.get("lines", []),
            lambda v: moved.get(v.partition(":")[0], v.partition(":")[0]) + ":" + v.partition(":")[2],
        )
    for stream in doc.get("stream", []):
        if not head and stream.get("name") == new:
            stream["name"] = f"{new}_2"  # the name that it was going to have is taken by now


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

    for c in doc.get("class", []):
        for member in [*c.get("field", []), *c.get("method", [])]:
            every(member.get("from", []), name)
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
            every(entry.get("together", []), name)
            every(entry.get("keep", []), name)
    follow_owners(doc, head, last, new, moved)
    every(doc.get("entries", []), lambda v: moved.get(v, v))
    sources = doc["sources"]
    for source in list(sources):
        now = moved.get(source, source)
        if now in after.texts:
            if now != source:
                del sources[source]
            sources[now] = digest(after.texts[now])
    return tomlkit.dumps(doc)
