"""What a person asks of a draft: mistakes in it, all at once, and whether the draft could do it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ..analysis.variable_kinds import classify
from ..design.lines import Lines
from ..design.origin import Origin, local_name
from ..design.tables import ClassDesign, Design, WishDesign
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

    @property
    def names(self) -> list[Origin]:
        return [*self.wish.together, *self.wish.keep]


def wishes_placed(path: str, design: Design, lines: Lines) -> list[Placed]:
    """The wishes of a design with their lines."""
    return [Placed(w, path, lines.of("wish", i)) for i, w in enumerate(design.wishes)]


def merged_wishes(wishes: list[WishDesign]) -> list[WishDesign]:
    """Wishes for one class as one, names said twice once, in the order in which they were said."""
    found: list[WishDesign] = []
    for wish in wishes:
        same = next((w for w in found if wish.class_ and w.class_ == wish.class_), None)
        if same is None:
            found.append(WishDesign(list(dict.fromkeys(wish.together)), wish.class_, list(dict.fromkeys(wish.keep))))
        else:
            same.together += [n for n in dict.fromkeys(wish.together) if n not in same.together]
            same.keep += [n for n in dict.fromkeys(wish.keep) if n not in same.keep]
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
        for name in said.names:
            if name.local not in known and not (name in said.wish.keep and str(name) in streams):
                hint = perhaps(str(name), known).removeprefix("; ") or "write it as the script does"
                found.append(said.mistake(messages.NOT_A_NAME, name=name, hint=hint))
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


def spoken(program: Program, wishes: list[Placed]) -> tuple[Program, list[Placed]]:
    """Program and wishes with long main functions opened of whose variables the wishes speak (``main.score``)."""
    heads = {n.holder.partition(".")[0] for w in wishes for n in w.names if n.holder}
    for path in [
        p for p, f in program.files.items() if not f.problems and any(f.function(h) is not None for h in heads)
    ]:
        o = inlined(program, path, program)
        if o is not None and o.name in heads:
            program = o.program
            wishes = [Placed(wished([w.wish], o)[0], w.path, w.line) for w in wishes]
    return program, wishes


def class_mistakes(program: Program, said: Placed, known: dict[str, SourceFile]) -> Iterator[Refusal]:
    write, wish = program.language.write, said.wish
    name = wish.class_
    places = {n.local: known[n.local] for n in wish.together if n.local in known}
    if name and not write.is_name(name):
        yield said.mistake(messages.NO_CLASS_NAME, name=name)
    elif name in known and not (places and name in map(str, wish.together)):
        symbol = known[name].scope.symbols[name]
        path, line = known[name].place(min(r.start for r in symbol.bindings)) if symbol.bindings else ("", 0)
        yield said.mistake(messages.CLASS_NAMED_SO, name=name, place=f"{path}:{line}")
    elif name in program.language.builtins:
        yield said.mistake(messages.NAME_OF_BUILT_IN, name=name)
    files = list(dict.fromkeys(f.path for f in places.values()))
    if len(files) > 1:
        apart = " and ".join(f"'{next(n for n, f in places.items() if f.path == p)}' in {p}" for p in files[:2])
        yield said.mistake(messages.OF_SEVERAL_FILES, class_=name or "the class", apart=apart)
    if not wish.together or (len(places) == len(wish.together) and not fields(program, places)):
        yield said.mistake(messages.NO_VARIABLE, class_=name or "the class")


def fields(program: Program, places: dict[str, SourceFile]) -> list[str]:
    return [n for n, f in places.items() if f.scope.symbols[n] in classify(f, program.language)]


def unfulfilled(design: Design, wishes: list[Placed]) -> list[Refusal]:
    """What the draft could not do of the wishes, with the reasons."""
    found = []
    reasons = {local_name(s.name): s.why for s in design.stays}
    for said in wishes:
        for name in dict.fromkeys(n.local for n in said.wish.together):
            made = next((c for c in design.classes if name in taken_over(c)), None)
            if made is not None and said.wish.class_ in ("", made.name):
                continue
            lost = [
                r for n, r in reasons.items() if n in [o.local for o in said.wish.together] and r.startswith("no class")
            ]
            reason = design.why_not.get(name) or (
                lost[0] if lost else reasons.get(name, "it cannot be a member of a class")
            )
            found.append(
                said.mistake(messages.CANNOT_BE_IN, name=name, class_=said.wish.class_ or "a class", reason=reason)
            )
    return found


def taken_over(c: ClassDesign) -> set[str]:
    """The names of the variables and functions that a class replaces."""
    origins = [f.origins for f in c.fields] + [m.origins for m in c.methods]
    return {o.local for names in origins for o in names}
