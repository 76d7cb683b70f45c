"""The heart of the walk: names, patterns and expressions."""

from __future__ import annotations

from typing import Any

from ....program.model import Call, Role, Scope, SourceFile
from ...braced.shapes import Shapes
from ...braced.walker import RECEIVER as RECEIVER
from ...braced.walker import BracedWalker
from .grammar import node_kinds

MUTATORS = frozenset(
    """
    push pop shift unshift splice sort reverse fill copyWithin set add delete clear append write setItem
    """.split()
)
LEAVES = frozenset(
    """
    property_identifier private_property_identifier statement_identifier number string regex true false null comment
    html_comment hash_bang_line super import string_fragment escape_sequence break_statement continue_statement
    empty_statement debugger_statement meta_property optional_chain predefined_type accessibility_modifier
    override_modifier literal_type this_type jsx_text
    """.split()
)
PASSING = frozenset(
    """
    arguments array return_statement pair ternary_expression parenthesized_expression spread_element
    yield_expression sequence_expression await_expression template_substitution throw_statement arrow_body
    jsx_expression field_definition public_field_definition
    """.split()
)
COMPARING = frozenset(["===", "==", "!==", "!="])


class NameWalker(BracedWalker):
    """What every part of the walk needs: where it is, and how to note a use or a binding."""

    LEAVES, PASSING = LEAVES, PASSING
    SHAPES = Shapes(
        {"member_expression": "property"},
        frozenset(
            [
                "member_expression",
                "subscript_expression",
                "call_expression",
                "non_null_expression",
                "parenthesized_expression",
            ]
        ),
        "new_expression",
    )

    def __init__(self, file: SourceFile, dialect: str, strict: bool) -> None:
        super().__init__(file, node_kinds(dialect))
        self.strict = strict

    def text(self, node: Any) -> str:
        return str(node.text.decode(self.file.encoding, "replace"))

    # -- names ---------------------------------------------------------------------------------

    def on_undefined(self, node: Any) -> None:
        self.use(node)

    def on_shorthand_property_identifier(self, node: Any) -> None:
        self.use(node, Role.VALUE, "shorthand")

    def on_type_identifier(self, node: Any) -> None:
        self.use(node, form="type").deferred = True

    def hoisted(self) -> Scope:
        """The scope that owns what ``var`` declares here."""
        scope = self.scope
        while scope.kind not in ("function", "module") and scope.parent is not None:
            scope = scope.parent
        return scope

    def pattern(self, node: Any, scope: Scope | None, form: str) -> None:
        """Everything that a pattern binds: declared in ``scope``, or assigned where that is None."""
        kind = node.type
        if kind in ("identifier", "shorthand_property_identifier_pattern"):
            short = kind != "identifier"
            if scope is not None:
                self.declare(node, scope, form or ("pattern" if short else ""))
            else:
                self.use(node, Role.WRITE, "shorthand" if short else form)
        elif kind in ("object_pattern", "array_pattern", "rest_pattern", "object", "array"):
            for child in node.named_children:
                self.pattern(child, scope, form if form or scope is None else "pattern")
        elif kind in ("pair_pattern", "pair"):
            key = node.child_by_field_name("key")
            if key.type == "computed_property_name":
                self.visit(key)
            self.pattern(node.child_by_field_name("value"), scope, form or ("pattern" if scope is not None else ""))
        elif kind in ("assignment_pattern", "object_assignment_pattern"):
            self.value(node.child_by_field_name("right"))
            self.pattern(node.child_by_field_name("left"), scope, form or ("pattern" if scope is not None else ""))
        elif kind in ("member_expression", "subscript_expression", "non_null_expression"):
            self.visit(node)
            self.stored(node)
        elif kind in ("parenthesized_expression", "as_expression", "satisfies_expression"):
            self.pattern(node.named_children[0], scope, form)
        else:
            self.visit(node)

    # -- expressions ---------------------------------------------------------------------------

    def on_member_expression(self, node: Any) -> None:
        base, member = node.named_children[0], node.child_by_field_name("property")
        if base.type in ("identifier", "this"):
            self.use(base).member = self.text(member)
        else:
            self.visit(base)

    def on_subscript_expression(self, node: Any) -> None:
        base, index = node.child_by_field_name("object"), node.child_by_field_name("index")
        self.visit(base) if base.type != "this" else self.use(base, Role.VALUE)
        if index.type == "identifier":
            self.use(index).form = "key"
        else:
            self.visit(index)

    def on_call_expression(self, node: Any) -> None:
        self.call(node, node.child_by_field_name("function"))

    def on_new_expression(self, node: Any) -> None:
        self.call(node, node.child_by_field_name("constructor"))

    def call(self, node: Any, callee: Any) -> None:
        args = node.child_by_field_name("arguments")
        ref, member = None, ""
        if callee.type == "identifier":
            ref = self.use(callee, Role.CALL)
        elif callee.type == "member_expression":
            member = self.text(callee.child_by_field_name("property"))
            base = callee.named_children[0]
            self.on_member_expression(callee)
            if base.type in ("identifier", "this"):
                ref = self.references[-1]
            if member in MUTATORS:
                self.mutated(callee)
        elif callee.type not in ("super", "import"):
            self.visit(callee)
        types = node.child_by_field_name("type_arguments")
        if types is not None:
            self.visit(types)
        if ref is None or args is None or args.type != "arguments":
            if ref is not None and args is None:
                at = node.end_byte
                self.file.calls.append(Call(ref, node.start_byte, node.end_byte, at, at, node))
            elif callee.type != "super":
                self.file.opaque(node.start_byte, member)
        else:
            self.noted_call(ref, node, args)
        if args is not None:
            self.visit(args)

    def on_assignment_expression(self, node: Any) -> None:
        left, right = node.child_by_field_name("left"), node.child_by_field_name("right")
        self.value(right)
        self.pattern(left, None, "" if left.type == "identifier" else "unpack")

    def on_augmented_assignment_expression(self, node: Any) -> None:
        self.value(node.child_by_field_name("right"))
        self.changed(node.child_by_field_name("left"))

    def on_update_expression(self, node: Any) -> None:
        self.changed(node.child_by_field_name("argument"))

    def changed(self, node: Any) -> None:
        while node.type in ("parenthesized_expression", "non_null_expression"):
            node = node.named_children[0]
        if node.type == "identifier":
            self.use(node, Role.BOTH)
        else:
            self.pattern(node, None, "")

    def on_unary_expression(self, node: Any) -> None:
        inner = node.child_by_field_name("argument")
        if node.children[0].type == "delete" and inner.type == "identifier":
            self.use(inner, Role.DELETE)
        else:
            if node.children[0].type == "delete" and inner.type in ("member_expression", "subscript_expression"):
                self.visit(inner)
                self.mutated(inner)
                return
            self.visit(inner)

    def on_binary_expression(self, node: Any) -> None:
        compares = any(c.type in COMPARING for c in node.children)
        for child in node.named_children:
            if child.type == "identifier" and compares:
                self.use(child).form = "compared"
            elif child.type == "identifier" and any(c.type in ("||", "&&", "??") for c in node.children):
                self.use(child, Role.VALUE)
            else:
                self.visit(child)

    def on_template_string(self, node: Any) -> None:
        if node.start_point[0] != node.end_point[0]:
            self.file.strings.append((node.start_byte, node.end_byte))
        self.children(node)

    def on_string(self, node: Any) -> None:
        if node.start_point[0] != node.end_point[0]:
            self.file.strings.append((node.start_byte, node.end_byte))

    on_jsx_text = on_string

    def on_pair(self, node: Any) -> None:
        key = node.child_by_field_name("key")
        if key.type == "computed_property_name":
            self.visit(key)
        elif key.type == "property_identifier":
            self.file.stored_members.add(self.text(key))
        self.value(node.child_by_field_name("value"))

    def on_nested_identifier(self, node: Any) -> None:
        base = node.named_children[0]
        self.use(base) if base.type == "identifier" else self.visit(base)
