"""From a program to a design: which classes, made of what, with reasons."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..analysis.effects import Effects, module_variables
from ..analysis.entries import starting
from ..analysis.hazards import forbidding, hazards
from ..analysis.parallel_arrays import records
from ..design.tables import (
    ClassDesign,
    Design,
    LiftDesign,
    MethodDesign,
    PartDesign,
    StayDesign,
    StreamDesign,
    WishDesign,
    bare,
    holder_of,
    placed_anew,
)
from ..program.model import SourceFile, Symbol
from ..program.pause import uncollected
from ..program.program import Program, neighbours
from ..program.surroundings import digest, read_neighbours
from ..rewrites.explicit_registration.registrations import propose_extension, unfolded, unfoldings
from ..rewrites.extract_class.members import with_parts
from ..rewrites.inject_console.streams import as_good, handed_in, streams_of, with_streams
from ..rewrites.inline_main.opened import closed, closed_main, inlined, renamed, wished, worth_inlining
from ..rewrites.name_handlers.handlers import nameable, with_names
from ..rewrites.split_assignment import taken_apart
from ..rewrites.unify_twins.twins import with_unified_twins
from .class_files import give_files_to, taken_files, with_standing
from .collections import collect, records_of
from .data_clumps import Held, Item, Thing, held_things, item_things
from .eligibility import facts_of
from .extracted_classes import parts_in
from .extraction import Piece, from_lines, lift_all, numbers, pieces
from .facts import Seen, Task
from .file_plan import FilePlan
from .file_planner import plan_classes
from .long_methods import dispatched, long_methods
from .main_loop_split import cuts, taken_by

MAX_MAIN_STATEMENTS = 500  # statements of main code beyond which it is data, and no line of it is to be a method


@uncollected
def draft(
    program: Program, entries: list[str] | None = None, wishes: list[WishDesign] | None = None, idea: str = "use"
) -> Design:
    """A design for the files of the program. Files with problems are read by others but not written.

    ``entries``: what people start; by default every file that no other file imports. ``idea``: what holds a class
    together, one of ``rivals.IDEAS``, "app": nothing but the main code becomes a class, or "asked": nothing but what
    the wishes say.
    """
    whole = [file for file in program.files.values() if not file.problems]
    sources = {path: digest(file.text[start:end]) for file in whole for path, start, end in file.parts}
    starts = entries or starting(program)
    design = Design(program.language.name, starts, sources, wishes=list(wishes or []))
    outsiders = read_neighbours(program)
    beside = neighbours(program.root, program.texts, program.language)
    taken: set[str] = set()
    for path in [file.path for file in whole]:
        task = Task(path, outsiders, beside, design.wishes, taken, path in starts, idea)
        made = draft_file(program, task)
        if path != starts[0]:  # what is made of nothing that has a name says nowhere where it comes from
            made.classes = [c for c in made.classes if c.source or c.fields or c.methods]
        design.classes += made.classes
        design.stays += made.stays
        design.streams += made.streams
        design.parts += made.parts
        design.lifts += made.lifts
        design.why_not |= made.why_not
        taken |= (
            {c.name for c in made.classes}
            | {c.file for c in made.classes}
            | {x for s in made.streams for x in (s.class_, s.file)}
            | {x for p in made.parts for x in (p.name, p.file)}
        )
        program = made.program
    return design


@dataclass
class FileDraft:
    """What a draft of one file gives. ``program``: as the drafts of further files need it."""

    classes: list[ClassDesign]
    stays: list[StayDesign]
    why_not: dict[str, str]
    program: Program
    streams: list[StreamDesign]
    parts: list[PartDesign]
    lifts: list[LiftDesign]


def draft_file(program: Program, task: Task) -> FileDraft:
    """The classes of one file; its long main function is opened if they need what it holds."""
    o = inlined(program, task.path, task.outsiders) if task.entry and task.idea not in ("plain", "asked") else None
    if o is not None and o.name not in task.kept:
        made = with_handlers(o.program, replace(task, wishes=wished(task.wishes, o)), o.line)
        if worth_inlining(made.classes, o):
            closed(made.classes, made.stays, made.lifts, o)
            return made
        why = next((s.why for s in made.stays if s.name == "main"), "no class would need it")
        plain = with_handlers(program, task)
        plain.stays += [
            StayDesign(n, f"{o.name} stays a function: {why}")
            for w in task.wishes
            for n in w.together
            if "." in bare(n)
        ]
        return plain
    made = with_handlers(program, task)
    if o is None and not made.classes and task.entry and (stay := closed_main(program, task.path)) is not None:
        made.stays.append(stay)
    return made


def with_handlers(program: Program, task: Task, line: Callable[[int], int] = int) -> FileDraft:
    """The classes of one file; handlers that are written in place get a name if they become methods of the app."""
    file = program.files[task.path]
    able = task.entry and task.idea == "use" and forbidding(hazards(program, task.path, task.outsiders), set()) is None
    wanted = nameable(file, program.language) if able else []
    while True:
        start, moved = with_names(program, task.path, wanted)
        made = planned(start, task, lambda n: line(moved.source(n)), frozenset(n.name for n in wanted))  # noqa: B023
        methods = {bare(o) for c in made.classes if c.role == "app" for m in c.methods for o in m.origins}
        if all(n.name in methods for n in wanted):
            break
        wanted = [n for n in wanted if n.name in methods]
    places = {n.name: n.place for n in wanted}
    for c in made.classes:
        renamed(c, lambda name: places.get(bare(name), name), moved.back)
        for m in c.methods:
            m.hidden = m.hidden or m.origins[:1] in [[p] for p in places.values()]
    for x in made.lifts:
        placed_anew(x, moved.back)
    return made


def planned(
    program: Program, task: Task, line: Callable[[int], int] = int, handlers: frozenset[str] = frozenset()
) -> FileDraft:
    """``line``: the line of the source where a line of the program was; ``handlers``: functions that stood in place."""
    return branched(program, task, line, handlers, with_console(program, task, line, handlers))


def branched(
    program: Program, task: Task, line: Callable[[int], int], handlers: frozenset[str], made: FileDraft
) -> FileDraft:
    """With the branches of commands that a long method tells apart as methods beside it.

    What they need is some of what their method needs: where that is handed nothing but its own arguments, neither are
    they.
    """
    file, language = program.files[task.path], program.language
    taken = taken_by(file, language) | {m.name for c in made.classes for m in c.methods}
    for c in made.classes if task.idea == "use" else []:
        for m in list(c.methods) if len(c.objects) == 1 and not c.objects[0].collection else []:
            f = (
                file.function(bare(m.origins[0]))
                if len(m.origins) == 1 and not m.lines and not m.add and not m.drop
                else None
            )
            if f is None or f.name in handlers | task.kept:
                continue
            arms = dispatched(file, language, f, taken)
            for p in arms if len(lift_all(program, task.path, arms)[1]) == len(arms) else []:
                c.methods.append(MethodDesign(p.name, [], lines=[p.lines], hidden=True))
                c.why.append(f"{p.name} is one branch of {f.name}, at {numbers(p, line)}")
    return made


def with_console(program: Program, task: Task, line: Callable[[int], int], handlers: frozenset[str]) -> FileDraft:
    """With the console as a variable, if everything finds a home that finds one without."""
    made = plan_file(program, task, line, handlers, ())
    if task.idea != "use" or not any(c.role == "app" for c in made.classes):
        return made
    streams = streams_of(program.files[task.path], program.language, task.taken | {c.name for c in made.classes})
    streams = [s for s in streams if not task.kept & {s.name, *s.origins}]
    if not streams:
        return made
    other = plan_file(program, task, line, handlers, streams)
    return (
        other if handed_in(other.classes, streams, program.language) and as_good(other.classes, made.classes) else made
    )


def plan_file(
    program: Program, task: Task, line: Callable[[int], int], handlers: frozenset[str], streams: Sequence[StreamDesign]
) -> FileDraft:
    """As ``planned``, with the console as a variable or without."""
    path, idea = task.path, task.idea
    items = things_of_lists(program, task)
    wanted = [
        p for p in liftable(program, task, items) if p.region.function is None or p.region.function.name not in handlers
    ]
    unfolding, without = task.entry and bool(unfoldings(program, path)), ""
    while True:
        lifted, stood = lift_all(program, path, wanted)
        split = parts_in(lifted, path, task.outsiders, task.taken, task.kept) if idea == "use" else []
        lifted = with_parts(with_streams(lifted, path, streams), path, split)
        lifted = with_unified_twins(
            taken_apart(unfolded(lifted, path) if unfolding else lifted, path), path, task.wishes
        )
        kept, after = with_lists(lifted, lifted.files[path], task, [i.design for i in items])
        parts = frozenset(p.name for p in stood if p.app) | handlers
        things = list(dict.fromkeys(p.named for p in stood if not p.app and not p.of_item))
        facts = facts_of(after, task, Seen(parts, things, frozenset(s.name for s in streams)))
        files = taken_files(facts)
        plan = plan_classes(facts, files)
        if unfolding and plan.app is None:
            unfolding, without = False, next((s.why for s in plan.stays if s.name == "main"), "")
            continue
        classes = [*plan.classes, *kept]
        methods = {(bare(o), c.role == "app") for c in classes for m in c.methods for o in m.origins}
        fields = {bare(o) for c in classes for f in c.fields for o in f.origins} | {
            s.name for s in plan.facts.constants
        }
        wanted = [
            p for p in stood if p.of or ((p.name, p.app) in methods and p.uses <= fields and not p.takes & fields)
        ]
        if len(wanted) == len(stood):
            break
    if plan.app is not None:
        propose_extension(plan.app, after, path)
    plan = give_files(plan, files, kept, split, streams)
    stays = list(plan.stays)
    for stay in [s for s in stays if s.name == "main" and without]:
        stay.why = without  # what is decorated would not have been in the way
    from_lines([*plan.classes, *kept], stood, line)
    names = {p.name for p in stood}
    of_methods = sorted((p for p in stood if p.of), key=lambda p: p.region.start)
    lifts = [LiftDesign(p.name, p.of, [p.lines], [f"one job of {p.of}, at {numbers(p, line)}"]) for p in of_methods]
    return FileDraft(
        [*kept, *plan.classes],
        stays,
        {n: why for n, why in plan.why_not.items() if n not in names},
        after,
        list(streams),
        list(split),
        lifts,
    )


def give_files(
    plan: FilePlan,
    taken: set[str],
    kept: list[ClassDesign],
    parts: Sequence[PartDesign],
    streams: Sequence[StreamDesign],
) -> FilePlan:
    """Say in which file each class goes that the planner did not make. ``taken``: names that no new file can have."""
    give_files_to(plan.facts, kept, taken, plan.bound)
    for part in parts:
        bones = ClassDesign(part.name, part.role)
        give_files_to(plan.facts, [bones], taken, plan.bound)
        part.file = bones.file
    for stream in [s for s in streams if s.class_]:
        bones = ClassDesign(stream.class_, "handle")
        give_files_to(plan.facts, [bones], taken, plan.bound)
        stream.file = bones.file
    return with_standing(plan, kept)


def liftable(program: Program, task: Task, items: Sequence[Thing]) -> list[Piece]:
    """Lines that others do over one object's data, unless something forbids to touch the file. ``items``: objects of
    lists."""
    file, language = program.files[task.path], program.language
    if (
        task.idea not in ("use", "names")
        or sum(s.kind not in ("function", "class", "import") for s in file.statements) > MAX_MAIN_STATEMENTS
    ):
        return []
    found = hazards(program, task.path, task.outsiders)
    if forbidding(found, set()) is not None:
        return []
    free = [
        s
        for s in module_variables(file)
        if s.kinds == {"variable"} and s.name not in task.kept and forbidding(found, {s.name}) is None
    ]
    work = pieces(file, language, free, items)
    if task.idea == "use":
        others = [*(f for f in program.files.values() if f is not file), *task.outsiders.files.values()]
        work += long_methods(file, language, Effects(file, language), task.kept, others)
    if task.entry and task.idea == "use" and not language.joined:
        taken = taken_by(file, language) | {p.name for p in work}
        whole = {(p.region.start, p.region.end) for p in work}
        work += [
            p
            for p in cuts(file, language, Effects(file, language), taken)
            if (p.region.start, p.region.end) not in whole
        ]
    return work


def loose_lists(program: Program, file: SourceFile, task: Task) -> set[Symbol]:
    """The names of a file that may become a list of objects; none where there is no such list, or something forbids to
    touch the file."""
    asked = {bare(n) for w in task.wishes for n in [*w.together, *w.keep]}
    loose = {s for s in file.scope.symbols.values() if s.name not in asked}
    if not records(file, program.language, loose) and not any(k.trouble is None for k in program.language.keyed(file)):
        return set()
    found = hazards(program, file.path, task.outsiders)
    return {s for s in loose if forbidding(found, {s.name}) is None} if forbidding(found, set()) is None else set()


def things_of_lists(program: Program, task: Task) -> list[Item | Held]:
    """What lists with one index and keyed tables hold, in the program before anything is lifted."""
    file = program.files[task.path]
    loose = loose_lists(program, file, task) if task.idea != "app" else set()
    if not loose:
        return []
    items = item_things(program, file, loose, task.taken)
    return [*items, *held_things(program, file, loose, task.taken | {i.design.name for i in items})]


def with_lists(
    program: Program, file: SourceFile, task: Task, known: Sequence[ClassDesign]
) -> tuple[list[ClassDesign], Program]:
    """Classes for lists with one index, and the program as it is with them: what is drafted for the rest speaks of
    that.

    ``known``: those proposed before lines of the file were lifted.
    """
    loose = loose_lists(program, file, task)
    if not loose:
        return [], program
    made, program = collect(program, file, loose, task.taken, known)
    names = {s.name for s in loose}
    file = program.files[file.path]
    left = {s for s in file.scope.symbols.values() if s.name in names}
    more, program = records_of(program, file, left, task.taken | {c.name for c in made}, known)
    return made + more, program


def summary(design: Design) -> list[str]:
    """One sentence a class, and one on what stays."""
    lines = [sentence(c) for c in design.classes]
    lines += [
        f"{p.name}, a part of {p.of}: {len(p.fields)} fields, {len(p.methods)} methods; kept as {p.object}"
        + (f" in {p.file}" if p.file else "")
        for p in design.parts
    ]
    for of in dict.fromkeys(x.of for x in design.lifts):
        lines.append(f"{of}: lines of it become {', '.join(x.name for x in design.lifts if x.of == of)}")
    if not lines:
        chief = [s for s in design.stays if s.name == "main" or s.why.startswith("what it holds")]
        telling = chief or sorted(
            (s for s in design.stays if s.why != "constant"), key=lambda s: "by its name" in s.why
        )
        why = "there is no state to hold"
        if telling:
            why = (
                telling[0].why
                if telling[0].why.startswith("the main code")
                else f"{bare(telling[0].name)} stays, because {telling[0].why}"
            )
        lines.append(f"No class is proposed: {why}.")
    return lines


def sentence(c: ClassDesign) -> str:
    objects = [o.name for o in c.objects]
    parts = [
        f"{len(c.fields)} field{'s' * (len(c.fields) != 1)}",
        f"{len(c.methods)} method{'s' * (len(c.methods) != 1)}",
    ]
    where = f" in {c.file}" if c.file else ""
    return (
        f"{c.name} ({c.role}): {', '.join(parts)}; object{'s' * (len(objects) != 1)} "
        f"{', '.join(objects) or 'none'}{where}"
    )


def fate(design: Design, name: str) -> list[str]:
    """What a design makes of a name, as sentences; empty if it says nothing of it."""
    found = []
    for c in design.classes:
        for f in c.fields:
            if name in [holder_of(bare(o)) for o in f.origins]:
                found.append(f"becomes the field '{f.name}' of {c.name} ({f.start})")
        for m in c.methods:
            if name in [bare(o) for o in m.origins]:
                more = f", without {', '.join(m.drop)}" if m.drop else ""
                more += f", with {', '.join(a['name'] for a in m.add)} passed in" if m.add else ""
                found.append(f"becomes the method '{m.name}' of {c.name}{more}")
        if found and c.why:
            telling = [w for w in c.why if name.rpartition(".")[2] in w.replace(",", " ").split()] or c.why
            found.append(f"because {telling[0]}")
            break
    for s in design.stays:
        if bare(s.name) == name:
            found.append(f"stays: {s.why}" + (f" (moves to {s.file} with its readers)" if s.file else ""))
    return found
