"""Stable companions (B5, C10): what several methods of a class are handed at every call, and never changes, it keeps
instead."""

from __future__ import annotations

from ...analysis.startup import running
from ...analysis.variable_kinds import Variable
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign
from ...program.language import Language
from ...program.model import Function, SourceFile, Symbol

MIN_METHODS = 2  # methods that need it before a class keeps it


def kept_companions(
    file: SourceFile, language: Language, classes: list[ClassDesign], kinds: dict[Symbol, Variable]
) -> None:
    """Make fields of what is handed over, in the designs; objects get it as their last argument."""
    by_name = {s.name: s for s in kinds}
    holders = {o.local: c for c in classes for m in c.methods for o in m.origins}
    for c in classes:
        if c.role == "app" or not c.fields or any(not any(f.origins) for f in c.fields):
            continue
        for name in dict.fromkeys(a["value"] for m in c.methods for a in m.add):
            s = by_name.get(name)
            if (
                s is not None
                and kinds[s].nature == "companion"
                and worth_keeping(file, c, name)
                and ready_before(file, language, c, s)
                and own_calls(file, c, name, holders)
            ):
                keep_companion(language, c, name)


def worth_keeping(file: SourceFile, c: ClassDesign, name: str) -> bool:
    wanting = [m for m in c.methods if any(a["value"] == name for a in m.add)]
    apart = all(
        len(m.origins) == len(c.objects)
        and not m.drop
        and all(a["name"] == a["value"] for a in m.add if a["value"] == name)
        for m in wanting
    )
    taken = any(name in (f.name, *(o.local for o in f.origins)) for f in c.fields) or any(
        m.name == name for m in c.methods
    )
    return len(wanting) >= MIN_METHODS and apart and not taken


def ready_before(file: SourceFile, language: Language, c: ClassDesign, s: Symbol) -> bool:
    """Whether it is there before the first variable of the class is set."""
    origins = [file.scope.symbols.get(o.local) for f in c.fields for o in f.origins if o]
    first = min((r.start for x in origins if x is not None for r in x.references), default=0)
    tops = [t for t in running(file, language) if t.target is not None and t.target.symbol is s and t.kind == "assign"]
    return len(tops) == 1 and tops[0].start < first and s.bindings[0].start == tops[0].target.start  # type: ignore[union-attr]


def own_calls(file: SourceFile, c: ClassDesign, name: str, holders: dict[str, ClassDesign]) -> bool:
    """Whether only main code, the app and the class itself call these methods, so that nobody else has it just to hand
    it on."""
    wanting = {o.local for m in c.methods if any(a["value"] == name for a in m.add) for o in m.origins}
    source = file.scope.symbols.get(name)
    for f in (file.function(n) for n in wanting):
        if f is not None and all(r.symbol is not source for r in file.within(f.body_start, f.end)):
            return False  # it only hands it on
        for ref in f.symbol.references if f is not None and f.symbol is not None else ():
            caller: Function | None = file.function_at(ref.start)
            holder = holders.get(caller.name) if caller is not None else None
            if ref.role != "call" or (
                caller is not None and holder is not c and (holder is None or holder.role != "app")
            ):
                if not ref.writes:
                    return False
    return True


def keep_companion(language: Language, c: ClassDesign, name: str) -> None:
    count = sum(any(a["value"] == name for a in m.add) for m in c.methods)
    for m in c.methods:
        m.add = [a for a in m.add if a["value"] != name]
    c.fields.append(FieldDesign(name, [Origin()] * len(c.objects), "argument", name))
    for obj in c.objects:
        obj.args.append(name)
    c.why = [w for w in c.why if not w.startswith((f"{name} changes elsewhere", f"{name} is set once"))]
    c.why.append(f"{name} never changes and {count} methods need it, so each object keeps it")
