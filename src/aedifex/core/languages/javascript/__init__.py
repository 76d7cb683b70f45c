"""JavaScript and TypeScript: everything that the core needs to know of them."""

from __future__ import annotations

from ...program.facets.extraction import Extraction
from ...program.facets.inlining import Inlining
from ...program.facets.launch import Launch
from ...program.facets.listening import Listening
from ...program.facets.text import Text
from ...program.model import SourceFile
from ...program.streams import Streams
from ..braced.language import Braced
from .facts import by_name
from .facts.pure import PURITY, apis
from .reading import imports, lists, members
from .reading.inlines import inlines
from .reading.keyed import keyed
from .reading.literals import literals
from .reading.read import read
from .reading.structure import STATEMENTS
from .running import launch
from .running.compiler import compiles
from .writing import importing, listening, opening, streams
from .writing.regions import REGIONS
from .writing.text import TEXT


class JavaScript(Braced):
    """JavaScript, as a module, a script or the code of a page."""

    name = "javascript"
    suffixes: tuple[str, ...] = (".js", ".mjs", ".cjs", ".jsx")
    builtins = frozenset(apis()["names"]["builtins"])
    dynamic = frozenset({"eval", "Function", "with"})
    everywhere = dynamic
    registries = frozenset({"module.constructor"})
    introspective = frozenset({"exports", "module", "require", "__dirname", "__filename"})
    elsewhere = frozenset({"__dirname", "__filename", "module", "exports"})
    unset_errors = frozenset({"ReferenceError"})
    held: frozenset[str] = frozenset({"WeakRef", "FinalizationRegistry"})
    quiet = frozenset(apis()["quiet"]["builtins"])
    at_once = frozenset(apis()["at_once"]["calls"])
    quiet_modules = frozenset(apis()["quiet"]["modules"])
    quiet_members = frozenset(apis()["quiet"]["members"])
    typed = False
    endings = frozenset({"process.exit"})
    lenient_lists = True
    code_at_top = True
    exact_calls = False
    concerns = apis()["concerns"]
    write: Text = TEXT
    regions: Extraction = REGIONS
    statements = STATEMENTS
    members = members
    streams: Streams | None = streams
    listening: Listening | None = listening
    opened: Inlining | None = opening
    launch: Launch = launch

    read = staticmethod(read)
    compiles = staticmethod(compiles)
    inlines = staticmethod(inlines)
    item_type = staticmethod(lists.item_type)
    whole_loop = staticmethod(lists.whole_loop)
    literals = staticmethod(literals)
    purity = staticmethod(PURITY.purity)
    type_of = staticmethod(PURITY.type_of)
    imported = staticmethod(imports.imported)
    means = staticmethod(imports.means)
    last_parts = staticmethod(imports.last_parts)
    named_by = staticmethod(imports.named_by)

    list_uses = staticmethod(lists.list_uses)
    object_list_uses = staticmethod(lists.object_list_uses)
    keyed = staticmethod(keyed)

    @staticmethod
    def reentrant(module: str) -> str:
        return "can run parts of the program by their path" if module in apis()["children"]["modules"] else ""

    @staticmethod
    def offered(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
        return importing.offered(file)

    tells = staticmethod(by_name.tells)
    ambient = staticmethod(by_name.required_in_place)

    @staticmethod
    def hooks(file: SourceFile) -> dict[str, str]:
        why = "the drawing library calls it by its name"
        free = {n for n, s in file.scope.symbols.items() if not s.kinds}
        waiting = any(
            f.name in ("setup", "draw") and f.symbol is not None and all(r.writes for r in f.symbol.references)
            for f in file.tops
        )
        drawing = "createCanvas" in free or (waiting and imports.kind_of(file) == "page")  # nobody here calls them
        return dict.fromkeys(apis()["sketch"]["hooks"], why) if drawing else {}

    @staticmethod
    def special(name: str) -> bool:
        return name in ("toString", "valueOf", "toJSON", "then") or name.startswith("[")


class TypeScript(JavaScript):
    """TypeScript: JavaScript with types."""

    name = "typescript"
    suffixes = (".ts", ".tsx", ".mts", ".cts")


LANGUAGE = JavaScript()
TYPED = TypeScript()
