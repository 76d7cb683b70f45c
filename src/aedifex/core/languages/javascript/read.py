"""Read JavaScript and TypeScript: bytes in, a SourceFile out."""

from __future__ import annotations

import sys

from ...program import curly
from ...program.errors import AedifexError
from ...program.model import Scope, SourceFile
from .grammar import dialect, parser
from .resolve import resolve
from .structure import statements
from .walk import Walker

DEEP = 40_000  # frames: a walk takes a few for each level of nesting


def read(path: str, text: bytes) -> SourceFile:
    """Read one file. Broken syntax becomes problems with lines; unusable bytes raise AedifexError."""
    curly.refuse_unreadable(path, text)
    name = dialect(path)
    root = parser(name).parse(text)
    file = SourceFile(path, text, "utf-8", Scope("module", "<module>", None, 0, len(text)))
    file.tree = root
    limit = sys.getrecursionlimit()
    sys.setrecursionlimit(max(limit, DEEP))
    try:
        modular = any(n.type in ("import_statement", "export_statement") for n in root.root_node.named_children)
        Walker(file, name, modular or path.endswith((".mjs", ".mts"))).run(root.root_node)
        resolve(file)
        file.statements = statements(file, root.root_node)
        file.imports = [s for s in file.statements if s.kind == "import"]
    except RecursionError:
        raise AedifexError(f"{path}: is nested too deeply to be read; split its deepest expression.") from None
    finally:
        sys.setrecursionlimit(limit)
    if root.root_node.has_error:
        file.problems = curly.broken(path, root.root_node)
    return file
