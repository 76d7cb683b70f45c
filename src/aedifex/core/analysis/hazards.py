"""What will bite: things found by reading that make a move unsafe, or call for another form."""

from __future__ import annotations

from ..program.language import Language
from ..program.model import Reference, SourceFile, Symbol
from ..program.program import Program
from ..program.tell import Means
from . import messages
from .effects import Effects
from .importers import importers
from .late_reads import at_once
from .messages import OUTSIDE, WHOLE, Hazard

BINDINGS = {
    "walrus": "is set inside an expression",
    "except": "is set by an 'except ... as'",
    "pattern": "is set by a match pattern",
    "spelled": "is spelled out by a self-documenting format",
    "annotation": "is declared with a type but without a value",
}


def hazards(program: Program, path: str, outsiders: Program | None = None) -> list[Hazard]:
    """All hazards of one file, in source order. ``outsiders``: the other files of the project folder."""
    kept: dict[tuple[str, int], list[Hazard]] = program.memo.setdefault("hazards", {})
    if (path, id(outsiders)) not in kept:
        kept[path, id(outsiders)] = all_hazards(program, path, outsiders)
    return list(kept[path, id(outsiders)])


def all_hazards(program: Program, path: str, outsiders: Program | None) -> list[Hazard]:
    file, language = program.files[path], program.language
    found = [
        *dynamic(file, language),
        *bindings(file),
        *redefined(file),
        *imports(file, language),
        *seen_late(file, language),
    ]
    found += outside(file, language, program, outsiders)
    found += told_by(file, language, program)
    return sorted(found, key=lambda h: (h.line, h.kind, h.message))


def forbidding(found: list[Hazard], names: set[str]) -> Hazard | None:
    """The first hazard that forbids to move any name of the file, or one of ``names``."""
    return next((h for h in found if set(h.names) & names or (not h.names and h.kind in WHOLE)), None)


def dynamic(file: SourceFile, language: Language) -> list[Hazard]:
    """Names built at run time."""
    found = []
    for ref in file.references:
        symbol = ref.symbol
        if symbol is not None and symbol.kinds == {"import"} and f"{ref.name}.{ref.member}" in language.registries:
            names = language.looked_up(file, ref)
            if names is not None:
                found += [
                    messages.LOOKED_UP_IN_REGISTRY.at(
                        file, ref.start, (n,), name=n, registry=f"{ref.name}.{ref.member}"
                    )
                    for n in sorted(names)
                ]
                continue
            registry = f"{ref.name}.{ref.member}"
            found.append(messages.ANY_NAME_BY_REGISTRY.at(file, ref.start, registry=registry))
    for ref in by_text(file, language, 0, len(file.text)):
        if ref.name in language.everywhere or ref.scope.frame is file.scope:
            names = language.looked_up(file, ref)
            if names is not None:
                found += [
                    messages.LOOKED_UP_BY_TEXT.at(file, ref.start, (n,), name=n, call=ref.name) for n in sorted(names)
                ]
                continue
            found.append(messages.ANY_NAME_BY_TEXT.at(file, ref.start, call=ref.name))
    return found


def by_text(file: SourceFile, language: Language, start: int, end: int) -> list[Reference]:
    """Calls in a stretch of code that reach the names around them by their text."""
    return [
        r
        for r in file.within(start, end)
        if r.role == "call"
        and r.name in language.dynamic
        and r.symbol is not None
        and not r.symbol.kinds
        and (r.name in language.everywhere or bare_call(file, r))
        and not language.confined(file, r)
    ]


def bare_call(file: SourceFile, ref: Reference) -> bool:
    """Whether the call is made without arguments: then it is about the names around it."""
    calls = [c for c in file.calls_within(ref.start, ref.end) if c.callee is ref]
    return not calls or not file.text[calls[0].args_start : calls[0].args_end].strip()


def assumptions(program: Program, path: str) -> list[str]:
    """What a move of this file's names rests on and reading cannot show."""
    file = program.files[path]
    found = [f"no code outside this folder imports, sets or patches a name of {path}"]
    texts = [r for r in file.references if r.role == "call" and r.name in program.language.everywhere]
    found += [
        f"line {file.shown(r.start)}: what '{r.name}()' runs uses no names of {path} but those that it is given"
        for r in texts
        if program.language.confined(file, r)
    ]
    guarded = any(s.kind == "guard" for s in file.statements)
    if not guarded and any(s.kind in ("expression", "for", "while", "if", "with", "try") for s in file.statements):
        found.append(f"{path} is started, not imported")
    handed = sorted(s.name for s in Effects(file, program.language).escaped if "function" in s.kinds)
    if handed:
        found.append(
            f"code that was not read may call {', '.join(handed)} at any time, and holds no other name of {path}"
        )
    return found


def told_by(file: SourceFile, language: Language, program: Program) -> list[Hazard]:
    """What tells a function from a method, or names something by a text."""
    found = [
        Hazard(t.means.value, *file.place(t.start), t.message, t.names)
        for t in language.tells(file)
        if t.names or t.means is Means.ANY_TEXT
    ]
    copies = copying(program)
    if copies:
        other, does, at = copies[0]
        where = f"line {other.shown(at)}" if other is file else "{}:{}".format(*other.place(at))
        for f in file.tops:
            ref = (
                next((r for r in f.symbol.references if may_be_kept(file, language, r)), None)
                if f.symbol is not None
                else None
            )
            if ref is not None:
                found.append(
                    messages.COPIED_AS_VALUE.at(file, ref.start, (f.name,), name=f.name, where=where, does=does)
                )
    return found


def copying(program: Program) -> list[tuple[SourceFile, str, int]]:
    """(file, what it does, offset) of what copies whatever it is given; worked out once."""
    if "copies" not in program.memo:
        program.memo["copies"] = [
            (other, *row) for other in program.files.values() for row in program.language.copies(other)
        ]
    found: list[tuple[SourceFile, str, int]] = program.memo["copies"]
    return found


def may_be_kept(file: SourceFile, language: Language, ref: Reference) -> bool:
    """Whether a function is handed on to something that may keep it."""
    return not ref.writes and ref.role != "call" and not ref.member and not at_once(file, language, ref.start)


def bindings(file: SourceFile) -> list[Hazard]:
    found = []
    for symbol in file.scope.symbols.values():
        if "variable" not in symbol.kinds:
            continue
        for ref in symbol.references:
            why = BINDINGS.get(ref.form) or ("is deleted" if ref.role == "delete" else "")
            if why:
                names = (symbol.name,)
                found.append(messages.BOUND_OTHERWISE.at(file, ref.start, names, name=symbol.name, how=why))
                break
    return found


def redefined(file: SourceFile) -> list[Hazard]:
    """Functions defined more than once, decorated, compared, or asked for their attributes."""
    found = []
    by_symbol: dict[Symbol, int] = {}
    for f in file.functions:
        if f.outer is not file.scope or f.symbol is None:
            continue
        by_symbol[f.symbol] = by_symbol.get(f.symbol, 0) + 1
        if by_symbol[f.symbol] == 2 or f.symbol.kinds - {"function"}:
            found.append(messages.DEFINED_TWICE.at(file, f.start, (f.name,), name=f.name))
        if f.decorators:
            found.append(messages.DECORATED.at(file, f.start, (f.name,), name=f.name))
        for ref in f.symbol.references:
            if ref.form in ("compared", "key"):
                found.append(messages.COMPARED.at(file, ref.start, (f.name,), name=f.name))
            elif ref.member:
                found.append(messages.ASKED_ITSELF.at(file, ref.start, (f.name,), name=f.name, member=ref.member))
    return found


def seen_late(file: SourceFile, language: Language) -> list[Hazard]:
    """Functions made in a loop that use its variable: they find in it what it holds when they run. Worked out once."""
    if "seen late" in file.memo:
        return list(file.memo["seen late"])
    found = []
    for s in {
        r.symbol
        for r in file.references
        if r.symbol is not None and r.scope.frame is not r.symbol.scope and r.symbol.scope.kind != "block"
    }:
        inner = [
            r
            for r in s.references
            if not r.writes and r.scope.frame is not s.scope and r.scope.frame.kind in ("function", "lambda")
        ]
        for b in s.bindings if inner else ():
            body = language.regions.loop_body(file, b.start)
            if body is None or not b.start < body[0] or b.scope.frame is not s.scope.frame:
                continue
            late = {
                r.scope.frame: r
                for r in reversed(inner)
                if body[0] <= r.scope.frame.start and r.scope.frame.end <= body[1]
            }
            found += [
                messages.SEEN_LATE.at(file, r.start, name=s.name)
                for r in late.values()
                if not at_once(file, language, r.scope.frame.start)
            ]
    file.memo["seen late"] = list(dict.fromkeys(found))
    return list(file.memo["seen late"])


def imports(file: SourceFile, language: Language) -> list[Hazard]:
    """Modules that start the program's parts again, or find them by their path."""
    found = []
    for s in file.imports:
        for _, module, _ in language.imported(file, s):
            why = language.reentrant(module)
            if why:
                found.append(messages.STARTS_PROCESSES.at(file, s.start, module=module, how=why))
    for at in file.star_imports:
        found.append(messages.STAR_IMPORT.at(file, at))
    return found


def outside(file: SourceFile, language: Language, program: Program, outsiders: Program | None) -> list[Hazard]:
    """Names that another file of the project imports, sets or patches, or that the file itself offers."""
    found: list[Hazard] = []
    module = language.write.module_of(file.path)
    imports = importers(program, outsiders)
    for other, local, origin, name, line in imports.get(module, ()):
        if other.path != file.path and language.means(other.path, origin, name, file.path):
            found += uses_through_import(file, other, module, local, name, line)
    for other, local, _, name, line in imports.get(language.main_module, ()) if language.main_module else ():
        found += uses_through_import(file, other, language.main_module, local, name, line)
    for path, line, origin, name in outsiders.memo.get("manifests", ()) if outsiders is not None else ():
        if language.means(path, origin, "", file.path):
            found.append(messages.STARTED_OR_SERVED.on_line(path, line, (name,), name=name, manifest=path))
    for at, names, how in language.offered(file):
        found.append(Hazard(OUTSIDE, *file.place(at), how, names))
    return found


def uses_named(file: SourceFile, name: str) -> list[Reference]:
    """The uses of a name anywhere in a file."""
    if "named" not in file.memo:
        by_name: dict[str, list[Reference]] = {}
        for r in file.references:
            by_name.setdefault(r.name, []).append(r)
        file.memo["named"] = by_name
    found: list[Reference] = file.memo["named"].get(name, [])
    return found


def uses_through_import(
    file: SourceFile, other: SourceFile, module: str, local: str, name: str, line: int
) -> list[Hazard]:
    """What one import in another file, and what follows from it, uses of this file."""
    if name == "*":
        return [messages.ALL_IMPORTED.on_line(other.path, line, other=other.path, file=file.path)]
    if name and name != module:
        if local:
            return [messages.NAME_IMPORTED_BY.on_line(other.path, line, (name,), name=name, other=other.path)]
        return [messages.NAMED_IN_TEXT_OF.on_line(other.path, line, (name,), name=name, other=other.path)]
    found = []
    for r in uses_named(other, local):
        at = other.line(r.start)
        if r.member:
            names = (r.member,)
            found.append(
                messages.USED_BY.on_line(other.path, at, names, module=module, name=r.member, other=other.path)
            )
        elif not r.writes and r.form != "import":
            found.append(
                messages.MODULE_PASSED_ON.on_line(other.path, at, other=other.path, local=local, file=file.path)
            )
    return found
