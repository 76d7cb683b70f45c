"""Names as they are written: classes, members, files; strings and semicolons in the manner of the file."""

from __future__ import annotations

import re
from functools import partial

from ....program.layout import words
from ....program.model import SourceFile
from ...braced import text as curly

KEYWORDS = frozenset(
    """
    break case catch class const continue debugger default delete do else enum export extends false finally for
    function if
    import in instanceof new null return super switch this throw true try typeof var void while with yield let static
    implements
    interface package private protected public await constructor
    """.split()
)
STRICT = frozenset(["implements", "interface", "let", "package", "private", "protected", "public", "static", "yield"])
member_name = partial(curly.member_name, KEYWORDS)
is_name = partial(curly.is_name, KEYWORDS)
TYPED = (".ts", ".tsx", ".mts", ".cts")  # files in which types are written
INHERITED = frozenset(
    {"constructor", "toString", "toLocaleString", "valueOf", "toJSON", "then", "hasOwnProperty", "isPrototypeOf"}
)


def inherited(name: str) -> bool:
    """Whether a method of this name would take the place of one that every class has, or that the language looks
    for."""
    return name in INHERITED or name.startswith("[")


def typed(file: SourceFile) -> bool:
    """Whether types are written in a file."""
    return file.path.endswith(TYPED)


def hidden(name: str) -> str:
    """The name of a member that only its class uses."""
    return "_" + name.lstrip("_")


def file_name(class_: str, like: str) -> str:
    """The file of a class, with the ending of the file that it comes from."""
    parts = words(class_)
    ending = like[like.rindex(".") :] if "." in like else ".js"
    return "".join(p if i == 0 else p.capitalize() for i, p in enumerate(parts)) + ending


def quote(file: SourceFile) -> str:
    """The quotation mark that a file uses most."""
    return "'" if file.text.count(b"'") > file.text.count(b'"') else '"'


def end(file: SourceFile) -> str:
    """What ends a statement in this file: ";" unless it leaves them out."""
    lines = [line.rstrip() for line in file.text.split(b"\n")]
    with_mark = sum(line.endswith(b";") for line in lines)
    without = sum(
        bool(line) and line[-1:] not in b";{},([:>" and not line.lstrip().startswith((b"//", b"*", b"/*"))
        for line in lines
    )
    return ";" if with_mark * 3 >= without else ""


statement_end = end


def old_style(file: SourceFile) -> bool:
    """Whether a file declares everything with ``var``."""
    return b"var " in file.text and not re.search(rb"\b(?:let|const)\s|=>", file.text)


HEADS = re.compile(
    rb"\bfunction\s+[\w$]+( ?)\(|"
    rb"^[ \t]+(?:async )?(?!(?:if|for|while|switch|catch|with|return)\b)[\w$]+( ?)\([^()\n]*\) \{",
    re.M,
)


def gap(file: SourceFile) -> str:
    """What the file has between the name of a function and its parameters."""
    wide = [m[1] if m[1] is not None else m[2] for m in HEADS.finditer(file.text)]
    return " " if wide.count(b" ") > len(wide) / 2 else ""
