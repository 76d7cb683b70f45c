"""Classes with a base, as Java and sketches write them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ....program.model import Scope, SourceFile

CONSTRUCTOR_IS_INHERITED = False  # whether a class without a constructor has that of its base
BASE_IS_CALLED = False  # whether a constructor must let that of the base work, even if there is none
OPENED = re.compile(r"\b(private|protected|public|final)\s+")


def extendable(file: SourceFile) -> bool:
    """Whether a class of the file can be given a base."""
    return True


def node_of(file: SourceFile, scope: Scope) -> Any:
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.start + 1)
    while node.type != "class_declaration" or node.end_byte < scope.end:
        node = node.parent
    return node


def extends(file: SourceFile, scope: Scope, base: str) -> tuple[int, int, str]:
    """The edit that gives a class without bases one."""
    name = node_of(file, scope).child_by_field_name("name")
    return name.end_byte, name.end_byte, f" extends {base}"


def fields(file: SourceFile, scope: Scope) -> dict[str, tuple[int, int]]:
    """The fields that a class declares, one each, with where that stands."""
    found = {}
    for child in node_of(file, scope).child_by_field_name("body").named_children:
        parts = (
            [c for c in child.named_children if c.type == "variable_declarator"]
            if child.type == "field_declaration"
            else []
        )
        if len(parts) == 1 and "static" not in file.slice(child.start_byte, parts[0].start_byte).split():
            found[parts[0].child_by_field_name("name").text.decode()] = (child.start_byte, child.end_byte)
    return found


def field_text(text: str) -> str:
    """A field as the base declares it: what extends it must see it."""
    return OPENED.sub("", text)


def base_call(file: SourceFile, arguments: Sequence[str]) -> str:
    """The statement by which a constructor lets that of the base work."""
    return f"super({', '.join(arguments)});"


def constructor_text(file: SourceFile, unit: str, name: str, parameters: Sequence[str], lines: Sequence[str]) -> str:
    lead = "" if file.path.endswith(".pde") else unit
    return (
        f"{lead}{unit}{name}({', '.join(parameters)}) {{\n"
        + "".join(f"{line}\n" for line in lines)
        + f"{lead}{unit}}}\n"
    )


def class_with(file: SourceFile, unit: str, name: str, members: str) -> str:
    lead, word = ("", "") if file.path.endswith(".pde") else (unit, "static ")
    return f"{lead}{word}class {name} {{\n{members}{lead}}}\n"


def nothing(file: SourceFile, unit: str) -> str:
    """What an empty class holds."""
    return ""
