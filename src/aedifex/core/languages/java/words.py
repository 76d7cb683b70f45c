"""Names as they are written: classes, members, files."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ...program.layout import words

KEYWORDS = frozenset(
    """
    abstract assert boolean break byte case catch char class const continue default do double else enum extends final finally
    float for goto if implements import instanceof int interface long native new package private protected public return short
    static strictfp super switch synchronized this throw throws transient try void volatile while true false null var record yield
    """.split()  # noqa: SIM905
)
NAME = re.compile(r"[A-Za-z_$][\w$]*")
DEFAULTS = {"int": "0", "long": "0L", "short": "(short) 0", "byte": "(byte) 0", "char": "'\\0'", "float": "0.0f", "double": "0.0",
            "boolean": "false", "color": "0"}  # fmt: skip


def class_name(parts: Sequence[str]) -> str:
    return "".join(w[:1].upper() + w[1:] for part in parts for w in words(part))


def member_name(parts: Sequence[str], like: str = "") -> str:
    """A field, method or variable name, in the case of ``like``; never a keyword."""
    if "_" in like.strip("_"):
        name = "_".join(parts)
    else:
        name = "".join(p if i == 0 else p[:1].upper() + p[1:] for i, p in enumerate(parts))
    if not name or name[0].isdigit():
        name = "n" + name
    return name + "_" if name in KEYWORDS else name


def hidden(name: str) -> str:
    """Hiding is a word in front of the field, not a part of its name."""
    return name


def is_name(text: str) -> bool:
    return NAME.fullmatch(text) is not None and text not in KEYWORDS


def file_name(class_: str, like: str) -> str:
    """A file is named as its class, with the ending of the file that it comes from."""
    return class_ + (like[like.rindex(".") :] if "." in like else ".java")


def default_value(type_: str) -> str:
    """What a field of a type holds before it is set."""
    return DEFAULTS.get(type_, "null")
