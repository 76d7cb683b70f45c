"""Text that is run as code: which names it can see."""

from __future__ import annotations

import re
from typing import Any

from ....program.model import Reference, SourceFile
from ..facts.pure import PURITY
from .structure import arguments

WAYS_IN = re.compile(
    rb"\b(?:__dict__|__main__|__globals__|__import__|f_globals|f_locals|f_back|tb_frame|gi_frame|cr_frame|modules)\b"
)
ELSEWHERE = re.compile(rb"\b__main__(\s*\.\s*__dict__)?\b")
TEXT = r"""[rbuRBU]{0,2}(?:\"(?P<a>[^\"\\\n]*)\"|'(?P<b>[^'\\\n]*)')"""
FIELD = re.compile(r"%\((\w+)\)|\{(\w+)|\$\{?(\w+)")
ASKED = frozenset({"globals", "locals", "vars"})


def confined(file: SourceFile, call: Reference) -> bool:
    """Whether ``exec`` or ``eval`` is given a namespace that cannot be the file's own: nothing here ever gets hold of
    that one."""
    found = next((c for c in file.calls_within(call.start, call.end) if c.callee is call), None)
    if found is None or call.name not in ("exec", "eval"):
        return False
    args = arguments(file, found)
    if len(args) < 2 or any(a.keyword in ("*", "**") for a in args[:2]):
        return False
    text = ELSEWHERE.sub(b"", file.text) if runs_nothing(file) else file.text
    own = any(r.name in ASKED and (r.symbol is None or not r.symbol.kinds) for r in file.references)
    return not own and WAYS_IN.search(text) is None


def runs_nothing(file: SourceFile) -> bool:
    """Whether a file only defines: then another one is started, and what is called ``__main__`` is that one."""
    return all(
        s.kind in ("import", "function", "class", "docstring", "pass", "annotate")
        or (s.kind == "assign" and s.value is not None and PURITY.purity(file, s.value) != "effect")
        for s in file.statements
    )


def looked_up(file: SourceFile, call: Reference) -> set[str] | None:
    """The names that are looked up in what ``globals()`` and the like give, where nothing else is done with that; None
    if more may be."""
    node = file.tree.root_node.descendant_for_byte_range(call.start, call.end).parent
    if node is not None and call.member:
        return of_registry(file, node)
    if node is None or node.type != "call" or node.child_by_field_name("arguments").named_child_count:
        return None
    around = node.parent
    if around is None:
        return None
    if around.type == "keyword_argument" and around.child_by_field_name("name").text == b"globals":
        callee = around.parent.parent.child_by_field_name("function")
        return (
            set()
            if callee is not None and callee.text.rsplit(b".", 1)[-1] in (b"timeit", b"repeat", b"Timer")
            else None
        )  # its texts are read
    if around.type == "subscript":
        return words(file, around.child_by_field_name("subscript"), whole=True)
    if around.type == "comparison_operator" and around.named_children[0] != node:
        return words(file, around.named_children[0], whole=True)
    if around.type == "attribute" and around.parent is not None and around.parent.type == "call":
        args = around.parent.child_by_field_name("arguments").named_children
        asks = around.child_by_field_name("attribute").text in (
            b"get",
            b"__getitem__",
            b"__contains__",
            b"pop",
            b"setdefault",
        )
        return words(file, args[0], whole=True) if asks and args else None
    if around.type == "binary_operator":
        return words(file, around.child_by_field_name("left"))
    spread = around.type == "dictionary_splat"
    holder = around.parent if spread else around
    if holder is None or holder.type != "argument_list" or holder.parent is None or holder.parent.type != "call":
        return None
    callee = holder.parent.child_by_field_name("function")
    if callee.type != "attribute" or holder.named_child_count != 1:
        return None
    member, base = callee.child_by_field_name("attribute").text, callee.child_by_field_name("object")
    if (spread and member == b"format") or (not spread and member == b"format_map"):
        return words(file, base)
    if member in (b"substitute", b"safe_substitute") and base.type == "call":
        given = base.child_by_field_name("arguments").named_children
        return words(file, given[0]) if given else None
    return None


def of_registry(file: SourceFile, node: Any) -> set[str] | None:
    """The same for ``sys.modules[__name__].score`` and ``sys._getframe(0).f_globals["score"]``; ``node``: what stands
    for the registry."""
    found = node.parent
    if found is None or found.type not in ("subscript", "call") or found.named_children[0] != node:
        return None
    member = found.parent
    if member is None or member.type != "attribute" or member.child_by_field_name("object") != found:
        return None
    name = member.child_by_field_name("attribute").text.decode(file.encoding, "replace")
    if name in ("f_globals", "__dict__"):
        around = member.parent
        return (
            words(file, around.child_by_field_name("subscript"), whole=True)
            if around is not None and around.type == "subscript"
            else None
        )
    return {name} if found.type == "subscript" and not name.startswith("__") else None


def words(file: SourceFile, node: Any, whole: bool = False) -> set[str] | None:
    """The names that a literal text is (``whole``), or has fields for; None where it is no plain text."""
    if node is None or node.type != "string" or any(c.type == "interpolation" for c in node.named_children):
        return None
    match = re.fullmatch(TEXT, file.slice(node.start_byte, node.end_byte))
    if match is None:
        return None
    text = match["a"] if match["a"] is not None else match["b"]
    return {text} if whole else {next(g for g in m.groups() if g) for m in FIELD.finditer(text)}
