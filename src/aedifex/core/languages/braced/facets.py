"""What a language with braces writes, extracts and starts where it does not say otherwise; a small language begins with
these.

What needs the language's own words, and is not given, says so when it is asked for: a step of that kind is not offered
yet.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any, ClassVar, NoReturn

from ...program.clues import Clues
from ...program.edits import Range
from ...program.facets import defaults
from ...program.fields import NewField
from ...program.model import Arm, Beside, Block, Function, NewFunction, Reference, Scope, SourceFile, Statement, Symbol
from ..text import PlainText
from . import blocks, text
from .statements import Statements

own = defaults.unasked


class BracedText(PlainText):
    """The text of a language with braces; what is its own is asked of it."""

    RECEIVER = "this"
    CONSTRUCTOR = "constructor"
    DESTRUCTOR = ""
    BLANKS = 1
    FILE_IS_CLASS = False
    PARTED_IMPORTS = False
    KEYWORDS: frozenset[str] = frozenset()

    indent_unit = staticmethod(text.indent_unit)
    comment_start = staticmethod(text.comment_start)
    trailing_comment = staticmethod(text.trailing_comment)
    room = staticmethod(text.room)
    top_lead = staticmethod(text.top_lead)
    member = staticmethod(text.member)
    make = staticmethod(text.make)
    keyword_argument = staticmethod(text.keyword_argument)
    with_methods = staticmethod(text.with_methods)
    empty_class = staticmethod(text.empty_class)
    bare_class = staticmethod(text.bare_class)
    empty_body = staticmethod(text.empty_body)
    method_place = staticmethod(text.method_place)
    reads_documents = staticmethod(text.reads_documents)
    top_module = staticmethod(text.top_module)
    packaged = staticmethod(text.packaged)
    packaged_import = staticmethod(text.packaged_import)
    everywhere_import = staticmethod(text.everywhere_import)
    stale = staticmethod(text.stale)

    def listed_in(self, file: SourceFile, holder: str, objects: Sequence[str], lead: str, unit: str, /) -> str:
        line = f"{holder} = [{', '.join(objects)}];"
        if len(lead) + len(line) <= 100:
            return line
        return f"{holder} = [\n" + "".join(f"{lead}{unit}{o},\n" for o in objects) + f"{lead}];"

    def loop(self, header: str, lead: str, unit: str, text: str, /) -> str:
        return f"for ({header}) {{\n{lead}{unit}{text}\n{lead}}}"

    def constructor_text(self, file: SourceFile, unit: str, name: str, body: str, /) -> str:
        lead = self.top_lead(file, unit) + unit
        return f"{lead}{self.CONSTRUCTOR}() {{\n{body}{lead}}}\n"

    def is_name(self, text_: str, /) -> bool:
        return text.is_name(self.KEYWORDS, text_)

    def member_name(self, parts: Sequence[str], like: str = "", /) -> str:
        return text.member_name(self.KEYWORDS, parts, like)

    def hidden(self, name: str, /) -> str:
        return name

    def inherited(self, name: str, /) -> bool:
        return False

    def module_of(self, path: str, /) -> str:
        return path.rpartition("/")[2].partition(".")[0]

    def file_name(self, class_: str, like: str, /) -> str:
        return class_.lower() + like[like.rindex(".") :]

    def hides_library(self, path: str, /) -> bool:
        return False

    def quiet_module(self, module: str, /) -> bool:
        return False

    def statement_end(self, file: SourceFile, /) -> str:
        return ";"

    def opening(self, file: SourceFile, /) -> int:
        return 0

    def use(self, ref: Reference, text: str, /) -> str:
        return text

    def length(self, name: str, /) -> str:
        own("the length of a list")

    def each(self, class_: str, item: str, collection: str, /) -> str:
        own("a loop through objects")

    def listed(self, file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str, /) -> str:
        own("a list of objects")

    def declare(self, file: SourceFile, name: str, value: str, class_: str, at: Statement | None, /) -> str:
        return f"{class_} {name} = {value};"

    def declare_variable(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        return f"{type_} {name} = {value};"

    def declare_constant(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        return f"const {type_} {name} = {value};"

    def default_value(self, type_: str, /) -> str:
        return "0"

    def as_argument(self, file: SourceFile, span: tuple[int, int], text: str, type_: str, /) -> str:
        return text

    def declared_words(self, file: SourceFile, statement: Statement, /) -> str:
        return ""

    def set_once(self, said: str, /) -> bool:
        return "const" in said.split()

    def local_edits(self, file: SourceFile, statement: Statement, /) -> list[Range]:
        return []

    def class_text(self, file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField], /) -> str:
        own("a class")

    def class_variable(self, file: SourceFile, name: str, value: str, type_: str, /) -> str:
        own("a field of a class")

    def class_around(self, file: SourceFile, unit: str, name: str, method: str, /) -> str:
        own("a class around a method")

    def method_header(
        self, file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False
    ) -> list[Range]:
        own("the head of a method")

    def added_parameters(
        self, file: SourceFile, function: Function, added: Sequence[tuple[str, str]], /
    ) -> tuple[Range, str]:
        """First, where a later one may be left out."""
        names = ", ".join(self.parameter(file, name, type_) for name, type_ in added)
        if not function.params:
            return (function.params_start, function.params_start, names), "last"
        if any(p.default or p.kind == "star" for p in function.params):
            return (function.params[0].start, function.params[0].start, names + ", "), "first"
        return (function.params[-1].end, function.params[-1].end, ", " + names), "last"

    def parameter(self, file: SourceFile, name: str, type_: str) -> str:
        """A parameter as the head of a function lists it."""
        return f"{type_} {name}"

    def run_method(self, file: SourceFile, unit: str, body: str, guard: Statement | None, /) -> str:
        own("a method that runs the program")

    def main_call(
        self, file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None, /
    ) -> list[str]:
        own("the call that runs the program")

    def kept_main(self, unit: str, name: str, calling: str, lines: Sequence[str], /) -> tuple[str, bool]:
        return "", False

    def class_trouble(self, file: SourceFile, start: int, end: int, main: bool = False) -> str:
        return ""

    def method_as_value(self, text: str, owner: str, /) -> str:
        own("a method as a value")

    def inner_receivers(self, file: SourceFile, top: Scope, refs: Sequence[Reference], /) -> tuple[list[Range], str]:
        return [], ""

    def receiver_at(self, file: SourceFile, scope: Scope, top: Scope, class_: str, /) -> str:
        return self.RECEIVER

    def outward(
        self, file: SourceFile, refs: Sequence[Reference], fields: set[str], methods: set[str], /
    ) -> tuple[list[Range], str]:
        return [], ""

    def stays_in(self, file: SourceFile, scope: Scope | None = None, /) -> str:
        return ""

    def must_be_field(self, file: SourceFile, symbol: Symbol, more: Sequence[Reference], /) -> bool:
        return False

    def anchored(self, file: SourceFile, statement: Statement, /) -> bool:
        return False


class BracedRegions:
    """Blocks and what is tied to a function; what is lifted, and how, is the language's own.

    ``EXPRESSIONS``: kinds of nodes that are whole expressions; ``TARGETS``: (kind around it, field) of places that take
    no value; ``OPERATIONS``: kinds that are worked out; ``TESTS``: operators of conditions; ``FUNCTIONS``: kinds of
    functions without a name.
    """

    CLOSURES = False
    LEAVES = "false"
    GOES_ON = "true"
    NOTHING = "void"
    STATEMENTS: ClassVar[Statements]
    EXPRESSIONS: ClassVar[frozenset[str]] = frozenset()
    TARGETS: ClassVar[frozenset[tuple[str, str]]] = frozenset()
    OPERATIONS: ClassVar[frozenset[str]] = frozenset(["binary_expression", "unary_expression"])
    TESTS: ClassVar[frozenset[str]] = frozenset(["<", ">", "<=", ">=", "==", "!=", "&&", "||", "!"])
    FUNCTIONS: ClassVar[frozenset[str]] = frozenset()

    loop_body = staticmethod(blocks.loop_body)
    returns_nothing = staticmethod(blocks.returns_nothing)
    given_back = staticmethod(blocks.given_back)
    lone = staticmethod(blocks.lone)
    leave_first = staticmethod(blocks.leave_first)
    either = staticmethod(blocks.either)
    in_place = staticmethod(defaults.in_place)

    # -- blocks ----------------------------------------------------------------------------------

    def inside(self, file: SourceFile, node: Any) -> list[Statement]:
        """The statements of a block, or of a case, whose label is none of them."""
        return self.STATEMENTS.statements(file, node)

    def blocks(self, file: SourceFile, statement: Statement, /) -> list[Block]:
        return blocks.told_blocks(file, statement, self.inside, self.STATEMENTS.statement)

    def arms(self, file: SourceFile, statement: Statement, /) -> list[Arm]:
        return blocks.arms(file, statement, self.STATEMENTS.statements)

    # -- expressions -----------------------------------------------------------------------------

    def expression(self, file: SourceFile, start: int, end: int, /) -> bool:
        return blocks.whole(file, start, end, self.EXPRESSIONS, self.TARGETS)

    def expressions(self, file: SourceFile, start: int, end: int, /) -> Iterator[tuple[int, int, bool]]:
        for node in blocks.within(file.tree.root_node.descendant_for_byte_range(start, end), start, end):
            if node.type in self.OPERATIONS and self.expression(file, node.start_byte, node.end_byte):
                operator = node.child_by_field_name("operator")
                yield node.start_byte, node.end_byte, operator is not None and operator.type in self.TESTS

    def result_of(self, file: SourceFile, start: int, end: int, /) -> str:
        return ""

    def declared_as(self, file: SourceFile, symbol: Symbol, /) -> tuple[str, str]:
        return "", ""

    # -- functions -------------------------------------------------------------------------------

    def unnamed(self, file: SourceFile, scope: Scope, /) -> Function | None:
        node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
        body = node.child_by_field_name("body") if node.type in self.FUNCTIONS else None
        if body is None or body.type not in self.STATEMENTS.SHAPES.blocks:
            return None
        return self.written_in_place(file, scope, node, body)

    def written_in_place(self, file: SourceFile, scope: Scope, node: Any, body: Any) -> Function:
        """A function without a name, of the statements of ``body``."""
        at, span = body.start_byte, (node.start_byte, node.end_byte)
        outer = scope.parent or file.scope
        return Function("", scope, outer, *span, node.start_byte, at, at, [], at, at, at, node=node)

    def result_type(self, file: SourceFile, function: Function, /) -> str:
        return ""

    def bound_to_function(self, file: SourceFile, start: int, end: int, /) -> tuple[str, int] | None:
        return blocks.labelled(file, start, end)

    def beside(self, file: SourceFile, function: Function, /) -> Beside:
        return Beside(trouble="a method beside another one is not written in this language yet")

    def method_around(self, file: SourceFile, function: Function | None, /) -> Function | None:
        return None

    def called_in_place(self, file: SourceFile, statement: Statement, /) -> Function | None:
        return None

    def called_when_ready(self, file: SourceFile, statement: Statement, /) -> Function | None:
        return None

    # -- what is extracted -----------------------------------------------------------------------

    def ended(self, file: SourceFile, text: str, /) -> str:
        return f"{text};"

    def several_results(self, file: SourceFile, start: int, declared: bool, /) -> str:
        return "more than one value would come back"

    def word_for(self, file: SourceFile, words: Sequence[str], /) -> str:
        return ""

    def give_back(self, values: Sequence[str], /) -> str:
        return f"return {', '.join(values)}".rstrip()

    def taken_by(self, names: Sequence[str]) -> str:
        """What stands on the left of a call that gives these back."""
        return ", ".join(names)

    def take_back(
        self, file: SourceFile, names: Sequence[str], call: str, unit: str, lead: str, leaves: str, word: str, /
    ) -> str:
        if leaves == "break":
            return f"if (!{call}) {{\n{lead}{unit}{self.ended(file, 'break')}\n{lead}}}"
        if leaves == "return":
            return self.ended(file, f"return {call}")
        set_ = f"{self.taken_by(names)} = {call}" if names else call
        return self.ended(file, f"{word} {set_}" if word else set_)

    def lifted(self, file: SourceFile, lead: str, unit: str, new: NewFunction, /) -> str:
        own("a function made of lines")

    def only(self, file: SourceFile, start: int, call: str, /) -> str:
        own("a body that only calls")


class BracedLaunch:
    """A language whose programs are not started yet: what a build makes is read again, and no more."""

    SHARES_SCREEN = True
    MEMORY = 0
    unit_tests: Any = None

    def runner(self, files: list[SourceFile], /) -> str:
        return "process"

    def needs_display(self, files: list[SourceFile], /) -> bool:
        return False

    def needs_standins(self, files: list[SourceFile], /) -> bool:
        return False

    def clues(self, files: list[SourceFile], /) -> Clues:
        return Clues()

    def linked(self, root: str, /) -> list[str]:
        return []

    def interpreter(self, root: str, /) -> str:
        self.unstarted()

    def prepare(self, folder: str, sources: list[SourceFile], wishes: dict[str, Any], /) -> str:
        return ""

    def command(
        self, root: str, entry: str, sources: list[SourceFile], wishes: dict[str, Any], /
    ) -> tuple[list[str], str]:
        self.unstarted()

    def environment(self, standins: bool, /) -> dict[str, str]:
        return {}

    def planned(self, plan: dict[str, Any], path: str, /) -> dict[str, str]:
        return {}

    def crash(self, error: str, /) -> str:
        return ""

    def missing_module(self, error: str, /) -> str:
        return ""

    def mask_trace(self, text: str, /) -> str:
        return text

    def unstarted(self) -> NoReturn:
        own("the command that starts a program")
