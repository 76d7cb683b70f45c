"""Classes with a base, as Python writes them."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.model import Scope, SourceFile

CONSTRUCTOR_IS_INHERITED = True  # whether a class without a constructor has that of its base
BASE_IS_CALLED = False  # whether a constructor must let that of the base work, even if there is none


def extendable(file: SourceFile) -> bool:
    """Whether a class of the file can be given a base."""
    return True


def extends(file: SourceFile, scope: Scope, base: str) -> tuple[int, int, str]:
    """The edit that gives a class without bases one."""
    node = file.tree.root_node.named_descendant_for_byte_range(scope.start, scope.start)
    while node.type != "class_definition":
        node = node.parent
    name, body = node.child_by_field_name("name"), node.child_by_field_name("body")
    colon = (
        file.text.rindex(b":", name.end_byte, body.start_byte)
        if b":" in file.text[name.end_byte : body.start_byte]
        else name.end_byte
    )
    return name.end_byte, colon, f"({base})"


def fields(file: SourceFile, scope: Scope) -> dict[str, tuple[int, int]]:
    """Nothing is declared."""
    return {}


def field_text(text: str) -> str:
    return text


def base_call(file: SourceFile, arguments: Sequence[str]) -> str:
    """The statement by which a constructor lets that of the base work."""
    return f"super().__init__({', '.join(arguments)})"


def constructor_text(file: SourceFile, unit: str, name: str, parameters: Sequence[str], lines: Sequence[str]) -> str:
    return f"{unit}def __init__({', '.join(['self', *parameters])}):\n" + "".join(f"{line}\n" for line in lines)


def class_head(name: str, base: str = "") -> str:
    """The first line of a class."""
    return f"class {name}({base}):\n" if base else f"class {name}:\n"


def class_with(file: SourceFile, unit: str, name: str, members: str) -> str:
    return class_head(name) + members


def nothing(file: SourceFile, unit: str) -> str:
    """What an empty class holds."""
    return f"{unit}pass\n"
