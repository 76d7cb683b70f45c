"""The design file: TOML in and out, with every mistake of a hand edit reported at its line."""

from __future__ import annotations

import re
import tomllib
from typing import Any

import tomlkit
from tomlkit.items import AoT, Table

from ..program.errors import AedifexError
from ..program.model import Problem
from ..program.near import perhaps
from .tables import (
    ROLES,
    STARTS,
    ClassDesign,
    Design,
    FieldDesign,
    LiftDesign,
    MethodDesign,
    ObjectDesign,
    PartDesign,
    StayDesign,
    StreamDesign,
    WishDesign,
)

FORMAT = 1
KEYS: dict[str, dict[str, Any]] = {
    "": {"format": int, "language": str, "entries": list, "sources": dict, "class": list, "stay": list, "rename": list,
         "wish": list, "stream": list, "part": list, "lift": list},
    "class": {"name": str, "role": str, "file": str, "base": str, "extends": str, "why": list, "field": list, "method": list,
              "object": list},
    "class.field": {"name": str, "from": list, "start": str, "value": str, "type": str, "shared": bool, "hidden": bool},
    "class.method": {"name": str, "from": list, "lines": list, "drop": list, "add": list, "hidden": bool, "hook": bool},
    "class.object": {"name": str, "args": list, "owner": str, "collection": str},
    "stay": {"name": str, "file": str, "why": str},
    "rename": {"from": str, "to": str},
    "wish": {"together": list, "class": str, "keep": list},
    "stream": {"name": str, "from": list, "class": str, "file": str, "why": list},
    "part": {"name": str, "of": str, "object": str, "role": str, "file": str, "keep": list, "why": list, "field": list, "method": list},
    "lift": {"name": str, "of": str, "lines": list, "why": list},
    "part.field": {"name": str, "from": list, "hidden": bool},
    "part.method": {"name": str, "from": list, "hidden": bool},
}  # fmt: skip
NEEDED = {
    "": ("format", "language", "entries", "sources"),
    "class": ("name",),
    "class.field": ("name", "from"),
    "class.method": ("name",),
    "class.object": ("name",),
    "stay": ("name",),
    "rename": ("from", "to"),
    "stream": ("name", "from"),
    "lift": ("name", "of", "lines"),
    "part": ("name", "of", "object"),
    "part.field": ("name", "from"),
    "part.method": ("name", "from"),
}
MEMBERS = {"class": ("field", "method", "object"), "part": ("field", "method")}
TYPES = {int: "a number", str: "a text", list: "a list", dict: "a table", bool: "true or false"}


class Lines:
    """Where each table and key of a TOML text stands: (table, index, sub-table index) and key to line."""

    def __init__(self, text: str) -> None:
        self.found: dict[tuple[str, int, int, str], int] = {}
        table, outer, inner = "", -1, -1
        counts: dict[str, int] = {}
        for number, line in enumerate(without_long_texts(text).split("\n"), 1):
            header = re.match(r"\s*\[\[\s*([\w.]+)\s*\]\]", line)
            key = re.match(r"\s*([\w-]+)\s*=", line)
            if header:
                table = header[1]
                if "." in table:
                    inner = counts[table] = counts.get(table, -1) + 1
                else:
                    counts = {k: v for k, v in counts.items() if not k.startswith(table + ".")}
                    outer, inner = counts.get(table, -1) + 1, -1
                    counts[table] = outer
                self.found[(table, outer, inner, "")] = number
            elif re.match(r"\s*\[", line):
                pass
            elif key:
                self.found.setdefault((table, outer if table else -1, inner, key[1]), number)

    def of(self, table: str, outer: int = -1, inner: int = -1, key: str = "") -> int:
        return self.found.get((table, outer, inner, key)) or self.found.get((table, outer, inner, ""), 0)


LONG = re.compile(r"""\"\"\"(?:[^\\]|\\.)*?\"\"\"|'''.*?'''|"(?:[^"\\\n]|\\.)*"|'[^'\n]*'|\#[^\n]*""", re.S)


def without_long_texts(text: str) -> str:
    """A TOML text with nothing in its texts of several lines but their line ends."""
    return LONG.sub(lambda m: "\n" * m[0].count("\n") if m[0].startswith(('"""', "'''")) else m[0], text)


def parse(path: str, text: str) -> tuple[Design, Lines, list[Problem]]:
    """The design and the mistakes of form in it. Broken TOML raises AedifexError with the line."""
    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        match = re.search(r"\(at line (\d+), column \d+\)|\(at end of document\)", str(error))
        line = match[1] if match and match[1] else str(text.count("\n") + 1)
        reason = str(error).split(" (at ")[0].lower()
        raise AedifexError(f"{path}:{line}: is not valid TOML ({reason}); correct that line.") from None
    lines = Lines(text)
    problems = list(form(path, data, lines))
    design = build(data)
    return design, lines, sorted(problems, key=lambda p: p.line)


def form(path: str, data: dict[str, Any], lines: Lines) -> list[Problem]:
    """Unknown keys, missing keys and wrong types, in every table."""
    found: list[Problem] = []

    def check(table: str, value: dict[str, Any], outer: int = -1, inner: int = -1) -> None:
        for key, entry in value.items():
            line = lines.of(table, outer, inner, key)
            known = KEYS[table]
            if key not in known:
                found.append(Problem(path, line, f"unknown key '{key}'{perhaps(key, known) or '; known are ' + ', '.join(known)}"))
            elif not isinstance(entry, known[key]) or (known[key] is int and isinstance(entry, bool)):
                found.append(Problem(path, line, f"'{key}' must be {TYPES[known[key]]}"))
                value[key] = known[key]()
            elif known[key] is list and key not in (
                "class",
                "field",
                "method",
                "object",
                "stay",
                "rename",
                "wish",
                "stream",
                "part",
                "lift",
                "add",
            ):
                if not all(isinstance(e, str) for e in entry):
                    found.append(Problem(path, line, f"'{key}' must be a list of texts"))
                    value[key] = [str(e) for e in entry]
        for key in NEEDED.get(table, ()):
            if key not in value:
                name = f"[[{table}]]" if table else "the file"
                found.append(Problem(path, lines.of(table, outer, inner), f"'{key}' is missing in {name}"))

    check("", data)
    if data.get("format", FORMAT) != FORMAT:
        found.append(
            Problem(path, lines.of("", key="format"), f"format {data['format']} is not known; this is {FORMAT}")
        )
    for table in ("class", "stay", "rename", "wish", "stream", "part", "lift"):
        for index, entry in enumerate(tables(data, table)):
            check(table, entry, index)
            for part in MEMBERS.get(table, ()):
                for number, member in enumerate(tables(entry, part)):
                    check(f"{table}.{part}", member, index, number)
                    found += values(path, part, member, lines.of(f"{table}.{part}", index, number, "start"), lines, index, number)
            if table in ("class", "part") and entry.get("role", "model") not in ROLES:
                line = lines.of(table, index, -1, "role")
                found.append(Problem(path, line, f"role '{entry['role']}' is not one of {', '.join(ROLES)}"))
    return found


def tables(data: dict[str, Any], key: str) -> list[dict[str, Any]]:
    value = data.get(key, [])
    return [v for v in value if isinstance(v, dict)] if isinstance(value, list) else []


def values(
    path: str, part: str, member: dict[str, Any], line: int, lines: Lines, outer: int, inner: int
) -> list[Problem]:
    found = []
    if part == "field" and member.get("start", "fixed") not in STARTS:
        found.append(Problem(path, line, f"start '{member['start']}' is not one of {', '.join(STARTS)}"))
    for entry in member.get("add", []) if part == "method" and isinstance(member.get("add"), list) else []:
        if (
            not isinstance(entry, dict)
            or set(entry) != {"name", "value"}
            or not all(isinstance(v, str) for v in entry.values())
        ):
            at = lines.of("class.method", outer, inner, "add")
            found.append(Problem(path, at, 'each entry of \'add\' must be { name = "...", value = "..." }'))
    return found


def build(data: dict[str, Any]) -> Design:
    design = Design(data.get("language", ""), list(data.get("entries", [])), dict(data.get("sources", {})))
    for c in tables(data, "class"):
        made = ClassDesign(
            c.get("name", ""), c.get("role", "model"), c.get("file", ""), c.get("base", ""), c.get("extends", ""), list(c.get("why", []))
        )
        for f in tables(c, "field"):
            made.fields.append(
                FieldDesign(
                    f.get("name", ""), list(f.get("from", [])), f.get("start", ""), f.get("value", ""),
                    f.get("type", ""), f.get("shared", False), f.get("hidden", True), "hidden" in f,
                )
            )  # fmt: skip
        for m in tables(c, "method"):
            add = [a for a in m.get("add", []) if isinstance(a, dict) and {"name", "value"} <= set(a)]
            made.methods.append(
                MethodDesign(
                    m.get("name", ""), list(m.get("from", [])), list(m.get("lines", [])), list(m.get("drop", [])), add,
                    m.get("hidden", False), m.get("hook", False),
                )
            )  # fmt: skip
        for o in tables(c, "object"):
            made.objects.append(
                ObjectDesign(o.get("name", ""), list(o.get("args", [])), o.get("owner", ""), o.get("collection", ""))
            )
        design.classes.append(made)
    design.stays = [StayDesign(s.get("name", ""), s.get("why", ""), s.get("file", "")) for s in tables(data, "stay")]
    design.renames = [(r.get("from", ""), r.get("to", "")) for r in tables(data, "rename")]
    design.wishes = [
        WishDesign(list(w.get("together", [])), w.get("class", ""), list(w.get("keep", [])))
        for w in tables(data, "wish")
    ]
    design.lifts = [LiftDesign(x.get("name", ""), x.get("of", ""), list(x.get("lines", [])), list(x.get("why", []))) for x in tables(data, "lift")]
    design.parts = [built_part(p) for p in tables(data, "part")]
    design.streams = [
        StreamDesign(s.get("name", ""), list(s.get("from", [])), s.get("class", ""), s.get("file", ""), list(s.get("why", [])))
        for s in tables(data, "stream")
    ]
    return design


def built_part(p: dict[str, Any]) -> PartDesign:
    made = PartDesign(p.get("name", ""), p.get("of", ""), p.get("object", ""), p.get("role", "model"), p.get("file", ""), list(p.get("keep", [])), list(p.get("why", [])))
    made.fields = [FieldDesign(f.get("name", ""), list(f.get("from", [])), hidden=f.get("hidden", True)) for f in tables(p, "field")]
    made.methods = [MethodDesign(m.get("name", ""), list(m.get("from", [])), hidden=m.get("hidden", False)) for m in tables(p, "method")]
    return made


def part_table(p: PartDesign) -> Table:
    entry = table({"of": p.of, "object": p.object}, name=p.name, role=p.role, file=p.file, keep=p.keep)
    if p.why:
        entry.add("why", tomlkit.item(p.why).multiline(True))
    fields = [table({"from": f.origins}, name=f.name) for f in p.fields]
    for made, f in zip(fields, p.fields, strict=True):
        if not f.hidden:
            made.add("hidden", tomlkit.item(False))
    add_tables(entry, "field", fields)
    add_tables(entry, "method", [table({"from": m.origins}, name=m.name, hidden=m.hidden) for m in p.methods])
    return entry


def to_toml(design: Design) -> str:
    """The design as a person reads it; keys that say nothing are left out."""
    doc = tomlkit.document()
    doc.add("format", tomlkit.item(FORMAT))
    doc.add("language", tomlkit.item(design.language))
    doc.add("entries", tomlkit.item(design.entries))
    sources = tomlkit.inline_table()
    sources.update(design.sources)
    doc.add("sources", sources)
    classes = tomlkit.aot()
    for c in design.classes:
        entry = table(name=c.name, role=c.role, file=c.file, base=c.base, extends=c.extends)
        if c.why:
            entry.add("why", tomlkit.item(c.why).multiline(True) if len(c.why) > 1 else tomlkit.item(c.why))
        fields = [
            table({"from": f.origins}, name=f.name, start=f.start, value=f.value, type=f.type, shared=f.shared)
            for f in c.fields
        ]
        for made, f in zip(fields, c.fields, strict=True):
            if not f.hidden:
                made.add("hidden", tomlkit.item(False))
        add_tables(entry, "field", fields)
        methods = []
        for m in c.methods:
            made = table({"from": m.origins}, name=m.name, lines=m.lines, drop=m.drop, hidden=m.hidden, hook=m.hook)
            if m.add:
                array = tomlkit.array()
                for a in m.add:
                    inline = tomlkit.inline_table()
                    inline.update(a)
                    array.append(inline)
                made.add("add", array)
            methods.append(made)
        add_tables(entry, "method", methods)
        add_tables(
            entry,
            "object",
            [table(name=o.name, args=o.args, owner=o.owner, collection=o.collection) for o in c.objects],
        )
        classes.append(entry)
    doc.add("class", classes) if design.classes else None
    add_tables(doc, "lift", [table(name=x.name, of=x.of, lines=x.lines, why=x.why) for x in design.lifts])
    add_tables(doc, "part", [part_table(p) for p in design.parts])
    add_tables(doc, "stream", [table({"from": s.origins, "class": s.class_}, name=s.name, file=s.file, why=s.why) for s in design.streams])
    add_tables(doc, "rename", [table({"from": a}, to=b) for a, b in design.renames])
    add_tables(doc, "stay", [table(name=s.name, file=s.file, why=s.why) for s in design.stays])
    add_tables(doc, "wish", [table({"class": w.class_}, together=w.together, keep=w.keep) for w in design.wishes])
    return "\n".join(line.rstrip(" \t") for line in tomlkit.dumps(doc).rstrip("\n").split("\n")) + "\n"


def table(named: dict[str, Any] | None = None, **keys: Any) -> Table:
    made = tomlkit.table()
    order = [("name", keys.pop("name"))] if "name" in keys else []
    for key, value in [*order, *(named or {}).items(), *keys.items()]:
        if value not in ("", [], False):
            made.add(key, tomlkit.item(value))
    return made


def add_tables(parent: Any, key: str, entries: list[Table]) -> None:
    if entries:
        array: AoT = tomlkit.aot()
        for entry in entries:
            array.append(entry)
        parent.add(key, array)
