"""One pass over the tree of a language with braces: what all of them note alike. A language overrides one kind of node
at a time."""

from __future__ import annotations

from typing import Any, ClassVar

from ...program.model import Call, Reference, Role, Scope
from ..tree import TreeWalker
from .shapes import Shapes

RECEIVER = "this"


class BracedWalker(TreeWalker):
    """Names, members, calls, and what is changed in place. ``SHAPES``: what the grammar calls them."""

    SHAPES: ClassVar[Shapes]

    def text(self, node: Any) -> str:
        return self.file.slice(node.start_byte, node.end_byte)

    def use(self, node: Any, role: Role = Role.READ, form: str = "") -> Reference:
        ref = Reference(self.text(node), node.start_byte, node.end_byte, role, self.scope, form)
        self.references.append(ref)
        return ref

    def declare(self, node: Any, scope: Scope, form: str) -> Reference:
        """Bind a name in a scope; the reference itself stands where the walk is."""
        ref = Reference(self.text(node), node.start_byte, node.end_byte, Role.WRITE, self.scope, form)
        scope.bound.add(ref.name)
        self.references.append(ref)
        return ref

    def on_identifier(self, node: Any) -> None:
        self.use(node)

    def on_this(self, node: Any) -> None:
        self.use(node, Role.VALUE)

    def value(self, node: Any) -> None:
        if node.type == "identifier":
            self.use(node, Role.VALUE)
        else:
            self.table[node.kind_id](node)

    def block(self, node: Any) -> None:
        held = self.enter("block", "block", node)
        self.children(node)
        self.scope = held

    def noted_call(self, ref: Reference, node: Any, args: Any) -> None:
        """A call whose callee is a plain name or a member of one."""
        self.file.calls.append(Call(ref, node.start_byte, node.end_byte, args.start_byte + 1, args.end_byte - 1, args))

    # -- expressions, for grammars that call their parts as ``SHAPES`` says ------------------------

    def taken(self, node: Any) -> None:
        """``a.b``: a plain name and its member, or whatever it is taken from."""
        base = node.named_children[0]
        if base.type in ("identifier", "this"):
            self.use(base).member = self.text(node.child_by_field_name(self.SHAPES.member[node.type]))
        else:
            self.visit(base)

    def called(self, node: Any) -> None:
        """A call of a plain name or of its member is noted with its arguments; any other is opaque."""
        callee, args = node.child_by_field_name("function"), node.child_by_field_name("arguments")
        if callee.type == "identifier":
            self.noted_call(self.use(callee, Role.CALL), node, args)
        elif callee.type in self.SHAPES.member and callee.named_children[0].type in ("identifier", "this"):
            self.taken(callee)
            self.noted_call(self.references[-1], node, args)
        else:
            self.visit(callee)
            self.file.opaque(node.start_byte)
        self.visit(args)

    def assigned(self, node: Any) -> None:
        left, right = node.child_by_field_name("left"), node.child_by_field_name("right")
        self.value(right)
        self.target(left, Role.WRITE if self.text(node.child_by_field_name("operator")) == "=" else Role.BOTH)

    def updated(self, node: Any) -> None:
        self.target(node.child_by_field_name("argument"), Role.BOTH)

    def target(self, node: Any, role: Role) -> None:
        if node.type == "identifier":
            self.use(node, role)
        else:
            self.visit(node)
            self.stored(node)

    # -- what is changed in place ----------------------------------------------------------------

    def stored(self, node: Any) -> None:
        """``a.b[c].d = ...``: the member is given, and what the name at the bottom stands for is changed in place."""
        if node.type in self.SHAPES.member:
            self.file.stored_members.add(self.text(node.child_by_field_name(self.SHAPES.member[node.type])))
        self.mutated(node)

    def mutated(self, node: Any) -> None:
        base = node
        while base.type in self.SHAPES.through:
            base = base.named_children[0]
        if base.type not in ("identifier", "this"):
            return
        for ref in reversed(self.references):
            if ref.start == base.start_byte:
                ref.mutates = True
                return
