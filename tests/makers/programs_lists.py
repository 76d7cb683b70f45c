"""Random programs that keep what they know of things in lists with one index, and now and then do what forbids to make them one."""

from __future__ import annotations

import random

PARTS = ["names", "km", "doors", "levels", "wagons"]


class ListMaker:
    """Writes one program from a seed; it ends by itself, at times with an error, and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)

    def program(self) -> str:
        rng = self.rng
        self.stem = rng.choice(["", "tram_", "stop_"])
        self.lists = [self.stem + p for p in rng.sample(PARTS, rng.randint(2, 4))]
        self.size = rng.randint(0, 3)
        lines = ["LIMIT = 5", "turns = 0", "later = []", ""]
        for name in self.lists:
            lines += ["# what is known"] * (rng.random() < 0.2)
            items = ", ".join(str(rng.randint(0, 9)) for _ in range(self.size))
            same = self.size and rng.random() < 0.2
            lines.append(
                f"{name} = {f'[{rng.randint(0, 9)}] * {self.size}' if same else f'[{items}]'}"
                + "  # as read" * (rng.random() < 0.2)
            )
            lines += ["spare = 3"] * (rng.random() < 0.1)
        self.calls: list[str] = []
        above = len(lines) if rng.random() < 0.7 else 4  # functions stand below the lists, or above them
        lists, lines = lines[above:], lines[:above]
        for make in rng.sample(
            [self.add, self.change, self.ask, self.take, self.tell, self.reset, self.swap, self.find, self.pass_over],
            rng.randint(3, 8),
        ):
            lines += ["", "", *make()]
        lines += ["", "", *lists]
        for _ in range(rng.randint(3, 9)):
            lines += self.main() if rng.random() < 0.7 else self.over()
        lines += [f"print({', '.join(self.lists)}, turns, [f() for f in later])"]
        return "\n".join(lines) + "\n"

    def pick(self) -> str:
        return self.rng.choice(self.lists)

    def add(self) -> list[str]:
        rng = self.rng
        names = self.lists if rng.random() < 0.7 else rng.sample(self.lists, len(self.lists))
        values = ["first", "0", "LIMIT", "turns"]
        body = [
            f"    {n}.append({rng.choice(values) if i else rng.choice(['first', f'len({n})', 'first * 2'])})"
            for i, n in enumerate(names)
        ]
        if rng.random() < 0.12:
            body.insert(rng.randint(0, len(body)), rng.choice(["    print('added')", f"    print(len({self.pick()}))"]))
        if rng.random() < 0.08:
            body.pop()
        self.calls.append("add_one({n})")
        return ["def add_one(first):", *body]

    def change(self) -> list[str]:
        rng, a, b = self.rng, self.pick(), self.pick()
        body = rng.choice([
            [f"    {a}[i] += by", f"    if {b}[i] > LIMIT:", f"        {b}[i] = 0"],
            ["    print('change', by)", f"    {a}[i] = {b}[i] + by"],
            [f"    {a}[i] = by", f"    return {b}[i] * 2"],
            [f"    if {a}[i] > by:", f"        {b}[i] -= 1", "    return i" if rng.random() < 0.3 else "    return by"],
            [f"    old = {a}[i]", "    for k in range(2):", f"        {b}[i] += k + old"],
        ])  # fmt: skip
        head = rng.choice(["i, by", "i, by=2", "by, i"])
        self.calls.append(
            "change_one({n}, {i})"
            if head == "by, i"
            else rng.choice(["change_one({i}, {n})", "change_one({i}, by={n})"])
        )
        return [f"def change_one({head}):", *body]

    def ask(self) -> list[str]:
        self.calls.append("print(ask_one({i}))")
        return ["def ask_one(place):", f"    return {self.pick()}[place] + {self.pick()}[place]"]

    def take(self) -> list[str]:
        form = self.rng.choice(["del {n}[i]", "{n}.pop(i)", "{n}.pop()", "{n}.clear()"])
        self.calls.append("take_one({i})")
        body = [f"    {form.format(n=n)}" for n in self.lists]
        return ["def take_one(i):", *(body[:-1] if self.rng.random() < 0.1 else body)]

    def tell(self) -> list[str]:
        rng, a, b = self.rng, self.pick(), self.pick()
        self.calls += ["tell_all()"] * 2
        body = [
            rng.choice(
                [
                    [f"    for i in range(len({a})):", f"        print(i if LIMIT > 9 else {a}[i], {b}[i])"],
                    [f"    for i in range(len({a})):", f"        print({b}[i], {a}[i] + 1)", f"        {a}[i] += 1"],
                    [f"    for x, y in zip({a}, {b}):", "        print(x, y)"],
                    [f"    for x in {a}:", "        print(x)"],
                    [f"    print(sum({a}), {b}, len({b}), max({a}, default=0))"],
                    [f"    print([x + 1 for x in {a}], 3 in {b}, sorted({a}))"],
                    [f"    print({a}.count(2), str({b}), [k * {a}[k] for k in range(len({a}))])"],
                ]
            )
            for _ in range(rng.randint(1, 3))
        ]
        return ["def tell_all():", *(line for part in body for line in part)]

    def reset(self) -> list[str]:
        self.calls.append("reset_all()")
        more = self.rng.choice([[], ["turns"]])
        body = [f"    {n} = []" for n in self.lists] + [f"    {n} = 0" for n in more]
        return [
            "def reset_all():",
            f"    global {', '.join(self.rng.sample(self.lists, len(self.lists)) + more)}",
            *body,
        ]

    def swap(self) -> list[str]:
        a = self.pick()
        self.calls.append("swap_two({i}, {i})")
        return ["def swap_two(i, j):", *(f"    {n}[i], {n}[j] = {n}[j], {n}[i]" for n in {a: 0, self.pick(): 0})]

    def find(self) -> list[str]:
        a, b = self.pick(), self.pick()
        self.calls.append("print(find_it({n}))")
        return [
            "def find_it(what):",
            f"    for i in range(len({a})):",
            f"        if {a}[i] == what or {b}[i] > 7:",
            "            return i",
            "    return -1",
        ]

    def over(self) -> list[str]:
        """A loop that counts, with lines over the item of its turn."""
        rng, found = self.rng, []
        i = rng.choice(["i", "i", "i", "k"])
        for _ in range(rng.randint(1, 4)):
            a, b, n = self.pick(), self.pick(), rng.randint(0, 9)
            found += rng.choice([
                [f"{a}[{i}] += {b}[{i}]"], [f"{a}[{i}] = {b}[{i}] * 2 - {a}[{i}]"], [f"{a}[{i}] = {n}", f"{b}[{i}] = {n} - {a}[{i}]"],
                [f"if {a}[{i}] > {n}:", f"    {b}[{i}] -= 1", f"    {a}[{i}] = {rng.choice(['0', 'LIMIT', 'turns', i])}"],
                [f"if {a}[{i}] > {n} and {b}[{i}] < LIMIT:", rng.choice(["    turns += 1", "    continue", "    break", f"    print({i})"])],
                [f"turns += {a}[{i}]"], [f"print({a}[{i}], {b}[{i}])"], [f"later.append(lambda: {a}[{i}] + {b}[{i}])"] if rng.random() < 0.3 else [f"{a}[{i}] += turns"],
                [f"{a}[{i}], {b}[{i}] = {b}[{i}], {a}[{i}]"], [f"while {a}[{i}] < {n}:", f"    {a}[{i}] += 1", f"    {b}[{i}] += 2"],
                [f"{i} = {i} + 0"] if rng.random() < 0.3 else [f"{a}[{i}] -= 1", f"{b}[{i}] = max({a}[{i}], {n})"],
            ])  # fmt: skip
        bound = rng.choice([f"len({self.pick()})", f"len({self.pick()})", str(self.size), "LIMIT"])
        last = rng.choice([[], [], ["else:", "    print('all')"], [f"print({i} if {bound} else 0)"]])
        return [f"for {i} in range({bound}):", *(f"    {line}" for line in found), *last]

    def pass_over(self) -> list[str]:
        self.calls += ["pass_over()"] * 2
        return [
            "def pass_over():",
            "    global turns",
            *(f"    {line}" for _ in range(self.rng.randint(1, 2)) for line in self.over()),
        ]

    def main(self) -> list[str]:
        rng, a = self.rng, self.pick()
        call = rng.choice(self.calls) if self.calls else "print(turns)"
        index = rng.choice(["0", "turns % 2", f"len({a}) - 1", "-1"])
        text = call.replace("{n}", str(rng.randint(0, 6))).replace("{i}", index)
        guard = [f"if len({a}) > 1:", f"    {text}"]
        loop = [f"for i in range(len({a})):", "    " + call.replace("{n}", "turns").replace("{i}", "i")]
        if rng.random() < 0.06:
            return [f"kept = {a}", "print(kept)"]
        return rng.choice(
            [
                [text],
                guard,
                guard,
                loop,
                ["turns += 1"],
                [f"print({a}[0] if {a} == [] else {len(self.lists)})"],
                ["for step in range(2):", f"    {text}"],
            ]
        )
