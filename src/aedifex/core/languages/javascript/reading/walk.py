"""Walk a syntax tree once and note scopes, bindings, references, calls and functions: definitions and statements."""

from __future__ import annotations

from typing import Any

from ....program.model import Function, Parameter, Role, Scope
from .imports import required
from .walk_names import RECEIVER, NameWalker

FUNCTIONS = frozenset(["arrow_function", "function_expression", "generator_function", "function"])
STRICT = (b"'use strict'", b'"use strict"')


class Walker(NameWalker):
    """Fills a SourceFile. After ``run`` the references know their scope, not yet their symbol."""

    def run(self, root: Any) -> None:
        self.strict = self.strict or strict_body(root)
        self.children(root)

    # -- functions -------------------------------------------------------------------------------

    def on_function_declaration(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        self.declare(name, self.scope, "definition")
        if self.scope.kind == "block" and not self.strict:
            self.hoisted().bound.add(self.text(name))
        whole = node.parent if node.parent is not None and node.parent.type == "export_statement" else node
        self.function(node, self.text(name), name, whole)

    on_generator_function_declaration = on_function_declaration

    def on_function_expression(self, node: Any) -> None:
        self.function(node, "", None, node)

    on_arrow_function = on_generator_function = on_function = on_function_expression

    def function(self, node: Any, name: str, name_node: Any, whole: Any) -> None:
        """A function's own scope; a Function where it has a name by which the program knows it."""
        outer, held_strict = self.scope, self.strict
        body = node.child_by_field_name("body")
        self.strict = self.strict or (body is not None and strict_body(body))
        own = node.child_by_field_name("name")
        if own is not None and node.type in ("function_expression", "generator_function", "function"):
            self.enter("block", self.text(own), node)  # its own name, which only it sees
            self.declare(own, self.scope, "definition")
        self.enter("function", name or (self.text(own) if own is not None else "function"), node)
        if node.type != "arrow_function":
            self.scope.receiver = RECEIVER
        self.types_of(node)
        params = node.child_by_field_name("parameters") or node.child_by_field_name("parameter")
        found = self.parameters(params)
        if name_node is not None:
            self.note(node, name, name_node, whole, outer, params, found, body)
        if body is not None:
            self.children(body) if body.type == "statement_block" else self.value(body)
        self.scope, self.strict = outer, held_strict

    def note(
        self,
        node: Any,
        name: str,
        name_node: Any,
        whole: Any,
        outer: Scope,
        params: Any,
        found: list[Parameter],
        body: Any,
    ) -> None:
        bracketed = params is not None and params.type == "formal_parameters"
        start = params.start_byte + 1 if bracketed else params.start_byte if params is not None else node.end_byte
        end = params.end_byte - 1 if bracketed else params.end_byte if params is not None else node.end_byte
        made = Function(
            name,
            self.scope,
            outer,
            whole.start_byte,
            whole.end_byte,
            node.start_byte,
            name_node.start_byte,
            name_node.end_byte,
            found,
            start,
            end,
            body.start_byte if body is not None else node.end_byte,
            is_async=any(c.type == "async" for c in node.children),
            node=node,
        )
        self.scope.function = made
        self.scope.generator = any(c.type == "*" for c in node.children)
        self.file.functions.append(made)

    def types_of(self, node: Any) -> None:
        for field in ("type_parameters", "return_type"):
            child = node.child_by_field_name(field)
            if child is not None:
                self.visit(child)

    def on_type_parameter(self, node: Any) -> None:
        first, *rest = node.named_children
        self.declare(first, self.scope, "type").deferred = True
        for child in rest:
            self.visit(child)

    def parameters(self, params: Any) -> list[Parameter]:
        if params is None:
            return []
        if params.type == "identifier":
            name = self.declare(params, self.scope, "parameter").name
            self.scope.parameters.append(name)
            return [Parameter(name, "plain", params.start_byte, params.end_byte)]
        return [
            self.parameter(child)
            for child in params.named_children
            if child.type not in ("comment", "ERROR", "decorator")
        ]

    def parameter(self, node: Any) -> Parameter:
        pattern, default, kind_node = node, None, None
        optional = node.type == "optional_parameter"
        if node.type in ("required_parameter", "optional_parameter"):
            pattern = node.child_by_field_name("pattern")
            default, kind_node = node.child_by_field_name("value"), node.child_by_field_name("type")
        elif node.type == "assignment_pattern":
            pattern, default = node.child_by_field_name("left"), node.child_by_field_name("right")
        if default is not None:
            self.value(default)
        if kind_node is not None:
            self.visit(kind_node)
        span = (
            (default.start_byte, default.end_byte)
            if default is not None
            else (node.end_byte, node.end_byte)
            if optional
            else None
        )
        kind = "star" if pattern.type == "rest_pattern" else "plain"
        made = Parameter("", kind, node.start_byte, node.end_byte, span, kind_node is not None)
        if kind_node is not None:
            made.type = self.text(kind_node).lstrip(": ")
        inner = pattern.named_children[0] if kind == "star" else pattern
        if inner.type == "identifier":
            made.name = self.text(inner)
            self.scope.parameters.append(made.name)
            if any(c.type in ("accessibility_modifier", "readonly") for c in node.children):
                self.file.stored_members.add(made.name)  # the constructor sets a field of that name
        elif inner.type == "this":
            made.name = RECEIVER
            return made
        self.pattern(inner, self.scope, "parameter")
        return made

    # -- classes ---------------------------------------------------------------------------------

    def on_class_declaration(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        self.declare(name, self.scope, "definition")
        self.klass(node, self.text(name), bound=True)

    on_abstract_class_declaration = on_class_declaration

    def on_class(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        held = self.scope
        if name is not None:
            self.enter("block", self.text(name), node)
            self.declare(name, self.scope, "definition")
        self.klass(node, self.text(name) if name is not None else "class", bound=False)
        self.scope = held

    def klass(self, node: Any, name: str, bound: bool) -> None:
        held, self.strict = (self.scope, self.strict), True
        body = node.child_by_field_name("body")
        self.enter("class", name, node)
        if bound:
            self.file.classes.append((self.scope, name))
        for child in node.named_children:
            if child == body:
                continue
            if child.type in ("class_heritage", "decorator", "extends_clause"):
                self.scope.bases = True
                based = child.named_children[0] if child.named_children else child
                based = based.named_children[0] if based.type == "extends_clause" else based
                self.file.inheriting.append((self.scope, self.text(based).rpartition(".")[2]))
            if child.type != "type_identifier" and child.type != "identifier":
                self.visit(child)
        for member in body.named_children:
            self.member(member)
        self.scope, self.strict = held

    def member(self, node: Any) -> None:
        name = node.child_by_field_name("name") or node.child_by_field_name("property")
        if name is not None and name.type in ("property_identifier", "private_property_identifier"):
            self.scope.bound.add(self.text(name))
        elif name is not None:
            self.visit(name)
        if node.type == "method_definition":
            self.function(node, self.text(name), name, node)
        elif node.type in ("field_definition", "public_field_definition"):
            value = node.child_by_field_name("value")
            kind = node.child_by_field_name("type")
            if kind is not None:
                self.visit(kind)
            if value is not None:
                held = self.enter("function", "field", node)
                self.scope.receiver = RECEIVER
                self.value(value)
                self.scope = held
        elif node.type == "class_static_block":
            held = self.enter("function", "static", node)
            self.scope.receiver = RECEIVER
            self.children(node.child_by_field_name("body"))
            self.scope = held
        elif node.type != "comment":
            self.visit(node)

    def on_method_definition(self, node: Any) -> None:
        """A method in an object that is written out: a function of its own, with the object as receiver."""
        name = node.child_by_field_name("name")
        self.file.stored_members.add(self.text(name))
        if name.type == "computed_property_name":
            self.visit(name)
        self.function(node, "", None, node)

    # -- declarations ----------------------------------------------------------------------------

    def on_lexical_declaration(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "variable_declarator":
                self.declarator(child, node, self.scope)
            else:
                self.visit(child)

    def on_variable_declaration(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "variable_declarator":
                self.declarator(child, node, self.hoisted())
            else:
                self.visit(child)

    def declarator(self, node: Any, statement: Any, scope: Scope) -> None:
        name, value, kind = (node.child_by_field_name(f) for f in ("name", "value", "type"))
        if kind is not None:
            self.visit(kind)
        top = (
            scope is self.file.scope
            and statement.parent is not None
            and statement.parent.type in ("program", "export_statement")
        )
        form = "" if top or scope is not self.file.scope else "declared"
        if top and statement.parent.type == "export_statement":
            form = "offered"
        if value is not None and name.type == "identifier" and value.type in FUNCTIONS:
            sole = sum(1 for c in statement.named_children if c.type == "variable_declarator") == 1
            self.declare(name, scope, "definition" if sole and form != "declared" else form)
            if sole:
                whole = (
                    statement.parent
                    if statement.parent is not None and statement.parent.type == "export_statement"
                    else statement
                )
                self.function(value, self.text(name), name, whole)
            else:
                self.visit(value)
            return
        if value is not None:
            self.value(value)
        self.pattern(name, scope, "import" if top and value is not None and required(value) else form)

    # -- statements ------------------------------------------------------------------------------

    on_statement_block = on_switch_body = on_for_statement = NameWalker.block

    def on_for_in_statement(self, node: Any) -> None:
        left, kind = node.child_by_field_name("left"), node.child_by_field_name("kind")
        self.value(node.child_by_field_name("right"))
        held = self.enter("block", "for", node)
        if kind is None:
            self.pattern(left, None, "")
        else:
            self.pattern(left, self.hoisted() if self.text(kind) == "var" else self.scope, "loop")
        value = node.child_by_field_name("value")
        if value is not None:
            self.visit(value)
        self.visit(node.child_by_field_name("body"))
        self.scope = held

    def on_catch_clause(self, node: Any) -> None:
        held = self.enter("block", "catch", node)
        parameter = node.child_by_field_name("parameter")
        if parameter is not None:
            self.pattern(parameter, self.scope, "except")
        for child in node.named_children:
            if child != parameter:
                self.visit(child)
        self.scope = held

    def on_with_statement(self, node: Any) -> None:
        # its body looks names up in an object first: as good as asking for them by their text
        first = node.children[0]
        self.use(first, Role.CALL)
        self.children(node)

    def on_import_statement(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "import_clause":
                self.imported(child)

    def imported(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "identifier":
                self.declare(child, self.file.scope, "import")
            elif child.type == "import_specifier":
                self.declare(
                    child.child_by_field_name("alias") or child.child_by_field_name("name"), self.file.scope, "import"
                )
            else:
                self.imported(child)

    def on_export_statement(self, node: Any) -> None:
        if node.child_by_field_name("source") is not None:
            return
        for child in node.named_children:
            if child.type == "export_clause":
                for spec in child.named_children:
                    name = spec.child_by_field_name("name") if spec.type == "export_specifier" else None
                    if name is not None:
                        self.use(name, Role.VALUE, "offered")
            else:
                self.value(child)

    # -- types -----------------------------------------------------------------------------------

    def on_interface_declaration(self, node: Any) -> None:
        self.declare(node.child_by_field_name("name"), self.scope, "type").deferred = True
        held = self.enter("types", "types", node)
        for child in node.named_children[1:]:
            self.visit(child)
        self.scope = held

    on_type_alias_declaration = on_interface_declaration

    def on_enum_declaration(self, node: Any) -> None:
        self.declare(node.child_by_field_name("name"), self.scope, "type")
        for child in node.child_by_field_name("body").named_children:
            value = child.child_by_field_name("value") if child.type == "enum_assignment" else None
            if value is not None:
                self.visit(value)

    def on_internal_module(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        if name.type == "identifier":
            self.declare(name, self.scope, "type")
        held = self.enter("function", "namespace", node)
        body = node.child_by_field_name("body")
        if body is not None:
            self.children(body)
        self.scope = held

    on_module = on_internal_module

    def in_types(self, node: Any) -> None:
        held = self.enter("types", "types", node)
        for child in node.named_children:
            if child.type in ("required_parameter", "optional_parameter"):
                kind = child.child_by_field_name("type")
                if kind is not None:
                    self.visit(kind)
            elif child.type not in ("identifier", "formal_parameters"):
                self.visit(child)
            elif child.type == "formal_parameters":
                self.in_types(child)
        self.scope = held

    on_function_type = on_constructor_type = on_call_signature = on_method_signature = on_construct_signature = in_types
    on_function_signature = on_index_signature = on_abstract_method_signature = in_types


def strict_body(node: Any) -> bool:
    """Whether a program or body opens with the directive that makes it strict."""
    for child in node.named_children:
        if child.type == "comment":
            continue
        if child.type != "expression_statement" or child.named_children[0].type != "string":
            return False
        if child.named_children[0].text in STRICT:
            return True
    return False
