"""A conversation goes through a variable that holds the console, so that another can be handed in (C14).

name = input("Who? ")              class Console: ...
print("Hello", name)          →    console = Console()
                                   name = console.ask("Who? ")
                                   console.say("Hello", name)
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ...design.tables import StreamDesign
from ...naming.identifiers import taken_names
from ...program.edits import Edits
from ..rewrite import Context, Refusal, check_hazards, refuse_at
from .streams import kind_of, stream_edits

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
            raise Refusal(f"no console can be handed in in {context.language.name}", file.path, 0, ADVICE)
        if kind_of(self.stream, context.language) is None:
            raise Refusal(f"{' and '.join(self.stream.origins)} cannot be one stream", file.path, 0, ADVICE)
        if (trouble := streams.trouble(file)) is not None:
            raise refuse_at(file, trouble[1], trouble[0], ADVICE)
        check_hazards(context, file, set(), ADVICE)
        for name in (self.stream.name, self.stream.class_):
            if name in taken_names(file, ()):
                raise Refusal(f"'{name}' is in use already", file.path, 0, "choose another name in the design")
        edits = stream_edits(file, context.language, self.stream)
        if not edits:
            raise Refusal(f"nothing outside its classes uses {' or '.join(self.stream.origins)}", file.path, 0, ADVICE)
        for edit in edits:
            out.replace(file.path, *edit)
        return out
