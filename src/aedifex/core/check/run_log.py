"""The log that a run writes about itself, read into what was seen."""

from __future__ import annotations

import os
import re

from .evidence import Observed

MAX_BYTES = 64 << 20  # bytes of a log that are read


def read_log(path: str, seen: Observed) -> None:
    """Add what the log at ``path`` tells; a missing log tells nothing."""
    if not os.path.exists(path):
        return
    with open(path, encoding="utf-8", errors="surrogateescape", newline="\n") as handle:
        text = handle.read(MAX_BYTES)
    device = []
    for line in text.split("\n")[:-1]:
        kind, *fields = line.split("\t")
        fields = [plain_text(f) for f in fields] if "\\" in line else fields
        if kind == "state":
            name, moment, value = fields
            seen.state.setdefault(name, []).append([moment, value])
        elif kind == "shot":
            label, shown = fields
            seen.shots[label] = shown
        elif kind == "device":
            device.append(fields[0] + "\n")
        elif kind == "turns":
            seen.turns = int(fields[0])
        elif kind == "end":
            seen.ended = fields[0]
        elif kind == "stopped":
            seen.stopped = True
        elif kind == "note":
            seen.notes.append(fields[0])
        elif kind == "trouble":
            seen.trouble = seen.trouble or fields[0]
        elif kind == "cover":
            seen.called.setdefault(fields[0], []).append(int(fields[1]))
        elif kind == "call":
            seen.calls.append(fields[0])
        elif kind == "reach":
            seen.reached[fields[0]] = [int(n) for n in fields[1].split()]
        elif kind == "starved":
            seen.starved = fields[0] or "?"
        elif kind == "at":
            seen.notes.append("at " + " ".join(fields))
    seen.device = "".join(device)


def plain_text(text: str) -> str:
    return re.sub(r"\\(.)", lambda m: {"n": "\n", "t": "\t", "r": "\r"}.get(m[1], m[1]), text)
