"""Python as it is written: names, members, constructors, methods, imports. Text in, text out."""

from __future__ import annotations

import keyword
import re
import sys
from codecs import BOM_UTF8
from collections.abc import Sequence

from ...program.model import Function, SourceFile

KEYWORDS = frozenset(keyword.kwlist) | frozenset(keyword.softkwlist)
ENTRY_GUARD = 'if __name__ == "__main__":'
RECEIVER = "self"
CONSTRUCTOR = "__init__"
DESTRUCTOR = "__del__"
SUFFIX = ".py"


def words(name: str) -> list[str]:
    """``tram1_isOpen`` → tram1, is, open."""
    spaced = re.sub(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", "_", name)
    return [w.lower() for w in spaced.split("_") if w]


def class_name(parts: Sequence[str]) -> str:
    return "".join(w[:1].upper() + w[1:] for part in parts for w in words(part))


def member_name(parts: Sequence[str]) -> str:
    """A field, method or variable name; never a keyword."""
    name = "_".join(parts)
    if not name or name[0].isdigit():
        name = "n" + name
    return name + "_" if name in KEYWORDS else name


def hidden(name: str) -> str:
    return "_" + name.lstrip("_")


def is_name(text: str) -> bool:
    return text.isidentifier() and not keyword.iskeyword(text)


def file_name(class_: str) -> str:
    return "_".join(words(class_)) + SUFFIX


def hides_library(path: str) -> bool:
    """Whether a new file of this name would be imported instead of a library module."""
    stem = path.rsplit("/", 1)[-1].removesuffix(SUFFIX)
    return stem in sys.stdlib_module_names or stem in sys.builtin_module_names


PRIVATE = re.compile(r"(?<!\w)__(?!\w*__(?!\w))\w+")


def mangled_name(file: SourceFile, start: int, end: int) -> str:
    """The first name in a stretch of code, member or argument name included, that a class would change; "" if none."""
    match = PRIVATE.search(file.slice(start, end))
    return match[0] if match else ""


def indent_unit(file: SourceFile) -> str:
    for line in file.text.decode(file.encoding, "replace").splitlines():
        stripped = line.lstrip(" \t")
        if stripped and stripped != line and not stripped.startswith("#"):
            lead = line[: len(line) - len(stripped)]
            return "\t" if lead.startswith("\t") else lead if len(lead) in (2, 3, 4, 8) else "    "
    return "    "


def newline(file: SourceFile) -> str:
    return "\r\n" if b"\r\n" in file.text else "\n"


def with_newlines(text: str, nl: str) -> str:
    return text.replace("\r\n", "\n").replace("\n", nl)


def indented(
    file: SourceFile,
    start: int,
    end: int,
    ranges: list[tuple[int, int, str]],
    prefix: str,
    loose: tuple[int, int] | None = None,
) -> str:
    """The lines of [start, end), each moved right by ``prefix``; the inside of long strings stays as it is.

    Ranges inside are replaced on the way. ``loose``: a string whose inside may move (a document string that
    nobody reads).
    """
    fixed = [s for s in file.strings if s != loose]
    marks: list[tuple[int, int, str]] = [r for r in ranges if start <= r[0] and r[1] <= end]
    for line_start in file.lines[file.line(start) - 1 :]:
        if line_start >= end:
            break
        if line_start < start or blank(file, line_start):
            continue
        if any(a < line_start < b for a, b in fixed) or any(a < line_start < b for a, b, _ in marks):
            continue
        if any(a <= line_start and line_end(file, line_start) <= b and not new for a, b, new in marks):
            continue  # the line goes
        marks.append((line_start, line_start, prefix))
    marks.sort(key=lambda m: (m[0], m[1] != m[0]))
    out, at = [], start
    for left, right, text in marks:
        out += [file.slice(at, left), text]
        at = right
    out.append(file.slice(at, end))
    return "".join(out)


def blank(file: SourceFile, line_start: int) -> bool:
    end = file.text.find(b"\n", line_start)
    return not file.text[line_start : end if end >= 0 else len(file.text)].strip()


def line_start(file: SourceFile, offset: int) -> int:
    """Where the line of an offset starts, after the byte order mark that may open the file."""
    found = file.lines[file.line(offset) - 1]
    return len(BOM_UTF8) if found == 0 and file.text.startswith(BOM_UTF8) else found


def line_end(file: SourceFile, offset: int) -> int:
    """The offset just after the newline of the line that holds ``offset``."""
    at = file.text.find(b"\n", offset)
    return len(file.text) if at < 0 else at + 1


def comment_start(file: SourceFile, offset: int) -> int:
    """Where the comment lines directly above a line start (the line itself if there are none)."""
    at = line_start(file, offset)
    lead = file.text[at:offset]
    while at > len(BOM_UTF8):
        above = line_start(file, at - 1)
        line = file.text[above:at].strip()
        if not line.startswith(b"#") or line.startswith(b"#!") or not file.text[above:at].startswith(lead + b"#"):
            break
        if above == 0 and b"coding" in line:
            break
        at = above
    return at


def trailing_comment(file: SourceFile, end: int) -> str:
    """The comment after a statement on its last line, with the space before it; "" if there is none."""
    rest = file.text[end : line_end(file, end)].decode(file.encoding).rstrip("\r\n")
    return rest if rest.strip().startswith("#") else ""


def blank_before(file: SourceFile, offset: int) -> int:
    """Where the blank lines directly above a line start."""
    at = line_start(file, offset)
    while at > 0:
        above = line_start(file, at - 1)
        if file.text[above:at].strip():
            break
        at = above
    return at


def blank_after(file: SourceFile, offset: int) -> int:
    """Where the blank lines that start at ``offset`` (a line start) end."""
    at = offset
    while at < len(file.text):
        end = line_end(file, at)
        if file.text[at:end].strip():
            break
        at = end
    return at


def constructor(unit: str, params: Sequence[str], lines: Sequence[str]) -> str:
    head = f"{unit}def {CONSTRUCTOR}({', '.join([RECEIVER, *params])}):\n"
    return head + "".join(f"{unit * 2}{line}\n" for line in lines or ["pass"])


def class_head(name: str, base: str = "") -> str:
    return f"class {name}({base}):\n" if base else f"class {name}:\n"


def make(class_: str, args: Sequence[str]) -> str:
    return f"{class_}({', '.join(args)})"


def member(owner: str, name: str) -> str:
    return f"{owner}.{name}"


def assign(target: str, value: str, annotation: str = "") -> str:
    return f"{target}: {annotation} = {value}" if annotation else f"{target} = {value}"


def empty_body() -> str:
    return "pass"


def method_header(file: SourceFile, function: Function, name: str, drop: set[str]) -> list[tuple[int, int, str]]:
    """Edits that turn a function's header into a method's: new name, receiver first, known parameters gone."""
    kept = [p for p in function.params if p.name not in drop]
    edits = [(function.name_start, function.name_end, name)]
    if len(kept) == len(function.params):
        rest = file.text[function.params_start : function.params_end].strip()
        edits.append((function.params_start, function.params_start, RECEIVER + (", " if rest else "")))
    else:
        text = ", ".join([RECEIVER, *(file.slice(p.start, p.end) for p in kept)])
        edits.append((function.params_start, function.params_end, text))
    return edits


def added_parameter(file: SourceFile, function: Function, name: str) -> tuple[tuple[int, int, str], bool]:
    """The edit that adds a last parameter, and whether callers must name it."""
    last = function.params[-1]
    by_name = any(p.default or p.kind == "keyword" for p in function.params)
    starred = any(p.kind in ("keyword", "star") for p in function.params)
    text = f", *, {name}" if by_name and not starred else f", {name}"
    return (last.end, last.end, text), by_name or starred


def keyword_argument(name: str, value: str) -> str:
    return f"{name}={value}"


def import_names(module: str, names: Sequence[str]) -> str:
    return f"from {module} import {', '.join(sorted(names, key=constants_first))}\n"


def constants_first(name: str) -> tuple[int, str]:
    return (0 if name.isupper() else 1 if name[:1].isupper() else 2, name)


def import_again(local: str, module: str, name: str) -> str:
    """The statement that binds the same import in another file."""
    if name == "*":
        return f"from {module} import *\n"
    if name:
        return f"from {module} import {name}{'' if local == name else ' as ' + local}\n"
    return f"import {module}{'' if local == module or local == module.split('.')[0] else ' as ' + local}\n"


def merged_imports(lines: Sequence[str], own: set[str]) -> str:
    """Import statements in order, names of one module on one line, the project's own modules after the others."""
    names: dict[str, set[str]] = {}
    whole: list[tuple[str, str]] = []
    for line in sorted(set(lines)):
        match = re.fullmatch(r"from (\S+) import (.+)\n", line)
        if match and match[2] != "*":
            names.setdefault(match[1], set()).add(match[2])
        else:
            whole.append((line.split()[1], line))
    whole += [(module, import_names(module, sorted(found))) for module, found in names.items()]
    library = [line for module, line in sorted(whole, key=import_order) if module.split(".")[0] not in own]
    mine = [line for module, line in sorted(whole, key=import_order) if module.split(".")[0] in own]
    return "".join(library) + ("\n" if library and mine else "") + "".join(mine)


def import_order(entry: tuple[str, str]) -> tuple[bool, str, str]:
    module, line = entry
    return line.startswith("from"), module, line


def import_list(bound: Sequence[tuple[str, str, str]]) -> str:
    """One import statement for several names: (local name, module, name in the module or "")."""
    if bound[0][2]:
        names = [name if name == local else f"{name} as {local}" for local, _, name in bound]
        return f"from {bound[0][1]} import {', '.join(names)}"
    names = [m if local == m.split(".")[0] else f"{m} as {local}" for local, m, _ in bound]
    return f"import {', '.join(names)}"


def future(names: Sequence[str]) -> str:
    return f"from __future__ import {', '.join(names)}\n" if names else ""


def module_of(path: str) -> str:
    return path.rsplit("/", 1)[-1].removesuffix(SUFFIX)


def stale(path: str) -> list[str]:
    """Patterns of files made from a source file that must not outlive its text."""
    folder, _, name = path.rpartition("/")
    stem = name.removesuffix(SUFFIX)
    return [f"{folder + '/' if folder else ''}__pycache__/{stem}.*.pyc"]


def main_call(class_: str, variable: str = "") -> list[str]:
    return [f"{variable} = {class_}()", f"{variable}.run()"] if variable else [f"{class_}().run()"]


def run_method(unit: str, body: str) -> str:
    return f"{unit}def run({RECEIVER}):\n{body}"


DOCUMENT_READERS = frozenset({"inspect", "pydoc", "doctest"})


def reads_documents(files: Sequence[SourceFile]) -> bool:
    """Whether a program may read the document strings of its functions."""
    return any(
        b"__doc__" in f.text or "help" in f.scope.symbols or DOCUMENT_READERS & set(f.scope.symbols) for f in files
    )


LOUD = frozenset({"this", "antigravity", "__main__", "idlelib", "turtledemo"})


def quiet_module(module: str) -> bool:
    """Whether importing a module a little earlier or later can be told from outside."""
    top = module.split(".")[0]
    return top in sys.stdlib_module_names and top not in LOUD
