"""A screen that nobody sees, for programs that open real windows; one for all runs, ended with us."""

from __future__ import annotations

import atexit
import os
import shutil
import subprocess
import threading

_lock = threading.Lock()
_started: list[tuple[subprocess.Popen[bytes], str]] = []


def display() -> tuple[str, str]:
    """(its name, "") or ("", why there is none). Never the screen that the person looks at."""
    program = shutil.which("Xvfb")
    if program is None:
        return (
            "",
            "it opens windows, and no screen without a viewer can be had: install Xvfb (Debian: apt install xvfb)",
        )
    with _lock:
        if _started and _started[0][0].poll() is None:
            return _started[0][1], ""
        _started.clear()
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
            return "", "it opens windows, and Xvfb did not start; try running Xvfb by hand"
        atexit.register(end, server)
        _started.append((server, ":" + number))
        return ":" + number, ""


def end(server: subprocess.Popen[bytes]) -> None:
    server.kill()
    server.wait(5)
