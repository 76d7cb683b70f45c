"""Of which class the object is that a variable or a field holds, where one assignment says so for good.

tram1 = Tram(2.0, 1.5)            → Tram, at the top of a file
self._tram1 = Tram(2.0, 1.5)      → Tram, for ``_tram1`` of that class, if nothing else ever sets it
"""

from __future__ import annotations

from functools import cached_property

from ..program.members import members_named
from ..program.model import Reference, Scope, SourceFile, Symbol
from ..program.program import Program
from ..program.scopes import receiver_of
from ..program.whole import MemberUse, Whole
from .importers import importers
from .startup import set_once

HeldClass = tuple[str, str]  # the file of a class, "" if no file that was read has it; its name there


class ObjectClasses:
    """Answers for the files of a program and those beside it."""

    def __init__(self, program: Program, outsiders: Program | None = None) -> None:
        self.program, self.outsiders, self.language = program, outsiders, program.language
        self._fields: dict[tuple[str, str, str], HeldClass | None] = {}

    def of(self, file: SourceFile, base: Reference, field: str = "") -> HeldClass | None:
        """The class of what a plain name holds, or of what its member ``field`` holds; None if that is not known for
        certain."""
        if base.symbol is None:
            return None
        if not field:
            return self.held(file, base.symbol)
        for scope, name in file.classes:
            if scope.parent is file.scope and base.scope.within(scope) and base.name == receiver_of(base.scope, scope):
                return self.field(file, name, field)
        owner = self.held(file, base.symbol)
        home = self.files.get(owner[0]) if owner is not None else None
        return self.field(home, owner[1], field) if home is not None and owner is not None else None

    @cached_property
    def files(self) -> dict[str, SourceFile]:
        return {**(self.outsiders.files if self.outsiders is not None else {}), **self.program.files}

    def held(self, file: SourceFile, symbol: Symbol) -> HeldClass | None:
        """The class of what a variable at the top of a file holds, its own or an imported one."""
        home, there = self.origin(file, symbol) or (file, symbol)
        return self.variables(home).get(there)

    def variables(self, file: SourceFile) -> dict[Symbol, HeldClass]:
        """Variables at the top of a file that are bound once, to a new object."""
        if "object classes" not in file.memo:
            held = {v: self.class_named(file, call.callee.symbol) for v, call in set_once(file, self.language).items()}
            file.memo["object classes"] = {v: class_ for v, class_ in held.items() if class_ is not None}
        known: dict[Symbol, HeldClass] = file.memo["object classes"]
        return known

    def class_named(self, file: SourceFile, symbol: Symbol | None) -> HeldClass | None:
        """The class that a name at the top of a file means, its own or one that it imports; what is imported from
        elsewhere is taken for one."""
        if symbol is None or symbol.scope is not file.scope:
            return None
        home, there = self.origin(file, symbol) or (file, symbol)
        if there.kinds == {"import"}:
            return "", there.name
        return (home.path, there.name) if there.kinds == {"class"} else None

    def origin(self, file: SourceFile, symbol: Symbol) -> tuple[SourceFile, Symbol] | None:
        """Where a name that a file imports is defined; None if no file that was read does that."""
        if symbol.kinds != {"import"} or symbol.scope is not file.scope:
            return None
        for home in self.files.values():
            for other, local, module, name, _ in importers(self.program, self.outsiders).get(
                self.language.write.module_of(home.path), ()
            ):
                if other is file and local == symbol.name and self.language.means(file.path, module, name, home.path):
                    there = home.scope.symbols.get(name)
                    return (home, there) if there is not None and there.kinds else None
        return None

    # -- fields --------------------------------------------------------------------------------

    def field(self, file: SourceFile, class_: str, name: str) -> HeldClass | None:
        key = (file.path, class_, name)
        if key not in self._fields:
            self._fields[key] = None  # while it is worked out
            self._fields[key] = self.field_worked_out(file, class_, name)
        return self._fields[key]

    def field_worked_out(self, file: SourceFile, class_: str, name: str) -> HeldClass | None:
        whole = self.language.members.whole(file, class_) if self.language.members is not None else None
        if whole is None:
            return None
        uses = [u for u in whole.uses if u.name == name]
        values = [self.value_of(file, u) for u in uses if u.kind not in ("read", "call")]
        declared = whole.declared.get(name)
        if declared is not None and declared.value is not None:
            values.append(self.made_at(file, *declared.value))
        if (
            not values
            or any(v is None or v != values[0] for v in values)
            or self.set_outside(whole, name, {u.start for u in uses})
        ):
            return None
        return values[0]

    def value_of(self, file: SourceFile, use: MemberUse) -> HeldClass | None:
        """The class of the new object that a statement gives a field; None if it gives anything else."""
        if use.kind != "set" or use.later:
            return None
        rest = file.text[use.end :].split(b"\n", 1)[0]
        sign = rest.lstrip()
        if not sign.startswith(b"=") or sign.startswith(b"=="):
            return None
        value = sign[1:].lstrip(b" ")
        start = use.end + len(rest) - len(value)
        call = next((c for c in file.calls_within(start, start + 1)), None)
        ends = call is not None and file.text[call.end : call.end + 1] in (b"", b"\n", b"\r", b";")
        return self.made_at(file, call.start, call.end) if call is not None and ends else None

    def made_at(self, file: SourceFile, start: int, end: int) -> HeldClass | None:
        call = next((c for c in file.calls_within(start, start + 1) if c.end == end and not c.callee.member), None)
        return self.class_named(file, call.callee.symbol) if call is not None else None

    def set_outside(self, whole: Whole, name: str, own: set[int]) -> bool:
        """Whether anything but the class's own methods may set a member of that name: where it does more than take a
        member of it."""
        for file in self.files.values():
            if name not in file.stored_members:
                continue
            for m in members_named(file, self.language, name):
                known = m.base is not None and m.base.start in own and file.scope is top(whole.scope)
                if not known and file.text[m.end :].lstrip()[:1] != b".":
                    return True
        return False


def top(scope: Scope) -> Scope:
    while scope.parent is not None:
        scope = scope.parent
    return scope
