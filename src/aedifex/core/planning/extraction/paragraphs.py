"""Where an author begins something new: blank lines and remarks."""

from __future__ import annotations

from ...analysis.regions.region import Region
from ...naming.verbs import remark
from ...program.language import Language
from ...program.model import SourceFile, Statement


def blank_between(file: SourceFile, a: Statement, b: Statement) -> bool:
    """Whether a blank line stands between two statements."""
    return any(not line.strip() for line in file.slice(a.end, b.start).split("\n")[1:-1])


def set_apart(file: SourceFile, language: Language, before: Statement, s: Statement) -> bool:
    """Whether the author began something new there: a blank line and a remark of a few words."""
    return blank_between(file, before, s) and bool(
        remark(file, Region(file, language, s.start, s.end, None, [s]), language.write)
    )
