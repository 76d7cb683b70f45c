"""Random programs whose main code and functions are full of loops, branches, jumps, errors and functions made on the way."""

from __future__ import annotations

import random

NAMES = ["doors", "riders", "delay", "load", "zone", "queue"]


class FlowMaker:
    """Writes one program from a seed. It ends by itself, and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.fresh = 0
        self.names = NAMES
        self.lines: list[str] = []

    def program(self) -> str:
        """Main code with loops and branches, and some functions."""
        rng = self.rng
        self.lines = ["import math", "", f"LIMIT = {rng.randint(2, 9)}", "total = 0", "log = []", "", ""]
        for number in range(rng.randint(1, 3)):
            self.function(f"run_{number}")
        known = ["total"]
        for name in rng.sample(NAMES, 3):
            self.lines.append(f"{name} = {rng.randint(0, 5)}")
            known.append(name)
        self.block("", known, rng.randint(4, 8), False, False, 0)
        self.lines.append(f"print({', '.join(known)}, total, log)")
        return "\n".join(self.lines) + "\n"

    def function(self, name: str) -> None:
        rng = self.rng
        params = rng.sample(NAMES, rng.randint(1, 3))
        self.lines.append(f"def {name}({', '.join(params)}):")
        if rng.random() < 0.5:
            self.lines.append("    global total")
            known = [*params, "total"]
        else:
            known = list(params)
        self.block("    ", known, rng.randint(3, 7), False, True, 0)
        self.lines += [f"    return {rng.choice(known)}", "", ""]
        self.functions = [*getattr(self, "functions", []), (name, len(params))]

    def block(self, lead: str, known: list[str], count: int, loop: bool, function: bool, depth: int) -> None:
        """``known``: variables that are set; those set for certain by the block are added."""
        for _ in range(count):
            self.statement(lead, known, loop, function, depth)

    def statement(self, lead: str, known: list[str], loop: bool, function: bool, depth: int) -> None:
        rng, add = self.rng, self.lines.append
        inner = lead + "    "
        kind = rng.choices(
            ["set", "augment", "print", "log", "if", "for", "while", "try", "lambda", "listed", "pair", "call"],
            [6, 4, 3, 2, 5, 3, 2, 2, 1, 2, 2, 2],
        )[0]
        if kind == "call" and not getattr(self, "functions", []):
            kind = "print"
        if depth > 2 and kind in ("if", "for", "while", "try"):
            kind = "augment"
        if rng.random() < 0.15:
            add(f"{lead}# {rng.choice(self.names)} next")
        if kind == "set":
            name = rng.choice(self.names)
            add(f"{lead}{name} = {self.value(known)}")
            known.append(name) if name not in known else None
        elif kind == "augment":
            add(f"{lead}{rng.choice(known)} += {self.value(known)}")
        elif kind == "print":
            add(f"{lead}print({', '.join(rng.sample(known, min(2, len(known))))})")
        elif kind == "log":
            add(f"{lead}log.append({self.value(known)})")
        elif kind == "pair":
            a, b = rng.sample(self.names, 2)
            add(f"{lead}{a}, {b} = {self.value(known)}, {self.value(known)}")
            known += [n for n in (a, b) if n not in known]
        elif kind == "listed":
            name = rng.choice(self.names)
            add(f"{lead}{name} = sum(n * {rng.choice(known)} % 7 for n in range(LIMIT) if n != {rng.choice(known)})")
            known.append(name) if name not in known else None
        elif kind == "lambda":
            add(f"{lead}later = lambda: {self.value(known)}")
            if rng.random() < 0.5:
                add(f"{lead}{rng.choice(known)} += 1")
            add(f"{lead}print(later())")
        elif kind == "call":
            name, size = rng.choice(self.functions)
            add(f"{lead}{rng.choice(known)} = {name}({', '.join(rng.choice(known) for _ in range(size))}) % 50")
        elif kind == "if":
            self.branches(lead, known, loop, function, depth)
        elif kind == "for":
            self.fresh += 1
            variable = rng.choice([f"n{self.fresh}", rng.choice(self.names)])
            add(f"{lead}for {variable} in range({rng.randint(1, 4)}):")
            self.block(inner, [*known, variable], rng.randint(1, 4), True, function, depth + 1)
            if rng.random() < 0.2:
                add(f"{lead}else:")
                self.block(inner, list(known), 1, loop, function, depth + 1)
        elif kind == "while":
            self.fresh += 1
            add(f"{lead}w{self.fresh} = {rng.randint(1, 4)}")
            add(f"{lead}while w{self.fresh} > 0:")
            add(f"{inner}w{self.fresh} -= 1")
            self.block(inner, list(known), rng.randint(1, 4), True, function, depth + 1)
        elif kind == "try":
            add(f"{lead}try:")
            self.block(inner, list(known), rng.randint(1, 3), loop, function, depth + 1)
            add(f"{inner}print(10 // {rng.choice(known)})")
            add(f"{lead}except ZeroDivisionError:")
            self.block(inner, list(known), 1, loop, function, depth + 1)
            if rng.random() < 0.3:
                add(f"{lead}finally:")
                add(f"{inner}log.append({rng.choice(known)})")

    def branches(self, lead: str, known: list[str], loop: bool, function: bool, depth: int) -> None:
        rng, inner, sets = self.rng, lead + "    ", []
        heads = ["if", *["elif"] * rng.choice([0, 0, 1, 2])]
        for head in heads:
            self.lines.append(
                f"{lead}{head} {self.value(known)} % 3 {rng.choice(['==', '<', '>='])} {rng.randint(0, 2)}:"
            )
            own = list(known)
            self.block(inner, own, rng.randint(1, 3), loop, function, depth + 1)
            sets.append(set(own))
            self.leave(inner, own, loop, function)
        if rng.random() < 0.5:
            self.lines.append(f"{lead}else:")
            own = list(known)
            self.block(inner, own, rng.randint(1, 2), loop, function, depth + 1)
            sets.append(set(own))
            known += sorted(set.intersection(*sets) - set(known))

    def leave(self, lead: str, known: list[str], loop: bool, function: bool) -> None:
        rng = self.rng
        if rng.random() < 0.25:
            ways = (["break", "continue"] if loop else []) + ([f"return {rng.choice(known)}"] if function else [])
            if ways:
                self.lines.append(f"{lead}{rng.choice(ways)}")

    def value(self, known: list[str]) -> str:
        rng = self.rng
        a, b = rng.choice(known), rng.choice([*known, "LIMIT", str(rng.randint(1, 9))])
        return rng.choice(
            [a, f"{a} + {b}", f"({a} - {b}) % 11", f"max({a}, {b}) % 9", f"len(log) + {a}", str(rng.randint(0, 9))]
        )


class ThingMaker(FlowMaker):
    """Programs whose main code does work over the data of numbered copies, and of variables with a first word in common."""

    ROLES = ("x", "speed", "load", "open")
    LINES = (
        ["{t}_x += {t}_speed", "if {t}_x > 9 or {t}_x < 0:", "    {t}_speed = -{t}_speed"],
        ["{t}_open = not {t}_open"],
        ["{t}_load = 0", "{t}_x = {v}"],
        ["if {t}_open and {t}_load < {t}_seats:", "    {t}_load += 1", "    print('{w}', {t}_load)"],
        ["while {t}_load > {v} % 4:", "    {t}_load -= 1", "    if {t}_load == {t}_x:", "        break"],
        ["print({t}_x, {t}_load >= {t}_seats or {t}_x == {t}_load)"],
        ["for step in range({t}_speed % 3):", "    {t}_x += step", "    {t}_load = {t}_load + {v}"],
        ["if {t}_load == {t}_x:", "    {t}_x, {t}_load = {t}_load + 1, 0"],
        ["total += {t}_load", "{t}_load -= {v}"],
    )

    def program(self) -> str:
        rng = self.rng
        self.lines = ["import math", "", f"LIMIT = {rng.randint(2, 9)}", "total = 0", "log = []"]
        self.things = rng.choice(
            [
                ["tram1", "tram2"],
                ["ferry"],
                ["bus1", "bus2", "bell"],
                ["depot1", "depot2", "depot3"],
                ["left_door", "right_door"],
            ]
        )
        for t in self.things:
            values = [rng.randint(0, 6), rng.randint(-3, 3), rng.randint(0, 4), rng.choice([True, False]), 5]
            self.lines += [f"{t}_{role} = {value}" for role, value in zip((*self.ROLES, "seats"), values, strict=True)]
        self.lines.append(f"width, {self.things[0]}_limit = 9, LIMIT")
        for number in range(rng.randint(0, 2)):
            self.lines.append("")
            self.function(f"run_{number}")
        for t in self.things if rng.random() < 0.5 else []:
            self.lines += [
                "",
                f"def push_{t}(force):",
                f"    global {t}_speed",
                f"    {t}_speed = min(width, {t}_speed + force)",
            ]
            self.pushed = True
        known = ["total", "log_count"]
        self.lines += ["", "log_count = 0", f"for turn in range({rng.randint(2, 6)}):"]
        self.turn(rng.randint(3, 7), [*known, "turn"])
        if getattr(self, "pushed", False):
            self.lines += [f"    push_{t}({rng.randint(-2, 2)})" for t in self.things]
        for t in self.things:
            self.lines.append(f"print({t}_x, {t}_speed, {t}_load, {t}_open, total, log)")
        return "\n".join(self.lines) + "\n"

    def turn(self, count: int, known: list[str]) -> None:
        rng = self.rng
        for _ in range(count):
            if rng.random() < 0.6:
                lines, lead = rng.choice(self.LINES), "    "
                if rng.random() < 0.3:
                    self.lines.append(f"    if {self.value(known)} % 2 == 0:")
                    lead += "    "
                value = rng.choice([*known, "LIMIT", "3"])
                for t in self.things if rng.random() < 0.8 else self.things[:1]:
                    if rng.random() < 0.2:
                        self.lines.append(f"{lead}# see to it")
                    self.lines += [lead + line.format(t=t, v=value, w=t) for line in lines]
            else:
                self.statement("    ", known, True, False, 1)


class MainMaker(ThingMaker):
    """The same in one long main function, called in one of the ways in which people do, and left early now and then."""

    def program(self) -> str:
        lines = super().program().splitlines()
        rng, at = self.rng, lines.index("log_count = 0")
        head, body = lines[:at], lines[at:]
        own = [line for line in head if line.startswith((*(f"{t}_" for t in self.things), "width"))]
        if not getattr(self, "pushed", False):
            head, body = [line for line in head if line not in own], own + body
        exits = rng.random() < 0.4
        changed = (
            ["total", *(f"{t}_{r}" for t in self.things for r in self.ROLES)]
            if getattr(self, "pushed", False)
            else ["total"]
        )
        inside = [f"    global {', '.join(changed)}", *(f"    {line}" if line else "" for line in body)]
        if rng.random() < 0.5:
            at = inside.index("    log_count = 0") + 1
            inside[at:at] = [
                "",
                "    # one more",
                "    def bump(by=1):",
                "        nonlocal log_count",
                "        log_count += by",
                "        log.append(by)",
                "        return log_count",
                "",
            ]
            inside.insert(
                next(i for i, line in enumerate(inside) if line.startswith("    for turn")) + 1,
                f"        print('bumped', bump({rng.choice(['', '2', 'turn'])}))",
            )
        for _ in range(rng.randint(0, 2)):
            at = rng.randrange(1, len(inside) + 1)
            lead = " " * (
                len(inside[at - 1]) - len(inside[at - 1].lstrip()) + (4 if inside[at - 1].endswith(":") else 0)
            )
            value = f" {rng.choice(['0', '3', 'total'])}" if exits and rng.random() < 0.7 else ""
            names = "total" if at < len(inside) // 2 else "log_count"
            if (
                (at == len(inside) or not inside[at].strip().startswith(("else", "elif", "except", "finally")))
                and inside[at - 1].strip()
                and "bump" not in "".join(inside[max(0, at - 6) : at + 6])
            ):
                inside[at:at] = [
                    f"{lead}if {names} % {rng.randint(2, 4)} == 1:",
                    f"{lead}    print('enough')",
                    f"{lead}    return{value}",
                ]
        if rng.random() < 0.4:
            inside.insert(0, '    """The whole day."""')
        call = rng.choice(["sys.exit(main())", "raise SystemExit(main())"]) if exits else "main()"
        guard = rng.choice(
            [[call], ['if __name__ == "__main__":', f"    {call}"], [f"if __name__ == '__main__': {call}"]]
        )
        remark = ["# everything"] if rng.random() < 0.3 else []
        return "\n".join(["import sys", *head, "", "", *remark, "def main():", *inside, "", "", *guard]) + "\n"
