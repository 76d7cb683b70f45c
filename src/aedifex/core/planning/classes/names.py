"""Names for the classes, objects and methods of a draft."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from collections.abc import Set as AbstractSet

from ...analysis.counting_loops import with_inner
from ...design.tables import ObjectDesign
from ...naming.identifiers import class_name_for, file_stem, free, like, member_names
from ...program.model import Function, Symbol
from ...program.tell import Means, first_tell
from .facts import FileFacts

GENERIC = frozenset(
    "main app game program script index run start play code test demo sketch my new client cli engine init home".split()
)  # names of files that say nothing of what is in them
HOLDING = frozenset({"dict", "list", "set", "array", "object"})


def module_stem(facts: FileFacts) -> str:
    """The name of the file as a word."""
    return file_stem(facts.write.module_of(facts.file.path))


def free_class_name(
    facts: FileFacts, variables: list[str], functions: list[str], used: AbstractSet[str], holder: str = ""
) -> str:
    """A free name for a class of these. ``used``: by other classes of the draft; ``holder``: the variable among them
    that holds many things."""
    taken = facts.names | used
    if len(functions) == 1 and all(functions[0] in v.lower() for v in variables):
        name = facts.write.class_name(functions)
        if facts.write.is_name(name):
            return free(name, taken)
    return class_name_for(variables, functions, facts.write, taken, module_stem(facts) + "_state", holder)


def object_names(
    facts: FileFacts, wanted: Sequence[str], used: AbstractSet[str], own: frozenset[str] = frozenset()
) -> list[ObjectDesign]:
    """Free names for objects. ``used``: by other objects; ``own``: variables that they take over, whose names are free
    then."""
    taken = {*(facts.names - own), *used}
    found = []
    for name in wanted:
        base = facts.write.member_name([name], name)
        longer = facts.write.member_name([*facts.write.words(base), "object"], like(facts.file))
        found.append(ObjectDesign(free(base if base not in taken else longer, taken)))
        taken.add(found[-1].name)
    return found


def short_names(facts: FileFacts, names: list[str], stems: set[str], taken: set[str]) -> dict[str, str]:
    """Names of functions as methods, without what the class says already."""
    if first_tell(facts.language.tells(facts.file), Means.STACK) is not None:  # what is called how shows
        stems = set()
    return member_names(names, stems, facts.write, taken)


def holder_among(facts: FileFacts, symbols: Iterable[Symbol]) -> str:
    """The one variable of several that holds many things; "" if there is none, or there are more."""
    found = [s.name for s in symbols if facts.kinds[s].type in HOLDING]
    return found[0] if len(found) == 1 else ""


def telling_names(facts: FileFacts, functions: Sequence[Function]) -> list[str]:
    """The names of functions without those of one word that return nothing: what these say is done, not what with."""
    return [f.name for f in functions if len(facts.write.words(f.name)) > 1 or returns_value(facts, f)]


def returns_value(facts: FileFacts, f: Function) -> bool:
    """Whether a function gives its caller anything."""
    rows = with_inner(facts.file, facts.language, facts.language.body(facts.file, f))
    return any(s.kind == "return" and facts.file.slice(s.start, s.end).strip(" ;\n") != "return" for s in rows)
