"""Give handlers that are written in place a name: their lines become a function, and what registered them names it.

page.on("click", (event) => {          function onPageClick(event) {
  count += 1;                            count += 1;
  show(event);                  →        show(event);
});                                    }
                                       page.on("click", onPageClick);
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ...design.tables import Design
from ...program.edits import Edits
from ...program.line_map import LineMap
from ...program.program import Program
from .. import messages
from ..by_hand import Asked, HandCommand
from ..rewrite import Rewrite, State
from ..step import Context, FileStep
from .handlers import at_place, handler_places, named_design, named_edits


@dataclass
class NameHandlers(FileStep):
    """``wanted``: the place of each (file:line:column) and its name."""

    kind = "handlers"
    wanted: list[tuple[str, str]]
    traced = True

    def title(self) -> str:
        return f"handlers in {self.path} get a name: {', '.join(name for _, name in self.wanted)}"

    def owner(self, design: Design) -> str:
        places = {place for place, _ in self.wanted}
        return next((c.name for c in design.classes for m in c.methods if places & {*map(str, m.origins)}), "")

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        found = []
        for place, name in self.wanted:
            handler = at_place(file, context.language, place, name)
            if handler is None:
                where = place.removeprefix(f"{self.path}:")
                raise messages.NO_HANDLER_HERE.in_file(self.path, where=where)
            found.append(handler)
        for edit in named_edits(file, context.language, found):
            out.replace(self.path, *edit)
        return out


def ask_handler(program: Program, place: str, name: str) -> Asked:
    path = place.split(":")[0]
    if path not in program.files:
        raise messages.NO_PLACE.in_file(place=place)
    return Asked(NameHandlers(path, [(place, name)]))


class NameInlineHandlers(Rewrite[NameHandlers]):
    """Methods that come from handlers written in place: these get a name first."""

    by_hand = (
        HandCommand(
            "handler", ("PLACE", "NAME"), "A handler written in place gets a name.",
            """Make the lines of a handler that is written in place a function NAME; what registers it names that.

            PLACE is file:line:column of the function as it is written in the call, both counted from one.""",
            "handler tramcanvas.js:93:38 onKeydown tramcanvas.js", "Named", ask_handler,
        ),
    )  # fmt: skip

    def requests(self, state: State) -> Iterator[NameHandlers]:
        for path, wanted in handler_places(state.design).items():
            yield NameHandlers(path, wanted)

    def design_after(self, state: State, step: NameHandlers, after: Program | None) -> Design:
        file, language = state.program.files.get(step.path), state.program.language
        if after is None or file is None:
            return state.design
        named = [n for place, name in step.wanted if (n := at_place(file, language, place, name)) is not None]
        return named_design(state.design, dict(step.wanted), LineMap(file, named_edits(file, language, named)))
