"""Read Python source: bytes in, a SourceFile out."""

from __future__ import annotations

import codecs
import re
import sys
from typing import Any

import tree_sitter
import tree_sitter_python

from ...program.errors import AedifexError
from ...program.model import Problem, Scope, SourceFile
from .resolve import resolve
from .structure import statements
from .walk import Walker

_parser: tree_sitter.Parser | None = None
CODING = re.compile(rb"^[ \t\f]*#.*?coding[:=][ \t]*([-\w.]+)")
DEEP = 40_000  # frames: a walk takes a few for each level of nesting


def parser() -> tree_sitter.Parser:
    global _parser
    if _parser is None:
        _parser = tree_sitter.Parser(tree_sitter.Language(tree_sitter_python.language()))
    return _parser


def encoding_of(path: str, text: bytes) -> str:
    """The declared encoding, or UTF-8. Raises AedifexError if unknown or if the text is not in it."""
    declared = None
    if text.startswith(codecs.BOM_UTF8):
        declared = "utf-8"
    else:
        for head in text.split(b"\n", 2)[:2]:
            match = CODING.match(head)
            if match:
                declared = match[1].decode("ascii")
                break
    try:
        name = codecs.lookup(declared or "utf-8").name
    except LookupError:
        raise AedifexError(
            f"{path}:1: declares the unknown encoding '{declared or ''}'; correct the declaration."
        ) from None
    if "".encode(name) != b"" or "\n=".encode(name) != b"\n=":
        raise AedifexError(f"{path}:1: the encoding '{name}' is not one that source can be read in; save it as UTF-8.")
    try:
        text.decode(name)
    except UnicodeDecodeError as error:
        line = text.count(b"\n", 0, error.start) + 1
        hint = "add an encoding declaration or save it as UTF-8" if declared is None else "correct the declaration"
        raise AedifexError(f"{path}:{line}: is not {name} text; {hint}.") from error
    return name


def read(path: str, text: bytes) -> SourceFile:
    """Read one file. Broken syntax becomes problems with lines; unusable bytes raise AedifexError."""
    if b"\0" in text:
        line = text.count(b"\n", 0, text.index(b"\0")) + 1
        raise AedifexError(f"{path}:{line}: holds a null byte, so it is not Python source; name a script.")
    encoding = encoding_of(path, text)
    masked = ascii_shape(text, encoding)
    root = parser().parse(masked)
    file = SourceFile(path, text, encoding, Scope("module", "<module>", None, 0, len(text)))
    file.tree = root
    limit = sys.getrecursionlimit()
    sys.setrecursionlimit(max(limit, DEEP))
    try:
        Walker(file).run(root.root_node)
        resolve(file)
        file.statements = statements(file, root.root_node)
    except RecursionError:
        raise AedifexError(f"{path}: is nested too deeply to be read; split its deepest expression.") from None
    finally:
        sys.setrecursionlimit(limit)
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node)
    return file


def ascii_shape(text: bytes, encoding: str) -> bytes:
    """The text in the same length for the grammar, which reads UTF-8: other encodings have letters replaced."""
    if encoding == "utf-8" or text.isascii():
        return text.replace(b"\r", b" ") if b"\r" in text and b"\r\n" not in text else text
    return bytes(b if b < 128 else 0x5F for b in text)


def broken(path: str, node: Any) -> list[Problem]:
    """Where the grammar stumbled: the first few places, outermost first."""
    found: list[Problem] = []
    stack = [node]
    while stack and len(found) < 20:
        at = stack.pop()
        if at.is_missing or at.type == "ERROR":
            what = f"'{at.type}' is missing here" if at.is_missing else "this is not Python that can be read"
            found.append(Problem(path, at.start_point[0] + 1, what))
        else:
            stack.extend(c for c in reversed(at.children) if c.has_error or c.is_missing)
    return found
