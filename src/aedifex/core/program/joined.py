"""Files that are one program together, as the tabs of a sketch: read as one text, written each by itself."""

from __future__ import annotations

import os
import re
from collections.abc import Callable, Mapping

from .model import Problem, SourceFile

STARTS = re.compile(rb"\bvoid\s+(?:setup|draw)\s*\(")
QUOTED = re.compile(rb"//[^\n]*|/\*.*?\*/|\"(?:\\.|[^\"\\\n])*\"|'(?:\\.|[^'\\\n])*'", re.S)


def main_first(root: str, texts: Mapping[str, bytes]) -> list[str]:
    """The paths of one folder in the order in which they are joined: what is named as the folder, or sets up, then by
    name."""
    paths = sorted(texts)
    folder = os.path.basename(os.path.dirname(os.path.join(os.path.abspath(root), paths[0])))
    named = [p for p in paths if os.path.splitext(os.path.basename(p))[0] == folder]
    main = (named or [p for p in paths if starts(texts[p])] or paths)[0]
    return [main, *(p for p in paths if p != main)]


def starts(text: bytes) -> bool:
    """Whether a file has what starts a sketch, as a function of its own and not as a class's method."""
    text = QUOTED.sub(b"", text)
    return any(text.count(b"{", 0, m.start()) == text.count(b"}", 0, m.start()) for m in STARTS.finditer(text))


def join(root: str, texts: Mapping[str, bytes], read: Callable[[str, bytes], SourceFile]) -> dict[str, SourceFile]:
    """One SourceFile for each folder, under the path of its main file; ``parts`` say where each file lies in it."""
    folders: dict[str, dict[str, bytes]] = {}
    for path, text in texts.items():
        folders.setdefault(path.rpartition("/")[0], {})[path] = text
    found: dict[str, SourceFile] = {}
    for held in folders.values():
        order = main_first(root, held)
        whole, parts = b"", []
        for path in order:
            whole += b"\n" if whole and not whole.endswith(b"\n") else b""
            parts.append((path, len(whole), len(whole) + len(held[path])))
            whole += held[path]
        file = read(order[0], whole)
        file.parts = parts
        file.problems = [Problem(*file.place(file.lines[max(p.line, 1) - 1]), p.message) for p in file.problems]
        found[order[0]] = file
    return found
