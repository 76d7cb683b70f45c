"""Listeners that are written in methods of a class: lambdas with a block, and anonymous classes of listeners."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from ....program.inline import Listener
from ....program.layout import words
from ....program.model import Function, Scope, SourceFile
from ...braced.blocks import within
from ..facts.events import event_of, imported_name, method_of, name_of_event, plain, single
from .inlines import COMMENTS, OWN, own_this, several
from .structure import STATEMENTS
from .walk import modifiers

REGISTERING = re.compile(r"(?:add|set)(\w+Listener)")
METHOD_OF_ACTION = "actionPerformed"
NO_PURPOSE = frozenset(["listener", "handler", "action", "adapter"])


def listeners(file: SourceFile) -> list[Listener]:
    """Those of the methods of named classes, in source order."""
    named = {scope for scope, _ in file.classes}
    found = []
    for f in file.functions_sorted:
        body = f.node.child_by_field_name("body") if f.node is not None else None
        if f.outer in named and body is not None and "static" not in modifiers(f.node):
            for call, node in written(body):
                found += listening(file, f, call, node)
    return sorted([*found, *inner_classes(file)], key=lambda n: n.start)


def inner_classes(file: SourceFile) -> Iterator[Listener]:
    """Classes inside of a class that are but a listener: one method, and objects that are made where they are handed
    over."""
    for scope, name in file.classes:
        node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.end)
        around = node.parent.parent if node is not None and node.parent is not None else None
        if around is None or around.type != "class_declaration" or "static" in modifiers(node):
            continue
        members = [c for c in node.child_by_field_name("body").named_children if c.type not in COMMENTS]
        above = node.child_by_field_name("interfaces")
        listed = above.named_children[0].named_children if above is not None else []
        types = [text_of(t).partition("<")[0] for t in listed]
        plain_class = len(members) == 1 and members[0].type == "method_declaration" and len(types) == 1
        if not plain_class or node.child_by_field_name("superclass") is not None or not single(types[0]):
            continue
        calls = makings(file, scope, name)
        first = next((f for f in file.functions_sorted if calls and f.start <= calls[0].start_byte < f.end), None)
        if first is None or first.outer is not scope.parent or first.node is None or "static" in modifiers(first.node):
            continue
        made = of_method(file, first, calls[0].parent.parent, node, members[0])
        if made is not None:
            made.made, made.whole = [(c.start_byte, c.end_byte) for c in calls], True
            if len(calls) > 1:
                made.own, made.control = [], []
                made.event = [w for w in words(name) if w not in NO_PURPOSE]
            yield made


def makings(file: SourceFile, scope: Scope, name: str) -> list[Any]:
    """Where objects of an inner class are made, each handed over at once; none where it is used in another way."""
    found = []
    for node in within(file.tree.root_node, 0, len(file.text)):
        if node.type != "type_identifier" or text_of(node) != name:
            continue
        made = node.parent
        if made.type != "object_creation_expression" or made.parent.type != "argument_list":
            return []
        if body_of(made) is not None or made.child_by_field_name("arguments").named_child_count:
            return []
        if made.parent.parent.type != "method_invocation":
            return []
        found.append(made)
    return found


def written(node: Any) -> Iterator[tuple[Any, Any]]:
    """(what it is given to, lambda or new object) of each that is an argument or the value of a variable, outside of
    all others."""
    for child in node.named_children:
        anonymous = body_of(child) is not None
        if child.type == "lambda_expression" or anonymous:
            if node.type == "argument_list":
                yield node.parent, child
            elif node.type == "variable_declarator":
                yield node, child
        elif child.type not in OWN:
            yield from written(child)


def body_of(node: Any) -> Any:
    """The braces of an anonymous class; None if it is none."""
    if node.type != "object_creation_expression":
        return None
    return next((c for c in node.named_children if c.type == "class_body"), None)


def listening(file: SourceFile, method: Function, call: Any, node: Any) -> list[Listener]:
    if node.type == "lambda_expression":
        return lambdas(file, method, call, node)
    interface = node.child_by_field_name("type").text.decode().partition("<")[0].rsplit(".", 1)[-1]
    members = [c for c in body_of(node).named_children if c.type not in COMMENTS]
    if not plain(interface) or any(c.type != "method_declaration" for c in members):
        return []
    alone = len(members) == 1 and single(interface)
    found = []
    for member in members:
        made = of_method(file, method, call, node, member)
        if made is not None:
            if alone:
                made.start, made.end, made.whole = node.start_byte, node.end_byte, True
            found.append(made)
    return found


def of_method(file: SourceFile, method: Function, call: Any, node: Any, member: Any) -> Listener | None:
    """One method of an anonymous class."""
    body, name = member.child_by_field_name("body"), member.child_by_field_name("name").text.decode()
    given = [p for p in member.child_by_field_name("parameters").named_children if p.type not in COMMENTS]
    unusual = any(c.type in ("throws", "type_parameters") for c in member.named_children)
    if body is None or unusual or any(p.type != "formal_parameter" for p in given) or own_this(body):
        return None
    rows = STATEMENTS.statements(file, body)
    if not rows or delegates(rows):
        return None
    params = [(text_of(p.child_by_field_name("name")), text_of(p.child_by_field_name("type"))) for p in given]
    own, event, control = called(file, method, call, name)
    result = text_of(member.child_by_field_name("type"))
    return Listener(
        node.start_byte, node.end_byte, body.start_byte + 1, body.end_byte - 1, rows, params, event, control,
        method=method, own=own, gives="" if result == "void" else result,
    )  # fmt: skip


def delegates(rows: list[Any]) -> bool:
    """Whether it is one call, as what delegates to a method is."""
    if len(rows) != 1 or rows[0].node.type != "expression_statement":
        return False
    call = rows[0].node.named_children[0]
    owner = call.child_by_field_name("object") if call.type == "method_invocation" else None
    return bool(call.type == "method_invocation" and (owner is None or owner.type in ("this", "field_access")))


def lambdas(file: SourceFile, method: Function, call: Any, node: Any) -> list[Listener]:
    body, given = node.child_by_field_name("body"), node.child_by_field_name("parameters")
    interface = interface_of(call)
    if body.type != "block" or not several(file, body) or not single(interface):
        return []
    names = [given] if given.type == "identifier" else [c for c in given.named_children if c.type not in COMMENTS]
    typed = [(text_of(p.child_by_field_name("name")), text_of(p.child_by_field_name("type")))
             for p in names if p.type == "formal_parameter"]  # fmt: skip
    full, rows = event_of(interface), STATEMENTS.statements(file, body)
    if len(names) != int(bool(full)) or delegates(rows):
        return []
    params = typed if len(typed) == len(names) else [(text_of(n), imported_name(file, full)) for n in names]
    own, event, control = called(file, method, call, method_of(interface))
    made = Listener(node.start_byte, node.end_byte, body.start_byte + 1, body.end_byte - 1, rows, params)
    made.event, made.control, made.own, made.method, made.whole = event, control, own, method, True
    return [made]


def interface_of(call: Any) -> str:
    """The type of listener for which a lambda stands; "" if it is not told."""
    if call.type == "variable_declarator":
        kind = call.parent.child_by_field_name("type")
        return text_of(kind).partition("<")[0].rsplit(".", 1)[-1] if kind is not None else ""
    if call.type == "object_creation_expression":
        made = text_of(call.child_by_field_name("type")).rsplit(".", 1)[-1]
        return {"Timer": "ActionListener"}.get(made, "")
    name = text_of(call.child_by_field_name("name")) if call.type == "method_invocation" else ""
    found = REGISTERING.fullmatch(name)
    return found[1] if found is not None else ""


def registered_by(file: SourceFile, method: Function, name: str) -> Any:
    """The call that is handed a listener by the name of its variable; None if there is none."""
    body = method.node.child_by_field_name("body")
    for node in within(body, body.start_byte, body.end_byte):
        if node.type == "identifier" and text_of(node) == name and node.parent.type == "argument_list":
            if REGISTERING.fullmatch(text_of(node.parent.parent.child_by_field_name("name"))):
                return node.parent.parent
    return None


def called(file: SourceFile, method: Function, call: Any, name: str) -> tuple[list[str], list[str], list[str]]:
    """(words of its name, or else those for the event, and for what it is asked of)."""
    if call.type == "variable_declarator":
        asked = registered_by(file, method, text_of(call.child_by_field_name("name")))
        held = words(text_of(call.child_by_field_name("name")))
        about = [w for w in held if w not in NO_PURPOSE and len(w) > 1]
        if about or asked is None:
            return [], about if name == METHOD_OF_ACTION else [*about, *words(name)], []
        call = asked
    if call.type == "object_creation_expression":
        return made_for(call), [], []
    owner = call.child_by_field_name("object") if call.type == "method_invocation" else None
    control = control_of(owner)
    kind, label = made_as(file, method, control, call.start_byte) if control else ("", "")
    event = [w for w in words(name) if w != "action"] or ["event"]
    return name_of_event(name, control, label, kind), event, words(control)


def made_for(call: Any) -> list[str]:
    """Words for what a timer does; none for anything else that is made with a listener."""
    if text_of(call.child_by_field_name("type")).rsplit(".", 1)[-1] != "Timer":
        return []
    held = text_of(call.parent.child_by_field_name("name")) if call.parent.type == "variable_declarator" else ""
    return ["tick", *(w for w in words(held) if w not in ("timer", "t"))]


def control_of(owner: Any) -> str:
    """The variable that holds what is listened to, or what that is asked of; "" for the window itself."""
    while owner is not None and owner.type == "method_invocation":
        owner = owner.child_by_field_name("object")
    if owner is not None and owner.type == "field_access" and owner.child_by_field_name("object").type == "this":
        owner = owner.child_by_field_name("field")
    return text_of(owner) if owner is not None and owner.type == "identifier" else ""


def made_as(file: SourceFile, method: Function, control: str, at: int) -> tuple[str, str]:
    """The class of a control, and the text on it, where it is last made above a place in the same class."""
    above = file.text[method.outer.start : at].decode(file.encoding, "replace")
    around = file.text[method.outer.start : method.outer.end].decode(file.encoding, "replace")
    pattern = rf'\b{re.escape(control)}\s*=\s*(?:[\w.]+\(\s*)?new\s+([\w.]+)(?:<[^>]*>)?\s*\(\s*(?:"([^"\\]*)")?'
    made = [*re.finditer(pattern, around), *re.finditer(pattern, above)]
    if made:
        return made[-1][1].rsplit(".", 1)[-1], made[-1][2] or ""
    said = re.search(rf"\b([A-Z]\w*)(?:<[^>]*>)?\s+{re.escape(control)}\s*[;,=)]", around)
    return (said[1], "") if said is not None else ("", "")


def text_of(node: Any) -> str:
    """The text of a node; "" of none."""
    return str(node.text.decode()) if node is not None else ""
