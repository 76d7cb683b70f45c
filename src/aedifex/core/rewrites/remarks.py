"""No remark is lost: one that stood in what a step took away stands above what took its place."""

from __future__ import annotations

from difflib import SequenceMatcher
from typing import Any

from ..program.code_text import remarks
from ..program.model import SourceFile
from ..program.program import Program, reread
from .step import Step

Changes = dict[str, bytes | None]


def with_remarks(step: Step, before: Program, changes: Changes) -> tuple[Program, Changes]:
    """The program after a step, and what the step changes, with the remarks that it would have lost."""
    after = reread(before, changes)
    if getattr(step, "traced", False):
        return after, changes  # places of other steps are followed through its edits, and it takes nothing away
    touched = [f for p, f in before.holders.items() if p in changes]
    there = {words_said(text) for f in after.files.values() for text in remarks(f)}
    had = dict.fromkeys(text for f in dict.fromkeys(touched) for text in remarks(f))
    lost = [text for text in had if words_said(text) not in there]
    if not lost or (place := home_of_remarks(step, before, after, changes)) is None:
        return after, changes
    file, at = place
    write = after.language.write
    start = write.line_start(file, at)
    lead = file.slice(start, at) if not file.text[start:at].strip() else ""
    nl = write.newline(file)
    text = "".join(lead + remark.replace("\r\n", "\n").replace("\n", nl) + nl for remark in lost).encode(file.encoding)
    more = with_inserted(file, start, text)
    return reread(after, more), {**changes, **more}


def words_said(remark: str) -> str:
    """The words of a remark, however its lines are led."""
    return " ".join(remark.split())


def with_inserted(file: SourceFile, at: int, text: bytes) -> Changes:
    """The part of a file that holds an offset, with a text put in there."""
    for path, start, end in file.parts:
        if start <= at <= end:
            return {path: file.text[start:at] + text + file.text[at:end]}
    return {}


def home_of_remarks(step: Step, before: Program, after: Program, changes: Changes) -> tuple[SourceFile, int] | None:
    """Where remarks go: above the method, the object or the function that the step makes, else above the first line
    that it changes."""
    design: Any = getattr(step, "design", None)
    method: Any = getattr(step, "method", None)
    files = list(dict.fromkeys(f for p, f in after.holders.items() if p in changes))
    hidden = after.language.write.hidden
    for file in files:
        for f in file.functions if method is not None and design is not None else ():
            if f.outer.kind == "class" and f.outer.name == design.name and f.name in (method.name, hidden(method.name)):
                return file, f.start
        names = (
            {o.name for o in design.objects} | {o.collection for o in design.objects}
            if design is not None
            else {getattr(step, "name", "")}
        )
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
        line = next(
            (b for tag, _, _, b, _ in SequenceMatcher(None, was, now, autojunk=False).get_opcodes() if tag != "equal"),
            None,
        )
        if line is not None:
            start = file.lines[min(line, len(file.lines) - 1)]
            return file, min((s.start for s in file.statements if s.start >= start), default=start)
    return None
