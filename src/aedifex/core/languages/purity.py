"""Whether an expression can be evaluated at another place with the same result, and what type its form gives: what all
languages ask alike, over tables of their grammars."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib.resources import files
from typing import Any, ClassVar

from ..program.model import SourceFile


@cache
def apis_of(package: str) -> dict[str, Any]:
    """The table of library calls that ships in a package."""
    return tomllib.loads(files(package).joinpath("apis.toml").read_text("utf-8"))


class Purity:
    """``LITERALS``: kinds of nodes in which no name stands; ``COMPOSED``: as pure as their parts; ``AROUND``: what
    stands around a whole expression; ``TYPES``: kind of node → the type that it gives."""

    LITERALS: ClassVar[frozenset[str]]
    COMPOSED: ClassVar[frozenset[str]]
    AROUND: ClassVar[frozenset[str]] = frozenset()
    TYPES: ClassVar[Mapping[str, str]] = {}

    def node_at(self, file: SourceFile, span: tuple[int, int]) -> Any:
        """The expression of a span."""
        node = file.tree.root_node.named_descendant_for_byte_range(*span)
        while node.named_child_count == 1 and node.type in self.AROUND:
            node = node.named_children[0]
        return node

    def purity(self, file: SourceFile, span: tuple[int, int]) -> str:
        """ "literal" has no names, "pure" only names and calls without effect, "effect" anything else."""
        if span[0] == span[1]:
            return "literal"
        names: list[bool] = []
        if not self.pure(file, self.node_at(file, span), names):
            return "effect"
        return "pure" if names else "literal"

    def pure(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        """Whether nothing happens; ``names`` grows where a name is met."""
        if node.type in self.LITERALS:
            return True
        if node.type in self.COMPOSED:
            return self.all_pure(file, node.named_children, names)
        names.append(True)
        return bool(node.type == "identifier") or self.named(file, node, names)

    def all_pure(self, file: SourceFile, nodes: list[Any], names: list[bool]) -> bool:
        return all(self.pure(file, n, names) for n in nodes)

    def named(self, file: SourceFile, node: Any, names: list[bool]) -> bool:
        """Whether members, calls and objects that are made are known to do nothing."""
        return False

    def type_of(self, file: SourceFile, span: tuple[int, int]) -> str:
        """The type that an expression gives, as far as its outermost form tells; "" if it does not."""
        if span[0] == span[1]:
            return ""
        node = self.node_at(file, span)
        while node.type == "parenthesized_expression":
            node = node.named_children[0]
        return self.TYPES.get(node.type) or self.type_of_node(file, node)

    def type_of_node(self, file: SourceFile, node: Any) -> str:
        """The type of an expression that is none of ``TYPES``."""
        return ""


def is_own(file: SourceFile, node: Any) -> bool:
    """Whether a name is the language's own here: nothing of the program is called so."""
    return all(r.symbol is not None and not r.symbol.kinds for r in file.within(node.start_byte, node.start_byte + 1))
