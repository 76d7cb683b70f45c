"""Every piece of text that a rewrite writes, in the manner of a language."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Protocol

from ..edits import Range
from ..fields import NewField
from ..model import Function, Reference, Scope, SourceFile, Statement, Symbol
from .bases import Bases


class Text(Protocol):
    """``RECEIVER``: what a method calls its object; ``CONSTRUCTOR``, ``DESTRUCTOR``: their names; ``BLANKS``: blank
    lines between definitions; ``FILE_IS_CLASS``: whether a file must be named as its class; ``PARTED_IMPORTS``: whether
    a blank line stands between those of the library and the project."""

    RECEIVER: str
    CONSTRUCTOR: str
    DESTRUCTOR: str
    BLANKS: int
    FILE_IS_CLASS: bool
    PARTED_IMPORTS: bool
    bases: Bases | None

    def words(self, name: str, /) -> list[str]:
        """``tram1_isOpen`` → tram1, is, open."""
        ...

    def is_name(self, text: str, /) -> bool: ...

    def class_name(self, parts: Sequence[str], /) -> str:
        """The words of several names, each with a capital; no digit in front."""
        ...

    def member_name(self, parts: Sequence[str], like: str = "", /) -> str:
        """A field, method or variable name; never a keyword."""
        ...

    def hidden(self, name: str, /) -> str: ...

    def inherited(self, name: str, /) -> bool:
        """Whether a method of this name would take the place of one that every class has, or that the language looks
        for."""
        ...

    def file_name(self, class_: str, like: str, /) -> str:
        """The file of a class that comes out of the file ``like``."""
        ...

    def module_of(self, path: str, /) -> str: ...

    def top_module(self, module: str, /) -> str:
        """The name under which a file of a folder would be found in place of a module."""
        ...

    def hides_library(self, path: str, /) -> bool:
        """Whether a new file of this name would be imported instead of a library module."""
        ...

    def quiet_module(self, module: str, /) -> bool:
        """Whether importing a module a little earlier or later can be told from outside."""
        ...

    def packaged(self, folder: str, exists: Callable[[str], bool], /) -> str:
        """Why no file can be put beside the others of a folder; "" if one can."""
        ...

    def packaged_import(self, module: str, /) -> bool:
        """Whether an import only works inside its package."""
        ...

    def everywhere_import(self, module: str, /) -> bool:
        """Whether an import says how its file is read, rather than bringing names."""
        ...

    def newline(self, file: SourceFile, /) -> str: ...

    def with_newlines(self, text: str, nl: str, /) -> str: ...

    def indent_unit(self, file: SourceFile, /) -> str: ...

    def indented(
        self,
        file: SourceFile,
        start: int,
        end: int,
        ranges: list[Range],
        prefix: str,
        loose: tuple[int, int] | None = None,
        /,
    ) -> str:
        """The lines of [start, end), each moved right by ``prefix``; the inside of long strings stays as it is."""
        ...

    def shifted(self, file: SourceFile, start: int, end: int, ranges: list[Range], lead: str, new: str, /) -> str:
        """The text of [start, end), which begins inside a line that is led by ``lead``, with its lines led by ``new``
        instead."""
        ...

    def line_start(self, file: SourceFile, offset: int, /) -> int:
        """Where the line of an offset starts, after the byte order mark that may open the file."""
        ...

    def line_end(self, file: SourceFile, offset: int, /) -> int:
        """The offset just after the newline of the line that holds ``offset``."""
        ...

    def comment_start(self, file: SourceFile, offset: int, /) -> int: ...

    def trailing_comment(self, file: SourceFile, end: int, /) -> str: ...

    def blank_before(self, file: SourceFile, offset: int, /) -> int:
        """Where the blank lines directly above a line start."""
        ...

    def blank_after(self, file: SourceFile, offset: int, /) -> int:
        """Where the blank lines that start at ``offset`` (a line start) end."""
        ...

    def room(self, above: bytes, below: bytes, /) -> int:
        """How many blank lines may stand between two lines."""
        ...

    def statement_end(self, file: SourceFile, /) -> str:
        """What ends a statement on a line of its own."""
        ...

    def opening(self, file: SourceFile, /) -> int:
        """Where the code at the top begins."""
        ...

    def top_lead(self, file: SourceFile, unit: str, /) -> str:
        """The indentation of code at the top."""
        ...

    def use(self, ref: Reference, text: str, /) -> str:
        """What replaces a reference."""
        ...

    def member(self, owner: str, name: str, /) -> str: ...

    def make(self, class_: str, args: Sequence[str], /) -> str: ...

    def keyword_argument(self, name: str, value: str, /) -> str: ...

    def length(self, name: str, /) -> str: ...

    def each(self, class_: str, item: str, collection: str, /) -> str:
        """What a loop says that goes through objects."""
        ...

    def listed(self, file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str, /) -> str:
        """The statement that makes a list of objects."""
        ...

    def declare(self, file: SourceFile, name: str, value: str, class_: str, at: Statement | None, /) -> str:
        """The statement that makes an object, where the statement ``at`` stands."""
        ...

    def declare_variable(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        """The statement that gives a new variable at the top its value."""
        ...

    def declare_constant(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        """The statement that gives a new name at the top a value that never changes."""
        ...

    def default_value(self, type_: str, /) -> str: ...

    def as_argument(self, file: SourceFile, span: tuple[int, int], text: str, type_: str, /) -> str:
        """A first value as an argument: a bare tuple needs parentheses."""
        ...

    def declared_words(self, file: SourceFile, statement: Statement, /) -> str:
        """A declaration says nothing but its variable's name and type."""
        ...

    def set_once(self, said: str, /) -> bool: ...

    def local_edits(self, file: SourceFile, statement: Statement, /) -> list[Range]:
        """What must change in a statement at the top that becomes one of a method."""
        ...

    def class_text(self, file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField], /) -> str: ...

    def class_variable(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        """What a class says of a variable that it keeps once for all objects."""
        ...

    def class_around(self, file: SourceFile, unit: str, name: str, method: str, /) -> str: ...

    def with_methods(self, class_: str, methods: Sequence[str], /) -> str:
        """The text of a class with methods behind what it has already."""
        ...

    def empty_class(self, file: SourceFile, scope: Scope, /) -> tuple[int, int] | None:
        """The line that stands for nothing in an empty class."""
        ...

    def bare_class(self, file: SourceFile, scope: Scope, /) -> bool: ...

    def empty_body(self) -> str: ...

    def method_header(
        self, file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False
    ) -> list[Range]:
        """Edits that turn a function's header into a method's: new name, receiver first, known parameters gone."""
        ...

    def method_place(self, file: SourceFile, scope: Scope, /) -> tuple[int, str, str]:
        """Where a class gets another method, and what must stand before and after it."""
        ...

    def added_parameters(
        self, file: SourceFile, function: Function, added: Sequence[tuple[str, str]], /
    ) -> tuple[Range, str]:
        """The edit that adds parameters (name, type), and where callers give them: first, last or by name."""
        ...

    def run_method(self, file: SourceFile, unit: str, body: str, guard: Statement | None, /) -> str: ...

    def constructor_text(self, file: SourceFile, unit: str, name: str, body: str, /) -> str:
        """A constructor that is handed nothing. ``body``: its lines as they stand in a method of a class at the top."""

    def listed_in(self, file: SourceFile, holder: str, objects: Sequence[str], lead: str, unit: str, /) -> str:
        """The statement that keeps new objects in a list that an object holds. ``lead``: what its line begins with."""

    def loop(self, header: str, lead: str, unit: str, text: str, /) -> str:
        """A loop over one statement. ``header``: as ``each`` gives it; ``lead``: what its line begins with."""

    def main_call(
        self, file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None, /
    ) -> list[str]:
        """What starts the program. ``making``: the expression that makes the app."""
        ...

    def kept_main(self, unit: str, name: str, calling: str, lines: Sequence[str], /) -> tuple[str, bool]:
        """The function that starts the program, in two lines, and whether it gives what ``run`` does; "" where the
        language keeps none. ``calling``: the statement that calls it; ``lines``: what starts the program."""
        ...

    def class_trouble(self, file: SourceFile, start: int, end: int, main: bool = False) -> str:
        """Why a stretch of code would mean something else inside a class; "" if it would not."""
        ...

    def method_as_value(self, text: str, owner: str, /) -> str:
        """How a method is passed on as a value: a bound method carries its object."""
        ...

    def inner_receivers(self, file: SourceFile, top: Scope, refs: Sequence[Reference], /) -> tuple[list[Range], str]:
        """Edits that let functions inside a method see its receiver, or why they cannot: where its name means something
        else."""
        ...

    def receiver_at(self, file: SourceFile, scope: Scope, top: Scope, class_: str, /) -> str:
        """How code in ``scope`` names the object of the method ``top``: inner functions close over it."""
        ...

    def outward(
        self, file: SourceFile, refs: Sequence[Reference], fields: set[str], methods: set[str], /
    ) -> tuple[list[Range], str]:
        """Uses of other names inside a class that has members of the same names: a member is never meant without its
        object."""
        ...

    def stays_in(self, file: SourceFile, scope: Scope | None = None, /) -> str:
        """Why nothing can move out of a file into one of its own; "" if it can."""
        ...

    def needless_receivers(self, file: SourceFile, scope: Scope, /) -> list[Range]:
        """Edits that take away the receiver in front of members of a class which mean the same without it."""
        ...

    def must_be_field(self, file: SourceFile, symbol: Symbol, more: Sequence[Reference], /) -> bool:
        """Whether a variable of the main code could not be a local of a method."""
        ...

    def reads_documents(self, files: Sequence[SourceFile], /) -> bool:
        """Whether a program may read the document strings of its functions."""
        ...

    def anchored(self, file: SourceFile, statement: Statement, /) -> bool:
        """Whether a definition must stay in its file because of how it is offered to others."""
        ...

    def stale(self, path: str, /) -> list[str]:
        """Patterns of files made from a source file that must not outlive its text."""
        ...

    def head(self, file: SourceFile, /) -> str:
        """What a new file must open with to mean the same as the file that its code comes from."""
        ...

    def import_again(self, file: SourceFile, local: str, module: str, name: str, /) -> str:
        """The statement that binds the same import in another file."""
        ...

    def import_list(self, file: SourceFile, statement: Statement, bound: Sequence[tuple[str, str, str]], /) -> str:
        """One import statement for several names: (local name, module, name in the module or "")."""
        ...

    def import_names(self, file: SourceFile, module: str, names: Sequence[str], /) -> str:
        """The import of names from another file of the project."""
        ...

    def merged_imports(self, lines: Sequence[str], own: set[str], /) -> str:
        """Import statements in order, names of one module on one line, the project's own modules after the others."""
        ...

    def moved(self, file: SourceFile, statement: Statement, start: int, end: int, offered: set[str], /) -> str:
        """A statement as it stands in a file of its own."""
        ...

    def offer(self, file: SourceFile, names: Sequence[str], /) -> str:
        """What closes a new file so that others can import these names."""
        ...

    def moved_out(self, file: SourceFile, statement: Statement, start: int, unit: str, imports: list[str], /) -> str:
        """The text of a file that holds the class alone."""
        ...

    def opened(self, file: SourceFile, statement: Statement, /) -> list[Range]:
        """Edits in the old home: what the class uses of it can no longer be private."""
        ...

    def renamed_elsewhere(self, file: SourceFile, home: SourceFile, name: str, /) -> list[Range]:
        """Edits in another file that named a class by its old home."""
        ...

    def appended(self, file: SourceFile, name: str, object_: str, /) -> str:
        """The statement that adds an object to a list."""
        ...

    def sized(self, file: SourceFile, name: str, class_: str, size: str, /) -> str:
        """The statement that makes room for objects."""
        ...

    def placed(self, name: str, index: str, object_: str, /) -> str:
        """The statement that puts one of them in its place."""
        ...

    def filled(self, lead: str, unit: str, name: str, index: str, object_: str, /) -> str:
        """A loop that makes all of them."""
        ...

    def equality(self, unit: str, class_: str, /) -> str:
        """The method by which objects are equal that hold the same, as two dicts are."""
        ...

    def has_members(self, file: SourceFile, span: tuple[int, int], /) -> bool:
        """Whether an expression can be asked for a member as it is written."""
        ...

    def typed(self, file: SourceFile, /) -> bool: ...
