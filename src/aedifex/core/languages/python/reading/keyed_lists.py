"""Lists that hold records: what is done with all of them, and what with each."""

from __future__ import annotations

from typing import Any

from ....program.keyed import Keyed
from ....program.lists import same
from ....program.model import SourceFile, Symbol
from .keyed_shapes import KEEPING, LOOKING, LOOKUPS, Stop, id_of, plain
from .lists import is_builtin


class ListFollower:
    """The part of a follower that is about lists; the other part is about one record."""

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

    def listed(self, node: Any) -> None:
        """A list as it is written, of which one item is a record: all must be."""
        if id_of(node) in self.done:
            return
        self.done.add(id_of(node))
        for child in plain(node):
            if child.type not in ("dictionary", "identifier", "call"):
                raise Stop("stands in a list with other things", node.start_byte)
            self.source(child)
            self.record(child)
        self.list_(node)

    def list_(self, node: Any) -> None:
        """An expression gives a list of records: see what becomes of it."""
        if ("list", *id_of(node)) in self.done:
            return
        self.done.add(("list", *id_of(node)))
        parent, kind = node.parent, node.parent.type
        if kind == "assignment" and same(parent.child_by_field_name("right"), node):
            self.bound(parent.child_by_field_name("left"), self.several)
        elif kind in ("for_statement", "for_in_clause") and same(parent.child_by_field_name("right"), node):
            self.bound(parent.child_by_field_name("left"), self.holder)
        elif kind == "subscript" and same(parent.child_by_field_name("value"), node):
            self.subscript(parent)
        elif kind == "attribute" and same(parent.child_by_field_name("object"), node):
            self.method(parent)
        elif kind == "argument_list":
            self.list_argument(node, parent.parent)
        elif kind == "keyword_argument":
            self.argument(node, parent.parent.parent, self.several)
        elif kind == "comparison_operator":
            self.looked_up(node, parent)
        elif kind != "delete_statement" and not self.condition(node):
            raise Stop("is a list that is used in a way that cannot be followed", node.start_byte)

    def looked_up(self, node: Any, parent: Any) -> None:
        """``record in records``."""
        words = {c.type for c in parent.children if not c.is_named}
        if not words <= {"in", "not in"} or len(parent.named_children) != 2 or not same(parent.named_children[1], node):
            raise Stop("is a list that is compared", node.start_byte)
        self.found.equal = True
        self.source(parent.named_children[0])

    def subscript(self, node: Any) -> None:
        indexes = node.children_by_field_name("subscript")
        if len(indexes) != 1:
            raise Stop("is asked for more than one item", node.start_byte)
        if indexes[0].type == "slice":
            self.list_(node)
        elif node.parent.type == "assignment" and same(node.parent.child_by_field_name("left"), node):
            self.source(node.parent.child_by_field_name("right"))
        elif node.parent.type != "delete_statement":
            self.record(node)

    def method(self, node: Any) -> None:
        call, name = node.parent, node.child_by_field_name("attribute").text
        if call.type != "call" or not same(call.child_by_field_name("function"), node):
            raise Stop("is a list that is used in a way that cannot be followed", node.start_byte)
        args = call.child_by_field_name("arguments").named_children
        if name == b"append" and len(args) == 1:
            self.source(args[0])
            self.record(args[0])
        elif name == b"insert" and len(args) == 2:
            self.source(args[1])
            self.record(args[1])
        elif name in LOOKUPS and len(args) == 1:
            self.found.equal = True
            self.source(args[0])
            self.record(args[0])
        elif name == b"pop":
            self.record(call)
        elif name == b"sort":
            self.sorting(args)
        elif name not in (b"clear", b"reverse"):
            raise Stop(f"is in a list of which '{name.decode()}' is asked", node.start_byte)

    def sorting(self, args: list[Any]) -> None:
        """``key=lambda record: ...``: records themselves have no order."""
        for a in args:
            name, value = a.child_by_field_name("name"), a.child_by_field_name("value")
            if a.type == "keyword_argument" and name.text == b"key" and value.type == "lambda":
                parameters = value.child_by_field_name("parameters")
                if (
                    parameters is not None
                    and len(parameters.named_children) == 1
                    and parameters.named_children[0].type == "identifier"
                ):
                    self.holder(self.symbol(parameters.named_children[0]))
                    continue
            if a.type != "keyword_argument" or name.text != b"reverse":
                raise Stop("is sorted in a way that cannot be followed", a.start_byte)

    def list_argument(self, node: Any, call: Any) -> None:
        callee = call.child_by_field_name("function")
        args = call.child_by_field_name("arguments").named_children
        if callee.type != "identifier" or not is_builtin(self.file, callee):
            self.argument(node, call, self.several)
            return
        name = callee.text.decode("utf-8", "replace")
        if name in KEEPING or (name in ("min", "max") and len(args) == 2):
            self.sorting(args[1:])
            (self.list_ if name in KEEPING else self.record)(call)
        elif name == "enumerate" and (left := counted(call)) is not None:
            self.bound(left, self.holder)
        elif name not in LOOKING or len(args) != 1:
            raise Stop("is in a list that is passed to code that was not read", node.start_byte)

    def several(self, s: Symbol) -> None:
        if s in self.found.lists:
            return
        if s in self.found.holders or s.kinds - {"variable", "parameter"}:
            raise Stop(f"'{s.name}' holds other things too", s.references[0].start)
        self.found.lists.append(s)
        self.everywhere(s, self.list_, self.list_source)

    def list_source(self, node: Any) -> None:
        """An expression that must give a list of records of this kind."""
        if node.type == "identifier":
            self.several(self.symbol(node))
        elif node.type == "list":
            for child in plain(node):
                self.source(child)
        elif node.type == "list_comprehension":
            self.source(node.named_children[0])
        elif node.type == "subscript" and node.children_by_field_name("subscript")[0].type == "slice":
            self.list_source(node.child_by_field_name("value"))
        elif node.type == "call" and node.child_by_field_name("function").text.decode() in KEEPING:
            args = node.child_by_field_name("arguments").named_children
            if not args or not is_builtin(self.file, node.child_by_field_name("function")):
                raise Stop("is a list that may hold other things", node.start_byte)
            self.list_source(args[0])
        else:
            raise Stop("is a list that may hold other things", node.start_byte)


def counted(call: Any) -> Any:
    """What holds an item in ``for i, item in enumerate(...)``; None elsewhere."""
    loop = call.parent
    left = loop.child_by_field_name("left") if loop.type in ("for_statement", "for_in_clause") else None
    return (
        left.named_children[1]
        if left is not None and left.type == "pattern_list" and len(left.named_children) == 2
        else None
    )
