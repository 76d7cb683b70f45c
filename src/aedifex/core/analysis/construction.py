"""Where an object is made and where each of its values comes from.

The object is made at the first statement that touches one of its variables (or runs one of its
methods). A first value moves into the making only if that cannot be told from outside: it stands
at that very place, or only statements without effect lie between, or it is an expression that
gives the same value anywhere. Every other field is set later, at the place where its variable was.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Callable
from dataclasses import dataclass, field
from itertools import islice

from ..program.language import Language
from ..program.model import Call, Scope, SourceFile, Statement, Symbol
from .effects import Effects, Touch
from .quiet_functions import same_anywhere
from .startup import running
from .variable_kinds import constants_of, movable

INERT = frozenset({"docstring", "pass"})


@dataclass
class Start:
    """Where one variable's first value comes from."""

    kind: str  # argument | fixed | derived | later
    statement: Statement | None = None

    @property
    def value(self) -> tuple[int, int]:
        assert self.statement is not None and self.statement.value is not None
        return self.statement.value


@dataclass
class Founding:
    """``at``: for each object the statement before which it is made (None: at the end of the set-up)."""

    at: list[Statement | None] = field(default_factory=list)
    starts: list[list[Start]] = field(default_factory=list)  # by object, then by field

    def kind(self, index: int) -> str:
        kinds = [
            row[index].kind for row in self.starts if row[index].statement is not None or row[index].kind == "later"
        ]
        return "later" if "later" in kinds or not kinds else "argument" if "argument" in kinds else kinds[0]


def plan_construction(
    file: SourceFile,
    effects: Effects,
    language: Language,
    objects: list[list[Symbol | None]],
    methods: set[Symbol],
    constants: set[Symbol],
    first: bool = False,
) -> Founding:
    """``objects``: for each object the variables of its fields, in one order (None where it has none).

    ``first``: nothing that has an effect may come before the making (the object runs the main code).
    """
    result = Founding()
    for symbols in objects:
        mine = {s for s in symbols if s is not None}
        at, starts = ConstructionSite(file, effects, language, mine, methods, constants, first).plan()
        result.at.append(at)
        result.starts.append([starts[s] if s is not None else Start("fixed") for s in symbols])
    pairs = [
        (s, start)
        for symbols, row in zip(objects, result.starts, strict=True)
        for s, start in zip(symbols, row, strict=True)
    ]
    held = {s for s, start in pairs if s is not None and never_again(s, start)}
    agree(file, language, result, lambda s: plain_making(file, effects, language, s, constants | held), constants)
    return result


@dataclass
class ConstructionSite:
    """One object: at which statement it is made, and where each of its first values comes from.

    ``mine``: the variables that become its fields; ``methods``: the functions that become its methods; ``first``: see
    ``plan``.
    """

    file: SourceFile
    effects: Effects
    language: Language
    mine: set[Symbol]
    methods: set[Symbol]
    constants: set[Symbol]
    first: bool

    def plan(self) -> tuple[Statement | None, dict[Symbol, Start]]:
        _, first_touch = all_touches(self.effects)
        begin = min((first_touch[s] for s in self.mine | self.methods if s in first_touch), default=None)
        if begin is None:
            return None, {s: Start("later") for s in self.mine}
        index: int | None = begin
        while index is not None:
            at, row, index = self.made(begin, index)
        return at, row

    def made(self, begin: int, index: int) -> tuple[Statement, dict[Symbol, Start], int | None]:
        """The first values when the object is made at statement ``index``; and at which later one it had better be
        made.

        ``begin``: the first statement that touches its variables. Where nothing can be set at the top after the making,
        and all that stands between sets first values that are the same anywhere, the object is made as late as its
        first values need.
        """
        file, effects, language, mine = self.file, self.effects, self.language, self.mine
        touches, _ = all_touches(effects)
        row = {s: Start("later") for s in mine}
        statements = running(file, language)
        at = statements[index]
        late = not language.code_at_top  # as long as nothing but movable first values was seen
        free = not self.first or all(
            self.inert(s) or plain_value(file, language, s, self.constants) for s in statements[:index]
        )
        crossed: set[Symbol | None] = set()  # variables whose plain first values an effect would be moved across
        seen: set[Symbol] = set()
        known = {c for c in self.constants if min(r.start for r in c.bindings) < at.start}
        for number, (statement, touch) in enumerate(islice(touches, begin, None), begin):
            if mine <= seen:
                break
            symbol = statement.target.symbol if statement.target is not None and statement.kind == "assign" else None
            begun = {s for s in seen if row[s].kind != "later"}
            value = self.value(statement, at, known, begun, {s for s in seen if never_again(s, row[s])})
            if value.making is not None:  # what the object's methods touch is no matter yet
                touch = touch_of_making(effects, statement, value.making)
            if symbol in mine and symbol not in seen and statement.value is not None:
                if late and number > index and value.unready:
                    return at, row, number
                late = late and value.anywhere and not (value.touch.names & mine or value.touch.uses & self.methods)
                if value.fits and (
                    value.anywhere or (free and (statement is at or not value.touch.names & ((mine - begun) | crossed)))
                ):
                    row[symbol] = Start(
                        start_kind(file, language, statement, mine, self.constants, value.touch), statement
                    )
                else:
                    free = False
            elif plain_value(file, language, statement, self.constants):
                crossed.add(symbol)
            elif not self.inert(statement):
                free = False
            late = late and (symbol in mine or not (touch.names & mine or touch.uses & self.methods))
            seen |= touch.names & mine
        return at, row, None

    def value(
        self, statement: Statement, at: Statement, known: set[Symbol], begun: set[Symbol], held: set[Symbol]
    ) -> FirstValue:
        """What is to be said of the value of a statement, if it has one. ``known``: constants that are set before
        ``at``; ``begun``: variables whose first values move into the making; ``held``: those of them that never get
        another."""
        if statement.value is None:
            return FirstValue(Touch(), None, False, False, False)
        file, effects, language = self.file, self.effects, self.language
        here = quietly_made(file, effects, language, statement, known | held)
        making = here or quietly_made(file, effects, language, statement, self.constants | held)
        if statement.target is None or statement.target.symbol not in self.mine:
            return FirstValue(Touch(), making, False, False, False)
        touch = touch_of_making(effects, None, making) if making is not None else touch_of(effects, statement.value)
        plain = here is not None and all(
            self.same_anywhere((a.value_start, a.end), known | held, at) for a in language.arguments(file, here)
        )
        early = touch.uses & self.methods or (touch.names & self.mine) - begun
        early = early or (
            touch.names - self.mine - self.constants if self.first and language.code_at_top else set()
        )  # what main code sets comes later
        there = statement is at or (
            (making is None or here is not None) and is_ready(effects, statement.value, touch, at, self.mine)
        )
        stands = not early and not changed_inside(file, language, statement.value, self.mine)
        return FirstValue(
            touch,
            making,
            plain or self.same_anywhere(statement.value, known, at),
            there and stands,
            not there and stands,
        )

    def same_anywhere(self, span: tuple[int, int], known: set[Symbol], at: Statement) -> bool:
        return same_anywhere(self.file, self.effects, self.language, span, known, at.start)

    def inert(self, statement: Statement) -> bool:
        return inert(self.file, self.effects, self.language, statement, self.constants)


@dataclass(frozen=True)
class FirstValue:
    """``touch``: what working it out may do; ``making``: the call, if it quietly makes an object; ``anywhere``: it is
    the same wherever it is worked out; ``fits``: it could be worked out where the object is made; ``unready``: it
    could, but for what is not set there yet."""

    touch: Touch
    making: Call | None
    anywhere: bool
    fits: bool
    unready: bool


def never_again(s: Symbol, start: Start) -> bool:
    """Whether a variable has its first value once the object is made, and never gets another."""
    return start.kind != "later" and len(s.bindings) == 1


def changed_inside(file: SourceFile, language: Language, span: tuple[int, int], mine: set[Symbol]) -> bool:
    """Whether a first value would mean something else inside the class, or has functions that could not see the
    object."""
    own = [r for r in file.within(*span) if r.symbol in mine]
    return bool(language.write.class_trouble(file, *span) or language.write.inner_receivers(file, file.scope, own)[1])


def plain_value(file: SourceFile, language: Language, statement: Statement, constants: set[Symbol]) -> bool:
    """Whether a statement gives a variable a value that is the same wherever it is worked out."""
    return (
        statement.kind == "assign"
        and statement.target is not None
        and statement.value is not None
        and movable(file, statement.value, constants, language)
    )


def touch_of_making(effects: Effects, statement: Statement | None, call: Call) -> Touch:
    """What making an object quietly may do: to work out its arguments, and to set what the ``statement`` sets."""
    touch = Touch(set(effects.direct(call.start, call.end).reads))
    touch.add(touch_of(effects, (call.args_start, call.args_end)))
    if statement is not None:
        touch.add(effects.direct(statement.start, statement.end))
    return touch


def touch_of(effects: Effects, span: tuple[int, int]) -> Touch:
    """What working out an expression may do; the methods of a class that is written in it run later."""
    touch = Touch()
    for start, end in outside_methods(effects, *span, False):
        touch.add(effects.touch(start, end))
    return touch


def is_ready(effects: Effects, span: tuple[int, int], touch: Touch, at: Statement, mine: set[Symbol]) -> bool:
    """Whether everything that an expression reads, or the functions that it calls, is there before ``at``."""
    spans = [
        *outside_methods(effects, *span, False),
        *((effects.units[s].start, effects.units[s].end) for s in touch.uses),
    ]
    for start, end in spans:
        for ref in effects.file.within(start, end):
            symbol = ref.symbol
            if symbol is None or symbol in mine or symbol.scope is not effects.file.scope or not symbol.kinds:
                continue
            if symbol.kinds <= {"class", "function"} and not effects.language.code_at_top:
                continue  # there from the start
            if min(r.start for r in symbol.bindings) >= at.start:
                return False
    return True


def plain_making(
    file: SourceFile, effects: Effects, language: Language, statement: Statement, constants: set[Symbol]
) -> bool:
    """Whether the value is an object that is made quietly, of arguments that are the same anywhere."""
    made = quietly_made(file, effects, language, statement, constants)
    return made is not None and plain_arguments(file, language, made, constants)


def plain_arguments(file: SourceFile, language: Language, call: Call, constants: set[Symbol]) -> bool:
    return all(movable(file, (a.value_start, a.end), constants, language) for a in language.arguments(file, call))


def quietly_made(
    file: SourceFile, effects: Effects, language: Language, statement: Statement, constants: set[Symbol]
) -> Call | None:
    """The call that is the value, if it makes an object of a class of this file whose constructor does nothing but keep
    its arguments."""
    if statement.value is None:
        return None
    start, end = statement.value
    calls = file.calls_within(start, end)
    call = next((c for c in calls if (c.start, c.end) == (start, end) and not c.callee.member), None)
    if call is None or call.callee.symbol is None or call.callee.symbol.kinds != {"class"}:
        return None
    for scope, name in file.classes:
        if file.scope.symbols.get(name) is call.callee.symbol:
            return call if quiet_making(file, effects, language, scope, constants) else None
    return None


def quiet_making(file: SourceFile, effects: Effects, language: Language, kind: Scope, constants: set[Symbol]) -> bool:
    """Whether making an object of a class does nothing that could be noticed: no output, no state of others."""
    makers = [c for c in kind.children if c.kind == "function" and c.name == language.write.CONSTRUCTOR]
    spans = [(makers[0].start, makers[0].end)] if makers else outside_methods(effects, kind.start, kind.end, False)
    for start, end in spans:
        touch = effects.direct(start, end).copy()
        called = {c.callee.symbol for c in file.calls_within(start, end)}
        for symbol in list(touch.uses):
            if symbol in called or "class" not in symbol.kinds:  # a class that is only named as a type runs nothing
                touch.add(effects.reach[symbol])
        if touch.unseen or touch.names - constants:
            return False
        if any(language.purity(file, (c.start, c.end)) == "effect" for c in file.calls_within(start, end)):
            return False
    return True


def all_touches(effects: Effects) -> tuple[list[tuple[Statement, Touch]], dict[Symbol, int]]:
    """What each top-level statement may do, and the first statement that may touch each name; worked out once."""
    found = effects.memo.get("touches")
    if found is None:
        touches = [(s, statement_touch(effects, s)) for s in running(effects.file, effects.language)]
        first: dict[Symbol, int] = {}
        for i, (_, touch) in enumerate(touches):
            for symbol in touch.names | touch.uses:
                first.setdefault(symbol, i)
        found = (touches, first)
        effects.memo["touches"] = found
    result: tuple[list[tuple[Statement, Touch]], dict[Symbol, int]] = found
    return result


def statement_touch(effects: Effects, statement: Statement) -> Touch:
    """What running a top-level statement may do; a definition runs only its defaults and decorators."""
    if statement.kind in ("import", *INERT):
        return Touch()
    if statement.kind == "function":
        f = effects.file.function_ending(statement.end)
        if f is not None:
            touch = effects.direct(f.params_start, f.params_end).copy()
            if f.decorators:
                touch.add(effects.touch(f.start, f.head))
            return touch
    if statement.kind == "class":
        return definition_touch(effects, statement)
    if statement.kind == "assign" and statement.value is not None:
        constants = constants_of(effects.file, effects.language)
        made = quietly_made(effects.file, effects, effects.language, statement, constants)
        if made is not None:
            return touch_of_making(effects, statement, made)  # none of the object's methods runs
    return effects.touch(statement.start, statement.end)


def definition_touch(effects: Effects, statement: Statement) -> Touch:
    """What the definition of a class runs: everything in it but the bodies of its methods."""
    touch = Touch()
    for start, end in outside_methods(effects, statement.start, statement.end, effects.language.heads_run):
        touch.add(effects.touch(start, end))
    return touch


def outside_methods(effects: Effects, start: int, end: int, heads: bool) -> list[tuple[int, int]]:
    """The stretches of a class that are not the body of a method, nor its head unless ``heads``."""
    found, at = [], start
    functions = effects.file.functions_sorted
    for f in functions[bisect_left(functions, start, key=lambda f: f.start) :]:
        if f.start >= end:
            break
        if f.end <= end and f.body_start >= at:
            found.append((at, f.body_start if heads else max(at, f.start)))
            at = f.end
    return [*found, (at, end)]


def inert(file: SourceFile, effects: Effects, language: Language, statement: Statement, constants: set[Symbol]) -> bool:
    """Whether anything could be moved across a statement without being noticed."""
    if statement.kind in INERT or statement.kind == "import":
        return True
    if statement.kind == "function":
        function = file.function_ending(statement.end)
        return function is None or not function.decorators
    if statement.kind == "class":
        touch = definition_touch(effects, statement)
        return not touch.unseen and not touch.names - constants
    if statement.kind != "assign" or statement.target is None or statement.value is None:
        return False
    if statement.target.symbol in constants:
        return language.purity(file, statement.value) != "effect"
    return plain_making(file, effects, language, statement, constants)


def start_kind(
    file: SourceFile, language: Language, statement: Statement, mine: set[Symbol], constants: set[Symbol], touch: Touch
) -> str:
    """fixed: the same for every object; derived: from its other fields; argument: from somebody else's state."""
    assert statement.value is not None
    names = touch.names - constants
    if names & mine and not names - mine:
        return "derived"
    if names - mine:
        return "argument"
    return "fixed"


def agree(
    file: SourceFile, language: Language, result: Founding, quiet: Callable[[Statement], bool], constants: set[Symbol]
) -> None:
    """Make the objects of one class start in one way: what differs becomes an argument, or is set later."""
    several = len(result.starts) > 1
    was = [[start.statement for start in row] for row in result.starts]
    width = len(result.starts[0]) if result.starts else 0
    for index in range(width):
        starts = [row[index] for row in result.starts]
        kinds = {s.kind for s in starts}
        if "later" in kinds:
            kind = "later"
        elif not several:
            continue
        else:
            literal = all(s.statement is None or language.purity(file, s.value) == "literal" for s in starts)
            texts = {file.slice(*s.value) for s in starts if s.statement is not None}
            everywhere = all(s.statement is not None for s in starts)
            kind = "fixed" if literal and everywhere and len(texts) == 1 else "argument" if everywhere else "later"
        for s in starts:
            s.kind = kind
            if kind == "later":
                s.statement = None
    for row in result.starts:
        keep_order(file, language, row, quiet)
    while True:
        if several:
            for index in range(width):
                if any(row[index].kind == "later" for row in result.starts):
                    for row in result.starts:
                        row[index] = Start("later")
        pairs = list(zip(result.starts, was, strict=True))
        waiting = [
            wait(row, before, lambda s: quiet(s) or plain_value(file, language, s, constants)) for row, before in pairs
        ]
        if not any(waiting):
            break


def wait(row: list[Start], before: list[Statement | None], anywhere: Callable[[Statement], bool]) -> bool:
    """Nothing passes a first value that is set later after all, but what is the same anywhere; whether anything has to
    wait."""
    stay = min(
        (s.start for s, start in zip(before, row, strict=True) if s is not None and start.statement is None),
        default=None,
    )
    passing = [
        start
        for start in row
        if start.statement is not None
        and stay is not None
        and start.statement.start > stay
        and not anywhere(start.statement)
    ]
    for start in passing:
        start.kind, start.statement = "later", None
    return bool(passing)


def keep_order(file: SourceFile, language: Language, row: list[Start], quiet: Callable[[Statement], bool]) -> None:
    """Arguments are evaluated before the constructor's body: an effect must not change places with another.

    A computed argument after a computed start of the body is set later instead, and so is everything
    computed that would be evaluated in another order than it stands. Making an object quietly counts as no effect.
    """
    computed = [s for s in row if s.statement is not None and language.purity(file, s.value) == "effect"]
    computed = [s for s in computed if s.statement is not None and not quiet(s.statement)]
    by_place = sorted(computed, key=lambda s: s.value[0])
    inside = False
    last = -1
    for start in by_place:
        position = row.index(start)
        if (start.kind == "argument" and inside) or position < last:
            start.kind, start.statement = "later", None
        else:
            inside = inside or start.kind != "argument"
            last = position
    if any(s.kind == "later" for s in row):
        # a field derived from one that is set later must wait too
        for start in row:
            if start.kind == "derived":
                start.kind, start.statement = "later", None
