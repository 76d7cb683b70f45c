"""More about a difference: the line of the program that made it, the moved names there, and pictures."""

from __future__ import annotations

import os
import re
from dataclasses import replace

from .compare import Difference
from .run_environment import World
from .runners import frames, process
from .sandbox import sandbox
from .scenarios import Scenario


def explained(d: Difference, scenario: Scenario, before: World, after: World, pictures: str = "") -> Difference:
    """The difference with what one more run can tell. ``pictures``: folder for PNGs of a differing frame; "" for
    none."""
    if d.where == "state":
        row = next((r for r in after.watch if r["name"] == d.name and "object" in r), None)
        if row is None:
            return d
        return replace(d, name=f"{row['object']}.{row['members'][-1]} (was {row['variable']})")
    if d.where == "output":
        return replace(d, source=made_at(scenario, after, {"output": d.line}))
    if d.where.startswith("frame ") and "not there" not in d.before + d.after:
        number = int(d.where.split()[1])
        found: list[str] = []
        if pictures:
            stem = re.sub(r"\W+", "-", f"{scenario.name}.frame{number}")
            found = frames.pictures(scenario, before, after, number, pictures, stem)
        return replace(d, pictures=tuple(found))
    return d


def made_at(scenario: Scenario, world: World, wanted: dict[str, int]) -> str:
    """ "file:line" of what made a line of output, with the moved names that stand there; "" if it cannot be told."""
    if world.runner(scenario) == "terminal":
        return ""
    with sandbox(scenario, world.wishing(locate=wanted)) as box:
        seen = process.piped(box)
        places = next((n.split(" ")[2:] for n in seen.notes if n.startswith("at ")), [])
        if not places:
            return ""
        path, _, line = places[0].rpartition(":")
        text = line_text(os.path.join(box.folder, path), int(line))
    names = moved_names(text, world)
    return places[0] + (f" ({', '.join(names)})" if names else "")


def line_text(path: str, number: int) -> str:
    try:
        with open(path, "rb") as handle:
            return handle.read().split(b"\n")[number - 1].decode("utf-8", "replace")
    except (OSError, IndexError):
        return ""


def moved_names(text: str, world: World) -> list[str]:
    """The fields on a line of the program, each with the variable that it replaced."""
    words = set(re.findall(r"\w+", text))
    found: list[str] = []
    for row in world.watch:
        if "object" in row and words & set(row["members"]):
            said = f"{row['object']}.{row['members'][-1]} was {row['variable']}"
            if said not in found and (not words & {row["object"], "_" + row["object"]} or len(found) < 4):
                found.append(said)
    exact = [f for f in found if f.split(".")[0] in words or "_" + f.split(".")[0] in words]
    return (exact or found)[:4]
