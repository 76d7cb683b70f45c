"""Run a program that serves the web: requests one after another, and of each answer its status, what matters of its
headers, and its body. How they reach the program (called in its process, or over loopback) is the launcher's
business."""

from __future__ import annotations

from ..evidence import Observed
from ..run_environment import World
from ..sandbox import sandbox
from ..scenarios import Scenario
from .process import piped

INTERRUPTED = (-2, 130, 0, 1)  # how a server ends that is interrupted after its last request


def observe(scenario: Scenario, world: World) -> Observed:
    """Run once; each answer is a shot."""
    with sandbox(scenario, world) as box:
        seen = piped(box)
        if seen.stopped and seen.status in INTERRUPTED:
            seen.status, seen.error = 0, without_interrupt(seen.error)
        return seen


def without_interrupt(error: str) -> str:
    """Standard error without the trace of our own interruption."""
    lines = error.split("\n")
    return "\n".join(x for x in lines if x not in ("Traceback (most recent call last):", "KeyboardInterrupt", "^C"))
