"""What a language with braces answers where it does not say otherwise: a plain one, whose names mean what they say.

A language overrides what is different; ``name``, ``suffixes``, ``read``, ``compiles``, ``statements`` (a table of its
grammar), ``purity`` and ``type_of`` are its own.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import ClassVar

from ...program.facets.extraction import Extraction
from ...program.facets.inlining import Inlining
from ...program.facets.launch import Launch
from ...program.facets.listening import Listening
from ...program.facets.text import Text
from ...program.frameworks import Frameworks
from ...program.inline import Inline
from ...program.keyed import Keyed
from ...program.lists import ListUse, WholeLoop
from ...program.model import Argument, Call, Function, Problem, Reference, SourceFile, Statement, Symbol
from ...program.streams import Streams
from ...program.tell import Tell
from ...program.whole import Members
from .facets import BracedLaunch, BracedRegions, BracedText
from .statements import Statements

Span = tuple[int, int]


class Braced:
    """A language with braces that says nothing else."""

    builtins: frozenset[str] = frozenset()
    dynamic: frozenset[str] = frozenset()
    everywhere: frozenset[str] = frozenset()
    quiet: frozenset[str] = frozenset()
    quiet_modules: frozenset[str] = frozenset()
    quiet_members: frozenset[str] = frozenset()
    at_once: frozenset[str] = frozenset()
    gathers = False
    joined = False
    placement = "imports"
    declares = True
    typed = True
    heads_run = False
    renames_imports = False
    starts = ""
    manifests: frozenset[str] = frozenset()
    endings: frozenset[str] = frozenset()
    lenient_lists = False
    code_at_top = False
    exact_calls = True
    elsewhere: frozenset[str] = frozenset()
    reserved: frozenset[str] = frozenset()
    main_module = ""
    registries: frozenset[str] = frozenset()
    introspective: frozenset[str] = frozenset()
    colours: frozenset[str] = frozenset()
    unset_errors: frozenset[str] = frozenset()
    bare_members = False
    held: frozenset[str] = frozenset()
    concerns: ClassVar[dict[str, list[str]]] = {}
    members: Members | None = None
    frameworks: Frameworks | None = None
    streams: Streams | None = None
    opened: Inlining | None = None
    listening: Listening | None = None
    write: Text = BracedText()
    regions: Extraction = BracedRegions()
    statements: Statements
    launch: Launch = BracedLaunch()

    def accepts(self, files: list[SourceFile]) -> list[Problem]:
        """Each file says enough by itself."""
        return []

    def alone(self, file: SourceFile, start: int, end: int) -> bool:
        """A block may be empty."""
        return False

    def has_alternative(self, statement: Statement) -> bool:
        return statement.node is not None and statement.node.child_by_field_name("alternative") is not None

    def confined(self, file: SourceFile, call: Reference) -> bool:
        """What runs a text sees everything around it."""
        return False

    def looked_up(self, file: SourceFile, call: Reference) -> set[str] | None:
        return None

    def offered_words(self, file: SourceFile, name: str) -> list[Span]:
        """Nothing is offered by a text."""
        return []

    def imported_word(self, file: SourceFile, statement: Statement, name: str) -> Span | None:
        return None

    def module_word(self, file: SourceFile, statement: Statement, module: str) -> Span | None:
        return None

    def copies(self, file: SourceFile) -> list[tuple[str, int]]:
        """Functions are neither copied nor held weakly."""
        return []

    def unpacked(self, file: SourceFile, statement: Statement) -> list[tuple[Span, Span]]:
        return []

    def item_value(self, file: SourceFile, start: int, end: int) -> Span | None:
        return None

    def handed_over(self, file: SourceFile, ref: Reference) -> bool:
        return True

    def keyed(self, file: SourceFile) -> list[Keyed]:
        """What a map holds is not followed."""
        return []

    # -- what a language without libraries, lists and imports need not answer -----------------------

    def reentrant(self, module: str) -> str:
        return ""

    def offered(self, file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
        return []

    def hooks(self, file: SourceFile) -> dict[str, str]:
        return {}

    def special(self, name: str) -> bool:
        return False

    def literals(self, file: SourceFile, start: int, end: int) -> Iterable[tuple[int, int, str]]:
        return ()

    def list_uses(self, file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
        return None

    def object_list_uses(self, file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
        return None

    def item_type(self, file: SourceFile, ref: Reference) -> str:
        return ""

    def whole_loop(self, file: SourceFile, start: int, end: int, bounds: set[str]) -> WholeLoop | None:
        return None

    def inlines(self, file: SourceFile) -> list[Inline]:
        return []

    def imported(self, file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
        return []

    def means(self, importer: str, module: str, name: str, path: str) -> bool:
        return False

    def tells(self, file: SourceFile) -> list[Tell]:
        return []

    def ambient(self, file: SourceFile) -> list[tuple[str, str, str, int]]:
        return []

    def named_by(self, path: str) -> set[str]:
        return {path.rpartition("/")[2]}

    def last_parts(self, module: str, name: str) -> set[str]:
        return {module}

    # -- statements ------------------------------------------------------------------------------

    def body(self, file: SourceFile, function: Function) -> list[Statement]:
        return self.statements.body_of(file, function)

    def inner(self, file: SourceFile, statement: Statement) -> list[Statement]:
        return self.statements.inner_statements(file, statement.node)

    def arguments(self, file: SourceFile, call: Call) -> list[Argument]:
        return self.statements.arguments(file, call)

    def tokens(self, file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
        return self.statements.tokens(file, start, end, edits)

    def member_owner(self, file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
        return self.statements.member_owner(file, start, end)

    def count(self, statement: Statement) -> int:
        """How many statements it is, with those inside of it."""
        return self.statements.count(statement.node)

    def depth(self, statement: Statement) -> int:
        """How deeply blocks nest in it."""
        return self.statements.depth(statement.node)
