"""Steps by hand beside a class that stands, or before there is one: pass, hide, unify, branches, split."""

from __future__ import annotations

import re

from ..analysis.families import families
from ..design.tables import ClassDesign, FieldDesign, LiftDesign, MethodDesign, ObjectDesign
from ..planning.long_methods import dispatched
from ..program.code_text import code_text
from ..program.errors import Refused
from ..program.model import SourceFile
from ..program.program import Program
from ..program.scopes import shadowed
from ..program.surroundings import read_neighbours
from ..rewrites.extract_class.members import class_with_uses
from ..rewrites.pass_arguments import PassIn
from ..rewrites.rename import Rename
from ..rewrites.split_assignment import SplitUnpacking, unpackings
from ..rewrites.split_declarations import SplitDeclarations, shares_a_declaration
from ..rewrites.unify_twins.rewrite import UnifyPair
from . import messages
from .by_hand import Single, empty_design, home_of, single
from .by_hand_several import Several, through


def pass_argument(program: Program, method: str, value: str) -> Single:
    """What it would change if every call of ``Class.method`` passed a variable, ``name=value`` under another name. Raises Refused if it cannot."""
    class_, dot, member = method.partition(".")
    name, sign, source = value.partition("=")
    if not dot:
        raise Refused(messages.NO_MEMBER_NAMED.in_file(name=method))
    path = home_of(program, class_)
    made = class_that_stands(program.files[path], class_)
    made.methods = [MethodDesign(member, [f"{path}::{member}"], add=[{"name": name, "value": source if sign else name}])]
    for file in [*program.files.values(), *read_neighbours(program, [member]).files.values()]:
        if (at := unknown_use(file, path, made, member, program.language.write.RECEIVER)) is not None:
            raise Refused(messages.WHOSE_CALL.at(file, at, member=member))
    return single(program, PassIn(made, made.methods[0]), homes={class_: path})


def class_that_stands(file: SourceFile, class_: str) -> ClassDesign:
    """A class that stands, with the objects of it that variables at the top hold."""
    symbol = file.scope.symbols.get(class_)
    made = [
        s.target.name for s in file.statements
        if s.target is not None and s.value is not None and any(c.callee.symbol is symbol for c in file.calls_within(*s.value))
    ]  # fmt: skip
    return ClassDesign(class_, objects=[ObjectDesign(n) for n in dict.fromkeys(made)])


def unknown_use(file: SourceFile, path: str, made: ClassDesign, member: str, receiver: str) -> int | None:
    """Where a file names a member of that name of what is neither an object that the class is known to have, nor, in the class, its own."""
    code, own = code_text(file), next((s for s, n in file.classes if n == made.name and file.path == path), None)
    objects = {o.name for o in made.objects} if file.path == path else set()
    for match in re.finditer(rb"(\w*)\s*\.\s*" + re.escape(member.encode(file.encoding)) + rb"\b", code):
        holder = match[1].decode(file.encoding)
        scope = next((r.scope for r in file.within(match.start(), match.end()) if r.name == holder), None)
        known = holder in objects and (scope is None or not shadowed(scope, holder, file.scope))
        inside = own is not None and own.start <= match.start() < own.end and holder in {receiver, *(s.receiver for s in own.children)}
        if not known and not inside:
            return match.start()
    return None


def hide(program: Program, member: str) -> Single:
    """What hiding a member, ``Class.member``, would change. Raises Refused with the reason if somebody else uses it."""
    class_, dot, name = member.partition(".")
    path, language = home_of(program, class_), program.language
    whole = class_with_uses(program.files[path], language, class_) if dot else None
    hidden = language.write.hidden(name)
    if whole is None or name not in {*whole.fields, *(f.name for f in whole.methods)}:
        raise Refused(messages.NO_MEMBER_NAMED.in_file(name=member))
    if hidden == name:
        raise Refused(messages.HIDDEN_BY_A_WORD.in_file(language=language.name))
    trouble = language.members.outside(program.files[path], whole, {name}) if language.members is not None else None
    if trouble is not None:
        raise Refused(messages.USED_OUTSIDE_IT.at(program.files[path], trouble[1], why=trouble[0]))
    return single(program, Rename(member, hidden, outsiders=read_neighbours(program, [class_])))


def unify(program: Program, first: str, second: str) -> Single:
    """What making two near-twins the same but for a number would change. Raises Refused with the reason if they cannot be."""
    for path, file in program.files.items():
        variables = [s for s in file.scope.symbols.values() if s.kinds == {"variable"}]
        for family in families(file, program.language, variables, asked=True):
            parts = [family.split(n) if file.function(n) is not None else None for n in (first, second)]
            if all(parts) and parts[0][0] == parts[1][0]:  # type: ignore[index]
                return single(program, UnifyPair(path, family, [first, second]))
    raise Refused(messages.NO_TWINS.in_file(first=first, second=second))


def branches(program: Program, name: str) -> Single:
    """What making a function of each branch of a long one would change. Raises Refused with the reason if it tells none apart."""
    for file in program.files.values():
        f = file.function(name)
        taken = {n for s in file.scope.walk() for n in s.symbols} | set(program.language.builtins)
        found = dispatched(file, program.language, f, taken, 0) if f is not None else []
        if found:
            design = empty_design(program)
            design.lifts = [LiftDesign(p.name, "", [p.lines]) for p in found]
            return through(program, design, Several(f"branches:{name}", f"the branches of {name} become {', '.join(p.name for p in found)}"))
    raise Refused(messages.NO_BRANCHES.in_file(name=name))


def split(program: Program, names: list[str]) -> Single:
    """What giving each of some variables a statement of its own would change. Raises Refused if they have one."""
    for path, file in program.files.items():
        if not all(n in file.scope.symbols for n in names):
            continue
        design = ClassDesign("", fields=[FieldDesign(n, [f"{path}::{n}"]) for n in names])
        if shares_a_declaration(design, program):
            return single(program, SplitDeclarations(design), homes={"": path})
        if unpackings(file, program.language):
            return single(program, SplitUnpacking(path))
    raise Refused(messages.NOTHING_TO_SPLIT.in_file(names=", ".join(names)))
