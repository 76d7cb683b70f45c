"""The lay-out of source text that is the same for every language: lines, indentation, blank lines, comments."""

from __future__ import annotations

import re
from codecs import BOM_UTF8
from collections.abc import Sequence
from itertools import pairwise

from .model import SourceFile


def words(name: str) -> list[str]:
    """``tram1_isOpen`` → tram1, is, open."""
    spaced = re.sub(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", "_", name)
    return [w.lower() for w in spaced.split("_") if w]


def class_name(parts: Sequence[str]) -> str:
    """The words of several names, each with a capital; no digit in front."""
    name = "".join(w[:1].upper() + w[1:] for part in parts for w in words(part))
    bare = name.lstrip("0123456789")
    return bare[:1].upper() + bare[1:] if bare or not name else "N" + name


def text_lines(text: str) -> list[str]:
    """The lines of a text as a source file counts them: a line feed ends one, and no other mark does."""
    found = text.replace("\r\n", "\n").split("\n")
    return found[:-1] if found[-1] == "" else found


def newline(file: SourceFile) -> str:
    """What ends the lines of a file."""
    return "\r\n" if b"\r\n" in file.text else "\n"


def with_newlines(text: str, nl: str) -> str:
    """A text with lines that end as those of its file."""
    return text.replace("\r\n", "\n").replace("\n", nl)


def indent_unit(file: SourceFile, marks: tuple[str, ...]) -> str:
    """By what a file indents: its first function tells, else the first indented line; marked lines, and those inside a
    text, say nothing."""
    for f in file.functions[:50]:
        outer, inner = (file.lines[file.line(at) - 1] for at in (f.head, f.body_start))
        lead, more = file.slice(outer, f.head), file.slice(inner, f.body_start)
        if outer != inner and not lead.strip() and not more.strip() and more.startswith(lead) and more != lead:
            return more[len(lead) :]
    for start, end in pairwise([*file.lines, len(file.text)]):
        if any(a < start < b for a, b in file.strings):
            continue
        line = file.slice(start, end).rstrip("\r\n")
        stripped = line.lstrip(" \t")
        if stripped and stripped != line and not stripped.startswith(marks):
            lead = line[: len(line) - len(stripped)]
            return "\t" if lead.startswith("\t") else lead if len(lead) in (2, 3, 4, 8) else "    "
    return "    "


def line_start(file: SourceFile, offset: int) -> int:
    """Where the line of an offset starts, after the byte order mark that may open the file."""
    found = file.lines[file.line(offset) - 1]
    return len(BOM_UTF8) if found == 0 and file.text.startswith(BOM_UTF8) else found


def line_end(file: SourceFile, offset: int) -> int:
    """The offset just after the newline of the line that holds ``offset``."""
    at = file.text.find(b"\n", offset)
    return len(file.text) if at < 0 else at + 1


def lead_of(file: SourceFile, offset: int) -> str:
    """The white space that leads the line of an offset."""
    line = file.slice(line_start(file, offset), line_end(file, offset))
    return line[: len(line) - len(line.lstrip(" \t"))]


def after_feed(file: SourceFile, start: int) -> int:
    """Where the indentation of a line begins: a form feed in front of it sets it back to nothing."""
    lead = file.text[start : line_end(file, start)]
    return start + lead[: len(lead) - len(lead.lstrip())].rfind(b"\f") + 1


def blank(file: SourceFile, line_start: int) -> bool:
    """Whether the line that starts at an offset has nothing but white space."""
    end = file.text.find(b"\n", line_start)
    return not file.text[line_start : end if end >= 0 else len(file.text)].strip()


def blank_before(file: SourceFile, offset: int) -> int:
    """Where the blank lines directly above a line start."""
    at = line_start(file, offset)
    while at > 0:
        above = line_start(file, at - 1)
        if file.text[above:at].strip():
            break
        at = above
    return at


def blank_after(file: SourceFile, offset: int) -> int:
    """Where the blank lines that start at ``offset`` (a line start) end."""
    at = offset
    while at < len(file.text):
        end = line_end(file, at)
        if file.text[at:end].strip():
            break
        at = end
    return at


def comment_start(file: SourceFile, offset: int, mark: bytes) -> int:
    """Where the comment lines directly above a line start (the line itself if there are none).

    ``mark`` opens a comment that ends with its line. What only the first lines of a file may say stays there.
    """
    at = line_start(file, offset)
    lead = file.text[at:offset]
    while at > len(BOM_UTF8):
        above = line_start(file, at - 1)
        line = file.text[above:at].strip()
        if not line.startswith(mark) or line.startswith(b"#!") or not file.text[above:at].startswith(lead + mark):
            break
        if above == 0 and b"coding" in line:
            break
        at = above
    return at


def trailing_comment(file: SourceFile, end: int, mark: str) -> str:
    """The comment after a statement on its last line, with the space before it; "" if there is none."""
    rest = file.text[end : line_end(file, end)].decode(file.encoding).rstrip("\r\n")
    return rest if rest.strip().startswith(mark) else ""


def indented(
    file: SourceFile,
    start: int,
    end: int,
    ranges: list[tuple[int, int, str]],
    prefix: str,
    loose: tuple[int, int] | None = None,
) -> str:
    """The lines of [start, end), each moved right by ``prefix``; the inside of long strings stays as it is.

    Ranges inside are replaced on the way. ``loose``: a string whose inside may move (a document string that
    nobody reads).
    """
    fixed = [s for s in file.strings if s != loose]
    marks: list[tuple[int, int, str]] = [r for r in ranges if start <= r[0] and r[1] <= end]
    for line_start in file.lines[file.line(start) - 1 :]:
        if line_start >= end:
            break
        if line_start < start or blank(file, line_start):
            continue
        if any(a < line_start < b for a, b in fixed) or any(a < line_start < b for a, b, _ in marks):
            continue
        if any(a <= line_start and line_end(file, line_start) <= b and not new for a, b, new in marks):
            continue  # the line goes
        at = after_feed(file, line_start)
        marks.append((at, at, prefix))
    marks.sort(key=lambda m: (m[0], m[1] != m[0]))
    out, at = [], start
    for left, right, text in marks:
        out += [file.slice(at, left), text]
        at = right
    out.append(file.slice(at, end))
    return "".join(out)


def shifted(file: SourceFile, start: int, end: int, ranges: list[tuple[int, int, str]], lead: str, new: str) -> str:
    """The text of [start, end), which begins inside a line that is led by ``lead``, with its lines led by ``new``
    instead.

    The inside of long strings stays as it is; a line that is led by less keeps what it has in front.
    """
    marks = [r for r in ranges if start <= r[0] and r[1] <= end]
    for at in file.lines[file.line(start) :]:
        if at >= end:
            break
        inside = any(a < at < b for a, b in file.strings) or any(a < at < b for a, b, _ in marks)
        if inside or blank(file, at) or any(a <= at and line_end(file, at) <= b and not text for a, b, text in marks):
            continue
        text = file.text[at : at + len(lead.encode())].decode(file.encoding, "replace")
        same = 0
        while same < min(len(text), len(lead)) and text[same] == lead[same]:
            same += 1
        marks.append(
            (
                at,
                at + same,
                new
                if same == len(lead)
                else new[: len(new) - (len(lead) - same)]
                if len(new) > len(lead) - same
                else "",
            )
        )
    marks.sort(key=lambda m: (m[0], m[1] != m[0]))
    out, at = [new], start
    for left, right, text in marks:
        out += [file.slice(at, left), text]
        at = right
    out.append(file.slice(at, end))
    return "".join(out)
