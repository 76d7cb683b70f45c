"""Give every reference the symbol it stands for: by nested blocks, from the innermost outwards, as far as one has the
name."""

from __future__ import annotations

from ...program.model import Reference, Scope, SourceFile, Symbol
from .walker import RECEIVER


def resolve(file: SourceFile) -> None:
    """Fill ``symbol`` of references, ``symbols`` of scopes, ``kinds`` of symbols."""
    module = file.scope
    for scope in module.walk():
        for name in sorted(scope.bound):
            own(scope, name)
    found: dict[tuple[int, str], Symbol] = {}
    for ref in file.references:
        key = (id(ref.scope), ref.name)
        symbol = found.get(key)
        if symbol is None:
            symbol = found[key] = lookup(ref, module)
        ref.symbol = symbol
        symbol.references.append(ref)
        if ref.writes:
            symbol.kinds.add(kind_of(ref))
    for function in file.functions:
        symbol = function.outer.symbols.get(function.name) or lookup_name(function.outer, function.name, module)
        symbol.kinds.add("function")
        symbol.kinds.discard("definition")
        function.symbol = symbol
    for scope, name in file.classes:
        symbol = lookup_name(scope.parent or module, name, module)
        symbol.kinds.discard("definition")
        symbol.kinds.add("class")


def kind_of(ref: Reference) -> str:
    """What a binding makes of its symbol."""
    return ref.form if ref.form in ("import", "parameter", "definition", "type") else "variable"


def own(scope: Scope, name: str) -> Symbol:
    symbol = scope.symbols.get(name)
    if symbol is None:
        symbol = scope.symbols[name] = Symbol(name, scope)
    return symbol


def lookup(ref: Reference, module: Scope) -> Symbol:
    if ref.name == RECEIVER:
        return receiver(ref.scope, module)
    return lookup_name(ref.scope, ref.name, module)


def receiver(scope: Scope, module: Scope) -> Symbol:
    """The receiver of the nearest function that has one; elsewhere that of the file."""
    at: Scope | None = scope
    while at is not None:
        if at.receiver is not None:
            found = own(at, RECEIVER)
            found.kinds.add("parameter")
            return found
        at = at.parent
    return own(module, RECEIVER)


def lookup_name(scope: Scope, name: str, module: Scope) -> Symbol:
    """A name's symbol; one that nothing binds is the file's. The members of a class are reached through an object."""
    at: Scope | None = scope
    while at is not None:
        if at.kind != "class" and name in at.symbols:
            return at.symbols[name]
        at = at.parent
    return own(module, name)
