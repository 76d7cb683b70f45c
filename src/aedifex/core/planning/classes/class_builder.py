"""Which functions become methods of a class, with which parameters dropped and passed in."""

from __future__ import annotations

from bisect import bisect_right
from functools import cached_property

from ...analysis.construction import Founding, Start, plan_construction
from ...analysis.families import Family
from ...analysis.late_reads import read_after, rebound
from ...analysis.startup import running
from ...design.origin import Origin
from ...design.tables import ClassDesign, FieldDesign, MethodDesign, ObjectDesign
from ...naming.attributes import CONFIGURING, SPEEDS
from ...naming.identifiers import like
from ...naming.verbs import turned
from ...program.model import Call, Function, Symbol
from .candidates import Fit, Link, Need
from .facts import FileFacts, origin_in
from .names import short_names

CELLS = frozenset({"row", "col", "column"})
STILL = ("0", "0.0", "0f", "0.0f", "(0, 0)", "[0, 0]")  # a speed at which every thing begins


class ClassBuilder:
    """Works out the members of one class; ``rows``: for each object the variables of its fields."""

    def __init__(self, facts: FileFacts, rows: list[list[Symbol | None]]) -> None:
        self.facts = facts
        self.file, self.language, self.write, self.effects = facts.file, facts.language, facts.write, facts.effects
        self.rows = rows
        self.mine = {s for row in rows for s in row if s is not None}

    # -- candidates ------------------------------------------------------------------------------

    def twins(self, family: Family) -> list[Fit]:
        usable = {f.symbol for f in self.facts.functions}
        return [Fit(list(row)) for row in family.twins if all(f.symbol in usable for f in row)]

    def known(self) -> list[Fit]:
        """Functions that only get to know the object through their arguments."""
        fits = []
        for f in self.facts.functions:
            if self.effects.direct(f.start, f.end).names & self.mine:
                continue
            drop = self.known_parameters(f)
            if drop:
                fits.append(Fit([f], drop))
        return fits

    def known_parameters(self, f: Function) -> dict[str, int]:
        """Parameters that at every call receive the same field, all of one object."""
        assert f.symbol is not None
        calls = list(self.file.calls_of(f.symbol))
        uses = [r for r in f.symbol.references if not r.writes]
        if not calls or len(calls) != len(uses):
            return {}
        found: dict[str, set[int]] = {}
        for call in calls:
            received = self.received(f, call)
            if received is None or len({i for i, _ in received.values()}) > 1:
                return {}
            for p in f.params:
                found.setdefault(p.name, set()).add(received[p.name][1] if p.name in received else -1)
        drop = {p: next(iter(fields)) for p, fields in found.items() if len(fields) == 1 and -1 not in fields}
        dropped = {row[i] for row in self.rows for i in drop.values()}
        written = self.effects.of(f).writes & (self.mine if len(self.rows) > 1 else dropped)
        if written or any(
            (r.writes and r.form != "parameter") or r.form == "spelled"
            for p in drop
            for r in f.scope.symbols[p].references
        ):
            return {}
        return {} if any(self.goes_stale(f, p, i) for p, i in drop.items()) else drop

    def goes_stale(self, f: Function, parameter: str, index: int) -> bool:
        """Whether what a function makes reads a parameter later, when the field of that index may hold something else
        than what was handed over."""
        symbols = [row[index] for row in self.rows if row[index] is not None]
        late = read_after(self.file, self.language, f.scope, f.scope.symbols[parameter])
        return late is not None and any(rebound(self.file, self.language, s) for s in symbols if s is not None)

    def received(self, f: Function, call: Call) -> dict[str, tuple[int, int]] | None:
        """Parameter → (object, field) for arguments that are plain variables of this class; None if unreadable."""
        args = self.language.arguments(self.file, call)
        if any(a.keyword in ("*", "**") for a in args) or any(p.kind in ("star", "doublestar") for p in f.params):
            return None
        found = {}
        for i, arg in enumerate(args):
            name = arg.keyword or (f.params[i].name if i < len(f.params) else "")
            refs = list(self.file.within(arg.value_start, arg.end))
            if len(refs) != 1 or (refs[0].start, refs[0].end) != (arg.value_start, arg.end):
                continue
            for o, row in enumerate(self.rows):
                if refs[0].symbol in row:
                    found[name] = (o, row.index(refs[0].symbol))
        return found

    # -- the design ------------------------------------------------------------------------------

    def build(self, name: str, role: str, fits: list[Fit], objects: list[ObjectDesign], stems: set[str]) -> ClassDesign:
        made = ClassDesign(name, role, objects=objects)
        first = [next(s for row in self.rows for s in [row[i]] if s is not None) for i in range(len(self.rows[0]))]
        founding = self.founding(fits, role)
        spans = sorted((f.start, f.end) for fit in fits for f in fit.functions)
        hidden_by = set(self.language.builtins) if self.language.bare_members else set()
        if self.language.joined:  # nothing there says that the sketch's own function is meant, and not the method
            own = {f.symbol for fit in fits for f in fit.functions}
            used = {r.symbol for fit in fits for f in fit.functions for r in self.file.within(f.start, f.end)}
            hidden_by |= {f.name for f in self.file.tops if f.symbol in used - own}
        short = short_names(self.facts, [s.name for s in first], stems, hidden_by)
        if len(self.rows) > 1:
            short = self.without_numbers(short)
        short = self.in_small_letters(short)
        configured = self.configured(first, founding) if role != "app" else set()
        configured = (configured | self.wished(founding, "arguments")) - self.wished(founding, "fixed")
        for i, s in enumerate(first):
            names = [row[i].name if row[i] is not None else "" for row in self.rows]  # type: ignore[union-attr]
            kind = "argument" if i in configured else founding.kind(i)
            hidden = role == "app" or self.only_inside(i, spans, founding.starts[0][i].statement)
            value = ""
            start = founding.starts[0][i]
            if kind in ("fixed", "derived") and start.statement is not None:
                value = self.file.slice(*start.value)
            made.fields.append(
                FieldDesign(
                    short[s.name],
                    self.qualified(names),
                    kind,
                    value,
                    self.facts.kinds[s].type if kind == "later" or self.language.typed else "",
                    False,
                    hidden,
                )
            )
        arguments = [i for i in range(len(first)) if i in configured or founding.kind(i) == "argument"]
        arguments.sort(key=lambda i: founding.starts[0][i].value[0])
        for index, obj in enumerate(objects):
            obj.args = [self.file.slice(*founding.starts[index][i].value) for i in arguments]
        hide = self.write.hidden
        taken = {hide(f.name) if f.hidden else f.name for f in made.fields}
        shorter = self.method_names(fits, stems, taken, hidden_by)
        for fit in self.in_order(fits):
            origins = self.qualified([f.name for f in fit.functions])
            add = [{"name": s.name, "value": s.name} for s in fit.add]
            made.methods.append(MethodDesign(shorter[fit.functions[0].name], origins, [], list(fit.drop), add))
            if fit.drop:
                made.why.append(f"{fit.functions[0].name} receives {', '.join(fit.drop)} of one object at every call")
            self.reason(made, shorter[fit.functions[0].name], fit.add)
            if fit.reach:
                made.why.append(
                    f"{fit.functions[0].name}: {fit.reach}; it uses that by its name, so the class stays in this file"
                )
        return made

    def configured(self, first: list[Symbol], founding: Founding) -> set[int]:
        """The fields of an only object that a second one would have of its own: where it is, how it looks, how fast it
        goes."""
        if len(self.rows) != 1 or len(first) < 2:
            return set()
        found = set()
        for i, s in enumerate(first):
            start = founding.starts[0][i]
            if founding.kind(i) not in ("fixed", "derived") or start.statement is None or start.statement.value is None:
                continue
            last = self.write.words(s.name)[-1].rstrip("0123456789")
            own = any(r.symbol in self.mine for r in self.file.within(*start.value))
            if not self.file.slice(*start.value).strip():
                continue  # it is declared, and set later
            resting = last in SPEEDS and self.file.slice(*start.value).strip() in STILL
            beside = {self.write.words(x.name)[-1] for x in first if x is not s}
            alone = last in CELLS and not beside & CELLS  # a row without a column is no place
            if last in CONFIGURING and not own and not resting and not alone:
                found.add(i)
        return found

    def wished(self, founding: Founding, key: str) -> set[int]:
        """The fields that a person wants as ``key``, where their first values are at hand when the object is made."""
        names = {n.local for w in self.facts.task.wishes for n in getattr(w, key) if n.of_file(self.file.path)}
        return {
            i
            for i in range(len(self.rows[0]))
            if names & {row[i].name for row in self.rows if row[i] is not None}  # type: ignore[union-attr]
            and all(start.statement is not None and start.statement.value for start in self.starts_of(founding, i))
        }

    def starts_of(self, founding: Founding, index: int) -> list[Start]:
        """Where the objects that have a field get its first value from."""
        return [starts[index] for row, starts in zip(self.rows, founding.starts, strict=True) if row[index] is not None]

    def method_names(self, fits: list[Fit], stems: set[str], taken: set[str], hidden_by: set[str]) -> dict[str, str]:
        """What each function is called as a method. ``taken``: by fields."""
        shorter = short_names(self.facts, [fit.functions[0].name for fit in fits], stems, taken | hidden_by)
        for fit in fits:
            name = fit.functions[0].name
            bare = shorter[name].rstrip("0123456789").rstrip("_")
            if len(fit.functions) > 1 and self.write.is_name(bare) and bare not in {*shorter.values(), *taken}:
                shorter[name] = bare  # the number told the twins apart
            elif shorter[name].endswith("_") and (verb := self.with_verb(fit.functions[0], bare)) not in {
                *shorter.values(),
                *taken,
            }:
                shorter[name] = verb
        return shorter

    def with_verb(self, f: Function, noun: str) -> str:
        """A name for a function that is called like a field which it changes."""
        body = [s for s in self.language.body(self.file, f) if s.kind in ("assign", "if")]
        toggles = any(turned(self.language.tokens(self.file, s.start, s.end, []), ("not", "!")) for s in body)
        return str(self.write.member_name(["toggle" if toggles else "change", *self.write.words(noun)], f.name))

    def reason(self, made: ClassDesign, method: str, needs: list[Need]) -> None:
        """Why something is handed to a method."""
        changing = [n.name for n in needs if isinstance(n, Symbol) and rebound(self.file, self.language, n)]
        once = [n.name for n in needs if isinstance(n, Symbol) and n.name not in changing]
        objects = [n.name for n in needs if isinstance(n, Link)]
        for names, said in (
            (changing, "changes elsewhere while the program runs"),
            (once, "is set once, and is not its own"),
        ):
            made.why += [f"{name} {said}, so {method} is passed it at each call" for name in names]
        if objects:
            made.why.append(
                f"{method} works with {as_sentence(objects)}, so it is passed "
                f"{'it' if len(objects) == 1 else 'them'} at each call"
            )

    def without_numbers(self, short: dict[str, str]) -> dict[str, str]:
        """Fields of numbered copies: the number told the objects apart."""
        bare = {name: found.rstrip("0123456789").rstrip("_") or found for name, found in short.items()}
        plain = len(set(bare.values())) == len(bare) and all(self.write.is_name(b) for b in bare.values())
        return bare if plain else short

    def in_small_letters(self, short: dict[str, str]) -> dict[str, str]:
        """Fields are written as fields are, also where a variable was written as constants are."""
        small = {n: self.write.member_name(self.write.words(s), like(self.file)) for n, s in short.items()}
        builtins, is_name = self.language.builtins, self.write.is_name
        plain = {n for n, x in small.items() if is_name(x) and x not in builtins and x not in self.file.scope.symbols}
        loud = {n for n, s in short.items() if not any(c.islower() for c in s) and len(s) > 1}
        kept = {n: small[n] if n in plain & loud else s for n, s in short.items()}
        return kept if len(set(kept.values())) == len(kept) else short

    def founding(self, fits: list[Fit], role: str) -> Founding:
        """Where the objects are made and their values come from."""
        methods = {f.symbol for fit in fits for f in fit.functions if f.symbol is not None}
        return plan_construction(
            self.file, self.effects, self.language, self.rows, methods, set(self.facts.constants), role == "app"
        )

    def only_inside(self, index: int, spans: list[tuple[int, int]], first: object) -> bool:
        """Whether nobody but the class's own functions touches the field after its start."""
        for row in self.rows:
            s = row[index]
            for ref in s.references if s is not None else ():
                start = getattr(first, "start", -1)
                at_start = start >= 0 and id(ref) in self.first_targets
                handed_back = ref.start in self.handed_back
                if not at_start and not handed_back and not inside(spans, ref.start):
                    return False
        return True

    @cached_property
    def first_targets(self) -> set[int]:
        return {id(s.target) for s in running(self.file, self.language) if s.target is not None}

    @cached_property
    def handed_back(self) -> set[int]:
        """Where a field is only an argument that a method is going to know by itself."""
        found: set[int] = set()
        for f in self.facts.functions if len(self.rows) > 1 else ():
            if f.symbol is not None and self.known_parameters(f):
                for c in self.file.calls_of(f.symbol):
                    found |= {r.start for r in self.file.within(c.args_start, c.args_end)}
        return found

    def qualified(self, names: list[str]) -> list[Origin]:
        """With the file where more than one is read; nothing where a name is ""."""
        return [origin_in(self.facts.program, self.file, n) if n else Origin() for n in names]

    def in_order(self, fits: list[Fit]) -> list[Fit]:
        return sorted(fits, key=lambda fit: fit.functions[0].start)


def inside(spans: list[tuple[int, int]], offset: int) -> bool:
    """Whether an offset lies in one of the sorted, disjoint spans."""
    at = bisect_right(spans, (offset, 1 << 62)) - 1
    return at >= 0 and offset < spans[at][1]


def as_sentence(names: list[str]) -> str:
    """Names as in a sentence."""
    return " and ".join([", ".join(names[:-1]), names[-1]]) if len(names) > 1 else names[0]
