"""Random programs with a class that stands and functions that are handed its objects: some at every call, some only at times, some that
call each other or themselves, show something, or are passed on as values."""

from __future__ import annotations

import random


class StandingMaker:
    """Writes one program from a seed; it ends by itself, at times with an error, and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)

    def program(self) -> str:
        rng = self.rng
        made = rng.choice(["plain", "plain", "data", "slots"])
        head = {
            "plain": ["class Tram:", "    def __init__(self, x, pace=1):", "        self.x = x", "        self.pace = pace", "        self.doors = False"],
            "data": ["from dataclasses import dataclass", "", "", "@dataclass", "class Tram:", "    x: int", "    pace: int = 1", "    doors: bool = False"],
            "slots": ["class Tram:", "    __slots__ = ('x', 'pace', 'doors')", "", "    def __init__(self, x, pace=1):", "        self.x, self.pace, self.doors = x, pace, False"],
        }[made]  # fmt: skip
        lines = [*head, *self.methods(), "", "", "END = 20", "turns = 0"]
        makers = [
            self.stop,
            self.go,
            self.meet,
            self.far,
            self.show,
            self.turn,
            self.door,
            self.count,
            self.odd,
            self.pace,
        ]
        self.known: list[str] = []
        for make in rng.sample(makers, rng.randint(3, 8)):
            lines += ["", "", *make()]
            self.known.append(make.__name__)
        inside = rng.random() < 0.4
        body = "\n".join(self.main()).split("\n")
        lines += ["", "", *(["def main():", *("    " + line for line in body), "", "", "main()"] if inside else body)]
        return "\n".join(lines) + "\n"

    def methods(self) -> list[str]:
        return self.rng.choice(
            [
                [],
                ["", "    def ring(self):", "        return 'ding' * self.pace"],
                ["", "    def turn(self):", "        self.pace = -self.pace"],
            ]
        )

    def stop(self) -> list[str]:
        return ["def stop(tram):", "    tram.pace = 0"]

    def go(self) -> list[str]:
        more = ["    global turns", "    turns += 1"] if self.rng.random() < 0.3 else []
        return ["def go(tram, steps):", *more, "    tram.x += tram.pace * steps"]

    def meet(self) -> list[str]:
        return ["def meet(tram, other):", "    return abs(tram.x - other.x) < 3"]

    def far(self) -> list[str]:
        return [
            "def far(tram, depth):",
            "    if depth == 0:",
            "        return tram.x",
            "    return far(tram, depth - 1) + 1",
        ]

    def show(self) -> list[str]:
        return ["def show_tram(tram):", "    print(tram.x, tram.pace, tram.doors, turns)"]

    def turn(self) -> list[str]:
        called = "\n    ".join(["tram.pace = -tram.pace", *(["stop(tram)"] if "stop" in self.known else [])])
        return ["def turn(tram):", *(f"    {line}" for line in called.split("\n    "))]

    def door(self) -> list[str]:
        return ["def door(is_open, tram):", "    tram.doors = is_open", "    return tram"]

    def count(self) -> list[str]:
        return ["def count(tram):", "    return [n for n in range(tram.x) if n % 2 == tram.pace % 2]"]

    def odd(self) -> list[str]:
        return self.rng.choice([
            ["def odd(tram):", "    tram = tram or None", "    return tram is None"],
            ["def odd(tram=None):", "    return tram is None or tram.x"],
            ["def odd(tram):", "    def later():", "        return tram.x + 1", "    return later()"],
        ])  # fmt: skip

    def pace(self) -> list[str]:
        return ["def pace(tram):", "    return tram.pace * 2"]

    def main(self) -> list[str]:
        rng = self.rng
        lines = ["first = Tram(3)", "second = Tram(x=9, pace=2)"]
        names = ["first", "second"]
        if rng.random() < 0.3:
            lines.append(rng.choice(["third = first", "third = Tram(1) if len('ab') else None", "third = Tram(4)"]))
            names.append("third")
        calls = {
            "stop": "stop({0})", "go": "go({0}, {1})", "meet": "print(meet({0}, second))", "far": "print(far({0}, {1}))", "show": "show_tram({0})",
            "turn": "turn({0})", "door": "door({1} > 1, {0})", "count": "print(count({0}))", "odd": "print(odd({0}))", "pace": "print(pace({0}))",
        }  # fmt: skip
        for _ in range(rng.randint(4, 9)):
            lines.append(calls[rng.choice(self.known)].format(rng.choice(names), rng.randint(0, 2)))
        if rng.random() < 0.3:
            name = rng.choice(self.known)
            lines.append(f"for tram in [first, second]:\n    {calls[name].format('tram', 1)}")
        if rng.random() < 0.1:
            name = rng.choice(self.known).replace("show", "show_tram")
            lines.append(f"print(len([{name}]))")
        return [*lines, "print(first.x, first.pace, second.x, second.doors)"]
