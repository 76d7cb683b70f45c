"""A conversation goes through an object that is handed in, so that a test can type and read (C14).

name = input("Who? ")                     class Console: ...
def greet():                              console = Console()
    print("Hello", name)          →       name = console.ask("Who? ")
                                          def greet():
                                              console.say("Hello", name)

Used by the draft, which then plans for the variable as for any other companion, and by the step that does it.
"""

from __future__ import annotations

from ..program.language import Language, reread
from ..program.model import Program, SourceFile
from ..program.streams import StreamUse
from .design import ClassDesign, StreamDesign, bare
from .records import Range, applied


def stream_of(file: SourceFile, language: Language, taken: set[str]) -> StreamDesign | None:
    """The console of a file that asks as well as tells; None if it does not, or no variable can stand for it."""
    streams = language.streams
    if streams is None or not streams.asks(file) or streams.trouble(file) is not None:
        return None
    used = {n for scope in file.scope.walk() for n in scope.symbols} | {r.name for r in file.references} | set(language.builtins) | taken
    found = streams.uses(file)
    name = next((n for n in streams.NAMES if n not in used), "")
    class_ = next((c for c in streams.CLASSES if c not in used), "")
    if not name or not found or (streams.CLASSES and not class_):
        return None
    asking, telling = lines(file, [u for u in found if u.asks]), lines(file, [u for u in found if not u.asks])
    said = f"asks in {counted(asking)} and tells in {counted(telling)}" if asking else f"tells in {counted(telling)}"
    origins = list(dict.fromkeys(u.origin for u in sorted(found, key=lambda u: not u.asks)))
    return StreamDesign(name, origins, class_, "", [f"the program {said}; a stream that is handed in lets a test type and read"])


def lines(file: SourceFile, found: list[StreamUse]) -> int:
    return len({file.line(u.start) for u in found})


def counted(number: int) -> str:
    return f"{number} line{'s' * (number != 1)}"


def stream_edits(file: SourceFile, language: Language, stream: StreamDesign) -> list[Range]:
    """What puts the variable in place of the language's own words; nothing where there are none."""
    assert language.streams is not None
    found = [u for u in language.streams.uses(file) if u.origin in stream.origins]
    edits = [(u.start, u.end, u.text.replace("{name}", stream.name)) for u in found]
    return [*language.streams.declared(file, stream.name, stream.class_, stream.origins), *edits] if edits else []


def with_stream(program: Program, path: str, stream: StreamDesign) -> Program:
    file = program.files[path]
    return reread(program, {path: applied(file.text, stream_edits(file, program.language, stream), file.encoding)})


def handed_in(classes: list[ClassDesign], stream: StreamDesign, language: Language) -> bool:
    """The app is made with the stream; whether it is the app's at all."""
    assert language.streams is not None
    value = language.streams.value(stream.class_)
    for c in classes:
        for f in c.fields:
            if c.role == "app" and f.origins == [stream.name] and len(c.objects) == 1:
                before = [g for g in c.fields[: c.fields.index(f)] if g.start == "argument"]
                if f.start != "argument":
                    f.start, f.value = "argument", ""
                    c.objects[0].args.insert(len(before), value)
                return True
    return False


def as_good(classes: list[ClassDesign], plain: list[ClassDesign]) -> bool:
    """Whether with the stream everything finds a home that finds one without it, and everything that does in its own file."""

    def homes(found: list[ClassDesign]) -> set[str]:
        members = [f.origins for c in found for f in c.fields] + [m.origins or m.lines for c in found for m in c.methods]
        return {bare(o) for origins in members for o in origins} | {f"{c.role} in a file" for c in found if c.file}

    return homes(plain) <= homes(classes)


def standing_class(stream: StreamDesign) -> ClassDesign | None:
    """The stream's class, which stands once the step is done and has only to move; None where there is none, or it stays."""
    return ClassDesign(stream.class_, "handle", stream.file) if stream.class_ and stream.file else None
