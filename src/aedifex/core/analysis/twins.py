"""Functions that are the same but for whose variables they use, and for literals."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from ..program.edits import Range as Edit
from ..program.language import Language
from ..program.model import Function, SourceFile, Symbol

MAX_LITERALS = 4  # literals in which twins may differ; with more they only look alike
OPERATORS = {
    "+=": "step",
    "-=": "step",
    "*=": "factor",
    "/=": "factor",
    "*": "factor",
    "/": "factor",
    "%": "turn",
    "+": "step",
    "-": "step",
}
COMPARED = r"(?:[<>]=?|[!=]==?)"


@dataclass
class TwinLiteral:
    """A literal in which twins differ. ``texts``, ``places``: for each twin; ``kind``: what the language calls its
    type."""

    texts: list[str]
    kind: str
    places: list[list[tuple[int, int]]]
    name: str = "value"


def twin_literals(
    file: SourceFile, language: Language, twins: Sequence[Function], marks: Sequence[list[Edit]]
) -> list[TwinLiteral] | None:
    """The literals in which twins differ, each once; None if they differ in anything else.

    ``marks``: for each function, what stands for the names that may differ. Documentation and comments may differ too.
    """
    shapes, found = [], []
    for f, edits in zip(twins, marks, strict=True):
        document = [(*f.docstring, "\5")] if f.docstring else []
        body = [
            x
            for x in language.literals(file, f.body_start, f.end)
            if not f.docstring or not f.docstring[0] <= x[0] < f.docstring[1]
        ]
        found.append(body)
        edits = [*edits, *document, *local_marks(file, f), *((a, b, "\4" + kind) for a, b, kind in body)]
        shapes.append(language.tokens(file, f.params_start, f.end, edits))
    if any(s != shapes[0] for s in shapes[1:]):
        return None
    by_texts: dict[tuple[str, ...], TwinLiteral] = {}
    for row in zip(*found, strict=True):
        texts = tuple(file.slice(a, b) for a, b, _ in row)
        if len(set(texts)) > 1:
            made = by_texts.setdefault(texts, TwinLiteral(list(texts), row[0][2], [[] for _ in twins]))
            for places, (a, b, _) in zip(made.places, row, strict=True):
                places.append((a, b))
            if made.name == "value":
                made.name = suggestion(file, row[0])
    rows = with_colours(file, language, twins, found, list(by_texts.values()))
    return rows if len(rows) <= MAX_LITERALS else None


def with_colours(
    file: SourceFile,
    language: Language,
    twins: Sequence[Function],
    literals: Sequence[list[tuple[int, int, str]]],
    rows: list[TwinLiteral],
) -> list[TwinLiteral]:
    """The same, with three numbers that are a colour as one value. ``literals``: all of each twin, in order."""
    if not language.colours or b"colorMode" in file.text:
        return rows
    for call in [c for c in file.calls_within(twins[0].start, twins[0].end) if c.callee.name in language.colours]:
        inside = [i for i, (a, b, _) in enumerate(literals[0]) if call.args_start <= a and b <= call.args_end]
        spans = [[lits[i][:2] for i in inside] for lits in literals]
        commas = file.slice(call.args_start, call.args_end).count(",")
        mine = [r for r in rows if any(p in spans[0] for p in r.places[0])]
        if len(inside) != 3 or commas != 2 or not mine or any(len(r.places[0]) > 1 for r in mine):
            continue
        whole = [[(row[0][0], row[-1][1])] for row in spans]
        texts = [f"color({file.slice(*span)})" for ((span),) in whole]
        made = TwinLiteral(texts, "color", whole, f"{call.callee.name}Color")
        rows = [r for r in rows if r not in mine] + [made]
    return rows


def local_marks(file: SourceFile, f: Function) -> list[Edit]:
    """What stands for the local variables of a function: only which of them is meant counts, not what it is called."""
    found: list[Edit] = []
    numbers: dict[Symbol, int] = {}
    for r in file.within(f.body_start, f.end):
        s = r.symbol
        if (
            s is None
            or s.kinds != {"variable"}
            or r.form == "spelled"
            or not s.scope.within(f.scope)
            or any(x.form == "spelled" for x in s.references)
        ):
            continue
        found.append((r.start, r.end, f"\6{numbers.setdefault(s, len(numbers))}"))
    return found


def suggestion(file: SourceFile, literal: tuple[int, int, str]) -> str:
    """What to call a literal, told from what stands around it: a limit, a step, the name that it is given."""
    start, end, kind = literal
    line = file.lines[file.line(start) - 1]
    before, after = file.slice(line, start), file.slice(end, min(len(file.text), end + 80)).split("\n")[0]
    if match := re.search(rf"([A-Za-z_]\w*)\s*{COMPARED}\s*$", before):
        return f"{match[1]}_limit"
    if match := re.match(rf"\s*{COMPARED}\s*([A-Za-z_]\w*)", after):
        return f"{match[1]}_limit"
    if match := re.search(r"([A-Za-z_]\w*)\s*([-+*/]=)\s*$", before):
        return f"{match[1]}_{OPERATORS[match[2]]}"
    if match := re.search(r"([A-Za-z_]\w*)\s*=\s*$", before):
        return match[1]
    if match := re.search(r"([-+*/%])\s*$", before) or re.match(r"\s*([*/])", after):
        return OPERATORS[match[1]]
    if file.slice(start, start + 1) == "#":
        return "colour"
    return "label" if kind in ("str", "String", "string") else "value"
