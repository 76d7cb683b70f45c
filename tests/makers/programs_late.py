"""Random programs in which something is read later than it was handed over, or a function is told from a method.

Closures and generators outlive the call that made them, functions stand in lists, dicts and classes, are copied, kept, written out and compared.
"""

from __future__ import annotations

import random
from typing import Any

import programs
import programs_curly

SHARE = 0.3  # of the statements and pieces of main code


class Late:
    """What all languages have of it; ``later`` decides, so that a seed gives much the same program as without."""

    later: random.Random
    numbers: list[str]
    functions: list[tuple[str, int]]

    def number(self) -> str:
        return self.later.choice(self.numbers)

    def plain(self, count: int = 0) -> str:
        return self.later.choice([n for n, c in self.functions if c == count] or [""])

    def fresh(self, word: str) -> str:
        return f"{word}{self.later.randint(0, 10**6)}"


class LateMaker(Late, programs.Maker):
    """In Python."""

    def variables(self) -> None:
        super().variables()
        self.lines[1:1] = ["import copy", "import functools", "import types"]
        self.lines += ["waiting = []", "jobs = {}"]

    def expression(self, local: list[str]) -> str:
        if self.later.random() < 0.04:
            n, m = self.number(), self.number()
            return self.later.choice(
                [
                    f"(lambda k: k + {n})({m})",
                    f"sum({n} + k for k in range(2))",
                    f"max(map(lambda k: k - {n}, [1, {m}]))",
                ]
            )
        return super().expression(local)

    def statement(self, written: list[str], local: list[str]) -> list[str]:
        if self.later.random() > SHARE:
            return super().statement(written, local)
        n, m, made = self.number(), self.number(), self.fresh("kept")
        given = self.later.choice([*local, n])
        choices = [
            [f"waiting.append(lambda: {n} + {m})"],
            [f"waiting.append(lambda k={n}: k + {m} + {given})"],
            [f"jobs['{made}'] = lambda: print('{made}', {n}, {given})"],
            [f"{made} = ({n} + k + {given} for k in range(2))", f"waiting.append(lambda: sum({made}, {m}))"],
            [f"{made} = map(lambda k: k + {n}, [1, {given}])", f"waiting.append(lambda: list({made}))"],
            [f"def {made}():", f"    return {n} - {given}", f"waiting.append({made})"],
            [f"def {made}():", f"    global {n}", f"    {n} += 1", f"    return {n}", f"waiting.append({made})"]
            if n not in local
            else ["pass"],
            [
                f"def {made}():",
                "    for k in range(2):",
                f"        yield {n} + k",
                f"waiting.append({made}().__next__)",
            ],
        ]
        if plain := self.plain():
            choices += [
                [f"waiting.append({plain})"],
                [f"waiting.append(functools.partial({plain}))"],
                [f"{made} = {plain}", f"jobs['{made}'] = {made}"],
            ]
        if one := self.plain(1):
            choices += [
                [f"waiting.append(functools.partial({one}, {given}))"],
                [f"waiting.append(lambda: {one}({n}))"],
                [f"print(list(map({one}, [{n}, 2])))"],
            ]
        return self.later.choice(choices)

    def main_piece(self, depth: int) -> list[str]:
        if self.later.random() > SHARE:
            return super().main_piece(depth)
        lead, n, made = "    " * depth, self.number(), self.fresh("made")
        choices = [
            ["for job in waiting[:3]:", "    print(job())"],
            [f"waiting.append(lambda: {n} * 2)", f"{n} += 1", "print(waiting[-1]())"],
            ["for word, job in sorted(jobs.items()):", "    job()"],
            [f"{made} = ({n} + k for k in range(3))", f"{n} += 5", f"print(list({made}))"],
            [f"{made} = copy.copy(waiting)", f"print(len({made}))"],
        ]
        if plain := self.plain():
            choices += [
                [f"{made} = [{plain}, {plain}]", f"print({made}[0]() - {made}[1]())"],
                [f"{made} = copy.deepcopy([{plain}])", f"print({made}[0](), {n})"],
                [f"print(callable({plain}), {plain}.__name__)"],
                [f"print(isinstance({plain}, types.FunctionType))"],
                [f"print({plain} is {plain}, {plain} == {self.plain()})"],
                [f"print(str({plain})[:9])"],
                [
                    f"class {made.capitalize()}:",
                    f"    step = staticmethod({plain})",
                    "",
                    f"print({made.capitalize()}.step(), {made.capitalize()}().step())",
                ],
                [
                    f"class {made.capitalize()}:",
                    "    def __init__(self, job):",
                    "        self.job = job",
                    "",
                    f"{made} = {made.capitalize()}({plain})",
                    f"{made}_copy = copy.deepcopy({made})",
                    f"print({made}_copy.job(), {made}.job())",
                ],
            ]
        if one := self.plain(1):
            choices += [
                [
                    f"class {made.capitalize()}:",
                    f"    step = {one}",
                    "    def __radd__(self, other):",
                    "        return other",
                    "    def __add__(self, other):",
                    "        return other",
                    "    def __neg__(self):",
                    "        return 1",
                    "",
                    f"print({made.capitalize()}.step(2))",
                ],
                [f"class {made.capitalize()}(int):", f"    step = {one}", "", f"print({made.capitalize()}(3).step())"],
                [f"{made} = {{'go': {one}, 'wait': lambda k: k + {n}}}", f"print({made}['go'](1), {made}['wait'](2))"],
                [f"print(sorted([3, 1, 2], key={one}))"],
            ]
        return [lead + line if line else line for line in self.later.choice(choices)]


class LateJavaScript(Late, programs_curly.JavaScript):
    def variables(self) -> None:
        super().variables()
        self.top += ["const waiting = [];", "const jobs = {};"]

    def extra(self, written: list[str], local: list[str]) -> list[str]:
        n, m, made = self.number(), self.number(), self.fresh("kept")
        given = self.later.choice([*local, n])
        choices = [
            [f"waiting.push(() => {n} + {m});"],
            [f"waiting.push(function (k = {n}) {{ return k + {m} + {given}; }});"],
            [f"jobs.{made} = () => console.log('{made}', {n}, {given});"],
            [f"function {made}() {{ return {n} - {given}; }}", f"waiting.push({made});"],
            [
                f"const {made} = (function* () {{ yield {n}; yield {n} + {given}; }})();",
                f"waiting.push(() => {made}.next().value);",
            ],
            [f"const {made} = {{ get now() {{ return {n} + {given}; }} }};", f"waiting.push(() => {made}.now);"],
            [f"waiting.push(() => {{ {n} += 1; return {n}; }});"] if n not in local else [";"],
        ]
        if plain := self.plain():
            choices += [
                [f"waiting.push({plain});"],
                [f"waiting.push({plain}.bind(null));"],
                [f"jobs.{made} = {plain};"],
            ]
        if one := self.plain(1):
            choices += [[f"waiting.push({one}.bind(null, {given}));"], [f"console.log([{n}, 2].map((k) => {one}(k)));"]]
        return self.later.choice(choices)

    def main_piece(self) -> list[str]:
        if self.later.random() > SHARE:
            return super().main_piece()
        n, made = self.number(), self.fresh("made")
        choices = [
            ["for (const job of waiting.slice(0, 3)) {", "  console.log(job());", "}"],
            [f"waiting.push(() => {n} * 2);", f"{n} += 1;", "console.log(waiting[waiting.length - 1]());"],
            ["for (const word of Object.keys(jobs)) {", "  jobs[word]();", "}"],
            [f"const {made} = [...waiting];", f"console.log({made}.length);"],
        ]
        if plain := self.plain():
            choices += [
                [f"const {made} = [{plain}, {plain}];", f"console.log({made}[0]() - {made}[1]());"],
                [f"console.log(typeof {plain}, {plain}.name, {plain}.length);"],
                [f"console.log({plain} === {plain}, {plain} === {self.plain()});"],
                [f"console.log(String({plain}).length > 3);"],
                [
                    f"class {made.capitalize()} {{",
                    f"  static step = {plain};",
                    f"  run = {plain};",
                    "}",
                    f"console.log({made.capitalize()}.step(), new {made.capitalize()}().run());",
                ],
                [
                    f"const {made} = {{ step: {plain}, n: 1 }};",
                    f"console.log({{ ...{made} }}.step(), Object.assign({{}}, {made}).step(), {n});",
                ],
                [f"const {made} = structuredClone({{ n: {n} }});", f"{n} += 2;", f"console.log({made}.n, {n});"],
                [f"console.log({plain}.call(null), {plain}.apply({{}}, []));"],
            ]
        if one := self.plain(1):
            choices += [
                [f"console.log([3, 1, 2].map({one}));"],
                [
                    f"const {made} = {{ go: {one}, wait: (k) => k + {n} }};",
                    f"console.log({made}.go(1), {made}.wait(2));",
                ],
            ]
        return self.later.choice(choices)


class LateJava(Late, programs_curly.Java):
    SUPPLIER = "java.util.function.IntSupplier"

    def variables(self) -> None:
        super().variables()
        self.waiting()

    def waiting(self) -> None:
        self.top.append(f"    static ArrayList<{self.SUPPLIER}> waiting = new ArrayList<>();")

    def extra(self, written: list[str], local: list[str]) -> list[str]:
        n, m, made = self.number(), self.number(), self.fresh("kept")
        given = self.later.choice([*local, n])
        held = f"final int {made} = {given};"
        choices = [
            [f"waiting.add(() -> {n} + {m});"] if not {n, m} & set(local) else [";"],
            [held, f"waiting.add(() -> {made} + {m});"] if m not in local else [";"],
            [held, f"waiting.add(new {self.SUPPLIER}() {{ public int getAsInt() {{ return {m} - {made}; }} }});"]
            if m not in local
            else [";"],
            [f"waiting.add(() -> {{ {m} += 1; return {m}; }});"] if m not in local else [";"],
        ]
        if plain := self.plain():
            choices += [[f"waiting.add(() -> {plain}());"], *self.references(plain)]
        if one := self.plain(1):
            choices += [[held, f"waiting.add(() -> {one}({made}));"]]
        return self.later.choice(choices)

    def references(self, plain: str) -> list[list[str]]:
        return [[f"waiting.add({self.NAME}::{plain});"]]

    def main_piece(self) -> list[str]:
        if self.later.random() > SHARE:
            return super().main_piece()
        n, made = self.number(), self.fresh("made")
        choices = [
            [
                f"for ({self.SUPPLIER} job : new ArrayList<{self.SUPPLIER}>(waiting)) {{",
                "  " + self.say("job.getAsInt()"),
                "}",
            ],
            [f"waiting.add(() -> {n} * 2);", f"{n} += 1;", self.say("waiting.get(waiting.size() - 1).getAsInt()")],
            [
                f"ArrayList<{self.SUPPLIER}> {made} = new ArrayList<{self.SUPPLIER}>(waiting);",
                self.say(f"{made}.size()"),
            ],
            [
                f"java.util.stream.IntStream {made} = java.util.stream.IntStream.range(0, 3).map(k -> k + {n});",
                f"{n} += 5;",
                self.say(f"{made}.sum()"),
            ],
        ]
        if plain := self.plain():
            choices += [
                [f"{self.SUPPLIER} {made} = () -> {plain}() + {n};", f"{n} += 1;", self.say(f"{made}.getAsInt()")],
                [
                    f"class Own{made} {{ {self.SUPPLIER} job = () -> {plain}(); int run() {{ return job.getAsInt() + {n}; }} }}",
                    self.say(f"new Own{made}().run()"),
                ],
            ]
        return self.later.choice(choices)


class LateSketch(LateJava, programs_curly.Sketch):
    def waiting(self) -> None:
        self.top.append(f"ArrayList<{self.SUPPLIER}> waiting = new ArrayList<{self.SUPPLIER}>();")

    def references(self, plain: str) -> list[list[str]]:
        return [[f"waiting.add(this::{plain});"]]

    def main_piece(self) -> list[str]:
        return ["\n  ".join(super().main_piece())]  # in one: the lines are dealt out to setup and draw


MAKERS: dict[str, Any] = {
    "Late": LateMaker,
    "LateJavaScript": LateJavaScript,
    "LateJava": LateJava,
    "LateSketch": LateSketch,
}
