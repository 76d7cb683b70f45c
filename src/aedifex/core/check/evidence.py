"""What was seen when the original ran, kept beside the design."""

from __future__ import annotations

import hashlib
import json
import os
from dataclasses import asdict, dataclass, field

from ..program.atomic import replace
from ..program.errors import AedifexError
from .scenarios import Scenario

FORMAT = 4  # of what is kept: anything older is recorded again
State = dict[str, list[list[str]]]


@dataclass
class Observed:
    """One run.

    ``status`` is None if it did not end by itself; ``trouble`` says why a run cannot be compared. ``shots``: label → text of
    each frame (size and checksum), screen, window or response. ``state``: variable → [moment, value] for each change, "?" where it could not
    be seen and "-" where it was not set. ``called``: file → first lines of the functions that ran; ``reached``: file → lines, and
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


class Evidence:
    """The recorded runs of one design, in ``.aedifex/NAME.evidence.json``."""

    def __init__(self, folder: str, name: str) -> None:
        self.path = os.path.join(folder, name + ".evidence.json")

    def save(self, original: str, runs: dict[str, tuple[str, Observed]]) -> None:
        """``original``: hash of the sources that were run; ``runs``: name → (key, what was seen)."""
        data = {
            "format": FORMAT, "original": original, "runs": {n: {"key": k, "seen": asdict(o)} for n, (k, o) in runs.items()},
        }  # fmt: skip
        os.makedirs(os.path.dirname(self.path), exist_ok=True)
        replace(self.path, json.dumps(data, indent=1).encode("utf-8", "surrogatepass"), None)

    def load(self) -> tuple[str, dict[str, tuple[str, Observed]]] | None:
        try:
            with open(self.path, encoding="utf-8", errors="surrogatepass") as handle:
                data = json.load(handle)
            if data.get("format") != FORMAT:
                return None
            return data["original"], {n: (r["key"], Observed(**r["seen"])) for n, r in data["runs"].items()}
        except FileNotFoundError:
            return None
        except (OSError, ValueError, KeyError, TypeError, AttributeError) as error:
            raise AedifexError(f"{self.path}: is damaged ({error}); delete it and record again.") from error
