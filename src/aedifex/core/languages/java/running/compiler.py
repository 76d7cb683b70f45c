"""What the compiler has against a program: all files together, built from clean, warnings new to it included."""

from __future__ import annotations

import contextlib
import hashlib
import os
import re
import shutil
import subprocess
import tempfile
from functools import lru_cache
from pathlib import Path
from threading import Lock
from typing import Any

from ....program.errors import AedifexError
from ....program.model import Problem, SourceFile
from ..writing.transform import instrumented, sketch_source
from .cover import marks

HERE = Path(__file__).parent
FLAGS = ["-nowarn", "-g", "-encoding", "UTF-8", "-proc:none"]
ERROR = re.compile(r"^(.*?\.java):(\d+): error: (.*)$", re.M)


def compiles(path: str, text: bytes) -> Problem | None:
    """One file says nothing by itself: see ``accepts``."""
    return None


def accepts(files: list[SourceFile]) -> list[Problem]:
    """The compiler's errors for a whole program; none where there is no compiler."""
    if shutil.which("javac") is None:
        return []
    _, problems = compiled(files)
    return problems


@lru_cache(maxsize=1)
def store() -> str:
    """A folder for what was compiled, gone when the process ends."""
    import atexit

    from ....program.scratch import scratch_folder

    folder = scratch_folder("java")
    atexit.register(shutil.rmtree, folder, True)
    return folder


@lru_cache(maxsize=1)
def support() -> str:
    """The compiled classes with which programs are pinned and drawn; kept for the next command, where that is
    possible."""
    sources = sorted((HERE / "pinned" / "aedifex").glob("*.java"))
    key = hashlib.sha256(b"".join(p.read_bytes() for p in sources) + str(shutil.which("javac")).encode()).hexdigest()[
        :16
    ]
    cache = os.path.join(os.environ.get("XDG_CACHE_HOME") or os.path.expanduser("~/.cache"), "aedifex", "java-" + key)
    if os.path.isfile(os.path.join(cache, "complete")):
        return cache
    if shutil.which("javac") is None:
        raise AedifexError("there is no 'javac' to compile it; install a JDK.")
    made = tempfile.mkdtemp(dir=store())
    done = subprocess.run(
        ["javac", *FLAGS, "-d", made, *map(str, sources)], capture_output=True, text=True, check=False
    )
    if done.returncode:
        raise AedifexError(f"the Java compiler does not take what Aedifex brings along ({done.stderr.strip()[:300]}).")
    Path(made, "complete").touch()
    try:
        os.makedirs(os.path.dirname(cache), exist_ok=True)
        shutil.copytree(made, cache + f".{os.getpid()}")
        os.rename(cache + f".{os.getpid()}", cache)
    except OSError:
        return made  # no place to keep it, or another command was first
    return cache


class Warm:
    """A compiler that stays: the second compilation takes a tenth of the first."""

    def __init__(self) -> None:
        import atexit

        command = [
            "java",
            "-XX:TieredStopAtLevel=1",
            "-XX:+UseSerialGC",
            "-Xshare:auto",
            "-Xmx512m",
            "-cp",
            support(),
            "aedifex.Compiler",
        ]
        self.child = subprocess.Popen(
            command,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
            encoding="utf-8",
        )
        self.lock = Lock()
        atexit.register(self.child.kill)

    def compile(self, path: str, to: str, files: list[str]) -> tuple[bool, str]:
        assert self.child.stdin is not None and self.child.stdout is not None
        with self.lock, contextlib.suppress(BrokenPipeError):
            self.child.stdin.write("\t".join([path, to, *files]) + "\n")
            self.child.stdin.flush()
            said: list[str] = []
            for line in self.child.stdout:
                if line.startswith("\1"):
                    return line.strip() == "\1fine", "".join(said)
                said.append(line)
        raise AedifexError("the Java compiler ended unasked; run the command again.")


@lru_cache(maxsize=1)
def warm() -> Warm:
    return Warm()


def compiled(files: list[SourceFile], cover: Any = None) -> tuple[str, list[Problem]]:
    """The folder of classes of a program, pinned, and what the compiler has against it.

    ``cover``: what a run notes of where it comes (nothing, functions, or "lines" as well).
    """
    texts = {}
    for file in files:
        more = marks(file, cover == "lines") if cover else []
        if file.path.endswith(".pde"):
            texts[sketch_name(file.path) + ".java"] = sketch_source(file, sketch_name(file.path), more)
        else:
            texts[file.path] = instrumented(file, more)
    key = hashlib.sha256(repr(sorted(texts.items())).encode()).hexdigest()[:32]
    folder = os.path.join(store(), key)
    said = folder + ".txt"
    if not os.path.exists(said):
        build(texts, folder, said)
    with open(said, encoding="utf-8") as handle:
        errors = handle.read()
    return compiled(files) if errors and cover else (folder, told(errors, files))


def build(texts: dict[str, str], folder: str, said: str) -> None:
    made = tempfile.mkdtemp(dir=store())
    for path, text in texts.items():
        full = os.path.join(made, "src", path)
        os.makedirs(os.path.dirname(full), exist_ok=True)
        Path(full).write_text(text, "utf-8", newline="")
    classes = os.path.join(made, "classes")
    os.makedirs(classes)
    top = os.path.join(made, "src", "")
    fine, errors = warm().compile(support(), classes, [top + n for n in sorted(texts)])
    try:
        os.rename(classes, folder)
    except OSError:
        os.makedirs(folder, exist_ok=True)
    Path(said).write_text("" if fine else errors.replace(top, ""), "utf-8")
    shutil.rmtree(made, ignore_errors=True)


def told(errors: str, files: list[SourceFile]) -> list[Problem]:
    found = []
    for path, line, message in ERROR.findall(errors):
        sketch = next((f for f in files if f.path.endswith(".pde") and sketch_name(f.path) + ".java" == path), None)
        shown, number = path, int(line)
        if sketch is not None:
            starts = sketch.lines
            shown, number = sketch.stands(starts[min(max(number - 1, 0), len(starts) - 1)])
        found.append(Problem(shown, number, f"the compiler refuses it ({message.strip()})"))
    if errors and not found:
        found.append(Problem(files[0].path, 0, f"the compiler refuses it ({errors.strip().splitlines()[-1]})"))
    return found


def sketch_name(path: str) -> str:
    """The name of the class that a sketch is compiled to."""
    name = re.sub(r"\W", "_", path.rsplit("/", 1)[-1].removesuffix(".pde"))
    return name if not name[:1].isdigit() else "_" + name
