"""Walk a Python syntax tree once and note scopes, bindings, references, calls and functions."""

from __future__ import annotations

from typing import Any

from ....program.model import Function, Parameter, Reference, Role, Scope
from .walk_names import identifier_kind
from .walk_statements import StatementWalker


class Walker(StatementWalker):
    """Fills a SourceFile. After ``run`` the references know their scope, not yet their symbol."""

    # -- definitions ---------------------------------------------------------------------------

    def parameter_defaults(self, params: Any) -> list[tuple[Any, Parameter]]:
        """Visit defaults in the scope around; return the names to bind inside."""
        found: list[tuple[Any, Parameter]] = []
        after_star = False
        for child in params.named_children:
            kind, name, default, annotated = "keyword" if after_star else "plain", child, None, False
            if child.type in ("default_parameter", "typed_default_parameter"):
                name = child.child_by_field_name("name")
                value = child.child_by_field_name("value")
                self.value(value)
                default = (value.start_byte, value.end_byte)
                annotated = child.type == "typed_default_parameter"
            elif child.type == "typed_parameter":
                name, annotated = child.named_children[0], True
            elif child.type == "keyword_separator":
                after_star = True
                continue
            elif child.type == "positional_separator":
                for _, earlier in found:
                    earlier.kind = "positional"
                continue
            elif child.type in ("comment", "ERROR"):
                continue
            if name.type in ("list_splat_pattern", "dictionary_splat_pattern"):
                kind = "star" if name.type.startswith("list") else "doublestar"
                after_star = after_star or kind == "star"
                name = name.named_children[0]
            found.append((name, Parameter("", kind, child.start_byte, child.end_byte, default, annotated)))
        return found

    def bind_parameters(self, names: list[tuple[Any, Parameter]]) -> list[Parameter]:
        for node, parameter in names:
            if node.type == "identifier":
                parameter.name = self.bind(node, "parameter").name
                self.scope.parameters.append(parameter.name)
        return [p for _, p in names]

    def parameter_types(self, params: Any) -> None:
        for child in params.named_children:
            kind = child.child_by_field_name("type") if child.kind_id != identifier_kind() else None
            if kind is not None:
                self.annotation(kind)

    def type_scope(self, node: Any, name: str) -> Scope | None:
        """Type parameters open a scope of their own around what they belong to."""
        types = node.child_by_field_name("type_parameters")
        if types is None:
            return None
        held = self.enter("types", name, node)
        for child in types.named_children:
            self.type_parameter(child)
        return held

    def type_parameter(self, node: Any) -> None:
        inner = node.named_children[0] if node.type == "type" and node.named_children else node
        if inner.type == "identifier":
            self.bind(inner, "type")
            self.scope.parameters.append("." + self.name_of(inner))
        elif inner.type == "splat_type":
            self.bind(inner.named_children[-1], "type")
        elif inner.type == "constrained_type":
            first, *bounds = inner.named_children
            self.type_parameter(first)
            held = self.enter("types", self.name_of(first.named_children[0]) if first.named_children else "", inner)
            for bound in bounds:
                self.visit(bound)
            self.scope = held
        else:
            for child in inner.named_children:
                self.type_parameter(child)

    def on_lambda(self, node: Any) -> None:
        params = node.child_by_field_name("parameters")
        names = self.parameter_defaults(params) if params is not None else []
        held = self.enter("lambda", "lambda", node)
        self.bind_parameters(names)
        self.value(node.child_by_field_name("body"))
        self.scope = held

    def on_decorated_definition(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "decorator":
                for inner in child.named_children:
                    self.value(inner)
        self.definition_of(node.child_by_field_name("definition"), node)

    def definition_of(self, node: Any, whole: Any) -> None:
        if node.type == "function_definition":
            self.function(node, whole)
        else:
            self.on_class_definition(node)

    def on_function_definition(self, node: Any) -> None:
        self.function(node, node)

    def function(self, node: Any, whole: Any) -> None:
        name_node, params = node.child_by_field_name("name"), node.child_by_field_name("parameters")
        names = self.parameter_defaults(params)
        self.bind(name_node, "definition")
        outer, name = self.scope, self.name_of(name_node)
        types = self.type_scope(node, name)
        self.parameter_types(params)
        returns = node.child_by_field_name("return_type")
        if returns is not None:
            self.annotation(returns)
        held = self.enter("function", name_node.text.decode(self.file.encoding, "replace"), node)
        parameters = self.bind_parameters(names)
        body = node.child_by_field_name("body")
        decorators = whole.named_child_count - 1 if whole is not node else 0
        function = Function(
            name, self.scope, outer, whole.start_byte, node.end_byte, node.start_byte, name_node.start_byte,
            name_node.end_byte, parameters, params.start_byte + 1, params.end_byte - 1, body.start_byte, decorators,
            node.children[0].type == "async", docstring(body),
        )  # fmt: skip
        self.scope.function = function
        if outer.kind == "class" and self.scope.parent is outer and self.scope.parameters:
            if not any(c.type == "decorator" and c.text.endswith(b"staticmethod") for c in whole.named_children):
                self.scope.receiver = self.scope.parameters[0]
                function.bound = True
        self.file.functions.append(function)
        self.children(body)
        self.scope = types if types is not None else held

    def on_class_definition(self, node: Any) -> None:
        name_node = node.child_by_field_name("name")
        name = self.name_of(name_node)
        outer_scope, outer_class = self.scope, self.klass
        types = self.type_scope(node, name)
        if types is not None:
            self.in_class(name.lstrip("_"))
        bases = node.child_by_field_name("superclasses")
        if bases is not None:
            self.visit(bases)
        raw = name_node.text.decode(self.file.encoding, "replace")
        self.enter("class", raw, node)
        self.scope.bases = (
            bases is not None and bases.named_child_count > 0
        ) or node.parent.type == "decorated_definition"
        self.file.classes.append((self.scope, name))
        named = [c for c in bases.named_children if c.type in ("identifier", "attribute")] if bases is not None else []
        self.file.inheriting += [
            (self.scope, c.text.decode(self.file.encoding, "replace").rpartition(".")[2]) for c in named
        ]
        self.in_class(raw.lstrip("_"))
        self.children(node.child_by_field_name("body"))
        self.scope = outer_scope
        self.in_class(outer_class)
        self.bind(name_node, "definition")

    def on_type_alias_statement(self, node: Any) -> None:
        left, right = node.child_by_field_name("left"), node.child_by_field_name("right")
        if left.text.startswith(b"("):
            # ``type(x).y = z`` is an assignment that the grammar takes for an alias
            ref = Reference("type", node.start_byte, node.start_byte + 4, Role.CALL, self.scope)
            self.scope.used.add("type")
            self.references.append(ref)
            self.children(node)
            return
        inner = left.named_children[0]
        name_node = inner if inner.type == "identifier" else inner.named_children[0]
        self.bind(name_node)
        held = self.scope
        name = self.name_of(name_node)
        if inner.type == "generic_type":
            self.enter("types", name, node)
            for child in inner.named_children[1:]:
                for param in child.named_children:
                    self.type_parameter(param)
        self.enter("types", name, node)
        self.visit(right)
        self.scope = held


def docstring(body: Any) -> tuple[int, int] | None:
    """The span of the string that opens a body, if one does."""
    for child in body.named_children:
        if child.type == "comment":
            continue
        if child.type == "expression_statement" and child.named_child_count == 1:
            inner = child.named_children[0]
            if inner.type in ("string", "concatenated_string"):
                return inner.start_byte, inner.end_byte
        return None
    return None
