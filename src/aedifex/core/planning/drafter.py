"""From a program to a design: which classes, made of what, with reasons."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..analysis.entries import starting
from ..analysis.hazards import forbidding, hazards
from ..design.origin import Origin
from ..design.tables import (
    ClassDesign,
    Design,
    LiftDesign,
    MethodDesign,
    PartDesign,
    StayDesign,
    StreamDesign,
    WishDesign,
    placed_anew,
)
from ..program.edits import applied
from ..program.line_map import LineMap
from ..program.pause import uncollected
from ..program.program import Program, neighbours, reread
from ..program.surroundings import digest, read_neighbours
from ..rewrites.explicit_registration.registrations import propose_extension, unfoldings
from ..rewrites.inject_console.streams import as_good, handed_in, streams_of
from ..rewrites.inline_main.opened import closed, closed_main, inlined, renamed, wished, worth_inlining
from ..rewrites.name_handlers.handlers import nameable, with_names
from .classes.class_files import give_files_to, taken_files, with_standing
from .classes.eligibility import facts_of
from .classes.facts import Task
from .classes.file_plan import FilePlan
from .classes.file_planner import plan_classes
from .classes.visibility import hide_own_methods
from .extraction.listeners import listeners_of_standing, listeners_that_stay
from .extraction.long_methods import dispatched
from .extraction.main_loop_split import taken_by
from .extraction.pieces import from_lines, lift_all, numbers
from .nothing import reasons_for_nothing
from .preparation import Choice, liftable, prepare_file, things_of_lists, things_of_main

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
    if idea == "use":
        design.stays = [*reasons_for_nothing(program, design), *design.stays]
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
    """The classes of one file; listeners that stand in its classes become their methods first."""
    standing, edits = listeners_of_standing(program, task) if task.idea == "use" else ([], [])
    stays = listeners_that_stay(program, task) if task.idea == "use" else []
    if not standing:
        made = with_main(program, task)
        made.stays += stays
        return made
    file = program.files[task.path]
    moved = LineMap(file, edits)
    after = reread(program, {task.path: applied(file.text, edits, file.encoding)})
    made = with_main(after, replace(task, taken=task.taken | {c.name for c in standing}), moved.source)
    told_back(made, moved, lambda origin: Origin.parse(moved.back(str(origin))) if origin.place else origin)
    made.classes = merged(standing, made.classes)
    made.stays += stays
    return made


def told_back(made: FileDraft, moved: LineMap, name: Callable[[Origin], Origin]) -> None:
    """Let a draft speak of the program as it was before edits: of its lines, and of its names as ``name`` has them."""
    for c in made.classes:
        renamed(c, name, moved.back)
    for x in made.lifts:
        placed_anew(x, moved.back)


def merged(standing: Sequence[ClassDesign], others: Sequence[ClassDesign]) -> list[ClassDesign]:
    """Classes that gain methods in two ways are one each."""
    gained = {c.name: c for c in others if c.existing}
    for c in standing:
        if c.name in gained:
            c.methods += gained[c.name].methods
            c.why += gained[c.name].why
    return [*standing, *(c for c in others if c.name not in {s.name for s in standing})]


def with_main(program: Program, task: Task, line: Callable[[int], int] = int) -> FileDraft:
    """The classes of one file; its long main function is opened if they need what it holds. ``line``: the line of the
    source where a line of the program was."""
    o = inlined(program, task.path, task.outsiders) if task.entry and task.idea not in ("plain", "asked") else None
    if o is not None and o.name not in task.kept:
        made = with_handlers(o.program, replace(task, wishes=wished(task.wishes, o)), lambda n: line(o.line(n)))
        if worth_inlining(made.classes, o):
            closed(made.classes, made.stays, made.lifts, o)
            return made
        why = next((s.why for s in made.stays if s.name == "main"), "no class would need it")
        plain = with_handlers(program, task, line)
        if any(c.role == "app" for c in made.classes) and only_called(plain.classes, o.name):
            closed(made.classes, made.stays, made.lifts, o)
            return made
        plain.stays += [
            StayDesign(str(n), f"{o.name} stays a function: {why}") for w in task.wishes for n in w.together if n.holder
        ]
        return plain
    made = with_handlers(program, task, line)
    if o is None and not made.classes and task.entry and (stay := closed_main(program, task.path)) is not None:
        made.stays.append(stay)
    return made


def only_called(classes: Sequence[ClassDesign], name: str) -> bool:
    """Whether the app would have a function as a method that its ``run`` does little more than call."""
    return any(o.local == name for c in classes if c.role == "app" for m in c.methods for o in m.origins)


def with_handlers(program: Program, task: Task, line: Callable[[int], int] = int) -> FileDraft:
    """The classes of one file; handlers that are written in place get a name if they become methods of the app."""
    file = program.files[task.path]
    able = task.entry and task.idea == "use" and forbidding(hazards(program, task.path, task.outsiders), set()) is None
    wanted = nameable(file, program.language) if able else []
    while True:
        start, moved = with_names(program, task.path, wanted)
        made = planned(start, task, lambda n: line(moved.source(n)), frozenset(n.name for n in wanted))  # noqa: B023
        methods = {o.local for c in made.classes if c.role == "app" for m in c.methods for o in m.origins}
        if all(n.name in methods for n in wanted):
            break
        wanted = [n for n in wanted if n.name in methods]
    places = {n.name: Origin.parse(n.place) for n in wanted}
    told_back(made, moved, lambda origin: places.get(origin.local, origin))
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
                file.function(m.origins[0].local)
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
    path = task.path
    items, evident = things_of_lists(program, task), things_of_main(program, task)
    wanted = [
        p
        for p in liftable(program, task, items, evident)
        if p.region.function is None or p.region.function.name not in handlers
    ]
    registering, without = task.entry and bool(unfoldings(program, path)), ""
    while True:
        made = prepare_file(program, task, Choice(items, evident, wanted, streams, registering))
        kept, stood = made.listed, made.lifted
        facts = facts_of(made.program, task, made.seen(handlers))
        files = taken_files(facts)
        plan = plan_classes(facts, files)
        if registering and plan.app is None:
            registering, without = False, next((s.why for s in plan.stays if s.name == "main"), "")
            continue
        classes = [*plan.classes, *kept]
        methods = {(o.local, c.role == "app") for c in classes for m in c.methods for o in m.origins}
        fields = {o.local for c in classes for f in c.fields for o in f.origins} | {
            s.name for s in plan.facts.constants
        }
        wanted = [
            p for p in stood if p.of or ((p.name, p.app) in methods and p.uses <= fields and not p.takes & fields)
        ]
        if len(wanted) == len(stood):
            break
    if plan.app is not None:
        propose_extension(plan.app, made.program, path)
    hide_own_methods(plan)
    plan = give_files(plan, files, kept, made.parts, streams)
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
        made.program,
        list(streams),
        made.parts,
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
