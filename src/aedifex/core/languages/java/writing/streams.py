"""The console of a Java program: ``System.in`` and ``System.out`` go through variables that a test can give its own
streams."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.layout import line_end, newline, with_newlines
from ....program.model import SourceFile
from ....program.streams import StreamKind, StreamUse, in_class
from .text import TEXT

KINDS: Sequence[StreamKind] = (
    StreamKind(("System.out",), ("out", "screen"), "System.out"),
    StreamKind(("System.in",), ("input", "typed"), "System.in"),
)
TYPES = {"System.out": "PrintStream", "System.in": "InputStream"}
REST = re.compile(rb"\s*\.\s*(in|out)\b")
SETTING = re.compile(rb"\bSystem\s*\.\s*set(In|Out)\b")


def uses(file: SourceFile) -> list[StreamUse]:
    found = []
    for r in file.references:
        rest = REST.match(file.text, r.end) if r.name == "System" and r.member in ("in", "out") else None
        if rest is not None and (r.symbol is None or not r.symbol.kinds) and not in_class(file, r.scope):
            found.append(StreamUse(r.start, rest.end(), "{name}", f"System.{r.member}", r.member == "in"))
    return sorted(found, key=lambda u: u.start)


def trouble(file: SourceFile) -> tuple[str, int] | None:
    setting = SETTING.search(file.text)
    return ("the program itself puts another stream in the place of its console", setting.start()) if setting else None


def declared(
    file: SourceFile, kind: StreamKind, name: str, class_: str, origins: Sequence[str]
) -> list[tuple[int, int, str]]:
    """A static variable at the head of the class, and the import that it needs."""
    type_ = TYPES[kind.value]
    first = min(
        (s.start for s in file.statements if s.kind != "import" and file.scope.start < s.start), default=file.scope.end
    )
    opens = file.text.index(b"{", file.scope.start)
    at = line_end(file, opens) if line_end(file, opens) <= first else opens + 1
    line = f"{TEXT.indent_unit(file)}private static {type_} {name} = {kind.value};\n"
    edits = [(at, at, with_newlines(line if at != opens + 1 else "\n" + line, newline(file)))]
    return [*edits, *importing(file, type_)]


def importing(file: SourceFile, type_: str) -> list[tuple[int, int, str]]:
    wanted = f"import java.io.{type_};"
    there = [file.slice(s.start, s.end) for s in file.imports]
    if any(t in (wanted, "import java.io.*;") for t in there):
        return []
    nl = newline(file)
    later = next((s for s, text in zip(file.imports, there, strict=True) if text > wanted), None)
    if later is not None:
        return [(later.start, later.start, wanted + nl)]
    if file.imports:
        at = line_end(file, file.imports[-1].end)
        return [(at, at, wanted + nl)]
    package = re.match(rb"(?s)(?:\s|//[^\n]*\n|/\*.*?\*/)*package[^;]*;[^\n]*\n", file.text)
    at = package.end() if package else 0
    return [(at, at, f"{nl if package else ''}{wanted}{nl}{nl if not package else ''}")]
