"""From a design to an ordered list of steps, and the run through them."""

from __future__ import annotations

import copy
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from ..analysis.effects import Effects
from ..design.tables import ClassDesign, Design, FieldDesign, MethodDesign, bare, by_dependency
from ..program.edits import Overlap
from ..program.language import Language
from ..program.model import Problem, Program, SourceFile
from ..program.refusal import Refusal
from ..program.surroundings import by_itself, surrounded
from ..rewrites.clean_up import CleanUp
from ..rewrites.extend_base import ExtendClass
from ..rewrites.extract_base import ShareBase, bases
from ..rewrites.found_class import FoundClass
from ..rewrites.function_to_method import FunctionToMethod
from ..rewrites.move_class.rewrite import MoveToFile
from ..rewrites.order_methods import OrderMethods
from ..rewrites.pass_arguments import PassIn
from ..rewrites.preparation import Prelude, prelude
from ..rewrites.remarks import with_remarks
from ..rewrites.rewrite import UNFORESEEN, Context, Step, beyond
from ..rewrites.share_field import ShareField
from ..rewrites.split_declarations import SplitDeclarations, needed
from ..rewrites.wrap_main.rewrite import WrapMain
from . import messages
from .verify import verify


def steps_for(design: Design, program: Program) -> list[Step]:
    """All steps of a design, in an order in which each leaves a working program."""
    return following(*prelude(design, program))


def following(before: list[Prelude], design: Design, program: Program) -> list[Step]:
    """``design``, ``program``: after the steps that come ``before``."""
    steps: list[Step] = [*before]
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
    if needed(whole, program):
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


@dataclass
class Outcome:
    """What became of one step: done, nothing (to do), refused, skipped, wrong (D1: refused for what it would write) or different (D2)."""

    step: Step
    result: str
    changes: dict[str, bytes | None] = field(default_factory=dict)
    refusal: Refusal | None = None
    problems: list[Problem] = field(default_factory=list)
    unreached: bool = False  # whether no scenario runs what it moves
    after: Program | None = None  # the program with the changes


def run(
    design: Design,
    program: Program,
    done: set[str] | None = None,
    original: Program | None = None,
    homes: dict[str, str] | None = None,
    exists: Callable[[str], bool] | None = None,
) -> Iterator[tuple[Outcome, Program]]:
    """Apply the steps one after another in memory; yields each outcome with the program after it.

    The consumer may stop at any time; a step whose outcome is "wrong" is not kept. ``done``: ids of steps that
    stand already. Send nothing; what the consumer refuses it must not ask further.
    """
    original = surrounded(original or program)
    program.outsiders = original.outsiders
    plan = prelude(design, original)
    if done and any(s.id in done and getattr(s, "refused", None) is not None for s in plan[0]):
        plan = prelude(design, by_itself(original))
    context = Context(program, plan[1], dict(homes or {}), original)
    if exists is not None:
        context.exists = lambda path: path in context.program.holders or exists(path)  # type: ignore[method-assign]
    lost: set[str] = set()
    for step in following(*plan):
        if done and step.id in done:
            if isinstance(step, MoveToFile):
                context.homes[step.design.name] = step.design.file
            continue
        outcome = attempt(step, context, lost)
        if outcome.result == "done":
            context.program = outcome.after or context.program
            if isinstance(step, MoveToFile):
                context.homes[step.design.name] = step.design.file
        elif outcome.result != "nothing":
            lost.add(step.id)
        yield outcome, context.program


def attempt(step: Step, context: Context, lost: set[str]) -> Outcome:
    missing = [n for n in step.needs if n in lost]
    if missing:
        return Outcome(step, "skipped", refusal=messages.NEEDS_STEP.in_file(step=missing[0]))
    if (refused := getattr(step, "refused", None)) is not None:  # one of the prelude, tried already
        return Outcome(step, "refused", refusal=refused)
    try:
        changes = step.apply(context).apply(context.program.files)
    except Refusal as refusal:
        return Outcome(step, "refused", refusal=refusal)
    except UNFORESEEN as error:
        return Outcome(step, "wrong", refusal=beyond(error))
    except Overlap as overlap:
        return Outcome(
            step, "refused", refusal=messages.OVERLAP.in_file(why=str(overlap))
        )
    if not changes:
        return Outcome(step, "nothing")
    after, changes = with_remarks(step, context.program, changes)
    problems = verify(context.program, after, list(changes))
    if not problems:
        return Outcome(step, "done", changes, after=after)
    first = problems[0]
    place = "" if first.path in context.program.holders else f" in {first.path}"
    broken = messages.WRITES_BROKEN.in_file(first.path if not place else "", place=place, message=first.message, line=first.line)
    return Outcome(step, "wrong", changes, broken, problems)
