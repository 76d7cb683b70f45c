"""What a person asks for as one step and takes several of a design: worked out as a small design of its own, all or nothing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from ..design.tables import ClassDesign, Design, WishDesign, bare
from ..planning.drafter import draft
from ..planning.wishes import Placed, unfulfilled, wish_mistakes
from ..program.errors import Refused
from ..program.program import Program
from ..rewrites.explicit_registration.rewrite import RegisterByCall
from ..rewrites.extract_base import ShareBase
from ..rewrites.order_methods import OrderMethods
from . import messages
from .by_hand import Single, changes_of, empty_design, exists_in_project, home_of, shown, single
from .sequence import run


@dataclass
class Several:
    id: str
    words: str

    def title(self) -> str:
        return self.words


def found(program: Program, name: str, members: list[str]) -> Single:
    """What making a class of variables and functions would change. Raises Refused with the reason if not all of them can be in it."""
    wish = WishDesign(list(members), name, kept_apart(program, members))
    asked = [Placed(wish, name)]
    if wrong := wish_mistakes(program, asked):
        raise Refused("\n".join(f"{p.message}." for p in wrong))
    design = draft(program, wishes=[wish], idea="asked")
    if lost := unfulfilled(design, asked):
        raise Refused("\n".join(f"{p.message}." for p in lost))
    design.classes = [c for c in design.classes if c.name == name]
    return through(program, without_files(design), Several(f"class:{name}", f"{', '.join(members)} become the class {name}"))


def kept_apart(program: Program, members: list[str]) -> list[str]:
    """All other functions, if some were asked for."""
    named = {bare(m) for m in members}
    functions = [n for f in program.files.values() for n, s in f.scope.symbols.items() if "function" in s.kinds]
    return [n for n in functions if n not in named] if named & {*functions} else []


def app(program: Program, name: str, fields: Sequence[str] = ()) -> Single:
    """What making a class of the main code would change. Raises Refused with the reason if it cannot be one.

    ``fields``: variables of the main code that are to be fields, though no function shares them.
    """
    if not program.language.write.is_name(name) or any(name in f.scope.symbols for f in program.files.values()):
        raise Refused(messages.NO_CLASS_NAME.in_file(name=name))
    wishes = [WishDesign(list(fields), name)] if fields else []
    asked = [Placed(w, name) for w in wishes]
    if wrong := wish_mistakes(program, asked):
        raise Refused("\n".join(f"{p.message}." for p in wrong))
    design = draft(program, wishes=wishes, idea="app")
    design.classes = [c for c in design.classes if c.role == "app"][:1]
    if not design.classes:
        why = next((s.why for s in design.stays if s.name == "main"), "no main code starts here")
        raise Refused(messages.NO_APP.in_file(why=why))
    design.classes[0].name = name
    if lost := unfulfilled(design, asked):
        raise Refused("\n".join(f"{p.message}." for p in lost))
    return through(program, without_files(design), Several(f"app:{name}", f"the main code becomes the class {name}"))


def move(program: Program, name: str, path: str) -> Single:
    """What giving a class a file of its own would change. Raises Refused with the reason if it cannot have one."""
    home = home_of(program, name)
    if path in program.holders and path != home:
        raise Refused(messages.PATH_EXISTS.in_file(path=path))
    design = empty_design(program)
    design.entries, design.classes = [home], [ClassDesign(name, "model", file=path)]
    return through(program, design, Several(f"file:{name}", f"class {name} moves to {path}"), home)


def order(program: Program, name: str) -> Single:
    """What putting the methods of a class in the order in which they are met would change. Raises Refused if nothing would."""
    return single(program, OrderMethods(home_of(program, name), [name]))


def register(program: Program, path: str) -> Single:
    """What registering functions by calls instead of decorations would change. Raises Refused if nothing would."""
    if path not in program.files:
        raise Refused(messages.NO_SCRIPT.in_file(path=path))
    return single(program, RegisterByCall(path))


def base(program: Program, name: str, classes: list[str]) -> Single:
    """What giving classes a common base would change. Raises Refused with the reason if they cannot have one."""
    if not program.language.write.is_name(name):
        raise Refused(messages.NO_CLASS_NAME.in_file(name=name))
    if len(set(classes)) < 2:
        raise Refused(messages.BASE_OF_ONE.in_file())
    homes = {c: home_of(program, c) for c in classes}
    return single(program, ShareBase(name, [ClassDesign(c, "model") for c in homes], []), homes=homes)


# -- a small design ------------------------------------------------------------------------------


def without_files(design: Design) -> Design:
    """The design with its classes in the file where their variables and functions stand."""
    for c in design.classes:
        c.file = ""
    design.streams, design.parts = [], []
    return design


def through(program: Program, design: Design, step: Several, home: str = "") -> Single:
    """Every step of the design; one that is refused refuses them all."""
    changes: dict[str, bytes | None] = {}
    homes = {c.name: home for c in design.classes} if home else None
    for outcome, _ in run(design, program, homes=homes, exists=partial(exists_in_project, program)):
        changes |= changes_of(outcome)
    return shown(program, step, changes)
