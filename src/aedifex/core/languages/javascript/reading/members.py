"""The members of a JavaScript class: where its methods use them through ``this``, and the class as variables and
functions."""

from __future__ import annotations

import re
from typing import Any

from ....program.model import Function, Reference, Scope, SourceFile, Symbol
from ....program.whole import Declared, MemberUse, Whole, in_front
from ...braced.blocks import within
from ..writing.text import TEXT
from ..writing.words import end

REACHING = re.compile(
    rb"\b(JSON\s*\.\s*stringify|Object\s*\.\s*\w+|Reflect|structuredClone|Proxy|eval|Function\s*\(|inspect|assert|for\s*\([^;()]*\bin\b)|[{,]\s*\.\.\.[^()\[\]\n]*\}"
)
OWN_WAYS = re.compile(rb"\b(super|constructor\s*\.|prototype|__proto__|arguments|new\.target)\b|#[\w$]+\s+in\b")
SHOWING = re.compile(rb"\bconsole\s*\.\s*\w+\s*\(\s*(?:[^()\n]*,\s*)?[A-Za-z_$][\w$]*\s*[,)]")
NAMES = ("property_identifier", "private_property_identifier")
SETTING = (
    "array_pattern",
    "object_pattern",
    "pair_pattern",
    "rest_pattern",
    "assignment_pattern",
    "object_assignment_pattern",
)


def whole(file: SourceFile, name: str) -> Whole | None:
    scope = next((s for s, n in file.classes if n == name and s.parent is file.scope), None)
    node = class_node(file, scope) if scope is not None else None
    if (
        scope is None
        or node is None
        or scope.bases
        or offered_otherwise(file, name)
        or any(n == name for _, n in file.inheriting)
    ):
        return None
    if OWN_WAYS.search(file.text, scope.start, scope.end) or any(
        c.type in ("decorator", "class_heritage") for c in node.children
    ):
        return None
    body = node.child_by_field_name("body")
    methods = [f for f in file.functions if f.outer is scope and f.node.parent == body and not static(f.node)]
    plain = {
        f.name
        for f in methods
        if f.name != TEXT.CONSTRUCTOR
        and not any(
            c.type in ("get", "set", "computed_property_name", "string", "decorator", "override_modifier")
            for c in f.node.children
        )
    }
    found = Whole(name, scope, methods, TEXT.RECEIVER, plain - twice(methods))
    for child in body.named_children:
        if child.type == "decorator" or child.type == "method_signature":
            return None  # what decorates may do anything; a method of several signatures
        if child.type in ("field_definition", "public_field_definition") and not static(child):
            declare(file, found, child)
    given_fields(file, found)
    named = {f.name for f in file.functions if f.outer is scope}
    for f in [*methods, *([found.head] if found.head is not None else [])]:
        for r in receivers(f):
            if not (f.params_start <= r.start < f.params_end and f is not found.head):
                use = use_of(file, f, r, named)
                found.uses += [use] if use is not None else []
                found.escapes += [r.start] if use is None else []
            else:
                return None  # a default value that asks the object
    found.uses.sort(key=lambda u: u.start)
    return (
        found
        if kept_apart(file, found) is not None
        or (REACHING.search(file.text) is None and all(passed_on(file, e) for e in found.escapes))
        else None
    )


def class_node(file: SourceFile, scope: Scope) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
    return node if node.type == "class_declaration" else None


def offered_otherwise(file: SourceFile, name: str) -> bool:
    """Whether other files may know the class by another name."""
    word = rb"\b" + re.escape(name.encode()) + rb"\b"
    ways = [rb"\bexport\s+default\b[^\n]*" + word, word + rb"\s+as\b", rb"\bexport(s\s*)?=\s*" + word]
    if not TEXT.typed(file):
        ways.append(rb":\s*" + word + rb"\s*[,}]")  # the value of a key; a type where types are written
    return any(re.search(way, file.text) for way in ways)


def static(node: Any) -> bool:
    return any(c.type == "static" for c in node.children)


def twice(methods: list[Function]) -> set[str]:
    names = [f.name for f in methods]
    return {n for n in names if names.count(n) > 1}


def declare(file: SourceFile, found: Whole, node: Any) -> None:
    name, value, kind = (node.child_by_field_name(n) for n in ("name", "value", "type"))
    name = name or node.child_by_field_name("property")
    if name is None or name.type not in NAMES:
        return
    end = node.end_byte
    after = file.text[end : TEXT.line_end(file, end - 1)]
    end += after.index(b";") + 1 if after.lstrip().startswith(b";") else 0
    plain = not any(c.type in ("accessor", "declare", "override_modifier", "?", "!") for c in node.children) and not (
        value is not None and value.type in ("arrow_function", "function_expression")
    )
    text = kind.text.decode(file.encoding).lstrip(": ") if kind is not None else ""
    found.declared[name.text.decode(file.encoding)] = Declared(
        node.start_byte, end, (value.start_byte, value.end_byte) if value is not None else None, text, plain
    )
    inner = next((s for s in found.scope.children if s.start == node.start_byte and s.kind == "function"), None)
    if inner is not None and TEXT.RECEIVER in inner.symbols:
        if found.head is None:
            found.head = Function(
                "",
                Scope("function", "", None, node.start_byte, node.start_byte),
                found.scope,
                node.start_byte,
                node.end_byte,
                node.start_byte,
                node.start_byte,
                node.start_byte,
                [],
                0,
                0,
                node.start_byte,
            )
        found.head.scope.children.append(inner)


def given_fields(file: SourceFile, found: Whole) -> None:
    """Parameters of a constructor that are fields at once, where types are written."""
    maker = next((f for f in found.methods if f.name == TEXT.CONSTRUCTOR), None)
    for p in maker.params if maker is not None else ():
        node = file.tree.root_node.named_descendant_for_byte_range(p.start, p.end)
        if any(c.type in ("accessibility_modifier", "readonly") for c in node.children):
            found.declared[p.name] = Declared(p.start, p.end, None, p.type, plain=False)


def receivers(f: Function) -> list[Reference]:
    scopes = f.scope.children if f.node is None else [f.scope]
    return [r for s in scopes if TEXT.RECEIVER in s.symbols for r in s.symbols[TEXT.RECEIVER].references]


def use_of(file: SourceFile, f: Function, r: Reference, named: set[str]) -> MemberUse | None:
    """A use of the object as that of one of its members; None if it is the object itself that is used. ``named``: the
    methods of the class."""
    node = file.tree.root_node.descendant_for_byte_range(r.start, r.end)
    around = node.parent
    if around is None or around.type != "member_expression" or around.child_by_field_name("object") != node:
        return None
    member = around.child_by_field_name("property")
    name = member.text.decode(file.encoding)
    kind = kind_of(around)
    if (kind == "read" and name in named) or (kind == "call" and name not in named):
        kind = "other"  # the function would get another object as its own
    return MemberUse(name, node.start_byte, member.end_byte, (r.start, r.end), f, kind, later(around, f))


def later(node: Any, f: Function) -> bool:
    """Whether a use stands in a function inside the method."""
    while (
        node is not None
        and node.start_byte >= f.start
        and node != f.node
        and node.type not in ("field_definition", "public_field_definition")
    ):
        if node.type in ("arrow_function", "function_expression", "generator_function"):
            return True
        node = node.parent
    return False


def kind_of(node: Any) -> str:
    at, around = node, node.parent
    while around.type == "non_null_expression":
        at, around = around, around.parent
    if around.type == "call_expression" and around.child_by_field_name("function") == at:
        arguments = around.child_by_field_name("arguments")
        return "call" if at == node and arguments is not None and arguments.type == "arguments" else "other"
    if around.type in ("augmented_assignment_expression", "update_expression"):
        return "set" if around.type == "update_expression" or around.child_by_field_name("left") == at else "read"
    if around.type == "unary_expression" and around.children[0].type == "delete":
        return "other"
    while around.type in SETTING:
        if around.type == "pair_pattern" and around.child_by_field_name("key") == at:
            return "read"
        if around.type in ("assignment_pattern", "object_assignment_pattern"):
            return "read" if around.child_by_field_name("right") == at else "set"
        at, around = around, around.parent
    if around.type in ("assignment_expression", "for_in_statement"):
        return "set" if around.child_by_field_name("left") == at else "read"
    return "read"


def flattened(file: SourceFile, whole: Whole) -> tuple[bytes, dict[str, str]]:
    used = {n for s in file.scope.walk() for n in s.symbols}
    names = {m: m.strip("_#") or m for m in [*whole.fields, *(f.name for f in whole.methods)]}
    shown = {m: n if n not in used - {m} and TEXT.is_name(n) else f"{n}_" for m, n in names.items()}
    lines = []
    for m in whole.fields:
        kind = whole.declared[m].type if m in whole.declared else ""
        lines.append(f"let {shown[m]}{': ' + kind if kind else ''};")
    lines.append("")
    for f in whole.methods:
        if f.name not in whole.plain:
            continue
        edits = [(u.start, u.end, shown[u.name]) for u in whole.of(f) if u.name in shown]
        params = file.slice(f.params_start, f.params_end)
        lead = "async " * f.is_async
        body = f.node.child_by_field_name("body")
        first = TEXT.line_start(file, f.start)
        text = str(TEXT.shifted(file, body.start_byte, f.end, edits, file.slice(first, f.start), ""))
        lines += [f"{lead}function{'*' if f.scope.generator else ''} {shown[f.name]}({params}) {text}", ""]
    return "\n".join(lines).encode(), {n: m for m, n in shown.items()}


def declaration(file: SourceFile, like: Declared, name: str, class_: str, value: str) -> str:
    if not value and not TEXT.typed(file):
        return ""
    words = re.match(r"(?:(?:public|private|protected|readonly) )*", file.slice(like.start, like.end))
    kind = f": {class_}" if TEXT.typed(file) and (like.type or not value) else ""
    return f"{words[0] if words else ''}{name}{kind}{' = ' + value if value else ''}{end(file)}"


def opened(file: SourceFile, function: Function) -> list[tuple[int, int, str]]:
    found = next(
        (c for c in function.node.children if c.type == "accessibility_modifier" and c.text != b"public"), None
    )
    return [(found.start_byte, found.end_byte + 1, "")] if found is not None else []


def outside(file: SourceFile, whole: Whole, names: set[str]) -> tuple[str, int] | None:
    kept = kept_apart(file, whole)
    own = {u.start for u in whole.uses}
    if kept is None and (shown := SHOWING.search(file.text)) is not None:
        return f"an object of {whole.name} gets about, and this may show all that it holds", shown.start()
    for node in within(file.tree.root_node, 0, len(file.text)):
        text = (
            node.text.decode(file.encoding, "replace")
            if node.type in (*NAMES, "shorthand_property_identifier_pattern", "string_fragment")
            else ""
        )
        if text not in names:
            continue
        around = node.parent
        if around.type == "member_expression":
            base = around.child_by_field_name("object")
            if around.start_byte not in own and may_be(file, base, whole, kept):
                return f"'{text}' is used outside of {whole.name}", node.start_byte
        elif kept is None and around.type not in ("method_definition", "field_definition", "public_field_definition"):
            if not (around.type == "pair" and around.child_by_field_name("key") == node):
                return f"'{text}' may be used outside of {whole.name}", node.start_byte
    return None


def may_be(file: SourceFile, base: Any, whole: Whole, kept: set[Symbol] | None) -> bool:
    """Whether what a member is asked of may be an object of the class. ``kept``: the only variables that hold one, if
    that is known."""
    while base.type in ("parenthesized_expression", "non_null_expression"):
        base = base.named_children[0]
    if base.type == "new_expression":
        return bool(base.child_by_field_name("constructor").text == whole.name.encode())
    if base.type == "this":
        scope = next((r.scope for r in file.within(base.start_byte, base.end_byte)), None)
        while scope is not None and scope.kind != "class":
            scope = scope.parent
        return scope is None or scope is whole.scope
    symbol = (
        next((r.symbol for r in file.within(base.start_byte, base.end_byte)), None)
        if base.type == "identifier"
        else None
    )
    if kept is not None:
        return symbol in kept
    return not (
        base.type in ("string", "template_string", "array") or (symbol is not None and symbol.kinds == {"import"})
    )


def kept_apart(file: SourceFile, whole: Whole) -> set[Symbol] | None:
    """The variables that hold its objects, of which only members are asked for; None where an object gets about."""
    made = file.scope.symbols[whole.name]
    uses = [r for r in made.references if not r.writes and r.form != "type"]
    holders = [holder(file, r) for r in uses]
    if whole.escapes or any(h is None for h in holders):
        return None
    return {s for h in holders if h for s in h}


def holder(file: SourceFile, made: Reference) -> list[Symbol] | None:
    """The variable that holds a new object, nothing where only a member of it is asked for; None where it gets
    about."""
    node = file.tree.root_node.named_descendant_for_byte_range(made.start, made.end).parent
    if node.type == "export_specifier" or made.form in ("shorthand", "offered"):
        return []  # other files name the class, which is looked for
    if node.type != "new_expression":
        return [] if node.type == "member_expression" else None  # what the class itself keeps
    around = node.parent
    while around.type == "parenthesized_expression":
        node, around = around, around.parent
    if around.type in ("member_expression", "expression_statement"):
        return []
    field = {"variable_declarator": "name", "assignment_expression": "left"}.get(around.type, "")
    left = around.child_by_field_name(field) if field else None
    if (
        left is None
        or left.type != "identifier"
        or (around.type == "assignment_expression" and around.parent.type != "expression_statement")
    ):
        return None
    symbol = next((r.symbol for r in file.within(left.start_byte, left.end_byte)), None)
    if symbol is None or any(not r.writes and not r.member for r in symbol.references):
        return None
    return [symbol]


def passed_on(file: SourceFile, at: int) -> bool:
    """Whether the object is only handed to what the file itself defines, kept in a variable, or given back."""
    node = file.tree.root_node.descendant_for_byte_range(at, at + 4).parent
    if node.type == "arguments":
        callee = node.parent.child_by_field_name("function") or node.parent.child_by_field_name("constructor")
        symbol = (
            next((r.symbol for r in file.within(callee.start_byte, callee.end_byte)), None)
            if callee.type == "identifier"
            else None
        )
        return symbol is not None and bool(symbol.kinds & {"function", "class"})
    return node.type in ("return_statement", "variable_declarator")


place = in_front  # where a class goes that is taken out of another
