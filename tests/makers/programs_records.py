"""Random programs that keep things in dicts with fixed keys, hand them about, and now and then do what forbids to make objects of them."""

from __future__ import annotations

import random

KEYS = ["x", "speed", "name", "riders"]


class RecordMaker:
    """Writes one program from a seed; it ends by itself, at times with an error, and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)

    def record(self, *values: str) -> str:
        rng = self.rng
        keys = self.keys if rng.random() < 0.8 else rng.sample(self.keys, len(self.keys))
        if rng.random() < 0.02:
            keys = keys[1:]
        given = iter(values)
        return "{" + ", ".join(f'"{k}": {next(given, str(rng.randint(0, 9)))}' for k in keys) + "}"

    def program(self) -> str:
        rng = self.rng
        self.keys = rng.sample(KEYS, rng.randint(2, 4))
        items = [self.record() for _ in range(rng.randint(0, 3))]
        many = (
            ", ".join(items)
            if rng.random() < 0.6
            else "".join(f"\n    {i},  # one" for i in items) + "\n" * bool(items)
        )
        lines = ["LIMIT = 5", "turns = 0", f"cars = [{many}]"]
        self.single = rng.random() < 0.5
        lines += [f"boss = {self.record()}"] if self.single else []
        lines += ["chosen = None"]
        self.calls: list[str] = []
        makes = [
            self.maker,
            self.mover,
            self.teller,
            self.finder,
            self.sweeper,
            self.chooser,
            self.pair,
            self.odd,
            self.pass_over,
        ]
        for make in rng.sample(makes, rng.randint(3, 7)):
            lines += ["", "", *make()]
        lines += ["", ""]
        for _ in range(rng.randint(4, 9)):
            lines += self.main() if rng.random() < 0.7 else self.over()
        key = rng.choice(self.keys)
        lines.append(f"print([c['{key}'] for c in cars], turns, chosen['{key}'] if chosen else '-', len(cars))")
        return "\n".join(lines) + "\n"

    def key(self, of: str) -> str:
        return f'{of}["{self.rng.choice(self.keys)}"]'

    def maker(self) -> list[str]:
        self.calls += ["cars.append(make_car({n}))"] * 2
        return ["def make_car(first):", f"    return {self.record('first', 'first + LIMIT')}"]

    def mover(self) -> list[str]:
        rng, k = self.rng, self.key
        self.calls += rng.choice([["move({c})", "move({c}, {n})"], ["move({c}, by={n})"]])
        body = [f"    {k('car')} += by", f"    if {k('car')} > LIMIT:", f"        {k('car')} = 0"]
        body += rng.choice(
            [
                [],
                [f"    return {k('car')}"],
                ["    print('moved', by)"],
                ["    def again():", f"        {k('car')} += 1", "    again()"],
            ]
        )
        return ["def move(car, by=1):", *(['    """One step."""'] if rng.random() < 0.3 else []), *body]

    def teller(self) -> list[str]:
        rng, k = self.rng, self.key
        self.calls += ["tell({c})", "tell({c})"]
        inner = k("car").replace('"', "'")
        return [
            "def tell(car):",
            rng.choice([f'    print({k("car")}, f"{{{inner}}}")', f"    print({k('car')} * 2, turns)"]),
        ]

    def finder(self) -> list[str]:
        rng, k = self.rng, self.key
        use = rng.choice(["if found is not None:", "if found:"])
        self.calls += ["\n".join(["found = find({n})", use, f"    {k('found')} -= 1", f"    print({k('found')})"])]
        end = rng.choice([["    return None"], [], ["    return cars[0]"]])
        return [
            "def find(what):",
            "    for car in cars:",
            f"        if {k('car')} >= what:",
            "            return car",
            *end,
        ]

    def sweeper(self) -> list[str]:
        rng, k = self.rng, self.key
        self.calls.append("sweep()")
        return rng.choice([
            ["def sweep():", "    global cars", f"    cars = [c for c in cars if {k('c')} < 7]"],
            ["def sweep():", "    for c in cars[:]:", f"        if {k('c')} > 6:", "            cars.remove(c)"],
            ["def sweep():", f"    cars.sort(key=lambda c: {k('c')})", "    cars.reverse()"],
            ["def sweep():", "    if len(cars) > 2:", "        cars.pop(0)", "    if cars:", "        del cars[-1]"],
        ])  # fmt: skip

    def chooser(self) -> list[str]:
        self.calls += ["choose({c})", "choose(None)"] if self.rng.random() < 0.4 else ["choose({c})"]
        return ["def choose(car):", "    global chosen, turns", "    turns += 1", "    chosen = car"]

    def pair(self) -> list[str]:
        k = self.key
        self.calls += ["meet({c}, {d})"]
        more = self.rng.choice(["a is b", "a == b", "a in cars", "a is not None"])
        return ["def meet(a, b):", f"    {k('a')}, {k('b')} = {k('b')}, {k('a')}", f"    print({more}, {k('a')})"]

    def odd(self) -> list[str]:
        """What forbids objects, mostly."""
        self.calls.append("odd({c})")
        body = self.rng.choice(["print(car)", "print(len(car))", "print(sorted(car))", "car['more'] = 1", "print(dict(car) == car)",
                                "for k in car:\n        print(k)", "print(car.get('x'))", "print('x' in car)", "print(car is None)"])  # fmt: skip
        return ["def odd(car):", f"    {body}"]

    def over(self) -> list[str]:
        """Lines over one record after another."""
        rng, k, found = self.rng, self.key, []
        for _ in range(rng.randint(1, 4)):
            n, grown = rng.randint(0, 9), k("car")
            found += rng.choice([
                [f"{k('car')} += {k('car')}"], [f"{k('car')} = {k('car')} * 2 - {n}"], [f"{k('car')} = {n}", f"{k('car')} = {n} - {k('car')}"],
                [f"if {k('car')} > {n}:", f"    {k('car')} -= 1", f"    {k('car')} = {rng.choice(['0', 'LIMIT', 'turns', 'len(cars)'])}"],
                [f"if {k('car')} > {n} and {k('car')} < LIMIT:", rng.choice(["    turns += 1", "    continue", "    break", f"    print({k('car')})"])],
                [f"turns += {k('car')}"], [f"print({k('car')})"], [f"while {grown} < {n}:", f"    {grown} += 1", f"    {k('car')} += 2"],
                ["chosen = car", f"{k('chosen')} = {k('car')} + 1"], [f"{k('car')}, {k('car')} = {k('car')}, {n}"],
                [f"{k('car')} -= 1", f"{k('car')} = max({k('car')}, {n})"], ["car = cars[0]"] if rng.random() < 0.2 else ["turns -= 1"],
            ])  # fmt: skip
        head = rng.choice(
            ["for car in cars:", "for car in cars:", "for n, car in enumerate(cars):", "for car in reversed(cars):"]
        )
        if rng.random() < 0.3:
            head, found = (
                "for i in range(len(cars)):",
                [
                    line.replace("car[", "cars[i][").replace("chosen = car", "chosen = cars[i]")
                    for line in found
                    if "car =" not in line
                ],
            )
            found += rng.choice(
                [
                    [],
                    ["print(i)"],
                    ["if len(cars) < 4:", "    cars.append(cars[i])"],
                    ["tell(cars[i])"] if "tell({c})" in self.calls else [],
                ]
            )
            found = found or ["turns += 1"]
        return [head, *(f"    {line}" for line in found), *rng.choice([[], ["else:", "    print('all')"]])]

    def pass_over(self) -> list[str]:
        self.calls += ["pass_over()"] * 2
        return [
            "def pass_over():",
            "    global turns, chosen",
            *(f"    {line}" for _ in range(self.rng.randint(1, 2)) for line in self.over()),
        ]

    def main(self) -> list[str]:
        rng = self.rng
        call = (rng.choice(self.calls) if self.calls else "print(turns)").replace("{n}", str(rng.randint(0, 6)))
        one = rng.choice(["boss" if self.single else "cars[0]", "cars[-1]", "cars[turns % 2]"])
        here = call.replace("{c}", one).replace("{d}", "cars[0]").split("\n")
        each = call.replace("{c}", "car").replace("{d}", one).split("\n")
        guard = ["if len(cars) > 1:", *("    " + line for line in here)]
        loop = ["for car in cars:", *("    " + line for line in each)]
        if "cars.append" in call or "sweep" in call:
            loop = guard
        count = (
            ["for i, car in enumerate(cars):", "    print(i)", *("    " + line for line in each)]
            if loop is not guard
            else guard
        )
        return rng.choice([here, guard, guard, loop, loop, count, ["turns += 1"]])
