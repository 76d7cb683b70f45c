"""Records held in keyed tables become objects of a class (C15), and functions that are always handed one its methods.

birds = [{"x": 3, "name": "ada"}]         class Bird:
def move(bird): bird["x"] += 1      →         def __init__(self, x, name): ...
for bird in birds: move(bird)                 def move(self): self.x += 1
                                          birds = [Bird(3, "ada")]
                                          for bird in birds: bird.move()

Used by the draft, which goes on with the program as it is afterwards, and by the steps that do it.
"""

from __future__ import annotations

from ...analysis.hazards import by_text
from ...design.tables import ClassDesign
from ...program.edits import Range
from ...program.keyed import Keyed
from ...program.language import Language, NewField
from ...program.model import Call, Function, SourceFile
from ...program.program import Program
from ..parameter_to_receiver import ParameterCalls

MAX_UNNAMED_VALUES = 3  # values that an object is made with without naming them


def worth_a_class(file: SourceFile, found: Keyed) -> bool:
    """Whether records are more than one table of settings: there are several, or functions are handed one, and
    something is set."""
    several = bool(found.lists) or len(found.made) > 1
    return found.trouble is None and (several or bool(found.handed)) and any(written for _, _, _, written in found.uses)


def record_edits(
    file: SourceFile, language: Language, found: Keyed, class_: str, fields: dict[str, str]
) -> list[Range]:
    """The class, the objects, and each use of a key. ``fields``: key → field."""
    edits: list[Range] = [(start, end, f".{fields[key]}") for start, end, key, _ in found.uses]
    order = found.keys
    for made in found.made:
        named = (made.keys != order or len(order) > MAX_UNNAMED_VALUES) and bool(
            language.write.keyword_argument("a", "")
        )
        start, end = made.span
        head, tail = language.write.make(class_, ["\0"]).split("\0")
        left = (
            len(file.text[start + 1 : end]) - len(file.text[start + 1 : end].lstrip(b" "))
            if b"\n" not in file.text[start:end]
            else 0
        )
        right = (
            len(file.text[start : end - 1]) - len(file.text[start : end - 1].rstrip(b" "))
            if b"\n" not in file.text[start:end]
            else 0
        )
        edits += [(start, start + 1 + left, head), (end - 1 - right, end, tail)]
        edits += [(at, value[0], f"{key}=" if named else "") for key, at, value in made.pairs]
    if found.named is not None and found.named.name != class_:
        edits += [(r.start, r.end, class_) for r in found.named.references if not r.writes]
    return [*edits, *class_edits(file, language, found, class_, fields)]


def class_edits(file: SourceFile, language: Language, found: Keyed, class_: str, fields: dict[str, str]) -> list[Range]:
    """The class stands where the type of the records was written, if it can, else before the first statement that makes
    one of its objects."""
    write, unit = language.write, language.write.indent_unit(file)
    first = min(m.span[0] for m in found.made)
    statement = next(s for s in file.statements if s.start <= first < s.end)
    members = [NewField(fields[k], k, given=True, type=found.types.get(k, "")) for k in found.keys]
    text = write.class_text(file, unit, class_, "", members).rstrip("\n")
    if found.equal:
        text += "\n\n" + write.equality(unit, class_)
    edits = []
    if found.declared is not None:
        start, end = found.declared
        if start < statement.start:
            return [(start, end, write.with_newlines(text, write.newline(file)))]
        edits.append((write.comment_start(file, start), write.line_end(file, end), ""))
    at = write.blank_before(file, write.comment_start(file, statement.start))
    gap = "\n" * write.BLANKS
    return [
        *edits,
        (
            at,
            write.comment_start(file, statement.start),
            write.with_newlines(f"{gap if at else ''}{text}\n{gap}", write.newline(file)),
        ),
    ]


class Handed(ParameterCalls):
    """Functions that are handed a record at every call, in a file whose records are objects of ``class_`` by now."""

    def __init__(self, file: SourceFile, language: Language, class_: str) -> None:
        super().__init__(file, language)
        self.class_ = class_

    def why_not(self, f: Function, param: str) -> str:
        """ "" if a function can be a method of what it gets as ``param``, else why not."""
        file, language = self.file, self.language
        if f.symbol is None or f.symbol.kinds != {"function"} or f.symbol in self.effects.escaped or f.decorators:
            return f"'{f.name}' is used other than by calling it"
        if len(f.scope.symbols[param].bindings) > 1 or any(
            q.default and language.purity(file, q.default) != "literal" for q in f.params
        ):
            return f"'{param}' of '{f.name}' is set again, or a default is worked out where the function stands"
        if self.write.RECEIVER in {n for s in f.scope.walk() for n in s.symbols} or self.write.class_trouble(
            file, f.start, f.end
        ):
            return f"'{f.name}' cannot stand in a class"
        if list(by_text(file, language, f.start, f.end)) or (f.start and not file.text[: f.start].endswith(b"\n")):
            return f"'{f.name}' depends on where it stands"
        direct = self.effects.direct(f.start, f.end)
        classes = {s for s in file.scope.symbols.values() if "class" in s.kinds}
        reached = direct.names | {n for used in direct.uses - classes for n in self.effects.reach[used].names}
        if reached - self.constants:
            return f"'{f.name}' works with more than what it is passed"
        return next((why for c in file.calls_of(f.symbol) if (why := self.unreadable(f, c, param))), "")

    def unreadable(self, f: Function, call: Call, param: str) -> str:
        line, arg = self.file.shown(call.start), self.argument(f, call, param)
        if arg is None or f.start <= call.start < f.end:
            return f"line {line}: nothing tells what this call hands over"
        if not self.quiet_before(call, arg):
            return f"line {line}: something happens before the object is known"
        span = (arg.value_start, arg.end)
        inner = self.file.calls_within(*span)
        own = self.file.slice(*span) == self.write.RECEIVER
        if any(c.callee.symbol is f.symbol for c in inner) or not (own or self.write.has_members(self.file, span)):
            return f"line {line}: '{self.file.slice(*span)}' cannot be asked for a member"
        return ""

    def method_edits(self, f: Function, param: str, name: str, loose: bool) -> list[Range]:
        """The function becomes a method, what it was handed the receiver, each call asks the object."""
        inner = [(r.start, r.end, self.write.RECEIVER) for r in f.scope.symbols[param].references if not r.writes]
        return self.moved(f, param, name, self.class_, inner, loose)


def keyed_fields(program: Program, design: ClassDesign) -> dict[str, str]:
    """Key of the records → the field that it becomes, as it is written."""
    hide_ = program.language.write.hidden
    return {
        f.origins[0].key or f.name if f.origins else f.name: hide_(f.name) if f.hidden else f.name
        for f in design.fields
    }
