"""What a name means after a step (D1): each use still means what it meant, or what took its place.

Functions, and the main code, are compared before and after with each other; where a step moved or renamed them, by what
they say.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from difflib import SequenceMatcher
from functools import cached_property

from ..program.language import Language
from ..program.model import Function, Problem, Reference, SourceFile
from ..program.program import Program

FREE, FILE, LOCAL, MEMBER = "a name of the language", "the file's own", "a local", "a member"
SAME_NAME = 2  # how many names in common its own name counts for a unit
LONGEST = 4000  # uses in one unit that are compared


@dataclass(eq=False)
class NamedUnit:
    """A function at the top or in a class, or all other code of a file (``function`` is None)."""

    file: SourceFile
    function: Function | None
    refs: list[Reference]  # its reads; what binds a name has no meaning yet

    @cached_property
    def said(self) -> list[tuple[str, str]]:
        return [(r.name, r.member) for r in self.refs]

    @cached_property
    def words(self) -> set[tuple[str, str]]:
        return set(self.said)

    @cached_property
    def meant(self) -> list[str]:
        return [meaning(self.file, r) for r in self.refs]


def shadowed_names(before: Program, after: Program, changed: list[SourceFile]) -> list[Problem]:
    """Uses of a name, in changed files, that mean something else than they did."""
    old = [u for f in before.files.values() for u in units(f)]
    new = [u for f in changed for u in units(f)]
    by_name: dict[str, list[NamedUnit]] = {}
    for u in old:
        by_name.setdefault(u.function.name if u.function is not None else "", []).append(u)
    found: list[Problem] = []
    for u in new:
        name = u.function.name if u.function is not None else ""
        for was in counterparts(u, by_name.get(name, []), old):
            found += changed_meanings(was, u, after)
    return found


def units(file: SourceFile) -> list[NamedUnit]:
    tops = {id(file.scope), *(id(s) for s, _ in file.classes)}
    functions: list[Function] = []
    for f in sorted((f for f in file.functions if id(f.outer) in tops), key=lambda f: f.start):
        if not functions or f.end > functions[-1].end:  # none inside the one before
            functions.append(f)
    spans = [(f.start, f.end) for f in functions]
    found = [NamedUnit(file, f, [r for r in file.within(f.start, f.end) if not r.writes]) for f in functions]
    rest = iter(spans)
    span = next(rest, None)
    loose = []
    for r in file.within(0, len(file.text) + 1):
        while span is not None and r.start >= span[1]:
            span = next(rest, None)
        if (span is None or r.start < span[0]) and not r.writes:
            loose.append(r)
    return [*found, NamedUnit(file, None, loose)]


def counterparts(unit: NamedUnit, same: list[NamedUnit], old: list[NamedUnit]) -> list[NamedUnit]:
    """The unit that it was: one of its name that says the same, else the one that says most of it."""
    if any(u.said == unit.said and u.meant == unit.meant for u in same) or len(unit.said) > LONGEST:
        return []
    best = max(old, key=lambda u: len(unit.words & u.words) + SAME_NAME * (u in same), default=None)
    return [best] if best is not None and len(best.said) <= LONGEST else []


def meaning(file: SourceFile, ref: Reference) -> str:
    symbol = ref.symbol
    if symbol is None or (symbol.scope is file.scope and not symbol.kinds):
        return FREE
    if symbol.scope is file.scope:
        return FILE
    return MEMBER if symbol.scope.kind == "class" else LOCAL


def changed_meanings(was: NamedUnit, now: NamedUnit, after: Program) -> list[Problem]:
    found = []
    for a, b, size in matching_runs(was.said, now.said):
        for i in range(size):
            old, new = was.refs[a + i], now.refs[b + i]
            meant, means = meaning(was.file, old), meaning(now.file, new)
            if meant != means and is_wrong_meaning(meant, means, old, new, was, now, after):
                found.append(Problem(*now.file.stands(new.start), f"'{new.name}' was {meant} here, and is {means} now"))
    return found


def matching_runs(old: list[tuple[str, str]], new: list[tuple[str, str]]) -> list[tuple[int, int, int]]:
    """Where both say the same, as (place in the old, place in the new, how many); what begins and ends alike is not
    searched."""
    most = min(len(old), len(new))
    first = next((i for i in range(most) if old[i] != new[i]), most)
    last = next((i for i in range(most - first) if old[-1 - i] != new[-1 - i]), most - first)
    between = SequenceMatcher(
        None, old[first : len(old) - last], new[first : len(new) - last], autojunk=False
    ).get_matching_blocks()
    return [
        (0, 0, first),
        *((first + a, first + b, n) for a, b, n in between),
        (len(old) - last, len(new) - last, last),
    ]


def is_wrong_meaning(
    meant: str, means: str, old: Reference, new: Reference, was: NamedUnit, now: NamedUnit, after: Program
) -> bool:
    """Whether a change of meaning is no move of the thing itself."""
    language = after.language
    if MEMBER in (meant, means):
        return False  # classes come and go around what they hold
    if FREE in (meant, means):
        return new.name in language.builtins
    if meant == LOCAL or old.symbol is None or new.symbol is None:
        return False  # a function was opened: its variables are the file's now
    if old.symbol.kinds != {"variable"}:
        return new.symbol.kinds != old.symbol.kinds and not any(
            b.form in ("import", "definition") for b in new.symbol.bindings
        )
    return handed_otherwise(new, was, now, language)


def handed_otherwise(ref: Reference, was: NamedUnit, now: NamedUnit, language: Language) -> bool:
    """Whether a parameter that took the place of a variable is given something that is not called like it.

    A call that reads as before is of another object's member of that name: a call of this function would hand over
    more.
    """
    f = now.function
    if (
        f is None
        or ref.symbol is None
        or ref.symbol.scope is not f.scope
        or not any(p.name == ref.name for p in f.params)
    ):
        return False
    place = next((i for i, p in enumerate(f.arguments) if p.name == ref.name), None)
    if place is None:
        return False
    texts = []
    untouched = {was.file.slice(c.start, c.end) for c in was.file.calls if c.callee.member == f.name}
    for call in now.file.calls:
        if (call.callee.member or call.callee.name) != f.name or not (
            call.callee.symbol is f.symbol or call.callee.member
        ):
            continue
        if call.callee.member and now.file.slice(call.start, call.end) in untouched:
            continue
        args = language.arguments(now.file, call)
        named = next((a for a in args if a.keyword == ref.name), None)
        plain = [a for a in args if not a.keyword]
        given = named or (plain[place] if place < len(plain) else None)
        text = now.file.slice(given.value_start, given.end) if given is not None else ""
        texts += [last_word(text)] if text else []
    return bool(texts) and not {last_word(ref.name), language.write.RECEIVER} & set(texts)


def last_word(text: str) -> str:
    """``self._signal`` and ``signal`` end in the same word."""
    words = re.findall(r"\w+", text)
    return words[-1].strip("_") if words else ""
