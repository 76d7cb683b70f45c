"""Open a long main function: its lines become the main code, and its variables those of the file.

def main():
    score = 0                        if __name__ == "__main__":
    while score < 3: ...      →          score = 0
                                         while score < 3: ...
if __name__ == "__main__":
    main()
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ...design.tables import Design
from ...program.edits import Edits
from ...program.program import Program
from .. import messages
from ..by_hand import Asked, HandCommand
from ..rewrite import Rewrite, State
from ..step import Context, Step, check_hazards
from .opened import announced, how, inlined, main_holder, main_of, opened_design
from .opening import Opening

ADVICE = "the function stays as it is"


@dataclass
class OpenMain(Step):
    """The lines of a main function become the main code."""

    kind = "open"
    path: str
    name: str
    traced = True

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        return f"what {self.name} holds becomes the program's own"

    def owner(self, design: Design) -> str:
        return next(
            (c.name for c in design.classes if (m := main_of(c)) is not None and m.origins[0].local == self.name), ""
        )

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        found = how(file, context.language, self.name)
        if found is None:
            raise messages.NO_MAIN_FUNCTION.in_file(file.path, name=self.name)
        if not isinstance(found, Opening):
            raise found.with_cure(ADVICE)
        check_hazards(context, file, {self.name}, ADVICE)
        if told := announced(context.program, file.path, self.name):
            raise messages.INSTALLED_COMMAND.in_file(told, name=self.name)
        for edit in found.edits:
            out.replace(file.path, *edit)
        return out


def ask_open(program: Program, name: str) -> Asked:
    path = main_holder(program, name)
    if not path:
        raise messages.NO_FUNCTION.in_file(name=name)
    return Asked(OpenMain(path, name))


class InlineMain(Rewrite[OpenMain]):
    """A long main function that is the app's ``run``."""

    by_hand = (
        HandCommand(
            "open",
            ("NAME",),
            "A long main function becomes the main code.",
            """Make the lines of the function NAME, with which the script starts, its main code.

            Its variables are the script's own then, so that they can become fields of objects. It must be called just
            once, by the main code.""",
            "open main ticketwindow.py",
            "Opened",
            ask_open,
        ),
    )

    def requests(self, state: State) -> Iterator[OpenMain]:
        for m in [m for c in state.design.classes if (m := main_of(c)) is not None]:
            name = m.origins[0].local
            yield OpenMain(main_holder(state.program, name) or state.design.entries[0], name)

    def design_after(self, state: State, step: OpenMain, after: Program | None) -> Design:
        o = inlined(state.program, step.path, state.program, step.name) if after is not None else None
        return opened_design(state.design, o) if o is not None else state.design
