"""What of Java's text can be lifted out of a method, and how the new method is written."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ....program.facets.defaults import in_place  # noqa: F401
from ....program.model import Arm, Beside, Block, Function, NewFunction, Scope, SourceFile, Statement, Symbol
from ...braced import blocks as braces
from ...braced.blocks import loop_body, returns_nothing  # noqa: F401
from ..facts.pure import type_of
from ..reading.structure import statement, statements
from ..reading.walk import modifiers

TESTS = frozenset(["<", ">", "<=", ">=", "==", "!=", "&&", "||", "!"])
KINDS = frozenset(
    """
    binary_expression unary_expression ternary_expression method_invocation parenthesized_expression
    instanceof_expression object_creation_expression
    """.split()
)
TARGETS = frozenset([("assignment_expression", "left"), ("method_invocation", "object"), ("update_expression", "")])
OWN_THIS = frozenset(["class_body", "class_declaration"])
either = braces.either
lone = braces.lone
leave_first = braces.leave_first
CLOSURES = False  # a method stands in a class, whatever its lines were in
called_in_place = called_when_ready = method_around = (
    braces.none_such
)  # there are no pages, and what stands in a method is a method's already
GOES_ON, LEAVES = "true", "false"
NOTHING = "void"
PARAMETERS = frozenset(["formal_parameter", "catch_formal_parameter", "enhanced_for_statement", "resource"])


def unnamed(file: SourceFile, scope: Scope) -> Function | None:
    """The function of statements that is written where it is used, by its scope; None if it is none, or has but an
    expression."""
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    body = node.child_by_field_name("body") if node.type == "lambda_expression" else None
    if body is None or body.type != "block":
        return None
    at = body.start_byte
    return Function(
        "",
        scope,
        scope.parent or file.scope,
        node.start_byte,
        node.end_byte,
        node.start_byte,
        at,
        at,
        [],
        at,
        at,
        at,
        node=node,
    )


def blocks(file: SourceFile, s: Statement) -> list[Block]:
    """The blocks directly inside a statement, with what each is for."""
    if s.kind == "guard":
        body = s.node.child_by_field_name("body")
        return [Block("body", statements(file, body), body.start_byte, body.end_byte)]
    return braces.told_blocks(
        file,
        s,
        lambda f, node: [x for x in statements(f, node) if x.node.type != "switch_label"],
        lambda f, node: statement(f, node),
    )


def arms(file: SourceFile, s: Statement) -> list[Arm]:
    """The conditions of a chain in their order."""
    return braces.arms(file, s, statements)


def expression(file: SourceFile, start: int, end: int) -> bool:
    """Whether a stretch is one whole expression of a type that can be told."""
    return braces.whole(file, start, end, KINDS, TARGETS) and bool(result_of(file, start, end))


def expressions(file: SourceFile, start: int, end: int) -> Iterator[tuple[int, int, bool]]:
    for node in braces.within(file.tree.root_node.descendant_for_byte_range(start, end), start, end):
        if node.type in ("binary_expression", "unary_expression") and expression(file, node.start_byte, node.end_byte):
            yield node.start_byte, node.end_byte, node.child_by_field_name("operator").type in TESTS


def result_of(file: SourceFile, start: int, end: int) -> str:
    """The type of an expression; "" if it is not told."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    operator = node.child_by_field_name("operator")
    if node.type == "instanceof_expression" or (operator is not None and operator.type in TESTS):
        return "boolean"
    return type_of(file, (start, end))


def bound_to_function(file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
    """(why, where) of what would mean something else in another method."""
    for node in braces.within(file.tree.root_node.descendant_for_byte_range(start, end), start, end, OWN_THIS):
        if node.type in ("yield_statement", "super"):
            return f"'{node.type.split('_')[0]}' only works where it stands", int(node.start_byte)
        if node.type in ("local_class_declaration", "class_declaration", "record_declaration"):
            return "a class is declared there", int(node.start_byte)
    return braces.labelled(file, start, end)


def top_words(file: SourceFile) -> str:
    """What stands in front of a function that is no object's."""
    return "" if file.path.endswith(".pde") else "static "


def beside(file: SourceFile, function: Function) -> Beside:
    """How a method beside this one is written and called."""
    if function.outer.kind != "class":
        return Beside(words=top_words(file))
    return Beside(words="static ") if "static" in modifiers(function.node) else Beside("this", "this")


def declared_as(file: SourceFile, symbol: Symbol) -> tuple[str, str]:
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


# -- the method ----------------------------------------------------------------------------------


def lifted(file: SourceFile, lead: str, unit: str, new: NewFunction) -> str:
    """A method made of lines that stood elsewhere; it may throw what the one around them may."""
    node = new.function.node if new.function is not None else None
    throws = (
        next((file.slice(c.start_byte, c.end_byte) + " " for c in node.named_children if c.type == "throws"), "")
        if node is not None
        else ""
    )
    words = beside(file, new.home).words if new.home is not None else top_words(file)
    given = ", ".join(f"{t} {n}" for n, t in new.params)
    closing = f"{lead}{unit}{new.last}\n" if new.last else ""
    return f"{lead}{words}{new.result or 'void'} {new.name}({given}) {throws}{{\n{new.body}\n{closing}{lead}}}\n"


def only(file: SourceFile, start: int, call: str) -> str:
    """What stands for the body of a handler that only calls: the call itself for the block of a lambda, a statement
    inside of braces."""
    return call if file.text[start : start + 1] == b"{" else f" {call}; "


def give_back(values: Sequence[str]) -> str:
    return f"return {', '.join(values)}".rstrip()


def ended(file: SourceFile, text: str) -> str:
    """A statement with what closes it."""
    return text + ";"


def take_back(file: SourceFile, names: Sequence[str], call: str, unit: str, lead: str, leaves: str, word: str) -> str:
    """The statement that calls a lifted method. ``word``: what declares the name, "" if it is there already."""
    if leaves == "break":
        return f"if (!{call}) {{\n{lead}{unit}break;\n{lead}}}"
    if leaves == "return":
        return f"return {call};"
    return (f"{word} " if word else "") + (f"{names[0]} = {call};" if names else f"{call};")


def several_results(file: SourceFile, start: int, declared: bool) -> str:
    """Why several values cannot come back."""
    return "more than one value would come back"


def word_for(file: SourceFile, words: Sequence[str]) -> str:
    return words[0]


def result_type(file: SourceFile, function: Function) -> str:
    """The type of what a method gives; "" for what is written in place."""
    kind = function.node.child_by_field_name("type") if function.node is not None else None
    return file.slice(kind.start_byte, kind.end_byte) if kind is not None else ""
