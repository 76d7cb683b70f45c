"""Which members of the classes that are planned only their own class uses."""

from __future__ import annotations

from ...design.tables import ClassDesign, FieldDesign, MethodDesign
from ...program.model import Statement
from .candidates import Candidate
from .class_builder import inside
from .class_files import method_functions, spans_read
from .facts import FileFacts
from .file_plan import FilePlan


def hide_own_methods(plan: FilePlan) -> None:
    """Hide the methods that only their own class calls."""
    facts, hide = plan.facts, plan.facts.write.hidden
    for c in plan.classes:
        spans = sorted(spans_read(plan, c))
        taken = {hide(f.name) if f.hidden else f.name for f in c.fields} | {m.name for m in c.methods}
        functions = {f.name: f for f in method_functions(facts, c)}
        for m in c.methods:
            symbols = [functions[o.local].symbol for o in m.origins if o.local in functions]
            uses = [r for s in symbols if s is not None for r in s.references if r.form != "definition"]
            if uses and hide(m.name) not in taken - {m.name} and all(inside(spans, r.start) for r in uses):
                m.hidden = True


def hide_used_there(facts: FileFacts, candidate: Candidate, made: ClassDesign, work: list[Statement]) -> None:
    """Hide the members that nobody but the class and ``work``, which its constructor is going to do, uses."""
    done = sorted((s.start, s.end) for s in work)
    spans = sorted([*done, *((f.start, f.end) for f in candidate.functions)])
    firsts = {id(v.first.target) for v in facts.kinds.values() if v.first is not None}
    names = {s.name: s for s in [*candidate.symbols, *(f.symbol for f in candidate.functions if f.symbol is not None)]}
    members: list[FieldDesign | MethodDesign] = [*made.fields, *made.methods]
    for member in members:
        symbols = [names[o.local] for o in member.origins if o.local in names]
        outside = [
            r
            for s in symbols
            for r in s.references
            if not inside(spans, r.start) and id(r) not in firsts and r.form != "definition"
        ]
        used = any(inside(done, r.start) for s in symbols for r in s.references)
        if symbols and used and not outside:
            member.hidden = True
