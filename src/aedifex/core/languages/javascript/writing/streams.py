"""The console of a program under Node: what it types to and reads from goes through variables that a test can give its
own streams."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.layout import line_end, line_start, newline, with_newlines
from ....program.model import SourceFile
from ....program.streams import StreamKind, StreamUse, in_class
from . import words
from .text import TEXT

KINDS: Sequence[StreamKind] = (
    StreamKind(("console",), ("out", "screen"), "console"),
    StreamKind(("process.stdout",), ("output", "sink"), "process.stdout"),
    StreamKind(("process.stdin",), ("input", "source"), "process.stdin"),
)
SETTING = re.compile(rb"(?<!typeof )\b(console\s*\.\s*\w+|process\s*\.\s*std(in|out)(\s*\.\s*\w+)?)\s*=[^=>]")
REST = re.compile(rb"\s*\.\s*(stdin|stdout)\b")


def uses(file: SourceFile) -> list[StreamUse]:
    found = []
    for r in file.references:
        if (r.symbol is not None and r.symbol.kinds) or r.writes or r.form == "shorthand" or in_class(file, r.scope):
            continue
        if r.name == "console":
            found.append(StreamUse(r.start, r.end, "{name}", "console", False))
        elif r.name == "process" and (rest := REST.match(file.text, r.end)) is not None:
            origin = f"process.{rest[1].decode()}"
            found.append(StreamUse(r.start, rest.end(), "{name}", origin, origin == "process.stdin"))
    return sorted(found, key=lambda u: u.start)


def trouble(file: SourceFile) -> tuple[str, int] | None:
    changed = SETTING.search(file.text)
    return ("the program itself changes what its console does", changed.start()) if changed else None


def declared(
    file: SourceFile, kind: StreamKind, name: str, class_: str, origins: Sequence[str]
) -> list[tuple[int, int, str]]:
    """A variable after what the file opens with: directives, imports, what is required and does not use the stream
    already."""
    last = None
    places = [u.start for u in uses(file) if u.origin in origins]
    for s in file.statements:
        if any(s.start <= at < s.end for at in places):
            break
        if s.kind not in ("docstring", "import") and not re.search(rb"=\s*require\s*\(", file.text[s.start : s.end]):
            break
        last = s
    typed = words.typed(file)
    line = TEXT.declare_variable(file, f"{name}: typeof {kind.value}" if typed else name, kind.value, "")
    if last is None:
        at = line_start(file, TEXT.comment_start(file, file.statements[0].start if file.statements else 0))
        return [(at, at, line + newline(file))]
    at = line_end(file, last.end)
    return [(at, at, with_newlines(("" if file.text[:at].endswith(b"\n") else "\n") + line + "\n", newline(file)))]
