"""Walk a Python syntax tree once and note scopes, bindings, references, calls and functions."""

from __future__ import annotations

import unicodedata
from collections.abc import Callable
from typing import Any

from ...program.model import Call, Declaration, Function, Parameter, Reference, Role, Scope, SourceFile

MUTATORS = frozenset(
    [
        "append",
        "extend",
        "insert",
        "remove",
        "pop",
        "clear",
        "sort",
        "reverse",
        "update",
        "add",
        "discard",
        "setdefault",
        "popitem",
        "appendleft",
        "popleft",
        "extendleft",
        "rotate",
        "write",
        "writelines",
        "push",
        "put",
        "intersection_update",
        "difference_update",
        "symmetric_difference_update",
    ]
)
LEAVES = frozenset(
    [
        "integer",
        "float",
        "string_start",
        "string_content",
        "string_end",
        "true",
        "false",
        "none",
        "ellipsis",
        "comment",
        "pass_statement",
        "break_statement",
        "continue_statement",
        "escape_sequence",
        "type_conversion",
        "keyword_separator",
        "positional_separator",
        "wildcard_import",
        "line_continuation",
        "import_prefix",
    ]
)
PASSING = frozenset(
    [
        "argument_list",
        "list",
        "tuple",
        "set",
        "expression_list",
        "return_statement",
        "keyword_argument",
        "dictionary",
        "pair",
        "conditional_expression",
        "parenthesized_expression",
        "list_splat",
        "yield",
    ]
)
TARGETS = frozenset({"pattern_list", "tuple_pattern", "list_pattern", "tuple", "list", "expression_list"})
COMPREHENSIONS = {
    "list_comprehension": "listcomp",
    "set_comprehension": "setcomp",
    "dictionary_comprehension": "dictcomp",
    "generator_expression": "genexpr",
}


class Walker:
    """Fills a SourceFile. After ``run`` the references know their scope, not yet their symbol."""

    def __init__(self, file: SourceFile) -> None:
        self.file = file
        self.scope = file.scope
        self.klass = ""  # the innermost class, for names that the language mangles
        self.deferred = False
        self.spelled = False
        self.references = file.references
        self.handlers: dict[str, Callable[[Any], None]] = {
            name[3:]: getattr(self, name) for name in dir(self) if name.startswith("on_")
        }

    def run(self, root: Any) -> None:
        self.children(root)

    # -- names ---------------------------------------------------------------------------------

    def name_of(self, node: Any) -> str:
        raw: bytes = node.text
        if raw.isascii():
            text = raw.decode("ascii")
        else:
            text = unicodedata.normalize("NFKC", raw.decode(self.file.encoding, "replace"))
        if self.klass and text.startswith("__") and not text.endswith("__"):
            return f"_{self.klass}{text}"
        return text

    def use(self, node: Any, role: Role = Role.READ) -> Reference:
        scope = self.scope
        ref = Reference(self.name_of(node), node.start_byte, node.end_byte, role, scope)
        if self.deferred:
            ref.deferred = True
        else:
            scope.used.add(ref.name)
            if ref.name == "super" and scope.kind in ("function", "lambda", "comprehension"):
                scope.used.add("__class__")
        if self.spelled:
            ref.form = "spelled"
        self.references.append(ref)
        return ref

    def bind(self, node: Any, form: str = "", role: Role = Role.WRITE) -> Reference:
        ref = Reference(self.name_of(node), node.start_byte, node.end_byte, role, self.scope, form)
        self.scope.bound.add(ref.name)
        if role is Role.BOTH:
            self.scope.used.add(ref.name)
        self.references.append(ref)
        return ref

    def target(self, node: Any, form: str = "") -> None:
        """What an assignment, a loop or a ``with`` binds."""
        kind = node.type
        if kind == "identifier":
            self.bind(node, form)
        elif kind in TARGETS:
            if (
                kind in ("pattern_list", "expression_list")
                or node.named_child_count != 1
                or node.type == "list_pattern"
            ):
                form = form or "unpack"
            for child in node.named_children:
                self.target(child, form)
        elif kind in ("list_splat_pattern", "list_splat", "parenthesized_expression", "as_pattern_target"):
            for child in node.named_children:
                self.target(child, form or ("unpack" if kind.startswith("list") else ""))
        elif kind in ("attribute", "subscript"):
            self.visit(node)
            self.mark_mutated(node)
            if kind == "attribute":
                self.file.stored_members.add(node.named_children[-1].text.decode(self.file.encoding, "replace"))
        else:
            self.visit(node)

    def mark_mutated(self, node: Any) -> None:
        """The name at the bottom of ``a.b[c].d = ...`` stands for something that is changed in place."""
        base = node
        while base.type in ("attribute", "subscript", "call"):
            base = base.named_children[0]
        if base.type == "identifier":
            for ref in reversed(self.references):
                if ref.start == base.start_byte:
                    ref.mutates = True
                    return

    # -- walking -------------------------------------------------------------------------------

    def visit(self, node: Any) -> None:
        kind = node.type
        if kind == "identifier":
            self.use(node)
        elif kind in LEAVES:
            return
        else:
            handler = self.handlers.get(kind)
            if handler is not None:
                handler(node)
            elif kind in PASSING:
                self.passing(node)
            else:
                for child in node.named_children:
                    self.visit(child)

    def children(self, node: Any) -> None:
        for child in node.named_children:
            self.visit(child)

    def passing(self, node: Any) -> None:
        """Children that are bare names are handed on as values."""
        for child in node.named_children:
            if child.type == "identifier":
                self.use(child, Role.VALUE)
            else:
                self.visit(child)

    def value(self, node: Any) -> None:
        if node.type == "identifier":
            self.use(node, Role.VALUE)
        else:
            self.visit(node)

    # -- expressions ---------------------------------------------------------------------------

    def on_attribute(self, node: Any) -> None:
        base = node.named_children[0]
        if base.type == "identifier":
            self.use(base).member = node.named_children[-1].text.decode(self.file.encoding, "replace")
        else:
            self.visit(base)

    def on_call(self, node: Any) -> None:
        callee, args = node.named_children[0], node.named_children[-1]
        ref = None
        if callee.type == "identifier":
            ref = self.use(callee, Role.CALL)
        elif callee.type == "attribute":
            method = callee.named_children[-1].text
            if callee.named_children[0].type == "identifier":
                self.on_attribute(callee)
                ref = self.references[-1]
            else:
                self.visit(callee)
            if method.decode(self.file.encoding, "replace") in MUTATORS:
                self.mark_mutated(callee)
        else:
            self.visit(callee)
        if ref is None:
            self.file.opaque_calls.append(node.start_byte)
        else:
            inside = 1 if args.type == "argument_list" else 0
            self.file.calls.append(
                Call(ref, node.start_byte, node.end_byte, args.start_byte + inside, args.end_byte - inside, args)
            )
        self.visit(args)

    def on_keyword_argument(self, node: Any) -> None:
        self.value(node.named_children[-1])

    def on_named_expression(self, node: Any) -> None:
        name, value = node.named_children[0], node.named_children[-1]
        self.value(value)
        scope = self.scope
        while scope.kind == "comprehension" and scope.parent is not None:
            scope.used.add(self.name_of(name))
            scope = scope.parent
        held, self.scope = self.scope, scope
        ref = self.bind(name, "walrus")
        self.scope = held
        if held is not scope:
            # the name belongs to the scope around the comprehension
            (held.globals if scope.kind == "module" or ref.name in scope.globals else held.nonlocals).add(ref.name)
            ref.scope = held

    def on_lambda(self, node: Any) -> None:
        params = node.child_by_field_name("parameters")
        names = self.parameter_defaults(params) if params is not None else []
        held = self.enter("lambda", "lambda", node)
        self.bind_parameters(names)
        self.value(node.child_by_field_name("body"))
        self.scope = held

    def comprehension(self, node: Any) -> None:
        parts = [c for c in node.named_children if c.type != "comment"]
        clauses = [c for c in parts if c.type in ("for_in_clause", "if_clause")]
        self.visit(clauses[0].child_by_field_name("right"))  # the first iterable belongs to the scope around
        held = self.enter("comprehension", COMPREHENSIONS[node.type], node)
        self.scope.parameters.append(".0")
        for index, clause in enumerate(clauses):
            if clause.type == "if_clause":
                self.children(clause)
                continue
            if index:
                for right in clause.children_by_field_name("right"):
                    self.visit(right)
            self.target(clause.child_by_field_name("left"), "loop")
        self.value(parts[0])
        self.scope = held

    on_list_comprehension = on_set_comprehension = on_dictionary_comprehension = on_generator_expression = comprehension

    def on_string(self, node: Any) -> None:
        if node.start_point[0] != node.end_point[0]:
            self.file.strings.append((node.start_byte, node.end_byte))
        for child in node.named_children:
            if child.type == "interpolation":
                self.visit(child)

    def on_interpolation(self, node: Any) -> None:
        held = self.spelled
        self.spelled = held or any(c.type == "=" for c in node.children)
        self.children(node)
        self.spelled = held

    def on_comparison_operator(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "identifier":
                self.use(child).form = "compared"
            else:
                self.visit(child)

    def on_pair(self, node: Any) -> None:
        key, value = node.named_children[0], node.named_children[-1]
        if key.type == "identifier":
            self.use(key, Role.VALUE).form = "key"
        else:
            self.visit(key)
        self.value(value)

    def on_subscript(self, node: Any) -> None:
        base, *rest = node.named_children
        self.visit(base)
        for index in rest:
            if index.type == "identifier":
                self.use(index).form = "key"
            else:
                self.visit(index)

    def on_yield(self, node: Any) -> None:
        scope = self.scope
        while scope.kind == "comprehension" and scope.parent is not None:
            scope = scope.parent
        scope.generator = True
        self.passing(node)

    def on_print_statement(self, node: Any) -> None:
        # ``print >>x, y`` is an expression today; the grammar still knows the old statement
        ref = Reference("print", node.start_byte, node.start_byte + 5, Role.READ, self.scope)
        self.scope.used.add("print")
        self.references.append(ref)
        self.children(node)

    # -- statements ----------------------------------------------------------------------------

    def on_assignment(self, node: Any) -> None:
        left, right, kind = (node.child_by_field_name(f) for f in ("left", "right", "type"))
        if right is not None:
            self.value(right)
        chain = right is not None and right.type == "assignment"
        if kind is not None and left.type == "tuple_pattern" and left.named_child_count == 1:
            left = left.named_children[0]  # ``(x): int``: parentheses, not a tuple
            if right is None:
                if left.type != "identifier":
                    self.visit(left)
                self.annotation(kind)
                return
        if kind is not None and left.type == "identifier" and right is None:
            self.scope.bound.add(self.name_of(left))
            ref = self.use(left)
            ref.form = "annotation"
        else:
            inner = node.parent is not None and node.parent.type == "assignment"
            self.target(left, "chain" if chain or inner else "")
        if kind is not None:
            self.annotation(kind)

    def on_augmented_assignment(self, node: Any) -> None:
        left = node.child_by_field_name("left")
        self.visit(node.child_by_field_name("right"))
        if left.type == "identifier":
            self.bind(left, role=Role.BOTH)
        else:
            self.target(left)

    def on_for_statement(self, node: Any) -> None:
        self.visit(node.child_by_field_name("right"))
        left = node.child_by_field_name("left")
        self.target(left, "loop")
        for child in node.named_children:
            if child != left and child != node.child_by_field_name("right"):
                self.visit(child)

    def on_with_item(self, node: Any) -> None:
        self.with_value(node.named_children[0])

    def with_value(self, node: Any) -> None:
        if node.type in ("tuple", "parenthesized_expression"):
            for child in node.named_children:
                self.with_value(child)
        else:
            self.visit(node)

    def on_as_pattern(self, node: Any) -> None:
        form = "with"
        parent = node.parent
        while parent is not None and parent.type not in (
            "except_clause",
            "except_group_clause",
            "case_clause",
            "with_item",
        ):
            parent = parent.parent
        if parent is not None and parent.type.startswith("except"):
            form = "except"
        elif parent is not None and parent.type == "case_clause":
            form = "pattern"
        for child in node.named_children:
            if child.type == "as_pattern_target":
                self.target(child, form)
            elif child.type == "identifier" and form == "pattern":
                self.bind(child, form)
            else:
                self.visit(child)

    def on_delete_statement(self, node: Any) -> None:
        for child in node.named_children:
            self.delete(child)

    def delete(self, node: Any) -> None:
        if node.type == "identifier":
            self.bind(node, role=Role.DELETE)
        elif node.type in TARGETS or node.type == "parenthesized_expression":
            for child in node.named_children:
                self.delete(child)
        else:
            self.target(node)

    def declare(self, node: Any, names: set[str]) -> None:
        for child in node.named_children:
            if child.type == "identifier":
                name = self.name_of(child)
                names.add(name)
                self.file.declarations.append(
                    Declaration(name, child.start_byte, child.end_byte, (node.start_byte, node.end_byte), self.scope)
                )

    def on_global_statement(self, node: Any) -> None:
        self.declare(node, self.scope.globals)

    def on_nonlocal_statement(self, node: Any) -> None:
        self.declare(node, self.scope.nonlocals)

    # -- imports -------------------------------------------------------------------------------

    def on_import_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("name"):
            if child.type == "aliased_import":
                self.bind(child.child_by_field_name("alias"), "import")
            else:
                self.bind(child.named_children[0], "import")

    def on_import_from_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("name"):
            if child.type == "aliased_import":
                self.bind(child.child_by_field_name("alias"), "import")
            else:
                self.bind(child.named_children[0], "import")
        if any(c.type == "wildcard_import" for c in node.named_children):
            module = node.child_by_field_name("module_name")
            self.scope.stars.append(module.text.decode())
            self.file.star_imports.append(node.start_byte)

    def on_future_import_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("name"):
            self.file.futures.append(child.text.decode())
            name = child.child_by_field_name("alias") if child.type == "aliased_import" else child.named_children[0]
            self.bind(name, "import")

    # -- patterns ------------------------------------------------------------------------------

    def on_match_statement(self, node: Any) -> None:
        for child in node.children_by_field_name("subject"):
            self.value(child)
        body = node.child_by_field_name("body")
        for child in body.named_children:
            self.visit(child)

    def on_case_clause(self, node: Any) -> None:
        for child in node.named_children:
            if child.type == "case_pattern":
                self.pattern(child)
            else:
                self.visit(child)

    def pattern(self, node: Any) -> None:
        kind = node.type
        if kind == "dotted_name":
            parts = node.named_children
            if len(parts) == 1:
                if parts[0].text != b"_":
                    self.bind(parts[0], "pattern")
            else:
                self.use(parts[0]).member = parts[1].text.decode()
        elif kind == "class_pattern":
            first = node.named_children[0]
            ref = self.use(first.named_children[0])
            if first.named_child_count > 1:
                ref.member = first.named_children[1].text.decode()
            for child in node.named_children[1:]:
                self.pattern(child)
        elif kind == "keyword_pattern":
            for child in node.named_children[1:]:
                self.pattern(child)
        elif kind in ("splat_pattern", "as_pattern"):
            for child in node.named_children:
                if child.type == "identifier":
                    if child.text != b"_":
                        self.bind(child, "pattern")
                else:
                    self.pattern(child)
        elif kind == "string" or kind == "concatenated_string":
            self.visit(node)
        else:
            for child in node.named_children:
                self.pattern(child)

    # -- definitions ---------------------------------------------------------------------------

    def enter(self, kind: str, name: str, node: Any) -> Scope:
        held = self.scope
        self.scope = Scope(kind, name, held, node.start_byte, node.end_byte)
        return held

    def annotation(self, node: Any) -> None:
        held = self.deferred
        self.deferred = held or "annotations" in self.file.futures
        self.visit(node)
        self.deferred = held

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
            kind = child.child_by_field_name("type")
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
        self.file.functions.append(function)
        self.children(body)
        self.scope = types if types is not None else held

    def on_class_definition(self, node: Any) -> None:
        name_node = node.child_by_field_name("name")
        name = self.name_of(name_node)
        outer_scope, outer_class = self.scope, self.klass
        types = self.type_scope(node, name)
        if types is not None:
            self.klass = name.lstrip("_")
        bases = node.child_by_field_name("superclasses")
        if bases is not None:
            self.visit(bases)
        raw = name_node.text.decode(self.file.encoding, "replace")
        self.enter("class", raw, node)
        self.scope.bases = (
            bases is not None and bases.named_child_count > 0
        ) or node.parent.type == "decorated_definition"
        self.file.classes.append((self.scope, name))
        self.klass = raw.lstrip("_")
        self.children(node.child_by_field_name("body"))
        self.scope, self.klass = outer_scope, outer_class
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
