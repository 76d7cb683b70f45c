"""What a language with braces answers where it does not say otherwise: a plain one, whose names mean what they say.

A language overrides what is different; ``name``, ``suffixes``, ``read``, ``compiles``, ``arguments``, ``tokens``,
``body``, ``inner``, ``purity``, ``type_of`` and ``member_owner`` are its own.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, ClassVar

from ...program.facets.extraction import Extraction
from ...program.facets.inlining import Inlining
from ...program.facets.launch import Launch
from ...program.facets.text import Text
from ...program.frameworks import Frameworks
from ...program.inline import Inline
from ...program.keyed import Keyed
from ...program.lists import ListUse, WholeLoop
from ...program.model import Problem, Reference, SourceFile, Statement, Symbol
from ...program.streams import Streams
from ...program.tell import Tell
from ...program.whole import Members
from .facets import BracedLaunch, BracedRegions, BracedText

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
    unset_errors: frozenset[str] = frozenset()
    bare_members = False
    held: frozenset[str] = frozenset()
    concerns: ClassVar[dict[str, list[str]]] = {}
    members: Members | None = None
    frameworks: Frameworks | None = None
    streams: Streams | None = None
    opened: Inlining | None = None
    write: Text = BracedText()
    regions: Extraction = BracedRegions()
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

    def count(self, statement: Statement) -> int:
        """How many statements it is, with those inside of it."""
        return sum(1 for n in nodes(statement.node) if n.type.endswith(("_statement", "declaration"))) or 1

    def depth(self, statement: Statement) -> int:
        """How deeply blocks nest in it."""
        return depth_of(statement.node)


def nodes(node: Any) -> list[Any]:
    found, stack = [], [node]
    while stack:
        at = stack.pop()
        found.append(at)
        stack.extend(at.named_children)
    return found


def depth_of(node: Any) -> int:
    deeper = max((depth_of(c) for c in node.named_children), default=0)
    return deeper + (
        node.type in ("if_statement", "for_statement", "while_statement", "do_statement", "switch_statement")
    )
