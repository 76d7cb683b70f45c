"""What the methods of a part need of the class that it is taken out of, and whether they can be given it (C10, C17)."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...program.language import Language
from ...program.model import Function, SourceFile, Statement
from ...program.whole import Declared, Whole
from .. import messages


@dataclass
class PartNeeds:
    """What the methods of an extracted class need of the class that they leave."""

    file: SourceFile
    language: Language
    whole: Whole
    fields: dict[str, str]  # member of the whole → field of the part
    methods: dict[str, str]
    kept: dict[str, str] = field(default_factory=dict)  # member of the whole → field of the part that is given it once
    needs: dict[str, list[str]] = field(default_factory=dict)  # method → members of the whole that it is handed

    @property
    def functions(self) -> list[Function]:
        return [f for f in self.whole.methods if f.name in self.methods]

    @property
    def others(self) -> list[Function]:
        return [f for f in self.whole.methods if f.name not in self.methods] + (
            [self.whole.head] if self.whole.head is not None else []
        )

    @property
    def taken(self) -> list[Declared]:
        """The declarations of the part's fields, in their order."""
        return [d for n, d in self.whole.declared.items() if n in self.fields]

    def settle(self) -> None:
        """Work out what is handed over. Raises Refusal where something cannot be."""
        for f in self.functions:
            self.needs[f.name] = self.own_needs(f)
        changed = True
        while changed:  # a method that calls another hands on what that one needs
            changed = False
            for f in self.functions:
                for u in self.whole.of(f):
                    for n in self.needs.get(u.name, ()) if u.kind == "call" else ():
                        if n not in self.needs[f.name]:
                            self.needs[f.name].append(n)
                            changed = True
        for f in self.functions:
            self.check_handed(f)

    def own_needs(self, f: Function) -> list[str]:
        fields = set(self.whole.fields)
        found: dict[str, None] = {}
        if f.name not in self.whole.plain:
            raise messages.NO_PLAIN_METHOD.at(self.file, f.start, function=f.name)
        for u in self.whole.of(f):
            if u.name in self.fields or u.name in self.methods:
                continue
            if u.name in self.kept and u.kind in ("read", "call"):
                continue
            if u.name not in fields and not (u.name in self.whole.reserved and u.kind == "read"):
                raise messages.USES_NO_FIELD.at(
                    self.file, u.start, function=f.name, member=u.name, class_=self.whole.name
                )
            if u.kind not in ("read", "call"):
                raise messages.SETS_KEPT_FIELD.at(
                    self.file, u.start, function=f.name, member=u.name, class_=self.whole.name
                )
            if u.later and self.changes(u.name):
                raise messages.USED_LATE.at(self.file, u.start, function=f.name, member=u.name, class_=self.whole.name)
            found[u.name] = None
        return list(found)

    def changes(self, name: str) -> bool:
        """Whether a member is bound anew once the object is made, or may be by a library."""
        return name in self.whole.reserved or any(
            u.name == name and u.kind == "set" and u.function.name != self.language.write.CONSTRUCTOR
            for u in self.whole.uses
        )

    def keepable(self, name: str) -> bool:
        """Whether a part could be given a member when it is made: the constructor sets it once, before that, and
        nothing else ever does."""
        maker = self.maker
        if maker is None or self.changes(name) or name in self.fields or name not in self.whole.fields:
            return False
        body = self.language.body(self.file, maker)
        sets = [u for u in self.whole.uses if u.name == name and u.kind == "set"]
        at = next(
            (i for i, s in enumerate(body) if len(sets) == 1 and s.start == sets[0].start and s.kind == "assign"), None
        )
        first = self.first_touched(maker, body)
        return (
            at is not None
            and (first is None or at < body.index(first))
            and not any(u.name == name and u.kind == "other" for u in self.whole.uses)
        )

    @property
    def maker(self) -> Function | None:
        return next((f for f in self.whole.methods if f.name == self.language.write.CONSTRUCTOR), None)

    def check_handed(self, f: Function) -> None:
        for n in self.needs[f.name]:
            if self.needs[f.name] and (f.is_async or f.scope.generator) and self.changes(n):
                raise messages.GOES_ON_LATER.at(self.file, f.start, function=f.name, name=n)
            if any(self.given(n) in s.symbols for s in f.scope.walk()):
                raise messages.PASSED_NAME_TAKEN.at(self.file, f.start, name=self.given(n), function=f.name)
            loose = [*self.whole.escapes, *self.called_back(n)] if self.changes(n) else []
            if loose:
                raise messages.MAY_CHANGE_MEANWHILE.at(self.file, min(loose), name=n, function=f.name)
        if self.needs[f.name] and any(p.kind == "doublestar" for p in f.params):
            raise messages.TAKES_ANY_ARGUMENT.at(self.file, f.start, function=f.name)

    def called_back(self, name: str) -> list[int]:
        """Where others are given what may set a member when they call it: a method as a value, or a function inside
        one."""
        setters: set[str] = set()
        while len(
            more := {
                u.function.name for u in self.whole.uses if (u.name == name and u.kind == "set") or u.name in setters
            }
        ) > len(setters):
            setters = more
        return [
            u.start
            for u in self.whole.uses
            if (u.name in setters and (u.kind != "call" or u.later)) or (u.name == name and u.later and u.kind == "set")
        ]

    def given(self, member: str) -> str:
        """What a method calls a member of the whole that it is handed."""
        plain = member.strip("_#")
        return plain if self.language.write.is_name(plain) and plain not in self.language.builtins else member

    def type_of(self, member: str) -> str:
        return self.whole.declared[member].type if member in self.whole.declared else ""

    def first_touched(self, maker: Function, body: list[Statement]) -> Statement | None:
        """The first statement of the constructor that has to do with the part, or could have."""
        mine = {*self.fields, *self.methods, *(f.name for f in self.whole.methods)}
        touched = [u.start for u in self.whole.of(maker) if u.name in mine] + [
            e for e in self.whole.escapes if maker.start <= e < maker.end
        ]
        return next((s for s in body if any(s.start <= t < s.end for t in touched)), None)
