"""Words that say what a thing has: where it is, how fast it goes, what it looks like."""

from __future__ import annotations

PLACES = ("x", "y", "z", "pos", "position", "row", "col", "column", "angle")
SPEEDS = ("speed", "velocity", "vel", "dx", "dy", "vx", "vy", "step", "direction")
LOOKS = ("size", "radius", "color", "colour", "image", "img", "livery", "letter", "symbol", "char", "name", "label")
CONFIGURING = frozenset([*PLACES, *SPEEDS, *LOOKS, "pace"])  # what a second thing of its kind would have of its own
