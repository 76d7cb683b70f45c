"""What was seen when the original ran, kept beside the design."""

from __future__ import annotations

import contextlib
import glob
import hashlib
import json
import os
from dataclasses import asdict, dataclass, field
from typing import Any

from ..program.atomic import replace
from ..program.errors import AedifexError
from .scenarios import Scenario

FORMAT = 4  # of what is kept: anything older is recorded again
SUFFIX = ".evidence.json"
State = dict[str, list[list[str]]]


@dataclass
class Observed:
    """One run.

    ``status`` is None if it did not end by itself; ``trouble`` says why a run cannot be compared. ``shots``: label →
    text of
    each frame (size and checksum), screen, window or response. ``state``: variable → [moment, value] for each change,
    "?" where it could not
    be seen and "-" where it was not set. ``called``: file → first lines of the functions that ran; ``reached``: file →
    lines, and
    ``calls``: what is known of each method call, where asked for.
    """

    status: int | None = None
    output: str = ""
    error: str = ""
    files: dict[str, str] = field(default_factory=dict)
    device: str = ""  # what stand-ins were asked to do, a line each
    shots: dict[str, str] = field(default_factory=dict)
    state: State = field(default_factory=dict)
    turns: int = 0
    ended: str = ""  # why the run was ended at a turn; "" if the program ended it
    stopped: bool = False  # whether a server was interrupted after its last request
    starved: str = ""  # where it asked for more input than there was
    notes: list[str] = field(default_factory=list)
    called: dict[str, list[int]] = field(default_factory=dict)
    reached: dict[str, list[int]] = field(default_factory=dict)
    calls: list[str] = field(default_factory=list)
    trouble: str = ""


def key(scenario: Scenario) -> str:
    """Changes with anything that changes the run."""
    data = {k: v for k, v in asdict(scenario).items() if k != "expect"}
    return hashlib.sha256(json.dumps([FORMAT, data], sort_keys=True).encode()).hexdigest()


@dataclass(frozen=True)
class Sources:
    """The program whose runs were recorded. ``digests``: file → hash under which the journal keeps its text."""

    entry: str = ""
    digests: dict[str, str] = field(default_factory=dict)


class Evidence:
    """The recorded runs of one program, in ``.aedifex/NAME.evidence.json``."""

    def __init__(self, folder: str, name: str) -> None:
        self.path = os.path.join(folder, name + SUFFIX)

    def save(self, original: str, runs: dict[str, tuple[str, Observed]], sources: Sources) -> None:
        """``original``: hash of the sources that were run; ``runs``: name → (key, what was seen)."""
        data = {
            "format": FORMAT, "original": original, "entry": sources.entry, "sources": sources.digests,
            "runs": {n: {"key": k, "seen": asdict(o)} for n, (k, o) in runs.items()},
        }  # fmt: skip
        os.makedirs(os.path.dirname(self.path), exist_ok=True)
        replace(self.path, json.dumps(data, indent=1).encode("utf-8", "surrogatepass"), None)

    def load(self) -> tuple[str, dict[str, tuple[str, Observed]]] | None:
        try:
            data = self.read()
            return (
                (data["original"], {n: (r["key"], Observed(**r["seen"])) for n, r in data["runs"].items()})
                if data
                else None
            )
        except (ValueError, KeyError, TypeError, AttributeError) as error:
            raise AedifexError(f"{self.path}: is damaged ({error}); delete it and record again.") from error

    def sources(self) -> tuple[str, Sources] | None:
        """What was recorded: the hash of the sources, and where their texts are kept; None if that is not known."""
        data = self.read()
        return (data["original"], Sources(data["entry"], data["sources"])) if data and data.get("sources") else None

    def read(self) -> dict[str, Any]:
        """What is kept; empty if there is nothing of this format."""
        try:
            with open(self.path, encoding="utf-8", errors="surrogatepass") as handle:
                data = json.load(handle)
        except FileNotFoundError:
            return {}
        except (OSError, ValueError) as error:
            raise AedifexError(f"{self.path}: is damaged ({error}); delete it and record again.") from error
        return data if isinstance(data, dict) and data.get("format") == FORMAT else {}


def texts_of_records(folder: str) -> set[str]:
    """The hashes of all sources whose runs were recorded in a folder."""
    found: set[str] = set()
    for path in glob.glob(os.path.join(glob.escape(folder), "*" + SUFFIX)):
        with contextlib.suppress(AedifexError):
            kept = Evidence(folder, os.path.basename(path).removesuffix(SUFFIX)).sources()
            found |= set(kept[1].digests.values()) if kept else set()
    return found
