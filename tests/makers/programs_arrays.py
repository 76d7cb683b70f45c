"""Random programs of arrays with one index: in JavaScript, Java and sketches."""

from __future__ import annotations

import random

NAMES = ["speeds", "loads", "zones", "delays"]


class ArrayMaker:
    """Writes one program from a seed; what differs between the languages is in its subclasses."""

    LEAD, CLOSE = "", ""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.arrays = self.rng.sample(NAMES, self.rng.randint(2, 4))
        self.size = self.rng.randint(2, 5)
        self.functions: list[str] = []

    def value(self, index: str) -> str:
        name = self.rng.choice(self.arrays)
        return self.rng.choice(
            [f"{name}[{index}]", str(self.rng.randint(0, 9)), "total", f"({name}[{index}] + 3) % 7", index]
        )

    def work(self, index: str) -> list[str]:
        """Statements that work with the items of one index."""
        found = []
        for _ in range(self.rng.randint(1, 3)):
            name = self.rng.choice(self.arrays)
            found.append(self.rng.choice([
                f"{name}[{index}] = {self.value(index)};", f"{name}[{index}] += {self.value(index)};", f"{name}[{index}]++;",
                f"if ({name}[{index}] > {self.rng.randint(1, 5)}) {{ {self.rng.choice(self.arrays)}[{index}] = 0; }}",
                f"total += {name}[{index}];", self.say(f"{name}[{index}]"), *(f"{f}({index}, {self.value(index)});" for f in self.functions),
            ]))  # fmt: skip
        return found

    def loop(self) -> list[str]:
        bound = self.rng.choice([f"{self.rng.choice(self.arrays)}.length", self.limit()])
        return [f"for ({self.word()} i = 0; i < {bound}; i++) {{", *(f"  {line}" for line in self.work("i")), "}"]

    def main(self) -> list[str]:
        rng, found = self.rng, []
        for _ in range(rng.randint(2, 5)):
            found += rng.choice([self.loop, self.loop, lambda: self.work(str(rng.randrange(self.size)))])()
        return [*found, *(self.say(f"{a}[{n}]") for a in self.arrays for n in (0, self.size - 1)), self.say("total")]

    def program(self) -> str:
        rng = self.rng
        lines = self.declared()
        for number in range(rng.randint(0, 3)):
            name = f"{rng.choice(['drive', 'fill', 'stop'])}{number}"
            body = self.work("at") if rng.random() < 0.8 else [*self.work("at"), "at = at + 0;"]
            lines += ["", *self.function(name, body)]
            self.functions.append(name)
        return "\n".join(self.whole(lines, self.main())) + "\n"

    def values(self) -> str:
        return ", ".join(str(self.rng.randint(0, 9)) for _ in range(self.size))


class ArraysJavaScript(ArrayMaker):
    def word(self) -> str:
        return "let"

    def limit(self) -> str:
        return str(self.size)

    def say(self, text: str) -> str:
        return f"console.log({text});"

    def declared(self) -> list[str]:
        return [*(f"const {a} = [{self.values()}];" for a in self.arrays), "let total = 0;"]

    def function(self, name: str, body: list[str]) -> list[str]:
        return [f"function {name}(at, more) {{", *(f"  {line}" for line in body), "}"]

    def main(self) -> list[str]:
        found = super().main()
        if self.rng.random() < 0.4:
            value = self.rng.randint(0, 9)
            found[1:1] = [f"{a}.push({value});" for a in self.arrays] if not found[0].endswith("{") else []
        return found

    def whole(self, lines: list[str], main: list[str]) -> list[str]:
        return [*lines, "", *main]


class ArraysJava(ArrayMaker):
    STATIC = "static "

    def word(self) -> str:
        return "int"

    def limit(self) -> str:
        return self.rng.choice(["SIZE", str(self.size)])

    def say(self, text: str) -> str:
        return f"System.out.println({text});"

    def declared(self) -> list[str]:
        static, by_size = self.STATIC, self.rng.random() < 0.6
        size = self.rng.choice(["SIZE", str(self.size)])
        made = [
            f"{static}int[] {a} = " + (f"new int[{size}];" if by_size else f"{{{self.values()}}};") for a in self.arrays
        ]
        return [f"{static}final int SIZE = {self.size};", *made, f"{static}int total = 0;"]

    def function(self, name: str, body: list[str]) -> list[str]:
        return [f"{self.STATIC}void {name}(int at, int more) {{", *(f"  {line}" for line in body), "}"]

    def whole(self, lines: list[str], main: list[str]) -> list[str]:
        start = ["", "public static void main(String[] args) {", *(f"  {line}" for line in main), "}"]
        return ["public class Line {", *(f"  {line}" if line else "" for line in [*lines, *start]), "}"]


class ArraysSketch(ArraysJava):
    STATIC = ""

    def say(self, text: str) -> str:
        return f"println({text});"

    def whole(self, lines: list[str], main: list[str]) -> list[str]:
        setup = [f"  {line}" for line in (self.loop() if self.rng.random() < 0.7 else [])]
        return [
            *lines,
            "",
            "void setup() {",
            "  size(100, 100);",
            *setup,
            "}",
            "",
            "void draw() {",
            *(f"  {line}" for line in main),
            "}",
        ]


class RecordsJavaScript:
    """Objects with fixed keys in arrays and variables, handed about in ways of which some cannot be followed."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.keys = self.rng.sample(["x", "speed", "load", "zone"], self.rng.randint(2, 4))

    def made(self, local: list[str]) -> str:
        keys = list(self.keys) if self.rng.random() < 0.95 else self.keys[::-1]
        parts = [
            k
            if k in local and self.rng.random() < 0.5
            else f"{k}: {self.rng.choice([str(self.rng.randint(0, 9)), *local])}"
            for k in keys
        ]
        return "{ " + ", ".join(parts) + " }"

    def work(self, of: str) -> str:
        a, b = self.rng.choice(self.keys), self.rng.choice(self.keys)
        return self.rng.choice([
            f"{of}.{a} = {of}.{b} + {self.rng.randint(0, 5)};", f"{of}.{a} += total % 5;", f"{of}.{a}++;", f"total += {of}.{b};", f"console.log({of}.{a});",
            f"if ({of}.{a} > {of}.{b}) {{ {of}.{a} = 0; }}", *(f"{f}({of}, {self.rng.randint(0, 4)});" for f in self.functions),
        ])  # fmt: skip

    def odd(self) -> list[str]:
        """What cannot be followed."""
        return self.rng.choice([
            ["console.log(things[0]);"], ["console.log(JSON.stringify(things));"], ["for (const { x } of things) { console.log(x); }"],
            ["const copy = { ...one };", "console.log(copy);"], ["one.extra = 1;", "console.log(one.extra);"], ["console.log(Object.keys(one).length);"],
        ])  # fmt: skip

    def each(self) -> list[str]:
        a, b = self.rng.choice(self.keys), self.rng.choice(self.keys)
        return self.rng.choice([
            ["for (const thing of things) {", *(f"  {self.work('thing')}" for _ in range(self.rng.randint(1, 4))), "}"], ["things.forEach((each, i) => {", f"  {self.work('each')}", "  total += i;", "});"],
            [f"console.log(things.filter((t) => t.{a} > 2).map((t) => t.{b}).join());"], [f"things.sort((p, q) => p.{a} - q.{a});"],
            ["for (let i = 0; i < things.length; i++) {", *(f"  {self.work('things[i]')}" for _ in range(self.rng.randint(1, 3))), *self.rng.choice([[], ["  one = things[i];"], ["  if (things.length < 5) { things.push(things[i]); }"], ["  console.log(i);"]]), "}"], [f"console.log(things.reduce((sum, t) => sum + t.{a}, 0));"],
            [f"const found{self.rng.randint(0, 10**6)} = things.find((t) => t.{a} === t.{b});"], [f"things.push({self.made([])});"], [self.work("one")],
            [f"console.log(most({self.rng.randint(0, 9)}) === null);"], ["if (things.length > 2) {", "  things.splice(1, 1);", "}"], [f"things[0] = {self.made([])};"],
        ])  # fmt: skip

    def program(self) -> str:
        rng = self.rng
        self.functions: list[str] = []
        lines = [
            "let total = 0;",
            f"const things = [{', '.join(self.made([]) for _ in range(rng.randint(0, 3)))}];",
            f"let one = {self.made([])};",
            "",
        ]
        for n in range(rng.randint(1, 3)):
            name = f"work{n}"
            lines += [
                f"function {name}(thing, more) {{",
                f"  {self.work('thing')}",
                *(f"  {self.work('thing')}" for _ in range(rng.randint(0, 2))),
                f"  return thing.{self.keys[0]} + more;",
                "}",
                "",
            ]
            self.functions.append(name)
        lines += [f"function make({self.keys[0]}) {{", f"  return {self.made([self.keys[0]])};", "}", ""]
        lines += [
            "function most(least) {",
            "  for (const t of things) {",
            f"    if (t.{self.keys[1]} > least) {{",
            "      return t;",
            "    }",
            "  }",
            "  return null;",
            "}",
            "",
        ]
        lines += ["things.push(make(4), make(7));"]
        for _ in range(rng.randint(2, 6)):
            lines += self.each()
        lines += self.odd() if rng.random() < 0.15 else []
        return "\n".join([*lines, f"console.log(total, one.{self.keys[0]}, things.length);"]) + "\n"
