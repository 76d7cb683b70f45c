"""What a reviewer would say against a proposal, as numbers: each term counts one kind of thing, and weighs what one of
it costs.

The draft compares what it could propose by the sum; ``preview`` and ``draft --rivals`` show the terms, so that a person
sees why.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import combinations
from typing import Any

from ..analysis.effects import Effects
from ..design.origin import local_name
from ..design.tables import Design
from ..naming.identifiers import VERBS
from ..program.program import Program
from .extraction.evident_things import NO_NOUNS, PARTICIPLE
from .ties import owners, uses_of_others

# What one of each costs, judged by a person on programs of beginners (docs/real-scripts.md): a class that has all,
# state that found no class, and code that stayed as it was are what a reviewer sees first.
EVERYTHING, APPS_OWN, LEFT_OVER, OUTSIDE, NO_NOUN, NUMBERED = 1.0, 0.5, 2.0, 0.05, 3.0, 2.0
HANDED, EXPRESSION, ALIKE, SMALL, APART, TIED, SCATTERED = 0.25, 1.5, 1.0, 2.0, 2.0, 0.5, 0.5
MAX_FIELDS = 8  # fields of a class that one takes in at a glance
NUMBER = re.compile(r"\w*[A-Za-z]_?\d+$")
EXPRESSION_LINES = re.compile(r"\d+:\d+-\d+:\d+$")  # how a design writes lines that are part of a statement


@dataclass(frozen=True)
class Term:
    """``says``: what is counted; ``weight``: what one of it costs."""

    says: str
    count: float
    weight: float

    @property
    def cost(self) -> float:
        return self.count * self.weight

    def as_json(self) -> dict[str, Any]:
        return {"says": self.says, "count": self.count, "weight": self.weight}


def objective(program: Program, design: Design) -> list[Term]:
    """The terms of a design, those that count nothing left out; the sum of their costs is the better the lower."""
    found = [Term(says, count(program, design), weight) for says, count, weight in TERMS]
    return [t for t in found if t.count]


def worth_it(program: Program, design: Design) -> bool:
    """Whether the classes of a design cost less than the program as it is."""
    return cost(objective(program, design)) < cost(objective(program, Design(design.language, [], {})))


def cost(terms: Iterable[Term]) -> float:
    """What terms cost together."""
    return round(sum(t.cost for t in terms), 2)


def fields_beyond_a_glance(program: Program, design: Design) -> float:
    return sum(max(0, len(c.fields) - MAX_FIELDS) for c in design.classes)


def state_of_app(program: Program, design: Design) -> float:
    """Fields of the class around the main code that change: it has them for want of a thing that would."""
    changing = changing_variables(program)
    fields = [f for c in design.classes if c.role == "app" for f in c.fields]
    return sum(1 for f in fields if any(o.name in changing for o in f.origins))


def lines_outside(program: Program, design: Design) -> float:
    """Lines of functions, and of main code, that no class takes over."""
    taken = {o.local for c in design.classes for m in c.methods for o in m.origins}
    has_app = any(c.role == "app" for c in design.classes)
    found = 0
    for file in program.files.values():
        found += sum(file.line(f.end) - file.line(f.start) + 1 for f in file.tops if f.name not in taken)
        main = [s for s in file.statements if s.kind not in ("function", "class", "import", "docstring")]
        if not has_app:
            found += sum(file.line(s.end - 1) - file.line(s.start) + 1 for s in main)
    return found


def left_over(program: Program, design: Design) -> float:
    """Variables that change and no class takes over; where main code is a method, its own are that method's."""
    if any(c.role == "app" for c in design.classes):
        return len(changing_variables(program) & {local_name(s.name) for s in design.stays})
    taken = {o.local for c in design.classes for f in c.fields for o in f.origins}
    return len(changing_variables(program) - taken)


def changing_variables(program: Program) -> set[str]:
    """Names of the variables at the top of a file that are given more than one value."""
    return {
        s.name
        for file in program.files.values()
        for s in file.scope.symbols.values()
        if s.kinds == {"variable"} and len(s.bindings) > 1
    }


def without_noun(program: Program, design: Design) -> float:
    words = program.language.write.words
    firsts = [words(c.name)[0].lower() for c in design.classes if c.role != "app" and len(words(c.name)) == 1]
    return sum(1 for w in firsts if w in NO_NOUNS | VERBS or PARTICIPLE.fullmatch(w))


def numbered_names(program: Program, design: Design) -> float:
    names = [c.name for c in design.classes]
    names += [f.name for c in design.classes for f in c.fields] + [m.name for c in design.classes for m in c.methods]
    return sum(1 for n in names if NUMBER.fullmatch(n))


def handed_over(program: Program, design: Design) -> float:
    return sum(len(m.add) for c in design.classes for m in c.methods)


def one_expression(program: Program, design: Design) -> float:
    methods = [m for c in design.classes for m in c.methods if len(m.lines) == 1 and not m.origins]
    return sum(1 for m in methods if EXPRESSION_LINES.search(m.lines[0]))


def arguments_alike(program: Program, design: Design) -> float:
    """Constructor arguments that are the same for each of several objects."""
    rows = [[o.args for o in c.objects] for c in design.classes if len(c.objects) > 1]
    return sum(len(set(column)) == 1 for row in rows for column in zip(*row, strict=False))


def small_classes(program: Program, design: Design) -> float:
    return sum(1 for c in design.classes if not (c.existing or c.wraps) and len(c.fields) + len(c.methods) < 2)


def twins_left_apart(program: Program, design: Design) -> float:
    """Members of one class that differ only by a number, each pair once."""
    found = 0
    for c in design.classes:
        names = [m.name.rstrip("0123456789").rstrip("_") for m in c.fields if NUMBER.fullmatch(m.name)]
        found += sum(a == b for a, b in combinations(names, 2))
    return found


def ties_among_classes(program: Program, design: Design) -> float:
    """Other classes whose members a class uses, summed over all classes."""
    files = program.files.values()
    return sum(len(others) for file in files for _, _, others in uses_of_others(file, program, design))


def scattered_methods(program: Program, design: Design) -> float:
    """The share of pairs of methods that use no common field, summed over all classes but the app; what is handed an
    object, or what that holds, uses it."""
    found = 0.0
    for file in program.files.values():
        effects, owner = Effects(file, program.language), owners(file, design)
        for c in [c for c in design.classes if c.role != "app" and not (c.wraps or c.existing)]:
            mine = {s for s, name in owner.items() if name == c.name}
            functions = [f for f in file.tops if f.symbol in mine]
            used = [effects.direct(f.start, f.end).names & mine for f in functions]
            pairs = [bool(a & b) for a, b in combinations(used, 2)]
            found += pairs.count(False) / len(pairs) if pairs else 0.0
    return round(found, 2)


TERMS: tuple[tuple[str, Callable[[Program, Design], float], float], ...] = (
    (f"fields beyond {MAX_FIELDS} in one class", fields_beyond_a_glance, EVERYTHING),
    ("changing fields of the class around the main code", state_of_app, APPS_OWN),
    ("lines outside of classes", lines_outside, OUTSIDE),
    ("variables that change and found no class", left_over, LEFT_OVER),
    ("classes named after no thing", without_noun, NO_NOUN),
    ("names that end in a number", numbered_names, NUMBERED),
    ("values handed over at each call", handed_over, HANDED),
    ("methods of one expression", one_expression, EXPRESSION),
    ("arguments that are the same for all objects", arguments_alike, ALIKE),
    ("classes of one member", small_classes, SMALL),
    ("fields that differ by a number only", twins_left_apart, APART),
    ("classes that others use", ties_among_classes, TIED),
    ("pairs of methods without a common field, share", scattered_methods, SCATTERED),
)
