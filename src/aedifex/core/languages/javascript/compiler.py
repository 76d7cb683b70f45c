"""What the engine itself has against a text."""

from __future__ import annotations

import shutil
import subprocess
from functools import lru_cache

from ...program.model import Problem


@lru_cache(maxsize=512)
def compiles(path: str, text: bytes) -> Problem | None:
    """Let the engine parse a text without running it; nothing is said where there is no engine, or it does not know the language."""
    engine = shutil.which("node")
    if engine is None or not path.endswith((".js", ".mjs", ".cjs")):
        return None
    modular = path.endswith(".mjs") or b"import " in text or b"export " in text
    kinds = ["module"] if path.endswith(".mjs") else ["commonjs", "module"] if modular else ["commonjs"]
    message = ""
    for kind in kinds:
        done = subprocess.run(
            [engine, "--check", f"--input-type={kind}", "-"], input=text, capture_output=True, timeout=60, check=False
        )
        if done.returncode == 0:
            return None
        message = done.stderr.decode("utf-8", "replace")
    lines = message.splitlines()
    line = next((int(part.rsplit(":", 1)[1]) for part in lines[:1] if part.rsplit(":", 1)[-1].isdigit()), 0)
    error = next((part for part in lines if "Error:" in part), "it cannot be parsed")
    return Problem(path, line, f"the engine refuses it ({error.strip()})")
