"""The members of a Python class: where its methods use them, and the class as variables and functions."""

from __future__ import annotations

import re
from typing import Any

from ....program.model import Function, Reference, Scope, SourceFile, Symbol
from ....program.whole import Declared, MemberUse, Whole, in_front
from ...braced.blocks import within
from ..facts.libraries import base_of
from ..writing.text import TEXT

REACHING = re.compile(
    rb"\b(getattr|setattr|hasattr|delattr|vars|dir|pickle|copy|eval|exec|globals|locals|attrgetter|methodcaller)\b"
)
OWN_WAYS = re.compile(
    rb"\b(__dict__|__slots__|__getattr__|__getattribute__|__setattr__|__delattr__|__getstate__|__reduce__|__class__)\b"
)
KEEPING = frozenset([b"append", b"add", b"insert", b"remove", b"discard", b"index", b"count", b"extend", b"put"])
SHOWING = frozenset(
    [
        b"print",
        b"id",
        b"isinstance",
        b"issubclass",
        b"type",
        b"len",
        b"bool",
        b"hash",
        b"repr",
        b"str",
        b"list",
        b"tuple",
        b"iter",
        b"next",
        b"callable",
    ]
)
SETTING = (
    "assignment",
    "augmented_assignment",
    "named_expression",
    "for_statement",
    "for_in_clause",
    "as_pattern",
    "pattern_list",
    "tuple_pattern",
    "list_pattern",
    "list_splat_pattern",
    "as_pattern_target",
)


def whole(file: SourceFile, name: str) -> Whole | None:
    scope = next((s for s, n in file.classes if n == name and s.parent is file.scope), None)
    node = class_node(file, scope) if scope is not None else None
    base = base_of(file, node) if node is not None else None
    if (
        scope is None
        or OWN_WAYS.search(file.text, scope.start, scope.end)
        or (base is None and inherits(node))
        or any(n == name for _, n in file.inheriting)
    ):
        return None
    methods = [f for f in file.functions if f.outer is scope]
    plain = {
        f.name
        for f in methods
        if not f.decorators and f.bound and not (f.name.startswith("__") and f.name.endswith("__"))
    }
    reserved: frozenset[str] = frozenset()
    if base is not None:
        reserved = base.members | base.hooks
        plain -= reserved | {f.name for f in methods if b"super" in file.text[f.start : f.end]}
    elif b"super" in file.text[scope.start : scope.end]:
        return None
    maker = next((f for f in methods if f.name == TEXT.CONSTRUCTOR and f.params), None)
    found = Whole(name, scope, methods, maker.params[0].name if maker is not None else "self", plain, reserved)
    for f in methods:
        if b"classmethod" in file.text[f.start : f.head]:
            return None  # what it is handed is the class
        if not f.params or not f.bound:
            continue
        own = f.scope.symbols.get(f.params[0].name)
        for r in own.references if own is not None else ():
            if f.params_start <= r.start < f.params_end:
                continue
            use = use_of(file, f, r)
            if use is None:
                found.escapes.append(r.start)
            else:
                found.uses.append(use)
    found.uses.sort(key=lambda u: u.start)
    if any(given_away(file, r) for r in bare(file, found)):
        return None  # a library may ask it for any member
    return found if REACHING.search(file.text) is None or kept_apart(file, found) is not None else None


def class_node(file: SourceFile, scope: Scope) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    while node is not None and node.type != "class_definition":
        node = node.parent
    return node


def bare(file: SourceFile, found: Whole) -> list[tuple[int, int]]:
    """Where an object itself is used: as the receiver, as a variable that holds one, or where it is made."""
    made = [
        c
        for r in file.scope.symbols[found.name].references
        if (c := next((c for c in file.calls if c.callee is r), None)) is not None
    ]
    variables = [s for c in made for s in holder(file, c.callee, True) or []]
    spans = [(at, at + len(found.receiver.encode())) for at in found.escapes] + [(c.start, c.end) for c in made]
    return spans + [(r.start, r.end) for s in variables for r in s.references if not r.writes and not r.member]


def given_away(file: SourceFile, span: tuple[int, int]) -> bool:
    """Whether an object is handed to a call of code that was not read, and that does more than show or keep it."""
    node = file.tree.root_node.named_descendant_for_byte_range(*span)
    around = node.parent
    named = around is not None and around.type == "keyword_argument"
    if around is not None and named:
        around = around.parent
    if around is None or around.type != "argument_list" or around.parent.type != "call":
        return False
    callee = around.parent.child_by_field_name("function")
    if callee.type == "attribute":
        word = callee.child_by_field_name("attribute").text
        return word not in KEEPING and not any(
            f.name.encode() == word and f.outer is not file.scope for f in file.functions
        )
    symbol = (
        next((r.symbol for r in file.within(callee.start_byte, callee.end_byte)), None)
        if callee.type == "identifier"
        else None
    )
    return symbol is None or not (
        symbol.kinds & {"function", "class"} or (not symbol.kinds and callee.text in SHOWING and not named)
    )


def inherits(node: Any) -> bool:
    """Whether a class has a base, is made in a way of its own, or is decorated."""
    bases = node.child_by_field_name("superclasses") if node is not None else None
    return (
        node is None
        or node.parent.type == "decorated_definition"
        or (bases is not None and any(c.text != b"object" for c in bases.named_children))
    )


def use_of(file: SourceFile, f: Function, r: Reference) -> MemberUse | None:
    """A use of the object as that of one of its members; None if it is the object itself that is used."""
    node = file.tree.root_node.named_descendant_for_byte_range(r.start, r.end)
    around = node.parent
    if around is None or around.type != "attribute" or around.child_by_field_name("object") != node:
        return None
    member = around.child_by_field_name("attribute")
    kind = kind_of(around)
    return MemberUse(
        member.text.decode(file.encoding),
        node.start_byte,
        member.end_byte,
        (r.start, r.end),
        f,
        kind,
        r.scope.frame is not f.scope or lazily(around, f),
    )


def lazily(node: Any, f: Function) -> bool:
    """Whether a use stands in a lambda or a generator, which runs later."""
    while node is not None and node.start_byte >= f.start and node != f.node:
        if node.type in ("lambda", "generator_expression"):
            return True
        node = node.parent
    return False


def spelled(node: Any) -> bool:
    """Whether a format says the text of what it shows."""
    while node is not None and node.type != "interpolation":
        node = node.parent if node.type not in ("block", "module") else None
    return node is not None and any(c.type == "=" for c in node.children)


def kind_of(node: Any) -> str:
    at, around = node, node.parent
    if spelled(node):
        return "other"
    if around.type == "call" and around.child_by_field_name("function") == node:
        return "call"
    if around.type == "delete_statement":
        return "other"
    while around is not None and around.type in SETTING:
        if around.type in (
            "assignment",
            "augmented_assignment",
            "for_statement",
            "for_in_clause",
        ) and at != around.child_by_field_name("left"):
            return "read"
        if (
            around.type == "assignment"
            and around.child_by_field_name("type") is not None
            and around.child_by_field_name("right") is None
        ):
            return "other"
        if around.type in (
            "assignment",
            "augmented_assignment",
            "for_statement",
            "for_in_clause",
            "as_pattern_target",
            "named_expression",
        ):
            return "set"
        at, around = around, around.parent
    return "read"


def flattened(file: SourceFile, whole: Whole) -> tuple[bytes, dict[str, str]]:
    used = {n for s in file.scope.walk() for n in s.symbols}
    names = {m: m.strip("_") or m for m in [*whole.fields, *(f.name for f in whole.methods)]}
    shown = {m: n if n not in used - {m} and n.isidentifier() else f"{n}_" for m, n in names.items()}
    lines = [f"{shown[m]} = None" for m in whole.fields] + ["", ""]
    for f in whole.methods:
        if f.decorators or not f.bound or f.name == TEXT.CONSTRUCTOR:
            continue
        edits = [(u.start, u.end, shown[u.name]) for u in whole.of(f) if u.name in shown and u.start >= f.body_start]
        params = ", ".join(file.slice(p.start, p.end) for p in f.params[1:])
        sets = sorted({shown[u.name] for u in whole.of(f) if u.kind == "set" and u.name in whole.fields})
        first = TEXT.line_start(file, f.body_start)
        inner = first if not file.text[first : f.body_start].strip() else f.body_start
        lead = file.slice(TEXT.line_start(file, f.start), f.start)
        body = str(TEXT.shifted(file, inner, f.end, edits, lead + TEXT.indent_unit(file), "    "))
        lines += [f"def {shown[f.name]}({params}):", *([f"    global {', '.join(sets)}"] if sets else []), body, "", ""]
    return "\n".join(lines).encode(), {n: m for m, n in shown.items()}


def declaration(file: SourceFile, like: Declared, name: str, class_: str, value: str) -> str:
    """Fields are set, not declared."""
    return ""


def opened(file: SourceFile, function: Function) -> list[tuple[int, int, str]]:
    """Nothing is closed."""
    return []


def outside(file: SourceFile, whole: Whole, names: set[str]) -> tuple[str, int] | None:
    kept = kept_apart(file, whole)
    own = {u.start for u in whole.uses}
    for node in within(file.tree.root_node, 0, len(file.text)):
        if node.type != "attribute" or node.start_byte in own:
            continue
        member = node.child_by_field_name("attribute").text.decode(file.encoding)
        if member in names and may_be(file, node.child_by_field_name("object"), whole, kept):
            return f"'{member}' is used outside of {whole.name}", node.start_byte
    return None


def kept_apart(file: SourceFile, whole: Whole) -> set[Symbol] | None:
    """The variables that hold its objects, of which only members are asked for; None where an object gets about."""
    if whole.reserved:
        return None  # a library keeps it
    made = file.scope.symbols[whole.name]
    holders = [holder(file, r) for r in made.references if r.role == "call"]
    if (
        whole.escapes
        or any(h is None for h in holders)
        or not all(r.writes or r.role == "call" for r in made.references)
    ):
        return None
    return {s for h in holders if h for s in h}


def holder(file: SourceFile, made: Reference, anyhow: bool = False) -> list[Symbol] | None:
    """The variable that holds a new object, nothing where only a member of it is asked for; None where it gets about,
    unless that is no matter (``anyhow``)."""
    call = next((c for c in file.calls if c.callee is made), None)
    node = file.tree.root_node.named_descendant_for_byte_range(call.start, call.end) if call is not None else None
    if node is None:
        return None
    if node.parent.type == "attribute" or node.parent.type == "expression_statement":
        return []
    left = node.parent.child_by_field_name("left") if node.parent.type == "assignment" else None
    if left is None or left.type != "identifier":
        return None
    symbol = next((r.symbol for r in file.within(left.start_byte, left.end_byte)), None)
    if symbol is None or (not anyhow and any(not r.writes and not r.member for r in symbol.references)):
        return None
    return [symbol]


def may_be(file: SourceFile, base: Any, whole: Whole, kept: set[Symbol] | None) -> bool:
    """Whether what a member is asked of may be an object of the class. ``kept``: the only variables that hold one, if
    that is known."""
    if base.type == "call" and base.child_by_field_name("function").text == whole.name.encode():
        return True
    symbol = (
        next((r.symbol for r in file.within(base.start_byte, base.end_byte)), None)
        if base.type == "identifier"
        else None
    )
    if kept is not None:
        return symbol in kept
    return not (base.type == "string" or (symbol is not None and symbol.kinds == {"import"}))


place = in_front  # where a class goes that is taken out of another
