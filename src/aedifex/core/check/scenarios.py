"""Scenarios: how a program is run so that two runs can be compared."""

from __future__ import annotations

import re
import tomllib
from dataclasses import dataclass, field
from typing import Any

from ..program.errors import AedifexError
from .scenario_rules import rule_mistakes

COMMAND = ["{engine}", "{entry}"]


@dataclass
class Scenario:
    """One run.

    ``runner``: "" is found out from what the program imports. ``run``: the command, with {engine} (or the language's
    name) and {entry}. ``stdin``: what is typed, as one text; ``typed``: what is typed once a text has appeared.
    ``turns``: the run ends after so many frames, prompts or waits (0: when the program ends it). ``seconds``: of real
    time.
    """

    name: str
    runner: str = ""
    run: list[str] = field(default_factory=lambda: list(COMMAND))
    env: dict[str, str] = field(default_factory=dict)
    bring: list[str] = field(default_factory=list)
    stdin: str = ""
    typed: list[dict[str, str]] = field(default_factory=list)
    turns: int = 0
    events: list[dict[str, Any]] = field(default_factory=list)
    requests: list[dict[str, Any]] = field(default_factory=list)
    ignore: list[str] = field(default_factory=list)
    files: list[str] = field(default_factory=list)
    expect: list[dict[str, str]] = field(default_factory=list)
    seconds: float = 20.0

    @property
    def prompts(self) -> list[str]:
        """Texts that must appear, in this order."""
        return [t["after"] for t in self.typed if "after" in t]

    @property
    def input(self) -> str:
        return self.stdin or "".join(t["text"] for t in self.typed)


def default() -> list[Scenario]:
    """The scenario of a program for which none is written: a plain start."""
    return [Scenario("run")]


def load(path: str) -> list[Scenario]:
    """The scenarios of a file. Every mistake is named with its line in one AedifexError."""
    text, data = read_scenarios(path)
    found: list[Scenario] = []
    problems: list[str] = []
    starts = [n for n, line in enumerate(text.splitlines(), 1) if re.match(r"\s*\[\[\s*scenario\s*\]\]", line)]
    for key in data:
        if key != "scenario":
            problems.append(f"{path}:{line_of(text, key, 0)}: unknown key '{key}'; only [[scenario]] tables stand here")
    entries = data.get("scenario", [])
    if not isinstance(entries, list) or not all(isinstance(e, dict) for e in entries):
        raise AedifexError(f"{path}:{line_of(text, 'scenario', 0)}: 'scenario' must be written as [[scenario]] tables.")
    for index, entry in enumerate(entries):
        at = starts[index] if index < len(starts) else 1
        end = starts[index + 1] if index + 1 < len(starts) else len(text) + 1
        problems += [
            f"{path}:{line_of(text, key, at, end, value)}: {message}" for key, value, message in rule_mistakes(entry)
        ]
        if not problems:
            found.append(scenario_from(entry))
    names = [s.name for s in found]
    problems += [f"{path}:{starts[i]}: the name '{n}' is given twice" for i, n in enumerate(names) if n in names[:i]]
    if problems:
        raise AedifexError("\n".join(problems))
    if not found:
        raise AedifexError(f"{path}: holds no scenario; add a [[scenario]] table.")
    return found


def read_scenarios(path: str) -> tuple[str, dict[str, Any]]:
    try:
        with open(path, encoding="utf-8") as handle:
            text = handle.read()
    except FileNotFoundError:
        raise AedifexError(f"{path}: no such scenario file; check the path.") from None
    except (OSError, UnicodeDecodeError) as error:
        raise AedifexError(f"{path}: cannot be read ({error}); check the file.") from error
    try:
        return text, tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        match = re.search(r"at line (\d+)", str(error))
        raise AedifexError(f"{path}:{match[1] if match else text.count(chr(10)) + 1}: is not valid TOML "
                           f"({str(error).split(' (at')[0].lower()}); correct that line.") from None  # fmt: skip


def line_of(text: str, key: str, start: int, end: int = 1 << 40, value: str = "") -> int:
    """The line of a key between two lines, and in its value the line that holds ``value``; else that of the table."""
    lines = text.splitlines()
    for number, line in enumerate(lines, 1):
        if start <= number < end and re.match(rf"\s*\[*\s*\"?{re.escape(key)}\b", line):
            for inner in range(number, min(end - 1, len(lines)) + 1) if value else ():
                if value in lines[inner - 1]:
                    return inner
            return number
    return max(start, 1)


def scenario_from(entry: dict[str, Any]) -> Scenario:
    values = dict(entry)
    values["env"] = {k: str(v) for k, v in entry.get("env", {}).items()}
    values["seconds"] = float(entry.get("seconds", 20.0))
    return Scenario(**values)
