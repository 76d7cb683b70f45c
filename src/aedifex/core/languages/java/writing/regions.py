"""What of Java's text can be lifted out of a method, and how the new method is written."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ....program.model import Beside, Block, Function, NewFunction, SourceFile, Statement, Symbol
from ...braced import blocks as braces
from ...braced.facets import BracedRegions
from ..facts.pure import PURITY
from ..reading.structure import STATEMENTS
from ..reading.walk import modifiers
from .words import sketch

OWN_THIS = frozenset(["class_body", "class_declaration"])
PARAMETERS = frozenset(["formal_parameter", "catch_formal_parameter", "enhanced_for_statement", "resource"])


class JavaRegions(BracedRegions):
    """What of Java's text can be lifted out of a method, and how the new method is written."""

    STATEMENTS = STATEMENTS
    EXPRESSIONS = frozenset(
        """
        binary_expression unary_expression ternary_expression method_invocation parenthesized_expression
        instanceof_expression object_creation_expression
        """.split()
    )
    TARGETS = frozenset([("assignment_expression", "left"), ("method_invocation", "object"), ("update_expression", "")])
    FUNCTIONS = frozenset(["lambda_expression"])

    def inside(self, file: SourceFile, node: Any) -> list[Statement]:
        return [s for s in STATEMENTS.statements(file, node) if s.node.type != "switch_label"]

    def blocks(self, file: SourceFile, s: Statement) -> list[Block]:
        """The blocks directly inside a statement, with what each is for."""
        if s.kind == "guard":
            body = s.node.child_by_field_name("body")
            return [Block("body", STATEMENTS.statements(file, body), body.start_byte, body.end_byte)]
        return super().blocks(file, s)

    def expression(self, file: SourceFile, start: int, end: int) -> bool:
        """Whether a stretch is one whole expression of a type that can be told."""
        return super().expression(file, start, end) and bool(self.result_of(file, start, end))

    def result_of(self, file: SourceFile, start: int, end: int) -> str:
        """The type of an expression; "" if it is not told."""
        node = file.tree.root_node.named_descendant_for_byte_range(start, end)
        while node.type == "parenthesized_expression":
            node = node.named_children[0]
        operator = node.child_by_field_name("operator")
        if node.type == "instanceof_expression" or (operator is not None and operator.type in self.TESTS):
            return "boolean"
        return PURITY.type_of(file, (start, end))

    def bound_to_function(self, file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
        """(why, where) of what would mean something else in another method."""
        for node in braces.within(file.tree.root_node.descendant_for_byte_range(start, end), start, end, OWN_THIS):
            if node.type in ("yield_statement", "super"):
                return f"'{node.type.split('_')[0]}' only works where it stands", int(node.start_byte)
            if node.type in ("local_class_declaration", "class_declaration", "record_declaration"):
                return "a class is declared there", int(node.start_byte)
        return braces.labelled(file, start, end)

    def beside(self, file: SourceFile, function: Function) -> Beside:
        """How a method beside this one is written and called."""
        if function.outer.kind != "class":
            return Beside(words=top_words(file))
        return Beside(words="static ") if "static" in modifiers(function.node) else Beside("this", "this")

    def declared_as(self, file: SourceFile, symbol: Symbol) -> tuple[str, str]:
        """By which word a variable is declared, which is its type, and the type; "" if only the compiler knows it."""
        first = min(symbol.bindings, key=lambda r: r.start, default=None)
        at: Any = (
            file.tree.root_node.named_descendant_for_byte_range(first.start, first.end).parent
            if first is not None
            else None
        )
        if at is None:
            return "", ""
        holder = at.parent if at.type == "variable_declarator" else at
        kind = (
            holder.child_by_field_name("type")
            if holder.type.endswith("_declaration") or holder.type in PARAMETERS
            else None
        )
        if kind is None or holder.type == "catch_formal_parameter":
            return "", ""
        dimensions = at.child_by_field_name("dimensions")
        more = file.slice(dimensions.start_byte, dimensions.end_byte) if dimensions is not None else ""
        text = file.slice(kind.start_byte, kind.end_byte) + more
        return ("", "") if text == "var" else (text, text)

    # -- the method --------------------------------------------------------------------------------

    def lifted(self, file: SourceFile, lead: str, unit: str, new: NewFunction) -> str:
        """A method made of lines that stood elsewhere; it may throw what the one around them may."""
        node = new.function.node if new.function is not None else None
        throws = (
            next((file.slice(c.start_byte, c.end_byte) + " " for c in node.named_children if c.type == "throws"), "")
            if node is not None
            else ""
        )
        words = self.beside(file, new.home).words if new.home is not None else top_words(file)
        words = f"private {words}" if new.hidden and not sketch(file) else words
        given = ", ".join(f"{t} {n}" for n, t in new.params)
        closing = f"{lead}{unit}{new.last}\n" if new.last else ""
        return f"{lead}{words}{new.result or 'void'} {new.name}({given}) {throws}{{\n{new.body}\n{closing}{lead}}}\n"

    def in_place(self, params: Sequence[str], call: str) -> str:
        """A lambda that only calls."""
        return f"{params[0] if len(params) == 1 else '(' + ', '.join(params) + ')'} -> {call}"

    def only(self, file: SourceFile, start: int, call: str) -> str:
        """What stands for the body of a handler that only calls: the call itself for the block of a lambda, a statement
        inside of braces."""
        return call if file.text[start : start + 1] == b"{" else f" {call}; "

    def word_for(self, file: SourceFile, words: Sequence[str]) -> str:
        return words[0]

    def result_type(self, file: SourceFile, function: Function) -> str:
        """The type of what a method gives; "" for what is written in place."""
        kind = function.node.child_by_field_name("type") if function.node is not None else None
        return file.slice(kind.start_byte, kind.end_byte) if kind is not None else ""


def top_words(file: SourceFile) -> str:
    """What stands in front of a function that is no object's."""
    return "" if file.path.endswith(".pde") else "static "


REGIONS = JavaRegions()
