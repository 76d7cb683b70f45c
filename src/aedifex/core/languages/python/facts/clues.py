"""What Python code tells about the input that it reacts to: keys, words, routes, arguments, controls."""

from __future__ import annotations

import ast
import re
from typing import Any

from ....program.clues import Clues
from ....program.model import SourceFile
from .by_name import served
from .clues_arguments import arguments
from .clues_web import requests

CURSES = {
    "KEY_UP": "UP",
    "KEY_DOWN": "DOWN",
    "KEY_LEFT": "LEFT",
    "KEY_RIGHT": "RIGHT",
    "KEY_ENTER": "ENTER",
    "KEY_BACKSPACE": "BACKSPACE",
    "KEY_HOME": "HOME",
    "KEY_END": "END",
    "KEY_DC": "DELETE",
    "KEY_NPAGE": "PAGEDOWN",
    "KEY_PPAGE": "PAGEUP",
    **{f"KEY_F{n}": f"F{n}" for n in range(1, 11)},
}
CODES = {27: "ESC", 10: "ENTER", 13: "ENTER", 32: " ", 127: "BACKSPACE", 9: "TAB"}
MAX_CLUES = 24  # words or keys


def clues(files: list[SourceFile]) -> Clues:
    """What the files tell, in the order in which it stands there."""
    found = Clues()
    for file in files:
        try:
            tree = ast.parse(file.text)
        except (SyntaxError, ValueError, RecursionError):
            continue
        looker = Looker(found)
        looker.visit(tree)
        found.arguments += arguments(tree)
        found.requests += requests(tree)
        looker.sort()
        if any(s.kind == "guard" for s in file.statements):
            found.served += [
                (file.path.rsplit("/", 1)[-1].rsplit(".", 1)[0], name) for _, names, _ in served(file) for name in names
            ]
    found.splits = any(b".split()" in f.text or b'.split(" ")' in f.text or b".split(None" in f.text for f in files)
    for group in ("words", "keys", "held", "controls"):
        setattr(found, group, list(dict.fromkeys(getattr(found, group)))[:MAX_CLUES])
    found.keys = [k for k in found.keys if k not in found.held]
    return found


class Looker(ast.NodeVisitor):
    """Goes through a file and notes what tells of its input."""

    def __init__(self, found: Clues) -> None:
        self.found = found
        self.texts: list[str] = []  # compared with something
        self.constants: dict[str, Any] = {}
        self.tables: dict[str, list[str]] = {}  # names of tables and lists → the texts that they are keyed by or hold
        self.looked_up: list[str] = []  # names in which something is looked up
        self.entries = 0

    def sort(self) -> None:
        """Short texts that something is compared with are words that may be typed, and so are keys of tables."""
        keys = [k for name in dict.fromkeys(self.looked_up) for k in self.tables.get(name, [])[:3]]
        for text in self.texts + keys:
            if text == text.strip("\n") and len(text) <= 24:
                self.found.words.append(text)

    def visit_Assign(self, node: ast.Assign) -> None:
        if len(node.targets) == 1 and isinstance(node.targets[0], ast.Name) and isinstance(node.value, ast.Constant):
            self.constants[node.targets[0].id] = node.value.value
        elif len(node.targets) == 1 and isinstance(node.targets[0], ast.Name):
            parts = node.value.keys if isinstance(node.value, ast.Dict) else getattr(node.value, "elts", [])
            texts = [p.value for p in parts if isinstance(p, ast.Constant) and isinstance(p.value, str)]
            if texts:
                self.tables[node.targets[0].id] = texts
        if len(node.targets) == 1 and isinstance(node.targets[0], ast.Tuple) and isinstance(node.value, ast.Tuple):
            for target, value in zip(node.targets[0].elts, node.value.elts, strict=False):
                if isinstance(target, ast.Name) and isinstance(value, ast.Constant):
                    self.constants[target.id] = value.value
        self.generic_visit(node)

    def visit_Compare(self, node: ast.Compare) -> None:
        for part in (node.left, *node.comparators):
            for item in part.elts if isinstance(part, ast.Tuple | ast.List | ast.Set) else [part]:
                if isinstance(item, ast.Constant) and isinstance(item.value, str):
                    self.texts.append(item.value)
                elif isinstance(item, ast.Constant) and isinstance(item.value, int) and item.value in CODES:
                    self.found.keys.append(CODES[item.value])
        for operator, part in zip(node.ops, node.comparators, strict=True):
            if isinstance(operator, ast.In | ast.NotIn) and isinstance(part, ast.Name):
                self.looked_up.append(part.id)
            if (
                isinstance(operator, ast.In)
                and isinstance(part, ast.Constant)
                and isinstance(part.value, str)
                and len(part.value) <= 12
            ):
                self.texts += list(part.value)
        self.generic_visit(node)

    def visit_MatchValue(self, node: ast.MatchValue) -> None:
        if isinstance(node.value, ast.Constant) and isinstance(node.value.value, str):
            self.texts.append(node.value.value)
        self.generic_visit(node)

    def visit_Dict(self, node: ast.Dict) -> None:
        """A table of commands: words, and what is called for each."""
        for key, value in zip(node.keys, node.values, strict=True):
            if (
                isinstance(key, ast.Constant)
                and isinstance(key.value, str)
                and isinstance(value, ast.Name | ast.Attribute | ast.Lambda)
            ):
                self.texts.append(key.value)
        self.generic_visit(node)

    def visit_Subscript(self, node: ast.Subscript) -> None:
        if isinstance(node.value, ast.Name) and not isinstance(node.slice, ast.Constant):
            self.looked_up.append(node.value.id)
        if isinstance(node.slice, ast.Attribute) and node.slice.attr.startswith("K_"):
            self.found.held.append(node.slice.attr[2:])
        elif isinstance(node.slice, ast.Name) and node.slice.id.startswith("K_"):
            self.found.held.append(node.slice.id[2:])
        self.generic_visit(node)

    def visit_Attribute(self, node: ast.Attribute) -> None:
        self.name(node.attr)
        self.generic_visit(node)

    def visit_Name(self, node: ast.Name) -> None:
        self.name(node.id)

    def name(self, name: str) -> None:
        if re.match(r"K_\w+$", name):
            self.found.keys.append(name[2:])
        elif name in CURSES:
            self.found.keys.append(CURSES[name])
        elif name in ("MOUSEBUTTONDOWN", "MOUSEBUTTONUP", "get_pos", "MOUSEMOTION"):
            self.found.mouse = True
        elif name in ("input", "stdin", "raw_input"):
            self.found.reads = True

    def visit_Call(self, node: ast.Call) -> None:
        name = (
            node.func.attr
            if isinstance(node.func, ast.Attribute)
            else node.func.id
            if isinstance(node.func, ast.Name)
            else ""
        )
        texts = [a.value for a in node.args if isinstance(a, ast.Constant) and isinstance(a.value, str)]
        if name == "ord" and texts:
            self.found.keys.append(texts[0])
        elif name in ("startswith", "endswith") and texts:
            self.texts.append(texts[0])
        elif name in ("int", "float", "isdigit", "isnumeric", "isdecimal"):
            self.found.numbers = True
        elif name == "get" and isinstance(node.func, ast.Attribute) and isinstance(node.func.value, ast.Name):
            self.looked_up.append(node.func.value.id)
        elif name in ("onkey", "onkeypress", "onkeyrelease") and texts:
            self.found.keys.append(texts[-1])
        elif name in ("onclick", "onscreenclick"):
            self.found.mouse = True
        elif name == "set_mode" and node.args:
            self.size(node.args[0])
        elif name in ("bind", "bind_all") and texts:
            self.bound(texts[0])
        elif name in ("Button", "Checkbutton", "Radiobutton"):
            for word in node.keywords:
                if word.arg == "text" and isinstance(word.value, ast.Constant):
                    self.found.controls.append((str(word.value.value), ""))
        elif name == "Entry":
            self.entries += 1
            self.found.controls.append((f"Entry {self.entries}", "2"))
        self.generic_visit(node)

    def size(self, node: ast.expr) -> None:
        if isinstance(node, ast.Tuple) and len(node.elts) == 2:
            values = [
                self.constants.get(e.id) if isinstance(e, ast.Name) else getattr(e, "value", None) for e in node.elts
            ]
            if all(isinstance(v, int) for v in values):
                self.found.size = (int(values[0] or 640), int(values[1] or 480))

    def bound(self, sequence: str) -> None:
        match = re.fullmatch(r"<?(?:Key-|KeyPress-|KeyRelease-)?([A-Za-z]\w*|.)>?", sequence)
        if match and not match[1].startswith(
            ("Button", "Configure", "Motion", "Enter", "Leave", "B1", "Key", "Any", "Focus", "Map")
        ):
            self.found.keys.append(match[1])
        elif "Button" in sequence or "B1" in sequence:
            self.found.mouse = True
