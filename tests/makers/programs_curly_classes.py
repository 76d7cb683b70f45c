"""Random small programs around one class that does several jobs, in languages with braces."""

from __future__ import annotations

import random

JOBS = ["log", "cash", "track", "door"]
WORDS = ["Count", "Items", "Last", "Total"]


class ClassesJavaScript:
    """Writes one program from a seed. The methods call only those before them, so every program ends."""

    def __init__(self, seed: int) -> None:
        self.rng = rng = random.Random(seed)
        self.jobs = rng.sample(JOBS, rng.randint(2, 3))
        self.fields = [f"{j}{w}" for j in self.jobs for w in rng.sample(WORDS, rng.randint(2, 3))]
        self.fields += ["over", "guest"][: rng.randint(1, 2)]
        self.hash = rng.random() < 0.2  # whether fields are private
        self.head = (
            set(self.fields) if rng.random() < 0.3 else set(rng.sample(self.fields, rng.randint(0, len(self.fields))))
        )
        self.methods: list[tuple[str, int, bool]] = []  # name, how many it must be given, whether it gives back
        self.apart: set[str] = set()  # those that need no object
        self.lines: list[str] = []

    # -- how the language writes it --------------------------------------------------------------

    def own(self, name: str) -> str:
        return f"this.{'#' if self.hash and name in self.fields else ''}{name}"

    def method_head(self, name: str, params: list[str], gives: bool) -> str:
        return f"  {name}({', '.join(params)}) {{"

    def field(self, name: str, value: str) -> str:
        return f"  {'#' if self.hash else ''}{name}{' = ' + value if value else ''};"

    def begin(self) -> list[str]:
        return [
            "const LIMIT = 3;",
            "",
            "function helper(thing) {",
            "  return String(thing).length % 5;",
            "}",
            "",
            "/** Does it all. */",
            "class Evening {",
        ]

    def made(self) -> str:
        return "  constructor(guest) {"

    def end(self, main: list[str]) -> list[str]:
        return ["}", "", *main]

    def say(self, *values: str) -> str:
        return f"console.log({', '.join(values)});"

    items, variable, each = "[1, 2]", "let", "for (const item of {})"

    def push(self, name: str, value: str) -> str:
        return f"{self.own(name)}.push({value});"

    def size(self, name: str) -> str:
        return f"{self.own(name)}.length"

    def through(self, name: str, inner: str) -> str:
        return f"{self.own(name)}.forEach((k) => {{ {inner} }});"

    # -- what it writes --------------------------------------------------------------------------

    def program(self) -> str:
        rng = self.rng
        self.lines = self.begin()
        self.lines += [
            self.field(f, self.first(f, "2") if rng.random() < 0.7 or self.kind(f) == "list" else "")
            for f in self.fields
            if f in self.head or self.hash
        ]
        self.constructor()
        for job in self.jobs:
            if rng.random() < 0.2:
                self.lines += [f"  // The {job}.", ""]
            for n in range(rng.randint(2, 4)):
                self.method(f"{rng.choice(['add', 'show', 'tell', 'drop'])}{job.capitalize()}{n or ''}", job)
        self.method("handle", "")
        if rng.random() < 0.5:
            self.long()
        calls = [f"    {self.call(*m[:2], ['2'])};" for m in rng.sample(self.methods, min(5, len(self.methods)))]
        self.lines += [
            self.method_head("run", [], False),
            *calls,
            "    " + self.say(*(self.own(f) if self.kind(f) != "list" else self.size(f) for f in self.fields)),
            "  }",
        ]
        self.lines += self.end(self.main())
        return "\n".join(self.lines) + "\n"

    def main(self) -> list[str]:
        return self.rng.choice([["new Evening(4).run();"], ["const evening = new Evening(3);", "evening.run();", "evening.run();"],
                                ["const first = new Evening(0);", "const second = new Evening(1);", "first.run();", "second.run();"]])  # fmt: skip

    def kind(self, name: str) -> str:
        return "list" if name.endswith("Items") else "number"

    def first(self, name: str, guest: str) -> str:
        return (
            self.items
            if self.kind(name) == "list"
            else self.rng.choice(["0", "1", guest, "LIMIT", "LIMIT * 2", f"helper({guest})", f"{guest} + 1"])
        )

    def constructor(self) -> None:
        rng = self.rng
        self.lines.append(self.made())
        for name in self.fields:
            if name not in self.head or rng.random() < 0.2:
                self.lines.append(
                    f"    {self.own(name)} = {self.first(name, 'guest')};"
                    + ("  // first" if rng.random() < 0.1 else "")
                )
            if rng.random() < 0.08:
                self.lines.append(rng.choice([f"    {self.say('guest')}", f"    guest = guest + {rng.randint(1, 3)};"]))
        self.lines += ["  }", ""]

    def pick(self, job: str, kind: str) -> str:
        """A field, most often of the job; "" if there is none."""
        own = (
            [f for f in self.fields if f.startswith(job) and self.kind(f) == kind]
            if job and self.rng.random() < 0.85
            else []
        )
        found = own or [f for f in self.fields if self.kind(f) == kind]
        return self.rng.choice(found) if found else ""

    def expression(self, job: str, local: list[str]) -> str:
        rng = self.rng
        number, items = self.own(self.pick(job, "number")), self.pick(job, "list")
        choices = [
            f"{number} + {rng.randint(1, 4)}",
            number,
            *local,
            f"helper({number})",
            f"({self.own('over')} > 2 ? {number} : 1)",
        ]
        choices += [self.size(items)] if items else []
        giving = [m for m in self.methods if m[2]]
        if giving and rng.random() < 0.3:
            choices.append(self.call(*rng.choice(giving)[:2], local))
        return rng.choice(choices)

    def apart_head(self, name: str, params: list[str]) -> str:
        return f"  static {name}({', '.join(params)}) {{"

    def static(self, name: str) -> str:
        return f"Evening.{name}"

    def call(self, name: str, count: int, local: list[str]) -> str:
        return f"{self.static(name) if name in self.apart else self.own(name)}({', '.join(self.rng.choice([str(self.rng.randint(0, 3)), *local]) for _ in range(count))})"

    def method(self, name: str, job: str) -> None:
        rng = self.rng
        if any(m[0] == name for m in self.methods):
            return
        params = ["a", "b"][: rng.randint(0, 2)]
        if rng.random() < 0.1:
            step = [
                f"{self.variable} step = {rng.choice([*params, '3'])} * 2;",
                self.say("step"),
                "if (step > 4) {",
                "  step -= 1;",
                "}",
                "return step + 1;",
            ]
            self.lines += [self.apart_head(name, params), *(f"    {line}" for line in step), "  }", ""]
            self.methods.append((name, len(params), True))
            self.apart.add(name)
            return
        body = [line for _ in range(rng.randint(1, 4)) for line in self.statement(job, params)]
        gives = rng.random() < 0.6
        body += [f"return {self.expression(job, params)};"] if gives else []
        if rng.random() < 0.1:
            self.lines.append(f"  // what {name} does")
        self.lines += [self.method_head(name, params, gives), *(f"    {line}" for line in body), "  }", ""]
        self.methods.append((name, len(params), gives))

    def long(self) -> None:
        """A method that does one thing after the other, on every turn of a loop."""
        rng = self.rng
        body = [f"{self.variable} extra = 0;", f"for ({self.variable} turn = 0; turn < {rng.randint(1, 3)}; turn++) {{"]
        for _ in range(rng.randint(8, 16)):
            said = rng.choice(["", "", f"// {rng.choice(['move the tram', 'show it', 'the log', 'sell'])}"])
            rows = rng.choice(
                [
                    self.statement(rng.choice(self.jobs), ["a", "turn", "extra"]),
                    [f"extra = {self.expression('', ['a', 'turn'])};"],
                    [f"if ({self.expression('', ['turn'])} > 3) {{", f"  {rng.choice(['break', 'continue'])};", "}"],
                ]
            )
            body += [*(["", f"  {said}"] if said else []), *(f"  {row}" for row in rows)]
        self.lines += [
            self.method_head("turns", ["a"], True),
            *(f"    {line}" if line else "" for line in [*body, "}", "return extra;"]),
            "  }",
            "",
        ]
        self.methods.append(("turns", 1, True))

    def statement(self, job: str, local: list[str]) -> list[str]:
        rng = self.rng
        number, value, items = self.own(self.pick(job, "number")), self.expression(job, local), self.pick(job, "list")
        spare = rng.choice(["spare", "count", "log", "total"])
        choices = [
            [f"{number} = ({value}) % 50;"],
            [f"{number} += {rng.randint(1, 3)};"],
            [f"{number}++;"],
            [self.say(value), self.say(number)],
            [
                f"if ({value} > {rng.randint(1, 4)}) {{",
                f"  {number} -= 1;",
                "} else {",
                f"  {self.own('over')} = 4 - {self.own('over')};",
                "}",
            ],
            ["{", f"  {self.variable} {spare} = {value};", f"  {number} = {spare} % 9;", "}"],
        ]
        if items:
            choices += [
                [self.push(items, value)],
                [self.each.format(self.own(items)) + " {", f"  {self.say('item')}", "}"],
                [self.through(items, f"{number} += k;")],
            ]
        if self.methods and rng.random() < 0.5:
            choices.append([self.call(*rng.choice(self.methods)[:2], local) + ";"])
        return rng.choice(choices)


class ClassesJava(ClassesJavaScript):
    """The same, with the class that holds ``main`` or one inside it, and bare names."""

    items, variable, each = "new ArrayList<>(List.of(1, 2))", "int", "for (int item : {})"

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.hash = False
        self.head |= set(self.fields)
        self.inner = self.rng.random() < 0.3

    def own(self, name: str) -> str:
        return f"this.{name}" if self.rng.random() < 0.3 else name

    def method_head(self, name: str, params: list[str], gives: bool) -> str:
        return f"  {self.rng.choice(['', 'private '])}{'int' if gives else 'void'} {name}({', '.join('int ' + p for p in params)}) {{"

    def apart_head(self, name: str, params: list[str]) -> str:
        return f"  static int {name}({', '.join('int ' + p for p in params)}) {{"

    def static(self, name: str) -> str:
        return name

    def field(self, name: str, value: str) -> str:
        kind = "List<Integer>" if self.kind(name) == "list" else "int"
        return f"  {self.rng.choice(['', 'private '])}{kind} {name}{' = ' + value if value else ''};"

    def begin(self) -> list[str]:
        head = [
            "static final int LIMIT = 3;",
            "",
            "static int helper(int thing) {",
            "  return String.valueOf(thing).length() % 5;",
            "}",
            "",
        ]
        opened = (
            ["public class Line {", *head, "static class Evening {"] if self.inner else ["public class Line {", *head]
        )
        return ["import java.util.ArrayList;", "import java.util.List;", "", *opened]

    def made(self) -> str:
        return f"  {'Evening' if self.inner else 'Line'}(int guest) {{"

    def say(self, *values: str) -> str:
        shown = ' + " " + '.join(values)
        return f'System.out.println({shown} + " .");'

    def push(self, name: str, value: str) -> str:
        return f"{self.own(name)}.add({value});"

    def size(self, name: str) -> str:
        return f"{self.own(name)}.size()"

    def through(self, name: str, inner: str) -> str:
        return f"new ArrayList<>({self.own(name)}).forEach(k -> {{ {inner} }});"

    def main(self) -> list[str]:
        return [
            line.replace("const ", "Evening ")
            if self.inner
            else line.replace("const ", "Line ").replace("new Evening", "new Line")
            for line in super().main()
        ]

    def end(self, main: list[str]) -> list[str]:
        return [
            *(["}", ""] if self.inner else [""]),
            "public static void main(String[] args) {",
            *(f"  {line}" for line in main),
            "}",
            "}",
        ]
