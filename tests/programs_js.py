"""Random small JavaScript programs: globals, functions in every form, calls, loops, shadowing, callbacks, numbered copies."""

from __future__ import annotations

import random

STEMS = ["tram", "depot", "fare", "signal", "door", "stop"]
PARTS = ["Count", "Speed", "Level", "Open", "Log", "Name"]


class Maker:
    """Writes one program from a seed. Every program ends by itself and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.numbers: list[str] = []
        self.lists: list[str] = []
        self.functions: list[tuple[str, int]] = []  # (name, parameters); each calls only those before it
        self.lines: list[str] = []
        self.word = self.rng.choice(["let", "let", "var"])

    def program(self) -> str:
        rng = self.rng
        if rng.random() < 0.3:
            self.lines.append('"use strict";')
        if rng.random() < 0.4:
            self.lines.append('const { format } = require("util");')
        self.constants = ["LIMIT"] if rng.random() < 0.4 else []
        self.lines += ["const LIMIT = 7;"] * len(self.constants)
        self.variables()
        if rng.random() < 0.5:
            self.copies()
        for index in range(rng.randint(2, 6)):
            self.function(index)
            if rng.random() < 0.2:
                self.lines += self.main_piece()
        for _ in range(rng.randint(3, 7)):
            self.lines += self.main_piece()
        self.lines.append(f"console.log({', '.join(self.numbers + self.lists)});")
        return "\n".join(self.lines) + "\n"

    def variables(self) -> None:
        rng = self.rng
        parts: list[str] = []
        for stem in rng.sample(STEMS, rng.randint(1, 3)):
            for part in rng.sample(PARTS, rng.randint(1, 4)):
                name = stem + part
                if part == "Log":
                    self.lists.append(name)
                    parts.append(f"{name} = []")
                else:
                    known = f"{rng.choice(self.numbers)} + {rng.randint(1, 5)}" if self.numbers else "2"
                    value = rng.choice(["0", "1", str(rng.randint(2, 9)), "Math.floor(2.5)", "Number('4')", known])
                    parts.append(f"{name} = {value}")
                    self.numbers.append(name)
        while parts:
            count = rng.choice([1, 1, 2, 3])
            self.lines.append(f"{self.word} {', '.join(parts[:count])};" + ("  // how much" if rng.random() < 0.2 else ""))
            parts = parts[count:]
        if not self.numbers:
            self.numbers.append("clockCount")
            self.lines.append(f"{self.word} clockCount = 0;")

    def copies(self) -> None:
        rng = self.rng
        fields = rng.sample(["X", "Speed", "Load"], rng.randint(1, 3))
        for n in (1, 2):
            for f in fields:
                self.lines.append(f"{self.word} car{n}{f} = {rng.randint(0, 5) if f != 'Load' else 2};")
                self.numbers.append(f"car{n}{f}")
        other = rng.choice(self.numbers)
        other = other if not other.startswith("car") else "2"
        for n in (1, 2):
            first = f"car{n}{fields[0]}"
            self.lines += ["", f"function goCar{n}(by = 1) {{", f"  {first} += by + {other};", f"  return {first};", "}"]
            self.functions.append((f"goCar{n}", 1))
        if rng.random() < 0.7:
            params = [f"p{i}" for i in range(len(fields))]
            self.lines += ["", f"function showCar(mark, {', '.join(params)}) {{", f"  console.log(mark, {', '.join(params)});", "}"]
            self.lines += [f"showCar('car', {', '.join(f'car{n}{f}' for f in fields)});" for n in (1, 2)]
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
        shadow = [n for n in self.numbers if n not in written]
        if shadow and rng.random() < 0.2:
            name = rng.choice(shadow)
            body.append(f"  let {name} = {rng.randint(0, 4)};")
            local.append(name)
        for _ in range(rng.randint(1, 4)):
            body += ["  " + line for line in self.statement(written, local)]
        body.append(f"  return {self.expression(local)};")
        name = f"{rng.choice(['move', 'check', 'raise', 'tell'])}{rng.choice(STEMS).capitalize()}{index}"
        given = [p + (f" = {rng.randint(0, 3)}" if i == len(params) - 1 and rng.random() < 0.3 else "") for i, p in enumerate(params)]
        head = ", ".join(given)
        form = rng.random()
        self.lines += ["", *(["// what it does"] if rng.random() < 0.2 else [])]
        if form < 0.6:
            self.lines += [f"function {name}({head}) {{", *body, "}", ""]
        elif form < 0.75:
            self.lines += [f"const {name} = ({head}) => {{", *body, "};", ""]
        elif form < 0.85:
            self.lines += [f"const {name} = ({head}) => {self.expression(local[: len(params)])};", ""]
        else:
            self.lines += [f"const {name} = function ({head}) {{", *body, "};", ""]
        self.functions.append((name, len(params)))

    def statement(self, written: list[str], local: list[str]) -> list[str]:
        rng = self.rng
        kind = rng.random()
        if kind < 0.3 and written:
            return [f"{rng.choice(written)} {rng.choice(['=', '+=', '-='])} {self.expression(local)};"]
        if kind < 0.4 and written:
            return [f"{rng.choice(written)}{rng.choice(['++', '--'])};"]
        if kind < 0.5 and self.lists:
            return [f"{rng.choice(self.lists)}.push({self.expression(local)});"]
        if kind < 0.65 and self.functions:
            return [self.call(local) + ";"]
        if kind < 0.72 and written:
            return [f"if ({self.expression(local)} > 3) {{", f"  {rng.choice(written)} += 1;", "}"]
        if kind < 0.8:
            return [f"[1, 2].forEach(function (k) {{ console.log(k + {rng.choice(self.numbers)}); }});"]
        if kind < 0.88:
            name = rng.choice(self.numbers)
            return [f"console.log(JSON.stringify({{ {name}, other: {rng.choice(self.numbers)} }}));"]
        return [f"console.log({self.expression(local)}, `${{{rng.choice(self.numbers)}}}!`);"]

    def call(self, local: list[str]) -> str:
        name, count = self.rng.choice(self.functions)
        return f"{name}({', '.join(self.expression(local) for _ in range(count))})"

    def main_piece(self) -> list[str]:
        rng = self.rng
        kind = rng.random()
        name = rng.choice(self.numbers)
        if kind < 0.25 and self.functions:
            return [f"console.log({self.call([])});"]
        if kind < 0.4:
            return [f"{name} = {self.expression([])};"]
        if kind < 0.6 and self.functions:
            return [f"for (let i = 0; i < {rng.randint(1, 3)}; i++) {{", f"  {self.call([])};", f"  {name} += 1;", "}"]
        if kind < 0.7 and self.functions:
            plain = [n for n, c in self.functions if c == 0]
            if plain:
                chosen = rng.choice(plain)
                handler = f"handler{len(self.lines)}"
                return rng.choice([[f"const {handler} = {chosen};", f"console.log({handler}());"], [f"setTimeout({chosen}, {rng.randint(1, 9)});"],
                                   [f"[3, 4].map({chosen});"], [f"setTimeout(() => console.log({name}, {chosen}()), 5);"]])  # fmt: skip
        if kind < 0.8:
            fresh = f"left{len(self.lines)}"
            return [f"const {fresh} = {self.expression([])};", f"console.log({fresh} + 1);"]
        if kind < 0.9:
            return [f"if ({self.expression([])} % 2) {{", f"  {name} -= 2;", "} else {", f"  console.log('even', {name});", "}"]
        return ["// a remark", f"console.log({self.expression([])});"]
