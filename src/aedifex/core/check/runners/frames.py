"""Run a program that draws frames in a window: no screen is needed, events come by frame, each picture is compared."""

from __future__ import annotations

import os
import shutil
from dataclasses import replace

from ..evidence import Observed
from ..run_environment import World
from ..sandbox import sandbox
from ..scenarios import Scenario
from . import screen
from .process import piped


def observe(scenario: Scenario, world: World) -> Observed:
    """Run once; each frame is a shot. Refuses a program that needs a display where none can be had."""
    launch = world.language.launch
    seen = once(scenario, world)
    stuck = (
        launch.needs_display(world.sources)
        and not launch.SHARES_SCREEN
        and "still running" in seen.trouble
        and not seen.shots
    )
    return (
        once(scenario, world) if stuck else seen
    )  # a toolkit may hang while it starts: what showed nothing is tried once more


def once(scenario: Scenario, world: World, number: int = 0, path: str = "") -> Observed:
    """Run once, on a screen where one is needed. Frame ``number``, if any, is kept at ``path`` where there is one."""
    launch = world.language.launch
    if not launch.needs_display(world.sources):
        return boxed(scenario, world, number, path)
    with screen.own(launch.SHARES_SCREEN) as (name, problem):
        return (
            Observed(trouble=problem)
            if problem
            else boxed(replace(scenario, env={"DISPLAY": name, **scenario.env}), world, number, path)
        )


def boxed(scenario: Scenario, world: World, number: int, path: str) -> Observed:
    with sandbox(scenario, world) as box:
        inside = os.path.join(box.top, "frame.png")
        if number:
            box.world = world.wishing(keep={number: inside})
        seen = piped(box)
        if number and os.path.exists(inside):
            shutil.copy(inside, path)
        return seen


def pictures(scenario: Scenario, before: World, after: World, number: int, folder: str, stem: str) -> list[str]:
    """Run both again and keep frame ``number``: paths of PNGs of before, after and the difference (red on pale).

    Those of them that could be had again; none if neither could.
    """
    os.makedirs(folder, exist_ok=True)
    found = []
    for name, world in (("before", before), ("after", after)):
        path = os.path.join(folder, f"{stem}.{name}.png")
        keep_picture(scenario, world, number, path)
        if os.path.exists(path):
            found.append(path)
    if len(found) == 2:
        found.append(os.path.join(folder, f"{stem}.difference.png"))
        difference(*found)
    return found


def keep_picture(scenario: Scenario, world: World, number: int, path: str) -> None:
    if os.path.exists(path):
        os.unlink(path)
    once(scenario, world, number, path)


def difference(before: str, after: str, to: str) -> None:
    """Draw what differs in red over a pale version of the picture before."""
    from PIL import Image, ImageChops

    with Image.open(before) as left, Image.open(after) as right:
        old, new = left.convert("RGB"), right.convert("RGB")
        if old.size != new.size:
            new = new.resize(old.size)
        changed = ImageChops.difference(old, new).convert("L").point(lambda level: 255 if level else 0)
        pale = Image.blend(old.convert("L").convert("RGB"), Image.new("RGB", old.size, "white"), 0.6)
        pale.paste(Image.new("RGB", old.size, (214, 40, 40)), mask=changed)
        pale.save(to)
