"""Every write goes through here: recorded before it happens, so that it can be completed or put back.

Layout of ``.aedifex/`` beside the design: ``originals/`` (once ``objects/``) holds file contents by SHA-256;
``NAME.journal``, for each design, one JSON object a line: {"begin": n, ...}, {"done": n} or {"undone": n}. An entry
without "done" was interrupted.
"""

from __future__ import annotations

import contextlib
import fcntl
import glob
import hashlib
import json
import os
import re
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

from ..check.evidence import texts_of_records
from ..program.atomic import TEMPORARY, replace
from ..program.errors import AedifexError, Refused

FOLDER = ".aedifex"
SUFFIX = ".journal"
STORE, EARLIER_STORE = "originals", "objects"  # where texts are kept; the second is only read
STEPS = "steps"  # name of the journal of steps without a design


def names(root: str) -> list[str]:
    """The designs that have a journal in a folder."""
    found = glob.glob(os.path.join(glob.escape(os.path.join(os.path.abspath(root), FOLDER)), "*" + SUFFIX))
    return sorted(os.path.basename(p).removesuffix(SUFFIX) for p in found)


def unnoticed(folder: str) -> None:
    """Keep a folder of ours out of what git looks at."""
    ignore = os.path.join(folder, ".gitignore")
    if not os.path.exists(ignore):
        with open(ignore, "w", encoding="utf-8") as handle:
            handle.write("*\n")


@dataclass
class Entry:
    """One journalled step. ``files``: path → (hash before or "", hash after or "")."""

    number: int
    step: str
    title: str
    design: str
    files: dict[str, tuple[str, str]]
    state: str = "begun"  # begun | done | undone
    times: dict[str, int] = field(default_factory=dict)  # path → when it was last changed before, in nanoseconds


class Journal:
    """The journal of one design. Use ``locked`` around anything that writes."""

    def __init__(self, root: str, name: str, stale: Callable[[str], list[str]] | None = None) -> None:
        self.root = os.path.abspath(root)
        self.name = name
        self.folder = os.path.join(self.root, FOLDER)
        self.path = os.path.join(self.folder, name + SUFFIX)
        self.stale = stale or (lambda path: [])

    # -- reading ---------------------------------------------------------------------------------

    def entries(self) -> list[Entry]:
        """All entries in order; a last line that was not completely written is left out."""
        try:
            with open(self.path, "rb") as handle:
                lines = handle.read().split(b"\n")
        except FileNotFoundError:
            return []
        except OSError as error:
            raise AedifexError(
                f"{FOLDER}: cannot be read ({(error.strerror or str(error)).lower()}); it must be a folder."
            ) from error
        found: dict[int, Entry] = {}
        for line in lines[:-1]:
            try:
                row = json.loads(line)
            except ValueError:
                continue
            if "begin" in row:
                files = {p: (b, a) for p, (b, a) in row["files"].items()}
                found[row["begin"]] = Entry(
                    row["begin"], row["step"], row["title"], row["design"], files, times=row.get("times", {})
                )
            elif "done" in row and row["done"] in found:
                found[row["done"]].state = "done"
            elif "undone" in row and row["undone"] in found:
                found[row["undone"]].state = "undone"
        return [found[n] for n in sorted(found)]

    def standing(self) -> list[Entry]:
        return [e for e in self.entries() if e.state == "done"]

    def stands(self) -> bool:
        """Whether the files are as the last standing step left them, by nobody changed since."""
        return all(self.current(p) == after for p, after in self.last().items())

    def last(self) -> dict[str, str]:
        """The hash that each file has after the standing steps."""
        return {p: after for entry in self.standing() for p, (_, after) in entry.files.items()}

    def put_back_otherwise(self) -> bool:
        """Whether every file stands as before the first step though steps stand, because something else put them back;
        they count as undone then.

        The journal must be locked.
        """
        first: dict[str, str] = {}
        for entry in self.standing():
            for path, (before, _) in entry.files.items():
                first.setdefault(path, before)
        if not first or self.stands() or any(self.current(p) != before for p, before in first.items()):
            return False
        for entry in reversed(self.standing()):
            self.append({"undone": entry.number})
        return True

    def original(self) -> dict[str, bytes | None]:
        """What every file held before the first standing step touched it."""
        found: dict[str, bytes | None] = {}
        for entry in self.standing():
            for path, (before, _) in entry.files.items():
                if path not in found:
                    found[path] = self.content(before) if before else None
        return found

    def kept(self, digest: str) -> str:
        """Where a text is, or would be, kept."""
        earlier = os.path.join(self.folder, EARLIER_STORE, digest)
        return earlier if os.path.exists(earlier) else os.path.join(self.folder, STORE, digest)

    def stored(self) -> set[str]:
        """The digests of all texts that are kept. Raises OSError if there is no store."""
        earlier = os.path.join(self.folder, EARLIER_STORE)
        return {*os.listdir(os.path.join(self.folder, STORE)), *(os.listdir(earlier) if os.path.isdir(earlier) else ())}

    def content(self, digest: str) -> bytes:
        try:
            with open(self.kept(digest), "rb") as handle:
                data = handle.read()
        except OSError as error:
            raise AedifexError(
                f"{FOLDER}/{STORE}/{digest[:12]}: cannot be read ({error.strerror}); restore the folder."
            ) from error
        if hashlib.sha256(data).hexdigest() != digest:
            raise AedifexError(f"{FOLDER}/{STORE}/{digest[:12]}: is damaged; restore the folder from a backup.")
        return data

    def current(self, path: str) -> str:
        """The hash of a file as it stands, "" if there is none."""
        try:
            with open(os.path.join(self.root, path), "rb") as handle:
                return hashlib.sha256(handle.read()).hexdigest()
        except FileNotFoundError:
            return ""

    # -- writing ---------------------------------------------------------------------------------

    @contextlib.contextmanager
    def locked(self) -> Iterator[None]:
        """One writer at a time; the lock dies with its process. Raises Refused if another holds it."""
        try:
            os.makedirs(os.path.join(self.folder, STORE), exist_ok=True)
            unnoticed(self.folder)
            lock = open(os.path.join(self.folder, "lock"), "w")  # noqa: SIM115
        except OSError as error:
            raise unwritable(FOLDER, error) from error
        try:
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                raise Refused(f"{self.root}: another build or undo is at work here; wait until it has ended.") from None
            yield
        finally:
            lock.close()

    def write(self, step: str, title: str, design: str, changes: Mapping[str, bytes | None]) -> Entry:
        """Journal a step, then replace each file atomically. A failed write puts back what was written."""
        number = self.last_number() + 1
        files: dict[str, tuple[str, str]] = {}
        times: dict[str, int] = {}
        check_places(self.root, changes)
        try:
            for path, data in changes.items():
                before = self.keep(self.old(path))
                files[path] = (before, self.keep(data))
                if before:
                    times[path] = os.stat(os.path.join(self.root, path)).st_mtime_ns
            self.append(
                {"begin": number, "step": step, "title": title, "design": design, "files": files, "times": times}
            )
        except OSError as error:
            raise unwritable(FOLDER, error) from error
        entry = Entry(number, step, title, design, files, times=times)
        try:
            for path in changes:
                self.put(path, files[path][1])
            self.append({"done": number})
        except OSError as error:
            self.put_back(entry)
            raise unwritable(path, error) from error
        entry.state = "done"
        return entry

    def last_number(self) -> int:
        """That of the last step, without reading each entry; 0 if there is none."""
        try:
            with open(self.path, "rb") as handle:
                text = handle.read()
        except FileNotFoundError:
            return 0
        return max(map(int, re.findall(rb'^\{"begin": (\d+)', text, re.MULTILINE)), default=0)

    def old(self, path: str) -> bytes | None:
        full = os.path.join(self.root, path)
        if not os.path.lexists(full):
            return None
        with open(full, "rb") as handle:
            return handle.read()

    def keep(self, data: bytes | None) -> str:
        """Store contents by hash, durably; "" for a file that is not there."""
        if data is None:
            return ""
        digest = hashlib.sha256(data).hexdigest()
        path = self.kept(digest)
        if not os.path.exists(path):
            replace(path, data, None)
        return digest

    def append(self, row: dict[str, Any]) -> None:
        """One line, durably; a half-written line before it is closed off first."""
        with open(self.path, "ab+") as handle:
            handle.seek(0, os.SEEK_END)
            if handle.tell():
                handle.seek(-1, os.SEEK_END)
                if handle.read(1) != b"\n":
                    handle.write(b"\n")
            handle.write(json.dumps(row).encode() + b"\n")
            handle.flush()
            os.fsync(handle.fileno())

    def put(self, path: str, digest: str) -> None:
        """Make a file hold the stored contents (or be gone), atomically, following a link to its target."""
        full = os.path.realpath(os.path.join(self.root, path))
        if digest:
            mode = os.stat(full).st_mode & 0o7777 if os.path.exists(full) else None
            replace(full, self.content(digest), mode)
        elif os.path.lexists(full):
            os.unlink(full)
        for pattern in self.stale(path):
            for old in glob.glob(os.path.join(glob.escape(self.root), pattern)):
                with contextlib.suppress(OSError):
                    os.unlink(old)

    def put_back(self, entry: Entry) -> None:
        """Undo an entry's writes, whichever of them happened."""
        for path, (before, _) in entry.files.items():
            if self.current(path) != before:
                self.put(path, before)
                if path in entry.times:
                    full = os.path.realpath(os.path.join(self.root, path))
                    with contextlib.suppress(OSError):
                        os.utime(full, ns=(entry.times[path], entry.times[path]))
        with contextlib.suppress(OSError):
            self.append({"undone": entry.number})
        entry.state = "undone"

    # -- after an interruption -------------------------------------------------------------------

    def recover(self) -> list[str]:
        """Complete or put back an interrupted step; sentences about what was found. Raises Refused on foreign
        changes."""
        said: list[str] = []
        for entry in self.entries():
            if entry.state != "begun":
                continue
            self.sweep(entry)
            states = {p: self.current(p) for p in entry.files}
            if all(states[p] == after for p, (_, after) in entry.files.items()):
                self.append({"done": entry.number})
                said.append(f"The step '{entry.step}' had been interrupted after its last write; it is complete now.")
                continue
            foreign = [p for p, (b, a) in entry.files.items() if states[p] not in (b, a)]
            if foreign:
                raise Refused(f"{foreign[0]}: was changed after the step '{entry.step}' was interrupted; "
                              f"restore it, or delete {FOLDER} to keep it as it is.")  # fmt: skip
            self.put_back(entry)
            said.append(f"The step '{entry.step}' had been interrupted; its files are as they were before it.")
        return said

    def sweep(self, entry: Entry) -> None:
        """Temporary files of a killed write."""
        for path in entry.files:
            full = os.path.realpath(os.path.join(self.root, path))
            with contextlib.suppress(FileNotFoundError):
                os.unlink(full + TEMPORARY)

    def undo(self, count: int | None) -> tuple[list[Entry], list[str]]:
        """Put back the last ``count`` standing steps (all if None); them, and the files that were gone by themselves.

        Raises Refused if a file was changed since, before anything is put back.
        """
        standing = self.standing()
        going = standing[::-1][: len(standing) if count is None else count]
        expected: dict[str, str] = {}
        for entry in going:
            for path, (before, after) in entry.files.items():
                if self.current(path) not in ("", expected.get(path, after)) and path not in expected:
                    raise Refused(f"{path}: was changed after the step '{entry.step}', so it cannot be put back; "
                                  "save your change elsewhere and restore the file first.")  # fmt: skip
                expected[path] = before
        last = {p: after for entry in going[::-1] for p, (_, after) in entry.files.items()}
        gone = [p for p, after in last.items() if after and not self.current(p)]
        for entry in going:
            self.append({"begin": entry.number, "step": entry.step, "title": entry.title, "design": entry.design,
                         "files": {p: (b, a) for p, (b, a) in entry.files.items()}, "times": entry.times})  # fmt: skip
            try:
                self.put_back(entry)
            except OSError as error:
                raise unwritable(next(iter(entry.files)), error) from error
        return going, gone

    def cut_off(self) -> bool:
        """Whether the journal says less than it once did: it has contents in store that no entry speaks of, or lines
        that cannot be read."""
        try:
            stored = self.stored()
            with open(self.path, "rb") as handle:
                lines = handle.read().split(b"\n")
        except OSError:
            return False
        said = {
            d
            for n in names(self.root)
            for e in Journal(self.root, n).entries()
            for pair in e.files.values()
            for d in pair
        }
        return bool(stored - said - texts_of_records(self.folder)) or any(
            line and not readable(line) for line in lines[:-1]
        )


def readable(line: bytes) -> bool:
    try:
        json.loads(line)
    except ValueError:
        return False
    return True


def check_places(root: str, paths: Iterable[str]) -> None:
    """Raises Refused for a file that is not this folder's alone: a link that leads out of it, or one of several names
    of a file."""
    top = os.path.realpath(root)
    for path in paths:
        full = os.path.join(root, path)
        real = os.path.realpath(full)
        if not real.startswith(top.rstrip(os.sep) + os.sep):
            raise Refused(f"{path}: is a link to {real}, outside this folder; put a copy of it here first.")
        if os.path.isfile(real) and os.stat(real).st_nlink > 1:
            raise Refused(
                f"{path}: has {os.stat(real).st_nlink} names on this disk (hard links), and only this one would "
                "change; put a copy in its place first."
            )


def unwritable(path: str, error: OSError) -> AedifexError:
    reason = (error.strerror or str(error)).lower()
    return AedifexError(f"{path}: cannot be written ({reason}); that step is not made. Make room or check permissions.")
