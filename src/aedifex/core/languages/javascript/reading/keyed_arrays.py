"""Arrays that hold records: what is done with all of them, and what with each."""

from __future__ import annotations

from typing import Any

from ....program.keyed import Keyed
from ....program.model import SourceFile, Symbol
from .keyed_shapes import Stop, id_of, same
from .walk import FUNCTIONS

EACH = {
    b"forEach": 1,
    b"map": 1,
    b"filter": 1,
    b"find": 1,
    b"findLast": 1,
    b"findIndex": 1,
    b"some": 1,
    b"every": 1,
    b"flatMap": 1,
    b"sort": 2,
}
SAME = (b"filter", b"slice", b"reverse", b"sort", b"splice", b"concat")  # give an array of the same records
ONE = (b"find", b"findLast", b"pop", b"shift", b"at")


class ArrayFollower:
    """The part of a follower that is about arrays; the other part is about one record."""

    file: SourceFile
    found: Keyed
    done: set[tuple[Any, ...]]
    record: Any
    source: Any
    bound: Any
    holder: Any
    symbol: Any
    condition: Any
    argument: Any
    everywhere: Any

    @property
    def given_each(self) -> set[Symbol]:
        """Parameters of functions that are called for each record."""
        if not hasattr(self, "_each"):
            self._each: set[Symbol] = set()
        return self._each

    def listed(self, node: Any) -> None:
        """An array as it is written, of which one item is a record: all must be."""
        if id_of(node) in self.done:
            return
        self.done.add(id_of(node))
        for child in node.named_children:
            if child.type != "comment":
                if child.type not in ("object", "identifier", "call_expression"):
                    raise Stop("stands in an array with other things", node.start_byte)
                self.source(child)
                self.record(child)
        self.list_(node)

    def list_(self, node: Any) -> None:
        """An expression gives an array of records: see what becomes of it."""
        if ("list", *id_of(node)) in self.done:
            return
        self.done.add(("list", *id_of(node)))
        parent, kind = node.parent, node.parent.type
        if kind == "parenthesized_expression":
            self.list_(parent)
        elif kind == "variable_declarator" and same(parent.child_by_field_name("value"), node):
            self.bound(parent.child_by_field_name("name"), self.several)
        elif (
            kind == "assignment_expression"
            and same(parent.child_by_field_name("right"), node)
            and parent.parent.type == "expression_statement"
        ):
            self.bound(parent.child_by_field_name("left"), self.several)
        elif (
            kind == "for_in_statement"
            and same(parent.child_by_field_name("right"), node)
            and any(c.type == "of" for c in parent.children)
        ):
            self.bound(parent.child_by_field_name("left"), self.holder)
        elif kind == "subscript_expression" and same(parent.child_by_field_name("object"), node):
            self.item(parent)
        elif kind == "member_expression" and same(parent.child_by_field_name("object"), node):
            self.method(parent)
        elif kind == "arguments":
            self.argument(node, parent.parent, self.several)
        elif kind != "expression_statement" and not self.condition(node):
            raise Stop("is an array that is used in a way that cannot be followed", node.start_byte)

    def item(self, node: Any) -> None:
        outer = node.parent
        if outer.type == "assignment_expression" and same(outer.child_by_field_name("left"), node):
            self.source(outer.child_by_field_name("right"))
        else:
            self.record(node)

    def method(self, node: Any) -> None:
        call, name = node.parent, node.child_by_field_name("property").text
        if name == b"length":
            return
        if (
            call.type != "call_expression"
            or not same(call.child_by_field_name("function"), node)
            or any(c.type == "optional_chain" for c in node.children)
        ):
            raise Stop("is an array that is used in a way that cannot be followed", node.start_byte)
        args = call.child_by_field_name("arguments").named_children
        if any(a.type in ("spread_element", "comment") for a in args):
            raise Stop("is an array that is used in a way that cannot be followed", node.start_byte)
        if name in (b"push", b"unshift", b"indexOf", b"includes"):
            for a in args:
                self.source(a)
        elif name in EACH:
            self.each(args, EACH[name], 0)
        elif name == b"reduce":
            self.each(args, 1, 1)
        elif name == b"splice":
            for a in args[2:]:
                self.source(a)
        elif name == b"concat":
            for a in args:
                self.list_source(a)
        elif name not in (b"slice", b"reverse", b"pop", b"shift", b"at"):
            raise Stop("is an array that is used in a way that cannot be followed", node.start_byte)
        if name in SAME:
            self.list_(call)
        elif name in ONE:
            self.record(call)

    def owner_of(self, node: Any) -> Any:
        """The array that calls a function for each of its records, of which a node is a parameter; None if there is
        none."""
        function = node
        while function is not None and function.type not in FUNCTIONS:
            function = function.parent
        call = function.parent.parent if function is not None and function.parent.type == "arguments" else None
        callee = call.child_by_field_name("function") if call is not None else None
        if (
            callee is None
            or callee.type != "member_expression"
            or callee.child_by_field_name("property").text not in (*EACH, b"reduce")
        ):
            return None
        return callee.child_by_field_name("object")

    def each(self, args: list[Any], count: int, first: int) -> None:
        """A function is called for each record: its parameters hold one."""
        if not args or args[0].type not in FUNCTIONS:
            raise Stop("goes to a function that cannot be followed", args[0].start_byte if args else 0)
        single, several = args[0].child_by_field_name("parameter"), args[0].child_by_field_name("parameters")
        params = [single] if single is not None else list(several.named_children) if several is not None else []
        params = [
            p.child_by_field_name("pattern")
            if p.type == "required_parameter" and p.child_by_field_name("value") is None
            else p
            for p in params
        ]
        if any(p.type != "identifier" for p in params[: first + count]) or len(params) > first + count + 1:
            raise Stop("goes to a function that cannot be followed", args[0].start_byte)
        for p in params[first : first + count]:
            s = self.symbol(p)
            self.given_each.add(s)
            self.holder(s)

    # -- variables, and where arrays come from ---------------------------------------------------

    def several(self, s: Symbol) -> None:
        """A variable or parameter holds an array of records."""
        if s in self.found.lists:
            return
        if s in self.found.holders or s.kinds - {"variable", "parameter"}:
            raise Stop(f"'{s.name}' holds other things too", s.references[0].start)
        self.found.lists.append(s)
        self.everywhere(s, self.list_, self.list_source)

    def list_source(self, node: Any) -> None:
        """An expression that must give an array of such records."""
        callee = node.child_by_field_name("function") if node.type == "call_expression" else None
        if node.type == "parenthesized_expression":
            self.list_source(node.named_children[0])
        elif node.type == "identifier":
            self.several(self.symbol(node))
        elif node.type == "array":
            if node.named_children:
                self.listed(node)
        elif (
            callee is not None
            and callee.type == "member_expression"
            and callee.child_by_field_name("property").text in SAME
        ):
            self.list_source(callee.child_by_field_name("object"))
        else:
            raise Stop("may be something else", node.start_byte)
