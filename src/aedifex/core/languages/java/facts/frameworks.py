"""A class that extends the library's class of which it held an object with methods written in place (``new JPanel() {
... }``)."""

from __future__ import annotations

from typing import Any

from ....program import messages
from ....program.edits import Range
from ....program.frameworks import Extended, Framework
from ....program.model import Scope, SourceFile, Symbol
from ...braced.blocks import within
from ..reading.walk import modifiers
from ..writing.text import TEXT
from ..writing.words import sketch
from .jdk import full_name, handed_down, listed, overridden
from .pure import apis


def unfolded(file: SourceFile) -> list[Range]:
    """Nothing is registered by decoration."""
    return []


def extendable(file: SourceFile, symbol: Symbol, methods: dict[str, set[str]]) -> Framework | None:
    made = [b for b in symbol.bindings if symbol.scope is file.scope]
    node = file.tree.root_node.descendant_for_byte_range(made[0].start, made[0].end).parent if len(made) == 1 else None
    value = node.child_by_field_name("value") if node is not None and node.type == "variable_declarator" else None
    found = framework(file, value) if value is not None else None
    counts = {n: {len(f.params) for o in origins for f in file.functions_named(o)} for n, origins in methods.items()}
    if found is not None and not free(file, value, final(file)):
        return None
    return (
        found
        if found is not None and not any(taken(found, n, c) for n, many in counts.items() for c in many or {0})
        else None
    )


def final(file: SourceFile) -> set[Symbol]:
    """The variables of the file that are said to be set once."""
    found = set()
    for s in file.scope.symbols.values():
        for b in s.bindings[:1]:
            holder = file.tree.root_node.descendant_for_byte_range(b.start, b.end).parent
            holder = holder.parent if holder is not None else None
            if (
                holder is not None
                and holder.type == "field_declaration"
                and {"static", "final"} <= set(modifiers(holder))
            ):
                found.add(s)
    return found


def free(file: SourceFile, value: Any, known: set[Symbol]) -> bool:
    """Whether the arguments with which an object is made say the same before there is an object: plain values, and
    names of ``known``."""
    span = value.child_by_field_name("arguments").start_byte, value.child_by_field_name("arguments").end_byte
    quiet = not file.calls_within(*span) and not any(span[0] <= at < span[1] for at in file.opaque_calls)
    whole = not any(
        n.type
        in ("lambda_expression", "class_body", "assignment_expression", "update_expression", "method_reference", "this")
        for n in within(value, *span)
    )
    return (
        quiet
        and whole
        and all(
            r.symbol is None or r.symbol in known or not r.symbol.kinds & {"variable", "parameter", "function"}
            for r in file.within(*span)
        )
    )


def taken(found: Framework, name: str, count: int) -> bool:
    """Whether a method of this name and number of parameters would take the place of one of the library's."""
    return name in found.hooks or f"{name}/{count}" in listed(found.name)


def framework(file: SourceFile, value: Any) -> Framework | None:
    """The class on which an object with methods of its own is based, if it does no more than give hooks."""
    body = (
        next((c for c in value.named_children if c.type == "class_body"), None)
        if value.type == "object_creation_expression"
        else None
    )
    full = full_name(file, value.child_by_field_name("type").text.decode(file.encoding)) if body is not None else ""
    hooks = handed_down(full, "hooks") if full else frozenset()
    members = (
        [c for c in body.named_children if c.type not in ("line_comment", "block_comment")] if body is not None else []
    )
    named = overridden(body) if body is not None else set()
    if not named or not named <= hooks or len(named) != len(members) or full == "java.lang.Runnable":
        return None
    return Framework(full, frozenset(), "", "", frozenset(named), frozenset(), handed_down(full) - named)


def extended(file: SourceFile, class_: str, field: str) -> Extended:
    scope = next((s for s, n in file.classes if n == class_ and s.parent is file.scope), None)
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end) if scope is not None else None
    if scope is None or node is None or node.type != "class_declaration" or scope.bases or class_ == file.scope.name:
        raise messages.CANNOT_EXTEND.in_file(file.path, class_=class_)
    return Extending(file, scope, node, class_, field).all()


class Extending:
    """Works out how a class extends one of a library."""

    def __init__(self, file: SourceFile, scope: Scope, node: Any, class_: str, field: str) -> None:
        self.file, self.scope, self.node, self.class_, self.field = file, scope, node, class_, field
        self.body = node.child_by_field_name("body")
        self.edits: list[Range] = []
        self.declared = self.declaration()
        self.assigned, self.value = self.making()
        found = framework(file, self.value)
        if found is None:
            raise messages.HELD_NO_LIBRARY_CLASS.at(file, self.declared.start_byte, field=field)
        self.framework = found
        self.hooks = next(c for c in self.value.named_children if c.type == "class_body")

    def declaration(self) -> Any:
        for member in self.body.named_children:
            names = [
                c.child_by_field_name("name").text.decode()
                for c in member.named_children
                if c.type == "variable_declarator"
            ]
            if member.type == "field_declaration" and names == [self.field] and "static" not in modifiers(member):
                return member
        raise messages.NO_FIELD_DECLARED.at(self.file, self.scope.start, class_=self.class_, field=self.field)

    def making(self) -> tuple[Any, Any]:
        """(the statement of the constructor that sets the field, or None where its declaration does, the value)."""
        value = next(c for c in self.declared.named_children if c.type == "variable_declarator").child_by_field_name(
            "value"
        )
        if value is not None:
            return None, value
        for member in self.body.named_children:
            body = member.child_by_field_name("body") if member.type == "constructor_declaration" else None
            for s in body.named_children if body is not None else ():
                inner = s.named_children[0] if s.type == "expression_statement" else None
                if (
                    inner is not None
                    and inner.type == "assignment_expression"
                    and inner.child_by_field_name("left").text.decode() in (self.field, f"this.{self.field}")
                ):
                    return s, inner.child_by_field_name("right")
        raise messages.HELD_NOT_SET_WHERE_MADE.at(
            self.file, self.declared.start_byte, field=self.field, class_=self.class_
        )

    def all(self) -> Extended:
        self.check_names()
        self.check_order()
        name, base = self.node.child_by_field_name("name"), self.value.child_by_field_name("type")
        self.edits.append((name.end_byte, name.end_byte, f" extends {self.file.slice(base.start_byte, base.end_byte)}"))
        self.making_goes()
        self.uses()
        self.hooks_move()
        return Extended(self.framework, self.edits, sorted(self.framework.hooks))

    def check_names(self) -> None:
        """No member of the class is one of the library's, and no name in it comes to mean one."""
        inherited = self.framework.members
        for f in self.file.functions:
            if f.outer is self.scope and taken(self.framework, f.name, len(f.params)):
                raise messages.NAME_OF_LIBRARY_CLASS.at(self.file, f.start, library=self.framework.name, name=f.name)
        for name, symbol in self.scope.symbols.items():
            if name in listed(self.framework.name) and symbol.kinds & {"variable"} and symbol.references:
                raise messages.NAME_OF_LIBRARY_CLASS.at(
                    self.file, symbol.references[0].start, library=self.framework.name, name=name
                )
        for r in self.file.within(self.scope.start, self.scope.end):
            if (
                r.name not in inherited
                or r.symbol is None
                or r.symbol.scope is not self.file.scope
                or self.hooks.start_byte <= r.start < self.hooks.end_byte
                or r.form in ("qualified", "method reference")
            ):
                continue
            if r.symbol.kinds & {"variable", "function"} and not sketch(self.file):
                self.edits.append((r.start, r.start, f"{self.file.scope.name}."))
            elif (
                r.symbol.kinds & {"variable", "function", "import"}
                and "class" not in r.symbol.kinds
                and not r.name[:1].isupper()
            ):
                raise messages.LIBRARY_MEMBER_MEANT.at(self.file, r.start, name=r.name, library=self.framework.name)

    def check_order(self) -> None:
        """What the library's class does when it is made comes first from now on: nothing that could be noticed may have
        come before."""
        stop = self.value.start_byte
        for member in self.body.named_children:
            if (
                member.type == "field_declaration"
                and "static" not in modifiers(member)
                and (self.assigned is not None or member.start_byte < stop)
            ):
                spans = [(member.start_byte, member.end_byte)] if member != self.declared else []
            elif member.type == "constructor_declaration" and self.assigned is not None:
                spans = [
                    (s.start_byte, s.end_byte)
                    for s in member.child_by_field_name("body").named_children
                    if s.end_byte <= stop and "comment" not in s.type
                ]
            else:
                spans = [(member.start_byte, member.end_byte)] if member.type == "block" else []
            for start, end in spans:
                if self.noticed(start, end):
                    raise messages.WOULD_BE_NOTICED.at(self.file, start, field=self.field)

    def noticed(self, start: int, end: int) -> bool:
        """Whether a stretch does more than set fields to what the library's own classes quietly make."""
        if any(start <= at < end for at in self.file.opaque_calls):
            return True
        calls = self.file.calls_within(start, end)
        plain = all(
            c.callee.symbol is not None
            and c.callee.symbol.kinds <= {"import"}
            and not c.callee.member
            and c.callee.name in apis()["quiet"]["builtins"]
            for c in calls
        )
        return not plain or any(
            r.writes and r.symbol is not None and r.symbol.scope is self.file.scope
            for r in self.file.within(start, end)
        )

    def making_goes(self) -> None:
        arguments = self.value.child_by_field_name("arguments")
        given = self.file.slice(arguments.start_byte + 1, arguments.end_byte - 1).strip()
        self.gone(self.declared)
        if given:
            self.handed_up(f"super({given});")
        elif self.assigned is not None:
            maker = self.assigned.parent.parent
            alone = (
                len(self.assigned.parent.named_children) == 1
                and not maker.child_by_field_name("parameters").named_children
            )
            self.gone(maker if alone else self.assigned)

    def handed_up(self, call: str) -> None:
        """What the object was made with goes to the constructor of the library's class, before all else."""
        makers = [m for m in self.body.named_children if m.type == "constructor_declaration"]
        named = {
            s
            for m in makers
            for f in self.file.functions
            if f.start == m.start_byte
            for s in f.scope.symbols.values()
            if "parameter" in s.kinds and len(s.bindings) == 1
        }
        if len(makers) > 1 or not free(
            self.file, self.value, final(self.file) | (named if self.assigned is not None else set())
        ):
            raise messages.HELD_NEEDS_OBJECT.at(self.file, self.value.start_byte, field=self.field)
        unit, nl = TEXT.indent_unit(self.file), TEXT.newline(self.file)
        lead = self.file.slice(TEXT.line_start(self.file, self.node.start_byte), self.node.start_byte) + unit
        if makers:
            body = makers[0].child_by_field_name("body")
            if any(s.type == "explicit_constructor_invocation" for s in body.named_children):
                raise messages.CONSTRUCTOR_CALLS_BASE.at(self.file, body.start_byte)
            at = TEXT.line_end(self.file, body.start_byte)
            if self.file.slice(body.start_byte + 1, at).strip():
                raise messages.SHARES_LINE.at(self.file, body.start_byte)
            self.edits.append((at, at, f"{lead}{unit}{call}{nl}"))
            if self.assigned is not None:
                self.gone(self.assigned)
            return
        first = next((m for m in self.body.named_children if m.type == "method_declaration"), None)
        at = (
            TEXT.comment_start(self.file, first.start_byte)
            if first is not None
            else TEXT.line_start(self.file, self.body.end_byte - 1)
        )
        self.edits.append(
            (at, at, TEXT.with_newlines(f"{lead}{self.class_}() {{\n{lead}{unit}{call}\n{lead}}}\n\n", nl))
        )

    def gone(self, node: Any) -> None:
        start = TEXT.comment_start(self.file, node.start_byte)
        end = TEXT.line_end(self.file, node.end_byte - 1)
        if node.type == "constructor_declaration":
            start = TEXT.blank_before(self.file, start)
        if (
            self.file.slice(TEXT.line_start(self.file, node.start_byte), node.start_byte).strip()
            or self.file.slice(node.end_byte, end).strip()
        ):
            raise messages.SHARES_LINE.at(self.file, node.start_byte)
        self.edits.append((start, end, ""))

    def is_gone(self, at: int) -> bool:
        return (
            any(a <= at < b for a, b, text in self.edits if not text and a != b)
            and not self.hooks.start_byte <= at < self.hooks.end_byte
        )

    def uses(self) -> None:
        """The field is the object itself."""
        for node in within(self.file.tree.root_node, 0, len(self.file.text)):
            if node.type != "identifier" or node.text.decode() != self.field:
                continue
            around = node.parent
            member = around.type == "field_access" and around.child_by_field_name("field") == node
            inside = self.scope.start <= node.start_byte < self.scope.end
            if (
                member
                and around.child_by_field_name("object").text.decode() in ("this", f"{self.class_}.this")
                and inside
            ):
                whole = around
            elif member or not inside:
                if member and not inside:
                    raise messages.HELD_USED_ELSEWHERE.at(self.file, node.start_byte, field=self.field)
                continue
            elif not any(
                r.start == node.start_byte and r.symbol is self.scope.symbols.get(self.field)
                for r in self.file.within(node.start_byte, node.end_byte)
            ):
                continue
            else:
                whole = node
            if self.is_gone(whole.start_byte):
                continue
            if whole.parent.type == "assignment_expression" and whole.parent.child_by_field_name("left") == whole:
                raise messages.HELD_SET_AGAIN.at(self.file, whole.start_byte, field=self.field)
            if not self.hooks.start_byte <= whole.start_byte < self.hooks.end_byte:
                self.edits.append((whole.start_byte, whole.end_byte, self.itself(whole)))

    def itself(self, node: Any) -> str:
        """How the object is named at a place: inside of a class that is written in place, by its class."""
        while node is not None and node != self.node:
            if node.type == "class_body" and node != self.hooks and node.parent.type != "class_declaration":
                return f"{self.class_}.this"
            node = node.parent
        return "this"

    def hooks_move(self) -> None:
        """The methods that were written in place become the class's own, at its end."""
        unit = TEXT.indent_unit(self.file)
        lead = self.file.slice(TEXT.line_start(self.file, self.node.start_byte), self.node.start_byte) + unit
        texts = []
        for method in [c for c in self.hooks.named_children if c.type == "method_declaration"]:
            old = self.file.slice(TEXT.line_start(self.file, method.start_byte), method.start_byte)
            if old.strip():
                raise messages.SHARES_LINE.at(self.file, method.start_byte)
            edits = [
                (n.start_byte, n.end_byte, self.itself(n))
                for n in within(method, method.start_byte, method.end_byte)
                if self.names_object(n)
            ]
            start = TEXT.comment_start(self.file, method.start_byte)
            texts.append(TEXT.shifted(self.file, start + len(old.encode()), method.end_byte, edits, old, lead) + "\n")
        at = TEXT.line_start(self.file, self.body.end_byte - 1)
        self.edits.append((at, at, TEXT.with_newlines("".join("\n" + t for t in texts), TEXT.newline(self.file))))

    def names_object(self, node: Any) -> bool:
        """Whether a node in a hook means the object that is around: ``App.this``, or the field that held it."""
        text = node.text.decode()
        if node.type == "field_access" and text in (f"{self.class_}.this.{self.field}", f"{self.class_}.this"):
            return (
                text.endswith(self.field)
                or node.parent.type != "field_access"
                or not node.parent.text.decode().endswith(f".this.{self.field}")
            )
        return False
