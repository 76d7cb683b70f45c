"""Text that is run as code: which names it can see."""

from __future__ import annotations

import re

from ...program.model import Reference, SourceFile
from .pure import purity
from .structure import arguments

WAYS_IN = re.compile(
    rb"\b(?:__dict__|__main__|__globals__|__import__|f_globals|f_locals|f_back|tb_frame|gi_frame|cr_frame|modules)\b"
)
ELSEWHERE = re.compile(rb"\b__main__(\s*\.\s*__dict__)?\b")
ASKED = frozenset({"globals", "locals", "vars"})


def confined(file: SourceFile, call: Reference) -> bool:
    """Whether ``exec`` or ``eval`` is given a namespace that cannot be the file's own: nothing here ever gets hold of that one."""
    found = next((c for c in file.calls_within(call.start, call.end) if c.callee is call), None)
    if found is None or call.name not in ("exec", "eval"):
        return False
    args = arguments(file, found)
    if len(args) < 2 or any(a.keyword in ("*", "**") for a in args[:2]):
        return False
    text = ELSEWHERE.sub(b"", file.text) if runs_nothing(file) else file.text
    own = any(r.name in ASKED and (r.symbol is None or not r.symbol.kinds) for r in file.references)
    return not own and WAYS_IN.search(text) is None


def runs_nothing(file: SourceFile) -> bool:
    """Whether a file only defines: then another one is started, and what is called ``__main__`` is that one."""
    return all(
        s.kind in ("import", "function", "class", "docstring", "pass", "annotate")
        or (s.kind == "assign" and s.value is not None and purity(file, s.value) != "effect")
        for s in file.statements
    )
