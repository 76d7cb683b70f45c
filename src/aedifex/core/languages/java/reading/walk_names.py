"""The heart of the walk: names and expressions. Methods, variables and types have names of their own kinds."""

from __future__ import annotations

from typing import Any

from ....program.model import Reference, Role, Scope, SourceFile
from ...braced.shapes import Shapes
from ...braced.walker import RECEIVER as RECEIVER
from ...braced.walker import BracedWalker
from .grammar import node_kinds

VARIABLE, METHOD, TYPE, ANY = "", "()", "<>", "?"  # kinds of names; ANY: a variable, else a type
MUTATORS = frozenset( ["add", "put", "remove", "clear", "append", "set", "push", "pop", "offer", "poll",
    "addAll", "removeAll", "sort", "insert", "delete", "reverse", "addFirst", "addLast", "removeFirst",
    "removeLast", "mult", "sub", "div", "normalize", "limit", "setMag"] )  # fmt: skip
LEAVES = frozenset(
    """
    line_comment block_comment string_fragment escape_sequence decimal_integer_literal hex_integer_literal
    octal_integer_literal binary_integer_literal decimal_floating_point_literal hex_floating_point_literal true
    false null_literal character_literal void_type integral_type floating_point_type boolean_type dimensions
    asterisk super import_declaration package_declaration break_statement continue_statement marker_annotation
    """.split()
)
PASSING = frozenset( ["argument_list", "return_statement", "array_initializer", "ternary_expression",
    "parenthesized_expression", "throw_statement", "variable_declarator", "cast_expression"] )  # fmt: skip


class NameWalker(BracedWalker):
    """What every part of the walk needs: where it is, and how to note a use or a binding.

    ``kinds`` tells for each reference by its place in the list which kind of name it is.
    """

    LEAVES, PASSING = LEAVES, PASSING
    SHAPES = Shapes(
        {"field_access": "field"},
        frozenset(["field_access", "array_access", "method_invocation", "parenthesized_expression", "cast_expression"]),
    )

    def __init__(self, file: SourceFile, main: str) -> None:
        super().__init__(file, node_kinds())
        self.main = main  # the class whose static members are the program's globals; "" in a sketch
        self.kinds: dict[int, str] = {}

    # -- names ---------------------------------------------------------------------------------

    def use(
        self, node: Any, role: Role = Role.READ, form: str = "", kind: str = VARIABLE, whole: Any = None
    ) -> Reference:
        """Note a use of the name at ``node``; ``whole``: what is replaced with it, where it is written with its
        class."""
        span = whole if whole is not None else node
        ref = Reference(self.text(node), span.start_byte, node.end_byte, role, self.scope, form)
        self.kinds[id(ref)] = kind
        self.references.append(ref)
        return ref

    def on_identifier(self, node: Any) -> None:
        self.use(node, kind=ANY)

    def on_type_identifier(self, node: Any) -> None:
        self.use(node, form="type", kind=TYPE).deferred = True

    def declare(self, node: Any, scope: Scope, form: str, kind: str = VARIABLE) -> Reference:
        ref = Reference(self.text(node), node.start_byte, node.end_byte, Role.WRITE, self.scope, form)
        self.kinds[id(ref)] = kind
        scope.bound.add(ref.name + kind)
        self.references.append(ref)
        return ref

    def is_main(self, node: Any) -> bool:
        """Whether an expression means what has the globals: the name of the class whose static members they are, or the
        sketch, from its own functions."""
        if node.type == "this":
            return not self.main and self.receiver_free()
        return bool(self.main) and node.type == "identifier" and self.text(node) == self.main

    def receiver_free(self) -> bool:
        at: Scope | None = self.scope
        while at is not None and at.receiver is None and at.kind != "class":
            at = at.parent
        return at is None

    def value(self, node: Any) -> None:
        if node.type == "identifier":
            self.use(node, Role.VALUE, kind=ANY)
        else:
            self.visit(node)

    # -- expressions ---------------------------------------------------------------------------

    def on_field_access(self, node: Any) -> None:
        base, member = node.child_by_field_name("object"), node.child_by_field_name("field")
        if member.type == "this":  # the object around, named by its class
            self.use(base, kind=ANY)
        elif self.is_main(base):
            self.use(member, form="qualified", whole=node).scope = self.file.scope
        elif base.type in ("identifier", "this"):
            self.use(base, kind=ANY).member = self.text(member)
        else:
            self.visit(base)

    def on_array_access(self, node: Any) -> None:
        self.visit(node.child_by_field_name("array"))
        self.value(node.child_by_field_name("index"))

    def on_method_invocation(self, node: Any) -> None:
        base, name, args = (node.child_by_field_name(f) for f in ("object", "name", "arguments"))
        ref = None
        types = node.child_by_field_name("type_arguments")
        if types is not None:
            self.visit(types)
        if base is None:
            ref = self.use(name, Role.CALL, kind=METHOD)
        elif self.is_main(base):
            ref = self.use(name, Role.CALL, "qualified", METHOD, node)
            ref.scope = self.file.scope
        elif base.type in ("identifier", "this"):
            ref = self.use(base, kind=ANY)
            ref.member = self.text(name)
            ref.mutates = self.text(name) in MUTATORS
        else:
            self.visit(base)
            if base.type != "super" and self.text(name) in MUTATORS:
                self.mutated(base)
        if ref is None:
            if base is not None and base.type == "field_access" and self.text(base) in ("System.out", "System.err"):
                self.file.quiet_calls.append(node.start_byte)  # printing runs nothing of the program
            elif base is None or base.type != "super":
                self.file.opaque(node.start_byte, self.text(name))
        else:
            self.noted_call(ref, node, args)
        self.visit(args)

    def on_object_creation_expression(self, node: Any) -> None:
        kind, args = node.child_by_field_name("type"), node.child_by_field_name("arguments")
        name = kind
        while name.type in ("generic_type", "annotated_type"):
            name = name.named_children[0]
        body = next((c for c in node.named_children if c.type == "class_body"), None)
        if name.type == "type_identifier":
            ref = self.use(name, Role.CALL, kind=TYPE)
            if kind.type == "generic_type":
                for child in kind.named_children[1:]:
                    self.visit(child)
            if body is None:
                self.noted_call(ref, node, args)
            else:
                self.file.opaque(node.start_byte)
        else:
            self.visit(kind)
            self.file.opaque(node.start_byte)
        self.visit(args)
        if body is not None:
            self.anonymous(body, self.text(name))

    def anonymous(self, body: Any, base: str) -> None:
        raise NotImplementedError

    def on_method_reference(self, node: Any) -> None:
        base, name = node.named_children[0], node.named_children[-1]
        if base is not name and self.is_main(base) and name.type == "identifier":
            self.use(name, Role.VALUE, "method reference", METHOD, node).scope = self.file.scope
        elif base.type == "this" and base is not name:
            self.use(base, Role.VALUE)
        elif base.type == "identifier":
            self.use(base, Role.VALUE, kind=ANY)
        else:
            self.visit(base)

    def on_assignment_expression(self, node: Any) -> None:
        left, right = node.child_by_field_name("left"), node.child_by_field_name("right")
        self.value(right)
        self.target(left, Role.WRITE if self.text(node.child_by_field_name("operator")) == "=" else Role.BOTH)

    def on_update_expression(self, node: Any) -> None:
        self.target(node.named_children[0], Role.BOTH)

    def target(self, node: Any, role: Role) -> None:
        while node.type == "parenthesized_expression":
            node = node.named_children[0]
        if node.type == "identifier":
            self.use(node, role)
        elif node.type == "field_access" and self.is_main(node.child_by_field_name("object")):
            self.use(node.child_by_field_name("field"), role, "qualified", whole=node).scope = self.file.scope
        else:
            self.visit(node)
            self.mutated(node)
            if node.type == "field_access":
                self.file.stored_members.add(self.text(node.child_by_field_name("field")))

    def mutated(self, node: Any) -> None:
        """What the name at the bottom of ``a.b[c].d = ...`` stands for is changed in place."""
        base = node
        while base.type in self.SHAPES.through:
            if base.type == "field_access" and self.is_main(base.named_children[0]):
                base = base.child_by_field_name("field")
                break
            if base.type == "method_invocation" and base.child_by_field_name("object") is None:
                return
            base = base.named_children[-1 if base.type == "cast_expression" else 0]
        for ref in reversed(self.references):
            if ref.end == base.end_byte or ref.start == base.start_byte:
                ref.mutates = True
                return

    def on_binary_expression(self, node: Any) -> None:
        compares = self.text(node.child_by_field_name("operator")) in ("==", "!=")
        for child in (node.child_by_field_name("left"), node.child_by_field_name("right")):
            if child.type == "identifier":
                self.use(child, form="compared" if compares else "", kind=ANY)
            else:
                self.visit(child)

    def on_string_literal(self, node: Any) -> None:
        if node.start_point[0] != node.end_point[0]:
            self.file.strings.append((node.start_byte, node.end_byte))
        for child in node.named_children:
            if child.type == "string_interpolation":
                self.visit(child)

    def on_scoped_type_identifier(self, node: Any) -> None:
        first = node.named_children[0]
        self.visit(first)

    def on_labeled_statement(self, node: Any) -> None:
        self.visit(node.named_children[-1])

    def on_yield_statement(self, node: Any) -> None:
        self.passing(node)

    def on_annotation(self, node: Any) -> None:
        args = node.child_by_field_name("arguments")
        for child in args.named_children if args is not None else ():
            self.visit(child.named_children[-1] if child.type == "element_value_pair" else child)
