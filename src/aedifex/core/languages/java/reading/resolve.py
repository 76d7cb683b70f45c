"""Give every reference the symbol it stands for: variables, methods and types are looked up apart."""

from __future__ import annotations

from ....program.model import Reference, Scope, SourceFile, Symbol
from .walk_names import ANY, METHOD, RECEIVER, TYPE, VARIABLE


def resolve(file: SourceFile, kinds: dict[int, str]) -> None:
    """Fill ``symbol`` of references, ``symbols`` of scopes, ``kinds`` of symbols."""
    module = file.scope
    for scope in module.walk():
        for bound in sorted(scope.bound):
            own(scope, bound)
    for ref in file.references:
        symbol = lookup(ref, kinds.get(id(ref), VARIABLE), module)
        ref.symbol = symbol
        symbol.references.append(ref)
        if ref.writes:
            symbol.kinds.add(ref.form if ref.form in ("import", "parameter", "definition", "type") else "variable")
    for function in file.functions:
        function.symbol = find(function.outer, function.name, METHOD) or own(function.outer, function.name + METHOD)
        function.symbol.kinds.add("function")
        function.symbol.kinds.discard("definition")
    for scope, name in file.classes:
        symbol = find(scope.parent or module, name, TYPE) or own(scope.parent or module, name + TYPE)
        symbol.kinds.discard("definition")
        symbol.kinds.add("class")
    for symbol in module.symbols.values():
        symbol.kinds.discard("definition")


def key(scope: Scope, name: str, kind: str) -> str:
    """Under which name a scope keeps a symbol: the plain one, unless another kind of name has it already."""
    taken = [VARIABLE, METHOD, TYPE]
    for other in taken[: taken.index(kind)]:
        if name + other in scope.bound:
            return name + kind
    return name


def own(scope: Scope, bound: str) -> Symbol:
    kind = next((k for k in (METHOD, TYPE) if bound.endswith(k)), VARIABLE)
    name = bound.removesuffix(kind)
    place = key(scope, name, kind)
    symbol = scope.symbols.get(place)
    if symbol is None:
        symbol = scope.symbols[place] = Symbol(name, scope)
    return symbol


def find(scope: Scope, name: str, kind: str) -> Symbol | None:
    """The symbol that a scope itself has for a name of a kind."""
    return scope.symbols.get(key(scope, name, kind)) if name + kind in scope.bound else None


def lookup(ref: Reference, kind: str, module: Scope) -> Symbol:
    if ref.name == RECEIVER:
        return receiver(ref.scope, module)
    for wanted in (VARIABLE, TYPE) if kind == ANY else (kind,):
        at: Scope | None = ref.scope
        while at is not None:
            found = find(at, ref.name, wanted)
            if found is not None:
                return found
            at = at.parent
    return free(module, ref.name, VARIABLE if kind == ANY else kind)


def free(module: Scope, name: str, kind: str) -> Symbol:
    """A name that nothing in the file binds."""
    place = name if name not in module.symbols or not module.symbols[name].kinds else name + (kind or " ")
    if place not in module.symbols:
        module.symbols[place] = Symbol(name, module)
    return module.symbols[place]


def receiver(scope: Scope, module: Scope) -> Symbol:
    at: Scope | None = scope
    while at is not None:
        if at.receiver is not None:
            found = at.symbols.get(RECEIVER)
            if found is None:
                found = at.symbols[RECEIVER] = Symbol(RECEIVER, at)
            found.kinds.add("parameter")
            return found
        at = at.parent
    return free(module, RECEIVER, VARIABLE)
