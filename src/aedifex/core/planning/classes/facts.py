"""What is known of one file before any class is planned: what may move, what stays, names that are taken."""

from __future__ import annotations

from collections.abc import Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, replace
from functools import cached_property

from ...analysis.effects import Effects
from ...analysis.messages import Hazard
from ...analysis.variable_kinds import Variable
from ...analysis.word_variants import Variants, word_sets
from ...design.origin import Origin
from ...design.tables import StayDesign, WishDesign
from ...program.facets.text import Text
from ...program.language import Language
from ...program.model import Function, SourceFile, Symbol
from ...program.program import Program


@dataclass(frozen=True)
class Task:
    """One file to draft.

    ``outsiders``: files that may use its names; ``beside``: all paths in its folder; ``taken``: names of classes and
    files; ``entry``: whether people start it; ``idea``: what holds a class together (``drafter.draft``).
    """

    path: str
    outsiders: Program
    beside: list[str]
    wishes: list[WishDesign]
    taken: set[str]
    entry: bool
    idea: str = "use"

    @cached_property
    def kept(self) -> set[str]:
        """The names of the file that somebody wants left as they are."""
        return {n.local for w in self.wishes for n in w.keep if n.of_file(self.path)}


@dataclass(frozen=True)
class SeenThing:
    """Variables that are one thing's. ``noun``: what the program calls it, "" if it does not say; ``why``: how that is
    known."""

    names: frozenset[str]
    noun: str = ""
    why: tuple[str, ...] = ()


@dataclass(frozen=True)
class Seen:
    """What was found in a file before its classes are planned.

    ``parts``: functions that are made of lines of main code, which say no more of what belongs together than that does;
    ``things``: variables that lines were found to work on as on one thing; ``streams``: those that stand for the
    console, which the app is passed; ``wrapped``: those of the main code that hold an object around a value.
    """

    parts: frozenset[str] = frozenset()
    things: Sequence[SeenThing] = ()
    streams: frozenset[str] = frozenset()
    wrapped: frozenset[str] = frozenset()


@dataclass(frozen=True)
class AskedClass:
    """What a person wants in one class: variables, functions, and its name ("": ours to find)."""

    variables: list[Symbol]
    functions: set[Symbol]
    name: str


@dataclass(frozen=True)
class FileFacts:
    """``variables``, ``functions``: those that may move; ``constants``: variables that never change, and stay;
    ``parts``: functions made of lines that are to be methods of the app; ``asked``, ``asked_fields``: what a person
    wants in one class, and in the app; ``stays``: what cannot move, with reasons; ``whole``: what forbids to touch the
    file at all; ``processes``: why its functions must be found by other processes; ``blocked``: the first hazard that
    holds each name where it is; ``names``: those that no class and no object can have."""

    program: Program
    file: SourceFile
    task: Task
    seen: Seen
    effects: Effects
    kinds: dict[Symbol, Variable]
    hooks: dict[str, str]
    hazards: tuple[Hazard, ...]
    whole: Hazard | None
    processes: Hazard | None
    blocked: dict[str, Hazard]
    names: frozenset[str]
    constants: frozenset[Symbol]
    variables: tuple[Symbol, ...] = ()
    functions: tuple[Function, ...] = ()
    parts: tuple[Function, ...] = ()
    asked: tuple[AskedClass, ...] = ()
    asked_fields: frozenset[Symbol] = frozenset()
    stays: tuple[StayDesign, ...] = ()

    @property
    def language(self) -> Language:
        return self.program.language

    @property
    def write(self) -> Text:
        return self.program.language.write

    @property
    def idea(self) -> str:
        return self.task.idea

    @cached_property
    def variants(self) -> list[Variants]:
        """The words by which names of variables differ."""
        return word_sets(self.file, self.write.words, list(self.kinds))

    def starts(self, f: Function) -> bool:
        """Whether a function is what the program starts with: its body is main code."""
        return any(s.kind == "guard" and s.start <= f.start < s.end for s in self.file.statements)

    @cached_property
    def does_something(self) -> bool:
        """Whether there is main code beyond first values."""
        firsts = {id(v.first) for v in self.kinds.values() if v.first is not None}
        return any(id(s) not in firsts and s.kind != "annotate" for s in self.effects.main())

    @property
    def top_functions(self) -> list[Function]:
        """Functions of the file, also those that are made in lines of main code."""
        return [f for f in self.file.functions if f.outer is self.file.scope]


def origin_in(program: Program, file: SourceFile, name: str, key: str = "") -> Origin:
    """How a design speaks of a name at the top of a file: with the file where more than one is read."""
    return Origin(name, "", file.path if len(program.files) > 1 else "", key)


def with_fields(facts: FileFacts, freed: AbstractSet[Symbol]) -> FileFacts:
    """The same where these constants are going to be fields."""
    more = sorted(freed, key=lambda s: s.bindings[0].start)
    return replace(facts, constants=facts.constants - freed, variables=(*facts.variables, *more))


def without_fields(facts: FileFacts, fixed: AbstractSet[Symbol]) -> FileFacts:
    """The same where these stay constants after all."""
    left = tuple(s for s in facts.variables if s not in fixed)
    return replace(facts, constants=facts.constants | fixed, variables=left)


def resting_on(facts: FileFacts, fixed: AbstractSet[Symbol]) -> set[Symbol]:
    """Constants that are worked out from others, which are going to be fields."""
    found: set[Symbol] = set()
    while True:
        firsts = [(s, facts.kinds[s].first) for s in facts.constants - found - fixed]
        more = {
            s
            for s, f in firsts
            if f is not None
            and f.value is not None
            and any(r.symbol in fixed | found for r in facts.file.within(*f.value))
        }
        if not more:
            return found
        found |= more
