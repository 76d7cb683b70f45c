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


def constant_stays(plan: FilePlan) -> list[StayDesign]:
    """Constants, with the file of the first class that reads each: they move with it."""
    facts, readers = plan.facts, dict[Symbol, str]()
    for c in by_dependency(list(plan.classes)):
        if c.file and facts.language.placement == "imports":
            read = {s for f in method_functions(facts, c) for s in facts.effects.of(f).reads & facts.constants}
            for s in read:
                readers.setdefault(s, c.file)
    return [StayDesign(s.name, "constant", readers.get(s, "")) for s in facts.kinds if s in facts.constants]


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
