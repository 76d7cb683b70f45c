"""Handlers that are written in place get a name: their lines become a function, and what registered them names it (A5,
C8).

page.on("click", (event) => {          function onPageClick(event) {
  count += 1;                            count += 1;
  show(event);                  →        show(event);
});                                    }
                                       page.on("click", onPageClick);

Used by the draft, which then finds whose methods they are, and by the step that does it.
"""

from __future__ import annotations

import copy
from collections.abc import Sequence
from dataclasses import dataclass

from ...analysis.counting_loops import with_inner
from ...analysis.regions.region import ways_out
from ...design.origin import Origin
from ...design.tables import Design, placed_anew
from ...naming.identifiers import free, like
from ...program.code_text import remark_spans
from ...program.edits import Range, applied
from ...program.inline import Inline
from ...program.language import Language
from ...program.line_map import LineMap
from ...program.line_ranges import column_of
from ...program.model import NewFunction, SourceFile, Symbol
from ...program.program import Program, reread


@dataclass
class NamedHandler:
    """A handler with its name and what it captures."""

    inline: Inline
    name: str
    captured: list[Symbol]
    place: str  # file:line:column, as a design says it


def nameable(file: SourceFile, language: Language) -> list[NamedHandler]:
    """The handlers of a file that can get a name, with one for each that is free."""
    taken = {n for s in file.scope.walk() for n in s.symbols} | set(language.builtins) | {"run"}
    found = []
    for inline in language.inlines(file):
        captured = captures(file, inline)
        if captured is None or cannot_stand_alone(file, language, inline, captured):
            continue
        words = (
            inline.event
            if not inline.control and inline.event in (["tick"], ["later"], ["frame"])
            else ["on", *inline.control, *inline.event]
        )
        name = free(language.write.member_name(words, like(file)), taken)
        taken.add(name)
        path, line = file.stands(inline.start)
        found.append(NamedHandler(inline, name, captured, f"{path}:{line}:{column_of(file, inline.start)}"))
    return found


def at_place(file: SourceFile, language: Language, place: str, name: str) -> NamedHandler | None:
    """The handler at a place that a design names, with the name that it is to get."""
    found = next((n for n in nameable(file, language) if n.place == place), None)
    if found is not None and language.write.is_name(name):
        found.name = name
    return found


def captures(file: SourceFile, inline: Inline) -> list[Symbol] | None:
    """The variables around it that are not the file's, in order of use; None if one of them may change, or it sets
    one."""
    found: dict[Symbol, None] = {}
    for r in file.within(inline.opens, inline.closes):
        s = r.symbol
        if s is None or s.scope is file.scope or all(inline.start <= b.start < inline.end for b in s.bindings):
            continue
        if len(s.bindings) > 1:
            return None
        found[s] = None
    return list(found)


def cannot_stand_alone(file: SourceFile, language: Language, inline: Inline, captured: Sequence[Symbol]) -> bool:
    """Whether its lines would mean something else in a function of its own, or nothing tells the types that it
    needs."""
    if language.regions.bound_to_function(file, inline.opens, inline.closes) is not None or not (
        inline.statements or inline.says
    ):
        return True
    if remark_apart(file, language, inline):
        return True
    if language.typed and not all(language.regions.declared_as(file, s)[1] for s in captured):
        return True
    results = [at for kind, at in ways_out(file, language, inline.statements, False, False) if kind == "return"]
    texts = [
        file.slice(s.start, s.end).strip(" ;")
        for s in with_inner(file, language, inline.statements)
        if s.start in results
    ]
    return any(t != "return" for t in texts) and not inline.whole


def remark_apart(file: SourceFile, language: Language, inline: Inline) -> bool:
    """Whether a remark stands in what is written in its place, outside the lines that move."""
    write, rows = language.write, inline.statements
    start = max(inline.opens, write.comment_start(file, rows[0].start)) if rows else inline.end
    end = min(write.line_end(file, rows[-1].end - 1), inline.closes) if rows else inline.end
    return any(inline.start <= a < inline.end and not start <= a < end for a, _ in remark_spans(file))


def named_edits(file: SourceFile, language: Language, wanted: Sequence[NamedHandler]) -> list[Range]:
    """The functions, above the main code, and what stands in their place."""
    write, regions, unit = language.write, language.regions, language.write.indent_unit(file)
    edits: list[Range] = []
    texts = []
    for n in wanted:
        inline = n.inline
        given = [*inline.params, *((s.name, regions.declared_as(file, s)[1]) for s in n.captured)]
        lead = write.top_lead(file, unit)
        body = lead + unit + inline.says if inline.says else moved_body(file, language, inline, lead + unit)
        if inline.rows:
            body = "\n".join(lead + unit + file.slice(*row) for row in inline.rows)
        texts.append(regions.lifted(file, lead, unit, NewFunction(n.name, given, body)))
        call = f"{n.name}({', '.join(x for x, _ in given)})"
        if inline.whole:
            edits.append(
                (
                    inline.start,
                    inline.end,
                    regions.in_place([x for x, _ in inline.params], call) if n.captured else n.name,
                )
            )
        else:
            edits.append((inline.opens, inline.closes, regions.only(file, inline.opens, call)))
    at = target(file, language, [n.inline.start for n in wanted])
    gap = "\n" * write.BLANKS
    return [(at, at, write.with_newlines("".join(text + gap for text in texts), write.newline(file))), *edits]


def moved_body(file: SourceFile, language: Language, inline: Inline, lead: str) -> str:
    """The lines of a body as they stand in a function."""
    write, first = language.write, inline.statements[0]
    old = file.slice(write.line_start(file, first.start), first.start)
    start = write.comment_start(file, first.start)
    end = write.line_end(file, inline.statements[-1].end - 1)
    return str(
        write.shifted(file, start + len(old.encode(file.encoding)), min(end, inline.closes), [], old, lead)
    ).rstrip()


def target(file: SourceFile, language: Language, starts: Sequence[int]) -> int:
    """Above the statement at the top in which the first of them stands."""
    s = next(s for s in sorted(file.statements, key=lambda s: s.start) if s.start <= min(starts) < s.end)
    return int(language.write.comment_start(file, s.start))


def handler_places(design: Design) -> dict[str, list[tuple[str, str]]]:
    """File → the place and the name of each handler that a design makes a method of."""
    found: dict[str, list[tuple[str, str]]] = {}
    for m in (m for c in design.classes for m in c.methods):
        for origin in m.origins:
            if origin.place:
                found.setdefault(origin.file, []).append((str(origin), m.name))
    return found


def named_design(design: Design, names: dict[str, str], moved: LineMap) -> Design:
    """The design as it speaks of the program in which the handlers have their names."""
    design = copy.deepcopy(design)
    for c in design.classes:
        for m in c.methods:
            m.origins = [Origin(names[str(o)]) if str(o) in names else o for o in m.origins]
            placed_anew(m, moved.forward)
    for x in design.lifts:
        placed_anew(x, moved.forward)
    return design


def with_names(program: Program, path: str, wanted: Sequence[NamedHandler]) -> tuple[Program, LineMap]:
    """The program in which handlers have their names, and where its lines came from."""
    file = program.files[path]
    edits = named_edits(file, program.language, wanted) if wanted else []
    after = reread(program, {path: applied(file.text, edits, file.encoding)}) if edits else program
    return after, LineMap(file, edits)
