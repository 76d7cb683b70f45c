"""The surroundings of a checked run: a scratch copy of the project, and a pinned environment."""

from __future__ import annotations

import os
import re
import shutil
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from ..analysis.effects import module_variables
from ..program.errors import AedifexError
from ..program.language import Language
from ..program.model import SourceFile
from ..program.snapshot import SKIPPED
from .scenarios import Scenario

LARGEST = 16 << 20  # bytes: larger files of the project are linked to, not copied
TOO_MANY = 4000  # files
FRAMES = 60  # that a window runs after its last event, where a scenario does not say
AROUND = 64 << 20  # bytes copied of a folder around the program's own
MOST_ABOVE = 3  # folders above its own that a program is given
OUTWARDS = re.compile(rb"""["'`]/?((?:\.\./)*\.\.)(?:/+([^/"'`]*)|(?=["'`]))""")  # a path that leads out of its folder
MODIFIED = 1_600_000_000  # seconds; when every file of a scratch copy was last changed


@dataclass
class World:
    """``overlay``: files as they are to be run, by path relative to ``root`` (None: not there).

    ``watch``: the variables whose values are noted, each with the places where it may stand by now (plain data, see
    ``apply/watch_list.py``); ``extra``: further wishes for the plan of a run (what to cover, locate, keep or call).
    """

    root: str
    entry: str
    language: Language
    overlay: dict[str, bytes | None] = field(default_factory=dict)
    sources: list[SourceFile] = field(default_factory=list)
    watch: list[dict[str, Any]] = field(default_factory=list)
    extra: dict[str, Any] = field(default_factory=dict)

    def wishing(self, **extra: Any) -> World:
        """The same world with further wishes for its runs."""
        return replace(self, extra={**self.extra, **extra})

    @property
    def interpreter(self) -> str:
        return str(self.language.launch.interpreter(self.root))

    @property
    def engines(self) -> tuple[str, ...]:
        """What stands for the language's engine in a command."""
        return "{engine}", "{" + self.language.name + "}"

    def command(self) -> tuple[list[str], str]:
        """The words that start the engine, and what names the entry to it."""
        found: tuple[list[str], str] = self.language.launch.command(self.root, self.entry, self.sources, self.extra)
        return found

    def environment(self, scenario: Scenario, folder: str, top: str) -> dict[str, str]:
        """Variables of one run; its plan is written to ``top``."""
        launch = self.language.launch
        plan = {
            "runner": self.runner(scenario),
            "turns": self.turns(scenario),
            "events": scenario.events,
            "requests": scenario.requests,
            "display": launch.needs_display(self.sources),
            "log": os.path.join(top, "log"),
            "inside": [top],
            "files": sorted(
                {f.path for f in self.sources} | {p for p in self.overlay if p.endswith(self.language.suffixes)}
            ),
            "watch": self.watch,
            "tops": self.tops(),
            **self.extra,
        }
        given = launch.planned(plan, os.path.join(top, "plan"))
        return {
            **surroundings(folder),
            **launch.environment(launch.needs_standins(self.sources)),
            **given,
        }

    def tops(self) -> dict[str, list[str]]:
        """The variables at the top of each file."""
        return {f.path: [s.name for s in module_variables(f)] for f in self.sources} if self.watch else {}

    def runner(self, scenario: Scenario) -> str:
        """The runner that a scenario names, or the one that fits what the program imports."""
        if scenario.runner:
            return scenario.runner
        if scenario.requests:
            return "requests"
        found = str(self.language.launch.runner(self.sources))
        return "process" if found == "requests" else found

    def turns(self, scenario: Scenario) -> int:
        """After how many turns a run ends; a window that nobody closes ends some frames after its last event."""
        if scenario.turns or self.runner(scenario) != "frames":
            return scenario.turns
        return max((e["turn"] for e in scenario.events), default=0) + FRAMES

    def mask(self, text: str) -> str:
        return str(self.language.launch.mask_trace(text))

    @cached_property
    def above(self) -> list[set[str]]:
        """What the program names in the folders above its own, the nearest first."""
        return named_above(self.sources)

    def place(self, top: str) -> str:
        """Where below ``top`` the scratch copy lies: in as many folders of its own as the program looks out of."""
        names = os.path.abspath(self.root).strip(os.sep).split(os.sep)
        levels = min(len(self.above), len(names) - 1)
        return os.path.join(top, "work", *(names[len(names) - 1 - levels :] if levels else []))

    def lay_around(self, folder: str) -> None:
        """Copy what lies in the folders that the program looks into above its own; a run may write there without
        harm."""
        real = os.path.abspath(self.root)
        for named in self.above[: max(0, real.count(os.sep) - 1)]:
            apart, real, folder = real, os.path.dirname(real), os.path.dirname(folder)
            if may_be_copied(real, apart):
                copied(real, folder, True, TOO_MANY, apart)
            for name in sorted(named):
                path, to = os.path.join(real, name), os.path.join(folder, name)
                if os.path.isdir(path) and path != apart and not os.path.exists(to) and may_be_copied(path):
                    copied(path, to, True, TOO_MANY)
                elif os.path.isfile(path) and not os.path.exists(to) and os.path.getsize(path) <= LARGEST:
                    shutil.copy(path, to)
            for path in self.language.launch.linked(real):
                if not os.path.lexists(os.path.join(folder, os.path.basename(path))):
                    os.symlink(path, os.path.join(folder, os.path.basename(path)))

    def lay_out(self, folder: str, bring: list[str], pinned: bool = True) -> None:
        """Copy the project folder, then put the overlay on it; ``pinned``: every file has the same date."""
        if copied(self.root, folder, pinned, TOO_MANY) > TOO_MANY:
            raise AedifexError(
                f"{self.root}: holds more than {TOO_MANY} files; put the program in a folder of its own."
            )
        for path in self.language.launch.linked(self.root):
            os.symlink(path, os.path.join(folder, os.path.basename(path)))
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


def named_above(sources: list[SourceFile]) -> list[set[str]]:
    """What a program names in the folders above its own, the nearest first, by the texts that it holds; "" is the
    folder itself."""
    found: list[set[str]] = [set() for _ in range(MOST_ABOVE)]
    for file in sources:
        for match in OUTWARDS.finditer(file.text):
            level = match[1].count(b"..") - file.path.count("/")
            if 1 <= level <= MOST_ABOVE:
                found[level - 1].add((match[2] or b"").decode("utf-8", "replace"))
    while found and not found[-1]:
        found.pop()
    return found


def visible(place: str, folders: list[str], apart: str = "") -> list[str]:
    """The folders in one that belong to a copy: neither hidden, nor made by tools, nor an environment."""
    return [d for d in folders if d not in SKIPPED and not d.startswith(".") and os.path.join(place, d) != apart
            and not os.path.exists(os.path.join(place, d, "pyvenv.cfg"))]  # fmt: skip


def may_be_copied(folder: str, apart: str = "") -> bool:
    """Whether a folder that is not the program's own may be copied for a run."""
    files = size = 0
    for place, folders, names in os.walk(folder):
        folders[:] = visible(place, folders, apart)
        files += len(names)
        size += sum(os.path.getsize(p) for p in (os.path.join(place, n) for n in names) if os.path.isfile(p))
        if files > TOO_MANY or size > AROUND:
            return False
    return True


def copied(source: str, target: str, pinned: bool, most: int, apart: str = "") -> int:
    """Copy the files below ``source``, all but hidden ones and those below ``apart``; how many there were, at most one
    over ``most``."""
    count = 0
    for place, folders, names in os.walk(source):
        folders[:] = visible(place, folders, apart)
        to = os.path.join(target, os.path.relpath(place, source))
        os.makedirs(to, exist_ok=True)
        for name in names:
            path, made = os.path.join(place, name), os.path.join(to, name)
            count += 1
            if count > most:
                return count
            if os.path.isfile(path) and not name.startswith(".") and os.path.getsize(path) <= LARGEST:
                shutil.copy(path, made)
                os.chmod(made, os.stat(path).st_mode | 0o600)
                if pinned:
                    os.utime(made, (MODIFIED, MODIFIED))
    return count


def surroundings(folder: str) -> dict[str, str]:
    """What any child sees of its surroundings, whatever its language."""
    return {
        "HOME": folder, "PATH": os.environ.get("PATH", ""), "LANG": "C.UTF-8", "LC_ALL": "C.UTF-8", "TZ": "UTC",
        "TERM": "dumb", "COLUMNS": "80", "LINES": "24", "TMPDIR": os.path.join(folder, ".tmp"),
    }  # fmt: skip
