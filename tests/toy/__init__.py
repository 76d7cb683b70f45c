"""A toy language, read with the grammar of C: its class is a structure, and one object of it holds what were globals."""

from __future__ import annotations

from typing import Any

import tree_sitter
import tree_sitter_c

from aedifex.core.languages import tree
from aedifex.core.languages.braced.facets import BracedRegions, BracedText
from aedifex.core.languages.braced.language import Braced
from aedifex.core.languages.braced.lookup import resolve
from aedifex.core.languages.braced.shapes import Shapes, StatementShapes
from aedifex.core.languages.braced.statements import Statements
from aedifex.core.languages.braced.walker import BracedWalker
from aedifex.core.languages.purity import Purity
from aedifex.core.program.model import Function, Parameter, Problem, Scope, SourceFile, Statement
from aedifex.core.program.reading import broken, deeply, refuse_unreadable

GRAMMAR = tree_sitter.Language(tree_sitter_c.language())
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
        file.statements = STATEMENTS.statements(file, root.root_node)
        file.imports = [s for s in file.statements if s.kind == "import"]
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node)
    return file


# -- statements ----------------------------------------------------------------------------------


class ToyStatements(Statements):
    SHAPES = StatementShapes(KINDS, frozenset(["declaration"]), blocks=frozenset(["compound_statement"]))
    NAMES = Walker.SHAPES

    def statement(self, file: SourceFile, node: Any) -> list[Statement]:
        found = super().statement(file, node)
        if node.type == "function_definition" and name_of(node).text == b"main":
            found[0].kind = "guard"
        return found

    def variables(self, node: Any) -> list[Any]:
        return node.children_by_field_name("declarator")

    def name_node(self, part: Any) -> Any:
        return name_of(part)


STATEMENTS = ToyStatements()


# -- writing -------------------------------------------------------------------------------------


class Writing(BracedText):
    KEYWORDS = frozenset(["int", "char", "double", "if", "else", "for", "while", "do", "return", "break", "continue", "struct", "typedef", "switch", "case"])

    def class_text(self, file, unit, name, base, fields):
        return "typedef struct {\n" + "".join(f"{unit}{f.type} {f.name};\n" for f in fields) + f"}} {name};\n"

    def make(self, class_, args):
        return f"{{{', '.join(args)}}}"


class Regions(BracedRegions):
    STATEMENTS = STATEMENTS


class ToyPurity(Purity):
    LITERALS = frozenset(["number_literal", "string_literal", "char_literal", "true", "false", "comment", "escape_sequence", "string_content", "character"])
    COMPOSED = frozenset(["binary_expression", "unary_expression", "parenthesized_expression", "conditional_expression", "initializer_list"])


# -- the language --------------------------------------------------------------------------------


class Toy(Braced):
    name = "toy"
    suffixes = (".c",)
    quiet = frozenset(["printf", "puts"])
    write = Writing()
    regions = Regions()
    statements = STATEMENTS

    read = staticmethod(read)

    def compiles(self, path, source) -> Problem | None:
        return None

    purity = staticmethod(ToyPurity().purity)
    type_of = staticmethod(ToyPurity().type_of)


LANGUAGE = Toy()
