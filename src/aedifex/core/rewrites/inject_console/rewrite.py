"""A conversation goes through a variable that holds the console, so that another can be handed in (C14).

name = input("Who? ")              class Console: ...
print("Hello", name)          →    console = Console()
                                   name = console.ask("Who? ")
                                   console.say("Hello", name)
"""

from __future__ import annotations

import copy
from collections.abc import Iterator
from dataclasses import dataclass

from ...design.tables import Design, StreamDesign
from ...naming.identifiers import taken_names
from ...program.edits import Edits
from ...program.program import Program
from .. import messages, mistakes
from ..by_hand import Asked, HandCommand
from ..design_check import DesignCheck
from ..rewrite import Rewrite, State
from ..step import Context, Step, check_hazards
from .streams import standing_class, stream_edits, stream_for, stream_kind

ADVICE = "take the stream out of the design"


@dataclass
class OpenStream(Step):
    """What asks and tells goes through a variable."""

    kind = "stream"
    path: str
    stream: StreamDesign

    @property
    def subject(self) -> str:
        return self.stream.name

    def title(self) -> str:
        return (
            f"{' and '.join(self.stream.origins)} {'go' if len(self.stream.origins) > 1 else 'goes'} through "
            f"{self.stream.name}"
        )

    def apply(self, context: Context) -> Edits:
        file, out, streams = context.file(self.path), Edits(), context.language.streams
        if streams is None:
            raise messages.NO_CONSOLE.in_file(file.path, language=context.language.name)
        if stream_kind(self.stream, context.language) is None:
            raise messages.NO_ONE_STREAM.in_file(file.path, words=" and ".join(self.stream.origins))
        if (trouble := streams.trouble(file)) is not None:
            raise messages.STREAM_STAYS.at(file, trouble[1], why=trouble[0])
        check_hazards(context, file, set(), ADVICE)
        for name in (self.stream.name, self.stream.class_):
            if name in taken_names(file, ()):
                raise messages.NAME_IN_USE.in_file(file.path, name=name)
        edits = stream_edits(file, context.language, self.stream)
        if not edits:
            raise messages.STREAM_UNUSED.in_file(file.path, words=" or ".join(self.stream.origins))
        for edit in edits:
            out.replace(file.path, *edit)
        return out


def ask_stream(program: Program, word: str, name: str) -> Asked:
    if not program.language.write.is_name(name):
        raise messages.NO_NAME.in_file(name=name)
    for path, file in program.files.items():
        if (stream := stream_for(file, program.language, word, name)) is not None:
            return Asked(OpenStream(path, stream))
    raise messages.NO_CONSOLE_USE.in_file(word=word)


class InjectConsole(Rewrite[OpenStream]):
    """The streams of a design."""

    by_hand = (
        HandCommand(
            "stream",
            ("WORD", "NAME"),
            "The console becomes a variable that can be passed.",
            """Let the script ask and tell through a variable NAME, so that another console can stand in its place.

            WORD is what the script calls its console now: input or print, System.in or System.out, console,
            process.stdin or process.stdout.""",
            "stream print console fares.py",
            "Changed",
            ask_stream,
        ),
    )

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

    def check(self, check: DesignCheck) -> None:
        for index, s in enumerate(check.design.streams):
            kind = stream_kind(s, check.program.language)
            if kind is None:
                check.report(
                    check.lines.of("stream", index, -1, "from"),
                    mistakes.NO_ONE_STREAM,
                    words=" and ".join(s.origins) or "an empty list",
                )
            elif kind.classes and not check.write.is_name(s.class_):
                check.report(check.lines.of("stream", index, -1, "class"), mistakes.STREAM_NEEDS_CLASS, name=s.name)
            check.name(check.lines.of("stream", index, -1, "name"), s.name)
