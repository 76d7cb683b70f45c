"""Names that mean something else in a class than they seem to, because its base has members of these names."""

from __future__ import annotations

from ....program.model import SourceFile
from ..facts.jdk import full_name, handed_down, overridden
from .imports import reached

# Types that hand nothing down that a name could mean.
EMPTY_HANDED = ("Listener", "Runnable", "Comparator", "Comparable", "Callable", "Supplier", "Consumer",
    "Function", "Predicate", "Thread", "TimerTask", "Adapter", "Iterator", "Iterable", "Operator",
    "Object", "AutoCloseable", "Cloneable")  # fmt: skip


def made_quietly(file: SourceFile, at: int) -> bool:
    """Whether an object of a class that is written in place is made there without running anything of that class: its
    base calls what it overrides later."""
    node = file.tree.root_node.named_descendant_for_byte_range(at, at + 1)
    while node is not None and node.type != "object_creation_expression" and node.start_byte == at:
        node = node.parent
    body = (
        next((c for c in node.named_children if c.type == "class_body"), None)
        if node is not None and node.type == "object_creation_expression"
        else None
    )
    if node is None or body is None or any(c.type == "block" for c in body.named_children):
        return False
    base = node.child_by_field_name("type").text.decode().partition("<")[0]
    full = full_name(file, base)
    if not full:
        return base.endswith(EMPTY_HANDED) and not any(n == base for _, n in file.classes)
    return not overridden(body) & handed_down(full) - handed_down(full, "hooks")


def handed_to(file: SourceFile, base: str, through: tuple[str, ...] = ()) -> frozenset[str] | None:
    """The names that a class gets from a base outside of the file; None if nothing tells them."""
    own = [b for s, b in file.inheriting if any(s is x and n == base for x, n in file.classes)]
    if any(n == base for _, n in file.classes):
        found = [handed_to(file, b, (*through, base)) for b in own if b not in through]
        return None if None in found else frozenset().union(*(f for f in found if f is not None))
    full = full_name(file, base)
    return handed_down(full) if full else frozenset() if base.endswith(EMPTY_HANDED) else None


def inherited(file: SourceFile) -> list[tuple[int, str]]:
    """(offset, name) of globals used inside a class whose base has, or may have, a member of that name."""
    found = []
    for scope, base in file.inheriting:
        names = handed_to(file, base)
        for ref in file.within(scope.start, scope.end):
            if (
                ref.symbol is not None
                and ref.symbol.scope is file.scope
                and ref.symbol.kinds & {"variable", "function"}
                and ref.form != "qualified"
                and (names is None or ref.name in names)
            ):
                found.append((ref.start, ref.name))
    return found


def offered(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
    """Names that a class with an unread base may have inherited, and so mean something else; names reached by their
    text."""
    found: list[tuple[int, tuple[str, ...], str]] = [
        (at, (name,), f"'{name}' is used in a class whose base may have a member of that name")
        for at, name in inherited(file)
    ]
    names = {s.name for s in file.scope.symbols.values() if s.kinds & {"variable", "function"}}
    for at, member, text in reached(file):
        meant = tuple(sorted(names if text is None else names & {text}))
        if meant:
            any_name = "any name" if text is None else f"'{text}'"
            found.append((at, meant, f"'{member}()' can reach {any_name} by its text"))
    return found
