"""A screen that nobody sees, for programs that open real windows; one for all runs, ended with us."""

from __future__ import annotations

import atexit
import os
import shutil
import subprocess
import threading
from collections.abc import Iterator
from contextlib import contextmanager

_lock = threading.Lock()
_started: list[tuple[subprocess.Popen[bytes], str]] = []


MISSING = "it opens windows, and no screen without a viewer can be had: install Xvfb (Debian: apt install xvfb)"


def display() -> tuple[str, str]:
    """(its name, "") or ("", why there is none). Never the screen that the person looks at."""
    with _lock:
        if _started and _started[0][0].poll() is None:
            return _started[0][1], ""
        _started.clear()
        server, name, problem = start_screen()
        if server is not None:
            atexit.register(end, server)
            _started.append((server, name))
        return name, problem


@contextmanager
def own(shared: bool) -> Iterator[tuple[str, str]]:
    """A screen as above; ``shared``: one that other programs may use at the same time."""
    if shared:
        yield display()
        return
    server, name, problem = start_screen()
    try:
        yield name, problem
    finally:
        if server is not None:
            end(server)


def start_screen() -> tuple[subprocess.Popen[bytes] | None, str, str]:
    program = shutil.which("Xvfb")
    if program is None:
        return None, "", MISSING
    reading, writing = os.pipe()
    server = subprocess.Popen(
        [program, "-displayfd", str(writing), "-screen", "0", "1024x768x24", "-nolisten", "tcp", "-noreset"],
        pass_fds=[writing], stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        start_new_session=True,
    )  # fmt: skip
    os.close(writing)
    with os.fdopen(reading) as answer:
        number = answer.readline().strip()
    if not number:
        server.kill()
        return None, "", "it opens windows, and Xvfb did not start; try running Xvfb by hand"
    return server, ":" + number, ""


def end(server: subprocess.Popen[bytes]) -> None:
    server.kill()
    server.wait(5)
