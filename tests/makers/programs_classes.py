"""Random small programs around one class that does several jobs."""

import random

JOBS = ["log", "cash", "track", "door"]


class ClassMaker:
    def __init__(self, seed: int) -> None:
        self.random = random.Random(seed)
        self.jobs = self.random.sample(JOBS, self.random.randint(2, 3))
        self.fields = [
            f"{j}_{w}"
            for j in self.jobs
            for w in self.random.sample(["count", "items", "last", "name"], self.random.randint(2, 3))
        ]
        self.fields += ["over", "guest"][: self.random.randint(1, 2)]
        self.methods: list[tuple[str, int, bool]] = []  # name, how many it must be given, whether it gives back
        self.apart: set[str] = set()  # those that need no object
        self.lines: list[str] = []

    def program(self) -> str:
        rng = self.random
        base = rng.choice(["", "", "", "(object)", "(Base)"]) if rng.random() < 0.4 else ""
        self.lines = [
            '"""A program."""',
            "",
            "LIMIT = 3",
            "",
            "",
            *(["class Base:", "    pass", "", ""] if base == "(Base)" else []),
        ]
        self.lines += [
            "def helper(thing):",
            "    return len(str(thing)) % 5",
            "",
            "",
            f"class Evening{base}:",
            '    """Does it all."""',
            "",
        ]
        self.constructor()
        for job in self.jobs:
            for n in range(rng.randint(2, 4)):
                self.method(f"{rng.choice(['add', 'show', 'tell', 'drop'])}_{job}{n or ''}", job)
        self.method("handle", "")
        if rng.random() < 0.5:
            self.long()
        self.run()
        self.main()
        return "\n".join(self.lines) + "\n"

    def kind(self, field: str) -> str:
        return "list" if field.endswith("items") else "number"

    def first(self, field: str) -> str:
        rng = self.random
        if self.kind(field) == "list":
            return rng.choice(["[]", "[1, 2]", "list(range(LIMIT))", "[guest]"])
        return rng.choice(["0", "1", "guest", "LIMIT", "LIMIT * 2", "helper(guest)", "int('4')", "guest + 1"])

    def constructor(self) -> None:
        rng = self.random
        self.lines.append("    def __init__(self, guest=2):")
        done: list[str] = []
        for field in self.fields:
            if rng.random() < 0.15:
                self.lines.append(f"        # the {field.replace('_', ' ')}")
            numbers = [f for f in done if self.kind(f) == "number"]
            value = (
                f"self.{rng.choice(numbers)} + 1"
                if numbers and self.kind(field) == "number" and rng.random() < 0.1
                else self.first(field)
            )
            self.lines.append(f"        self.{field} = {value}" + ("  # first" if rng.random() < 0.1 else ""))
            done.append(field)
            if rng.random() < 0.08:
                self.lines.append(
                    rng.choice(
                        [
                            "        print('made', guest)",
                            f"        guest = guest + {rng.randint(1, 3)}",
                            "        print(guest)",
                        ]
                    )
                )
        self.lines.append("")

    def pick(self, job: str, kind: str) -> str:
        """A field, most often of the job."""
        own = (
            [f for f in self.fields if f.startswith(job) and self.kind(f) == kind]
            if job and self.random.random() < 0.85
            else []
        )
        return self.random.choice(own or [f for f in self.fields if self.kind(f) == kind] or ["over"])

    def expression(self, job: str, local: list[str]) -> str:
        rng = self.random
        field, number = self.pick(job, "number"), rng.randint(1, 4)
        lists = [f for f in self.fields if self.kind(f) == "list"]
        choices = [
            f"self.{field} + {number}",
            f"self.{field}",
            *local,
            f"helper(self.{field})",
            f"(self.{field} if self.over else {number})",
        ]
        if lists:
            items = self.pick(job, "list")
            if self.kind(items) == "list":
                choices += [
                    f"len(self.{items})",
                    f"sum(n for n in self.{items} if n != self.{field})",
                    f"(lambda k: k + self.{field})({number})",
                    f"sum([n + self.{field} for n in self.{items}])",
                ]
        giving = [m for m in self.methods if m[2]]
        if giving and rng.random() < 0.3:
            choices.append(self.call(*rng.choice(giving)[:2], local))
        return rng.choice(choices)

    def call(self, name: str, count: int, local: list[str]) -> str:
        values = [self.random.choice([str(self.random.randint(0, 3)), *local]) for _ in range(count)]
        extra = [f"by={self.random.randint(1, 3)}"] if self.random.random() < 0.2 else []
        own = self.random.choice(["self", "Evening"]) if name in self.apart else "self"
        return f"{own}.{name}({', '.join([*values, *extra])})"

    def method(self, name: str, job: str) -> None:
        rng = self.random
        if any(m[0] == name for m in self.methods):
            return
        params = ["a", "b"][: rng.randint(0, 2)]
        if rng.random() < 0.1:
            kind, own, shown = rng.choice([("staticmethod", [], "'apart'"), ("classmethod", ["cls"], "cls.__name__")])
            self.lines += [f"    @{kind}", f"    def {name}({', '.join([*own, *params, 'by=1'])}):", f"        step = {rng.choice([*params, 'by'])} * 2", f"        print({shown}, step)",
                           "        for k in range(by):", "            step += k", "        return step + 1", ""]  # fmt: skip
            self.methods.append((name, len(params), True))
            self.apart.add(name)
            return
        head = [
            "self",
            *params,
            *rng.choice(
                [
                    ["by=1"],
                    ["by=1"],
                    ["by=1", "*rest"],
                    ["*", "by=1"],
                    ["by=1", "**more"] if rng.random() < 0.2 else ["by=1"],
                ]
            ),
        ]
        body = []
        for _ in range(rng.randint(1, 4)):
            body += self.statement(job, params)
        gives = rng.random() < 0.6
        body.append(f"return {self.expression(job, [*params, 'by'])}" if gives else "print(by)")
        if rng.random() < 0.1:
            self.lines.append(f"    # what {name} does")
        self.lines += [f"    def {name}({', '.join(head)}):", *(f"        {line}" for line in body), ""]
        self.methods.append((name, len(params), gives))

    def statement(self, job: str, params: list[str]) -> list[str]:
        rng, local = self.random, [*params, "by"]
        number, value = self.pick(job, "number"), self.expression(job, local)
        choices = [
            [f"self.{number} = ({value}) % 50"],
            [f"self.{number} += {rng.randint(1, 3)}"],
            [f"print({value}, self.{number})"],
            [f"if {value} > {rng.randint(1, 4)}:", f"    self.{number} -= 1", "else:", "    self.over = not self.over"],
            [f"for k in range({rng.randint(1, 3)}):", f"    self.{number} += k % 2"],
            [f"self.{number}, spare = {value}, {rng.randint(1, 3)}", "print(spare)"],
        ]
        items = self.pick(job, "list")
        if self.kind(items) == "list":
            choices += [[f"self.{items}.append({value})"], [f"self.{items} = self.{items}[-3:]"], [f"for item in self.{items}:", "    print(item)"],
                        ["def later():", f"    return self.{number} + len(self.{items})", f"self.{number} = 2", "print(later())"]]  # fmt: skip
        if self.methods and rng.random() < 0.5:
            choices.append([self.call(*rng.choice(self.methods)[:2], local)])
        if rng.random() < 0.04:
            choices.append(
                rng.choice(
                    [
                        ["print(helper(self) > 100)"],
                        [f"print(f'{{self.{number}=}}')"],
                        [
                            f"act = self.{rng.choice(self.methods)[0]}" if self.methods else "act = None",
                            "print(callable(act))",
                        ],
                    ]
                )
            )
        return rng.choice(choices)

    def long(self) -> None:
        """A method that does one thing after the other, on every turn of a loop."""
        rng = self.random
        self.lines += [
            "    def turns(self, a, by=1):",
            "        spare = 0",
            f"        for turn in range({rng.randint(1, 3)}):",
        ]
        for _ in range(rng.randint(8, 16)):
            said = rng.choice(["", "", f"# {rng.choice(['move the tram', 'show it', 'the log', 'sell'])}"])
            self.lines += ["", f"            {said}"] if said else []
            rows = rng.choice(
                [
                    self.statement(rng.choice(self.jobs), ["a", "turn", "spare"]),
                    [f"spare = {self.expression('', ['a', 'turn'])}"],
                    [f"if {self.expression('', ['turn'])} > 3:", f"    {rng.choice(['break', 'continue'])}"],
                ]
            )
            self.lines += [f"            {row}" for row in rows]
        self.lines += ["        return spare", ""]
        self.methods.append(("turns", 1, True))

    def run(self) -> None:
        calls = [
            f"        {self.call(*m[:2], [])}" for m in self.random.sample(self.methods, min(5, len(self.methods)))
        ]
        self.lines += [
            "    def run(self):",
            *calls,
            f"        print({', '.join(f'self.{f}' for f in self.fields)})",
            "",
        ]

    def main(self) -> None:
        rng = self.random
        self.lines += ["", *rng.choice([["Evening().run()"], ["evening = Evening(3)", "evening.run()", "evening.run()"], ["first, second = Evening(), Evening(1)", "first.run()", "second.run()"],
                                        ["evening = Evening()", "evening.run()", f"print(evening.{rng.choice(self.fields)})"], ["def main():", "    Evening().run()", "", "", "main()"]])]  # fmt: skip
