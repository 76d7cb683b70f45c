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

from dataclasses import dataclass, field

from ..design.tables import ClassDesign
from ..program.edits import Edits
from ..program.refusal import Refusal
from . import messages
from .rewrite import Context

ADVICE = "take 'extends' out of the design; the class then keeps it as a field"


@dataclass
class ExtendClass:
    design: ClassDesign
    needs: list[str] = field(default_factory=list)

    @property
    def id(self) -> str:
        return f"extend:{self.design.name}"

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
