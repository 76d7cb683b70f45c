"""Turns: what a run is counted in (frames, prompts, waits), the events that come with them, and where it ends."""

import os
import sys

from . import clock, log, state

now = 1  # the turn that is going on
scripted = False  # whether the scenario brings events
_last = 0
_events = []
_real_exit = os._exit


def begin(plan):
    global _last, _events, scripted
    _last = plan.get("turns", 0)
    _events = sorted(plan.get("events", ()), key=lambda e: e["turn"])
    scripted = bool(_events)
    if plan["runner"] in ("process", "terminal"):
        clock.on_sleep.append(lambda: over("sleep"))


def over(kind):
    """A turn is over: what the fields hold is noted, and the run ends if this was its last."""
    global now
    state.moment(f"{kind} {now}")
    now += 1
    if _last and now > _last:
        end(f"ended after {_last} turns")


def due():
    """The events whose turn has come, taken out."""
    found = []
    while _events and _events[0]["turn"] <= now:
        found.append(_events.pop(0))
    return found


def later():
    """The turn of the next event; 0 if there is none."""
    return _events[0]["turn"] if _events else 0


def add(event):
    _events.append(event)
    _events.sort(key=lambda e: e["turn"])


def end(reason):
    """End the run here, with everything flushed."""
    log.note("end", reason)
    cover = sys.modules.get(__package__ + ".cover")
    if cover is not None:
        cover.tell()
    for stream in (sys.stdout, sys.stderr):
        try:
            stream.flush()
        except (OSError, ValueError, AttributeError):
            pass
    log.flush()
    _real_exit(0)
