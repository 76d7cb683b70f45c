"""What listeners of the JDK wait for, and words for what happens to a control, from a table."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Any

from ....program.layout import words
from ....program.model import SourceFile

MAX_LABEL_WORDS = 3  # a longer label is a sentence


@cache
def table() -> dict[str, dict[str, Any]]:
    return tomllib.loads((Path(__file__).parent / "listeners.toml").read_text(encoding="utf-8"))


def single(interface: str) -> bool:
    """Whether a method can be named in the place of a listener of this type."""
    return interface in table()["events"]


def plain(interface: str) -> bool:
    """Whether what is written in place of this type has no members of its own besides the methods that it gives."""
    return single(interface) or interface in table()["types"]["several"]


def method_of(interface: str) -> str:
    """The one method of a listener; "" where it has several."""
    return str(table()["events"].get(interface, ("", ""))[0])


def event_of(interface: str) -> str:
    """The full name of what the one method of a listener is handed; "" for nothing, or where it is not known."""
    return str(table()["events"].get(interface, ("", ""))[1])


def name_of_event(method: str, control: str, label: str, kind: str) -> list[str]:
    """Words for a method that is called when something happens; none where there are none for it.

    ``control``: the variable that holds what it happens to, "" for the window; ``label``: the text on it; ``kind``:
    its class.
    """
    if not control:
        return list(table()["window"].get(method, []))
    about = about_what(words(control), label, kind)
    if method == "actionPerformed":
        done = [table()["pressed"][kind]] if kind in table()["pressed"] else []
    else:
        done = table()["happened"].get(method, [])
    return [*about, *done] if about and done else []


def about_what(said: Sequence[str], label: str, kind: str) -> list[str]:
    """The words of a control without those for its kind; those on it, or its kind, where the variable says nothing
    else."""
    known = set(table()["controls"]["words"])
    found = [w for w in said if not w.isdigit() and len(w) > 1 and re.sub(r"\d+$", "", w) not in known]
    on_it = re.findall(r"[A-Za-z]+", label)
    if not found and 0 < len(on_it) <= MAX_LABEL_WORDS:
        found = [w.lower() for w in on_it]
    whole = [re.sub(r"\d+$", "", w) for w in said if not w.isdigit() and len(w) > 1]
    return found or whole or words(kind.removeprefix("J"))


def imported_name(file: SourceFile, full: str) -> str:
    """How a file writes a class: by its simple name where it imports that."""
    package, _, short = full.rpartition(".")
    pattern = rb"import\s+" + package.encode() + rb"\.(\*|" + short.encode() + rb")\s*;"
    return short if re.search(pattern, file.text) else full
