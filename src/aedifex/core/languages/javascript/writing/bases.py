"""Classes with a base, as JavaScript writes them."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.model import Scope, SourceFile
from .words import end, gap

CONSTRUCTOR_IS_INHERITED = True  # whether a class without a constructor has that of its base
BASE_IS_CALLED = True  # whether a constructor must let that of the base work, even if there is none


def extendable(file: SourceFile) -> bool:
    """Whether a class of the file can be given a base."""
    return True


def extends(file: SourceFile, scope: Scope, base: str) -> tuple[int, int, str]:
    """The edit that gives a class without bases one."""
    at = file.text.index(b"{", scope.start)
    while file.text[at - 1 : at] == b" ":
        at -= 1
    return at, at, f" extends {base}"


def fields(file: SourceFile, scope: Scope) -> dict[str, tuple[int, int]]:
    """The fields that a class with types declares, with where that stands."""
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.start + 1)
    while node.type != "class_declaration":
        node = node.parent
    found = {}
    for child in node.child_by_field_name("body").named_children:
        if child.type == "public_field_definition":
            found[child.child_by_field_name("name").text.decode()] = (child.start_byte, child.end_byte)
    return found


def field_text(text: str) -> str:
    """A field as the base declares it."""
    return text


def base_call(file: SourceFile, arguments: Sequence[str]) -> str:
    """The statement by which a constructor lets that of the base work; nothing of the object is there before."""
    return f"super({', '.join(arguments)}){end(file)}"


def constructor_text(file: SourceFile, unit: str, name: str, parameters: Sequence[str], lines: Sequence[str]) -> str:
    return (
        f"{unit}constructor{gap(file)}({', '.join(parameters)}) {{\n"
        + "".join(f"{line}\n" for line in lines)
        + f"{unit}}}\n"
    )


def class_with(file: SourceFile, unit: str, name: str, members: str) -> str:
    return f"class {name} {{\n{members}}}\n"


def nothing(file: SourceFile, unit: str) -> str:
    """What an empty class holds."""
    return ""
