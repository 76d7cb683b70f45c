"""What lies beside a program in its folder and may name what it holds."""

from __future__ import annotations

import hashlib
import os
import re
from collections.abc import Iterable
from pathlib import Path
from typing import cast

from .errors import AedifexError
from .language import Language
from .model import SourceFile
from .program import Program, neighbours, read_program
from .seen_calls import MARK

LARGEST = 1 << 20  # bytes that are read of a file that may name what is started
ENTRY = re.compile(r"(?<![\w/])((?:\w+\.)*\w+):([^\W\d]\w*)")
NOBODY = Program("", {}, cast(Language, None))  # the outsiders of a program that is looked at by itself


def digest(text: bytes) -> str:
    """What tells whether a file is still the one that was read."""
    return "sha256:" + hashlib.sha256(text).hexdigest()


def read_neighbours(program: Program, words: Iterable[str] = ()) -> Program:
    """The other files of the project folder that name a file of the program, or one of some ``words``, as far as they
    can be read.

    No others can import it, or set or patch what it holds. All are searched as text; only those that name something are
    read.
    """
    if program.outsiders is NOBODY:
        return NOBODY
    language = program.language
    stems = {w for path in program.texts for w in language.named_by(path)} | set(words)
    pattern = re.compile(rb"(?<!\w)(?:" + b"|".join(sorted(re.escape(w.encode()) for w in stems)) + rb")(?!\w)")
    files: dict[str, SourceFile] = {}
    for path in neighbours(program.root, program.texts, language):
        try:
            text = (Path(program.root) / path).read_bytes()
            if (
                pattern.search(text) and MARK.encode() not in text[:400]
            ):  # tests that were written here follow the classes
                files.update(read_program(program.root, [path]).files)
        except (AedifexError, OSError):
            continue
    around = Program(program.root, files, language)
    around.memo["manifests"] = manifests(program.root, language)
    return around


def manifests(root: str, language: Language) -> list[tuple[str, int, str, str]]:
    """(file, line, module, name) of everything that files beside the program name as what is to be started or
    served."""
    found = []
    for path in sorted(os.listdir(root)) if os.path.isdir(root) and language.manifests else ():
        if path.endswith(tuple(language.manifests)) and os.path.isfile(os.path.join(root, path)):
            try:
                lines = Path(root, path).read_bytes()[:LARGEST].decode("utf-8", "replace").splitlines()
            except OSError:
                continue
            found += [(path, n, m[1], m[2]) for n, line in enumerate(lines, 1) for m in ENTRY.finditer(line)]
    return found


def by_itself(program: Program) -> Program:
    """The program as if no other file were there: what was done to it already was judged by those that were there
    then."""
    return Program(program.root, program.files, program.language, outsiders=NOBODY)


def surrounded(program: Program) -> Program:
    """The program, which knows the files around it from now on."""
    if program.outsiders is None:
        program.outsiders = read_neighbours(program)
    return program
