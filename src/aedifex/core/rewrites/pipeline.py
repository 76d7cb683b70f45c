"""The one order of all rewrites: those that prepare a program, and those that make the classes of a design.

Draft, validation, preview, build, steps by hand and the renaming of designs run it. A rewrite that prepares is one file and one line in ``PREPARE``.
"""

from __future__ import annotations

import copy
from dataclasses import dataclass
from typing import Any

from ..analysis.effects import Effects
from ..design.tables import ClassDesign, Design, FieldDesign, MethodDesign, bare, by_dependency
from ..program.edits import Overlap
from ..program.language import Language
from ..program.model import SourceFile
from ..program.program import Program
from . import messages
from .alias_field import AliasField
from .clean_up import CleanUp
from .explicit_registration.rewrite import ExplicitRegistration
from .extend_base import ExtendClass
from .extract_base import ShareBase, bases
from .extract_class.rewrite import ExtractClass
from .extract_function.sequence import ExtractFunction
from .found_class import FoundClass
from .function_to_method import FunctionToMethod
from .inject_console.rewrite import InjectConsole
from .inline_main.rewrite import InlineMain
from .introduce_variable import IntroduceVariable
from .list_of_objects.rewrite import AskItems, ListOfObjects
from .move_class.rewrite import MoveToFile
from .name_handlers.rewrite import NameInlineHandlers
from .order_methods import OrderMethods
from .pass_arguments import PassIn
from .record_class.rewrite import RecordClass
from .remarks import with_remarks
from .rename import Renames
from .rewrite import UNFORESEEN, Context, Preparing, Refusal, Rewrite, State, Step, beyond
from .share_field import ShareField
from .split_assignment import SplitAssignments
from .split_declarations import SplitDeclarations, shares_a_declaration
from .unify_twins.rewrite import UnifyTwins
from .wrap_main.rewrite import WrapMain

# what prepares a program, in the order in which each leaves it to the next
UNFOLDING: tuple[Rewrite[Any], ...] = (InlineMain(), NameInlineHandlers())  # after these, a name that a design gives is one of the file's
PREPARE: tuple[Rewrite[Any], ...] = (
    *UNFOLDING, ExtractFunction(), InjectConsole(), ExtractClass(), Renames(), ExplicitRegistration(), SplitAssignments(),
    UnifyTwins(), ListOfObjects(), RecordClass(AskItems), AliasField(), IntroduceVariable(),
)  # fmt: skip


@dataclass
class Prepared:
    """The steps before all classes, and design and program as the other steps need them: after those that can be done."""

    steps: list[Preparing]
    design: Design
    program: Program


def prepare(design: Design, program: Program, rewrites: tuple[Rewrite[Any], ...] = PREPARE) -> Prepared:
    """Every step that the design asks for before all classes, tried in turn."""
    state, steps = State(design, program), []
    lost: set[str] = set()
    for rewrite in rewrites:
        for step in rewrite.requests(state):
            steps.append(step)
            after = tried(step, state) if not lost & {*step.needs} else None
            if step.refused is not None:
                lost.add(step.id)
            state.design = rewrite.design_after(state, step, after)
            state.program = after or state.program
    return Prepared(steps, state.design, state.program)


def tried(step: Preparing, state: State) -> Program | None:
    """The program after a step; None if it is refused, as it will be when its turn comes, whatever stands then."""
    try:
        edits = step.apply(Context(state.program, state.design))
        after, _ = with_remarks(step, state.program, edits.apply(state.program.files))
        state.edits = edits
        return after
    except Refusal as refusal:
        step.refused = refusal
    except Overlap as overlap:
        step.refused = messages.OVERLAP.in_file(why=str(overlap))
    except UNFORESEEN as error:
        step.refused = beyond(error)
    return None


# -- the classes ---------------------------------------------------------------------------------


def steps_of(design: Design, program: Program) -> list[Step]:
    """All steps of a design, in an order in which each leaves a working program."""
    return following(prepare(design, program))


def following(prepared: Prepared) -> list[Step]:
    """The steps that prepare, and those that make the classes."""
    design, program = prepared.design, prepared.program
    steps: list[Step] = [*prepared.steps]
    apps = [c for c in design.classes if c.role == "app"]
    others = [c for c in design.classes if c.role != "app"]
    for c in others:
        steps += class_steps(c, design, program)
    for c in others:  # what is handed over may be an object of another class
        steps += passes(c, design)
    for c in apps:
        steps += class_steps(c, design, program)
    for name, sharing in bases(design):
        steps.append(ShareBase(name, sharing, [i for c in sharing for i in class_ids(c, steps)]))
    made = [c.name for c in design.classes]  # an app may have no method but that which runs it
    steps += [OrderMethods(path, made) for path in program.files if path in design.sources and any(c.methods for c in design.classes)]
    for c in by_dependency(design.classes):
        if c.file and c.file not in design.sources:
            steps.append(MoveToFile(c, class_ids(c, steps)))
    steps += [CleanUp(path) for path in program.files if path in design.sources]
    return steps


def class_ids(c: ClassDesign, steps: list[Step]) -> list[str]:
    """A class moves once it is founded and its main code is in it; single methods may have been refused."""
    ids = {s.id for s in steps}
    return [i for i in (f"found:{c.name}", f"main:{c.name}.run") if i in ids]


def class_steps(c: ClassDesign, design: Design, program: Program) -> list[Step]:
    steps: list[Step] = []
    whole = with_owned(c, design)
    file = program.holders.get(whole.source or design.entries[0])
    founded: list[str] = []
    if shares_a_declaration(whole, program):
        steps.append(SplitDeclarations(whole))
    common = [f for f in whole.fields if f.shared]
    whole = whole.apart()
    if whole.fields or whole.methods:
        steps.append(FoundClass(whole, [s.id for s in steps]))
        founded = [steps[-1].id]
    for f in common:
        steps.append(ShareField(c, f, list(founded)))
    order = callees_first(whole, file, program.language) if file is not None else list(range(len(whole.methods)))
    for i in order:
        steps.append(FunctionToMethod(whole, whole.methods[i], list(founded)))
    if c.role == "app":
        steps += passes(c, design)
        steps.append(WrapMain(whole, [s.id for s in steps]))
    if c.extends:
        steps.append(ExtendClass(whole, [s.id for s in steps if s.id.startswith(("found:", "main:"))]))
    return steps


def passes(c: ClassDesign, design: Design) -> list[Step]:
    """The steps in which methods of a class are handed what is not theirs."""
    found: list[Step] = []
    shared = {bare(o) for k in design.classes for f in k.fields if f.shared for o in f.origins}
    for m in c.methods:
        m.add = [a for a in m.add if bare(a["value"]) not in shared]  # a method finds these by itself
        if m.add:
            founded = [f"found:{maker.name}" for maker in makers(m, design)]
            found.append(PassIn(c, m, [f"method:{c.name}.{m.name}", *founded]))
    return found


def makers(m: MethodDesign, design: Design) -> list[ClassDesign]:
    """The classes whose objects a method is handed."""
    return [c for a in m.add if (c := design.maker_of(a["value"])) is not None]


def with_owned(c: ClassDesign, design: Design) -> ClassDesign:
    """The class with the objects that it owns as further fields."""
    owned = [o for other in design.classes for o in other.objects if o.owner == c.name and other is not c]
    if not owned:
        return c
    made = copy.deepcopy(c)
    made.fields = [FieldDesign(o.name, [o.name], "") for o in owned] + made.fields
    return made


def callees_first(c: ClassDesign, file: SourceFile, language: Language) -> list[int]:
    """Indexes of the methods so that what a method calls comes before it, as far as there is no circle."""
    effects = Effects(file, language)
    symbols = [{file.scope.symbols.get(bare(o)) for o in m.origins} for m in c.methods]
    found: list[int] = []

    def visit(i: int, path: tuple[int, ...]) -> None:
        if i in found or i in path:
            return
        for s in symbols[i]:
            unit = effects.units.get(s) if s is not None else None
            if unit is None:
                continue
            used = {r.symbol for r in file.within(unit.start, unit.end)}
            for j, others in enumerate(symbols):
                if j != i and others & used:
                    visit(j, (*path, i))
        found.append(i)

    for i in range(len(symbols)):
        visit(i, ())
    return found
