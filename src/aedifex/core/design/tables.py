"""The design: the classes to come. One dataclass a table; reading, writing, mistakes and the JSON Schema follow from it
(``schema``)."""

from __future__ import annotations

import copy
from collections.abc import Callable
from dataclasses import dataclass, field

from .keys import digests, flag, rows, text, texts
from .origin import Origin

ROLES = ("model", "service", "view", "controller", "app", "handle")
STARTS = ("argument", "fixed", "derived", "later")


@dataclass
class FieldDesign:
    """A field, and the variables of which it takes the place."""

    name: str = text("the field, without what the language does to hide it", needed=True)
    origins: list[Origin] = texts(
        'the variables it replaces, in the order of the objects; "" where one has none',
        name="from",
        speaks="origin",
    )
    start: str = text("how it gets its first value; left out: as the source has it", choices=STARTS)
    value: str = text("the expression, where it is fixed or derived, or the default", speaks="expression")
    type: str = text("where the language writes types and it cannot be inferred")
    shared: bool = flag("one for the class instead of one for each object", default=False)
    hidden: bool = flag("whether only the class uses it", default=True, said="wanted_hidden")
    wanted_hidden: bool = False  # whether the design says so, instead of leaving it open


@dataclass
class MethodDesign:
    """A method, and the functions or lines of which it takes the place."""

    name: str = text("the method", needed=True)
    origins: list[Origin] = texts(
        "the functions it replaces, twins all of them; or file.py:line:column of a handler written in place",
        name="from",
        speaks="origin",
    )
    lines: list[str] = texts("or lines of a longer function, or of the main code: file.py:88-104", speaks="lines")
    drop: list[str] = texts("parameters that the object knows by now", speaks="parameter")
    add: list[dict[str, str]] = texts(
        "what callers pass in: name of the parameter, and the value that they pass",
        entries=("name", "value"),
        speaks="argument",
    )
    hidden: bool = flag("whether only the class calls it", default=False)
    hook: bool = flag("called by a library under exactly this name", default=False)
    told: list[str] = field(
        default_factory=list
    )  # its lines as the file of the design names them, where steps before them move these

    @property
    def in_place(self) -> bool:
        """Whether it comes from a function without a name, told by its place."""
        return any(o.place for o in self.origins)


def placed_anew(x: MethodDesign | LiftDesign, lines: Callable[[str], str]) -> None:
    """Say where its lines are once a step has moved them; ``told`` keeps how the design names them."""
    x.told, x.lines = x.told or list(x.lines), [lines(text) for text in x.lines]


@dataclass
class ObjectDesign:
    """An object, and the variable that holds it."""

    name: str = text("the variable that holds it", needed=True)
    args: list[str] = texts("what the constructor is given, as the source writes it", speaks="expression")
    owner: str = text("the class that keeps it; left out: the entry")
    collection: str = text("the list in which it is kept")


@dataclass
class ClassDesign:
    """A class to come: its fields, methods and objects."""

    name: str = text("the class", needed=True)
    role: str = text("what it is for", default="model", choices=ROLES)
    file: str = text("its own file; left out: it stays where it is")
    base: str = text("a base that several classes of this design share")
    set_up: bool = flag("whether its constructor does what the main code does before its loop", default=False)
    branches: list[str] = texts("methods of its owner for what that does with one object or another in like branches")
    existing: bool = flag("whether the class stands already, and only gains these members", default=False)
    wraps: list[Origin] = texts(
        "variables and parameters that hold an object of it from then on, and not the bare value", speaks="origin"
    )
    kept_in: str = text("the list in which all its objects are kept, instead of a variable each")
    extends: str = text("the field whose library class this one extends; the object takes its place")
    why: list[str] = texts("reasons; for readers only")
    fields: list[FieldDesign] = rows(FieldDesign, "field")
    methods: list[MethodDesign] = rows(MethodDesign, "method")
    objects: list[ObjectDesign] = rows(ObjectDesign, "object")
    opened: list[str] = field(
        default_factory=list
    )  # the function that its main code was, and the statement that called it, where nothing else did

    def apart(self) -> ClassDesign:
        """The class without the fields that it keeps once for all objects."""
        if not any(f.shared for f in self.fields):
            return self
        made = copy.copy(self)
        made.fields = [f for f in self.fields if not f.shared]
        return made

    def origins(self, index: int) -> list[tuple[FieldDesign, Origin]]:
        """The fields of one object with the variable that each replaces."""
        return [(f, f.origins[index]) for f in self.fields if index < len(f.origins) and f.origins[index]]

    @property
    def source(self) -> str:
        """The file that its variables and functions come from; "" if they do not say."""
        for group in (self.fields, self.methods):
            for member in group:
                for origin in member.origins:
                    if origin.file and not origin.place:
                        return origin.file
        if any(o.file for o in self.wraps):
            return next(o.file for o in self.wraps if o.file)
        lines = [text.split(":")[0] for m in self.methods for text in (*m.lines, *m.told)]
        return next(iter([*lines, *(o.file for m in self.methods for o in m.origins if o.place)]), "")


@dataclass
class StayDesign:
    """A name that stays, with the reason."""

    name: str = text("a variable or function that stays", needed=True, speaks="origin")
    why: str = text("the reason; for readers only")
    file: str = text("where it ends up, if it moves with its readers")


@dataclass
class RenameDesign:
    """A name that changes."""

    old: Origin = text("file.py::function.local, or file.py::name", name="from", needed=True, speaks="origin")
    new: str = text("the new name", name="to", needed=True)


@dataclass
class PartDesign:
    """A class that is taken out of the class ``of``, which keeps an object of it as its member ``object``.

    ``keep``: members of ``of``, set once, that the part is given when it is made; all else that it needs is handed over
    at each call.
    """

    name: str = text("the extracted class", needed=True)
    of: str = text("the class it is taken out of", needed=True, speaks="owner")
    object: str = text("the member that keeps it there", needed=True)
    role: str = text("what it is for", default="model", choices=ROLES)
    file: str = text("its own file; left out: it stays where it is")
    keep: list[str] = texts("members of that class, set once, that it is given when it is constructed", speaks="member")
    why: list[str] = texts("reasons; for readers only")
    fields: list[FieldDesign] = rows(FieldDesign, "field", only=("name", "from", "hidden"))
    methods: list[MethodDesign] = rows(MethodDesign, "method", only=("name", "from", "hidden"), required=("from",))


@dataclass
class LiftDesign:
    """Lines of the method ``of``, ``Class.method``, of a class that stands, that become a method beside it.

    ``told``: the lines in the sources, where steps before move them.
    """

    name: str = text("the new method", needed=True)
    of: str = text("Class.method whose lines they are", needed=True, speaks="owner")
    lines: list[str] = texts("file.py:88-104", needed=True, speaks="lines")
    why: list[str] = texts("reasons; for readers only")
    told: list[str] = field(default_factory=list)


@dataclass
class StreamDesign:
    """The console as a variable. ``origins``: what the language calls that goes through it; ``class_``, ``file``: of
    its class, where it needs one."""

    name: str = text("the variable", needed=True)
    origins: list[str] = texts("what the language calls that goes through it", name="from", needed=True)
    class_: str = text("its class, where it needs one", name="class")
    file: str = text("the file of that class")
    why: list[str] = texts("reasons; for readers only")


@dataclass
class ConstantDesign:
    """A literal that gets a name at the top of its file."""

    name: str = text("the constant", needed=True)
    origins: list[Origin] = texts(
        "where the literal stands: file.py:line:column of each place", name="from", needed=True, speaks="origin"
    )


NAMING = ("together", "keep", "arguments", "fixed")  # the keys of a wish that speak of names


@dataclass
class WishDesign:
    """What a person wants: what is in one class, what stays, what a constructor is given, how objects are kept."""

    together: list[Origin] = texts("variables and functions that are to be in one class", speaks="origin")
    class_: str = text("the name of that class", name="class")
    keep: list[Origin] = texts("names that are to stay as they are", speaks="origin")
    arguments: list[Origin] = texts("variables whose first values a constructor is to be given", speaks="origin")
    fixed: list[Origin] = texts("variables whose first values a constructor is to set by itself", speaks="origin")
    collect: list[str] = texts("classes whose objects are to be kept in a list")
    separate: list[str] = texts("classes whose objects are to have a variable each")
    app: str = text("the name of the class that owns the others and runs the main code")

    @property
    def names(self) -> list[Origin]:
        """All that it speaks of."""
        return [n for key in NAMING for n in getattr(self, key)]

    def speaking(self, name: Callable[[Origin], Origin]) -> WishDesign:
        """The same wish with each name as ``name`` has it."""
        found = copy.copy(self)
        for key in NAMING:
            setattr(found, key, [name(n) for n in getattr(self, key)])
        return found


@dataclass
class Design:
    """The whole file."""

    language: str = text("of the sources", needed=True)
    entries: list[str] = texts("what people start; these never move", needed=True, speaks="file")
    sources: dict[str, str] = digests("the files and their digests, as drafted", needed=True)
    classes: list[ClassDesign] = rows(ClassDesign, "class")
    lifts: list[LiftDesign] = rows(LiftDesign, "lift")
    parts: list[PartDesign] = rows(PartDesign, "part")
    streams: list[StreamDesign] = rows(StreamDesign, "stream")
    constants: list[ConstantDesign] = rows(ConstantDesign, "constant")
    renames: list[RenameDesign] = rows(RenameDesign, "rename")
    stays: list[StayDesign] = rows(StayDesign, "stay")
    wishes: list[WishDesign] = rows(WishDesign, "wish")
    why_not: dict[str, str] = field(default_factory=dict)  # function → why it is no method; not in the file

    def maker_of(self, name: str) -> ClassDesign | None:
        """The class of the object of that name."""
        return next((c for c in self.classes if any(o.name == name for o in c.objects)), None)

    def class_named(self, name: str) -> ClassDesign | None:
        return next((c for c in self.classes if c.name == name), None)


def by_dependency(classes: list[ClassDesign]) -> list[ClassDesign]:
    """A class after those whose objects its methods are handed, as far as there is no circle; apps last: they import
    the others."""
    found: list[ClassDesign] = []

    def visit(c: ClassDesign, path: tuple[ClassDesign, ...]) -> None:
        if any(c is x for x in (*found, *path)):
            return
        for value in [a["value"] for m in c.methods for a in m.add]:
            maker = next((other for other in classes if any(o.name == value for o in other.objects)), None)
            if maker is not None:
                visit(maker, (*path, c))
        found.append(c)

    for c in classes:
        visit(c, ())
    return sorted(found, key=lambda c: c.role == "app")
