"""Functions that are written where they are handed over, so that they have no name of their own."""

from __future__ import annotations

from dataclasses import dataclass, field

from .model import Function, Statement, Symbol


@dataclass
class Inline:
    """``start``, ``end``: the whole expression; ``opens``, ``closes``: what is between the braces of its body.
    ``params``: (name, type) of each.

    ``event``, ``control``: words for what it waits for and for what it is handed to. ``whole``: whether the name of a
    function could stand for it. ``says``: the one statement of a body that is an expression; "" where ``statements``
    stand in it; ``rows``: the parts of that expression, where nobody asks for its value and each can be a statement.
    """

    start: int
    end: int
    opens: int
    closes: int
    statements: list[Statement] = field(default_factory=list)
    params: list[tuple[str, str]] = field(default_factory=list)
    event: list[str] = field(default_factory=list)
    control: list[str] = field(default_factory=list)
    whole: bool = False
    says: str = ""
    rows: list[tuple[int, int]] = field(default_factory=list)


@dataclass
class Listener(Inline):
    """One that stands in a method of a class, so that it can be a method beside it.

    ``method``: the one in which it stands; ``own``: words of its name where the library has some for what happens;
    ``gives``: the type of what it gives, where types are written; ``function``: where it is a function with a name of
    its own, which then stands for it wherever it is handed over; ``made``: where it is a class with a name of its own,
    the expressions that make an object of that.
    """

    method: Function | None = None
    own: list[str] = field(default_factory=list)
    gives: str = ""
    function: Function | None = None
    made: list[tuple[int, int]] = field(default_factory=list)

    @property
    def stands_apart(self) -> bool:
        """Whether it has a name, so that it is not written where it is handed over."""
        return self.function is not None or bool(self.made)


@dataclass(frozen=True)
class LocalField:
    """A local variable, or a parameter, that becomes a field of the object. ``name``: as the field is written;
    ``there``: whether the class keeps it so already."""

    symbol: Symbol
    name: str
    there: bool = False

    @property
    def keeps(self) -> bool:
        """Whether it is a parameter that keeps its value, so that the constructor can go on saying what it was
        given."""
        return self.symbol.kinds == {"parameter"} and len(self.symbol.bindings) == 1
