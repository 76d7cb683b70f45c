"""What Java code and sketches tell about the input that they react to: keys, words, clicks."""

from __future__ import annotations

import re

from ....program.clues import Clues
from ....program.model import SourceFile

MAX_CLUES = 24  # words, keys or controls
WINDOW = re.compile(r"\bimport\s+(?:static\s+)?javax\.swing\b")
BUTTONS = r"JButton|JCheckBox|JRadioButton|JToggleButton|JMenuItem|JCheckBoxMenuItem|JRadioButtonMenuItem"
FIELDS = r"JTextField|JPasswordField|JTextArea|JSpinner|JComboBox|JSlider"
TEXT = r'"((?:[^"\\\n]|\\.){1,40})"'
CHARACTERS = re.compile(r"""[!=]=\s*'([^'\\])'|case\s+'([^'\\])'""")
KEYS = re.compile(r"VK_(\w+)")
ARROWS = {
    "SPACE": "SPACE",
    "ENTER": "ENTER",
    "ESCAPE": "ESCAPE",
    "LEFT": "LEFT",
    "RIGHT": "RIGHT",
    "UP": "UP",
    "DOWN": "DOWN",
}


def clues(files: list[SourceFile]) -> Clues:
    """What the files tell, in the order in which it stands there."""
    found = Clues()
    for file in files:
        text = file.text.decode("utf-8", "replace")
        if file.path.endswith(".pde"):
            letters = [c for pair in re.findall(r"key\s*==\s*'(.)'|case\s+'(.)'", text) for c in pair if c]
            found.keys += ["SPACE" if c == " " else c for c in letters]
            found.keys += re.findall(r"(?:keyCode\s*==\s*|case\s+)(LEFT|RIGHT|UP|DOWN)\b", text)
            found.mouse = found.mouse or "mousePressed" in text or "mouseClicked" in text or "mouseX" in text
            size = re.search(r"\bsize\(\s*(\d+)\s*,\s*(\d+)", text)
            if size:
                found.size = (int(size[1]), int(size[2]))
        elif WINDOW.search(text):
            window(found, text)
        else:
            pairs = re.findall(r'equals(?:IgnoreCase)?\(\s*"([^"\\\n]{1,24})"|case\s+"([^"\\\n]{1,24})"', text)
            found.words += [word for pair in pairs for word in pair if word]
            found.words += [c for pair in CHARACTERS.findall(text) for c in pair if c.strip()]
            found.splits = found.splits or re.search(r"\.split\(", text) is not None
            found.reads = found.reads or "System.in" in text
            found.numbers = (
                found.numbers or re.search(r"nextInt|nextDouble|parseInt|parseDouble|valueOf", text) is not None
            )
            if re.search(r"args\[\d|args\.length", text):
                found.arguments.append(["2"])
    for group in ("words", "keys", "held", "controls"):
        setattr(found, group, list(dict.fromkeys(getattr(found, group)))[:MAX_CLUES])
    return found


def window(found: Clues, text: str) -> None:
    """A program with a window: what its buttons say, its fields by their kind and number, keys and clicks that it
    listens to."""
    named = dict(re.findall(rf"(\w+)\s*\.\s*setName\(\s*{TEXT}", text))
    for variable, label in re.findall(rf"(?:(\w+)\s*=\s*)?new\s+(?:{BUTTONS})\s*\(\s*{TEXT}", text):
        found.controls.append((named.get(variable, label), ""))
    found.controls += [
        (label, "")
        for label in re.findall(rf"\.setText\(\s*{TEXT}\s*\)", text)
        if re.search(rf"new\s+(?:{BUTTONS})\s*\(\s*\)", text)
    ]
    if re.search(rf"new\s+(?:{BUTTONS})\s*\(\s*[A-Za-z_]", text):  # made in a loop, over texts or numbers
        found.controls += [
            (label, "")
            for row in re.findall(r"\{((?:\s*\"[^\"\n]{1,20}\"\s*,?)+)\}", text)
            for label in re.findall(r'"([^"]+)"', row)
        ]
        found.controls += (
            [(str(n), "") for n in range(10)]
            if re.search(rf"new\s+(?:{BUTTONS})\s*\(\s*(?:String\.valueOf|Integer\.toString|\"\"\s*\+)", text)
            else []
        )
    counts: dict[str, int] = {}
    for kind in re.findall(rf"new\s+({FIELDS})\b", text):
        counts[kind] = counts.get(kind, 0) + 1
        found.controls.append((f"{kind} {counts[kind]}", "2"))
    if re.search(r"KeyListener|KeyAdapter|getKeyCode|getKeyChar|KeyStroke", text):
        found.keys += [
            ARROWS.get(k, k) for k in KEYS.findall(text) if k in ARROWS or len(k) == 1 or re.fullmatch(r"F\d+", k)
        ]
        found.keys += ["SPACE" if c == " " else c for pair in CHARACTERS.findall(text) for c in pair if c]
    found.mouse = (
        found.mouse or re.search(r"MouseListener|MouseAdapter|mousePressed|mouseClicked|mouseDragged", text) is not None
    )
    size = re.search(r"(?:setSize|new\s+Dimension)\(\s*(\d+)\s*,\s*(\d+)", text)
    if size:
        found.size = (int(size[1]), int(size[2]))
