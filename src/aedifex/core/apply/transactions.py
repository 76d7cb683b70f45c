"""A class is made as the design says it, or not at all: all steps are tried in memory, and a class goes of which one is
refused."""

from __future__ import annotations

import copy
from collections.abc import Callable
from dataclasses import dataclass, field

from ..analysis.effects import Effects
from ..analysis.variable_kinds import constants_of
from ..design.origin import local_name
from ..design.tables import ClassDesign, Design, MethodDesign
from ..program.edits import Edits
from ..program.model import Function, SourceFile
from ..program.program import Program
from ..program.refusal import Refusal
from ..rewrites.step import Context, Step
from . import messages
from .sequence import Outcome, run

LOST = ("refused", "skipped", "wrong")


class StandIn(Step):
    """Stands, where a step would, for what a design asks for and no single step does; it only says what is refused."""

    def apply(self, context: Context) -> Edits:
        raise NotImplementedError


@dataclass
class WholeClass(StandIn):
    """Stands for all steps of a class that is not made. ``steps``: their ids; ``others``: classes that go because of
    it."""

    kind = "class"
    name: str
    steps: list[str]
    others: list[str] = field(default_factory=list)

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        more = f"; without it neither is {' nor '.join(self.others)}" if self.others else ""
        steps = f" ({len(self.steps)} step{'s' * (len(self.steps) != 1)})" if self.steps else ""
        return f"class {self.name} is not made{steps}{more}"


@dataclass
class Settled:
    """``design``: of the classes that can be made; ``dropped``: what became of the others; ``played``: every step, and
    the program after it."""

    design: Design
    dropped: list[Outcome]
    played: list[tuple[Outcome, Program]]


def settled(
    design: Design,
    original: Program,
    exists: Callable[[str], bool] | None = None,
    refused: dict[str, Refusal] | None = None,
) -> Settled:
    """The design without the classes of which any step would be refused, with the first reason of each. ``refused``:
    those that are from the start."""
    dropped = [Outcome(WholeClass(name, []), "refused", refusal=r) for name, r in (refused or {}).items()]
    design = without_classes(design, set(refused or {}))
    rounds = 0
    first: dict[str, str] = {}  # class → why it lost a step when all classes were there
    while True:
        played = list(run(design, original, exists=exists))
        lost = [(o, name) for o, _ in played if o.result in LOST and (name := o.step.owner(design))]
        if not lost:
            return Settled(design, [*dropped, *misplaced(design, original, played)], played)
        for o, name in lost if not dropped else ():
            first.setdefault(name, o.refusal.sentence if o.refusal is not None and o.result != "skipped" else "")
        going = ungiven(design, original) if any(o.step.id.startswith("main:") for o, _ in lost) else {}
        if not going:
            cause, name = next(((o, n) for o, n in lost if o.result != "skipped"), lost[0])
            going = {name: cause.refusal or messages.NOT_MADE.in_file()}
        orphans = handed_gone(design, set(going))
        for name, refusal in going.items():
            ids = [o.step.id for o, _ in played if o.step.owner(design) == name]
            last = dropped[-1].step if rounds else None
            if isinstance(last, WholeClass) and first.get(name) != refusal.sentence:
                last.others.append(name)  # its own reason is that the others are not there
            else:
                dropped.append(Outcome(WholeClass(name, ids), "refused", refusal=refusal))
        last = dropped[-1].step
        assert isinstance(last, WholeClass)
        last.others += [n for n in orphans if n not in going]
        rounds += 1
        design = without_classes(design, {*going, *orphans})


@dataclass
class Stay(StandIn):
    """Stands for a name that a design wants in a file where it does not end up."""

    kind = "stay"
    name: str
    file: str

    @property
    def subject(self) -> str:
        return self.name

    def title(self) -> str:
        return f"{self.name} stands in {self.file}"


def misplaced(design: Design, original: Program, played: list[tuple[Outcome, Program]]) -> list[Outcome]:
    """The names that are wanted in a file and end up in another one."""
    last = played[-1][1] if played else original
    found = []
    for s in design.stays if played else ():
        homes = [
            path
            for path, file in last.holders.items()
            if (there := file.scope.symbols.get(local_name(s.name))) is not None and there.kinds - {"import"}
        ]
        if s.file in last.texts and homes and s.file not in homes:
            reason = messages.STAYS_WITH_READERS.in_file(s.file, name=s.name, file=homes[0])
            found.append(Outcome(Stay(s.name, s.file), "refused", refusal=reason))
    return found


def without_classes(design: Design, names: set[str]) -> Design:
    made = copy.deepcopy(design)
    made.classes = [c for c in made.classes if c.name not in names]
    for c in made.classes:
        for o in c.objects:
            o.owner = "" if o.owner in names else o.owner
    return made


def handed_gone(design: Design, gone: set[str]) -> list[str]:
    """The classes whose methods are handed an object that nobody makes any more."""
    objects = {o.name for c in design.classes if c.name in gone for o in c.objects}
    return [
        c.name
        for c in design.classes
        if c.name not in gone and any(local_name(a["value"]) in objects for m in c.methods for a in m.add)
    ]


def ungiven(design: Design, program: Program) -> dict[str, Refusal]:
    """The classes whose methods use what they are not given, though the app is going to keep it, with what to add."""
    found: dict[str, Refusal] = {}
    for c in [c for c in design.classes if c.role != "app"]:
        file = program.holders.get(c.source or design.entries[0])
        if file is None or not any(o.role == "app" for o in design.classes):
            continue
        for m, f, names in Needs(design, file, program).missing(c):
            said = ", ".join(f"'{n}'" for n in names)
            adds = ", ".join(f'{{ name = "{n}", value = "{n}" }}' for n in [*(a["value"] for a in m.add), *names])
            words = {n: s for n in names for s in [file.scope.symbols.get(n)]}
            at = min(
                (r.start for s in words.values() if s is not None for r in s.references if f.start <= r.start < f.end),
                default=f.start,
            )
            if c.name in found:
                found[c.name].values["gifts"] += f"; {c.name}.{m.name} uses {said}: add = [{adds}] there"
            else:
                found[c.name] = messages.NOT_GIVEN.at(
                    file, at, method=f"{c.name}.{m.name}", names=said, gifts=f"add = [{adds}] in that method gives it"
                )
    return found


class Needs:
    """What the methods of a design need that is not their own object's, from the functions that they come from."""

    def __init__(self, design: Design, file: SourceFile, program: Program) -> None:
        self.design, self.file = design, file
        self.effects = Effects(file, program.language)
        self.constants = {s.name for s in constants_of(file, program.language)}
        self.owners = {o.local: (c, i) for c in design.classes for f in c.fields for i, o in enumerate(f.origins) if o}
        self.methods = {o.local: (c, m) for c in design.classes for m in c.methods for o in m.origins}
        self.needs: dict[str, dict[str, None]] = {}
        while True:
            now = {name: self.of(c, m) for name, (c, m) in self.methods.items()}
            if now == self.needs:
                break
            self.needs = now

    def functions(self, m: MethodDesign) -> list[Function]:
        return [f for o in m.origins if (f := self.file.function(o.local)) is not None]

    def of(self, c: ClassDesign, m: MethodDesign) -> dict[str, None]:
        found: dict[str, None] = {}
        mine = {o.name for o in c.objects}
        for f in self.functions(m):
            direct = self.effects.direct(f.start, f.end)
            for s in sorted(direct.names, key=lambda s: s.name):
                holder = self.owners.get(s.name)
                if holder is None:
                    found |= {s.name: None} if s.name not in self.constants and s.kinds == {"variable"} else {}
                elif holder[0] is not c:
                    made = holder[0].objects
                    found[made[holder[1]].name if holder[0].role != "app" and holder[1] < len(made) else s.name] = None
            for u in sorted(direct.uses, key=lambda s: s.name):
                if u.name in self.methods and self.methods[u.name][0] is not c:
                    there, called = self.methods[u.name]
                    found |= (
                        {there.objects[0].name: None}
                        if len(there.objects) == 1 and not called.drop and there.role != "app"
                        else {}
                    )
                found |= dict.fromkeys(self.needs.get(u.name, {}))
        return {n: None for n in found if n not in mine}

    def missing(self, c: ClassDesign) -> list[tuple[MethodDesign, Function, list[str]]]:
        found = []
        for m in c.methods:
            names = [
                n
                for o in m.origins
                for n in self.needs.get(o.local, {})
                if n not in {local_name(a["value"]) for a in m.add}
            ]
            if names and self.functions(m):
                found.append((m, self.functions(m)[0], list(dict.fromkeys(names))))
        return found
