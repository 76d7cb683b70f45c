"""Scenarios: how a program is run so that two runs can be compared."""

from __future__ import annotations

import os
import re
import tomllib
from dataclasses import dataclass, field
from typing import Any

from ..program.errors import AedifexError

KINDS: dict[str, Any] = {
    "name": str, "runner": str, "run": list, "env": dict, "bring": list, "stdin": str, "typed": list, "turns": int,
    "events": list, "requests": list, "ignore": list, "files": list, "expect": list, "seconds": (int, float),
}  # fmt: skip
HERE = ("process",)


@dataclass
class Scenario:
    """One run. ``run``: the command, with {python} and {entry}; ``stdin``: what is typed, as one text."""

    name: str
    runner: str = "process"
    run: list[str] = field(default_factory=lambda: ["{python}", "{entry}"])
    env: dict[str, str] = field(default_factory=dict)
    bring: list[str] = field(default_factory=list)
    stdin: str = ""
    prompts: list[str] = field(default_factory=list)  # texts that must appear in this order
    ignore: list[str] = field(default_factory=list)
    files: list[str] = field(default_factory=list)
    seconds: float = 20.0


def default() -> list[Scenario]:
    return [Scenario("run")]


def load(path: str) -> list[Scenario]:
    """The scenarios of a file. Every mistake is named with its line in one AedifexError."""
    try:
        with open(path, encoding="utf-8") as handle:
            text = handle.read()
    except FileNotFoundError:
        raise AedifexError(f"{path}: no such scenario file; check the path.") from None
    except (OSError, UnicodeDecodeError) as error:
        raise AedifexError(f"{path}: cannot be read ({error}); check the file.") from error
    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        match = re.search(r"at line (\d+)", str(error))
        raise AedifexError(f"{path}:{match[1] if match else text.count(chr(10)) + 1}: is not valid TOML "
                           f"({str(error).split(' (at')[0].lower()}); correct that line.") from None  # fmt: skip
    found, problems = [], []
    starts = [n for n, line in enumerate(text.splitlines(), 1) if re.match(r"\s*\[\[\s*scenario\s*\]\]", line)]
    for key in data:
        if key != "scenario":
            problems.append(f"{path}:{line_of(text, key, 0)}: unknown key '{key}'; only [[scenario]] tables stand here")
    for index, entry in enumerate(data.get("scenario", [])):
        at = starts[index] if index < len(starts) else 1
        problems += [f"{path}:{line_of(text, key, at)}: {message}" for key, message in wrong(entry)]
        if not problems:
            found.append(made(entry))
    names = [s.name for s in found]
    problems += [f"{path}:{starts[i]}: the name '{n}' is given twice" for i, n in enumerate(names) if n in names[:i]]
    if problems:
        raise AedifexError("\n".join(problems))
    if not found:
        raise AedifexError(f"{path}: holds no scenario; add a [[scenario]] table.")
    return found


def wrong(entry: dict[str, Any]) -> list[tuple[str, str]]:
    """(key, what is wrong with it) for each mistake in one table."""
    found = []
    for key, value in entry.items():
        if key not in KINDS:
            found.append((key, f"unknown key '{key}'; known are {', '.join(KINDS)}"))
        elif not isinstance(value, KINDS[key]) or isinstance(value, bool):
            found.append((key, f"'{key}' has the wrong kind of value"))
        elif key in ("run", "bring", "ignore", "files") and not all(isinstance(v, str) for v in value):
            found.append((key, f"'{key}' must be a list of texts"))
    if "name" not in entry:
        found.append(("name", "'name' is missing"))
    if entry.get("runner", "process") not in HERE:
        found.append(("runner", f"runner '{entry['runner']}' is not one of {', '.join(HERE)}"))
    for key in ("turns", "events", "requests", "expect"):
        if key in entry:
            found.append((key, f"'{key}' does not apply to the process runner"))
    if "typed" in entry and "stdin" in entry:
        found.append(("typed", "give 'stdin' or 'typed', not both"))
    for step in entry.get("typed", []) if isinstance(entry.get("typed"), list) else []:
        if not isinstance(step, dict) or not set(step) <= {"after", "text"} or "text" not in step:
            found.append(("typed", 'each entry of \'typed\' must be { after = "...", text = "..." }'))
    for pattern in entry.get("ignore", []):
        try:
            re.compile(pattern) if isinstance(pattern, str) else None
        except re.error as error:
            found.append(("ignore", f"'{pattern}' is not a regular expression ({error})"))
    if isinstance(entry.get("seconds"), (int, float)) and not 0 < entry["seconds"] <= 3600:
        found.append(("seconds", "'seconds' must lie between 0 and 3600"))
    for key in ("bring", "files"):
        for path in entry.get(key, []):
            if isinstance(path, str) and (os.path.isabs(path) or ".." in path.split("/")):
                found.append((key, f"'{path}' leaves the project folder"))
    return found


def line_of(text: str, key: str, start: int) -> int:
    """The line of a key at or after the line of its table."""
    for number, line in enumerate(text.splitlines(), 1):
        if number >= start and re.match(rf"\s*\[*\s*{re.escape(key)}\b", line):
            return number
    return max(start, 1)


def made(entry: dict[str, Any]) -> Scenario:
    typed = entry.get("typed", [])
    return Scenario(
        entry["name"], entry.get("runner", "process"), list(entry.get("run", ["{python}", "{entry}"])),
        {k: str(v) for k, v in entry.get("env", {}).items()}, list(entry.get("bring", [])),
        entry.get("stdin", "".join(t["text"] for t in typed)), [t["after"] for t in typed if "after" in t],
        list(entry.get("ignore", [])), list(entry.get("files", [])), float(entry.get("seconds", 20.0)),
    )  # fmt: skip
