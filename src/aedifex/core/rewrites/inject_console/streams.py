"""A conversation goes through an object that is handed in, so that a test can type and read (C14).

name = input("Who? ")                     class Console: ...
def greet():                              console = Console()
    print("Hello", name)          →       name = console.ask("Who? ")
                                          def greet():
                                              console.say("Hello", name)

Used by the draft, which then plans for the variable as for any other companion, and by the step that does it.
"""

from __future__ import annotations

from collections.abc import Sequence

from ...design.origin import Origin
from ...design.tables import ClassDesign, StreamDesign
from ...naming.identifiers import taken_names
from ...program.edits import Range, applied
from ...program.language import Language
from ...program.model import SourceFile
from ...program.program import Program, reread
from ...program.streams import StreamKind, StreamUse


def streams_of(file: SourceFile, language: Language, taken: set[str]) -> list[StreamDesign]:
    """The console of a file that asks as well as tells; none if it does not, or no variable can stand for it."""
    streams = language.streams
    if streams is None or streams.trouble(file) is not None:
        return []
    found = streams.uses(file)
    if not any(u.asks for u in found):
        return []
    used = taken_names(file, language.builtins) | taken
    made = [
        of_kind(
            file,
            kind,
            [u for u in found if u.origin in kind.origins],
            next((n for n in kind.names if n not in used), ""),
            used,
        )
        for kind in streams.KINDS
    ]
    return [d for d in made if d is not None]


def stream_for(file: SourceFile, language: Language, word: str, name: str) -> StreamDesign | None:
    """The stream that a word of the language names, as a variable of a name; None if the file does not use it so."""
    streams = language.streams
    kind = next((k for k in streams.KINDS if word in k.origins), None) if streams is not None else None
    return (
        of_kind(file, kind, [u for u in streams.uses(file) if u.origin in kind.origins], name, taken_names(file, ()))
        if streams is not None and kind is not None
        else None
    )


def of_kind(
    file: SourceFile, kind: StreamKind, found: list[StreamUse], name: str, used: set[str]
) -> StreamDesign | None:
    class_ = next((c for c in kind.classes if c not in used), "")
    if not found or not name or (kind.classes and not class_):
        return None
    origins = [o for o in kind.origins if any(u.origin == o for u in found)]
    return StreamDesign(
        name,
        origins,
        class_,
        "",
        [f"the program {usage_words(file, found)}; a stream that is passed in lets a test type and read"],
    )


def usage_words(file: SourceFile, found: list[StreamUse]) -> str:
    asking, telling = (
        lines_in_use(file, [u for u in found if u.asks]),
        lines_in_use(file, [u for u in found if not u.asks]),
    )
    return " and ".join(f"{verb} in {count_of_lines(n)}" for verb, n in (("asks", asking), ("tells", telling)) if n)


def stream_kind(stream: StreamDesign, language: Language) -> StreamKind | None:
    """What a stream stands for; None if it is no one thing that the language knows."""
    kinds = language.streams.KINDS if language.streams is not None else ()
    return next((k for k in kinds if stream.origins and set(stream.origins) <= set(k.origins)), None)


def lines_in_use(file: SourceFile, found: list[StreamUse]) -> int:
    return len({file.line(u.start) for u in found})


def count_of_lines(number: int) -> str:
    return f"{number} line{'s' * (number != 1)}"


def stream_edits(file: SourceFile, language: Language, stream: StreamDesign) -> list[Range]:
    """What puts the variable in place of the language's own words; nothing where there are none."""
    kind = stream_kind(stream, language)
    if language.streams is None or kind is None:
        return []
    found = [u for u in language.streams.uses(file) if u.origin in stream.origins]
    edits = [(u.start, u.end, u.text.replace("{name}", stream.name)) for u in found]
    return [*language.streams.declared(file, kind, stream.name, stream.class_, stream.origins), *edits] if edits else []


def with_streams(program: Program, path: str, streams: Sequence[StreamDesign]) -> Program:
    """The program with the console as a variable of a file."""
    for stream in streams:
        file = program.files[path]
        program = reread(
            program, {path: applied(file.text, stream_edits(file, program.language, stream), file.encoding)}
        )
    return program


def handed_in(classes: list[ClassDesign], streams: Sequence[StreamDesign], language: Language) -> bool:
    """The app is made with the streams; whether they are the app's at all."""
    app = next((c for c in classes if c.role == "app" and len(c.objects) == 1), None)
    for stream in streams:
        f = next((f for f in app.fields if f.origins == [Origin(stream.name)]), None) if app is not None else None
        kind = stream_kind(stream, language)
        if app is None or f is None or kind is None:
            return False
        if f.start != "argument":
            before = [g for g in app.fields[: app.fields.index(f)] if g.start == "argument"]
            f.start, f.value = "argument", ""
            app.objects[0].args.insert(len(before), kind.value.replace("{class}", stream.class_))
    return True


def as_good(classes: list[ClassDesign], plain: list[ClassDesign]) -> bool:
    """Whether with the stream everything finds a home that finds one without it, what is about a value in the class
    that wraps it, and everything that does in its own file."""

    def homes(found: list[ClassDesign]) -> set[str]:
        origins = [o for c in found for x in (c.fields, c.methods) for member in x for o in member.origins]
        return {o.local for o in origins} | {text for c in found for m in c.methods for text in m.lines}

    def about_values(found: list[ClassDesign]) -> set[tuple[str, str]]:
        return {(c.name, o.local) for c in found if c.wraps for m in c.methods for o in m.origins}

    if not about_values(plain) <= about_values(classes):
        return False
    return homes(plain) <= homes(classes) and sum(bool(c.file) for c in plain) <= sum(bool(c.file) for c in classes)


def standing_class(stream: StreamDesign) -> ClassDesign | None:
    """The stream's class, which stands once the step is done and has only to move; None where there is none, or it
    stays."""
    return ClassDesign(stream.class_, "handle", stream.file) if stream.class_ and stream.file else None
