"""Where Python's dicts with fixed keys go: followed from where they are made through variables, lists, arguments and
results."""

from __future__ import annotations

import re
from typing import Any

from ....program.keyed import Keyed, RecordLiteral
from ....program.lists import same, span
from ....program.model import Function, Reference, SourceFile, Symbol
from .keyed_lists import ListFollower
from .keyed_shapes import (
    CONDITIONS,
    ERRORS,
    LOOKUPS,
    PASSING,
    Stop,
    id_of,
    literals,
    pairs,
    returns,
    taken_from,
    text_of,
)
from .structure import definition


def keyed(file: SourceFile) -> list[Keyed]:
    """The kinds of records of a file, in the order in which they are first made."""
    found: list[Keyed] = []
    seen: set[int] = set()
    if re.search(rb"\[\s*['\"]", file.text) is None:
        return []  # nothing is ever asked for by a key that is written out
    for node in literals(file.tree.root_node):
        if node.start_byte not in seen:
            follower = Follower(file)
            follower.follow(node)
            seen |= {m.span[0] for m in follower.found.made}
            found.append(follower.found)
    return found


class Follower(ListFollower):
    """Follows one kind of record; ``found`` says how far that went."""

    def __init__(self, file: SourceFile) -> None:
        self.file, self.found = file, Keyed()
        self.functions = {f.symbol: f for f in file.tops if f.symbol is not None}
        self.done: set[tuple[Any, ...]] = set()
        self.origins: dict[Symbol, list[Any]] = {}  # what a variable is given, and what a function returns

    def follow(self, node: Any) -> None:
        try:
            self.record(node)
            self.check_calls()
        except Stop as stop:
            self.found.trouble = (stop.why, stop.at)
        else:
            self.caught()
            self.found.sure = {
                (f, p)
                for f, params in self.found.handed.items()
                for p in params
                if not self.nothing(f.scope.symbols[p], set())
            }

    def caught(self) -> None:
        """Nothing is asked for a key with another error than for a member."""
        if any(self.nothing(s, set()) for s in [*self.found.holders, *self.found.makers]):
            for name in ERRORS & self.file.scope.symbols.keys():
                at = self.file.scope.symbols[name].references[0].start
                self.found.trouble = (f"may be nothing, and the program catches {name}", at)

    def nothing(self, s: Symbol, path: set[Symbol]) -> bool:
        """Whether a variable, or what a function returns, may be nothing instead of a record."""
        return s not in path and any(self.may_be_nothing(n, path | {s}) for n in self.origins.get(s, ()))

    def may_be_nothing(self, node: Any, path: set[Symbol]) -> bool:
        if node.type in PASSING:
            return self.may_be_nothing(node.named_children[0], path)
        if node.type == "conditional_expression":
            return any(self.may_be_nothing(node.named_children[i], path) for i in (0, 2))
        if node.type == "identifier":
            return self.nothing(self.symbol(node), path)
        if node.type == "call" and taken_from(self.file, node) is not None:
            return False
        if node.type == "call" and node.child_by_field_name("function").type == "identifier":
            return self.nothing(self.symbol(node.child_by_field_name("function")), path)
        return node.type not in ("dictionary", "subscript")

    # -- what is a record, and what happens to it ------------------------------------------------

    def record(self, node: Any) -> None:
        """An expression gives a record: take it over if it makes one, and see what becomes of it."""
        if id_of(node) in self.done:
            return
        self.done.add(id_of(node))
        if node.type == "dictionary":
            self.made(node)
        parent = node.parent
        kind = parent.type
        if kind in PASSING:
            self.record(parent)
        elif kind == "conditional_expression" and not same(parent.named_children[1], node):
            self.source(parent)
            self.record(parent)
        elif kind == "subscript" and same(parent.child_by_field_name("value"), node):
            self.key(node, parent)
        elif kind == "assignment" and same(parent.child_by_field_name("right"), node):
            self.bound(parent.child_by_field_name("left"), self.holder)
        elif kind == "list":
            self.listed(parent)
        elif kind == "return_statement":
            self.returned(parent)
        elif kind == "argument_list":
            self.argument(node, parent.parent, self.holder)
        elif kind == "keyword_argument":
            self.argument(node, parent.parent.parent, self.holder)
        elif kind == "comparison_operator":
            self.compared(node, parent)
        elif (kind == "expression_statement" and node.type == "call") or self.condition(node):
            pass
        elif kind == "list_comprehension" and same(parent.named_children[0], node):
            self.list_(parent)
        else:
            raise Stop("is used in a way that an object could not be", node.start_byte)

    def made(self, node: Any) -> None:
        found = pairs(node)
        if found is None:
            raise Stop("is no record of the same keys", node.start_byte)
        if self.found.made and {k for k, _, _ in found} != set(self.found.keys):
            raise Stop("has other keys than those before it", node.start_byte)
        self.found.made.append(RecordLiteral(span(node), found))

    def key(self, node: Any, parent: Any) -> None:
        indexes = parent.children_by_field_name("subscript")
        name = text_of(indexes[0]) if len(indexes) == 1 else None
        if name is None or name not in self.found.keys:
            raise Stop("is asked for a key that is not one of its own", parent.start_byte)
        if parent.parent.type == "delete_statement":
            raise Stop("loses a key", parent.start_byte)
        written = parent.parent.type in ("assignment", "augmented_assignment") and same(
            parent.parent.child_by_field_name("left"), parent
        )
        self.found.uses.append((node.end_byte, parent.end_byte, name, written))

    def compared(self, node: Any, parent: Any) -> None:
        """By identity, with nothing, or by what it holds: then the class compares so too."""
        words = {c.type for c in parent.children if not c.is_named}
        if len(parent.named_children) != 2:
            raise Stop("is compared with several things at once", parent.start_byte)
        left, right = parent.named_children
        if words <= {"is", "is not"} or "none" in (left.type, right.type):
            return
        self.found.equal = True
        if words <= {"==", "!="}:
            self.source(right if same(left, node) else left)
        elif words <= {"in", "not in"} and same(left, node):
            self.list_source(right)
        else:
            raise Stop("is compared in a way that an object could not be", parent.start_byte)

    def condition(self, node: Any) -> bool:
        """Whether an expression only decides what comes next."""
        parent = node.parent
        while parent.type in ("boolean_operator", "not_operator", "parenthesized_expression"):
            node, parent = parent, parent.parent
        if parent.type == "conditional_expression":
            return same(parent.named_children[1], node)
        return parent.type in CONDITIONS and same(parent.child_by_field_name("condition"), node)

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
            if ref.form == "parameter" or (ref.writes and node.parent.type in ("parameters", "lambda_parameters")):
                self.parameter(s, ref)
            elif ref.writes:
                self.binding(node, source)
            else:
                read(node)
            if ref.form == "spelled":
                raise Stop(f"'{s.name}' is spelled out by a self-documenting format", ref.start)

    def node(self, ref: Reference) -> Any:
        return self.file.tree.root_node.named_descendant_for_byte_range(ref.start, ref.end)

    def binding(self, node: Any, source: Any) -> None:
        """What a variable is given must be a record, or nothing, again."""
        parent = node.parent
        if (
            parent.type == "assignment"
            and same(parent.child_by_field_name("left"), node)
            and parent.child_by_field_name("right") is not None
        ):
            self.origins.setdefault(self.symbol(node), []).append(parent.child_by_field_name("right"))
            source(parent.child_by_field_name("right"))
        elif (
            parent.type in ("for_statement", "for_in_clause")
            and same(parent.child_by_field_name("left"), node)
            and source == self.source
        ):
            self.list_source(parent.child_by_field_name("right"))
        elif parent.type == "pattern_list" and source == self.source:
            self.counted(node, parent)
        else:
            raise Stop("is bound in a way that cannot be followed", node.start_byte)

    def counted(self, node: Any, parent: Any) -> None:
        """``for i, record in enumerate(records)``."""
        loop, call = parent.parent, parent.parent.child_by_field_name("right")
        if (
            loop.type not in ("for_statement", "for_in_clause")
            or call is None
            or call.type != "call"
            or not same(parent.named_children[-1], node)
        ):
            raise Stop("is bound in a way that cannot be followed", node.start_byte)
        args = call.child_by_field_name("arguments").named_children
        if call.child_by_field_name("function").text != b"enumerate" or len(parent.named_children) != 2 or not args:
            raise Stop("is bound in a way that cannot be followed", node.start_byte)
        self.list_source(args[0])

    def parameter(self, s: Symbol, ref: Reference) -> None:
        f = s.scope.function
        if f is None or f not in self.functions.values():
            if s.scope.kind == "lambda":
                return  # what calls it was looked at where it stands
            raise Stop(f"'{s.name}' is a parameter of a function that may be called from elsewhere", ref.start)
        p = next(p for p in f.params if p.name == s.name)
        if p.default or p.kind not in ("plain", "positional", "keyword"):
            raise Stop(f"'{s.name}' may be left out in calls of '{f.name}'", ref.start)
        self.found.handed.setdefault(f, []).append(s.name)

    # -- where records come from -----------------------------------------------------------------

    def source(self, node: Any) -> None:
        """An expression that must give a record of this kind, or nothing."""
        if node.type in PASSING:
            self.source(node.named_children[0])
        elif node.type == "none":
            pass
        elif node.type == "conditional_expression":
            self.source(node.named_children[0])
            self.source(node.named_children[2])
        elif node.type == "dictionary":
            self.record(node)
        elif node.type == "identifier":
            self.holder(self.symbol(node))
        elif node.type == "subscript":
            self.list_source(node.child_by_field_name("value"))
        elif node.type == "call" and (held := taken_from(self.file, node)) is not None:
            self.list_source(held)
        elif node.type == "call" and node.child_by_field_name("function").type == "identifier":
            self.maker(self.symbol(node.child_by_field_name("function")), node)
        else:
            raise Stop("may be something else", node.start_byte)

    def maker(self, s: Symbol, at: Any) -> None:
        """A function returns a record: always, or nothing; and each of its calls gives one."""
        f = self.functions.get(s)
        if f is None or f.is_async or f.scope.generator or f.decorators:
            raise Stop("comes from code that was not read", at.start_byte)
        if s in self.found.makers:
            return
        self.found.makers.append(s)
        made = definition(self.file, f)
        found = self.origins.setdefault(s, [])
        last = made.child_by_field_name("body").named_children[-1]
        found += [] if last.type == "return_statement" else [last]  # at whose end nothing is returned
        for node in returns(made):
            found.append(node.named_children[0] if node.named_children else node)
            if node.named_children:
                self.source(node.named_children[0])
        for ref in s.references:
            if ref.writes:
                continue
            call = self.node(ref).parent
            if call.type != "call" or not same(call.child_by_field_name("function"), self.node(ref)):
                raise Stop(f"'{s.name}' is used other than by calling it", ref.start)
            self.record(call)

    def returned(self, statement: Any) -> None:
        node = statement
        while node is not None and node.type not in ("function_definition", "lambda"):
            node = node.parent
        name = node.child_by_field_name("name") if node is not None and node.type == "function_definition" else None
        if name is None or node.parent.type not in ("module", "decorated_definition"):
            raise Stop("is returned where it cannot be followed", statement.start_byte)
        self.maker(self.symbol(name), statement)

    def argument(self, node: Any, call: Any, take: Any) -> None:
        """A record, or a list of them, is handed to a function of the file: its parameter holds it."""
        callee = call.child_by_field_name("function")
        if (
            callee.type == "attribute"
            and callee.child_by_field_name("attribute").text in (b"append", b"insert", *LOOKUPS)
            and take == self.holder
        ):
            owner = callee.child_by_field_name("object")
            if not same(call.child_by_field_name("arguments").named_children[-1], node):
                raise Stop("is used in a way that an object could not be", node.start_byte)
            return self.bound(owner, self.several)
        f = self.functions.get(self.symbol(callee)) if callee.type == "identifier" else None
        args = call.child_by_field_name("arguments").named_children
        if f is None or any(a.type in ("list_splat", "dictionary_splat", "comment") for a in args):
            raise Stop("is passed to code that was not read", node.start_byte)
        place = next(
            i
            for i, a in enumerate(args)
            if same(a, node) or (a.type == "keyword_argument" and a.start_byte <= node.start_byte < a.end_byte)
        )
        if args[place].type == "keyword_argument":
            name = args[place].child_by_field_name("name").text.decode("utf-8", "replace")
        else:
            name = f.params[place].name if place < len(f.params) else ""
        p = next((p for p in f.params if p.name == name and p.kind in ("plain", "positional", "keyword")), None)
        if p is None:
            raise Stop(f"is passed to '{f.name}' as one of many", node.start_byte)
        take(f.scope.symbols[name])
        return None

    def check_calls(self) -> None:
        """Every call of a function that is handed a record must hand it one."""
        done: set[tuple[Function, str]] = set()
        while waiting := [(f, p) for f, params in self.found.handed.items() for p in params if (f, p) not in done]:
            for f, param in waiting:
                done.add((f, param))
                s = f.scope.symbols[param]
                take = self.source if s in self.found.holders else self.list_source
                assert f.symbol is not None
                for ref in f.symbol.references:
                    if not ref.writes:
                        self.origins.setdefault(s, []).append(self.given(f, param, ref))
                        take(self.given(f, param, ref))

    def given(self, f: Function, param: str, ref: Reference) -> Any:
        call = self.node(ref).parent
        if call.type != "call" or not same(call.child_by_field_name("function"), self.node(ref)):
            raise Stop(f"'{f.name}' is used other than by calling it", ref.start)
        args = call.child_by_field_name("arguments").named_children
        named = {
            a.child_by_field_name("name").text.decode("utf-8", "replace"): a
            for a in args
            if a.type == "keyword_argument"
        }
        if param in named:
            return named[param].child_by_field_name("value")
        place = [p.name for p in f.params].index(param)
        plain = [a for a in args if a.type != "keyword_argument"]
        if place >= len(plain) or any(a.type in ("list_splat", "dictionary_splat", "comment") for a in args):
            raise Stop(f"nothing tells what this call hands to '{f.name}'", call.start_byte)
        return plain[place]
