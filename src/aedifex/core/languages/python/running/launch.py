"""How Python programs are started, pinned and observed."""

from __future__ import annotations

import os
import re
import sys
from pathlib import Path
from typing import Any

from ....program.model import SourceFile
from ..facts.clues import clues as clues
from ..facts.pure import apis
from . import unit_tests as unit_tests  # part of what a launcher offers, like clues

HERE = Path(__file__).parent


def interpreter(root: str) -> str:
    """The project's own environment if it has one, else the one that is active, else ours."""
    places = [os.path.join(root, name) for name in (".venv", "venv")] + [os.environ.get("VIRTUAL_ENV", "")]
    for place in places:
        candidate = os.path.join(place, "bin", "python")
        if place and os.access(candidate, os.X_OK):
            return candidate
    return sys.executable


SHARES_SCREEN = True
MEMORY = 2 << 30  # bytes of address space that a program may use


def command(root: str, entry: str, sources: list[SourceFile], wishes: dict[str, Any]) -> tuple[list[str], str]:
    """What stands for the interpreter in a command, and what for the entry."""
    return [interpreter(root)], entry


def prepare(folder: str, sources: list[SourceFile], wishes: dict[str, Any]) -> str:
    """What must be made before a program can run: nothing."""
    return ""


def linked(root: str) -> list[str]:
    """Folders that a run needs and that are too large to copy: an environment is found without them."""
    return []


def missing_module(error: str) -> str:
    """The module that a run lacked, if that is what ended it."""
    match = re.search(r"^ModuleNotFoundError: No module named '([^']+)'", error, re.M)
    return match[1] if match else ""


def crash(error: str) -> str:
    """The error that ended a run; "" if it was not ended by one."""
    lines = error.strip().splitlines()
    return lines[-1] if lines and any(line.startswith("Traceback") for line in lines) else ""


def environment(standins: bool) -> dict[str, str]:
    """Variables that pin a child process; ``standins``: devices are replaced by recording ones."""
    found = {
        "PYTHONPATH": str(HERE / "pinned"),
        "PYTHONHASHSEED": "0",
        "PYTHONDONTWRITEBYTECODE": "1",
        "PYTHONIOENCODING": "utf-8",
        "PYTHONUNBUFFERED": "1",
        "PYTHONWARNINGS": "ignore",
        "AEDIFEX_PINNED": "1",
        "SDL_VIDEODRIVER": "dummy",
        "SDL_AUDIODRIVER": "dummy",
    }
    if standins:
        found["AEDIFEX_STANDINS"] = str(HERE / "standins")
    return found


def planned(plan: dict[str, Any], path: str) -> dict[str, str]:
    """Write the plan of a run where ``pinned`` finds it; the variable that says so."""
    with open(path, "w", encoding="utf-8", errors="surrogateescape") as handle:
        handle.write(repr(plan))
    return {"AEDIFEX_PLAN": path}


def runner(files: list[SourceFile]) -> str:
    """How a program wants to be run, by what it imports: frames, terminal, requests, or else process."""
    found = {module.split(".")[0] for file in files for module in imported_modules(file)}
    kinds = apis()["runners"]
    return next((kind for kind in kinds if found & set(kinds[kind])), "process")


def imported_modules(file: SourceFile) -> list[str]:
    text = file.text.decode("utf-8", "replace")
    found: list[str] = []
    for match in re.finditer(r"^[ \t]*(?:from[ \t]+([\w.]+)[ \t]+import|import[ \t]+([\w., \t]+))", text, re.M):
        found += [match[1]] if match[1] else [n.split(" as ")[0].strip() for n in match[2].split(",")]
    return found


def needs_standins(files: list[SourceFile]) -> bool:
    """Whether a program asks for a device that a stand-in replaces."""
    names = {p.stem for p in (HERE / "standins").glob("*.py")}
    for file in files:
        for symbol in file.scope.symbols.values():
            if symbol.name in names and "import" in symbol.kinds:
                return True
        if names & set(file.scope.stars) or any(f"from {n} import".encode() in file.text for n in names):
            return True
    return False


def mask_trace(text: str) -> str:
    """Standard error without what names places in the source: only the error itself remains of a traceback."""
    kept: list[str] = []
    inside = False
    for line in text.splitlines():
        if line.startswith("Traceback (most recent call last):"):
            inside = True
            kept.append(line)
        elif inside and line.startswith(" "):
            continue
        else:
            inside = False
            kept.append(line.replace("UnboundLocalError: cannot access local variable", "NameError:"))
    return "\n".join(kept)


def needs_display(files: list[SourceFile]) -> bool:
    """Whether a program opens real windows, which only a display server can hold."""
    return any(m.split(".")[0] in ("tkinter", "pyglet", "arcade") for file in files for m in imported_modules(file))
