"""What a language must offer, and how languages are found. The core knows languages only through this."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from importlib.metadata import EntryPoint, entry_points
from typing import Protocol

from .errors import AedifexError
from .facets.extraction import Extraction
from .facets.inlining import Inlining
from .facets.launch import Launch
from .facets.listening import Listening
from .facets.text import Text
from .fields import NewField as NewField
from .frameworks import Frameworks
from .inline import Inline
from .keyed import Keyed
from .lists import ListUse, WholeLoop
from .model import Argument, Call, Function, Problem, Reference, SourceFile, Statement, Symbol
from .streams import Streams
from .tell import Tell
from .whole import Members


class Language(Protocol):
    """One language. ``write``, ``regions`` and ``launch`` are its writers and launcher (see
    ``docs/adding-a-language.md``)."""

    name: str
    suffixes: tuple[str, ...]
    builtins: frozenset[str]
    dynamic: frozenset[str]  # builtins that reach names by their text
    everywhere: frozenset[str]  # those of them that reach any name, wherever they are called
    quiet: frozenset[str]  # builtins that run no other code of the program
    quiet_modules: frozenset[str]  # modules, or objects that the language gives, whose members run none
    quiet_members: frozenset[str]  # members, whatever they are taken from, that run none
    at_once: frozenset[str]  # calls that use up what they are handed, functions and generators, before they return
    gathers: bool  # whether files that one names without an import belong to it, as its compiler finds them
    joined: bool  # whether the files of a folder are one program, read as one
    placement: str  # how a class in a file of its own finds the rest: "imports", "shared" (all see all) or "qualified"
    declares: bool  # whether every variable is declared, so that a name means the same from the start of its scope
    typed: bool  # whether fields and parameters need a type
    heads_run: bool  # whether what stands in a function's head (defaults, decorators) is worked out where it is defined
    renames_imports: bool  # whether the name or module in an import can be rewritten
    starts: str  # the function that the program's surroundings call first, and once, by its name alone; else ""
    manifests: frozenset[str]  # endings of files that name, as module:name, what is to be started or served
    endings: frozenset[str]  # calls that end the program
    lenient_lists: bool  # whether asking a list for an item that is not there is no error
    code_at_top: bool  # whether statements may stand beside definitions
    exact_calls: bool  # whether a call must give as many arguments as there are parameters
    elsewhere: frozenset[str]  # those of the introspective names that mean something else in another file
    reserved: frozenset[str]  # variables that the language's surroundings read by their name
    main_module: str  # by what name any file can import the one that was started; "" where there is none
    registries: frozenset[str]  # members of modules through which any name can be reached
    introspective: frozenset[str]  # names that the language gives each file or function
    colours: frozenset[str]  # functions that may be given three numbers, or what ``color`` makes of them
    unset_errors: frozenset[str]  # what is raised where a name is not bound, or a member missing
    bare_members: bool  # whether inside a class a name that stands alone may mean its member
    held: frozenset[str]  # calls that make something which dies with its last holder
    concerns: dict[str, list[str]]  # what calls are for: patterns of how they are written, "*." is a member of anything
    write: Text
    launch: Launch
    regions: Extraction  # what can be lifted out of a function, and how that is written
    frameworks: Frameworks | None  # classes of libraries that a class can extend
    members: Members | None  # what the methods of a class do with its members
    streams: Streams | None  # how a console program asks and tells
    listening: Listening | None  # listeners that stand in methods of classes
    opened: Inlining | None  # how a long main function is written as main code; only where code can stand at the top

    def read(self, path: str, text: bytes) -> SourceFile: ...

    def compiles(self, path: str, text: bytes) -> Problem | None: ...

    def accepts(self, files: list[SourceFile]) -> list[Problem]:
        """What the compiler has against the whole program, where a file by itself tells too little."""
        ...

    def arguments(self, file: SourceFile, call: Call) -> list[Argument]: ...

    def keyed(self, file: SourceFile) -> list[Keyed]:
        """Records held in keyed tables, each kind with all that may hold one."""
        ...

    def body(self, file: SourceFile, function: Function) -> list[Statement]: ...

    def inner(self, file: SourceFile, statement: Statement) -> list[Statement]: ...

    def alone(self, file: SourceFile, start: int, end: int) -> bool:
        """Whether the statement there is all that its block holds."""
        ...

    def reentrant(self, module: str) -> str:
        """Why a module may run or name the program's parts from outside; "" if it does not."""
        ...

    def offered(self, file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
        """(offset, names, how) of what a file offers to other files: by what it says itself."""
        ...

    def hooks(self, file: SourceFile) -> dict[str, str]:
        """Functions that the program's surroundings call by their name, with the reason why they must stay."""
        ...

    def confined(self, file: SourceFile, call: Reference) -> bool:
        """Whether a call that runs a text lets it see only names that it is given, none of the file's."""
        ...

    def looked_up(self, file: SourceFile, call: Reference) -> set[str] | None:
        """The names that are looked up in what a call of ``dynamic`` gives, where nothing else is done with it; None if
        more may be."""
        ...

    def special(self, name: str) -> bool:
        """Whether a class's member of this name is called without being named."""
        ...

    def has_alternative(self, statement: Statement) -> bool:
        """Whether a conditional has another branch."""
        ...

    def tokens(self, file: SourceFile, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[str]:
        """The words of a stretch of code without comments and layout, with some ranges replaced."""
        ...

    def unpacked(self, file: SourceFile, statement: Statement) -> list[tuple[tuple[int, int], tuple[int, int]]]:
        """(name, value) of each variable where one statement sets several, each to a value of its own; none for any
        other."""
        ...

    def literals(self, file: SourceFile, start: int, end: int) -> Iterable[tuple[int, int, str]]:
        """Literals that a name could stand for: start, end, and what the language calls their type."""
        ...

    def count(self, statement: Statement) -> int: ...

    def depth(self, statement: Statement) -> int: ...

    def purity(self, file: SourceFile, span: tuple[int, int]) -> str:
        """ "literal" (no names), "pure" (same value wherever evaluated, if its names are constant), or "effect"."""
        ...

    def type_of(self, file: SourceFile, span: tuple[int, int]) -> str: ...

    def member_owner(self, file: SourceFile, start: int, end: int) -> tuple[int, int, bool] | None:
        """Span of what a member is taken from, whose name stands from ``start`` to ``end``, and whether that makes an
        object; None where no member stands."""
        ...

    def list_uses(self, file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
        """Every use of a list at the top, in source order; None if the list itself gets about, or this is not told."""
        ...

    def object_list_uses(self, file: SourceFile, symbol: Symbol) -> list[ListUse] | None:
        """As ``list_uses``, of a list of objects: calls of what a list offers are known too, as kind "other"."""
        ...

    def item_type(self, file: SourceFile, ref: Reference) -> str:
        """The type of a list's items, from where it is declared; "" where no types are written."""
        ...

    def item_value(self, file: SourceFile, start: int, end: int) -> tuple[int, int] | None:
        """The value that a statement gives one item of a list; None if it does something else."""
        ...

    def handed_over(self, file: SourceFile, ref: Reference) -> bool:
        """Whether whatever can be an item of a list, from where that is declared, can be handed over as such."""
        ...

    def whole_loop(self, file: SourceFile, start: int, end: int, bounds: set[str]) -> WholeLoop | None:
        """A statement as a loop that counts from nothing up to one of the bounds (texts without spaces); None if it is
        none."""
        ...

    def inlines(self, file: SourceFile) -> list[Inline]:
        """The handlers that are written in place in main code, in source order."""
        ...

    def imported(self, file: SourceFile, statement: Statement) -> list[tuple[str, str, str]]:
        """What an import binds: (local name, module, name in the module or "")."""
        ...

    def imported_word(self, file: SourceFile, statement: Statement, name: str) -> tuple[int, int] | None:
        """Where an import says a name that it takes from a module."""
        ...

    def offered_words(self, file: SourceFile, name: str) -> list[tuple[int, int]]:
        """Where a file spells a name as a text to offer it to others."""
        ...

    def module_word(self, file: SourceFile, statement: Statement, module: str) -> tuple[int, int] | None:
        """Where an import says the last part of a module's name, if that can be replaced."""
        ...

    def means(self, importer: str, module: str, name: str, path: str) -> bool:
        """Whether an import in the file ``importer`` may be of the file ``path``."""
        ...

    def tells(self, file: SourceFile) -> list[Tell]:
        """What in a file can tell a function from a method, names something by a text, or tells where code stands."""
        ...

    def copies(self, file: SourceFile) -> list[tuple[str, int]]:
        """(what it does, offset) of calls that copy, or do not keep alive, the functions that something holds."""
        ...

    def ambient(self, file: SourceFile) -> list[tuple[str, str, str, int]]:
        """(local name, module, name in it, offset) of what a file uses of others without importing it."""
        ...

    def named_by(self, path: str) -> set[str]:
        """Words of which another file says at least one where it imports the file at a path."""
        ...

    def last_parts(self, module: str, name: str) -> set[str]:
        """What ``write.module_of`` may give for the files that an import may be of."""
        ...


@cache
def readers() -> dict[str, EntryPoint]:
    """Suffix → where the language is that reads such files, from the entry points group ``aedifex.languages``: a
    language is loaded once there is a file of it."""
    return {f".{p.name}": p for p in sorted(entry_points(group="aedifex.languages"), key=lambda p: p.name)}


@cache
def loaded(point: EntryPoint) -> Language:
    """The language at an entry point."""
    found: Language = point.load()
    return found


def languages() -> dict[str, Language]:
    """All installed languages by name."""
    found = [loaded(point) for point in readers().values()]
    return {language.name: language for language in sorted(found, key=lambda x: x.name)}


def language_of(path: str) -> Language:
    """The language of a file, by its suffix. Raises AedifexError if no installed language reads it."""
    point = next((p for suffix, p in readers().items() if path.endswith(suffix)), None)
    if point is None:
        known = ", ".join(suffixes())
        raise AedifexError(f"{path}: is not a script in a language that is installed ({known}).")
    return loaded(point)


def suffixes() -> tuple[str, ...]:
    """What the names of scripts end with, in all languages."""
    return tuple(readers())
