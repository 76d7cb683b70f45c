"""The things that a program's variables are of, told by all that speaks of them: names, functions, headings, and lines
that work on several at once.

x = 60                                def draw_tram(): ... x, y, livery ...
livery = RED                →         the tram's are x, y and livery, and doors_open, which draw_tram reads too

A noun of the program is a thing: what functions are named after, what several variables begin with, what stands above a
paragraph of first values. Each variable is its whose evidence weighs most.
"""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, field
from functools import cached_property

from ...analysis.concerns import Concerns
from ...analysis.effects import Effects
from ...analysis.groups import first_word
from ...analysis.handlers import main_statements
from ...analysis.regions.region import all_blocks, further
from ...analysis.same_arguments import same_arguments
from ...analysis.variable_kinds import classify, of_console
from ...naming.attributes import CONFIGURING, PLACES
from ...naming.identifiers import VERBS, file_stem
from ...naming.inflection import singular
from ...naming.verbs import remark_words
from ...program.language import Language
from ...program.model import Call, Function, Reference, SourceFile, Statement, Symbol
from ..clustering.grouping import joined

# What each kind of evidence counts. Judged by a person on programs of beginners: a name is the author's own word,
# a function named after a thing works on that thing, a heading is often for more than one, and lines that use several
# variables at once only say that they belong together.
STEM, READER, HEADING, TOGETHER = 4.0, 3.0, 2.0, 1.0
ENOUGH = 1.0  # evidence from which a variable is a thing's
LEAD = 1.25  # how much more the strongest must weigh than the next
MIN_VARIABLES = 3  # variables of a thing of which no two names begin alike
SHORT_LOOP = 20  # lines of a loop that is about one thing
ROUNDS = 4
PARTICIPLE = re.compile(r"\w*[aeiouy]\w*ing|\w*[aeiouy]\w+ed")  # going and hopped, but no ring and no reed
STEERING = re.compile(r"\bK_|[kK]ey")  # what a condition that asks for a key says
TALLY = "tally"  # what a program counts
PLAYER = "player"  # what keys steer, where nobody says what it is
PLAIN = ("assign", "augment", "expression")
SHARED = 0.3  # share of the lines over one of two unnamed things that are over both, from which they are one
HOLDING = frozenset({"dict", "list", "set", "array", "object", "ArrayList", "List", "Map", "HashMap"})  # types of what
# keeps many things
BROAD = frozenset(
    """
    screen window display game app program everything all stuff background input event events key keys text message
    messages menu frame frames loop main state data info value values result results line lines list lists number
    score scores level levels lives stats mouse button scene view picture pictures image images sound sounds music
    time timer clock step steps turn turns position positions object objects item items thing things variable variables
    settings setting setup config constant constants color colors colour colours font fonts function functions
    """.split()
)  # words that name no thing of a program
NO_NOUNS = frozenset(
    """
    is has can may must not max min num last next new old cur current left right top bottom up down start end my your
    our their temp tmp total count first second prev previous default walk hop fly swim climb shoot hit attack bounce
    spin slide crawl kick throw catch drop pick use all any each big small no non
    """.split()
)  # first words of names that say how, where or what is done
OF_THE_GAME = frozenset(
    """
    score points level lives life over won win lost running playing paused pause done quit finished active highscore
    hiscore turn round gameover
    """.split()
)  # what is the whole program's


@dataclass
class Support:
    """What speaks for a variable being a thing's: by noun, each reason with its weight."""

    weights: dict[str, float] = field(default_factory=lambda: defaultdict(float))
    reasons: dict[str, list[str]] = field(default_factory=lambda: defaultdict(list))

    def copy(self) -> Support:
        return Support(defaultdict(float, self.weights), defaultdict(list, {n: [*r] for n, r in self.reasons.items()}))

    def add(self, noun: str, weight: float, reason: str = "") -> None:
        self.weights[noun] += weight
        if reason and reason not in self.reasons[noun]:
            self.reasons[noun].append(reason)

    @property
    def best(self) -> str:
        """The noun that outweighs the others; "" if none does."""
        rows = sorted(self.weights.items(), key=lambda e: (-e[1], e[0]))
        if not rows or rows[0][1] < ENOUGH:
            return ""
        return rows[0][0] if len(rows) == 1 or rows[0][1] >= rows[1][1] * LEAD else ""


@dataclass(frozen=True)
class EvidentThing:
    """``noun``: what it is called; ``symbols``: its variables, in the order of the source; ``why``: what speaks for
    it."""

    noun: str
    symbols: tuple[Symbol, ...]
    why: tuple[str, ...]


def evident_things(
    file: SourceFile, language: Language, free: Sequence[Symbol], passing: AbstractSet[Symbol] = frozenset()
) -> list[EvidentThing]:
    """The things of a file's main code, with their variables. ``free``: variables that may become fields; ``passing``:
    those that each turn makes anew."""
    return Gathering(file, language, free, passing).things()


class Gathering:
    """Collects what speaks for each variable."""

    def __init__(
        self, file: SourceFile, language: Language, free: Sequence[Symbol], passing: AbstractSet[Symbol] = frozenset()
    ) -> None:
        self.passing = passing
        self.file, self.language, self.write = file, language, language.write
        self.effects = Effects(file, language)
        self.kinds = classify(file, language)
        self.whole = [s for s in free if s in self.kinds and s not in passing]
        self.free = [s for s in free if s in self.kinds and not self.whole_programs(s)]
        self.found: dict[Symbol, Support] = {s: Support() for s in self.free}
        self.readers: dict[str, list[Function]] = defaultdict(list)
        self.handed: dict[Function, set[Symbol]] = {}

    def whole_programs(self, s: Symbol) -> bool:
        """Whether a variable is no single thing's: a device, a constant in capitals, a flag that ends the loop, a
        score."""
        kind = self.kinds[s]
        words = self.write.words(s.name)
        if s in self.passing or (kind.first is not None and of_console(self.file, self.language, kind.first)):
            return True
        if s.name.isupper() or (kind.nature == "constant" and not self.plain(s)):
            return True
        if kind.nature == "companion" and not self.plain(s) and self.does_things(s):
            return True
        return bool(set(words) & OF_THE_GAME) or self.ends_loop(s)

    def does_things(self, s: Symbol) -> bool:
        """Whether a variable is for doing something with: its methods are called for what they do, or it is drawn
        on."""
        for r in s.references:
            if r.member and (r.start in self.about.found or r.start in self.opaque):
                return True
            if any(
                c.callee.start in self.about.found and self.drawn_on(c, r)
                for c in self.file.calls
                if c.args_start <= r.start < c.args_end
            ):
                return True
        return False

    def drawn_on(self, call: Call, ref: Reference) -> bool:
        """Whether a call draws on the first thing that it is handed."""
        first = self.file.slice(call.args_start, ref.start).strip(" (")
        return not first and self.about.found[call.callee.start] == "drawing"

    @cached_property
    def about(self) -> Concerns:
        return Concerns(self.file, self.language, self.effects)

    @cached_property
    def opaque(self) -> set[int]:
        """Where something is called of which nothing is known."""
        return set(self.file.opaque_calls)

    def plain(self, s: Symbol) -> bool:
        """Whether its first value is plain data: nothing is called for it that does something."""
        first = self.kinds[s].first
        if first is None or first.value is None:
            return False
        start, end = first.value
        others = any(start <= at < end for at in [*self.file.opaque_calls, *self.file.quiet_calls])
        calls = others or any(True for _ in self.file.calls_within(start, end))
        purity = self.language.purity(self.file, first.value)
        return not calls or purity == "literal" or (purity != "effect" and self.kinds[s].nature == "state")

    def ends_loop(self, s: Symbol) -> bool:
        """Whether a loop of the main code goes on as long as a variable says so."""
        loops = [x for x in self.main if x.kind == "while"]
        heads = [(x.start, b.start) for x in loops for b in self.language.regions.blocks(self.file, x)[:1]]
        return any(a <= r.start < b for r in s.references for a, b in heads)

    @cached_property
    def main(self) -> list[Statement]:
        """The main code; where there is none, what the surroundings call by its name."""
        if not self.language.joined:
            return main_statements(self.file, self.effects, self.language)
        return [s for f in self.called for s in self.language.body(self.file, f)]

    @cached_property
    def called(self) -> list[Function]:
        """The functions that the surroundings call by their names."""
        hooks = self.language.hooks(self.file)
        return [f for f in self.file.tops if f.name in hooks]

    def things(self) -> list[EvidentThing]:
        """What the variables are of that main code works on; where nothing runs by itself, functions tell them."""
        if all(s.kind in ("assign", "expression") and s.target is not None for s in self.main):
            return []
        self.by_stems()
        self.by_holders()
        self.by_functions()
        self.by_headings()
        self.join_unnamed()
        self.together()
        members: dict[str, list[Symbol]] = defaultdict(list)
        for s in self.free:
            if (noun := self.found[s].best) and (self.kinds[s].nature != "constant" or self.its_own(s, noun)):
                members[noun].append(s)
        found = [self.thing(noun, symbols) for noun, symbols in members.items() if self.enough(noun, symbols)]
        found += self.tallies([s for t in found for s in t.symbols])
        return [t for t in found if t.noun]

    def its_own(self, s: Symbol, noun: str) -> bool:
        """Whether what never changes is a thing's all the same: it says where that is or how it looks, or functions
        named after it use it."""
        read = any(s in self.touched(f) for f in self.readers.get(noun, ()))
        return read or self.write.words(s.name)[-1] in CONFIGURING

    def thing(self, noun: str, symbols: Sequence[Symbol]) -> EvidentThing:
        reasons = Counter(why for s in symbols for why in self.found[s].reasons[noun])
        called = noun if not self.unnamed(noun) else PLAYER if self.steered(symbols) else ""
        return EvidentThing(called, tuple(symbols), tuple(why for why, _ in reasons.most_common(3)))

    def tallies(self, taken: Sequence[Symbol]) -> list[EvidentThing]:
        """Numbers that begin at nothing and that the branches of the main loop count up together: what the program
        counts."""
        counters = [s for s in self.whole if s not in taken and self.counts(s)]
        rows = []
        for s, block in all_blocks(self.file, self.language, self.main):
            talks = any(True for _ in self.about.direct(block.start, block.end))
            if s.kind in ("if", "match") and block.statements and not talks and not further(block):
                used = {r.symbol for r in self.file.within(block.start, block.end) if r.writes}
                rows.append([x for x in counters if x in used])
        groups = [g for g in joined(counters, [r for r in rows if len(r) > 1]) if len(g) >= MIN_VARIABLES]
        stem = singular(self.write.words(file_stem(self.write.module_of(self.file.path)))[0])
        words = [w for w in self.write.words(file_stem(self.write.module_of(self.file.path))) if w not in BROAD]
        if len(groups) != 1 or not words:
            return []
        return [EvidentThing(f"{stem}_{TALLY}", tuple(groups[0]), ("the same branches count them",))]

    def counts(self, s: Symbol) -> bool:
        """Whether a variable begins at nothing and is counted up in a loop."""
        first = self.kinds[s].first
        nothing = first is not None and first.value is not None and self.file.slice(*first.value) in ("0", "0.0")
        return nothing and self.kinds[s].in_loop

    def steered(self, symbols: Sequence[Symbol]) -> bool:
        """Whether what keys bring about sets some of these."""
        for s, block in all_blocks(self.file, self.language, self.main):
            if s.kind == "if" and STEERING.search(self.file.slice(s.start, block.start)):
                if any(r.symbol in symbols and r.writes for r in self.file.within(block.start, block.end)):
                    return True
        return False

    def enough(self, noun: str, symbols: Sequence[Symbol]) -> bool:
        """Whether these are a thing: several variables that change, or two that begin alike."""
        sure = [s for s in symbols if self.told_apart(s, noun)]
        holds = any(self.holds_many(s) for s in sure)
        if len(sure) < (1 if holds else 2) or len(sure) * 3 < len(symbols):
            return False
        changing = [s for s in symbols if self.kinds[s].nature != "constant"]
        alike = [s for s in symbols if first_word(s.name, self.write.words) == noun]
        if self.readers.get(noun) and len(symbols) >= MIN_VARIABLES:
            return bool(changing)
        return len(changing) >= MIN_VARIABLES or (len(changing) > 1 and (len(alike) > 1 or holds))

    def told_apart(self, s: Symbol, noun: str) -> bool:
        """Whether more than lines in common says that a variable is a thing's."""
        return self.found[s].weights.get(noun, 0.0) > TOGETHER * 2

    def by_stems(self) -> None:
        """Variables whose names begin with the same word, or with a noun of the program."""
        firsts = {s: first_word(s.name, self.write.words) for s in self.free}
        counts = Counter(w for w in firsts.values() if w)
        for s, word in firsts.items():
            if word and counts[word] > 1 and word not in BROAD:
                self.found[s].add(singular(word), STEM, f"their names begin with {word}")

    def unnamed(self, noun: str) -> bool:
        """Whether a word of names is none for a thing."""
        return noun in NO_NOUNS or noun in VERBS or PARTICIPLE.fullmatch(noun) is not None

    def join_unnamed(self) -> None:
        """What the same lines work on is one, where nobody says what its parts are."""
        rows: dict[str, list[int]] = defaultdict(list)
        mine = {s: e.best for s, e in self.found.items()}
        for i, (start, end) in enumerate(self.smallest()):
            for noun in {mine[r.symbol] for r in self.file.within(start, end) if r.symbol in mine}:
                rows[noun].append(i)
        holders = {singular(self.write.words(s.name)[0]) for s in self.free if self.holds_many(s)}
        loose = [n for n in rows if n and self.unnamed(n)]
        points = [n for n in rows if n and n not in loose and self.is_point(n, mine)]
        pairs = [(a, b) for i, a in enumerate(loose) for b in loose[i + 1 :]]
        pairs += [(a, b) for a in rows if a in holders for b in points if a != b]
        for a, b in pairs:
            both, least = len({*rows[a]} & {*rows[b]}), min(len(rows[a]), len(rows[b]))
            if both and both >= SHARED * least:
                for e in self.found.values():
                    if b in e.weights:
                        e.weights[a] = max(e.weights.get(a, 0.0), e.weights.pop(b))
                        e.reasons[a] += e.reasons.pop(b, [])
                rows[a] = sorted({*rows[a], *rows[b]})
                rows[b] = []

    def is_point(self, noun: str, mine: Mapping[Symbol, str]) -> bool:
        """Whether all that is called so is a place: where something else is."""
        words = [self.write.words(s.name) for s, n in mine.items() if n == noun]
        return bool(words) and all(w[-1] in PLACES and len(w) == 2 for w in words)

    def by_holders(self) -> None:
        """Variables that are called as one that holds many things, with a word before that: the grid, and the next
        grid."""
        for s in self.free:
            words = self.write.words(s.name)
            if len(words) != 1 or words[0] in BROAD or words[0] in VERBS or not self.holds_many(s):
                continue
            noun = singular(words[0])
            told = {x: self.write.words(x.name) for x in self.free if x is not s}
            alike = [x for x, w in told.items() if w[-1:] == words or (len(w) > 1 and w[0] == noun)]
            for x in [s, *alike] if alike or self.language.joined else []:
                self.found[x].add(noun, STEM, f"{s.name} holds what it is made of")

    def holds_many(self, s: Symbol) -> bool:
        """Whether a variable is a list or an array."""
        kind = self.kinds[s].type
        return kind in HOLDING or kind.partition("<")[0] in HOLDING or kind.endswith("[]")

    def by_functions(self) -> None:
        """Variables that functions use which are named after a thing."""
        for f in [f for f in self.file.tops if f not in self.called]:
            noun = self.noun_of(f)
            if noun and any(s in self.touched(f) for s in self.free):
                self.readers[noun].append(f)
        self.join_parts()
        for noun, functions in self.readers.items():
            for f in functions:
                for s in [s for s in self.free if s in self.touched(f)]:
                    others = sum(s in self.touched(g) for n, rows in self.readers.items() if n != noun for g in rows)
                    self.found[s].add(noun, READER / (len(functions) * (1 + others)), f"{f.name} works on them")

    def join_parts(self) -> None:
        """A thing whose functions work on some of what those of another one work on is a part of that."""
        sets = {n: {s for s in self.free for f in rows if s in self.touched(f)} for n, rows in self.readers.items()}
        for part in sorted(sets, key=lambda n: (len(sets[n]), n)):
            whole = next((n for n in sets if n in self.readers and sets[part] < sets[n]), "")
            if whole and len(sets[part]) > 1:
                self.readers[whole] += self.readers.pop(part)

    def touched(self, f: Function) -> set[Symbol]:
        """The variables that a function uses, or is handed at each of its calls."""
        if f not in self.handed:
            self.handed[f] = set(same_arguments(self.file, self.language, f).values())
        return self.effects.direct(f.start, f.end).names | self.handed[f]

    def noun_of(self, f: Function) -> str:
        """The thing that a function is named after: what follows the verb; "" if it is named after none."""
        words = [w.rstrip("0123456789") for w in self.write.words(f.name)]
        after = words[1:] if words and words[0] in VERBS else []
        nouns = [singular(w) for w in after if len(w) > 2 and w not in VERBS and w not in BROAD]
        return nouns[0] if nouns and nouns[0] not in BROAD else ""

    def by_headings(self) -> None:
        """Variables that get their first values in one paragraph under a remark that names a thing."""
        nouns = {n for e in self.found.values() for n in e.weights}
        for said, row in self.paragraphs():
            spoken = [singular(w) for w in said]
            named = next((w for w in spoken if w in nouns), "")
            alone = [w for w in spoken if w not in BROAD and w not in VERBS]
            noun = named or (alone[0] if len(alone) == 1 and len(row) >= MIN_VARIABLES else "")
            for s in row if noun else []:
                self.found[s].add(noun, HEADING, f"they stand under '{' '.join(said)}'")

    def paragraphs(self) -> Iterator[tuple[list[str], list[Symbol]]]:
        """The words above each paragraph of first values, and the variables that get them there."""
        said: list[str] = []
        row: list[Symbol] = []
        last = -1
        for s in self.main:
            symbol = s.target.symbol if s.target is not None else None
            line = self.file.line(self.write.comment_start(self.file, s.start))
            if line > last + 1 or symbol not in self.found or self.write.comment_start(self.file, s.start) < s.start:
                yield said, row
                said, row = remark_words(self.file, s.start, self.write), []
            if symbol in self.found and symbol is not None:
                row.append(symbol)
            last = self.file.line(s.end - 1)
        yield said, row

    def together(self) -> None:
        """Variables that lines of the main code use together with those of a thing, and with those, and so on."""
        rows = [
            {r.symbol for r in self.file.within(start, end) if r.symbol in self.found} for start, end in self.smallest()
        ]
        alone = {s: e.copy() for s, e in self.found.items()}
        for _ in range(ROUNDS):
            sure = {s: e.best for s, e in self.found.items()}
            for s in self.free:
                beside = [
                    {sure[x] for x in used if x is not s and x is not None and sure[x]} for used in rows if s in used
                ]
                counts = Counter(noun for nouns in beside for noun in nouns)
                self.found[s] = alone[s].copy()
                if self.kinds[s].nature == "companion" and any(r.mutates for r in s.references):
                    continue  # a list that several fill is told by more than that
                for noun, count in counts.items():
                    weight = TOGETHER * 2 * count / max(1, len(beside))
                    self.found[s].add(noun, weight, "lines use them together")

    def smallest(self) -> Iterator[tuple[int, int]]:
        """The innermost blocks of the main code and of functions that are named after nothing, and their plain
        statements."""
        body = [s for s in self.main if s.kind not in ("function", "class")]
        functions = [f for f in self.file.tops if not self.noun_of(f) and f not in self.called]
        rows = [body, *(self.language.body(self.file, f) for f in functions)]
        for row in rows:
            yield from self.plain_spans(row)
            for s, block in all_blocks(self.file, self.language, row):
                chained = self.language.regions.blocks(self.file, s)
                at = next((i for i, b in enumerate(chained) if b.start == block.start), 0)
                head = s.start if not at else chained[at - 1].end
                simple = all(x.kind in PLAIN for x in block.statements)
                if s.kind in ("if", "while") and simple:  # what a branch asks for and what it does
                    yield head, block.end
                else:
                    yield from self.plain_spans(block.statements)

    def plain_spans(self, row: Sequence[Statement]) -> Iterator[tuple[int, int]]:
        firsts = {id(k.first) for k in self.kinds.values() if k.first is not None}
        for s in row:
            if s.kind in PLAIN and id(s) not in firsts:
                yield s.start, s.end
