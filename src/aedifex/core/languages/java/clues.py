"""What Java code and sketches tell about the input that they react to: keys, words, clicks."""

from __future__ import annotations

import re

from ...program.clues import Clues
from ...program.model import SourceFile

MOST = 24  # words or keys


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
        else:
            pairs = re.findall(r'equals(?:IgnoreCase)?\(\s*"([^"\\\n]{1,24})"|case\s+"([^"\\\n]{1,24})"', text)
            found.words += [word for pair in pairs for word in pair if word]
            found.splits = found.splits or re.search(r"\.split\(", text) is not None
            found.reads = found.reads or "System.in" in text
            found.numbers = (
                found.numbers or re.search(r"nextInt|nextDouble|parseInt|parseDouble|valueOf", text) is not None
            )
            if re.search(r"args\[\d|args\.length", text):
                found.arguments.append(["2"])
    for group in ("words", "keys", "held"):
        setattr(found, group, list(dict.fromkeys(getattr(found, group)))[:MOST])
    return found
