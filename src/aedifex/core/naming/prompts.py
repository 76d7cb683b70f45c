"""What a program asks a person to do, as the words of a name: "Guess a letter: " is what ``guess_letter`` asks."""

from __future__ import annotations

import re

from .identifiers import VERBS

ASKING = frozenset({"enter", "type", "input", "give", "insert", "provide", "write"})  # the person is only asked for it
DOING = VERBS | frozenset("guess choose pick select bet roll attack place take throw hit answer buy order book".split())
LITTLE = frozenset("a an the your you please now next new another any some of to in for and or".split())
MAX_WORDS = 3  # words of a name
PROMPT = re.compile(r"""["'](?:\\n)?([A-Za-z][A-Za-z ']{3,48}?)\s*(?:[:?>.(\[]|["'])""")


def prompt_words(text: str) -> list[str]:
    """The words of a name for lines that ask, from the first prompt in their text; [] if none says what to do.

    >>> prompt_words('letter = input("Guess a letter: ")')
    ['guess', 'letter']
    >>> prompt_words('input("Please enter your name: ")')
    ['ask', 'name']
    """
    for match in PROMPT.finditer(text):
        words = [w.lower() for w in match[1].replace("'", "").split()]
        words = [w for w in words if w not in LITTLE]
        if len(words) > 1 and len(words) <= MAX_WORDS and words[0] in ASKING | DOING:
            return [*(["ask"] if words[0] in ASKING else words[:1]), *words[1:]]
    return []
