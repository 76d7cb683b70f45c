"""Check a design against the program it was drafted from; every mistake at once, with its line."""

from __future__ import annotations

from ..analysis.regions.region import region_of
from ..design.lines import Lines
from ..design.tables import (
    ClassDesign,
    Design,
    FieldDesign,
    LiftDesign,
    MethodDesign,
    PartDesign,
    StreamDesign,
    bare,
    holder_of,
    key_of,
)
from ..program.errors import AedifexError
from ..program.keyed import Keyed
from ..program.line_ranges import range_of as lines_placed
from ..program.model import Problem, SourceFile
from ..program.near import perhaps
from ..program.program import Program
from ..rewrites.inject_console.streams import stream_kind
from ..rewrites.inline_main.opened import RUN, main_of
from ..rewrites.pipeline import UNFOLDING, prepare
from .wishes import wish_mistakes, wishes_placed


def validate(path: str, design: Design, lines: Lines, program: Program) -> list[Problem]:
    """Mistakes of meaning: names that do not exist, are used twice, or cannot be written."""
    design, program = as_opened(design, program)
    checker = DesignChecker(path, design, lines, program)
    checker.run()
    checker.found += wish_mistakes(program, wishes_placed(path, design, lines))
    return sorted(checker.found, key=lambda p: (p.line, p.message))


DONE = MethodDesign(RUN, [])  # says that the main code is opened, which it is by now


def as_opened(design: Design, program: Program) -> tuple[Design, Program]:
    """Design and program once main functions are inlined and handlers have names; a name of a function that is not inlined is a mistake."""
    mains = [(i, c.methods.index(m)) for i, c in enumerate(design.classes) if (m := main_of(c)) is not None]
    prepared = prepare(design, program, UNFOLDING)
    for i, at in mains:
        methods = prepared.design.classes[i].methods
        if len(methods) < len(design.classes[i].methods):
            methods.insert(at, DONE)
    return prepared.design, prepared.program


class DesignChecker:
    def __init__(self, path: str, design: Design, lines: Lines, program: Program) -> None:
        self.path, self.design, self.lines, self.program = path, design, lines, program
        self.write = program.language.write
        self.found: list[Problem] = []
        self.owners: dict[str, str] = {}
        self.objects = {o.name for c in design.classes for o in c.objects}
        self.collections = {o.collection for c in design.classes for o in c.objects if o.collection}  # lists to come
        self.streams = {s.name for s in design.streams}

    def report(self, line: int, message: str) -> None:
        self.found.append(Problem(self.path, line, message))

    def absent(self, line: int, origin: str) -> None:
        """Say of a name that no one file has it."""
        having = [f.path for f in self.program.files.values() if (x := f.scope.symbols.get(origin)) is not None and x.kinds]
        if len(having) > 1:
            self.report(line, f"'{origin}' is in {' and '.join(having)}; write {having[0]}::{origin}, or the other")
            return
        known = [n for f in self.program.files.values() for n, x in f.scope.symbols.items() if x.kinds]
        self.report(line, f"'{origin}' does not exist in the sources" + perhaps(bare(origin), known))

    def run(self) -> None:
        if self.design.language != self.program.language.name:
            self.report(
                self.lines.of("", key="language"), f"language '{self.design.language}' is not that of the sources"
            )
        for entry in self.design.entries:
            if entry not in self.design.sources:
                self.report(self.lines.of("", key="entries"), f"entry '{entry}' is not among the sources")
        if not self.design.entries:
            self.report(self.lines.of("", key="entries"), "'entries' names no source; write the one that people start")
        seen: set[str] = set()
        for index, c in enumerate(self.design.classes):
            line = self.lines.of("class", index, -1, "name")
            if c.name and not self.write.is_name(c.name):
                self.report(line, f"'{c.name}' cannot be the name of a class")
            elif c.name in self.program.language.builtins:
                self.report(line, f"'{c.name}' is a built-in of {self.program.language.name}; choose another name")
            if c.name in seen:
                self.report(line, f"class '{c.name}' is given twice")
            seen.add(c.name)
            self.check_class(index, c)
        for index, s in enumerate(self.design.stays):
            if s.name != "main" and bare(s.name) not in self.collections and not any(bare(s.name) in f.scope.symbols for f in self.program.files.values()):
                self.absent(self.lines.of("stay", index, -1, "name"), s.name)
        for index, stream in enumerate(self.design.streams):
            self.stream(index, stream)
        for index, part in enumerate(self.design.parts):
            self.part(index, part)
        for index, x in enumerate(self.design.lifts):
            if not self.write.is_name(x.name):
                self.report(self.lines.of("lift", index, -1, "name"), f"'{x.name}' cannot be the name of a method")
            if len(x.lines) != 1:
                self.report(self.lines.of("lift", index, -1, "lines"), f"method '{x.name}' comes from one stretch of lines")
            self.from_lines(self.lines.of("lift", index, -1, "lines"), MethodDesign(x.name, [], lines=x.lines))
            self.held_by(self.lines.of("lift", index, -1, "of"), x)
        for index, (old, new) in enumerate(self.design.renames):
            self.rename(self.lines.of("rename", index), old, new)

    def stream(self, index: int, s: StreamDesign) -> None:
        kind = stream_kind(s, self.program.language)
        if kind is None:
            self.report(self.lines.of("stream", index, -1, "from"), f"{' and '.join(s.origins) or 'nothing'} cannot be one stream")
        elif kind.classes and not self.write.is_name(s.class_):
            self.report(self.lines.of("stream", index, -1, "class"), f"stream '{s.name}' needs a class; give it a name with 'class'")
        if not self.write.is_name(s.name):
            self.report(self.lines.of("stream", index, -1, "name"), f"'{s.name}' cannot be the name of a stream")

    def part(self, index: int, p: PartDesign) -> None:
        line = self.lines.of("part", index, -1, "name")
        for name, what in ((p.name, "a class"), (p.object, "a member")):
            if not self.write.is_name(name):
                self.report(line, f"'{name}' cannot be the name of {what}")
        if not any(n == p.of for f in self.program.files.values() for _, n in f.classes):
            self.report(self.lines.of("part", index, -1, "of"), f"'{p.of}' is no class of the sources")
        told = [("field", n, f.name, f.origins) for n, f in enumerate(p.fields)] + [("method", n, m.name, m.origins) for n, m in enumerate(p.methods)]
        for kind, number, name, origins in told:
            if len(origins) != 1:
                self.report(self.lines.of(f"part.{kind}", index, number, "from"), f"{kind} '{name}' comes from one member of {p.of}")

    def rename(self, line: int, old: str, new: str) -> None:
        if old in self.program.texts:
            self.report(line, f"'{old}' is a file; rename it with 'aedifex step rename'")
        elif not self.write.is_name(new):
            self.report(line, f"'{new}' cannot be a name")
        elif "." not in bare(old) and self.file_of(old) is None:
            self.absent(line, old)

    def file_of(self, origin: str) -> SourceFile | None:
        """The file that defines an origin; None if none or several do."""
        if "::" in origin:
            found = [
                f for f in [self.program.files.get(origin.split("::")[0])] if f and bare(origin) in f.scope.symbols
            ]
        else:
            found = [
                f for f in self.program.files.values() if origin in f.scope.symbols and f.scope.symbols[origin].kinds
            ]
        return found[0] if len(found) == 1 else None

    def check_class(self, index: int, c: ClassDesign) -> None:
        members: set[str] = set()
        for number, f in enumerate(c.fields):
            self.check_field(index, number, c, f, members)
        for number, m in enumerate(c.methods):
            self.check_method(index, number, c, m, members)
        self.check_objects(index, c)
        if c.extends and c.extends not in {f.name for f in c.fields}:
            self.report(self.lines.of("class", index, -1, "extends"), f"'{c.extends}' is no field of {c.name}, so it cannot extend what that holds")
        if c.base:
            self.base(self.lines.of("class", index, -1, "base"), c)

    def check_field(self, index: int, number: int, c: ClassDesign, f: FieldDesign, members: set[str]) -> None:
        objects = max(1, len(c.objects))
        self.member_name(self.lines.of("class.field", index, number, "name"), f.name, members, f.hidden)
        line = self.lines.of("class.field", index, number, "from")
        if any(key_of(bare(o)) for o in f.origins) and f.start not in ("", "argument"):
            at = self.lines.of("class.field", index, number, "start")
            self.report(at, f"the records hand '{f.name}' to the constructor, so it starts as argument; leave 'start' and 'value' out")
        elif any(key_of(bare(o)) for o in f.origins) and f.value:
            self.report(self.lines.of("class.field", index, number, "value"), f"the records say themselves what '{f.name}' starts with; leave 'value' out")
        elif f.start == "argument" and f.value and any(f.origins):
            self.report(self.lines.of("class.field", index, number, "value"), f"'{f.name}' starts as argument, so each object's 'args' say with what; leave 'value' out")
        if any(key_of(bare(o)) for o in f.origins) and (f.shared or f.type):
            key = "shared" if f.shared else "type"
            self.report(self.lines.of("class.field", index, number, key), f"the records say all that there is to say of '{f.name}'; leave '{key}' out")
        if f.shared and (len(f.origins) != 1 or not f.origins[0]):
            self.report(line, f"field '{f.name}' is shared by all objects, so it comes from one variable")
        elif not f.shared and len(f.origins) != objects:
            self.report(
                line, f"field '{f.name}' comes from {len(f.origins)} variables, but there {'is 1 object' if objects == 1 else f'are {objects} objects'}; write as many, \"\" where an object has none"
            )
        for origin in f.origins:
            if origin:
                self.origin(line, origin, c.name, {"variable"})

    def check_method(self, index: int, number: int, c: ClassDesign, m: MethodDesign, members: set[str]) -> None:
        self.member_name(self.lines.of("class.method", index, number, "name"), m.name, members, m.hidden)
        line = self.lines.of("class.method", index, number, "from")
        if m is DONE:
            return
        if m.hidden and any(key_of(bare(o)) for f in c.fields for o in f.origins):
            self.report(self.lines.of("class.method", index, number, "hidden"), f"'{m.name}' is called by what holds the records, so it stays open; leave 'hidden' out")
        if m.lines:
            self.from_lines(self.lines.of("class.method", index, number, "lines"), m)
        elif not m.origins:
            self.report(line, f"method '{m.name}' comes from no function and no lines")
        if m.hook and not c.extends and not c.base:
            self.report(self.lines.of("class.method", index, number, "hook"), f"nothing calls '{m.name}' by its name, since {c.name} extends no class; leave 'hook' out")
        for origin in m.origins:
            self.origin(line, origin, c.name, {"function"})
        self.parameters(index, number, m.origins, m.drop)
        for add in m.add:
            if self.file_of(add["value"]) is None and add["value"] not in self.objects | self.collections | self.streams:
                self.absent(self.lines.of("class.method", index, number, "add"), add["value"])

    def from_lines(self, line: int, m: MethodDesign) -> None:
        if m.origins:
            self.report(line, f"method '{m.name}' comes from functions and from lines; take one of them out")
        for text in m.lines:
            try:
                place = lines_placed(text, self.program)
            except AedifexError as error:
                self.report(line, str(error).rstrip("."))
                continue
            region = region_of(place.file, self.program.language, place.start, place.end)
            if region is None:
                self.report(line, f"{text} cuts a statement in two; choose whole statements of one block, or one expression")
            elif region.ground.site is not None:
                self.report(line, f"{text} stands in a function inside another one; lift it there by 'aedifex step lift'")

    def held_by(self, line: int, x: LiftDesign) -> None:
        """The lines of a lift stand in the method that it says."""
        for text in x.lines:
            try:
                place = lines_placed(text, self.program)
            except AedifexError:
                continue  # told already
            region = region_of(place.file, self.program.language, place.start, place.end)
            f = region.function if region is not None else None
            if region is not None and (f is None or f"{f.outer.name}.{f.name}" != x.of):
                self.report(line, f"{text} is no part of a method '{x.of}'")

    def base(self, line: int, c: ClassDesign) -> None:
        """A base is what several classes of the design have in common."""
        if not self.write.is_name(c.base):
            self.report(line, f"'{c.base}' cannot be the name of a class")
        elif self.design.class_named(c.base) is not None:
            self.report(line, f"base '{c.base}' is a class of this design; a base is made of what its classes have in common")
        elif sum(o.base == c.base for o in self.design.classes) < 2:
            self.report(line, f"only {c.name} has the base '{c.base}'; name it in two classes at least")

    def check_objects(self, index: int, c: ClassDesign) -> None:
        if not c.objects and any(o and not key_of(bare(o)) for f in c.fields if not f.shared for o in f.origins):
            self.report(self.lines.of("class", index, -1, "name"), f"class '{c.name}' has no object; say with [[class.object]] what it is called")
        for number, o in enumerate(c.objects):
            line = self.lines.of("class.object", index, number, "name")
            if not self.write.is_name(o.name):
                self.report(line, f"'{o.name}' cannot be the name of an object")
            if o.owner and self.design.class_named(o.owner) is None:
                self.report(
                    self.lines.of("class.object", index, number, "owner"),
                    f"owner '{o.owner}' is not a class of this design",
                )
            if o.args and any(key_of(bare(x)) for f in c.fields for x in f.origins):
                self.report(self.lines.of("class.object", index, number, "args"), f"the records say with what each '{o.name}' is made; leave 'args' out")
            if o.collection:
                self.check_collection(self.lines.of("class.object", index, number, "collection"), c, o.collection)

    def check_collection(self, line: int, c: ClassDesign, name: str) -> None:
        origins = [bare(o) for f in c.fields for o in f.origins]
        if not self.write.is_name(name):
            self.report(line, f"'{name}' cannot be the name of a list")
        elif any(map(key_of, origins)):
            if self.file_of(name) is None:
                self.absent(line, name)
        elif len(c.objects) > 1:
            self.report(line, "objects that have a variable each are not kept in a list; leave 'collection' out")
        elif name not in origins and any(name in f.scope.symbols for f in self.program.files.values()):
            self.report(line, f"'{name}' is in use already; give the list another name")

    def member_name(self, line: int, name: str, members: set[str], hidden: bool) -> None:
        shown = self.write.hidden(name) if hidden else name
        if name and not self.write.is_name(name):
            self.report(line, f"'{name}' cannot be the name of a member")
        elif name and (name == self.write.CONSTRUCTOR or self.write.inherited(name)):
            self.report(line, f"'{name}' is called by the language itself; choose another name")
        elif shown in members:
            self.report(line, f"member '{name}' is given twice")
        members.add(shown)

    def origin(self, line: int, origin: str, owner: str, kinds: set[str]) -> None:
        if bare(origin) in self.collections | self.streams:
            return
        if key_of(bare(origin)):
            self.keyed_origin(line, origin)
            return
        file = self.file_of(origin)
        if file is None:
            self.absent(line, origin)
            return
        symbol = file.scope.symbols[bare(origin)]
        if not symbol.kinds & kinds:
            self.report(line, f"'{origin}' is no {next(iter(kinds))}")
        full = f"{file.path}::{bare(origin)}"
        if full in self.owners:
            self.report(line, f"'{origin}' already belongs to class {self.owners[full]}")
        self.owners[full] = owner

    def keyed_origin(self, line: int, origin: str) -> None:
        """A key of a record that a variable, or a list, holds."""
        holder = holder_of(origin)
        if (file := self.file_of(holder)) is None:
            self.absent(line, holder)
        elif not any(key_of(bare(origin)) in k.keys and holder_of(bare(origin)) in k.names for k in file_keyed(self.program, file)):
            self.report(line, f"'{holder}' holds no records with the key '{key_of(bare(origin))}'")

    def parameters(self, index: int, at: int, origins: list[str], drop: list[str]) -> None:
        for origin in origins[:1]:
            file = self.file_of(origin)
            function = file.function(bare(origin)) if file is not None else None
            for name in drop:
                if function is not None and name not in [p.name for p in function.params]:
                    self.report(
                        self.lines.of("class.method", index, at, "drop"), f"'{bare(origin)}' has no parameter '{name}'"
                    )


def file_keyed(program: Program, file: SourceFile) -> list[Keyed]:
    """The records of a file, followed once."""
    kept: dict[str, list[Keyed]] = program.memo.setdefault("keyed", {})
    if file.path not in kept:
        kept[file.path] = program.language.keyed(file)
    return kept[file.path]
