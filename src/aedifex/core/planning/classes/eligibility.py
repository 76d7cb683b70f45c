"""Which variables and functions of a file may move into a class, and why the others stay."""

from __future__ import annotations

from dataclasses import replace

from ...analysis.effects import Effects
from ...analysis.families import numbered
from ...analysis.groups import first_word
from ...analysis.hazards import by_text, forbidding, hazards
from ...analysis.messages import PROCESSES
from ...analysis.variable_kinds import UNFIT, classify
from ...design.tables import StayDesign
from ...naming.identifiers import taken_names
from ...program.model import Function, Reference, Symbol
from ...program.program import Program
from .facts import AskedClass, FileFacts, Seen, Task, resting_on

NOTHING_SEEN = Seen()


def facts_of(program: Program, task: Task, seen: Seen = NOTHING_SEEN) -> FileFacts:
    """All that is known of the task's file, as it stands in ``program``, before a class is planned."""
    file, language = program.files[task.path], program.language
    kinds = classify(file, language)
    found = hazards(program, file.path, task.outsiders)
    facts = FileFacts(
        program,
        file,
        task,
        seen,
        Effects(file, language),
        kinds,
        language.hooks(file),
        tuple(found),
        forbidding(found, set()),
        next((h for h in found if h.kind == PROCESSES), None),
        {name: h for h in reversed(found) for name in h.names},
        frozenset(taken_names(file, language.builtins) | task.taken | names_of_sketch(program, file.path)),
        frozenset(s for s, v in kinds.items() if v.nature == "constant"),
    )
    return with_functions(with_wishes(with_own_constants(with_variables(facts))))


def names_of_sketch(program: Program, path: str) -> set[str]:
    """Names that a class of a sketch cannot have: the sketch is one itself, and each of its files."""
    write = program.language.write
    return {write.module_of(p) for p in (path, *program.texts)} if program.language.joined else set()


def with_stays(facts: FileFacts, stays: list[StayDesign]) -> FileFacts:
    """The same with more that stays."""
    return replace(facts, stays=(*facts.stays, *stays))


def fit_variables(facts: FileFacts, symbols: list[Symbol]) -> tuple[list[Symbol], list[StayDesign]]:
    """Those that may be fields; why others stay that functions use."""
    reasons = {s: variable_reason(facts, s) for s in symbols}
    stays = [
        StayDesign(s.name, why)
        for s, why in reasons.items()
        if why and any(r.scope.frame is not facts.file.scope for r in s.references)
    ]
    return [s for s, why in reasons.items() if not why], stays


def with_variables(facts: FileFacts) -> FileFacts:
    """The same with the variables that may move."""
    changing = [s for s, v in facts.kinds.items() if v.nature != "constant" and s.name not in facts.task.kept]
    variables, stays = fit_variables(facts, changing)
    return with_stays(replace(facts, variables=tuple(variables)), stays)


def with_own_constants(facts: FileFacts) -> FileFacts:
    """What never changes is an object's all the same, where it is named as its other variables are and not written as a
    constant."""
    firsts = [first_word(s.name, facts.write.words) for s in facts.variables if facts.kinds[s].nature == "state"]
    for s in sorted(facts.constants, key=lambda s: s.bindings[0].start):
        word = first_word(s.name, facts.write.words)
        evident = any(t.noun and s.name in t.names for t in facts.seen.things)
        like_state = evident or (word and firsts.count(word) > 1 and s.name[:1].islower())
        if s not in facts.constants or not like_state or s.name in facts.task.kept or numbered(s.name):
            continue
        fit, stays = fit_variables(facts, [s])
        if fit:
            freed = {s} | resting_on(facts, {s})
            more, others = fit_variables(facts, [x for x in facts.kinds if x in freed and x is not s])
            mine = tuple(x for x in facts.kinds if x is s or x in more)
            facts = replace(facts, constants=facts.constants - freed, variables=(*facts.variables, *mine))
            stays += others
        facts = with_stays(facts, stays)
    return facts


def with_wishes(facts: FileFacts) -> FileFacts:
    """The same with what a person wants in one class; constants among it are no constants any more."""
    by_name = {s.name: s for s in facts.kinds}
    functions = {f.name: f.symbol for f in facts.top_functions}
    found = []
    for wish in facts.task.wishes:
        names = [n.local for n in wish.together if n.of_file(facts.file.path)]
        wanted = [by_name[n] for n in names if n in by_name]
        constants = [s for s in wanted if s in facts.constants and s.name not in facts.task.kept]
        fixed, stays = fit_variables(facts, constants)
        freed = replace(facts, constants=facts.constants - set(fixed), variables=(*facts.variables, *fixed))
        facts = with_stays(freed, stays)
        symbols = [s for s in wanted if s in facts.variables]
        if symbols:
            methods = {s for n in names if (s := functions.get(n)) is not None}
            found.append(AskedClass(symbols, methods, wish.class_))
    if facts.idea == "app":
        return replace(facts, asked_fields=frozenset(s for a in found for s in a.variables))
    return replace(facts, asked=tuple(found))


def with_functions(facts: FileFacts) -> FileFacts:
    """The same with the functions that may move."""
    tops = [f for f in facts.top_functions if f.name not in facts.task.kept and not facts.starts(f)]
    reasons = [(f, function_reason(facts, f)) for f in tops]
    facts = with_stays(facts, [StayDesign(f.name, why) for f, why in reasons if why])
    fit = [f for f, why in reasons if not why]
    parts = facts.seen.parts
    return replace(
        facts,
        functions=tuple(f for f in fit if f.name not in parts),
        parts=tuple(f for f in fit if f.name in parts),
    )


def numbered_constants(facts: FileFacts) -> tuple[list[Symbol], list[StayDesign]]:
    """Constants that may be one object's share of what its copies differ in; why others stay."""
    fixed = [
        s
        for s in facts.kinds
        if s in facts.constants
        and (numbered(s.name) or any(v.split(s.name) for v in facts.variants))
        and s.name not in facts.task.kept
    ]
    return fit_variables(facts, fixed)


def variable_reason(facts: FileFacts, s: Symbol) -> str:
    """Why a variable cannot be a field; "" if it can."""
    language = facts.language
    if s.name in facts.blocked:
        return facts.blocked[s.name].told(facts.file.path)
    if s.kinds != {"variable"}:
        return f"'{s.name}' is also bound to something other than a value"
    if any(r.form in UNFIT or r.role == "delete" for r in s.references):
        return "it is bound in a way that a field cannot be"
    if s.name in language.builtins and not language.declares:
        return "it is named like a builtin, which is read wherever it is not set yet"
    if facts.kinds[s].first is None and catches_unset(facts):
        return "it may not be set yet where it is read, and the program catches the error of that kind"
    if s.name in language.introspective or s.name in language.reserved:
        return "the language itself reads it"
    if language.heads_run and any(in_head(facts, r) for r in s.references):
        return "the head of a function says it, which is worked out where the function stands"
    return ""


def in_head(facts: FileFacts, ref: Reference) -> bool:
    """Whether a use stands in a type that a function's head names."""
    f = facts.file.function_at(ref.start)
    if f is None or not f.head <= ref.start < f.body_start:
        return False
    return not any(p.default is not None and p.default[0] <= ref.start < p.default[1] for p in f.params)


def catches_unset(facts: FileFacts) -> bool:
    """Whether the program handles names that are not bound."""
    names = facts.language.unset_errors
    return any(n in names and s.references for n, s in facts.file.scope.symbols.items())


def function_reason(facts: FileFacts, f: Function) -> str:
    """Why a function cannot be a method; "" if it can."""
    file, receiver = facts.file, facts.write.RECEIVER
    if f.name in facts.blocked:
        return facts.blocked[f.name].told(file.path)
    if f.symbol in facts.effects.escaped and facts.processes is not None:
        return f"{facts.processes.told(file.path)}, and this function is passed on"
    if f.name in facts.hooks:
        return facts.hooks[f.name]
    if (around := file.around(f)) is not None:
        return (
            f"it is made inside of lines that may run more than once, or not at all (line {file.shown(around.start)})"
        )
    if shares_lines(facts, f):
        return "it shares its first or last line with other code"
    if file.scope.symbols.get(f.name) is not f.symbol:
        return "a variable has the same name"
    if receiver in f.scope.symbols:
        return f"it already uses the name '{receiver}'"
    return text_reason(facts, f)


def text_reason(facts: FileFacts, f: Function) -> str:
    """Why a function cannot be a method for what its text says; "" if it can."""
    file, why = facts.file, ""
    for ref in by_text(file, facts.language, f.start, f.end):
        why = f"line {file.shown(ref.start)}: '{ref.name}()' reaches names by their text"
    why = facts.write.class_trouble(file, f.start, f.end) or why
    for p in f.params:
        if p.default and facts.language.purity(file, p.default) != "literal" and not known_early(facts, p.default):
            why = f"line {file.shown(p.start)}: the default of '{p.name}' is worked out where the function stands"
    return why


def shares_lines(facts: FileFacts, f: Function) -> bool:
    """Whether other code stands on a line of a function's, so that it cannot be moved by its lines."""
    file, write = facts.file, facts.write
    before = file.text[write.line_start(file, f.start) : f.start]
    after = file.text[f.end : write.line_end(file, f.end - 1)]
    return bool(before.strip()) or bool(after.strip() and not write.trailing_comment(file, f.end))


def known_early(facts: FileFacts, span: tuple[int, int]) -> bool:
    """Made of imports, and of constants that are set before the first function or main code."""
    if facts.language.purity(facts.file, span) == "effect":
        return False
    limit = next((s.start for s in facts.file.statements if s.kind in ("function", "class")), 0)
    return all(
        r.symbol is None
        or not r.symbol.kinds
        or (
            all(b.start < limit for b in r.symbol.bindings)
            and (r.symbol in facts.constants or r.symbol.kinds == {"import"})
        )
        for r in facts.file.within(*span)
    )
