"""What those who plan classes are told of a file: what may move, what stays, names that are free, and what was planned
before."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from ..analysis.effects import Effects
from ..analysis.variable_kinds import Variable
from ..design.tables import ClassDesign, StayDesign
from ..program.facets.text import Text
from ..program.language import Language
from ..program.model import Function, SourceFile, Symbol
from ..program.program import Program


class FileFacts(Protocol):
    """``variables``, ``functions``: those that may move; ``parts``: functions made of lines that are to be methods of
    the app; ``taken_variables``, ``taken_functions``: those that have a class by now; ``things``: variables of one
    object each, which lines speak of; ``asked_fields``: those that a person wants in the app; ``idea``: what holds a
    class together."""

    program: Program
    file: SourceFile
    language: Language
    write: Text
    effects: Effects
    kinds: dict[Symbol, Variable]
    constants: set[Symbol]
    variables: list[Symbol]
    functions: list[Function]
    parts: list[Function]
    classes: list[ClassDesign]
    stays: list[StayDesign]
    taken_variables: set[Symbol]
    taken_functions: set[Symbol]
    names: set[str]
    reserved: set[str]
    idea: str
    things: Sequence[frozenset[str]]
    asked_fields: set[Symbol]
    streams: frozenset[str]

    def short_names(self, names: list[str], stems: set[str], taken: set[str]) -> dict[str, str]:
        """Names of functions as methods, without what the class says already."""
        ...
