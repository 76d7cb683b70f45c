"""What one script of others needs to be built by benchmarks/real_scripts.py."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path


@dataclass
class Case:
    """``lay_out`` fills an empty folder; ``entry``: the script's path in it.

    ``runs``: (arguments, typed text) of each scenario; None: Aedifex finds scenarios by itself.
    """

    name: str
    language: str
    entry: str
    lay_out: Callable[[Path], None]
    runs: list[tuple[list[str], str]] | None = None
    beside: str = ""  # which other files are named with the entry: a pattern
