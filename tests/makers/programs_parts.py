"""Takes one job after the other out of the class of a program that does several."""

from collections.abc import Iterator

from aedifex.core.design.tables import Design
from aedifex.core.planning.extraction.extracted_classes import wished_part
from aedifex.core.program.program import Program, reread
from aedifex.core.program.refusal import Refusal
from aedifex.core.program.whole import Whole
from aedifex.core.rewrites.extract_class.rewrite import TakePart
from aedifex.core.rewrites.step import Context


def taken_out(program: Program, entry: str, jobs: list[str]) -> Iterator[tuple[str, Program | None]]:
    """(job, the program without it in its class, or None where that is refused)."""
    file, language = program.files[entry], program.language
    name = next(n for _, n in file.classes if n != "Base")
    known = language.members.whole(file, name)
    for job in jobs:
        names = [*known.fields, *(f.name for f in known.methods)] if known is not None else []
        chosen = [n for n in names if job in n.lower() and (n in known.fields or n in known.plain)]
        while (
            known is not None and (fit := [n for n in chosen if n in known.fields or fits(known, n, chosen)]) != chosen
        ):
            chosen = fit
        try:
            part = wished_part(file, language, name, job.capitalize(), chosen)
            edits = TakePart(entry, part, Program(program.root, {}, language)).apply(
                Context(program, Design(language.name, [entry], {}))
            )
        except Refusal:
            yield job, None
        else:
            yield job, reread(program, edits.apply(program.files))


def fits(known: Whole, method: str, chosen: list[str]) -> bool:
    """Whether a method only reads what is not chosen of its class."""
    others = [u for u in known.uses if u.function.name == method and u.name not in chosen]
    return all(u.name in known.fields and u.kind == "read" for u in others)
