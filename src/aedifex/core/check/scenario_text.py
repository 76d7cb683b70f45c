"""Scenarios as the text of a scenario file."""

from __future__ import annotations

import json
from typing import Any

from .scenarios import COMMAND, Scenario


def as_toml(scenarios: list[Scenario], remark: str) -> str:
    """The file's text; only what is not the default is said."""
    parts = [f"# {remark}\n"]
    for s in scenarios:
        rows = ["[[scenario]]", f"name = {value(s.name)}"]
        rows += [f"runner = {value(s.runner)}"] if s.runner else []
        rows += [f"run = {value(s.run)}"] if s.run != COMMAND else []
        for key in ("env", "bring", "stdin", "turns", "ignore", "files"):
            rows += [f"{key} = {value(getattr(s, key))}"] if getattr(s, key) else []
        for key in ("typed", "events", "requests", "expect"):
            rows += toml_rows(key, getattr(s, key))
        rows += [f"seconds = {s.seconds:g}"] if s.seconds != 20.0 else []
        parts.append("\n".join(rows) + "\n")
    return "\n".join(parts)


def toml_rows(key: str, rows: list[dict[str, Any]]) -> list[str]:
    return [f"{key} = [", *(f"    {value(row)}," for row in rows), "]"] if rows else []


def value(given: Any) -> str:
    """A TOML value: on one line, but a text of several lines over as many."""
    if isinstance(given, bool):
        return "true" if given else "false"
    if isinstance(given, str) and given.count("\n") > 3 and given.endswith("\n"):
        return (
            '"""\n'
            + "".join(
                json.dumps(line, ensure_ascii=False)[1:-1].replace("\x7f", "\\u007f") + "\n"
                for line in given.split("\n")[:-1]
            )
            + '"""'
        )
    if isinstance(given, str):
        return json.dumps(given, ensure_ascii=False).replace("\x7f", "\\u007f")
    if isinstance(given, dict):
        return (
            "{ "
            + ", ".join(
                f"{k if k.isidentifier() and k.isascii() else json.dumps(k)} = {value(v)}" for k, v in given.items()
            )
            + " }"
        )
    if isinstance(given, list):
        return "[" + ", ".join(value(v) for v in given) + "]"
    return "0" if given is None else str(given)
