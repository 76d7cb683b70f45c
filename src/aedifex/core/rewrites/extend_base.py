"""A class extends the library's class whose object it held, so that the library calls its methods by their names (B11).

class App:                                            class App(pyglet.window.Window):
    def __init__(self):                                   def __init__(self):
        self._window = pyglet.window.Window(640, 480)         super().__init__(640, 480)
    def run(self):                                        def run(self):
        self._window.set_handler("on_draw", self.draw)        pyglet.app.run()
        pyglet.app.run()                          →       def on_draw(self):
    def draw(self):                                           self.clear()
        self._window.clear()
"""

from __future__ import annotations

from collections.abc import Iterator

from ..design.origin import Origin
from ..design.tables import ClassDesign, FieldDesign
from ..program.edits import Edits
from ..program.program import Program
from ..program.refusal import Refusal
from . import messages, mistakes
from .by_hand import Asked, HandCommand, home_of
from .design_check import DesignCheck
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step

ADVICE = "take 'extends' out of the design; the class then keeps it as a field"


class ExtendClass(ClassStep):
    """A class extends what its field held."""

    kind = "extend"

    def title(self) -> str:
        return f"{self.design.name} extends what it held as {self.design.extends}"

    def apply(self, context: Context) -> Edits:
        frameworks, out = context.language.frameworks, Edits()
        file = context.home(self.design)
        if frameworks is None:
            raise messages.NO_LIBRARY_CLASSES.in_file(file.path, language=context.language.name)
        told = next((f for f in self.design.fields if f.name == self.design.extends), None)
        name = self.design.extends if told is None or not told.hidden else context.write.hidden(self.design.extends)
        try:
            for edit in frameworks.extended(file, self.design.name, name).edits:
                out.replace(file.path, *edit)
        except Refusal as refusal:
            raise refusal.with_cure(messages.NO_LIBRARY_CLASSES.cure, "") from None
        return out


def ask_extend(program: Program, whole: str, member: str) -> Asked:
    path = home_of(program, whole)
    return Asked(
        ExtendClass(
            ClassDesign(
                whole, "app", extends=member, fields=[FieldDesign(member, [Origin(member, file=path)], hidden=False)]
            )
        )
    )


class ExtendBase(ClassRewrite):
    """Classes of the design that extend a class of a library."""

    by_hand = (
        HandCommand(
            "extend",
            ("CLASS", "MEMBER"),
            "A class extends the library's class that it holds.",
            """Make a CLASS extend the library's class of which its MEMBER holds an object.

            The library then calls its methods by their names, so they need not be registered any more. What the
            constructor made the object with
            goes to that of the library's class.""",
            "extend PanelApp window panel_app.py",
            "Changed",
            ask_extend,
        ),
    )

    def steps(self, building: Building) -> Iterator[Step]:
        if building.class_.extends:
            yield ExtendClass(building.plain, needs=building.ids_of(building.class_, "found", "main"))

    def check(self, check: DesignCheck) -> None:
        for index, c in enumerate(check.design.classes):
            if c.extends and c.extends not in {f.name for f in c.fields}:
                check.report(
                    check.lines.of("class", index, -1, "extends"),
                    mistakes.NO_FIELD_TO_EXTEND,
                    name=c.extends,
                    class_=c.name,
                )
