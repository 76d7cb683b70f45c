"""What was seen when the original ran, kept beside the design."""

from __future__ import annotations

import hashlib
import json
import os
from dataclasses import asdict, dataclass, field

from ..program.atomic import replace
from ..program.errors import AedifexError
from .scenarios import Scenario


@dataclass
class Observed:
    """One run. ``status`` is None if it did not end by itself; ``trouble`` says why a run cannot be compared."""

    status: int | None = None
    output: str = ""
    error: str = ""
    files: dict[str, str] = field(default_factory=dict)
    device: str = ""  # what stand-ins were asked to do, a line each
    trouble: str = ""


def key(scenario: Scenario) -> str:
    """Changes with anything that changes the run."""
    return hashlib.sha256(json.dumps(asdict(scenario), sort_keys=True).encode()).hexdigest()


class Evidence:
    """The recorded runs of one design, in ``.aedifex/NAME.evidence.json``."""

    def __init__(self, folder: str, name: str) -> None:
        self.path = os.path.join(folder, name + ".evidence.json")

    def save(self, original: str, runs: dict[str, tuple[str, Observed]]) -> None:
        """``original``: hash of the sources that were run; ``runs``: name → (key, what was seen)."""
        data = {"original": original, "runs": {n: {"key": k, "seen": asdict(o)} for n, (k, o) in runs.items()}}
        os.makedirs(os.path.dirname(self.path), exist_ok=True)
        replace(self.path, json.dumps(data, indent=1).encode(), None)

    def load(self) -> tuple[str, dict[str, tuple[str, Observed]]] | None:
        try:
            with open(self.path, encoding="utf-8") as handle:
                data = json.load(handle)
            return data["original"], {n: (r["key"], Observed(**r["seen"])) for n, r in data["runs"].items()}
        except FileNotFoundError:
            return None
        except (OSError, ValueError, KeyError, TypeError) as error:
            raise AedifexError(f"{self.path}: is damaged ({error}); delete it and record again.") from error
