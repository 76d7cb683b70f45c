"""Where the class makes its part, and what the fields of the part start with there (C17)."""

from __future__ import annotations

from dataclasses import dataclass

from ...program.model import Function, Statement
from ...program.whole import MemberUse
from .. import messages
from .needs import PartNeeds


@dataclass
class Value:
    """What one field of the part starts with: ``span``. ``whole``: the statement or declaration that says so;
    ``given``: whether the maker hands it in."""

    span: tuple[int, int]
    whole: tuple[int, int]
    given: bool
    declared: bool = False


@dataclass
class PartConstruction:
    """Where the part is made: before or after a statement of the constructor, or (both None) where its fields were
    declared; and what they start with."""

    first: Statement | None
    values: dict[str, Value]
    after: Statement | None = None


class PartMaking(PartNeeds):
    """Where the object of an extracted class is constructed, and from what."""

    def making(self) -> PartConstruction:
        declared = self.declared_values()
        maker = self.maker
        if maker is None:
            if not self.taken:
                raise messages.NO_CONSTRUCTOR.at(self.file, self.whole.scope.start, class_=self.whole.name)
            return PartConstruction(None, declared)
        body = self.language.body(self.file, maker)
        first = self.first_touched(maker, body)
        values = self.set_values(maker, body[body.index(first) :]) if first is not None else {}
        if first is None and self.kept:
            return PartConstruction(None, declared, body[-1])
        if any(v.given for v in values.values()) or not self.taken or self.kept:
            if first is None:
                raise messages.NOTHING_SETS_FIELDS.at(self.file, maker.start, class_=self.whole.name)
            return PartConstruction(first, {**declared, **values})
        return PartConstruction(None, {**declared, **values})

    def declared_values(self) -> dict[str, Value]:
        """First values that are declared, each of which can be worked out at any time."""
        values: dict[str, Value] = {}
        for n in [n for n in self.whole.declared if n in self.fields]:
            d = self.whole.declared[n]
            self.on_own_lines(d.start, d.end)
            own = d.value is not None and any(d.value[0] <= u.start < d.value[1] for u in self.whole.uses)
            if (
                not d.plain
                or own
                or (
                    d.value is not None
                    and (self.language.purity(self.file, d.value) == "effect" or self.handed(d.value))
                )
            ):
                raise messages.DECLARED_FOR_CLASS_ONLY.at(self.file, d.start, name=n, class_=self.whole.name)
            if d.value is not None:
                values[n] = Value(d.value, (d.start, d.end), False, True)
        return values

    def set_values(self, maker: Function, body: list[Statement]) -> dict[str, Value]:
        """First values that these statements of the constructor set, and that are the same where the part is made
        before them."""
        uses = self.whole.of(maker)
        values: dict[str, Value] = {}
        free, seen, passed = True, set[str](), set[str]()  # ``passed``: what statements set that stay
        seen |= {n for n, d in self.whole.declared.items() if d.value is not None}
        local = {
            n for n, s in maker.scope.symbols.items() if n not in {p.name for p in maker.params} or len(s.bindings) > 1
        }
        for s in body:
            inside = [u for u in uses if s.start <= u.start < s.end]
            target = next((u for u in inside if u.kind == "set"), None)
            plain = (
                s.kind == "assign"
                and s.value is not None
                and target is not None
                and s.value[0] > target.end
                and self.alone(s, target)
            )
            if (
                plain
                and target is not None
                and target.name in self.fields
                and target.name not in seen
                and self.movable(s, free, [u for u in inside if u is not target], local, passed)
            ):
                assert s.value is not None
                values[target.name] = Value(s.value, (s.start, s.end), self.handed(s.value))
                seen |= {u.name for u in inside}
                continue
            passed |= {u.name for u in inside if u.kind != "read"}
            if not (plain and s.value is not None and self.language.purity(self.file, s.value) != "effect"):
                free = False
            seen |= {u.name for u in inside}
        return values

    def alone(self, s: Statement, target: MemberUse) -> bool:
        """Whether a statement is one plain assignment on lines of its own."""
        write = self.language.write
        left = self.file.slice(write.line_start(self.file, s.start), s.start)
        right = self.file.slice(s.end, write.line_end(self.file, s.end))
        assert s.value is not None
        between = self.file.slice(target.end, s.value[0]).strip()
        return (
            not left.strip()
            and (not right.strip() or bool(write.trailing_comment(self.file, s.end)))
            and target.start == s.start
            and between == "="
        )

    def movable(self, s: Statement, free: bool, reads: list[MemberUse], local: set[str], passed: set[str]) -> bool:
        """Whether the value is the same where the part is made. ``reads``: members that it uses; ``local``: names that
        are set on the way."""
        assert s.value is not None
        names = {r.name for r in self.file.within(*s.value)}
        if names & local or any(u.name in {*self.fields, *self.methods, *passed} or u.later for u in reads):
            return False
        return free or (not reads and self.language.purity(self.file, s.value) == "literal")

    def handed(self, value: tuple[int, int]) -> bool:
        """Whether a first value is worked out where the part is made: it is no literal, so that nothing changes its
        order."""
        top = all(
            r.symbol is not None and (not r.symbol.kinds or r.symbol.scope is self.file.scope)
            for r in self.file.within(*value)
        )
        own = any(value[0] <= u.start < value[1] for u in self.whole.uses)
        return own or not (top and self.language.purity(self.file, value) != "effect")

    def on_own_lines(self, start: int, end: int) -> None:
        write = self.language.write
        behind = self.file.slice(end, write.line_end(self.file, end - 1)).strip()
        if self.file.slice(write.line_start(self.file, start), start).strip() or (
            behind and not write.trailing_comment(self.file, end)
        ):
            raise messages.SHARES_LINE.at(self.file, start)
