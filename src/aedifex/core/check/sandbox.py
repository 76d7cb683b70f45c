"""A bounded run: a scratch folder, limits from outside, and nothing left behind when it is over."""

from __future__ import annotations

import contextlib
import fnmatch
import hashlib
import os
import resource
import select
import signal
import subprocess
import threading
import time
from collections.abc import Iterator, Sequence
from typing import IO

from ..program.scratch import cleared, scratch_folder
from .evidence import Observed
from .run_environment import World
from .run_log import read_log
from .scenarios import Scenario

OUTPUT = 8 << 20  # bytes kept of each stream; a program that writes more is stopped
FILE = 64 << 20  # bytes in one written file
FILES = 512 << 20  # bytes in the scratch folder
NUMBER = 20_000  # files in it
PROCESSES = 200  # that one run may have at a time
KEPT = 1 << 20  # bytes of a written file that are kept as text
MARK = "AEDIFEX_RUN"  # environment variable by which everything that a run started is found again


class Sandbox:
    """One run's folders and processes. ``top`` holds the scratch copy (``folder``), the plan and the log."""

    def __init__(self, scenario: Scenario, world: World, top: str) -> None:
        self.scenario, self.world, self.top = scenario, world, top
        self.folder = world.place(top)
        self.log = os.path.join(top, "log")
        self.trouble = ""
        world.lay_out(self.folder, scenario.bring)
        world.lay_around(self.folder)
        self.before: dict[str, str] = {}  # what is there once everything is laid out
        os.makedirs(os.path.join(self.folder, ".tmp"), exist_ok=True)

    def command(self) -> list[str]:
        """The command of the scenario; what stands for the language's engine may be several words."""
        start, entry = self.world.command()
        found: list[str] = []
        for part in self.scenario.run:
            found += start if part in self.world.engines else [part.replace("{entry}", entry)]
        return [part.replace("{python}", start[0]) for part in found]

    def environment(self) -> dict[str, str]:
        return {**self.world.environment(self.scenario, self.folder, self.top), **self.scenario.env, MARK: self.top}

    def start(
        self, stdin: int, stdout: int, stderr: int, terminal: bool = False, pass_fds: Sequence[int] = ()
    ) -> subprocess.Popen[bytes] | None:
        """Start it in a session of its own; ``terminal``: its input is a terminal, which the run makes its own."""
        command, environment = self.command(), self.environment()
        self.trouble = self.trouble or self.world.language.launch.prepare(
            self.folder, self.world.sources, self.world.extra
        )
        if self.trouble:
            return None
        self.before = listing(self.folder)
        if terminal:
            environment["TERM"] = "linux"
        try:
            child = subprocess.Popen(
                command, cwd=self.folder, env=environment, stdin=stdin,
                stdout=stdout, stderr=stderr, start_new_session=True, pass_fds=pass_fds,
            )  # fmt: skip
        except OSError as error:
            self.trouble = f"'{self.command()[0]}' could not be started ({error.strerror}); install it"
            return None
        limit_process(child.pid, self.scenario.seconds, self.world.language.launch.MEMORY)
        return child

    def wait(self, child: subprocess.Popen[bytes]) -> None:
        """Until it ends, or until a bound is passed; afterwards nothing of it is running."""
        deadline = looked = time.monotonic()
        deadline += self.scenario.seconds
        try:
            while not self.trouble and not ended(child, min(0.1, max(0.001, deadline - time.monotonic()))):
                now = time.monotonic()
                if now > deadline:
                    self.trouble = f"it was still running after {self.scenario.seconds:g} seconds"
                elif now - looked > 0.5:
                    looked = now
                    self.trouble = self.trouble or self.excess()
        finally:
            end_all(child, self.top)

    def excess(self) -> str:
        if len(marked(self.top)) > PROCESSES:
            return f"it started more than {PROCESSES} processes"
        written, number = size(self.folder)
        if written > FILES:
            return f"it wrote more than {FILES >> 20} MiB of files"
        if number > NUMBER:
            return f"it made more than {NUMBER:,} files"
        return ""

    def observed(self, child: subprocess.Popen[bytes] | None, output: bytes = b"", errors: bytes = b"") -> Observed:
        """What was seen, once the run is over."""
        ended = child is not None and not self.trouble
        seen = Observed(
            child.returncode if child is not None and ended else None, output.decode("utf-8", "backslashreplace"),
            errors.decode("utf-8", "backslashreplace"), trouble=self.trouble,
        )  # fmt: skip
        read_log(self.log, seen)
        seen.files = written_files(self.folder, self.before, self.scenario.files)
        seen.error = self.world.mask(seen.error)
        for attribute in ("output", "error", "device"):
            setattr(seen, attribute, self.neutral(getattr(seen, attribute)))
        seen.shots = {label: self.neutral(text) for label, text in seen.shots.items()}
        seen.notes = [self.neutral(n) for n in seen.notes]
        seen.state = {n: [[m, self.neutral(v)] for m, v in rows] for n, rows in seen.state.items()}
        return seen

    def neutral(self, text: str) -> str:
        return text.replace(self.folder, "<folder>").replace(self.top, "<top>") if self.top in text else text


@contextlib.contextmanager
def sandbox(scenario: Scenario, world: World) -> Iterator[Sandbox]:
    """A folder in which a scenario runs, with what it needs; gone afterwards."""
    top = scratch_folder("run")
    try:
        yield Sandbox(scenario, world, top)
    finally:
        end_all(None, top)
        cleared(top)


def limit_process(pid: int, seconds: float, memory: int) -> None:
    """Limits of memory (bytes, 0 for none), processor time and file size, set from outside: the child needs no help of
    ours."""
    limits = [
        *([(resource.RLIMIT_AS, memory, memory)] if memory else []),
        (resource.RLIMIT_FSIZE, FILE, FILE),
        (resource.RLIMIT_CPU, int(seconds) + 2, int(seconds) + 4),
        (resource.RLIMIT_CORE, 0, 0),
    ]
    for kind, soft, hard in limits:
        with contextlib.suppress(OSError, ValueError):
            resource.prlimit(pid, kind, (soft, hard))


class Reader(threading.Thread):
    """Collects one stream up to a bound, then has the run ended."""

    def __init__(self, stream: IO[bytes] | None, box: Sandbox) -> None:
        super().__init__(daemon=True)
        assert stream is not None
        self.stream, self.box = stream, box
        self.data = bytearray()
        self.start()

    def run(self) -> None:
        with contextlib.suppress(OSError, ValueError):
            while chunk := os.read(self.stream.fileno(), 1 << 16):
                self.data += chunk
                if len(self.data) > OUTPUT:
                    self.box.trouble = f"it wrote more than {OUTPUT >> 20} MiB"
                    del self.data[OUTPUT:]
                    return


def ended(child: subprocess.Popen[bytes], seconds: float) -> bool:
    """Wait at most so long for a child to end, awake as soon as it does."""
    try:
        waiting = os.pidfd_open(child.pid)
    except (OSError, AttributeError):  # an older kernel, or another system
        time.sleep(min(seconds, 0.01))
        return child.poll() is not None
    try:
        select.select([waiting], [], [], seconds)
    finally:
        os.close(waiting)
    return child.poll() is not None


def marked(top: str) -> list[int]:
    """The processes that belong to a run, found by the mark in their environment."""
    found = []
    wanted = f"{MARK}={top}".encode()
    try:
        names = os.listdir("/proc")
    except OSError:
        return []
    for name in names:
        if name.isdigit():
            with contextlib.suppress(OSError), open(f"/proc/{name}/environ", "rb") as handle:
                if wanted in handle.read().split(b"\0"):
                    found.append(int(name))
    return found


def end_all(child: subprocess.Popen[bytes] | None, top: str) -> None:
    """End the child and everything that it started, also what left its process group."""
    if child is not None:
        with contextlib.suppress(OSError):
            os.killpg(child.pid, signal.SIGKILL)
    deadline = time.monotonic() + 5
    while time.monotonic() < deadline:
        left = [p for p in marked(top) if child is None or p != child.pid or child.poll() is None]
        left = [p for p in left if not zombie(p)]
        for pid in left:
            with contextlib.suppress(OSError):
                os.kill(pid, signal.SIGSTOP)
        for pid in left:
            with contextlib.suppress(OSError):
                os.kill(pid, signal.SIGKILL)
        if not left and (child is None or child.poll() is not None):
            return
        time.sleep(0.003)


def zombie(pid: int) -> bool:
    try:
        with open(f"/proc/{pid}/stat", "rb") as handle:
            return handle.read().rpartition(b")")[2].split()[0] in (b"Z", b"X")
    except OSError:
        return True


def size(folder: str) -> tuple[int, int]:
    """Bytes and number of the files below a folder."""
    total = number = 0
    for place, _, names in os.walk(folder):
        number += len(names)
        for name in names:
            with contextlib.suppress(OSError):
                total += os.lstat(os.path.join(place, name)).st_size
    return total, number


def listing(folder: str) -> dict[str, str]:
    """Hash of every file below a folder, by relative path."""
    found = {}
    for place, folders, names in os.walk(folder):
        folders[:] = [d for d in folders if d not in ("__pycache__", ".tmp")]
        for name in names:
            full = os.path.join(place, name)
            if os.path.isfile(full) and not os.path.islink(full):
                with contextlib.suppress(OSError), open(full, "rb") as handle:
                    found[os.path.relpath(full, folder)] = hashlib.file_digest(handle, "sha256").hexdigest()
    return found


def written_files(folder: str, before: dict[str, str], patterns: list[str]) -> dict[str, str]:
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
