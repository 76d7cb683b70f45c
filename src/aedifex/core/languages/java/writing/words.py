"""Names as they are written: classes, members, files."""

from __future__ import annotations

from ....program.model import SourceFile

KEYWORDS = frozenset(
    """
    abstract assert boolean break byte case catch char class const continue default do double else enum extends final
    finally
    float for goto if implements import instanceof int interface long native new package private protected public
    return short
    static strictfp super switch synchronized this throw throws transient try void volatile while true false null
    """.split()
)
DEFAULTS = {"int": "0", "long": "0L", "short": "(short) 0", "byte": "(byte) 0", "char": "'\\0'",
    "float": "0.0f", "double": "0.0", "boolean": "false", "color": "0"}  # fmt: skip
INHERITED = frozenset(
    {"toString", "equals", "hashCode", "finalize", "clone", "getClass", "notify", "notifyAll", "wait"}
)


def inherited(name: str) -> bool:
    """Whether a method of this name would take the place of one that every class has, or that the language looks
    for."""
    return name in INHERITED


def file_name(class_: str, like: str) -> str:
    """A file is named as its class, with the ending of the file that it comes from."""
    return class_ + (like[like.rindex(".") :] if "." in like else ".java")


def default_value(type_: str) -> str:
    """What a field of a type holds before it is set."""
    return DEFAULTS.get(type_, "null")


def sketch(file: SourceFile) -> bool:
    """Whether a file is a sketch: its globals stand in no class."""
    return file.path.endswith(".pde")
