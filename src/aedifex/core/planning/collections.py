"""The classes whose objects are kept in a list: what a draft proposes for lists with one index."""

from __future__ import annotations

import copy
import re
from collections.abc import Callable, Iterable

from ..analysis.array_fill import filling, has_size
from ..analysis.parallel_arrays import records
from ..design.tables import ClassDesign, FieldDesign, MethodDesign, ObjectDesign
from ..naming.identifiers import class_name_for, file_stem, free, member_names, taken_names
from ..naming.inflection import plural, singular
from ..program.edits import Range, applied
from ..program.keyed import Keyed
from ..program.lists import Records
from ..program.model import SourceFile, Symbol
from ..program.program import Program, reread
from ..rewrites.list_of_objects.indexed_methods import Items
from ..rewrites.list_of_objects.text import collection_edits, loops
from ..rewrites.parameter_to_receiver import loose
from ..rewrites.record_class.objects import Handed, keyed_fields, record_edits, worth_a_class
from .classes.facts import origin_in

KNOWN_OF = frozenset(
    """
    name id x y z score speed color colour value level price
    count label title time date size width height kind type state age
    """.split()
)  # what is known of things, rather than things


def collect(
    program: Program, file: SourceFile, free_: set[Symbol], taken: set[str], known: Iterable[ClassDesign] = ()
) -> tuple[list[ClassDesign], Program]:
    """Classes for the lists of a file, and the program with them.

    ``free_``: variables that may be changed; ``taken``: names of classes; ``known``: proposed before lines of the file
    were lifted.
    """
    made: list[ClassDesign] = []
    while found := records(file, program.language, free_):
        names = {s.name for s in found[0].lists}
        design = next(
            (copy.deepcopy(d) for d in known if {o.local for f in d.fields for o in f.origins} == names), None
        )
        design = design or class_of_lists(program, file, found[0], taken)
        program = hidden(with_list_objects, program, file, found[0], design)
        made.append(design)
        taken = taken | {design.name}
        file = program.files[file.path]
        names = {s.name for s in free_}
        free_ = {s for s in file.scope.symbols.values() if s.name in names}
    return made, program


def records_of(
    program: Program, file: SourceFile, free_: set[Symbol], taken: set[str], known: Iterable[ClassDesign] = ()
) -> tuple[list[ClassDesign], Program]:
    """Classes for the records of a file that are held in keyed tables, and the program with them; arguments as
    ``collect``."""
    made: list[ClassDesign] = []
    names = {s.name for s in free_}
    while True:
        keys = {f.name for d in made for f in d.fields}
        found = [
            k
            for k in program.language.keyed(file)
            if worth_a_class(file, k) and k.names <= names and not set(k.keys) <= keys
        ]
        roots = roots_of(file, found[0]) if found else []
        if not roots:
            return made, program
        design = keyed_class(program, file, found[0], roots, taken)
        design = next((copy.deepcopy(d) for d in known if d.fields == design.fields), design)
        program = hidden(with_records, program, file, found[0], design)
        made.append(design)
        taken = taken | {design.name}
        file = program.files[file.path]


def roots_of(file: SourceFile, found: Keyed) -> list[Symbol]:
    """The variables at the top in which the records are kept: lists, and those that are given one as it is written."""
    spans = {m.span for m in found.made}
    given = {s.target.symbol for s in file.statements if s.target is not None and s.value in spans}
    lists = [
        s
        for s in found.lists
        if s.scope is file.scope and any(st.target is not None and st.target.symbol is s for st in file.statements)
    ]
    return [*lists, *(s for s in found.holders if s.scope is file.scope and s in given)]


def keyed_class(
    program: Program, file: SourceFile, found: Keyed, roots: list[Symbol], taken: set[str], called: str = ""
) -> ClassDesign:
    """The class of records: named after the variables that keep them, if a person gives it no name."""
    write = program.language.write
    used = taken_names(file, program.language.builtins) | taken
    words = [singular(w) for w in write.words(roots[0].name)]
    if len(roots) > 1 and roots[0] not in found.lists:
        words = [w.rstrip("0123456789") or w for w in words]
    base = write.class_name(words)
    name = called or (
        found.named.name if found.named is not None else free(base if write.is_name(base) else "Record", used)
    )
    design = ClassDesign(name)
    for s in roots:
        several = s in found.lists
        name = free(write.member_name(words, s.name), {r.name for r in roots}) if several else s.name
        design.objects.append(ObjectDesign(name, [], "", s.name if several else ""))
    for key in found.keys:
        design.fields.append(
            FieldDesign(key, [origin_in(program, file, s.name, key) for s in roots], "argument", hidden=False)
        )
    lines = [str(file.shown(m.span[0])) for m in found.made]
    design.why.append(
        f"records with the keys {', '.join(found.keys)} are made at line{'s' * (len(lines) > 1)} {', '.join(lines)} "
        "and used by key "
        f"at {len(found.uses)} places; nothing else is done with them"
    )
    return design


def with_records(program: Program, file: SourceFile, found: Keyed, design: ClassDesign) -> Program:
    """The program with objects for records, and methods of what is handed one; the design names those."""
    design.methods, design.why = [], design.why[:1]
    handed = [(f.name, p) for f, p in sorted(found.sure, key=lambda e: (e[0].start, e[1]))]
    after = with_edits(
        program, file, record_edits(file, program.language, found, design.name, keyed_fields(program, design))
    )
    for name, param in handed:
        here = after.files[file.path]
        f, methods = here.function(name), Handed(here, program.language, design.name)
        if f is None or name in [m.origins[0].local for m in design.methods] or methods.why_not(f, param):
            continue
        short = noted(program, file, design, name, param, f"{name} is passed one of them as {param} at every call")
        after = with_edits(after, here, methods.method_edits(f, param, short, loose(after)))
    edits = loops(after.files[file.path], program.language, design)
    return with_edits(after, after.files[file.path], edits) if edits else after


def noted(program: Program, file: SourceFile, design: ClassDesign, name: str, param: str, why: str) -> str:
    """Put a function into the design as a method that knows ``param``; the method's name."""
    write = program.language.write
    words = {w.lower() for w in write.words(design.name)}
    taken = {n for x in design.fields for n in (x.name, write.hidden(x.name))} | {m.name for m in design.methods}
    short = member_names([name], words, write, taken)[name]
    design.methods.append(MethodDesign(short, [origin_in(program, file, name)], drop=[param]))
    design.why.append(why)
    return short


def with_list_objects(program: Program, file: SourceFile, found: Records, design: ClassDesign) -> Program:
    """The program with the objects, their methods (which the design gets, if it has none), and loops that ask them."""
    design.methods, design.why = [], design.why[:1]
    program = with_edits(program, file, collection_edits(file, program.language, found, design))
    program = with_item_methods(program, file.path, design)
    file = program.files[file.path]
    edits = loops(file, program.language, design)
    return with_edits(program, file, edits) if edits else program


def hidden(
    change: Callable[..., Program], program: Program, file: SourceFile, found: object, design: ClassDesign
) -> Program:
    """The program after a change, in which fields are hidden that nobody outside touches then: that shows only after
    it."""
    after = change(program, file, found, design)
    hide_unused_fields(after.files[file.path], design)
    return change(program, file, found, design) if any(f.hidden for f in design.fields) else after


def hide_unused_fields(file: SourceFile, design: ClassDesign) -> None:
    """Fields that nobody outside the class touches are its own."""
    scope = next(s for s, n in file.classes if n == design.name and s.parent is file.scope)
    text = file.text[: scope.start] + file.text[scope.end :]
    for f in design.fields:
        f.hidden = re.search(rb"\.\s*" + f.name.encode(file.encoding) + rb"\b", text) is None


def speaking(program: Program, found: Records) -> str:
    """The list that is named for the things themselves, not for what is known of them: ``stops``, but not ``names``."""
    words = program.language.write.words
    ones = [s.name for s in found.lists if len(words(s.name)) == 1 and singular(s.name) != s.name]
    return next((singular(n) for n in ones if singular(n) not in KNOWN_OF), "")


def one_of(stem: str) -> str:
    """What one of many is called in a file of this name: a ball in ``balls``, a depot item in ``depot``."""
    return singular(stem) if singular(stem) != stem else f"{stem}_item"


def with_edits(program: Program, file: SourceFile, edits: list[Range]) -> Program:
    return reread(program, {file.path: applied(file.text, edits, file.encoding)})


def with_item_methods(program: Program, path: str, design: ClassDesign) -> Program:
    """The program in which functions that work on one object are its methods; the design names them."""
    collection = design.objects[0].collection
    while found := (items := Items(program.files[path], program.language, collection)).functions():
        f, param = found[0]
        why = f"{f.name} gets the index {param} only to work on that one object"
        name = noted(program, items.file, design, f.name, param, why)
        program = with_edits(program, items.file, items.method_edits(f, param, name, design.name, loose(program)))
    return program


def class_of_lists(
    program: Program, file: SourceFile, found: Records, taken: set[str], called: str = ""
) -> ClassDesign:
    """The class of what the lists hold: its name (``called``, where a person gives one), its fields, what one object
    and all are called."""
    write = program.language.write
    used = taken_names(file, program.language.builtins) | taken
    hooks = program.language.hooks(file)
    users = [
        f.name
        for f in file.tops
        if f.name not in hooks and any(f.start <= u.ref.start < f.end for s in found.lists for u in found.uses[s])
    ]
    ones = [
        write.member_name([*write.words(s.name)[:-1], singular(write.words(s.name)[-1])], s.name) for s in found.lists
    ]
    firsts = [write.member_name([singular(w) for w in write.words(n)], n) for n in ones]
    name = called or class_name_for(
        firsts,
        [write.member_name([singular(w) for w in write.words(n)], n) for n in users if len(write.words(n)) > 1],
        write,
        used,
        speaking(program, found) or one_of(file_stem(write.module_of(file.path))),
    )
    words = [w.lower() for w in write.words(name)]
    like = next((s.name for s in found.lists if "_" in s.name.strip("_")), found.lists[0].name)
    item = free(write.member_name(words, like), used)
    collection = free(
        write.member_name([*words[:-1], plural(words[-1])], like), used - {s.name for s in found.lists} | {item}
    )
    design = ClassDesign(name, objects=[ObjectDesign(item, [], "", collection)])
    design.fields = fields_of_lists(program, file, found, design, ones)
    where = [file.shown(u.span[0]) for u in found.firsts]
    design.why.append(
        f"{found.named} (lines {', '.join(map(str, where))}) hold a part each of the same things: they are used "
        "with the same index"
        + (f", and grow and shrink together at {len(found.together)} places" if found.together else "")
    )
    return design


def fields_of_lists(
    program: Program, file: SourceFile, found: Records, design: ClassDesign, ones: list[str]
) -> list[FieldDesign]:
    """A field for each list. ``ones``: what one of each list is called."""
    write, made = program.language.write, []
    words = [w.lower() for w in write.words(design.name)]
    held: set[str] = set()
    handed = (
        [s for s, _ in filling(file, program.language, found, design.name, design.objects[0].collection).given]
        if has_size(found)
        else found.lists
    )
    for s, one in zip(found.lists, ones, strict=True):
        kept = [w for w in write.words(one) if singular(w.lower()) not in words] or write.words(one)
        short = write.member_name(kept, s.name)
        if all(1 < len(x.name) < 4 and x.name[0] == words[0][0] for x in found.lists):
            short = s.name[1:]  # bx, by of a bubble
        if (
            short == design.objects[0].name
        ):  # the list is named for the things: what it holds of them is most likely what they are called
            parts, kind = found.uses[s][0].parts, program.language.item_type(file, found.uses[s][0].ref)
            texts = (
                all(program.language.type_of(file, part) == "str" for part in parts)
                if parts
                else kind.lower() == "string"
            )
            short = "name" if texts else "value"
        short = free(short if write.is_name(short) else one, held)
        held.add(short)
        made.append(
            FieldDesign(short, [origin_in(program, file, s.name)], "argument" if s in handed else "fixed", hidden=False)
        )
    return made
