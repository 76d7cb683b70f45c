"""Random windows whose constructors hold their listeners: closures, lambdas and arrows that share variables."""

import random


class ListeningMaker:
    """A class with listeners in its constructor and in a method that it calls once, twice, or in a loop."""

    END, OPEN, CLOSE, OWN = "", ":", None, "self"
    BELL = ["class Bell:", "    heard = []", "", "    def bind(self, event, listener):",
            "        self.heard.append(listener)", "",
            "    def ring(self):", "        for number, listener in enumerate(list(self.heard)):",
            "            print('got', listener(number))"]  # fmt: skip

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.lines: list[str] = []
        self.fresh = 0

    def add(self, depth: int, text: str, opens: bool = False) -> None:
        self.lines.append("    " * depth + text + (self.OPEN if opens else self.END))

    def closed(self, depth: int, more: str = "") -> None:
        if self.CLOSE is not None:
            self.lines.append("    " * depth + self.CLOSE + more)

    def program(self) -> str:
        rng = self.rng
        self.lines = [*self.BELL, "", ""]
        self.window()
        self.lines += ["", ""]
        self.main(rng.randint(1, 2))
        return "\n".join(self.lines) + "\n"

    def window(self) -> None:
        rng = self.rng
        self.add(0, "class Window", True)
        self.method("__init__", "bell, size")
        self.add(2, f"{self.OWN}.total = size")
        if kept := rng.random() < 0.4:
            self.add(2, f"{self.OWN}.size = size")
        known = ["size"]
        boxes = []
        for number in range(rng.randint(1, 4)):
            if rng.random() < 0.3:
                boxes.append(f"box{number}")
                self.declare(2, boxes[-1], f"[{rng.randint(0, 5)}]")
            else:
                known.append(f"n{number}")
                self.declare(2, known[-1], rng.choice(["0", "3", "size + 1", known[-2]]))
        self.body(2, known, boxes, rng.randint(2, 5))
        for _ in range(rng.choice([0, 1, 1, 2])):
            self.add(2, f"{self.OWN}.build(bell, {rng.choice(known)})")
        self.add(2, f"print({', '.join([*known, *(f'{b}[0]' for b in boxes)])})" if known else "pass")
        self.end_method()
        self.method("build", "bell, size")
        known = ["size"]
        if rng.random() < 0.7:
            known.append("m")
            self.declare(2, "m", "size + 2")
        self.body(2, known, [], rng.randint(1, 3))
        self.end_method()
        if kept and rng.random() < 0.5:
            self.method("grow", "")
            self.add(2, f"{self.OWN}.size = {self.OWN}.size + 1")
            self.end_method()
        self.closed(0)

    def body(self, depth: int, known: list[str], boxes: list[str], count: int) -> None:
        rng, helpers = self.rng, []
        for _ in range(count):
            self.fresh += 1
            name, kind = f"part{self.fresh}", rng.choice(["function", "function", "lambda", "loop", "helper", "change"])
            if kind == "loop":
                self.loop(depth, known, boxes, helpers, name)
            elif kind == "lambda":
                self.handed(depth, self.short(known, boxes, helpers))
            elif kind == "change":
                self.change(depth, known, boxes)
            else:
                self.function(depth, name, known, boxes, helpers)
                if kind == "helper":
                    helpers.append(name)
                else:
                    self.handed(depth, name)

    def loop(self, depth: int, known: list[str], boxes: list[str], helpers: list[str], name: str) -> None:
        self.each(depth, "i")
        self.function(depth + 1, name, [*known, "i"], boxes, helpers, "i")
        self.handed(depth + 1, name)
        self.closed(depth)

    def value(self, known: list[str], boxes: list[str], event: str = "") -> str:
        chosen = self.rng.choice(
            [*known, *(f"{b}[0]" for b in boxes), f"{self.OWN}.total", *([event] if event else []), "2"]
        )
        return f"{chosen} + {self.rng.randint(0, 4)}" if self.rng.random() < 0.4 else chosen

    def statements(
        self, depth: int, known: list[str], boxes: list[str], helpers: list[str], set_here: list[str]
    ) -> None:
        rng = self.rng
        for _ in range(rng.randint(1, 3)):
            roll = rng.random()
            if roll < 0.3 and set_here:
                self.add(depth, f"{rng.choice(set_here)} = {self.value(known, boxes, 'e')}")
            elif roll < 0.45 and boxes:
                self.add(depth, f"{rng.choice(boxes)}[0] += {self.value(known, boxes, 'e')}")
            elif roll < 0.6:
                self.add(depth, f"{self.OWN}.total += {self.value(known, boxes, 'e')}")
            elif roll < 0.75 and helpers:
                self.add(depth, f"{rng.choice(helpers)}({self.value(known, boxes, 'e')})")
            else:
                self.add(depth, f"print({self.value(known, boxes, 'e')}, {self.value(known, boxes)})")
        if rng.random() < 0.4:
            self.add(depth, f"return {self.value(known, boxes, 'e')}")

    # -- in the manner of Python --------------------------------------------------------------------

    def method(self, name: str, params: str) -> None:
        self.add(1, f"def {name}({', '.join(x for x in (self.OWN, params) if x)})", True)

    def end_method(self) -> None:
        self.lines.append("")

    def declare(self, depth: int, name: str, value: str) -> None:
        self.add(depth, f"{name} = {value}")

    def each(self, depth: int, name: str) -> None:
        self.add(depth, f"for {name} in range({self.rng.randint(1, 3)})", True)

    def function(
        self, depth: int, name: str, known: list[str], boxes: list[str], helpers: list[str], fixed: str = ""
    ) -> None:
        rng = self.rng
        set_here = [n for n in known if n != fixed and rng.random() < 0.3]
        self.add(depth, f"def {name}(e)", True)
        if set_here:
            self.add(depth + 1, f"nonlocal {', '.join(set_here)}")
        self.statements(depth + 1, known, boxes, helpers, set_here)

    def short(self, known: list[str], boxes: list[str], helpers: list[str]) -> str:
        first = f"{helpers[0]}(e)" if helpers else f"print(e, {self.value(known, boxes)})"
        return f"lambda e: ({first}, print({self.value(known, boxes, 'e')}))"

    def handed(self, depth: int, what: str) -> None:
        self.add(depth, f"bell.bind({self.rng.choice(['doors', 'ring'])!r}, {what})")

    def change(self, depth: int, known: list[str], boxes: list[str]) -> None:
        self.add(depth, f"{self.rng.choice(known)} = {self.value(known, boxes)}")

    def main(self, count: int) -> None:
        self.lines.append("bell = Bell()")
        for number in range(count):
            self.lines += [f"window{number} = Window(bell, {self.rng.randint(1, 5)})", "bell.ring()"]
            self.lines.append(f"print(window{number}.total)")


class ListeningJavaScript(ListeningMaker):
    """The same with arrows and function expressions."""

    END, OPEN, CLOSE, OWN = ";", " {", "}", "this"
    BELL = ["const print = console.log;", "class Bell {", "    constructor() {", "        this.heard = [];", "    }", "",
            "    on(event, listener) {", "        this.heard.push(listener);", "    }", "",
            "    ring() {", "        [...this.heard].forEach((listener, number) => print('got', listener(number)));",
            "    }", "}"]  # fmt: skip

    def method(self, name: str, params: str) -> None:
        self.add(1, f"{'constructor' if name == '__init__' else name}({params})", True)

    def end_method(self) -> None:
        self.closed(1)
        self.lines.append("")

    def declare(self, depth: int, name: str, value: str) -> None:
        self.add(depth, f"{'const' if value.startswith('[') else 'let'} {name} = {value}")

    def each(self, depth: int, name: str) -> None:
        self.add(depth, f"for (let {name} = 0; {name} < {self.rng.randint(1, 3)}; {name}++)", True)

    def function(
        self, depth: int, name: str, known: list[str], boxes: list[str], helpers: list[str], fixed: str = ""
    ) -> None:
        arrow = self.rng.random() < 0.6
        self.add(depth, f"const {name} = (e) =>" if arrow else f"function {name}(e)", True)
        own, self.OWN = self.OWN, "this" if arrow else "bell.heard"
        self.statements(depth + 1, known, boxes, helpers, [n for n in known if n != fixed and self.rng.random() < 0.3])
        self.OWN = own
        self.closed(depth, ";" if arrow else "")

    def short(self, known: list[str], boxes: list[str], helpers: list[str]) -> str:
        first = f"{helpers[0]}(e)" if helpers else f"print(e, {self.value(known, boxes)})"
        return f"(e) => {{\n            {first};\n            print({self.value(known, boxes, 'e')});\n        }}"

    def handed(self, depth: int, what: str) -> None:
        self.add(depth, f"bell.on({self.rng.choice(['doors', 'ring'])!r}, {what})")

    def main(self, count: int) -> None:
        self.lines.append("const bell = new Bell();")
        for number in range(count):
            self.lines += [f"const window{number} = new Window(bell, {self.rng.randint(1, 5)});", "bell.ring();"]
            self.lines.append(f"print(window{number}.total);")
