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
from dataclasses import dataclass, field

from ...design.tables import Design, bare
from ...program.edits import Edits
from ...program.program import Program
from ...program.refusal import Refusal
from ...rewrites import messages
from ..rewrite import Context, Rewrite, State, check_hazards
from .opened import announced, how, inlined, main_holder, main_of, opened_design
from .opening import Opening

ADVICE = "the function stays as it is"


@dataclass
class OpenMain:
    path: str
    name: str
    traced = True
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None  # where it was tried already

    @property
    def id(self) -> str:
        return f"open:{self.name}"

    def title(self) -> str:
        return f"what {self.name} holds becomes the program's own"

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


class InlineMain(Rewrite[OpenMain]):
    """A long main function that is the app's ``run``."""

    def requests(self, state: State) -> Iterator[OpenMain]:
        for m in [m for c in state.design.classes if (m := main_of(c)) is not None]:
            name = bare(m.origins[0])
            yield OpenMain(main_holder(state.program, name) or state.design.entries[0], name)

    def design_after(self, state: State, step: OpenMain, after: Program | None) -> Design:
        o = inlined(state.program, step.path, state.program, step.name) if after is not None else None
        return opened_design(state.design, o) if o is not None else state.design
