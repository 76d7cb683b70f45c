"""Runs small Python programs in this process, so that many can be run."""

from __future__ import annotations

import contextlib
import io
import os
import runpy
import sys
import tempfile
from pathlib import Path


def here(texts: dict[str, bytes], entry: str, typed: str = "") -> tuple[str, str]:
    """What a program prints and how it ends. The field of an item that is not there is asked of the list, not set in it."""
    out = io.StringIO()
    before, path, ended, keys = set(sys.modules), list(sys.path), "", sys.stdin
    with tempfile.TemporaryDirectory() as folder:
        for name, text in texts.items():
            Path(folder, name).write_bytes(text)
        sys.path.insert(0, folder)
        sys.dont_write_bytecode = True
        sys.stdin = io.StringIO(typed)
        try:
            with contextlib.redirect_stdout(out), contextlib.redirect_stderr(out):
                runpy.run_path(os.path.join(folder, entry), run_name="__main__")
        except SystemExit as error:
            ended = (
                f"exit {error.code}" if error.code else ""
            )  # with no status, or none given, as at the end of the text
        except BaseException as error:
            ended = f"{type(error).__name__}: {error}".replace("list assignment index", "list index")
        finally:
            sys.path[:], sys.stdin = path, keys
            for name in set(sys.modules) - before:
                del sys.modules[name]
    return out.getvalue(), ended
