"""Random programs with functions inside functions, which use and set what is around them."""

from programs_curly_flow import FlowJavaScript
from programs_flow import FlowMaker


class NestedMaker(FlowMaker):
    """Functions are made in functions, in loops and in branches; they set variables around them, and some are called later."""

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.seen: list[str] = []  # variables of functions around, which are only looked at
        self.files = {"total"}  # those that are the file's own

    def statement(self, lead: str, known: list[str], loop: bool, function: bool, depth: int) -> None:
        if depth < 2 and self.rng.random() < 0.25:
            self.inner(lead, known, function, depth)
        else:
            super().statement(lead, known, loop, function, depth)

    def inner(self, lead: str, known: list[str], function: bool, depth: int) -> None:
        rng, add = self.rng, self.lines.append
        self.fresh += 1
        number, held = self.fresh, (self.names, self.seen, self.files)
        owned = function and rng.random() < 0.08  # a method of a class that is made there
        params = [*["self"][: owned or rng.random() < 0.03], *[f"a{number}", f"b{number}"][: rng.randint(0, 2)]]
        free = [n for n in known if n != "self"]
        set_here = rng.sample(free, rng.randint(0, min(2, len(free))))
        self.files = self.files if function else {*known}
        inner = lead + "    " * (2 if owned else 1)
        if owned:
            add(f"{lead}class Part{number}:")
        add(f"{inner[4:]}def part{number}({', '.join(params)}):")
        for name in set_here:
            add(f"{inner}{'global' if name in self.files else 'nonlocal'} {name}")
        self.names, self.seen = [f"x{number}", f"y{number}", f"z{number}"], free
        own = [*params[owned:], *set_here]
        if not own:
            add(f"{inner}x{number} = {rng.choice(known)}")
            own.append(f"x{number}")
        self.block(inner, own, rng.randint(2, 5), False, True, depth + 1)
        add(f"{inner}return {rng.choice(own)}")
        self.names, self.seen, self.files = held
        call = (
            f"{f'Part{number}().' if owned else ''}part{number}({', '.join(rng.choice(known) for _ in params[owned:])})"
        )
        add(
            lead
            + rng.choice(
                [
                    f"print({call})",
                    f"log.append(({call}, {call}))",
                    f"{rng.choice(known)} = {call}",
                    f"print([{call} for _ in range(2)])",
                ]
            )
        )

    def value(self, known: list[str]) -> str:
        seen = [n for n in self.seen if n not in known]
        return super().value([*known, *seen])


class DispatchMaker(FlowMaker):
    """A long function tells commands apart; its branches work on state of the file, on what it is handed, and on what it set before."""

    COMMANDS = ("add", "next", "shut", "board all", "count", "list")

    def program(self) -> str:
        rng = self.rng
        state = rng.sample(["doors", "riders", "delay", "load"], 3)
        self.lines = [
            "import math",
            "",
            f"LIMIT = {rng.randint(2, 9)}",
            "total = 0",
            "log = []",
            *(f"{n} = {rng.randint(0, 5)}" for n in state),
            "",
            "",
        ]
        self.names = ["zone", "queue", "rest"]
        self.lines += [
            "def handle(command, n):",
            f"    global total, {', '.join(state)}",
            f"    zone = {rng.randint(0, 5)} + n",
        ]
        known = ["total", "n", "zone", *state]
        for number, command in enumerate(rng.sample(self.COMMANDS, rng.randint(3, 6))):
            self.lines.append(f"    {'elif' if number else 'if'} command == {command!r}:")
            self.block("        ", list(known), rng.randint(2, 6), False, rng.random() < 0.3, 1)
        self.lines += ["    else:", "        print('what is', command)"]
        if rng.random() < 0.6:
            self.lines += [f"    print({', '.join(rng.sample(known, 2))})"]
        if rng.random() < 0.4:
            self.lines += [f"    return {rng.choice(known)}"]
        self.lines += ["", "", "def tell():", f"    print(total, {', '.join(state)}, log)", "", ""]
        self.lines += [
            f"for word in {[rng.choice(self.COMMANDS) for _ in range(7)]!r}:",
            f"    print(handle(word, {rng.randint(0, 4)}))",
            "    tell()",
            "tell()",
        ]
        return "\n".join(self.lines) + "\n"


class NestedJavaScript(FlowJavaScript):
    """Arrows and function expressions in functions, in handlers and in objects; lists are gone through by arrows."""

    def statement(self, lead: str, known: list[str], loop: bool, inside: str, depth: int) -> None:
        if depth < 2 and self.rng.random() < 0.25:
            self.inner(lead, known, depth)
        else:
            super().statement(lead, known, loop, inside, depth)

    def inner(self, lead: str, known: list[str], depth: int) -> None:
        rng, add = self.rng, self.lines.append
        self.fresh += 1
        name, a = f"part{self.fresh}", f"a{self.fresh}"
        opened, closed, call = rng.choice([
            (f"const {name} = ({a}) => {{", "};", f"{name}({{}})"),
            (f"function {name}({a}) {{", "}", f"{name}({{}})"),
            (f"const {name} = {{ go({a}) {{", "} };", f"{name}.go({{}})"),
            (f"const {name} = [1, 2].map(({a}) => {{", "});", f"{name}[0] + {{}}"),
            (f"const {name} = (b{self.fresh}) => function ({a}) {{", "};", f"{name}(1)({{}})"),
        ])  # fmt: skip
        add(lead + opened)
        self.block(lead + "  ", [*known, a], rng.randint(2, 5), False, "function", depth + 1)
        self.lines += [f"{lead}  return {rng.choice(known)};", lead + closed]
        said = call.format(rng.choice(known))
        add(
            lead
            + rng.choice(
                [
                    self.say(said),
                    self.noted(said),
                    f"{rng.choice(known)} = {said};",
                    f"console.log([1, 2].map((n) => n * {rng.choice(known)} + {said}));",
                ]
            )
        )


class WrappedJavaScript(FlowJavaScript):
    """The same program in a function that is made and called at once, as pages have it."""

    def program(self) -> str:
        strict = self.rng.choice(["", '  "use strict";\n'])
        inner = "".join(f"  {line}\n" if line else "\n" for line in super().program().splitlines())
        return f"(function () {{\n{strict}{inner}}})();\n"
