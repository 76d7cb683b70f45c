"""A toy language, read with the grammar of C: its class is a structure, and one object of it holds what were globals."""

from __future__ import annotations

from typing import Any

import tree_sitter
import tree_sitter_c

from aedifex.core.languages import tree
from aedifex.core.languages.braced import text
from aedifex.core.languages.braced.facets import BracedRegions, BracedText
from aedifex.core.languages.braced.language import Braced
from aedifex.core.languages.braced.lookup import resolve
from aedifex.core.languages.braced.shapes import Shapes
from aedifex.core.languages.braced.walker import BracedWalker
from aedifex.core.program.model import Argument, Function, Parameter, Problem, Scope, SourceFile, Statement
from aedifex.core.program.reading import broken, deeply, refuse_unreadable

GRAMMAR = tree_sitter.Language(tree_sitter_c.language())
LITERALS = {"number_literal", "string_literal", "char_literal", "true", "false"}
COMPOSED = {"binary_expression", "unary_expression", "parenthesized_expression", "conditional_expression", "initializer_list"}
KINDS = {
    "preproc_include": "import", "if_statement": "if", "for_statement": "for", "while_statement": "while", "do_statement": "while",
    "switch_statement": "match", "return_statement": "return", "break_statement": "break", "continue_statement": "continue",
    "type_definition": "class", "function_definition": "function",
}  # fmt: skip


# -- reading -------------------------------------------------------------------------------------


class Walker(BracedWalker):
    """Definitions and declarations; the rest is what languages with braces have in common."""

    SHAPES = Shapes({"field_expression": "field"}, frozenset(["field_expression", "subscript_expression"]))
    LEAVES = frozenset(["comment", "primitive_type", "type_identifier", "number_literal", "string_literal", "char_literal", "preproc_include"])
    PASSING = frozenset(["argument_list", "return_statement", "parenthesized_expression", "initializer_list"])

    on_field_expression = BracedWalker.taken
    on_call_expression = BracedWalker.called
    on_assignment_expression = BracedWalker.assigned
    on_update_expression = BracedWalker.updated
    on_compound_statement = on_for_statement = BracedWalker.block

    def on_function_definition(self, node: Any) -> None:
        head = node.child_by_field_name("declarator")
        name, params, body = head.child_by_field_name("declarator"), head.child_by_field_name("parameters"), node.child_by_field_name("body")
        self.declare(name, self.scope, "definition")
        outer = self.enter("function", self.text(name), node)
        found = [self.parameter(c) for c in params.named_children if c.child_by_field_name("declarator") is not None]
        made = Function(
            self.text(name), self.scope, outer, node.start_byte, node.end_byte, node.start_byte, name.start_byte, name.end_byte,
            found, params.start_byte + 1, params.end_byte - 1, body.start_byte, node=node,
        )  # fmt: skip
        self.scope.function = made
        self.file.functions.append(made)
        self.children(body)
        self.scope = outer

    def parameter(self, node: Any) -> Parameter:
        name = node.child_by_field_name("declarator")
        made = Parameter(self.declare(name, self.scope, "parameter").name, "plain", node.start_byte, node.end_byte)
        made.type = self.text(node.child_by_field_name("type"))
        self.scope.parameters.append(made.name)
        return made

    def on_declaration(self, node: Any) -> None:
        for part in node.children_by_field_name("declarator"):
            value = part.child_by_field_name("value") if part.type == "init_declarator" else None
            if value is not None:
                self.value(value)
            self.declare(name_of(part), self.scope, "")

    def on_type_definition(self, node: Any) -> None:
        """A structure with a name is a class; its fields are reached through an object."""
        name, body = node.child_by_field_name("declarator"), node.child_by_field_name("type")
        self.declare(name, self.scope, "definition")
        held = self.enter("class", self.text(name), body)
        self.file.classes.append((self.scope, self.text(name)))
        for field in body.child_by_field_name("body").named_children:
            if field.type == "field_declaration":
                self.scope.bound.add(self.text(field.child_by_field_name("declarator")))
        self.scope = held


def name_of(part: Any) -> Any:
    while part.type != "identifier":
        part = part.child_by_field_name("declarator")
    return part


def read(path: str, source: bytes) -> SourceFile:
    refuse_unreadable(path, source)
    root = tree_sitter.Parser(GRAMMAR).parse(source)
    file = SourceFile(path, source, "utf-8", Scope("module", "<module>", None, 0, len(source)))
    file.tree = root
    with deeply(path):
        Walker(file, tree.kinds_of(GRAMMAR)).children(root.root_node)
        resolve(file)
        file.statements = [s for child in root.root_node.named_children for s in statement(file, child)]
        file.imports = [s for s in file.statements if s.kind == "import"]
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node)
    return file


# -- statements ----------------------------------------------------------------------------------


def statement(file: SourceFile, node: Any) -> list[Statement]:
    """The statements of a node: one for each variable of a declaration, else one."""
    if node.type == "comment":
        return []
    if node.type == "declaration":
        return declared(file, node)
    made = Statement(KINDS.get(node.type, "other"), node.start_byte, node.end_byte, node=node)
    if node.type == "function_definition" and name_of(node).text == b"main":
        made.kind = "guard"
    if node.type == "expression_statement":
        inner = node.named_children[0]
        made.kind = "augment" if inner.type == "update_expression" else "expression"
        if inner.type == "assignment_expression":
            left, right = inner.child_by_field_name("left"), inner.child_by_field_name("right")
            made.kind = "assign" if inner.child_by_field_name("operator").text == b"=" else "augment"
            made.value = (right.start_byte, right.end_byte)
            made.target = next((r for r in file.within(left.start_byte, left.end_byte)), None) if left.type == "identifier" else None
    return [made]


def declared(file: SourceFile, node: Any) -> list[Statement]:
    parts, kind = node.children_by_field_name("declarator"), node.child_by_field_name("type")
    found = []
    for part in parts:
        name, value = name_of(part), part.child_by_field_name("value") if part.type == "init_declarator" else None
        span = (node.start_byte, node.end_byte) if len(parts) == 1 else (part.start_byte, part.end_byte)
        made = Statement("assign", *span, node=node, group=(node.start_byte, node.end_byte) if len(parts) > 1 else None)
        made.target = next((r for r in file.within(name.start_byte, name.end_byte)), None)
        made.value = (value.start_byte, value.end_byte) if value is not None else (part.end_byte, part.end_byte)
        made.annotation = (kind.start_byte, kind.end_byte)
        found.append(made)
    return found


def inner(file: SourceFile, node: Any) -> list[Statement]:
    return [s for child in node.named_children for s in statement(file, child)]


# -- writing -------------------------------------------------------------------------------------


class Writing(BracedText):
    KEYWORDS = frozenset(["int", "char", "double", "if", "else", "for", "while", "do", "return", "break", "continue", "struct", "typedef", "switch", "case"])

    def class_text(self, file, unit, name, base, fields):
        return "typedef struct {\n" + "".join(f"{unit}{f.type} {f.name};\n" for f in fields) + f"}} {name};\n"

    def make(self, class_, args):
        return f"{{{', '.join(args)}}}"


class Regions(BracedRegions):
    def inside(self, file, node):
        return inner(file, node)

    def single(self, file, node):
        return statement(file, node)


# -- the language --------------------------------------------------------------------------------


class Toy(Braced):
    name = "toy"
    suffixes = (".c",)
    quiet = frozenset(["printf", "puts"])
    write = Writing()
    regions = Regions()

    read = staticmethod(read)

    def compiles(self, path, source) -> Problem | None:
        return None

    def arguments(self, file, call) -> list[Argument]:
        return [Argument("", c.start_byte, c.end_byte, c.start_byte) for c in call.node.named_children]

    def body(self, file, function):
        return inner(file, function.node.child_by_field_name("body"))

    def inner(self, file, statement):
        node = statement.node
        body = node.child_by_field_name("body") or node
        return inner(file, body) if statement.kind not in ("assign", "augment", "expression", "other") else []

    def tokens(self, file, start, end, edits):
        return text.tokens(file, start, end, edits, ("comment",))

    def purity(self, file, span):
        node = file.tree.root_node.named_descendant_for_byte_range(*span)
        kinds = {node.type, *(n.type for n in walk(node))}
        if span[0] == span[1] or kinds <= LITERALS | COMPOSED | {"comment", "escape_sequence", "string_content", "character"}:
            return "literal"
        return "pure" if kinds <= LITERALS | COMPOSED | {"identifier"} else "effect"

    def type_of(self, file, span):
        return ""

    def member_owner(self, file, start, end):
        return tree.member_owner(file, start, end, {"field_expression": "field"}, "")


def walk(node: Any) -> list[Any]:
    return [n for child in node.named_children for n in (child, *walk(child))]


LANGUAGE = Toy()
