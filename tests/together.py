"""Java programs and sketches run in one engine after another, a twentieth of the time that a process each takes."""

from __future__ import annotations

import atexit
import base64
import os
import re
import subprocess
import tempfile
from functools import cache
from pathlib import Path

from aedifex.core.languages.java.running.compiler import compiled, sketch_name, support
from aedifex.core.languages.java.running.launch import class_of
from aedifex.core.program.program import Program

TRACE = re.compile(r"^\s+at .*\n", re.M)  # names places in the text
MOST = 200  # runs of one engine: what was loaded stays loaded


class Engine:
    def __init__(self) -> None:
        self.place = tempfile.mkdtemp()
        subprocess.run(
            ["javac", "-nowarn", "-d", self.place, str(Path(__file__).with_name("Together.java"))],
            check=True,
            capture_output=True,
        )
        self.log = os.path.join(self.place, "log")
        Path(self.place, "plan").write_text(f"log\t{self.log}\nturns\t60\n")
        self.runs, self.child = 0, None
        atexit.register(self.end)

    def end(self) -> None:
        if self.child is not None:
            self.child.kill()
            self.child.wait()
            self.child = None

    def start(self) -> subprocess.Popen[str]:
        if self.child is None or self.runs % MOST == 0:
            self.end()
            command = ["java", "-Djava.security.manager=allow", "-Djava.awt.headless=true", "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-XX:+UnlockExperimentalVMOptions",
                       "-XX:hashCode=2", "-XX:-ShowCodeDetailsInExceptionMessages", "-Xmx1g", "-cp", self.place, "Together"]  # fmt: skip
            self.child = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True,
                                          env={**os.environ, "AEDIFEX_PLAN": os.path.join(self.place, "plan")})  # fmt: skip
        self.runs += 1
        return self.child

    def run(self, folder: str, name: str) -> str:
        child = self.start()
        assert child.stdin is not None and child.stdout is not None
        child.stdin.write("\t".join([self.log, support(), folder, name]) + "\n")
        child.stdin.flush()
        return TRACE.sub("", base64.b64decode(child.stdout.readline()).decode())


@cache
def engine() -> Engine:
    return Engine()


def fits(program: Program) -> bool:
    """Whether it can be run so: Java without a window of its own."""
    return program.language.name in ("java", "sketch") and not any(
        re.search(rb"\b(swing|awt)\b", text) for text in program.texts.values()
    )


def observed(program: Program, entry: str) -> str:
    """How a program ends, what it prints and draws; or why it does not compile."""
    files = list(program.files.values())
    folder, problems = compiled(files)
    if problems:
        return f"{problems[0]}"
    name = sketch_name(entry) if entry.endswith(".pde") else class_of(entry, files)
    return engine().run(folder, name)
