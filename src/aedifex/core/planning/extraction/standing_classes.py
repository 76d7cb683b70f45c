"""Methods for classes that stand: functions that are handed an object of one at every call, and look into it.

A function that asks the person or shows something stays with what does so, unless the class does that already.
"""

from __future__ import annotations

from collections.abc import Iterator
from collections.abc import Set as AbstractSet

from ...analysis.concerns import Concerns
from ...analysis.effects import Effects
from ...analysis.hazards import forbidding, hazards
from ...design.tables import ClassDesign, MethodDesign
from ...naming.identifiers import member_names
from ...program.edits import applied
from ...program.language import Language
from ...program.model import Function, Scope, SourceFile
from ...program.program import Program, reread
from ...rewrites.parameter_to_receiver import loose
from ...rewrites.record_class.objects import Handed
from ...rewrites.standing_class import handed_objects, names_of_members, standing_scope
from ..classes.facts import Task, origin_in


def methods_of_standing(
    program: Program, task: Task, lifted: AbstractSet[str], new: AbstractSet[str]
) -> tuple[list[ClassDesign], Program]:
    """The classes of a file that gain methods, and the program with these. ``lifted``: functions made of lines;
    ``new``: classes that a draft has made before."""
    made: list[ClassDesign] = []
    for name in [n for s, n in program.files[task.path].classes if s.parent is program.files[task.path].scope]:
        file = program.files[task.path]
        scope = standing_scope(file, name)
        if scope is None or name in new or any(s is scope for s, _ in file.inheriting):
            continue  # its base may have such members, and call them
        found, program = with_members(program, task, name, lifted)
        if found.methods:
            made.append(found)
    return made, program


def with_members(program: Program, task: Task, name: str, lifted: AbstractSet[str]) -> tuple[ClassDesign, Program]:
    """A class with the functions that can be its methods, one after the other."""
    design, language = ClassDesign(name, existing=True), program.language
    refused: set[str] = set()
    while True:
        file = program.files[task.path]
        scope = standing_scope(file, name)
        assert scope is not None
        found = next(fitting(program, task, file, scope, name, refused | lifted), None)
        if found is None:
            return design, program
        f, param = found
        short = method_name(language, name, f.name, param, names_of_members(file, scope))
        edits = Handed(file, language, name).method_edits(f, param, short, loose(program))
        after = reread(program, {file.path: applied(file.text, edits, file.encoding)})
        if after.files[file.path].problems or standing_scope(after.files[file.path], name) is None:
            refused.add(f.name)
            continue
        design.methods.append(MethodDesign(short, [origin_in(program, file, f.name)], drop=[param]))
        design.why.append(f"{f.name} is handed an object of {name} at every call, as {param}")
        program = after


def method_name(language: Language, class_: str, function: str, param: str, taken: AbstractSet[str]) -> str:
    """What a function is called as a method: without what the class, and the parameter that goes, say already."""
    words = {w.lower() for text in (class_, param) for w in language.write.words(text)}
    return member_names([function], words, language.write, taken)[function]


def fitting(
    program: Program, task: Task, file: SourceFile, scope: Scope, name: str, refused: AbstractSet[str]
) -> Iterator[tuple[Function, str]]:
    """Functions that can be methods now, with the parameter that gets the object."""
    language = program.language
    effects = Effects(file, language)
    about = Concerns(file, language, effects)
    talks = any(True for _ in about.direct(scope.start, scope.end))
    found = hazards(program, file.path, task.outsiders)
    for f, param in sorted(handed_objects(file, language, name).items(), key=lambda e: e[0].start):
        kept = f.name in refused | task.kept or forbidding(found, {f.name}) is not None
        shows = not talks and any(True for _ in about.direct(f.start, f.end))
        if not kept and not shows and looks_into(file, language, f, param):
            if not Handed(file, language, name).why_not(f, param):
                yield f, param


def looks_into(file: SourceFile, language: Language, f: Function, param: str) -> bool:
    """Whether a function uses members of the object."""
    return any(r.member for r in f.scope.symbols[param].references if not r.writes)
