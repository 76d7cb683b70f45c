"""Run a program as a process: arguments, typed lines, exit status, output, written files."""

from __future__ import annotations

import contextlib
import subprocess
import threading

from ..evidence import Observed
from ..run_environment import World
from ..sandbox import Reader, Sandbox, sandbox
from ..scenarios import Scenario


def observe(scenario: Scenario, world: World) -> Observed:
    """Run once in a fresh scratch folder; what it did. Never raises for what the program does."""
    with sandbox(scenario, world) as box:
        return piped(box)


def piped(box: Sandbox) -> Observed:
    """Run with all input in a pipe and output in two."""
    pipe = subprocess.PIPE
    child = box.start(pipe, pipe, pipe)
    if child is None:
        return box.observed(None)
    readers = [Reader(child.stdout, box), Reader(child.stderr, box)]
    text = box.scenario.input.encode("utf-8", "surrogateescape")
    threading.Thread(target=feed, args=(child, text), daemon=True).start()
    box.wait(child)
    for reader in readers:
        reader.join(2)
    output, errors = (bytes(r.data) for r in readers)
    if not box.trouble:
        box.trouble = missing_prompt(box.scenario, output.decode("utf-8", "replace"))
    return box.observed(child, output, errors)


def missing_prompt(scenario: Scenario, output: str) -> str:
    at = 0
    for prompt in scenario.prompts:
        at = output.find(prompt, at)
        if at < 0:
            return f"the prompt '{prompt}' never came"
        at += len(prompt)
    return ""


def feed(child: subprocess.Popen[bytes], text: bytes) -> None:
    with contextlib.suppress(OSError, ValueError):
        assert child.stdin is not None
        child.stdin.write(text)
        child.stdin.close()
