"""Listeners that stand in methods of a class become its methods, and what they share its fields.

class Window:                                       class Window:
    def __init__(self):                                 def __init__(self):
        count = 0                                           self._count = 0
        def pressed():                      →               button.config(command=self._pressed)
            nonlocal count
            count += 1                                  def _pressed(self):
        button.config(command=pressed)                      self._count += 1
"""

from __future__ import annotations

import copy
import re
from collections.abc import Iterator, Sequence

from ...analysis.handlers import method_key
from ...analysis.hazards import by_text
from ...design.origin import Origin
from ...design.tables import ClassDesign, Design, MethodDesign
from ...program.edits import Range
from ...program.inline import Listener, LocalField
from ...program.language import Language
from ...program.model import Function, Scope, SourceFile, Symbol
from ...program.program import Program
from .. import messages
from ..record_class.rewrite import MakesObjects
from ..rewrite import Rewrite, State, moved_design
from ..standing_class import names_of_members, standing_scope
from ..step import Context, class_scope
from .bases import base_trouble, inherits
from .listeners import Naming, NewMethod, captured, clear, do_the_same, kept_as, listeners_in, place_of, why_not


def has_listeners(c: ClassDesign) -> bool:
    """Whether a class gets methods out of listeners that stand in it."""
    return c.existing and any(m.in_place for m in c.methods)


def local_of(file: SourceFile, language: Language, origin: Origin) -> tuple[Function, Symbol] | None:
    """The method of a class, and the variable in it, of an origin: ``Window.count`` in the constructor,
    ``Window.build.count`` in another."""
    class_, _, name = origin.holder.partition(".")
    scope = standing_scope(file, class_)
    method = name or language.write.CONSTRUCTOR
    found = [f for f in file.functions if f.outer is scope and f.name == method]
    symbol = found[0].scope.symbols.get(origin.name) if len(found) == 1 else None
    return (found[0], symbol) if symbol is not None else None


def origin_of(file: SourceFile, language: Language, method: Function, name: str, several: bool) -> Origin:
    """How a design speaks of a variable in a method of a class."""
    return Origin(name, method_key(method, language), file.path if several else "")


def runs_once(program: Program, file: SourceFile, language: Language, method: Function) -> bool:
    """Whether a method runs once for each object: its constructor, or what only that calls, as a statement of its
    own."""
    if method.name == language.write.CONSTRUCTOR:
        return True
    makers = [f for f in file.functions if f.outer is method.outer and f.name == language.write.CONSTRUCTOR]
    word = re.compile(rb"\b" + re.escape(method.name.encode()) + rb"\b")
    if len(makers) != 1 or sum(len(word.findall(f.text)) for f in program.files.values()) != 2:
        return False
    rows = language.body(file, makers[0])
    return any(
        s.kind == "expression" and (hit := word.search(file.text, s.start, s.end)) is not None
        and file.text[hit.end() : s.end].rstrip(b"; ").startswith(b"(") and not any(
            s.start <= f.start < s.end for f in file.functions
        )
        for s in rows
    )  # fmt: skip


def field_trouble(
    program: Program, file: SourceFile, method: Function, symbol: Symbol, name: str, moving: Sequence[Listener]
) -> str:
    """Why a variable cannot become the field ``name``; "" if it can. ``moving``: the listeners that become methods."""
    language = program.language
    listening = language.listening
    if listening is None or not runs_once(program, file, language, method):
        return f"{method.name} may run more than once"
    if by_text(file, language, method.start, method.end):
        return "names are looked up by their text there"
    if not listening.can_be_field(file, method, symbol, moving):
        return "it is not simply set there once for each object"
    if name in names_of_members(file, method.outer) or inherits(program, file, method.outer, name):
        return f"the class has '{name}' already"
    if means_else(file, language, method, symbol, name):
        return f"'{name}' means something else in the class"
    receiver = method.params[0].name if method.bound and method.params else ""
    if receiver and not clear(file, symbol, receiver, method.scope):
        return f"'{receiver}' means something else where it is used"
    return ""


def means_else(file: SourceFile, language: Language, method: Function, symbol: Symbol, name: str) -> bool:
    """Whether the class says the name for something that stands around it, where a bare name means a member."""
    if not language.bare_members:
        return False
    inside = file.within(method.outer.start, method.outer.end)
    around = [r for r in inside if r.name == name and r.symbol is not symbol]
    return any(r.symbol is None or r.symbol.scope is None or r.symbol.scope.kind in ("module", "class") for r in around)


class ListenersToMethods(MakesObjects):
    """Listeners of a class become its methods, and variables that they share its fields."""

    kind = "listeners"
    left = "the listeners stay where they are"
    traced = True

    def title(self) -> str:
        return f"listeners of {self.design.name} become methods: {', '.join(m.name for m in self.placed)}"

    @property
    def placed(self) -> list[MethodDesign]:
        return [m for m in self.design.methods if m.in_place]

    def edits(self, context: Context, file: SourceFile) -> list[Range]:
        language, scope = context.language, standing_scope(file, self.design.name)
        if scope is None:
            raise messages.NO_CLASS_YET.in_file(file.path, name=self.design.name)
        self.check_names(context, file, {self.design.name}, set())
        if why := base_trouble(context.program, file, scope):
            raise messages.LISTENER_STAYS.at(file, scope.start, why=why)
        everyone = [[listener_at(file, language, scope, str(o)) for o in m.origins] for m in self.placed]
        moving = [n for group in everyone for n in group]
        fields = {f.symbol: f for f in [*self.kept(file, language, moving), *self.fields(context, file, moving)]}
        functions = {n.function.symbol for group in everyone for n in group if n.function is not None}
        able = [s for s in functions if s is not None]
        methods = [
            self.method(context, file, m, group, fields, able) for m, group in zip(self.placed, everyone, strict=True)
        ]
        return Naming(file, language, methods, fields).edits()

    def fields(self, context: Context, file: SourceFile, moving: list[Listener]) -> Iterator[LocalField]:
        """The variables that become fields, with the names of these. Raises Refusal."""
        for f in self.design.fields:
            found = local_of(file, context.language, f.origins[0]) if len(f.origins) == 1 else None
            if found is None:
                raise messages.NO_LOCAL_HERE.in_file(file.path, name=", ".join(map(str, f.origins)))
            method, symbol = found
            name = context.write.hidden(f.name) if f.hidden else f.name
            if why := field_trouble(context.program, file, method, symbol, name, moving):
                raise messages.LOCAL_STAYS.at(file, symbol.bindings[0].start, name=symbol.name, why=why)
            yield LocalField(symbol, name)

    def kept(self, file: SourceFile, language: Language, moving: list[Listener]) -> Iterator[LocalField]:
        """The parameters that the class keeps already."""
        for n in moving:
            for s in captured(file, language, n):
                if name := kept_as(file, language, n, s):
                    yield LocalField(s, name, True)

    def method(
        self,
        context: Context,
        file: SourceFile,
        m: MethodDesign,
        listeners: list[Listener],
        fields: dict[Symbol, LocalField],
        able: list[Symbol],
    ) -> NewMethod:
        language, scope = context.language, class_scope(file, self.design.name)
        name = context.write.hidden(m.name) if m.hidden else m.name
        if name in names_of_members(file, scope) or inherits(context.program, file, scope, name):
            raise messages.MEMBER_THERE.at(file, scope.start, class_=self.design.name, name=name)
        for n in listeners:
            if why := why_not(file, language, n, fields, able):
                raise messages.LISTENER_STAYS.at(file, n.start, why=why)
        if not all(do_the_same(file, language, listeners[0], n) for n in listeners[1:]):
            raise messages.LISTENERS_DIFFER.at(file, listeners[0].start, name=m.name)
        return NewMethod(name, listeners, [s for s in captured(file, language, listeners[0]) if s not in fields])


def listener_at(file: SourceFile, language: Language, scope: Scope, place: str) -> Listener:
    """The listener at a place. Raises Refusal if none stands there."""
    found = next((n for n in listeners_in(file, language, scope) if place_of(file, n) == place), None)
    if found is None:
        raise messages.NO_HANDLER_HERE.in_file(file.path, where=place.removeprefix(f"{file.path}:"))
    return found


class NameListeners(Rewrite[ListenersToMethods]):
    """Classes that stand gain methods of the listeners in them."""

    def requests(self, state: State) -> Iterator[ListenersToMethods]:
        for c in [c for c in state.design.classes if has_listeners(c)]:
            yield ListenersToMethods(c)

    def design_after(self, state: State, step: ListenersToMethods, after: Program | None) -> Design:
        design = moved_design(state, after) if after is not None else copy.copy(state.design)
        for index, c in enumerate(design.classes):
            if c.name == step.design.name:
                left = [m for m in c.methods if not m.in_place]
                made = ClassDesign(c.name, c.role, c.file, c.base, existing=True, methods=left)
                design.classes = [*design.classes[:index], made, *design.classes[index + 1 :]]
        return design
