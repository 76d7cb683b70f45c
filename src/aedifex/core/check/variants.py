"""Inputs that nobody wrote: what scenarios type, press, ask for and are started with, changed by chance that is always
the same."""

from __future__ import annotations

import copy
import random
from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from ..program.clues import Clues
from .evidence import key
from .scenarios import COMMAND, Scenario

TEXTS = ("", "tram", "2", "-1", "0", "150", "x y", "2.5", "tram 2")
NUMBERS = tuple(t for t in TEXTS if t.lstrip("-").isdigit())
LONGEST = 60  # lines or events of one input
TRIES = 50  # changes in a row that give an input which was there already, before it is given up


def variants(scenarios: list[Scenario], clues: Clues, runner: str) -> Iterator[Scenario]:
    """Ever new inputs, each made of a scenario, or of one of the inputs before. ``runner``: of a scenario that names
    none."""
    chance = random.Random(7)
    known = {key(replace(s, name="")) for s in scenarios}
    pool = [replace(s, expect=[]) for s in scenarios]
    misses = 0
    while pool and misses < TRIES:
        made = copy.deepcopy(chance.choice(pool))
        for _ in range(chance.choice((1, 1, 2, 3))):
            made = changed_scenario(made, clues, chance, made.runner or runner)
        made.name = ""
        if (k := key(made)) in known:
            misses += 1
            continue
        known.add(k)
        misses = 0
        pool = [*pool, made][-200:]
        yield made


def changed_scenario(s: Scenario, clues: Clues, chance: random.Random, runner: str) -> Scenario:
    if runner == "requests" or s.requests:
        return replace(s, requests=asked(s.requests, clues, chance))
    if runner in ("frames", "terminal") and (s.events or clues.keys or clues.held or clues.mouse or clues.controls):
        return replace(s, events=pressed(s.events, clues, chance))
    ways = ["arguments"] if s.run[:2] == COMMAND or len(clues.arguments) else []
    ways += ["lines"] * 3 if s.stdin or s.typed or clues.reads or clues.words else []
    if not ways or chance.choice(ways) == "lines":
        return (
            replace(s, stdin=retyped(s.stdin, clues, chance))
            if not s.typed
            else replace(s, typed=[{**t, "text": retyped(t.get("text", ""), clues, chance)} for t in s.typed])
        )
    return replace(s, run=[*s.run[:2], *first_scenarios(s.run[2:], clues, chance)])


def random_words(clues: Clues, chance: random.Random) -> str:
    word = chance.choice([*clues.words, *TEXTS, *(NUMBERS if clues.numbers else ())])
    return f"{word} {chance.choice(TEXTS)}".strip() if clues.splits and chance.random() < 0.3 else word


def retyped(text: str, clues: Clues, chance: random.Random) -> str:
    lines = text.splitlines()
    at = min(
        chance.randrange(len(lines) + 1), chance.randrange(len(lines) + 1)
    )  # what stands last often ends the program
    way = chance.choice(["add", "add", "change", "drop", "swap", "again"])
    if way == "change" and lines:
        lines[min(at, len(lines) - 1)] = random_words(clues, chance)
    elif way == "drop" and len(lines) > 1:
        del lines[min(at, len(lines) - 1)]
    elif way == "swap" and len(lines) > 1:
        other = chance.randrange(len(lines))
        at = min(at, len(lines) - 1)
        lines[at], lines[other] = lines[other], lines[at]
    elif way == "again" and lines:
        lines[at:at] = lines[: chance.randrange(1, len(lines) + 1)]
    else:
        word = random_words(clues, chance)
        asks = word in clues.words and bool(clues.numbers) and chance.random() < 0.6  # a command that asks how many
        lines[at:at] = [word, chance.choice(NUMBERS)] if asks else [word]
    return "".join(line + "\n" for line in lines[:LONGEST])


def first_scenarios(given: list[str], clues: Clues, chance: random.Random) -> list[str]:
    if clues.arguments and chance.random() < 0.6:
        return list(chance.choice(clues.arguments))
    if given and chance.random() < 0.7:
        at = chance.randrange(len(given))
        return [*given[:at], chance.choice([*clues.words, *TEXTS[1:]]), *given[at + 1 :]]
    return [*given, chance.choice([*clues.words, *TEXTS[1:]])]


def pressed(events: list[dict[str, Any]], clues: Clues, chance: random.Random) -> list[dict[str, Any]]:
    made = [dict(e) for e in events]
    kinds: list[dict[str, Any]] = [{"key": k} for k in clues.keys] + [
        {"key": k, "press": chance.random() < 0.6} for k in clues.held
    ]
    kinds += [{"control": c, "value": chance.choice(TEXTS)} if v else {"control": c} for c, v in clues.controls]
    kinds += (
        [{"click": [chance.randrange(1, clues.size[0]), chance.randrange(1, clues.size[1])]}] if clues.mouse else []
    )
    last = max((e.get("turn", 1) for e in made), default=20)
    way = chance.choice(["add", "add", "move", "drop", "change"])
    inner = [i for i, e in enumerate(made) if not e.get("quit")]
    if way == "drop" and len(inner) > 1:
        del made[chance.choice(inner)]
    elif way == "move" and inner:
        made[chance.choice(inner)]["turn"] = chance.randrange(1, last + 1)
    elif way == "change" and inner and kinds:
        i = chance.choice(inner)
        made[i] = {"turn": made[i].get("turn", 1), **chance.choice(kinds)}
    elif kinds:
        made.append({"turn": chance.randrange(1, last + 1), **chance.choice(kinds)})
    return sorted(made, key=lambda e: (bool(e.get("quit")), e.get("turn", 0)))[:LONGEST]


def asked(requests: list[dict[str, Any]], clues: Clues, chance: random.Random) -> list[dict[str, Any]]:
    made = copy.deepcopy(requests)
    pool = [*made, *copy.deepcopy(clues.requests)]
    if not pool:
        return made
    way = chance.choice(["add", "add", "drop", "swap", "change"])
    if way == "drop" and len(made) > 1:
        del made[chance.randrange(len(made))]
    elif way == "swap" and len(made) > 1:
        chance.shuffle(made)
    else:
        one = dict(chance.choice(pool))
        path = "/".join(
            str(chance.randrange(4)) if part.isdigit() else part for part in str(one.get("path", "/")).split("/")
        )
        made.insert(chance.randrange(len(made) + 1), {**one, "path": path})
    return made[:LONGEST]


def scenario_words(s: Scenario) -> str:
    """What a scenario does, in a few words."""
    parts = [f"with {' '.join(s.run[2:])}"] if s.run[2:] else []
    if s.requests:
        parts.append("asks for " + word_list([str(r.get("path", "/")) for r in s.requests]))
    elif s.events:
        parts.append(
            "does "
            + word_list(
                [
                    str(
                        e.get("key")
                        or e.get("control")
                        or e.get("text")
                        or next((k for k in ("click", "move", "quit") if k in e), "something")
                    )
                    for e in s.events
                ]
            )
        )
    elif s.input:
        lines = s.input.splitlines()
        parts.append(
            "types " + word_list(dict.fromkeys(line or "nothing" for line in lines))
            if any(lines)
            else "an empty line"
            if len(lines) == 1
            else "empty lines"
        )
    return ", ".join(parts) or "nothing is typed"


def word_list(words_: Iterable[str]) -> str:
    names = list(dict.fromkeys(words_))
    return ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")


def free_scenario_name(name: str, taken: set[str]) -> str:
    """A name that no other scenario has."""
    return name if name not in taken else next(f"{name}, {n}" for n in range(2, 9999) if f"{name}, {n}" not in taken)
