"""The design: the classes to come. Plain data; the file format is in ``designfile``."""

from __future__ import annotations

import copy
from collections.abc import Callable
from dataclasses import dataclass, field

ROLES = ("model", "service", "view", "controller", "app", "handle")
STARTS = ("argument", "fixed", "derived", "later")


@dataclass
class FieldDesign:
    name: str
    origins: list[str]  # the variables it replaces, in the order of the objects; "" where one has none
    start: str = ""  # argument | fixed | derived | later; "": as the source has it
    value: str = ""
    type: str = ""
    shared: bool = False
    hidden: bool = True
    wanted_hidden: bool = False  # whether the design says so, instead of leaving it open


@dataclass
class MethodDesign:
    name: str
    origins: list[str]  # the functions it replaces
    lines: list[str] = field(default_factory=list)
    drop: list[str] = field(default_factory=list)
    add: list[dict[str, str]] = field(default_factory=list)
    hidden: bool = False
    hook: bool = False
    told: list[str] = field(default_factory=list)  # its lines as the file of the design names them, where steps before them move these


def placed_anew(x: MethodDesign | LiftDesign, lines: Callable[[str], str]) -> None:
    """Say where its lines are once a step has moved them; ``told`` keeps how the design names them."""
    x.told, x.lines = x.told or list(x.lines), [lines(text) for text in x.lines]


@dataclass
class ObjectDesign:
    name: str
    args: list[str] = field(default_factory=list)
    owner: str = ""
    collection: str = ""


@dataclass
class ClassDesign:
    name: str
    role: str = "model"
    file: str = ""
    base: str = ""
    extends: str = ""  # the field whose place the object itself takes, because its class is one of a library that this one extends
    why: list[str] = field(default_factory=list)
    fields: list[FieldDesign] = field(default_factory=list)
    methods: list[MethodDesign] = field(default_factory=list)
    objects: list[ObjectDesign] = field(default_factory=list)

    def apart(self) -> ClassDesign:
        """The class without the fields that it keeps once for all objects."""
        if not any(f.shared for f in self.fields):
            return self
        made = copy.copy(self)
        made.fields = [f for f in self.fields if not f.shared]
        return made

    def origins(self, index: int) -> list[tuple[FieldDesign, str]]:
        """The fields of one object with the variable that each replaces."""
        return [(f, f.origins[index]) for f in self.fields if index < len(f.origins) and f.origins[index]]

    @property
    def source(self) -> str:
        """The file that its variables and functions come from; "" if they do not say."""
        for group in (self.fields, self.methods):
            for member in group:
                for origin in member.origins:
                    if "::" in origin:
                        return origin.split("::")[0]
        return next((text.split(":")[0] for m in self.methods for text in (*m.lines, *m.told)), "")


@dataclass
class StayDesign:
    name: str
    why: str
    file: str = ""


@dataclass
class PartDesign:
    """A class that is taken out of the class ``of``, which keeps an object of it as its member ``object``.

    ``keep``: members of ``of``, set once, that the part is given when it is made; all else that it needs is handed over at each call.
    """

    name: str
    of: str
    object: str
    role: str = "model"
    file: str = ""
    keep: list[str] = field(default_factory=list)
    why: list[str] = field(default_factory=list)
    fields: list[FieldDesign] = field(default_factory=list)
    methods: list[MethodDesign] = field(default_factory=list)


@dataclass
class LiftDesign:
    """Lines of the method ``of``, ``Class.method``, of a class that stands, that become a method beside it.

    ``told``: the lines in the sources, where steps before move them.
    """

    name: str
    of: str
    lines: list[str]
    why: list[str] = field(default_factory=list)
    told: list[str] = field(default_factory=list)


@dataclass
class StreamDesign:
    """The console as a variable. ``origins``: what the language calls that goes through it; ``class_``, ``file``: of its class, where it needs one."""

    name: str
    origins: list[str]
    class_: str = ""
    file: str = ""
    why: list[str] = field(default_factory=list)


@dataclass
class WishDesign:
    together: list[str] = field(default_factory=list)
    class_: str = ""
    keep: list[str] = field(default_factory=list)


@dataclass
class Design:
    language: str
    entries: list[str]
    sources: dict[str, str]
    classes: list[ClassDesign] = field(default_factory=list)
    stays: list[StayDesign] = field(default_factory=list)
    renames: list[tuple[str, str]] = field(default_factory=list)
    wishes: list[WishDesign] = field(default_factory=list)
    streams: list[StreamDesign] = field(default_factory=list)
    parts: list[PartDesign] = field(default_factory=list)
    lifts: list[LiftDesign] = field(default_factory=list)
    why_not: dict[str, str] = field(default_factory=dict)  # function → why it is no method; not in the file

    def maker_of(self, name: str) -> ClassDesign | None:
        """The class of the object of that name."""
        return next((c for c in self.classes if any(o.name == name for o in c.objects)), None)

    def class_named(self, name: str) -> ClassDesign | None:
        return next((c for c in self.classes if c.name == name), None)


def by_dependency(classes: list[ClassDesign]) -> list[ClassDesign]:
    """A class after those whose objects its methods are handed, as far as there is no circle; apps last: they import the others."""
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


def bare(origin: str) -> str:
    """``file.py::name`` or ``name`` → name."""
    return origin.rsplit("::", 1)[-1]


def key_of(origin: str) -> str:
    """``birds[x]`` → x; "" for what is no key of a record."""
    head, bracket, rest = origin.partition("[")
    return rest.removesuffix("]") if bracket and head and rest.endswith("]") else ""


def holder_of(origin: str) -> str:
    """``birds[x]`` → birds."""
    return origin.partition("[")[0]
