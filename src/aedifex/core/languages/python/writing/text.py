"""Python as it is written: names, members, constructors, methods, imports. Text in, text out."""

from __future__ import annotations

import keyword
import re
import sys
from collections.abc import Callable, Sequence

from ....program import layout
from ....program.facets.bases import Bases
from ....program.language import NewField
from ....program.layout import line_end, words
from ....program.model import Function, Reference, Scope, SourceFile, Statement, Symbol
from ...text import PlainText
from ..reading.receivers import RECEIVER, class_trouble, inner_receivers, method_as_value, outward, receiver_at
from . import bases
from .bases import class_head
from .write_lists import appended, each, length, listed

KEYWORDS = frozenset(keyword.kwlist) | frozenset(keyword.softkwlist)
ENTRY_GUARD = 'if __name__ == "__main__":'
SUFFIX = ".py"
DOCUMENT_READERS = frozenset({"inspect", "pydoc", "doctest"})
LOUD = frozenset({"this", "antigravity", "__main__", "idlelib", "turtledemo"})


class PythonText(PlainText):
    """Python as it is written: names, members, constructors, methods, imports. Text in, text out."""

    bases: Bases | None = bases
    RECEIVER = RECEIVER
    appended = staticmethod(appended)
    each = staticmethod(each)
    length = staticmethod(length)
    listed = staticmethod(listed)
    class_trouble = staticmethod(class_trouble)
    inner_receivers = staticmethod(inner_receivers)
    method_as_value = staticmethod(method_as_value)
    outward = staticmethod(outward)
    receiver_at = staticmethod(receiver_at)
    CONSTRUCTOR = "__init__"
    DESTRUCTOR = "__del__"
    FILE_IS_CLASS = False  # whether a file must be named as its class
    BLANKS = 2  # blank lines between definitions
    PARTED_IMPORTS = True  # a blank line between those of the library and those of the project

    def member_name(self, parts: Sequence[str], like: str = "") -> str:
        """A field, method or variable name; never a keyword."""
        name = "_".join(parts)
        if not name or name[0].isdigit():
            name = "n" + name
        return name + "_" if name in KEYWORDS else name

    def hidden(self, name: str) -> str:
        return "_" + name.lstrip("_")

    def inherited(self, name: str) -> bool:
        """Whether a method of this name would take the place of one that every class has, or that the language looks
        for."""
        return name.startswith("__")

    def is_name(self, text: str) -> bool:
        return text.isidentifier() and not keyword.iskeyword(text)

    def with_methods(self, class_: str, methods: Sequence[str]) -> str:
        """The text of a class with methods behind what it has already."""
        return class_ + ("" if class_.rstrip().endswith(":") else "\n") + "\n".join(methods)

    def statement_end(self, file: SourceFile) -> str:
        """What ends a statement on a line of its own."""
        return ""

    def file_name(self, class_: str, like: str) -> str:
        """The file of a class that comes out of the file ``like``."""
        return "_".join(words(class_)) + SUFFIX

    def hides_library(self, path: str) -> bool:
        """Whether a new file of this name would be imported instead of a library module."""
        stem = path.rsplit("/", 1)[-1].removesuffix(SUFFIX)
        return stem in sys.stdlib_module_names or stem in sys.builtin_module_names

    def comment_start(self, file: SourceFile, offset: int) -> int:
        return layout.comment_start(file, offset, b"#")

    def trailing_comment(self, file: SourceFile, end: int) -> str:
        return layout.trailing_comment(file, end, "#")

    def indent_unit(self, file: SourceFile) -> str:
        return layout.indent_unit(file, ("#",))

    def class_text(self, file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField]) -> str:
        params = [f"{f.value}: {f.type}" if f.type else f.value for f in fields if f.given]
        lines = []
        for f in fields:
            if not f.later:
                annotation = f": {f.type}" if f.type and not f.given else ""
                text = f"{RECEIVER}.{f.name}{annotation} = {f.value}{f.comment}"
                lines.append("".join(f"{line}\n{unit * 2}" for line in f.above) + text)
        if not lines:
            return class_head(name, base) + f"{unit}pass\n"
        head = f"{unit}def {self.CONSTRUCTOR}({', '.join([RECEIVER, *params])}):\n"
        return class_head(name, base) + head + "".join(f"{unit * 2}{line}\n" for line in lines)

    def equality(self, unit: str, class_: str) -> str:
        """The method by which objects are equal that hold the same, as two dicts are."""
        return (
            f"{unit}def __eq__({RECEIVER}, other):\n{unit * 2}return isinstance(other, {class_}) and vars({RECEIVER}) "
            "== vars(other)"
        )

    def has_members(self, file: SourceFile, span: tuple[int, int]) -> bool:
        """Whether an expression can be asked for a member as it is written."""
        node = file.tree.root_node.named_descendant_for_byte_range(*span)
        return (node.start_byte, node.end_byte) == span and node.type in (
            "identifier",
            "subscript",
            "call",
            "attribute",
        )

    def declared_words(self, file: SourceFile, statement: Statement) -> str:
        """A declaration says nothing but its variable's name and type."""
        return ""

    def set_once(self, said: str) -> bool:
        return False

    def class_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """What a class says of a variable that it keeps once for all objects."""
        return f"{name} = {value}"

    def class_around(self, file: SourceFile, unit: str, name: str, method: str) -> str:
        return class_head(name) + method

    def listed_in(self, file: SourceFile, holder: str, objects: Sequence[str], lead: str, unit: str) -> str:
        line = f"{holder} = [{', '.join(objects)}]"
        if len(lead) + len(line) <= 100:
            return line
        return f"{holder} = [\n" + "".join(f"{lead}{unit}{o},\n" for o in objects) + f"{lead}]"

    def loop(self, header: str, lead: str, unit: str, text: str) -> str:
        return f"for {header}:\n{lead}{unit}{text}"

    def constructor_text(self, file: SourceFile, unit: str, name: str, body: str) -> str:
        return f"{unit}def {self.CONSTRUCTOR}({RECEIVER}):\n{body}"

    def method_place(self, file: SourceFile, scope: Scope) -> tuple[int, str, str]:
        """Where a class gets another method, and what must stand before and after it."""
        at = line_end(file, scope.end - 1 if scope.end else 0)
        return at, "" if file.text[:at].endswith(b"\n") else "\n", ""

    def empty_class(self, file: SourceFile, scope: Scope) -> tuple[int, int] | None:
        """The line that stands for nothing in an empty class."""
        line = file.lines[file.line(scope.end - 1) - 1]
        if scope.children or file.text[line : scope.end].decode(file.encoding).strip() != self.empty_body():
            return None
        return line, line_end(file, scope.end - 1)

    def bare_class(self, file: SourceFile, scope: Scope) -> bool:
        return False

    def make(self, class_: str, args: Sequence[str]) -> str:
        return f"{class_}({', '.join(args)})"

    def member(self, owner: str, name: str) -> str:
        return f"{owner}.{name}"

    def use(self, ref: Reference, text: str) -> str:
        """What replaces a reference."""
        return text

    def declare_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """The statement that gives a new variable at the top its value."""
        return f"{name} = {value}"

    declare_constant = declare_variable

    def declare(self, file: SourceFile, name: str, value: str, class_: str, at: Statement | None) -> str:
        """The statement that makes an object, where the statement ``at`` stands."""
        return f"{name} = {value}"

    def top_lead(self, file: SourceFile, unit: str) -> str:
        """The indentation of code at the top."""
        return ""

    def opening(self, file: SourceFile) -> int:
        """Where the code at the top begins."""
        return 0

    def local_edits(self, file: SourceFile, statement: Statement) -> list[tuple[int, int, str]]:
        """What must change in a statement at the top that becomes one of a method."""
        return []

    def must_be_field(self, file: SourceFile, symbol: Symbol, more: Sequence[Reference]) -> bool:
        """Whether a variable of the main code could not be a local of a method."""
        return False

    def as_argument(self, file: SourceFile, span: tuple[int, int], text: str, type_: str) -> str:
        """A first value as an argument: a bare tuple needs parentheses."""
        node = file.tree.root_node.named_descendant_for_byte_range(*span)
        return f"({text})" if node.type == "expression_list" else text

    def default_value(self, type_: str) -> str:
        return "None"

    def anchored(self, file: SourceFile, statement: Statement) -> bool:
        """Whether a definition must stay in its file because of how it is offered to others."""
        return False

    def empty_body(self) -> str:
        return "pass"

    def method_header(
        self, file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False
    ) -> list[tuple[int, int, str]]:
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

    def added_parameters(
        self, file: SourceFile, function: Function, added: Sequence[tuple[str, str]]
    ) -> tuple[tuple[int, int, str], str]:
        """The edit that adds parameters (name, type), and where callers give them: first, last or by name."""
        last = function.params[-1]
        by_name = any(p.default or p.kind == "keyword" for p in function.params)
        starred = any(p.kind in ("keyword", "star") for p in function.params)
        text = "".join(f", {name}" for name, _ in added)
        text = f", *{text}" if by_name and not starred else text
        return (last.end, last.end, text), "by name" if by_name or starred else "last"

    def keyword_argument(self, name: str, value: str) -> str:
        return f"{name}={value}"

    def import_names(self, file: SourceFile, module: str, names: Sequence[str]) -> str:
        """The import of names from another file of the project."""
        return f"from {module} import {', '.join(sorted(names, key=constants_first))}\n"

    def import_again(self, file: SourceFile, local: str, module: str, name: str) -> str:
        """The statement that binds the same import in another file."""
        if name == "*":
            return f"from {module} import *\n"
        if name:
            return f"from {module} import {name}{'' if local == name else ' as ' + local}\n"
        return f"import {module}{'' if local == module or local == module.split('.')[0] else ' as ' + local}\n"

    def merged_imports(self, lines: Sequence[str], own: set[str]) -> str:
        """Import statements in order, names of one module on one line, the project's own modules after the others.

        Where all names of a module are imported, the order of the statements says which of two names counts: it stays.
        """
        stars = [i for i, line in enumerate(lines) if line.endswith(" import *\n")]
        if stars:
            mine = [line for line in lines if line.split()[1].split(".")[0] in own]
            if any(line in mine for line in lines[: stars[-1] + 1]):
                return "".join(dict.fromkeys(lines))
            after = self.merged_imports(mine, own)
            return "".join(dict.fromkeys(x for x in lines if x not in mine)) + ("\n" if after else "") + after
        names: dict[str, set[str]] = {}
        whole: list[tuple[str, str]] = []
        for line in sorted(set(lines)):
            match = re.fullmatch(r"from (\S+) import (.+)\n", line)
            if match and match[2] != "*":
                names.setdefault(match[1], set()).add(match[2])
            else:
                whole.append((line.split()[1], line))
        whole += [
            (module, f"from {module} import {', '.join(sorted(found, key=constants_first))}\n")
            for module, found in names.items()
        ]
        library = [line for module, line in sorted(whole, key=import_order) if module.split(".")[0] not in own]
        mine = [line for module, line in sorted(whole, key=import_order) if module.split(".")[0] in own]
        return "".join(library) + ("\n" if library and mine else "") + "".join(mine)

    def import_list(self, file: SourceFile, statement: Statement, bound: Sequence[tuple[str, str, str]]) -> str:
        """One import statement for several names: (local name, module, name in the module or "")."""
        if bound[0][2]:
            names = [name if name == local else f"{name} as {local}" for local, _, name in bound]
            return f"from {bound[0][1]} import {', '.join(names)}"
        names = [m if local == m.split(".")[0] else f"{m} as {local}" for local, m, _ in bound]
        return f"import {', '.join(names)}"

    def head(self, file: SourceFile) -> str:
        """What a new file must open with to mean the same as the file that its code comes from."""
        names = [f for f in file.futures if f == "annotations"] or file.futures
        return f"from __future__ import {', '.join(names)}\n" if names else ""

    def everywhere_import(self, module: str) -> bool:
        """Whether an import says how its file is read, rather than bringing names."""
        return module == "__future__"

    def packaged_import(self, module: str) -> bool:
        """Whether an import only works inside its package."""
        return module.startswith(".")

    def packaged(self, folder: str, exists: Callable[[str], bool]) -> str:
        """Why no file can be put beside the others of a folder; "" if one can."""
        if exists((folder + "/" if folder else "") + "__init__.py"):
            return "the folder is a package, where a file is imported in another way when it is started"
        return ""

    def stays_in(self, file: SourceFile, scope: Scope | None = None) -> str:
        """Why nothing can move out of a file into one of its own; "" if it can."""
        return ""

    def moved(self, file: SourceFile, statement: Statement, start: int, end: int, offered: set[str]) -> str:
        """A statement as it stands in a file of its own."""
        return file.slice(start, end)

    def offer(self, file: SourceFile, names: Sequence[str]) -> str:
        """What closes a new file so that others can import these names."""
        return ""

    def room(self, above: bytes, below: bytes) -> int:
        """How many blank lines may stand between two lines."""
        opens = below.startswith((b"def ", b"class ", b"async ", b"@", b"#"))
        return 2 if opens or above.startswith((b" ", b"\t")) else 1

    def top_module(self, module: str) -> str:
        """The name under which a file of a folder would be found in place of a module."""
        return module.split(".")[0]

    def module_of(self, path: str) -> str:
        return path.rsplit("/", 1)[-1].removesuffix(SUFFIX)

    def stale(self, path: str) -> list[str]:
        """Patterns of files made from a source file that must not outlive its text."""
        folder, _, name = path.rpartition("/")
        stem = name.removesuffix(SUFFIX)
        return [f"{folder + '/' if folder else ''}__pycache__/{stem}.*.pyc"]

    def main_call(
        self, file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None
    ) -> list[str]:
        """What starts the program. ``making``: the expression that makes the app."""
        return [f"{variable} = {making}", f"{variable}.run()"] if variable else [f"{making}.run()"]

    def kept_main(self, unit: str, name: str, calling: str, lines: Sequence[str]) -> tuple[str, bool]:
        """The function that starts the program, in two lines, and whether it gives what ``run`` does."""
        gives = calling != f"{name}()"
        *before, last = lines
        body = [*before, f"return {last}" if gives else last]
        return f"def {name}():\n" + "".join(f"{unit}{line}\n" for line in body), gives

    def run_method(self, file: SourceFile, unit: str, body: str, guard: Statement | None) -> str:
        return f"{unit}def run({RECEIVER}):\n{body}"

    def reads_documents(self, files: Sequence[SourceFile]) -> bool:
        """Whether a program may read the document strings of its functions."""
        return any(
            b"__doc__" in f.text or "help" in f.scope.symbols or DOCUMENT_READERS & set(f.scope.symbols) for f in files
        )

    def quiet_module(self, module: str) -> bool:
        """Whether importing a module a little earlier or later can be told from outside."""
        top = module.split(".")[0]
        return top in sys.stdlib_module_names and top not in LOUD


def constants_first(name: str) -> tuple[int, str]:
    return (0 if name.isupper() else 1 if name[:1].isupper() else 2, name)


def import_order(entry: tuple[str, str]) -> tuple[bool, str, str]:
    module, line = entry
    return line.startswith("from"), module, line


TEXT = PythonText()
