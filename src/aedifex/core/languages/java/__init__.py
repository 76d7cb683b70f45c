"""Java, and sketches in its dialect: everything that the core needs to know of them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ...program.facets.extraction import Extraction
from ...program.facets.inlining import Inlining
from ...program.facets.launch import Launch
from ...program.facets.text import Text
from ...program.keyed import Keyed
from ...program.model import Function, SourceFile, Statement
from .facts import frameworks
from .facts.by_name import copies, tells
from .facts.pure import apis, purity, type_of
from .reading import lists, members, structure
from .reading.imports import ambient, imported, last_parts, means
from .reading.inheriting import offered
from .reading.inlines import inlines
from .reading.literals import literals
from .reading.read import read
from .running import launch
from .running.compiler import accepts, compiles
from .writing import regions, streams, write


class Java:
    name = "java"
    suffixes: tuple[str, ...] = (".java",)
    gathers = True
    joined = False
    builtins = frozenset(apis()["names"]["builtins"]) | frozenset(apis()["names"]["lang"])
    dynamic: frozenset[str] = frozenset()
    everywhere: frozenset[str] = frozenset()
    main_module = ""
    registries: frozenset[str] = frozenset()
    introspective: frozenset[str] = frozenset()
    elsewhere: frozenset[str] = frozenset()
    reserved = frozenset({"serialVersionUID"})
    unset_errors: frozenset[str] = frozenset()
    held: frozenset[str] = frozenset({"WeakReference", "SoftReference", "PhantomReference", "Cleaner"})
    quiet = frozenset(apis()["quiet"]["builtins"])
    at_once = frozenset(apis()["at_once"]["calls"])
    quiet_modules = frozenset(apis()["quiet"]["modules"])
    quiet_members = frozenset(apis()["quiet"]["members"])
    declares = True
    typed = True
    heads_run = False
    renames_imports = False
    manifests: frozenset[str] = frozenset()
    starts = ""
    endings = frozenset({"System.exit"})
    lenient_lists = False
    code_at_top = False
    opened: Inlining | None = None
    exact_calls = True
    placement = "qualified"
    bare_members = True
    concerns = apis()["concerns"]
    write: Text = write
    regions: Extraction = regions
    members = members
    frameworks = frameworks
    streams: Any = streams
    launch: Launch = launch

    read = staticmethod(read)
    compiles = staticmethod(compiles)
    accepts = staticmethod(accepts)
    arguments = staticmethod(structure.arguments)
    tokens = staticmethod(structure.tokens)
    member_owner = staticmethod(structure.member_owner)
    inlines = staticmethod(inlines)
    item_type = staticmethod(lists.kind_of)
    item_value = staticmethod(lists.item_value)
    handed_over = staticmethod(lambda file, ref: lists.kind_of(file, ref) not in lists.NARROW)
    whole_loop = staticmethod(lists.whole_loop)
    unpacked: Callable[[SourceFile, Statement], list[tuple[tuple[int, int], tuple[int, int]]]] = staticmethod(lambda file, statement: [])
    literals = staticmethod(literals)
    purity = staticmethod(purity)
    type_of = staticmethod(type_of)
    imported = staticmethod(imported)
    imported_word = staticmethod(lambda file, statement, name: None)
    module_word = staticmethod(lambda file, statement, module: None)
    means = staticmethod(means)
    last_parts = staticmethod(last_parts)
    named_by = staticmethod(lambda path: {write.module_of(path)})
    ambient = staticmethod(ambient)
    tells = staticmethod(tells)
    copies = staticmethod(copies)
    offered = staticmethod(offered)
    alone = staticmethod(lambda file, start, end: False)
    count = staticmethod(lambda statement: structure.count(statement.node))
    depth = staticmethod(lambda statement: structure.depth(statement.node))
    has_alternative = staticmethod(lambda s: s.node.child_by_field_name("alternative") is not None)

    list_uses = staticmethod(lists.list_uses)
    object_list_uses = staticmethod(lists.list_uses)
    keyed: Callable[[SourceFile], list[Keyed]] = staticmethod(lambda file: [])  # what a map holds is not followed
    @staticmethod
    def offered_words(file: SourceFile, name: str) -> list[tuple[int, int]]:
        """Nothing is offered by a text."""
        return []

    @staticmethod
    def body(file: SourceFile, function: Function) -> list[Statement]:
        return structure.inner_statements(file, function.node)

    @staticmethod
    def inner(file: SourceFile, statement: Statement) -> list[Statement]:
        return structure.inner_statements(file, statement.node)

    @staticmethod
    def reentrant(module: str) -> str:
        return ""

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        return {"main": "it is what starts the program"}

    looked_up = staticmethod(lambda file, call: None)
    confined = staticmethod(lambda file, call: False)  # what runs a text sees everything around it

    @staticmethod
    def special(name: str) -> bool:
        return name in ("toString", "equals", "hashCode", "compareTo", "finalize", "close", "iterator", "run")


class Sketch(Java):
    name = "sketch"
    suffixes = (".pde",)
    joined = True
    placement = "shared"
    starts = "setup"
    streams = None

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        return dict.fromkeys(apis()["sketch"]["hooks"], "the sketch's surroundings call it by its name")


LANGUAGE = Java()
SKETCH = Sketch()
