"""What to call lines that become a function: after the remark above them, the key or command that leads to them, or
what they set."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from itertools import pairwise

from ..analysis.regions.region import Region, chain
from ..program.code_text import starts_remark
from ..program.facets.text import Text
from ..program.model import SourceFile
from .attributes import PLACES, SPEEDS
from .identifiers import VERBS
from .inflection import singular

ARTICLES = frozenset(
    """
    the a an its their this that to of on in at by with from for and or all each every now then one
    """.split()
)
STATES = frozenset("open closed shut on off active enabled visible shown hidden up down lit".split())
NOUN_AHEAD = frozenset("a an the its their his her my our your this these that".split())
NO_VERBS = frozenset(
    "not no if when while here there only some any it we you each every all both".split()
)  # what says what is done does not begin so
FURTHER = frozenset(
    """
    over under of with into onto from for to by at in on off through around until while when if so but and or than
    before after because since as unless without between against depending accordingly
    """.split()
)  # what follows these says more of what is done
COMMAND = re.compile(r"""==\s*['"]([A-Za-z]\w*)['"]|equals\(['"]([A-Za-z]\w*)['"]\)""")
KEY = re.compile(r"\bK_(\w+)|[kK]ey\w*\W+(?:\w+\W+)?['\"](\w+)['\"]")
WAYS = ("left", "right", "up", "down")
Spoken = Mapping[str, Sequence[str]]  # variables of one object → the words that say what they are
MAX_WORDS = 3  # words of a name
LIMITED = re.compile(
    r"[a-z_]\w*(?:\[\w+\])?(<|>|<=|>=)[(]?-?(\d[\d.]*|[A-Z][A-Z_0-9]*|width|height)([-+*/]\w+)?[)]?", re.ASCII
)


def remark(file: SourceFile, region: Region, write: Text, nouns: bool = True) -> list[str]:
    """The words of the remark above lines, if they are few and say what is done: right above, or set apart by one blank
    line as a heading is. What comes after a comma, a colon, or a word such as "over" says more than a name needs.

    ``nouns``: also those of what is only named there ("the row").
    """
    start = write.comment_start(file, region.start)
    text = file.slice(start, region.start)
    if not text.strip():
        text = heading(file, start)
    lines = [line.strip().lstrip("#/* ").rstrip("*/ .:") for line in text.split("\n") if line.strip()]
    clause = re.split(r"[,:;(]| - ", lines[0])[0].strip() if len(lines) == 1 else ""
    if not re.fullmatch(r"[A-Za-z][A-Za-z' -]*", clause) or clause.split()[0].lower() in NO_VERBS:
        return []
    if not nouns and clause.split()[0].lower() in NOUN_AHEAD:
        return []
    said = [
        x.lower()
        for w in re.findall(r"[A-Za-z]+", clause)
        for x in (write.words(w) if re.search("[a-z][A-Z]", w) else [w])
    ]
    if said[1:2] == ["of"]:
        return []
    said[0] = plain_verb(said[0])
    cut = next((i for i, w in enumerate(said) if i and w in FURTHER), len(said))
    found = [w for w in said[:cut] if w not in ARTICLES]
    return found if 1 <= len(found) <= MAX_WORDS else []


def plain_verb(word: str) -> str:
    """A verb of this list that stands with "ing", without it: "moving" is "move"."""
    bases = [word.removesuffix("ing"), word.removesuffix("ing") + "e"] if word.endswith("ing") else []
    return next((b for b in bases if b in VERBS), word)


def command_asked(region: Region) -> str:
    """The text that the condition of a branch around lines compares with; "" if it compares with none."""
    asked = COMMAND.search(condition_around(region))
    return (asked[1] or asked[2]).lower() if asked is not None else ""


def key_asked(region: Region) -> str:
    """The key, in small letters, that a branch around lines is for; "" if it is for none."""
    asked = KEY.search(condition_around(region))
    return (asked[1] or asked[2]).lower() if asked is not None else ""


def condition_around(region: Region) -> str:
    """The condition of the branch in which lines stand; "" if they stand in none."""
    s = region.around[-1] if region.around else None
    if s is None or s.kind not in ("if", "match"):
        return ""
    blocks = region.language.regions.blocks(region.file, s)
    at = next((i for i, b in enumerate(blocks) if b.start <= region.start < b.end), -1)
    return region.file.slice(blocks[at - 1].end if at else s.start, blocks[at].start) if at >= 0 else ""


def remark_words(file: SourceFile, at: int, write: Text) -> list[str]:
    """The words of the remark right above a place, in small letters, without articles."""
    text = file.slice(write.comment_start(file, at), at)
    return [w for x in re.findall(r"[A-Za-z]+", text) if (w := x.lower()) not in ARTICLES]


def heading(file: SourceFile, at: int) -> str:
    """A remark on a line of its own with a blank line above and below it, or at the head of its block; "" if none
    stands above a place."""
    last = file.line(at) - 1  # lines above it
    if last < 3:
        return ""
    before, said, blank = (file.slice(a, b).rstrip() for a, b in pairwise(file.lines[last - 3 : last + 1]))
    if blank or not starts_remark(file, file.lines[last - 2], said):
        return ""
    return said if not before or before.endswith((":", "{")) else ""


def verb(region: Region, own: Spoken, sets: Sequence[str], stem: str, write: Text) -> list[str]:
    """Words for statements that change what one object holds. ``own``: what that is called, in words; ``sets``: what is
    changed, in order."""
    file, language = region.file, region.language
    if said := remark(file, region, write, nouns=False):
        return said
    texts = [language.tokens(file, s.start, s.end, []) for s in region.statements]
    set_ = list(dict.fromkeys(sets))
    last = [own[n][-1].rstrip("0123456789") or own[n][-1] for n in set_]
    flat = [t for row in texts for t in row]
    if len(set_) == 1 and len(texts) == 1 and turned(flat, ("not", "!")):
        words = [w for w in own[set_[0]] if (w.rstrip("0123456789") or w) != stem]
        return ["toggle", *(words[:-1] if len(words) > 1 and words[-1] in STATES else words)]
    if len(set_) == 1 and len(texts) == 1 and turned(flat, ("-",)):
        return ["reverse", *last]
    grown = re.search(r"(\w+) \. (?:append|add|push) \(", " ".join(flat))
    if grown is not None and grown[1] in own:
        return ["add", singular(own[grown[1]][-1])]
    if (subject := handed_key(region, own, set_)) is not None:
        return subject
    if stem.endswith("tally") and (word := command_asked(region)):
        return ["add", *write.words(word)]
    if (key := key_asked(region)) in WAYS:
        moved = any(w in PLACES or w in SPEEDS for n in set_ for w in own[n])
        return ["move" if moved else "turn", key]
    if way := way_moved(region, last, flat):
        return ["move", way]
    plain = all(
        s.kind == "assign" and s.value is not None and language.purity(file, s.value) == "literal"
        for s in region.statements
    )
    if plain and len(set_) > 1 and len(texts) > 1:
        return ["reset"]
    if any(w in SPEEDS for n in set(own) & set(flat) for w in own[n]) or (set_ and set(last) <= {"x", "y"}):
        return ["move"]
    if len(set_) == 1 and ("+=" in flat) != ("-=" in flat):
        return ["raise" if "+=" in flat else "lower", *last]
    return ["update", *last[:1]] if len(set_) == 1 else ["update"]


def way_moved(region: Region, sets: Sequence[str], tokens: Sequence[str]) -> str:
    """Where a branch for a key or a command moves something across: by the sign of what is added to its place; "" if
    that does not tell. Down is no sign of its own: some pictures count from below."""
    if not (key_asked(region) or command_asked(region)) or list(sets) != ["x"]:
        return ""
    return "right" if "+=" in tokens and "-=" not in tokens else "left" if "-=" in tokens and "+=" not in tokens else ""


def turned(tokens: Sequence[str], signs: Sequence[str]) -> bool:
    """Whether a statement gives something the opposite of what it has."""
    if "=" not in tokens:
        return False
    at = list(tokens).index("=")
    left, right = list(tokens[:at]), [t for t in tokens[at + 1 :] if t != ";"]
    return right[:1] in [[s] for s in signs] and right[1:] == left


def handed_key(region: Region, own: Spoken, sets: Sequence[str]) -> list[str] | None:
    """Words for a row of branches that look at one thing that is handed over: it is handled; steering, where only
    speeds are set."""
    file, s = region.file, region.statements[0]
    blocks = chain(file, region.language, s) if len(region.statements) == 1 else []
    if len(blocks) < 3:
        return None
    first = next(
        (
            r
            for r in file.within(s.start, blocks[0].start)
            if r.name not in own and r.symbol is not None and "variable" in r.symbol.kinds
        ),
        None,
    )
    if first is None:
        return None
    if sets and all(own[n][-1] in SPEEDS for n in sets):
        return ["steer"]
    return ["handle", *region.language.write.words(first.member or first.name)]


WORDS = {">": "over", ">=": "reaches", "<": "under", "<=": "within", "==": "is", "===": "is", "!=":
    "is_not", "!==": "is_not", "and": "and", "&&": "and", "or": "or", "||": "or", "not": "not", "!":
    "not", "in": "in"}  # fmt: skip


LIMITS = frozenset(["over", "under", "reaches", "within"])
NUMBER = re.compile(r"\d{1,3}")
JOINING = frozenset(["and", "or", "is", "in", "over", "under", "reaches", "within"])


def question(region: Region, own: Spoken, stem: str, write: Text) -> list[str]:
    """Words for a condition, read aloud without long numbers and what is handed to it; none if that would be long."""
    used = {r.name for r in region.file.within(region.start, region.end)} & set(own)
    if used and {own[n][-1] for n in used} <= {"x", "y"} and b"==" in region.file.text[region.start : region.end]:
        return ["is", "at"]
    if words := bounds(region):
        return words
    found: list[str] = []
    for token in region.language.tokens(region.file, region.start, region.end, []):
        if token in WORDS:
            found += WORDS[token].split("_")
        elif token in own:
            found += [b for w in own[token] if (b := w.rstrip("0123456789") or w) != stem]
        elif NUMBER.fullmatch(token) and found and found[-1] in LIMITS:
            found.append(token)
    while found and found[0] in JOINING:
        found.pop(0)
    while found and found[-1] in JOINING:
        found.pop()
    return found if 1 < len(found) <= MAX_WORDS * 2 else []


def bounds(region: Region) -> list[str]:
    """Words for several comparisons with limits that do not change: all for being inside of them, any for being
    outside."""
    text = region.file.slice(region.start, region.end)
    parts = re.split(r"\bor\b|\|\|", text) if re.search(r"\bor\b|\|\|", text) else re.split(r"\band\b|&&", text)
    if len(parts) < 2 or not all(LIMITED.fullmatch("".join(p.split()).strip("()")) for p in parts):
        return []
    if re.search(r"\bor\b|\|\|", text):
        return ["is", "outside"]
    return ["is", "inside"] if "<" in text else []


def guarded_words(region: Region, stem: str, write: Text) -> list[str]:
    """Words for a long condition after what it lets be done first; none if it is no condition of a branch."""
    file, language = region.file, region.language
    s = region.around[-1]
    block = next((b for b in language.regions.blocks(file, s) if b.start >= region.end), None)
    if s.kind not in ("if", "while") or block is None or not block.statements:
        return []
    first = block.statements[0]
    call = next((c for c in file.calls_within(first.start, first.end) if c.callee.start == first.start), None)
    written = next((r.name for r in file.within(first.start, first.end) if r.writes or r.mutates), "")
    words = (
        write.words(call.callee.member or call.callee.name)
        if call is not None
        else ["change", *write.words(written)]
        if written
        else []
    )
    kept = [b for w in words if (b := w.rstrip("0123456789") or w) != stem]
    return ["may", *kept] if kept else []
