"""Rename what Java sources declare, all at once, and compile again: python benchmarks/names_java.py FOLDER...

Each FOLDER is a project that compiles. Renamed are all locals and parameters, and those fields, methods and classes of each
file that are only ever named without an owner in front (what stands behind a dot is not resolved by reading alone). If one
reference were given to the wrong variable, the compiler would say so.
"""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
from pathlib import Path

from aedifex.core.languages.java.reading.read import read
from aedifex.core.program.model import SourceFile, Symbol


def javac(folder: Path) -> str:
    """What the compiler says of a folder; "" if nothing is wrong."""
    names = [str(p.relative_to(folder)) for p in folder.rglob("*.java")]
    with tempfile.TemporaryDirectory() as out:
        done = subprocess.run(
            ["javac", "-nowarn", "-proc:none", "-encoding", "UTF-8", "-d", out, *names],
            cwd=folder,
            capture_output=True,
            text=True,
            check=False,
        )
    return done.stderr if done.returncode else ""


def behind_dots(folder: Path) -> set[str]:
    """Every name that stands behind a dot or in a string somewhere, which reading alone does not resolve."""
    text = "\n".join(p.read_text("utf-8", "replace") for p in folder.rglob("*.java"))
    return set(re.findall(r"(?:\.|::)\s*(\w+)", text)) | set(
        re.findall(r"\w+", " ".join(re.findall(r'"([^"\n]*)"', text)))
    )


def movable(symbol: Symbol, dotted: set[str], file: SourceFile, elsewhere: str) -> bool:
    if not symbol.bindings and not symbol.kinds & {"function"}:
        return False
    if symbol.scope.kind in ("function", "block"):
        return bool(symbol.kinds & {"variable", "parameter"}) and not symbol.kinds & {
            "import",
            "class",
            "type",
            "function",
        }
    if (
        symbol.name in dotted
        or symbol.kinds & {"import", "class", "type"}
        or re.search(rf"\b{symbol.name}\b", elsewhere)
    ):
        return False
    declared = [r for r in symbol.references if r.writes and r.form in ("", "definition")]
    hidden = [
        r
        for r in declared
        if re.search(rb"(private|static)[\w\s<>\[\],.?]*$", file.text[max(0, r.start - 120) : r.start])
    ]
    return bool(declared) and (symbol.kinds == {"variable"} or len(hidden) == len(declared)) and symbol.name != "main"


def renamed(file: SourceFile, dotted: set[str], elsewhere: str) -> tuple[bytes, int]:
    edits: list[tuple[int, int, bytes]] = []
    count = 0
    for scope in file.scope.walk():
        for symbol in scope.symbols.values():
            if symbol.name != "this" and movable(symbol, dotted, file, elsewhere):
                count += 1
                new = f"{symbol.name}_{count}".encode()
                edits += [(r.end - len(symbol.name.encode()), r.end, new) for r in symbol.references]
    out, at = b"", 0
    for start, end, new in sorted(edits):
        out, at = out + file.text[at:start] + new, end
    return out + file.text[at:], count


def main() -> int:
    total = wrong = files = 0
    for folder in map(Path, sys.argv[1:]):
        if javac(folder):
            print(f"{folder}: does not compile as it is")
            continue
        dotted = behind_dots(folder)
        with tempfile.TemporaryDirectory() as top:
            for path in sorted(folder.rglob("*.java")):
                others = "\n".join(p.read_text("utf-8", "replace") for p in folder.rglob("*.java") if p != path)
                text, count = renamed(read(path.name, path.read_bytes()), dotted, others)
                target = Path(top, os.path.relpath(path, folder))
                target.parent.mkdir(parents=True, exist_ok=True)
                target.write_bytes(text)
                total, files = total + count, files + 1
            said = javac(Path(top))
        if said:
            wrong += 1
            print(f"{folder}: {said[:1200]}")
    print(f"{files} files, {total} names renamed, {wrong} projects no longer compile")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
