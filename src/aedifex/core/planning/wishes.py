"""What a person asks of a draft: mistakes in it, all at once, and whether the draft could do it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ..analysis.variable_kinds import classify
from ..design.lines import Lines
from ..design.origin import Origin, local_name
from ..design.tables import NAMING, ClassDesign, Design, WishDesign
from ..program.model import SourceFile
from ..program.near import perhaps
from ..program.program import Program
from ..program.refusal import Message, Refusal
from ..rewrites.inline_main.opened import inlined, wished
from . import messages


@dataclass(frozen=True)
class Placed:
    """A wish and where it was said: an option (``line`` is 0), or a line of a design."""

    wish: WishDesign
    path: str
    line: int = 0

    @property
    def place(self) -> str:
        return f"{self.path}:{self.line}" if self.line else self.path

    def mistake(self, message: Message, **values: Any) -> Refusal:
        return message.in_file(self.path, self.line, **values)


def wishes_placed(path: str, design: Design, lines: Lines) -> list[Placed]:
    """The wishes of a design with their lines."""
    return [Placed(w, path, lines.of("wish", i)) for i, w in enumerate(design.wishes)]


LISTS = (*NAMING, "collect", "separate")  # the keys of a wish that hold several texts


def merged_wishes(wishes: list[WishDesign]) -> list[WishDesign]:
    """Wishes for one class as one, names said twice once, in the order in which they were said."""
    found: list[WishDesign] = []
    for wish in wishes:
        same = next((w for w in found if wish.class_ and w.class_ == wish.class_), None)
        if same is None:
            same = WishDesign(class_=wish.class_)
            found.append(same)
        same.app = wish.app or same.app
        for key in LISTS:
            setattr(same, key, list(dict.fromkeys([*getattr(same, key), *getattr(wish, key)])))
    return [w for i, w in enumerate(found) if w not in found[:i]]


def wish_mistakes(program: Program, wishes: list[Placed]) -> list[Refusal]:
    """Everything that no draft could do, in the order of the wishes."""
    program, wishes = spoken(program, wishes)
    files = [f for f in program.files.values() if not f.problems]
    known = {n: f for f in reversed(files) for n, s in f.scope.symbols.items() if s.kinds}
    found: list[Refusal] = []
    owner: dict[Origin, Placed] = {}
    kept = {n: w for w in wishes for n in w.wish.keep}
    streams = {
        o for k in (program.language.streams.KINDS if program.language.streams is not None else ()) for o in k.origins
    }
    for said in wishes:
        for name in said.wish.names:
            if name.local not in known and not (name in said.wish.keep and str(name) in streams):
                hint = perhaps(str(name), known).removeprefix("; ") or "write it as the script does"
                found.append(said.mistake(messages.NOT_A_NAME, name=name, hint=hint))
        found += [*start_mistakes(program, said, wishes, known), *name_mistakes(program, said, said.wish.app, known)]
        if said.wish.together or said.wish.class_:
            found += class_mistakes(program, said, known)
        for name in dict.fromkeys(said.wish.together):
            before = owner.setdefault(name, said)
            if before.wish.class_ != said.wish.class_ or (before is not said and not said.wish.class_):
                first, second = before.wish.class_ or "one class", said.wish.class_ or "another"
                found.append(said.mistake(messages.ASKED_TWICE, name=name, first=first, second=second))
            if name in kept:
                found.append(said.mistake(messages.ASKED_TO_STAY, name=name, place=kept[name].place))
    return list({str(r): r for r in found}.values())


def start_mistakes(
    program: Program, said: Placed, wishes: list[Placed], known: dict[str, SourceFile]
) -> Iterator[Refusal]:
    """What is wrong with where first values are to come from, and with where objects are to be kept."""
    for name in dict.fromkeys([*said.wish.arguments, *said.wish.fixed]):
        if name.local in known and not fields(program, {name.local: known[name.local]}):
            yield said.mistake(messages.NO_VALUE_OF_ITS_OWN, name=name)
        if name in said.wish.fixed and any(name in w.wish.arguments for w in wishes):
            yield said.mistake(messages.ASKED_BOTH_WAYS, name=name)
    for class_ in said.wish.separate:
        if any(class_ in w.wish.collect for w in wishes):
            yield said.mistake(messages.LIST_AND_APART, name=class_)


def spoken(program: Program, wishes: list[Placed]) -> tuple[Program, list[Placed]]:
    """Program and wishes with long main functions opened of whose variables the wishes speak (``main.score``)."""
    heads = {n.holder.partition(".")[0] for w in wishes for n in w.wish.names if n.holder}
    for path in [
        p for p, f in program.files.items() if not f.problems and any(f.function(h) is not None for h in heads)
    ]:
        o = inlined(program, path, program)
        if o is not None and o.name in heads:
            program = o.program
            wishes = [Placed(wished([w.wish], o)[0], w.path, w.line) for w in wishes]
    return program, wishes


def class_mistakes(program: Program, said: Placed, known: dict[str, SourceFile]) -> Iterator[Refusal]:
    wish = said.wish
    name = wish.class_
    places = {n.local: known[n.local] for n in wish.together if n.local in known}
    if not (name in known and places and name in map(str, wish.together)):
        yield from name_mistakes(program, said, name, known)
    files = list(dict.fromkeys(f.path for f in places.values()))
    if len(files) > 1:
        apart = " and ".join(f"'{next(n for n, f in places.items() if f.path == p)}' in {p}" for p in files[:2])
        yield said.mistake(messages.OF_SEVERAL_FILES, class_=name or "the class", apart=apart)
    if not wish.together or (len(places) == len(wish.together) and not fields(program, places)):
        yield said.mistake(messages.NO_VARIABLE, class_=name or "the class")


def name_mistakes(program: Program, said: Placed, name: str, known: dict[str, SourceFile]) -> Iterator[Refusal]:
    """Why no class can be called so."""
    if name and not program.language.write.is_name(name):
        yield said.mistake(messages.NO_CLASS_NAME, name=name)
    elif name in known:
        symbol = known[name].scope.symbols[name]
        path, line = known[name].place(min(r.start for r in symbol.bindings)) if symbol.bindings else ("", 0)
        yield said.mistake(messages.CLASS_NAMED_SO, name=name, place=f"{path}:{line}")
    elif name in program.language.builtins:
        yield said.mistake(messages.NAME_OF_BUILT_IN, name=name)


def fields(program: Program, places: dict[str, SourceFile]) -> list[str]:
    return [n for n, f in places.items() if f.scope.symbols[n] in classify(f, program.language)]


def unfulfilled(design: Design, wishes: list[Placed]) -> list[Refusal]:
    """What the draft could not do of the wishes, with the reasons."""
    found = []
    for said in wishes:
        for name in dict.fromkeys(n.local for n in said.wish.together):
            made = class_with(design, name)
            if made is None or said.wish.class_ not in ("", made.name):
                class_, reason = said.wish.class_ or "a class", why_outside(design, name, said)
                found.append(said.mistake(messages.CANNOT_BE_IN, name=name, class_=class_, reason=reason))
        found += [*starts_not_had(design, said), *lists_not_had(design, said)]
        if said.wish.app and not any(c.role == "app" and c.name == said.wish.app for c in design.classes):
            why = next((s.why for s in design.stays if s.name == "main"), "another class has that name")
            found.append(said.mistake(messages.NO_APP, why=why))
    return found


def class_with(design: Design, name: str) -> ClassDesign | None:
    """The class that takes over a variable or function."""
    return next((c for c in design.classes if name in taken_over(c)), None)


def reasons_to_stay(design: Design) -> dict[str, str]:
    return {local_name(s.name): s.why for s in design.stays}


def why_outside(design: Design, name: str, said: Placed) -> str:
    """Why a name is not in the class that was asked for."""
    reasons = reasons_to_stay(design)
    together = [o.local for o in said.wish.together]
    lost = [r for n, r in reasons.items() if n in together and r.startswith("no class")]
    return design.why_not.get(name) or (lost[0] if lost else reasons.get(name, "it cannot be a member of a class"))


def starts_not_had(design: Design, said: Placed) -> Iterator[Refusal]:
    """First values that do not come from where they were asked to come from."""
    for start, names in (("argument", said.wish.arguments), ("fixed", said.wish.fixed)):
        called = "an argument" if start == "argument" else "fixed"
        for name in dict.fromkeys(names):
            made = class_with(design, name.local)
            member = (
                next((f for f in made.fields if name.local in [o.local for o in f.origins]), None) if made else None
            )
            if made is None or member is None:
                reason = reasons_to_stay(design).get(name.local, "it is no field of a class")
                reason = "it is a constant; --together gives it to a class" if reason == "constant" else reason
            elif member.start == "later":
                reason = f"its first value is not at hand yet where {made.objects[0].name} is made"
            elif start == "fixed" and member.start == "argument":
                reason = f"it differs between {' and '.join(o.name for o in made.objects)}"
            else:
                continue
            yield said.mistake(messages.CANNOT_START, name=name, start=called, reason=reason)


def lists_not_had(design: Design, said: Placed) -> Iterator[Refusal]:
    """Objects that are not kept as was asked."""
    for name in [*said.wish.collect, *said.wish.separate]:
        made = design.class_named(name)
        if made is None:
            others = ", ".join(c.name for c in design.classes) or "none"
            reason = f"no such class is proposed (there is {others})"
        elif name in said.wish.separate or made.kept_in or any(o.collection for o in made.objects):
            continue
        elif len(made.objects) < 2:
            reason = f"it has one object, {made.objects[0].name}" if made.objects else "it has no object"
        else:
            reason = design.why_not.get(name, "they are no numbered copies of each other")
        yield said.mistake(messages.NO_LIST_OF_THEM, name=name, reason=reason)


def taken_over(c: ClassDesign) -> set[str]:
    """The names of the variables and functions that a class replaces."""
    origins = [f.origins for f in c.fields] + [m.origins for m in c.methods]
    return {o.local for names in origins for o in names}
