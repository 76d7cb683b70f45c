"""Write a file so that it is always either as before or as after."""

from __future__ import annotations

import contextlib
import errno
import os

TEMPORARY = ".aedifex-new"


def replace(full: str, data: bytes, mode: int | None) -> None:
    """Write a temporary file beside the target, make it durable, then rename it over the target."""
    temporary = full + TEMPORARY
    try:
        if os.path.exists(full) and not os.access(full, os.W_OK):
            raise PermissionError(errno.EACCES, os.strerror(errno.EACCES), full)
        with open(temporary, "wb") as handle:
            handle.write(data)
            handle.flush()
            os.fsync(handle.fileno())
        if mode is not None:
            os.chmod(temporary, mode)
        os.replace(temporary, full)
        sync_folder(os.path.dirname(full))
    except OSError as error:
        error.filename = full
        with contextlib.suppress(OSError):
            os.unlink(temporary)
        raise


def sync_folder(folder: str) -> None:
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)
