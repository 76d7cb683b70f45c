"""What of JavaScript's text can be lifted out of a function, and how the function is written."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import partial
from typing import Any

from ....program.model import Beside, Function, NewFunction, Parameter, Scope, SourceFile, Statement, Symbol
from ...braced import blocks as braces
from ...braced.facets import BracedRegions
from ..reading.lists import PLAIN
from ..reading.structure import STATEMENTS
from ..reading.walk import FUNCTIONS
from .words import end as mark
from .words import gap, old_style, typed

READY = re.compile(
    r"""((document|window)\.addEventListener\(\s*['"](DOMContentLoaded|load)['"]\s*,|(window\.)?onload\s*=|(\$|jQuery)\((\s*document\s*\)\.ready\()?\s*(function\b|\())"""
)
FIELDS = frozenset(["field_definition", "public_field_definition"])
OWN_THIS = frozenset(
    [
        "function_declaration",
        "function_expression",
        "function",
        "generator_function",
        "generator_function_declaration",
        "class_declaration",
        "class",
        "method_definition",
    ]
)
TIED = {
    "this": "'this' is the function's own",
    "super": "'super' is the function's own",
    "await_expression": "'await' only works in the function itself",
    "yield_expression": "'yield' gives something back from the function itself",
    "meta_property": "it asks how the function was called",
}


class JavaScriptRegions(BracedRegions):
    """What of JavaScript's text can be lifted out of a function, and how the function is written."""

    either = staticmethod(partial(braces.either, equal="===", unlike="!=="))
    STATEMENTS = STATEMENTS
    EXPRESSIONS = frozenset(
        """
        binary_expression unary_expression ternary_expression call_expression
        parenthesized_expression array object new_expression
        """.split()
    )
    TARGETS = frozenset(
        [
            ("assignment_expression", "left"),
            ("augmented_assignment_expression", "left"),
            ("call_expression", "function"),
            ("update_expression", ""),
            ("for_in_statement", "left"),
        ]
    )
    OPERATIONS = frozenset(["binary_expression", "unary_expression", "ternary_expression"])
    TESTS = frozenset(["<", ">", "<=", ">=", "==", "!=", "===", "!==", "&&", "||", "!", "in", "instanceof"])
    FUNCTIONS = frozenset([*FUNCTIONS, "method_definition"])

    CLOSURES = True  # a function can stand inside another one
    NOTHING = ""

    def written_in_place(self, file: SourceFile, scope: Scope, node: Any, body: Any) -> Function:
        made = super().written_in_place(file, scope, node, body)
        outer = scope.parent or file.scope
        if (
            outer.kind == "function"
            and outer.name == "field"
            and outer.parent is not None
            and node.parent.type in FIELDS
        ):
            made.outer, made.start, made.end = outer.parent, node.parent.start_byte, node.parent.end_byte
            made.end += file.text[made.end : made.end + 1] == b";"
        return made

    def called_in_place(self, file: SourceFile, statement: Statement) -> Function | None:
        """The function of statements that a statement makes, calls, and drops: ``(function () { ... })();``."""
        call = call_in_place(statement)
        return plain_function(file, bare(call.child_by_field_name("function"))) if call is not None else None

    def called_when_ready(self, file: SourceFile, statement: Statement) -> Function | None:
        """The function of statements that a page calls once it is there: ``window.onload = function () { ... };``."""
        node = statement.node
        node = bare(node.named_children[0]) if node is not None and node.type == "expression_statement" else None
        if node is None or not READY.match(file.slice(node.start_byte, node.end_byte)):
            return None
        given = node.child_by_field_name("arguments")
        last = node.child_by_field_name("right") if given is None else next(iter(reversed(given.named_children)), None)
        return plain_function(file, bare(last)) if last is not None else None

    def method_around(self, file: SourceFile, function: Function | None) -> Function | None:
        """The method of a class whose ``this`` an arrow function inside it uses."""
        if function is None or not speaks_of_this(function.node) or not in_method(file, function.start, function.end):
            return None
        at: Scope | None = function.scope
        while at is not None and (at.function is None or at.function.outer.kind != "class"):
            at = at.parent
        return at.function if at is not None else None

    def inside(self, file: SourceFile, node: Any) -> list[Statement]:
        label = node.child_by_field_name("value") if node.type == "switch_case" else None
        return [s for s in STATEMENTS.statements(file, node) if label is None or s.start != label.start_byte]

    def taken_by(self, names: Sequence[str]) -> str:
        return f"[{', '.join(names)}]" if len(names) > 1 else "".join(names)

    def ended(self, file: SourceFile, text: str) -> str:
        return text + mark(file)

    def bound_to_function(self, file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
        """(why, where) of what would mean something else in another function."""
        method = in_method(file, start, end)
        if before_super(file, start, end):
            return "the object is not there before 'super()' has run", start
        for node in braces.within(file.tree.root_node.descendant_for_byte_range(start, end), start, end, OWN_THIS):
            if node.type in TIED and not (method and node.type == "this"):
                return TIED[node.type], int(node.start_byte)
            if node.type == "identifier" and node.text == b"arguments":
                return "'arguments' are the function's own", int(node.start_byte)
        return braces.labelled(file, start, end)

    def beside(self, file: SourceFile, function: Function) -> Beside:
        """How a method beside this one is written and called."""
        node = function.node
        if node is not None and node.parent is not None and node.parent.type in FIELDS:
            node = node.parent
        if node is None or node.type not in ("method_definition", *FIELDS) or function.outer.kind != "class":
            return Beside()
        if not static(node):
            return Beside("this", "this")
        name = node.parent.parent.child_by_field_name("name")
        if name is None or assigned(file, function.outer):
            return Beside(trouble="the method is static, and its class has no name that stays")
        return Beside("", file.slice(name.start_byte, name.end_byte), "static ")

    def declared_as(self, file: SourceFile, symbol: Symbol) -> tuple[str, str]:
        """By which word a variable is declared, and its type where one is written, or where the language takes it from
        a plain first value."""
        first = min(symbol.bindings, key=lambda r: r.start, default=None)
        if first is None:
            return "", ""
        node: Any = file.tree.root_node.named_descendant_for_byte_range(first.start, first.end)
        kind = node.parent.child_by_field_name("type") if node.parent is not None else None
        type_ = file.slice(kind.start_byte, kind.end_byte).lstrip(": ") if kind is not None else ""
        value = (
            node.parent.child_by_field_name("value")
            if node.parent is not None and node.parent.type == "variable_declarator"
            else None
        )
        if not type_ and value is not None and typed(file):
            type_ = PLAIN.get(value.type, "")
        at = node
        while at is not None and at.type not in (
            "lexical_declaration",
            "variable_declaration",
            "for_in_statement",
            "formal_parameters",
            "program",
        ):
            at = at.parent
        word = at.children[0].type if at is not None and at.type.endswith("_declaration") else ""
        return word, type_

    # -- the function ------------------------------------------------------------------------------

    def lifted(self, file: SourceFile, lead: str, unit: str, new: NewFunction) -> str:
        """A function, or a method, made of lines that stood elsewhere; an arrow, where they speak of the ``this`` of
        what is around it."""
        given = ", ".join(f"{n}: {t}" if t else n for n, t in new.params)
        kind = f": {new.result}" if new.result else ""
        closing = f"{lead}{unit}{new.last}\n" if new.last else ""
        block = f"{{\n{new.body}\n{closing}{lead}}}"
        if new.home is None and new.function is not None and speaks_of_this(new.function.node):
            return f"{lead}const {new.name} = ({given}){kind} => {block}{mark(file)}\n"
        word = self.beside(file, new.home).words if new.method and new.home is not None else "function "
        return f"{lead}{word}{new.name}{gap(file)}({given}){kind} {block}\n"

    def only(self, file: SourceFile, start: int, call: str) -> str:
        """What stands for the body of a handler that only calls."""
        return call

    def in_place(self, params: Sequence[str], call: str) -> str:
        """A function without a name that only calls."""
        return f"({', '.join(params)}) => {call}"

    def give_back(self, values: Sequence[str]) -> str:
        return f"return [{', '.join(values)}]" if len(values) > 1 else f"return {', '.join(values)}".rstrip()

    def several_results(self, file: SourceFile, start: int, declared: bool) -> str:
        """Why several values cannot come back at a place; "" if they can."""
        if not declared and file.text[:start].rstrip()[-1:] not in (b";", b"{", b""):
            return "several values come back, and no ';' stands before these lines"
        return ""

    def word_for(self, file: SourceFile, words: Sequence[str]) -> str:
        """The word that declares what comes back."""
        return "var" if old_style(file) or "var" in words else "let" if "let" in words else "const"


def plain_function(file: SourceFile, node: Any) -> Function | None:
    """A function of statements as it is written in place; None for one that waits, gives again and again, or calls
    itself by its own name."""
    if node.type not in ("arrow_function", "function_expression", "function") or any(
        c.type == "async" for c in node.children
    ):
        return None
    scope = next(
        (s for s in file.scope.walk() if s.kind == "function" and (s.start, s.end) == (node.start_byte, node.end_byte)),
        None,
    )
    found = REGIONS.unnamed(file, scope) if scope is not None else None
    own = node.child_by_field_name("name")
    known = (
        scope.parent.symbols.get(file.slice(own.start_byte, own.end_byte))
        if own is not None and scope is not None and scope.parent is not None
        else None
    )
    if found is None or (known is not None and any(not r.writes for r in known.references)):
        return None
    found.params = parameters(file, node)
    return found


def call_in_place(statement: Statement) -> Any:
    """The call of a statement that is nothing but one, whatever brackets or sign stand around it."""
    node = statement.node
    if node is None or node.type != "expression_statement":
        return None
    node = bare(node.named_children[0])
    if node.type == "unary_expression":
        node = bare(node.child_by_field_name("argument"))
    return node if node.type == "call_expression" else None


def parameters(file: SourceFile, node: Any) -> list[Parameter]:
    """Plain ones as such; of any other it is said that it takes any number."""
    held = node.child_by_field_name("parameters")
    nodes = held.named_children if held is not None else [node.child_by_field_name("parameter")]
    return [
        Parameter(
            file.slice(p.start_byte, p.end_byte),
            "plain" if p.type == "identifier" else "star",
            p.start_byte,
            p.end_byte,
        )
        for p in nodes
    ]


def bare(node: Any) -> Any:
    """A node without the brackets around it."""
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    return node


def in_method(file: SourceFile, start: int, end: int) -> bool:
    """Whether code stands in a method of a class, or a function kept in a field, and in none inside it that has a
    ``this`` of its own."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    while node is not None and node.type not in OWN_THIS and node.type not in FIELDS:
        node = node.parent
    return (
        node is not None
        and node.type in ("method_definition", *FIELDS)
        and node.parent.type == "class_body"
        and not static(node)
    )


def static(node: Any) -> bool:
    return any(c.type == "static" for c in node.children)


def assigned(file: SourceFile, class_: Scope) -> bool:
    """Whether the name of a class may come to mean something else."""
    symbol = class_.parent.symbols.get(class_.name) if class_.parent is not None else None
    return symbol is not None and symbol.kinds != {"class"}


def before_super(file: SourceFile, start: int, end: int) -> bool:
    """Whether code stands where the object is not there yet: in a constructor, not behind what makes the base's share
    of it."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    while node is not None and node.type != "method_definition":
        node = node.parent
    if node is None or node.child_by_field_name("name").text != b"constructor":
        return False
    calls = [
        n
        for n in braces.within(node, node.start_byte, node.end_byte)
        if n.type == "call_expression" and n.child_by_field_name("function").type == "super"
    ]
    return any(n.end_byte > start for n in calls)


def speaks_of_this(node: Any) -> bool:
    """Whether an arrow function uses the ``this`` of what is around it."""
    return node.type == "arrow_function" and any(
        n.type == "this" for n in braces.within(node, node.start_byte, node.end_byte, OWN_THIS)
    )


REGIONS = JavaScriptRegions()
