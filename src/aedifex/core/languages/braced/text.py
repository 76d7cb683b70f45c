"""The lay-out of languages that write blocks in braces and comments with // and /* */: what their writers share."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence

from ...program import layout
from ...program.edits import Range as Edit
from ...program.layout import line_start
from ...program.model import Scope, SourceFile, Statement


def indent_unit(file: SourceFile) -> str:
    return layout.indent_unit(file, ("//", "*", "/*"))


def comment_start(file: SourceFile, offset: int) -> int:
    """Where the comments directly above a line start, whole lines and blocks (the line itself if there are none)."""
    first = layout.comment_start(file, offset, b"//")
    at = first if not banner(file, first) else line_start(file, offset)
    while at > 0:
        end = len(file.text[:at].rstrip())
        if not file.text[:end].endswith(b"*/") or file.text.count(b"\n", end, at) != 1:
            break
        opened = file.text.rfind(b"/*", 0, end)
        start = line_start(file, opened)
        if opened < 0 or file.text[start:opened].strip() or banner(file, start):
            break
        at = layout.comment_start(file, opened, b"//")
    return at


def banner(file: SourceFile, start: int) -> bool:
    """Whether a comment opens the file: it speaks of the file, not of what follows."""
    before = next((s for s in file.statements if s.kind != "docstring"), None)
    return file.text[start : start + 1] == b"/" and before is not None and not remarks_before(file, start, before)


def remarks_before(file: SourceFile, start: int, first: Statement) -> bool:
    """Whether anything but directives stands before an offset."""
    opening = [s.end for s in file.statements if s.kind == "docstring"]
    text = file.text[max(opening, default=0) : start].strip()
    return start > first.start or bool(text and not text.startswith(b"#!")) or b"\n" in text


def trailing_comment(file: SourceFile, end: int) -> str:
    return layout.trailing_comment(file, end, "//")


def method_place(file: SourceFile, scope: Scope) -> tuple[int, str, str]:
    """Where a class gets another method: before the line of its closing brace."""
    brace = scope.end - 1
    start = line_start(file, brace)
    if file.text[start:brace].strip():
        return brace, "\n", ""
    return start, "", ""


def empty_class(file: SourceFile, scope: Scope) -> tuple[int, int] | None:
    """The placeholder of an empty class: none is needed."""
    return None


def bare_class(file: SourceFile, scope: Scope) -> bool:
    """Whether a class has no member yet."""
    text = file.text[scope.start : scope.end]
    return not text[text.index(b"{") + 1 : -1].strip()


def room(above: bytes, below: bytes) -> int:
    """How many blank lines may stand between two lines."""
    return 1


def top_lead(file: SourceFile, unit: str) -> str:
    return ""


def tokens(file: SourceFile, start: int, end: int, edits: list[Edit], comments: tuple[str, ...]) -> list[str]:
    """The words of a stretch of code without comments and layout, with some ranges replaced."""
    replaced = {(a, b): text for a, b, text in edits}
    found: list[str] = []
    stack = [file.tree.root_node.descendant_for_byte_range(start, end)]
    while stack:
        node = stack.pop()
        if node.end_byte <= start or node.start_byte >= end or node.type in comments:
            continue
        place = (node.start_byte, node.end_byte)
        if place in replaced:
            found.append(replaced[place])
        elif node.child_count == 0:
            if node.start_byte >= start:
                found.append(file.slice(*place))
        else:
            stack.extend(reversed(node.children))
    return found


def bound_names(file: SourceFile, statement: Statement) -> set[str]:
    """The names at the top that a statement binds."""
    return {
        r.name
        for r in file.within(statement.start, statement.end)
        if r.writes and r.symbol is not None and r.symbol.scope is file.scope and r.scope is file.scope
    }


# -- names, and what is written alike ---------------------------------------------------------

NAME = re.compile(r"[A-Za-z_$][\w$]*")


def member_name(keywords: frozenset[str], parts: Sequence[str], like: str = "") -> str:
    """A field, method or variable name, in the case of ``like``; never a keyword."""
    if "_" in like.strip("_"):
        name = "_".join(parts)
    else:
        name = "".join(p if i == 0 else p[:1].upper() + p[1:] for i, p in enumerate(parts))
    if not name or name[0].isdigit():
        name = "n" + name
    return name + "_" if name in keywords else name


def is_name(keywords: frozenset[str], text: str) -> bool:
    return NAME.fullmatch(text) is not None and text not in keywords


def top_module(module: str) -> str:
    """Under what name a file beside the importing one would hide a module: nothing is found by a bare name."""
    return ""


def everywhere_import(module: str) -> bool:
    """No import says how its file is read."""
    return False


def packaged_import(module: str) -> bool:
    """Imports mean the same for every file of a folder."""
    return False


def packaged(folder: str, exists: Callable[[str], bool]) -> str:
    """A file can be put beside the others of any folder."""
    return ""


def stale(path: str) -> list[str]:
    """Nothing is kept beside a source file that its text makes."""
    return []


def with_methods(class_: str, methods: Sequence[str]) -> str:
    """The text of a class with methods behind what it has already."""
    at = class_.rindex("\n", 0, class_.rindex("}")) + 1
    apart = "" if class_[:at].rstrip().endswith("{") and "\n" not in class_[:at].rstrip() else "\n"
    return class_[:at] + apart + "\n".join(methods) + class_[at:]


def make(class_: str, args: Sequence[str]) -> str:
    return f"new {class_}({', '.join(args)})"


def member(owner: str, name: str) -> str:
    return f"{owner}.{name}"


def empty_body() -> str:
    return ";"


def keyword_argument(name: str, value: str) -> str:
    return value


def reads_documents(files: Sequence[SourceFile]) -> bool:
    return False


def inserted(text: bytes, words: list[tuple[int, str]]) -> bytes:
    """A text with words put in at some offsets; those at one offset in the order given."""
    parts, at = [], 0
    for offset, new in sorted(words, key=lambda w: w[0]):
        parts += [text[at:offset], new.encode()]
        at = offset
    return b"".join([*parts, text[at:]])
