"""A program whose long main function is opened, and designs in the words of the source: ``main.score`` for a variable
of that function."""

from __future__ import annotations

import copy
import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from ...analysis.effects import Effects
from ...analysis.hazards import forbidding, hazards
from ...analysis.main_function import MAIN, main_function, named_main, waiting_main
from ...design.origin import Origin
from ...design.tables import ClassDesign, Design, LiftDesign, MethodDesign, StayDesign, WishDesign, placed_anew
from ...program.edits import applied
from ...program.language import Language
from ...program.model import SourceFile
from ...program.program import Program, reread
from ...program.refusal import Refusal
from .opening import Opening, opening
from .promote_locals import raised

ANNOUNCING = ("pyproject.toml", "setup.cfg", "setup.py")  # name a module and a function for each installed command
LONG = 25  # lines of a function that is opened for an object around a value alone
RUN = "run"  # the method of the app that the main code becomes


@dataclass
class Opened:
    """A program whose main function is its main code, and how that came about."""

    program: Program
    opening: Opening

    @property
    def path(self) -> str:
        return self.opening.file.path

    @property
    def name(self) -> str:
        assert self.opening.function is not None
        return self.opening.function.name

    def line(self, line: int) -> int:
        """The line of the source where a line of the opened program was."""
        return self.opening.source(line)


def inlined(program: Program, path: str, outsiders: Program, name: str = "") -> Opened | None:
    """The program with the long main function of a file opened; None if it has none, or it cannot be."""
    found = how(program.files[path], program.language, name)
    if (
        not isinstance(found, Opening)
        or found.function is None
        or forbidding(hazards(program, path, outsiders), {found.function.name}) is not None
    ):
        return None
    if announced(program, path, found.function.name):
        return None
    file = found.file
    after = reread(program, {path: applied(file.text, found.edits, file.encoding)})
    return Opened(after, found) if not after.files[path].problems else None


def announced(program: Program, path: str, name: str) -> str:
    """The file beside or above the program that names a function as what an installed command calls; "" if there is
    none."""
    word = re.compile(rf"\b{re.escape(program.language.write.module_of(path))}\s*:\s*{re.escape(name)}\b")
    root = Path(program.root).absolute()
    for folder in (root, *list(root.parents)[:2]):
        for told in ANNOUNCING:
            try:
                if word.search((folder / told).read_text("utf-8", "replace")):
                    return told
            except OSError:
                continue
    return ""


def closed_main(program: Program, path: str) -> StayDesign | None:
    """A long main function that is not opened, with the reason; None if there is none."""
    file, language = program.files[path], program.language
    effects = Effects(file, language)
    f = main_function(file, effects, language) if language.code_at_top else None
    if f is None and (waiting := waiting_main(file, effects, language)) is not None:
        return StayDesign(
            MAIN,
            f"what it holds stays its own: line {file.shown(waiting.start)}: it runs only once the page is there; "
            "where the script stands at the end of the page, take these lines out of it",
        )
    found = how(file, language) if f is not None else None
    if f is None or found is None:
        return None
    if isinstance(found, Opening):
        told = announced(program, path, f.name)
        return (
            StayDesign(f.name, f"what it holds stays its own: {told} names it as what an installed command calls")
            if told
            else None
        )
    return StayDesign(f.name, f"what it holds stays its own: line {found.line}: {found.sentence}")


def main_holder(program: Program, name: str) -> str:
    """The file whose long main function is called so; "" if there is none."""
    language = program.language
    return next(
        (f.path for f in program.files.values() if named_main(f, Effects(f, language), language, name) is not None), ""
    )


def how(file: SourceFile, language: Language, name: str = "") -> Opening | Refusal | None:
    """How what a long main function holds becomes the program's own, in the way of the language."""
    return opening(file, language, name) if language.code_at_top else raised(file, language, name)


def main_of(c: ClassDesign) -> MethodDesign | None:
    """The method of an app that says which function is the main code."""
    return next(
        (m for m in c.methods if c.role == "app" and m.name == RUN and len(m.origins) == 1 and not m.lines), None
    )


def worth_inlining(classes: list[ClassDesign], o: Opened) -> bool:
    """Whether the classes need what the function holds."""
    app = any(c.role == "app" for c in classes)
    names = set(o.opening.names)
    wrapped = {origin for c in classes for origin in c.wraps}
    needed = {origin for c in classes for f in c.fields for origin in f.origins} - wrapped
    if o.opening.body[1] - o.opening.body[0] >= LONG:
        needed |= wrapped
    held = any(origin.local in names for origin in needed)
    return app and (
        held or any(o.opening.holds(o.opening.back(text)) for c in classes for m in c.methods for text in m.lines)
    )


def closed(classes: list[ClassDesign], stays: list[StayDesign], lifts: list[LiftDesign], o: Opened) -> None:
    """Say classes, stays and lifts of the opened program in the words of the source."""
    names = set(o.opening.names)

    def said(origin: Origin) -> Origin:
        return origin.in_holder(o.name) if origin.variable in names else origin

    for c in classes:
        renamed(c, said, o.opening.back)
        if c.role == "app":
            c.methods.insert(0, MethodDesign(RUN, [Origin(o.name)]))
    for s in stays:
        s.name = str(said(Origin.parse(s.name)))
    for x in lifts:
        placed_anew(x, o.opening.back)


def renamed(c: ClassDesign, name: Callable[[Origin], Origin], lines: Callable[[str], str]) -> None:
    """Let a class speak of its origins by other names and of its lines at other places."""
    for f in c.fields:
        f.origins = [name(x) for x in f.origins]
    c.wraps = [name(x) for x in c.wraps]
    for m in c.methods:
        m.origins = [name(x) for x in m.origins]
        placed_anew(m, lines)


def inlined_names(o: Opened) -> Callable[[Origin], Origin]:
    """Names of the source, ``main.score``, as they are once it is opened."""
    names = set(o.opening.names)

    def said(origin: Origin) -> Origin:
        return origin.in_holder("") if origin.holder == o.name and origin.name in names else origin

    return said


def wished(wishes: list[WishDesign], o: Opened) -> list[WishDesign]:
    """Wishes as they speak of the opened program."""
    said = inlined_names(o)
    return [w.speaking(said) for w in wishes]


def opened_design(design: Design, o: Opened) -> Design:
    """A design as it speaks of the opened program; the method that said so is done with."""
    design = copy.deepcopy(design)
    for c in design.classes:
        mine = main_of(c)
        if mine is not None and mine.origins[0].local == o.name:
            c.methods.remove(mine)
            c.opened = [o.name, o.opening.called] if o.opening.called else []
        renamed(c, inlined_names(o), o.opening.forward)
    for x in design.lifts:
        placed_anew(x, o.opening.forward)
    for s in design.stays:
        s.name = str(inlined_names(o)(Origin.parse(s.name)))
    design.wishes = wished(design.wishes, o)
    return design
