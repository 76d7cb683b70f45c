"""Classes with a base, as JavaScript writes them."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.model import Scope, SourceFile
from .words import end, gap

BASE_IS_CALLED = True  # whether a constructor must let that of the base work, even if there is none

def extendable(file: SourceFile) -> bool:
    """Whether a class of the file can be given a base: fields with types would have to move as well."""
    return not file.path.endswith((".ts", ".tsx", ".mts", ".cts"))


def extends(file: SourceFile, scope: Scope, base: str) -> tuple[int, int, str]:
    """The edit that gives a class without bases one."""
    at = file.text.index(b"{", scope.start)
    while file.text[at - 1 : at] == b" ":
        at -= 1
    return at, at, f" extends {base}"


def base_call(file: SourceFile, arguments: Sequence[str]) -> str:
    """The statement by which a constructor lets that of the base work; nothing of the object is there before."""
    return f"super({', '.join(arguments)}){end(file)}"


def constructor_text(file: SourceFile, unit: str, parameters: Sequence[str], lines: Sequence[str]) -> str:
    return f"{unit}constructor{gap(file)}({', '.join(parameters)}) {{\n" + "".join(f"{line}\n" for line in lines) + f"{unit}}}\n"


def class_with(file: SourceFile, unit: str, name: str, members: str) -> str:
    return f"class {name} {{\n{members}}}\n"


def nothing(file: SourceFile, unit: str) -> str:
    """What an empty class holds."""
    return ""
