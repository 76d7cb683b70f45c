"""Windows of libraries that call functions by event: registered by a call, and as methods of a class that extends the
window."""

from __future__ import annotations

from typing import Any

from ....program import messages
from ....program.edits import Range
from ....program.frameworks import Extended, Framework
from ....program.model import Function, SourceFile, Statement, Symbol
from ....program.whole import MemberUse, Whole
from ...braced.blocks import within
from ..reading import members
from ..reading.structure import body_of, definition
from ..writing.text import TEXT
from .libraries import made_by, of

REMOVING = frozenset([b"pop_handlers", b"remove_handler", b"remove_handlers"])  # what is a method cannot be taken back


# -- registered by a call --------------------------------------------------------------------------


def unfolded(file: SourceFile) -> list[Range]:
    edits: list[Range] = []
    for f in file.tops:
        if f.decorators != 1 or f.is_async or f.scope.generator or len(file.functions_named(f.name)) != 1:
            continue
        node = definition(file, f).parent.named_children[0].named_children[0]
        found = registering(file, node, f)
        if found is None:
            continue
        owner, framework, event = found
        start = TEXT.line_start(file, node.start_byte)
        end = TEXT.line_end(file, f.end - 1)
        lead = "" if file.text[:end].endswith(b"\n") else "\n"
        nl = TEXT.newline(file)
        gap = lead + "\n" * TEXT.BLANKS
        edits += [
            (start, TEXT.line_end(file, node.end_byte), ""),
            (end, end, f'{gap}{owner}.{framework.register}("{event}", {f.name})\n'.replace("\n", nl)),
        ]
    return edits


def registering(file: SourceFile, node: Any, f: Function) -> tuple[str, Framework, str] | None:
    """(variable, class, event) of a decorator that registers a function and gives it back."""
    call, event = node, f.name
    if node.type == "call":
        args = [a for a in node.child_by_field_name("arguments").named_children if a.type != "comment"]
        if len(args) > 1 or any(a.type != "string" for a in args):
            return None
        event = file.slice(args[0].start_byte, args[0].end_byte).strip("'\"") if args else event
        call = node.child_by_field_name("function")
    if call.type != "attribute" or call.child_by_field_name("object").type != "identifier" or not event.isidentifier():
        return None
    owner = next((r.symbol for r in file.within(call.start_byte, call.start_byte + 1)), None)
    framework = of(file, owner) if owner is not None else None
    if owner is None or framework is None or call.child_by_field_name("attribute").text.decode() != framework.decorator:
        return None
    return owner.name, framework, event


def extendable(file: SourceFile, symbol: Symbol, methods: dict[str, set[str]]) -> Framework | None:
    kind = of(file, symbol)
    if kind is None:
        return None
    called = {function for event, function in registered(file, symbol).items() if event in kind.hooks}
    clash = any(n in kind.members | kind.hooks and not origins & called for n, origins in methods.items())
    return kind if any(origins & called for origins in methods.values()) and not clash else None


def registered(file: SourceFile, symbol: Symbol) -> dict[str, str]:
    """Event → the function at the top that is registered for it with the object that the variable holds."""
    framework, found = of(file, symbol), dict[str, str]()
    for c in file.calls if framework is not None else ():
        args = (
            [a for a in c.node.named_children if a.type != "comment"]
            if c.callee.symbol is symbol and c.node is not None
            else []
        )
        if (
            framework is not None
            and c.callee.member == framework.register
            and [a.type for a in args] == ["string", "identifier"]
        ):
            found[args[0].text.decode().strip("'\"")] = args[1].text.decode()
    return found


# -- as a class that extends it --------------------------------------------------------------------


def extended(file: SourceFile, class_: str, field: str) -> Extended:
    whole = members.whole(file, class_)
    if whole is None:
        raise messages.HOLDER_UNKNOWN.in_file(file.path, class_=class_)
    maker = next((f for f in whole.methods if f.name == TEXT.CONSTRUCTOR), None)
    made = [u for u in whole.uses if u.name == field and u.kind == "set"]
    statement = (
        next((s for s in body_of(file, maker) if s.start == made[0].start), None)
        if maker is not None and len(made) == 1
        else None
    )
    framework = made_by(file, statement.value) if statement is not None and statement.value is not None else None
    if maker is None or statement is None or framework is None:
        raise messages.HELD_NOT_SET_ONCE.at(file, whole.scope.start, field=field, class_=class_)
    return Extending(file, whole, field, framework, statement).all()


class Extending:
    """Works out how a class extends one of a library."""

    def __init__(self, file: SourceFile, whole: Whole, field: str, framework: Framework, made: Statement) -> None:
        self.file, self.whole, self.field, self.framework, self.made = file, whole, field, framework, made
        self.hooks: dict[str, str] = {}  # method → event
        self.gone: list[tuple[int, int]] = []  # registrations
        self.edits: list[Range] = []

    def all(self) -> Extended:
        if members.outside(self.file, self.whole, {self.field}) is not None:
            raise messages.HELD_USED_OUTSIDE.at(self.file, self.made.start, field=self.field, class_=self.whole.name)
        self.registrations()
        if not self.hooks:
            raise messages.NOTHING_REGISTERED.at(self.file, self.made.start, class_=self.whole.name, field=self.field)
        self.heading()
        for u in self.whole.uses:
            if not any(a <= u.start < b for a, b in self.gone):
                self.use(u)
        for f in self.whole.methods:
            self.method(f)
        return Extended(self.framework, self.edits, sorted(self.hooks.values()))

    def registrations(self) -> None:
        """Statements that do no more than register a method for an event."""
        methods = {f.name: f for f in self.whole.methods}
        for u in self.whole.uses:
            if u.name != self.field or u.kind == "set":
                continue
            node = self.file.tree.root_node.named_descendant_for_byte_range(u.start, u.end)
            call = node.parent.parent if node.parent is not None else None
            if (
                call is None
                or call.type != "call"
                or node.parent.child_by_field_name("attribute") is None
                or node.parent.child_by_field_name("attribute").text.decode() != self.framework.register
            ):
                continue
            args = [a for a in call.child_by_field_name("arguments").named_children if a.type != "comment"]
            method = next(
                (
                    x
                    for x in self.whole.uses
                    if len(args) == 2 and x.start == args[1].start_byte and x.end == args[1].end_byte
                ),
                None,
            )
            event = args[0].text.decode().strip("'\"") if args and args[0].type == "string" else ""
            if (
                method is None
                or method.name not in methods
                or call.parent.type != "expression_statement"
                or not self.plain(call.parent)
            ):
                continue
            if event in self.framework.continued and sum(x.name == method.name for x in self.whole.uses) > 1:
                continue  # others call it, who do not want what the library does afterwards
            if (
                event in self.framework.hooks
                and event not in self.hooks.values()
                and method.name not in self.hooks
                and self.able(methods[method.name], event)
            ):
                self.hooks[method.name] = event
                end = TEXT.blank_after(self.file, TEXT.line_end(self.file, call.parent.end_byte))
                self.gone.append((TEXT.comment_start(self.file, call.parent.start_byte), end))

    def plain(self, statement: Any) -> bool:
        """Whether a statement has its lines for itself, directly in a method."""
        left = self.file.slice(TEXT.line_start(self.file, statement.start_byte), statement.start_byte)
        right = self.file.slice(statement.end_byte, TEXT.line_end(self.file, statement.end_byte))
        body = statement.parent
        gone = sum(body.start_byte <= a < body.end_byte for a, _ in self.gone)
        others = sum(c.type != "comment" for c in body.named_children) - gone
        return not left.strip() and not right.strip() and body.parent.type == "function_definition" and others > 1

    def able(self, f: Function, event: str) -> bool:
        """Whether the library would do the same after a method of its class as after one that is registered."""
        gives = [n for n in within(definition(self.file, f), f.body_start, f.end) if n.type == "return_statement"]
        if (
            any(n.named_children for n in gives)
            or (gives and event in self.framework.continued)
            or f.decorators
            or f.is_async
            or f.scope.generator
        ):
            return False
        return not any(p.kind != "plain" or p.default for p in f.arguments) and (
            f.name == event or event not in {m.name for m in self.whole.methods}
        )

    def heading(self) -> None:
        node = self.file.tree.root_node.named_descendant_for_byte_range(self.whole.scope.start, self.whole.scope.end)
        while node.type != "class_definition":
            node = node.parent
        name, bases = node.child_by_field_name("name"), node.child_by_field_name("superclasses")
        assert self.made.value is not None
        call = self.file.tree.root_node.named_descendant_for_byte_range(*self.made.value)
        callee = call.child_by_field_name("function")
        self.edits.append(
            (
                name.end_byte,
                bases.end_byte if bases is not None else name.end_byte,
                f"({self.file.slice(callee.start_byte, callee.end_byte)})",
            )
        )
        self.edits.append((self.made.start, callee.end_byte, "super().__init__"))
        self.edits += [(a, b, "") for a, b in self.gone]

    def use(self, u: MemberUse) -> None:
        own = self.file.slice(*u.own)
        if u.name == self.field:
            if u.kind == "set" and u.start == self.made.start:
                return
            asked = self.file.tree.root_node.named_descendant_for_byte_range(u.start, u.end).parent.child_by_field_name(
                "attribute"
            )
            if u.kind != "read" or (asked is not None and asked.text in REMOVING):
                raise messages.HELD_USED_OTHERWISE.at(self.file, u.start, field=self.field)
            self.edits.append((u.start, u.end, own))
            return
        if u.name not in self.hooks and u.name in self.framework.members | self.framework.hooks:
            raise messages.NAME_OF_LIBRARY_CLASS.at(self.file, u.start, library=self.framework.name, name=u.name)
        if u.name in self.hooks and self.hooks[u.name] != u.name:
            self.edits.append((u.start, u.end, f"{own}.{self.hooks[u.name]}"))

    def method(self, f: Function) -> None:
        if f.name not in self.hooks and f.name in self.framework.members | self.framework.hooks:
            raise messages.NAME_OF_LIBRARY_CLASS.at(self.file, f.start, library=self.framework.name, name=f.name)
        if self.hooks.get(f.name, f.name) != f.name:
            self.edits.append((f.name_start, f.name_end, self.hooks[f.name]))
        if f.name in self.hooks and self.hooks[f.name] in self.framework.continued:
            given = ", ".join(p.name for p in f.arguments)
            lead = self.file.slice(TEXT.line_start(self.file, f.body_start), f.body_start)
            if lead.strip():
                raise messages.ON_ONE_LINE.at(self.file, f.start, function=f.name)
            at = TEXT.line_end(self.file, f.end - 1)
            nl = TEXT.newline(self.file)
            self.edits.append((at, at, f"{lead}super().{self.hooks[f.name]}({given}){nl}"))
