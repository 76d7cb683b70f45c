"""The surroundings of a checked run: a scratch copy of the project, and a pinned environment."""

from __future__ import annotations

import os
import shutil
from dataclasses import dataclass, field

from ..program.errors import AedifexError
from ..program.language import Language
from ..program.model import SourceFile
from ..program.snapshot import SKIPPED

LARGEST = 16 << 20  # bytes: larger files of the project are linked to, not copied
TOO_MANY = 4000  # files
MODIFIED = 1_600_000_000  # seconds; when every file of a scratch copy was last changed


@dataclass
class World:
    """``overlay``: files as they are to be run, by path relative to ``root`` (None: not there)."""

    root: str
    entry: str
    language: Language
    overlay: dict[str, bytes | None] = field(default_factory=dict)
    sources: list[SourceFile] = field(default_factory=list)

    @property
    def interpreter(self) -> str:
        return str(self.language.launch.interpreter(self.root))

    def environment(self, folder: str, record: str) -> dict[str, str]:
        launch = self.language.launch
        env = {**launch.scratch_environment(folder), **launch.environment(launch.needs_standins(self.sources))}
        env[launch.RECORD] = record
        return env

    def mask(self, text: str) -> str:
        return str(self.language.launch.mask_trace(text))

    def lay_out(self, folder: str, bring: list[str], pinned: bool = True) -> None:
        """Copy the project folder, then put the overlay on it; ``pinned``: every file has the same date."""
        count = 0
        os.makedirs(folder)
        for place, folders, names in os.walk(self.root):
            folders[:] = [d for d in folders if d not in SKIPPED and not d.startswith(".")
                          and not os.path.exists(os.path.join(place, d, "pyvenv.cfg"))]  # fmt: skip
            target = os.path.join(folder, os.path.relpath(place, self.root))
            os.makedirs(target, exist_ok=True)
            for name in names:
                source = os.path.join(place, name)
                count += 1
                if count > TOO_MANY:
                    raise AedifexError(
                        f"{self.root}: holds more than {TOO_MANY} files; put the program in a folder of its own."
                    )
                if os.path.isfile(source) and not name.startswith(".") and os.path.getsize(source) <= LARGEST:
                    shutil.copy(source, os.path.join(target, name))
                    os.chmod(os.path.join(target, name), os.stat(source).st_mode | 0o600)
                    if pinned:
                        os.utime(os.path.join(target, name), (MODIFIED, MODIFIED))
        for path in bring:
            source = os.path.join(self.root, path)
            if not os.path.isfile(source):
                raise AedifexError(f"{path}: no such file, though a scenario brings it; correct the scenario.")
            os.makedirs(os.path.dirname(os.path.join(folder, path)) or folder, exist_ok=True)
            shutil.copy(source, os.path.join(folder, path))
        for path, data in self.overlay.items():
            full = os.path.join(folder, path)
            if data is None:
                if os.path.exists(full):
                    os.unlink(full)
                continue
            os.makedirs(os.path.dirname(full) or folder, exist_ok=True)
            with open(full, "wb") as handle:
                handle.write(data)
            if pinned:
                os.utime(full, (MODIFIED, MODIFIED))
