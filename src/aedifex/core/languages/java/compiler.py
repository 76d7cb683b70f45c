"""What the compiler has against a program: all files together, built from clean, warnings new to it included."""

from __future__ import annotations

import hashlib
import os
import re
import shutil
import subprocess
import tempfile
from functools import lru_cache
from pathlib import Path

from ...program.model import Problem, Program, SourceFile
from .transform import instrumented, sketch_source

HERE = Path(__file__).parent
FLAGS = ["-nowarn", "-g", "-encoding", "UTF-8", "-proc:none"]
ERROR = re.compile(r"^(.*?\.java):(\d+): error: (.*)$", re.M)


def compiles(path: str, text: bytes) -> Problem | None:
    """One file says nothing by itself: see ``accepts``."""
    return None


def accepts(program: Program) -> list[Problem]:
    """The compiler's errors for a whole program; none where there is no compiler."""
    if shutil.which("javac") is None:
        return []
    _, problems = compiled(list(program.files.values()))
    return problems


@lru_cache(maxsize=1)
def store() -> str:
    """A folder for what was compiled, gone when the process ends."""
    import atexit

    folder = tempfile.mkdtemp(prefix="aedifex-java-")
    atexit.register(shutil.rmtree, folder, True)
    return folder


def support() -> str:
    """The compiled classes with which programs are pinned and drawn."""
    folder = os.path.join(store(), "support")
    if not os.path.isdir(folder):
        sources = sorted(str(p) for p in (HERE / "pinned" / "aedifex").glob("*.java"))
        made = tempfile.mkdtemp(dir=store())
        done = subprocess.run(["javac", *FLAGS, "-d", made, *sources], capture_output=True, text=True, check=False)
        if done.returncode:
            raise RuntimeError(done.stderr)
        try:
            os.rename(made, folder)
        except OSError:
            shutil.rmtree(made, ignore_errors=True)  # another thread was first
    return folder


def compiled(files: list[SourceFile]) -> tuple[str, list[Problem]]:
    """The folder of classes of a program, pinned, and what the compiler has against it."""
    texts = {}
    for file in files:
        if file.path.endswith(".pde"):
            texts[sketch_name(file.path) + ".java"] = sketch_source(file, sketch_name(file.path))
        else:
            texts[file.path] = instrumented(file)
    key = hashlib.sha256(repr(sorted(texts.items())).encode()).hexdigest()[:32]
    folder = os.path.join(store(), key)
    said = folder + ".txt"
    if not os.path.exists(said):
        build(texts, folder, said)
    with open(said, encoding="utf-8") as handle:
        errors = handle.read()
    return folder, told(errors, files)


def build(texts: dict[str, str], folder: str, said: str) -> None:
    made = tempfile.mkdtemp(dir=store())
    for path, text in texts.items():
        full = os.path.join(made, "src", path)
        os.makedirs(os.path.dirname(full), exist_ok=True)
        Path(full).write_text(text, "utf-8", newline="")
    names = sorted(texts)
    done = subprocess.run(
        ["javac", "-J-XX:TieredStopAtLevel=1", "-J-Xshare:auto", *FLAGS, "-cp", support(), "-d", os.path.join(made, "classes"), *names],
        cwd=os.path.join(made, "src"), capture_output=True, text=True, check=False,
    )  # fmt: skip
    try:
        os.rename(os.path.join(made, "classes"), folder)
    except OSError:
        os.makedirs(folder, exist_ok=True)
    Path(said).write_text(done.stderr if done.returncode else "", "utf-8")
    shutil.rmtree(made, ignore_errors=True)


def told(errors: str, files: list[SourceFile]) -> list[Problem]:
    found = []
    for path, line, message in ERROR.findall(errors):
        sketch = next((f for f in files if f.path.endswith(".pde") and sketch_name(f.path) + ".java" == path), None)
        shown, number = path, int(line)
        if sketch is not None:
            starts = sketch.lines
            shown, number = sketch.place(starts[min(max(number - 1, 0), len(starts) - 1)])
        found.append(Problem(shown, number, f"the compiler refuses it ({message.strip()})"))
    if errors and not found:
        found.append(Problem(files[0].path, 0, f"the compiler refuses it ({errors.strip().splitlines()[-1]})"))
    return found


def sketch_name(path: str) -> str:
    name = re.sub(r"\W", "_", path.rsplit("/", 1)[-1].removesuffix(".pde"))
    return name if not name[:1].isdigit() else "_" + name
