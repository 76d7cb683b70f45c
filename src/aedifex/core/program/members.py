"""Where a member of a given name is taken from something, whatever that is."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import NamedTuple

from .language import Language
from .model import Reference, SourceFile


class MemberNamed(NamedTuple):
    """One use of a member: the span of its name, and what it is taken from.

    ``base``: the plain name that it is taken from, or of the class of which an object is made right there; None for any
    other expression. ``field``: the member of ``base`` that it is taken from, "" for ``base`` itself.
    """

    start: int
    end: int
    base: Reference | None
    field: str = ""


def members_named(file: SourceFile, language: Language, name: str) -> Iterator[MemberNamed]:
    """Each place where a member of this name is used or defined."""
    wanted = name.encode(file.encoding)
    for match in re.finditer(rb"(?<![\w$])" + re.escape(wanted) + rb"(?![\w$])", file.text):
        owner = language.member_owner(file, *match.span())
        if owner is None:
            continue
        start, end, makes = owner
        if makes:
            yield MemberNamed(*match.span(), next(iter(file.within(start, end)), None))
            continue
        base = next((r for r in file.within(start, end) if r.start == start), None)
        if base is None or file.text[start : base.end] != base.name.encode(file.encoding):
            yield MemberNamed(*match.span(), None)
        elif base.end == end:
            yield MemberNamed(*match.span(), base if base.member == name else None)
        else:
            through = base.member and re.fullmatch(
                rb"\s*\??\.\s*" + re.escape(base.member.encode(file.encoding)), file.text[base.end : end]
            )
            yield MemberNamed(*match.span(), base if through else None, base.member if through else "")
