"""A program: all files read together, and how they are found and read."""

from __future__ import annotations

import os
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from .errors import AedifexError
from .joined import join, main_first
from .language import Language, language_of, suffixes
from .model import Problem, SourceFile
from .pause import uncollected
from .snapshot import Snapshot, project_files


@dataclass
class Program:
    """All files read together. Immutable once read; keys are paths relative to ``root``."""

    root: str
    files: dict[str, SourceFile]
    language: Language
    memo: dict[str, Any] = field(default_factory=dict, repr=False)  # what was worked out from it once
    outsiders: Program | None = field(
        default=None, repr=False
    )  # files that are not the program's and name one that is, once they were read

    @property
    def texts(self) -> dict[str, bytes]:
        """The text of every file as it stands by itself."""
        return {path: f.text[start:end] for f in self.files.values() for path, start, end in f.parts}

    @property
    def holders(self) -> dict[str, SourceFile]:
        """What was read of each file: itself, or that which it is a part of."""
        return {path: f for f in self.files.values() for path, _, _ in f.parts}

    @property
    def problems(self) -> list[Problem]:
        return [p for f in self.files.values() for p in f.problems]


@uncollected
def read_program(root: str, paths: Iterable[str], overlay: dict[str, bytes | None] | None = None) -> Program:
    """Read the given files (relative to ``root``) through a snapshot. Missing files raise AedifexError."""
    snapshot = Snapshot(root, overlay)
    texts: dict[str, bytes] = {}
    language: Language | None = None
    for path in paths:
        found = language_of(path)
        if language is not None and found is not language:
            raise AedifexError(f"{path}: is {found.name}, the files before it are {language.name}; name one language.")
        language = found
        text = snapshot.read(path)
        if text is None:
            raise AedifexError(f"{path}: no such file; check the path.")
        texts[path] = text
    if language is None:
        raise AedifexError("no script was named; name at least one file or folder.")
    return Program(snapshot.root, read_texts(snapshot.root, texts, language), language)


def read_texts(root: str, texts: dict[str, bytes], language: Language) -> dict[str, SourceFile]:
    """Every text read; those that are one program together become one file."""
    if language.joined:
        return join(root, texts, language.read)
    return {path: language.read(path, text) for path, text in texts.items()}


def reread(program: Program, changes: dict[str, bytes | None]) -> Program:
    """The program with changed files read again; unchanged ones are shared, files that are gone left out."""
    if program.language.joined:
        texts = {**program.texts, **changes}
        left = {p: t for p, t in texts.items() if t is not None}
        made = read_texts(program.root, left, program.language)
        for file in made.values():
            file.drafted = files_as_drafted(program, file.path)
        return Program(program.root, made, program.language, outsiders=program.outsiders)
    files = dict(program.files)
    for path, text in changes.items():
        if text is None:
            files.pop(path, None)
        else:
            files[path] = program.language.read(path, text)
            files[path].drafted = files_as_drafted(program, path)
    return Program(program.root, files, program.language, outsiders=program.outsiders)


def files_as_drafted(program: Program, path: str) -> tuple[SourceFile, ...]:
    """The files as people have them from which one that is written in memory comes: what stood there, else all."""
    old = program.files.get(path)
    rest = [f for f in program.files.values() if f is not old]
    found = [o for f in ([old, *rest] if old is not None else rest) for o in (f.drafted or (f,))]
    return tuple(dict.fromkeys(found))


def find_sources(paths: Iterable[str]) -> tuple[str, list[str]]:
    """(root folder, files relative to it) for files and folders as a person names them."""
    endings = suffixes()
    named = list(paths)
    if not named:
        raise AedifexError("no script was named; name at least one file or folder.")
    absolute: list[str] = []
    for path in named:
        full = os.path.abspath(path)
        if not path.isprintable():
            raise AedifexError(f"{path}: has a name that cannot be printed; rename it.")
        if os.path.islink(full) and not os.path.exists(full):
            raise AedifexError(f"{path}: is a link to {os.readlink(full)}, which is not there; mend the link.")
        if not os.path.lexists(full):
            raise AedifexError(f"{path}: no such file or folder; check the path.")
        if os.path.isdir(full):
            inside = project_files(full, endings)
            if not inside:
                raise AedifexError(f"{path}: the folder holds no script ({', '.join(endings)}); name another.")
            absolute += [os.path.join(full, p) for p in inside]
        else:
            absolute += files_beside(full) if language_of(path).joined else [full]
    folders = [os.path.abspath(p) for p in named if os.path.isdir(p)] or [os.path.dirname(a) for a in absolute]
    root = os.path.commonpath(folders)
    absolute = with_needed_files(absolute)
    files = sorted({os.path.relpath(a, root).replace(os.sep, "/") for a in absolute})
    if language_of(files[0]).joined:
        files = main_first(root, {p: Snapshot(root).read(p) or b"" for p in files})
    return root, files


def with_needed_files(absolute: list[str]) -> list[str]:
    """The files, and those that they name where the language's compiler finds them by itself: beside them, and in
    folders below."""
    found = list(dict.fromkeys(absolute))
    for full in found:
        language = language_of(full)
        folder = os.path.dirname(full)
        if not language.gathers or not os.path.isfile(full):
            continue
        names = {p: language.write.module_of(p) for p in project_files(folder, language.suffixes)}
        missing = {p: stem for p, stem in names.items() if os.path.join(folder, p) not in found}
        if not missing:
            continue
        file = next(iter(read_program(folder, [os.path.basename(full)]).files.values()))
        said = {origin for _, origin, _, _ in language.ambient(file)} | {
            origin.rpartition(".")[2] for s in file.imports for _, origin, _ in language.imported(file, s)
        }
        found += [os.path.join(folder, p) for p, stem in missing.items() if stem in said or spelled_out(p) in file.text]
    return found


def spelled_out(path: str) -> bytes:
    """How a text names what is in a folder below without an import; a path of one part is no such name."""
    name = os.path.splitext(path)[0].replace("/", ".")
    return name.encode() if "." in name else b"\0"


def files_beside(full: str) -> list[str]:
    """A file and those of its kind beside it, which are one program with it."""
    folder, ending = os.path.dirname(full), os.path.splitext(full)[1]
    return [os.path.join(folder, n) for n in sorted(os.listdir(folder)) if n.endswith(ending) and not n.startswith(".")]


def neighbours(root: str, paths: Iterable[str], language: Language) -> list[str]:
    """Other files of the project folder, which may import, set or patch names of the given ones."""
    mine = set(paths)
    return [p for p in project_files(root, language.suffixes) if p not in mine]
