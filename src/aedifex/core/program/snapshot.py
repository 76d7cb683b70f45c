"""The files on disk with unwritten changes laid over them."""

from __future__ import annotations

import os
from collections.abc import Iterable, Mapping

from .errors import AedifexError

LIMIT = 64 * 1024 * 1024  # bytes; a source file beyond this is not a script


class Snapshot:
    """Reads project files by their path relative to ``root``; changes in the overlay win.

    A value of None in the overlay means that the file is gone.
    """

    def __init__(self, root: str, overlay: Mapping[str, bytes | None] | None = None) -> None:
        self.root = os.path.abspath(root)
        self.overlay: dict[str, bytes | None] = dict(overlay or {})

    def read(self, path: str) -> bytes | None:
        """The bytes of a file, None if there is none. Raises AedifexError if it cannot be read."""
        if path in self.overlay:
            return self.overlay[path]
        full = os.path.join(self.root, path)
        if not os.path.lexists(full):
            return None
        return read_file(full, path)

    def exists(self, path: str) -> bool:
        if path in self.overlay:
            return self.overlay[path] is not None
        return os.path.lexists(os.path.join(self.root, path))


def read_file(full: str, shown: str) -> bytes:
    """The bytes of a regular file of bearable size; AedifexError says what is wrong with any other."""
    try:
        if os.path.isdir(full):
            raise AedifexError(f"{shown}: is a folder, not a file; name the script in it.")
        if not os.path.isfile(full):
            raise AedifexError(f"{shown}: no such file, or a link that leads nowhere; check the path.")
        if os.path.getsize(full) > LIMIT:
            raise AedifexError(f"{shown}: is larger than {LIMIT >> 20} MiB; name a source file.")
        with open(full, "rb") as handle:
            return handle.read()
    except OSError as error:
        reason = (error.strerror or str(error)).lower()
        raise AedifexError(f"{shown}: cannot be read ({reason}); check its permissions.") from error


BUILT_COPY = ".aedifex/copy"  # stands in a folder that a build put a copy of a project in
SKIPPED = {"__pycache__", "node_modules", "site-packages", "venv", "env", "build", "dist"}


def project_files(root: str, suffixes: tuple[str, ...]) -> list[str]:
    """Paths relative to ``root`` of all files with one of the suffixes, sorted; hidden and installed ones, and copies
    that were built, left out."""
    found: list[str] = []
    for folder, folders, names in os.walk(root):
        folders[:] = sorted(
            d
            for d in folders
            if d not in SKIPPED
            and not d.startswith(".")
            and not any(os.path.exists(os.path.join(folder, d, mark)) for mark in ("pyvenv.cfg", BUILT_COPY))
        )
        for name in sorted(names):
            if name.endswith(suffixes) and not name.startswith(".") and name.isprintable():
                found.append(os.path.relpath(os.path.join(folder, name), root).replace(os.sep, "/"))
    return sorted(found)


def case_twin(root: str, path: str, known: Iterable[str] = ()) -> str:
    """Another path, among those ``known`` and those on disk, that is the same file where the file system ignores case;
    "" if there is none."""
    folder = os.path.dirname(path)
    full = os.path.join(root, folder)
    beside = [f"{folder}/{n}" if folder else n for n in sorted(os.listdir(full))] if os.path.isdir(full) else []
    return next((p for p in [*known, *beside] if p != path and p.casefold() == path.casefold()), "")
