"""What is done to a new object before anything else is done by its constructor.

self._player = Player(40)                 self._player = Player(40)
self._clock = Clock()
self._player.make_pictures()       →      class Player:
self._player.waiting = ...                    def __init__(self, x):
                                                  self._x = x
                                                  self.make_pictures()
                                                  self.waiting = ...
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis.concerns import Concerns
from ..analysis.regions.region import all_blocks
from ..analysis.set_up import TALKING
from ..analysis.variable_kinds import constants_of
from ..design.tables import ClassDesign
from ..program.edits import Edits
from ..program.model import Call, SourceFile, Statement
from ..program.program import Program
from .by_hand import Asked, HandCommand, home_of
from .filled_in_setup import made_in_setup, set_up_call
from .rewrite import Building, ClassRewrite
from .set_up_in_constructor import constructor_of, method_of
from .step import ClassStep, Context, Step, class_scope

CALL_OR_FIELD = r"\.\w+\s*(?:\(|=[^=])"


@dataclass
class Making:
    """``made``: the statement that makes the object; ``holder``: how it is called there; ``work``: what is done to it
    first."""

    made: Statement
    holder: str
    work: list[Statement]


class FillInConstructor(ClassStep):
    """The constructor of a class does what is done to its only object first."""

    kind = "fill"

    def title(self) -> str:
        return f"the constructor of {self.design.name} does what is done to a new one first"

    def apply(self, context: Context) -> Edits:
        file, out, write = context.home(self.design), Edits(), context.write
        scope = class_scope(file, self.design.name)
        if context.language.joined:
            call = set_up_call(context, file, self.design.name)
            return made_in_setup(context, file, self.design.name, call) if call is not None else out
        maker = constructor_of(context, file, scope)
        found = making(context, file, self.design.name) if maker is not None else None
        if found is None or maker is None:
            return out
        body = context.language.body(file, maker)
        lead = file.slice(write.line_start(file, body[-1].start), body[-1].start)
        lines = []
        for s in found.work:
            start = write.comment_start(file, s.start)
            text = file.slice(start, write.line_end(file, s.end)).rstrip("\n")
            text = re.sub(rf"(?<![\w.]){re.escape(found.holder)}(?=\.)", write.RECEIVER, text)
            lines += [line.strip() for line in text.split("\n")]
        out.insert(file.path, write.line_end(file, body[-1].end), "".join(f"{lead}{line}\n" for line in lines))
        first = found.work[0]
        left = write.line_start(file, write.comment_start(file, found.made.start))
        right = write.line_end(file, found.made.end)
        made = file.slice(left, right)
        out.delete(file.path, left, right)
        start = write.line_start(file, write.comment_start(file, first.start))
        out.replace(file.path, start, write.line_end(file, first.end), made if made.endswith("\n") else made + "\n")
        for s in found.work[1:]:
            start = write.line_start(file, write.comment_start(file, s.start))
            out.delete(file.path, start, write.line_end(file, s.end))
        return out


def making(context: Context, file: SourceFile, class_: str) -> Making | None:
    """Where the only object of a class is made, and what is done to it alone before anything else is; None if that is
    nothing, or cannot be done sooner."""
    symbol = file.scope.symbols.get(class_)
    calls = [c for c in file.calls if c.callee.symbol is symbol and not c.callee.member]
    uses = [r for r in symbol.references if not r.writes] if symbol is not None else []
    if len(calls) != 1 or len(uses) != 1:
        return None
    row = row_around(context, file, calls[0])
    made = next((s for s in row if s.value is not None and s.value == (calls[0].callee.start, calls[0].end)), None)
    made = made or next(
        (s for s in row if s.kind == "assign" and s.start <= calls[0].start and s.end >= calls[0].end), None
    )
    if made is None or made.value is None or not keeps_plain_values(context, file, class_, calls[0]):
        return None
    holder = file.slice(made.start, made.value[0]).rstrip().rstrip("=").strip().split()[-1]
    pattern = re.compile(rf"(?<![\w.]){re.escape(holder)}\b")
    later = row[row.index(made) + 1 :]
    at = next((i for i, s in enumerate(later) if pattern.search(file.slice(s.start, s.end))), len(later))
    work = []
    about = Concerns(file, context.language, context.effects(file))
    scope = class_scope(file, class_)
    for s in later[at:]:
        called = re.match(re.escape(holder) + r"\.(\w+)", file.slice(s.start, s.end))
        method = method_of(file, scope, called[1]) if called is not None else None
        talks = method is not None and bool(TALKING & set(about.whole(method.start, method.end)))
        if talks or not its_own(context, file, s, holder, pattern):
            break
        work.append(s)
    return Making(made, holder, work) if work else None


def row_around(context: Context, file: SourceFile, call: Call) -> list[Statement]:
    """The statements of the block in which a call stands."""
    f = max((f for f in file.functions if f.start <= call.start < f.end), key=lambda f: f.start, default=None)
    body = context.language.body(file, f) if f is not None else list(file.statements)
    rows = [body, *(b.statements for _, b in all_blocks(file, context.language, body))]
    around = [row for row in rows if any(s.start <= call.start < s.end for s in row)]
    return min(around, key=lambda row: row[-1].end - row[0].start, default=[])


def keeps_plain_values(context: Context, file: SourceFile, class_: str, call: Call) -> bool:
    """Whether a constructor does nothing but keep plain values, and is given such."""
    maker = constructor_of(context, file, class_scope(file, class_))
    if maker is None:
        return False
    body = context.language.body(file, maker)
    plain = all(
        s.kind == "assign" and s.value is not None and context.language.purity(file, s.value) != "effect" for s in body
    )
    constants = constants_of(file, context.language)
    given = list(file.within(call.args_start, call.args_end))
    return plain and bool(body) and all(r.symbol in constants for r in given)


def its_own(context: Context, file: SourceFile, s: Statement, holder: str, pattern: re.Pattern[str]) -> bool:
    """Whether a statement calls a method of the object, or sets a field of it, with nothing else that changes."""
    text = file.slice(s.start, s.end)
    if s.kind not in ("expression", "assign") or not re.match(re.escape(holder) + CALL_OR_FIELD, text):
        return False
    if "\n" in text or any(not text[m.end() :].startswith(".") for m in pattern.finditer(text)):
        return False
    constants = constants_of(file, context.language)
    first = holder.split(".")[0]
    others = [r for r in file.within(s.start, s.end) if r.name != first and r.symbol is not None and r.symbol.kinds]
    return all(r.symbol in constants or (r.symbol is not None and r.symbol.kinds == {"import"}) for r in others)


def ask_fill(program: Program, class_: str) -> Asked:
    return Asked(FillInConstructor(ClassDesign(class_)), homes={class_: home_of(program, class_)})


class FilledConstructors(ClassRewrite):
    """The classes of a design, apart from its app, of which it wants that."""

    by_hand = (
        HandCommand(
            "fill", ("CLASS",), "A constructor does what is done to a new object first.",
            "Move what is done to the only object of a CLASS before anything else to its constructor.",
            "fill Depot hall.py", "Moved", ask_fill,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        for c in building.design.classes:
            if c.set_up and c.role != "app":
                yield FillInConstructor(c, needs=building.ids_of(c, "found"))
