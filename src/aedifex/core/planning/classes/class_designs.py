"""The designs of the classes that were selected: their names, objects, members, roles and reasons."""

from __future__ import annotations

import re
from collections.abc import Set as AbstractSet

from ...analysis.concerns import Concerns
from ...analysis.families import Family, near_twins
from ...analysis.groups import common_stems
from ...analysis.handlers import handlers, main_statements
from ...analysis.set_up import set_up_of
from ...analysis.twins import TwinLiteral
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign
from ...naming.identifiers import VERBS, free, like
from ...naming.inflection import plural, singular
from ...program.model import Statement, Symbol
from .candidates import Candidate, evident_noun, is_device
from .class_builder import ClassBuilder
from .class_roles import Roles
from .copies import keep_together
from .facts import FileFacts
from .names import GENERIC, free_class_name, holder_among, module_stem, object_names, telling_names
from .visibility import hide_used_there


def class_designs(facts: FileFacts, candidates: list[Candidate]) -> list[ClassDesign]:
    """One for each candidate, in their order."""
    used: set[str] = set()
    objects: set[str] = set()
    for c in candidates:
        give_names(facts, c, used, objects)
        used.add(c.name)
        objects |= {o.name for o in c.objects}
    roles = roles_in(facts) if candidates else None
    return [design_of(facts, c, roles) for c in candidates if roles is not None]


def roles_in(facts: FileFacts) -> Roles:
    """What tells the roles of classes of a file; worked out once."""
    file, language, effects = facts.file, facts.language, facts.effects
    if "roles" not in file.memo:
        names = {h.name for h in handlers(file, effects)}
        registered = {f.symbol for f in file.tops if f.name in names}
        file.memo["roles"] = Roles(file, language, effects, Concerns(file, language, effects), registered)
    found: Roles = file.memo["roles"]
    return found


def give_names(facts: FileFacts, candidate: Candidate, used: set[str], objects: set[str]) -> None:
    """Name the class and its objects. ``used``, ``objects``: names that other classes and their objects have."""
    write, family = facts.write, candidate.family
    functions = telling_names(facts, [f.functions[0] for f in candidate.fits])
    variables = [s.name for s in candidate.variables]
    asked = candidate.asked.name if candidate.asked is not None else ""
    if family is not None:
        candidate.name = asked or free_class_name(facts, variables, [family.stem] if family.stem else functions, used)
        wanted = copy_names(facts, family, candidate.name)
    else:
        holder = holder_among(facts, candidate.variables)
        noun = evident_noun(facts, candidate)
        told = thing_name(facts, noun, candidate.variables, facts.names | used) if noun and write.is_name(noun) else ""
        candidate.name = asked or told or free_class_name(facts, variables, functions, used, holder)
        wanted = [write.member_name(write.words(candidate.name), like(facts.file))]
    # of several variables, none could take the place of the object
    own = frozenset(s.name for s in candidate.symbols if wanted == [s.name] and only_there(s))
    candidate.objects = object_names(facts, wanted, objects, own)


def thing_name(facts: FileFacts, noun: str, variables: list[Symbol], taken: AbstractSet[str]) -> str:
    """A class for a thing of the program; where one has the word already, or a variable keeps several, it is for
    several of them."""
    words = facts.write.words(noun)
    name, several = facts.write.class_name(words), facts.write.class_name([*words[:-1], plural(words[-1])])
    keeps = any([w.lower() for w in facts.write.words(s.name)] == [plural(noun)] for s in variables)
    if name in taken and keeps and (whole := whole_name(facts, taken)):
        return whole
    name = several if keeps and several not in taken else name
    return str(name if name not in taken else several if several not in taken else free(name, taken))


def whole_name(facts: FileFacts, taken: AbstractSet[str]) -> str:
    """A class for what is made of several of a thing, after the word that the file's name and the remark or the
    document string at its head have in common; "" if there is none: the links of ``DepotCable`` are a cable's."""
    file, write = facts.file, facts.write
    first = next(iter(file.statements), None)
    head = file.slice(0, first.end if first is not None and first.kind == "docstring" else first.start if first else 0)
    said = {w.lower() for w in re.findall(r"[A-Za-z]+", head)}
    words = [w.lower() for w in write.words(module_stem(facts))]
    shared = [w for w in words if len(w) > 2 and w in said and w not in VERBS and w not in GENERIC]
    names = [str(write.class_name([w])) for w in shared[::-1]]
    return next((n for n in names if n not in taken and write.is_name(n)), "")


def copy_names(facts: FileFacts, family: Family, class_: str) -> list[str]:
    """What the objects of numbered copies are called."""
    write, pattern = facts.write, like(facts.file)
    if family.told is not None:
        stem = family.stem or ""
        return [write.member_name(family.told.label(n, stem), pattern) for n in family.numbers]
    stem = family.stem or write.member_name(write.words(class_), pattern)
    return [f"{stem}{n}" for n in family.numbers]


def design_of(facts: FileFacts, candidate: Candidate, roles: Roles) -> ClassDesign:
    """The class with its members, role and reasons."""
    write, family = facts.write, candidate.family
    own = {w.lower() for w in write.words(candidate.name)}
    if family is not None:
        stems = {family.stem} if family.stem else own
        stems |= set(family.told.told) if family.told is not None else set()
    else:
        stems = own | {singular(w) for w in own}
        noun = evident_noun(facts, candidate)
        stems |= {*write.words(noun)} if noun else set()
        stems |= common_stems(candidate.rows[0], write.words) if not noun or candidate.asked is not None else set()
    members = ClassBuilder(facts, candidate.rows)
    made = members.build(candidate.name, "model", candidate.fits, candidate.objects, stems)
    if family is not None:
        made.why.insert(0, copies_reason(family))
        keep_together(facts, family, candidate, made)
        add_differences(facts, family, candidate, made)
        made.why += near_twins(facts.file, family)
    elif candidate.fits and candidate.asked is None:
        made.why.insert(0, used_together(facts, candidate))
    if candidate.asked is not None:
        made.why.insert(0, "you asked for them together")
    if family is None and facts.language.joined and set_up_first(facts, candidate):
        made.set_up = True
        made.why.append("its constructor does what the sketch's setup does to it first")
    elif family is None and (work := work_before_loop(facts, candidate)):
        made.set_up = True
        made.why.append("its constructor does what is done to it before anything else")
        hide_used_there(facts, candidate, made, work)
    devices = {s for s in candidate.variables if is_device(facts, s)}
    made.role = roles.role(candidate.functions, candidate.variables, devices)
    made.why += roles.broken(made, candidate.functions)
    return made


def set_up_first(facts: FileFacts, candidate: Candidate) -> bool:
    """Whether the set-up of a sketch first calls one of the methods to come of an only object."""
    mine = (
        {f.functions[0].symbol for f in candidate.fits if not f.add and not f.drop}
        if len(candidate.rows) == 1
        else set()
    )
    setup = next((f for f in facts.file.tops if f.name == "setup"), None)
    for s in facts.language.body(facts.file, setup) if setup is not None else ():
        touch = facts.effects.direct(s.start, s.end)
        if (touch.names & candidate.symbols) or touch.uses & mine:
            return bool(touch.uses & mine) and s.kind == "expression"
    return False


def work_before_loop(facts: FileFacts, candidate: Candidate) -> list[Statement]:
    """What main code does with an only object, and with nothing else, before its loop; nothing if no method is called
    there."""
    file, language = facts.file, facts.language
    mine = {f.functions[0].symbol for f in candidate.fits if not f.add} if len(candidate.rows) == 1 else set()
    if not language.code_at_top or not facts.task.entry or not mine:
        return []
    main = main_statements(file, facts.effects, language)
    found: list[Statement] = []
    for s in set_up_of(file, language, Concerns(file, language, facts.effects), main):
        calls = [c for c in file.calls_within(s.start, s.end) if c.callee.symbol in mine]
        alone = len(calls) == 1 and (calls[0].callee.start, calls[0].end) == (s.start, s.end)
        own = s.target is not None and s.target.symbol in candidate.symbols
        if (s.kind == "expression" and alone) or (found and own):
            found.append(s)
        elif found:
            break
    return found


def copies_reason(family: Family) -> str:
    """Which variables are copies of each other, and which functions with them."""
    first, last = family.numbers[0], family.numbers[-1]
    row = len(family.numbers) > 2 and last - first + 1 == len(family.numbers)
    numbers = f"{first} to {last}" if row else " and ".join(map(str, family.numbers))
    words = f"{', '.join(p.rstrip('#') for p in family.variables)} with {numbers}"
    copies = ", ".join(f"{family.stem}{n}_*" for n in family.numbers) if family.stem else words
    if family.told is not None:
        copies = "for " + " and ".join(" ".join(family.label(n)) for n in family.numbers)
    twins = ", ".join(" and ".join(f.name for f in row) for row in family.twins[:3])
    kind, mark = ("numbered copies", "number") if family.told is None else ("copies", "word")
    return f"{len(family.symbols)} variables named {copies} are {kind} of {len(family.variables)}" + (
        f"; {twins} differ only in the {mark}" if twins else ""
    )


def used_together(facts: FileFacts, candidate: Candidate) -> str:
    """What the functions of a group have to do with its variables."""
    row = {s for s in candidate.rows[0] if s is not None}
    firsts = [fit.functions[0] for fit in candidate.fits]
    touched = [(f.name, facts.effects.direct(f.start, f.end).names & row) for f in firsts]
    same = [(name, mine) for name, mine in touched if len(mine) > 1]
    number = len(set().union(*(mine for _, mine in same)))
    if len(same) == 1:
        return f"{number} variables are used by {same[0][0]}"
    if same:
        return f"{number} variables are used by the same functions ({', '.join(name for name, _ in same[:6])})"
    names = ", ".join(s.name for s in candidate.rows[0] if s is not None)
    return f"{', '.join(f.name for f in firsts[:6])} work on {names}"


def add_differences(facts: FileFacts, family: Family, candidate: Candidate, made: ClassDesign) -> None:
    """Fields for the literals in which the twins differ."""
    write, pattern = facts.write, like(facts.file)
    spans = [(f.start, f.end) for f in candidate.functions]
    merged: dict[tuple[str, ...], TwinLiteral] = {}
    for d in (d for found in family.differences.values() for d in found):
        if any(a <= d.places[0][0][0] < b for a, b in spans):
            merged.setdefault(tuple(d.texts), d)
    for texts, d in merged.items():
        words = [w for w in write.words(d.name) if w.rstrip("0123456789").lower() != family.stem]
        name = write.member_name(words or ["value"], pattern)
        if list(texts) == [str(n) for n in family.numbers]:
            name = "number"
        taken = {f.name for f in made.fields} | {m.name for m in made.methods}
        if name in taken:
            name = write.member_name([*write.words(name), "value"], pattern)
        kind = d.kind if facts.language.typed else ""
        made.fields.append(FieldDesign(free(name, taken), [Origin()] * len(texts), "argument", type=kind))
        for obj, text in zip(candidate.objects, texts, strict=True):
            obj.args.append(text)
        made.why.append(
            f"{' and '.join(texts)} differ in functions that are alike otherwise, so each object has its own "
            f"{made.fields[-1].name}"
        )


def only_there(s: Symbol) -> bool:
    """Whether a name means just that variable, wherever it is said in the file."""
    return all(scope is s.scope or s.name not in scope.symbols for scope in s.scope.walk())
