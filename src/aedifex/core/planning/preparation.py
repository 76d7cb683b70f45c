"""What a draft proposes to the rewrites that prepare a file, in their order.

Each proposal is carried out before the next is looked for, so that the classes are planned on the program that a build
will have then.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..analysis.effects import Effects, module_variables
from ..analysis.families import families
from ..analysis.hazards import forbidding, hazards
from ..analysis.parallel_arrays import records
from ..design.tables import ClassDesign, PartDesign, StreamDesign
from ..program.language import Language
from ..program.model import SourceFile, Symbol
from ..program.program import Program
from ..rewrites.explicit_registration.registrations import unfolded
from ..rewrites.explicit_registration.rewrite import ExplicitRegistration
from ..rewrites.extract_class.members import with_parts
from ..rewrites.extract_class.rewrite import ExtractClass
from ..rewrites.extract_function.sequence import ExtractFunction
from ..rewrites.inject_console.rewrite import InjectConsole
from ..rewrites.inject_console.streams import with_streams
from ..rewrites.list_of_objects.rewrite import ListOfObjects
from ..rewrites.pipeline import AFTER_UNFOLDING
from ..rewrites.record_class.rewrite import RecordClass
from ..rewrites.split_assignment import SplitAssignments, taken_apart
from ..rewrites.standing_class import StandingClasses
from ..rewrites.unify_twins.rewrite import UnifyTwins
from ..rewrites.unify_twins.twins import with_unified_twins
from ..rewrites.wrap_value.rewrite import WrappedValues
from .classes.facts import Seen, SeenThing, Task
from .collections import collect, records_of
from .extraction.data_clumps import Held, Item, Thing, held_things, item_things
from .extraction.evident_things import EvidentThing, evident_things
from .extraction.extracted_classes import parts_in
from .extraction.long_methods import long_methods
from .extraction.main_loop_split import MAX_LEFT_LINES, cuts, taken_by
from .extraction.pieces import Piece, lift_all, pieces, turn_locals
from .extraction.standing_classes import methods_of_standing
from .extraction.traveling_values import classes_of_values

MAX_MAIN_STATEMENTS = 500  # statements of main code beyond which it is data, and no line of it is to be a method


@dataclass(frozen=True)
class Choice:
    """What is to be tried. ``items``: what lists hold; ``evident``: things of the main code; ``registering``: whether
    decorators become calls."""

    items: Sequence[Item | Held]
    evident: Sequence[EvidentThing]
    pieces: Sequence[Piece]
    streams: Sequence[StreamDesign]
    registering: bool

    @property
    def known(self) -> list[ClassDesign]:
        """The classes of lists that were proposed before lines of the file were lifted."""
        return [i.design for i in self.items]


@dataclass
class PreparedFile:
    """``program``: as the steps before all classes leave it; ``lifted``: the pieces that could be; ``parts``: what is
    taken out of classes; ``loose``: names of lists and records that may become objects; ``listed``: the classes of
    these."""

    program: Program
    task: Task
    choice: Choice
    lifted: list[Piece] = field(default_factory=list)
    parts: list[PartDesign] = field(default_factory=list)
    loose: set[str] = field(default_factory=set)
    listed: list[ClassDesign] = field(default_factory=list)

    @property
    def file(self) -> SourceFile:
        return self.program.files[self.task.path]

    @property
    def free_to_change(self) -> bool:
        """Whether use is what holds classes together, and nothing forbids to touch the file."""
        task = self.task
        return task.idea == "use" and forbidding(hazards(self.program, task.path, task.outsiders), set()) is None

    def seen(self, handlers: frozenset[str]) -> Seen:
        """What the planner is told. ``handlers``: functions that stood in place."""
        evident = {frozenset(s.name for s in t.symbols): t for t in self.choice.evident}
        things = dict.fromkeys([*evident, *(p.named for p in self.lifted if not p.app and not p.of_item)])
        parts = frozenset(p.name for p in self.lifted if p.app)
        told = [SeenThing(n, evident[n].noun, evident[n].why) if n in evident else SeenThing(n) for n in things]
        wrapped = frozenset(o.local for c in self.listed for o in c.wraps)
        return Seen(parts | handlers, told, frozenset(s.name for s in self.choice.streams), wrapped)


def prepare_file(program: Program, task: Task, choice: Choice) -> PreparedFile:
    """The program as it is before its classes, by the one order of the rewrites."""
    made = PreparedFile(program, task, choice)
    for rewrite in AFTER_UNFOLDING:
        if type(rewrite) in PROPOSALS:
            PROPOSALS[type(rewrite)](made)
    return made


def propose_functions(made: PreparedFile) -> None:
    made.program, made.lifted = lift_all(made.program, made.task.path, made.choice.pieces)


def propose_streams(made: PreparedFile) -> None:
    made.program = with_streams(made.program, made.task.path, made.choice.streams)


def propose_parts(made: PreparedFile) -> None:
    task = made.task
    if task.idea == "use":
        made.parts = parts_in(made.program, task.path, task.outsiders, task.taken, task.kept)
        made.program = with_parts(made.program, task.path, made.parts)


def propose_registrations(made: PreparedFile) -> None:
    if made.choice.registering:
        made.program = unfolded(made.program, made.task.path)


def propose_assignments(made: PreparedFile) -> None:
    made.program = taken_apart(made.program, made.task.path)


def propose_twins(made: PreparedFile) -> None:
    made.program = with_unified_twins(made.program, made.task.path, made.task.wishes)


def propose_lists(made: PreparedFile) -> None:
    """Classes for lists with one index."""
    loose = loose_lists(made.program, made.file, made.task)
    made.loose = {s.name for s in loose}
    if loose:
        made.listed, made.program = collect(made.program, made.file, loose, made.task.taken, made.choice.known)


def propose_records(made: PreparedFile) -> None:
    """Classes for records in keyed tables."""
    if made.loose:
        left = {s for s in made.file.scope.symbols.values() if s.name in made.loose}
        taken = made.task.taken | {c.name for c in made.listed}
        found, made.program = records_of(made.program, made.file, left, taken, made.choice.known)
        made.listed = [*made.listed, *found]


def propose_values(made: PreparedFile) -> None:
    """Classes for what functions hand to each other."""
    task = made.task
    if not made.free_to_change:
        return
    lifted = {p.name for p in made.lifted}
    found, after = classes_of_values(made.program, task, task.taken | {c.name for c in made.listed})
    if not any(o.holder in lifted for c in found for o in c.wraps):
        made.listed, made.program = [*made.listed, *found], after


def propose_members(made: PreparedFile) -> None:
    """Methods for classes that stand."""
    if not made.free_to_change:
        return
    lifted, new = {p.name for p in made.lifted}, {c.name for c in made.listed}
    found, made.program = methods_of_standing(made.program, made.task, lifted, new)
    made.listed = [*made.listed, *found]


PROPOSALS: dict[type[Any], Callable[[PreparedFile], None]] = {
    ExtractFunction: propose_functions,
    InjectConsole: propose_streams,
    ExtractClass: propose_parts,
    ExplicitRegistration: propose_registrations,
    SplitAssignments: propose_assignments,
    UnifyTwins: propose_twins,
    ListOfObjects: propose_lists,
    RecordClass: propose_records,
    WrappedValues: propose_values,
    StandingClasses: propose_members,
}


def free_variables(program: Program, task: Task) -> list[Symbol] | None:
    """The variables that lines may be told by; None where no line is to be lifted."""
    file = program.files[task.path]
    if (
        task.idea not in ("use", "names")
        or sum(s.kind not in ("function", "class", "import") for s in file.statements) > MAX_MAIN_STATEMENTS
    ):
        return None
    found = hazards(program, task.path, task.outsiders)
    if forbidding(found, set()) is not None:
        return None
    return [
        s
        for s in module_variables(file)
        if s.kinds == {"variable"} and s.name not in task.kept and forbidding(found, {s.name}) is None
    ]


def things_of_main(program: Program, task: Task) -> list[EvidentThing]:
    """The things that the variables of the main code are of, where there is main code that runs."""
    file, language = program.files[task.path], program.language
    free = free_variables(program, task) if task.entry and task.idea == "use" else None
    asked = {n.local for w in task.wishes for n in w.together}
    numbered = {s for f in families(file, language, free) for s in f.symbols} if free else set()
    whole = [s for s in free or [] if s not in numbered]
    left = [s for s in whole if s.name not in asked]
    passing = turn_locals(file, language) if whole else set()
    found = evident_things(file, language, left, passing) if left else []
    unasked = evident_things(file, language, whole, passing) if len(left) < len(whole) else []
    return [*found, *things_asked_for(language, task, whole, unasked)]


def things_asked_for(
    language: Language, task: Task, free: Sequence[Symbol], unasked: Sequence[EvidentThing]
) -> list[EvidentThing]:
    """What a person wants in one class is a thing as well, called as the program calls it. ``unasked``: the things that
    there would be otherwise."""
    found = []
    for wish in task.wishes:
        names = {n.local for n in wish.together if n.of_file(task.path)}
        if mine := tuple(s for s in free if s.name in names):
            noun = "_".join(w.lower() for w in language.write.words(wish.class_)) if wish.class_ else ""
            noun = next((t.noun for t in unasked if 2 * len({*t.symbols} & {*mine}) > len(mine)), noun)
            found.append(EvidentThing(noun, mine, ("you asked for them together",)))
    return found


def liftable(program: Program, task: Task, items: Sequence[Thing], evident: Sequence[EvidentThing] = ()) -> list[Piece]:
    """Lines that others do over one object's data, unless something forbids to touch the file. ``items``: objects of
    lists; ``evident``: things of the main code."""
    file, language = program.files[task.path], program.language
    free = free_variables(program, task)
    if free is None:
        return []
    work = pieces(file, language, free, items, evident)
    if task.idea == "use":
        others = [*(f for f in program.files.values() if f is not file), *task.outsiders.files.values()]
        work += long_methods(file, language, Effects(file, language), task.kept, others)
    if task.entry and task.idea == "use" and not language.joined:
        taken = taken_by(file, language) | {p.name for p in work}
        whole = {(p.region.start, p.region.end) for p in work}
        things = [{s.name for s in t.symbols} for t in evident]
        own = [(p.region.start, p.region.end) for p in work if any(names >= p.named for names in things)]
        work += [
            p
            for p in cuts(file, language, Effects(file, language), taken)
            if (p.region.start, p.region.end) not in whole and enough_left(file, p, own)
        ]
    return work


def enough_left(file: SourceFile, piece: Piece, own: Sequence[tuple[int, int]]) -> bool:
    """Whether lines are still worth a method, once those that are a thing's own are one call each."""
    start, end = piece.region.start, piece.region.end
    if any(a <= start and end <= b for a, b in own):
        return False
    inside = [(a, b) for a, b in own if start <= a and b <= end]
    others = [s for s in piece.region.statements if not any(a <= s.start and s.end <= b for a, b in inside)]
    if inside and len(others) < 2 and len(others) < len(piece.region.statements):
        return False
    lines = file.line(end - 1) - file.line(start) + 1
    return lines - sum(file.line(b - 1) - file.line(a) for a, b in inside) > MAX_LEFT_LINES or not inside


def loose_lists(program: Program, file: SourceFile, task: Task) -> set[Symbol]:
    """The names of a file that may become a list of objects; none where there is no such list, or something forbids to
    touch the file."""
    asked = {n.local for w in task.wishes for n in [*w.together, *w.keep]}
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
