"""Compare scopes with an analyser of the trade, over the files of npm packages: python benchmarks/scopes_javascript.py FOLDER [COUNT].

FOLDER holds node_modules with ``eslint-scope``, ``espree`` and the packages to read. Two identifiers must stand for one variable
here exactly if they do there.
"""

from __future__ import annotations

import json
import os
import random
import subprocess
import sys
from pathlib import Path

from aedifex.core.languages.javascript.reading.read import read
from aedifex.core.program.errors import AedifexError

OUTSIDE = frozenset({"this", "arguments"})  # given by each function, declared by none
ARGUMENTS = "arguments".encode("utf-16-le")


def ours(text: bytes) -> dict[int, int]:
    """Offset of each identifier → first offset of its variable, in UTF-16 units as the other side counts."""
    file = read("file.js", text)
    if file.problems:
        return {}
    place = (lambda at: at) if text.isascii() else lambda at: len(text[:at].decode("utf-8").encode("utf-16-le")) // 2
    groups: dict[int, list[int]] = {}
    for ref in file.references:
        if ref.name not in OUTSIDE and ref.symbol is not None:
            groups.setdefault(id(ref.symbol), []).append(ref.start)
    return {place(at): place(min(all_)) for all_ in groups.values() for at in all_}


def main() -> int:
    folder = Path(sys.argv[1]).resolve()
    files = sorted(
        p for p in folder.glob("node_modules/**/*.js") if p.stat().st_size < 200_000 and "/test" not in str(p)
    )
    random.Random(3).shuffle(files)
    files = files[: int(sys.argv[2]) if len(sys.argv) > 2 else 600]
    done = subprocess.run(
        ["node", str(Path(__file__).with_name("scopes.cjs"))], input="\n".join(map(str, files)), capture_output=True, text=True,
        env={**os.environ, "PACKAGES": str(folder)}, check=True,
    )  # fmt: skip
    compared = identifiers = wrong = 0
    for line in done.stdout.splitlines():
        name, theirs = json.loads(line)
        if theirs is None:
            continue
        try:
            mine = ours(Path(name).read_bytes())
        except AedifexError:
            continue
        if not mine:
            continue
        theirs = {int(k): v for k, v in theirs.items()}
        text = Path(name).read_bytes().decode("utf-8").encode("utf-16-le")
        theirs = {at: v for at, v in theirs.items() if text[2 * at : 2 * at + 18] != ARGUMENTS}
        shared = mine.keys() & theirs.keys()
        missing = theirs.keys() - mine.keys()
        bad = [at for at in shared if mine[at] != theirs[at]] + sorted(missing)
        compared, identifiers, wrong = compared + 1, identifiers + len(theirs), wrong + len(bad)
        if bad:
            at = min(bad)
            shown = text[2 * max(0, at - 30) : 2 * at + 60].decode("utf-16-le", "replace")
            print(f"{name}: {len(bad)} differ, first at {at}: {shown!r} ours {mine.get(at)} theirs {theirs.get(at)}")
    print(f"{compared} files, {identifiers} identifiers, {wrong} differ")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
