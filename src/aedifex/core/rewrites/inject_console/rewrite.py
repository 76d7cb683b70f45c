"""A conversation goes through a variable that holds the console, so that another can be handed in (C14).

name = input("Who? ")              class Console: ...
print("Hello", name)          →    console = Console()
                                   name = console.ask("Who? ")
                                   console.say("Hello", name)
"""

from __future__ import annotations

import copy
from collections.abc import Iterator
from dataclasses import dataclass, field

from ...design.tables import Design, StreamDesign
from ...naming.identifiers import taken_names
from ...program.edits import Edits
from ...program.program import Program
from ...program.refusal import Refusal
from ...rewrites import messages
from ..rewrite import Context, Rewrite, State, check_hazards
from .streams import standing_class, stream_edits, stream_kind

ADVICE = "take the stream out of the design"


@dataclass
class OpenStream:
    path: str
    stream: StreamDesign
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None  # where it was tried already

    @property
    def id(self) -> str:
        return f"stream:{self.stream.name}"

    def title(self) -> str:
        return f"{' and '.join(self.stream.origins)} {'go' if len(self.stream.origins) > 1 else 'goes'} through {self.stream.name}"

    def apply(self, context: Context) -> Edits:
        file, out, streams = context.file(self.path), Edits(), context.language.streams
        if streams is None:
            raise messages.NO_CONSOLE.in_file(file.path, language=context.language.name)
        if stream_kind(self.stream, context.language) is None:
            raise messages.NO_ONE_STREAM.in_file(file.path, words=' and '.join(self.stream.origins))
        if (trouble := streams.trouble(file)) is not None:
            raise messages.STREAM_STAYS.at(file, trouble[1], why=trouble[0])
        check_hazards(context, file, set(), ADVICE)
        for name in (self.stream.name, self.stream.class_):
            if name in taken_names(file, ()):
                raise messages.NAME_IN_USE.in_file(file.path, name=name)
        edits = stream_edits(file, context.language, self.stream)
        if not edits:
            raise messages.STREAM_UNUSED.in_file(file.path, words=' or '.join(self.stream.origins))
        for edit in edits:
            out.replace(file.path, *edit)
        return out


class InjectConsole(Rewrite[OpenStream]):
    def requests(self, state: State) -> Iterator[OpenStream]:
        for stream in state.design.streams:
            yield OpenStream(next((p for p in state.design.entries if p in state.program.files), ""), stream)

    def design_after(self, state: State, step: OpenStream, after: Program | None) -> Design:
        bones = standing_class(step.stream)
        if after is None or bones is None:
            return state.design
        design = copy.copy(state.design)
        design.classes = [bones, *design.classes]
        return design
