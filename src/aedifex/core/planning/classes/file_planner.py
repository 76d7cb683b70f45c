"""Which variables and functions of one file go into which class, and what stays."""

from __future__ import annotations

from dataclasses import replace

from ...design.tables import StayDesign
from ...program.model import Symbol
from .app_class import with_app
from .class_designs import class_designs
from .class_files import constant_stays, give_files_to
from .common_bases import common_bases
from .copies import without_unkept
from .facts import FileFacts
from .file_plan import FilePlan, with_class
from .injected_fields import kept_companions
from .selection import select


def plan_classes(facts: FileFacts, taken_files: set[str]) -> FilePlan:
    """The classes of a file, and a reason for all that stays. ``taken_files``: names that no new file can have; grows
    by those of the classes."""
    if facts.whole is not None:
        return untouched(facts, facts.whole.told(facts.file.path))
    has_main = facts.task.entry and facts.idea not in ("plain", "asked") and facts.does_something
    plan = with_models(FilePlan(facts, stays=facts.stays), lone=not has_main)
    if has_main:
        plan = with_app(plan)
        if plan.app is None:
            # where the main code cannot become an app, what functions share can still become classes
            plan = with_models(FilePlan(facts, stays=plan.stays), lone=True)
    classes = list(plan.classes)
    plan = replace(plan, why_not={**plan.why_not, **without_unkept(facts, classes)})
    kept_companions(facts.file, facts.language, classes, facts.kinds)
    common_bases(facts.file, facts.language, classes, set(facts.names))
    give_files_to(plan.facts, classes, taken_files, plan.bound)
    return with_rest(plan, taken_files)


def untouched(facts: FileFacts, why: str) -> FilePlan:
    """No class, for one reason."""
    stays = [StayDesign(s.name, why) for s, v in facts.kinds.items() if v.nature != "constant"]
    return FilePlan(facts, (), (*facts.stays, *stays), {f.name: why for f in facts.file.tops})


def with_models(plan: FilePlan, lone: bool) -> FilePlan:
    """With classes of what was asked for, of numbered copies, and of what functions work on together."""
    found = select(plan.facts, lone)
    plan = replace(plan, facts=found.facts, why_not=found.why_not).staying(*found.stays)
    for candidate, made in zip(found.candidates, class_designs(found.facts, found.candidates), strict=True):
        plan = with_class(plan, made, candidate.symbols, candidate.functions)
    return replace(plan, bound=frozenset(c.name for c in found.candidates if c.bound))


def with_rest(plan: FilePlan, taken_files: set[str]) -> FilePlan:
    """With constants, and a reason for all that stays."""
    plan = plan.staying(*constant_stays(plan, taken_files))
    facts, stated = plan.facts, {x.name for x in plan.stays}
    stays = [
        StayDesign(f.name, plan.why_not[f.name])
        for f in facts.functions
        if f.name in plan.why_not and f.name not in stated and f.symbol not in plan.functions
    ]
    if plan.app is None:
        left = [s for s in facts.variables if s.name not in stated and s not in plan.variables]
        stays += [StayDesign(s.name, why_left(facts, s)) for s in left]
    return plan.staying(*stays)


def why_left(facts: FileFacts, s: Symbol) -> str:
    """Why a variable has no class."""
    units = {x: u for x, u in facts.effects.units.items() if x.scope is facts.file.scope}
    users = [u.name for u in units.values() if s in facts.effects.direct(u.start, u.end).names]
    if not users:
        return "only the main code uses it"
    return f"it is used by {', '.join(users[:4])}, which no class owns"
