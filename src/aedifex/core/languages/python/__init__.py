"""Python: everything that the core needs to know of it."""

from __future__ import annotations

import re
import warnings
from collections.abc import Callable

from ...program.facets.extraction import Extraction
from ...program.facets.inlining import Inlining
from ...program.facets.launch import Launch
from ...program.facets.listening import Listening
from ...program.facets.text import Text
from ...program.model import Problem, SourceFile, Statement
from .facts import by_name, frameworks
from .facts.pure import BUILTINS, PURITY, apis
from .reading import members
from .reading.handlers import inlines
from .reading.imports import imported, imported_word, module_word
from .reading.keyed import keyed
from .reading.lists import item_type, list_uses, object_list_uses, whole_loop
from .reading.literals import literals
from .reading.namespaces import confined, looked_up
from .reading.read import read
from .reading.structure import (
    alone,
    arguments,
    blocks,
    body_of,
    count,
    depth,
    member_owner,
    statements,
    tokens,
    unpacked,
)
from .running import launch
from .writing import listening, opening, regions, streams
from .writing.text import TEXT


class Python:
    """Python."""

    name = "python"
    suffixes = (".py", ".pyw")
    builtins = BUILTINS
    dynamic = frozenset({"globals", "locals", "vars", "exec", "eval", "dir"})
    main_module = "__main__"
    registries = frozenset({"sys.modules", "inspect.currentframe", "sys._getframe"})
    introspective = frozenset(
        {"__name__", "__file__", "__doc__", "__spec__", "__package__", "__loader__", "__annotations__", "__path__"}
    )
    elsewhere = introspective - {"__annotations__"}
    reserved = frozenset({"__all__", "__version__", "__author__"})
    everywhere = frozenset({"globals", "exec", "eval"})
    quiet = frozenset(apis()["quiet"]["builtins"])
    at_once = frozenset(apis()["at_once"]["calls"])
    quiet_modules = frozenset(apis()["quiet"]["modules"])
    quiet_members: frozenset[str] = frozenset()
    gathers = False
    joined = False
    placement = "imports"
    declares = False
    typed = False
    heads_run = True
    renames_imports = True
    starts = ""
    manifests = frozenset(apis()["served"]["manifests"])
    endings = frozenset({"sys.exit", "exit", "quit", "os._exit"})
    lenient_lists = False
    code_at_top = True
    exact_calls = True
    colours: frozenset[str] = frozenset()
    unset_errors = frozenset({"NameError", "UnboundLocalError", "AttributeError"})
    held = frozenset(apis()["held"]["makers"])
    bare_members = False
    concerns = apis()["concerns"]
    write: Text = TEXT
    regions: Extraction = regions
    opened: Inlining | None = opening
    streams = streams
    listening: Listening | None = listening
    members = members
    frameworks = frameworks
    launch: Launch = launch

    read = staticmethod(read)
    arguments = staticmethod(arguments)
    alone = staticmethod(alone)
    has_alternative = staticmethod(
        lambda s: any(c.type in ("else_clause", "elif_clause") for c in s.node.named_children)
    )
    tokens = staticmethod(tokens)
    member_owner = staticmethod(member_owner)
    inlines = staticmethod(inlines)
    item_type = staticmethod(item_type)
    item_value: Callable[[SourceFile, int, int], tuple[int, int] | None] = staticmethod(lambda file, start, end: None)
    handed_over = staticmethod(lambda file, ref: True)
    whole_loop = staticmethod(whole_loop)
    unpacked = staticmethod(unpacked)
    literals = staticmethod(literals)
    count = staticmethod(lambda statement: count(statement.node))
    depth = staticmethod(lambda statement: depth(statement.node))
    purity = staticmethod(PURITY.purity)
    type_of = staticmethod(PURITY.type_of)
    list_uses = staticmethod(list_uses)
    object_list_uses = staticmethod(object_list_uses)
    keyed = staticmethod(keyed)
    imported = staticmethod(imported)
    body = staticmethod(body_of)
    imported_word = staticmethod(imported_word)
    module_word = staticmethod(module_word)

    @staticmethod
    def compiles(path: str, text: bytes) -> Problem | None:
        """What the interpreter's own compiler has against a text, if anything."""
        try:
            with warnings.catch_warnings():
                warnings.simplefilter("ignore")
                compile(text, path, "exec", dont_inherit=True)
        except (SyntaxError, ValueError, RecursionError, MemoryError) as error:
            line = getattr(error, "lineno", 0) or 0
            return Problem(path, line, f"the compiler refuses it ({getattr(error, 'msg', None) or error})")
        return None

    @staticmethod
    def reentrant(module: str) -> str:
        if module.split(".")[0] in apis()["children"]["modules"]:
            return "can run or find parts of the program by their path"
        return ""

    @staticmethod
    def offered(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
        exported = file.scope.symbols.get("__all__")
        found = []
        for ref in exported.bindings if exported else ():
            statement = next((s for s in file.statements if s.start <= ref.start < s.end), None)
            if statement is not None:
                names = tuple(re.findall(r"""["']([^"'\n]*)["']""", file.slice(statement.start, statement.end)))
                found.append((ref.start, names, "'__all__' offers names to other files"))
        return found + by_name.served(file) + by_name.run_by_others(file)

    @staticmethod
    def offered_words(file: SourceFile, name: str) -> list[tuple[int, int]]:
        """Where '__all__' spells a name."""
        found = []
        for at, _, _ in Python.offered(file):
            end = next(s.end for s in file.statements if s.start <= at < s.end)
            pattern = rb"(?<=[\"'])" + re.escape(name.encode(file.encoding)) + rb"(?=[\"'])"
            found += [m.span() for m in re.compile(pattern).finditer(file.text, at, end)]
        return found

    @staticmethod
    def accepts(files: list[SourceFile]) -> list[Problem]:
        """Each file says enough by itself."""
        return []

    tells = staticmethod(by_name.tells)
    copies = staticmethod(by_name.copies)
    ambient = staticmethod(by_name.text_imports)

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        return {}

    confined = staticmethod(confined)
    looked_up = staticmethod(looked_up)

    @staticmethod
    def special(name: str) -> bool:
        return name.startswith("__") and name != TEXT.CONSTRUCTOR

    @staticmethod
    def means(importer: str, module: str, name: str, path: str) -> bool:
        return TEXT.module_of(path) in Python.last_parts(module, name)

    @staticmethod
    def named_by(path: str) -> set[str]:
        return {TEXT.module_of(path)} - {"__init__"} or {path.split("/")[-2] if "/" in path else "__init__"}

    @staticmethod
    def last_parts(module: str, name: str) -> set[str]:
        return {module.lstrip(".").split(".")[-1]} | ({name} if not module.strip(".") else set())

    @staticmethod
    def inner(file: SourceFile, statement: Statement) -> list[Statement]:
        found = [s for block in blocks(statement.node) for s in statements(file, block)]
        for s in found:
            if s.kind == "docstring":
                s.kind = "expression"
        return found


LANGUAGE = Python()
