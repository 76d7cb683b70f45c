"""Reading, writing and checking the form of design tables, and their JSON Schema: all from the dataclasses of
``tables``."""

from __future__ import annotations

import dataclasses
import typing
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any

from ..program.near import perhaps
from ..program.refusal import Refusal
from . import messages
from .keys import KEY, Key
from .lines import Lines
from .origin import Origin
from .tables import Design

FORMAT = 1
KINDS = {str: "a text", list: "a list", dict: "a table", bool: "true or false", int: "a number"}
Data = dict[str, Any]


@dataclass(frozen=True)
class Column:
    """One key of a table: ``attribute`` of its dataclass, ``kind`` of its value."""

    name: str
    attribute: str
    kind: type
    default: Any
    key: Key
    origin: bool  # whether what is written there speaks of the sources, and is read as an Origin


@cache
def columns(table: type, only: tuple[str, ...] = ()) -> dict[str, Column]:
    """The keys of a table by their name in the file, in the order in which they are written."""
    hints = typing.get_type_hints(table)
    found = {}
    for f in dataclasses.fields(table):
        if KEY not in f.metadata:
            continue
        key: Key = f.metadata[KEY]
        name = key.name or f.name
        hint = hints[f.name]
        origin = Origin in (hint, *typing.get_args(hint))
        kind = str if hint is Origin else typing.get_origin(hint) or hint
        default = f.default if f.default is not dataclasses.MISSING else kind()
        if not only or name in only:
            found[name] = Column(name, f.name, kind, default, key, origin)
    return found


def needed_keys(table: type, required: tuple[str, ...]) -> list[str]:
    return [c.name for c in columns(table).values() if c.key.needed or c.name in required]


# -- reading -------------------------------------------------------------------------------------


def rows_of(data: Data, name: str) -> list[Data]:
    """The tables of a name; what is none is told by ``form_mistakes``."""
    value = data.get(name, [])
    return [v for v in value if isinstance(v, dict)] if isinstance(value, list) else []


def read_table(table: type, data: Data, only: tuple[str, ...] = ()) -> Any:
    """A table as its dataclass; keys that are not there have their defaults."""
    given: Data = {}
    for c in columns(table, only).values():
        if c.key.of is not None:
            given[c.attribute] = [read_table(c.key.of, row, c.key.only) for row in rows_of(data, c.name)]
        elif c.key.entries:
            given[c.attribute] = [row for row in rows_of(data, c.name) if set(c.key.entries) <= set(row)]
        else:
            value = data.get(c.name, c.default)
            given[c.attribute] = read_value(c, value)
        if c.key.said:
            given[c.key.said] = c.name in data
    return table(**given)


def read_value(c: Column, value: Any) -> Any:
    """A value as its dataclass has it."""
    if c.origin:
        return [Origin.parse(v) for v in value] if c.kind is list else Origin.parse(value)
    return c.kind(value) if c.kind in (list, dict) else value


def written_value(c: Column, value: Any) -> Any:
    """A value as the file has it."""
    if c.origin:
        return [str(v) for v in value] if c.kind is list else str(value)
    return value


# -- mistakes of form ----------------------------------------------------------------------------


def form_mistakes(path: str, data: Data, lines: Lines) -> list[Refusal]:
    """Unknown keys, missing keys, wrong types and values in every table; what has the wrong type is put right in
    ``data``, so that the rest can be read."""
    found = list(table_mistakes(path, Design, data, lines, "", -1, -1))
    if "format" not in data:
        found.append(messages.NO_FORMAT.in_file(path, lines.of(""), format=FORMAT))
    elif not isinstance(data["format"], int) or isinstance(data["format"], bool):
        found.append(messages.OTHER_TYPE.in_file(path, lines.of("", key="format"), key="format", kind=KINDS[int]))
    elif data["format"] != FORMAT:
        found.append(
            messages.OTHER_FORMAT.in_file(path, lines.of("", key="format"), given=data["format"], format=FORMAT)
        )
    return found


def table_mistakes(
    path: str,
    table: type,
    data: Data,
    lines: Lines,
    name: str,
    outer: int,
    inner: int,
    only: tuple[str, ...] = (),
    required: tuple[str, ...] = (),
) -> Iterator[Refusal]:
    """``name``: of the table as headers have it, ``class.field``; ``outer``, ``inner``: its number and that in the
    table that holds it."""
    known = columns(table, only)
    names = [*(["format"] if not name else []), *known]
    for key, value in data.items():
        line = lines.of(name, outer, inner, key)
        if key not in names:
            yield messages.UNKNOWN_KEY.in_file(
                path, line, key=key, hint=perhaps(key, names).removeprefix("; ") or f"known are {', '.join(names)}"
            )
        elif key in known:
            yield from value_mistakes(path, line, known[key], data, value)
    for key in needed_keys(table, required):
        if key not in data:
            yield messages.MISSING_KEY.in_file(
                path, lines.of(name, outer, inner), key=key, table=f"[[{name}]]" if name else "the file"
            )
    for c in known.values():
        for number, row in enumerate(rows_of(data, c.name) if c.key.of is not None else ()):
            place = (number, -1) if not name else (outer, number)
            assert c.key.of is not None
            yield from table_mistakes(
                path, c.key.of, row, lines, f"{name}.{c.name}".lstrip("."), *place, c.key.only, c.key.required
            )


def value_mistakes(path: str, line: int, c: Column, data: Data, value: Any) -> Iterator[Refusal]:
    kind: Any = c.kind
    if not isinstance(value, kind):
        yield messages.OTHER_TYPE.in_file(path, line, key=c.name, kind=KINDS[c.kind])
        data[c.name] = kind()
    elif c.key.entries:
        form = ", ".join(f'{n} = "..."' for n in c.key.entries)
        for entry in value:
            if (
                not isinstance(entry, dict)
                or set(entry) != set(c.key.entries)
                or not all(isinstance(v, str) for v in entry.values())
            ):
                yield messages.OTHER_ENTRY.in_file(path, line, key=c.name, form=f"{{ {form} }}")
    elif c.kind is list and c.key.of is None and not all(isinstance(e, str) for e in value):
        yield messages.OTHER_TYPE.in_file(path, line, key=c.name, kind="a list of texts")
        data[c.name] = [str(e) for e in value]
    elif c.key.choices and value not in c.key.choices and value != c.default:
        yield messages.OTHER_VALUE.in_file(path, line, key=c.name, value=value, choices=", ".join(c.key.choices))


# -- for editors ---------------------------------------------------------------------------------


def json_schema() -> Data:
    """The design file as a JSON Schema, which editors of TOML read too."""
    made = schema_of(Design, (), ("format",))
    made["properties"] = {"format": {"type": "integer", "const": FORMAT}, **made["properties"]}
    return {"$schema": "http://json-schema.org/draft-07/schema#", "title": "The design of an Aedifex build", **made}


def schema_of(table: type, only: tuple[str, ...], required: tuple[str, ...]) -> Data:
    properties: Data = {}
    for c in columns(table, only).values():
        if c.key.of is not None:
            made: Data = {"type": "array", "items": schema_of(c.key.of, c.key.only, c.key.required)}
        elif c.key.entries:
            entry = {
                "type": "object",
                "properties": {n: {"type": "string"} for n in c.key.entries},
                "required": list(c.key.entries),
                "additionalProperties": False,
            }
            made = {"type": "array", "items": entry}
        elif c.kind is dict:
            made = {"type": "object", "additionalProperties": {"type": "string"}}
        elif c.kind is list:
            made = {"type": "array", "items": {"type": "string"}}
        else:
            made = {"type": "boolean", "default": c.default} if c.kind is bool else {"type": "string"}
            made |= {"enum": list(c.key.choices)} if c.key.choices else {}
        properties[c.name] = {**({"description": c.key.doc} if c.key.doc else {}), **made}
    return {
        "type": "object",
        "properties": properties,
        "required": [*required, *needed_keys(table, ())],
        "additionalProperties": False,
    }
