"""What the class that owns the others and runs the loop is called: after what the program is."""

from __future__ import annotations

import re

from ...analysis.concerns import Concerns
from ...analysis.handlers import main_statements
from ...naming.identifiers import VERBS
from ...naming.verbs import remark_words
from ...program.code_text import starts_remark
from ..extraction.evident_things import BROAD
from .facts import FileFacts
from .names import GENERIC, module_stem

PLAYED = frozenset("game quiz puzzle winner lives".split())  # each says that a program is a game
HINTS = frozenset(
    "play plays player players win wins won lose lost score turn guess level board rival".split()
)  # two do
TITLE_WORDS = 4  # words of a remark that names what the main code is


def app_name(facts: FileFacts, things: list[str]) -> str:
    """A name for the app, which may be in use. ``things``: the classes that it owns."""
    write = facts.write
    stem = module_stem(facts)
    words = [w.rstrip("0123456789") for w in write.words(stem)]
    if noun := title(facts):
        return str(write.class_name([noun]))
    telling = [w for w in words if w not in GENERIC]
    if "game" in words and telling:
        return str(write.class_name([*telling, "game"]))
    if not telling:
        return "Game" if is_game(facts) else "App"
    if len(words) == 1 and words[0] in VERBS and len(things) == 1 and draws(facts):
        return str(write.class_name([things[0], "window"]))
    if is_played(facts):
        return str(write.class_name([*telling, "game"]))
    return str(write.class_name([stem, "app"]))


def title(facts: FileFacts) -> str:
    """What a remark above the main code calls it: "the evening service" is a service; "" if none does."""
    file = facts.file
    for s in [s for s in main_statements(file, facts.effects, facts.language) if s.kind != "import"]:
        start = facts.write.comment_start(file, s.start)
        text = file.slice(start, s.start).strip()
        if start < s.start and starts_remark(file, start, text) and any(f.end < start for f in file.tops):
            said = remark_words(file, s.start, facts.write)
            plain = "\n" not in text and text.lstrip("#/* ").lower().startswith("the ") and 1 <= len(said) < TITLE_WORDS
            return said[-1] if plain and said[-1] not in BROAD and said[-1] not in VERBS else ""
        if any(f.end < s.start for f in file.tops):
            return ""
    return ""


def is_game(facts: FileFacts) -> bool:
    """Whether a program is played: its names say so, or keys move what it draws."""
    return is_played(facts) or draws(facts)


def is_played(facts: FileFacts) -> bool:
    """Whether the names of a program, or its document string, speak of a game."""
    file = facts.file
    said = {w for s in file.scope.walk() for n in s.symbols for w in facts.write.words(n)}
    told = [s for s in file.statements if s.kind == "docstring"]
    said |= {w for s in told for w in re.findall(r"[a-z]+", file.slice(s.start, s.end).lower())}
    return bool(PLAYED & said) or len(HINTS & said) > 1


def draws(facts: FileFacts) -> bool:
    """Whether the program asks for events and draws."""
    about = Concerns(facts.file, facts.language, facts.effects)
    return {"drawing", "input"} <= set(about.found.values())
