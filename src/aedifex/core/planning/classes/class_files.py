"""In which file each class of a draft goes, and the constants that go with it."""

from __future__ import annotations

from collections.abc import Iterable
from collections.abc import Set as AbstractSet
from dataclasses import replace

from ...analysis.effects import Effects
from ...design.tables import ClassDesign, StayDesign, by_dependency
from ...naming.identifiers import file_for
from ...program.model import Function, Symbol
from ...rewrites.move_class.placement import tied
from ...rewrites.wrap_main.plan import plan_main
from .facts import FileFacts
from .file_plan import FilePlan


def taken_files(facts: FileFacts) -> set[str]:
    """Names of files and modules that a new file cannot have."""
    write, program, task = facts.write, facts.program, facts.task
    found = {*program.files, *task.beside, *task.taken, *(write.module_of(p) for p in task.beside)}
    modules = {m for f in program.files.values() for s in f.imports for _, m, _ in facts.language.imported(f, s)}
    return found | {write.top_module(m) for m in modules}


def give_files_to(
    facts: FileFacts, classes: Iterable[ClassDesign], taken: set[str], bound: AbstractSet[str] = frozenset()
) -> None:
    """Give each class that can have one a file of its own, and say why others have none. ``taken``: as above, and
    grows; ``bound``: classes that use functions which stay in the file."""
    write, imports = facts.write, facts.language.placement == "imports"
    if write.stays_in(facts.file):
        return
    for c in classes:
        if c.name in bound:
            continue
        if facts.processes is not None and imports:
            c.why.append(f"it stays in {facts.file.path}: {facts.processes.told(facts.file.path)}")
            continue
        if imports and (why := tied(facts.file, facts.effects, spans_of_class(facts, c))):
            c.why.append(f"it stays in {facts.file.path}: line {facts.file.shown(why[1])}: {why[0]}")
            continue
        c.file = file_for(c.name, c.role, facts.file.path, write, taken)
        taken |= {c.file, write.module_of(c.file)}


def spans_of_class(facts: FileFacts, c: ClassDesign) -> list[tuple[int, int]]:
    """The code that is going to be a class's: its functions, and for the app the main code."""
    found = [(f.start, f.end) for f in method_functions(facts, c)]
    if c.role == "app":
        found += [(s.start, s.end) for s in plan_main(facts.file, facts.effects, facts.language).statements]
    return found


def method_functions(facts: FileFacts, c: ClassDesign) -> list[Function]:
    """The functions that become methods of a class."""
    names = {o.local for m in c.methods for o in m.origins}
    return [f for f in facts.top_functions if f.name in names]


def constant_stays(plan: FilePlan, taken: set[str]) -> list[StayDesign]:
    """Constants, with the file in which each ends up: that of the one class that reads it, or one of constants, with
    all of its paragraph, where several files do. ``taken``: names that no new file can have; grows."""
    facts, readers = plan.facts, dict[Symbol, list[str]]()
    if facts.language.placement == "imports":
        along = set[Symbol]()  # functions that move to the file of the first class that calls them
        for c in [c for c in by_dependency(list(plan.classes)) if c.file]:
            read, called = reached(plan, spans_read(plan, c), along)
            along |= called
            for s in read:
                readers.setdefault(s, []).append(c.file)
        for s in reached(plan, spans_left(plan, along), along)[0]:
            readers.setdefault(s, []).append(facts.file.path)
    shared = {s for s, files in readers.items() if len(set(files)) > 1 and can_be_shared(facts, s)}
    block = {s for row in constant_paragraphs(facts) if shared & set(row) for s in row if can_be_shared(facts, s)}
    block |= resting(facts, block)
    home = file_of_constants(facts, taken) if block else ""
    stays = []
    for s in facts.kinds:
        if s in facts.constants:
            own = next((f for f in readers.get(s, ()) if f != facts.file.path), "")
            stays.append(StayDesign(s.name, "constant", home if home and s in block else own))
    return stays


def spans_read(plan: FilePlan, c: ClassDesign) -> list[tuple[int, int]]:
    """The code that is going to be a class's, with the first values that its constructor works out; those of others
    are no longer the main code's."""
    facts = plan.facts
    moved = {x.name: first_values(facts, x) for x in plan.classes if x.role != "app" and len(x.objects) == 1}
    taken = {span for spans in moved.values() for span in spans}
    if c.role == "app":
        return [span for span in spans_of_class(facts, c) if span not in taken]
    return [*spans_of_class(facts, c), *moved.get(c.name, [])]


def first_values(facts: FileFacts, c: ClassDesign) -> list[tuple[int, int]]:
    """The statements that give fields the values which the constructor works out."""
    names = {o.local for f in c.fields if f.start in ("fixed", "derived") for o in f.origins}
    firsts = [v.first for s, v in facts.kinds.items() if s.name in names]
    return [(s.start, s.end) for s in firsts if s is not None]


def reached(
    plan: FilePlan, spans: Iterable[tuple[int, int]], elsewhere: AbstractSet[Symbol]
) -> tuple[set[Symbol], set[Symbol]]:
    """The constants that stretches of code read, and the functions that they call and that no class takes, with these.
    ``elsewhere``: functions that have a home already."""
    effects = plan.facts.effects
    queue, found, seen = list(spans), set[Symbol](), set[Symbol]()
    while queue:
        touch = effects.direct(*queue.pop())
        found |= touch.reads & plan.facts.constants
        more = touch.uses - seen - plan.functions - elsewhere
        seen |= more
        queue += [(effects.units[s].start, effects.units[s].end) for s in more]
    return found, seen


def spans_left(plan: FilePlan, along: AbstractSet[Symbol]) -> list[tuple[int, int]]:
    """The code that no class takes: functions and classes that stay, and main code where there is no app. ``along``:
    functions that go with a class."""
    facts = plan.facts
    left = [(f.start, f.end) for f in facts.file.tops if f.symbol not in plan.functions and f.symbol not in along]
    left += [(s.start, s.end) for s, _ in facts.file.classes if s.parent is facts.file.scope]
    if plan.app is None:
        firsts = {id(v.first) for v in facts.kinds.values() if v.first is not None}
        left += [(s.start, s.end) for s in facts.effects.main() if id(s) not in firsts]
    return left


def can_be_shared(facts: FileFacts, s: Symbol) -> bool:
    """Whether a constant stands at the top of the file, as plain data that needs nothing but other constants."""
    first = facts.kinds[s].first
    if first is None or first.value is None or first not in facts.file.statements or s.name in facts.task.kept:
        return False
    used = {r.symbol for r in facts.file.within(*first.value) if r.symbol is not None and r.symbol.kinds}
    return facts.language.purity(facts.file, first.value) != "effect" and used <= facts.constants


def resting(facts: FileFacts, block: AbstractSet[Symbol]) -> set[Symbol]:
    """The constants with which those of a block are worked out."""
    found: set[Symbol] = set()
    queue = list(block)
    while queue:
        first = facts.kinds[queue.pop()].first
        used = {r.symbol for r in facts.file.within(*first.value)} if first is not None and first.value else set()
        more = {s for s in used if s in facts.constants} - found - block
        found |= more
        queue += more
    return found


def constant_paragraphs(facts: FileFacts) -> list[list[Symbol]]:
    """Constants in the order of the source; those without a blank line between them are one row."""
    found: list[list[Symbol]] = []
    last = -1
    firsts = [(k.first, s) for s, k in facts.kinds.items() if s in facts.constants and k.first is not None]
    for first, s in sorted(firsts, key=lambda e: e[0].start):
        line = facts.file.line(facts.write.comment_start(facts.file, first.start))
        if line > last + 1 or not found:
            found.append([])
        found[-1].append(s)
        last = facts.file.line(first.end - 1)
    return found


def file_of_constants(facts: FileFacts, taken: set[str]) -> str:
    """A free name for a file of constants beside the source; "" if there is none."""
    stem = facts.write.module_of(facts.file.path)
    for name in ("Constants", facts.write.class_name([stem, "constants"])):
        path = file_for(name, "constants", facts.file.path, facts.write, taken)
        if path and facts.write.module_of(path).lower().endswith("constants"):
            taken |= {path, facts.write.module_of(path)}
            return path
    return ""


def with_standing(plan: FilePlan, standing: Iterable[ClassDesign]) -> FilePlan:
    """Constants that a class reads which stands already move with it: such classes move before the others."""
    facts: FileFacts = plan.facts
    effects: Effects = facts.effects
    homes = {c.name: c.file for c in [*standing][::-1] if c.file and facts.language.placement == "imports"}
    scopes = [(s, homes[n]) for s, n in facts.file.classes if n in homes and s.parent is facts.file.scope]

    def placed(stay: StayDesign) -> StayDesign:
        symbol = facts.file.scope.symbols.get(stay.name)
        readers = [home for s, home in scopes if symbol in effects.direct(s.start, s.end).reads]
        return replace(stay, file=readers[0]) if readers and stay.why == "constant" else stay

    return replace(plan, stays=tuple(placed(s) for s in plan.stays))
