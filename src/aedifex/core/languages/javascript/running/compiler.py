"""What the engine itself has against a text."""

from __future__ import annotations

import atexit
import json
import shutil
import subprocess
from functools import lru_cache
from pathlib import Path
from threading import Lock

from ....program.model import Problem

CHECKER = Path(__file__).parent / "pinned" / "parse.cjs"
KNOWN = (".js", ".mjs", ".cjs")


class Engine:
    """An engine that stays and parses text after text, running none."""

    def __init__(self, path: str) -> None:
        self.lock = Lock()
        self.child = subprocess.Popen(
            [path, "--no-warnings", "--experimental-vm-modules", str(CHECKER)],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
            encoding="utf-8",
        )
        atexit.register(self.child.kill)

    def parse(self, text: str, kinds: list[str]) -> tuple[str, int]:
        """(what is wrong, in which line); "" if one of the kinds of file can be read so."""
        assert self.child.stdin is not None and self.child.stdout is not None
        with self.lock:
            self.child.stdin.write(json.dumps({"text": text, "kinds": kinds}) + "\n")
            self.child.stdin.flush()
            said = self.child.stdout.readline()
        answer = json.loads(said) if said else {"message": "", "line": 0}
        return str(answer["message"]), int(str(answer["line"]))


@lru_cache(maxsize=1)
def engine() -> Engine | None:
    path = shutil.which("node")
    return Engine(path) if path is not None else None


def compiles(path: str, text: bytes) -> Problem | None:
    """Let the engine parse a text without running it; nothing is said where there is no engine, or it does not know the
    language."""
    if not path.endswith(KNOWN):
        return None
    parser = engine()
    if parser is None:
        return None
    modular = path.endswith(".mjs") or b"import" in text or b"export" in text or b"await" in text
    kinds = ["module"] if path.endswith(".mjs") else ["script", "module"] if modular else ["script"]
    message, line = parser.parse(text.decode("utf-8", "replace"), kinds)
    return Problem(path, line, f"the engine refuses it ({message})") if message else None
