"""The classes whose objects are kept in a list: what a draft proposes for lists with one index."""

from __future__ import annotations

from ..program.language import Language, reread
from ..program.model import Program, SourceFile, Symbol
from .design import ClassDesign, FieldDesign, ObjectDesign
from .names import class_name_for, free, stem_of, taken_names
from .records import Records, applied, collected, records
from .wording import plural, singular


def collect(program: Program, file: SourceFile, free_: set[Symbol], taken: set[str]) -> tuple[list[ClassDesign], Program]:
    """Classes for the lists of a file, and the program with them. ``free_``: variables that may be changed; ``taken``: names of classes."""
    made: list[ClassDesign] = []
    while found := records(file, program.language, free_):
        design = proposed(program, file, found[0], taken)
        program = collected_program(program, file, found[0], design)
        made.append(design)
        taken = taken | {design.name}
        file = program.files[file.path]
        names = {s.name for s in free_}
        free_ = {s for s in file.scope.symbols.values() if s.name in names}
    return made, program


def collected_program(program: Program, file: SourceFile, found: Records, design: ClassDesign) -> Program:
    edits = collection_edits(file, program.language, found, design)
    return reread(program, {file.path: applied(file.text, edits, file.encoding)})


def collection_edits(file: SourceFile, language: Language, found: Records, design: ClassDesign) -> list[tuple[int, int, str]]:
    """The edits by which the lists of a class become one."""
    obj = design.objects[0]
    fields = {origin.rsplit("::", 1)[-1]: f.name for f in design.fields for origin in f.origins}
    return collected(file, language, found, design.name, obj.name, obj.collection, fields)


def proposed(program: Program, file: SourceFile, found: Records, taken: set[str]) -> ClassDesign:
    """The class of what the lists hold: its name, its fields, what one object and all are called."""
    write = program.language.write
    used = taken_names(file, program.language.builtins) | taken
    users = [f.name for f in file.tops if any(f.start <= u.ref.start < f.end for s in found.lists for u in found.uses[s])]
    ones = [write.member_name([*write.words(s.name)[:-1], singular(write.words(s.name)[-1])], s.name) for s in found.lists]
    firsts = [write.member_name([singular(w) for w in write.words(n)], n) for n in ones]
    name = class_name_for(firsts, [write.member_name([singular(w) for w in write.words(n)], n) for n in users], write, used,
                          stem_of(write.module_of(file.path)) + "_item")  # fmt: skip
    words = [w.lower() for w in write.words(name)]
    like = next((s.name for s in found.lists if "_" in s.name.strip("_")), found.lists[0].name)
    item = free(write.member_name(words, like), used)
    collection = free(write.member_name([*words[:-1], plural(words[-1])], like), used | {item})
    design = ClassDesign(name, objects=[ObjectDesign(item, [], "", collection)])
    held: set[str] = set()
    for s, one in zip(found.lists, ones, strict=True):
        kept = [w for w in write.words(one) if singular(w.lower()) not in words] or write.words(one)
        short = write.member_name(kept, s.name)
        short = free(short if write.is_name(short) else one, held)
        held.add(short)
        design.fields.append(FieldDesign(short, [s.name], "argument", hidden=False))
    where = [file.shown(u.span[0]) for u in found.firsts]
    design.why.append(f"{found.named} (lines {', '.join(map(str, where))}) hold a part each of the same things: they are used with the same index"
                      + (f", and grow and shrink together at {len(found.together)} places" if found.together else ""))  # fmt: skip
    return design
