"""Designs after a rename: whatever a key of a table speaks of (``design.keys.Key.speaks``) follows."""

from __future__ import annotations

import copy
import re
from collections.abc import Iterable, MutableMapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Protocol

import tomlkit

from ..design.origin import Origin
from ..design.schema import Column, columns, read_value, written_value
from ..design.tables import Design
from ..program.program import Program
from ..program.surroundings import digest

QUOTED = re.compile(r"""("(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|`(?:[^`\\]|\\.)*`)""")


class Row(Protocol):
    """A table of a design, in a file or in memory; its values as the file writes them."""

    def texts(self, c: Column) -> list[str]:
        """A text, or those of a list; none where the key is not there."""
        ...

    def put(self, c: Column, texts: list[str]) -> None: ...

    def entries(self, c: Column) -> Iterable[MutableMapping[str, str]]: ...

    def rows(self, c: Column) -> Iterable[Row]: ...


@dataclass(frozen=True)
class FileRow:
    """A table of a TOML document; what does not change is not written again."""

    table: Any

    def texts(self, c: Column) -> list[str]:
        value = self.table.get(c.name, [])
        return [str(value)] if isinstance(value, str) else [*map(str, value)]

    def put(self, c: Column, texts: list[str]) -> None:
        if isinstance(self.table[c.name], str):
            self.table[c.name] = texts[0]
            return
        for i, text in enumerate(texts):
            if self.table[c.name][i] != text:
                self.table[c.name][i] = text

    def entries(self, c: Column) -> Iterable[MutableMapping[str, str]]:
        found: Iterable[MutableMapping[str, str]] = self.table.get(c.name, [])
        return found

    def rows(self, c: Column) -> Iterable[Row]:
        return [FileRow(t) for t in self.table.get(c.name, [])]


@dataclass(frozen=True)
class MemoryRow:
    """A dataclass of ``design.tables``."""

    table: Any

    def texts(self, c: Column) -> list[str]:
        value = written_value(c, getattr(self.table, c.attribute))
        return [value] if isinstance(value, str) else [*value]

    def put(self, c: Column, texts: list[str]) -> None:
        setattr(self.table, c.attribute, read_value(c, texts if c.kind is list else texts[0]))

    def entries(self, c: Column) -> Iterable[MutableMapping[str, str]]:
        found: Iterable[MutableMapping[str, str]] = getattr(self.table, c.attribute)
        return found

    def rows(self, c: Column) -> Iterable[Row]:
        return [MemoryRow(t) for t in getattr(self.table, c.attribute)]


@dataclass(frozen=True)
class Renaming:
    """``old`` gets the name ``new``; ``of_file``: it is a file."""

    old: Origin
    new: str
    of_file: bool

    def file(self, path: str) -> str:
        return self.new if self.of_file and path == str(self.old) else path

    def lines(self, text: str) -> str:
        """``tramline.py:88-104``."""
        path, colon, rest = text.partition(":")
        return f"{self.file(path)}{colon}{rest}"

    def origin(self, origin: Origin) -> Origin:
        """A name of the sources, in whatever function or class it stands."""
        if self.of_file:
            return replace(origin, file=self.file(origin.file))
        if origin.place or (self.old.file and not origin.of_file(self.old.file)):
            return origin
        if (origin.holder, origin.name) == (self.old.holder, self.old.name):
            return replace(origin, name=self.new)
        head, dot, rest = origin.holder.partition(".")
        inside = not self.old.holder and head == self.old.name
        return replace(origin, holder=f"{self.new}{dot}{rest}") if inside else origin

    def member(self, class_: str, name: str) -> str:
        """A member of a class."""
        return self.new if (class_, name) == (self.old.holder, self.old.name) else name

    def owner(self, text: str) -> str:
        """``Class``, or ``Class.method``."""
        class_, dot, method = text.partition(".")
        if self.of_file:
            return text
        return f"{self.new}{dot}{method}" if class_ == self.old.variable else class_ + dot + self.member(class_, method)

    @cached_property
    def word(self) -> re.Pattern[str]:
        return re.compile(rf"(?<![\w.$]){re.escape(self.old.name)}(?![\w$])")

    def expression(self, text: str) -> str:
        """Code that is worked out at the top of the file; what it quotes stays."""
        if self.of_file or self.old.holder:
            return text
        parts = QUOTED.split(text)
        return "".join(p if i % 2 else self.word.sub(self.new, p) for i, p in enumerate(parts))


def follow_table(r: Renaming, table: type, row: Row, class_: str = "") -> None:
    """Let a table follow, and those in it. ``class_``: the class of the sources whose members it names; "" where it
    names what stands at the top."""
    known = columns(table)
    owner = next((c for c in known.values() if c.key.speaks == "owner"), None)
    class_ = "".join(row.texts(owner)) if owner is not None else class_
    for c in known.values():
        if c.key.of is not None:
            for inner in row.rows(c):
                follow_table(r, c.key.of, inner, class_)
        elif c.key.speaks == "argument":
            for entry in row.entries(c):
                follow_argument(r, entry)
        elif c.key.speaks and (texts := row.texts(c)):
            after = [followed(r, c.key.speaks, t, class_, functions_in(known, row)) for t in texts]
            if after != texts:
                row.put(c, after)


def functions_in(known: dict[str, Column], row: Row) -> list[str]:
    """The functions whose parameters a table names."""
    return row.texts(known["from"]) if "from" in known else []


def followed(r: Renaming, speaks: str, text: str, class_: str, functions: list[str]) -> str:
    """What one text says after the rename."""
    if speaks == "origin":
        return r.member(class_, text) if class_ else str(r.origin(Origin.parse(text)))
    if speaks == "member":
        return r.member(class_, text)
    if speaks == "parameter":
        mine = r.old.holder and r.old.holder in [Origin.parse(f).local for f in functions]
        return r.new if mine and text == r.old.name else text
    return str(getattr(r, speaks)(text))


def follow_argument(r: Renaming, entry: MutableMapping[str, str]) -> None:
    """What callers pass in; a parameter that is called as its value stays so."""
    before = Origin.parse(str(entry["value"]))
    after = r.origin(before)
    if after != before:
        entry["value"] = str(after)
        entry["name"] = after.local if entry["name"] == before.local else entry["name"]


def follow_streams(r: Renaming, row: Row) -> None:
    """The name that a stream was going to have may be taken by now."""
    streams = columns(Design)["stream"]
    assert streams.key.of is not None
    name = columns(streams.key.of)["name"]
    for stream in row.rows(streams):
        if not r.of_file and not r.old.holder and stream.texts(name) == [r.new]:
            stream.put(name, [f"{r.new}_2"])


def renaming(program: Program, old: str, new: str) -> Renaming:
    return Renaming(Origin.parse(old), new, old in program.texts)


def follow(text: str, program: Program, after: Program, old: str, new: str) -> str:
    """The text of a design after a rename: names, files, and the digests of the sources."""
    r, doc = renaming(program, old, new), tomlkit.parse(text)
    follow_table(r, Design, FileRow(doc))
    follow_streams(r, FileRow(doc))
    follow_sources(r, doc["sources"], after)
    return tomlkit.dumps(doc)


def followed_design(design: Design, program: Program, after: Program, old: str, new: str) -> Design:
    """The design after a rename, in memory."""
    r, made = renaming(program, old, new), copy.deepcopy(design)
    follow_table(r, Design, MemoryRow(made))
    follow_streams(r, MemoryRow(made))
    follow_sources(r, made.sources, after)
    return made


def follow_sources(r: Renaming, sources: MutableMapping[str, str], after: Program) -> None:
    for path in list(sources):
        now = r.file(path)
        if now in after.texts:
            if now != path:
                del sources[path]
            sources[now] = digest(after.texts[now])
