"""Read again what a step wrote (D1): every name must still mean something, and the right thing."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from ..program.language import Language
from ..program.model import Function, Problem, Reference, Scope, SourceFile
from ..program.program import Program
from ..program.scopes import receiver_of
from .resolved import shadowed_names


def verify(before: Program, after: Program, changed: list[str]) -> list[Problem]:
    """What is wrong with the changed files that was not wrong before; empty if all is well."""
    language = after.language
    found: list[Problem] = []
    held = after.holders
    for file in dict.fromkeys(held[p] for p in changed if p in held):
        found += file.problems
        refused = language.compiles(file.path, file.text)
        if refused is not None:
            found.append(refused)
        found += unresolved(before, after, file, language)
        found += stray_receiver(before, file, language)
        was = before.holders.get(file.path)
        missing = {p.message for p in all_members(was, before, language)} if was is not None else set()
        found += [p for p in all_members(file, after, language) if p.message not in missing]
        found += doubled(before, file)
        if language.exact_calls:
            found += new_calls(before, after, file)
    found += [] if found else shadowed_names(before, after, list(dict.fromkeys(held[p] for p in changed if p in held)))
    return found + ([] if found else new_problems(before, after, language))


def new_problems(before: Program, after: Program, language: Language) -> list[Problem]:
    """What the compiler has against the whole program, and had not against what it was."""
    now = language.accepts([*after.files.values()])
    if not now:
        return []
    old = {p.message for p in language.accepts([*before.files.values()])}
    return [p for p in now if p.message not in old]


def unresolved(before: Program, after: Program, file: SourceFile, language: Language) -> list[Problem]:
    """Names bound nowhere, that were not unbound in the program before."""
    if file.scope.stars:
        return []
    known = {n for f in before.files.values() for n, s in f.scope.symbols.items() if not s.kinds}
    if language.placement != "imports":
        known |= {name for f in after.files.values() for _, name in f.classes}
    found = []
    for name, symbol in file.scope.symbols.items():
        if not symbol.kinds and symbol.references and name not in language.builtins and name not in known:
            ref = symbol.references[0]
            if file.star_imports and all(r.form == "type" for r in symbol.references):
                continue  # one of the imports brings the type, or the compiler says that none does
            found.append(Problem(*file.stands(ref.start), f"the name '{name}' means nothing here any more"))
    return found


def stray_receiver(before: Program, file: SourceFile, language: Language) -> list[Problem]:
    """A receiver used where no method gives it, unless the surroundings did so before, as they do in a sketch."""
    receiver = language.write.RECEIVER
    uses = strays(file, receiver)
    if len(uses) <= sum(len(strays(f, receiver)) for f in before.files.values()):
        return []
    return [Problem(*file.stands(uses[0].start), f"'{receiver}' is used outside a method")]


def strays(file: SourceFile, receiver: str) -> list[Reference]:
    symbol = file.scope.symbols.get(receiver)
    return symbol.references if symbol is not None and not symbol.kinds else []


def doubled(before: Program, file: SourceFile) -> list[Problem]:
    """Methods of one class that have one name, more of them than any class of its name had. Classes without a name have
    that of their type."""
    known: Counter[tuple[str, str]] = Counter()
    for held in before.files.values():
        for (scope, name), n in Counter((f.outer, f.name) for f in held.functions if f.outer.kind == "class").items():
            known[unqualified(scope), name] = max(known[unqualified(scope), name], n)
    methods = [f for f in file.functions if f.outer.kind == "class"]
    number = Counter((f.outer, f.name) for f in methods)
    last = {(f.outer, f.name): f for f in methods}
    return [
        Problem(*file.stands(last[scope, name].start), f"class {scope.name} has two members '{name}'")
        for (scope, name), n in number.items() if n > max(1, known[unqualified(scope), name])
    ]  # fmt: skip


def unqualified(scope: Scope) -> str:
    """A class's name without what it is reached through."""
    return scope.name.rpartition(".")[2]


def all_members(file: SourceFile, program: Program, language: Language) -> list[Problem]:
    return [
        p
        for scope, _ in file.classes
        if scope.parent is file.scope
        for p in unknown_members(file, scope, program, language)
    ]


def unknown_members(file: SourceFile, scope: Scope, after: Program, language: Language) -> list[Problem]:
    """Members that the class's methods use, and that neither the class nor any assignment gives it."""
    if scope.bases:
        return []
    has = set(scope.symbols).union(*(f.stored_members for f in after.files.values()))
    return [
        Problem(*file.stands(r.start), f"{scope.name} has no member '{r.member}'")
        for r in file.within(scope.start, scope.end)
        if r.member and r.member not in has and not language.special(r.member) and r.name == receiver_of(r.scope, scope)
    ]


@dataclass(frozen=True)
class Misfit:
    """A call with arguments too few, too many, or named as no parameter."""

    few: int
    many: int
    odd: tuple[str, ...]
    call: tuple[str, int]  # the member that is called, and with how many arguments
    problem: Problem

    @property
    def shape(self) -> tuple[object, ...]:
        return self.few, self.many, self.odd


def new_calls(before: Program, after: Program, file: SourceFile) -> list[Problem]:
    """Calls with a wrong number of arguments that were not as wrong before: a call that fails when it is reached goes
    on doing so.

    One that went through an object of another class could not be told right from wrong before.
    """
    found = calls(file, after)
    if not found:
        return []
    known: Counter[object] = Counter()
    for f in before.files.values():
        known.update(m.shape for m in calls(f, before))
        loose = [c for c in f.calls if c.callee.member and callee(f, c.callee) is None]
        known.update((c.callee.member, len(before.language.arguments(f, c))) for c in loose)
    new = []
    for misfit in sorted(
        found, key=lambda m: m.call in known
    ):  # those that can only be known by their shape take theirs first
        same = next((k for k in (misfit.call, misfit.shape) if known[k]), None)
        if same is None:
            new.append(misfit.problem)
        else:
            known[same] -= 1
    return new


def calls(file: SourceFile, program: Program) -> list[Misfit]:
    """Calls of plain functions and of our methods with a wrong number of arguments."""
    language = program.language
    found = []
    for call in file.calls:
        function = callee(file, call.callee)
        if function is None:
            continue
        target, bound = function
        args = language.arguments(file, call)
        if any(a.keyword in ("*", "**") for a in args) or any(p.kind in ("star", "doublestar") for p in target.params):
            continue
        params = target.arguments if bound else target.params
        needed = [p for p in params if p.default is None]
        names = {p.name for p in params}
        odd = tuple(a.keyword for a in args if a.keyword and a.keyword not in names)
        few, many = max(0, len(needed) - len(args)), max(0, len(args) - len(params))
        if few or many or odd:
            takes = f"{len(needed)}{'' if len(needed) == len(params) else f' to {len(params)}'}"
            message = f"'{target.name}' is called with {len(args)} arguments, but takes {takes}"
            problem = Problem(*file.stands(call.start), message)
            found.append(Misfit(few, many, odd, (call.callee.member or call.callee.name, len(args)), problem))
    return found


def callee(file: SourceFile, ref: Reference) -> tuple[Function, bool] | None:
    """The function that a call reaches, as far as reading alone tells, and whether a receiver is bound."""
    if not ref.member:
        if ref.symbol is not None and ref.symbol.kinds == {"function"} and ref.symbol.scope is file.scope:
            function = file.function(ref.name)
            return (function, False) if function is not None and not function.decorators else None
        return None
    for scope, _ in file.classes:
        if ref.scope.within(scope) and ref.name == receiver_of(ref.scope, scope):
            for child in scope.children:
                if child.kind == "function" and child.name == ref.member and child.function is not None:
                    return (child.function, True) if not child.function.decorators else None
    return None
