"""What is drafted and built of known programs, as digests: to see what a change of the code changes.

    python benchmarks/golden.py                 # names the programs whose designs or texts are not those that are kept; exit status 1 if any
    python benchmarks/golden.py --accept        # keep what comes out now
    python benchmarks/golden.py --against HEAD  # show what differs from a commit, as a diff
    python benchmarks/golden.py --dump FILE     # write all designs and texts, in full, as JSON

The programs: the demos, the scripts and cases of ``tests/``, and 200 random programs of each language. A design counts as its tables
without their reasons, a text to the byte. No compiler and no program is run. With ``--only WORD`` those whose key holds the word.
"""

from __future__ import annotations

import argparse
import difflib
import hashlib
import json
import os
import subprocess
import sys
import tempfile
import tomllib
import unittest.mock
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parent.parent
sys.path[:0] = [str(ROOT / "tests"), str(ROOT / "tests" / "makers"), str(ROOT / "benchmarks")]

from cases import STEPS, apply, load  # noqa: E402
from random_programs import MAKERS, Program, draft, entry_of, parse, read_program, run, to_toml  # noqa: E402

KEPT = ROOT / "tests" / "golden.json"
DEMOS = ROOT / "src" / "aedifex" / "demo" / "programs"
SCRIPTS = ROOT / "tests" / "scripts"
BESIDE = {"tramsketch.pde": ["conductor.pde"]}
EACH = 200  # random programs of a language
Golden = dict[str, Any]  # "design": its tables, "texts": by file


def keys() -> list[str]:
    found = [f"demo {p.name}" for p in sorted(DEMOS.iterdir()) if p.suffix in (".py", ".js", ".java", ".pde") and p.name != "conductor.pde"]
    found += [f"script {p.name}" for p in sorted(SCRIPTS.glob("*.py")) if not p.stem.endswith("_module")]
    found += [f"case {p.relative_to(STEPS)}" for p in sorted(STEPS.rglob("*.txt"))]
    kinds: dict[str, list[str]] = {}
    for kind, entry in ((kind, entry_of(kind)) for kind in MAKERS):
        kinds.setdefault(entry.rsplit(".", 1)[1].replace("mjs", "js"), []).append(kind)
    for row in kinds.values():
        found += [f"random {kind} {seed}" for kind in row for seed in range(-(-EACH // len(row)))]
    return found


def golden(key: str) -> Golden:
    what, *words = key.split(" ")
    if what == "case":
        texts, refusal = apply(load(STEPS / words[0]))
        return {"design": {}, "texts": texts, "refusal": refusal.split(" ")[0]}
    with tempfile.TemporaryDirectory() as folder:
        program = last = laid_out(key, Path(folder))
        text = to_toml(draft(program))
        for _, after in run(parse("design", text)[0], program):
            last = after
    return {"design": plain(tomllib.loads(text)), "texts": {n: t.decode("utf-8", "replace") for n, t in last.texts.items()}}


def laid_out(key: str, folder: Path) -> Program:
    """A demo, a script or a random program, in a folder, with the files beside it."""
    what, *words = key.split(" ")
    if what == "random":
        names = [entry_of(words[0])]
        (folder / names[0]).write_text(MAKERS[words[0]](int(words[1])).program())
    else:
        place = DEMOS if what == "demo" else SCRIPTS
        names = [words[0], *BESIDE.get(words[0], [])]
        for name in [*names, *(p.name for p in place.glob("*_module.py"))]:
            (folder / name).write_bytes((place / name).read_bytes())
    return read_program(str(folder), names)


def plain(value: Any) -> Any:
    """A design's tables without their reasons."""
    if isinstance(value, dict):
        return {k: plain(v) for k, v in value.items() if k not in ("why", "schema")}
    return [plain(v) for v in value] if isinstance(value, list) else value


def shown(made: Golden) -> str:
    return json.dumps({k: v for k, v in made.items() if k != "texts"}, indent=1) + "".join(f"\n== {n}\n{t}" for n, t in sorted(made["texts"].items()))


def all_of(wanted: list[str]) -> dict[str, Golden]:
    with ProcessPoolExecutor(os.cpu_count(), initializer=uncompiled) as pool:
        return dict(zip(wanted, pool.map(golden, wanted, chunksize=8), strict=True))


def uncompiled() -> None:
    unittest.mock.patch("aedifex.core.apply.verify.new_problems", return_value=[]).start()


def digest(made: Golden) -> str:
    return hashlib.sha256(shown(made).encode()).hexdigest()[:16]


def of_commit(commit: str, only: str) -> dict[str, Golden]:
    """What a commit makes of its own programs."""
    with tempfile.TemporaryDirectory() as place:
        tree, out = os.path.join(place, "tree"), os.path.join(place, "golden.json")
        subprocess.run(["git", "worktree", "add", "--quiet", "--detach", tree, commit], cwd=ROOT, check=True)
        try:
            command = [sys.executable, "benchmarks/golden.py", "--dump", out, "--only", only]
            subprocess.run(command, cwd=tree, check=True, env={**os.environ, "PYTHONPATH": os.path.join(tree, "src")})
            found: dict[str, Golden] = json.loads(Path(out).read_text())
            return found
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", tree], cwd=ROOT, check=True)


def differences(was: dict[str, Golden], now: dict[str, Golden]) -> Iterator[str]:
    for key in sorted(was.keys() | now.keys()):
        a, b = (shown(side[key]).splitlines() if key in side else [] for side in (was, now))
        yield from difflib.unified_diff(a, b, f"{key} before", f"{key} now", lineterm="")


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--accept", action="store_true")
    parser.add_argument("--against", metavar="COMMIT")
    parser.add_argument("--dump", metavar="FILE")
    parser.add_argument("--only", metavar="WORD", default="")
    options = parser.parse_args()
    now = all_of([k for k in keys() if options.only in k])
    if options.dump:
        Path(options.dump).write_text(json.dumps(now))
        return 0
    if options.against:
        lines = list(differences(of_commit(options.against, options.only), now))
        print("\n".join(lines) or "nothing differs")
        return 1 if lines else 0
    kept = json.loads(KEPT.read_text()) if KEPT.exists() else {}
    found = {k: digest(made) for k, made in now.items()}
    if options.accept:
        KEPT.write_text(json.dumps({**(kept if options.only else {}), **found}, indent=0, sort_keys=True) + "\n")
        return 0
    other = [k for k in found if kept.get(k) != found[k]] + [k for k in kept if options.only in k and k not in found]
    print("\n".join(other) or f"{len(found)} programs, nothing differs")
    return 1 if other else 0


if __name__ == "__main__":
    sys.exit(main())
