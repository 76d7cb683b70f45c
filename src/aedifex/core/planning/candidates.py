"""From variables and functions to the classes of one file: candidates, what belongs to them, which are worth it, their
names."""

from __future__ import annotations

from ..analysis.families import Family, families, near_twins
from ..analysis.groups import common_stems, first_word
from ..analysis.twins import TwinLiteral
from ..design.tables import ClassDesign, FieldDesign
from ..naming.identifiers import free
from ..naming.inflection import singular
from ..program.model import Symbol
from .class_builder import ClassBuilder
from .clustering.grouping import by_name, connected, group, serving, set_together
from .clustering.homes import homes
from .clustering.refine import refined
from .dependencies import AskedClass, Candidate, Fit, Settlement
from .file_plan import FilePlan


class Planner:
    """``lone``: there is no main code that an app could take over, so whatever functions share is worth more."""

    def __init__(self, assigner: FilePlan, asked: list[AskedClass], lone: bool) -> None:
        self.a, self.lone = assigner, lone
        self.whole = lone and assigner.idea == "use"  # every variable is to find a home, for no app takes what is left
        self.why_not: dict[str, str] = {}  # function → why it is no method
        self.effects, self.write = assigner.effects, assigner.write
        self.asked = [self.wished(a) for a in asked]
        self.families = self.copies()
        self.rest: list[Symbol] = []  # the variables that are grouped by their use
        self.parts: list[set[Symbol]] = []  # all their groups, also those that are worth no class
        self.groups = self.grouped()

    def classes(self) -> list[tuple[Candidate, ClassDesign]]:
        """The candidates that are worth a class, with their designs."""
        while bad := self.unworthy():
            for candidate in bad:
                if candidate.asked is not None:
                    self.asked.remove(candidate)
                elif candidate.family is not None:
                    self.families.remove(candidate)
                    self.give_back(candidate)
                else:
                    self.groups.remove(candidate)
            if any(c.family is not None for c in bad):
                self.groups = self.grouped()
        for candidate in self.all:
            self.name(candidate)
        return [(c, self.build(c)) for c in self.all]

    @property
    def all(self) -> list[Candidate]:
        return [*self.asked, *self.families, *self.groups]

    # -- candidates ------------------------------------------------------------------------------

    def wished(self, asked: AskedClass) -> Candidate:
        """What a person wants in one class; numbered copies are objects of it."""
        for family in families(self.a.file, self.a.language, asked.variables, asked=True):
            if family.symbols == set(asked.variables):
                rows = [[row.get(n) for row in family.variables.values()] for n in family.numbers]
                return Candidate(rows, family, asked)
        return Candidate([list(asked.variables)], asked=asked)

    def copies(self) -> list[Candidate]:
        """Numbered copies; constants are one object's share of what they differ in."""
        if self.a.idea in ("app", "asked"):
            return []
        found: list[Candidate] = []
        taken = {s for c in self.asked for s in c.symbols}
        free = [
            s
            for s in [*self.a.variables, *self.a.numbered_constants()]
            if s not in taken and s.name not in self.a.streams
        ]
        for family in families(self.a.file, self.a.language, free):
            fixed = family.symbols & self.a.constants
            if fixed == family.symbols or family.symbols & taken:
                continue
            rows = [[row.get(n) for row in family.variables.values()] for n in family.numbers]
            freed = fixed | self.a.resting_on(fixed)
            self.a.constants -= freed
            self.a.variables += sorted(freed, key=lambda s: s.bindings[0].start)
            found.append(Candidate(rows, family, fixed=freed))
            taken |= family.symbols
        return found

    def give_back(self, candidate: Candidate) -> None:
        self.a.constants |= candidate.fixed
        self.a.variables = [s for s in self.a.variables if s not in candidate.fixed]

    def grouped(self) -> list[Candidate]:
        taken = {s for c in [*self.asked, *self.families] for s in c.symbols}
        self.rest = [
            s for s in self.a.variables if s not in taken and s.name not in self.a.streams
        ]  # the console is nobody's but the app's
        devices = {s for s in self.rest if self.device(s)}
        self.parts = [set(symbols) for symbols in self.divided(devices)]
        if self.whole:
            self.refine(devices)
        place = {s: i for i, s in enumerate(self.rest)}
        found = [sorted(symbols, key=lambda s: place[s]) for symbols in self.parts if len(symbols) >= 2]
        return [Candidate([list(symbols)]) for symbols in sorted(found, key=lambda symbols: place[symbols[0]])]

    def refine(self, devices: set[Symbol]) -> None:
        """Make the groups better; devices that serve several things stay on their own."""
        words, functions = self.write.words, self.a.functions
        stems = {v: first_word(v.name, words) for v in self.rest}
        touches = [self.effects.direct(f.start, f.end) for f in functions]
        used = set().union(*(t.names for t in touches)) - serving(devices, touches, stems)
        fixed = [c.symbols for c in [*self.asked, *self.families]]
        groups = [*fixed, *(part for part in self.parts if part <= used)]
        start = homes(groups, functions, self.effects, words)
        groups, _ = refined(groups, start, functions, self.effects, words, len(fixed))
        self.parts = [*(g for g in groups[len(fixed) :] if g), *(part for part in self.parts if not part <= used)]

    def divided(self, devices: set[Symbol]) -> list[list[Symbol]]:
        """The variables in groups, by the idea that the draft follows."""
        words, functions = self.write.words, self.a.functions
        if self.a.idea == "asked":
            return []
        if self.a.idea == "names":
            return by_name(self.rest, words)
        if self.a.idea in ("few", "app"):
            return connected(self.rest, functions, self.effects) if self.lone else []
        if self.a.idea == "many":
            writes = [self.effects.direct(f.start, f.end).writes - devices for f in functions]
            return set_together(self.rest, writes, {v: first_word(v.name, words) for v in self.rest})
        things = [[v for v in self.rest if v.name in names] for names in self.a.things]
        return group(self.rest, functions, self.effects, words, devices, things)

    def device(self, s: Symbol) -> bool:
        """Whether a variable is bound once, to something that is no plain data."""
        kind = self.a.kinds[s]
        value = kind.first.value if kind.first is not None else None
        effect = value is not None and self.a.language.purity(self.a.file, value) == "effect"
        return kind.nature == "companion" and effect

    def unworthy(self) -> list[Candidate]:
        """Give every candidate its functions; those that earn no class by them."""
        used: set[Symbol | None] = set()
        wanted = {s: c.symbols for c in self.asked if c.asked is not None for s in c.asked.functions}
        copied = [c for c in [*self.asked, *self.families] if c.family is not None]
        for candidate in copied:
            members = ClassBuilder(self.a, candidate.rows)
            assert candidate.family is not None
            fits = members.twins(candidate.family) + members.known()
            elsewhere = used | {s for s, symbols in wanted.items() if symbols != candidate.symbols}
            candidate.fits = [f for f in fits if not elsewhere & {g.symbol for g in f.functions}]
            used |= {f.symbol for fit in candidate.fits for f in fit.functions}
        free = [f for f in self.a.functions if f.symbol not in used]
        groups = [*(c.symbols for c in [*self.asked, *self.families]), *self.parts]
        home = homes(groups, free, self.effects, self.write.words)
        if self.whole and len(groups) > 1:
            home = refined(groups, home, free, self.effects, self.write.words, len(groups))[1]
        home |= {s: groups.index(symbols) for s, symbols in wanted.items()}
        mine: dict[frozenset[Symbol], list[Fit]] = {}
        for f in free:
            if f.symbol in home:
                mine.setdefault(frozenset(groups[home[f.symbol]]), []).append(Fit([f]))
        for candidate in self.all:
            if candidate.family is None:
                candidate.fits = mine.get(frozenset(candidate.symbols), [])
        settlement = Settlement(self.a, self.all, self.lone)
        settlement.settle()
        self.why_not = settlement.why_not | self.not_copied(wanted)
        return [c for c in self.all if not (self.sound(c) if c.asked else self.worth(c))]

    def not_copied(self, wanted: dict[Symbol, set[Symbol]]) -> dict[str, str]:
        """The functions that a person wants with several objects, and that are no methods of them."""
        several = [c for c in self.asked if c.family is not None]
        inside = {f.symbol for c in several for fit in c.fits for f in fit.functions}
        lost = [s for s, symbols in wanted.items() if s not in inside and any(c.symbols == symbols for c in several)]
        return {s.name: "it is not the same for each of the numbered objects" for s in lost}

    def worth(self, candidate: Candidate) -> bool:
        """A group earns a class if it has behaviour of its own, and is not simply everything there is."""
        if candidate.family is not None:
            return bool(candidate.fits) and self.sound(candidate)
        symbols, fits = candidate.symbols, candidate.fits
        sets = any(self.effects.of(f.functions[0]).writes & symbols for f in fits)
        if not sets and not (self.lone and self.shared_by(fits, symbols)):
            return False
        if self.lone:
            return (len(fits) >= 2 or not self.a.does_something()) and self.sound(candidate)
        stems = common_stems(candidate.rows[0], self.write.words)
        named = [s for s in symbols if first_word(s.name, self.write.words) in stems]
        together = any(symbols <= self.effects.direct(f.functions[0].start, f.functions[0].end).writes for f in fits)
        one = together or len(named) * 2 >= len(symbols)
        return one and len(fits) >= 2 and len(symbols) < len(self.rest) and self.sound(candidate)

    def shared_by(self, fits: list[Fit], symbols: set[Symbol]) -> bool:
        """Whether several functions read several of the variables, whoever sets them."""
        touches = [self.effects.direct(f.functions[0].start, f.functions[0].end).names & symbols for f in fits]
        return sum(len(t) > 1 for t in touches) > 1

    def sound(self, candidate: Candidate) -> bool:
        """Whether all first values can be given where the object is made, in a language that has no other place for
        them."""
        if self.a.language.code_at_top:
            return True
        members = ClassBuilder(self.a, candidate.rows)
        founding = members.founding(candidate.fits, "model")
        late = [i for i in range(len(candidate.rows[0])) if founding.kind(i) == "later"]
        if late:
            origin = next(row[late[0]] for row in candidate.rows if row[late[0]] is not None)
            assert origin is not None
            self.a.worked_out_between(candidate.symbols, origin.name)
        return not late

    # -- their designs ---------------------------------------------------------------------------

    def name(self, candidate: Candidate) -> None:
        functions = self.a.speaking([f.functions[0] for f in candidate.fits])
        asked = candidate.asked.name if candidate.asked is not None else ""
        if candidate.family is not None:
            stem = candidate.family.stem
            candidate.name = asked or self.a.class_name(
                [s.name for s in in_order(candidate)], [stem] if stem else functions
            )
            stem = stem or self.write.member_name(self.write.words(candidate.name), self.a.like())
            family = candidate.family
            wanted = [f"{stem}{n}" for n in family.numbers]
            if family.told is not None:
                wanted = [
                    self.write.member_name(family.told.label(n, stem if family.stem else ""), self.a.like())
                    for n in family.numbers
                ]
        else:
            symbols = in_order(candidate)
            candidate.name = asked or self.a.class_name([s.name for s in symbols], functions, self.a.holder(symbols))
            wanted = [self.write.member_name(self.write.words(candidate.name), self.a.like())]
        self.a.reserved.add(candidate.name)
        own = frozenset(
            s.name for s in candidate.symbols if wanted == [s.name] and only_there(s)
        )  # of several, none could take its place
        candidate.objects = self.a.object_names(wanted, own)

    def build(self, candidate: Candidate) -> ClassDesign:
        members = ClassBuilder(self.a, candidate.rows)
        functions = [f.functions[0].name for f in candidate.fits]
        family = candidate.family
        if family is not None:
            stems = {family.stem} if family.stem else {w.lower() for w in self.write.words(candidate.name)}
            stems |= set(family.told.told) if family.told is not None else set()
        else:
            own = {w.lower() for w in self.write.words(candidate.name)}
            stems = own | {singular(w) for w in own} | common_stems(candidate.rows[0], self.write.words)
        made = members.build(candidate.name, "model", candidate.fits, candidate.objects, stems)
        if family is not None:
            first, last = family.numbers[0], family.numbers[-1]
            row = len(family.numbers) > 2 and last - first + 1 == len(family.numbers)
            numbers = f"{first} to {last}" if row else " and ".join(map(str, family.numbers))
            words = f"{', '.join(p.rstrip('#') for p in family.variables)} with {numbers}"
            copies = ", ".join(f"{family.stem}{n}_*" for n in family.numbers) if family.stem else words
            if family.told is not None:
                copies = "for " + " and ".join(" ".join(family.label(n)) for n in family.numbers)
            twins = ", ".join(" and ".join(f.name for f in row) for row in family.twins[:3])
            made.why.insert(
                0,
                f"{len(family.symbols)} variables named {copies} are "
                f"{'numbered ' if family.told is None else ''}copies of {len(family.variables)}"
                + (f"; {twins} differ only in the {'number' if family.told is None else 'word'}" if twins else ""),
            )
        elif functions and candidate.asked is None:
            made.why.insert(
                0,
                self.used_together(candidate, functions),
            )
        if family is not None:
            self.literals(family, candidate, made)
            made.why += near_twins(self.a.file, family)
        if candidate.asked is not None:
            made.why.insert(0, "you asked for them together")
        self.role(candidate, made)
        return made

    def used_together(self, candidate: Candidate, functions: list[str]) -> str:
        """What the functions of a group have to do with its variables."""
        row = {s for s in candidate.rows[0] if s is not None}
        touched = [
            (fit.functions[0].name, self.effects.direct(fit.functions[0].start, fit.functions[0].end).names & row)
            for fit in candidate.fits
        ]
        same = [(name, mine) for name, mine in touched if len(mine) > 1]
        number = len(set().union(*(mine for _, mine in same)))
        if len(same) == 1:
            return f"{number} variables are used by {same[0][0]}"
        if same:
            return f"{number} variables are used by the same functions ({', '.join(name for name, _ in same[:6])})"
        return f"{', '.join(functions[:6])} work on {', '.join(s.name for s in candidate.rows[0] if s is not None)}"

    def role(self, candidate: Candidate, made: ClassDesign) -> None:
        """What kind of thing it is, and which lines do not go with that."""
        roles, functions = self.a.roles, [f for fit in candidate.fits for f in fit.functions]
        symbols = in_order(candidate)
        made.role = roles.role(functions, symbols, {s for s in symbols if self.device(s)})
        made.why += roles.broken(made, functions)

    def literals(self, family: Family, candidate: Candidate, made: ClassDesign) -> None:
        """Fields for the literals in which the twins differ."""
        spans = [(f.start, f.end) for fit in candidate.fits for f in fit.functions]
        merged: dict[tuple[str, ...], TwinLiteral] = {}
        for d in (d for found in family.differences.values() for d in found):
            if any(a <= d.places[0][0][0] < b for a, b in spans):
                merged.setdefault(tuple(d.texts), d)
        for texts, d in merged.items():
            words = [w for w in self.write.words(d.name) if w.rstrip("0123456789").lower() != family.stem]
            name = self.write.member_name(words or ["value"], self.a.like())
            if list(texts) == [str(n) for n in family.numbers]:
                name = "number"
            taken = {f.name for f in made.fields} | {m.name for m in made.methods}
            if name in taken:
                name = self.write.member_name([*self.write.words(name), "value"], self.a.like())
            made.fields.append(
                FieldDesign(
                    free(name, taken), [""] * len(texts), "argument", type=d.kind if self.a.language.typed else ""
                )
            )
            for obj, text in zip(candidate.objects, texts, strict=True):
                obj.args.append(text)
            made.why.append(
                f"{' and '.join(texts)} differ in functions that are alike otherwise, so each object has its own "
                f"{made.fields[-1].name}"
            )


def only_there(s: Symbol) -> bool:
    """Whether a name means just that variable, wherever it is said in the file."""
    return all(scope is s.scope or s.name not in scope.symbols for scope in s.scope.walk())


def in_order(candidate: Candidate) -> list[Symbol]:
    return [s for row in candidate.rows for s in row if s is not None]
