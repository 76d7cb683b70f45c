"""Names: references, the symbols that they stand for, the scopes that own these, and functions. Shared by every
language."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any


class Role(StrEnum):
    """What a reference does with the name it stands for."""

    READ = "read"
    WRITE = "write"
    BOTH = "both"
    CALL = "call"
    DELETE = "delete"
    VALUE = "value"  # the bare name is handed on: an argument, a returned or an assigned value


WRITING = frozenset({Role.WRITE, Role.BOTH, Role.DELETE})


class Reference:
    """One use of one name at one place.

    ``form`` names the construct that binds the name where that limits how it can be rewritten
    ("loop", "except", "pattern", "walrus", "import", "definition", "parameter", "with", "unpack",
    "chain"), that shows its spelling ("spelled", as in a self-documenting format field), or that stands for
    a name and a value at once ("shorthand").
    ``member`` is the member taken from the name (``x.member``), ``mutates`` whether the value behind
    the name is changed in place.
    """

    __slots__ = ("deferred", "end", "form", "member", "mutates", "name", "role", "scope", "start", "symbol")

    def __init__(self, name: str, start: int, end: int, role: Role, scope: Scope, form: str = "") -> None:
        self.name = name
        self.start = start
        self.end = end
        self.role = role
        self.scope = scope
        self.symbol: Symbol | None = None
        self.form = form
        self.member = ""
        self.mutates = False
        self.deferred = False  # in an annotation that is not evaluated where it stands

    @property
    def writes(self) -> bool:
        return self.role in WRITING

    def __repr__(self) -> str:
        return f"<{self.role} {self.name} @{self.start}>"


@dataclass(slots=True, eq=False)
class Declaration:
    """A name listed in a statement that says which scope it belongs to (``global a, b``)."""

    name: str
    start: int
    end: int
    statement: tuple[int, int]
    scope: Scope
    symbol: Symbol | None = None


class Symbol:
    """A name in the scope that owns it, with all its references from anywhere in the file."""

    __slots__ = ("declarations", "kinds", "name", "references", "scope")

    def __init__(self, name: str, scope: Scope) -> None:
        self.name = name
        self.scope = scope
        self.references: list[Reference] = []
        self.declarations: list[Declaration] = []
        self.kinds: set[str] = set()  # variable, function, class, import, parameter, type

    @property
    def bindings(self) -> list[Reference]:
        return [r for r in self.references if r.writes]

    def __repr__(self) -> str:
        return f"<Symbol {self.name} in {self.scope.name}>"


class Scope:
    """A region with names of its own. ``kind``: module, function, lambda, class, comprehension, types, block.

    ``receiver``: by what name code directly in this scope, and in the scopes below it that have none of their own,
    reaches the object that it runs for; None where a scope has no say in it.
    """

    __slots__ = (
        "bases",
        "bound",
        "children",
        "end",
        "free",
        "function",
        "generator",
        "globals",
        "kind",
        "name",
        "nonlocals",
        "parameters",
        "parent",
        "receiver",
        "stars",
        "start",
        "symbols",
        "used",
    )  # fmt: skip

    def __init__(self, kind: str, name: str, parent: Scope | None, start: int, end: int) -> None:
        self.kind = kind
        self.name = name
        self.parent = parent
        self.start = start
        self.end = end
        self.symbols: dict[str, Symbol] = {}
        self.children: list[Scope] = []
        self.globals: set[str] = set()
        self.nonlocals: set[str] = set()
        self.parameters: list[str] = []
        self.bound: set[str] = set()
        self.used: set[str] = set()
        self.free: set[str] = set()
        self.function: Function | None = None
        self.stars: list[str] = []  # modules imported with a star
        self.generator = False
        self.bases = False  # a class with bases, or made by other than the usual means
        self.receiver: str | None = None
        if parent is not None:
            parent.children.append(self)

    def walk(self) -> Iterator[Scope]:
        """This scope and all below it, in the order of the source."""
        yield self
        for child in self.children:
            yield from child.walk()

    @property
    def frame(self) -> Scope:
        """The scope in whose run this one lies: itself, or what is around a block."""
        scope = self
        while scope.kind == "block" and scope.parent is not None:
            scope = scope.parent
        return scope

    def within(self, other: Scope) -> bool:
        scope: Scope | None = self
        while scope is not None:
            if scope is other:
                return True
            scope = scope.parent
        return False


@dataclass(slots=True)
class Parameter:
    """One parameter. ``kind``: plain, positional, keyword, star, doublestar."""

    name: str
    kind: str
    start: int
    end: int
    default: tuple[int, int] | None = None
    annotated: bool = False
    type: str = ""


@dataclass(slots=True, eq=False)
class Function:
    """A function or method definition; ``start`` includes its decorators."""

    name: str
    scope: Scope
    outer: Scope
    start: int
    end: int
    head: int  # where the definition proper starts, after decorators
    name_start: int
    name_end: int
    params: list[Parameter]
    params_start: int  # between the parentheses
    params_end: int
    body_start: int
    decorators: int = 0
    is_async: bool = False
    docstring: tuple[int, int] | None = None
    symbol: Symbol | None = None
    bound: bool = False  # whether the first parameter is the receiver
    node: Any = field(repr=False, default=None)

    @property
    def arguments(self) -> list[Parameter]:
        """The parameters that callers give a value."""
        return self.params[1:] if self.bound else self.params

    @property
    def key(self) -> str:
        names = [self.name]
        scope: Scope | None = self.outer
        while scope is not None and scope.parent is not None:
            if scope.kind != "block":
                names.append(scope.name)
            scope = scope.parent
        return ".".join(reversed(names))
