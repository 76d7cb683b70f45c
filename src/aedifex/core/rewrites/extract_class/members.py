"""The members of a class that go to a class of their own, as a design names them."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ...design.tables import PartDesign
from ...program.edits import applied
from ...program.language import Language
from ...program.model import SourceFile
from ...program.program import Program, reread
from ...program.refusal import Refusal
from ...program.whole import Whole
from .. import messages
from .text import Taking


def named_elsewhere(program: Program, path: str, name: str) -> bool:
    """Whether another file says a name."""
    word = re.compile(rb"\b" + re.escape(name.encode()) + rb"\b")
    return any(word.search(f.text) for p, f in program.files.items() if p != path)


def taking(file: SourceFile, language: Language, part: PartDesign) -> Taking:
    """How a part is taken out of its class. Raises Refusal."""
    whole = whole_of(file, language, part.of)
    write = language.write
    fields = {f.origins[0].local: write.hidden(f.name) if f.hidden else f.name for f in part.fields}
    methods = {m.origins[0].local: write.hidden(m.name) if m.hidden else m.name for m in part.methods}
    for name in fields:
        if name not in whole.fields:
            raise messages.NO_FIELD.at(file, whole.scope.start, class_=part.of, name=name)
    for name in methods:
        if not any(f.name == name for f in whole.methods):
            raise messages.NO_METHOD.at(file, whole.scope.start, class_=part.of, name=name)
    plan = Taking(file, language, whole, fields, methods)
    taken = {*fields.values(), *methods.values()}
    for n in part.keep:
        shown = write.hidden(plan.given(n))
        while shown in taken:
            shown += "_"
        plan.kept[n] = shown
        taken.add(shown)
    return plan


def class_with_uses(file: SourceFile, language: Language, name: str) -> Whole | None:
    """A class and the uses of its members, if they can be told; worked out once."""
    key = ("whole", name)
    if key not in file.memo:
        file.memo[key] = language.members.whole(file, name) if language.members is not None else None
    found: Whole | None = file.memo[key]
    return found


def whole_of(file: SourceFile, language: Language, name: str) -> Whole:
    """A class whose members can be told. Raises Refusal."""
    whole = class_with_uses(file, language, name)
    if whole is None:
        raise messages.MEMBERS_UNKNOWN.in_file(file.path, class_=name)
    return whole


def with_parts(program: Program, path: str, parts: Sequence[PartDesign]) -> Program:
    """The program with parts taken out of classes, as far as they can be."""
    for part in parts:
        program = with_part(program, path, part) or program
    return program


def with_part(program: Program, path: str, part: PartDesign) -> Program | None:
    """The program with a part taken out; None if it cannot be."""
    file = program.files[path]
    try:
        edits = taking(file, program.language, part).edits(part)
    except Refusal:
        return None
    after = reread(program, {path: applied(file.text, edits, file.encoding)})
    return after if not after.files[path].problems else None
