"""Classes that do several jobs: which of their fields and methods would be a part of its own (A6, C17)."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from ...analysis.hazards import forbidding, hazards
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign, MethodDesign, PartDesign
from ...naming.identifiers import member_names
from ...program.language import Language
from ...program.model import SourceFile
from ...program.program import Program
from ...program.refusal import Refusal
from ...program.whole import MemberUse, Whole
from ...rewrites import messages
from ...rewrites.extract_class.members import class_with_uses, named_elsewhere, taking, whole_of, with_part

MANY_FIELDS, MANY_METHODS, MANY_LINES = 6, 7, 60  # from which a class is looked at
HANDED = 2  # members of the class that a method of its part may need


def parts_in(
    program: Program, path: str, outsiders: Program | None, taken: set[str], kept: set[str]
) -> list[PartDesign]:
    """As ``parts_of``; none where something forbids to touch the file, and none of a class that one of the
    ``outsiders`` names."""
    file = program.files[path]
    if not file.classes or file.problems or forbidding(hazards(program, path, outsiders), set()) is not None:
        return []
    named = {n for _, n in file.classes if outsiders is not None and named_elsewhere(outsiders, "", n)}
    return parts_of(program, path, taken, kept | named)[0]


def parts_of(program: Program, path: str, taken: set[str], kept: set[str]) -> tuple[list[PartDesign], Program]:
    """The parts that can be taken out of the classes of a file, in the order in which they are, and the program without
    them in their classes.

    ``taken``: names of classes in use; ``kept``: names that a person wants left where they are.
    """
    found: list[PartDesign] = []
    language = program.language
    if language.members is None:
        return [], program
    for name in [n for s, n in program.files[path].classes if s.parent is program.files[path].scope and n not in kept]:
        whole = class_with_uses(program.files[path], language, name)
        if whole is None or not large(program.files[path], whole) or named_elsewhere(program, path, name):
            continue
        waiting = [
            p for p in grouped_parts(program, path, whole, taken | {p.name for p in found}) if not kept & members_of(p)
        ]
        progress = True
        while waiting and progress:
            progress = False
            for part in list(waiting):
                after = with_part(program, path, part)
                if after is not None:
                    waiting.remove(part)
                    found.append(part)
                    program, progress = after, True
    return found, program


def members_of(part: PartDesign) -> set[str]:
    """The members of its class that a part takes over."""
    return {o.local for f in part.fields for o in f.origins} | {o.local for m in part.methods for o in m.origins}


def large(file: SourceFile, whole: Whole) -> bool:
    """Whether a class is so large that a look at its jobs is worth while."""
    lines = file.line(whole.scope.end - 1) - file.line(whole.scope.start)
    return len(whole.fields) >= MANY_FIELDS and len(whole.methods) >= MANY_METHODS and lines >= MANY_LINES


def grouped_parts(program: Program, path: str, whole: Whole, taken: set[str]) -> Iterator[PartDesign]:
    """What the grouping of variables and functions finds in a class; the object is not told from the script there."""
    # loaded only where a class is large: a survey of others does without
    from ..classes.eligibility import facts_of
    from ..classes.facts import Task
    from ..classes.file_planner import plan_classes

    file, language = program.files[path], program.language
    assert language.members is not None
    text, members = language.members.flattened(file, whole)
    flat = language.read(path, text)
    if flat.problems:
        return
    alone = Program(program.root, {path: flat}, language)
    names = taken | {n for s in file.scope.walk() for n in s.symbols}
    task = Task(path, Program(program.root, {}, language), [], [], names, False)
    for c in plan_classes(facts_of(alone, task), set()).classes:
        part = part_of(language, whole, c, members, hides(whole))
        if part is not None:
            part.keep = kept_by(file, language, part)
            part.why = reasons(file, whole, part)
            yield part


def part_of(
    language: Language, whole: Whole, c: ClassDesign, members: dict[str, str], hiding: bool
) -> PartDesign | None:
    """A part with those fields that its methods use, and those methods that need little else; None if that is not worth
    a class."""
    fields = {
        members[f.origins[0].local]: f.name for f in c.fields if len(f.origins) == 1 and f.origins[0].local in members
    }
    methods = {
        members[m.origins[0].local]: m.name for m in c.methods if len(m.origins) == 1 and m.origins[0].local in members
    }
    while (able := {m: n for m, n in methods.items() if can_go(whole, m, fields, methods)}) != methods:
        methods = able
    inside = [u for u in whole.uses if u.function.name in methods and u.name in fields]
    fields = {m: n for m, n in fields.items() if any(u.name == m for u in inside) and m not in whole.reserved}
    stems = set(language.write.words(c.name))
    alone = [
        n
        for n in whole.fields
        if n not in fields
        and n not in whole.reserved
        and stems & set(language.write.words(n))
        and is_alone(language, whole, n, methods)
    ]
    fields |= member_names(alone, stems, language.write, {*fields.values(), *methods.values()})
    outside = outer_uses(language, whole, fields, methods)
    rest = [f for f in whole.methods if f.name not in methods and f.name != language.write.CONSTRUCTOR]
    if len(fields) < 2 or len(methods) < 2 or not rest or len(outside) * 2 > len(inside):
        return None
    return made_part(language, whole, c.name, c.role, fields, methods, hiding)


def can_go(whole: Whole, method: str, fields: dict[str, str], methods: dict[str, str]) -> bool:
    """Whether a method could go with these fields and methods: it needs little else, and sets and calls nothing else of
    the class."""
    others = [u for u in whole.uses if u.function.name == method and u.name not in fields and u.name not in methods]
    told = {u.name for u in others}
    plain = all(
        (u.name in whole.fields and u.kind in ("read", "call")) or (u.name in whole.reserved and u.kind == "read")
        for u in others
    )
    return plain and len(told) <= HANDED and method in whole.plain


def is_alone(language: Language, whole: Whole, name: str, methods: Iterable[str]) -> bool:
    """Whether only these methods use a field, besides the constructor, and they do."""
    users = {u.function.name for u in whole.uses if u.name == name} - {language.write.CONSTRUCTOR}
    return bool(users) and users <= set(methods)


def outer_uses(language: Language, whole: Whole, fields: Iterable[str], methods: Iterable[str]) -> list[MemberUse]:
    """Uses of a part's fields by what stays in the class."""
    return [
        u for u in whole.uses if u.name in set(fields) and u.function.name not in {*methods, language.write.CONSTRUCTOR}
    ]


def made_part(
    language: Language,
    whole: Whole,
    name: str,
    role: str,
    fields: dict[str, str],
    methods: dict[str, str],
    hiding: bool,
) -> PartDesign:
    """``fields``, ``methods``: member → its name in the part; ``hiding``: whether the class hides its fields."""
    write = language.write
    own = {f.name for f in whole.methods} | {u.name for u in whole.uses} | whole.reserved
    if language.bare_members and whole.scope.parent is not None:
        own |= set(whole.scope.parent.symbols)
    base = write.member_name(write.words(name), next(iter([*fields, *methods])))
    shown = write.hidden(base) if hiding else base
    while shown in own:
        shown += "_part"
    open_ = {u.name for u in outer_uses(language, whole, fields, methods)}
    part = PartDesign(name, whole.name, shown, role)
    part.fields = [FieldDesign(n.strip("#"), [Origin(m)], hidden=m not in open_) for m, n in fields.items()]
    asked = {u.name for u in whole.uses if u.function.name not in methods}
    part.methods = [
        MethodDesign(n.strip("#"), [Origin(m)], hidden=m.startswith("_") and m not in asked) for m, n in methods.items()
    ]
    return part


def hides(whole: Whole) -> bool:
    """Whether a class writes most of its fields as hidden."""
    return sum(f.startswith("_") for f in whole.fields) * 2 > len(whole.fields)


def wished_part(file: SourceFile, language: Language, of: str, name: str, members: Sequence[str]) -> PartDesign:
    """The part that a person asks for. Raises Refusal."""
    whole = whole_of(file, language, of)
    known = [*whole.fields, *(f.name for f in whole.methods)]
    for m in members:
        if m not in known:
            raise messages.NO_SUCH_MEMBER.at(file, whole.scope.start, class_=of, member=m)
    stems = set(language.write.words(name))
    fields = member_names([m for m in members if m in whole.fields], stems, language.write, set())
    methods = member_names([m for m in members if m not in whole.fields], stems, language.write, set(fields.values()))
    part = made_part(language, whole, name, "model", fields, methods, hides(whole))
    part.keep = kept_by(file, language, part)
    return part


def kept_by(file: SourceFile, language: Language, part: PartDesign) -> list[str]:
    """What the methods of a part need of its class and the part can be given once (C10)."""
    plan = taking(file, language, part)
    try:
        needs = {n for f in plan.functions for n in plan.own_needs(f)}
    except Refusal:
        return []
    able = [n for n in plan.whole.fields if n in needs and plan.keepable(n)]
    return [n for n in able if plan.language.members.outside(file, plan.whole, {n}) is None]  # type: ignore[union-attr]


def reasons(file: SourceFile, whole: Whole, part: PartDesign) -> list[str]:
    fields = [o.name for f in part.fields for o in f.origins]
    methods = {o.name for m in part.methods for o in m.origins}
    others = {u.function.name for u in whole.uses if u.name in fields} - methods
    alone = len(
        [
            f
            for f in fields
            if all(u.function.name in methods or u.function.name.startswith("__") for u in whole.uses if u.name == f)
        ]
    )
    lines = sum(file.line(f.end - 1) - file.line(f.start) + 1 for f in whole.methods if f.name in methods)
    return [
        f"{whole.name} does several jobs; one of them is {', '.join(fields)}, with {len(methods)} methods of "
        f"{lines} lines",
        f"{alone} of these {len(fields)} fields {'is' if alone == 1 else 'are'} used by nothing else of {whole.name}"
        if alone
        else f"{len(others)} other method{'s' * (len(others) != 1)} of {whole.name} "
        f"use{'s' * (len(others) == 1)} them too",
    ]
