"""The one order of all rewrites: those that prepare a program, and those that make the classes of a design.

Draft, validation, preview, build, steps by hand and the renaming of designs run it. A rewrite that prepares is one file
and one line in ``PREPARE``.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..design.tables import Design
from ..program.program import Program
from ..program.refusal import Refusal
from .alias_field import AliasField
from .bare_members import NameMembersAlone
from .clean_up import CleanUp
from .explicit_registration.rewrite import ExplicitRegistration
from .extend_base import ExtendBase
from .extract_base import ExtractBase
from .extract_class.rewrite import ExtractClass
from .extract_function.sequence import ExtractFunction
from .filled_constructor import FilledConstructors
from .found_class import FoundClass
from .function_to_method import FunctionToMethod
from .gather_objects import GatheredObjects
from .hand_objects import HandedObjects
from .inject_console.rewrite import InjectConsole
from .inline_main.rewrite import InlineMain
from .introduce_constant import IntroduceConstant
from .introduce_variable import IntroduceVariable
from .list_of_objects.rewrite import AskItems, ListOfObjects
from .move_class.constants import ShareConstants
from .move_class.rewrite import MoveClass
from .name_handlers.rewrite import NameInlineHandlers
from .name_listeners.rewrite import NameListeners
from .order_methods import OrderMethods
from .pass_arguments import PassArguments
from .record_class.rewrite import RecordClass
from .remarks import with_remarks
from .rename import Renames
from .rewrite import Building, ClassRewrite, Rewrite, State
from .set_up_in_constructor import ConstructorsThatSetUp
from .share_field import ShareField
from .split_assignment import SplitAssignments
from .split_declarations import SplitDeclarations
from .standing_class import StandingClasses
from .step import Context, Step, carried_out
from .unify_twins.rewrite import UnifyTwins
from .wrap_main.rewrite import WrapMain
from .wrap_value.rewrite import WrappedValues

# what prepares a program, in the order in which each leaves it to the next
UNFOLDING: tuple[Rewrite[Any], ...] = (
    NameListeners(),
    InlineMain(),
    NameInlineHandlers(),
)  # after these, a name that a design gives is one of the file's
AFTER_UNFOLDING: tuple[Rewrite[Any], ...] = (
    ExtractFunction(),
    InjectConsole(),
    ExtractClass(),
    Renames(),
    ExplicitRegistration(),
    SplitAssignments(),
    UnifyTwins(),
    ListOfObjects(),
    RecordClass(AskItems),
    WrappedValues(),
    StandingClasses(),
    AliasField(),
    IntroduceVariable(),
)
PREPARE: tuple[Rewrite[Any], ...] = (IntroduceConstant(), *UNFOLDING, *AFTER_UNFOLDING)

# what makes one class, what makes the app, and what comes after all classes
MAKE: tuple[ClassRewrite, ...] = (SplitDeclarations(), FoundClass(), ShareField(), FunctionToMethod())
MODEL: tuple[ClassRewrite, ...] = (*MAKE, ExtendBase())
APP: tuple[ClassRewrite, ...] = (*MAKE, PassArguments(), WrapMain(), ConstructorsThatSetUp(), ExtendBase())
FINISH: tuple[ClassRewrite, ...] = (
    ExtractBase(),
    FilledConstructors(),
    HandedObjects(),
    GatheredObjects(),
    OrderMethods(),
    NameMembersAlone(),
    ShareConstants(),
    MoveClass(),
    CleanUp(),
)
REWRITES: tuple[Rewrite[Any] | ClassRewrite, ...] = (*PREPARE, *APP, *FINISH)


@dataclass
class Prepared:
    """The steps before all classes, and design and program as the other steps need them: after those that can be
    done."""

    steps: list[Step]
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


def tried(step: Step, state: State) -> Program | None:
    """The program after a step; None if it is refused, as it will be when its turn comes, whatever stands then."""
    try:
        state.edits, changes = carried_out(step, Context(state.program, state.design))
    except Refusal as refusal:
        step.refused = refusal
        return None
    return with_remarks(step, state.program, changes)[0]


# -- the classes ---------------------------------------------------------------------------------


def steps_of(design: Design, program: Program) -> list[Step]:
    """All steps of a design, in an order in which each leaves a working program."""
    return following(prepare(design, program))


def following(prepared: Prepared) -> list[Step]:
    """The steps that prepare, and those that make the classes."""
    design, program = prepared.design, prepared.program
    made: list[Step] = []
    app = [c for c in design.classes if c.role == "app"]
    others = [c for c in design.classes if c.role != "app"]
    # what is passed may be an object of another class: that waits until all of them are built
    for classes, rewrites in ((others, MODEL), (others, (PassArguments(),)), (app, APP)):
        for c in classes:
            for rewrite in rewrites:
                made += rewrite.steps(Building(design, program, made, c))
    for rewrite in FINISH:
        made += rewrite.steps(Building(design, program, made))
    return [*prepared.steps, *made]
