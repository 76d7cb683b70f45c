"""Random small procedural programs: globals, functions, calls, loops, shadowing, callbacks, numbered copies."""

from __future__ import annotations

import random

STEMS = ["tram", "depot", "fare", "signal", "door", "stop"]
PARTS = ["count", "speed", "level", "open", "log", "name"]


class Maker:
    """Writes one program from a seed. Every program ends by itself and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.later = random.Random(-seed)  # for what was thought of later, so that a seed gives much the same program
        self.numbers: list[str] = []
        self.lists: list[str] = []
        self.functions: list[tuple[str, int]] = []  # (name, parameters); each calls only those before it
        self.lines: list[str] = []

    def program(self) -> str:
        rng = self.rng
        if rng.random() < 0.3:
            self.lines.append('"""A program."""')
        self.lines.append("import math")
        if rng.random() < 0.4:
            self.lines.append("LIMIT = 7")
        self.constants = ["LIMIT"] if self.lines[-1].startswith("LIMIT") else []
        self.variables()
        if rng.random() < 0.5:
            self.copies()
        for index in range(rng.randint(2, 6)):
            self.function(index)
            if rng.random() < 0.2 and self.functions:
                self.lines += self.main_piece(0)
        if rng.random() < 0.4:
            body = [line for _ in range(rng.randint(2, 5)) for line in self.main_piece(1)]
            self.lines += ["", 'if __name__ == "__main__":', *body, "    " + self.report()]
        else:
            for _ in range(rng.randint(3, 7)):
                self.lines += self.main_piece(0)
            self.lines.append(self.report())
        return "\n".join(self.lines) + "\n"

    def variables(self) -> None:
        rng = self.rng
        for stem in rng.sample(STEMS, rng.randint(1, 3)):
            for part in rng.sample(PARTS, rng.randint(1, 4)):
                name = f"{stem}_{part}" if rng.random() < 0.8 else f"{part}{rng.choice('xyz')}"
                if name in self.numbers + self.lists:
                    continue
                if part == "log":
                    self.lists.append(name)
                    self.lines.append(f"{name} = []")
                elif self.numbers and rng.random() < 0.2:
                    self.lines.append(f"{name} = {rng.choice(self.numbers)} + {rng.randint(1, 5)}")
                    self.numbers.append(name)
                else:
                    value = rng.choice(["0", "1", str(rng.randint(2, 9)), "math.floor(2.5)", "abs(-3)", "int('4')"])
                    self.lines.append(f"{name} = {value}" + ("  # how much" if rng.random() < 0.2 else ""))
                    self.numbers.append(name)
        if not self.numbers:
            self.numbers.append("clock_count")
            self.lines.append("clock_count = 0")

    def copies(self) -> None:
        """Numbered copies with twin functions, and one that takes what the object will know."""
        rng = self.rng
        fields = rng.sample(["x", "speed", "load"], rng.randint(1, 3))
        for n in (1, 2):
            for f in fields:
                self.lines.append(f"car{n}_{f} = {rng.randint(0, 5) if f != 'load' else 2}")
                self.numbers.append(f"car{n}_{f}")
        foreign = rng.choice(self.numbers)
        literals = self.later.choice([0, 0, 1, 2])  # whether the twins differ in some
        for n in (1, 2):
            first = f"car{n}_{fields[0]}"
            other = foreign if not foreign.startswith("car") else "2"
            body = [f"    global {first}", f"    {first} += by + {other}"]
            if literals:
                body[0:0] = [f'    """Car {n}."""']
                body += [
                    f"    if {first} > {n * 40}:",
                    f"        print('car {n} stops', {-n})",
                    f"        {first} = {n % literals}",
                ]
            self.lines += ["", "", f"def go_car{n}(by=1):", *body, f"    return {first}"]
            self.functions.append((f"go_car{n}", 1))
        if rng.random() < 0.7:
            params = [f"p{i}" for i in range(len(fields))]
            self.lines += ["", "", f"def show_car(mark, {', '.join(params)}):", f"    print(mark, {', '.join(params)})"]
            self.shown = [f"show_car('car', {', '.join(f'car{n}_{f}' for f in fields)})" for n in (1, 2)]
            self.lines.append("")
            self.lines += self.shown
        self.lines.append("")

    def expression(self, local: list[str]) -> str:
        rng = self.rng
        atoms = [rng.choice(self.numbers), str(rng.randint(0, 9)), *self.constants, *local]
        text = rng.choice(atoms)
        for _ in range(rng.randint(0, 2)):
            text = f"{text} {rng.choice('+-*')} {rng.choice(atoms)}"
        return f"({text}) % 97" if "*" in text else text

    def function(self, index: int) -> None:
        rng = self.rng
        params = ["a", "b"][: rng.randint(0, 2)]
        written = rng.sample(self.numbers, min(len(self.numbers), rng.randint(0, 2)))
        local = list(params)
        body = []
        if written:
            body.append(f"    global {', '.join(written)}")
        shadow = [n for n in self.numbers if n not in written]
        if shadow and rng.random() < 0.15:
            name = rng.choice(shadow)
            body.append(f"    {name} = {rng.randint(0, 4)}")
            local.append(name)
        for _ in range(rng.randint(1, 4)):
            body += ["    " + line for line in self.statement(written, local)]
        body.append(f"    return {self.expression(local)}")
        name = f"{rng.choice(['move', 'check', 'raise', 'tell'])}_{rng.choice(STEMS)}{index}"
        head = ", ".join(
            p + (f"={rng.randint(0, 3)}" if i == len(params) - 1 and rng.random() < 0.3 else "")
            for i, p in enumerate(params)
        )
        self.lines += ["", "", *(["# what it does"] if rng.random() < 0.2 else []), f"def {name}({head}):", *body, ""]
        self.functions.append((name, len(params)))

    def statement(self, written: list[str], local: list[str]) -> list[str]:
        rng = self.rng
        kind = rng.random()
        if kind < 0.35 and written:
            return [f"{rng.choice(written)} {rng.choice(['=', '+=', '-='])} {self.expression(local)}"]
        if kind < 0.5 and self.lists:
            return [f"{rng.choice(self.lists)}.append({self.expression(local)})"]
        if kind < 0.65 and self.functions:
            return [self.call(local)]
        if kind < 0.75 and written:
            return [f"if {self.expression(local)} > 3:", f"    {rng.choice(written)} += 1"]
        if kind < 0.85:
            comprehension = f"[{rng.choice(self.numbers)} + k for k in range(3)]"
            return [f"print(sum({comprehension}))"]
        return [f"print({self.expression(local)}, f'{{{rng.choice(self.numbers)}:3}}')"]

    def call(self, local: list[str]) -> str:
        name, count = self.rng.choice(self.functions)
        return f"{name}({', '.join(self.expression(local) for _ in range(count))})"

    def main_piece(self, depth: int) -> list[str]:
        rng = self.rng
        lead = "    " * depth
        kind = rng.random()
        name = rng.choice(self.numbers)
        if kind < 0.25 and self.functions:
            return [f"{lead}print({self.call([])})"]
        if kind < 0.4:
            return [f"{lead}{name} = {self.expression([])}"]
        if kind < 0.6 and self.functions:
            loop = rng.choice(["i", "turn", "_"])
            return [
                f"{lead}for {loop} in range({rng.randint(1, 3)}):",
                f"{lead}    {self.call([])}",
                f"{lead}    {name} += 1",
            ]
        if kind < 0.7 and self.functions:
            plain = [n for n, c in self.functions if c == 0]
            if plain:
                return [f"{lead}handler = {rng.choice(plain)}", f"{lead}print(handler())"]
        if kind < 0.8:
            fresh = f"left{len(self.lines)}"
            return [f"{lead}{fresh} = {self.expression([])}", f"{lead}print({fresh} + 1)"]
        if kind < 0.9:
            return [
                f"{lead}if {self.expression([])} % 2:",
                f"{lead}    {name} -= 2",
                f"{lead}else:",
                f"{lead}    print('even', {name})",
            ]
        return [f"{lead}# a remark", f"{lead}print({self.expression([])})"]

    def report(self) -> str:
        return f"print({', '.join(self.numbers + self.lists)})"
