"""How Java programs and sketches are compiled, started, pinned and observed."""

from __future__ import annotations

import os
import re
import shutil
from typing import Any

from ....program.model import SourceFile
from ..facts.clues import clues as clues
from ..reading.read import module_text
from . import unit_tests as unit_tests  # part of what a launcher offers, like clues
from .compiler import compiled, sketch_name, support

SHARES_SCREEN = False  # two programs that open windows at once each take the other for a window manager
MEMORY = 0  # bytes of address space: the machine reserves far more than it uses, and has a limit of its own
HEAP = 512  # MiB that the program may use
WINDOWS = re.compile(
    rb"\bnew\s+(?:javax\.swing\.)?(?:JFrame|JDialog)\b|\bextends\s+(?:javax\.swing\.)?(?:JFrame|JDialog)\b|\bJOptionPane\s*\."
)
FLAGS = [
    "-XX:-ShowCodeDetailsInExceptionMessages",  # they name variables, which move
    "-XX:+UnlockExperimentalVMOptions",
    # objects without a hash of their own all have the same: what is told of them, and their order, stays
    "-XX:hashCode=2",
    "-XX:TieredStopAtLevel=1",
    "-XX:+UseSerialGC",
    "-Xshare:auto",
    "-Dfile.encoding=UTF-8",
]


def interpreter(root: str) -> str:
    return shutil.which("java") or "java"


def command(root: str, entry: str, sources: list[SourceFile], wishes: dict[str, Any]) -> tuple[list[str], str]:
    """What stands for the engine in a command, and the name of the class that is started."""
    folder, _ = compiled(sources, wishes.get("cover"))
    main = sketch_name(entry) if entry.endswith(".pde") else class_of(entry, sources)
    path = os.pathsep.join([support(), folder, *beside(entry, sources)])
    headless = f"-Djava.awt.headless={'false' if needs_display(sources) else 'true'}"
    return [interpreter(root), f"-Xmx{HEAP}m", *FLAGS, headless, "-cp", path, "aedifex.Run"], main


def beside(entry: str, sources: list[SourceFile]) -> list[str]:
    """Where the engine looks for what lies beside the sources (texts, pictures), as it does when it is started there:
    relative to the project."""
    package = next((module_text(f.text) for f in sources if f.path == entry), "")
    parts = entry.split("/")[:-1]
    return list(
        dict.fromkeys([".", "/".join(parts[: len(parts) - len(package.split("."))] if package else parts) or "."])
    )


def class_of(entry: str, sources: list[SourceFile]) -> str:
    """The full name of the class that a file starts."""
    for file in sources:
        if file.path == entry:
            package = module_text(file.text)
            name = file.scope.name if file.scope.name != "<module>" else entry.rsplit("/", 1)[-1].removesuffix(".java")
            return f"{package}.{name}" if package else name
    return entry.rsplit("/", 1)[-1].removesuffix(".java")


def prepare(folder: str, sources: list[SourceFile], wishes: dict[str, Any]) -> str:
    """Why a program cannot be run; "" if it can."""
    if shutil.which("javac") is None:
        return "there is no 'javac' to compile it; install a JDK"
    _, problems = compiled(sources, wishes.get("cover"))
    return str(problems[0]) if problems else ""


def linked(root: str) -> list[str]:
    """Folders that a run needs and that are too large to copy."""
    return []


def missing_module(error: str) -> str:
    return ""


def crash(error: str) -> str:
    """The error that ended a run; "" if it was not ended by one."""
    found = re.search(r'^Exception in thread "main" (.*)$', error, re.M)
    return found[1] if found else ""


def environment(standins: bool) -> dict[str, str]:
    home = {"JAVA_HOME": os.environ["JAVA_HOME"]} if "JAVA_HOME" in os.environ else {}
    return {"AEDIFEX_PINNED": "1", **home}


def planned(plan: dict[str, Any], path: str) -> dict[str, str]:
    """Write the plan of a run, a line for each thing, where the pinned program finds it."""
    rows = [
        ["log", plan["log"]],
        ["turns", str(plan.get("turns") or 0)],
        *([["calls"]] if plan.get("calls") else []),
        *([["windows"]] if plan.get("display") else []),
    ]
    for event in sorted(plan.get("events", ()), key=lambda e: e["turn"]):
        rows.append(["event", str(event["turn"]), *told(event)])
    for row in plan.get("watch", ()):
        if not row.get("function"):
            home = row["file"].rsplit("/", 1)[-1].rsplit(".", 1)[0]
            members = ",".join(row.get("members", ()))
            rows.append(
                ["watch", row["name"], home, row["variable"], row.get("object", ""), row.get("class", ""), members]
            )
    with open(path, "w", encoding="utf-8", errors="surrogateescape") as handle:
        handle.write("".join("\t".join(r) + "\n" for r in rows))
    return {"AEDIFEX_PLAN": path}


def told(event: dict[str, Any]) -> list[str]:
    if event.get("quit"):
        return ["quit"]
    if "key" in event:
        return [{True: "press", False: "release"}.get(event.get("press"), "tap"), event["key"]]  # type: ignore[arg-type]
    for kind in ("click", "move"):
        if kind in event:
            return [kind, *(str(v) for v in event[kind]), str(event.get("button", 1))]
    if "control" in event:
        value = event.get("value")
        return [
            "control",
            event["control"],
            *([] if value is None else [str(value).lower() if isinstance(value, bool) else str(value)]),
        ]
    if "text" in event:
        return ["text", event["text"]]
    return [next(k for k in event if k != "turn")]


def runner(files: list[SourceFile]) -> str:
    return "frames" if any(f.path.endswith(".pde") for f in files) or needs_display(files) else "process"


def needs_standins(files: list[SourceFile]) -> bool:
    return any(f.path.endswith(".pde") for f in files)


def needs_display(files: list[SourceFile]) -> bool:
    """Whether a program opens a window of its own."""
    return any(WINDOWS.search(f.text) for f in files if f.path.endswith(".java"))


def mask_trace(text: str) -> str:
    """Standard error without what names places in the source: only the error itself remains of a trace."""
    kept = [line for line in text.splitlines() if not re.match(r"\s+(at |\.\.\. \d+ more)", line)]
    return re.sub(r"(\w\.java):\d+\b", r"\1", "\n".join(kept))
