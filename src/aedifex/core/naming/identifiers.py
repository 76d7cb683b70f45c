"""Names for classes, members, objects and files: no redundant stems, no clashes."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable
from collections.abc import Set as AbstractSet
from itertools import takewhile

from ..program.facets.text import Text
from ..program.model import SourceFile

VERBS = frozenset(
    """
    get set draw move update show print load save open close make create init start run reset add remove handle
    do check read write calc compute find is has on play render new next toggle process build parse display setup
    refresh tick step spawn fire jump send push pull sell buy pay count search sort filter validate convert format
    encode decode
    receive connect disconnect login logout register submit cancel undo redo zoom scroll rotate resize shuffle deal
    turn fall
    sleep wake pause resume quit exit help warn fail loop main work test try use put fill drive go ask tell say list
    clear
    """.split()
)


HUMP = re.compile("[a-z][A-Z]")


def like(file: SourceFile) -> str:
    """A name of the file's own that shows how it writes names of several words; "" where that is as the language has
    it."""
    if "like" not in file.memo:
        names = [f.name for f in file.tops] + [n for n, s in file.scope.symbols.items() if "variable" in s.kinds]
        low = [n for n in names if "_" in n.strip("_") and not n.isupper()]
        file.memo["like"] = low[0] if len(low) > sum(bool(HUMP.search(n)) for n in names) else ""
    return str(file.memo["like"])


RECORDS = frozenset("history log logs queue cache data items list lines result results values".split())
ALONE = 1.9  # a function of one word may speak of a thing


def class_name_for(
    variables: list[str], functions: list[str], write: Text, taken: AbstractSet[str], fallback: str, holder: str = ""
) -> str:
    """The word that most of the names share, else what the functions speak of, else the fallback. ``holder``: the one
    variable that holds many."""
    counts: dict[str, float] = defaultdict(float)
    for name in variables:
        parts = [w.rstrip("0123456789") for w in write.words(name)]
        for place, word in enumerate(parts):
            if len(word) > 2 and word not in VERBS:
                counts[word] += 3 if place == 0 and len(parts) > 1 else 1
    if holder and (words := [w for w in write.words(holder) if len(w) > 2 and w not in VERBS | RECORDS]):
        counts[words[0].rstrip("0123456789")] += ALONE
    for name in functions:
        parts = [w.rstrip("0123456789") for w in write.words(name)]
        for place, word in enumerate(parts):
            if len(word) > 2 and word not in VERBS:
                counts[word] += (
                    (2 if place else 1) if len(parts) > 1 else ALONE
                )  # the first of several says what is done
    best = sorted(counts.items(), key=lambda e: (-e[1], e[0]))
    for word, weight in best:
        name = write.class_name(longest(word, variables, write))
        many = next((v for v in variables if says(v.lower(), {word}) and v.lower() != word), "")
        one = any(write.words(v)[0].lower() == word for v in variables)
        if many and (
            name in taken or not one
        ):  # one of them has a class already, or nothing is known of one: this keeps them all
            name = write.class_name([many])
        if weight >= ALONE and name not in taken and write.is_name(name):
            return str(name)
    return free(write.class_name([fallback]), taken)


def longest(word: str, names: list[str], write: Text) -> list[str]:
    """All the words with which the names begin that begin with this one; each name keeps a word for itself.

    >>> longest("signal", ["signal_box_key", "signal_box_door", "tram_x"], PYTHON)
    ["signal", "box"]
    """
    rows = [[w.rstrip("0123456789") for w in write.words(n)][:-1] for n in names]
    rows = [row for row in rows if row[:1] == [word]]
    found = [words[0] for words in takewhile(lambda words: len(set(words)) == 1 and words[0], zip(*rows, strict=False))]
    return found if len(rows) > 1 else [word]


def file_stem(module: str) -> str:
    """What names made from a file's name begin with: no digit in front, and nothing that a name cannot hold."""
    return re.sub(r"\W+", "_", module).lstrip("_0123456789") or "program"


def free(name: str, taken: AbstractSet[str]) -> str:
    """The name, or the first of it with a number that is not taken."""
    number, found = 2, name
    while found in taken:
        found = f"{name}{number}"
        number += 1
    return found


def member_names(names: Iterable[str], stems: set[str], write: Text, taken: AbstractSet[str]) -> dict[str, str]:
    """Each name without the words that the class says already; a clash keeps the whole name."""
    found: dict[str, str] = {}
    used = set(taken)
    for name in names:
        parts = list(write.words(name))
        kept = [w for w in parts if not says(w, stems)]
        short = write.member_name(kept, name) if kept else name
        if parts == kept or not write.is_name(short) or write.inherited(short):
            short = name.lstrip("_") or name
        if short in used or short == write.RECEIVER:
            short = name.lstrip("_") or name
        while short in used or write.inherited(short):
            short += "_"
        used.add(short)
        found[name] = short
    return found


def says(word: str, stems: set[str]) -> bool:
    """Whether a word is one of the stems, numbered or in the plural."""
    base = word.rstrip("0123456789")
    ones = [base, base.removesuffix("s"), base.removesuffix("es"), base.removesuffix("ies") + "y"]
    return any(one in stems for one in (ones if base.endswith("s") else ones[:1]))


def taken_names(file: SourceFile, builtins: Iterable[str]) -> set[str]:
    """Every name bound or read anywhere in a file, and the builtins."""
    found = set(builtins)
    for scope in file.scope.walk():
        found |= set(scope.symbols)
    return found


def file_for(class_: str, role: str, source: str, write: Text, taken: AbstractSet[str]) -> str:
    """A file of its own beside ``source`` that hides no library module and no file that is there; "" if none can be
    had."""
    folder = source.rpartition("/")[0]
    others = (
        []
        if write.FILE_IS_CLASS
        else [class_ + role.capitalize(), class_ + "Part", *(f"{class_}{n}" for n in range(2, 99))]
    )
    cased = {t.casefold() for t in taken}
    for candidate in (class_, *others):
        path = (folder + "/" if folder else "") + write.file_name(candidate, source)
        stem = write.module_of(path)
        if path.casefold() not in cased and stem not in taken and write.is_name(stem) and not write.hides_library(path):
            return path
    return ""
