"""The design file: TOML in and out, with every mistake of a hand edit reported at its line."""

from __future__ import annotations

import re
import tomllib
from pathlib import Path
from typing import Any, cast

import tomlkit
from tomlkit.items import Item, Table

from ..program.errors import AedifexError
from ..program.refusal import Refusal
from .lines import Lines
from .schema import FORMAT, Column, columns, form_mistakes, read_table, written_value
from .tables import Design

SCHEMA = "aedifex.design.schema.json"
SHIPPED = Path(__file__).with_name(SCHEMA)
HEADER = (
    f":schema .aedifex/{SCHEMA}",
    " What the program is to become. Edit it, look at it (aedifex preview), then build it (aedifex build).",
    " To rename, change 'name'. To leave something out, delete its table. To give a field or method to another "
    "class, move its table there.",
    " 'from' and 'lines' speak of the sources as they were drafted; 'why' is for readers only.",
)


def parse(path: str, text: str) -> tuple[Design, Lines, list[Refusal]]:
    """The design and the mistakes of form in it. Broken TOML raises AedifexError with the line."""
    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        match = re.search(r"\(at line (\d+), column \d+\)|\(at end of document\)", str(error))
        line = match[1] if match and match[1] else str(text.count("\n") + 1)
        reason = str(error).split(" (at ")[0].lower()
        raise AedifexError(f"{path}:{line}: is not valid TOML ({reason}); correct that line.") from None
    lines = Lines(text)
    problems = form_mistakes(path, data, lines)
    design: Design = read_table(Design, data)
    return design, lines, sorted(problems, key=lambda p: p.line)


def to_toml(design: Design) -> str:
    """The design as a person reads it: keys that say nothing are left out, the first of each kind says what may stand
    there."""
    doc = tomlkit.document()
    for line in HEADER:
        doc.add(tomlkit.items.Comment(tomlkit.items.Trivia(comment=f"#{line}")))
    doc.add("format", tomlkit.item(FORMAT))
    fill(doc, design, columns(Design), set())
    return "\n".join(line.rstrip(" \t") for line in tomlkit.dumps(doc).rstrip("\n").split("\n")) + "\n"


def fill(made: Any, table: Any, known: dict[str, Column], told: set[str]) -> None:
    """``told``: the keys whose values are said already."""
    for c in known.values():
        value = written_value(c, getattr(table, c.attribute))
        if c.key.of is not None:
            rows = tomlkit.aot()
            for row in value:
                entry: Table = tomlkit.table()
                fill(entry, row, columns(c.key.of, c.key.only), told)
                rows.append(entry)
            if value:
                made.add(c.name, rows)
        elif value not in ("", [], {}) and not (isinstance(value, bool) and value is c.default):
            item = item_of(c, value)
            if c.key.choices and c.name not in told:
                told.add(c.name)
                item.comment(" | ".join(c.key.choices))
            made.add(c.name, item)


def item_of(c: Column, value: Any) -> Item:
    if c.kind is dict:
        inline = tomlkit.inline_table()
        inline.update(value)
        return inline
    if c.key.entries:
        array = tomlkit.array()
        for row in value:
            entry = tomlkit.inline_table()
            entry.update(row)
            array.append(entry)
        return array
    item = tomlkit.item(value)
    return cast(Item, item.multiline(True)) if c.name == "why" and isinstance(value, list) and len(value) > 1 else item
