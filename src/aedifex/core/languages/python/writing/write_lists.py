"""How lists of objects are written."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.model import SourceFile


def listed(file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str) -> str:
    """The statement that makes a list of objects."""
    line = f"{name} = [{', '.join(objects)}]"
    return line if len(line) <= 100 else f"{name} = [\n" + "".join(f"{unit}{o},\n" for o in objects) + "]"


def appended(file: SourceFile, name: str, object_: str) -> str:
    """The statement that adds an object to a list."""
    return f"{name}.append({object_})"


def length(name: str) -> str:
    """The number of objects in a list."""
    return f"len({name})"


def each(class_: str, item: str, collection: str) -> str:
    """What a loop says that goes through objects."""
    return f"{item} in {collection}"
