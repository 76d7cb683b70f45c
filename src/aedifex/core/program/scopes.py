"""Questions about scopes that hold for every language."""

from __future__ import annotations

from .model import Scope


def receiver_of(scope: Scope, owner: Scope) -> str:
    """The receiver's name in a method of ``owner`` that holds ``scope``; "" outside its methods."""
    at: Scope | None = scope
    while at is not None and at is not owner:
        if at.receiver is not None:
            return at.receiver if at.parent is owner else ""
        at = at.parent
    return ""


def shadowed(ref_scope: Scope, name: str, top: Scope) -> bool:
    """Whether ``name`` used in a scope would mean something nearer than the module."""
    scope: Scope | None = ref_scope
    direct = True
    while scope is not None and scope is not top:
        if name in scope.symbols and name not in scope.globals and (direct or scope.kind != "class"):
            return True
        direct = False
        scope = scope.parent
    return False
