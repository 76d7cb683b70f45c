"""The text that is compiled for a run: chance and clock pinned, watched objects reported, a sketch made into a class.

Every change stays on its line, so that messages name the lines of the source.
"""

from __future__ import annotations

import re
from typing import Any

from ....program.edits import Range as Edit
from ....program.model import SourceFile
from ..reading.grammar import QUOTED

PINNED = {
    ("System", "currentTimeMillis"): "aedifex.Pin.millis",
    ("System", "nanoTime"): "aedifex.Pin.nanos",
    ("Math", "random"): "aedifex.Pin.chance",
    ("Thread", "sleep"): "aedifex.Pin.sleep",
    ("LocalDate", "now"): "aedifex.Pin.today",
    ("LocalDateTime", "now"): "aedifex.Pin.now",
    ("LocalTime", "now"): "aedifex.Pin.time",
    ("Instant", "now"): "aedifex.Pin.instant",
    ("Collections", "shuffle"): "aedifex.Pin.shuffle",
    ("UUID", "randomUUID"): "aedifex.Pin.uuid",
}
MADE = {"Random": "aedifex.Pin.random()", "Date": "aedifex.Pin.date()"}


def instrumented(file: SourceFile, more: list[Edit]) -> str:
    """Java as it is run; ``more``: further words to put in."""
    root = file.tree.root_node
    return rewritten(file.text, [*pins(root, file.text), *reports(root, file.text), *more])


def rewritten(text: bytes, edits: list[Edit]) -> str:
    parts, at = [], 0
    for start, end, new in sorted(edits):
        if start < at:
            continue
        parts += [text[at:start].decode("utf-8", "replace"), new]
        at = end
    return "".join([*parts, text[at:].decode("utf-8", "replace")])


def walk(root: Any) -> Any:
    """All nodes of a tree, each before its children."""
    stack = [root]
    while stack:
        node = stack.pop()
        yield node
        stack.extend(node.named_children)


def pins(root: Any, text: bytes) -> list[Edit]:
    """Calls that ask for chance or the time."""
    found: list[Edit] = []
    for node in walk(root):
        if node.type == "method_invocation":
            base, name = node.child_by_field_name("object"), node.child_by_field_name("name")
            if base is not None and base.type == "identifier":
                new = PINNED.get((word(base, text), word(name, text)))
                if new:
                    found.append((node.start_byte, name.end_byte, new))
        elif node.type == "method_reference":
            words = tuple(word(c, text) for c in node.named_children)
            if words in PINNED:
                owner, _, name = PINNED[words].rpartition(".")
                found.append((node.start_byte, node.end_byte, f"{owner}::{name}"))
        elif node.type == "object_creation_expression":
            made = word(node.child_by_field_name("type"), text)
            args = node.child_by_field_name("arguments")
            if made in ("Timer", "javax.swing.Timer") and (made != "Timer" or swing_timer(text)):
                kind = node.child_by_field_name("type")
                found.append((kind.start_byte, kind.end_byte, "aedifex.Ticker"))
            if made in MADE and args is not None and args.named_child_count == 0 and node.named_children[-1] == args:
                found.append((node.start_byte, node.end_byte, MADE[made]))
    return found


def swing_timer(text: bytes) -> bool:
    """Whether a timer is that of a window."""
    named = re.search(rb"\bimport\s+javax\.swing\.Timer\s*;", text)
    return bool(named) or (
        b"import javax.swing.*" in text and not re.search(rb"\bimport\s+java\.util\.Timer\s*;", text)
    )


def word(node: Any, text: bytes) -> str:
    return text[node.start_byte : node.end_byte].decode("utf-8", "replace")


def reports(root: Any, text: bytes) -> list[Edit]:
    """Words inside each class that say when an object of it is made."""
    found: list[Edit] = []
    for node in walk(root):
        if node.type == "class_declaration":
            at = node.child_by_field_name("body").start_byte + 1
            found.append((at, at, " { aedifex.Pin.made(this); }"))
    return found


# -- sketches ------------------------------------------------------------------------------------

FLOAT = re.compile(r"(?<![\w.])(\d+\.\d*|\.\d+|\d+(?=[eE]))([eE][+-]?\d+)?(?![\w.])")
COLOUR = re.compile(r"#([0-9A-Fa-f]{6})\b")
CAST = re.compile(r"\b(int|float|boolean|char|byte)(?=\s*\()")
STANDINS = ("PApplet", "PVector", "PImage", "PFont", "PShape", "PGraphics")
BROUGHT = re.compile(r"import\s+processing\.(core|data|event|opengl|pdf|dxf|svg)\b")  # what the stand-in does by itself
REMARKS = ("line_comment", "block_comment", "import_declaration")
CASTS = {"int": "parseInt", "float": "parseFloat", "boolean": "parseBoolean", "char": "parseChar", "byte": "parseByte"}


def sketch_source(file: SourceFile, name: str, more: list[Edit]) -> str:
    """A sketch as the class that it stands for: number literals of its dialect, colours, casts; imports in front."""
    edits: list[Edit] = [*more]
    root = file.tree.root_node
    imports = []
    for child in root.named_children:
        if child.type == "import_declaration":
            if not BROUGHT.match(word(child, file.text)):
                imports.append(word(child, file.text))
            edits.append((child.start_byte, child.end_byte, ""))
        elif child.type == "method_declaration" and not any(c.type == "modifiers" for c in child.children):
            edits.append((child.start_byte, child.start_byte, "public "))
    kinds = {c.type for c in root.named_children}
    active = "method_declaration" in kinds or kinds <= {"class_declaration", "interface_declaration", *REMARKS}
    edits += [*pins(root, file.text), *reports(root, file.text)]
    body = dialect(rewritten(file.text, edits))
    given = [f"import aedifex.{name};" for name in STANDINS]
    head = "".join(i + " " for i in ["import java.util.*;", "import java.io.*;", *given, *imports])
    if not active:
        body = f"public void setup() {{ noLoop(); {body}\n}}"
    start = "public static void main(String[] args) { PApplet.start(new " + name + "(), args); }"
    return f"{head}public class {name} extends PApplet {{ {body}\n{start} }}\n"


def dialect(text: str) -> str:
    """What a sketch writes in its own way, outside strings and remarks."""
    parts, at = [], 0
    raw = text.encode("utf-8")
    for match in QUOTED.finditer(raw):
        parts += [plain(raw[at : match.start()].decode("utf-8")), match[0].decode("utf-8")]
        at = match.end()
    return "".join([*parts, plain(raw[at:].decode("utf-8"))])


def plain(text: str) -> str:
    text = COLOUR.sub(lambda m: f"0xFF{m[1]}", text)
    text = CAST.sub(lambda m: CASTS[m[1]], text)
    text = FLOAT.sub(lambda m: m[0] + "f", text)
    return re.sub(r"\bcolor(?=\s+[A-Za-z_]|\s*\[|\s*>)", "int", text)
