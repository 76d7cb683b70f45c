"""The steps before all classes, and designs after them: the names, files and digests of which they speak."""

from __future__ import annotations

import copy
from collections.abc import Callable, Sequence
from typing import Any

import tomlkit

from ..design.tables import ClassDesign, Design, FieldDesign, bare
from ..design.toml import parse, to_toml
from ..program.edits import Overlap
from ..program.line_map import LineMap
from ..program.model import Program
from ..program.refusal import Refusal
from ..program.surroundings import digest, read_neighbours
from . import messages
from .alias_field import StoreCompanion, stored
from .explicit_registration.registrations import unfoldings
from .explicit_registration.rewrite import RegisterByCall
from .extract_class.rewrite import TakePart
from .extract_function.rewrite import Lift
from .extract_function.sequence import Trace, lifted
from .inject_console.rewrite import OpenStream
from .inject_console.streams import standing_class
from .inline_main.opened import main_holder, main_of, opened, opened_design
from .inline_main.rewrite import OpenMain
from .introduce_variable import HoistLiteral, literal_fields
from .list_of_objects.rewrite import AskItems, CollectRecords, ItemMethod, is_collection
from .name_handlers.handlers import at_place, handler_places, named_design, named_edits
from .name_handlers.rewrite import NameHandlers
from .record_class.rewrite import RecordMethod, RecordsToObjects, is_keyed
from .remarks import with_remarks
from .rename import Rename
from .rewrite import UNFORESEEN, Context, beyond
from .split_assignment import unpackings
from .split_declarations import SplitUnpacking
from .unify_twins.rewrite import MergeTwins, unlike

Prelude = RegisterByCall | Rename | CollectRecords | ItemMethod | AskItems | RecordsToObjects | RecordMethod | HoistLiteral | Lift | OpenMain | NameHandlers | SplitUnpacking | MergeTwins | StoreCompanion | OpenStream | TakePart


Part = tuple[list[Prelude], Design, Program]


def prelude(design: Design, program: Program) -> Part:
    """The steps that come before all classes, and design and program as the other steps need them: after those that can be done."""
    steps: list[Prelude] = []
    for part in (opening_, naming, lifting, streaming, parting, renamed, registering, unpacking, merging, collecting, keying, storing, hoisting):
        more, design, program = part(design, program)
        steps += more
    return steps, design, program


def renamed(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    outsiders = read_neighbours(program, [old.rsplit(".", 1)[-1] for old, _ in design.renames]) if design.renames else None
    for old, new in design.renames:
        step = Rename(old, new, outsiders=outsiders)
        steps.append(step)
        if (after := tried(step, design, program)) is not None:
            design = parse("", follow(to_toml(design), program, after, old, new))[0]
            program = after
    return steps, design, program


def opening_(design: Design, program: Program) -> Part:
    """A long main function that is the app's ``run``."""
    steps: list[Prelude] = []
    for m in [m for c in design.classes if (m := main_of(c)) is not None]:
        path = main_holder(program, bare(m.origins[0]))
        steps.append(OpenMain(path or design.entries[0], bare(m.origins[0])))
        o = opened(program, path, program, bare(m.origins[0])) if path else None
        if o is not None and tried(steps[-1], design, program) is not None:
            design, program = opened_design(design, o), o.program
    return steps, design, program


def naming(design: Design, program: Program) -> Part:
    """Methods that come from handlers written in place: these get a name first."""
    steps: list[Prelude] = []
    for path, wanted in handler_places(design).items():
        step = NameHandlers(path, wanted)
        steps.append(step)
        file = program.files.get(path)
        if file is not None and (after := tried(step, design, program)) is not None:
            named = [n for place, name in wanted if (n := at_place(file, program.language, place, name)) is not None]
            design, program = named_design(design, dict(wanted), LineMap(file, named_edits(file, program.language, named))), after
    return steps, design, program


def lifting(design: Design, program: Program) -> Part:
    def lift(step: Lift, before: Program, trace: Trace) -> Program | None:
        return tried(step, design, before, trace=trace)

    steps, design_, program = lifted(design, program, lift)
    return [*steps], design_, program


def streaming(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    for stream in design.streams:
        path = next((p for p in design.entries if p in program.files), "")
        steps.append(OpenStream(path, stream))
        after = tried(steps[-1], design, program) if path else None
        bones = standing_class(stream)
        if after is not None:
            program = after
        if after is not None and bones is not None:
            design = copy.copy(design)
            design.classes = [bones, *design.classes]
    return steps, design, program


def parting(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    if not design.parts:
        return steps, design, program
    outsiders = read_neighbours(program, [p.of for p in design.parts])
    for part in design.parts:
        path = next((f.path for f in program.files.values() if any(n == part.of for _, n in f.classes)), next(iter(design.sources), ""))
        steps.append(TakePart(path, part, outsiders))
        after = tried(steps[-1], design, program)
        if after is not None:
            program, design = after, copy.copy(design)
            design.classes = [*design.classes, *([ClassDesign(part.name, part.role, part.file)] if part.file else [])]
    return steps, design, program


def registering(design: Design, program: Program) -> Part:
    """Only where main code moves: a decorated function could not stand beside it."""
    steps: list[Prelude] = []
    for path in [p for p in program.files if p in design.sources and any(c.role == "app" for c in design.classes)]:
        if unfoldings(program, path):
            steps.append(RegisterByCall(path))
            program = tried(steps[-1], design, program) or program
    return steps, design, program


def unpacking(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    for path in [p for p in program.files if p in design.sources and any(c.fields or c.methods or c.objects for c in design.classes)]:
        if unpackings(program.files[path], program.language):
            steps.append(SplitUnpacking(path))
            program = tried(steps[-1], design, program) or program
    return steps, design, program


def merging(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    for c in design.classes:
        for m in unlike(c.apart(), program):
            steps.append(MergeTwins(c.apart(), m))
            program = tried(steps[-1], design, program) or program
    return steps, design, program


def collecting(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    for c in [c for c in design.classes if is_collection(c)]:
        collect = CollectRecords(c)
        after = tried(collect, design, program)
        wishes = [ItemMethod(c, m, [collect.id]) for m in c.methods]
        asking: list[Prelude] = [*wishes, AskItems(c, [collect.id])]
        steps += [collect, *asking]
        design, program = stood(design, c, program, after, asking)
    return steps, design, program


def keying(design: Design, program: Program) -> Part:
    steps: list[Prelude] = []
    for c in [c for c in design.classes if is_keyed(c)]:
        made = RecordsToObjects(c)
        after = tried(made, design, program)
        sure = {(file.path, f.name, p) for file in program.files.values() for k in program.language.keyed(file) for f, p in k.sure}
        methods: list[Prelude] = [*(RecordMethod(c, m, [made.id], sure) for m in c.methods), AskItems(c, [made.id])]
        steps += [made, *methods]
        design, program = stood(design, c, program, after, methods)
    return steps, design, program


def storing(design: Design, program: Program) -> Part:
    return with_variables(design, program, [(c, StoreCompanion(c, f)) for c in design.classes for f in stored(c)])


def hoisting(design: Design, program: Program) -> Part:
    return with_variables(design, program, [(c, HoistLiteral(c, f, texts)) for c in design.classes for f, texts in literal_fields(c)])


def with_variables(design: Design, program: Program, wanted: Sequence[tuple[ClassDesign, StoreCompanion | HoistLiteral]]) -> Part:
    """Steps that make variables for fields that have none."""
    steps: list[Prelude] = []
    for c, step in wanted:
        step.design = design.class_named(c.name) or c
        steps.append(step)
        names = step.names(Context(program, design))
        after = tried(step, design, program)
        design = with_origins(design, c, step.member, names if after is not None else None)
        program = after or program
    return steps, design, program


def stood(
    design: Design, c: ClassDesign, program: Program, after: Program | None, more: list[Prelude]
) -> tuple[Design, Program]:
    """Design and program once a class stands, or is left out because its step is refused; ``more``: the steps that fill it."""
    design = standing(design, c, after is not None)
    for further in more if after is not None else ():
        assert after is not None
        after = tried(further, design, after) or after
    return design, after or program


def standing(design: Design, c: ClassDesign, stands: bool) -> Design:
    """The design with a class that stands already and has only to move, or without it."""
    made = copy.copy(design)
    bones = ClassDesign(c.name, c.role, c.file, c.base)
    made.classes = [bones if other.name == c.name else other for other in design.classes if stands or other.name != c.name]
    return made


def tried(
    step: Prelude, design: Design, program: Program, trace: Trace | None = None
) -> Program | None:
    """The program after a step; None if it is refused, as it will be when its turn comes, whatever stands then."""
    try:
        edits = step.apply(Context(program, design))
        changes = edits.apply(program.files)
        after, _ = with_remarks(step, program, changes)
        if trace is not None:
            trace.follow(program, edits)
        return after
    except Refusal as refusal:
        step.refused = refusal
    except Overlap as overlap:
        step.refused = messages.OVERLAP.in_file(why=str(overlap))
    except UNFORESEEN as error:
        step.refused = beyond(error)
    return None


def with_origins(design: Design, c: ClassDesign, f: FieldDesign, names: list[str] | None) -> Design:
    """The design with variables for a field that had none; without the field if there are None."""
    made = copy.copy(design)
    made.classes = []
    for other in design.classes:
        if other.name == c.name:
            other = copy.copy(other)
            fields = [copy.copy(g) for g in other.fields if names is not None or g.name != f.name]
            for g in fields:
                if g.name == f.name and names is not None:
                    g.origins = names
            other.fields = fields
        made.classes.append(other)
    return made


def every(values: list[str], change: Callable[[str], str]) -> None:
    """Change the texts of a list in its place."""
    for i, v in enumerate(values):
        if change(v) != v:
            values[i] = change(v)


def follow_owners(doc: Any, head: str, last: str, new: str, moved: dict[str, str]) -> None:
    """The tables that name a class, one of its members, or lines of a file. ``head``: the class of the member ``last``, or ""."""

    def holder(value: str) -> str:
        owner, dot, member = value.partition(".")
        if head and owner == head and member == last:
            return f"{owner}.{new}"
        return f"{new}{dot}{member}" if not moved and not head and owner == last else value

    for p in doc.get("part", []):
        if head and p.get("of") == head:
            for member in [*p.get("field", []), *p.get("method", [])]:
                every(member.get("from", []), lambda v: new if v == last else v)
            every(p.get("keep", []), lambda v: new if v == last else v)
        p["of"] = holder(p.get("of", ""))
    for x in doc.get("lift", []):
        x["of"] = holder(x.get("of", ""))
    for x in [*doc.get("lift", []), *(m for c in doc.get("class", []) for m in c.get("method", []))]:
        every(x.get("lines", []), lambda v: moved.get(v.partition(":")[0], v.partition(":")[0]) + ":" + v.partition(":")[2])
    for stream in doc.get("stream", []):
        if not head and stream.get("name") == new:
            stream["name"] = f"{new}_2"  # the name that it was going to have is taken by now


def follow(text: str, program: Program, after: Program, old: str, new: str) -> str:
    """The text of a design after a rename: names, files, and the digests of the sources."""
    path, _, dotted = old.rpartition("::")
    head, _, last = dotted.rpartition(".")
    moved = {old: new} if old in program.texts else {}
    doc = tomlkit.parse(text)

    def name(value: str) -> str:
        place, mark, word = value.rpartition("::")
        place = moved.get(place, place)
        if not moved and not head and word == last and place in ("", path or place):
            word = new
        return f"{place}{mark}{word}"

    for c in doc.get("class", []):
        for member in [*c.get("field", []), *c.get("method", [])]:
            every(member.get("from", []), name)
            if head and head in [bare(o) for o in member.get("from", [])]:
                every(member.get("drop", []), lambda v: new if v == last else v)
            for add in member.get("add", []):
                same = add["name"] == bare(add["value"])
                add["value"] = name(add["value"])
                add["name"] = bare(add["value"]) if same else add["name"]
    for key in ("stay", "wish", "rename"):
        for entry in doc.get(key, []):
            for part in ("name", "from"):
                if part in entry and name(entry[part]) != entry[part]:
                    entry[part] = name(entry[part])
            every(entry.get("together", []), name)
            every(entry.get("keep", []), name)
    follow_owners(doc, head, last, new, moved)
    every(doc.get("entries", []), lambda v: moved.get(v, v))
    sources = doc["sources"]
    for source in list(sources):
        now = moved.get(source, source)
        if now in after.texts:
            if now != source:
                del sources[source]
            sources[now] = digest(after.texts[now])
    return tomlkit.dumps(doc)
