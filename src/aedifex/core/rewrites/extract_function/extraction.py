"""Lines, or one expression, made a function of its own: what changes in the text. Used by the draft and by the step."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from ...analysis.dataflow import Symbols
from ...analysis.regions.insertion_point import Ground
from ...analysis.regions.interface import Interface, interface, state_names
from ...analysis.regions.region import Region, region_of
from ...analysis.regions.repeats import is_there, repeats
from ...analysis.variable_kinds import constants_of
from ...program.edits import Range
from ...program.language import Language
from ...program.line_ranges import Place
from ...program.model import Function, NewFunction, SourceFile, Symbol
from ...program.scopes import shadowed
from .. import messages


class Lifter:
    """One lift. Raises Refusal.

    ``types``: of variables that are handed over and whose type is not written; ``several``: what comes of it stands for
    the same lines of other objects too, so that the remark above stays with the call; ``others``: the other files of
    the program, whose classes may inherit from one here.
    """

    def __init__(
        self,
        language: Language,
        place: Place,
        name: str,
        named: frozenset[str],
        several: bool = False,
        types: Mapping[str, str] | None = None,
        others: Sequence[SourceFile] = (),
    ) -> None:
        self.language, self.write, self.regions, self.name = language, language.write, language.regions, name
        self.file = place.file
        found = region_of(place.file, language, place.start, place.end)
        if found is None:
            raise messages.CUT_IN_TWO.at(self.file, place.start)  # fmt: skip
        self.region, self.several, self.types, self.others = found, several, dict(types or {}), others
        own = {s for s in self.file.scope.symbols.values() if s.name in named}
        self.named: Symbols = state_names(found) | own
        self.unit = self.write.indent_unit(self.file)
        self.out: list[Range] = []
        self.made = Interface()

    def edits(self) -> list[Range]:
        made = self.made = self.checked(self.region)
        self.check_name()
        self.out.append((self.target(), self.target(), self.text(made)))
        self.call(self.region, made)
        for other in repeats(self.region) if not self.region.staying else []:
            theirs = interface(other, state_names(other) | self.named)
            if theirs.trouble is None and same_interface(made, theirs) and self.sees(other):
                self.call(other, theirs)
        return self.out

    def checked(self, region: Region) -> Interface:
        if not self.write.is_name(self.name):
            raise messages.NO_NAME.at(self.file, region.start, name=self.name)
        first = self.write.line_start(self.file, region.start)
        if region.statements and self.file.text[first : region.start].strip():
            raise messages.BEGIN_IN_LINE.at(self.file, region.start)
        rest = self.write.trailing_comment(self.file, region.end)
        behind = self.file.slice(region.end, self.write.line_end(self.file, region.end))
        if region.statements and behind.strip() and not rest:
            raise messages.END_IN_LINE.at(self.file, region.end)
        if region.function is None and not self.language.code_at_top:
            raise messages.LINES_DECLARE.at(self.file, region.start)
        if region.beside.trouble:
            raise messages.CANNOT_BE_EXTRACTED.at(self.file, region.start, why=region.beside.trouble)
        made = interface(region, self.named)
        if made.trouble is not None:
            raise messages.CANNOT_BE_EXTRACTED.at(self.file, made.trouble[1], why=made.trouble[0])
        if made.leaves == "break" and made.gives:
            names = ", ".join(s.name for s in made.gives)
            raise messages.LINES_END_LOOP.at(self.file, region.start, names=names)
        if len(made.gives) > 1 and (trouble := self.regions.several_results(self.file, region.start, made.declares)):
            raise messages.CANNOT_BE_EXTRACTED.at(self.file, region.start, why=trouble)
        self.check_types(region, made)
        return made

    def check_types(self, region: Region, made: Interface) -> None:
        """Where types are written, they must be known."""
        if self.typed():
            unknown = [s.name for s in [*made.takes, *made.gives] if not self.type_of(s)]
            if unknown:
                raise messages.TYPE_NOT_WRITTEN.at(self.file, region.start, name=unknown[0])
        if (
            made.leaves == "return"
            and self.language.typed
            and region.function is not None
            and not self.returns(region.function)
        ):
            raise messages.RESULT_TYPE_UNKNOWN.at(self.file, region.start)

    def type_of(self, s: Symbol) -> str:
        told = self.types.get(s.name, "")
        return str(
            self.regions.declared_as(self.file, s)[1]
            or (told if self.typed() and told in self.file.scope.symbols else "")
        )

    def typed(self) -> bool:
        return self.language.typed or self.write.typed(self.file)

    def returns(self, f: Function) -> str:
        """The type of what a function gives; that of a function written in place is told only where it gives
        nothing."""
        kind = self.regions.result_type(self.file, f)
        if not kind and not f.name and all(self.regions.returns_nothing(self.file, at) for at in self.region.returns()):
            return self.regions.NOTHING
        return kind

    def check_name(self) -> None:
        if self.ground.site is not None:
            taken = any(r.name == self.name for r in self.file.references) or any(
                self.name in s.symbols for s in self.file.scope.walk()
            )
        else:
            taken = any(self.name in s.symbols for s in (self.region.frame, self.ground.scope))
        if (
            self.in_class()
        ):  # a field of that name, or a member of a class that inherits from this one or passes its own on
            files = [self.file, *self.others]
            taken = taken or any(
                r.member == self.name and not (r.symbol is not None and r.symbol.kinds == {"import"})
                for f in files
                for r in f.references
            )
            taken = taken or any(self.name in s.symbols for f in files for s, _ in f.classes)
        if taken or (not self.in_class() and self.name in self.language.builtins):
            raise messages.NAME_IN_USE.at(self.file, self.region.start, name=self.name)

    @property
    def ground(self) -> Ground:
        return self.region.ground

    def in_class(self) -> bool:
        """Whether what stands around the lines makes them a method."""
        return self.ground.home is not None and self.ground.scope.kind == "class"

    def sees(self, other: Region) -> bool:
        """Whether the function can be called from another place."""
        if nested(self.region) or nested(other):
            return other.frame is self.region.frame
        if self.in_class():
            return (
                other.ground.scope is self.ground.scope
                and other.beside.words == self.region.beside.words
                and not other.beside.trouble
            )
        if self.language.bare_members and other.ground.scope is not self.ground.scope:
            return False  # a class there may have inherited a method of that name
        return not shadowed(other.frame, self.name, self.file.scope) and is_there(self.region, other, self.target())

    # -- the function ----------------------------------------------------------------------------

    def target(self) -> int:
        """Where the new function goes: above the main code that calls it, below a function that does, and those that
        this calls before."""
        home, site = self.ground.home, self.ground.site
        if home is not None:
            return int(self.write.line_end(self.file, self.met_before(home).end - 1))
        if site is not None:
            return int(self.write.comment_start(self.file, site.start))
        first = next(s for s in self.file.statements if s.start <= self.region.start < s.end)
        constants = constants_of(self.file, self.language)
        for s in reversed([s for s in self.file.statements if s.start < first.start]):
            if s.kind in ("import", "function", "class", "docstring") or (
                s.target is not None and s.target.symbol in constants
            ):
                break
            first = s
        return int(self.write.comment_start(self.file, first.start))

    def met_before(self, f: Function) -> Function:
        """The last of the functions right below ``f`` that it calls before the lines, in that order; ``f`` if there is
        none."""
        last, at = f, f.body_start
        below = sorted(
            (g for g in self.file.functions if g.outer is f.outer and g.start >= f.end), key=lambda g: g.start
        )
        for g in below:
            if self.file.slice(last.end, self.write.comment_start(self.file, g.start)).strip(" \t\r\n;"):
                break
            met = [r.start for r in self.file.within(at, self.region.start) if (r.member or r.name) == g.name]
            if not met:
                break
            last, at = g, met[0]
        return last

    def text(self, made: Interface) -> str:
        write = self.write
        lead, inner = self.leads()
        body, last = self.body(made, inner)
        params = [(s.name, self.type_of(s)) for s in made.takes]
        sets, around = ([s.name for s in row] for row in (made.sets, made.around))
        new = NewFunction(
            self.name, params, body, last, self.result(made), sets, around, self.region.function, self.ground.home
        )
        text = self.regions.lifted(self.file, lead, self.unit, new)
        gap = "\n" * (1 if new.method else write.BLANKS)
        nl = write.newline(self.file)
        if self.ground.site is not None:
            above = self.file.text[: self.target()].rstrip(b" \t")
            apart = above.endswith((b"\n\n", b"\r\n\r\n", b"{\n", b":\n", b"{\r\n", b":\r\n"))
            return str(write.with_newlines(("" if apart else "\n") + text + "\n", nl))
        if self.ground.home is not None:
            fresh = "" if self.file.text[: self.target()].endswith(b"\n") else "\n"
            return str(write.with_newlines(fresh + gap + text, nl))
        above = self.file.text[: self.target()]
        blank = len(above) - len(above.rstrip(b"\r\n")) - 1 if above.strip() else write.BLANKS
        return str(write.with_newlines("\n" * max(0, write.BLANKS - blank) + text + gap, nl))

    def result(self, made: Interface) -> str:
        """The type of what the function gives, where types are written; "" for none."""
        if not self.region.statements:
            return str(self.regions.result_of(self.file, self.region.start, self.region.end))
        if not self.typed():
            return ""
        if made.leaves == "break":
            return "boolean"
        if made.leaves == "return" and self.region.function is not None:
            return self.returns(self.region.function)
        return str(self.regions.declared_as(self.file, made.gives[0])[1]) if made.gives else ""

    def leads(self) -> tuple[str, str]:
        """How the function is led, and how its statements are."""
        at = self.ground.home or self.ground.site
        lead = (
            self.file.slice(self.write.line_start(self.file, at.start), at.start)
            if at is not None
            else self.write.top_lead(self.file, self.unit)
        )
        return lead, lead + self.unit

    def body(self, made: Interface, inner: str) -> tuple[str, str]:
        """The statements, and the one that gives back what is wanted."""
        region, write = self.region, self.write
        if not region.statements:
            span = self.file.slice(region.start, region.end)
            wrapped = span if "\n" not in span or span[0] in "([{" else f"({span})"
            return inner + self.ended([wrapped]), ""
        first = self.first(region)
        lead = self.file.slice(write.line_start(self.file, region.start), region.start)
        end = region.end + len(write.trailing_comment(self.file, region.end).encode(self.file.encoding))
        edits, last = self.ways(made)
        return write.shifted(self.file, first + len(lead.encode()), end, edits, lead, inner), last

    def first(self, region: Region) -> int:
        """Where the line starts from which on the text moves."""
        above = self.write.line_start if self.several or region is not self.region else self.write.comment_start
        return int(above(self.file, region.start))

    def ways(self, made: Interface) -> tuple[list[tuple[int, int, str]], str]:
        """Edits for the jumps out of the lines, and the last statement."""
        results = [s.name for s in made.gives]
        spans = [(at, at + len(made.leaves)) for kind, at in self.region.jumps() if kind != "return"]
        stay = [edit for arm in self.region.staying for edit in arm.without]
        if made.leaves == "break":
            edits = [(a, b, self.regions.give_back([self.regions.LEAVES])) for a, b in spans]
            return [*edits, *stay], self.ended([self.regions.GOES_ON])
        edits = [*((a, b, self.regions.give_back(results)) for a, b in spans), *stay]
        s = self.region.statements[-1]
        if (
            len(results) == 1
            and s.kind == "assign"
            and s.target is not None
            and s.value is not None
            and s.group is None
        ):
            typed = s.annotation is not None and not self.language.declares
            if s.target.symbol is made.gives[0] and s.value[0] < s.value[1] and not typed:
                return [*edits, (s.start, s.value[0], self.regions.give_back([""]) + " ")], ""
        return edits, self.ended(results) if results else ""

    def ended(self, values: list[str]) -> str:
        return str(self.regions.ended(self.file, self.regions.give_back(values)))

    # -- the call --------------------------------------------------------------------------------

    def call(self, region: Region, made: Interface) -> None:
        write, through = self.write, region.beside.through if self.in_class() else ""
        arguments = ", ".join(s.name for s in made.takes)
        text = f"{write.member(through, self.name) if through else self.name}({arguments})"
        if not region.statements:
            self.out.append((region.start, region.end, text))
            return
        first = self.first(region)
        lead = self.file.slice(write.line_start(self.file, region.start), region.start)
        end = region.end + len(write.trailing_comment(self.file, region.end).encode(self.file.encoding))
        words = [self.regions.declared_as(self.file, s)[0] for s in made.gives]
        word = self.regions.word_for(self.file, words) if made.declares else ""
        empty = (
            made.leaves == "return"
            and region.function is not None
            and self.language.typed
            and self.returns(region.function) == self.regions.NOTHING
        )
        statement = self.regions.take_back(
            self.file, [s.name for s in made.gives], text, self.unit, lead, "" if empty else made.leaves, word
        )
        if empty and not region.falls_through():
            statement += f"\n{lead}{self.ended([])}"
        statement = (
            "".join(
                self.regions.leave_first(self.file.slice(*arm.test), lead, self.unit, "break") for arm in region.staying
            )
            + statement
        )
        self.out.append((first, end, lead + write.with_newlines(statement, write.newline(self.file))))


def nested(region: Region) -> bool:
    """Whether lines stand in a function that is no method, and not at the top."""
    return region.function is not None and region.function is not region.ground.home


def same_interface(made: Interface, other: Interface) -> bool:
    """Whether a second place is served by the function of the first."""

    def names(symbols: Iterable[Symbol]) -> list[str]:
        return [s.name for s in symbols]

    return (names(made.takes), names(made.gives), names(made.sets), names(made.around), made.leaves) == (
        names(other.takes), names(other.gives), names(other.sets), names(other.around), other.leaves)  # fmt: skip
