"""Give something another name, wherever it is used: a variable, function, class, local, parameter, member or file.

def sell(n):                 def sell(count):
    till.add(n)        →         till.add(count)
sell(n=3)                    sell(count=3)
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from ..analysis.effects import Effects
from ..analysis.hazards import by_text, hazards
from ..analysis.importers import Importers, importers
from ..analysis.object_classes import ObjectClasses
from ..design.tables import Design
from ..program.edits import Edits
from ..program.language import Language
from ..program.members import MemberNamed, members_named
from ..program.model import Reference, Scope, SourceFile, Symbol
from ..program.near import perhaps
from ..program.program import Program
from ..program.scopes import receiver_of, shadowed
from ..program.surroundings import read_neighbours
from . import messages, mistakes
from .by_hand import Asked, HandCommand, home_of
from .design_check import DesignCheck
from .extract_class.members import class_with_uses
from .rename_file import FileRenamer
from .renamed_designs import followed_design
from .rewrite import Rewrite, State
from .step import Context, Step


@dataclass
class Rename(Step):
    """``old``: as in a design (``file.py::name``, ``file.py::function.local``, ``file.py::Class.member``,
    ``file.py``)."""

    kind = "rename"
    old: str
    new: str
    outsiders: Program | None = None  # files that may not be changed

    @property
    def subject(self) -> str:
        return self.old

    def title(self) -> str:
        return f"{self.old} is called {self.new} from now on"

    def apply(self, context: Context) -> Edits:
        program = context.program
        if self.old in program.texts:
            return FileRenamer(context, self.old, self.new, self.outsiders).edits()
        if not context.write.is_name(self.new):
            raise messages.NO_NAME.in_file(name=self.new)
        file, scope, name = find(program, self.old)
        if name == self.new:
            raise messages.CALLED_SO_ALREADY.in_file(name=self.old)
        renamer = Renamer(program, self.outsiders, name, self.new)
        if scope.kind == "class":
            renamer.member(file, scope)
        else:
            renamer.symbol(file, scope.symbols[name])
        return renamer.out


def find(program: Program, old: str) -> tuple[SourceFile, Scope, str]:
    """The file, the scope that owns the name, and the name itself. Raises Refusal if it means nothing, or several
    things."""
    path, _, dotted = old.rpartition("::")
    files = [f for p, f in program.holders.items() if path in ("", p, f.path)]
    found = []
    for file in dict.fromkeys(files):
        scopes = [file.scope]
        parts = dotted.split(".")
        for part in parts[:-1]:
            scopes = [c for s in scopes for c in s.children if c.name == part and c.kind in ("function", "class")]
        for scope in scopes:
            found += [(file, s, parts[-1]) for s in owning_scopes(scope, parts[-1])]
    if not found:
        raise messages.NO_SUCH_NAME.in_file(
            name=old,
            hint=perhaps(old, [n for f in files for n, s in f.scope.symbols.items() if s.kinds]).removeprefix("; ")
            or "write file::name, file::function.local or file::Class.member",
        )
    defined = [(f, s, n) for f, s, n in found if (x := s.symbols.get(n)) is None or x.kinds != {"import"}]
    found = defined if len(defined) == 1 else found  # the others import it
    if len(found) > 1:
        places = ", ".join(f"{f.path}:{f.shown(s.start) if s is not f.scope else 1}" for f, s, _ in found[:3])
        raise messages.AMBIGUOUS_NAME.in_file(name=old, places=places)
    return found[0]


def owning_scopes(scope: Scope, name: str) -> list[Scope]:
    """The scopes that own a name: this one, or blocks in it."""
    symbol = scope.symbols.get(name)
    if (symbol is not None and symbol.kinds) or (scope.kind == "class" and scope.function is None):
        return [scope]
    return [s for c in scope.children if c.kind in ("block", "comprehension") for s in owning_scopes(c, name)]


class Renamer:
    """Collects the edits of one rename, in every file that has a use."""

    def __init__(self, program: Program, outsiders: Program | None, old: str, new: str) -> None:
        self.program, self.outsiders = program, outsiders
        self.language: Language = program.language
        self.old, self.new = old, new
        self.out = Edits()
        self.seen: set[Symbol] = set()

    # -- a name of a scope ---------------------------------------------------------------------

    def symbol(self, file: SourceFile, symbol: Symbol) -> None:
        """A variable, function, class, local or parameter."""
        if symbol in self.seen:
            return
        self.seen.add(symbol)
        self.clash(file, symbol)
        self.possible(file, symbol)
        for ref in symbol.references:
            text = file.slice(ref.start, ref.end)
            if text != self.old and not text.endswith("." + self.old):
                raise messages.WRITTEN_OTHERWISE.at(file, ref.start, name=self.old)
            if shadowed(ref.scope, self.new, symbol.scope):
                raise messages.MEANS_ELSE.at(file, ref.start, name=self.new)
            head = text[: -len(self.old)]  # the class that holds it, where the language lets one say so
            self.out.replace(file.path, ref.start, ref.end, head + self.language.write.use(ref, self.new))
        for d in symbol.declarations:
            if d.start not in {r.start for r in symbol.references}:
                self.out.replace(file.path, d.start, d.end, self.new)
        if "parameter" in symbol.kinds or any(r.form == "parameter" for r in symbol.references):
            self.keywords(file, symbol)
        if "class" in symbol.kinds:
            for f in file.functions:  # a constructor that is called like its class
                if (
                    f.name == self.language.write.CONSTRUCTOR
                    and f.outer.name == self.old
                    and file.slice(f.name_start, f.name_end) == self.old
                ):
                    self.out.replace(file.path, f.name_start, f.name_end, self.new)
        if symbol.scope is file.scope:
            self.elsewhere(file, symbol)

    def possible(self, file: SourceFile, symbol: Symbol) -> None:
        """Raises Refusal where the name is reached by its text, or is not ours to change."""
        top = symbol.scope is file.scope
        if (
            symbol.name in self.language.introspective
            or symbol.name in self.language.reserved
            or self.language.write.inherited(symbol.name)
        ):
            raise messages.LANGUAGE_READS.in_file(file.path, name=symbol.name)
        for ref in symbol.references:
            if ref.form == "spelled":
                raise messages.SPELLED_OUT.at(file, ref.start, name=symbol.name)
        if not top:
            for ref in by_text(file, self.language, symbol.scope.start, symbol.scope.end):
                raise messages.NAMES_BY_TEXT.at(file, ref.start, call=ref.name, name=symbol.name)
            return
        for h in hazards(self.program, file.path, self.outsiders):
            if h.kind == "dynamic names" or (h.kind == "used outside" and self.beyond(file, h.names, h.path)):
                raise h.refusal("change that first, or keep the name")

    def beyond(self, file: SourceFile, names: tuple[str, ...], path: str) -> bool:
        """Whether a use outside concerns the name, and is none that can be rewritten."""
        if names and self.old not in names:
            return False
        if names and path == file.path and (spelled := self.language.offered_words(file, self.old)):
            for start, end in spelled:
                self.out.replace(file.path, start, end, self.new)
            return False
        return not names or path == file.path or not self.language.renames_imports

    def clash(self, file: SourceFile, symbol: Symbol) -> None:
        """Raises Refusal if the new name means something already where the old one is known."""
        if self.new in self.language.builtins:
            raise messages.NAME_OF_BUILT_IN.in_file(file.path, name=self.new)
        other = symbol.scope.symbols.get(self.new)
        if other is not None and (other.kinds or other.references):
            at = min((r.start for r in other.references), default=symbol.scope.start)
            raise messages.NAME_IN_USE.at(file, at, name=self.new)
        scope = symbol.scope
        for ref in file.within(scope.start, scope.end) if scope is not file.scope else ():
            if ref.name == self.new and ref.symbol is not None and not ref.symbol.scope.within(scope):
                raise messages.MEANS_ELSE.at(file, ref.start, name=self.new)

    def keywords(self, file: SourceFile, symbol: Symbol) -> None:
        """Arguments that are given by the parameter's name."""
        function = symbol.scope.function
        for other in [*self.program.files.values(), *(self.outsiders.files.values() if self.outsiders else ())]:
            for call in other.calls:
                for a in self.language.arguments(other, call):
                    if a.keyword in ("**", self.old) and function is not None:
                        self.keyword(file, symbol, other, call.callee, a.keyword, a.start)

    def keyword(
        self, file: SourceFile, symbol: Symbol, other: SourceFile, callee: Reference, word: str, at: int
    ) -> None:
        function = symbol.scope.function
        assert function is not None
        mine = other is file and not callee.member and callee.symbol is function.symbol
        called = callee.member or callee.name
        defined = [f for o in self.program.files.values() for f in o.functions if f.name == called]
        known = (
            not callee.member and callee.symbol is not None and callee.symbol.kinds & {"function", "class"} and not mine
        )
        if mine and word == self.old:
            self.out.replace(other.path, at, at + len(self.old.encode(other.encoding)), self.new)
        elif mine or (word == self.old and not known and (called == function.name or not defined)):
            what = (
                "arguments are passed by names that are not written here"
                if word == "**"
                else f"'{self.old}' is given by name, and it cannot be told to what"
            )
            if (
                other.path not in self.program.files
                or called == function.name
                or function.symbol in Effects(file, self.language).escaped
            ):
                raise messages.CALL_BY_HAND.at(other, at, why=what)

    # -- other files -----------------------------------------------------------------------------

    def elsewhere(self, file: SourceFile, symbol: Symbol) -> None:
        """Uses in the files that import this one."""
        table: Importers = importers(self.program, self.outsiders)
        for other, local, module, name, line in table.get(self.language.write.module_of(file.path), ()):
            if other is file or not self.language.means(other.path, module, name, file.path):
                continue
            if name == self.old:
                self.writable(other, line)
                self.imported(other, local, line)
            elif not name or name == self.language.write.module_of(file.path):
                self.by_module(other, local)

    def writable(self, other: SourceFile, line: int) -> None:
        if other.path not in self.program.files:
            raise messages.USED_BY_FILE.in_file(other.path, line, name=self.old, path=other.path)

    def imported(self, other: SourceFile, local: str, line: int) -> None:
        """``from this import old``: the import says the new name, and so does the rest of that file unless it has a
        name of its own for it."""
        if local == self.old:
            self.symbol(other, other.scope.symbols[local])
            return
        for s in other.imports:
            span = self.language.imported_word(other, s, self.old)
            if span is not None and other.line(s.start) == line:
                self.out.replace(other.path, *span, self.new)

    def by_module(self, other: SourceFile, local: str) -> None:
        """``import this``: uses as a member of it."""
        for m in members_named(other, self.language, self.old):
            if (
                not m.field
                and m.base is not None
                and m.base.name == local
                and m.base.symbol is not None
                and m.base.symbol.kinds == {"import"}
            ):
                self.writable(other, other.line(m.start))
                self.out.replace(other.path, m.start, m.end, self.new)

    # -- a member of a class ---------------------------------------------------------------------

    def member(self, file: SourceFile, scope: Scope) -> None:
        """A method or field: every use must be of an object whose class can be told."""
        self.member_possible(file, scope)
        uses = [(other, m) for other in self.all_files() for m in members_named(other, self.language, self.old)]
        mine = [(o, m) for o, m in uses if self.of_class(o, m, file, scope)]
        symbol = scope.symbols.get(self.old)
        if symbol is None and not mine:
            raise messages.NO_MEMBER.in_file(file.path, file.shown(scope.start), class_=scope.name, member=self.old)
        for other, m in uses:
            if (other, m) not in mine and not self.of_other(other, m, file, scope):
                raise messages.WHOSE_MEMBER.at(other, m.start, member=self.old)
        taken = [
            (o, m.start)
            for o in self.all_files()
            for m in members_named(o, self.language, self.new)
            if self.of_class(o, m, file, scope)
        ]
        if taken or self.new in scope.symbols:
            at = taken[0] if taken else (file, scope.start)
            raise messages.MEMBER_TAKEN.at(*at, class_=scope.name, name=self.new)
        for other, m in mine:
            self.writable(other, other.line(m.start))
            self.out.replace(other.path, m.start, m.end, self.new)
        self.bringing(file, scope)
        done = {m.start for o, m in mine if o is file}
        for f in file.functions:
            if f.outer is scope and f.name == self.old and f.name_start not in done:
                done.add(f.name_start)
                self.out.replace(file.path, f.name_start, f.name_end, self.new)
        for r in symbol.references if symbol is not None else ():
            if r.start not in done:
                if shadowed(r.scope, self.new, scope):
                    raise messages.MEANS_ELSE.at(file, r.start, name=self.new)
                self.out.replace(file.path, r.start, r.end, self.language.write.use(r, self.new))

    def bringing(self, file: SourceFile, scope: Scope) -> None:
        """The constructor's parameter that brings a field is called like it, where no caller says its name."""
        made = next(
            (s for s in scope.children if s.kind == "function" and s.name == self.language.write.CONSTRUCTOR), None
        )
        symbol = made.symbols.get(self.old) if made is not None else None
        if made is None or symbol is None or "parameter" not in symbol.kinds or self.new in made.symbols:
            return
        said = [
            a
            for o in self.all_files()
            for c in o.calls
            for a in self.language.arguments(o, c)
            if a.keyword in (self.old, "**")
        ]
        if (
            not said
            and not any(shadowed(r.scope, self.new, made) for r in symbol.references)
            and self.new not in made.used
        ):
            self.seen.add(symbol)
            for ref in symbol.references:
                self.out.replace(file.path, ref.start, ref.end, self.language.write.use(ref, self.new))

    def all_files(self) -> list[SourceFile]:
        return [*self.program.files.values(), *(self.outsiders.files.values() if self.outsiders else ())]

    def member_possible(self, file: SourceFile, scope: Scope) -> None:
        if (
            self.language.write.inherited(self.old)
            or self.language.write.inherited(self.new)
            or self.old.startswith("__")
        ):
            raise messages.LANGUAGE_READS_EITHER.in_file(file.path, file.shown(scope.start), old=self.old, new=self.new)
        heirs = [(o, s) for o in self.all_files() for s, base in o.inheriting if base == scope.name]
        if scope.bases or heirs:
            other, heir = (heirs or [(file, scope)])[0]
            raise messages.CLASS_HAS_BASE.at(other, heir.start, class_=scope.name)
        if "__slots__" in scope.symbols:
            raise messages.LISTS_MEMBERS.at(file, scope.start, class_=scope.name)
        reaching = {"getattr", "setattr", "hasattr", "delattr", "vars", "attrgetter", "methodcaller", "__dict__"}
        for other in self.all_files():
            for r in other.references:
                if r.name in reaching or r.member in reaching:
                    raise messages.MEMBERS_BY_TEXT.at(other, r.start, name=r.member or r.name)

    @cached_property
    def objects(self) -> ObjectClasses:
        return ObjectClasses(self.program, self.outsiders)

    def of_class(self, other: SourceFile, m: MemberNamed, file: SourceFile, scope: Scope) -> bool:
        """Whether what a member is taken from is an object of the class, or the class itself."""
        ref = m.base
        if ref is None or ref.symbol is None:
            return False
        if self.objects.of(other, ref, m.field) == (file.path, scope.name):
            return True
        if m.field:
            return False
        if self.objects.class_named(other, ref.symbol) == (file.path, scope.name):
            return True
        if other is not file:
            return False
        if ref.name == receiver_of(ref.scope, scope) and ref.scope.within(scope):
            return True
        typed = self.language.typed and "class" not in ref.symbol.kinds
        return typed and self.language.regions.declared_as(file, ref.symbol)[1] == scope.name

    def of_other(self, other: SourceFile, m: MemberNamed, file: SourceFile, scope: Scope) -> bool:
        """Whether what a member is taken from is surely no object of the class."""
        ref = m.base
        if ref is None or ref.symbol is None:
            return False
        held = self.objects.of(other, ref, m.field)
        if held is not None:
            return held != (file.path, scope.name)
        if m.field:
            return False
        inside = [s for s, _ in other.classes if ref.scope.within(s)]
        kind = (
            self.language.regions.declared_as(other, ref.symbol)[1]
            if self.language.typed and "class" not in ref.symbol.kinds
            else ""
        )
        if kind and not any(kind == n for _, n in other.inheriting):
            return True  # of another type, as it is declared
        own = any(ref.name == receiver_of(ref.scope, s) and not s.bases for s in inside)
        defined = self.objects.origin(other, ref.symbol)
        return own or (defined[1] if defined else ref.symbol).kinds in ({"import"}, {"class"}, {"function"})


def words_of(old: str) -> list[str]:
    """The words of which a file says one that may use what is renamed, or extend its class."""
    return old.rpartition("::")[2].split(".")[-2:]


def ask_rename(program: Program, old: str, new: str) -> Asked:
    return Asked(Rename(old, new, outsiders=read_neighbours(program, words_of(old))), renamed=(old, new))


def ask_hide(program: Program, member: str) -> Asked:
    class_, dot, name = member.partition(".")
    path, language = home_of(program, class_), program.language
    whole = class_with_uses(program.files[path], language, class_) if dot else None
    hidden = language.write.hidden(name)
    if whole is None or name not in {*whole.fields, *(f.name for f in whole.methods)}:
        raise messages.NO_MEMBER_NAMED.in_file(name=member)
    if hidden == name:
        raise messages.HIDDEN_BY_A_WORD.in_file(language=language.name)
    trouble = language.members.outside(program.files[path], whole, {name}) if language.members is not None else None
    if trouble is not None:
        raise messages.USED_OUTSIDE_IT.at(program.files[path], trouble[1], why=trouble[0])
    return Asked(Rename(member, hidden, outsiders=read_neighbours(program, [class_])))


class Renames(Rewrite[Rename]):
    """The renames of a design."""

    by_hand = (
        HandCommand(
            "rename",
            ("OLD", "NEW"),
            "A new name, wherever the old one is used.",
            """Call OLD by the name NEW, wherever it is used in the scripts at PATHS; their designs follow.

            OLD is a name, function.local, Class.member or a file; write file.py::name where several files have it.
            Only the scripts
            named are changed. Without --yes the change is shown and you are asked.""",
            "rename tram1_x first_x tramline.py",
            "Renamed",
            ask_rename,
        ),
        HandCommand(
            "hide",
            ("CLASS.MEMBER",),
            "A member that only its class uses is hidden.",
            "Give a field or method the name that hides it, wherever it is used; refused if anything outside its "
            "class uses it.",
            "hide Log.lines log_book.py",
            "Hidden",
            ask_hide,
        ),
    )

    def requests(self, state: State) -> Iterator[Rename]:
        wanted = state.design.renames
        outsiders = (
            read_neighbours(state.program, [w for r in wanted for w in words_of(str(r.old))]) if wanted else None
        )
        for r in wanted:
            yield Rename(str(r.old), r.new, outsiders=outsiders)

    def design_after(self, state: State, step: Rename, after: Program | None) -> Design:
        if after is None:
            return state.design
        return followed_design(state.design, state.program, after, step.old, step.new)

    def check(self, check: DesignCheck) -> None:
        for index, r in enumerate(check.design.renames):
            line = check.lines.of("rename", index)
            if str(r.old) in check.program.texts:
                check.report(line, mistakes.RENAMES_A_FILE, name=r.old)
            elif not check.write.is_name(r.new):
                check.report(line, mistakes.NO_NAME, name=r.new)
            elif not r.old.holder and check.file_of(r.old) is None:
                check.absent(line, r.old)
