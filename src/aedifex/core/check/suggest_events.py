"""Scenarios for programs that take events: every key once, held keys for a while, clicks all over, each control."""

from __future__ import annotations

from typing import Any

from ..program.clues import Clues
from .scenarios import Scenario

HELD = 25  # frames for which a key stays down
AFTER = 40  # frames in which nothing happens before the end

Event = dict[str, Any]


class EventTimeline:
    """Events one after another."""

    def __init__(self) -> None:
        self.turn, self.events = 2, []  # type: ignore[var-annotated]

    def add(self, event: Event, then: int = 3) -> None:
        self.events.append({"turn": self.turn, **event})
        self.turn += then

    def tap(self, keys: list[str]) -> None:
        for key in keys:
            self.add({"key": key})

    def hold(self, keys: list[str], frames: int) -> None:
        for key in keys:
            self.add({"key": key, "press": True}, frames)
            self.add({"key": key, "press": False})

    def click(self, size: tuple[int, int]) -> None:
        width, height = size
        for y in (2, 1, 3):
            for x in (1, 2, 3):
                self.add({"click": [width * x // 4, height * y // 4]})

    def quit(self, after: int) -> list[Event]:
        self.turn += after
        self.add({"quit": True})
        return self.events


def frame_scenarios(clues: Clues) -> list[Scenario]:
    """Everything once and once more, then without the keys that may end it, then mixed, then nothing for long."""
    calm = [k for k in clues.keys if k.upper() not in ("ESCAPE", "ESC", "Q")]
    first = EventTimeline()
    if clues.mouse:
        first.click(clues.size)
    first.tap(calm)
    first.hold(clues.held, HELD)
    first.tap(calm[::-1])
    if clues.mouse:
        first.click(clues.size)
    mixed = EventTimeline()
    for key in clues.held or [""]:
        if key:
            mixed.add({"key": key, "press": True}, 8)
        mixed.tap(calm)
        if clues.mouse:
            mixed.click(clues.size)
        mixed.turn += 3 * HELD
        if key:
            mixed.add({"key": key, "press": False}, 6)
        mixed.tap(calm)
    found = [
        Scenario("every key once", "frames", events=first.quit(AFTER)),
        Scenario("keys together", "frames", events=mixed.quit(2 * AFTER)),
        Scenario("nothing is done", "frames", events=EventTimeline().quit(240)),
    ]
    for key in [k for k in clues.keys if k not in calm]:
        last = EventTimeline()
        last.tap(calm[:2])
        last.tap([key])
        found.append(Scenario(f"{key} ends it", "frames", events=last.quit(AFTER)))
    return found if clues.keys or clues.held or clues.mouse else found[2:]


def control_scenarios(clues: Clues) -> list[Scenario]:
    """Entries filled, each control used; then other values, and each control again in the other order."""
    found = []
    for name, values, order in (
        ("every control once", ("2", "3", "4"), 1),
        ("the other way round", ("0", "tram", ""), -1),
    ):
        line = EventTimeline()
        number = 0
        for control, value in clues.controls:
            if value:
                line.add({"control": control, "value": values[number % 3]}, 1)
                number += 1
        for control, value in clues.controls[::order]:
            if not value:
                line.add({"control": control}, 2)
        line.tap(clues.keys)
        for control, value in clues.controls[::order]:
            if not value:
                line.add({"control": control}, 2)
        found.append(Scenario(name, "frames", events=line.quit(10)))
    return found


def key_scenarios(clues: Clues) -> list[Scenario]:
    """Each key twice, those that may end the program last."""
    keys = [*clues.keys, *(w for w in clues.words if len(w) == 1)]
    keys = list(dict.fromkeys(keys))
    last = [k for k in keys if k.upper() in ("Q", "X", "ESC")]
    calm = [k for k in keys if k not in last]
    if not keys:
        return [Scenario("as it starts", "terminal", typed=[{"text": "1\n"}, {"text": "2\n"}] if clues.reads else [])]
    found = []
    for name, order in (
        ("every key", [*calm, *calm, *last]),
        ("backwards", [*calm[::-1], *(k for k in calm for _ in range(3)), *last[:1]]),
    ):
        found.append(Scenario(name, "terminal", events=[{"turn": n, "key": key} for n, key in enumerate(order, 1)]))
    return found + [Scenario(f"{k} at once", "terminal", events=[{"turn": 1, "key": k}]) for k in last]
