"""Give every reference the symbol it stands for, by the language's own rules of scope."""

from __future__ import annotations

from ....program.model import Scope, SourceFile, Symbol
from ....program.symbols import WRITING

SEEN_FROM_INSIDE = frozenset({"function", "lambda", "comprehension", "types"})


def resolve(file: SourceFile) -> None:
    """Fill ``symbol`` of references and declarations, ``symbols`` and ``free`` of scopes, ``kinds`` of symbols."""
    module = file.scope
    found: dict[Scope, dict[str, Symbol]] = {}
    for scope in module.walk():
        for name in sorted(scope.bound):
            if name not in scope.globals and name not in scope.nonlocals:
                own(scope, name)
        for name in scope.parameters:
            own(scope, name)
    scope, row = module, found.setdefault(module, {})
    for ref in file.references:
        if ref.scope is not scope:
            scope = ref.scope
            row = found.setdefault(scope, {})
        symbol = row.get(ref.name)
        if symbol is None:
            symbol = row[ref.name] = lookup(scope, ref.name, module)
        ref.symbol = symbol
        symbol.references.append(ref)
        if ref.role in WRITING:
            symbol.kinds.add(kind_of(ref.form))
    for declaration in file.declarations:
        name = declaration.name
        symbol = own(module, name) if name in declaration.scope.globals else lookup(declaration.scope, name, module)
        declaration.symbol = symbol
        symbol.declarations.append(declaration)
    for function in file.functions:
        symbol = lookup(function.outer, function.name, module)
        symbol.kinds.add("function")
        symbol.kinds.discard("definition")
        function.symbol = symbol
    for scope, name in file.classes:
        symbol = lookup(scope.parent or module, name, module)
        symbol.kinds.discard("definition")
        symbol.kinds.add("class")
    spread_free(module, module, found)


def kind_of(form: str) -> str:
    return form if form in ("import", "parameter", "definition", "type") else "variable"


def own(scope: Scope, name: str) -> Symbol:
    symbol = scope.symbols.get(name)
    if symbol is None:
        symbol = scope.symbols[name] = Symbol(name, scope)
    return symbol


def lookup(scope: Scope, name: str, module: Scope) -> Symbol:
    """The symbol that ``name`` means in ``scope``; names bound nowhere end at the module."""
    if name in scope.globals:
        return own(module, name)
    if name in scope.symbols and name not in scope.nonlocals:
        return scope.symbols[name]
    inside_types = scope.kind == "types"
    outer = scope.parent
    while outer is not None and outer.parent is not None:
        if outer.kind in SEEN_FROM_INSIDE or (inside_types and outer.kind == "class"):
            if name in outer.globals:
                break
            if name in outer.symbols and name not in outer.nonlocals:
                return outer.symbols[name]
            inside_types = inside_types and outer.kind == "types"
        elif outer.kind == "class":
            inside_types = False
            if name == "__class__" and scope is not outer:
                return own(outer, ".class")  # the cell that the language makes, not a name of the class
        outer = outer.parent
    return own(module, name)


def spread_free(scope: Scope, module: Scope, found: dict[Scope, dict[str, Symbol]]) -> set[str]:
    """Names that this scope and those below it take from scopes around them (never from the module)."""
    needed: set[str] = set()
    for child in scope.children:
        needed |= {name for name in spread_free(child, module, found) if not owned(scope, name)}
    row = found.get(scope, {})
    for name in scope.used | scope.nonlocals if scope is not module else ():
        symbol = row.get(name) or lookup(scope, name, module)
        if symbol.scope is not scope and symbol.scope is not module:
            needed.add(name)
    scope.free = needed if scope is not module else set()
    return scope.free


def owned(scope: Scope, name: str) -> bool:
    if scope.kind == "class":
        return name == "__class__"
    return name in scope.symbols and name not in scope.nonlocals and name not in scope.globals
