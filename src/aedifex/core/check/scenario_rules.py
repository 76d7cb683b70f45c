"""What a scenario may say: each key's kind, and what goes with which runner."""

from __future__ import annotations

import os
import re
from collections.abc import Iterator
from typing import Any

RUNNERS = ("process", "terminal", "frames", "requests")
KINDS: dict[str, Any] = {
    "name": str, "runner": str, "run": list, "env": dict, "bring": list, "stdin": str, "typed": list, "turns": int,
    "events": list, "requests": list, "ignore": list, "files": list, "expect": list, "seconds": (int, float),
}  # fmt: skip
TEXTS = ("run", "bring", "ignore", "files")
EVENTS = ("key", "text", "click", "move", "control", "quit")
EVENT_KEYS: dict[str, Any] = {
    "turn": int, "key": str, "press": bool, "text": str, "click": list, "button": int, "move": list, "control": str,
    "value": str, "quit": bool,
}  # fmt: skip
REQUEST_KEYS: dict[str, Any] = {
    "method": str, "path": str, "headers": dict, "json": object, "body": str, "form": dict,
}  # fmt: skip
EXPECT_KEYS: dict[str, Any] = {"where": str, "before": str, "after": str}
GOES_WITH = {"events": ("frames", "terminal"), "requests": ("requests",), "stdin": ("process", "frames", "requests")}

Mistake = tuple[str, str, str]


def rule_mistakes(entry: dict[str, Any]) -> list[Mistake]:
    """(key, text near which it stands, what is wrong with it) for each mistake in one table."""
    found: list[Mistake] = []
    for key, value in entry.items():
        if key not in KINDS:
            found.append((key, "", f"unknown key '{key}'; known are {', '.join(KINDS)}"))
        elif not isinstance(value, KINDS[key]) or isinstance(value, bool):
            found.append((key, "", f"'{key}' has the wrong kind of value"))
        elif key in TEXTS and not all(isinstance(v, str) for v in value):
            found.append((key, "", f"'{key}' must be a list of texts"))
    bad = {key for key, _, _ in found}
    entry = {key: value for key, value in entry.items() if key not in bad}
    if not entry.get("name"):
        found.append(("name", "", "'name' is missing"))
    if not entry.get("run", ["{engine}"]):
        found.append(("run", "", "'run' is empty; name the command"))
    if entry.get("turns", 1) < 1:
        found.append(("turns", "", "'turns' must be at least 1"))
    if not 0 < entry.get("seconds", 1) <= 3600:
        found.append(("seconds", "", "'seconds' must lie between 0 and 3600"))
    if "typed" in entry and "stdin" in entry:
        found.append(("typed", "", "give 'stdin' or 'typed', not both"))
    parts = (runners, typed_mistakes, patterns, paths, events, requests, expected)
    return found + [mistake for part in parts for mistake in part(entry)]


def runners(entry: dict[str, Any]) -> Iterator[Mistake]:
    runner = entry.get("runner", "")
    if runner and runner not in RUNNERS:
        yield "runner", "", f"runner '{runner}' is not one of {', '.join(RUNNERS)}"
        return
    for key, fitting in GOES_WITH.items():
        if key in entry and runner and runner not in fitting:
            yield key, "", f"'{key}' does not apply to the {runner} runner"
    if runner == "requests" and not entry.get("requests"):
        yield "runner", "", "the requests runner needs 'requests'"


def typed_mistakes(entry: dict[str, Any]) -> Iterator[Mistake]:
    for step in entry.get("typed", []):
        good = isinstance(step, dict) and set(step) <= {"after", "text"} and "text" in step
        if not good or not all(isinstance(v, str) for v in step.values()):
            yield "typed", near_text(step), 'each entry of \'typed\' must be { after = "...", text = "..." }'


def patterns(entry: dict[str, Any]) -> Iterator[Mistake]:
    for pattern in entry.get("ignore", []):
        try:
            re.compile(pattern)
        except re.error as error:
            yield "ignore", "", f"'{pattern}' is not a regular expression ({error})"


def paths(entry: dict[str, Any]) -> Iterator[Mistake]:
    for key in ("bring", "files"):
        for path in entry.get(key, []):
            if os.path.isabs(path) or ".." in path.split("/"):
                yield key, path, f"'{path}' leaves the project folder"


def table(key: str, row: Any, known: dict[str, Any]) -> str:
    """What is wrong with one inline table; "" if nothing is."""
    if not isinstance(row, dict):
        return f"each entry of '{key}' must be a table in braces"
    for name, value in row.items():
        if name not in known:
            return f"unknown key '{name}' in '{key}'; known are {', '.join(known)}"
        if not isinstance(value, known[name]) or (isinstance(value, bool) and known[name] is int):
            return f"'{name}' in '{key}' has the wrong kind of value"
    return ""


def events(entry: dict[str, Any]) -> Iterator[Mistake]:
    for event in entry.get("events", []):
        said = table("events", event, EVENT_KEYS)
        if not said:
            kinds = [k for k in EVENTS if k in event]
            if len(kinds) != 1:
                said = f"an event needs exactly one of {', '.join(EVENTS)}"
            elif event.get("turn", 0) < 1:
                said = "an event needs 'turn', counted from 1"
            elif any(
                len(event[k]) != 2 or not all(isinstance(v, int) for v in event[k])
                for k in ("click", "move")
                if k in event
            ):
                said = f"'{kinds[0]}' in 'events' must be [x, y]"
            elif entry.get("turns") and event["turn"] > entry["turns"]:
                said = f"the event of turn {event['turn']} comes after the last turn, {entry['turns']}"
        if said:
            yield "events", near_text(event), said


def requests(entry: dict[str, Any]) -> Iterator[Mistake]:
    for request in entry.get("requests", []):
        said = table("requests", request, REQUEST_KEYS)
        if not said and not str(request.get("path", "")).startswith("/"):
            said = "a request needs 'path', which begins with /"
        if not said and sum(k in request for k in ("json", "body", "form")) > 1:
            said = "a request has one of json, body and form"
        if said:
            yield "requests", near_text(request), said


def expected(entry: dict[str, Any]) -> Iterator[Mistake]:
    for row in entry.get("expect", []):
        said = table("expect", row, EXPECT_KEYS)
        if not said and not row.get("where"):
            said = 'a wanted difference needs \'where\', for example "output" or "response 2"'
        if not said and not ("before" in row or "after" in row):
            said = "a wanted difference needs 'before' or 'after'"
        if said:
            yield "expect", near_text(row), said


def near_text(row: Any) -> str:
    """A text by which the line of an inline table can be found."""
    if isinstance(row, dict):
        for name in row:
            if name not in (*EVENT_KEYS, *REQUEST_KEYS, *EXPECT_KEYS, "after", "text"):
                return str(name)
        for value in row.values():
            if isinstance(value, str) and value:
                return value.split("\n")[0]
        return f"turn = {row['turn']}" if "turn" in row else ""
    return str(row)
