"""Random programs in languages with braces, full of loops, branches, jumps, errors, and handlers that are registered and called."""

from __future__ import annotations

import random

NAMES = ["doors", "riders", "delay", "load", "zone", "queue"]


class FlowJavaScript:
    """Writes one program from a seed. It ends by itself, and prints what it did. All values are whole numbers."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.fresh = 0
        self.lines: list[str] = []
        self.functions: list[tuple[str, int]] = []
        self.state = self.rng.sample(NAMES, 3)

    # -- how the language writes it --------------------------------------------------------------

    def opening(self) -> list[str]:
        variables = [f"let {n} = {self.rng.randint(0, 5)};" for n in ["total", *self.state]]
        return [
            "const EventEmitter = require('events');",
            "",
            f"const LIMIT = {self.rng.randint(2, 9)};",
            *variables,
            "const log = [];",
            "const bell = new EventEmitter();",
            "",
        ]

    def head(self, name: str, params: list[str]) -> str:
        return f"function {name}({', '.join(params)}) {{"

    def local(self, name: str, value: str) -> str:
        return f"let {name} = {value};"

    def say(self, *parts: str) -> str:
        return f"console.log({', '.join(parts)});"

    def noted(self, value: str) -> str:
        return f"log.push({value});"

    size = "log.length"
    throw, caught = "throw new Error('late');", "catch (error{}) {{"

    def handler(self) -> tuple[str, str]:
        return self.rng.choice(
            [
                ("bell.on('ring', (n) => {", "});"),
                ("bell.once('ring', function (n) {", "});"),
                ("bell.prependListener('ring', (n) => {", "});"),
            ]
        )

    def ring(self, value: str) -> str:
        return f"bell.emit('ring', {value});"

    def begin_main(self) -> str:
        return ""

    def closing(self) -> list[str]:
        return []

    # -- what it writes --------------------------------------------------------------------------

    def program(self) -> str:
        rng = self.rng
        self.lines = self.opening()
        lead = self.begin_main()
        for number in range(rng.randint(1, 3)):
            self.function(f"run{number}", lead)
        self.main(lead)
        self.lines += self.closing()
        return "\n".join(self.lines) + "\n"

    def main(self, lead: str) -> None:
        rng, known = self.rng, ["total", *self.state]
        for _ in range(rng.randint(0, 3)):
            opened, closed = self.handler()
            self.lines.append(lead + opened)
            self.block(lead + "  ", ["n", "total", *self.state], rng.randint(1, 4), False, "handler", 1)
            self.lines.append(lead + closed)
        self.block(lead, known, rng.randint(4, 8), False, "", 0)
        for value in rng.sample(known, rng.randint(0, 2)):
            self.lines.append(lead + self.ring(value))
        self.lines.append(lead + self.say(*["total", *self.state], self.size))

    def function(self, name: str, lead: str) -> None:
        rng = self.rng
        params = rng.sample([n for n in NAMES if n not in self.state], rng.randint(1, 2))
        self.lines.append(lead + self.head(name, params))
        known = [*params, "total", *(self.state if rng.random() < 0.7 else [])]
        self.block(lead + "  ", known, rng.randint(3, 6), False, "function", 0)
        self.lines += [f"{lead}  return {rng.choice(known)};", f"{lead}}}", ""]
        self.functions.append((name, len(params)))

    def block(self, lead: str, known: list[str], count: int, loop: bool, inside: str, depth: int) -> None:
        """``known``: variables that can be used; those that the block declares are known to it alone."""
        own = list(known)
        for _ in range(count):
            self.statement(lead, own, loop, inside, depth)

    def statement(self, lead: str, known: list[str], loop: bool, inside: str, depth: int) -> None:
        rng, add = self.rng, self.lines.append
        kind = rng.choices(
            ["local", "set", "augment", "print", "log", "if", "for", "while", "try", "switch", "call", "ring"],
            [3, 5, 4, 3, 2, 5, 3, 2, 2, 2, 3, 1],
        )[0]
        if (kind == "call" and not self.functions) or (kind == "ring" and inside):
            kind = "print"
        if depth > 2 and kind in ("if", "for", "while", "try", "switch"):
            kind = "augment"
        if rng.random() < 0.1:
            add(f"{lead}// {rng.choice(NAMES)} next")
        if kind == "local":
            self.fresh += 1
            add(lead + self.local(f"v{self.fresh}", self.value(known)))
            known.append(f"v{self.fresh}")
        elif kind == "set":
            add(f"{lead}{rng.choice(known)} = {self.value(known)};")
        elif kind == "augment":
            add(f"{lead}{rng.choice(known)}{rng.choice(['++', '--', f' += {self.value(known)}'])};")
        elif kind == "print":
            add(lead + self.say(*rng.sample(known, min(2, len(known)))))
        elif kind == "log":
            add(lead + self.noted(self.value(known)))
        elif kind == "call":
            name, size = rng.choice(self.functions)
            add(f"{lead}{rng.choice(known)} = {name}({', '.join(rng.choice(known) for _ in range(size))}) % 50;")
        elif kind == "ring":
            add(lead + self.ring(self.value(known)))
        elif kind == "if":
            self.branches(lead, known, loop, inside, depth)
        else:
            self.larger(kind, lead, known, loop, inside, depth)

    def larger(self, kind: str, lead: str, known: list[str], loop: bool, inside: str, depth: int) -> None:
        rng, add = self.rng, self.lines.append
        self.fresh += 1
        if kind == "for":
            add(
                f"{lead}for ({self.local(f'i{self.fresh}', '0')} i{self.fresh} < {rng.randint(1, 4)}; i{self.fresh}++) {{"
            )
            self.block(lead + "  ", [*known], rng.randint(1, 4), True, inside, depth + 1)
        elif kind == "while":
            add(lead + self.local(f"w{self.fresh}", str(rng.randint(1, 4))))
            add(f"{lead}while (w{self.fresh} > 0) {{")
            add(f"{lead}  w{self.fresh}--;")
            self.block(lead + "  ", [*known], rng.randint(1, 4), True, inside, depth + 1)
        elif kind == "switch":
            add(f"{lead}switch ({rng.choice(known)} % 3) {{")
            for number in range(2):
                add(f"{lead}  case {number}:")
                self.block(
                    lead + "    ", known, rng.randint(1, 2), False, inside, depth + 1
                ) if rng.random() < 0.9 else None
                add(f"{lead}    break;")
            add(f"{lead}  default:")
            add(lead + "    " + self.say(rng.choice(known)))
        else:
            number = self.fresh
            add(f"{lead}try {{")
            self.block(lead + "  ", known, rng.randint(1, 3), loop, inside, depth + 1)
            add(f"{lead}  if ({rng.choice(known)} % 2 === 0) {{".replace("===", self.equal))
            add(f"{lead}    {self.throw}")
            add(f"{lead}  }}")
            add(f"{lead}}} {self.caught.format(number)}")
            self.block(lead + "  ", known, 1, loop, inside, depth + 1)
            if rng.random() < 0.3:
                add(f"{lead}}} finally {{")
                add(lead + "  " + self.noted(rng.choice(known)))
        add(lead + "}")

    equal = "==="

    def branches(self, lead: str, known: list[str], loop: bool, inside: str, depth: int) -> None:
        rng = self.rng
        for n in range(rng.choice([1, 1, 2, 3])):
            test = f"({self.value(known)}) % 3 {rng.choice([self.equal, '<', '>='])} {rng.randint(0, 2)}"
            self.lines.append(f"{lead}if ({test}) {{" if n == 0 else f"{lead}}} else if ({test}) {{")
            self.block(lead + "  ", known, rng.randint(1, 3), loop, inside, depth + 1)
            if rng.random() < 0.25:
                back = {"function": [f"return {rng.choice(known)};"], "handler": ["return;"]}.get(inside, [])
                ways = (["break;", "continue;"] if loop else []) + back
                self.lines += [f"{lead}  {rng.choice(ways)}"] if ways else []
        if rng.random() < 0.5:
            self.lines.append(f"{lead}}} else {{")
            self.block(lead + "  ", known, rng.randint(1, 2), loop, inside, depth + 1)
        self.lines.append(f"{lead}}}")

    def value(self, known: list[str]) -> str:
        rng = self.rng
        a, b = rng.choice(known), rng.choice([*known, "LIMIT", str(rng.randint(1, 9))])
        return rng.choice(
            [
                a,
                f"{a} + {b}",
                f"({a} - {b}) % 11",
                f"Math.max({a}, {b}) % 9",
                f"{self.size} + {a}",
                str(rng.randint(0, 9)),
            ]
        )


class FlowJava(FlowJavaScript):
    """The same, with static fields; handlers are lambdas and objects of classes that are written in place."""

    size, equal = "log.size()", "=="
    throw, caught = 'throw new IllegalStateException("late");', "catch (IllegalStateException error{}) {{"

    def opening(self) -> list[str]:
        variables = [f"  static int {n} = {self.rng.randint(0, 5)};" for n in ["total", *self.state]]
        imports = [f"import java.util.{n};" for n in ("ArrayList", "List", "function.IntConsumer")]
        return [*imports, "", "public class Line {", f"  static final int LIMIT = {self.rng.randint(2, 9)};", *variables,
                "  static List<Integer> log = new ArrayList<>();", "  static List<IntConsumer> bells = new ArrayList<>();", ""]  # fmt: skip

    def head(self, name: str, params: list[str]) -> str:
        return f"static int {name}({', '.join('int ' + p for p in params)}) {{"

    def local(self, name: str, value: str) -> str:
        return f"int {name} = {value};"

    def say(self, *parts: str) -> str:
        return f'System.out.println({" + {} + ".format(chr(34) + " " + chr(34)).join(parts)} + " .");'

    def noted(self, value: str) -> str:
        return f"log.add({value});"

    def handler(self) -> tuple[str, str]:
        return self.rng.choice(
            [
                ("bells.add(n -> {", "});"),
                ("bells.add((int n) -> {", "});"),
                ("bells.add(new IntConsumer() {\n      @Override\n      public void accept(int n) {", "  }\n    });"),
            ]
        )

    def ring(self, value: str) -> str:
        return f"for (IntConsumer bell : bells) {{ bell.accept({value}); }}"

    def begin_main(self) -> str:
        return "  "

    def main(self, lead: str) -> None:
        self.lines.append("  public static void main(String[] args) {")
        super().main("    ")
        self.lines.append("  }")

    def closing(self) -> list[str]:
        return ["}"]
