"""Walk a syntax tree once and note scopes, bindings, references, calls and functions: definitions and statements."""

from __future__ import annotations

from typing import Any

from ....program.model import Function, Parameter, Reference, Scope
from .walk_names import METHOD, RECEIVER, TYPE, NameWalker

TYPES = frozenset(
    """
    class_declaration interface_declaration enum_declaration record_declaration annotation_type_declaration
    """.split()
)
INSTANCE = "instance"  # scope of what the main class's own objects have


def modifiers(node: Any) -> frozenset[str]:
    """The words in front of a declaration."""
    first = next((c for c in node.children if c.type == "modifiers"), None)
    return frozenset(c.type for c in first.children) if first is not None else frozenset()


class Walker(NameWalker):
    """Fills a SourceFile. After ``run`` the references know their scope, not yet their symbol."""

    def run(self, root: Any) -> None:
        for child in root.named_children:
            if (
                child.type == "class_declaration"
                and self.main
                and self.text(child.child_by_field_name("name")) == self.main
            ):
                self.main_class(child)
            elif child.type == "import_declaration":
                self.on_import(child)
            else:
                self.visit(child)

    def on_import(self, node: Any) -> None:
        last = node.named_children[-1]
        if last.type == "asterisk":
            self.file.star_imports.append(node.start_byte)
            return
        name = last.child_by_field_name("name") if last.type == "scoped_identifier" else last
        static = any(c.type == "static" for c in node.children)
        self.declare(name, self.file.scope, "import", METHOD if static else TYPE)
        if static:
            self.file.scope.bound.add(self.text(name))

    # -- classes ---------------------------------------------------------------------------------

    def main_class(self, node: Any) -> None:
        """Static members are the program's globals; what its own objects have lies in a scope of its own."""
        name = node.child_by_field_name("name")
        self.declare(name, self.file.scope, "definition", TYPE)
        body = node.child_by_field_name("body")
        for child in node.named_children:
            if child not in (name, body):
                self.visit(child)
        own = [c for c in body.named_children if self.instance_member(c)]
        if own:  # classes of its objects see what these have
            own += [c for c in body.named_children if c.type == "class_declaration" and "static" not in modifiers(c)]
        module = self.scope
        inner = None
        if own:
            inner = Scope("class", self.main, module, node.start_byte, node.end_byte)
            inner.bases = any(c.type in ("superclass", "super_interfaces") for c in node.named_children)
            self.file.classes.append((inner, self.main))
        for member in body.named_children:
            self.scope = inner if member in own and inner is not None else module
            self.member(member, top=self.scope is module)
        self.scope = module

    def instance_member(self, node: Any) -> bool:
        if node.type in ("field_declaration", "method_declaration"):
            return "static" not in modifiers(node)
        return node.type in ("constructor_declaration", "block", "compact_constructor_declaration")

    def on_class_declaration(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        self.declare(name, self.scope, "definition", TYPE)
        held = self.enter("class", self.text(name), node)
        self.scope.receiver = None
        self.scope.bases = (
            any(c.type in ("superclass", "super_interfaces") for c in node.named_children)
            or node.type != "class_declaration"
        )
        self.file.classes.append((self.scope, self.text(name)))
        base = node.child_by_field_name("superclass")
        if base is not None:
            self.file.inheriting.append((self.scope, self.text(base.named_children[0])))
        body = node.child_by_field_name("body")
        for child in node.named_children:
            if child not in (name, body) and child.type != "formal_parameters":
                self.visit(child)
        params = node.child_by_field_name("parameters")
        for child in params.named_children if params is not None else ():
            self.parameter(child, "")
        self.members(body)
        self.scope = held

    on_interface_declaration = on_enum_declaration = on_record_declaration = on_annotation_type_declaration = (
        on_class_declaration
    )

    def members(self, body: Any) -> None:
        for member in body.named_children:
            if member.type == "enum_body_declarations":
                self.members(member)
            elif member.type == "enum_constant":
                self.declare(member.child_by_field_name("name"), self.scope, "")
                self.on_enum_constant(member)
            else:
                self.member(member, top=False)

    def on_enum_constant(self, node: Any) -> None:
        for child in node.named_children[1:]:
            if child.type == "class_body":
                self.anonymous(child, self.scope.name)
            elif child.type != "modifiers":
                self.visit(child)

    def anonymous(self, body: Any, base: str) -> None:
        held = self.enter("class", base, body)
        self.scope.bases = True
        self.file.inheriting.append((self.scope, base))
        for member in body.named_children:
            self.member(member, top=False)
        self.scope = held

    def member(self, node: Any, top: bool) -> None:
        if node.type == "field_declaration":
            self.field(node, top)
        elif node.type in ("static_initializer", "block"):
            held = self.enter("block" if top else "function", "start", node)
            if not top:
                self.scope.receiver = RECEIVER
            self.children(node.named_children[0] if node.type == "static_initializer" else node)
            self.scope = held
        else:
            self.visit(node)

    def field(self, node: Any, top: bool) -> None:
        for child in node.named_children:
            if child.type == "variable_declarator":
                self.declarator(child, "")
            elif child.type != "modifiers":
                self.visit(child)

    def declarator(self, node: Any, form: str) -> Reference:
        value, name = node.child_by_field_name("value"), node.child_by_field_name("name")
        if value is not None:
            if self.scope.kind == "class":
                held = self.enter("function", "start", node)
                self.scope.receiver = RECEIVER
                self.value(value)
                self.scope = held
            else:
                self.value(value)
        return self.declare(name, self.scope, form)

    # -- methods ---------------------------------------------------------------------------------

    def on_method_declaration(self, node: Any) -> None:
        name = node.child_by_field_name("name")
        self.declare(name, self.scope, "definition", METHOD)
        outer = self.scope
        self.enter("function", self.text(name), node)
        if outer.kind == "class" and "static" not in modifiers(node):
            self.scope.receiver = RECEIVER
        self.method(node, name, outer)

    def on_constructor_declaration(self, node: Any) -> None:
        outer = self.scope
        name = node.child_by_field_name("name")
        self.enter("function", "<init>", node)
        self.scope.receiver = RECEIVER
        self.method(node, name, outer)

    on_compact_constructor_declaration = on_constructor_declaration

    def method(self, node: Any, name: Any, outer: Scope) -> None:
        kind = node.child_by_field_name("type")
        for child in node.named_children:
            if child.type in ("type_parameters", "throws") or child == kind:
                self.visit(child)
        params = node.child_by_field_name("parameters")
        found = [
            p
            for c in (params.named_children if params is not None else ())
            if (p := self.parameter(c, "parameter")) is not None
        ]
        body = node.child_by_field_name("body")
        constructor = node.type != "method_declaration"
        start = params.start_byte + 1 if params is not None else name.end_byte
        made = Function(
            "<init>" if constructor else self.text(name),
            self.scope,
            outer,
            node.start_byte,
            node.end_byte,
            self.head(node),
            name.start_byte,
            name.end_byte,
            found,
            start,
            params.end_byte - 1 if params is not None else name.end_byte,
            body.start_byte if body is not None else node.end_byte,
            node=node,
        )
        self.scope.function = made
        self.file.functions.append(made)
        if body is not None:
            self.children(body)
        self.scope = outer

    def head(self, node: Any) -> int:
        for child in node.children:
            if child.type != "modifiers":
                return int(child.start_byte)
        return int(node.start_byte)

    def parameter(self, node: Any, form: str) -> Parameter | None:
        if node.type not in ("formal_parameter", "spread_parameter"):
            return None
        name = node.child_by_field_name("name")
        kind = node.child_by_field_name("type")
        if node.type == "spread_parameter":
            declared = next(c for c in node.named_children if c.type == "variable_declarator")
            name = declared.child_by_field_name("name") or declared.named_children[0]
            kind = next(c for c in node.named_children if c.type not in ("modifiers", "variable_declarator"))
        self.visit(kind)
        made = Parameter(
            self.text(name), "star" if node.type == "spread_parameter" else "plain", node.start_byte, node.end_byte
        )
        made.type = self.text(kind)
        self.declare(name, self.scope, form)
        if form:
            self.scope.parameters.append(made.name)
        return made

    def on_type_parameter(self, node: Any) -> None:
        first, *rest = [c for c in node.named_children if c.type != "annotation"]
        self.declare(first, self.scope, "type", TYPE).deferred = True
        for child in rest:
            self.visit(child)

    def on_lambda_expression(self, node: Any) -> None:
        held = self.enter("function", "lambda", node)
        params = node.child_by_field_name("parameters")
        if params.type == "identifier":
            self.declare(params, self.scope, "parameter")
        else:
            for child in params.named_children:
                if child.type == "identifier":
                    self.declare(child, self.scope, "parameter")
                else:
                    self.parameter(child, "parameter")
        body = node.child_by_field_name("body")
        self.children(body) if body.type == "block" else self.value(body)
        self.scope = held

    # -- statements ------------------------------------------------------------------------------

    def on_local_variable_declaration(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "variable_declarator":
                value = child.child_by_field_name("value")
                if value is not None:
                    self.value(value)
                self.declare(child.child_by_field_name("name"), self.scope, "")
            elif child.type != "modifiers":
                self.visit(child)

    on_block = on_constructor_body = on_switch_block = on_for_statement = on_try_with_resources_statement = (
        NameWalker.block
    )

    def on_enhanced_for_statement(self, node: Any) -> None:
        self.value(node.child_by_field_name("value"))
        held = self.enter("block", "for", node)
        self.visit(node.child_by_field_name("type"))
        self.declare(node.child_by_field_name("name"), self.scope, "loop")
        self.visit(node.child_by_field_name("body"))
        self.scope = held

    def on_resource(self, node: Any) -> None:
        name, value, kind = (node.child_by_field_name(f) for f in ("name", "value", "type"))
        if kind is not None:
            self.visit(kind)
        if value is not None:
            self.value(value)
        if name is not None:
            self.declare(name, self.scope, "with")
        elif value is None:
            self.children(node)

    def on_catch_clause(self, node: Any) -> None:
        held = self.enter("block", "catch", node)
        self.children(node)
        self.scope = held

    def on_catch_formal_parameter(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "catch_type":
                self.visit(child)
        self.declare(node.child_by_field_name("name"), self.scope, "except")

    def on_instanceof_expression(self, node: Any) -> None:
        self.value(node.child_by_field_name("left"))
        for field in ("right", "pattern"):
            child = node.child_by_field_name(field)
            if child is not None:
                self.visit(child)
        name = node.child_by_field_name("name")
        if name is not None:
            self.declare(name, self.flowing(node), "pattern")

    def flowing(self, node: Any) -> Scope:
        """Where the variable of a test is known: in the statement of the test, or behind it if the test is turned
        round."""
        at, turned = node, False
        while at.parent is not None and not at.type.endswith(("_statement", "_declaration")):
            turned = turned != (at.type == "unary_expression" and self.text(at).startswith("!"))
            at = at.parent
        return (
            self.scope.parent if turned and self.scope.name == "test" and self.scope.parent is not None else self.scope
        )

    def testing(self, node: Any) -> None:
        """A statement whose test may bind a variable is a scope of its own."""
        held = self.scope
        if b"instanceof" in self.file.text[node.start_byte : node.end_byte]:
            self.enter("block", "test", node)
        self.passing(node) if node.type == "return_statement" else self.children(node)
        self.scope = held

    on_if_statement = on_while_statement = on_return_statement = on_expression_statement = testing

    def on_type_pattern(self, node: Any) -> None:
        kind, name = node.named_children[0], node.named_children[-1]
        self.visit(kind)
        if name is not kind:
            self.declare(name, self.scope, "pattern")

    on_record_pattern_component = on_type_pattern
