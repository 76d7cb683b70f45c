"""Read Java and sketches: bytes in, a SourceFile out."""

from __future__ import annotations

import re
from typing import Any

from ....program.model import Scope, SourceFile
from ....program.reading import broken, deeply, refuse_unreadable
from .grammar import masked, parser
from .inheriting import made_quietly
from .resolve import resolve
from .structure import STATEMENTS
from .walk import Walker, modifiers

SKETCH = ".pde"


def read(path: str, text: bytes) -> SourceFile:
    """Read one file, or the joined files of a sketch. Broken syntax becomes problems with lines; unusable bytes raise
    AedifexError."""
    refuse_unreadable(path, text)
    root = parser().parse(masked(text) if path.endswith(SKETCH) else text)
    file = SourceFile(path, text, "utf-8", Scope("module", "<module>", None, 0, len(text)))
    file.tree = root
    main = "" if path.endswith(SKETCH) else main_class(root.root_node)
    file.scope.name = main or "<module>"
    with deeply(path):
        walker = Walker(file, main)
        walker.run(root.root_node)
        resolve(file, walker.kinds)
        file.statements = STATEMENTS.top(file, root.root_node, main)
        file.imports = [s for s in file.statements if s.kind == "import"]
        quiet = {at for at in file.opaque_calls if made_quietly(file, at)}
        file.quiet_calls += sorted(quiet)
        file.opaque_calls = [at for at in file.opaque_calls if at not in quiet]
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node)
    return file


def main_class(root: Any) -> str:
    """The class whose static members are the program: that with ``main``, else the first with changing static
    fields."""
    classes = [c for c in root.named_children if c.type == "class_declaration"]
    for wanted in (starts, holds_state):
        for node in classes:
            if any(wanted(member) for member in node.child_by_field_name("body").named_children):
                return str(node.child_by_field_name("name").text.decode())
    return ""


def starts(member: Any) -> bool:
    return (
        member.type == "method_declaration"
        and member.child_by_field_name("name").text == b"main"
        and "static" in modifiers(member)
    )


def holds_state(member: Any) -> bool:
    words = modifiers(member)
    return member.type == "field_declaration" and "static" in words and "final" not in words


def module_text(text: bytes) -> str:
    """The package that a file says it is in."""
    found = re.search(rb"^\s*package\s+([\w.]+)\s*;", text, re.M)
    return found[1].decode() if found else ""
