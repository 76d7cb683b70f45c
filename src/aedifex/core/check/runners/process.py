"""Run a program as a process: arguments, typed lines, exit status, output, written files."""

from __future__ import annotations

import contextlib
import fnmatch
import hashlib
import os
import resource
import signal
import subprocess
import tempfile
import threading
import time
from typing import IO

from ..evidence import Observed
from ..scenarios import Scenario
from ..world import World

MEMORY = 2 << 30  # bytes of address space
OUTPUT = 8 << 20  # bytes kept of each stream; a program that writes more is stopped
FILE = 64 << 20  # bytes in one written file
KEPT = 1 << 20  # bytes of a written file that are kept as text


def observe(scenario: Scenario, world: World) -> Observed:
    """Run once in a fresh scratch folder; what it did. Never raises for what the program does."""
    with tempfile.TemporaryDirectory(prefix="aedifex-") as top:
        folder = os.path.join(top, "work")
        world.lay_out(folder, scenario.bring)
        before = listing(folder)
        os.makedirs(os.path.join(folder, ".tmp"), exist_ok=True)
        record = os.path.join(top, "record")
        command = [part.format(python=world.interpreter, entry=world.entry) for part in scenario.run]
        seen = execute(command, folder, {**world.environment(folder, record), **scenario.env}, scenario)
        seen.files = written(folder, before, scenario.files)
        if os.path.exists(record):
            with open(record, encoding="utf-8", errors="replace") as handle:
                seen.device = handle.read(OUTPUT)
        seen.error = world.mask(seen.error)
        for attribute in ("output", "error", "device"):
            setattr(seen, attribute, getattr(seen, attribute).replace(folder, "<folder>").replace(top, "<top>"))
    return seen


def execute(command: list[str], folder: str, env: dict[str, str], scenario: Scenario) -> Observed:
    try:
        child = subprocess.Popen(
            command, cwd=folder, env=env, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE,
            start_new_session=True,
        )  # fmt: skip
    except OSError as error:
        return Observed(trouble=f"'{command[0]}' could not be started ({error.strerror})")
    bound(child.pid, scenario.seconds)
    readers = [Reader(child.stdout, child), Reader(child.stderr, child)]
    feeder = threading.Thread(target=feed, args=(child, scenario.stdin.encode("utf-8", "surrogateescape")), daemon=True)
    feeder.start()
    trouble = ""
    try:
        child.wait(scenario.seconds)
    except subprocess.TimeoutExpired:
        trouble = f"it was still running after {scenario.seconds:g} seconds"
    finally:
        end_group(child)
    for reader in readers:
        reader.join(2)
    output, errors = (bytes(r.data).decode("utf-8", "replace") for r in readers)
    if any(r.flooded for r in readers):
        trouble = f"it wrote more than {OUTPUT >> 20} MiB"
    elif not trouble:
        at = 0
        for prompt in scenario.prompts:
            at = output.find(prompt, at)
            if at < 0:
                trouble = f"the prompt '{prompt}' never came"
                break
    return Observed(child.returncode if not trouble else None, output, errors, trouble=trouble)


def bound(pid: int, seconds: float) -> None:
    """Limits of memory, processor time and file size, set from outside: the child needs no help of ours."""
    limits = [
        (resource.RLIMIT_AS, MEMORY, MEMORY),
        (resource.RLIMIT_FSIZE, FILE, FILE),
        (resource.RLIMIT_CPU, int(seconds) + 2, int(seconds) + 4),
        (resource.RLIMIT_CORE, 0, 0),
    ]
    for kind, soft, hard in limits:
        with contextlib.suppress(OSError, ValueError):
            resource.prlimit(pid, kind, (soft, hard))


class Reader(threading.Thread):
    """Collects one stream up to a bound, then stops the child."""

    def __init__(self, stream: IO[bytes] | None, child: subprocess.Popen[bytes]) -> None:
        super().__init__(daemon=True)
        assert stream is not None
        self.stream, self.child = stream, child
        self.data = bytearray()
        self.flooded = False
        self.start()

    def run(self) -> None:
        with contextlib.suppress(OSError, ValueError):
            while chunk := os.read(self.stream.fileno(), 1 << 16):
                self.data += chunk
                if len(self.data) > OUTPUT:
                    self.flooded = True
                    del self.data[OUTPUT:]
                    end_group(self.child)
                    return


def feed(child: subprocess.Popen[bytes], text: bytes) -> None:
    with contextlib.suppress(OSError, ValueError):
        assert child.stdin is not None
        child.stdin.write(text)
        child.stdin.close()


def end_group(child: subprocess.Popen[bytes]) -> None:
    """The child and everything that it started."""
    with contextlib.suppress(OSError):
        os.killpg(child.pid, signal.SIGKILL)
    deadline = time.monotonic() + 5
    while child.poll() is None and time.monotonic() < deadline:
        time.sleep(0.005)


def listing(folder: str) -> dict[str, str]:
    """Hash of every file below a folder, by relative path."""
    found = {}
    for place, folders, names in os.walk(folder):
        folders[:] = [d for d in folders if d not in ("__pycache__", ".tmp")]
        for name in names:
            full = os.path.join(place, name)
            if os.path.isfile(full) and not os.path.islink(full):
                with contextlib.suppress(OSError), open(full, "rb") as handle:
                    found[os.path.relpath(full, folder)] = hashlib.sha256(handle.read()).hexdigest()
    return found


def written(folder: str, before: dict[str, str], patterns: list[str]) -> dict[str, str]:
    """Contents of the files that the run made or changed ("<gone>" for removed ones)."""
    after = listing(folder)
    found = {path: "<gone>" for path in before if path not in after}
    for path, digest in after.items():
        if before.get(path) == digest:
            continue
        with open(os.path.join(folder, path), "rb") as handle:
            data = handle.read(KEPT + 1)
        try:
            text = data.decode("utf-8")
        except UnicodeDecodeError:
            text = ""
        found[path] = text if len(data) <= KEPT and text else f"<{digest}>"
    return {p: t for p, t in sorted(found.items()) if not patterns or any(fnmatch.fnmatch(p, g) for g in patterns)}
