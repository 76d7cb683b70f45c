"""The heart of the walk: names, targets and expressions."""

from __future__ import annotations

import unicodedata
from collections.abc import Callable
from functools import cache
from typing import Any

import tree_sitter
import tree_sitter_python

from ....program.model import Call, Reference, Role, SourceFile
from ...tree import TreeWalker, kinds_of
from ..facts.pure import apis

MUTATORS = frozenset(
    """
    append extend insert remove pop clear sort reverse update add discard setdefault popitem appendleft popleft
    extendleft rotate write writelines push put intersection_update difference_update symmetric_difference_update
    """.split()
)
LEAVES = frozenset(
    """
    integer float string_start string_content string_end true false none ellipsis comment pass_statement
    break_statement continue_statement escape_sequence type_conversion keyword_separator positional_separator
    wildcard_import line_continuation import_prefix
    """.split()
)
PASSING = frozenset(
    """
    argument_list list tuple set expression_list return_statement keyword_argument dictionary pair
    conditional_expression parenthesized_expression list_splat yield
    """.split()
)
TARGETS = frozenset({"pattern_list", "tuple_pattern", "list_pattern", "tuple", "list", "expression_list"})
COMPREHENSIONS = {
    "list_comprehension": "listcomp",
    "set_comprehension": "setcomp",
    "dictionary_comprehension": "dictcomp",
    "generator_expression": "genexpr",
}


@cache
def node_kinds() -> list[str]:
    """The grammar's node kinds by their number."""
    return kinds_of(tree_sitter.Language(tree_sitter_python.language()))


@cache
def identifier_kind() -> int:
    """The kinds of nodes by their number."""
    return node_kinds().index("identifier")


def used_up(node: Any) -> bool:
    """Whether a generator is handed to what goes through it there and then."""
    call = node.parent
    while call is not None and call.type in ("argument_list", "parenthesized_expression", "list_splat"):
        call = call.parent
    if call is None or call.type != "call":
        return False
    callee = call.child_by_field_name("function")
    name = callee.child_by_field_name("attribute") or callee
    return bool(name.text.decode("utf-8", "replace") in apis()["at_once"]["calls"])


class NameWalker(TreeWalker):
    """What every part of the walk needs: where it is, and how to note a use or a binding."""

    LEAVES, PASSING = LEAVES, PASSING

    def __init__(self, file: SourceFile) -> None:
        super().__init__(file, node_kinds())
        self.deferred = False
        self.spelled = False
        self.text = file.text if file.encoding == "utf-8" else b""  # other encodings are read from the node
        self.spellings: dict[
            str, dict[bytes, str]
        ] = {}  # class → its names as they are written → as they are told apart
        self.members: dict[bytes, str] = {}
        self.in_class("")

    def handler_of(self, kind: str) -> Callable[[Any], Any]:
        return self.use if kind == "identifier" else super().handler_of(kind)

    def run(self, root: Any) -> None:
        self.children(root)

    # -- names ---------------------------------------------------------------------------------

    def in_class(self, name: str) -> None:
        """From here on names stand in this class, the innermost; the language mangles some of them with its name."""
        self.klass = name
        self.names = self.spellings.setdefault(name, {})

    def name_of(self, node: Any) -> str:
        raw: bytes = self.text[node.start_byte : node.end_byte] if self.text else node.text
        return self.names.get(raw) or self.spelling(raw)

    def spelling(self, raw: bytes) -> str:
        text = raw.decode(self.file.encoding, "replace")
        if not raw.isascii():
            text = unicodedata.normalize("NFKC", text)
        if self.klass and text.startswith("__") and not text.endswith("__"):
            text = f"_{self.klass}{text}"
        self.names[raw] = text
        return text

    def member_of(self, node: Any) -> str:
        """The last name of ``a.b``, as it is written."""
        raw: bytes = self.text[node.start_byte : node.end_byte] if self.text else node.text
        text = self.members.get(raw)
        if text is None:
            text = self.members[raw] = raw.decode(self.file.encoding, "replace")
        return text

    def use(self, node: Any, role: Role = Role.READ) -> Reference:
        scope = self.scope
        name = self.name_of(node)
        ref = Reference(name, node.start_byte, node.end_byte, role, scope)
        if self.deferred:
            ref.deferred = True
        else:
            scope.used.add(name)
            if name == "super" and scope.kind in ("function", "lambda", "comprehension"):
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
                self.file.stored_members.add(self.member_of(node.named_children[-1]))
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

    def passing(self, node: Any) -> None:
        """Children that are bare names are handed on as values."""
        table, name = self.table, identifier_kind()
        for child in node.named_children:
            kind = child.kind_id
            if kind == name:
                self.use(child, Role.VALUE)
            else:
                table[kind](child)

    def value(self, node: Any) -> None:
        if node.type == "identifier":
            self.use(node, Role.VALUE)
        else:
            self.visit(node)

    def annotation(self, node: Any) -> None:
        held = self.deferred
        self.deferred = held or "annotations" in self.file.futures
        self.visit(node)
        self.deferred = held

    # -- expressions ---------------------------------------------------------------------------

    def on_attribute(self, node: Any) -> None:
        self.attribute(node.named_children)

    def attribute(self, parts: Any) -> tuple[Reference | None, str]:
        """Note the name of ``name.member``, or walk what else stands before the point; with the member."""
        base, member = parts[0], self.member_of(parts[-1])
        if base.kind_id != identifier_kind():
            self.table[base.kind_id](base)
            return None, member
        ref = self.use(base)
        ref.member = member
        return ref, member

    def on_call(self, node: Any) -> None:
        parts = node.named_children
        callee, args = parts[0], parts[-1]
        ref, method = None, ""
        kind = callee.type
        if kind == "identifier":
            ref = self.use(callee, Role.CALL)
        elif kind == "attribute":
            ref, method = self.attribute(callee.named_children)
            if method in MUTATORS:
                self.mark_mutated(callee)
        else:
            self.visit(callee)
        if ref is None:
            self.file.opaque(node.start_byte, method)
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

    def comprehension(self, node: Any) -> None:
        parts = [c for c in node.named_children if c.type != "comment"]
        clauses = [c for c in parts if c.type in ("for_in_clause", "if_clause")]
        self.visit(clauses[0].child_by_field_name("right"))  # the first iterable belongs to the scope around
        held = self.enter("comprehension", COMPREHENSIONS[node.type], node)
        self.scope.generator = node.type == "generator_expression" and not used_up(node)
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
