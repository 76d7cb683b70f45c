"""Read Python source: bytes in, a SourceFile out."""

from __future__ import annotations

import codecs
import re

import tree_sitter
import tree_sitter_python

from ....program.errors import AedifexError
from ....program.model import Scope, SourceFile
from ....program.reading import broken, deeply, refuse_null, refuse_returns
from .resolve import resolve
from .structure import statements
from .walk import Walker

_parser: tree_sitter.Parser | None = None
CODING = re.compile(rb"^[ \t\f]*#.*?coding[:=][ \t]*([-\w.]+)")


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
    if (
        not getattr(codecs.lookup(name), "_is_text_encoding", True)
        or "".encode(name) != b""
        or "\n=".encode(name) != b"\n="
    ):
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
    refuse_null(path, text, "Python source")
    refuse_returns(path, text)
    encoding = encoding_of(path, text)
    masked = ascii_shape(text, encoding)
    root = parser().parse(masked)
    file = SourceFile(path, text, encoding, Scope("module", "<module>", None, 0, len(text)))
    file.tree = root
    with deeply(path):
        Walker(file).run(root.root_node)
        resolve(file)
        file.statements = statements(file, root.root_node)
    if root.root_node.has_error:
        file.problems = broken(path, root.root_node, "this is not Python that can be read")
    return file


def ascii_shape(text: bytes, encoding: str) -> bytes:
    """The text in the same length for the grammar, which reads UTF-8: other encodings have letters replaced."""
    if encoding == "utf-8" or text.isascii():
        return text.replace(b"\r", b" ") if b"\r" in text and b"\r\n" not in text else text
    return bytes(b if b < 128 else 0x5F for b in text)
