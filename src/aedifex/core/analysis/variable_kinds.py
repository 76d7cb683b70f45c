"""What kind of thing each module-level variable is: constant, companion or changing state."""

from __future__ import annotations

from dataclasses import dataclass

from ..program.language import Language
from ..program.model import SourceFile, Statement, Symbol
from .effects import module_variables
from .startup import running, under_guard

# Constructs that bind a name and cannot bind a field instead.
UNFIT = {
    "walrus": "is set inside an expression (:=)",
    "except": "is set by an 'except ... as'",
    "pattern": "is set by a match pattern",
    "import": "is bound by an import",
    "definition": "is also the name of a function or class",
    "spelled": 'is spelled out by f"{name=}", which would print another text',
    "annotation": "is declared with a type but without a value",
    "loop": "is the variable of a loop",
    "declared": "is declared inside a block or more than once",
    "offered": "is offered to other files where it is declared",
}


@dataclass
class Variable:
    """``nature``: constant (never changes), companion (bound once, may do things), state (changes)."""

    symbol: Symbol
    nature: str
    first: Statement | None  # the statement at the top of the file that first sets it, if a plain one does
    type: str
    in_loop: bool

    @property
    def name(self) -> str:
        return self.symbol.name


def classify(file: SourceFile, language: Language) -> dict[Symbol, Variable]:
    """Every module-level variable with its nature, in the order of first binding; worked out once."""
    if "natures" not in file.memo:
        file.memo["natures"] = natures(file, language)
    return dict(file.memo["natures"])


def natures(file: SourceFile, language: Language) -> dict[Symbol, Variable]:
    loops = loop_spans(file, language)
    plain = {id(s.target): s for s in running(file, language) if s.target is not None}
    found: dict[Symbol, Variable] = {}
    optional = [(s.start, s.end) for s in file.statements if only_imports(file, language, s)]
    apart = {file.slice(*name) for s in file.statements for name, _ in parted_values(file, language, s)}
    for symbol in module_variables(file):
        if symbol.name in language.introspective:
            continue
        if "import" in symbol.kinds and all(any(a <= r.start < b for a, b in optional) for r in symbol.bindings):
            continue  # an import, or what stands for it where it fails
        bindings = sorted(symbol.bindings, key=lambda r: r.start)
        first = plain.get(id(bindings[0]))
        nature = "state"
        if len(bindings) == 1 and first is not None and first.kind == "assign" and not symbol.kinds - {"variable"}:
            nature = "companion"
            fixed = is_settled(file, language, first, found)
            early = any(r.scope.frame is file.scope and r.start < bindings[0].start for r in symbol.references)
            if (
                fixed
                and not early
                and not of_console(file, language, first)
                and not under_guard(file, language, first)
                and not any(r.mutates for r in symbol.references)
            ):
                nature = "constant"
        elif len(bindings) == 1 and bindings[0].form in ("unpack", "chain") and not symbol.kinds - {"variable"}:
            nature = "constant" if symbol.name in apart and never_changes(file, symbol) else "companion"
        kind = declared_type(file, first) or (
            language.type_of(file, first.value) if first is not None and first.value else ""
        )
        found[symbol] = Variable(
            symbol, nature, first, kind, any(a <= r.start < b for r in symbol.bindings for a, b in loops)
        )
    return found


def of_console(file: SourceFile, language: Language, first: Statement) -> bool:
    """Whether a variable stands for the console, which does things."""
    text = "".join(file.slice(*first.value).split()) if first.value is not None and language.streams is not None else ""
    return bool(text) and language.streams is not None and any(text == k.value for k in language.streams.KINDS)


def never_changes(file: SourceFile, symbol: Symbol) -> bool:
    """Whether a variable that is set once is set before anything at the top reads it, and nothing is changed in it."""
    first = symbol.bindings[0]
    early = any(r.scope.frame is file.scope and r.start < first.start for r in symbol.references)
    return not early and not any(r.mutates for r in symbol.references)


def parted_values(file: SourceFile, language: Language, s: Statement) -> list[tuple[tuple[int, int], tuple[int, int]]]:
    """(name, value) of each variable of a statement that may be one for each: no value has an effect or looks at the
    others."""
    pairs = language.unpacked(file, s)
    names = {file.slice(*name) for name, _ in pairs}
    for _, value in pairs:
        if language.purity(file, value) == "effect" or any(r.name in names for r in file.within(*value)):
            return []
    return pairs


def declared_type(file: SourceFile, first: Statement | None) -> str:
    """The type that a declaration gives its variable; "" if it gives none."""
    return file.slice(*first.annotation) + first.brackets if first is not None and first.annotation else ""


def constants_of(file: SourceFile, language: Language) -> set[Symbol]:
    """The module-level variables that never change."""
    if "constants" not in file.memo:
        file.memo["constants"] = frozenset(s for s, v in classify(file, language).items() if v.nature == "constant")
    return set(file.memo["constants"])


def is_settled(file: SourceFile, language: Language, first: Statement, known: dict[Symbol, Variable]) -> bool:
    """Whether the value is made of literals, imports, builtins and constants alone."""
    if first.value is None or language.purity(file, first.value) == "effect":
        return False
    for ref in file.within(*first.value):
        symbol = ref.symbol
        if symbol is None or symbol.scope is not file.scope:
            continue
        if symbol.kinds and symbol.kinds != {"import"} and not (symbol in known and known[symbol].nature == "constant"):
            return False
    return True


def loop_spans(file: SourceFile, language: Language) -> list[tuple[int, int]]:
    """The loops at the top of main code."""
    loops = [s for s in file.statements if s.kind in ("for", "while")]
    for guard in (s for s in file.statements if s.kind == "guard"):
        loops += [s for s in language.inner(file, guard) if s.kind in ("for", "while")]
    return [(s.start, s.end) for s in loops]


def movable(file: SourceFile, span: tuple[int, int], constants: set[Symbol], language: Language) -> bool:
    """Whether an expression gives the same value wherever it is evaluated after the constants are set."""
    if language.purity(file, span) == "effect":
        return False
    return all(
        r.symbol is None
        or r.symbol.scope is not file.scope
        or not r.symbol.kinds
        or r.symbol.kinds == {"import"}
        or r.symbol in constants
        or (r.symbol.kinds == {"class"} and not language.code_at_top)  # only named, and there from the start
        for r in file.within(*span)
    )


def only_imports(file: SourceFile, language: Language, statement: Statement) -> bool:
    """A ``try`` or ``if`` that does nothing but import, or set a name where an import failed."""
    if statement.kind not in ("try", "if"):
        return False
    inner = language.inner(file, statement)
    return any(s.kind == "import" for s in inner) and all(
        s.kind in ("import", "pass") or (s.kind == "assign" and s.value and language.purity(file, s.value) != "effect")
        for s in inner
    )
