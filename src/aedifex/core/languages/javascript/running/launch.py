"""How JavaScript programs are started, pinned and observed."""

from __future__ import annotations

import json
import os
import re
import shutil
from pathlib import Path
from typing import Any

from ....program.model import SourceFile
from ..facts.clues import clues as clues
from ..reading.imports import imported, kind_of
from ..writing.words import TYPED
from . import unit_tests as unit_tests  # part of what a launcher offers, like clues
from .erase import erased

HERE = Path(__file__).parent
SHARES_SCREEN = True
MEMORY = 0  # bytes of address space: the engine reserves far more than it uses, and has a limit of its own
HEAP = 1024  # MiB that the engine may use
SERVERS = frozenset(["http", "node:http", "express", "koa", "fastify"])


def interpreter(root: str) -> str:
    return shutil.which("node") or "node"


def command(root: str, entry: str, sources: list[SourceFile], wishes: dict[str, Any]) -> tuple[list[str], str]:
    """What stands for the engine in a command, and what for the entry."""
    start = [interpreter(root), f"--max-old-space-size={HEAP}"]
    entry = started(entry)
    if paged(entry, sources):
        return [*start, str(HERE / "pinned" / "run_page.cjs")], entry
    return [*start, "--require", str(HERE / "pinned" / "pin.cjs")], entry


def prepare(folder: str, sources: list[SourceFile], wishes: dict[str, Any]) -> str:
    """Write what the engine runs instead of files with types. Why the program cannot be run; "" if it can."""
    trouble = ""
    for file in sources:
        if file.path.endswith(TYPED):
            text, why = erased(file)
            trouble = trouble or why
            with open(os.path.join(folder, started(file.path)), "w", encoding="utf-8", newline="") as handle:
                handle.write(text)
    package = os.path.join(folder, "package.json")
    if any(f.path.endswith(TYPED) for f in sources) and not os.path.exists(package):
        with open(package, "w", encoding="utf-8") as handle:
            handle.write('{"type": "module"}\n')
    return trouble


def started(path: str) -> str:
    """The file that the engine starts in place of one with types."""
    return path.rsplit(".", 1)[0] + ".js" if path.endswith(TYPED) else path


def linked(root: str) -> list[str]:
    """The packages of the project, wherever above its folder they are installed."""
    at = os.path.abspath(root)
    while True:
        found = os.path.join(at, "node_modules")
        if os.path.isdir(found):
            return [found]
        if os.path.dirname(at) == at:
            return []
        at = os.path.dirname(at)


def paged(entry: str, sources: list[SourceFile]) -> bool:
    return any(f.path == entry and kind_of(f) == "page" for f in sources)


def missing_module(error: str) -> str:
    """The module that a run lacked, if that is what ended it."""
    match = re.search(r"Cannot find (?:module|package) '([^'./][^']*)'", error)
    return match[1] if match else ""


def crash(error: str) -> str:
    """The error that ended a run; "" if it was not ended by one."""
    lines = error.strip().splitlines()
    found = [line for line in lines if re.match(r"(Uncaught )?\w*Error\b", line)]
    return found[0] if found and any(line.startswith("    at ") for line in lines) else ""


def environment(standins: bool) -> dict[str, str]:
    return {"NODE_NO_WARNINGS": "1", "AEDIFEX_PINNED": "1", "NODE_DISABLE_COLORS": "1", "NO_COLOR": "1"}


def planned(plan: dict[str, Any], path: str) -> dict[str, str]:
    """Write the plan of a run where ``pinned`` finds it; the variable that says so."""
    with open(path, "w", encoding="utf-8", errors="surrogateescape") as handle:
        json.dump(plan, handle)
    return {"AEDIFEX_PLAN": path}


SERVES = re.compile(rb"\.createServer\s*\(|\bexpress\s*\(|\bfastify\s*\(|new\s+Koa\b|new\s+Hono\b")


def runner(files: list[SourceFile]) -> str:
    """How a program wants to be run: a script of a page is drawn in frames."""
    if any(kind_of(f) == "page" for f in files):
        return "frames"
    return "requests" if any(SERVES.search(f.text) for f in files) else "process"


def needs_standins(files: list[SourceFile]) -> bool:
    return any(kind_of(f) == "page" for f in files)


def needs_display(files: list[SourceFile]) -> bool:
    return False


def serves(files: list[SourceFile]) -> bool:
    return any(m in SERVERS for f in files for s in f.imports for _, m, _ in imported(f, s))


def mask_trace(text: str) -> str:
    """Standard error without what names places in the source: only the error itself remains of a trace."""
    kept: list[str] = []
    lines = re.sub(r"requireStack: \[.*?\]", "requireStack: []", text, flags=re.S).splitlines()
    for number, line in enumerate(lines):
        if re.match(r"\s+at .*[:)]\d*|\s+at \S+", line) or re.match(r"Node\.js v\d", line):
            continue
        if re.match(r"(?:file://)?/.*:\d+$|\S+\.[cm]?js:\d+$", line):
            continue
        if line == "Require stack:" or re.match(r"- /|- <", line):
            continue
        if re.match(r"\s*\^+\s*$", line) or (number + 1 < len(lines) and re.match(r"\s*\^+\s*$", lines[number + 1])):
            continue
        kept.append(re.sub(r"(\.[cm]?[jt]sx?)(:\d+){1,2}\b", r"\1", line))
    return re.sub(r"\n{2,}", "\n", "\n".join(kept)).strip()
