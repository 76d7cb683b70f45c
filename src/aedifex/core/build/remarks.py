"""No remark is lost: one that stood in what a step took away stands above what took its place."""

from __future__ import annotations

from collections.abc import Iterator
from difflib import SequenceMatcher
from typing import Any

from ..program.language import reread
from ..program.model import Program, SourceFile
from .step import Step

Changes = dict[str, bytes | None]


def remarks(file: SourceFile) -> Iterator[tuple[int, str]]:
    """(offset, text) of each remark, in source order."""
    queue = [file.tree.root_node] if file.tree is not None else []
    while queue:
        node = queue.pop()
        if node.type.endswith("comment"):
            yield node.start_byte, file.slice(node.start_byte, node.end_byte).strip()
        else:
            queue += reversed(node.children)


def with_remarks(step: Step, before: Program, after: Program, changes: Changes) -> tuple[Program, Changes]:
    """The program after a step, and what the step changes, with the remarks that it would have lost."""
    if getattr(step, "traced", False):
        return after, changes  # places of other steps are followed through its edits, and it takes nothing away
    touched = [f for p, f in before.holders.items() if p in changes]
    there = {text for f in after.files.values() for _, text in remarks(f)}
    lost = list(dict.fromkeys(text for f in dict.fromkeys(touched) for _, text in remarks(f) if text not in there))
    if not lost or (place := home(step, before, after, changes)) is None:
        return after, changes
    file, at = place
    write = after.language.write
    start = write.line_start(file, at)
    lead = file.slice(start, at) if not file.text[start:at].strip() else ""
    nl = write.newline(file)
    text = "".join(lead + remark.replace("\r\n", "\n").replace("\n", nl) + nl for remark in lost).encode(file.encoding)
    made = {path: (before_text, part) for path, before_text, part in parts(file, start, text)}
    more = {path: whole for path, (_, whole) in made.items()}
    return reread(after, dict(more)), {**changes, **more}


def parts(file: SourceFile, at: int, text: bytes) -> Iterator[tuple[str, bytes, bytes]]:
    """(path, its text, its text with an insertion) of the part of a file that holds an offset."""
    for path, start, end in file.parts:
        if start <= at <= end:
            old = file.text[start:end]
            yield path, old, old[: at - start] + text + old[at - start :]
            return


def home(step: Step, before: Program, after: Program, changes: Changes) -> tuple[SourceFile, int] | None:
    """Where remarks go: above the method, the object or the function that the step makes, else above the first line that it changes."""
    design: Any = getattr(step, "design", None)
    method: Any = getattr(step, "method", None)
    files = list(dict.fromkeys(f for p, f in after.holders.items() if p in changes))
    hidden = after.language.write.hidden
    for file in files:
        for f in file.functions if method is not None and design is not None else ():
            if f.outer.kind == "class" and f.outer.name == design.name and f.name in (method.name, hidden(method.name)):
                return file, f.start
        names = {o.name for o in design.objects} | {o.collection for o in design.objects} if design is not None else {getattr(step, "name", "")}
        for s in file.statements:
            if s.target is not None and s.target.name in names:
                return file, s.start
        for f in file.tops:
            if f.name in names:
                return file, f.start
        for scope, name in file.classes:
            if design is not None and name == design.name:
                return file, holder(file, scope.start)
    return first_changed(before, files)


def holder(file: SourceFile, at: int) -> int:
    return next((s.start for s in file.statements if s.start <= at < s.end), at)


def first_changed(before: Program, files: list[SourceFile]) -> tuple[SourceFile, int] | None:
    for file in files:
        old: Any = before.files.get(file.path)
        if old is None:
            continue
        was, now = old.text.split(b"\n"), file.text.split(b"\n")
        line = next((b for tag, _, _, b, _ in SequenceMatcher(None, was, now, autojunk=False).get_opcodes() if tag != "equal"), None)
        if line is not None:
            start = file.lines[min(line, len(file.lines) - 1)]
            return file, min((s.start for s in file.statements if s.start >= start), default=start)
    return None
