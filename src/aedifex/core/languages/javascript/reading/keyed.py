"""Where JavaScript's objects with fixed keys go: followed from where they are written through variables, arrays,
arguments and results."""

from __future__ import annotations

from typing import Any

from ....program.keyed import Keyed, RecordLiteral
from ....program.model import Function, Reference, SourceFile, Symbol
from .keyed_arrays import ArrayFollower
from .keyed_shapes import NOTHING, Stop, found_in, id_of, literals, pairs, returns, same, span
from .keyed_types import settle


def keyed(file: SourceFile) -> list[Keyed]:
    """The kinds of records of a file, in the order in which they are first made."""
    found: list[Keyed] = []
    seen: set[int] = set()
    for node in literals(file.tree.root_node):
        if node.start_byte not in seen:
            follower = Follower(file)
            follower.follow(node)
            seen |= {m.span[0] for m in follower.found.made}
            found.append(follower.found)
    return found


class Follower(ArrayFollower):
    """Follows one kind of record; ``found`` says how far that went."""

    def __init__(self, file: SourceFile) -> None:
        self.file, self.found = file, Keyed()
        self.functions = {f.symbol: f for f in file.tops if f.symbol is not None and f.symbol.kinds == {"function"}}
        self.done: set[tuple[Any, ...]] = set()
        self.origins: dict[Symbol, list[Any]] = {}  # what a variable is given, and what a function returns

    def follow(self, node: Any) -> None:
        try:
            self.record(node)
            self.check_calls()
            settle(self.file, self.found)
        except Stop as stop:
            self.found.trouble = (stop.why, stop.at)
        else:
            self.found.sure = {
                (f, p)
                for f, params in self.found.handed.items()
                for p in params
                if not self.nothing(f.scope.symbols[p], set())
            }

    def nothing(self, s: Symbol, path: set[Symbol]) -> bool:
        """Whether a variable, or what a function returns, may be nothing instead of a record."""
        return s not in path and any(self.may_be_nothing(n, path | {s}) for n in self.origins.get(s, ()))

    def may_be_nothing(self, node: Any, path: set[Symbol]) -> bool:
        if node.type == "parenthesized_expression":
            return self.may_be_nothing(node.named_children[0], path)
        if node.type == "identifier" and node.text != b"undefined":
            return self.nothing(self.symbol(node), path)
        if node.type == "call_expression" and node.child_by_field_name("function").type == "identifier":
            return self.nothing(self.symbol(node.child_by_field_name("function")), path)
        return node.type not in ("object", "subscript_expression")

    # -- what is a record, and what happens to it ------------------------------------------------

    def record(self, node: Any) -> None:
        """An expression gives a record: take it over if it makes one, and see what becomes of it."""
        if id_of(node) in self.done:
            return
        self.done.add(id_of(node))
        if node.type == "object":
            self.made(node)
        parent, kind = node.parent, node.parent.type
        if self.condition(node) or (kind == "expression_statement" and node.type == "call_expression"):
            return
        if kind == "parenthesized_expression":
            self.record(parent)
        elif kind == "ternary_expression":
            self.source(parent)
            self.record(parent)
        elif kind == "member_expression" and same(parent.child_by_field_name("object"), node):
            self.key(node, parent)
        elif kind == "variable_declarator" and same(parent.child_by_field_name("value"), node):
            self.bound(parent.child_by_field_name("name"), self.holder)
        elif kind == "assignment_expression" and same(parent.child_by_field_name("right"), node):
            self.assigned(parent)
        elif kind == "array":
            self.listed(parent)
        elif kind == "return_statement" or (
            kind == "arrow_function" and same(parent.child_by_field_name("body"), node)
        ):
            self.returned(parent)
        elif kind == "arguments":
            self.argument(node, parent.parent, self.holder)
        elif kind != "binary_expression" or parent.child_by_field_name("operator").type not in (
            "===",
            "!==",
            "==",
            "!=",
        ):
            raise Stop("is used in a way that an object of a class could not be", node.start_byte)

    def made(self, node: Any) -> None:
        found = pairs(node)
        if found is None:
            raise Stop("is no record of the same keys", node.start_byte)
        if self.found.made and [k for k, _, _ in found] != self.found.keys:
            raise Stop("has other keys than those before it, or in another order", node.start_byte)
        self.found.made.append(RecordLiteral(span(node), found))

    def key(self, node: Any, parent: Any) -> None:
        name = parent.child_by_field_name("property").text.decode("utf-8", "replace")
        outer = parent.parent
        if name not in self.found.keys or any(c.type == "optional_chain" for c in parent.children):
            raise Stop("is asked for a key that is not one of its own", parent.start_byte)
        if outer.type == "unary_expression" and outer.children[0].type == "delete":
            raise Stop("loses a key", parent.start_byte)
        target = outer.type in ("assignment_expression", "augmented_assignment_expression") and same(
            outer.child_by_field_name("left"), parent
        )
        self.found.uses.append((node.end_byte, parent.end_byte, name, target or outer.type == "update_expression"))

    def assigned(self, assignment: Any) -> None:
        left = assignment.child_by_field_name("left")
        if left.type == "subscript_expression":
            self.list_source(left.child_by_field_name("object"))
        else:
            self.bound(left, self.holder)
        if assignment.parent.type != "expression_statement":
            raise Stop("is given on where it is set", assignment.start_byte)

    def condition(self, node: Any) -> bool:
        """Whether an expression only decides what comes next."""
        parent = node.parent
        while (parent.type == "binary_expression" and parent.child_by_field_name("operator").type in ("&&", "||")) or (
            parent.type == "unary_expression" and parent.children[0].type == "!"
        ) or parent.type == "parenthesized_expression":  # fmt: skip
            node, parent = parent, parent.parent
        if parent.type in ("if_statement", "while_statement", "do_statement", "ternary_expression"):
            return same(parent.child_by_field_name("condition"), node)
        return False

    # -- variables -------------------------------------------------------------------------------

    def bound(self, left: Any, take: Any) -> None:
        if left is None or left.type != "identifier":
            raise Stop("is put where it cannot be followed", left.start_byte if left is not None else 0)
        take(self.symbol(left))

    def symbol(self, node: Any) -> Symbol:
        for ref in self.file.within(node.start_byte, node.start_byte + 1):
            if ref.symbol is not None and ref.symbol.kinds:
                return ref.symbol
        raise Stop("comes from code that was not read", node.start_byte)

    def holder(self, s: Symbol) -> None:
        """A variable or parameter holds a record: so it does wherever it is bound, and is used as one wherever it is
        read."""
        if s in self.found.holders:
            return
        if s in self.found.lists or s.kinds - {"variable", "parameter"}:
            raise Stop(f"'{s.name}' holds other things too", s.references[0].start)
        self.found.holders.append(s)
        self.everywhere(s, self.record, self.source)

    def everywhere(self, s: Symbol, read: Any, source: Any) -> None:
        for ref in list(s.references):
            node = self.node(ref)
            if node.type != "identifier":
                raise Stop(f"'{s.name}' is put into another object", ref.start)
            if ref.form == "parameter":
                self.parameter(s, ref)
            elif ref.writes:
                self.binding(node, source)
            else:
                read(node)

    def node(self, ref: Reference) -> Any:
        return self.file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)

    def binding(self, node: Any, source: Any) -> None:
        """What a variable is given must be a record, or nothing, again."""
        parent = node.parent
        value = parent.child_by_field_name("value" if parent.type == "variable_declarator" else "right")
        if parent.type == "variable_declarator" and same(parent.child_by_field_name("name"), node):
            self.origins.setdefault(self.symbol(node), []).append(value if value is not None else node)
            if value is not None:
                source(value)
        elif (
            parent.type == "assignment_expression"
            and same(parent.child_by_field_name("left"), node)
            and value is not None
        ):
            self.origins.setdefault(self.symbol(node), []).append(value)
            source(value)
        elif (
            parent.type == "for_in_statement"
            and same(parent.child_by_field_name("left"), node)
            and source == self.source
            and any(c.type == "of" for c in parent.children)
        ):
            self.list_source(value)
        else:
            raise Stop("is bound in a way that cannot be followed", node.start_byte)

    def parameter(self, s: Symbol, ref: Reference) -> None:
        f = next((f for f in self.functions.values() if f.scope.symbols.get(s.name) is s), None)
        if f is None:
            if s in self.given_each:
                return  # what calls it was looked at where it stands
            if (owner := self.owner_of(self.node(ref))) is not None:
                return self.list_source(owner)
            raise Stop(f"'{s.name}' is a parameter of a function that may be called from elsewhere", ref.start)
        p = next((p for p in f.params if p.name == s.name), None)
        if p is None or p.default or p.kind not in ("plain", "positional", "keyword"):
            raise Stop(f"'{s.name}' may be left out in calls of '{f.name}'", ref.start)
        self.found.handed.setdefault(f, []).append(s.name)

    # -- where records come from -----------------------------------------------------------------

    def source(self, node: Any) -> None:
        """An expression that must give a record of this kind, or nothing."""
        if node.type == "parenthesized_expression":
            self.source(node.named_children[0])
        elif node.type in NOTHING or node.text == b"undefined":
            pass
        elif node.type == "ternary_expression":
            self.source(node.child_by_field_name("consequence"))
            self.source(node.child_by_field_name("alternative"))
        elif node.type == "object":
            self.record(node)
        elif node.type == "identifier":
            self.holder(self.symbol(node))
        elif node.type == "subscript_expression":
            self.list_source(node.child_by_field_name("object"))
        elif node.type == "call_expression" and (held := found_in(node)) is not None:
            self.list_source(held)
        elif node.type == "call_expression" and node.child_by_field_name("function").type == "identifier":
            self.maker(self.symbol(node.child_by_field_name("function")), node)
        else:
            raise Stop("may be something else", node.start_byte)

    def maker(self, s: Symbol, at: Any) -> None:
        """A function returns a record: always, or nothing; and each of its calls gives one."""
        f = self.functions.get(s)
        if f is None or f.is_async or f.scope.generator or f.node is None:
            raise Stop("comes from code that was not read", at.start_byte)
        if s in self.found.makers:
            return
        self.found.makers.append(s)
        body = f.node.child_by_field_name("body")
        found = self.origins.setdefault(s, [])
        if body.type != "statement_block":  # an arrow function of one expression
            found.append(body)
            self.source(body)
            self.called(f, s)
            return
        last = next((c for c in reversed(body.named_children) if c.type != "comment"), body)
        found += [] if last.type == "return_statement" else [last]  # at whose end nothing is returned
        for node in returns(body):
            found.append(node.named_children[0] if node.named_children else node)
            if node.named_children:
                self.source(node.named_children[0])
        self.called(f, s)

    def called(self, f: Function, s: Symbol) -> None:
        for ref in s.references:
            if not ref.writes:
                self.record(self.call_at(f, ref))

    def call_at(self, f: Function, ref: Reference) -> Any:
        call = self.node(ref).parent
        if call.type != "call_expression" or not same(call.child_by_field_name("function"), self.node(ref)):
            raise Stop(f"'{f.name}' is used other than by calling it", ref.start)
        return call

    def returned(self, statement: Any) -> None:
        bodies = [(f, f.node.child_by_field_name("body")) for f in self.functions.values() if f.node is not None]
        f = next(
            (
                f
                for f, body in bodies
                if (same(f.node, statement) if statement.type == "arrow_function" else statement in returns(body))
            ),
            None,
        )
        if f is None or f.symbol is None:
            raise Stop("is returned where it cannot be followed", statement.start_byte)
        self.maker(f.symbol, statement)

    def argument(self, node: Any, call: Any, take: Any) -> None:
        """A record, or an array of them, is handed to a function of the file: its parameter holds it."""
        callee, args = call.child_by_field_name("function"), call.child_by_field_name("arguments").named_children
        if callee is not None and callee.type == "member_expression" and take == self.holder:
            name = callee.child_by_field_name("property").text
            if name in (b"push", b"unshift", b"indexOf", b"includes"):
                return self.list_source(callee.child_by_field_name("object"))
        f = self.functions.get(self.symbol(callee)) if callee is not None and callee.type == "identifier" else None
        if f is None or call.type != "call_expression" or any(a.type in ("spread_element", "comment") for a in args):
            raise Stop("is passed to code that was not read", node.start_byte)
        place = next(i for i, a in enumerate(args) if same(a, node))
        if place >= len(f.params) or f.params[place].kind != "plain":
            raise Stop(f"is passed to '{f.name}' as one of many", node.start_byte)
        if not f.params[place].name:
            raise Stop(f"is taken apart where '{f.name}' is passed it", node.start_byte)
        take(f.scope.symbols[f.params[place].name])
        return None

    def check_calls(self) -> None:
        """Every call of a function that is handed a record must hand it one."""
        done: set[tuple[Function, str]] = set()
        while waiting := [(f, p) for f, params in self.found.handed.items() for p in params if (f, p) not in done]:
            for f, param in waiting:
                done.add((f, param))
                s = f.scope.symbols[param]
                take = self.source if s in self.found.holders else self.list_source
                for ref in f.symbol.references if f.symbol is not None else ():
                    if not ref.writes:
                        args = self.call_at(f, ref).child_by_field_name("arguments").named_children
                        place = [p.name for p in f.params].index(param)
                        if place >= len(args) or any(a.type in ("spread_element", "comment") for a in args):
                            raise Stop(f"nothing tells what this call hands to '{f.name}'", ref.start)
                        self.origins.setdefault(s, []).append(args[place])
                        take(args[place])
