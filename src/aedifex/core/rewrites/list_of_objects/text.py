"""What lists with one index become: the class, the list of its objects, and every use of them."""

from __future__ import annotations

from ...analysis.array_fill import filling, has_size
from ...analysis.parallel_arrays import between
from ...design.tables import ClassDesign
from ...program.edits import Range
from ...program.language import Language, NewField
from ...program.lists import ListUse, Records
from ...program.model import SourceFile, Symbol
from .indexed_methods import Items

Fields = dict[
    str, tuple[str, str, bool]
]  # list → what the constructor calls its items, the field, and whether it is hidden


def collected(
    file: SourceFile, language: Language, made: Records, class_: str, item: str, collection: str, fields: Fields
) -> list[Range]:
    """The edits. ``item``: what one object is called."""
    edits: list[Range] = []
    fill = filling(file, language, made, class_, collection) if has_size(made) else None
    done = {u.ref.start for row in made.together for u in row} | {u.ref.start for u in made.firsts}
    if fill is not None:
        edits.append(fill.edit)
        done |= {u.ref.start for s in made.lists for u in made.uses[s] if fill.taken[0] <= u.ref.start < fill.taken[1]}
    for s in made.lists:
        for u in made.uses[s]:
            if u.ref.start in done:
                continue
            start, end = u.ref.start, u.ref.end
            if u.kind == "item":
                edits += [(start, end, collection), (u.span[1], u.span[1], f".{fields[s.name][1]}")]
            elif u.kind == "length":
                edits.append((start, end, collection))
            else:
                inner = f"{item}.{fields[s.name][1]} for {item} in {collection}"
                alone = file.text[:start].rstrip().endswith(b"(") and file.text[end:].lstrip().startswith(b")")
                bare = (
                    u.kind == "each"
                    and alone
                    and file.text[start - 1 : start] == b"("
                    and file.text[end : end + 1] == b")"
                )
                edits.append((start, end, inner if bare else f"({inner})" if u.kind == "each" else f"[{inner}]"))
    for row in made.together:
        edits += one_for_all(file, language, made, row, class_, collection, fields)
    edits += global_statements(file, made, collection)
    return edits + founded(
        file, language, made, class_, collection, fields, [s for s, _ in fill.given] if fill is not None else made.lists
    )


def one_for_all(
    file: SourceFile,
    language: Language,
    made: Records,
    row: list[ListUse],
    class_: str,
    collection: str,
    fields: Fields,
) -> list[Range]:
    """The first statement speaks for all lists; the others go with their lines."""
    first = row[0]
    edits = [gone(file, language, u.span) for u in row[1:]]
    if first.kind != "append":
        return [*edits, (first.ref.start, first.ref.end, collection)]
    in_order = [u.ref.name for u in row] == [s.name for s in made.lists]
    write = language.write

    def name(u: ListUse) -> str:
        return "" if in_order else write.keyword_argument(fields[u.ref.name][0], "")

    rest = "".join(f", {name(u)}{file.slice(*u.parts[0])}" for u in row[1:])
    start, end = first.parts[0]
    head, tail = write.appended(file, collection, write.make(class_, ["\0"])).split("\0")
    edits.append((first.span[0], start, f"{head}{name(first)}"))
    return [*edits, (end, first.span[1], f"{rest}{tail}")]


def gone(file: SourceFile, language: Language, span: tuple[int, int]) -> Range:
    """A statement goes with its line; a remark behind it stays."""
    end = language.write.line_end(file, span[1])
    rest = file.text[span[1] : end]
    if rest.strip():
        return span[0], span[1] + len(rest) - len(rest.lstrip()), ""
    return language.write.line_start(file, span[0]), end, ""


def global_statements(file: SourceFile, made: Records, collection: str) -> list[Range]:
    """``global a, b`` in functions that bind the lists anew."""
    edits: list[Range] = []
    statements: dict[tuple[int, int], list[str]] = {}
    spans: dict[tuple[int, int], tuple[int, int]] = {}
    for d in file.declarations:
        statements.setdefault(d.statement, []).append(d.name)
        a, b = spans.get(d.statement, (d.start, d.end))
        spans[d.statement] = (min(a, d.start), max(b, d.end))
    names = {s.name for s in made.lists}
    for statement, listed in statements.items():
        if names & set(listed):
            edits.append((*spans[statement], ", ".join([*(n for n in listed if n not in names), collection])))
    return edits


def founded(
    file: SourceFile,
    language: Language,
    made: Records,
    class_: str,
    collection: str,
    fields: Fields,
    handed: list[Symbol],
) -> list[Range]:
    """The class and the list of its objects, where the last of the lists stood. ``handed``: whose items the constructor
    is given, in order."""
    write, firsts = language.write, made.firsts
    unit = write.indent_unit(file)
    members, edits = [], []
    last = max(firsts, key=lambda u: u.span)
    for s, u in zip(made.lists, firsts, strict=True):
        above = write.comment_start(file, u.span[0])
        remarks = [line.strip() for line in file.slice(above, u.span[0]).split("\n") if line.strip()]
        given, name, hide = fields[s.name]
        kind = language.item_type(file, u.ref)
        in_order = handed.index(s) if s in handed else len(handed)
        made_of = NewField(
            name,
            given if s in handed else "",
            hidden=hide,
            given=s in handed,
            type=kind,
            above=remarks,
            comment=write.trailing_comment(file, u.span[1]),
        )
        members.append((in_order, made_of))
        if u is not last:
            edits.append((above, write.line_end(file, u.span[1]), ""))
    top = min(write.comment_start(file, u.span[0]) for u in firsts)
    rows = [", ".join(file.slice(*u.parts[i]) for u in firsts) for i in range(len(firsts[0].parts))]
    size = firsts[0].size
    line = (
        write.sized(file, collection, class_, file.slice(*size))
        if size
        else write.listed(file, collection, class_, [write.make(class_, [row]) for row in rows], unit)
    )
    line = write.top_lead(file, unit) + line
    start = write.blank_before(file, write.comment_start(file, last.span[0]))
    if not between(file, firsts):
        start, edits = write.blank_before(file, top), []
    gap = "\n" * write.BLANKS
    text = write.class_text(file, unit, class_, "", [m for _, m in sorted(members, key=lambda e: e[0])]).rstrip("\n")
    lead = gap if start else ""
    text = write.with_newlines(f"{lead}{text}\n{gap}{line}\n", write.newline(file))
    return [*edits, (start, write.line_end(file, last.span[1]), text)]


def loops(file: SourceFile, language: Language, design: ClassDesign) -> list[Range]:
    """The edits by which loops go through the objects, one after another: a loop inside one of them is left for the
    next time."""
    edits: list[Range] = []
    for obj in [o for o in design.objects if o.collection]:
        items = Items(file, language, obj.collection)
        end = 0
        for u in items.loops(obj.name) if items.told else ():
            if u.loop.header[0] >= end and not any(a < u.end and u.loop.header[0] < b for a, b, _ in edits):
                edits += items.loop_edits(u, design.name, obj.name)
                end = u.end
    return edits


def collection_edits(file: SourceFile, language: Language, found: Records, design: ClassDesign) -> list[Range]:
    """The edits by which the lists of a class become one."""
    obj = design.objects[0]
    hide_ = language.write.hidden
    fields = {
        o.local: (f.name, hide_(f.name) if f.hidden else f.name, f.hidden) for f in design.fields for o in f.origins
    }
    return collected(file, language, found, design.name, obj.name, obj.collection, fields)
