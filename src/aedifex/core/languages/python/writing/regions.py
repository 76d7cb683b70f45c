"""What of Python's text can be lifted out of a function, and how the function is written."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ....program.model import Arm, Beside, Block, Function, NewFunction, SourceFile, Statement, Symbol
from ...braced import blocks as braces
from ...braced.blocks import given_back as given_back
from ...braced.blocks import loop_body as loop_body
from ...braced.blocks import returns_nothing as returns_nothing
from ...braced.blocks import within
from ..reading.structure import BLOCKS, definition, statements

EXPRESSIONS = frozenset(
    """
    binary_operator boolean_operator comparison_operator not_operator unary_operator conditional_expression call
    parenthesized_expression list tuple set dictionary list_comprehension set_comprehension dictionary_comprehension
    subscript attribute string concatenated_string
    """.split()
)
TIED = {
    "yield": "'yield' gives something back from the function itself",
    "await": "'await' only works in the function itself",
}
INNER = frozenset(["function_definition", "lambda", "class_definition"])  # what is in these is not the function's own
OF_CLASSES = frozenset(["__new__", "__init_subclass__", "__class_getitem__"])  # get their class without being told to
OF_OBJECTS = frozenset(
    [
        "property",
        "cached_property",
        "setter",
        "getter",
        "deleter",
        "abstractmethod",
        "override",
        "final",
        "contextmanager",
        "cache",
        "lru_cache",
    ]
)
OWN_NAMES = frozenset([b"super", b"__class__"])

CLOSURES = True  # a function can stand inside another one
unnamed = called_in_place = called_when_ready = method_around = (
    braces.none_such
)  # a lambda has but an expression, and there are no pages
GOES_ON, LEAVES = "True", "False"  # what a lifted function tells a loop
NOTHING = ""
ROLES = {
    "else_clause": "otherwise",
    "elif_clause": "branch",
    "except_clause": "handler",
    "except_group_clause": "handler",
    "finally_clause": "finally",
    "case_clause": "branch",
}


def lone(file: SourceFile, block: Block) -> bool:
    """Whether a statement stands for a block: none does."""
    return False


def blocks(file: SourceFile, statement: Statement) -> list[Block]:
    """The blocks directly inside a statement, with what each is for."""
    first = "branch" if statement.kind == "if" else "body"
    found: list[Block] = []

    def look(node: Any, role: str) -> None:
        for child in node.named_children:
            if child.type == "block":
                inner = statements(file, child)
                for s in inner:
                    s.kind = "expression" if s.kind == "docstring" else s.kind
                found.append(Block(role, inner, child.start_byte, child.end_byte))
            elif child.type in ROLES:
                look(child, "otherwise" if takes_all(child) else ROLES[child.type])

    if statement.kind == "match":
        look(statement.node.child_by_field_name("body"), "branch")
    elif statement.kind in BLOCKS:
        look(statement.node, first)
    return found


def arms(file: SourceFile, statement: Statement) -> list[Arm]:
    """The conditions of a chain in their order; none for any other statement."""
    if statement.kind != "if":
        return []
    nodes = [statement.node, *(c for c in statement.node.children if c.type == "elif_clause")]
    clauses = [statement.node, *(c for c in statement.node.children if c.type in ("elif_clause", "else_clause"))]
    found = []
    for i, node in enumerate(nodes):
        test, body = node.child_by_field_name("condition"), node.child_by_field_name("consequence")
        following = clauses[i + 1] if i + 1 < len(clauses) else None
        if i == 0:
            without = [(node.start_byte, following.start_byte + len("el"), "")] if following is not None else []
        elif following is not None:
            without = [(node.start_byte, following.start_byte, "")]
        else:
            without = [(last_end(clauses[i - 1]), statement.end, "")]
        found.append(Arm((test.start_byte, test.end_byte), statements(file, body), without))
    return found


def last_end(clause: Any) -> int:
    """Where the block of a clause ends."""
    body = clause.child_by_field_name("consequence") or clause.child_by_field_name("body")
    return int(body.named_children[-1].end_byte)


def takes_all(case: Any) -> bool:
    """Whether a case of a match is taken whatever comes."""
    return (
        case.type == "case_clause" and case.named_children[0].text == b"_" and case.child_by_field_name("guard") is None
    )


def expression(file: SourceFile, start: int, end: int) -> bool:
    """Whether a stretch is one whole expression, whose value is all that is wanted of it."""
    node = file.tree.root_node.named_descendant_for_byte_range(start, end)
    if node is None or (node.start_byte, node.end_byte) != (start, end) or node.type not in EXPRESSIONS:
        return False
    at, parent = node, node.parent
    while parent is not None and parent.type not in ("block", "module"):
        if parent.type in ("assignment", "augmented_assignment") and at == parent.child_by_field_name("left"):
            return False
        if parent.type in ("for_statement", "for_in_clause", "named_expression") and at == parent.child_by_field_name(
            "left"
        ):
            return False
        if parent.type in (
            "type",
            "delete_statement",
            "case_pattern",
            "as_pattern_target",
            "decorator",
            "parameters",
            "interpolation",
        ):
            return False
        if parent.type == "concatenated_string" or (parent.type == "with_item" and "as_pattern" in node.type):
            return False
        at, parent = parent, parent.parent
    return node.parent.type not in ("keyword_argument",) or node != node.parent.named_children[0]


def bound_to_function(file: SourceFile, start: int, end: int) -> tuple[str, int] | None:
    """(why, where) of what would mean something else in another function; None if nothing would."""
    for node in within(file.tree.root_node.descendant_for_byte_range(start, end), start, end, INNER):
        if node.type in TIED:
            return TIED[node.type], node.start_byte
        if node.type in ("for_in_clause", "for_statement", "with_statement") and node.children[0].type == "async":
            return TIED["await"], node.start_byte
        if node.type == "identifier" and node.text in OWN_NAMES:
            return f"'{node.text.decode()}' asks where it is written", node.start_byte
    return None


TESTS = frozenset(["boolean_operator", "comparison_operator", "not_operator"])
WORKED_OUT = TESTS | {"binary_operator", "conditional_expression"}


def expressions(file: SourceFile, start: int, end: int) -> Iterator[tuple[int, int, bool]]:
    """(start, end, whether it is a condition) of what is worked out in a stretch, the whole before its parts."""
    for node in within(file.tree.root_node.descendant_for_byte_range(start, end), start, end, INNER):
        if node.type in WORKED_OUT and expression(file, node.start_byte, node.end_byte):
            yield node.start_byte, node.end_byte, node.type in TESTS


def result_type(file: SourceFile, function: Function) -> str:
    """Nothing says what a function gives."""
    return ""


def declared_as(file: SourceFile, symbol: Symbol) -> tuple[str, str]:
    """Nothing is declared."""
    return "", ""


def result_of(file: SourceFile, start: int, end: int) -> str:
    """Nothing says what a function gives."""
    return ""


def beside(file: SourceFile, function: Function) -> Beside:
    """How a method beside this one is written and called: also for what is decorated as static or as the class's
    own."""
    if function.outer.kind != "class" or not (function.params or function.decorators):
        return Beside(trouble="" if function.outer.kind != "class" else "the method has no parameter for its object")
    words = [w.rpartition(".")[2].partition("(")[0] for w in decorations(definition(file, function))]
    own = function.params[0].name if function.params else ""
    if "staticmethod" in words:
        return static_beside(function)
    if "classmethod" in words or (not words and function.name in OF_CLASSES):
        return Beside(own, own, "@classmethod\n")
    if handed_on(file, function):
        return Beside(trouble="the method is passed on in its class, and nothing tells what it gets first")
    if not own or (own != "self" and any(w not in OF_OBJECTS for w in words)):
        return Beside(trouble="nothing tells what the decorated method gets first")
    return Beside(own, own)


def handed_on(file: SourceFile, function: Function) -> bool:
    """Whether the class itself does something with the function, other than giving it another name or making a property
    of it."""
    symbol = function.outer.symbols.get(function.name)
    for ref in symbol.references if symbol is not None else ():
        if ref.writes or ref.scope.frame is not function.outer or function.start <= ref.start < function.end:
            continue
        node = file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)
        holder = node.parent
        if holder.type in ("keyword_argument", "argument_list"):
            call = holder.parent if holder.type == "argument_list" else holder.parent.parent
            if call.type == "call" and call.child_by_field_name("function").text in (b"property", b"abstractproperty"):
                continue
        if holder.type == "assignment" and node == holder.child_by_field_name("right"):
            continue
        if holder.type == "attribute" and holder.parent.type == "decorator":  # ``@name.setter``
            continue
        return True
    return False


def static_beside(function: Function) -> Beside:
    class_ = function.outer
    top = class_.parent if class_.parent is not None and class_.parent.kind == "module" else None
    symbol = top.symbols.get(class_.name) if top is not None else None
    hidden = any(class_.name in s.symbols for s in function.scope.walk())
    if symbol is None or symbol.kinds != {"class"} or len(symbol.bindings) > 1 or hidden:
        return Beside(trouble="the method is static, and nothing here names its class for certain")
    return Beside("", class_.name, "@staticmethod\n")


def decorations(node: Any) -> list[str]:
    """What a function is decorated with, as written."""
    whole = node.parent if node.parent is not None and node.parent.type == "decorated_definition" else node
    return (
        [c.text.decode()[1:].strip() for c in whole.named_children if c.type == "decorator"]
        if whole is not node
        else []
    )


# -- the function --------------------------------------------------------------------------------


def lifted(file: SourceFile, lead: str, unit: str, new: NewFunction) -> str:
    """A function, or a method, made of lines that stood elsewhere."""
    given = [n for n, _ in new.params]
    words = ""
    if new.method and new.home is not None:
        made = beside(file, new.home)
        words = lead + made.words if made.words else ""
        given = [n for n in [made.receiver, *(n for n in given if n != made.receiver)] if n]
    declared = "".join(
        f"{lead}{unit}{word} {', '.join(names)}\n"
        for word, names in (("global", new.sets), ("nonlocal", new.around))
        if names
    )
    closing = f"{lead}{unit}{new.last}\n" if new.last else ""
    return f"{words}{lead}def {new.name}({', '.join(given)}):\n{declared}{new.body}\n{closing}"


def only(file: SourceFile, start: int, call: str) -> str:
    """What stands for the body of a handler that only calls."""
    return call


def in_place(params: Sequence[str], call: str) -> str:
    """A function without a name that only calls."""
    return f"lambda {', '.join(params)}: {call}" if params else f"lambda: {call}"


def give_back(values: Sequence[str]) -> str:
    """The statement that ends a function with values, or with none."""
    return f"return {', '.join(values)}".rstrip()


def ended(file: SourceFile, text: str) -> str:
    """A statement with what closes it."""
    return text


def take_back(file: SourceFile, names: Sequence[str], call: str, unit: str, lead: str, leaves: str, word: str) -> str:
    """The statement that calls a lifted function. ``leaves``: how its lines left the place where they stood; "" if they
    did not."""
    if leaves == "return":
        return f"return {call}"
    if leaves == "break":
        return f"if not {call}:\n{lead}{unit}break"
    return f"{', '.join(names)} = {call}" if names else call


def leave_first(test: str, lead: str, unit: str, word: str) -> str:
    """The statement that leaves a loop under a condition."""
    return f"if {test}:\n{lead}{unit}{word}\n{lead}"


def several_results(file: SourceFile, start: int, declared: bool) -> str:
    """Why several values cannot come back at a place: they always can."""
    return ""


def word_for(file: SourceFile, words: Sequence[str]) -> str:
    return ""


def either(lead: str, unit: str, number: str, wanted: str, first: Sequence[str], other: Sequence[str]) -> str:
    """Lines for one number, and others for the rest; either may be none."""

    def block(lines: Sequence[str]) -> str:
        return "".join(f"{lead}{unit}{line}\n" if line.strip() else "\n" for line in lines)

    if not first:
        return f"{lead}if {number} != {wanted}:\n{block(other)}"
    return f"{lead}if {number} == {wanted}:\n{block(first)}" + (f"{lead}else:\n{block(other)}" if other else "")
