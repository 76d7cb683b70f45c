"""Scratch folders: named after the process that made them, so that those of a process that was killed are found and
cleared."""

from __future__ import annotations

import contextlib
import os
import re
import shutil
import tempfile
from functools import cache

NAME = re.compile(r"aedifex-(\d+)-[a-z]+-\w+")


def scratch_folder(what: str) -> str:
    """A new folder among the temporary ones. ``what``: a word, in lower case, for its name."""
    sweep()
    return tempfile.mkdtemp(prefix=prefix_of(what))


def prefix_of(what: str) -> str:
    """How the name of such a folder begins."""
    return f"aedifex-{os.getpid()}-{what}-"


@cache
def sweep() -> None:
    """Clear the scratch folders whose process is gone; once in a process."""
    place = tempfile.gettempdir()
    for name in os.listdir(place):
        match = NAME.fullmatch(name)
        full = os.path.join(place, name)
        with contextlib.suppress(OSError):
            if match is not None and not alive(int(match[1])) and os.lstat(full).st_uid == os.getuid():
                cleared(full)


def alive(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except OSError:
        return True
    return True


def cleared(top: str) -> None:
    """Take away a folder, whatever a program did to its permissions."""

    def again(function: object, path: str, error: object) -> None:
        with contextlib.suppress(OSError):
            os.chmod(os.path.dirname(path), 0o700)
            os.chmod(path, 0o700)
            function(path)  # type: ignore[operator]

    shutil.rmtree(top, onerror=again)
    if os.path.exists(top):
        shutil.rmtree(top, ignore_errors=True)
