"""Run the whole path on scripts that others wrote, and write the tables in docs/real-scripts.md.

    python benchmarks/real_scripts.py [--only WORD] [--language NAME] [--keep FOLDER] [--write]

Each script is copied to a folder of its own, drafted, built with all checks, and compared once more at the end. With ``--write`` the
tables of the languages that were run are replaced.
"""

from __future__ import annotations

import argparse
import json
import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path

import real_curly
import real_python
from real_case import Case

ROOT = Path(__file__).parent.parent
AEDIFEX = [sys.executable, "-m", "aedifex.cli.main"]
IGNORED = "ignore = ['0x[0-9a-f]{8,}']"  # addresses
Row = dict[str, object]


def one(case: Case, folder: Path) -> Row:
    """Draft and build one script in ``folder``; a row of its table."""
    folder.mkdir(parents=True)
    case.lay_out(folder)
    target = folder / case.entry
    design = target.with_suffix(".design.toml")
    row: Row = {"script": case.name, "language": case.language, "lines": target.read_text(errors="replace").count("\n")}
    others = sorted(p for p in folder.rglob(case.beside) if p != target) if case.beside else []
    drafted = aedifex("draft", "-q", str(target), *map(str, others))
    if drafted.returncode:
        return {**row, "why": last_line(drafted.stderr)}
    design = next(iter(folder.rglob("*.design.toml")), design)  # named after the file that people start, which may be another
    if case.runs is None:
        suggested = aedifex("record", "--suggest", str(design))
        if suggested.returncode:
            return {**row, "why": last_line(suggested.stderr)}
    else:
        target.with_suffix(".scenarios.toml").write_text("\n".join(scenarios(case.runs)))
    seen = json.loads(aedifex("preview", "--json", str(design)).stdout)
    built = aedifex("build", "--json", str(design))
    if not built.stdout.strip():
        return {**row, "why": last_line(built.stderr)}
    return {**row, **told(json.loads(built.stdout), seen, design)}


def aedifex(*words: str) -> subprocess.CompletedProcess[str]:
    """The command, in a home of its own: scripts that look around there see the same on every machine."""
    cache = os.environ.get("XDG_CACHE_HOME") or os.path.expanduser("~/.cache")
    with tempfile.TemporaryDirectory() as home:
        return subprocess.run([*AEDIFEX, *words], capture_output=True, text=True, env={**os.environ, "HOME": home, "XDG_CACHE_HOME": cache})


def scenarios(runs: list[tuple[list[str], str]]) -> list[str]:
    return [
        f"[[scenario]]\nname = 'run {number}'\nrun = {json.dumps(['{engine}', '{entry}', *args])}\n"
        f"stdin = {json.dumps(typed)}\nseconds = 60\n{IGNORED}\n"
        for number, (args, typed) in enumerate(runs)
    ]


def told(outcome: dict, seen: dict, design: Path) -> Row:
    checked = aedifex("check", str(design))
    refused = [
        f"{s['id']}: {s['because']}"
        for s in outcome["steps"]
        if s["result"] in ("refused", "wrong", "different", "skipped")
    ]
    stays = [e["why"] for e in tomllib.loads(design.read_text()).get("stay", []) if e["why"] != "constant"]
    stopped = outcome["stopped"]
    return {
        "globals": (seen["before"]["globals"], seen["after"]["globals"]),
        "main": (seen["before"]["main_statements"], seen["after"]["main_statements"]),
        "done": sum(1 for s in outcome["steps"] if s["result"] == "done"), "refused": refused,
        "stays": stays, "same": checked.returncode == 0 and not stopped,
        "why": "; ".join(outcome["difference"][:2]) if stopped else last_line(checked.stderr) if checked.returncode else "",
    }  # fmt: skip


def last_line(text: str) -> str:
    return (text.strip().splitlines() or ["?"])[-1].replace("aedifex: ", "")


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("--only", default="")
    parser.add_argument("--language", default="")
    parser.add_argument("--keep")
    parser.add_argument("--write", action="store_true", help="write docs/real-scripts.md")
    options = parser.parse_args()
    top = Path(options.keep or tempfile.mkdtemp(prefix="aedifex-real-"))
    rows = []
    cache = top / "packages"
    cache.mkdir(parents=True, exist_ok=True)
    found = real_python.cases(cache) if options.language in ("", "Python") else []
    found += real_curly.cases(cache) if options.language != "Python" else []
    for case in found:
        if options.only in case.name and options.language in ("", case.language):
            place = top / f"{case.language}-{case.name}".replace("/", "_").rsplit(".", 1)[0].replace(" ", "_")
            rows.append(one(case, place))
            print(json.dumps(rows[-1]), flush=True)
    if options.write:
        write(rows)
    if not options.keep:
        shutil.rmtree(top)
    return 1 if any(r.get("same") is False for r in rows) else 0


def write(rows: list[Row]) -> None:
    """Replace the sections of the languages that were run."""
    path = ROOT / "docs" / "real-scripts.md"
    parts = path.read_text().split("\n## ")
    kept = {part.split("\n", 1)[0]: part for part in parts[1:]}
    for language in dict.fromkeys(str(r["language"]) for r in rows):
        kept[language] = section(language, [r for r in rows if r["language"] == language])
    text = "\n## ".join([INTRODUCTION, *(p.strip() + "\n" for p in kept.values())])
    path.write_text(text.rstrip() + "\n")


INTRODUCTION = """# Real scripts

Scripts that we did not write, taken as they are, drafted and built with every step checked by running the
program before and after. Made by `make real-scripts`; where they come from stands in `benchmarks/real_*.py`.
"""


def section(language: str, rows: list[Row]) -> str:
    same = sum(1 for r in rows if r.get("same"))
    changed = sum(1 for r in rows if r.get("done"))
    lines = [
        language, "", f"{len(rows)} scripts; {same} built and the same; {changed} of them rearranged.", "",
        "| script | lines | globals | main | steps | refused or staying, and why | same |", "|---|---|---|---|---|---|---|",
    ]  # fmt: skip
    for r in rows:
        if "globals" not in r:
            lines.append(f"| {r['script']} | {r['lines']} | | | | not built: {clean(r['why'])} | - |")
            continue
        (g1, g2), (m1, m2) = r["globals"], r["main"]  # type: ignore[misc]
        reasons = [*r["refused"], *r["stays"]]  # type: ignore[misc]
        why = "; ".join(dict.fromkeys(clean(x) for x in reasons)) or (
            "-" if r["done"] else "no state that functions share, and a short main: nothing to gain"
        )
        lines.append(
            f"| {r['script']} | {r['lines']} | {g1} → {g2} | {m1} → {m2} | {r['done']} | {why} | {'yes' if r['same'] else 'NO'} |"
        )
    return "\n".join(lines) + "\n"


def clean(text: object) -> str:
    """As a table shows it, whoever made it."""
    return str(text).replace(f"{ROOT}/", "").replace("|", "/").replace("\\", "")


if __name__ == "__main__":
    sys.exit(main())
