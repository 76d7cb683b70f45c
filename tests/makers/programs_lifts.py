"""Lines and expressions of a program, chosen by chance, become functions and methods, whatever a draft would propose."""

import random
from collections.abc import Iterator
from typing import Any

from aedifex.core.analysis.regions.region import all_blocks
from aedifex.core.design.tables import Design
from aedifex.core.program.line_ranges import lines_of
from aedifex.core.program.model import SourceFile
from aedifex.core.program.program import Program, reread
from aedifex.core.program.refusal import Refusal
from aedifex.core.rewrites.extract_function.rewrite import Lift
from aedifex.core.rewrites.step import Context

HEADS = ("class", "function", "import", "package")


def lifted(program: Program, entry: str, rng: random.Random, tries: int) -> Iterator[tuple[str, Program | str]]:
    """(what is lifted, the program after it, or why it is refused)."""
    file, language = program.files[entry], program.language
    spans = chosen(program, file, rng, tries)
    for start, end, whole in spans:
        told = lines_of(file, start, end, whole)
        try:
            edits = Lift(told, "lifted").apply(Context(program, Design(language.name, [entry], {})))
        except Refusal as refusal:
            yield told, str(refusal)
        else:
            yield told, reread(program, edits.apply(program.files))


def chosen(program: Program, file: SourceFile, rng: random.Random, tries: int) -> list[tuple[int, int, bool]]:
    """(start, end, whether they are lines): runs of statements, and now and then a node of the tree."""
    language = program.language
    made = [
        f
        for s in file.scope.walk()
        if s.kind == "function" and (f := s.function or language.regions.unnamed(file, s)) is not None
    ]
    bodies = [[s for s in file.statements if s.kind not in HEADS], *(language.body(file, f) for f in made)]
    rows = [r for r in [*bodies, *(b.statements for body in bodies for _, b in all_blocks(file, language, body))] if r]
    found = []
    for _ in range(tries if rows else 0):
        row = rng.choice(rows)
        first = rng.randrange(len(row))
        last = rng.randrange(first, min(first + 5, len(row)))
        if rng.random() < 0.7:
            found.append((row[first].start, row[last].end, True))
        elif nodes := list(
            inner(file.tree.root_node.named_descendant_for_byte_range(row[first].start, row[first].end))
        ):
            node = rng.choice(nodes)
            found.append((node.start_byte, node.end_byte, False))
    return found


def inner(node: Any) -> Iterator[Any]:
    for child in node.named_children:
        yield child
        yield from inner(child)
