"""Random small programs in languages with braces: globals, functions, calls, loops, shadowing, callbacks, numbered copies."""

from __future__ import annotations

import random
import re

STEMS = ["tram", "depot", "fare", "signal", "door", "stop"]
PARTS = ["Count", "Speed", "Level", "Open", "Log", "Name"]


class Maker:
    """Writes one program from a seed. Every program ends by itself and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.later = random.Random(-seed)  # for what was thought of later, so that a seed gives much the same program
        self.numbers: list[str] = []
        self.lists: list[str] = []
        self.functions: list[tuple[str, int]] = []  # (name, parameters); each calls only those before it
        self.top: list[str] = []
        self.body: list[str] = []  # of main code
        self.begin()

    # -- how the language writes it --------------------------------------------------------------

    def begin(self) -> None: ...

    def declare(self, pairs: list[tuple[str, str]]) -> None:
        raise NotImplementedError

    def define(self, name: str, params: list[tuple[str, str]], body: list[str], result: str) -> None:
        raise NotImplementedError

    def say(self, *parts: str) -> str:
        raise NotImplementedError

    def extra(self, written: list[str], local: list[str]) -> list[str]:
        """A statement that only this language has."""
        return [self.say(self.expression(local))]

    def callback(self, name: str) -> list[str]:
        return [self.say(f"{name}()")]

    def main(self, lines: list[str]) -> None:
        self.top += lines

    def program(self) -> str:
        self.make()
        return "\n".join(self.top) + "\n"

    # -- what it writes --------------------------------------------------------------------------

    def make(self) -> None:
        rng = self.rng
        self.constants = ["LIMIT"] if rng.random() < 0.4 else []
        if self.constants:
            self.constant("LIMIT", "7")
        self.variables()
        if rng.random() < 0.5:
            self.copies()
        for index in range(rng.randint(2, 6)):
            self.function(index)
            if rng.random() < 0.2:
                self.main(self.main_piece())
        for _ in range(rng.randint(3, 7)):
            self.main(self.main_piece())
        self.main([self.say(*self.numbers, *self.lists)])

    def constant(self, name: str, value: str) -> None:
        raise NotImplementedError

    def variables(self) -> None:
        rng = self.rng
        parts: list[tuple[str, str]] = []
        for stem in rng.sample(STEMS, rng.randint(1, 3)):
            for part in rng.sample(PARTS, rng.randint(1, 4)):
                name = stem + part
                if part == "Log":
                    self.lists.append(name)
                    self.declare_list(name)
                    continue
                known = f"{rng.choice(self.numbers)} + {rng.randint(1, 5)}" if self.numbers else "2"
                parts.append((name, rng.choice(["0", "1", str(rng.randint(2, 9)), "", known, *self.computed()])))
                self.numbers.append(name)
        while parts:
            count = rng.choice([1, 1, 2, 3])
            self.declare(parts[:count])
            parts = parts[count:]
        if not self.numbers:
            self.numbers.append("clockCount")
            self.declare([("clockCount", "0")])

    def computed(self) -> list[str]:
        return []

    def declare_list(self, name: str) -> None:
        raise NotImplementedError

    def copies(self) -> None:
        rng = self.rng
        fields = rng.sample(["X", "Speed", "Load"], rng.randint(1, 3))
        for n in (1, 2):
            for f in fields:
                self.declare([(f"car{n}{f}", str(rng.randint(0, 5)) if f != "Load" else "2")])
                self.numbers.append(f"car{n}{f}")
        other = rng.choice(self.numbers)
        other = other if not other.startswith("car") else "2"
        literals = self.later.choice([0, 0, 1, 2])  # whether the twins differ in some
        for n in (1, 2):
            first = f"car{n}{fields[0]}"
            body = [f"{first} += by + {other};"]
            if literals:
                body.append(f"if ({first} > {n * 40}) {{ {self.say(f'{n * 3}', first)} {first} = {n % literals}; }}")
            self.define(f"goCar{n}", [("by", "1")], body, first)
            self.functions.append((f"goCar{n}", 1))
        if rng.random() < 0.7:
            params = [(f"p{i}", "") for i in range(len(fields))]
            self.define("showCar", params, [self.say("'car'", *(p for p, _ in params))], "0")
            self.main([f"showCar({', '.join(f'car{n}{f}' for f in fields)});" for n in (1, 2)])

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
        local, body = list(params), []
        shadow = [n for n in self.numbers if n not in written]
        if shadow and rng.random() < 0.2:
            name = rng.choice(shadow)
            body.append(f"{self.LOCAL} {name} = {rng.randint(0, 4)};")
            local.append(name)
        for _ in range(rng.randint(1, 4)):
            body += self.statement(written, local)
        name = f"{rng.choice(['move', 'check', 'raise', 'tell'])}{rng.choice(STEMS).capitalize()}{index}"
        given = [
            (p, str(rng.randint(0, 3)) if i == len(params) - 1 and rng.random() < 0.3 else "")
            for i, p in enumerate(params)
        ]
        self.define(name, given, body, self.expression(local))
        self.functions.append((name, len(params)))

    def statement(self, written: list[str], local: list[str]) -> list[str]:
        rng = self.rng
        kind = rng.random()
        if kind < 0.3 and written:
            return [f"{rng.choice(written)} {rng.choice(['=', '+=', '-='])} {self.expression(local)};"]
        if kind < 0.4 and written:
            return [f"{rng.choice(written)}{rng.choice(['++', '--'])};"]
        if kind < 0.5 and self.lists:
            return [f"{rng.choice(self.lists)}.{self.ADD}({self.expression(local)});"]
        if kind < 0.65 and self.functions:
            return [self.call(local) + ";"]
        if kind < 0.72 and written:
            return [f"if ({self.expression(local)} > 3) {{", f"  {rng.choice(written)} += 1;", "}"]
        if kind < 0.88:
            return self.extra(written, local)
        return [self.say(self.expression(local), rng.choice(self.numbers))]

    def call(self, local: list[str]) -> str:
        name, count = self.rng.choice(self.functions)
        return f"{name}({', '.join(self.expression(local) for _ in range(count))})"

    def main_piece(self) -> list[str]:
        rng = self.rng
        kind = rng.random()
        name = rng.choice(self.numbers)
        if kind < 0.25 and self.functions:
            return [self.say(self.call([]))]
        if kind < 0.4:
            return [f"{name} = {self.expression([])};"]
        if kind < 0.6 and self.functions:
            return [
                f"for ({self.LOCAL} i = 0; i < {rng.randint(1, 3)}; i++) {{",
                f"  {self.call([])};",
                f"  {name} += 1;",
                "}",
            ]
        plain = [n for n, c in self.functions if c == 0]
        if kind < 0.7 and plain:
            return self.callback(rng.choice(plain))
        if kind < 0.8:
            fresh = f"left{rng.randint(0, 10**6)}"
            return [f"{self.LOCAL} {fresh} = {self.expression([])};", self.say(f"{fresh} + 1")]
        if kind < 0.9:
            return [
                f"if ({self.expression([])} % 2 == 0) {{",
                f"  {name} -= 2;",
                "} else {",
                "  " + self.say("'even'", name),
                "}",
            ]
        return ["// a remark", self.say(self.expression([]))]


class JavaScript(Maker):
    LOCAL, ADD = "let", "push"

    def begin(self) -> None:
        self.word = self.rng.choice(["let", "let", "var"])
        if self.rng.random() < 0.3:
            self.top.append('"use strict";')
        if self.rng.random() < 0.4:
            self.top.append('const { format } = require("util");')

    def constant(self, name: str, value: str) -> None:
        self.top.append(f"const {name} = {value};")

    def computed(self) -> list[str]:
        return ["Math.floor(2.5)", "Number('4')"]

    def declare(self, pairs: list[tuple[str, str]]) -> None:
        self.top.append(
            f"{self.word} {', '.join(f'{n} = {v}' if v else n for n, v in pairs)};"
            + ("  // how much" if self.rng.random() < 0.2 else "")
        )

    def declare_list(self, name: str) -> None:
        self.declare([(name, "[]")])

    def say(self, *parts: str) -> str:
        return f"console.log({', '.join(parts)});"

    def define(self, name: str, params: list[tuple[str, str]], body: list[str], result: str) -> None:
        head = ", ".join(f"{p} = {v}" if v else p for p, v in params)
        lines = [f"  {line}" for line in [*body, f"return {result};"]]
        form = self.rng.random()
        opening, closing = f"function {name}({head}) {{", "}"
        if form > 0.85:
            opening, closing = f"const {name} = function ({head}) {{", "};"
        elif form > 0.65:
            opening, closing = f"const {name} = ({head}) => {{", "};"
        self.top += ["", *(["// what it does"] if form < 0.1 else []), opening, *lines, closing, ""]

    def extra(self, written: list[str], local: list[str]) -> list[str]:
        name, other = self.rng.choice(self.numbers), self.rng.choice(self.numbers)
        return self.rng.choice([
            [f"[1, 2].forEach(function (k) {{ console.log(k + {name}); }});"],
            [f"console.log(JSON.stringify({{ {name}, other: {other} }}), `${{{other}}}!`);"],
        ])  # fmt: skip

    def callback(self, name: str) -> list[str]:
        number = self.rng.randint(0, 10**6)
        return self.rng.choice([
            [f"const handler{number} = {name};", f"console.log(handler{number}());"], [f"setTimeout({name}, {number % 9 + 1});"],
            [f"setTimeout({self.rng.choice(['() =>', 'function ()'])} {{", f"  {self.numbers[0]} += {name}();", f"  console.log({self.numbers[0]}, {number});", f"}}, {number % 5 + 1});"],
            ['process.on("exit", (code) => {', f"  if ({self.numbers[0]} > 3) {{", "    return;", "  }", f"  console.log(code, {self.numbers[0]});", "});"],
            [f"[3, 4].map({name});"], [f"setTimeout(() => console.log({self.numbers[0]}, {name}()), 5);"],
        ])  # fmt: skip


class Module(JavaScript):
    """The same as a file that is imported."""

    def begin(self) -> None:
        self.word = "let"
        self.top.append('import { format } from "node:util";')


class Java(Maker):
    LOCAL, ADD = "int", "add"
    NAME = "Line"

    def begin(self) -> None:
        self.top.append("import java.util.ArrayList;\n")

    def constant(self, name: str, value: str) -> None:
        self.top.append(f"    static final int {name} = {value};")

    def declare(self, pairs: list[tuple[str, str]]) -> None:
        word = self.rng.choice(["static", "private static"])
        self.top.append(f"    {word} int {', '.join(f'{n} = {v}' if v else n for n, v in pairs)};")

    def declare_list(self, name: str) -> None:
        self.top.append(f"    static ArrayList<Integer> {name} = new ArrayList<>();")

    def say(self, *parts: str) -> str:
        words = [p.replace("'", '"') for p in parts]
        shown = [w if w.isidentifier() or w.startswith('"') else f"({w})" for w in words]
        return "System.out.println(" + ' + " " + '.join(['""', *shown]) + ");"

    def define(self, name: str, params: list[tuple[str, str]], body: list[str], result: str) -> None:
        head = ", ".join(f"int {p}" for p, _ in params)
        word = self.rng.choice(["static", "static", "public static", "private static"])
        self.top += [
            "",
            f"    {word} int {name}({head}) {{",
            *(f"        {line}" for line in [*body, f"return {result};"]),
            "    }",
        ]

    def callback(self, name: str) -> list[str]:
        number = self.rng.randint(0, 10**6)
        return self.rng.choice([
            [f"Runnable job{number} = {self.NAME}::{name};", f"job{number}.run();"],
            [f"java.util.function.IntSupplier job{number} = () -> {name}() + {self.numbers[0]};", self.say(f"job{number}.getAsInt()")],
        ])  # fmt: skip

    def main(self, lines: list[str]) -> None:
        self.body += lines

    def program(self) -> str:
        self.make()
        imports, rest = self.top[0], self.top[1:]
        body = [f"        {line}" for line in self.body]
        main = ["", "    public static void main(String[] args) {", *body, "    }"]
        return "\n".join([imports, f"public class {self.NAME} {{", *rest, *main, "}"]) + "\n"


class JavaMain(Java):
    """The same with variables in ``main`` that no other method uses."""

    def program(self) -> str:
        self.make()
        own = [line for line in self.top[1:] if re.match(r"    (private )?static int [^(]*;$", line)]
        names = lambda line: re.findall(r"(\w+)(?= =|,|;)", line)  # noqa: E731
        while True:
            rest = "\n".join([*(x for x in self.top[1:] if x not in own), *(x for x in self.body if "->" in x)])
            left = [line for line in own if not any(re.search(rf"\b{n}\b", rest) for n in names(line))]
            if left == own:
                break
            own = left
        self.top = [line for line in self.top if line not in own]
        own = [re.sub(r"(private )?static ", "", line.strip()) for line in own]
        self.body = [
            re.sub(
                r"\b([A-Za-z]\w*)(?=[,;])",
                lambda m: m[1] if m.string[: m.start()].rstrip().endswith("=") else f"{m[1]} = 0",
                line,
            )
            for line in own
        ] + self.body
        imports, rest_ = self.top[0], self.top[1:]
        body = [f"        {line}" for line in self.body]
        return (
            "\n".join(
                [
                    imports,
                    f"public class {self.NAME} {{",
                    *rest_,
                    "",
                    "    public static void main(String[] args) {",
                    *body,
                    "    }",
                    "}",
                ]
            )
            + "\n"
        )


class Sketch(Java):
    def constant(self, name: str, value: str) -> None:
        self.top.append(f"final int {name} = {value};")

    def declare(self, pairs: list[tuple[str, str]]) -> None:
        self.top.append(f"int {', '.join(f'{n} = {v}' if v else n for n, v in pairs)};")

    def declare_list(self, name: str) -> None:
        self.top.append(f"ArrayList<Integer> {name} = new ArrayList<Integer>();")

    def define(self, name: str, params: list[tuple[str, str]], body: list[str], result: str) -> None:
        head = ", ".join(f"int {p}" for p, _ in params)
        self.top += ["", f"int {name}({head}) {{", *(f"  {line}" for line in [*body, f"return {result};"]), "}"]

    def callback(self, name: str) -> list[str]:
        return [self.say(f"{name}()")]

    def say(self, *parts: str) -> str:
        return super().say(*parts).replace("System.out.println", "println")

    def program(self) -> str:
        self.make()
        body = [f"  {line}" for line in self.body]
        whole = any(
            line.startswith(("  }", "    ", "  int left")) for line in body
        )  # a block, or a local of what follows
        half = 0 if whole else len(body) // 2
        hooks = ["", "void setup() {", *body[:half], "}", "", "void draw() {", *body[half:], "  noLoop();", "}"]
        return "\n".join([*self.top, *hooks]) + "\n"
