"""What every step has in common: what it is given, what it gives back, how it says no; and what many of them ask."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import ClassVar

from ..analysis.effects import Effects
from ..analysis.hazards import forbidding, hazards
from ..analysis.startup import running
from ..analysis.variable_kinds import declared_type
from ..design.origin import Origin
from ..design.tables import ClassDesign, Design
from ..program.edits import Edits, Overlap
from ..program.facets.text import Text
from ..program.language import Language
from ..program.model import Declaration, Function, Reference, Scope, SourceFile, Symbol
from ..program.program import Program
from ..program.refusal import Refusal
from ..program.snapshot import case_twin
from . import messages


@dataclass
class Context:
    """The program as it stands, the design, and where each class lives by now."""

    program: Program
    design: Design
    homes: dict[str, str] = field(default_factory=dict)  # class name → file that holds it now
    original: Program | None = None

    @property
    def language(self) -> Language:
        found: Language = self.program.language
        return found

    @property
    def write(self) -> Text:
        return self.language.write

    def file(self, path: str) -> SourceFile:
        return self.program.holders[path]

    def exists(self, path: str) -> bool:
        """Whether a file of this path is there (the builder looks at the disk as well)."""
        return path in self.program.holders

    def check_case(self, path: str, but: str = "") -> None:
        """Raises Refusal if a new file would be one with another where the file system ignores case. ``but``: a file
        that goes."""
        planned = [c.file for c in self.design.classes if c.file]
        twin = case_twin(self.program.root, path, [p for p in [*self.program.texts, *planned] if p != but])
        if twin and twin != but:
            stem, dot, ending = path.rpartition(".")
            raise messages.ONE_FILE_BUT_FOR_CASE.in_file(path, path=path, twin=twin, stem=stem, dot=dot, ending=ending)

    def home(self, design: ClassDesign) -> SourceFile:
        return self.file(self.homes.get(design.name) or design.source or self.design.entries[0])

    def type_of(self, file: SourceFile, variable: Symbol) -> str:
        """The type with which a variable or the field that replaced it was declared; "" if none says so."""
        kind = next(
            (
                declared_type(file, s)
                for s in running(file, self.language)
                if s.target is not None and s.target.symbol is variable
            ),
            "",
        )
        fields = [f for c in self.design.classes for f in c.fields if variable.name in [o.local for o in f.origins]]
        return kind or next((f.type for f in fields if f.type), "")

    def effects(self, file: SourceFile) -> Effects:
        return Effects(file, self.program.language)


@dataclass(kw_only=True)
class Step(ABC):
    """One small move. Its ``id``, ``kind:subject``, names it in reports and in ``--until``; its title goes into the
    commit message.

    ``needs``: ids of the steps that must have been done; ``refused``: the reason, where it was tried already and cannot
    be done.
    """

    kind: ClassVar[str]
    traced: ClassVar[bool] = False  # whether places of other steps are followed through its edits
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None

    @property
    def id(self) -> str:
        return f"{self.kind}:{self.subject}"

    @property
    @abstractmethod
    def subject(self) -> str: ...

    @abstractmethod
    def title(self) -> str: ...

    @abstractmethod
    def apply(self, context: Context) -> Edits: ...

    def owner(self, design: Design) -> str:
        """The class of the design that is not made without this step; "" if it is as good without it."""
        return ""


@dataclass
class ClassStep(Step):
    """A step of one class."""

    design: ClassDesign

    @property
    def subject(self) -> str:
        return self.design.name

    def owner(self, design: Design) -> str:
        return self.design.name


@dataclass
class FileStep(Step):
    """A step that is done in one file."""

    path: str

    @property
    def subject(self) -> str:
        return self.path


UNFORESEEN = (KeyError, IndexError, ValueError, AttributeError, TypeError, StopIteration, AssertionError)


def carried_out(step: Step, context: Context) -> tuple[Edits, dict[str, bytes | None]]:
    """The edits of a step, and the new bytes of each file that they change. Raises Refusal, also where a design met
    something that nobody thought of."""
    try:
        edits = step.apply(context)
        return edits, edits.apply(context.program.files)
    except Overlap as overlap:
        raise messages.OVERLAP.in_file(why=str(overlap)) from overlap
    except UNFORESEEN as error:
        raise messages.NOT_FORESEEN.in_file(kind=type(error).__name__, error=error) from error


def symbol(file: SourceFile, origin: Origin, what: str = "name") -> Symbol:
    """The module-level symbol of an origin. Raises Refusal if the file does not have it."""
    found = file.scope.symbols.get(origin.local)
    if found is None or not found.kinds:
        raise messages.NO_SUCH.in_file(file.path, what=what, name=origin.local)
    return found


def check_hazards(context: Context, file: SourceFile, names: set[str], advice: str) -> None:
    """Raises Refusal where something forbids to move these names, or any name of the file."""
    if (h := forbidding(hazards(context.program, file.path, context.program.outsiders), names)) is not None:
        raise h.refusal(advice)


def class_scope(file: SourceFile, name: str) -> Scope:
    """The scope of a class at the top of a file. Raises Refusal if there is none."""
    for scope, bound in file.classes:
        if bound == name and scope.parent is file.scope:
            return scope
    raise messages.NO_CLASS_YET.in_file(file.path, name=name)


def opens_body(file: SourceFile, at: int, gone: list[tuple[int, int]]) -> bool:
    """Whether a line is the first of a function's body, but for lines that go."""
    f = file.function_at(at)
    first = file.lines[file.line(f.body_start) - 1] if f is not None else at + 1
    for left, right in sorted(gone):
        first = right if left == first else first
    return first > at and f is not None and file.lines[file.line(f.body_start) - 1] <= at


def drop_declarations(
    language: Language, file: SourceFile, edits: Edits, symbols: set[Symbol], within: tuple[int, int] | None = None
) -> None:
    """Take names out of the statements that declare them; a statement left empty goes with its line."""
    nothing = language.write.empty_body()
    gone: list[tuple[int, int]] = []  # lines
    statements: dict[tuple[int, int], list[Declaration]] = {}
    for d in file.declarations:
        if within is None or within[0] <= d.start < within[1]:
            statements.setdefault(d.statement, []).append(d)
    for (start, end), listed in statements.items():
        going = [d for d in listed if d.symbol in symbols]
        if not going:
            continue
        keep = [d.name for d in listed if d not in going]
        if keep:
            edits.replace(file.path, listed[0].start, listed[-1].end, ", ".join(keep))
            continue
        left = file.lines[file.line(start) - 1]
        right = file.text.find(b"\n", end) + 1 or len(file.text)
        alone = not file.text[left:start].strip() and not file.text[end:right].strip()
        if language.alone(file, start, end):
            edits.replace(file.path, start, end, nothing)
        elif alone:
            gone.append((left, right))
            edits.delete(
                file.path, left, language.write.blank_after(file, right) if opens_body(file, left, gone) else right
            )
        else:
            rest = file.text[end:right]
            if language.write.trailing_comment(file, end) and not file.text[left:start].strip():
                edits.delete(file.path, start, end + len(rest) - len(rest.lstrip(b" \t")))  # the remark stays
                continue
            more = len(rest) - len(rest.lstrip(b" ;")) if rest.lstrip().startswith(b";") else 0
            if more:
                edits.delete(file.path, start, end + more)
            else:
                edits.replace(file.path, start, end, nothing)


def function_of(file: SourceFile, origin: Origin) -> Function:
    """The one function at the top that an origin names. Raises Refusal."""
    found = file.function(origin.local)
    if found is None:
        several = file.functions_named(origin.local)
        why = "is defined more than once" if several else "is not defined at the top of the file"
        raise messages.NOT_ONE_FUNCTION.in_file(
            file.path, file.line(several[0].start) if several else 0, function=origin.local, why=why
        )
    return found


def outward(
    context: Context, file: SourceFile, design: ClassDesign, span: tuple[int, int], own: Sequence[Reference], at: int
) -> list[tuple[int, int, str]]:
    """Edits for uses of the file's names in code that goes into a class with members of the same names. Raises Refusal
    if none help.

    ``own``: uses in the code that are rewritten already.
    """
    leaving = {file.scope.symbols.get(o.local) for m in design.methods for o in m.origins}
    done = {r.start for r in own}
    refs = [r for r in file.within(*span) if r.start not in done and r.symbol not in leaving]
    fields, methods = {f.name for f in design.fields}, {m.name for m in design.methods}
    edits, trouble = context.write.outward(file, refs, fields, methods)
    if trouble:
        raise messages.MEMBER_NAME_MEANS_ELSE.at(file, at, why=trouble)
    return list(edits)


def add_method(context: Context, file: SourceFile, scope: Scope, text: str, edits: Edits) -> None:
    """Put a method at the end of a class; the placeholder of an empty class goes."""
    at, before, after = context.write.method_place(file, scope)
    empty = context.write.empty_class(file, scope)
    if empty is not None:
        edits.delete(file.path, *empty)
    gap = before + ("" if empty is not None or context.write.bare_class(file, scope) else "\n")
    edits.insert(file.path, at, context.write.with_newlines(gap + text + after, context.write.newline(file)))
