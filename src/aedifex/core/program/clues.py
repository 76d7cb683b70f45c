"""What a program's text tells about the input it reacts to; a language's launcher finds it."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any


@dataclass
class Clues:
    """``words``: texts that typed input is compared with; ``numbers``: whether typed input is taken as a number,
    ``splits``: whether a typed line is taken apart into several words.

    ``keys``: reacted to when pressed; ``held``: looked at while they are down; ``mouse``: whether clicks count;
    ``size``: of the window in pixels; ``controls``: (control, value to put in, "" for one that is only used);
    ``arguments``: lists of arguments worth a run; ``requests``: as in a scenario, in an order in which they make sense;
    ``served``: (module, name) of what a server imports.
    """

    words: list[str] = field(default_factory=list)
    numbers: bool = False
    splits: bool = False
    reads: bool = False
    keys: list[str] = field(default_factory=list)
    held: list[str] = field(default_factory=list)
    mouse: bool = False
    size: tuple[int, int] = (640, 480)
    controls: list[tuple[str, str]] = field(default_factory=list)
    arguments: list[list[str]] = field(default_factory=list)
    requests: list[dict[str, Any]] = field(default_factory=list)
    served: list[tuple[str, str]] = field(default_factory=list)
