"""What JavaScript code tells about the input that it reacts to: keys, words, clicks, controls."""

from __future__ import annotations

import re
from typing import Any

from ....program.clues import Clues
from ....program.model import SourceFile
from ..reading.imports import kind_of

MAX_CLUES = 24  # words or keys
ARROWS = {"ArrowLeft": "LEFT", "ArrowRight": "RIGHT", "ArrowUp": "UP", "ArrowDown": "DOWN", " ":
    "SPACE", "Enter": "ENTER", "Escape": "ESCAPE", "LEFT_ARROW": "LEFT", "RIGHT_ARROW": "RIGHT",
    "UP_ARROW": "UP", "DOWN_ARROW": "DOWN", "Space": "SPACE"}  # fmt: skip


def clues(files: list[SourceFile]) -> Clues:
    """What the files tell, in the order in which it stands there."""
    found = Clues()
    for file in files:
        text = file.text.decode("utf-8", "replace")
        paged = kind_of(file) == "page"
        compared = re.findall(r"""(?:===?\s*|case\s+)(["'])((?:(?!\1)[^\\\n]){1,24})\1""", text)
        if paged:
            keyed = re.search(r"key|code", text, re.I) is not None
            for _, word in compared if keyed else ():
                key = ARROWS.get(word, word.removeprefix("Key").lower() if word.startswith("Key") else word)
                if len(key) == 1 or key in ARROWS.values():
                    found.keys.append(key)
            found.held += [ARROWS[n] for n in re.findall(r"keyIsDown\((\w+)\)", text) if n in ARROWS]
            found.keys += [ARROWS[n] for n in re.findall(r"keyCode\s*===?\s*(\w+_ARROW)", text)]
            found.mouse = found.mouse or re.search(r"mouse|click|pointer", text, re.I) is not None
            size = re.search(r"createCanvas\(\s*(\d+)\s*,\s*(\d+)|width\s*=\s*(\d+)[^;]*;[^;]*height\s*=\s*(\d+)", text)
            if size:
                found.size = (int(size[1] or size[3]), int(size[2] or size[4]))
        else:
            found.words += [word for _, word in compared]
            found.splits = found.splits or re.search(r"\.split\(", text) is not None
            found.reads = found.reads or re.search(r"stdin|readline|readFileSync\(0|createInterface", text) is not None
            found.numbers = found.numbers or re.search(r"\b(?:Number|parseInt|parseFloat)\(", text) is not None
            found.requests += routes(text)
            if "process.argv" in text:
                found.arguments.append(["2"])
    for group in ("words", "keys", "held"):
        setattr(found, group, list(dict.fromkeys(getattr(found, group)))[:MAX_CLUES])
    found.keys = [k for k in found.keys if k not in found.held]
    return found


ROUTE = re.compile(r"""\.\s*(get|post|put|patch|delete)\s*\(\s*(["'`])(/[^"'`]*)\2""")
COMPARED = re.compile(r"""(?:url|path|pathname)\s*===?\s*(["'`])(/[^"'`]*)\1|startsWith\(\s*(["'`])(/[^"'`]*)\3""")


def routes(text: str) -> list[dict[str, Any]]:
    """Requests that a server answers: looked at, changed, looked at again; one that it does not know."""
    if not re.search(r"\.listen\s*\(|createServer|express\(", text):
        return []
    looks: list[dict[str, Any]] = []
    changes: list[dict[str, Any]] = []
    for method, _, path in ROUTE.findall(text):
        filled = re.sub(r":\w+", "1", path)
        if method == "get":
            looks.append({"path": filled})
        else:
            keys = re.findall(r"\bbody\.(\w+)", text) + [
                k.strip() for row in re.findall(r"\{([\w\s,]+)\}\s*=\s*\w+\.body", text) for k in row.split(",")
            ]
            changes.append(
                {"method": method.upper(), "path": filled, "json": {k: "2" for k in dict.fromkeys(keys) if k}}
            )
    paths = [a or b for _, a, _, b in COMPARED.findall(text)]
    looks += [{"path": p} for p in dict.fromkeys(paths)]
    changes += [
        {"method": m, "path": p, "json": {}}
        for m in dict.fromkeys(re.findall(r"""["'](POST|PUT|PATCH|DELETE)["']""", text))
        for p in dict.fromkeys(paths)
    ]
    found = [*looks, *changes, *(looks if changes else [])] or [{"path": "/"}]
    return [*found, {"path": "/no-such-place"}]
