"""Read JavaScript and TypeScript: bytes in, a SourceFile out."""

from __future__ import annotations

from ....program.model import Scope, SourceFile
from ....program.reading import broken, deeply, refuse_unreadable
from ...braced.lookup import resolve
from .grammar import dialect, parser
from .structure import STATEMENTS
from .walk import Walker


def read(path: str, text: bytes) -> SourceFile:
    """Read one file. Broken syntax becomes problems with lines; unusable bytes raise AedifexError."""
    refuse_unreadable(path, text)
    name = dialect(path)
    root = parser(name).parse(text)
    file = SourceFile(path, text, "utf-8", Scope("module", "<module>", None, 0, len(text)))
    file.tree = root
    with deeply(path):
        modular = any(n.type in ("import_statement", "export_statement") for n in root.root_node.named_children)
        Walker(file, name, modular or path.endswith((".mjs", ".mts"))).run(root.root_node)
        resolve(file)
        file.statements = STATEMENTS.statements(file, root.root_node)
        file.imports = [s for s in file.statements if s.kind == "import"]
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node)
    return file
