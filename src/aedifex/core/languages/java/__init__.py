"""Java, and sketches in its dialect: everything that the core needs to know of them."""

from __future__ import annotations

from ...program.facets.extraction import Extraction
from ...program.facets.launch import Launch
from ...program.facets.listening import Listening
from ...program.facets.text import Text
from ...program.model import SourceFile
from ...program.streams import Streams
from ..braced.language import Braced
from .facts import frameworks
from .facts.by_name import copies, tells
from .facts.pure import PURITY, apis
from .reading import lists, members
from .reading.imports import ambient, imported, last_parts, means
from .reading.inheriting import offered
from .reading.inlines import inlines
from .reading.literals import literals
from .reading.read import read
from .reading.structure import STATEMENTS
from .running import launch
from .running.compiler import accepts, compiles
from .writing import streams
from .writing.listening import LISTENING
from .writing.regions import REGIONS
from .writing.text import TEXT


class Java(Braced):
    """Java: the static members of one class are the globals, ``main`` is the main code."""

    name = "java"
    suffixes: tuple[str, ...] = (".java",)
    gathers = True
    builtins = frozenset(apis()["names"]["builtins"]) | frozenset(apis()["names"]["lang"])
    reserved = frozenset({"serialVersionUID"})
    held: frozenset[str] = frozenset({"WeakReference", "SoftReference", "PhantomReference", "Cleaner"})
    quiet = frozenset(apis()["quiet"]["builtins"])
    at_once = frozenset(apis()["at_once"]["calls"])
    quiet_modules = frozenset(apis()["quiet"]["modules"])
    quiet_members = frozenset(apis()["quiet"]["members"])
    endings = frozenset({"System.exit"})
    placement = "qualified"
    bare_members = True
    concerns = apis()["concerns"]
    write: Text = TEXT
    regions: Extraction = REGIONS
    statements = STATEMENTS
    members = members
    frameworks = frameworks
    streams: Streams | None = streams
    listening: Listening | None = LISTENING
    launch: Launch = launch

    read = staticmethod(read)
    compiles = staticmethod(compiles)
    accepts = staticmethod(accepts)
    inlines = staticmethod(inlines)
    item_type = staticmethod(lists.kind_of)
    item_value = staticmethod(lists.item_value)
    handed_over = staticmethod(lambda file, ref: lists.kind_of(file, ref) not in lists.NARROW)
    whole_loop = staticmethod(lists.whole_loop)
    literals = staticmethod(literals)
    purity = staticmethod(PURITY.purity)
    type_of = staticmethod(PURITY.type_of)
    imported = staticmethod(imported)
    means = staticmethod(means)
    last_parts = staticmethod(last_parts)
    named_by = staticmethod(lambda path: {TEXT.module_of(path)})
    ambient = staticmethod(ambient)
    tells = staticmethod(tells)
    copies = staticmethod(copies)
    offered = staticmethod(offered)

    list_uses = staticmethod(lists.list_uses)
    object_list_uses = staticmethod(lists.list_uses)

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        return {"main": "it is what starts the program"}

    @staticmethod
    def special(name: str) -> bool:
        return name in ("toString", "equals", "hashCode", "compareTo", "finalize", "close", "iterator", "run")


class Sketch(Java):
    """Sketches: all files of a folder are one program, in the dialect of Java."""

    name = "sketch"
    suffixes = (".pde",)
    joined = True
    colours = frozenset({"fill", "stroke", "background", "tint"})
    placement = "shared"
    starts = "setup"
    streams = None

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        return dict.fromkeys(apis()["sketch"]["hooks"], "the sketch's surroundings call it by its name")


LANGUAGE = Java()
SKETCH = Sketch()
